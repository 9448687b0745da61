"""Joins by what is drawn: how far outlines stand apart or overlap."""

from __future__ import annotations

from dataclasses import replace

import numpy as np
import shapely

from ..maths.at_once import each_at_once
from ..maths.curves import as_complex
from ..maths.ragged import alike, in_blocks
from ..values.arrays import rows_of
from ..values.bends import Bends
from ..values.brush import Brush
from ..values.joins import Joins
from ..values.pieces import Placed
from .drawn import Drawn, Kinds, Outline, drawn_polygons, kinds_of, rows_within

PAIRS_AT_ONCE = 2_000  # whose polygons are made in one go; chosen
SAME_PAIR_MM = 1e-6
SAME_DIRECTION = 1e-9  # radians; a piece of a metre then lies as near as that
TOUCHING_MM = 1e-6


def with_outlines(joins: Joins, brush: Brush, placed: Placed, bends: Bends | None, known: np.ndarray) -> Joins:
    """Measure joins by the outlines of their pieces: ``apart`` mm and ``overlap`` mm², and gaps as deviations from the straight.

    The wish is how the same two pieces lie on a straight line; the gap is what they stand further apart
    there, less what they overlap more, as a mean depth over the lower piece's height. Pieces that are bent are measured as they
    are; joins of pieces that are clipped or fitted to a corner (not ``known`` (n,)) keep the measure of their frames.
    """
    if not len(joins.first):
        return replace(joins, apart=np.zeros(0), overlap=np.zeros(0))
    first, second, motifs = joins.first, joins.second, brush.pieces.motifs
    kinds = kinds_of(motifs, brush.spacing.size, bends)
    wished_apart, wished_overlap, straight = _wished(kinds.plain, placed, first, second)
    apart, overlap = wished_apart.copy(), wished_overlap.copy()
    rigid = np.ones(len(first), bool) if bends is None else bends.stamped[first] & bends.stamped[second]
    askew = np.flatnonzero(rigid & ~straight)
    apart[askew], overlap[askew] = _as_they_lie(kinds.plain, placed, first[askew], second[askew])

    def between(some: np.ndarray) -> tuple[np.ndarray, np.ndarray, np.ndarray]:
        drawn, one, two = _pairs(kinds, placed, first[some], second[some])
        return some, *_between(drawn, one, two, placed.centre[second[some]] - placed.centre[first[some]])

    bent = np.flatnonzero(~rigid)
    for some, *found in each_at_once(between, (bent[own] for own in in_blocks(np.ones(len(bent)), PAIRS_AT_ONCE))):
        apart[some], overlap[some] = found
    height = np.array([m.height for m in motifs])
    depth = np.minimum(*(height[placed.motif[i]] * np.abs(placed.scale[i, 1]) for i in (first, second)))
    gap = (apart - wished_apart) - (overlap - wished_overlap) / np.maximum(depth, 1e-9)
    told = known[first] & known[second] & np.isfinite(apart) & ~placed.at_corner[first]  # which is left by another edge
    apart, overlap = (np.where(told, values, np.nan) for values in (apart, overlap))
    return replace(joins, gap=np.where(told, gap, joins.gap), apart=apart, overlap=overlap)


def as_drawn_apart(joins: Joins, brush: Brush, placed: Placed, bends: Bends | None) -> Joins:
    """Measure joins of pieces that lie loosely by how far their outlines stand apart, mm; steps and kinks are what was asked for.

    Pieces that are to stand apart have no joins to look at.
    """
    if brush.spacing.gap > 0:
        joins = rows_of(joins, slice(0))
    none = np.zeros(len(joins.first))
    joins = replace(joins, gap=none, step=none, kink=none, tone=none)
    if not len(none):
        return joins
    kinds = kinds_of(brush.pieces.motifs, brush.spacing.size * float(placed.size.max(initial=1.0)), bends)

    def stands_apart(some: slice) -> np.ndarray:
        drawn, one, two = _pairs(kinds, placed, joins.first[some], joins.second[some])
        return np.nan_to_num(drawn.apart(one, two))  # what draws nothing stands nowhere

    apart = np.concatenate(list(each_at_once(stands_apart, in_blocks(np.ones(len(none)), PAIRS_AT_ONCE))))
    return replace(joins, gap=apart, apart=apart, wished=none)


def _pairs(kinds: Kinds, placed: Placed, first: np.ndarray, second: np.ndarray) -> tuple[Drawn, np.ndarray, np.ndarray]:
    """Return the polygons of pairs of pieces, each once, and which are the first and the second ones (p,) among them."""
    needed, at = np.unique(np.append(first, second), return_inverse=True)
    return drawn_polygons(kinds, placed, needed), at[: len(first)], at[len(first) :]


