import type { View } from "../../shared/view/view";
import { useOpenMotif } from "./openMotif";
import { baseLineTool } from "./tools/cut";
import { useTool } from "./tools/tool";
import { round } from "./view";

/** The height at which the motif lies on the line. */
export function BaseLine({ view, edges }: { view: View; edges: number[] }) {
  const { bench, edit } = useOpenMotif();
  const base = bench.motif.base_line_mm;
  const y = view.y + base * view.scale;
  const handle = useTool(baseLineTool(base, edges, view.scale), edit);
  return (
    <g
      {...handle}
      role="slider"
      aria-label="Base line"
      aria-valuenow={round(base, 2)}
      aria-valuetext={`${base.toFixed(2)} mm from the top`}
      className="pointer-events-auto cursor-ns-resize"
    >
      <rect x={12} y={y - 12} width={142} height={24} rx={2} fill="var(--color-madder)" />
      <text x={22} y={y + 4.5} fill="#fff" fontSize="12.5" className="font-semibold">
        base line {base.toFixed(2)} mm
      </text>
    </g>
  );
}
