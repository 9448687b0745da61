"""Draw pieces whose edges meet as one shape, for nothing of the ground to show between them.

Two edges that share a line are each smoothed where they are drawn, and together let a little of the ground through: a hairline.
Drawn as parts of one path they have no edge there. Stamped pieces of many points, which meet on the straight only, stay as they
are: by reference, each in few bytes.
"""

from __future__ import annotations

from dataclasses import replace
from functools import lru_cache

import numpy as np
import scipy

from ..artwork.box import ink_box
from ..artwork.passes import passes_of
from ..maths.outlines import area_of
from ..maths.ragged import ranges
from ..values.brush import Brush
from ..values.drawing import PaintedPieces
from ..values.joins import Joins
from ..values.laid import LaidLine
from ..values.motif import Motif, Shape
from ..values.outlines import BisectorCuts, ShapedOutlines, merged
from .corners import stamped_outlines

MEETS_MM = 1e-6  # chosen: far below what is written, far above what laying is off by
MEETS_RAD = 1e-9
REACHES_MM = 1e-4  # what artwork is kept to
MOST_POINTS = 400  # of a motif; chosen: drawn as one, every piece is written out
MOST_STAMPED_POINTS = 60_000  # of a line's pieces that would be written by reference else; chosen: some 700 kB
MOST_COLOURS = 12  # of such a line; chosen: references with a colour each are far shorter than paths of them
CORNER_POINTS = 8  # times as many has a corner piece at most, which holds several repeats
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
    """Tell whether a motif reaches both ends of its frame and may be one with others."""
    if not _may_join(motif) or points_of(motif) > MOST_POINTS:
        return False
    left, _, right, _ = ink_box(motif)
    return abs(left) < REACHES_MM and abs(right - motif.width) < REACHES_MM


@lru_cache(maxsize=512)
def _may_join(motif: Motif) -> bool:
    """Tell whether a motif lies within its frame, in flat opaque paints and not too many points."""
    if not motif.shapes or not all(map(_is_flat, motif.shapes)) or points_of(motif) > CORNER_POINTS * MOST_POINTS:
        return False
    left, _, right, _ = ink_box(motif)
    return left > -REACHES_MM and right < motif.width + REACHES_MM


def points_of(motif: Motif) -> int:
    """Count a motif's points, handles and all: what is written of it."""
    return sum(len(shape.points) for shape in motif.shapes)


def _is_flat(shape: Shape) -> bool:
    paints = [shape.fill, shape.stroke and shape.stroke.paint]
    plain = all(paint is None or (paint.gradient is None and paint.opacity == 1) for paint in paints)
    return plain and shape.picture is None and shape.lies == "over"


@lru_cache(maxsize=512)
def _look_of(motif: Motif) -> tuple:
    """Return what the paths of a motif look like, one by one: motifs that look alike can be parts of the same paths."""
    return tuple((s.fill, s.fill_rule, s.stroke and s.stroke.paint) for s in motif.shapes)


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
    if laid.closes or not plain or not 2 <= count <= MOST_PIECES or not any(map(_meets_itself, item.artwork)):
        return None
    fit = np.array(list(map(_may_join, item.artwork)))[item.motif] & opaque(item) & written_out(item)
    pairs = np.column_stack([laid.joins.first, laid.joins.second])[meeting(laid.joins, laid.pieces.gap_after)]
    cut = _cut_alike(laid.cuts)
    if not np.isin(laid.cuts.piece, item.outlines.cut if item.outlines else ()).all():
        fit[laid.cuts.piece] = False  # they are yet to be cut
    else:
        pairs = np.concatenate([pairs, cut])
    a, b = pairs.T
    look = _looks(item)
    own = fit[a] & fit[b] & (look[a] == look[b])
    if not own.any():
        return None
    graph = scipy.sparse.coo_array((np.ones(int(own.sum())), (a[own], b[own])), shape=(count, count))
    found = scipy.sparse.csgraph.connected_components(graph, directed=False)[1]
    return _apart_where_crossing(found, item, laid)


