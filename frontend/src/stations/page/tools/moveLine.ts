import { apart, type Held, type Place } from "./held";

const LEAST_PX = 3; // a press that trembles is not a move

/**
 * A line follows the pointer, in mm, from where it has gone further than a press trembles; kept when it is let go, or `onPressed`
 * where it went nowhere.
 */
export function moveLine(
  from: Place,
  scale: number,
  onShift: (by: Place) => void,
  onMoved: (by: Place) => void,
  onPressed?: () => void,
): Held {
  let by: Place | null = null;
  return {
    move: ({ client }) => {
      if (!by && apart(client, from) <= LEAST_PX) return;
      by = [(client[0] - from[0]) / scale, (client[1] - from[1]) / scale];
      onShift(by);
    },
    up: () => (by ? onMoved(by) : onPressed?.()),
  };
}
