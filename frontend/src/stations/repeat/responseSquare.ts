export const SIDE = 76; // px of the square
export const PAD = 6;
export const STEP = 0.05; // of it, by an arrow key

/** Where a point of a response lies in its square, px. */
export const x = ([share]: number[]): number => PAD + share * SIDE;
export const y = ([, way]: number[]): number => PAD + (1 - way) * SIDE;
