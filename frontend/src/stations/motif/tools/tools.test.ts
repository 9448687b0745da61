import { expect, test } from "vitest";
import type { Motif } from "../../../shared/api/client";
import { baseLineTool, cutsOf, cutTool, edgesOf, frameTool, jointsOf, jointTool } from "./cut";
import { moveTool, sizeTool, turnTool } from "./parts";
import { chosenNodes, nodesTool, pullTool } from "./points";

const motif = {
  width_mm: 10,
  height_mm: 4,
  base_line_mm: 2,
  cuts_mm: null,
  joints_mm: null,
  shapes: [{ box: [1, 0.5, 8, 3] }],
} as unknown as Motif;

test("without tapes a motif is cut and hung at its ends", () => {
  expect(cutsOf(motif)).toEqual([0, 10]);
  expect(jointsOf(motif)).toEqual([
    [0, 2],
    [10, 2],
  ]);
  expect(jointsOf({ ...motif, cuts_mm: [2, 9] })).toEqual([
    [2, 2],
    [9, 2],
  ]);
  expect(edgesOf(motif)).toEqual({ across: [0, 10, 1, 8], down: [0, 2, 4, 0.5, 1.75, 3] });
});

test("a tape is pulled onto an edge nearby, unless finely, and never past the other", () => {
  const left = cutTool(0, [0, 10], edgesOf(motif).across, 20); // px a mm
  expect(left.at(0, 18, 0, false).cuts_mm).toEqual([1, 10]); // 0.9 mm, 2 px from the shape's edge
  expect(left.at(0, 18, 0, true).cuts_mm).toEqual([0.9, 10]);
  expect(left.at(0, 1000, 0, true).cuts_mm).toEqual([9.9, 10]);
  const right = cutTool(1, [2, 10], [], 20);
  expect(right.at(10, -1000, 0, true).cuts_mm).toEqual([2, 2.1]);
  expect(right.step(-1, 10)).toEqual({ op: "cuts", cuts_mm: [2, 9.9] });
  expect(right.label?.(right.at(10, -20, 0, true))).toBe("right cut at 9.00 mm");
});

test("the base line goes down with the pointer and up with the arrow key", () => {
  const base = baseLineTool(2, [], 10);
  expect(base.at(2, 0, 5, false).base_line_mm).toBe(2.5);
  expect(base.step(1, 2).base_line_mm).toBe(1.9);
});

test("only the joint that is held moves", () => {
  expect(jointTool(1, jointsOf(motif), 10).at([10, 2], -10, 5, false).joints_mm).toEqual([
    [0, 2],
    [9, 2.5],
  ]);
});

test("a side of the frame moves across it alone", () => {
  const top = frameTool("top_mm", motif, edgesOf(motif).down, 100);
  expect(top.at(top.begin(), 999, 52, false)).toEqual({ op: "frame", left_mm: 0, top_mm: 0.5, right_mm: 10, bottom_mm: 4 });
  const right = frameTool("right_mm", motif, [], 10);
  expect(right.step(1, right.begin())).toEqual({ op: "frame", left_mm: 0, top_mm: 0, right_mm: 10.1, bottom_mm: 4 });
});

test("a press goes on from where the last one led to, though the motif shown is the one before it", () => {
  const left = frameTool("left_mm", motif, [], 10);
  const once = left.step(-1, left.begin());
  expect(left.step(-1, left.after!(once))).toEqual({ op: "frame", left_mm: -0.1, top_mm: 0, right_mm: 10.1, bottom_mm: 4 });
  const tape = cutTool(0, [0, 10], [], 10);
  expect(tape.step(1, tape.after!(tape.step(1, 0))).cuts_mm).toEqual([0.2, 10]);
  const joint = jointTool(0, jointsOf(motif), 10);
  expect(joint.step(1, joint.after!(joint.step(1, [0, 2]))).joints_mm).toEqual([
    [0.2, 2],
    [10, 2],
  ]);
  const pull = pullTool({ part: 1, contour: 0 }, 2, "out", [1, 1], 10);
  expect(pull.step(1, pull.after!(pull.step(1, [1, 1])))).toMatchObject({ x_mm: 1.2, y_mm: 1 });
});

test("parts move by mm, whatever the view's scale", () => {
  expect(moveTool([2], 8).at(null, 4, -16, false)).toEqual({ op: "move", parts: [2], dx_mm: 0.5, dy_mm: -2 });
});

test("size is even unless it is taken finely, and never nothing", () => {
  const size = sizeTool([0], [100, 50]);
  expect(size.at(size.begin(), 50, 0, false)).toMatchObject({ scale_x: 2, scale_y: 2 });
  expect(size.at(size.begin(), 50, 0, true)).toMatchObject({ scale_x: 2, scale_y: 1 });
  expect(size.at(size.begin(), -500, 0, false)).toMatchObject({ scale_x: 0.02, scale_y: 0.02 });
});

test("the knob turns by steps of five degrees, finely by tenths", () => {
  const turn = turnTool([0], [0, -100]); // above the middle
  const aside = 100 * Math.tan((12 * Math.PI) / 180);
  expect(turn.at(turn.begin(), aside, 0, false).turn_deg).toBe(10);
  expect(turn.at(turn.begin(), aside, 0, true).turn_deg).toBe(12);
});

test("points move together, a handle on its own", () => {
  const on = { part: 1, contour: 0 };
  expect(nodesTool(on, [2, 3], 10).at(null, 5, 0, false)).toEqual({
    op: "move_nodes",
    ...on,
    nodes: [2, 3],
    dx_mm: 0.5,
    dy_mm: 0,
  });
  expect(pullTool(on, 2, "out", [1, 1], 10).at([1, 1], 5, -5, false)).toMatchObject({
    node: 2,
    side: "out",
    x_mm: 1.5,
    y_mm: 0.5,
  });
});

test("a point is chosen alone, or added to the others and taken from them again", () => {
  expect(chosenNodes([1, 2], 5, false)).toEqual([5]);
  expect(chosenNodes([1, 2], 5, true)).toEqual([1, 2, 5]);
  expect(chosenNodes([1, 2, 5], 2, true)).toEqual([1, 5]);
});
