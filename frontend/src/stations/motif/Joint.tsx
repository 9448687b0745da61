import type { View } from "../../shared/view/view";
import { useOpenMotif } from "./openMotif";
import { jointsOf, jointTool } from "./tools/cut";
import { useTool } from "./tools/tool";
import { round } from "./view";

/** Where a link hangs on its neighbour. */
export function Joint({ i, view }: { i: 0 | 1; view: View }) {
  const { bench, edit } = useOpenMotif();
  const joints = jointsOf(bench.motif);
  const [cx, cy] = [view.x + joints[i][0] * view.scale, view.y + joints[i][1] * view.scale];
  const handle = useTool(jointTool(i, joints, view.scale), edit);
  return (
    <g
      {...handle}
      role="slider"
      aria-label={i ? "Right joint" : "Left joint"}
      aria-valuenow={round(joints[i][0], 2)}
      aria-valuetext={`${joints[i][0].toFixed(2)}, ${joints[i][1].toFixed(2)} mm`}
      className="pointer-events-auto cursor-move"
    >
      <circle cx={cx} cy={cy} r="11" fill="transparent" />
      <circle cx={cx} cy={cy} r="6" fill="#fff" stroke="var(--color-madder)" strokeWidth="2" />
    </g>
  );
}
