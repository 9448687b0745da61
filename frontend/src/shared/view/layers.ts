import type { Ctx } from "./view";

/** In CSS pixels. */
export interface Size {
  width: number;
  height: number;
}

export type Paint = (ctx: Ctx, size: Size, ratio: number) => void;

/** What stands still under the work: painted anew only where its key, or the canvas's size, is another. */
export interface Under {
  key: string;
  paint: Paint;
}

/** Give a canvas the device pixels of its size, at `ratio` to a CSS pixel. */
export function fitCanvas(canvas: HTMLCanvasElement | OffscreenCanvas, { width, height }: Size, ratio: number): void {
  const [across, down] = [Math.round(width * ratio), Math.round(height * ratio)];
  if (canvas.width !== across) canvas.width = across;
  if (canvas.height !== down) canvas.height = down;
}

/** Paints a canvas anew: what moves over a kept picture of what stands still. */
export class Layers {
  private kept: { key: string; canvas: OffscreenCanvas } | null = null;

  /** Paint where `ratio` device pixels are a CSS pixel; the canvas is already as large as `size` says. */
  paint(ctx: Ctx, size: Size, ratio: number, paint: Paint, under?: Under): void {
    const { width, height } = ctx.canvas;
    ctx.setTransform(1, 0, 0, 1, 0, 0);
    if (under) {
      const key = `${width} ${height} ${under.key}`;
      if (this.kept?.key !== key) this.kept = { key, canvas: painted(under.paint, size, ratio, width, height) };
      ctx.globalCompositeOperation = "copy";
      ctx.drawImage(this.kept.canvas, 0, 0);
      ctx.globalCompositeOperation = "source-over";
    } else ctx.clearRect(0, 0, width, height);
    ctx.setTransform(ratio, 0, 0, ratio, 0, 0);
    paint(ctx, size, ratio);
  }
}

/** Paint on a canvas of its own, `width` × `height` device pixels. */
function painted(paint: Paint, size: Size, ratio: number, width: number, height: number): OffscreenCanvas {
  const canvas = new OffscreenCanvas(width, height);
  const ctx = canvas.getContext("2d")!;
  ctx.setTransform(ratio, 0, 0, ratio, 0, 0);
  paint(ctx, size, ratio);
  return canvas;
}
