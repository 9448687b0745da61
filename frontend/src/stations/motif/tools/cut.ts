import type { Motif } from "../../../shared/api/client";
import { round, snapped } from "../view";
import { STEP_MM, type EditOf } from "./steps";
import type { Tool } from "./tool";

type Cuts = [number, number];
export type FrameSide = "left_mm" | "top_mm" | "right_mm" | "bottom_mm";
type Frame = Record<FrameSide, number>;

const SNAP_PX = 6;
const LEAST_APART_MM = 0.1;

/** Where the motif is cut: by its tapes, else at its frame's ends. */
export const cutsOf = ({ cuts_mm, width_mm }: Motif): Cuts => (cuts_mm ? [cuts_mm[0], cuts_mm[1]] : [0, width_mm]);

/** Where its joints lie: as set, else where the base line meets the cuts. */
export function jointsOf(motif: Motif): number[][] {
  const [from, to] = cutsOf(motif);
  return (
    motif.joints_mm ?? [
      [from, motif.base_line_mm],
      [to, motif.base_line_mm],
    ]
  );
}

/** Places that tapes and the base line are pulled onto: the frame's sides, and edges and middles of what is drawn. */
export const edgesOf = ({ width_mm, height_mm, shapes }: Motif) => ({
  across: [0, width_mm, ...shapes.flatMap(({ box }) => [box[0], box[2]])],
  down: [0, height_mm / 2, height_mm, ...shapes.flatMap(({ box }) => [box[1], (box[1] + box[3]) / 2, box[3]])],
});

const onto = (edges: number[], scale: number, mm: number, fine: boolean): number =>
  round(fine ? mm : snapped(mm, edges, SNAP_PX / scale), 2);

/** A tape: it stays on its side of the other. */
export function cutTool(i: 0 | 1, cuts: Cuts, edges: number[], scale: number): Tool<number, EditOf<"cuts">> {
  const at = (from: number, dx: number, _dy: number, fine: boolean): EditOf<"cuts"> => {
    const mm = onto(edges, scale, from + dx / scale, fine);
    return {
      op: "cuts",
      cuts_mm: i ? [cuts[0], Math.max(mm, cuts[0] + LEAST_APART_MM)] : [Math.min(mm, cuts[1] - LEAST_APART_MM), cuts[1]],
    };
  };
  return {
    begin: () => cuts[i],
    at,
    step: (by, from) => at(from, by * STEP_MM * scale, 0, true),
    after: ({ cuts_mm }) => cuts_mm![i],
    key: `cut ${i}`,
    label: ({ cuts_mm }) => `${i ? "right" : "left"} cut at ${cuts_mm![i].toFixed(2)} mm`,
  };
}

export function baseLineTool(base: number, edges: number[], scale: number): Tool<number, EditOf<"base_line">> {
  return {
    begin: () => base,
    at: (from, _dx, dy, fine) => ({ op: "base_line", base_line_mm: onto(edges, scale, from + dy / scale, fine) }),
    step: (by, from) => ({ op: "base_line", base_line_mm: round(from - by * STEP_MM, 2) }),
    after: ({ base_line_mm }) => base_line_mm,
    key: "base",
    label: ({ base_line_mm }) => `base line at ${base_line_mm.toFixed(2)} mm`,
  };
}

export function jointTool(i: 0 | 1, joints: number[][], scale: number): Tool<number[], EditOf<"joints">> {
  const at = (from: number[], dx: number, dy: number): EditOf<"joints"> => ({
    op: "joints",
    joints_mm: joints.map((own, k) => (k === i ? [round(from[0] + dx / scale, 2), round(from[1] + dy / scale, 2)] : own)),
  });
  return {
    begin: () => joints[i],
    at,
    step: (by, from) => at(from, by * STEP_MM * scale, 0),
    after: ({ joints_mm }) => joints_mm![i],
    key: `joint ${i}`,
    label: () => `${i ? "right" : "left"} joint`,
  };
}

/** A side of the frame, pulled across it. */
export function frameTool(side: FrameSide, motif: Motif, edges: number[], scale: number): Tool<Frame, EditOf<"frame">> {
  const upright = side === "left_mm" || side === "right_mm";
  const frame = { left_mm: 0, top_mm: 0, right_mm: motif.width_mm, bottom_mm: motif.height_mm };
  const at = (from: Frame, dx: number, dy: number, fine: boolean): EditOf<"frame"> => ({
    op: "frame",
    ...from,
    [side]: onto(edges, scale, from[side] + (upright ? dx : dy) / scale, fine),
  });
  return {
    begin: () => frame,
    at,
    step: (by, from) => at(from, by * STEP_MM * scale, -by * STEP_MM * scale, true),
    // the origin lies in the new frame's corner
    after: ({ left_mm, top_mm, right_mm, bottom_mm }) => ({
      left_mm: 0,
      top_mm: 0,
      right_mm: right_mm - left_mm,
      bottom_mm: bottom_mm - top_mm,
    }),
    key: `frame ${side}`,
    label: () => `frame, ${side.replace("_mm", "")}`,
  };
}
