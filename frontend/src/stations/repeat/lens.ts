import type { Motif } from "../../shared/api/client";
import type { Scene } from "../../shared/api/scenes";
import { EXTENT, JOINS } from "../../shared/api/tables";
import { laidOf, paintPieces } from "../../shared/view/painter";
import type { Ctx, View } from "../../shared/view/view";
import type { FlatSizes } from "./flatSizes";

type Lens = FlatSizes["lens"];

/** Where the i-th lens hangs, in px. */
export const lensLeft = ({ every }: Lens, i: number): number => 108 + i * every;

/** Which joins of a scene hang under the run, from one on: as many as there is room for, with their figures, left of `right`. */
export function lensJoins({ every }: Lens, scene: Scene, right: number, first: number): number[] {
  const all = scene.joins.length / JOINS.width;
  const count = Math.min(4, all, Math.max(1, Math.floor((right - 100) / every)));
  const from = Math.max(0, Math.min(first, all - count));
  return Array.from({ length: count }, (_, i) => from + i);
}

/** What a lens looks at: the edge of the piece before the join, the gap to the next, and px a mm. */
export function lookAt(scene: Scene, index: number, radius: number) {
  const join = scene.joins.subarray(index * JOINS.width, (index + 1) * JOINS.width);
  const before = scene.extents.subarray(index * EXTENT.width, (index + 1) * EXTENT.width);
  const gap = join[JOINS.gap];
  const edge = before[EXTENT.s] + before[EXTENT.after];
  const shown = Math.max(Math.abs(gap) * 2.4, (before[EXTENT.before] + before[EXTENT.after]) * 0.28);
  return { join, gap, edge, middle: edge + gap / 2, scale: (2 * radius) / shown };
}

/** Paint one join magnified into its round glass, at the place of the i-th, with the facing edges and the room between them. */
export function paintLens(
  ctx: Ctx,
  scene: Scene,
  motifs: Motif[],
  index: number,
  place: number,
  lens: Lens,
  ratio: number,
  night: boolean,
  ground: string,
): void {
  const { gap, edge, middle, scale } = lookAt(scene, index, lens.radius);
  const { radius, top } = lens;
  const left = lensLeft(lens, place);
  const [cx, cy] = [left + radius, top + radius];
  const close: View = { scale, x: cx - middle * scale, y: cy };
  const glass = new Path2D();
  glass.arc(cx, cy, radius - 1.5, 0, 2 * Math.PI);
  ctx.save();
  ctx.clip(glass);
  ctx.fillStyle = ground;
  ctx.fillRect(left, top, 2 * radius, 2 * radius);
  paintPieces(ctx, laidOf(motifs, scene), close, ratio, { x: left, y: top, width: 2 * radius, height: 2 * radius });
  const [a, b] = [edge, edge + gap].map((s) => close.x + s * scale);
  ctx.fillStyle = gap >= 0 ? "#c9971c33" : "#2c4a8440";
  ctx.fillRect(Math.min(a, b), top, Math.abs(b - a), 2 * radius);
  ctx.strokeStyle = "#a63a2f";
  ctx.lineWidth = 1;
  ctx.beginPath();
  for (const x of [a, b]) {
    ctx.moveTo(x, top);
    ctx.lineTo(x, top + 2 * radius);
  }
  ctx.stroke();
  ctx.restore();
  ctx.strokeStyle = night ? "#ffffff" : "#20352c";
  ctx.lineWidth = 1.6;
  ctx.stroke(glass);
}
