import { beforeEach, expect, test, vi } from "vitest";
import { Groups } from "./groups";

let done: unknown[][] = [];
let made = 0;

/** A context that remembers what was painted on it, and what was laid on from where to where. */
function context(name: string, canvas: unknown) {
  const nothing = (): undefined => undefined;
  const ctx = { canvas, globalAlpha: 1, globalCompositeOperation: "source-over", fill: () => done.push([name, "fill"]) };
  for (const key of ["setTransform", "clearRect", "save", "restore", "beginPath", "rect", "clip"])
    Object.assign(ctx, { [key]: nothing });
  return Object.assign(ctx, {
    drawImage: (from: { name: string }, ...boxes: number[]) =>
      done.push([name, from.name, ctx.globalAlpha, ctx.globalCompositeOperation, ...boxes]),
  }) as unknown as CanvasRenderingContext2D;
}

beforeEach(() => {
  done = [];
  vi.stubGlobal(
    "OffscreenCanvas",
    class {
      readonly name = `sheet ${++made}`;
      private readonly own = context(this.name, this);
      constructor(
        public width: number,
        public height: number,
      ) {}
      getContext = () => this.own;
    },
  );
});
const box = (left: number, top: number, side: number) => ({ left, top, width: side, height: side });
const SCREEN = { share: 0.5, way: "screen" } as const;

test("things put together beside each other are laid on in their turn, where they belong", () => {
  const groups = new Groups(context("page", null));
  const froms: number[][] = [];
  groups.add(box(10, 20, 30), SCREEN, (own, from) => (own.fill(), froms.push(from)));
  groups.after(() => done.push(["between"]));
  groups.add(box(50, 60, 40), SCREEN, (own, from) => (own.fill(), froms.push(from)));
  expect(froms).toEqual([
    [10, 20],
    [50 - 30, 60],
  ]);
  expect(done.map(([name]) => name)).not.toContain("page");
  groups.paint();
  const sheet = done[0][0];
  expect(done.slice(2)).toEqual([
    ["page", sheet, 0.5, "screen", 0, 0, 30, 30, 10, 20, 30, 30],
    ["between"],
    ["page", sheet, 0.5, "screen", 30, 0, 40, 40, 50, 60, 40, 40],
  ]);
});

test("a full sheet is laid on before the next is begun, and what is too large for one has its own", () => {
  const groups = new Groups(context("page", null));
  for (let i = 0; i < 5; i++) groups.add(box(i, 0, 250), SCREEN, (own) => own.fill()); // four to a sheet
  expect(done.filter(([name]) => name === "page").map((step) => step[8])).toEqual([0, 1, 2, 3]);
  groups.add(box(7, 0, 600), SCREEN, (own) => own.fill());
  expect(done.filter(([name]) => name === "page").map((step) => step[8])).toEqual([0, 1, 2, 3, 4, 7]);
  groups.paint();
  expect(done.filter(([name]) => name === "page").length).toBe(6);
});

test("what comes after nothing is done at once, and what covers nothing is not put together", () => {
  const groups = new Groups(context("page", null));
  const paint = vi.fn();
  groups.add(box(0, 0, 10), { share: 0, way: "normal" }, paint);
  groups.add(box(0, 0, 0), SCREEN, paint);
  groups.after(() => done.push(["at once"]));
  expect(paint).not.toHaveBeenCalled();
  expect(done).toEqual([["at once"]]);
});
