"""Laid lines as tables of numbers: what the browser gets, every column by its name."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal, NamedTuple

import numpy as np

from ..values.closes import Close
from ..values.drawing import PaintedPieces
from ..values.laid import LaidLine
from ..values.line import MeasuredLine
from ..values.outlines import BisectorCuts

STRIP_SAMPLES = 1200  # chosen: as many as a wide bend strip has pixels
MOST_BEND = 1e6  # 1/mm; stands for a point


@dataclass(frozen=True)
class Table:
    """What a table holds: numbers of a kind (f4, u2, u4), a row a thing, the columns by name."""

    dtype: Literal["f4", "u2", "u4"]
    columns: tuple[str, ...]
    about: str


TABLES = {
    "pieces": Table("f4", tuple("abcdef"), "a row a piece: the affine map to the page, mm, from about its base line's middle"),
    "motif": Table("u2", ("motif",), "a row a piece: its motif's place among the brush's; left out where there is one"),
    "opacity": Table("f4", ("share",), "a row a piece: how much of what is below it covers, 0 to 1; left out where all cover whole"),
    "paints": Table("u4", ("paint",), "a row a colouring: every paint of a motif, 0xRRGGBBAA, shape by shape the fill's and the "
                    "stroke's, of each its colour, then its gradient's stops; left out where pieces keep their motif's"),
    "colouring": Table("u4", ("row",), "a row a piece: which colouring it has; left out where it is its motif's place"),
    "drawn": Table("u4", ("how",), "a row a piece: 0 stamped, 1 outlines, 2 with its strokes outlined, 3 the outlines "
                   "of several pieces as one, wherever they lie; left out where all are stamped"),
    "outline": Table("f4", ("x", "y"), "points of outlines, mm: of each contour a first one and three a cubic"),
    "contours": Table("u4", ("start", "piece", "shape", "closed", "stroked"), "a row a contour: its first point, piece and shape"),
    "meshed": Table("u4", ("piece", "shape"), "a row a bent picture"),
    "mesh": Table("f4", ("x", "y"), "a bent picture's points, mm: (pictures, rows, columns) of them, evenly over each picture"),
    "cut": Table("u4", ("piece",), "a row a cut: the piece that ends on a bisector, rising"),
    "bisector": Table("f4", ("x", "y", "away_x", "away_y"), "a row a cut: a place on the bisector, a unit direction off what is kept"),
    "close": Table("u4", ("first", "count", "last", "under", "apart"), "a row a close: pieces painted once more after the last, within "
                   "its area, in the pass of what lies under or of the rest; apart: the first time only outside it"),
    "area": Table("u4", ("start", "close"), "a row a ring of a close's area: its first point"),
    "ring": Table("f4", ("x", "y"), "points of these rings, mm"),
    "extent": Table("f4", ("s", "before", "after"), "a row a piece: mm along the line, and what it takes of it to both sides"),
    "joins": Table(
        "f4", ("x", "y", "s", "gap", "wished", "step", "kink", "tone", "apart", "overlap"),
        "a row a join: place, mm along, gap, wished gap and step in mm, kink in degrees, tone in ΔE; "
        "outlines apart (mm) and over one another (mm²), NaN where not measured",
    ),
    "bend": Table("f4", ("s", "curvature"), "samples along the line: mm, 1/mm"),
    "vertices": Table("f4", ("s", "turn"), "the line's vertices: mm, degrees"),
}  # fmt: skip


class Columns(NamedTuple):
    """Numbers of one of the tables; ``number`` tells several of one kind apart."""

    table: str
    values: np.ndarray
    number: int = 0


def piece_columns(item: PaintedPieces, cuts: BisectorCuts | None = None) -> list[Columns]:
    """Return the tables of painted pieces, and where they end on bisectors."""
    out = [Columns("pieces", item.matrices)]
    if len(item.artwork) > 1:
        out.append(Columns("motif", item.motif[:, None]))
    if item.all_cover != 1:
        out.append(Columns("opacity", item.covers[:, None]))
    if item.colours is not None:
        out.append(Columns("paints", item.colours.table))
        if not np.array_equal(item.colours.which, item.motif):
            out.append(Columns("colouring", item.colours.which[:, None]))
    outlines = item.outlines
    if outlines is not None and len(outlines.pieces):
        how = np.zeros((len(item.motif), 1), np.uint32)
        how[outlines.pieces], how[outlines.outlined] = 1, 2
        if item.several is not None:
            how[item.several] = 3
        contours = np.column_stack([outlines.starts[:-1], outlines.piece, outlines.shape, outlines.closed, outlines.stroked])
        out += [Columns("drawn", how), Columns("outline", outlines.points), Columns("contours", contours)]
        for k, mesh in enumerate(outlines.meshes):
            out += [Columns("mesh", mesh.points, k), Columns("meshed", np.column_stack([mesh.piece, mesh.shape]), k)]
    if cuts is not None and len(cuts.piece):
        out += [Columns("cut", cuts.piece[:, None]), Columns("bisector", np.hstack([cuts.vertex, cuts.away]))]
    return out


def close_columns(closes: Sequence[Close]) -> list[Columns]:
    """Return the tables of where pieces are painted once more; none where they are not."""
    if not closes:
        return []
    counts = [len(close.starts) - 1 for close in closes]
    begins = np.cumsum([0, *(len(close.points) for close in closes)])[:-1]
    starts = np.concatenate([close.starts[:-1] + begin for close, begin in zip(closes, begins, strict=True)])
    return [
        Columns("close", np.array([[c.first, c.count, c.last, c.under, c.apart] for c in closes])),
        Columns("area", np.column_stack([starts, np.repeat(np.arange(len(closes)), counts)])),
        Columns("ring", np.concatenate([close.points for close in closes])),
    ]


def join_columns(laid: LaidLine) -> list[Columns]:
    """Return the tables of what pieces take of their line, and of their joins."""
    joins, pieces = laid.joins, laid.pieces
    wished = pieces.gap_after[joins.first] if joins.wished is None else joins.wished
    unknown = np.full(len(joins.s), np.nan)
    drawn = [unknown if each is None else each for each in (joins.apart, joins.overlap)]
    table = np.column_stack([joins.at, joins.s, joins.gap + wished, wished, joins.step, np.degrees(joins.kink), joins.tone, *drawn])
    return [Columns("extent", np.column_stack([pieces.s, pieces.before, pieces.after])), Columns("joins", table)]


def bend_columns(line: MeasuredLine, laid_mm: float) -> list[Columns]:
    """Return curvature along a line and its vertices, thinned for the bend strip.

    Distances are brought to the length that was laid on, ``laid_mm``, which corners that are rounded make shorter.
    """
    along = laid_mm / line.length if line.length > 0 else 1.0
    keep = np.unique(np.linspace(0, max(len(line.bend_s) - 1, 0), STRIP_SAMPLES).astype(int)) if len(line.bend_s) else np.zeros(0, int)
    bend = np.column_stack([along * line.bend_s[keep], np.clip(line.bend_k[keep], -MOST_BEND, MOST_BEND)])
    return [Columns("bend", bend), Columns("vertices", np.column_stack([along * line.vertex_s, np.degrees(line.vertex_turn)]))]
