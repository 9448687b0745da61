import { beforeEach, expect, test, vi } from "vitest";
import type { Stamp } from "./stamp";

let sizes: number[] = [];

beforeEach(() => {
  sizes = [];
  vi.stubGlobal(
    "OffscreenCanvas",
    class {
      constructor(readonly width: number) {
        sizes.push(width);
      }
      getContext = () => ({ setTransform: () => undefined });
    },
  );
});
const soft = (): Stamp => ({ shapes: [], reach: 6, soft: true }) as unknown as Stamp;

test("a glow has a picture from the second time on, of each colouring and about as fine as it is shown", async () => {
  const { glowOf } = await import("./glows");
  const stamp = soft();
  expect(glowOf(stamp, "amber", null, 50)).toBeNull();
  const picture = glowOf(stamp, "amber", null, 60)!;
  expect(picture.width).toBe(64);
  expect(glowOf(stamp, "amber", null, 40)).toBe(picture);
  expect(glowOf(stamp, "ember", null, 50)).toBeNull();
  expect(glowOf(stamp, "amber", null, 70)).toBeNull();
  expect(glowOf(soft(), "amber", null, 50)).toBeNull();
  expect(sizes).toEqual([64]);
});

test("no picture is finer or coarser than serves, and not too many are kept", async () => {
  const { glowOf } = await import("./glows");
  const stamp = soft();
  for (const across of [0.5, 0.5, 5000, 5000]) glowOf(stamp, "amber", null, across);
  expect(sizes).toEqual([16, 256]);
  for (let i = 0; i < 1200; i++) glowOf(stamp, `hue ${i}`, null, 50);
  expect(glowOf(stamp, "amber", null, 5000)).toBeNull();
});
