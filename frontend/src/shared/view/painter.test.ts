import { beforeEach, expect, test, vi } from "vitest";
import type { Motif } from "../api/client";
import type { Finding } from "../api/scenes";
import { shape } from "./testShape";

class FakePath {
  moves: number[][] = [];
  constructor(readonly d = "") {}
  addPath() {}
  moveTo(x: number, y: number) {
    this.moves.push([x, y]);
  }
  lineTo() {}
}

/** A drawing context that remembers what it was asked to paint. */
function fakeContext() {
  const painted = { fills: [] as FakePath[], strokes: 0, arcs: [] as number[][], transforms: [] as number[][] };
  const ctx = {
    fill: (path: FakePath) => painted.fills.push(path),
    stroke: () => painted.strokes++,
    setTransform: (...m: number[]) => painted.transforms.push(m),
    arc: (x: number, y: number, r: number) => painted.arcs.push([x, y, r]),
    beginPath: () => undefined,
    setLineDash: () => undefined,
  };
  return { ctx: ctx as unknown as CanvasRenderingContext2D, painted };
}

const thread = { ...shape, d: "M1 1L7 1", fill: null, stroke: "#ffffff", stroke_width: 0.2 };
const motif = (): Motif => ({
  id: 1,
  name: "pill",
  version: 1,
  width_mm: 8,
  height_mm: 2,
  base_line_mm: 1,
  pitch_mm: 8,
  points: 6,
  left_out: [],
  cuts_mm: null,
  joints_mm: null,
  recipes: [],
  piece: null,
  shapes: [shape, thread],
});
const at = (...places: [number, number][]) => new Float32Array(places.flatMap(([x, y]) => [1, 0, 0, 1, x, y]));

beforeEach(() => {
  vi.stubGlobal("Path2D", FakePath);
  vi.stubGlobal("DOMMatrix", class {});
});

test("pieces out of sight are not painted", async () => {
  const { paintPieces, laidOf } = await import("./painter");
  const { ctx, painted } = fakeContext();
  paintPieces(
    ctx,
    laidOf([motif()], { matrices: at([10, 10], [5000, 10], [-5000, 10]), motif: new Uint16Array(0) }),
    { scale: 5, x: 0, y: 0 },
    1,
    { width: 200, height: 100 },
  );
  expect(painted.fills.length).toBe(1);
  expect(painted.strokes).toBe(1);
  expect(painted.transforms[0]).toEqual([5, 0, 0, 5, 50, 50]);
});

test("shapes thinner than a trace of a pixel are left out", async () => {
  const { paintPieces, laidOf } = await import("./painter");
  const { ctx, painted } = fakeContext();
  paintPieces(ctx, laidOf([motif()], { matrices: at([10, 10]), motif: new Uint16Array(0) }), { scale: 1, x: 0, y: 0 }, 1, {
    width: 200,
    height: 100,
  });
  expect(painted.fills.length).toBe(1);
  expect(painted.strokes).toBe(0);
});

test("specks are painted in one go, in the largest shape's colour", async () => {
  const { paintPieces, laidOf } = await import("./painter");
  const { ctx, painted } = fakeContext();
  paintPieces(
    ctx,
    laidOf([motif()], { matrices: at([10, 10], [20, 10], [30, 10]), motif: new Uint16Array(0) }),
    { scale: 0.2, x: 0, y: 0 },
    1,
    { width: 200, height: 100 },
  );
  expect(painted.fills.length).toBe(1);
  expect(painted.fills[0].moves.length).toBe(3);
  expect((ctx as unknown as { fillStyle: string }).fillStyle).toBe("#a33a2f");
});

test("each variant is painted by its own stamp", async () => {
  const { paintPieces, laidOf } = await import("./painter");
  const { ctx, painted } = fakeContext();
  const other = { ...motif(), shapes: [{ ...shape, d: "M0 0L4 0L4 2L0 2Z" }] };
  const laid = laidOf([motif(), other], { matrices: at([10, 10], [20, 10], [30, 10]), motif: new Uint16Array([0, 1, 1]) });
  paintPieces(ctx, laid, { scale: 5, x: 0, y: 0 }, 1, { width: 200, height: 100 });
  expect(painted.fills.length).toBe(3);
  expect(painted.strokes).toBe(1);
});

test("a motif with cuts is laid by the stretch between them", async () => {
  const { laidArtwork } = await import("./stamp");
  const piece = { width_mm: 3, height_mm: 2, base_line_mm: 1, shapes: [shape] };
  expect(laidArtwork({ ...motif(), piece }).width_mm).toBe(3);
});

