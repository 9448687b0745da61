import type { Motif, Shape } from "../api/client";
import { imageOf, type Picture } from "./images";
import type { Own } from "./paints";
import type { Ctx } from "./view";

/** What can be stamped: shapes on a frame, about a base line. A motif as drawn is one, and so is what of it is laid. */
export interface Artwork {
  shapes: Shape[];
  width_mm: number;
  height_mm: number;
  base_line_mm: number;
}

/** What of a motif is laid: the stretch between its cuts, or the whole. */
export const laidArtwork = (motif: Motif): Artwork => motif.piece ?? motif;

type Gradient = NonNullable<Shape["fill_gradient"]>;

export interface Ready {
  path: Path2D;
  fill: string | null;
  rule: CanvasFillRule;
  stroke: string | null;
  shape: Shape;
  fillGradient: Shade | null;
  strokeGradient: Shade | null;
  /** The places of the fill's and the stroke's colour among the motif's paints; their gradients' stops follow them. */
  fillSlot: number;
  strokeSlot: number;
  picture: { image: Picture; matrix: DOMMatrix } | null;
  /** The shape's thinnest side in mm: what is thinner than a trace of a pixel is not painted. */
  thin: number;
}

/** A gradient in its own space: the path is taken there, for a canvas gradient cannot be skewed. */
interface Shade {
  matrix: DOMMatrix;
  path: Path2D;
  gradient: Gradient;
  opacity: number;
  /** The place of the paint's own colour among the motif's paints; the stops follow it. */
  slot: number;
}

/** A motif made ready to stamp; its shapes lie about the base line's middle. */
export interface Stamp {
  shapes: Ready[];
  /** How far it reaches about the base line's middle, mm. */
  reach: number;
  /** How the motif looks from so far that it is a speck: its frame in its largest shape's colour, which covers a `share` of it. */
  speck: { colour: string; slot: number; share: number; left: number; top: number; right: number; bottom: number };
  /** Whether nothing of it lies over anything else of it, so that it covers part by part as it does as one. */
  single: boolean;
  /** Whether all of it fades to clear, so that it has no edge. */
  soft: boolean;
  /** In which passes its line is painted: what lies under the neighbours before everything else, where there is such. */
  passes: Pass[];
}

/** Which of the shapes are painted: all, or in two goes over all pieces of a line. */
export type Pass = "all" | "under" | "over";

/** The passes in which pieces of these stamps are painted. */
export const passesOf = (stamps: Stamp[]): Pass[] => stamps.find(({ passes }) => passes.length > 1)?.passes ?? ["all"];

export const isOf = (pass: Pass, { shape }: Ready): boolean => pass === "all" || (shape.lies === "under") === (pass === "under");

const MOST_FAINT = 20_000; // texts of colours; chosen

const stamps = new WeakMap<Artwork, Stamp>();

