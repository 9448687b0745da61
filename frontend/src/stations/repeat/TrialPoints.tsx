import { useHandle } from "../../shared/ui/handle";
import { fitView } from "../../shared/view/view";
import { useSize } from "../../shared/view/WorkCanvas";
import { MARGIN_PX } from "./TrialScene";

export type SheetPoint = [number, number];

interface Props {
  /** In the sheet's own 100 × 70, as they are shown. */
  points: SheetPoint[];
  /** As they were asked for last, which quick steps go on from before it is shown. */
  asked: SheetPoint[];
  box: [number, number];
  night: boolean;
  onMove: (points: SheetPoint[]) => void;
}

const SHEET = 100; // the sheet's width in its own units

/** The points of a trial line, to be dragged or stepped with the arrow keys: the line is laid anew at every step. */
export function TrialPoints({ points, asked, box, night, onMove }: Props) {
  const [frame, size] = useSize<HTMLDivElement>();
  const view = fitView(size.width, size.height, box, MARGIN_PX);
  const scale = (view.scale * box[0]) / SHEET;
  return (
    <div ref={frame} className="pointer-events-none absolute inset-0">
      {size.width > 0 && (
        <svg className="h-full w-full">
          {points.map((point, i) => (
            <Point
              key={i}
              number={i + 1}
              at={asked[i]}
              x={view.x + point[0] * scale}
              y={view.y + point[1] * scale}
              scale={scale}
              night={night}
              onMove={(to) => onMove(asked.map((p, k) => (k === i ? to : p)))}
            />
          ))}
        </svg>
      )}
    </div>
  );
}

interface PointProps {
  number: number;
  at: SheetPoint;
  x: number;
  y: number;
  scale: number;
  night: boolean;
  onMove: (to: SheetPoint) => void;
}

const rounded = (v: number): number => Math.round(Math.min(200, Math.max(-100, v)) * 100) / 100;

function Point({ number, at, x, y, scale, night, onMove }: PointProps) {
  const to = (dx: number, dy: number, from: SheetPoint): SheetPoint => [rounded(from[0] + dx), rounded(from[1] + dy)];
  const handle = useHandle<SheetPoint>({
    begin: () => at,
    move: (dx, dy, from) => onMove(to(dx / scale, dy / scale, from)),
    done: (dx, dy, from) => onMove(to(dx / scale, dy / scale, from)),
    step: (by, upright) => onMove(to(upright ? 0 : by, upright ? -by : 0, at)),
    leave: onMove,
  });
  return (
    <g
      {...handle}
      role="button"
      aria-label={`Point ${number} of this trial line`}
      className="pointer-events-auto cursor-move"
      data-testid={`trial-point-${number}`}
    >
      <circle cx={x} cy={y} r="12" fill="transparent" />
      <path
        d={`M${x} ${y - 6}L${x + 6} ${y}L${x} ${y + 6}L${x - 6} ${y}Z`}
        fill={night ? "#1d2624" : "#fff"}
        stroke={night ? "#9db9f0" : "var(--color-indigo)"}
        strokeWidth="1.5"
      />
    </g>
  );
}
