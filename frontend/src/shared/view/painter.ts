import type { Motif, Shape } from "../api/client";
import type { Finding, PictureMesh } from "../api/scenes";
import { imageOf, type Picture } from "./images";
import { paintMesh } from "./meshes";

/** A drawing context of the page or of a worker. */
export type Ctx = CanvasRenderingContext2D | OffscreenCanvasRenderingContext2D;

/** Millimetres to pixels: px = mm · scale + (x, y). */
export interface View {
  scale: number;
  x: number;
  y: number;
}

export function fitView(width: number, height: number, box: [number, number], margin = 8): View {
  const scale = Math.max(1e-6, Math.min((width - 2 * margin) / box[0], (height - 2 * margin) / box[1]));
  return { scale, x: (width - box[0] * scale) / 2, y: (height - box[1] * scale) / 2 };
}

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

interface Ready {
  path: Path2D;
  fill: string | null;
  rule: CanvasFillRule;
  stroke: string | null;
  shape: Shape;
  fillGradient: Shade | null;
  strokeGradient: Shade | null;
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
}

/** A motif made ready to stamp; its shapes lie about the base line's middle. */
export interface Stamp {
  shapes: Ready[];
  /** How far it reaches about the base line's middle, mm. */
  reach: number;
  /** How the motif looks from so far that it is a speck: its frame in its largest shape's colour. */
  speck: { colour: string; left: number; top: number; right: number; bottom: number };
}

type Px = [number, number];

const UNSEEN_PX = 0.35; // of a device pixel; chosen: thinner shapes only tint the edge
const SPECK_PX = 1.5; // of a device pixel, from the middle
const SEAM_PX = 0.5; // of a device pixel: both sides reach so far over a bisector, for no ground to show along it
const BENT_REACH = 3; // chosen: how much further a piece may reach once it is bent

const stamps = new WeakMap<Artwork, Stamp>();

export function stampOf(art: Artwork): Stamp {
  const known = stamps.get(art);
  if (known) return known;
  const shift = new DOMMatrix([1, 0, 0, 1, -art.width_mm / 2, -art.base_line_mm]);
  let largest = { area: -1, colour: "#20352c", box: [0, 0, art.width_mm, art.height_mm] };
  const shapes = art.shapes.map((shape): Ready => {
    const path = new Path2D();
    path.addPath(new Path2D(shape.d), shift);
    const box = boxOf(shape.d);
    const [w, h] = [box[2] - box[0], box[3] - box[1]];
    const fill = shape.fill && rgba(shape.fill, shape.fill_opacity);
    const stroke = shape.stroke && rgba(shape.stroke, shape.stroke_opacity);
    if (w * h > largest.area) largest = { area: w * h, colour: fill ?? stroke ?? largest.colour, box };
    return {
      path,
      fill,
      rule: shape.fill_rule === "evenodd" ? "evenodd" : "nonzero",
      stroke,
      shape,
      fillGradient: shape.fill_gradient ? shadeOf(shape.fill_gradient, shape.fill_opacity, path, shift) : null,
      strokeGradient: shape.stroke_gradient ? shadeOf(shape.stroke_gradient, shape.stroke_opacity, path, shift) : null,
      picture: shape.picture ? { image: imageOf(shape.picture.href), matrix: pictureMatrix(shape, shift) } : null,
      thin: fill || shape.picture ? Math.min(w, h) : shape.stroke_width,
    };
  });
  const half = Math.max(0, ...art.shapes.map((s) => s.stroke_width)) / 2;
  const [left, top, right, bottom] = largest.box;
  const speck = {
    colour: largest.colour,
    left: left - half - art.width_mm / 2,
    top: top - half - art.base_line_mm,
    right: right + half - art.width_mm / 2,
    bottom: bottom + half - art.base_line_mm,
  };
  const [halfWidth, base] = [art.width_mm / 2, art.base_line_mm];
  const reach = Math.max(...art.shapes.map(({ box }) => Math.hypot(Math.max(halfWidth - box[0], box[2] - halfWidth), Math.max(base - box[1], box[3] - base))));
  const stamp = { shapes, reach: Math.max(0, reach), speck };
  stamps.set(art, stamp);
  return stamp;
}

function shadeOf(gradient: Gradient, opacity: number, path: Path2D, shift: DOMMatrix): Shade {
  const matrix = shift.multiply(new DOMMatrix(gradient.matrix));
  const own = new Path2D();
  own.addPath(path, matrix.inverse());
  return { matrix, path: own, gradient, opacity };
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
  return hex + Math.round(opacity * 255).toString(16).padStart(2, "0");
}

