import type { Source } from "../../../shared/api/client";

export type Place = [number, number];

/** Where the pointer is: in CSS pixels of the window, and in mm of the sheet. */
export interface Reach {
  client: Place;
  mm: Place;
  /** Every place in mm since the last frame, the last one too, and when the pointer was there, ms. */
  along: Place[];
  times: number[];
  /** Whether the line that is drawn is to be straight. */
  straight: boolean;
}

/** What the pressed pointer does until it is let go; it tells what it does as it goes. */
export interface Held {
  move(to: Reach): void;
  up(at: Reach): void;
}

/** A line as it would be; `line_id` names the one it stands for. */
export type Draft = { line_id: number | null; source: Source } | null;

export const apart = ([x0, y0]: Place, [x1, y1]: Place): number => Math.hypot(x1 - x0, y1 - y0);
