import { imagesArrived } from "../../shared/view/images";
import type { Artwork } from "../../shared/view/stamp";
import { SheetPainter, type SheetPicture } from "./sheetPainter";

/** What the worker is told: the canvas once, the motifs' artworks whenever they are others, and numbered sheets to paint. */
export type SheetOrder = { canvas: OffscreenCanvas } | { artworks: Artwork[] } | { number: number; sheet: SheetPicture };

let painter: SheetPainter | null = null;
let last: { number: number; sheet: SheetPicture } | null = null;

/** Paint the last sheet and tell its number once it has been handed to the screen. */
function paintLast(): void {
  if (!painter || !last) return;
  const { number, sheet } = last;
  painter.paint(sheet);
  requestAnimationFrame(() => self.postMessage(number));
}

self.onmessage = ({ data }: MessageEvent<SheetOrder>) => {
  if ("canvas" in data) painter = new SheetPainter(data.canvas);
  else if ("artworks" in data) painter!.artworks = data.artworks;
  else {
    last = data;
    paintLast();
  }
};
imagesArrived.subscribe(paintLast); // a picture that comes late is painted then
