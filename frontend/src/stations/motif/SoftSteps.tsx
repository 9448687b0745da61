import { NumberField } from "../../shared/ui/NumberField";
import { useOpenMotif } from "./openMotif";
import { Row } from "./Row";

/** The steps of a soft edge: how many, how far neighbours differ, what they cost. */
export function SoftSteps({ group }: { group: number }) {
  const { bench, edit, parts } = useOpenMotif();
  const grading = bench.gradings.find((each) => each.group === group);
  const recipe = bench.motif.recipes.find((each) => each.group === group && each.kind === "soft_edge");
  const byHand = recipe ? Number(recipe.figures.steps) : 0;
  if (!grading) return null;
  return (
    <>
      <p className="mb-2" data-testid="grading">
        <b>{grading.steps} steps</b>, neighbours differ by at most ΔE {grading.largest_difference.toFixed(2)}
        {grading.largest_difference <= 1 ? ", which cannot be seen" : ""}. They cost {grading.points} of the motif’s{" "}
        {bench.weight.points} points.
      </p>
      <Row words="Steps between">
        <NumberField
          compact
          label="steps"
          unit=""
          step={1}
          decimals={0}
          value={byHand || grading.steps}
          onDrag={(v) => edit.show({ op: "figures", group, figures: { steps: Math.max(1, Math.round(v)) } })}
          onSet={(v) =>
            edit.keep(
              { op: "figures", group, figures: { steps: Math.max(1, Math.round(v)) } },
              { label: `soft edge in ${Math.round(v)} steps`, merge_key: "steps" },
            )
          }
          onLeave={edit.drop}
        />
        <button
          className="plain-button"
          disabled={byHand === 0}
          onClick={() => edit.keep({ op: "figures", group, figures: { steps: 0 } }, { label: "soft edge, steps unseen" })}
        >
          The fewest that cannot be seen
        </button>
        <button className="plain-button" onClick={() => edit.keep({ op: "ungroup", parts })}>
          Make plain parts of the steps
        </button>
      </Row>
      <p className="text-[12.5px] text-moss">
        Pull the densest shape, or choose another in the list (pressed again, it alone is chosen): the steps follow. More steps
        are smoother and heavier.
      </p>
    </>
  );
}
