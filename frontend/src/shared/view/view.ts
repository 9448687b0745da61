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

export type Px = [number, number];

/** What is seen, in CSS pixels: a canvas, or a part of one from (x, y). */
export interface Area {
  x?: number;
  y?: number;
  width: number;
  height: number;
}

/** Tells whether what reaches so many device pixels about a place can be seen. */
export type Sight = (atX: number, atY: number, reach: number) => boolean;

/** Return the question of what can be seen in an area; `ratio` is device pixels to a CSS pixel. */
export function sightOf({ x = 0, y = 0, width, height }: Area, ratio: number): Sight {
  const [left, top, right, bottom] = [x, y, x + width, y + height].map((px) => px * ratio);
  return (atX, atY, reach) => atX + reach >= left && atY + reach >= top && atX - reach <= right && atY - reach <= bottom;
}
