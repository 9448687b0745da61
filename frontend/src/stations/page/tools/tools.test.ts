import { expect, test, vi } from "vitest";
import type { Source } from "../../../shared/api/client";
import { byHand } from "./byHand";
import { lineThrough, NO_POINTS, pressed, withoutLast, withPoint, type Points } from "./byPoints";
import type { Place, Reach } from "./held";
import { moveLine } from "./moveLine";
import { pan } from "./pan";

const reach = (client: Place, mm: Place = client, along: Place[] = [mm], straight = false): Reach => ({
  client,
  mm,
  along,
  times: along.map((_, i) => 8 * (i + 1)),
  straight,
});
const start = (place: Place) => ({ place, time: 0 });

test("the sheet follows the pointer from where it was", () => {
  const setView = vi.fn();
  const held = pan([100, 50], { scale: 2, x: 10, y: 20 }, setView);
  held.move(reach([130, 40]));
  held.move(reach([101, 51]));
  expect(setView.mock.calls).toEqual([[{ scale: 2, x: 40, y: 10 }], [{ scale: 2, x: 11, y: 21 }]]);
});

test("a line moves in mm once the press is more than a tremble, and back again to nothing", () => {
  const [onShift, onMoved] = [vi.fn(), vi.fn()];
  const held = moveLine([0, 0], 4, onShift, onMoved);
  held.move(reach([2, 2]));
  expect(onShift).not.toHaveBeenCalled();
  held.move(reach([8, -4]));
  held.move(reach([1, 0]));
  held.up(reach([1, 0]));
  expect(onShift.mock.calls).toEqual([[[2, -1]], [[0.25, 0]]]);
  expect(onMoved.mock.calls).toEqual([[[0.25, 0]]]);
});

test("a press on a line moves nothing", () => {
  const onMoved = vi.fn();
  moveLine([0, 0], 4, vi.fn(), onMoved).up(reach([0, 0]));
  expect(onMoved).not.toHaveBeenCalled();
});

test("a line by hand takes every place that is far enough from the one before", () => {
  const [onDraft, onDraw] = [vi.fn(), vi.fn<(source: Source) => void>()];
  const held = byHand(start([0, 0]), 10, 2, onDraft, onDraw);
  held.move(reach([0, 0], [1, 0], [[0.05, 0], [0.5, 0], [0.6, 0], [1, 0]])); // prettier-ignore
  held.up(reach([0, 0], [1, 0], [[1, 0]], true));
  expect(onDraft).toHaveBeenCalledOnce();
  const points = [[0, 0], [0.5, 0], [1, 0]]; // prettier-ignore
  expect(onDraw).toHaveBeenCalledExactlyOnceWith({
    kind: "hand",
    points,
    times: [0, 16, 32],
    smooth_pct: 35,
    within_mm: 0.05,
    straight: true,
    closed: false,
  });
});

test("a line by hand that comes back to its start closes, let go outside it stays open", () => {
  const around = [[10, 0], [10, 10], [0, 10], [0.5, 1]] as Place[]; // prettier-ignore
  for (const [way, closed] of [
    [around, true],
    [around.slice(0, 3), false],
    [[[1, 0]], false],
  ] as const) {
    // prettier-ignore
    const onDraw = vi.fn<(source: Source) => void>();
    const held = byHand(start([0, 0]), 10, 2, vi.fn(), onDraw);
    for (const place of way) held.move(reach([0, 0], place as Place, [place as Place]));
    held.up(reach([0, 0]));
    expect(onDraw.mock.calls[0][0]).toMatchObject({ kind: "hand", closed });
  }
});

test("a press by hand that goes nowhere draws nothing", () => {
  const [onDraft, onDraw] = [vi.fn(), vi.fn()];
  byHand(start([3, 3]), 10, 2, onDraft, onDraw).up(reach([0, 0]));
  expect(onDraw).not.toHaveBeenCalled();
  expect(onDraft).toHaveBeenCalledExactlyOnceWith(null);
});

test("a line by points goes on, closes on its first point, ends on its last, and takes a point back", () => {
  let begun: Points = NO_POINTS;
  for (const place of [[0, 0], [50, 0], [50, 40]] as Place[]) begun = withPoint(begun, place, true); // prettier-ignore
  expect(pressed(begun, [20, 60], 1, false)).toEqual({
    begun: { points: [...begun.points, [20, 60]], flowing: [true, true, true, false] },
  });
  expect(pressed(begun, [4, 4], 1, true)).toEqual({ closed: true });
  expect(pressed(begun, [4, 4], 8, true)).toHaveProperty("begun"); // 45 pixels away
  expect(pressed(begun, [51, 41], 1, true)).toEqual({ closed: false });
  expect(pressed(withoutLast(begun), [1, 1], 1, true)).toHaveProperty("begun"); // two points close nothing
  expect(lineThrough(begun, true)).toEqual({ kind: "points", ...begun, closed: true });
  expect(lineThrough(withoutLast(begun), true)).toMatchObject({ closed: false });
  expect(lineThrough(withoutLast(withoutLast(begun)))).toBeNull();
});
