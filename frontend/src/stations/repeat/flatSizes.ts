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
