import { useHandle } from "../../shared/ui/handle";
import type { Place } from "./tools/held";

interface Props {
  name: string;
  /** Where it lies on the page, mm, and on screen, px. */
  at: Place;
  place: Place;
  scale: number;
  flowing: boolean;
  /** Whether the pointer is near: others are small. */
  near: boolean;
  onDrag: (to: Place) => void;
  /** ``stepped`` by a key, and not dragged. */
  onPut: (to: Place, stepped: boolean) => void;
  onLeave: () => void;
  onTurn: () => void;
  onRemove: () => void;
}

/** A point of a line: flowing ones are round, pointed ones square. */
export function LinePoint({ name, at, place: [cx, cy], scale, flowing, near, ...does }: Props) {
  const to = (dx: number, dy: number, from: Place): Place => [from[0] + dx / scale, from[1] + dy / scale];
  const handle = useHandle<Place>({
    begin: () => at,
    move: (dx, dy, from) => does.onDrag(to(dx, dy, from)),
    done: (dx, dy, from) => does.onPut(to(dx, dy, from), false),
    step: (by, upright) => does.onPut([at[0] + (upright ? 0 : by), at[1] - (upright ? by : 0)], true),
    leave: does.onLeave,
  });
  const onKeyDown = (event: React.KeyboardEvent): void => {
    handle.onKeyDown(event);
    if (event.key === " ") does.onTurn();
    else if (event.key === "Delete") does.onRemove();
    else if (!event.defaultPrevented) return;
    event.preventDefault();
    event.stopPropagation();
  };
  const shape = `pointer-events-none group-focus-within:scale-100 ${near ? "" : "scale-45"} [transform-box:fill-box] origin-center`;
  const paint = { className: shape, fill: "#fff", stroke: "var(--color-indigo)", strokeWidth: 1.8 };
  return (
    <g
      {...handle}
      role="button"
      aria-label={`${name}, ${flowing ? "flowing" : "pointed"}, ${at[0].toFixed(1)}, ${at[1].toFixed(1)} mm`}
      className="pointer-events-auto cursor-move"
      onPointerDown={(event) => {
        event.stopPropagation();
        handle.onPointerDown(event);
      }}
      onDoubleClick={does.onTurn}
      onKeyDown={onKeyDown}
    >
      <circle cx={cx} cy={cy} r="8" fill="transparent" />
      {flowing ? <circle {...paint} cx={cx} cy={cy} r="5" /> : <rect {...paint} x={cx - 4.5} y={cy - 4.5} width="9" height="9" />}
    </g>
  );
}
