import type { Brush } from "../../shared/api/client";
import { NAMES } from "./pieceNames";
import { useMakePiece } from "./useMakePiece";

const ENDS = [
  ["half of it", "half"],
  ["mirrored", "mirror"],
  ["turned", "turned"],
  ["the same", "same"],
] as const;

/** Ways to make a brush's start or end piece of its repeat. */
export function MakePiece({ brush, role, onMade }: { brush: Brush; role: "start" | "end"; onMade: () => void }) {
  const make = useMakePiece(brush);
  return (
    <p className="mt-1 text-[12.5px]">
      Make the {NAMES[role]} from the repeat:{" "}
      {ENDS.map(([words, way]) => (
        <button key={way} className="thread-word mr-2" onClick={() => make(role, way, onMade)}>
          {words}
        </button>
      ))}
    </p>
  );
}
