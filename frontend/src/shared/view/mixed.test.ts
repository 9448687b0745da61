import { expect, test } from "vitest";
import { mixedOf } from "./mixed";
import type { Stamp } from "./stamp";

// without a canvas to look at a stamp on, its largest shape stands for all of it
const stamp = { shapes: [], reach: 1, speck: { colour: "#a33a2f", slot: 1, share: 1 } } as unknown as Stamp;

test("a spot has its motif's colour, or its own", () => {
  expect(mixedOf(stamp, new Uint32Array(0), -1)).toBe("#a33a2fff");
  expect(mixedOf(stamp, new Uint32Array([0, 0, 0x11223344, 0xff8000ff]), 2)).toBe("#ff8000ff");
});

test("what covers half of its box covers half as a spot", () => {
  const half = { ...stamp, speck: { ...stamp.speck, share: 0.5 } };
  expect(mixedOf(half, new Uint32Array([0, 0x00ff00ff]), 0)).toBe("#00ff0080");
});
