import type { Held, Place } from "./held";

/** A box is pulled from a place, in mm; what lies in it is taken when it is let go. */
export function pullBox(from: Place, onPull: (box: [Place, Place] | null) => void, onTaken: (box: [Place, Place]) => void): Held {
  return {
    move: ({ mm }) => onPull([from, mm]),
    up: ({ mm }) => {
      onPull(null);
      onTaken([from, mm]);
    },
  };
}
