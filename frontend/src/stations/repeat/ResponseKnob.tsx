import { useHandle } from "../../shared/ui/handle";
import { SIDE, STEP, x, y } from "./responseSquare";

interface KnobProps {
  name: string;
  at: number[];
  onDrag: (next: number[]) => void;
  onSet: (next: number[]) => void;
  onLeave: () => void;
}

/** One point of a response, to be dragged, or lifted and lowered by the arrow keys. */
export function ResponseKnob({ name, at, onDrag, onSet, onLeave }: KnobProps) {
  const from = (start: number[], dx: number, dy: number): number[] => [start[0] + dx / SIDE, start[1] - dy / SIDE];
  const handle = useHandle({
    begin: () => at,
    move: (dx, dy, start) => onDrag(from(start, dx, dy)),
    done: (dx, dy, start) => onSet(from(start, dx, dy)),
    step: (by) => onSet([at[0], at[1] + by * STEP]),
    leave: onLeave,
  });
  return (
    <circle
      {...handle}
      role="slider"
      aria-label={name}
      aria-valuenow={Math.round(100 * at[1])}
      cx={x(at)}
      cy={y(at)}
      r="4.5"
      fill="var(--color-work)"
      stroke="var(--color-loden)"
      strokeWidth="1.6"
      className="cursor-grab"
    />
  );
}
