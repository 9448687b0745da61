import { useState } from "react";
import type { Motif } from "../../shared/api/client";
import { NumberField } from "../../shared/ui/NumberField";
import { useOpenMotif } from "./openMotif";
import { Row } from "./Row";

/** Choose nested parts and lay graded steps between them. */
export function SoftBegin() {
  const { edit, parts, choose: onParts } = useOpenMotif();
  const [steps, setSteps] = useState(10);
  /** The densest shape alone, to be pulled next. */
  const innermost = (after: Motif): void =>
    onParts([after.shapes.map((s) => s.group === after.recipes.at(-1)?.group && !s.derived).lastIndexOf(true)], after);
  return (
    <>
      <p className="mb-2 text-moss">
        {parts.length < 2
          ? "Choose two or more nested parts (Shift adds one): the lowest is the rim, the topmost the densest place, " +
            "which may lie anywhere inside."
          : `${parts.length} parts chosen. Each keeps its own colour and cover; steps are laid between.`}
      </p>
      {parts.length > 0 && (
        <Row words="In one press">
          <button
            className={parts.length === 1 ? "firm-button" : "plain-button"}
            disabled={edit.busy}
            onClick={() => edit.keep({ op: "dense_to_clear", parts }, { label: "dense to clear", then: innermost })}
          >
            Dense to clear
          </button>
          <span className="text-[12.5px] text-moss">
            {parts.length === 1 ? "it fades" : "each fades"} from its middle to nothing at its rim
          </span>
        </Row>
      )}
      {parts.length === 1 && (
        <Row words="By hand">
          <button
            className="plain-button"
            disabled={edit.busy}
            onClick={() =>
              edit.keep(
                { op: "duplicate", parts, dx_mm: 0, dy_mm: 0, copies: 1, turn_deg: 0, scale: 0.5, about_mm: null },
                { label: "a smaller one inside", then: (after) => onParts([...parts, after.shapes.length - 1], after) },
              )
            }
          >
            Put a smaller one inside
          </button>
          <span className="text-[12.5px] text-moss">
            then give it its own colour under Paint, and pull it where it is densest
          </span>
        </Row>
      )}
      <Row words="Steps between">
        <NumberField
          compact
          label="steps"
          unit=""
          step={1}
          decimals={0}
          value={steps}
          standard={10}
          onSet={(v) => setSteps(Math.round(v))}
        />
        <button
          className="plain-button"
          disabled={parts.length < 2 || edit.busy}
          onClick={() => edit.keep({ op: "soft_edge", parts, steps }, { label: `soft edge in ${steps} steps`, then: innermost })}
        >
          Grade in {steps} steps
        </button>
        <button
          className={parts.length < 2 ? "plain-button" : "firm-button"}
          disabled={parts.length < 2 || edit.busy}
          onClick={() => edit.keep({ op: "soft_edge", parts, steps: 0 }, { label: "soft edge, steps unseen", then: innermost })}
        >
          The fewest that cannot be seen
        </button>
      </Row>
    </>
  );
}
