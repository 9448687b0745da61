import type { Motif, Page } from "../../shared/api/client";
import { PIECES } from "../../shared/api/tables";
import type { Scene } from "../../shared/api/scenes";
import { imageOf } from "../../shared/view/images";
import type { Ctx, View } from "../../shared/view/view";

export const RULER = 26;

export const groundAddress = (sha: string): string => `/api/originals/${sha}/ground.png`;

export function fitSheet(size: { width: number; height: number }, page: Page): View {
  const scale = Math.max(1e-3, Math.min((size.width - 60) / page.width_mm, (size.height - RULER - 36) / page.height_mm));
  return { scale, x: (size.width - page.width_mm * scale) / 2, y: RULER + (size.height - RULER - page.height_mm * scale) / 2 };
}

export function sheetPoint(event: { clientX: number; clientY: number }, box: HTMLElement, view: View): [number, number] {
  const rect = box.getBoundingClientRect();
  const round = (v: number) => Math.round(v * 1000) / 1000;
  return [round((event.clientX - rect.left - view.x) / view.scale), round((event.clientY - rect.top - view.y) / view.scale)];
}

export function zoomed(view: View, by: number, x: number, y: number): View {
  const scale = Math.min(200, Math.max(0.05, view.scale * by));
  const change = scale / view.scale;
  return { scale, x: x - (x - view.x) * change, y: y - (y - view.y) * change };
}

/** The id of the topmost line at a place, mm: within its pieces, and within a finger's breadth of a thin one. */
export function lineAt(at: [number, number], scenes: Scene[], motifOf: (scene: Scene) => Motif[], scale: number): number | null {
  const ctx = document.createElement("canvas").getContext("2d")!;
  const under = scenes.findLast((scene) => {
    const height = Math.max(0, ...motifOf(scene).map((motif) => motif.height_mm));
    ctx.lineWidth = Math.max(12 / scale, height * 0.8);
    return scene.path && ctx.isPointInStroke(new Path2D(scene.path), ...at);
  });
  return under?.line_id ?? null;
}

/** The lines of which a piece lies within a box between two places, mm. */
export function linesWithin([a, b]: [[number, number], [number, number]], scenes: Scene[]): number[] {
  const between = (v: number, k: 0 | 1): boolean => Math.min(a[k], b[k]) <= v && v <= Math.max(a[k], b[k]);
  const within = ({ matrices: m }: Scene): boolean => {
    for (let at = 0; at < m.length; at += PIECES.width)
      if (between(m[at + PIECES.e], 0) && between(m[at + PIECES.f], 1)) return true;
    return false;
  };
  return scenes.filter(within).flatMap(({ line_id }) => line_id ?? []);
}

/** Paint the sheet with its ground and scenery. */
export function paintSheet(ctx: Ctx, page: Page, view: View, ratio: number): void {
  const [w, h] = [page.width_mm * view.scale, page.height_mm * view.scale];
  ctx.fillStyle = "#d4d6ca";
  ctx.fillRect(view.x + 3, view.y + 4, w, h);
  ctx.fillStyle = page.ground ?? "#ffffff";
  ctx.fillRect(view.x, view.y, w, h);
  ctx.save();
  ctx.beginPath();
  ctx.rect(view.x, view.y, w, h);
  ctx.clip();
  ctx.setTransform(view.scale * ratio, 0, 0, view.scale * ratio, view.x * ratio, view.y * ratio);
  const picture = page.ground_picture;
  const source = picture && imageOf(groundAddress(picture.sha)).source;
  ctx.imageSmoothingQuality = "high";
  if (source) ctx.drawImage(source, ...(picture.box as [number, number, number, number]));
  for (const flat of page.scenery as { d: string; fill: string }[]) {
    ctx.fillStyle = flat.fill;
    ctx.fill(new Path2D(flat.d));
  }
  ctx.restore();
  ctx.setTransform(ratio, 0, 0, ratio, 0, 0);
}

/** Paint the millimetre rule above the sheet. */
export function paintRuler(ctx: Ctx, width: number, page: Page, view: View): void {
  const step = [0.5, 1, 2, 5, 10, 20, 50, 100, 200, 500, 1000].find((mm) => mm * view.scale >= 40) ?? 2000;
  ctx.fillStyle = "#f4f4ee";
  ctx.fillRect(0, 0, width, RULER);
  ctx.strokeStyle = ctx.fillStyle = "#56645d";
  ctx.lineWidth = 1;
  ctx.font = '10.5px "Hanken Grotesk Variable"';
  ctx.beginPath();
  const first = Math.max(0, Math.floor(-view.x / (view.scale * step)));
  for (let mm = first * step; mm <= page.width_mm + 1e-9; mm += step / 5) {
    const x = Math.round(view.x + mm * view.scale) + 0.5;
    if (x > width) break;
    const whole = Math.abs(mm / step - Math.round(mm / step)) < 1e-6;
    ctx.moveTo(x, RULER);
    ctx.lineTo(x, whole ? RULER - 11 : RULER - 5);
    if (whole) ctx.fillText(String(Number(mm.toFixed(1))), x + 3, RULER - 9);
  }
  ctx.moveTo(0, RULER - 0.5);
  ctx.lineTo(width, RULER - 0.5);
  ctx.stroke();
}
