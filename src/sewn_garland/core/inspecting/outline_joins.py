"""Joins by what is drawn: how far outlines stand apart or overlap."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, replace
from functools import cached_property

import numpy as np
import shapely

from ..artwork.silhouette import FLATNESS_MM, silhouette
from ..maths.curves import as_complex
from ..maths.ragged import places as places_of
from ..maths.sides import Sides, overlaps
from ..values.arrays import rows_of
from ..values.brush import Brush
from ..values.joins import Joins
from ..values.pieces import Placed

MOST_SIDES = 1000  # chosen: of a bent polygon, besides its own
SAME_PAIR_MM = 1e-6
SAME_DIRECTION = 1e-9  # radians; a piece of a metre then lies as near as that
TOUCHING_MM = 1e-6

Places = Callable[[np.ndarray, np.ndarray], np.ndarray]
"""Takes pieces (k,) and their points (k, 2) about the base line's middle in the motif's own mm, returns places on the page (k, 2)."""


def with_outlines(joins: Joins, brush: Brush, placed: Placed, places: Places | None, known: np.ndarray, tightest: float = np.inf) -> Joins:
    """Measure joins by the outlines of their pieces: ``apart`` mm and ``overlap`` mm², and gaps as deviations from the straight.

    The wish is how the same two pieces lie on a straight line; the gap is what they stand further apart
    there, less what they overlap more, as a mean depth over the lower piece's height. Pieces bent
    by ``places`` are measured as they are bent, in bends of ``tightest`` mm at most; joins of pieces that are clipped or fitted to a
    corner (not ``known`` (n,)) keep the measure of their frames.
    """
    if not len(joins.first):
        return replace(joins, apart=np.zeros(0), overlap=np.zeros(0))
    first, second = joins.first, joins.second
    silhouettes = [silhouette(m, brush.spacing.size) for m in brush.pieces.motifs]
    wished_apart, wished_overlap, straight = _wished(silhouettes, placed, first, second)
    apart, overlap = wished_apart.copy(), wished_overlap.copy()
    askew = np.arange(len(first)) if places is not None else np.flatnonzero(~straight)
    needed, at = np.unique(np.concatenate([first[askew], second[askew]]), return_inverse=True)
    fine = silhouettes if places is None else [_bendable(shape, m.height * brush.spacing.size, brush.spacing.size, tightest)
                                               for shape, m in zip(silhouettes, brush.pieces.motifs, strict=True)]  # fmt: skip
    drawn = _placed(fine, placed, needed, places)
    apart[askew], overlap[askew] = _between(
        drawn, at[: len(askew)], at[len(askew) :], _ahead(placed.centre[second[askew]] - placed.centre[first[askew]])
    )
    height = np.array([m.height for m in brush.pieces.motifs])
    depth = np.minimum(*(height[placed.motif[i]] * np.abs(placed.scale[i, 1]) for i in (first, second)))
    gap = (apart - wished_apart) - (overlap - wished_overlap) / np.maximum(depth, 1e-9)
    told = known[first] & known[second] & np.isfinite(apart) & ~placed.at_corner[first]  # which is left by another edge
    apart, overlap = (np.where(told, values, np.nan) for values in (apart, overlap))
    return replace(joins, gap=np.where(told, gap, joins.gap), apart=apart, overlap=overlap)


def as_drawn_apart(joins: Joins, brush: Brush, placed: Placed, places: Places | None, tightest: float = np.inf) -> Joins:
    """Measure joins of pieces that lie loosely by how far their outlines stand apart, mm; steps and kinks are what was asked for.

    Pieces that are to stand apart have no joins to look at.
    """
    if brush.spacing.gap > 0:
        joins = rows_of(joins, slice(0))
    none = np.zeros(len(joins.first))
    joins = replace(joins, gap=none, step=none, kink=none, tone=none)
    if not len(none):
        return joins
    size = brush.spacing.size * float(placed.size.max(initial=1.0))
    silhouettes = [silhouette(m, size) for m in brush.pieces.motifs]
    if places is not None:
        silhouettes = [_bendable(shape, m.height * size, size, tightest) for shape, m in zip(silhouettes, brush.pieces.motifs, strict=True)]
    needed, at = np.unique(np.concatenate([joins.first, joins.second]), return_inverse=True)
    drawn = _placed(silhouettes, placed, needed, places)
    apart = np.nan_to_num(shapely.distance(*np.split(drawn.shapes[at], 2)))  # what draws nothing stands nowhere
    return replace(joins, gap=apart, apart=apart, wished=none)


def _bendable(shape: shapely.Geometry, height: float, size: float, tightest: float) -> shapely.Geometry:
    """Return a motif's silhouette with sides so short that, laid ``size`` times as large, they stay flat enough in a bend.

    No bend counts as tighter than pieces are high: there they fold.
    """
    side = np.sqrt(8 * max(tightest, height) * FLATNESS_MM / 2) / size  # the sagitta of a chord
    return shapely.segmentize(shape, max(side, shapely.length(shape) / MOST_SIDES)) if np.isfinite(side) else shape


@dataclass(frozen=True, eq=False)
class _Drawn:
    """Polygons: of each (k,) which of the ``silhouettes`` it is, and its ``row`` among those, whose ``points`` (rows, points, 2) lie
    where they are drawn. Those that are not ``bent`` cross themselves nowhere.
    """

    silhouettes: list[shapely.Geometry]
    which: np.ndarray
    row: np.ndarray
    points: list[np.ndarray]
    bent: bool

    @cached_property
    def shapes(self) -> np.ndarray:
        """Return the polygons (k,)."""
        out = np.empty(len(self.which), object)
        for v, (shape, points) in enumerate(zip(self.silhouettes, self.points, strict=True)):
            out[self.which == v] = _copies(shape, points)
        return out

    def sides(self, rows: np.ndarray) -> tuple[Sides, np.ndarray]:
        """Return the sides of some polygons (r,), none of them empty, and the place (r,) of each among these."""
        begins, ends, counts, order = [np.zeros(0, complex)], [np.zeros(0, complex)], [], [rows[:0]]
        for v, (shape, points) in enumerate(zip(self.silhouettes, self.points, strict=True)):
            own, begin = np.flatnonzero(self.which[rows] == v), _begins(shape)
            put = as_complex(points)[self.row[rows[own]]]
            begins.append(put[:, begin].ravel())
            ends.append(put[:, begin + 1].ravel())
            counts += [len(begin)] * len(own)
            order.append(own)
        place = np.empty(len(rows), int)
        place[np.concatenate(order)] = np.arange(len(rows))
        return Sides(np.concatenate(begins), np.concatenate(ends), np.append(0, np.cumsum(counts)).astype(int)), place


def _begins(shape: shapely.Geometry) -> np.ndarray:
    """Return at which of a polygon's points sides begin: at all but the last of each ring."""
    rings = shapely.get_num_points(shapely.get_rings(shapely.get_parts(shape)))
    return np.setdiff1d(np.arange(int(rings.sum())), np.cumsum(rings) - 1)


