import { HeavyWarning } from "./HeavyWarning";
import { useOpenMotif } from "./openMotif";
import { PaintPanel } from "./PaintPanel";
import { PointsPanel } from "./PointsPanel";
import { SeamPanel } from "./SeamPanel";
import { ShapesPanel } from "./ShapesPanel";
import { SoftPanel } from "./SoftPanel";
import type { Tab } from "./types";
import { useWork } from "./work";

const TABS: [Tab, string, () => React.ReactNode][] = [
  ["cut", "Cut and frame", SeamPanel],
  ["shapes", "Shapes", ShapesPanel],
  ["points", "Points", PointsPanel],
  ["paint", "Paint", PaintPanel],
  ["soft", "Soft edge", SoftPanel],
];

/** What can be done with the motif, one question open at a time. */
export function Questions() {
  const { bench, edit } = useOpenMotif();
  const tab = useWork((work) => work.tab);
  const open = useWork((work) => work.open);
  const [, name, Panel] = TABS.find(([key]) => key === tab)!;
  return (
    <>
      <nav aria-label="Work on the motif" className="flex h-[36px] shrink-0 items-center gap-6 border-t border-rule px-5">
        {TABS.map(([key, words]) => (
          <button
            key={key}
            aria-current={tab === key || undefined}
            className="border-b-2 border-transparent pb-0.5 hover:border-rule aria-[current]:border-madder aria-[current]:font-semibold"
            onClick={() => open(key)}
          >
            {words}
          </button>
        ))}
        {edit.refusal && (
          <span role="alert" className="ml-auto truncate text-[12.5px] text-madder">
            {edit.refusal}.
          </span>
        )}
      </nav>
      <section aria-label={name} className="h-[236px] shrink-0 border-t border-rule bg-work px-5 pt-2 pb-2">
        {bench.weight.warning && <HeavyWarning />}
        <Panel />
      </section>
    </>
  );
}
