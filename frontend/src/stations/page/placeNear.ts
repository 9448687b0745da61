import type { Scene } from "../../shared/api/scenes";
import { JOINS } from "../../shared/api/tables";
import type { Place } from "./tools/held";

/** The page's place nearest to a distance along the line: a finding close by, else the nearest join, or the only piece. */
export function placeNear(scene: Scene, s: number): Place | null {
  const close = scene.findings.find((f) => Math.abs(f.at_mm - s) < scene.length_mm * 0.015);
  if (close) return close.at;
  let best = -1;
  let apart = Infinity;
  for (let at = 0; at < scene.joins.length; at += JOINS.width) {
    const gap = Math.abs(scene.joins[at + JOINS.s] - s);
    if (gap < apart) [best, apart] = [at, gap];
  }
  if (best >= 0) return [scene.joins[best + JOINS.x], scene.joins[best + JOINS.y]];
  return scene.matrices.length ? [scene.matrices[4], scene.matrices[5]] : null;
}
