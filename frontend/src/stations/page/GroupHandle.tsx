import { useHandle } from "../../shared/ui/handle";
import { useDesk, type Moving } from "./desk";
import { useLaidPage } from "./laidPage";
import type { Place } from "./tools/held";
import { useLineHands } from "./useLineHands";

interface Props {
  label: string;
  value: number;
  at: Place;
  /** Pixels to a mm. */
  scale: number;
  /** How lines are moved when it is pulled by so many mm, with Shift held. */
  moving: (by: Place, shift: boolean) => Moving;
  /** How they are by an arrow key. */
  stepped: (by: number) => Moving;
  round?: boolean;
}

/** A handle of the frame about several lines. */
export function GroupHandle({ label, value, at: [x, y], scale, moving, stepped, round = false }: Props) {
  const { together } = useLaidPage();
  const show = useDesk((desk) => desk.setMoving);
  const { moveAll } = useLineHands();
  const keep = (next: Moving): void => {
    show(next);
    moveAll(together, next);
  };
  const handle = useHandle<null>({
    begin: () => null,
    move: (dx, dy, _, shift) => show(moving([dx / scale, dy / scale], shift)),
    done: (dx, dy, _, shift) => keep(moving([dx / scale, dy / scale], shift)),
    step: (by) => keep(stepped(by)),
    leave: () => show(null),
  });
  return (
    <g
      {...handle}
      onPointerDown={(event) => {
        event.stopPropagation(); // the sheet below would follow the pointer too
        handle.onPointerDown(event);
      }}
      role="slider"
      aria-label={`${label} of ${together.length} lines`}
      aria-valuenow={value}
      className={`pointer-events-auto ${round ? "cursor-grab" : "cursor-pointer"}`}
    >
      <circle cx={x} cy={y} r="12" fill="transparent" stroke="none" />
      {round ? (
        <circle cx={x} cy={y} r="6" fill="var(--color-work)" strokeWidth="2" />
      ) : (
        <rect x={x - 5} y={y - 5} width="10" height="10" fill="var(--color-work)" strokeWidth="2" />
      )}
    </g>
  );
}