export function stampOf(art: Artwork): Stamp {
  const known = stamps.get(art);
  if (known) return known;
  const shift = new DOMMatrix([1, 0, 0, 1, -art.width_mm / 2, -art.base_line_mm]);
  let largest = { area: -1, colour: "#20352c", slot: 0, share: 1, box: [0, 0, art.width_mm, art.height_mm] };
  let slots = 0;
  const shapes = art.shapes.map((shape): Ready => {
    const path = new Path2D();
    path.addPath(new Path2D(shape.d), shift);
    const box = boxOf(shape.d);
    const [w, h] = [box[2] - box[0], box[3] - box[1]];
    const fill = shape.fill && rgba(shape.fill, shape.fill_opacity);
    const stroke = shape.stroke && rgba(shape.stroke, shape.stroke_opacity);
    const fillSlot = slots;
    const strokeSlot = fillSlot + (shape.fill ? 1 + (shape.fill_gradient?.stops.length ?? 0) : 0);
    slots = strokeSlot + (shape.stroke ? 1 + (shape.stroke_gradient?.stops.length ?? 0) : 0);
    const slot = shape.fill ? fillSlot : strokeSlot;
    if (w * h > largest.area)
      largest = { area: w * h, colour: fill ?? stroke ?? largest.colour, slot, share: shareOf(shape, w * h), box };
    return {
      path,
      fill,
      rule: shape.fill_rule === "evenodd" ? "evenodd" : "nonzero",
      stroke,
      shape,
      fillGradient: shape.fill_gradient ? shadeOf(shape.fill_gradient, shape.fill_opacity, path, shift, fillSlot) : null,
      strokeGradient: shape.stroke_gradient
        ? shadeOf(shape.stroke_gradient, shape.stroke_opacity, path, shift, strokeSlot)
        : null,
      fillSlot,
      strokeSlot,
      picture: shape.picture ? { image: imageOf(shape.picture.href), matrix: pictureMatrix(shape, shift) } : null,
      thin: fill || shape.picture ? Math.min(w, h) : shape.stroke_width,
    };
  });
  const half = Math.max(0, ...art.shapes.map((s) => s.stroke_width)) / 2;
  const [left, top, right, bottom] = largest.box;
  const speck = {
    colour: fainter(largest.colour, largest.share),
    share: largest.share,
    slot: largest.slot,
    left: left - half - art.width_mm / 2,
    top: top - half - art.base_line_mm,
    right: right + half - art.width_mm / 2,
    bottom: bottom + half - art.base_line_mm,
  };
  const [halfWidth, base] = [art.width_mm / 2, art.base_line_mm];
  const reach = Math.max(
    ...art.shapes.map(({ box: [l, t, r, b] }) =>
      Math.hypot(Math.max(halfWidth - l, r - halfWidth), Math.max(base - t, b - base)),
    ),
  );
  const passes: Pass[] = art.shapes.some(({ lies }) => lies === "under") ? ["under", "over"] : ["all"];
  const stamp = {
    shapes,
    reach: Math.max(0, reach),
    speck,
    single: isSingle(art.shapes),
    soft: art.shapes.every(isSoft),
    passes,
  };
  stamps.set(art, stamp);
  return stamp;
}

/** About how much of its box a shape covers. */
function shareOf(shape: Shape, box: number): number {
  if (shape.picture || box <= 0) return 1;
  const v = (shape.d.match(/-?\d*\.?\d+/g) ?? []).map(Number);
  let area = 0;
  let way = 0;
  for (let i = 0; i + 1 < v.length; i += 2) {
    const [x, y] = [v[(i + 2) % v.length], v[(i + 3) % v.length]];
    area += (v[i] * y - x * v[i + 1]) / 2;
    way += Math.hypot(x - v[i], y - v[i + 1]);
  }
  return Math.min(1, ((shape.fill ? Math.abs(area) : 0) + (shape.stroke ? way * shape.stroke_width : 0)) / box);
}

const faint = new Map<string, string>();

/** A colour, as #rrggbb or #rrggbbaa, that covers but a share. */
export function fainter(colour: string, share: number): string {
  if (share > 0.98) return colour;
  const key = `${colour} ${share}`;
  let known = faint.get(key);
  if (known === undefined) {
    if (faint.size > MOST_FAINT) faint.clear();
    known = rgba(colour.slice(0, 7), share * (colour.length > 7 ? parseInt(colour.slice(7), 16) / 255 : 1));
    faint.set(key, known);
  }
  return known;
}

/** Whether no two of the shapes may lie over one another, nor a stroke over its own fill. */
function isSingle(shapes: Shape[]): boolean {
  const apart = ({ box: a }: Shape, { box: b }: Shape): boolean => a[2] <= b[0] || b[2] <= a[0] || a[3] <= b[1] || b[3] <= a[1];
  return (
    shapes.length <= 8 && // chosen: more are seldom apart, and looking takes a step for every two
    shapes.every((shape, i) => !(shape.fill && shape.stroke) && shapes.slice(0, i).every((other) => apart(shape, other)))
  );
}

/** Whether a shape is a glow: it fades to clear from its middle out. */
const isSoft = ({ fill_gradient: gradient, stroke }: Shape): boolean =>
  !stroke && gradient?.kind === "radial" && gradient.stops.at(-1)!.opacity === 0;

