export const LEFT = 132;
export const RIGHT = 300;
export const MIDDLE = 118;
const MOST_HEIGHT = 92;

/** How the flat run sits in its band: in px, from the band's own size and the brush's mm. */
export const FLAT = {
  width: (px: number) => Math.max(200, px - LEFT - RIGHT),
  scale: (size: { width: number }, pitch_mm: number, height_mm: number) =>
    Math.min(FLAT.width(size.width) / (5.6 * pitch_mm), MOST_HEIGHT / Math.max(height_mm, 1e-3)),
};
