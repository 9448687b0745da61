import { useHandle } from "../../shared/ui/handle";
import type { Size } from "../../shared/view/layers";
import type { View } from "../../shared/view/view";
import { angleTowards, heldAngle, leaving, LEAST_DEG, MOST_DEG } from "./cornerView";

interface Props {
  angle: number;
  side: 1 | -1;
  view: View;
  size: Size;
  night: boolean;
  onTurn: (angle: number) => void;
}

const ARC = 0.16; // of the room, how far from the vertex the angle is written; the handle lies further out
const HANDLE = 0.44;

/** The angle between the legs as an arc with its figure, and the handle on the leg that leaves. */
export function CornerAngle({ angle, side, view, size, night, onTurn }: Props) {
  const room = Math.min(size.width, size.height);
  const [dx, dy] = leaving(angle, side);
  const at: [number, number] = [HANDLE * room * dx, HANDLE * room * dy];
  const towards = (x: number, y: number, [sx, sy]: [number, number]): void => onTurn(angleTowards(sx + x, sy + y, side));
  const handle = useHandle<[number, number]>({
    begin: () => at,
    move: towards,
    done: towards,
    step: (by) => onTurn(heldAngle(angle + by)),
    leave: () => undefined,
  });
  const r = ARC * room;
  const [mx, my] = leaving(angle / 2, side);
  const colour = night ? "#e08a7e" : "var(--color-madder)";
  return (
    <svg className="pointer-events-none absolute inset-0 h-full w-full">
      <g transform={`translate(${view.x} ${view.y})`} stroke={colour} fill="none">
        <path d={`M${-r} 0A${r} ${r} 0 0 ${side > 0 ? 0 : 1} ${r * dx} ${r * dy}`} strokeDasharray="3 3" />
        <path d={`M0 0L${at[0]} ${at[1]}`} strokeDasharray="1 4" />
        <text
          x={(r + 22) * mx}
          y={(r + 22) * my + 5}
          textAnchor="middle"
          fill={colour}
          stroke={night ? "#1d2624" : "#fbfaf5"}
          strokeWidth="3"
          paintOrder="stroke"
          className="text-[13px] font-bold"
        >
          {angle}°
        </text>
        <g
          {...handle}
          role="slider"
          aria-label="Angle of the corner"
          aria-valuenow={angle}
          aria-valuemin={LEAST_DEG}
          aria-valuemax={MOST_DEG}
          className="pointer-events-auto cursor-grab"
          transform={`translate(${at[0]} ${at[1]})`}
        >
          <circle r="13" fill="transparent" stroke="none" />
          <circle r="7" fill={night ? "#1d2624" : "var(--color-work)"} strokeWidth="2.5" />
        </g>
      </g>
    </svg>
  );
}
