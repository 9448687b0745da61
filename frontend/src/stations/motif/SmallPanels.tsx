import { useState } from "react";
import type { Motif, MotifBench } from "../../shared/api/client";
import { NumberField } from "../../shared/ui/NumberField";
import { PartList } from "./PartList";
import { Row } from "./Row";
import type { MotifEdit } from "./useMotifEdit";
import { round, type ChooseParts } from "./view";

interface PointsProps {
  bench: MotifBench;
  edit: MotifEdit;
  parts: number[];
  onParts: ChooseParts;
  nodes: number[];
  onNodes: (nodes: number[]) => void;
  contour: number;
}

/** The points of one part: flowing or pointed, added, removed, squashed, set by figures. */
export function PointsPanel({ bench, edit, parts, onParts, nodes, onNodes, contour }: PointsProps) {
  const own = bench.contours?.[contour];
  const [squash, setSquash] = useState(50);
  const part = parts[0];
  const chosen = own && nodes.every((n) => n < own.at.length) ? nodes : [];
  const at = own && chosen.length === 1 ? own.at[chosen[0]] : null;
  const last = own ? (own.closed ? own.at.length : own.at.length - 1) : 0;
  const button = (words: string, enabled: boolean, act: () => void) => (
    <button className="plain-button px-2 py-0.5" disabled={!enabled || edit.busy} onClick={act}>
      {words}
    </button>
  );
  const on = { part, contour, nodes: chosen };
  return (
    <div className="flex h-full gap-5">
      <PartList bench={bench} parts={parts} onParts={(next) => onParts(next.slice(0, 1))} />
      <div className="min-w-0 flex-1 overflow-y-auto">
        <p className="mb-2 text-moss">
          {parts.length !== 1
            ? "Press one part to see its points."
            : `${bench.contours?.reduce((n, c) => n + c.at.length, 0) ?? 0} points. Pull a point or a handle; press a side twice to ` +
              "add a point. Round points flow, three-cornered ones are pointed."}
        </p>
        <Row words={chosen.length ? `${chosen.length} chosen` : "None chosen"}>
          {button("Flowing", chosen.length > 0, () =>
            edit.keep({ op: "flow", ...on, flowing: true }, { label: "flowing points" }),
          )}
          {button("Pointed", chosen.length > 0, () =>
            edit.keep({ op: "flow", ...on, flowing: false }, { label: "pointed points" }),
          )}
          {button("Add one after", chosen.length === 1 && chosen[0] < last, () =>
            edit.keep({ op: "add_node", part, contour, side: chosen[0], at: 0.5 }),
          )}
          {button("Remove", chosen.length > 0, () => edit.keep({ op: "remove_nodes", ...on }, { then: () => onNodes([]) }))}
          {button("All of this outline", !!own, () => onNodes(own!.at.map((_, i) => i)))}
        </Row>
        <Row words="Squash">
          <NumberField compact label="to" unit="%" step={10} decimals={0} value={squash} standard={50} onSet={setSquash} />
          {button("across", chosen.length > 1, () => edit.keep({ op: "squash", ...on, along_pct: 100, across_pct: squash }))}
          {button("along", chosen.length > 1, () => edit.keep({ op: "squash", ...on, along_pct: squash, across_pct: 100 }))}
        </Row>
        {at && (
          <Row words="This point lies at">
            <NumberField
              compact
              label="From the left"
              unit="mm"
              step={0.1}
              decimals={3}
              value={at[0]}
              onSet={(v) => edit.keep({ op: "move_nodes", ...on, dx_mm: round(v - at[0], 4), dy_mm: 0 })}
            />
            <NumberField
              compact
              label="From the top"
              unit="mm"
              step={0.1}
              decimals={3}
              value={at[1]}
              onSet={(v) => edit.keep({ op: "move_nodes", ...on, dx_mm: 0, dy_mm: round(v - at[1], 4) })}
            />
          </Row>
        )}
      </div>
    </div>
  );
}

interface SoftProps {
  bench: MotifBench;
  edit: MotifEdit;
  parts: number[];
  onParts: ChooseParts;
}

/** Graded steps between nested parts, by hand or the fewest that cannot be seen, with what they cost. */
export function SoftPanel({ bench, edit, parts, onParts }: SoftProps) {
  const [steps, setSteps] = useState(10);
  const group = bench.motif.shapes[parts[0]]?.group ?? 0;
  const grading = bench.gradings.find((g) => g.group === group);
  const recipe = bench.motif.recipes.find((r) => r.group === group && r.kind === "soft_edge");
  /** The densest shape alone, to be pulled next. */
  const innermost = (after: Motif): void =>
    onParts([after.shapes.map((s) => s.group === after.recipes.at(-1)?.group && !s.derived).lastIndexOf(true)], after);
  const byHand = recipe ? Number(recipe.figures.steps) : 0;
  return (
    <div className="flex h-full gap-5">
      <PartList bench={bench} parts={parts} onParts={onParts} />
      <div className="min-w-0 flex-1 overflow-y-auto">
        {!recipe && (
          <>
            <p className="mb-2 text-moss">
              {parts.length < 2
                ? "Choose two or more nested parts (Shift adds one): the lowest is the rim, the topmost the densest place, " +
                  "which may lie anywhere inside."
                : `${parts.length} parts chosen. Each keeps its own colour and cover; steps are laid between.`}
            </p>
            {parts.length === 1 && (
              <Row words="A first one">
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
                onClick={() =>
                  edit.keep({ op: "soft_edge", parts, steps }, { label: `soft edge in ${steps} steps`, then: innermost })
                }
              >
                Grade in {steps} steps
              </button>
              <button
                className="firm-button"
                disabled={parts.length < 2 || edit.busy}
                onClick={() =>
                  edit.keep({ op: "soft_edge", parts, steps: 0 }, { label: "soft edge, steps unseen", then: innermost })
                }
              >
                The fewest that cannot be seen
              </button>
            </Row>
          </>
        )}
        {recipe && grading && (
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
              Pull the densest shape, or choose another in the list (pressed again, it alone is chosen): the steps follow. More
              steps are smoother and heavier.
            </p>
          </>
        )}
      </div>
    </div>
  );
}