test("a motif is made ready once", async () => {
  const { stampOf } = await import("./stamp");
  const one = motif();
  expect(stampOf(one)).toBe(stampOf(one));
  expect(stampOf(one)).not.toBe(stampOf(motif()));
});

test("findings close together get one ring, the chosen one a larger", async () => {
  const { paintRings } = await import("./marks");
  const { ctx, painted } = fakeContext();
  const finding = (x: number) => ({ at: [x, 0] }) as unknown as Finding;
  paintRings(ctx, [finding(0), finding(0.5), finding(30)], { scale: 2, x: 5, y: 5 }, false, 2);
  expect(painted.arcs.map((a) => a[0])).toEqual([5, 65, 65]);
  expect(painted.arcs[2][2]).toBeGreaterThan(painted.arcs[0][2]);
});

/** A drawing context that remembers fills (their colour and contours), strokes and clips (their corners), in order. */
function orderedContext() {
  const done: unknown[] = [];
  let path: number[][] = [];
  const ctx = {
    setTransform: () => undefined,
    getTransform: () => ({}),
    setLineDash: () => undefined,
    bezierCurveTo: () => undefined,
    closePath: () => undefined,
    beginPath: () => (path = []),
    moveTo: (x: number, y: number) => path.push([x, y]),
    lineTo: (x: number, y: number) => path.push([x, y]),
    fillStyle: "",
    fill: () => done.push(["fill", ctx.fillStyle, path.length]),
    stroke: () => done.push("stroke"),
    save: () => done.push("save"),
    clip: () => done.push(path),
    restore: () => done.push("restore"),
  };
  return { ctx: ctx as unknown as CanvasRenderingContext2D, done };
}

/** One bent piece at (10, 10), a row a contour: its shape, whether it is closed, and whether it outlines the shape's stroke. */
const bent = (rows: [number, number, number][], how = 1) => ({
  matrices: at([10, 10]),
  motif: new Uint16Array(0),
  drawn: new Uint32Array([how]),
  outline: new Float32Array(rows.flatMap((_, i) => [i, 0, i, 1, i, 2, i, 3])),
  contours: new Uint32Array(rows.flatMap((row, i) => [4 * i, 0, ...row])),
});
const VIEW = { scale: 5, x: 0, y: 0 };
const AREA = { width: 200, height: 100 };

test("a bent piece is painted by its contours, shape by shape, its strokes as strokes", async () => {
  const { paintPieces, laidOf } = await import("./painter");
  const { ctx, done } = orderedContext();
  paintPieces(
    ctx,
    laidOf(
      [motif()],
      bent([
        [0, 1, 0],
        [0, 1, 0],
        [1, 0, 0],
      ]),
    ),
    VIEW,
    1,
    AREA,
  );
  expect(done).toEqual([["fill", "#a33a2f", 2], "stroke"]);
});

test("where strokes are outlined they are filled as the stroke is painted", async () => {
  const { paintPieces, laidOf } = await import("./painter");
  const { ctx, done } = orderedContext();
  paintPieces(
    ctx,
    laidOf(
      [motif()],
      bent(
        [
          [0, 1, 0],
          [1, 1, 1],
          [1, 1, 1],
        ],
        2,
      ),
    ),
    VIEW,
    1,
    AREA,
  );
  expect(done).toEqual([
    ["fill", "#a33a2f", 1],
    ["fill", "#ffffff", 2],
  ]);
});

test("specks are each of their own colour and size, in their order, and what is large among them is painted as it is", async () => {
  const { paintPieces, laidOf } = await import("./painter");
  const { ctx, painted } = fakeContext();
  const colours: string[] = [];
  const fill = ctx.fill.bind(ctx);
  ctx.fill = (...given: never[]) => (colours.push(String(ctx.fillStyle)), fill(...given));
  const blue = { ...motif(), shapes: [{ ...shape, fill: "#2c4a84" }] };
  const sizes = [1, 1, 1, 40].flatMap((size, i) => [size, 0, 0, size, 10 * i, 10]);
  paintPieces(
    ctx,
    laidOf([motif(), blue], { matrices: new Float32Array(sizes), motif: new Uint16Array([0, 0, 1, 1]) }),
    { scale: 0.2, x: 0, y: 0 },
    1,
    AREA,
  );
  expect(colours).toEqual(["#a33a2f", "#2c4a84", "#2c4a84"]);
  expect(painted.fills.map((path) => path.moves.length)).toEqual([2, 1, 0]);
});