/** What is laid on one line: a stamp for each variant, and for each piece its matrix and which variant it is. */
export interface Laid {
  stamps: Stamp[];
  matrices: Float32Array;
  /** Empty where there is one variant. */
  variant: Uint16Array;
  /** Bent pieces: their outlines on the page, and a row a contour (first point, piece, twice the shape plus closed). */
  outline: Float32Array;
  contours: Uint32Array;
  /** 1 for a piece that is shaped; empty where all are stamped. */
  shaped: Uint32Array;
  /** Pieces that end on a bisector, rising, and for each a place on it and the direction (x, y, x, y) that leaves what is kept. */
  cut: Uint32Array;
  bisectors: Float32Array;
  meshes: PictureMesh[];
}

/** What a scene says of its pieces. */
export type LaidScene = Pick<Laid, "matrices" | "variant"> & Partial<Omit<Laid, "stamps">>;

/** Make a scene's pieces ready with the motifs of its brush's repeat, in their order. */
export const laidOf = (motifs: Motif[], scene: LaidScene): Laid => laidWith(motifs.map(laidArtwork), scene);

/** Make a scene's pieces ready with what its motifs lay. */
export const laidWith = (artworks: Artwork[], scene: LaidScene): Laid => ({
  stamps: artworks.map(stampOf),
  matrices: scene.matrices,
  variant: scene.variant,
  outline: scene.outline ?? NO_OUTLINE,
  contours: scene.contours ?? NO_CONTOURS,
  shaped: scene.shaped ?? NO_CONTOURS,
  cut: scene.cut ?? NO_CONTOURS,
  bisectors: scene.bisectors ?? NO_OUTLINE,
  meshes: scene.meshes ?? [],
});

const NO_OUTLINE = new Float32Array(0);
const NO_CONTOURS = new Uint32Array(0);

/** What is seen, in CSS pixels: a canvas, or a part of one from (x, y). */
export interface Area {
  x?: number;
  y?: number;
  width: number;
  height: number;
}

/** Tells whether what reaches `reach` device pixels about a place can be seen in an area. */
function sightOf({ x = 0, y = 0, width, height }: Area, ratio: number): (atX: number, atY: number, reach: number) => boolean {
  const [left, top, right, bottom] = [x, y, x + width, y + height].map((px) => px * ratio);
  return (atX, atY, reach) => atX + reach >= left && atY + reach >= top && atX - reach <= right && atY - reach <= bottom;
}

/** Paint every piece that reaches into an area; `ratio` is device pixels to a CSS pixel. */
export function paintPieces(ctx: Ctx, laid: Laid, view: View, ratio: number, area: Area): void {
  const { stamps, matrices, variant } = laid;
  if (!stamps.length) return;
  const stamp = stamps.reduce((a, b) => (b.reach > a.reach ? b : a));
  const s = view.scale * ratio;
  const dx = view.x * ratio;
  const dy = view.y * ratio;
  const seen = sightOf(area, ratio);
  const specks = stamp.reach * s * sizeOf(matrices) < SPECK_PX ? new Path2D() : null;
  if ((laid.shaped.length || laid.cut.length) && !specks) return paintOneByOne(ctx, laid, view, ratio, seen);
  for (let i = 0; i < matrices.length; i += 6) {
    const a = matrices[i] * s, b = matrices[i + 1] * s, c = matrices[i + 2] * s, d = matrices[i + 3] * s;
    const x = matrices[i + 4] * s + dx;
    const y = matrices[i + 5] * s + dy;
    const own = variant.length ? (stamps[variant[i / 6]] ?? stamps[0]) : stamps[0];
    if (!seen(x, y, own.reach * Math.max(Math.hypot(a, b), Math.hypot(c, d)))) continue;
    if (specks) {
      const { left, top, right, bottom } = own.speck;
      specks.moveTo(a * left + c * top + x, b * left + d * top + y);
      specks.lineTo(a * right + c * top + x, b * right + d * top + y);
      specks.lineTo(a * right + c * bottom + x, b * right + d * bottom + y);
      specks.lineTo(a * left + c * bottom + x, b * left + d * bottom + y);
    } else {
      ctx.setTransform(a, b, c, d, x, y);
      stampShapes(ctx, own, UNSEEN_PX / Math.hypot(a, b));
    }
  }
  if (specks) {
    ctx.setTransform(1, 0, 0, 1, 0, 0);
    ctx.fillStyle = stamp.speck.colour;
    ctx.fill(specks);
  }
  ctx.setTransform(ratio, 0, 0, ratio, 0, 0);
}

