import type { Motif } from "../api/client";
import type { ScenePieces } from "../api/scenes";
import { BISECTOR, CONTOURS, PIECES } from "../api/tables";
import { inPage, paintOutlines, STAMPED } from "./outlines";
import { Specks } from "./specks";
import { laidArtwork, stampOf, stampShapes, type Artwork, type Stamp } from "./stamp";
import { sightOf, type Area, type Ctx, type Px, type Sight, type View } from "./view";

const UNSEEN_PX = 0.35; // of a device pixel; chosen: thinner shapes only tint the edge
const SPECK_PX = 1.5; // of a device pixel, from the middle
const SEAM_PX = 0.5; // of a device pixel: both sides reach so far over a bisector, for no ground to show along it
const BENT_REACH = 3; // chosen: how much further a piece may reach once it is bent

/** What is laid on one line, ready to be painted: a stamp for each motif of its brush, and the scene's tables. */
export interface Laid extends ScenePieces {
  stamps: Stamp[];
}

/** What a scene says of its pieces. */
export type LaidScene = Pick<ScenePieces, "matrices" | "motif"> & Partial<ScenePieces>;

/** Make a scene's pieces ready with the motifs of its brush, in their order. */
export const laidOf = (motifs: Motif[], scene: LaidScene): Laid => laidWith(motifs.map(laidArtwork), scene);

/** Make a scene's pieces ready with what its motifs lay. */
export const laidWith = (artworks: Artwork[], scene: LaidScene): Laid => ({ ...EMPTY, ...scene, stamps: artworks.map(stampOf) });

const EMPTY = {
  drawn: new Uint32Array(0),
  outline: new Float32Array(0),
  contours: new Uint32Array(0),
  cut: new Uint32Array(0),
  bisectors: new Float32Array(0),
  meshes: [],
};

/** Paint every piece that reaches into an area; `ratio` is device pixels to a CSS pixel. */
export function paintPieces(ctx: Ctx, laid: Laid, view: View, ratio: number, area: Area): void {
  if (!laid.stamps.length) return;
  const page: View = { scale: view.scale * ratio, x: view.x * ratio, y: view.y * ratio };
  const painter = new Painter(ctx, laid, page, area, ratio);
  for (let piece = 0; piece * PIECES.width < laid.matrices.length; piece++) painter.paint(piece);
  painter.end();
  ctx.setTransform(ratio, 0, 0, ratio, 0, 0);
}

/** Paints pieces one after the other, in their order; `page` in device pixels. */
class Painter {
  private readonly seen: Sight;
  private readonly specks: Specks;
  private contour = 0; // the row of the contours where the next outlined piece's begin
  private cut = 0; // the row of the cuts where the next cut piece's begin

  constructor(
    private readonly ctx: Ctx,
    private readonly laid: Laid,
    private readonly page: View,
    area: Area,
    ratio: number,
  ) {
    this.seen = sightOf(area, ratio);
    this.specks = new Specks(ctx);
  }

  paint(piece: number): void {
    const { laid, page, ctx } = this;
    const { scale: s } = page;
    const m = laid.matrices;
    const at = piece * PIECES.width;
    const a = m[at] * s,
      b = m[at + 1] * s,
      c = m[at + 2] * s,
      d = m[at + 3] * s;
    const x = m[at + 4] * s + page.x,
      y = m[at + 5] * s + page.y;
    const stamp = laid.stamps[laid.motif.length ? laid.motif[piece] : 0] ?? laid.stamps[0];
    const how = laid.drawn.length ? laid.drawn[piece] : STAMPED;
    const size = Math.max(Math.hypot(a, b), Math.hypot(c, d));
    const reach = (how === STAMPED ? 1 : BENT_REACH) * stamp.reach * size;
    if (!this.seen(x, y, reach)) return;
    if (stamp.reach * size < SPECK_PX) return this.specks.add(stamp.speck, a, b, c, d, x, y);
    this.specks.paint();
    const clipped = this.clip(piece, [m[at + 4], m[at + 5]], reach / s);
    if (how === STAMPED) {
      ctx.setTransform(a, b, c, d, x, y);
      stampShapes(ctx, stamp, UNSEEN_PX / size);
    } else this.paintOutlined(piece, how, stamp);
    if (clipped) ctx.restore();
  }

  /** Paint what waits still. */
  end(): void {
    this.specks.paint();
  }

  private paintOutlined(piece: number, how: number, stamp: Stamp): void {
    const { contours } = this.laid;
    while (this.contour * CONTOURS.width < contours.length && contours[this.contour * CONTOURS.width + CONTOURS.piece] < piece)
      this.contour++;
    this.contour = paintOutlines(this.ctx, this.laid, piece, how, this.contour, stamp, this.page);
  }

  /** Clip to what is kept of a piece about `centre` that reaches so far (mm), where it ends on bisectors; tell whether it does. */
  private clip(piece: number, centre: Px, reach: number): boolean {
    const { cut, bisectors } = this.laid;
    while (this.cut < cut.length && cut[this.cut] < piece) this.cut++;
    if (cut[this.cut] !== piece) return false;
    this.ctx.save();
    inPage(this.ctx, this.page);
    for (; cut[this.cut] === piece; this.cut++)
      clipOnBisector(this.ctx, bisectors, this.cut, centre, reach, SEAM_PX / this.page.scale);
    return true;
  }
}

/** Clip to what lies on a bisector's near side and `over` it, as far as a piece about `centre` reaches (mm). */
function clipOnBisector(ctx: Ctx, bisectors: Float32Array, row: number, centre: Px, reach: number, over: number): void {
  const [vx, vy, ax, ay] = bisectors.subarray(BISECTOR.width * row, BISECTOR.width * (row + 1));
  const off = (centre[0] - vx) * ax + (centre[1] - vy) * ay - over;
  const [fx, fy] = [centre[0] - off * ax, centre[1] - off * ay]; // its foot on the edge of the clip
  const deep = Math.abs(off) + reach;
  ctx.beginPath();
  ctx.moveTo(fx - ay * reach, fy + ax * reach);
  ctx.lineTo(fx + ay * reach, fy - ax * reach);
  ctx.lineTo(fx + ay * reach - ax * deep, fy - ax * reach - ay * deep);
  ctx.lineTo(fx - ay * reach - ax * deep, fy + ax * reach - ay * deep);
  ctx.closePath();
  ctx.clip();
}
