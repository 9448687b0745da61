import type { Settings } from "../../shared/api/client";

/** A point of the width along the line, in per cent of the line and of the brush's own width. */
export type Width = NonNullable<NonNullable<Settings["hand"]>["width_along"]>[number];

export const PLOT = { width: 344, height: 104, left: 34, right: 8, top: 8, foot: 14 };
export const MOST_PCT = 250;
export const THICK_AND_THIN: Width[] = [
  { at_pct: 0, width_pct: 100 },
  { at_pct: 50, width_pct: 150 },
  { at_pct: 100, width_pct: 100 },
];

export const plotX = (at: number): number => PLOT.left + ((PLOT.width - PLOT.left - PLOT.right) * at) / 100;
export const plotY = (width: number): number =>
  PLOT.top + (PLOT.height - PLOT.top - PLOT.foot) * (1 - Math.min(width, MOST_PCT) / MOST_PCT);

/** A point stays between its neighbours and within what the width may be. */
export const within = (points: Width[], i: number, to: Width): Width => ({
  at_pct: Number(
    Math.min(
      Math.max(to.at_pct, i ? points[i - 1].at_pct + 1 : 0),
      i + 1 < points.length ? points[i + 1].at_pct - 1 : 100,
    ).toFixed(1),
  ),
  width_pct: Math.round(Math.min(Math.max(to.width_pct, 1), MOST_PCT)),
});

/** The points with one more, in the middle of the widest gap. */
export function withOneMore(points: Width[]): Width[] {
  const gaps = points.slice(1).map((p, i) => p.at_pct - points[i].at_pct);
  const i = gaps.indexOf(Math.max(...gaps));
  const middle = {
    at_pct: (points[i].at_pct + points[i + 1].at_pct) / 2,
    width_pct: Math.round((points[i].width_pct + points[i + 1].width_pct) / 2),
  };
  return [...points.slice(0, i + 1), middle, ...points.slice(i + 1)];
}
