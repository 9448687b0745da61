import { useOpenMotif } from "./openMotif";

/** A motif that is heavy to lay, with what makes it lighter. */
export function HeavyWarning() {
  const { bench, edit } = useOpenMotif();
  const { weight, motif } = bench;
  return (
    <p className="mb-1.5 border-l-[3px] border-weld bg-weld-wash px-3 py-1">
      Heavy: {weight.warning}.{" "}
      {weight.thin_mm !== null && (
        <button
          className="thread-word"
          onClick={() =>
            edit.keep(
              { op: "thin", parts: motif.shapes.flatMap((s, i) => (s.derived ? [] : [i])), tolerance_mm: weight.thin_mm! },
              { label: `thin within ${weight.thin_mm} mm` },
            )
          }
        >
          Thin within {weight.thin_mm} mm{weight.thin_points !== null ? `, ${weight.thin_points} points left` : ""}
        </button>
      )}
      {weight.pixels_to !== null && (
        <button
          className="thread-word"
          onClick={() => edit.keep({ op: "lighten", width_px: weight.pixels_to! }, { label: "lighter picture" })}
        >
          Scale the picture to {weight.pixels_to} pixels across
        </button>
      )}
    </p>
  );
}
