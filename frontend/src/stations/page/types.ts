import type { Finding } from "../../shared/api/scenes";

/** What a press on the sheet does: begins a line by hand, sets its points, or takes hold of what is there. */
export type Mode = "hand" | "points" | null;

/** A finding with the line that it is on. */
export interface PlacedFinding extends Finding {
  lineId: number;
  brushId?: number;
}
