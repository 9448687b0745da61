import type { View } from "../../../shared/view/view";
import type { Held, Place } from "./held";

/** The sheet follows the pointer. */
export function pan(from: Place, view: View, setView: (view: View) => void): Held {
  return {
    move: ({ client: [x, y] }) => setView({ ...view, x: view.x + x - from[0], y: view.y + y - from[1] }),
    up: () => undefined,
  };
}
