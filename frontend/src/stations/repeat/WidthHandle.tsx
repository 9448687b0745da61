import { useHandle } from "../../shared/ui/handle";
import type { Width } from "./widthPlot";

interface HandleProps {
  point: Width;
  number: number;
  px: [number, number];
  /** Per cent a px, along and across. */
  per: [number, number];
  onDrag: (to: Width) => void;
  onSet: (to: Width) => void;
  onRemove: () => void;
  onLeave: () => void;
}

/** One point of the width, to be dragged, stepped with arrow keys or taken away. */
export function WidthHandle({ point, number, px: [cx, cy], per, onDrag, onSet, onRemove, onLeave }: HandleProps) {
  const to = (dx: number, dy: number, from: Width): Width => ({
    at_pct: from.at_pct + dx * per[0],
    width_pct: from.width_pct - dy * per[1],
  });
  const { onKeyDown, ...handle } = useHandle<Width>({
    begin: () => point,
    move: (dx, dy, from) => onDrag(to(dx, dy, from)),
    done: (dx, dy, from) => onSet(to(dx, dy, from)),
    step: (by, upright) =>
      onSet(upright ? { ...point, width_pct: point.width_pct + by } : { ...point, at_pct: point.at_pct + by }),
    leave: onLeave,
  });
  return (
    <g
      {...handle}
      role="button"
      aria-label={`Width point ${number}: ${point.width_pct} % at ${Math.round(point.at_pct)} %; Delete takes it away`}
      className="cursor-move"
      data-testid={`width-point-${number}`}
      onKeyDown={(event) => (event.key === "Delete" || event.key === "Backspace" ? onRemove() : onKeyDown(event))}
    >
      <circle cx={cx} cy={cy} r="12" fill="transparent" />
      <circle cx={cx} cy={cy} r="4.5" fill="#fff" stroke="var(--color-madder)" strokeWidth="1.5" />
    </g>
  );
}