def written_out(item: PaintedPieces) -> np.ndarray:
    """Tell which pieces (n,) are contours with their strokes outlined, or stamped and as well written as such."""
    points = np.array(list(map(points_of, item.artwork)))[item.motif]
    many_colours = item.colours is not None and len(item.colours.table) > MOST_COLOURS
    few = points[~item.shaped].sum() <= MOST_STAMPED_POINTS and not many_colours
    stamps = np.full(len(points), bool(few or item.shaped.any()))
    if item.outlines is None:
        return stamps
    stroked = np.array([any(s.stroke for s in motif.shapes) for motif in item.artwork])[item.motif]
    outlined = np.zeros(len(points), bool)
    outlined[item.outlines.outlined] = True
    return np.where(item.shaped, outlined | ~stroked, stamps)


def _looks(item: PaintedPieces) -> np.ndarray:
    """Return a number (n,) for each piece, the same for those whose paths have the same paints."""
    every = [_look_of(motif) for motif in item.artwork]
    alike = np.array([every.index(look) for look in every])[item.motif]
    if item.colours is None:
        return alike
    rows = np.unique(item.colours.table, axis=0, return_inverse=True)[1].ravel()[item.colours.which]
    return alike * (int(rows.max(initial=0)) + 1) + rows


def opaque(item: PaintedPieces) -> np.ndarray | bool:
    """Tell which pieces (n,) their colours leave opaque."""
    return True if item.colours is None else ((item.colours.table & 255) == 255).all(axis=1)[item.colours.which]


def meeting(joins: Joins, gap_after: np.ndarray) -> np.ndarray:
    """Return which joins (k,) are of pieces whose edges meet all along."""
    wished = gap_after[joins.first] if joins.wished is None else joins.wished
    meets = (np.abs(joins.gap + wished) < MEETS_MM) & (np.abs(joins.step) < MEETS_MM) & (np.abs(joins.kink) < MEETS_RAD)
    return np.flatnonzero(meets)


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
    was = outlines_with(item, np.flatnonzero(several[one]))
    order = np.lexsort((was.piece, was.stroked, was.shape, one[was.piece]))
    first, count = was.starts[:-1][order], np.diff(was.starts)[order]
    piece, number = was.piece[order], one[was.piece][order]
    at = ranges(first, count)
    # a mirrored piece's contours go round the other way, and those of other motifs may
    turned = np.repeat((item.mirrored[piece] ^ _against_first(item, one, number, was.shape[order], piece)) & several[number], count)
    at = np.where(turned, np.repeat(2 * first + count - 1, count) - at, at)
    pieces, outlined, cut = (np.unique(one[column]) for column in (was.pieces, was.outlined, was.cut))
    meshes = tuple(replace(mesh, piece=one[mesh.piece]) for mesh in was.meshes)
    return ShapedOutlines(
        was.points[at], np.append(0, np.cumsum(count)), was.closed[order], number, was.shape[order], was.stroked[order], pieces,
        outlined, cut, meshes,
    )  # fmt: skip


def outlines_with(item: PaintedPieces, pieces: np.ndarray) -> ShapedOutlines:
    """Return the outlines of pieces with those of some ``pieces`` (p,), rising, that are stamped among them, their strokes outlined."""
    stamped = pieces[~item.shaped[pieces]]
    parts = [] if item.outlines is None else [item.outlines]
    if len(stamped):
        parts.append(stamped_outlines(item.artwork, item.motif, item.matrices, stamped))
    return merged(parts) if len(parts) > 1 else parts[0]


def _against_first(item: PaintedPieces, one: np.ndarray, number: np.ndarray, shape: np.ndarray, piece: np.ndarray) -> np.ndarray:
    """Tell of contours, by their ``number``, ``shape`` and ``piece``, whether their motif draws that shape the other way round than
    the motif of the first piece of the number does.
    """
    way = np.array([_ways_round(motif, max(len(m.shapes) for m in item.artwork)) for motif in item.artwork])
    first = np.unique(one, return_index=True)[1]
    return way[item.motif[piece], shape] != way[item.motif[first[number]], shape]


@lru_cache(maxsize=512)
def _ways_round(motif: Motif, most: int) -> tuple[bool, ...]:
    """Tell of each shape whether what it covers is drawn clockwise, as one number of shapes for all motifs."""
    return tuple(area_of(s.commands, s.points) > 0 for s in motif.shapes) + (False,) * (most - len(motif.shapes))
