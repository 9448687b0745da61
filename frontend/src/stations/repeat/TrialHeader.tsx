import { useBench } from "./bench";
import { Aside } from "./Aside";
import { useLaidBench } from "./openBench";
import { PinMenu } from "./PinMenu";

/** How many trial lines join cleanly, and what else can be done with the sheet. */
export function TrialHeader({ width }: { width: number }) {
  const { trials, beside } = useLaidBench();
  const step = useBench((bench) => bench.step);
  const stepTo = useBench((bench) => bench.stepTo);
  const faulty = trials.filter((trial) => trial.findings.length || trial.refused).length;
  return (
    <header className="mb-1.5 flex items-baseline gap-3">
      <h2 className="text-[15px]">Trial lines</h2>
      <p className="text-[12.5px] text-moss">
        {beside.size
          ? "Left as it is now, right what was kept aside."
          : `${faulty ? `${faulty} of ${trials.length} have findings` : `All ${trials.length} join cleanly`}. Press one to see it large.`}
      </p>
      <span className="ml-auto flex items-baseline gap-1 text-[12.5px] text-moss">
        <PinMenu />
        <Aside />
        <span className="ml-2">Each {width} mm wide</span>
        <button className="plain-button px-1.5 py-0" disabled={step <= -2} onClick={() => stepTo(step - 1)}>
          closer
        </button>
        <button className="plain-button px-1.5 py-0" disabled={step >= 8} onClick={() => stepTo(step + 1)}>
          further
        </button>
      </span>
    </header>
  );
}
