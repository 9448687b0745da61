import { useOpenMotif } from "./openMotif";
import { pullTool, type Contour } from "./tools/points";
import { useTool } from "./tools/tool";
import { round } from "./view";

interface Props {
  own: Contour;
  part: number;
  contour: number;
  node: number;
  side: "into" | "out";
  scale: number;
  px: (place: number[]) => [number, number];
}

/** The handle of a chosen point, where it has one. */
export function PullMark({ own, part, contour, node: i, side, scale, px }: Props) {
  const { edit } = useOpenMotif();
  const place = own[side][i];
  const at = own.at[i];
  const handle = useTool(pullTool({ part, contour }, i, side, place, scale), edit);
  if (!place || !at || Math.hypot(place[0] - at[0], place[1] - at[1]) < 1e-6) return null;
  const [x, y] = px(place);
  return (
    <g
      {...handle}
      role="slider"
      aria-label={`Handle ${side === "into" ? "before" : "after"} point ${i + 1}`}
      aria-valuenow={round(place[0], 2)}
      className="pointer-events-auto cursor-move"
      onPointerDown={(event) => {
        event.stopPropagation();
        handle.onPointerDown(event);
      }}
    >
      <path d={`M${px(at).join(" ")}L${x} ${y}`} stroke="var(--color-madder)" strokeWidth="1" />
      <circle cx={x} cy={y} r="9" fill="transparent" />
      <path d={`M${x - 4} ${y}h8M${x} ${y - 4}v8`} stroke="var(--color-madder)" strokeWidth="2" />
    </g>
  );
}
