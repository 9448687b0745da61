export const LEFT = 132;
export const RIGHT = 300;
export const MIDDLE = 118;
const MOST_HEIGHT = 92;
const MOST_SPREAD = 176; // with what pieces lie off the line, which may reach under the lenses

/** How the flat run sits in its band: in px, from the band's own size and the brush's mm. */
export const FLAT = {
  width: (px: number) => Math.max(200, px - LEFT - RIGHT),
  scale: (size: { width: number }, pitch_mm: number, height_mm: number, spread_mm = 0) =>
    Math.min(
      FLAT.width(size.width) / (5.6 * pitch_mm),
      MOST_HEIGHT / Math.max(height_mm, 1e-3),
      MOST_SPREAD / Math.max(height_mm + spread_mm, 1e-3),
    ),
};
