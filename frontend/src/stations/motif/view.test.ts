import { expect, test } from "vitest";
import type { MotifBench, Shape } from "../../shared/api/client";
import { benchView, pressed, round, snapped, unionBox, withGroup } from "./view";

const part = (group: number, derived = false, box = [0, 0, 4, 2]): Shape =>
  ({ d: "M0 0L4 0L4 2L0 2Z", group, derived, box, fill: "#000000", stroke: null }) as unknown as Shape;

const bench = (cuts_mm: number[] | null, shapes = [part(0, false, [0, 0, 20, 10])]): MotifBench =>
  ({
    motif: { width_mm: 20, height_mm: 10, base_line_mm: 5, pitch_mm: 20, cuts_mm, shapes },
  }) as unknown as MotifBench;

test("the motif lies in the middle with room for its neighbours", () => {
  const view = benchView({ width: 1000, height: 500 }, bench(null));
  expect(view.x + 10 * view.scale).toBeCloseTo(500);
  expect(20 * 2.3 * view.scale).toBeLessThanOrEqual(1000);
  expect(10 * view.scale).toBeLessThan(500 - 100);
});

test("with cuts the whole drawing is in view", () => {
  const view = benchView({ width: 1000, height: 900 }, bench([5, 9]));
  expect(view.x).toBeGreaterThan(0);
  expect(view.x + 20 * view.scale).toBeLessThan(1000);
});

test("artwork that reaches over the frame is kept in view", () => {
  const tall = bench(null, [part(0, false, [0, -30, 20, 40])]);
  const view = benchView({ width: 2000, height: 500 }, tall);
  expect(view.y - 30 * view.scale).toBeGreaterThan(0);
  expect(view.y + 40 * view.scale).toBeLessThan(500);
});

test("an area without size gives a view all the same", () => {
  expect(benchView({ width: 0, height: 0 }, bench(null)).scale).toBeGreaterThan(0);
});

test("pressing a part chooses its group, without what is derived", () => {
  const shapes = [part(1), part(1), part(1, true), part(0)];
  expect(withGroup(shapes, 0)).toEqual([0, 1]);
  expect(withGroup(shapes, 3)).toEqual([3]);
  expect(withGroup(shapes, 2)).toEqual([0, 1]);
});

test("pressing a part of a chosen group again chooses it alone", () => {
  const shapes = [part(1), part(1), part(0)];
  expect(pressed(shapes, [], 1)).toEqual([0, 1]);
  expect(pressed(shapes, [0, 1], 1)).toEqual([1]);
  expect(pressed(shapes, [1], 0)).toEqual([0, 1]);
  expect(pressed(shapes, [2], 2)).toEqual([2]);
});

test("a place snaps to the nearest other within reach", () => {
  expect(snapped(4.9, [0, 5, 10], 0.2)).toBe(5);
  expect(snapped(4.7, [0, 5, 10], 0.2)).toBe(4.7);
  expect(snapped(7, [], 3)).toBe(7);
});

test("boxes are joined and figures rounded", () => {
  expect(
    unionBox([
      [0, 1, 2, 3],
      [-1, 2, 1, 9],
    ]),
  ).toEqual([-1, 1, 2, 9]);
  expect(round(1.23456)).toBe(1.235);
  expect(round(-0.0004)).toBeCloseTo(0);
});
