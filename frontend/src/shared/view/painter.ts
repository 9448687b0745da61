import type { Motif, Schemas } from "../api/client";
import type { ScenePieces } from "../api/scenes";
import { BISECTOR, CONTOURS, PIECES } from "../api/tables";
import { clippedTo, closesOf } from "./closes";
import { asGroup, covering, isWhole, type Blend, type Box, type Cover } from "./cover";
import { inPage, paintOutlines, SEVERAL, STAMPED } from "./outlines";
import { glowOf } from "./glows";
import { Groups } from "./groups";
import { mixedOf } from "./mixed";
import { NO_PAINTS, ownOf, rowOf, type Own } from "./paints";
import { Specks } from "./specks";
import { fainter, laidArtwork, passesOf, stampOf, stampShapes, type Artwork, type Pass, type Stamp } from "./stamp";
import { sightOf, type Area, type Ctx, type Px, type Sight, type View } from "./view";

const UNSEEN_PX = 0.35; // of a device pixel; chosen: thinner shapes only tint the edge
const SPECK_PX = 1.5; // of a device pixel, from the middle
const HURRIED_SPECK_PX = 3; // of very many pieces that change under the hand; chosen: what they are made of shows again once they rest
const SEAM_PX = 0.5; // of a device pixel: both sides reach so far over a bisector, for no ground to show along it
const NEARLY = 0xf8f8f8f8; // of a colour; chosen: what changes under the hand may be eight levels off until it rests
const BENT_REACH = 3; // chosen: how much further a piece may reach once it is bent

/** How a line as one, and each of its pieces, is laid on what is below. */
type Laying = Pick<Schemas["SceneHeader"], "covers" | "laid_on_as" | "pieces_laid_on_as">;

/** What is laid on one line, ready to be painted: a stamp for each motif of its brush, and the scene's tables. */
export interface Laid extends ScenePieces, Laying {
  stamps: Stamp[];
}

/** What a scene says of its pieces. */
export type LaidScene = Pick<ScenePieces, "matrices" | "motif"> & Partial<ScenePieces & Laying>;

/** Make a scene's pieces ready with the motifs of its brush, in their order. */
export const laidOf = (motifs: Motif[], scene: LaidScene): Laid => laidWith(motifs.map(laidArtwork), scene);

/** Make a scene's pieces ready with what its motifs lay. */
export const laidWith = (artworks: Artwork[], scene: LaidScene): Laid => ({ ...EMPTY, ...scene, stamps: artworks.map(stampOf) });

const EMPTY = {
  covers: 1,
  laid_on_as: "normal" as const,
  pieces_laid_on_as: "normal" as const,
  opacity: new Float32Array(0),
  ...NO_PAINTS,
  drawn: new Uint32Array(0),
  outline: new Float32Array(0),
  contours: new Uint32Array(0),
  cut: new Uint32Array(0),
  bisectors: new Float32Array(0),
  close: new Uint32Array(0),
  areas: new Uint32Array(0),
  rings: new Float32Array(0),
  meshes: [],
};

/** Whether what is below a scene shows in the colours of its pieces, so that they cannot be painted apart from it. */
export const blends = ({ laid_on_as = "normal", pieces_laid_on_as = "normal" }: Partial<Laying>): boolean =>
  laid_on_as !== "normal" || pieces_laid_on_as !== "normal";

const LIGHTENING: Blend[] = ["screen", "lighten", "color-dodge"];

/** Whether what is laid on so can only lighten what is below it. */
export const lightens = (way: Blend = "normal"): boolean => LIGHTENING.includes(way);
const PALE = 0.84; // of the mean of red, green and blue; chosen: what is lighter hardly shows on white

/** Whether a line shows on a dark ground alone: for it only lightens, or is pale. */
export function isForNight(laid: Laid): boolean {
  if (lightens(laid.laid_on_as) || lightens(laid.pieces_laid_on_as)) return true;
  if (!laid.stamps.length || laid.laid_on_as !== "normal") return false;
  const [{ speck }] = laid.stamps;
  const colour = ownOf(laid, 0, 0)?.(speck.slot) ?? speck.colour;
  const parts = [1, 3, 5].map((at) => parseInt(colour.slice(at, at + 2), 16) / 255);
  return parts.reduce((a, b) => a + b, 0) / 3 > PALE;
}

