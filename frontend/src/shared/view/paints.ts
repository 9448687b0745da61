/** The colours of a scene's pieces in place of their motifs': rows of `wide` paints, 0xRRGGBBAA; none where `wide` is 0. */
export interface Paints {
  paints: Uint32Array;
  wide: number;
  /** The row of each piece, its motif's place where this is left out. */
  colouring: Uint32Array;
}

export const NO_PAINTS: Paints = { paints: new Uint32Array(0), wide: 0, colouring: new Uint32Array(0) };

/** The colours that one piece has, a colour each for its motif's paints in their order. */
export type Own = (slot: number) => string;

const known = new Map<number, string>();
const MOST_KNOWN = 20_000; // texts of colours; chosen

/** A colour as CSS writes it. */
export function cssOf(rgba: number): string {
  let text = known.get(rgba);
  if (text === undefined) {
    if (known.size > MOST_KNOWN) known.clear();
    text = `#${rgba.toString(16).padStart(8, "0")}`;
    known.set(rgba, text);
  }
  return text;
}

/** What a piece has of the colours of its scene; nothing where it has its motif's. */
export function ownOf(scene: Paints, piece: number, motif: number): Own | null {
  const at = rowOf(scene, piece, motif);
  return at < 0 ? null : (slot) => cssOf(scene.paints[at + slot]);
}

/** Where the colours of a piece begin among those of its scene; −1 where it has its motif's. */
export const rowOf = ({ wide, colouring }: Paints, piece: number, motif: number): number =>
  wide ? (colouring.length ? colouring[piece] : motif) * wide : -1;
