import type { View } from "../../shared/view/view";
import { useOpenMotif } from "./openMotif";
import { frameTool, type FrameSide } from "./tools/cut";
import { useTool } from "./tools/tool";
import { round } from "./view";

/** The handle on one side of the frame. */
export function FrameSideMark({ side, view, edges }: { side: FrameSide; view: View; edges: number[] }) {
  const { bench, edit } = useOpenMotif();
  const { motif } = bench;
  const upright = side === "left_mm" || side === "right_mm";
  const tool = frameTool(side, motif, edges, view.scale);
  const handle = useTool(tool, edit);
  const x = view.x + (side === "right_mm" ? motif.width_mm : side === "left_mm" ? 0 : motif.width_mm / 2) * view.scale;
  const y = view.y + (side === "bottom_mm" ? motif.height_mm : side === "top_mm" ? 0 : motif.height_mm / 4) * view.scale;
  return (
    <g
      {...handle}
      role="slider"
      aria-label={`Frame, ${side.replace("_mm", "")}`}
      aria-valuenow={round(tool.begin()[side], 2)}
      className={`pointer-events-auto ${upright ? "cursor-ew-resize" : "cursor-ns-resize"}`}
    >
      <rect x={x - 10} y={y - 10} width={20} height={20} fill="transparent" />
      <path
        d={upright ? `M${x - 3} ${y - 7}v14M${x + 3} ${y - 7}v14` : `M${x - 7} ${y - 3}h14M${x - 7} ${y + 3}h14`}
        stroke="var(--color-indigo)"
        strokeWidth="2"
        strokeLinecap="round"
      />
    </g>
  );
}
