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
    <header className="mb-1.5 flex items-baseline gap-3 whitespace-nowrap">
      <h2 className="text-[15px]">Trial lines</h2>
      <p className="min-w-0 truncate text-[12.5px] text-moss">
        {beside.size
          ? "Left as it is now, right what was kept aside."
          : faulty
            ? `${faulty} of ${trials.length} have findings.`
            : `All ${trials.length} ${trials.some(({ loose }) => loose) ? "are clean" : "join cleanly"}.`}
        {!beside.size && <span className="max-[1150px]:hidden"> Press one to see it large.</span>}
      </p>
      <span className="ml-auto flex items-baseline gap-1 text-[12.5px] text-moss">
        <PinMenu />
        <Aside />
        <span className="ml-2">
          <span className="max-[1150px]:hidden">Each</span> {width} mm <span className="max-[1150px]:hidden">wide</span>
        </span>
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
