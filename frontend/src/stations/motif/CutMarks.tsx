import type { View } from "../../shared/view/view";
import { BaseLine } from "./BaseLine";
import { FrameSideMark } from "./FrameSideMark";
import { Joint } from "./Joint";
import { useOpenMotif } from "./openMotif";
import { Tape } from "./Tape";
import { edgesOf, type FrameSide } from "./tools/cut";

const RAIL = 34;
const SIDES: FrameSide[] = ["left_mm", "right_mm", "top_mm", "bottom_mm"];

/** What cuts and frames the motif, to be dragged: two tapes on a rail, the base line, both joints, the frame's sides. */
export function CutMarks({ view, size }: { view: View; size: { width: number; height: number } }) {
  const { bench, edit } = useOpenMotif();
  const { across, down } = edgesOf((edit.standing ?? bench).motif); // what is in the hand snaps to what is kept
  if (size.height < 100) return null;
  return (
    <g>
      <path d={`M0 ${RAIL}H${size.width}`} stroke="var(--color-moss)" strokeWidth="1.4" />
      {([0, 1] as const).map((i) => (
        <Tape key={i} i={i} view={view} top={RAIL} foot={size.height - 34} edges={across} />
      ))}
      {SIDES.map((side) => (
        <FrameSideMark key={side} side={side} view={view} edges={side === "left_mm" || side === "right_mm" ? across : down} />
      ))}
      <BaseLine view={view} edges={down} />
      {([0, 1] as const).map((i) => (
        <Joint key={i} i={i} view={view} />
      ))}
    </g>
  );
}
