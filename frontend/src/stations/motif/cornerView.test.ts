import { expect, test } from "vitest";
import { angleTowards, cornerView, heldAngle, leaving } from "./cornerView";

test("the leg that leaves goes on the side that a corner turns to, and its angle is read back from there", () => {
  const right = leaving(90, 1);
  expect([right[0], right[1]].map((v) => Number(v.toFixed(9)))).toEqual([0, 1]);
  for (const side of [1, -1] as const)
    for (const angle of [60, 75, 90, 133, 150]) {
      const [x, y] = leaving(angle, side);
      expect(angleTowards(120 * x, 120 * y, side)).toBe(angle);
    }
});

test("an angle stays within what a corner piece can follow", () => {
  expect(angleTowards(10, 0.1, 1)).toBe(150);
  expect(angleTowards(-10, 0.1, 1)).toBe(60);
  expect(angleTowards(10, -3, 1)).toBe(150); // on the other side, nearly straight on
  expect([heldAngle(12), heldAngle(97.4), heldAngle(400)]).toEqual([60, 97, 150]);
});

test("what one looks at has its room, above or below", () => {
  const size = { width: 900, height: 600 };
  const [below, above] = [cornerView(size, 50, 1), cornerView(size, 50, -1)];
  expect(below.y + above.y).toBeCloseTo(600);
  expect(below.y).toBeLessThan(300);
  expect(50 * below.scale).toBeLessThanOrEqual(450);
});
