/** The pen in the hand; ``fresh``: the next stroke begins a motif of its own. */
export interface Drawing {
  width_mm: number;
  closed: boolean;
  fresh: boolean;
}

export type Tab = "cut" | "shapes" | "points" | "paint" | "soft";

/** What a press on a picture does. */
export type Hand = "region" | "belongs" | "belongs_not" | "colour";
