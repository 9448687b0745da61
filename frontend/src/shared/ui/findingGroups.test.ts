import { expect, it } from "vitest";
import type { Cure } from "../api/scenes";
import { groupsOf, type Told } from "./findingGroups";

const cure = (label: string, clears: string[], size = 50): Cure => ({
  label,
  change: { brush: { spacing: { size_pct: size } } },
  clears,
});
const told = (kind: string, amount: number, more: Partial<Told> = {}): Told => ({
  kind,
  amount,
  at_mm: 1,
  unit: "mm",
  message: `${kind} ${amount}`,
  limit: null,
  at: [0, 0],
  count: 1,
  cures: [],
  untried: false,
  ...more,
});

it("tells one row a kind with the worst figure and how many, the worst bend being the tightest", () => {
  const groups = groupsOf([
    told("tight bend", 3, { limit: 44.3 }),
    told("gap", 0.2, { count: 2 }),
    told("tight bend", 0.1, { limit: 44.3 }),
    told("gap", 0.5),
  ]);
  expect(groups.map((group) => group.title)).toEqual(["2 bends below 44.3 mm, tightest 0.1 mm", "3 gaps, widest 0.50 mm"]);
  expect(groups.map((group) => group.worst)).toEqual([2, 3]);
  expect(groups.map((group) => group.members)).toEqual([
    [0, 2],
    [1, 3],
  ]);
});

it("lets a single finding speak for itself, with its own cures", () => {
  const [group] = groupsOf([told("gap", 0.2, { cures: [cure("Smaller", [])] })]);
  expect([group.title, group.cures.length]).toEqual(["gap 0.2", 1]);
});

it("offers for all only what leaves none, on every line", () => {
  const one = [
    told("gap", 1, { lineId: 1, cures: [cure("Smaller", ["gap"]), cure("Bend", ["kink"], 60)] }),
    told("gap", 2, { lineId: 1 }),
  ];
  expect(groupsOf(one)[0].cures.map((each) => each.label)).toEqual(["Smaller"]);
  expect(groupsOf([...one, told("gap", 3, { lineId: 2 })])[0].cures).toEqual([]);
  const both = [...one, told("gap", 3, { lineId: 2, cures: [cure("Smaller", ["gap"])] })];
  expect(groupsOf(both)[0].cures.map((each) => each.label)).toEqual(["Smaller"]);
});

it("keeps brushes apart", () => {
  expect(groupsOf([told("gap", 1, { brushId: 1 }), told("gap", 1, { brushId: 2 })])).toHaveLength(2);
});

it("has a word for a kind it does not know", () => {
  expect(groupsOf([told("other", 1), told("other", 2)])[0].title).toBe("other 1, and 1 more");
});