/** Paint pieces of which some are bent or cut; of bent ones gradients turn with the piece. */
function paintOneByOne(ctx: Ctx, laid: Laid, view: View, ratio: number, seen: ReturnType<typeof sightOf>): void {
  const { stamps, matrices, variant, contours, cut } = laid;
  const page: View = { scale: view.scale * ratio, x: view.x * ratio, y: view.y * ratio };
  let [at, ends] = [0, 0];
  for (let piece = 0; piece * 6 < matrices.length; piece++) {
    const stamp = stamps[variant.length ? variant[piece] : 0] ?? stamps[0];
    const m = matrices.subarray(piece * 6, piece * 6 + 6);
    const shaped = laid.shaped[piece] === 1;
    const reach = (shaped ? BENT_REACH : 1) * stamp.reach * Math.max(Math.hypot(m[0], m[1]), Math.hypot(m[2], m[3]));
    while (at < contours.length && contours[at + 1] < piece) at += 3;
    while (ends < cut.length && cut[ends] < piece) ends++;
    if (!seen(m[4] * page.scale + page.x, m[5] * page.scale + page.y, reach * page.scale)) continue;
    const clipped = cut[ends] === piece;
    if (clipped) {
      ctx.save();
      inPage(ctx, page);
      for (; cut[ends] === piece; ends++) clipOnBisector(ctx, laid.bisectors, ends, [m[4], m[5]], reach, SEAM_PX / page.scale);
    }
    if (shaped) at = paintBent(ctx, laid, piece, at, stamp, page);
    else {
      inPiece(ctx, m, page);
      stampShapes(ctx, stamp);
    }
    if (clipped) ctx.restore();
  }
  ctx.setTransform(ratio, 0, 0, ratio, 0, 0);
}

/** Draw in mm of the page, or of a piece where its matrix puts it; `page` in device pixels. */
const inPage = (ctx: Ctx, { scale, x, y }: View): void => ctx.setTransform(scale, 0, 0, scale, x, y);
const inPiece = (ctx: Ctx, m: Float32Array, { scale: s, x, y }: View): void =>
  ctx.setTransform(m[0] * s, m[1] * s, m[2] * s, m[3] * s, m[4] * s + x, m[5] * s + y);

