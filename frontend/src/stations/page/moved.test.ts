import { expect, test } from "vitest";
import { cornersOf, figuresOf, moved, scaledTo, STILL, turnedTo } from "./moved";

test("a place is turned and scaled about another, then moved", () => {
  const at = moved([3, 1], { by: [10, 0], turn_deg: 90, scale: 2, about: [1, 1] });
  expect(at.map((v) => Number(v.toFixed(9)))).toEqual([11, 5]); // clockwise, y down
});

test("a corner that is pulled scales about the one across, whichever way the pointer strays", () => {
  const [topLeft, , bottomRight] = cornersOf({ x: 10, y: 10, width: 40, height: 30 });
  expect(scaledTo(topLeft, bottomRight, [90, 70]).scale).toBe(2);
  const strayed = scaledTo(topLeft, bottomRight, [90 - 30, 70 + 40]); // square to the diagonal
  expect(strayed.scale).toBe(2);
  expect(moved(topLeft, strayed)).toEqual(topLeft);
  expect(scaledTo(topLeft, bottomRight, [0, 0]).scale).toBe(0.01);
});

test("a turn follows the pointer round, the short way, by steps where asked", () => {
  expect(turnedTo([0, 0], [0, -10], [10, 0], false).turn_deg).toBe(90);
  expect(turnedTo([0, 0], [-10, 1], [-10, -1], false).turn_deg).toBeCloseTo(11.4);
  expect(turnedTo([0, 0], [0, -10], [10, -2], true).turn_deg).toBe(75);
});

test("figures tell what moves, and nothing of what does not", () => {
  expect(figuresOf(STILL)).toBe("");
  expect(figuresOf({ ...STILL, scale: 1.25, turn_deg: -15 })).toBe("125 % · −15°");
  expect(figuresOf({ ...STILL, by: [12, -3.04] })).toBe("12.0, −3.0 mm");
});
