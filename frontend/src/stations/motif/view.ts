import type { Motif, MotifBench, Schemas, Shape } from "../../shared/api/client";
import type { View } from "../../shared/view/view";

export type Box = [number, number, number, number];

/** Fit a motif, with a good part of its neighbours, into the work surface. */
export function benchView(
  size: { width: number; height: number },
  bench: MotifBench,
  corner: Schemas["CornerMessage"] | null = null,
): View {
  const { motif } = bench;
  if (corner) return cornerView(size, motif, corner.repeat_matrices);
  const boxes = motif.shapes.map((s) => s.box);
  const top = Math.min(0, ...boxes.map((b) => b[1]));
  const foot = Math.max(motif.height_mm, ...boxes.map((b) => b[3]));
  const across = motif.cuts_mm ? motif.width_mm * 1.15 : motif.pitch_mm * 2.3;
  const scale = Math.max(0.01, Math.min((size.width - 60) / across, (size.height - 130) / (foot - top)));
  const middle = motif.cuts_mm ? motif.width_mm / 2 : (motif.cuts_mm ?? [0, motif.width_mm]).reduce((a, b) => a + b) / 2;
  return { scale, x: size.width / 2 - middle * scale, y: size.height / 2 + 6 - ((top + foot) / 2) * scale };
}

/** Fit a corner piece, with a part of the runs that enter and leave. */
function cornerView(size: { width: number; height: number }, motif: Motif, beside: number[][]): View {
  const middles = beside.map(([, , , , e, f]) => [e + motif.width_mm / 2, f + motif.base_line_mm]);
  const [left, top, right, foot] = unionBox([
    [0, 0, motif.width_mm, motif.height_mm],
    ...motif.shapes.map((s) => s.box),
    ...middles.map(([x, y]) => [x, y, x, y]),
  ]);
  const scale = Math.max(0.01, Math.min((size.width - 60) / (right - left), (size.height - 130) / (foot - top)));
  return { scale, x: size.width / 2 - ((left + right) / 2) * scale, y: size.height / 2 + 6 - ((top + foot) / 2) * scale };
}

export function unionBox(boxes: number[][]): Box {
  return [
    Math.min(...boxes.map((b) => b[0])),
    Math.min(...boxes.map((b) => b[1])),
    Math.max(...boxes.map((b) => b[2])),
    Math.max(...boxes.map((b) => b[3])),
  ];
}

/** The part under a place, from the front; one that is only near counts when none is hit. */
export function partAt(shapes: Shape[], x: number, y: number, near: number): number | null {
  const ctx = document.createElement("canvas").getContext("2d")!;
  for (let i = shapes.length - 1; i >= 0; i--) {
    const shape = shapes[i];
    const path = new Path2D(shape.d);
    ctx.lineWidth = Math.max(shape.stroke_width, near);
    const filled =
      (shape.fill || shape.picture) && ctx.isPointInPath(path, x, y, shape.fill_rule === "evenodd" ? "evenodd" : "nonzero");
    if (filled || (shape.stroke && ctx.isPointInStroke(path, x, y))) return i;
  }
  return null;
}

/** A motif's own parts, without what is derived from them. */
export const ownParts = (motif: Motif): number[] => motif.shapes.flatMap((s, i) => (s.derived ? [] : [i]));

/** All parts that are chosen with one: its group, without what is derived from it. */
export function withGroup(shapes: Shape[], part: number): number[] {
  const { group } = shapes[part];
  if (!group) return [part];
  const own = shapes.flatMap((s, i) => (s.group === group && !s.derived ? [i] : []));
  return own.length ? own : [part];
}

/** What pressing a part in the list chooses: its group, and pressed again that part alone. */
export function pressed(shapes: Shape[], parts: number[], part: number): number[] {
  const group = withGroup(shapes, part);
  const whole = group.length > 1 && group.length === parts.length && group.every((i) => parts.includes(i));
  return whole ? [part] : group;
}

/** Pull a place onto the nearest of some others, when it is near enough on screen. */
export function snapped(value: number, places: number[], reach: number): number {
  const best = places.reduce((a, b) => (Math.abs(b - value) < Math.abs(a - value) ? b : a), Infinity);
  return Math.abs(best - value) <= reach ? best : value;
}

export const round = (value: number, decimals = 3): number => Number(value.toFixed(decimals));

/** Choose parts by their places in a motif's shapes: the open one's, or those of the one that a change gave. */
export type ChooseParts = (parts: number[], of?: Motif) => void;
