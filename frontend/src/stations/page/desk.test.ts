import { expect, test } from "vitest";
import type { Line } from "../../shared/api/client";
import type { Cure } from "../../shared/api/scenes";
import { newDesk } from "./desk";
import type { PlacedFinding } from "./types";

const lines = [
  { id: 1, visible: true },
  { id: 2, visible: true },
  { id: 3, visible: false },
] as Line[];
const findings = [{ lineId: 2, at: [5, 6] }] as PlacedFinding[];
const cure = { label: "Ease the size", change: { brush: {} }, clears: [] } as Cure;

test("the topmost line that is seen is chosen at first", () => {
  expect(newDesk(lines).getState().chosenId).toBe(2);
  expect(newDesk([]).getState().chosenId).toBeNull();
});

test("another line is not looked at where the last one's finding was", () => {
  const desk = newDesk(lines);
  desk.getState().lookAt([5, 6], 0);
  expect(desk.getState()).toMatchObject({ spot: [5, 6], finding: 0 });
  desk.getState().choose(1);
  expect(desk.getState()).toMatchObject({ chosenId: 1, spot: null, finding: null });
});

test("a place is looked at without leaving the finding", () => {
  const desk = newDesk(lines);
  desk.getState().lookAt([5, 6], 0);
  desk.getState().lookAt([9, 9]);
  expect(desk.getState()).toMatchObject({ spot: [9, 9], finding: 0 });
});

test("while a cure is tried the list stays; left or taken it goes on", () => {
  const desk = newDesk(lines);
  desk.getState().tryOut(cure, 0, findings);
  expect(desk.getState()).toMatchObject({ cure: { line_id: 2, change: cure.change }, held: findings });
  desk.getState().tryOut(null, 0, findings);
  expect(desk.getState()).toMatchObject({ cure: null, held: null });
  desk.getState().tryOut(cure, 0, findings);
  desk.getState().settle();
  expect(desk.getState()).toMatchObject({ cure: null, held: null, finding: null, spot: null });
});
