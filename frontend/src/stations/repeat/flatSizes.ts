import type { Scene } from "../../shared/api/scenes";
import { EXTENT } from "../../shared/api/tables";
import type { Settings } from "../../shared/api/client";

export const LEFT = 132;
export const RIGHT = 300;

/** The band's height in a window of 1280 × 800, px: what is said of others goes by it. */
const USUAL = 288;
const FOOT = 10; // under the lenses
const FIGURES = 110; // beside a lens
const RULE_AND_TAPE = 72; // above the run
const THREADS = 28; // between the run and the lenses

/** How the flat run sits in its band, in px: a higher band has larger pieces and larger lenses. */
export interface FlatSizes {
  /** Where the run's line lies. */
  middle: number;
  /** How high pieces are at most, alone and with what they lie off the line, which may reach under the lenses. */
  most: number;
  spread: number;
  lens: { radius: number; top: number; every: number };
}

export function flatSizes(height: number): FlatSizes {
  const more = (height || USUAL) - USUAL;
  const radius = Math.max(34, Math.round(43 + more / 4));
  const top = USUAL + more - FOOT - 2 * radius;
  const most = top - THREADS - RULE_AND_TAPE;
  return { middle: RULE_AND_TAPE + most / 2, most, spread: 1.9 * most, lens: { radius, top, every: 2 * radius + FIGURES } };
}

/** How the flat run fills its band: in px, from the band's own size and the brush's mm; `rows_mm` from the first row to the last. */
export const FLAT = {
  width: (px: number) => Math.max(200, px - LEFT - RIGHT),
  scale: (size: { width: number; height: number }, pitch_mm: number, height_mm: number, spread_mm = 0, rows_mm = 0) => {
    const { most, spread } = flatSizes(size.height);
    return Math.min(
      FLAT.width(size.width) / (5.6 * pitch_mm),
      most / Math.max(height_mm + rows_mm, 1e-3),
      spread / Math.max(height_mm + spread_mm, 1e-3),
    );
  },
};

/** By how many mm the middle of the pieces lies above the run's line. */
export const raised = ({ above_mm, height_mm }: { above_mm: number; height_mm: number }): number => above_mm - height_mm / 2;

/** How many times as wide as the brush the widest place of a line is. */
export const widest = (hand: Settings["hand"]): number =>
  Math.max(1, ...(hand?.width_along ?? []).map(({ width_pct }) => width_pct / 100));

/**
 * The first piece that the marks lie on: of a brush whose width changes, of the two neighbours that are longest together.
 */
export function markedPiece(scene: Scene, hand: Settings["hand"]): number {
  if (!hand?.width_along?.length && !hand?.taper_start_mm && !hand?.taper_end_mm) return 0;
  const long = (i: number): number => {
    const row = scene.extents.subarray(i * EXTENT.width, (i + 1) * EXTENT.width);
    return row[EXTENT.before] + row[EXTENT.after];
  };
  let best = 0;
  for (let i = 1; i + 2 < scene.pieces; i++) if (long(i + 1) + long(i + 2) > 1.001 * (long(best + 1) + long(best + 2))) best = i;
  return best;
}
