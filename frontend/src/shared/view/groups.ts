import { asGroup, covering, type Box, type Cover } from "./cover";
import type { Ctx } from "./view";

const SIDE = 512; // device pixels; chosen: smaller ones are laid on more often, larger ones take longer to copy
const MOST = 8; // sheets that rest before they are painted on again; chosen: one that is still to be laid on would be copied

const sheets: OffscreenCanvas[] = [];

/**
 * Things put together by themselves, each to be laid on as one in its turn. They are put together beside each other on one
 * canvas, for a canvas that is laid on and painted over for every piece is copied as often.
 */
export class Groups {
  private own: OffscreenCanvasRenderingContext2D | null = null;
  private waiting: (() => void)[] = [];
  private left = 0; // where the next is put, and how high its row is
  private top = 0;
  private high = 0;

  constructor(private readonly ctx: Ctx) {}

  /** Put together what is painted within a box of device pixels; `paint` gets a context, and the device pixel that is its (0, 0). */
  add(box: Box, cover: Cover, paint: (ctx: Ctx, from: [number, number]) => void): void {
    const { left, top, width, height } = box;
    if (width <= 0 || height <= 0 || cover.share === 0) return;
    if (width > SIDE || height > SIDE) {
      this.paint();
      return asGroup(this.ctx, box, cover, paint);
    }
    if (!this.fits(width, height)) this.paint();
    const own = (this.own ??= fresh());
    const [x, y] = [this.left, this.top];
    this.left += width;
    this.high = Math.max(this.high, height);
    own.save();
    own.setTransform(1, 0, 0, 1, 0, 0);
    own.beginPath();
    own.rect(x, y, width, height);
    own.clip();
    paint(own, [left - x, top - y]);
    own.restore();
    this.waiting.push(() => {
      this.ctx.setTransform(1, 0, 0, 1, 0, 0);
      covering(this.ctx, cover, () => this.ctx.drawImage(own.canvas, x, y, width, height, left, top, width, height));
    });
  }

  /** Do what comes after those that wait: at once where none does. */
  after(job: () => void): void {
    if (this.waiting.length) this.waiting.push(job);
    else job();
  }

  /** Lay on what waits, before anything that lies over it. */
  paint(): void {
    for (const job of this.waiting) job();
    if (this.own) sheets.push(this.own.canvas);
    this.own = null;
    this.waiting = [];
    this.left = this.top = this.high = 0;
  }

  /** Whether one so large has room; begins the next row where it has not in this one. */
  private fits(width: number, height: number): boolean {
    if (this.left + width > SIDE) {
      this.top += this.high;
      this.left = this.high = 0;
    }
    return this.top + height <= SIDE;
  }
}

/** An empty sheet, the one that was laid on longest ago. */
function fresh(): OffscreenCanvasRenderingContext2D {
  const canvas = (sheets.length >= MOST ? sheets.shift() : null) ?? new OffscreenCanvas(SIDE, SIDE);
  const own = canvas.getContext("2d")!;
  own.setTransform(1, 0, 0, 1, 0, 0);
  own.clearRect(0, 0, SIDE, SIDE);
  return own;
}
