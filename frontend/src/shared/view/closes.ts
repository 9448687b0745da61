import type { ScenePieces } from "../api/scenes";
import { AREA, CLOSE, RING } from "../api/tables";
import { inPage } from "./outlines";
import type { Pass } from "./stamp";
import type { Ctx, View } from "./view";

/** Where a closed line closes: pieces from `first` up to `behind` are painted once more, after the piece before `end`. */
interface Close {
  first: number;
  behind: number;
  end: number;
  /** Whether they are painted outside the area only the first time, for something shows through them. */
  apart: boolean;
  /** Within which they are painted once more, mm. */
  area: Path2D;
}

/** The closes of a pass, in the order of their pieces. */
export function closesOf({ close, areas, rings }: Pick<ScenePieces, "close" | "areas" | "rings">, pass: Pass): Close[] {
  const out: Close[] = [];
  for (let row = 0; row * CLOSE.width < close.length; row++) {
    const of = (column: "first" | "count" | "last" | "under" | "apart"): number => close[row * CLOSE.width + CLOSE[column]];
    if ((of("under") === 1) !== (pass === "under")) continue;
    const [first, behind] = [of("first"), of("first") + of("count")];
    out.push({ first, behind, end: of("last") + 1, apart: of("apart") === 1, area: areaOf(areas, rings, row) });
  }
  return out;
}

function areaOf(areas: Uint32Array, rings: Float32Array, close: number): Path2D {
  const path = new Path2D();
  for (let row = 0; row * AREA.width < areas.length; row++) {
    const at = row * AREA.width;
    if (areas[at + AREA.close] !== close) continue;
    const end = at + AREA.width < areas.length ? areas[at + AREA.width + AREA.start] : rings.length / RING.width;
    const start = areas[at + AREA.start];
    path.moveTo(rings[RING.width * start], rings[RING.width * start + 1]);
    for (let i = start + 1; i < end; i++) path.lineTo(rings[RING.width * i], rings[RING.width * i + 1]);
    path.closePath();
  }
  return path;
}

/** Paint within an area of the page, or everywhere but there. */
export function clippedTo(ctx: Ctx, page: View, area: Path2D, outside: boolean, paint: () => void): void {
  ctx.save();
  inPage(ctx, page);
  const path = new Path2D(area);
  if (outside) path.rect(-FAR, -FAR, 2 * FAR, 2 * FAR);
  ctx.clip(path, "evenodd");
  paint();
  ctx.restore();
}

const FAR = 1e5; // mm: further than a page reaches
