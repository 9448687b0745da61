import { expect, test } from "vitest";
import type { Motif } from "../../shared/api/client";
import { newWork } from "./work";

const motif = (...derived: boolean[]): Motif => ({ shapes: derived.map((each) => ({ derived: each })) }) as unknown as Motif;

test("the only part of its own needs no choosing", () => {
  expect(newWork(motif(false, true)).getState().places).toEqual([0]);
  expect(newWork(motif(false, false)).getState().places).toEqual([]);
});

test("points are those of one part", () => {
  const work = newWork(motif(false, false, false));
  work.getState().choose([1, 2]);
  work.getState().open("points");
  expect(work.getState().places).toEqual([1]);
  work.getState().choose([0, 2]);
  expect(work.getState().places).toEqual([0]);
});

test("points of one part are not taken for another's", () => {
  const work = newWork(motif(false, false));
  work.getState().choose([1]);
  work.getState().chooseNodes([3, 4], 1);
  work.getState().chooseNodes([5]);
  expect(work.getState()).toMatchObject({ nodes: [5], contour: 1 });
  work.getState().choose([0]);
  expect(work.getState()).toMatchObject({ nodes: [], contour: 0 });
});
