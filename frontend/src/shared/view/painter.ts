import type { Motif, Shape } from "../api/client";
import type { Finding } from "../api/scenes";

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

interface Ready {
  path: Path2D;
  fill: string | null;
  rule: CanvasFillRule;
  stroke: string | null;
  shape: Shape;
}

/** A motif made ready to stamp; its shapes lie about the base line's middle. */
export interface Stamp {
  shapes: Ready[];
  reach: number;
}

const stamps = new WeakMap<Motif, Stamp>();

export function stampOf(motif: Motif): Stamp {
  const known = stamps.get(motif);
  if (known) return known;
  const shift = new DOMMatrix([1, 0, 0, 1, -motif.width_mm / 2, -motif.base_line_mm]);
  const shapes = motif.shapes.map((shape) => {
    const path = new Path2D();
    path.addPath(new Path2D(shape.d), shift);
    return {
      path,
      fill: shape.fill && rgba(shape.fill, shape.fill_opacity),
      rule: (shape.fill_rule === "evenodd" ? "evenodd" : "nonzero") as CanvasFillRule,
      stroke: shape.stroke && rgba(shape.stroke, shape.stroke_opacity),
      shape,
    };
  });
  const stamp = { shapes, reach: Math.hypot(motif.width_mm, motif.height_mm) };
  stamps.set(motif, stamp);
  return stamp;
}

function rgba(hex: string, opacity: number): string {
  if (opacity >= 1) return hex;
  return hex + Math.round(opacity * 255).toString(16).padStart(2, "0");
}

/** Paint every piece that reaches into the canvas; `ratio` is device pixels to a CSS pixel. */
export function paintPieces(
  ctx: CanvasRenderingContext2D,
  stamp: Stamp,
  matrices: Float32Array,
  view: View,
  ratio: number,
  size: { width: number; height: number },
): void {
  const s = view.scale * ratio;
  const dx = view.x * ratio;
  const dy = view.y * ratio;
  const width = size.width * ratio;
  const height = size.height * ratio;
  for (let i = 0; i < matrices.length; i += 6) {
    const a = matrices[i], b = matrices[i + 1], c = matrices[i + 2], d = matrices[i + 3];
    const x = matrices[i + 4] * s + dx;
    const y = matrices[i + 5] * s + dy;
    const reach = stamp.reach * s * Math.max(Math.abs(a) + Math.abs(c), Math.abs(b) + Math.abs(d));
    if (x + reach < 0 || y + reach < 0 || x - reach > width || y - reach > height) continue;
    ctx.setTransform(a * s, b * s, c * s, d * s, x, y);
    stampShapes(ctx, stamp);
  }
  ctx.setTransform(ratio, 0, 0, ratio, 0, 0);
}

/** Paint the shapes once where the context stands. */
export function stampShapes(ctx: CanvasRenderingContext2D, stamp: Stamp): void {
  for (const ready of stamp.shapes) {
    if (ready.fill) {
      ctx.fillStyle = ready.fill;
      ctx.fill(ready.path, ready.rule);
    }
    if (ready.stroke) {
      ctx.strokeStyle = ready.stroke;
      ctx.lineWidth = ready.shape.stroke_width;
      ctx.lineCap = ready.shape.cap as CanvasLineCap;
      ctx.lineJoin = ready.shape.join as CanvasLineJoin;
      ctx.miterLimit = ready.shape.miter_limit;
      if (ready.shape.dashes.length) ctx.setLineDash(ready.shape.dashes);
      ctx.stroke(ready.path);
      if (ready.shape.dashes.length) ctx.setLineDash([]);
    }
  }
}

/** Stroke path data given in mm as a hairline of `px` pixels. */
export function strokeHairline(ctx: CanvasRenderingContext2D, d: string, view: View, ratio: number, colour: string, px: number, dash: number[] = []): void {
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
export function paintRings(ctx: CanvasRenderingContext2D, findings: Finding[], view: View, night: boolean, chosen: number | null): void {
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
