import { useLaidPage } from "./laidPage";
import { useLineHands } from "./useLineHands";

/** The first step on an empty page. */
export function FirstLine() {
  const { workshop, brushId, page } = useLaidPage();
  const { draw } = useLineHands();
  if (!brushId) return <p className="mb-2 text-moss">There is no brush to draw with yet. Make one at the Motif station.</p>;
  const [w, h] = [page.width_mm, page.height_mm];
  const wave = {
    kind: "path" as const,
    d: `M${0.1 * w} ${h / 2}C${0.3 * w} ${0.2 * h} ${0.45 * w} ${0.2 * h} ${0.5 * w} ${h / 2}S${0.7 * w} ${0.8 * h} ${0.9 * w} ${h / 2}`,
  };
  return (
    <div className="mb-2">
      <p className="mb-2">
        Press <b>By hand</b> and pull across the sheet, or begin with a sample.
      </p>
      <button className="firm-button" onClick={() => draw(wave, "Sample wave")}>
        Lay {workshop.brushes.find((b) => b.id === brushId)?.name} on a wave
      </button>
    </div>
  );
}