def _placed(silhouettes: list, placed: Placed, pieces: np.ndarray, places: Places | None) -> _Drawn:
    """Return the polygons (k,) of some pieces on the page."""
    which = placed.motif[pieces]
    points = [_points_on_page(shape, placed, pieces[which == v], places) for v, shape in enumerate(silhouettes)]
    return _Drawn(silhouettes, which, _rows_within(which), points, places is not None)


def _rows_within(which: np.ndarray) -> np.ndarray:
    """Return the place (k,) of each number among its equals."""
    order = np.argsort(which, kind="stable")
    row = np.empty(len(which), int)
    row[order] = places_of(np.bincount(which))
    return row


def on_page(shape: shapely.Geometry, placed: Placed, pieces: np.ndarray, places: Places | None) -> np.ndarray:
    """Return polygons about a base line's middle as they lie on the page (k,) for some pieces (k,), bent by ``places`` where given."""
    return _copies(shape, _points_on_page(shape, placed, pieces, places))


def _points_on_page(shape: shapely.Geometry, placed: Placed, pieces: np.ndarray, places: Places | None) -> np.ndarray:
    """Return the points (k, points, 2) of a polygon about a base line's middle where they lie for some pieces (k,)."""
    flat = shapely.get_coordinates(shape)
    if places is None:
        return flat @ placed.matrices[pieces, :4].reshape(-1, 2, 2) + placed.matrices[pieces, None, 4:]
    return places(np.repeat(pieces, len(flat)), np.tile(flat, (len(pieces), 1))).reshape(len(pieces), len(flat), 2)


def _copies(shape: shapely.Geometry, points: np.ndarray) -> np.ndarray:
    """Return copies (k,) of a polygon, each with points of its own (k, points, 2)."""
    return np.asarray(shapely.set_coordinates(np.full(len(points), shape, object), points.reshape(-1, 2)))


