import type { Scene } from "../../shared/api/scenes";
import { fitView } from "../../shared/view/view";
import type { SheetPart } from "./sheetPainter";
import { MARGIN_PX } from "./TrialScene";

/** Where a trial line lies on the sheet, px. */
export interface Cell {
  x: number;
  y: number;
  width: number;
  height: number;
}

/** What is painted of a scene in its part of the sheet. */
export function partOf(scene: Scene, part: Cell, box: [number, number], thread: boolean): SheetPart {
  const { path, findings, matrices, motif, opacity, paints, wide, colouring, drawn, outline, contours } = scene;
  const { cut, bisectors, close, areas, rings, meshes } = scene;
  const { covers, laid_on_as, pieces_laid_on_as } = scene;
  const view = fitView(part.width, part.height, box, MARGIN_PX);
  const placed = { ...view, x: view.x + part.x, y: view.y + part.y };
  return {
    path,
    findings: findings.map(({ at }) => ({ at })),
    matrices,
    motif,
    opacity,
    paints,
    wide,
    colouring,
    covers,
    laid_on_as,
    pieces_laid_on_as,
    drawn,
    outline,
    contours,
    cut,
    bisectors,
    close,
    areas,
    rings,
    meshes,
    view: placed,
    part,
    thread,
  };
}

export const cellOf = (box: DOMRect, origin: DOMRect): Cell => ({
  x: box.x - origin.x,
  y: box.y - origin.y,
  width: box.width,
  height: box.height,
});
