import type { PictureMesh, ScenePieces } from "../api/scenes";
import { CONTOURS } from "../api/tables";
import { paintMesh } from "./meshes";
import type { Own } from "./paints";
import { fillPath, fillStroke, isOf, stampPicture, strokePath, type Pass, type Stamp } from "./stamp";
import type { Ctx, View } from "./view";

/** What of a scene outlined pieces are painted from. */
export type Outlined = Pick<ScenePieces, "matrices" | "outline" | "contours" | "meshes">;

export const STAMPED = 0;
const STROKES_OUTLINED = 2;
/** Several pieces as one, wherever their outlines lie. */
export const SEVERAL = 3;
const { width: ROW } = CONTOURS;

/** Draw in mm of the page, or of a piece where its matrix puts it; `page` in device pixels. */
export const inPage = (ctx: Ctx, { scale, x, y }: View): void => ctx.setTransform(scale, 0, 0, scale, x, y);
export const inPiece = (ctx: Ctx, m: Float32Array, { scale: s, x, y }: View): void =>
  ctx.setTransform(m[0] * s, m[1] * s, m[2] * s, m[3] * s, m[4] * s + x, m[5] * s + y);

/**
 * Paint what of a piece is of a pass by its outlines, which begin at the row `at` of the contours: each shape's as one path,
 * with its paints. `how` tells whether strokes are outlines themselves. Return the row where the next piece's begin.
 */
export function paintOutlines(
  ctx: Ctx,
  laid: Outlined,
  piece: number,
  how: number,
  at: number,
  stamp: Stamp,
  page: View,
  pass: Pass,
  paints: Own | null,
): number {
  const m = laid.matrices.subarray(piece * 6, piece * 6 + 6);
  const factor = Math.sqrt(Math.abs(m[0] * m[3] - m[1] * m[2]));
  const own = (): void => inPiece(ctx, m, page);
  inPage(ctx, page);
  stamp.shapes.forEach((ready, shape) => {
    const painted = isOf(pass, ready);
    if (ready.picture) {
      if (!painted) return;
      const mesh = meshAt(laid.meshes, piece, shape);
      if (mesh) return paintMesh(ctx, ready.picture.image, mesh.mesh, mesh.first, page.scale);
      own();
      stampPicture(ctx, ready.picture);
      return inPage(ctx, page);
    }
    let end = traced(ctx, laid, at, piece, shape, 0);
    if (end > at && painted) {
      fillPath(ctx, ready, own, paints);
      if (how !== STROKES_OUTLINED) strokePath(ctx, ready, factor, own, paints);
    }
    at = end;
    end = traced(ctx, laid, at, piece, shape, 1);
    if (end > at && painted) fillStroke(ctx, ready, own, paints);
    at = end;
  });
  return at;
}

/** Make the contours of a piece's shape, or of its stroke, the current path; return the row after them. */
function traced(ctx: Ctx, { contours, outline }: Outlined, at: number, piece: number, shape: number, stroked: number): number {
  const rows = contours.length / ROW;
  const isOwn = (row: number): boolean => {
    const i = row * ROW;
    return (
      contours[i + CONTOURS.piece] === piece &&
      contours[i + CONTOURS.shape] === shape &&
      contours[i + CONTOURS.stroked] === stroked
    );
  };
  if (at >= rows || !isOwn(at)) return at;
  ctx.beginPath();
  for (; at < rows && isOwn(at); at++) {
    const end = at + 1 < rows ? contours[(at + 1) * ROW] : outline.length / 2;
    contour(ctx, outline, contours[at * ROW], end, contours[at * ROW + CONTOURS.closed] === 1);
  }
  return at;
}

/** The mesh of a piece's picture, and where in its points the piece's begin. */
function meshAt(meshes: PictureMesh[], piece: number, shape: number): { mesh: PictureMesh; first: number } | null {
  for (const mesh of meshes) {
    if (mesh.of[1] !== shape) continue;
    let low = 0,
      high = mesh.of.length / 2 - 1;
    while (low <= high) {
      const middle = (low + high) >> 1;
      const at = mesh.of[2 * middle];
      if (at === piece) return { mesh, first: middle * mesh.rows * mesh.columns };
      if (at < piece) low = middle + 1;
      else high = middle - 1;
    }
  }
  return null;
}

function contour(ctx: Ctx, p: Float32Array, from: number, to: number, closed: boolean): void {
  ctx.moveTo(p[2 * from], p[2 * from + 1]);
  for (let i = 2 * from + 2; i < 2 * to; i += 6) ctx.bezierCurveTo(p[i], p[i + 1], p[i + 2], p[i + 3], p[i + 4], p[i + 5]);
  if (closed) ctx.closePath();
}
