import { beforeEach, expect, test, vi } from "vitest";
import { Layers, type Under } from "./layers";
import type { Ctx } from "./view";

/** A context that remembers what was drawn on it, and in which order. */
function context(name: string, done: string[]): Ctx {
  const canvas = { width: 200, height: 100, name };
  const ctx = {
    canvas,
    setTransform: () => undefined,
    clearRect: () => done.push("clear"),
    drawImage: (picture: { painted: string }) => done.push(picture.painted),
    globalCompositeOperation: "source-over",
  };
  return ctx as unknown as Ctx;
}

let made: string[];
let done: string[];

beforeEach(() => {
  made = [];
  done = [];
  vi.stubGlobal(
    "OffscreenCanvas",
    class {
      painted = "";
      constructor(
        readonly width: number,
        readonly height: number,
      ) {}
      getContext = () => ({ canvas: this, setTransform: () => undefined });
    },
  );
});

const still = (name: string, key = name): Under => ({
  key,
  view: { scale: 1, x: 0, y: 0 },
  paint: (ctx) => {
    made.push(name);
    (ctx.canvas as unknown as { painted: string }).painted = name;
  },
});
const size = { width: 100, height: 50 };

test("what moves is painted between kept pictures of what stands still", () => {
  const layers = new Layers();
  const ctx = context("sheet", done);
  for (let i = 0; i < 3; i++) layers.paint(ctx, size, 2, () => done.push(`line ${i}`), still("below"), still("above"));
  expect(made).toEqual(["below", "above"]); // once each
  expect(done).toEqual(["below", "line 0", "above", "below", "line 1", "above", "below", "line 2", "above"]);
});

test("a kept picture is painted anew where its key, or the canvas, is another", () => {
  const layers = new Layers();
  const ctx = context("sheet", done);
  const paint = (under: Under): void => layers.paint(ctx, size, 1, () => undefined, under);
  paint(still("one"));
  paint(still("another name", "one"));
  expect(made).toEqual(["one"]);
  paint(still("two"));
  (ctx.canvas as unknown as { width: number }).width = 300;
  paint(still("two, wider", "two"));
  expect(made).toEqual(["one", "two", "two, wider"]);
});

test("while the view moves, the paint is told what was below and above", () => {
  const layers = new Layers();
  const ctx = context("sheet", done);
  layers.paint(ctx, size, 1, () => undefined, still("below"), still("above"));
  const told = vi.fn();
  layers.paint(ctx, size, 1, (_ctx, _size, _ratio, was) => told(was?.below?.key, was?.above?.key, was?.below?.view));
  expect(told).toHaveBeenCalledExactlyOnceWith("200 100 below", "200 100 above", { scale: 1, x: 0, y: 0 });
  expect(made).toEqual(["below", "above"]);
});

test("a picture above is forgotten once nothing lies above", () => {
  const layers = new Layers();
  const ctx = context("sheet", done);
  layers.paint(ctx, size, 1, () => undefined, still("below"), still("above"));
  layers.paint(ctx, size, 1, () => undefined, still("all", "all"));
  const told = vi.fn();
  layers.paint(ctx, size, 1, (_ctx, _size, _ratio, was) => told(was?.below?.key, was?.above));
  expect(told).toHaveBeenCalledExactlyOnceWith("200 100 all", null);
});

test("without anything that stands still, the canvas is cleared first", () => {
  new Layers().paint(context("flat", done), size, 1, () => done.push("work"));
  expect(done).toEqual(["clear", "work"]);
});
