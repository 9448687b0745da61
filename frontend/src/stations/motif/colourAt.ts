import type { Original } from "../../shared/api/client";

/** The colour (#rrggbb) of a shown picture at a place in its own pixels. */
export function colourAt(image: HTMLImageElement, place: [number, number], original: Original): string {
  const canvas = document.createElement("canvas");
  canvas.width = canvas.height = 1;
  const ctx = canvas.getContext("2d")!;
  const ratio = image.naturalWidth / original.width_px;
  ctx.drawImage(image, Math.floor(place[0] * ratio), Math.floor(place[1] * ratio), 1, 1, 0, 0, 1, 1);
  const [r, g, b] = ctx.getImageData(0, 0, 1, 1).data;
  return `#${[r, g, b].map((v) => v.toString(16).padStart(2, "0")).join("")}`;
}
