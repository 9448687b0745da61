import { beforeEach, expect, test, vi } from "vitest";
import type { Motif } from "../api/client";
import type { Finding } from "../api/scenes";

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

const shape = { d: "M0 0L8 0L8 2L0 2Z", fill: "#a33a2f", fill_opacity: 1, fill_rule: "nonzero", stroke: null, stroke_opacity: 1, stroke_width: 0, cap: "butt", join: "miter", miter_limit: 4, dashes: [], name: "", group: 0, derived: false, box: [0, 0, 8, 2], fill_gradient: null, stroke_gradient: null, picture: null };
const thread = { ...shape, d: "M1 1L7 1", fill: null, stroke: "#ffffff", stroke_width: 0.2 };
const motif = (): Motif => ({ id: 1, name: "pill", version: 1, width_mm: 8, height_mm: 2, base_line_mm: 1, points: 6, left_out: [], cuts_mm: null, joints_mm: null, recipes: [], piece: null, shapes: [shape, thread] });
const at = (...places: [number, number][]) => new Float32Array(places.flatMap(([x, y]) => [1, 0, 0, 1, x, y]));

beforeEach(() => {
  vi.stubGlobal("Path2D", FakePath);
  vi.stubGlobal("DOMMatrix", class {});
});

test("pieces out of sight are not painted", async () => {
  const { paintPieces, laidOf } = await import("./painter");
  const { ctx, painted } = fakeContext();
  paintPieces(ctx, laidOf([motif()], { matrices: at([10, 10], [5000, 10], [-5000, 10]), variant: new Uint16Array(0) }), { scale: 5, x: 0, y: 0 }, 1, { width: 200, height: 100 });
  expect(painted.fills.length).toBe(1);
  expect(painted.strokes).toBe(1);
  expect(painted.transforms[0]).toEqual([5, 0, 0, 5, 50, 50]);
});

test("shapes thinner than a trace of a pixel are left out", async () => {
  const { paintPieces, laidOf } = await import("./painter");
  const { ctx, painted } = fakeContext();
  paintPieces(ctx, laidOf([motif()], { matrices: at([10, 10]), variant: new Uint16Array(0) }), { scale: 1, x: 0, y: 0 }, 1, { width: 200, height: 100 });
  expect(painted.fills.length).toBe(1);
  expect(painted.strokes).toBe(0);
});

test("specks are painted in one go, in the largest shape's colour", async () => {
  const { paintPieces, laidOf } = await import("./painter");
  const { ctx, painted } = fakeContext();
  paintPieces(ctx, laidOf([motif()], { matrices: at([10, 10], [20, 10], [30, 10]), variant: new Uint16Array(0) }), { scale: 0.2, x: 0, y: 0 }, 1, { width: 200, height: 100 });
  expect(painted.fills.length).toBe(1);
  expect(painted.fills[0].moves.length).toBe(3);
  expect((ctx as unknown as { fillStyle: string }).fillStyle).toBe("#a33a2f");
});

test("each variant is painted by its own stamp", async () => {
  const { paintPieces, laidOf } = await import("./painter");
  const { ctx, painted } = fakeContext();
  const other = { ...motif(), shapes: [{ ...shape, d: "M0 0L4 0L4 2L0 2Z" }] };
  const laid = laidOf([motif(), other], { matrices: at([10, 10], [20, 10], [30, 10]), variant: new Uint16Array([0, 1, 1]) });
  paintPieces(ctx, laid, { scale: 5, x: 0, y: 0 }, 1, { width: 200, height: 100 });
  expect(painted.fills.length).toBe(3);
  expect(painted.strokes).toBe(1);
});

test("a motif with cuts is laid by the stretch between them", async () => {
  const { laidArtwork } = await import("./painter");
  const piece = { width_mm: 3, height_mm: 2, base_line_mm: 1, shapes: [shape] };
  expect(laidArtwork({ ...motif(), piece }).width_mm).toBe(3);
});

test("a motif is made ready once", async () => {
  const { stampOf } = await import("./painter");
  const one = motif();
  expect(stampOf(one)).toBe(stampOf(one));
  expect(stampOf(one)).not.toBe(stampOf(motif()));
});

test("findings close together get one ring, the chosen one a larger", async () => {
  const { paintRings } = await import("./painter");
  const { ctx, painted } = fakeContext();
  const finding = (x: number) => ({ at: [x, 0] }) as unknown as Finding;
  paintRings(ctx, [finding(0), finding(0.5), finding(30)], { scale: 2, x: 5, y: 5 }, false, 2);
  expect(painted.arcs.map((a) => a[0])).toEqual([5, 65, 65]);
  expect(painted.arcs[2][2]).toBeGreaterThan(painted.arcs[0][2]);
});

/** One bent piece with a contour for its fill and two for its thread, marked as shaped or as cut. */
const bent = (mark: number, thirds: number[]) => ({
  matrices: at([10, 10]), variant: new Uint16Array(0), shaped: new Uint32Array([mark]),
  outline: new Float32Array(thirds.flatMap((_, i) => [i, 0, i, 1, i, 2, i, 3])), contours: new Uint32Array(thirds.flatMap((third, i) => [4 * i, 0, third])),
});

/** What is painted of a piece: the fill colours in order, each with the contours of its path, and how many strokes. */
async function paintedBent(scene: ReturnType<typeof bent>) {
  const { paintPieces, laidOf } = await import("./painter");
  const fills: [string, number][] = [];
  let contours = 0;
  let strokes = 0;
  const ctx = {
    setTransform: () => undefined, getTransform: () => ({}), setLineDash: () => undefined, bezierCurveTo: () => undefined, closePath: () => undefined,
    beginPath: () => (contours = 0), moveTo: () => contours++, stroke: () => strokes++, fillStyle: "",
    fill: () => fills.push([ctx.fillStyle, contours]),
  };
  paintPieces(ctx as unknown as CanvasRenderingContext2D, laidOf([motif()], scene), { scale: 5, x: 0, y: 0 }, 1, { width: 200, height: 100 });
  return { fills, strokes };
}

test("a bent piece keeps its stroke, a cut one fills the outlines of its stroke", async () => {
  expect(await paintedBent(bent(1, [1, 4]))).toEqual({ fills: [["#a33a2f", 1]], strokes: 1 });
  expect(await paintedBent(bent(2, [1, 7, 7]))).toEqual({ fills: [["#a33a2f", 1], ["#ffffff", 2]], strokes: 0 });
});

test("of a cut piece with nothing left of its fill only the rest is painted", async () => {
  expect(await paintedBent(bent(2, [7]))).toEqual({ fills: [["#ffffff", 1]], strokes: 0 });
  expect(await paintedBent(bent(2, []))).toEqual({ fills: [], strokes: 0 });
});
