import type { Scene } from "../../shared/api/scenes";
import { Caution, Sound } from "../../shared/ui/Verdict";
import { useBench } from "./bench";
import { useLaidBench, useOpenBench } from "./openBench";

/** The place of one trial line on the sheet, to be pressed, and what is found on it. */
export function TrialCell({ trial }: { trial: Scene }) {
  const { ground } = useOpenBench();
  const { beside } = useLaidBench();
  const open = useBench((bench) => bench.open);
  const sound = !trial.findings.length && !trial.refused;
  return (
    <li className="flex min-h-0 min-w-0 flex-col">
      <button
        aria-label={`${trial.name}: ${trial.refused ?? trial.verdict}`}
        className={`min-h-0 flex-1 border border-rule hover:border-loden ${ground.night || ground.style ? ground.weave : "bg-work"}`}
        style={ground.style}
        onClick={() => open(trial.key)}
      >
        <span data-testid={`trial-${trial.key}`} data-pieces={trial.pieces} className="block h-full w-full" />
      </button>
      <p
        className="flex [contain:content] items-start gap-1.5 px-1 pt-0.5 text-[12px] leading-tight"
        data-testid={`verdict-${trial.key}`}
      >
        {sound ? <Sound size={12} /> : <Caution size={12} />}
        <span className="line-clamp-2 min-h-[30px]">
          <b>{trial.name}</b>
          {trial.moved && ", moved"} {trial.refused ?? trial.verdict}
          {beside.has(trial.key) && ` · aside: ${beside.get(trial.key)!.refused ?? beside.get(trial.key)!.verdict}`}
        </span>
      </p>
    </li>
  );
}
