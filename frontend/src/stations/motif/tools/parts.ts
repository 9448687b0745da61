import { round } from "../view";
import { STEP_MM, type EditOf } from "./steps";
import type { Tool } from "./tool";

type Place = [number, number];

const TURN_STEP_DEG = 5;
const LEAST_SCALE = 0.02;

const transform = (parts: number[], change: Partial<EditOf<"transform">>): EditOf<"transform"> => ({
  op: "transform",
  parts,
  scale_x: 1,
  scale_y: 1,
  turn_deg: 0,
  about_mm: null,
  ...change,
});

export function moveTool(parts: number[], scale: number): Tool<null, EditOf<"move">> {
  const by = (dx: number, dy: number): EditOf<"move"> => ({ op: "move", parts, dx_mm: round(dx), dy_mm: round(dy) });
  return {
    begin: () => null,
    at: (_from, dx, dy) => by(dx / scale, dy / scale),
    step: (steps) => by(steps * STEP_MM, 0),
    key: "nudge",
  };
}

/** The size of parts that are ``size`` (w, h) px large: evenly, or finely each way on its own. */
export function sizeTool(parts: number[], size: Place): Tool<Place, EditOf<"transform">> {
  return {
    begin: () => [Math.max(8, size[0]), Math.max(8, size[1])],
    at: ([w, h], dx, dy, fine) => {
      const [sx, sy] = [(w + 2 * dx) / w, (h + 2 * dy) / h];
      const even = Math.abs(dx) > Math.abs(dy) ? sx : sy;
      const [scale_x, scale_y] = (fine ? [sx, sy] : [even, even]).map((s) => round(Math.max(LEAST_SCALE, s), 4));
      return transform(parts, { scale_x, scale_y });
    },
    step: (by) => transform(parts, { scale_x: 1 + by / 100, scale_y: 1 + by / 100 }),
    key: "size",
    label: () => "size of a part",
  };
}

/** A knob at ``arm`` px from the middle turns the parts about it. */
export function turnTool(parts: number[], arm: Place): Tool<Place, EditOf<"transform">> {
  return {
    begin: () => arm,
    at: ([x, y], dx, dy, fine) => {
      const angle = ((Math.atan2(y + dy, x + dx) - Math.atan2(y, x)) * 180) / Math.PI;
      return transform(parts, { turn_deg: fine ? round(angle, 1) : Math.round(angle / TURN_STEP_DEG) * TURN_STEP_DEG });
    },
    step: (by) => transform(parts, { turn_deg: by * TURN_STEP_DEG }),
    key: "turn",
    label: () => "turn a part",
  };
}
