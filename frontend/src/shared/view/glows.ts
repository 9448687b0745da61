import type { Own } from "./paints";
import { stampShapes, type Stamp } from "./stamp";

const LEAST = 16; // device pixels across, and the most; chosen: between them a picture is at most twice as fine as it is shown
const MOST = 256;
const MOST_KNOWN = 1000; // chosen: some 60 MB of the usual size

/** Pictures of glows by their colours and how fine they are; null of one that was seen once. */
type Known = Map<string, OffscreenCanvas | null>;

const all = new WeakMap<Stamp, Known>();

/**
 * The picture of a soft stamp, `across` device pixels wide where it is laid: it shows as far about its middle as the stamp reaches.
 * Null when it is seen for the first time: a picture pays from the second time on, and what changes its colours has none.
 */
export function glowOf(stamp: Stamp, colours: string, paints: Own | null, across: number): OffscreenCanvas | null {
  const known = all.get(stamp) ?? new Map<string, OffscreenCanvas | null>();
  all.set(stamp, known);
  const side = Math.min(MOST, Math.max(LEAST, 2 ** Math.ceil(Math.log2(across))));
  const key = `${side} ${colours}`;
  let picture = known.get(key);
  if (picture) return picture;
  if (known.size > MOST_KNOWN) known.clear();
  picture = picture === null ? painted(stamp, paints, side) : null;
  known.set(key, picture);
  return picture;
}

function painted(stamp: Stamp, paints: Own | null, side: number): OffscreenCanvas {
  const canvas = new OffscreenCanvas(side, side);
  const own = canvas.getContext("2d")!;
  const scale = side / 2 / stamp.reach;
  own.setTransform(scale, 0, 0, scale, side / 2, side / 2);
  stampShapes(own, stamp, 0, "all", paints);
  return canvas;
}