def _between(drawn: _Drawn, one: np.ndarray, two: np.ndarray, along: np.ndarray) -> tuple[np.ndarray, np.ndarray]:
    """Return how far pairs of polygons stand apart and how much of them overlaps; they lie one behind the other ``along`` (p,)."""
    apart, overlap = shapely.distance(drawn.shapes[one], drawn.shapes[two]), np.zeros(len(one))
    meet = np.flatnonzero(apart <= TOUCHING_MM)
    if not len(meet):
        return apart, overlap
    one, two, along = one[meet], two[meet], along[meet]
    shapes, crossed = _mended(drawn, np.union1d(one, two))
    shared = np.full(len(meet), np.nan)
    sound = np.flatnonzero(~crossed[one] & ~crossed[two])
    needed, at = np.unique(np.append(one[sound], two[sound]), return_inverse=True)
    sides, place = drawn.sides(needed)
    of_one, of_two = np.split(place[at], 2)
    shared[sound] = overlaps(sides, of_one, of_two, along[sound])
    left = np.flatnonzero(np.isnan(shared))
    shared[left] = shapely.area(shapely.intersection(shapes[one[left]], shapes[two[left]]))
    overlap[meet] = shared
    return apart, overlap


def _ahead(way: np.ndarray) -> np.ndarray:
    """Return ways (p, 2) as complex numbers of length 1, to the right where there is none."""
    way = as_complex(way)
    length = np.abs(way)
    return np.where(length > 0, way / np.where(length > 0, length, 1.0), 1.0)


def _mended(drawn: _Drawn, rows: np.ndarray) -> tuple[np.ndarray, np.ndarray]:
    """Return polygons, those of some rows that cross themselves made valid, and which (k,) do."""
    out, crossed = drawn.shapes.copy(), np.zeros(len(drawn.which), bool)
    if drawn.bent:
        crossed[rows] = ~shapely.is_valid(out[rows])
        out[crossed] = shapely.make_valid(out[crossed], method="structure", keep_collapsed=False)
    return out, crossed


def _wished(silhouettes: list, placed: Placed, first: np.ndarray, second: np.ndarray):
    """Return how far the same pairs stand apart and overlap on a straight line, and which lie as on one; like pairs are measured once."""
    linear = placed.linear
    cos, sin = np.cos(placed.direction), np.sin(placed.direction)
    back = np.stack([np.stack([cos, -sin], axis=1), np.stack([sin, cos], axis=1)], axis=1)
    own = linear @ back  # rows are the images of the axes, turned back to a line that runs to the right
    if placed.joints is None:
        off = np.stack([placed.after[first] + placed.gap_after[first] + placed.before[second], np.zeros(len(first))], axis=1)
    else:
        joint = np.einsum("nkj,nji->nki", placed.joints - placed.centre[:, None], back)
        off = joint[first, 1] - joint[second, 0]
    table = np.column_stack(
        [
            placed.motif[first],
            placed.motif[second],
            own[first].reshape(-1, 4),
            own[second].reshape(-1, 4),
            off,
        ]
    )
    _, rows, back_to = np.unique(np.round(table / SAME_PAIR_MM), axis=0, return_index=True, return_inverse=True)

    alike = _on_line(silhouettes, table[rows])
    apart, overlap = _between(alike, np.arange(len(rows)), len(rows) + np.arange(len(rows)), np.ones(len(rows), complex))
    lies = np.einsum("nd,nde->ne", placed.centre[second] - placed.centre[first], back[first])
    turned = np.mod(placed.direction[second] - placed.direction[first] + np.pi, 2 * np.pi) - np.pi
    straight = (np.abs(lies - off).max(axis=1) <= SAME_PAIR_MM) & (np.abs(turned) <= SAME_DIRECTION)
    return apart[back_to.ravel()], overlap[back_to.ravel()], straight


def _on_line(silhouettes: list, table: np.ndarray) -> _Drawn:
    """Return the first polygons of pairs (k,), then the second ones, by rows of motifs (2), linear maps (2 · 4) and what lies between."""
    which = np.concatenate([table[:, 0], table[:, 1]]).astype(int)
    linear = np.concatenate([table[:, 2:6], table[:, 6:10]]).reshape(-1, 2, 2)
    shift = np.concatenate([0 * table[:, 10:], table[:, 10:]])[:, None]
    points = [shapely.get_coordinates(shape) @ linear[which == v] + shift[which == v] for v, shape in enumerate(silhouettes)]
    return _Drawn(silhouettes, which, _rows_within(which), points, False)