/** Clip to what lies on a bisector's near side and `over` it, as far as a piece about `centre` reaches (mm). */
function clipOnBisector(ctx: Ctx, bisectors: Float32Array, row: number, centre: Px, reach: number, over: number): void {
  const [vx, vy, ax, ay] = bisectors.subarray(4 * row, 4 * row + 4);
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

/** Paint a bent piece, whose contours begin at `at`: each shape's as one path, with its paints. Return where the next piece's begin. */
function paintBent(ctx: Ctx, laid: Laid, piece: number, at: number, stamp: Stamp, page: View): number {
  const { contours, outline } = laid;
  const m = laid.matrices.subarray(piece * 6, piece * 6 + 6);
  const factor = Math.sqrt(Math.abs(m[0] * m[3] - m[1] * m[2]));
  const own = (): void => inPiece(ctx, m, page);
  inPage(ctx, page);
  stamp.shapes.forEach((ready, shape) => {
    if (ready.picture) {
      const mesh = meshAt(laid.meshes, piece, shape);
      if (mesh) return paintMesh(ctx, ready.picture.image, mesh.mesh, mesh.first, page.scale);
      own();
      stampPicture(ctx, ready.picture);
      return inPage(ctx, page);
    }
    const began = at;
    ctx.beginPath();
    for (; at < contours.length && contours[at + 1] === piece && contours[at + 2] >> 1 === shape; at += 3) {
      const end = at + 3 < contours.length ? contours[at + 3] : outline.length / 2;
      contour(ctx, outline, contours[at], end, (contours[at + 2] & 1) === 1);
    }
    if (at > began) paintPath(ctx, ready, factor, own);
  });
  return at;
}

/** The mesh of a piece's picture, and where in its points the piece's begin. */
function meshAt(meshes: PictureMesh[], piece: number, shape: number): { mesh: PictureMesh; first: number } | null {
  for (const mesh of meshes) {
    if (mesh.of[1] !== shape) continue;
    let low = 0, high = mesh.of.length / 2 - 1;
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

/** Fill and stroke the current path as a shape is painted; its gradients lie where `own` puts the piece. */
function paintPath(ctx: Ctx, ready: Ready, factor: number, own: () => void): void {
  if (ready.fillGradient) {
    const page = ctx.getTransform();
    own();
    shade(ctx, ready.fillGradient, () => ctx.fill(ready.rule));
    ctx.setTransform(page);
  } else if (ready.fill) {
    ctx.fillStyle = ready.fill;
    ctx.fill(ready.rule);
  }
  if (ready.stroke) strokeAs(ctx, ready, factor, () => ctx.stroke());
}

function strokeAs(ctx: Ctx, ready: Ready, factor: number, stroke: () => void): void {
  ctx.strokeStyle = ready.stroke!; // a gradient along a stroke is shown in its mean colour
  ctx.lineWidth = ready.shape.stroke_width * factor;
  ctx.lineCap = ready.shape.cap as CanvasLineCap;
  ctx.lineJoin = ready.shape.join as CanvasLineJoin;
  ctx.miterLimit = ready.shape.miter_limit;
  if (ready.shape.dashes.length) ctx.setLineDash(ready.shape.dashes.map((d) => d * factor));
  stroke();
  if (ready.shape.dashes.length) ctx.setLineDash([]);
}

/** How large the first piece is laid, against its motif. */
function sizeOf(matrices: Float32Array): number {
  return matrices.length ? Math.hypot(matrices[0], matrices[1]) : 1;
}

/** Paint the shapes once where the context stands, but those thinner than `unseen` mm. */
export function stampShapes(ctx: Ctx, stamp: Stamp, unseen = 0): void {
  for (const ready of stamp.shapes) {
    if (ready.thin < unseen) continue;
    if (ready.picture) {
      stampPicture(ctx, ready.picture);
      continue;
    }
    if (ready.fillGradient) shade(ctx, ready.fillGradient, (own) => ctx.fill(own, ready.rule));
    else if (ready.fill) {
      ctx.fillStyle = ready.fill;
      ctx.fill(ready.path, ready.rule);
    }
    if (ready.stroke) strokeAs(ctx, ready, 1, () => ctx.stroke(ready.path));
  }
}

function stampPicture(ctx: Ctx, picture: NonNullable<Ready["picture"]>): void {
  if (!picture.image.source) return;
  ctx.save();
  const m = picture.matrix;
  ctx.transform(m.a, m.b, m.c, m.d, m.e, m.f);
  ctx.imageSmoothingQuality = "high";
  ctx.drawImage(picture.image.source, 0, 0);
  ctx.restore();
}

function shade(ctx: Ctx, own: Shade, paint: (path: Path2D) => void): void {
  const { gradient, matrix: m } = own;
  const style = gradient.kind === "linear" ? ctx.createLinearGradient(0, 0, 1, 0) : ctx.createRadialGradient(gradient.focus, 0, 0, 0, 0, 1);
  for (const stop of gradient.stops) style.addColorStop(stop.offset, rgba(stop.colour, stop.opacity));
  ctx.save();
  ctx.transform(m.a, m.b, m.c, m.d, m.e, m.f);
  ctx.globalAlpha *= own.opacity;
  ctx.fillStyle = style;
  paint(own.path);
  ctx.restore();
}

/** Stroke path data given in mm as a hairline of `px` pixels. */
export function strokeHairline(ctx: Ctx, d: string, view: View, ratio: number, colour: string, px: number, dash: number[] = []): void {
  const s = view.scale * ratio;
  ctx.setTransform(s, 0, 0, s, view.x * ratio, view.y * ratio);
  ctx.strokeStyle = colour;
  ctx.lineWidth = px / view.scale;
  ctx.setLineDash(dash.map((v) => v / view.scale));
  ctx.lineCap = "butt";
  ctx.lineJoin = "round";
  ctx.stroke(new Path2D(d));
  ctx.setLineDash([]);
  ctx.setTransform(ratio, 0, 0, ratio, 0, 0);
}

const RING_PX = 9;

/** Ring the findings in weld yellow, one ring where several lie together; the chosen one larger. */
export function paintRings(ctx: Ctx, findings: Pick<Finding, "at">[], view: View, night: boolean, chosen: number | null): void {
  const places = findings.map((f) => [f.at[0] * view.scale + view.x, f.at[1] * view.scale + view.y]);
  const drawn: number[][] = [];
  ctx.strokeStyle = night ? "#e8bd4d" : "#c9971c";
  ctx.lineWidth = 1.6;
  for (const [x, y] of places) {
    if (drawn.some((d) => Math.hypot(d[0] - x, d[1] - y) < 1.6 * RING_PX)) continue;
    drawn.push([x, y]);
    ctx.beginPath();
    ctx.arc(x, y, RING_PX, 0, 2 * Math.PI);
    ctx.stroke();
  }
  if (chosen === null || !places[chosen]) return;
  ctx.lineWidth = 3;
  ctx.beginPath();
  ctx.arc(places[chosen][0], places[chosen][1], RING_PX + 6, 0, 2 * Math.PI);
  ctx.stroke();
}
