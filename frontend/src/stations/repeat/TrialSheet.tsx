import { memo } from "react";
import type { Motif } from "../../shared/api/client";
import type { Scene } from "../../shared/api/scenes";
import { Caution, Sound } from "../../shared/ui/Findings";
import { TrialScene } from "./TrialScene";

interface Props {
  trials: Scene[];
  motif: Motif;
  box: [number, number];
  night: boolean;
  onOpen: (key: string) => void;
  /** How many round steps wider than usual the sheets are: more of the brush, seen from further away. */
  step: number;
  onStep: (step: number) => void;
}

export const TrialSheet = memo(TrialSheetNow);

function TrialSheetNow({ trials, motif, box, night, onOpen, step, onStep }: Props) {
  const faulty = trials.filter((t) => t.findings.length || t.refused).length;
  return (
    <>
      <header className="mb-1.5 flex items-baseline gap-3">
        <h2 className="text-[15px]">Trial lines</h2>
        <p className="text-[12.5px] text-moss">
          {faulty ? `${faulty} of ${trials.length} have findings.` : `All ${trials.length} join cleanly.`} Press one to see it large.
        </p>
        <span className="ml-auto flex items-baseline gap-1 text-[12.5px] text-moss">
          Each {box[0]} mm wide
          <button className="plain-button px-1.5 py-0" disabled={step <= -2} onClick={() => onStep(step - 1)}>
            closer
          </button>
          <button className="plain-button px-1.5 py-0" disabled={step >= 8} onClick={() => onStep(step + 1)}>
            further
          </button>
        </span>
      </header>
      <ul className="grid min-h-0 flex-1 grid-cols-4 grid-rows-2 gap-x-px gap-y-1">
        {trials.map((trial) => {
          const sound = !trial.findings.length && !trial.refused;
          return (
            <li key={trial.key} className="flex min-h-0 min-w-0 flex-col">
              <button
                aria-label={`${trial.name}: ${trial.refused ?? trial.verdict}`}
                className={`min-h-0 flex-1 border border-rule hover:border-loden ${night ? "weave-night" : "bg-work"}`}
                onClick={() => onOpen(trial.key)}
              >
                <TrialScene scene={trial} motif={motif} box={box} night={night} />
              </button>
              <p className="flex items-start gap-1.5 px-1 pt-0.5 text-[12px] leading-tight" data-testid={`verdict-${trial.key}`}>
                {sound ? <Sound size={12} /> : <Caution size={12} />}
                <span className="line-clamp-2 min-h-[30px]">
                  <b>{trial.name}</b> {trial.refused ?? trial.verdict}
                </span>
              </p>
            </li>
          );
        })}
      </ul>
    </>
  );
}
