import type { Line, Page, Workshop } from "../../shared/api/client";
import type { Cure, Finding, Scene } from "../../shared/api/scenes";
import type { LineChanges } from "./usePage";

/** What a press on the sheet does: begins a line by hand, sets its points, or takes hold of what is there. */
export type Mode = "hand" | "points" | null;

/** A finding with the line that it is on. */
export interface PlacedFinding extends Finding {
  lineId: number;
}

/** What the panel beside the sheet shows and tells. */
export interface SideProps {
  workshop: Workshop;
  page: Page;
  lines: Line[];
  scenes: Scene[];
  chosen: Line | null;
  mode: Mode;
  brushId: number | null;
  findings: PlacedFinding[];
  finding: number | null;
  waiting: boolean;
  trying: boolean;
  changes: LineChanges;
  onMode: (mode: Mode) => void;
  onBrush: (id: number) => void;
  onChoose: (id: number | null) => void;
  onGoToFinding: (i: number) => void;
  onPreview: (cure: Cure | null, i: number) => void;
  onTake: (cure: Cure, i: number) => void;
}
