import type { Ctx, View } from "./view";

/** In CSS pixels. */
export interface Size {
  width: number;
  height: number;
}

/** Paints on a canvas; `was` is what was last painted under the work and over it. */
export type Paint = (ctx: Ctx, size: Size, ratio: number, was?: { below: Kept | null; above: Kept | null }) => void;

/** What stands still under the work or over it: painted anew only where its key, or the canvas's size, is another. */
export interface Under {
  key: string;
  paint: Paint;
  /** The view that it is painted in. */
  view?: View;
}

/** A picture that is kept, and the view that it was painted in. */
export interface Kept {
  key: string;
  canvas: OffscreenCanvas;
  view?: View;
}

/** Give a canvas the device pixels of its size, at `ratio` to a CSS pixel. */
export function fitCanvas(canvas: HTMLCanvasElement | OffscreenCanvas, { width, height }: Size, ratio: number): void {
  const [across, down] = [Math.round(width * ratio), Math.round(height * ratio)];
  if (canvas.width !== across) canvas.width = across;
  if (canvas.height !== down) canvas.height = down;
}

/** Paints a canvas anew: what moves between kept pictures of what stands still. */
export class Layers {
  below: Kept | null = null;
  above: Kept | null = null;

  /** Paint where `ratio` device pixels are a CSS pixel; the canvas is already as large as `size` says. */
  paint(ctx: Ctx, size: Size, ratio: number, paint: Paint, under?: Under, over?: Under): void {
    const { width, height } = ctx.canvas;
    ctx.setTransform(1, 0, 0, 1, 0, 0);
    if (under) {
      this.below = asKept(this.below, under, size, ratio, width, height);
      ctx.globalCompositeOperation = "copy";
      ctx.drawImage(this.below.canvas, 0, 0);
      ctx.globalCompositeOperation = "source-over";
    } else ctx.clearRect(0, 0, width, height);
    ctx.setTransform(ratio, 0, 0, ratio, 0, 0);
    if (under && !over) this.above = null;
    paint(ctx, size, ratio, this);
    if (!over) return;
    this.above = asKept(this.above, over, size, ratio, width, height);
    ctx.setTransform(1, 0, 0, 1, 0, 0);
    ctx.drawImage(this.above.canvas, 0, 0);
    ctx.setTransform(ratio, 0, 0, ratio, 0, 0);
  }
}

/** The picture as it is kept, or painted anew where what it shows is another. */
function asKept(kept: Kept | null, { key, paint, view }: Under, size: Size, ratio: number, width: number, height: number): Kept {
  const whole = `${width} ${height} ${key}`;
  return kept?.key === whole ? kept : { key: whole, canvas: painted(paint, size, ratio, width, height), view };
}

/** Paint on a canvas of its own, `width` × `height` device pixels. */
function painted(paint: Paint, size: Size, ratio: number, width: number, height: number): OffscreenCanvas {
  const canvas = new OffscreenCanvas(width, height);
  const ctx = canvas.getContext("2d")!;
  ctx.setTransform(ratio, 0, 0, ratio, 0, 0);
  paint(ctx, size, ratio);
  return canvas;
}
