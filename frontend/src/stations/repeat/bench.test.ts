import { beforeEach, expect, test, vi } from "vitest";
import type { Settings } from "../../shared/api/client";
import { newBench } from "./bench";

const kept = { spacing: { size_pct: 100, gap_pct: 0 }, travel: { turn_deg: 0 } } as unknown as Settings;

beforeEach(() => {
  const known = new Map<string, string>();
  vi.stubGlobal("localStorage", {
    getItem: (key: string) => known.get(key) ?? null,
    setItem: (key: string, value: string) => known.set(key, value),
  });
});

test("a drag goes on from what is kept, not from its own last step", () => {
  const bench = newBench();
  bench.getState().drag(kept, { spacing: { size_pct: 120 } });
  bench.getState().drag(kept, { spacing: { gap_pct: 5 } });
  expect(bench.getState().draft).toMatchObject({ spacing: { size_pct: 100, gap_pct: 5 } });
  expect(bench.getState().inHand).toBe(true);
  bench.getState().release();
  expect(bench.getState()).toMatchObject({ draft: null, inHand: false, pitch: null });
});

test("changes on their way add up, and show until the last of them is kept", () => {
  const bench = newBench();
  bench.getState().send(kept, { spacing: { size_pct: 120 } });
  bench.getState().send(kept, { travel: { turn_deg: 45 } });
  const both = { spacing: { size_pct: 120 }, travel: { turn_deg: 45 } };
  expect(bench.getState()).toMatchObject({ draft: both, before: kept, inHand: false, waiting: 2 });
  bench.getState().arrive();
  expect(bench.getState().draft).toMatchObject(both);
  bench.getState().arrive();
  expect(bench.getState()).toMatchObject({ draft: null, waiting: 0 });
});

test("a pitch stands until the last of its changes is kept, and is known until that is laid", () => {
  const bench = newBench();
  bench.getState().hang(12);
  expect(bench.getState()).toMatchObject({ pitch: 12, inHand: true, hung: null });
  bench.getState().sendPitch(12.5);
  bench.getState().sendPitch(13);
  bench.getState().arrive();
  expect(bench.getState()).toMatchObject({ pitch: 13, inHand: false, waiting: 1 });
  bench.getState().arrive();
  expect(bench.getState()).toMatchObject({ pitch: null, hung: 13, waiting: 0 });
  bench.getState().stand();
  expect(bench.getState().hung).toBeNull();
});

test("a change ends the trial of a cure", () => {
  const bench = newBench();
  bench.getState().show(kept);
  bench.getState().send(kept, {});
  expect(bench.getState().preview).toBeNull();
});

test("points of one trial line are put back without touching another's", () => {
  const bench = newBench();
  bench.getState().shape("wave", [[1, 2]]);
  bench.getState().shape("ring", [[3, 4]]);
  bench.getState().shape("wave", null);
  expect(bench.getState().shaped).toEqual({ ring: [[3, 4]] });
});

test("pinned lines are known to the next bench", () => {
  newBench().getState().pin([4, 7]);
  expect(newBench().getState().pinned).toEqual([4, 7]);
});
