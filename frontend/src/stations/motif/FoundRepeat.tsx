import type { Schemas } from "../../shared/api/client";
import { takeFocus } from "../../shared/ui/keys";
import { useOpenMotif } from "./openMotif";
import { round } from "./view";

/** The lengths at which a drawing repeats; press one to cut there. */
export function FoundRepeat({ found }: { found: Schemas["FoundRepeatMessage"] }) {
  const { edit } = useOpenMotif();
  return (
    <p className="mt-1.5 text-[12.5px]" data-testid="found-repeat">
      It repeats every{" "}
      <button
        ref={takeFocus} // it was asked for, and Enter takes it
        className="thread-word"
        onClick={() => edit.keep({ op: "cut_to_length", length_mm: round(found.length_mm, 4) })}
      >
        {found.length_mm.toFixed(2)} mm
      </button>{" "}
      ({Math.round(found.strength * 100)} % alike)
      {found.second_mm !== null && (
        <>
          , else every{" "}
          <button
            className="thread-word"
            onClick={() => edit.keep({ op: "cut_to_length", length_mm: round(found.second_mm!, 4) })}
          >
            {found.second_mm.toFixed(2)} mm
          </button>{" "}
          ({Math.round((found.second_strength ?? 0) * 100)} %)
        </>
      )}
      . Press one to cut there.
    </p>
  );
}