/**
 * What is painted faster while it changes under the hand: nothing; what is soft and put together by itself, from pictures;
 * small pieces too, as spots of their mixed colours.
 */
export type Hurry = "none" | "soft" | "all";

/** Paint every piece that reaches into an area, the line as one where it is laid on so; `ratio` is device pixels to a CSS pixel. */
export function paintPieces(ctx: Ctx, laid: Laid, view: View, ratio: number, area: Area, hurry: Hurry = "none"): void {
  if (!laid.stamps.length) return;
  const page: View = { scale: view.scale * ratio, x: view.x * ratio, y: view.y * ratio };
  const line: Cover = { share: laid.covers, way: laid.laid_on_as };
  const box = boxOf(area, ratio);
  if (isWhole(line)) paintAll(ctx, laid, page, sightOf(area, ratio), hurry);
  else
    asGroup(ctx, box, line, (own, [x, y]) =>
      paintAll(own, laid, { ...page, x: page.x - x, y: page.y - y }, sightOf({ width: box.width, height: box.height }, 1), hurry),
    );
  ctx.setTransform(ratio, 0, 0, ratio, 0, 0);
}

function paintAll(ctx: Ctx, laid: Laid, page: View, seen: Sight, hurry: Hurry): void {
  for (const pass of passesOf(laid.stamps)) {
    const range = (from: number, to: number): void => {
      const painter = new Painter(ctx, laid, page, seen, pass, hurry);
      for (let piece = from; piece < to; piece++) painter.paint(piece);
      painter.end();
    };
    let at = 0;
    for (const { first, behind, end, apart, area } of closesOf(laid, pass)) {
      if (apart) {
        range(at, first);
        clippedTo(ctx, page, area, true, () => range(first, behind));
        range(behind, end);
      } else range(at, end);
      clippedTo(ctx, page, area, false, () => range(first, behind));
      at = end;
    }
    range(at, laid.matrices.length / PIECES.width);
  }
}

/** The whole device pixels that an area touches. */
function boxOf({ x = 0, y = 0, width, height }: Area, ratio: number): Box {
  const [left, top] = [Math.floor(x * ratio), Math.floor(y * ratio)];
  return { left, top, width: Math.ceil((x + width) * ratio) - left, height: Math.ceil((y + height) * ratio) - top };
}

/** Paints pieces, what of them is of a pass, one after the other, in their order; `page` in device pixels. */
class Painter {
  private readonly groups: Groups;
  private readonly specks: Specks;
  private contour = 0; // the row of the contours where the next outlined piece's begin
  private cut = 0; // the row of the cuts where the next cut piece's begin

  constructor(
    private readonly ctx: Ctx,
    private readonly laid: Laid,
    private readonly page: View,
    private readonly seen: Sight,
    private readonly pass: Pass,
    private readonly hurry: Hurry,
  ) {
    this.groups = new Groups(ctx);
    this.specks = new Specks(ctx, (job) => this.groups.after(job));
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
    const motif = laid.motif.length ? laid.motif[piece] : 0;
    const stamp = laid.stamps[motif] ?? laid.stamps[0];
    const how = laid.drawn.length ? laid.drawn[piece] : STAMPED;
    const size = Math.max(Math.hypot(a, b), Math.hypot(c, d));
    const reach = (how === STAMPED ? 1 : BENT_REACH) * stamp.reach * size;
    if (how === SEVERAL) return this.paintSeveral(piece, stamp, ownOf(laid, piece, motif));
    if (!this.seen(x, y, reach)) return;
    const cover = { share: laid.opacity.length ? laid.opacity[piece] : 1, way: laid.pieces_laid_on_as };
    const least = (this.hurry === "all" ? HURRIED_SPECK_PX : SPECK_PX) * Math.min(1, 2 * stamp.speck.share);
    const speck = stamp.reach * size < least; // what is mostly clear shows its shape longer
    if (speck && this.pass === "under") return;
    const paints = ownOf(laid, piece, motif);
    if (speck) {
      const colour = this.hurry === "all" ? mixedOf(stamp, laid.paints, rowOf(laid, piece, motif)) : farColour(stamp, paints);
      return this.specks.add(colour, stamp.speck, cover, a, b, c, d, x, y);
    }
    const one = (on: Ctx, from: Px): void => {
      if (how === STAMPED) {
        on.setTransform(a, b, c, d, x - from[0], y - from[1]);
        stampShapes(on, stamp, UNSEEN_PX / size, this.pass, paints);
      } else this.paintOutlined(on, piece, how, stamp, paints, { ...page, x: page.x - from[0], y: page.y - from[1] });
    };
    const whole = isWhole(cover);
    const grouped = !whole && !(stamp.single && how === STAMPED);
    if (grouped && !this.isCut(piece)) {
      this.specks.paint();
      const glow = this.hurry !== "none" && stamp.soft && how === STAMPED && this.glowOf(piece, stamp, paints, 2 * reach);
      if (!glow) return this.groups.add(this.boxAbout(x, y, reach), cover, one);
      return this.groups.after(() => {
        ctx.setTransform(a, b, c, d, x, y);
        covering(ctx, cover, () => ctx.drawImage(glow, -stamp.reach, -stamp.reach, 2 * stamp.reach, 2 * stamp.reach));
      });
    }
    this.end();
    const clipped = this.clip(piece, [m[at + 4], m[at + 5]], reach / s);
    if (whole) one(ctx, [0, 0]);
    else if (grouped) asGroup(ctx, this.boxAbout(x, y, reach), cover, one);
    else covering(ctx, cover, () => one(ctx, [0, 0]));
    if (clipped) ctx.restore();
  }

