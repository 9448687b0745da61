import { expect, test } from "vitest";
import type { Page } from "../../shared/api/client";
import { fitView } from "../../shared/view/view";
import { withChange } from "../../shared/ui/settings";
import { fitSheet, zoomed } from "./sheetView";

const page = { width_mm: 400, height_mm: 300 } as Page;

test("the whole sheet fits and lies in the middle", () => {
  const view = fitSheet({ width: 930, height: 600 }, page);
  expect(view.x).toBeGreaterThan(0);
  expect(view.x + 400 * view.scale).toBeCloseTo(930 - view.x, 9);
  expect(view.y + 300 * view.scale).toBeLessThanOrEqual(600);
});

test("coming closer holds the place under the pointer", () => {
  const before = fitSheet({ width: 930, height: 600 }, page);
  const mm = (view: typeof before) => [(200 - view.x) / view.scale, (150 - view.y) / view.scale];
  const after = zoomed(before, 3, 200, 150);
  expect(after.scale).toBeCloseTo(before.scale * 3, 9);
  expect(mm(after)[0]).toBeCloseTo(mm(before)[0], 9);
  expect(mm(after)[1]).toBeCloseTo(mm(before)[1], 9);
});

test("closer and further have their ends", () => {
  const view = { scale: 1, x: 0, y: 0 };
  expect(zoomed(view, 1e9, 0, 0).scale).toBe(200);
  expect(zoomed(view, 1e-9, 0, 0).scale).toBe(0.05);
});

test("a view fits a box with its margin", () => {
  expect(fitView(200, 100, [100, 70], 5)).toEqual({ scale: 90 / 70, x: (200 - 9000 / 70) / 2, y: 5 });
  expect(fitView(0, 0, [100, 70]).scale).toBeGreaterThan(0);
});

test("a change touches its own settings only and copies the rest", () => {
  const settings = { spacing: { gap_pct: 1, size_pct: 100 }, travel: { turn_deg: 3 } } as never;
  const next = withChange(settings, { spacing: { gap_pct: 9 } });
  expect(next).toEqual({ spacing: { gap_pct: 9, size_pct: 100 }, travel: { turn_deg: 3 } });
  expect(settings).toEqual({ spacing: { gap_pct: 1, size_pct: 100 }, travel: { turn_deg: 3 } });
});
