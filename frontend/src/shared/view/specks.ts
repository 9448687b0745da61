import { covering, isWhole, WHOLE, type Cover } from "./cover";
import type { Stamp } from "./stamp";
import type { Ctx } from "./view";

/** Pieces that are but specks, painted as few paths: those of one colour that follow on one another are filled in one go. */
export class Specks {
  private path: Path2D | null = null;
  private colour = "";
  private cover = WHOLE;

  /** `after` does a job once what was painted before is there. */
  constructor(
    private readonly ctx: Ctx,
    private readonly after: (job: () => void) => void = (job) => job(),
  ) {}

  /** Add a piece at an affine map to device pixels; one that is seen through is painted by itself. */
  add(
    colour: string,
    { left, top, right, bottom }: Stamp["speck"],
    cover: Cover,
    a: number,
    b: number,
    c: number,
    d: number,
    x: number,
    y: number,
  ): void {
    if (colour !== this.colour || !isWhole(cover) || !isWhole(this.cover)) this.paint();
    this.colour = colour;
    this.cover = cover;
    const path = (this.path ??= new Path2D());
    path.moveTo(a * left + c * top + x, b * left + d * top + y);
    path.lineTo(a * right + c * top + x, b * right + d * top + y);
    path.lineTo(a * right + c * bottom + x, b * right + d * bottom + y);
    path.lineTo(a * left + c * bottom + x, b * left + d * bottom + y);
  }

  /** Paint what waits, before anything that lies over it. */
  paint(): void {
    const { path, colour, cover } = this;
    if (!path) return;
    this.path = null;
    this.after(() => {
      this.ctx.setTransform(1, 0, 0, 1, 0, 0);
      this.ctx.fillStyle = colour;
      covering(this.ctx, cover, () => this.ctx.fill(path));
    });
  }
}
