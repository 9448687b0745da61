import type { Schemas } from "../../../shared/api/client";
import { round } from "../view";
import { STEP_MM, type EditOf } from "./steps";
import type { Tool } from "./tool";

export type Contour = Schemas["ContourMessage"];

/** Where a point lies: the part, its outline. */
export interface Outline {
  part: number;
  contour: number;
}

/** Points that are moved together. */
export function nodesTool(on: Outline, nodes: number[], scale: number): Tool<null, EditOf<"move_nodes">> {
  const by = (dx_mm: number, dy_mm: number): EditOf<"move_nodes"> => ({
    op: "move_nodes",
    ...on,
    nodes,
    dx_mm: round(dx_mm),
    dy_mm: round(dy_mm),
  });
  return {
    begin: () => null,
    at: (_from, dx, dy) => by(dx / scale, dy / scale),
    step: (steps) => by(steps * STEP_MM, 0),
    key: "nodes",
  };
}

/** The handle of a point, on the side that the line comes from or goes to. */
export function pullTool(
  on: Outline,
  node: number,
  side: "into" | "out",
  place: number[],
  scale: number,
): Tool<number[], EditOf<"handle">> {
  const at = (from: number[], dx: number, dy: number): EditOf<"handle"> => ({
    op: "handle",
    ...on,
    node,
    side,
    x_mm: round(from[0] + dx / scale),
    y_mm: round(from[1] + dy / scale),
  });
  return {
    begin: () => place,
    at,
    step: (by, from) => at(from, by * STEP_MM * scale, 0),
    after: ({ x_mm, y_mm }) => [x_mm, y_mm],
    key: "pull",
  };
}

/** The points chosen after one is pressed: it alone, or, with more, it added to the others or taken from them. */
export const chosenNodes = (nodes: number[], node: number, more: boolean): number[] =>
  !more ? [node] : nodes.includes(node) ? nodes.filter((own) => own !== node) : [...nodes, node];
