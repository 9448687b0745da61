import { beforeEach, expect, test, vi } from "vitest";
import { asGroup, covering } from "./cover";

let done: unknown[] = [];
let made = 0;

/** A context that remembers what was done on it, and how much of it covers in which way. */
function context(name: string) {
  const ctx = {
    globalAlpha: 1,
    globalCompositeOperation: "source-over",
    setTransform: () => undefined,
    clearRect: (...box: number[]) => done.push([name, "clear", ...box]),
    fill: () => done.push([name, "fill", ctx.globalAlpha, ctx.globalCompositeOperation]),
    drawImage: (_: unknown, ...box: number[]) =>
      done.push([name, "draw", ctx.globalAlpha, ctx.globalCompositeOperation, ...box.slice(4)]),
  };
  return ctx as unknown as CanvasRenderingContext2D;
}

beforeEach(() => {
  done = [];
  made = 0;
  vi.stubGlobal(
    "OffscreenCanvas",
    class {
      private readonly own = context(`group ${++made}`);
      constructor(
        public width: number,
        public height: number,
      ) {}
      getContext = () => this.own;
    },
  );
});
const BOX = { left: 10, top: 20, width: 30, height: 40 };

test("what covers by a share leaves the context as it was", () => {
  const ctx = context("page");
  covering(ctx, { share: 0.5, way: "multiply" }, () => ctx.fill());
  ctx.fill();
  expect(done).toEqual([
    ["page", "fill", 0.5, "multiply"],
    ["page", "fill", 1, "source-over"],
  ]);
});

test("a group is put together whole and laid on as one, and its canvas serves the next", () => {
  const ctx = context("page");
  const paint = (own: CanvasRenderingContext2D | OffscreenCanvasRenderingContext2D, from: [number, number]): void => {
    expect(from).toEqual([10, 20]);
    own.fill();
  };
  asGroup(ctx, BOX, { share: 0.25, way: "screen" }, paint);
  asGroup(ctx, BOX, { share: 0.25, way: "normal" }, paint);
  expect(made).toBe(1);
  expect(done.slice(0, 3)).toEqual([
    ["group 1", "clear", 0, 0, 30, 40],
    ["group 1", "fill", 1, "source-over"],
    ["page", "draw", 0.25, "screen", 10, 20, 30, 40],
  ]);
  expect(done[5]).toEqual(["page", "draw", 0.25, "source-over", 10, 20, 30, 40]);
});

test("a group in a group has a canvas of its own", () => {
  const ctx = context("page");
  const half = { share: 0.5, way: "normal" } as const;
  asGroup(ctx, BOX, half, (own) => asGroup(own, BOX, half, (inner) => inner.fill()));
  expect(done.filter((step) => (step as unknown[])[1] !== "clear").map((step) => (step as unknown[]).slice(0, 2))).toEqual([
    [expect.stringMatching(/group/), "fill"],
    [expect.stringMatching(/group/), "draw"],
    ["page", "draw"],
  ]);
});

test("nothing is painted of what covers nothing, or lies in no box", () => {
  const ctx = context("page");
  const paint = vi.fn();
  asGroup(ctx, BOX, { share: 0, way: "normal" }, paint);
  asGroup(ctx, { ...BOX, width: 0 }, { share: 0.5, way: "normal" }, paint);
  expect(paint).not.toHaveBeenCalled();
});
