"""Draw pieces whose edges meet as one shape, for nothing of the ground to show between them.

Two edges that share a line are each smoothed where they are drawn, and together let a little of the ground through: a hairline.
Drawn as parts of one path they have no edge there. Lines of stamped pieces alone, which meet on the straight only, stay as they
are: by reference, each in few bytes.
"""

from __future__ import annotations

from dataclasses import replace
from functools import lru_cache

import numpy as np
import scipy

from ..artwork.box import ink_box
from ..artwork.passes import passes_of
from ..maths.ragged import ranges
from ..values.brush import Brush
from ..values.drawing import PaintedPieces
from ..values.joins import Joins
from ..values.laid import LaidLine
from ..values.motif import Motif, Shape
from ..values.outlines import BisectorCuts, ShapedOutlines
from .corners import merged, stamped_outlines

MEETS_MM = 1e-6  # chosen: far below what is written, far above what laying is off by
MEETS_RAD = 1e-9
MOST_POINTS = 400  # of a motif; chosen: drawn as one, every piece is written out
MOST_PIECES = 20_000  # of a line; chosen: so many are one path
MOST_PAIRS = 5_000_000  # of pieces near one another that are looked at; chosen: some 80 MB
CROSSES = 3.0  # chosen: pieces so many reaches apart along the line, and within one of another, lie over one another


def may_be_one(brush: Brush) -> bool:
    """Tell whether pieces of a brush may meet so that they are drawn as one: flat and opaque, from edge to edge of their frame."""
    whole = brush.ink.per_piece == 1 and brush.ink.of_piece == "normal" and brush.ink.coverage == "as_drawn"
    repeated = brush.travel.kind == "repeated" and not brush.travel.jointed
    return whole and repeated and brush.spacing.gap == 0 and any(map(_meets_itself, brush.pieces.repeat))


@lru_cache(maxsize=512)
def _meets_itself(motif: Motif) -> bool:
    """Tell whether a motif reaches both ends of its frame and lies within it, in flat opaque fills of few points."""
    if not motif.shapes or not all(map(_is_flat, motif.shapes)) or sum(len(s.points) for s in motif.shapes) > MOST_POINTS:
        return False
    left, _, right, _ = ink_box(motif)
    return abs(left) < MEETS_MM and abs(right - motif.width) < MEETS_MM


def _is_flat(shape: Shape) -> bool:
    fill = shape.fill
    plain = fill is not None and fill.gradient is None and fill.opacity == 1
    return plain and shape.stroke is None and shape.picture is None and shape.lies == "over"


def as_one(item: PaintedPieces, laid: LaidLine) -> tuple[PaintedPieces, BisectorCuts]:
    """Return a laid line's pieces with those that meet drawn as one, and where these end on bisectors still.

    Those that are one take the place of the first of them. A line that lies over itself, blends or is seen through stays as it is.
    """
    found = _ones(item, laid)
    if found is None:
        return item, laid.cuts
    _, first, number = np.unique(found, return_index=True, return_inverse=True)
    one = np.argsort(np.argsort(first))[number]  # in the order of the first piece of each
    kept = np.sort(first)
    several = np.bincount(one) > 1
    outlines = _outlines(item, one, several)
    colours = item.colours and item.colours.some(kept)
    drawn = PaintedPieces(
        item.artwork, item.motif[kept], item.matrices[kept], outlines, item.covers[kept], item.blend, colours, np.flatnonzero(several)
    )
    cuts = laid.cuts.some(~several[one[laid.cuts.piece]])
    return drawn, replace(cuts, piece=one[cuts.piece])


def _ones(item: PaintedPieces, laid: LaidLine) -> np.ndarray | None:
    """Return a number (n,) for each piece, the same for those to be drawn as one; None where there are none such."""
    count = len(item.motif)
    plain = item.all_cover == 1 and item.blend == "normal" and len(passes_of(item.artwork)) == 1
    if laid.outlines is None or laid.closes or not plain or not 2 <= count <= MOST_PIECES:
        return None
    fit = np.array([_meets_itself(motif) for motif in item.artwork])[item.motif] & _opaque(item)
    pairs = _meeting(laid.joins, laid.pieces.gap_after)
    cut = _cut_alike(laid.cuts)
    if not np.isin(laid.cuts.piece, laid.outlines.cut).all():
        fit[laid.cuts.piece] = False  # they are yet to be cut
    else:
        pairs = np.concatenate([pairs, cut])
    a, b = pairs.T
    row = item.motif if item.colours is None else item.colours.which
    own = fit[a] & fit[b] & (item.motif[a] == item.motif[b]) & (row[a] == row[b])
    if not own.any():
        return None
    graph = scipy.sparse.coo_array((np.ones(int(own.sum())), (a[own], b[own])), shape=(count, count))
    found = scipy.sparse.csgraph.connected_components(graph, directed=False)[1]
    return _apart_where_crossing(found, item, laid)