def _between(drawn: Drawn, one: np.ndarray, two: np.ndarray, along: np.ndarray) -> tuple[np.ndarray, np.ndarray]:
    """Return how far pairs of polygons stand apart and how much of them overlaps; they lie one behind the other ``along`` (p, 2)."""
    apart, overlap = drawn.apart(one, two), np.zeros(len(one))
    meet = np.flatnonzero(apart <= TOUCHING_MM)
    if not len(meet):
        return apart, overlap
    one, two, along = one[meet], two[meet], _ahead(along[meet])
    shapes = drawn.polygons(np.union1d(one, two)) if drawn.bent else np.empty(len(drawn.which), object)
    crossed = drawn.bent & ~shapely.is_valid(shapes)
    shared, wild = np.full(len(meet), np.nan), crossed[one] | crossed[two]
    shared[wild] = drawn.covered_by_both(one[wild], two[wild])
    shared[~wild] = drawn.overlaps(one[~wild], two[~wild], along[~wild])
    left = np.flatnonzero(np.isnan(shared))
    shapes = shapes if drawn.bent else drawn.polygons(np.append(one[left], two[left]))
    shared[left] = shapely.area(shapely.intersection(shapes[one[left]], shapes[two[left]]))
    overlap[meet] = shared
    return apart, overlap


def _ahead(way: np.ndarray) -> np.ndarray:
    """Return ways (p, 2) as complex numbers of length 1, to the right where there is none."""
    way = as_complex(way)
    length = np.abs(way)
    return np.where(length > 0, way / np.where(length > 0, length, 1.0), 1.0)


def _wished(outlines: list[Outline], placed: Placed, first: np.ndarray, second: np.ndarray):
    """Return how far the same pairs stand apart and overlap on a straight line, and which lie as on one."""
    back = _turned_back(placed.direction)
    if placed.joints is None:
        off = np.stack([placed.after[first] + placed.gap_after[first] + placed.before[second], np.zeros(len(first))], axis=1)
    else:
        joint = np.einsum("nkj,nji->nki", placed.joints - placed.centre[:, None], back)
        off = joint[first, 1] - joint[second, 0]
    apart, overlap = _of_pairs(outlines, placed, first, second, back[second], off)
    lies = np.einsum("nd,nde->ne", placed.centre[second] - placed.centre[first], back[first])
    turned = np.mod(placed.direction[second] - placed.direction[first] + np.pi, 2 * np.pi) - np.pi
    straight = (np.abs(lies - off).max(axis=1) <= SAME_PAIR_MM) & (np.abs(turned) <= SAME_DIRECTION)
    return apart, overlap, straight


def _as_they_lie(outlines: list[Outline], placed: Placed, first: np.ndarray, second: np.ndarray) -> tuple[np.ndarray, np.ndarray]:
    """Return how far pairs of rigid pieces (p,) stand apart and overlap."""
    back = _turned_back(placed.direction[first])
    off = np.einsum("nd,nde->ne", placed.centre[second] - placed.centre[first], back)
    return _of_pairs(outlines, placed, first, second, back, off)


def _turned_back(direction: np.ndarray) -> np.ndarray:
    """Return what turns rows of points (n, 2, 2) back, so that lines of some directions (n,) run to the right."""
    cos, sin = np.cos(direction), np.sin(direction)
    return np.stack([np.stack([cos, -sin], axis=1), np.stack([sin, cos], axis=1)], axis=1)


def _of_pairs(
    outlines: list[Outline], placed: Placed, first: np.ndarray, second: np.ndarray, back: np.ndarray, off: np.ndarray
) -> tuple[np.ndarray, np.ndarray]:
    """Return how far pairs of rigid pieces (p,) stand apart and overlap, when the first lies along a line to the right, and the second,
    turned by ``back`` (p, 2, 2), ``off`` (p, 2) from it; pairs alike are measured once.
    """
    if not len(first):
        return np.zeros(0), np.zeros(0)
    own = placed.linear_of(first) @ _turned_back(placed.direction[first])
    other = placed.linear_of(second) @ back
    table = np.column_stack([placed.motif[first], placed.motif[second], own.reshape(-1, 4), other.reshape(-1, 4), off])
    rows, kind = alike(np.round(table / SAME_PAIR_MM))

    def between(some: slice) -> tuple[np.ndarray, np.ndarray]:
        pairs = table[rows[some]]
        one = np.arange(len(pairs))
        return _between(_on_line(outlines, pairs), one, len(one) + one, pairs[:, 10:])

    found = list(each_at_once(between, in_blocks(np.ones(len(rows)), PAIRS_AT_ONCE)))
    apart, overlap = (np.concatenate(columns) for columns in zip(*found, strict=True))
    return apart[kind], overlap[kind]


def _on_line(outlines: list[Outline], table: np.ndarray) -> Drawn:
    """Return the first polygons of pairs (k,), then the second ones, by rows of motifs (2), linear maps (2 · 4) and what lies between."""
    which = np.concatenate([table[:, 0], table[:, 1]]).astype(int)
    linear = np.concatenate([table[:, 2:6], table[:, 6:10]]).reshape(-1, 2, 2)
    shift = np.concatenate([0 * table[:, 10:], table[:, 10:]])[:, None]
    points = [outline.points @ linear[which == v] + shift[which == v] for v, outline in enumerate(outlines)]
    return Drawn(outlines, which, rows_within(which), points, False)