function shadeOf(gradient: Gradient, opacity: number, path: Path2D, shift: DOMMatrix, slot: number): Shade {
  const matrix = shift.multiply(new DOMMatrix(gradient.matrix));
  const own = new Path2D();
  own.addPath(path, matrix.inverse());
  return { matrix, path: own, gradient, opacity, slot };
}

/** The map from a picture's pixels to its rectangle, whose corners are the outline's points from the top left clockwise. */
function pictureMatrix(shape: Shape, shift: DOMMatrix): DOMMatrix {
  const v = (shape.d.match(/-?\d*\.?\d+/g) ?? []).map(Number);
  const { width_px: w, height_px: h } = shape.picture!;
  return shift.multiply(new DOMMatrix([(v[2] - v[0]) / w, (v[3] - v[1]) / w, (v[6] - v[0]) / h, (v[7] - v[1]) / h, v[0], v[1]]));
}

/** The box of the points in path data out of absolute M, L, C and Z, as the server writes it. */
function boxOf(d: string): number[] {
  const box = [Infinity, Infinity, -Infinity, -Infinity];
  (d.match(/-?\d*\.?\d+/g) ?? []).forEach((text, i) => {
    const v = Number(text);
    box[i % 2] = Math.min(box[i % 2], v);
    box[2 + (i % 2)] = Math.max(box[2 + (i % 2)], v);
  });
  return box;
}

function rgba(hex: string, opacity: number): string {
  if (opacity >= 1) return hex;
  return (
    hex +
    Math.round(opacity * 255)
      .toString(16)
      .padStart(2, "0")
  );
}

/** Fill the current path as a shape is filled; its gradient lies where `own` puts the piece. */
export function fillPath(ctx: Ctx, ready: Ready, own: () => void, paints: Own | null): void {
  if (ready.fillGradient) shadeCurrent(ctx, ready.fillGradient, ready.rule, own, paints);
  else if (ready.fill) fillIn(ctx, paints?.(ready.fillSlot) ?? ready.fill, ready.rule);
}

/** Fill the current path, the outline of a shape's stroke, as that is painted. */
export function fillStroke(ctx: Ctx, ready: Ready, own: () => void, paints: Own | null): void {
  if (ready.strokeGradient) shadeCurrent(ctx, ready.strokeGradient, "nonzero", own, paints);
  else if (ready.stroke) fillIn(ctx, paints?.(ready.strokeSlot) ?? ready.stroke, "nonzero");
}

/** Stroke the current path as a shape is stroked, `factor` times as wide; its gradient lies where `own` puts the piece. */
export function strokePath(ctx: Ctx, ready: Ready, factor: number, own: () => void, paints: Own | null): void {
  if (!ready.stroke) return;
  if (!ready.strokeGradient) return strokeAs(ctx, ready, factor, paints, () => ctx.stroke());
  const page = ctx.getTransform();
  own();
  strokeAs(ctx, ready, 1, paints, () => ctx.stroke());
  ctx.setTransform(page);
}

function fillIn(ctx: Ctx, colour: string, rule: CanvasFillRule): void {
  ctx.fillStyle = colour;
  ctx.fill(rule);
}

function shadeCurrent(ctx: Ctx, own: Shade, rule: CanvasFillRule, inPiece: () => void, paints: Own | null): void {
  const page = ctx.getTransform();
  inPiece();
  shade(ctx, own, paints, () => ctx.fill(rule));
  ctx.setTransform(page);
}

function strokeAs(ctx: Ctx, ready: Ready, factor: number, paints: Own | null, stroke: () => void): void {
  const flat = paints?.(ready.strokeSlot) ?? ready.stroke!;
  ctx.strokeStyle = (ready.strokeGradient && unskewed(ctx, ready.strokeGradient, paints)) ?? flat;
  ctx.lineWidth = ready.shape.stroke_width * factor;
  ctx.lineCap = ready.shape.cap as CanvasLineCap;
  ctx.lineJoin = ready.shape.join as CanvasLineJoin;
  ctx.miterLimit = ready.shape.miter_limit;
  if (ready.shape.dashes.length) {
    ctx.setLineDash(ready.shape.dashes.map((d) => d * factor));
    ctx.lineDashOffset = ready.shape.dash_offset * factor;
  }
  stroke();
  if (ready.shape.dashes.length) ctx.setLineDash([]);
}

