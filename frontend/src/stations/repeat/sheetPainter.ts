import type { Finding } from "../../shared/api/scenes";
import { fitCanvas, Layers, type Size } from "../../shared/view/layers";
import { blends, laidWith, paintPieces, type Hurry, type LaidScene } from "../../shared/view/painter";
import { paintRings, strokeHairline } from "../../shared/view/marks";
import type { Area, Ctx, View } from "../../shared/view/view";
import type { Artwork } from "../../shared/view/stamp";

/** What is painted of a scene: its pieces, its line and where its findings are. */
export interface TrialPicture extends LaidScene {
  path?: string | null;
  findings: Pick<Finding, "at">[];
}

/** A scene among others: its part of the sheet and how it is seen there. */
export interface SheetPart extends TrialPicture {
  view: View;
  part: Required<Area>;
  /** From where up to where among all artworks its pieces are numbered; all where it is not said. */
  artworks?: [number, number];
  /** Whether a thread parts it from what was kept aside, right of it. */
  thread: boolean;
}

/** All trial lines as they are painted on one canvas. */
export interface SheetPicture {
  parts: SheetPart[];
  night: boolean;
  hurry: Hurry;
  /** The colour under the work, which shows through what is laid on in other ways than normally. */
  ground: string;
  size: Size;
  ratio: number;
}

/** What a scene is seen on. */
type On = Pick<SheetPicture, "night" | "ground">;

/** Paint what lies under a scene's pieces: the ground where they blend with it, and the line. */
export function paintUnder(ctx: Ctx, scene: TrialPicture, view: View, ratio: number, area: Area, { night, ground }: On): void {
  if (blends(scene)) {
    ctx.fillStyle = ground;
    ctx.fillRect(area.x ?? 0, area.y ?? 0, area.width, area.height);
  }
  strokeHairline(ctx, scene.path ?? "", view, ratio, night ? "#b9746b" : "#c98d84", 1, [1, 4]);
}

/** What the picture under a scene's pieces depends on, beside its size and whether it is night. */
export const underKey = (scene: TrialPicture, { scale, x, y }: View, ground: string): string =>
  `${scene.path} ${scale} ${x} ${y} ${blends(scene) ? ground : ""}`;

export function paintTrial(
  ctx: Ctx,
  scene: TrialPicture,
  artworks: Artwork[],
  view: View,
  ratio: number,
  area: Area,
  night: boolean,
  chosen: number | null,
  hurry: Hurry = "none",
): void {
  paintPieces(ctx, laidWith(artworks, scene), view, ratio, area, hurry);
  paintRings(ctx, scene.findings, view, night, chosen);
}

/** Paints trial sheets on a canvas, one after the other, where no page is needed. */
export class SheetPainter {
  /** What the motifs lay, in the order of the variants; then those of scenes that have artworks of their own. */
  artworks: Artwork[] = [];
  private readonly layers = new Layers();

  constructor(private readonly canvas: OffscreenCanvas) {}

  paint({ parts, night, hurry, ground, size, ratio }: SheetPicture): void {
    fitCanvas(this.canvas, size, ratio);
    const on = { night, ground };
    const under = {
      key: `${night} ${parts.map((each) => underKey(each, each.view, ground)).join(" ")}`,
      paint: (ctx: Ctx) => parts.forEach((each) => paintUnder(ctx, each, each.view, ratio, each.part, on)),
    };
    const pieces = (ctx: Ctx): void => parts.forEach((each) => paintPart(ctx, each, this.artworks, ratio, night, hurry));
    this.layers.paint(this.canvas.getContext("2d")!, size, ratio, pieces, under);
  }
}

function paintPart(ctx: Ctx, each: SheetPart, artworks: Artwork[], ratio: number, night: boolean, hurry: Hurry): void {
  const { part, view } = each;
  ctx.save();
  ctx.beginPath();
  // whole device pixels: the edges of other clips are smoothed, piece by piece
  const [left, top, right, bottom] = [part.x, part.y, part.x + part.width, part.y + part.height].map(
    (px) => Math.round(px * ratio) / ratio,
  );
  ctx.rect(left, top, right - left, bottom - top);
  ctx.clip();
  paintTrial(ctx, each, artworks.slice(...(each.artworks ?? [])), view, ratio, part, night, null, hurry);
  ctx.restore();
  if (each.thread) paintThread(ctx, part.x + part.width, part.y, part.height, night);
}

/** The thread between what is now and what was kept aside. */
function paintThread(ctx: Ctx, x: number, y: number, height: number, night: boolean): void {
  ctx.strokeStyle = night ? "#e08a7e" : "#a63a2f";
  ctx.lineWidth = 1;
  ctx.setLineDash([5, 3]);
  ctx.beginPath();
  ctx.moveTo(x, y + 4);
  ctx.lineTo(x, y + height - 4);
  ctx.stroke();
  ctx.setLineDash([]);
}
