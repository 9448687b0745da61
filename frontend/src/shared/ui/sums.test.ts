import { expect, test } from "vitest";
import { numberFromText } from "./sums";

test.each([
  ["12.4mm", "mm", 12.4],
  ["1/2in", "mm", 12.7],
  ["3*4", "mm", 12],
  ["3,5", "%", 3.5],
  ["-(2+3)*2", "%", -10],
  ["45 °", "°", 45],
  ["1e2", "mm", 100],
  ["72pt", "mm", 25.4],
])("reads %s as %s", (text, unit, value) => {
  expect(numberFromText(text, unit)).toBeCloseTo(value, 9);
});

test.each([
  ["", "mm"],
  ["abc", "mm"],
  ["3*", "mm"],
  ["1/0", "mm"],
  ["5 mm", "%"],
  ["(2", "mm"],
  ["2 2", "mm"],
])("refuses %s", (text, unit) => {
  expect(numberFromText(text, unit)).toBeNull();
});
