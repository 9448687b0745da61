import type { Scene } from "../../shared/api/scenes";
import { EXTENT } from "../../shared/api/tables";
import type { Place } from "./tools/held";

/** The page's place nearest to a distance along the line: a finding close by, else the nearest piece. */
export function placeNear(scene: Scene, s: number): Place | null {
  const close = scene.findings.find((f) => Math.abs(f.at_mm - s) < scene.length_mm * 0.015);
  if (close) return close.at;
  let best = -1;
  let apart = Infinity;
  for (let i = 0; i < scene.pieces; i++) {
    const gap = Math.abs(scene.extents[i * EXTENT.width] - s);
    if (gap < apart) [best, apart] = [i, gap];
  }
  return best < 0 ? null : [scene.matrices[best * 6 + 4], scene.matrices[best * 6 + 5]];
}
