import { beforeAll, expect, test, vi } from "vitest";
import { closesOf } from "./closes";

beforeAll(() => {
  class FakePath {
    steps: string[] = [];
    moveTo = (x: number, y: number): number => this.steps.push(`M${x} ${y}`);
    lineTo = (x: number, y: number): number => this.steps.push(`L${x} ${y}`);
    closePath = (): number => this.steps.push("Z");
  }
  vi.stubGlobal("Path2D", FakePath);
});

test("closes are those of a pass, each with its own rings", () => {
  const close = new Uint32Array([0, 1, 9, 0, 0, 10, 2, 19, 1, 1, 20, 1, 29, 0, 1]);
  const areas = new Uint32Array([0, 0, 3, 1, 6, 2, 9, 2]);
  const rings = new Float32Array(Array.from({ length: 24 }, (_, i) => i));
  const over = closesOf({ close, areas, rings }, "over");
  expect(over.map(({ first, behind, end, apart }) => [first, behind, end, apart])).toEqual([
    [0, 1, 10, false],
    [20, 21, 30, true],
  ]);
  const steps = over.map(({ area }) => (area as unknown as { steps: string[] }).steps.join(""));
  expect(steps).toEqual(["M0 1L2 3L4 5Z", "M12 13L14 15L16 17ZM18 19L20 21L22 23Z"]);
  expect(closesOf({ close, areas, rings }, "under").map(({ first }) => first)).toEqual([10]);
});