/** Paint the shapes of a pass once where the context stands, but those thinner than `unseen` mm. */
export function stampShapes(ctx: Ctx, stamp: Stamp, unseen = 0, pass: Pass = "all", paints: Own | null = null): void {
  for (const ready of stamp.shapes) {
    if (ready.thin < unseen || !isOf(pass, ready)) continue;
    if (ready.picture) {
      stampPicture(ctx, ready.picture);
      continue;
    }
    if (ready.fillGradient) shade(ctx, ready.fillGradient, paints, (own) => ctx.fill(own, ready.rule));
    else if (ready.fill) {
      ctx.fillStyle = paints?.(ready.fillSlot) ?? ready.fill;
      ctx.fill(ready.path, ready.rule);
    }
    if (ready.stroke) strokeAs(ctx, ready, 1, paints, () => ctx.stroke(ready.path));
  }
}

export function stampPicture(ctx: Ctx, picture: NonNullable<Ready["picture"]>): void {
  if (!picture.image.source) return;
  ctx.save();
  const m = picture.matrix;
  ctx.transform(m.a, m.b, m.c, m.d, m.e, m.f);
  ctx.imageSmoothingQuality = "high";
  ctx.drawImage(picture.image.source, 0, 0);
  ctx.restore();
}

/**
 * A gradient as a canvas has it, for strokes, which cannot be taken to the gradient's own space: lines of one colour stay where they
 * are when a linear one's ends are set square to them. A radial one under a skew has no such form: null.
 */
function unskewed(ctx: Ctx, own: Shade, paints: Own | null): CanvasGradient | null {
  const { gradient, matrix: m } = own;
  const at = (x: number, y: number): [number, number] => [m.a * x + m.c * y + m.e, m.b * x + m.d * y + m.f];
  let style: CanvasGradient;
  if (gradient.kind === "linear") {
    const along = (m.a * m.d - m.b * m.c) / (m.c * m.c + m.d * m.d);
    style = ctx.createLinearGradient(m.e, m.f, m.e + along * m.d, m.f - along * m.c);
  } else {
    const size = Math.hypot(m.a, m.b);
    if (Math.abs(m.a * m.c + m.b * m.d) > 1e-6 * size * size || Math.abs(Math.hypot(m.c, m.d) - size) > 1e-6 * size) return null;
    style = ctx.createRadialGradient(...at(gradient.focus, 0), 0, m.e, m.f, size);
  }
  coloursOf(own, paints).forEach(({ colour, opacity }, i) =>
    style.addColorStop(gradient.stops[i].offset, rgba(colour, opacity * own.opacity)),
  );
  return style;
}

/** The stops' colours, a piece's own where it has some. */
function coloursOf({ gradient, slot }: Shade, paints: Own | null): { colour: string; opacity: number }[] {
  if (!paints) return gradient.stops;
  return gradient.stops.map((_, i) => {
    const text = paints(slot + 1 + i);
    return { colour: text.slice(0, 7), opacity: parseInt(text.slice(7), 16) / 255 };
  });
}

function shade(ctx: Ctx, own: Shade, paints: Own | null, paint: (path: Path2D) => void): void {
  const { gradient, matrix: m } = own;
  const style =
    gradient.kind === "linear" ? ctx.createLinearGradient(0, 0, 1, 0) : ctx.createRadialGradient(gradient.focus, 0, 0, 0, 0, 1);
  coloursOf(own, paints).forEach(({ colour, opacity }, i) => style.addColorStop(gradient.stops[i].offset, rgba(colour, opacity)));
  ctx.save();
  ctx.transform(m.a, m.b, m.c, m.d, m.e, m.f);
  ctx.globalAlpha *= own.opacity;
  ctx.fillStyle = style;
  paint(own.path);
  ctx.restore();
}