  /** The picture of a soft piece in its colours, or in nearly the same. */
  private glowOf(piece: number, stamp: Stamp, paints: Own | null, across: number): OffscreenCanvas | null {
    const { laid } = this;
    const row = rowOf(laid, piece, laid.motif.length ? laid.motif[piece] : 0);
    const colours =
      row < 0
        ? ""
        : laid.paints
            .subarray(row, row + laid.wide)
            .map((rgba) => rgba & NEARLY)
            .join();
    return glowOf(stamp, colours, paints, across);
  }

  /** Paint pieces that are drawn as one, flat and opaque as they are. */
  private paintSeveral(piece: number, stamp: Stamp, paints: Own | null): void {
    this.end();
    this.paintOutlined(this.ctx, piece, SEVERAL, stamp, paints, this.page);
  }

  /** Paint what waits still. */
  end(): void {
    this.specks.paint();
    this.groups.paint();
  }

  /** The device pixels of the canvas that a piece about a place may touch. */
  private boxAbout(x: number, y: number, reach: number): Box {
    const { width, height } = this.ctx.canvas;
    const [left, top] = [x, y].map((at) => Math.max(0, Math.floor(at - reach) - 1));
    return {
      left,
      top,
      width: Math.min(width, Math.ceil(x + reach) + 1) - left,
      height: Math.min(height, Math.ceil(y + reach) + 1) - top,
    };
  }

  private paintOutlined(ctx: Ctx, piece: number, how: number, stamp: Stamp, paints: Own | null, page: View): void {
    const { contours } = this.laid;
    while (this.contour * CONTOURS.width < contours.length && contours[this.contour * CONTOURS.width + CONTOURS.piece] < piece)
      this.contour++;
    this.contour = paintOutlines(ctx, this.laid, piece, how, this.contour, stamp, page, this.pass, paints);
  }

  /** Whether a piece ends on bisectors; pieces are asked for in their order. */
  private isCut(piece: number): boolean {
    const { cut } = this.laid;
    while (this.cut < cut.length && cut[this.cut] < piece) this.cut++;
    return cut[this.cut] === piece;
  }

  /** Clip to what is kept of a piece about `centre` that reaches so far (mm), where it ends on bisectors; tell whether it does. */
  private clip(piece: number, centre: Px, reach: number): boolean {
    if (!this.isCut(piece)) return false;
    const { cut, bisectors } = this.laid;
    this.ctx.save();
    inPage(this.ctx, this.page);
    for (; cut[this.cut] === piece; this.cut++)
      clipOnBisector(this.ctx, bisectors, this.cut, centre, reach, SEAM_PX / this.page.scale);
    return true;
  }
}

/** The colour of a piece that is but a speck. */
const farColour = ({ speck }: Stamp, paints: Own | null): string =>
  paints ? fainter(paints(speck.slot), speck.share) : speck.colour;

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