test.each([
  ["bent", bent([[0, 1, 0]])],
  ["stamped", { matrices: at([10, 10]), motif: new Uint16Array(0) }],
])("a %s piece that ends on a bisector is clipped there while it is painted", async (_, scene) => {
  const { paintPieces, laidOf } = await import("./painter");
  const { ctx, done } = orderedContext();
  paintPieces(
    ctx,
    laidOf([motif()], { ...scene, cut: new Uint32Array([0]), bisectors: new Float32Array([12, 7, 1, 0]) }),
    VIEW,
    1,
    AREA,
  );
  expect([done[0], done[2], done.at(-1)]).toEqual(["save", ["fill", "#a33a2f", expect.anything()], "restore"]);
  const clip = done[1] as number[][];
  const [xs, ys] = [clip.map((p) => p[0]), clip.map((p) => p[1])];
  expect(Math.max(...xs)).toBeCloseTo(12.1); // half a pixel over the bisector, and all of the piece this side of it
  expect(Math.min(...xs)).toBeLessThan(6);
  expect([Math.min(...ys) < 9, Math.max(...ys) > 11]).toEqual([true, true]);
});

test("a piece may end on two bisectors, and one after it on none", async () => {
  const { paintPieces, laidOf } = await import("./painter");
  const { ctx, done } = orderedContext();
  const scene = {
    matrices: at([10, 10], [20, 10]),
    motif: new Uint16Array(0),
    cut: new Uint32Array([0, 0]),
    bisectors: new Float32Array([12, 7, 1, 0, 8, 7, -1, 0]),
  };
  paintPieces(ctx, laidOf([motif()], scene), VIEW, 1, AREA);
  expect(done.filter(Array.isArray).length).toBe(4); // two clips, two fills
  expect(done.indexOf("restore")).toBeLessThan(done.length - 2);
});

test("pieces outside the part of a canvas that is seen are not painted", async () => {
  const { paintPieces, laidOf } = await import("./painter");
  const { ctx, painted } = fakeContext();
  const laid = laidOf([motif()], { matrices: at([10, 10], [30, 10]), motif: new Uint16Array(0) });
  paintPieces(ctx, laid, VIEW, 1, { x: 120, y: 0, width: 60, height: 100 });
  expect(painted.transforms[0]).toEqual([5, 0, 0, 5, 150, 50]);
  expect(painted.fills.length).toBe(1);
});

test("a piece that is seen through covers as one: part by part where its parts are apart, else put together first", async () => {
  const { paintPieces, laidOf } = await import("./painter");
  const groups: string[] = [];
  const { ctx } = fakeContext();
  const shares: number[] = [];
  const fill = ctx.fill.bind(ctx);
  ctx.fill = (...given: never[]) => (shares.push(ctx.globalAlpha), fill(...given));
  Object.assign(ctx, { canvas: { width: 200, height: 100 }, globalAlpha: 1, drawImage: () => groups.push("laid on") });
  const own = fakeContext();
  for (const done of ["clearRect", "save", "restore", "rect", "clip"]) Object.assign(own.ctx, { [done]: () => undefined });
  vi.stubGlobal(
    "OffscreenCanvas",
    class {
      getContext = () => own.ctx;
    },
  );
  const scene = { matrices: at([10, 10], [20, 10]), motif: new Uint16Array(0), opacity: new Float32Array([0.5, 1]) };
  const plain = { ...motif(), shapes: [shape] };
  paintPieces(ctx, laidOf([plain], scene), VIEW, 1, AREA);
  expect([shares, groups]).toEqual([[0.5, 1], []]);
  paintPieces(ctx, laidOf([motif()], scene), VIEW, 1, AREA);
  expect([shares, groups]).toEqual([[0.5, 1, 1], ["laid on"]]); // the thread lies over the bar
  expect([own.painted.fills.length, own.painted.strokes]).toEqual([1, 1]);
});

test("specks that are seen through are painted one by one, so that they gather", async () => {
  const { paintPieces, laidOf } = await import("./painter");
  const { ctx, painted } = fakeContext();
  const scene = {
    matrices: at([10, 10], [10, 10], [30, 10]),
    motif: new Uint16Array(0),
    opacity: new Float32Array([0.5, 0.5, 1]),
  };
  paintPieces(ctx, laidOf([motif()], scene), { scale: 0.2, x: 0, y: 0 }, 1, AREA);
  expect(painted.fills.map((path) => path.moves.length)).toEqual([1, 1, 1]);
});

test("only what is laid on normally can be painted apart from what is below it", async () => {
  const { blends } = await import("./painter");
  expect(blends({})).toBe(false);
  expect(blends({ laid_on_as: "multiply" })).toBe(true);
  expect(blends({ pieces_laid_on_as: "screen" })).toBe(true);
});
