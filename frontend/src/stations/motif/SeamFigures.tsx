import { useOpenMotif } from "./openMotif";

/** How far both edges differ, and what that means. */
export function SeamFigures() {
  const { seam } = useOpenMotif().bench;
  const sound = seam.mismatch_mm <= 0.1 && seam.slope_deg <= 15 && seam.delta_e <= 2;
  const apart = seam.filled_mm < 0.5 * seam.inside_mm;
  const verdict = apart
    ? "Little reaches the edges: the pieces only touch there."
    : sound
      ? "The edges meet."
      : "The edges do not meet: move a tape, find the best cut, or darn.";
  return (
    <>
      <dl className="grid w-max grid-cols-[auto_auto] gap-x-2 leading-snug" data-testid="seam-figures">
        {[
          ["edges differ by", `${seam.mismatch_mm.toFixed(2)} mm`],
          ["angle differs by", `${seam.slope_deg.toFixed(0)}°`],
          ["colour differs by", `ΔE ${seam.delta_e.toFixed(1)}`],
        ].map(([words, value]) => (
          <div key={words} className="contents">
            <dt className="text-moss">{words}</dt>
            <dd className="font-bold tabular-nums">{value}</dd>
          </div>
        ))}
      </dl>
      <p className="mb-1.5 text-[12.5px] text-moss">{verdict}</p>
    </>
  );
}
