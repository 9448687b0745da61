import type { Motif } from "../../shared/api/client";
import type { Scene } from "../../shared/api/scenes";
import { EXTENT, JOINS } from "../../shared/api/tables";
import { laidOf, paintPieces } from "../../shared/view/painter";
import type { Ctx, View } from "../../shared/view/view";

export const RADIUS = 43;
export const TOP = 192;
const EVERY = 196;

export const LENS = {
  /** Where the i-th lens hangs, in px. */
  left: (i: number) => 108 + i * EVERY,
  /** How many joins of a scene hang under the run: as many as there is room for, with their figures, left of `right`. */
  count: (scene: Scene, right: number) =>
    Math.min(4, scene.joins.length / JOINS.width, Math.max(1, Math.floor((right - 100) / EVERY))),
};

/** What a lens looks at: the edge of the piece before the join, the gap to the next, and px a mm. */
export function lookAt(scene: Scene, index: number) {
  const join = scene.joins.subarray(index * JOINS.width, (index + 1) * JOINS.width);
  const before = scene.extents.subarray(index * EXTENT.width, (index + 1) * EXTENT.width);
  const gap = join[JOINS.gap];
  const edge = before[EXTENT.s] + before[EXTENT.after];
  const shown = Math.max(Math.abs(gap) * 2.4, (before[EXTENT.before] + before[EXTENT.after]) * 0.28);
  return { join, gap, edge, middle: edge + gap / 2, scale: (2 * RADIUS) / shown };
}

/** Paint one join magnified into its round glass, with the facing edges and the room between them. */
export function paintLens(
  ctx: Ctx,
  scene: Scene,
  motifs: Motif[],
  index: number,
  left: number,
  ratio: number,
  night: boolean,
  ground: string,
): void {
  const { gap, edge, middle, scale } = lookAt(scene, index);
  const [cx, cy] = [left + RADIUS, TOP + RADIUS];
  const close: View = { scale, x: cx - middle * scale, y: cy };
  const glass = new Path2D();
  glass.arc(cx, cy, RADIUS - 1.5, 0, 2 * Math.PI);
  ctx.save();
  ctx.clip(glass);
  ctx.fillStyle = ground;
  ctx.fillRect(left, TOP, 2 * RADIUS, 2 * RADIUS);
  paintPieces(ctx, laidOf(motifs, scene), close, ratio, { x: left, y: TOP, width: 2 * RADIUS, height: 2 * RADIUS });
  const [a, b] = [edge, edge + gap].map((s) => close.x + s * scale);
  ctx.fillStyle = gap >= 0 ? "#c9971c33" : "#2c4a8440";
  ctx.fillRect(Math.min(a, b), TOP, Math.abs(b - a), 2 * RADIUS);
  ctx.strokeStyle = "#a63a2f";
  ctx.lineWidth = 1;
  ctx.beginPath();
  for (const x of [a, b]) {
    ctx.moveTo(x, TOP);
    ctx.lineTo(x, TOP + 2 * RADIUS);
  }
  ctx.stroke();
  ctx.restore();
  ctx.strokeStyle = night ? "#ffffff" : "#20352c";
  ctx.lineWidth = 1.6;
  ctx.stroke(glass);
}
