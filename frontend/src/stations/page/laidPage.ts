import { useMemo } from "react";
import type { Line, Page, PageLines, Workshop } from "../../shared/api/client";
import type { Scene } from "../../shared/api/scenes";
import { useLay } from "../../shared/api/useLay";
import { provided } from "../../shared/state/scoped";
import { lastAt } from "../../shared/ui/place";
import { useSwatches, type BrushSwatch } from "../../shared/view/Swatch";
import { useDesk } from "./desk";
import type { PlacedFinding } from "./types";
import { useLineChanges, type LineChanges } from "./usePage";

/** The open page as it is kept, as it is laid, and the changes that it can take. */
export interface LaidPage {
  workshop: Workshop;
  page: Page;
  lines: Line[];
  changes: LineChanges;
  chosen: Line | null;
  /** The lines that are chosen together; none where one is chosen alone. */
  together: Line[];
  /** The brush that the next line is drawn with; null while there is none. */
  brushId: number | null;
  /** Where its pieces are asked for. */
  path: string;
  scenes: Scene[];
  findings: PlacedFinding[];
  swatches: (brushId: number) => BrushSwatch | undefined;
  /** Whether the cures of the findings are there, or still worked out. */
  cured: boolean;
}

export const [LaidPageContext, useLaidPage] = provided<LaidPage>("the laid page");

const NONE: Scene[] = [];

/** Keep the open page laid, with the cure that is tried out. */
export function useLaying(workshop: Workshop, { page, lines }: PageLines): LaidPage {
  const changes = useLineChanges(page.id);
  const wanted = useDesk((desk) => desk.chosenId);
  const also = useDesk((desk) => desk.also);
  const together = useMemo(() => {
    const all = lines.filter((line) => line.id === wanted || also.includes(line.id));
    return all.length > 1 ? all : [];
  }, [lines, wanted, also]);
  const cure = useDesk((desk) => desk.cure);
  const held = useDesk((desk) => desk.held);
  const picked = useDesk((desk) => desk.brushId);
  const chosen = lines.find((line) => line.id === wanted) ?? null;
  const chosenId = chosen?.id ?? null; // it may have been deleted since
  const tuned = workshop.brushes.find((brush) => brush.id === lastAt("repeat"))?.id;
  const brushId = picked ?? tuned ?? chosen?.brush_id ?? lines[0]?.brush_id ?? workshop.brushes[0]?.id ?? null;

  const versions = [...lines, ...workshop.brushes, ...workshop.motifs].map((each) => each.version).join();
  const asked = useMemo(() => ({ strip: chosenId, draft_cure: cure }), [chosenId, cure]);
  const path = `/api/pages/${page.id}/lay`;
  const { laid, cured } = useLay(`${path}#${versions}`, asked);
  const scenes = laid?.scenes ?? NONE;
  const findings = useMemo(() => held ?? findingsOf(scenes, lines, chosenId), [held, scenes, lines, chosenId]);
  const swatches = useSwatches(workshop);
  return { workshop, page, lines, changes, chosen, together, brushId, path, scenes, findings, swatches, cured };
}

/** Whether a line is to be seen and not laid yet: nothing is known of it. */
export const isAwaited = ({ id, visible }: Line, scenes: Scene[]): boolean =>
  visible && scenes.every(({ line_id }) => line_id !== id);

/** The findings on one line, or on all. */
const findingsOf = (scenes: Scene[], lines: Line[], lineId: number | null): PlacedFinding[] =>
  scenes
    .filter((scene) => lineId === null || scene.line_id === lineId)
    .flatMap((scene) => {
      const of = { lineId: scene.line_id!, brushId: lines.find((line) => line.id === scene.line_id)?.brush_id };
      return scene.findings.map((finding) => ({ ...finding, ...of }));
    });
