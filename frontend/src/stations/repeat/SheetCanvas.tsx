import { useLayoutEffect, useRef, useState } from "react";
import type { Motif } from "../../shared/api/client";
import { laidArtwork } from "../../shared/view/stamp";
import type { SheetOrder } from "./sheet.worker";
import type { SheetPicture } from "./sheetPainter";

/** Has sheets painted in a worker, beside the page's own work: one at a time, of those that wait only the newest. */
class SheetRoom {
  private readonly worker = new Worker(new URL("./sheet.worker.ts", import.meta.url), { type: "module" });
  private motifs: Motif[] | null = null;
  private asked = 0;
  private shown = 0;
  private underway = 0;
  private waiting: SheetPicture | null = null;

  /** The canvas tells how many sheets were asked for and which of them it shows. */
  constructor(
    private readonly canvas: HTMLCanvasElement,
    fail: () => void,
  ) {
    const own = canvas.transferControlToOffscreen();
    this.tell({ canvas: own }, [own]);
    this.worker.onmessage = ({ data }: MessageEvent<number>) => {
      this.shown = data;
      canvas.dataset.shown = String(data);
      this.next();
    };
    this.worker.onerror = fail;
  }

  paint(motifs: Motif[], sheet: SheetPicture): void {
    if (this.motifs !== motifs) this.tell({ artworks: motifs.map(laidArtwork) });
    this.motifs = motifs;
    this.waiting = sheet;
    this.canvas.dataset.asked = String(++this.asked);
    this.next();
  }

  close(): void {
    this.worker.terminate();
  }

  private next(): void {
    if (this.underway !== this.shown || !this.waiting) return;
    this.underway = this.asked;
    this.tell({ number: this.asked, sheet: this.waiting });
    this.waiting = null;
  }

  private tell(order: SheetOrder, given: Transferable[] = []): void {
    this.worker.postMessage(order, given);
  }
}

interface Props {
  motifs: Motif[];
  /** Null while its size is not known. */
  sheet: Omit<SheetPicture, "ratio"> | null;
}

/** The canvas over the trial lines. */
export function SheetCanvas({ motifs, sheet }: Props) {
  const box = useRef<HTMLDivElement>(null);
  const room = useRef<SheetRoom | null>(null);
  const [failed, setFailed] = useState(false);
  useLayoutEffect(() => {
    const canvas = document.createElement("canvas"); // handed over to a worker, which can be done once
    Object.assign(canvas, { className: "block h-full w-full", role: "img", ariaLabel: "Trial lines" });
    canvas.dataset.testid = "trial-sheet";
    box.current!.replaceChildren(canvas);
    room.current = new SheetRoom(canvas, () => setFailed(true));
    return () => room.current?.close();
  }, []);
  useLayoutEffect(() => {
    if (sheet) room.current?.paint(motifs, { ...sheet, ratio: window.devicePixelRatio || 1 });
  }, [motifs, sheet]);
  return (
    <>
      <div ref={box} className="h-full w-full" />
      {failed && (
        <p role="alert" className="absolute inset-x-0 top-2 mx-auto w-fit border border-madder bg-madder-wash px-3 py-1.5">
          The trial lines could not be painted. Everything is kept; load the page again.
        </p>
      )}
    </>
  );
}
