import { expect, test } from "vitest";
import { reachOf } from "./reach";

test("how far a change to a brush reaches is told by lines, and by pages where there are several", () => {
  const uses = [
    { brush_id: 1, lines: 1, pages: 1 },
    { brush_id: 2, lines: 3, pages: 1 },
    { brush_id: 3, lines: 3, pages: 2 },
  ];
  expect([1, 2, 3, 4, undefined].map((id) => reachOf({ uses }, id))).toEqual([
    "changes this brush: one line",
    "changes this brush: 3 lines",
    "changes this brush: 3 lines on 2 pages",
    "changes this brush, which lies on no line",
    "changes this brush, which lies on no line",
  ]);
});
