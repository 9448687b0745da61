import { useOpenMotif } from "./openMotif";
import { PartList } from "./PartList";
import { SoftBegin } from "./SoftBegin";
import { SoftSteps } from "./SoftSteps";

/** Graded steps between nested parts, by hand or the fewest that cannot be seen, with what they cost. */
export function SoftPanel() {
  const { bench, parts } = useOpenMotif();
  const group = bench.motif.shapes[parts[0]]?.group ?? 0;
  const graded = bench.motif.recipes.some((recipe) => recipe.group === group && recipe.kind === "soft_edge");
  return (
    <div className="flex h-full gap-5">
      <PartList />
      <div className="min-w-0 flex-1 overflow-y-auto">{graded ? <SoftSteps group={group} /> : <SoftBegin />}</div>
    </div>
  );
}
