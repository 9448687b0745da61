import { expect, test } from "vitest";
import { codesFor } from "./lettered";

test("few things have a letter each, many have two, and none begins another", () => {
  expect(codesFor(3)).toEqual(["a", "s", "d"]);
  expect(new Set(codesFor(25)).size).toBe(25);
  const many = codesFor(140);
  expect([many.length, new Set(many).size, new Set(many.map((code) => code.length)).size]).toEqual([140, 140, 1]);
  expect([...codesFor(25), ...many].join("")).not.toContain("q");
});
