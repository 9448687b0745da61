import type { Schemas } from "../api/client";
import type { Ctx } from "./view";

/** A way of laying colours on what is below, by the standard's name. */
export type Blend = Schemas["SceneHeader"]["laid_on_as"];

/** How what was put together as one comes to lie on what is below: by what share, 0 to 1, and in which way. */
export interface Cover {
  share: number;
  way: Blend;
}

/** Device pixels, whole ones. */
export interface Box {
  left: number;
  top: number;
  width: number;
  height: number;
}

export const WHOLE: Cover = { share: 1, way: "normal" };

export const isWhole = ({ share, way }: Cover): boolean => share === 1 && way === "normal";

const idle: OffscreenCanvas[] = []; // of groups that are done, for the next

/** Do something while what is painted covers as told. */
export function covering(ctx: Ctx, { share, way }: Cover, paint: () => void): void {
  ctx.globalAlpha = share;
  ctx.globalCompositeOperation = way === "normal" ? "source-over" : way;
  paint();
  ctx.globalAlpha = 1;
  ctx.globalCompositeOperation = "source-over";
}

/**
 * Put together by itself what is painted within a box of device pixels, and lay it on the context as one. `paint` gets the
 * context to paint on, and the device pixel that is its (0, 0).
 */
export function asGroup(ctx: Ctx, box: Box, cover: Cover, paint: (ctx: Ctx, from: [number, number]) => void): void {
  if (box.width <= 0 || box.height <= 0 || cover.share === 0) return;
  const canvas = idle.pop() ?? new OffscreenCanvas(box.width, box.height);
  if (canvas.width < box.width) canvas.width = box.width;
  if (canvas.height < box.height) canvas.height = box.height;
  const own = canvas.getContext("2d")!;
  own.setTransform(1, 0, 0, 1, 0, 0);
  own.clearRect(0, 0, box.width, box.height);
  paint(own, [box.left, box.top]);
  ctx.setTransform(1, 0, 0, 1, 0, 0);
  const { left, top, width, height } = box;
  covering(ctx, cover, () => ctx.drawImage(canvas, 0, 0, width, height, left, top, width, height));
  idle.push(canvas);
}
