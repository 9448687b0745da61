import type { Line } from "../../shared/api/client";
import { useLaidPage } from "./laidPage";
import { useDealAgain } from "./useDealAgain";

/** The arrangement of a line whose brush leaves something to chance: its brush's, or one of its own. */
export function Dealt({ line }: { line: Line }) {
  const { changes } = useLaidPage();
  const { chance, arrangement, again } = useDealAgain(line);
  if (!chance) return null;
  return (
    <div className="mt-1.5 flex items-center gap-2 text-[12.5px]">
      <span className="text-moss">Arrangement</span>
      <span className="font-semibold" data-testid="arrangement">
        {arrangement}
      </span>
      <button className="plain-button px-1.5 py-0" onClick={again}>
        Deal again
      </button>
      {line.arrangement !== null && (
        <button
          className="thread-word"
          onClick={() => changes.change.mutate({ line, arrangement: "own", label: `${line.name} dealt as its brush` })}
        >
          as its brush
        </button>
      )}
    </div>
  );
}
