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
  ["12mm+1/8in", "mm", 15.175],
  ["12 mm - 1/8 in", "mm", 8.825],
  ["0.8mm", "mm", 0.8],
  ["2*3cm+1", "mm", 61],
  ["(3+4)cm", "mm", 70],
  ["10mm/4", "mm", 2.5],
  ["-1in", "mm", -25.4],
  ['3/8"', "mm", 9.525],
  ["20 % + 5", "%", 25],
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
  ["2mm*3mm", "mm"],
  ["5mm2", "mm"],
  ["30°", "mm"],
  ["mm", "mm"],
])("refuses %s", (text, unit) => {
  expect(numberFromText(text, unit)).toBeNull();
});

test("a share of something long may be typed as a length", () => {
  expect(numberFromText("0.8mm", "%", 0.08)).toBeCloseTo(10, 9); // 8 mm long: 1 % of it is 0.08 mm
  expect(numberFromText("10 + 0.8mm", "%", 0.08)).toBeCloseTo(20, 9);
  expect(numberFromText("25%", "mm")).toBeNull();
});
