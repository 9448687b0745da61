import type { Size } from "../../shared/view/layers";
import type { View } from "../../shared/view/view";

export const LEAST_DEG = 60;
export const MOST_DEG = 150;
const KEPT = 0.9; // of the room, for what one looks at

/** How a corner is seen whose vertex is at (0, 0): the leg that leaves has its room below an outside corner, above an inside one. */
export function cornerView({ width, height }: Size, reach: number, side: 1 | -1): View {
  const scale = (KEPT * Math.min(width / 2, (2 * height) / 3)) / Math.max(reach, 1e-6);
  return { scale, x: width / 2, y: height * (side > 0 ? 0.3 : 0.7) };
}

/** Where the leg that leaves goes to at an angle between the legs, of length 1. */
export function leaving(angle: number, side: 1 | -1): [number, number] {
  const turn = Math.PI - (angle * Math.PI) / 180;
  return [Math.cos(turn), side * Math.sin(turn)];
}

/** The angle between the legs where the one that leaves goes towards a place beside the vertex, whole degrees. */
export function angleTowards(x: number, y: number, side: 1 | -1): number {
  const angle = 180 - (Math.atan2(side * y, x) * 180) / Math.PI;
  const within = angle > 270 ? LEAST_DEG : angle; // beyond straight on, on the side where it does not turn to
  return heldAngle(within);
}

/** The nearest whole number of degrees at which a corner is shown. */
export const heldAngle = (deg: number): number => Math.round(Math.min(MOST_DEG, Math.max(LEAST_DEG, deg)));
