import type { PictureMesh } from "../api/scenes";
import type { Picture } from "./images";
import type { Ctx } from "./view";

type Px = [number, number];

const OVERLAP_PX = 0.75; // cells reach so far over their sides, for no hairline to show between them
const STRAIGHT_PX = 0.3; // a mesh that strays less is drawn as one picture

/** Draw a picture on its mesh, cell by cell, each with the affine map nearest to its four corners; a straight mesh in one go. */
export function paintMesh(ctx: Ctx, { source }: Picture, mesh: PictureMesh, first: number, scale: number): void {
  if (!source) return;
  const { points: p, rows, columns } = mesh;
  const at = (row: number, column: number): Px => {
    const i = 2 * (first + row * columns + column);
    return [p[i], p[i + 1]];
  };
  ctx.imageSmoothingQuality = "high";
  const [last, end] = [rows - 1, columns - 1];
  if (strays(at, last, end) * scale < STRAIGHT_PX) {
    drawCell(ctx, source, [at(0, 0), at(0, end), at(last, 0), at(last, end)], [0, 0], [source.width, source.height]);
    return;
  }
  const cell: Px = [source.width / end, source.height / last];
  for (let row = 0; row < last; row++) {
    for (let column = 0; column < end; column++) {
      const corners = [at(row, column), at(row, column + 1), at(row + 1, column), at(row + 1, column + 1)];
      ctx.save();
      clipCell(ctx, corners, OVERLAP_PX / scale);
      drawCell(ctx, source, corners, [column * cell[0], row * cell[1]], cell);
      ctx.restore();
    }
  }
}

/** How far a mesh strays from the flat one between its corners, in mm. */
function strays(at: (row: number, column: number) => Px, last: number, end: number): number {
  const [a, b, c] = [at(0, 0), at(0, end), at(last, 0)];
  let most = 0;
  for (let row = 0; row <= last; row++) {
    for (let column = 0; column <= end; column++) {
      const [u, v] = [column / end, row / last];
      const [x, y] = at(row, column);
      most = Math.max(
        most,
        Math.hypot(a[0] + u * (b[0] - a[0]) + v * (c[0] - a[0]) - x, a[1] + u * (b[1] - a[1]) + v * (c[1] - a[1]) - y),
      );
    }
  }
  return most;
}

/** Clip to a cell (top left, top right, foot left, foot right), its sides moved out by `over`. */
function clipCell(ctx: Ctx, [a, b, c, d]: Px[], over: number): void {
  const out = (from: Px, to: Px): Px => {
    const size = Math.hypot(to[0] - from[0], to[1] - from[1]) || 1;
    return [((to[0] - from[0]) / size) * over, ((to[1] - from[1]) / size) * over];
  };
  const [top, foot, left, right] = [out(a, b), out(c, d), out(a, c), out(b, d)];
  ctx.beginPath();
  ctx.moveTo(a[0] - top[0] - left[0], a[1] - top[1] - left[1]);
  ctx.lineTo(b[0] + top[0] - right[0], b[1] + top[1] - right[1]);
  ctx.lineTo(d[0] + foot[0] + right[0], d[1] + foot[1] + right[1]);
  ctx.lineTo(c[0] - foot[0] + left[0], c[1] - foot[1] + left[1]);
  ctx.closePath();
  ctx.clip();
}

/** Draw an image so that its pixels from `from`, `size` of them, fill a cell's corners as nearly as an affine map can. */
function drawCell(ctx: Ctx, source: CanvasImageSource, [a, b, c, d]: Px[], from: Px, size: Px): void {
  const along = [0, 1].map((k) => (b[k] - a[k] + d[k] - c[k]) / 2 / size[0]);
  const down = [0, 1].map((k) => (c[k] - a[k] + d[k] - b[k]) / 2 / size[1]);
  const [mx, my] = [from[0] + size[0] / 2, from[1] + size[1] / 2];
  const middle = [0, 1].map((k) => (a[k] + b[k] + c[k] + d[k]) / 4);
  ctx.save();
  ctx.transform(
    along[0],
    along[1],
    down[0],
    down[1],
    middle[0] - along[0] * mx - down[0] * my,
    middle[1] - along[1] * mx - down[1] * my,
  );
  ctx.drawImage(source, 0, 0);
  ctx.restore();
}
