import type { Moving } from "./desk";
import type { Place } from "./tools/held";

export const STILL: Moving = { by: [0, 0], turn_deg: 0, scale: 1, about: [0, 0] };

/** A box in mm. */
export interface Box {
  x: number;
  y: number;
  width: number;
  height: number;
}

/** Where a place goes when it is turned and scaled about another and moved. */
export function moved([x, y]: Place, { by, turn_deg, scale, about }: Moving): Place {
  const turn = (turn_deg * Math.PI) / 180;
  const [dx, dy] = [x - about[0], y - about[1]];
  return [
    about[0] + scale * (dx * Math.cos(turn) - dy * Math.sin(turn)) + by[0],
    about[1] + scale * (dx * Math.sin(turn) + dy * Math.cos(turn)) + by[1],
  ];
}

/** The corners of a box from its top left, clockwise. */
export const cornersOf = ({ x, y, width, height }: Box): Place[] => [
  [x, y],
  [x + width, y],
  [x + width, y + height],
  [x, y + height],
];

/** The scaling about a place that brings one place as far out as another. */
export function scaledTo(about: Place, from: Place, to: Place): Moving {
  const [fx, fy] = [from[0] - about[0], from[1] - about[1]];
  const far = fx * fx + fy * fy || 1;
  const scale = ((to[0] - about[0]) * fx + (to[1] - about[1]) * fy) / far;
  return { ...STILL, about, scale: Math.round(1000 * Math.min(100, Math.max(0.01, scale))) / 1000 };
}

/** The turn about a place from the direction of one place to that of another; by steps of 15° where it is `stepped`. */
export function turnedTo(about: Place, from: Place, to: Place, stepped: boolean): Moving {
  const at = ([x, y]: Place): number => (Math.atan2(y - about[1], x - about[0]) * 180) / Math.PI;
  const step = stepped ? 15 : 0.1;
  const turn = ((at(to) - at(from) + 540) % 360) - 180;
  return { ...STILL, about, turn_deg: Math.round(turn / step) * step };
}

/** What a move does, in figures. */
export function figuresOf({ by, turn_deg, scale }: Moving): string {
  const parts = [
    scale !== 1 && `${Number((100 * scale).toFixed(1))} %`,
    turn_deg !== 0 && `${Number(turn_deg.toFixed(1))}°`.replace("-", "−"),
    (by[0] !== 0 || by[1] !== 0) && `${by.map((mm) => mm.toFixed(1)).join(", ")} mm`.replaceAll("-", "−"),
  ];
  return parts.filter(Boolean).join(" · ");
}
