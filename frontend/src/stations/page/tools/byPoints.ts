import type { Source } from "../../../shared/api/client";
import { apart, type Place } from "./held";

const CLOSE_PX = 10;

/** The points set so far, each flowing on smoothly or pointed. */
export interface Points {
  points: Place[];
  flowing: boolean[];
}

export const NO_POINTS: Points = { points: [], flowing: [] };

/** What a press leads to: one more point, or the line's end – closed on its first point, or open on its last. */
export type Pressed = { begun: Points } | { closed: boolean };

/** Take a press at a place, in mm at `scale` pixels each. */
export function pressed(begun: Points, place: Place, scale: number, flowing: boolean): Pressed {
  const { points } = begun;
  const near = (point: Place | undefined): boolean => !!point && apart(point, place) * scale < CLOSE_PX;
  if (points.length > 2 && near(points[0])) return { closed: true };
  if (near(points[points.length - 1])) return { closed: false };
  return { begun: withPoint(begun, place, flowing) };
}

export const withPoint = ({ points, flowing }: Points, place: Place, flows: boolean): Points => ({
  points: [...points, place],
  flowing: [...flowing, flows],
});

export const withoutLast = ({ points, flowing }: Points): Points => ({
  points: points.slice(0, -1),
  flowing: flowing.slice(0, -1),
});

/** The line through the points, or none while there are too few; two points cannot be closed. */
export function lineThrough({ points, flowing }: Points, closed = false): Source | null {
  return points.length > 1 ? { kind: "points", points, flowing, closed: closed && points.length > 2 } : null;
}
