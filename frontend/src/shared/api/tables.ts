// Made by `make docs` from the tables that the API's document publishes; not edited by hand.

/** What the numbers of every table are, and how many columns a row has. */
export const TABLES = {
  pieces: { dtype: "f4", width: 6 },
  motif: { dtype: "u2", width: 1 },
  opacity: { dtype: "f4", width: 1 },
  paints: { dtype: "u4", width: 1 },
  colouring: { dtype: "u4", width: 1 },
  drawn: { dtype: "u4", width: 1 },
  outline: { dtype: "f4", width: 2 },
  contours: { dtype: "u4", width: 5 },
  meshed: { dtype: "u4", width: 2 },
  mesh: { dtype: "f4", width: 2 },
  cut: { dtype: "u4", width: 1 },
  bisector: { dtype: "f4", width: 4 },
  close: { dtype: "u4", width: 5 },
  area: { dtype: "u4", width: 2 },
  ring: { dtype: "f4", width: 2 },
  extent: { dtype: "f4", width: 3 },
  joins: { dtype: "f4", width: 10 },
  bend: { dtype: "f4", width: 2 },
  vertices: { dtype: "f4", width: 2 },
} as const;

/** A row a piece: the affine map to the page, mm, from about its base line's middle. */
export const PIECES = { a: 0, b: 1, c: 2, d: 3, e: 4, f: 5, width: 6 } as const;

/** A row a piece: its motif's place among the brush's; left out where there is one. */
export const MOTIF = { motif: 0, width: 1 } as const;

/** A row a piece: how much of what is below it covers, 0 to 1; left out where all cover whole. */
export const OPACITY = { share: 0, width: 1 } as const;

/**
 * A row a colouring: every paint of a motif, 0xRRGGBBAA, shape by shape the fill's and the stroke's, of each its colour,
 * then its gradient's stops; left out where pieces keep their motif's.
 */
export const PAINTS = { paint: 0, width: 1 } as const;

/** A row a piece: which colouring it has; left out where it is its motif's place. */
export const COLOURING = { row: 0, width: 1 } as const;

/**
 * A row a piece: 0 stamped, 1 outlines, 2 with its strokes outlined, 3 the outlines of several pieces as one, wherever
 * they lie; left out where all are stamped.
 */
export const DRAWN = { how: 0, width: 1 } as const;

/** Points of outlines, mm: of each contour a first one and three a cubic. */
export const OUTLINE = { x: 0, y: 1, width: 2 } as const;

/** A row a contour: its first point, piece and shape. */
export const CONTOURS = { start: 0, piece: 1, shape: 2, closed: 3, stroked: 4, width: 5 } as const;

/** A row a bent picture. */
export const MESHED = { piece: 0, shape: 1, width: 2 } as const;

/** A bent picture's points, mm: (pictures, rows, columns) of them, evenly over each picture. */
export const MESH = { x: 0, y: 1, width: 2 } as const;

/** A row a cut: the piece that ends on a bisector, rising. */
export const CUT = { piece: 0, width: 1 } as const;

/** A row a cut: a place on the bisector, a unit direction off what is kept. */
export const BISECTOR = { x: 0, y: 1, away_x: 2, away_y: 3, width: 4 } as const;

/**
 * A row a close: pieces painted once more after the last, within its area, in the pass of what lies under or of the rest;
 * apart: the first time only outside it.
 */
export const CLOSE = { first: 0, count: 1, last: 2, under: 3, apart: 4, width: 5 } as const;

/** A row a ring of a close's area: its first point. */
export const AREA = { start: 0, close: 1, width: 2 } as const;

/** Points of these rings, mm. */
export const RING = { x: 0, y: 1, width: 2 } as const;

/** A row a piece: mm along the line, and what it takes of it to both sides. */
export const EXTENT = { s: 0, before: 1, after: 2, width: 3 } as const;

/**
 * A row a join: place, mm along, gap, wished gap and step in mm, kink in degrees, tone in ΔE; outlines apart (mm) and over
 * one another (mm²), NaN where not measured.
 */
export const JOINS = { x: 0, y: 1, s: 2, gap: 3, wished: 4, step: 5, kink: 6, tone: 7, apart: 8, overlap: 9, width: 10 } as const;

/** Samples along the line: mm, 1/mm. */
export const BEND = { s: 0, curvature: 1, width: 2 } as const;

/** The line's vertices: mm, degrees. */
export const VERTICES = { s: 0, turn: 1, width: 2 } as const;