def _opaque(item: PaintedPieces) -> np.ndarray | bool:
    """Tell which pieces (n,) their colours leave opaque."""
    return True if item.colours is None else ((item.colours.table & 255) == 255).all(axis=1)[item.colours.which]


def _meeting(joins: Joins, gap_after: np.ndarray) -> np.ndarray:
    """Return the pairs (k, 2) of pieces whose edges meet all along."""
    wished = gap_after[joins.first] if joins.wished is None else joins.wished
    meets = (np.abs(joins.gap + wished) < MEETS_MM) & (np.abs(joins.step) < MEETS_MM) & (np.abs(joins.kink) < MEETS_RAD)
    return np.column_stack([joins.first, joins.second])[meets]


def _cut_alike(cuts: BisectorCuts) -> np.ndarray:
    """Return the pairs (k, 2) of pieces that end on the same bisector from both its sides."""
    order = np.lexsort((cuts.piece, *cuts.vertex.T))
    piece, vertex, away = cuts.piece[order], cuts.vertex[order], cuts.away[order]
    facing = (np.abs(np.diff(vertex, axis=0)) < MEETS_MM).all(axis=1) & ((away[1:] * away[:-1]).sum(axis=1) < 0)
    return np.column_stack([piece[:-1], piece[1:]])[facing]


def _apart_where_crossing(found: np.ndarray, item: PaintedPieces, laid: LaidLine) -> np.ndarray | None:
    """Return the numbers with what lies over itself taken apart again, but where it looks the same as one; None where nothing is left
    as one.
    """
    layered = np.array([_is_layered(motif) for motif in item.artwork])[item.motif]
    if layered.any():
        pieces = laid.pieces
        reach = np.array([np.hypot(m.width, m.height) for m in item.artwork])[item.motif] * item.scales / 2
        tree, near = scipy.spatial.cKDTree(pieces.centre), 2 * float(reach.max())
        if tree.count_neighbors(tree, near) > MOST_PAIRS:
            return None
        pairs = tree.query_pairs(near, output_type="ndarray")
        along = np.abs(pieces.s[pairs[:, 0]] - pieces.s[pairs[:, 1]])
        along = np.minimum(along, laid.length - along) if laid.closed else along
        over = (along > CROSSES * 2 * reach.max()) & (found[pairs[:, 0]] == found[pairs[:, 1]])
        lost = np.isin(found, found[pairs[over].ravel()]) & layered
        found = np.where(lost, found.max() + 1 + np.arange(len(found)), found)
    return found if len(np.unique(found)) < len(found) else None


@lru_cache(maxsize=512)
def _is_layered(motif: Motif) -> bool:
    """Tell whether it shows which of two pieces lies on top, or that both lie there: by a colour, or by a hole where they cross."""
    return len({shape.fill for shape in motif.shapes}) > 1 or any(shape.fill_rule == "evenodd" for shape in motif.shapes)


def _outlines(item: PaintedPieces, one: np.ndarray, several: np.ndarray) -> ShapedOutlines:
    """Return all outlines, pieces numbered by what they are part of, whose contours come shape by shape and turn the same way."""
    was = item.outlines
    assert was is not None
    stamped = np.flatnonzero(several[one] & ~item.shaped)
    if len(stamped):
        was = merged([was, stamped_outlines(item.artwork, item.motif, item.matrices, stamped)])
    order = np.lexsort((was.piece, was.stroked, was.shape, one[was.piece]))
    first, count = was.starts[:-1][order], np.diff(was.starts)[order]
    piece, number = was.piece[order], one[was.piece][order]
    at = ranges(first, count)
    a, b, c, d = item.matrices[piece, :4].T
    turned = np.repeat((a * d < b * c) & several[number], count)  # a mirrored piece's contours go round the other way
    at = np.where(turned, np.repeat(2 * first + count - 1, count) - at, at)
    pieces, outlined, cut = (np.unique(one[column]) for column in (was.pieces, was.outlined, was.cut))
    meshes = tuple(replace(mesh, piece=one[mesh.piece]) for mesh in was.meshes)
    return ShapedOutlines(
        was.points[at], np.append(0, np.cumsum(count)), was.closed[order], number, was.shape[order], was.stroked[order], pieces,
        outlined, cut, meshes,
    )  # fmt: skip
