import { afterEach, beforeEach, expect, test, vi } from "vitest";

const heard = new Map<string, (event: { timeStamp: number }) => void>();
const frames: (() => void)[] = [];
let now = 0;
let runOf: (kind: string) => string;

/** A hand presses at one time, what it does is done at another, which is later where the screen stood still. */
function press(kind: string, at: number, done = at): string {
  heard.get("keydown")!({ timeStamp: at });
  now = done;
  return runOf(kind);
}

function frame(at: number): void {
  now = at;
  frames.splice(0).forEach((paint) => paint());
}

beforeEach(async () => {
  vi.stubGlobal("addEventListener", (kind: string, listener: (event: { timeStamp: number }) => void) =>
    heard.set(kind, listener),
  );
  vi.stubGlobal("requestAnimationFrame", (paint: () => void) => frames.push(paint));
  vi.spyOn(performance, "now").mockImplementation(() => now);
  let day = 1_000_000;
  vi.spyOn(Date, "now").mockImplementation(() => day++);
  vi.resetModules();
  ({ runOf } = await import("./runs"));
});

afterEach(() => vi.unstubAllGlobals());

test("steps of one kind are one run until the hand rests or does another", () => {
  const first = press("gap", 1000);
  expect(press("gap", 3900)).toBe(first);
  expect(press("gap", 6800)).toBe(first);
  const rested = press("gap", 9900);
  expect(rested).not.toBe(first);
  expect(press("size", 10_000)).not.toBe(rested);
  expect(press("gap", 10_100)).not.toBe(rested);
});

test("a screen that stands still is no rest: neither before what was pressed is done nor before it is shown", () => {
  const first = press("gap", 1000);
  expect(press("gap", 1200, 9000)).toBe(first);
  frame(20_000);
  expect(press("gap", 20_100)).toBe(first);
  frame(20_200);
  expect(press("gap", 23_300)).not.toBe(first);
});

test("a run is named by its kind and when it began, in no more letters than a step may have", () => {
  expect(press("gap", 0)).toMatch(/^\w+ gap$/);
  expect(press("move " + "1234,".repeat(60), 10)).toHaveLength(120);
});
