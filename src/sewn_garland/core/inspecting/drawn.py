"""What pieces draw, as polygons."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from functools import cached_property

import numpy as np
import shapely

from ..artwork.silhouette import FLATNESS_MM, silhouette
from ..maths.curves import as_complex
from ..maths.ragged import heads, owners, ranges
from ..maths.ragged import places as places_of
from ..maths.sides import Sides
from ..values.bends import Bends, Places
from ..values.motif import Motif
from ..values.pieces import Placed

MOST_SIDES = 500  # chosen: of a bent polygon, besides its own
SOFTER = np.array([64.0, 1024.0])  # times the tightest radius, from which on sides may be longer; chosen
LEAST_BEND = 1e-12  # a mm; straight
SURELY = 4  # times as soft as seen a bend is not taken to be: it was looked at here and there; chosen


@dataclass(frozen=True, eq=False)
class Drawn:
    """Polygons: of each (k,) which of the ``silhouettes`` it is, and its ``row`` among those, whose ``points`` (rows, points, 2) lie
    where they are drawn. Those that are not ``bent`` cross themselves nowhere.
    """

    silhouettes: list[shapely.Geometry]
    which: np.ndarray
    row: np.ndarray
    points: list[np.ndarray]
    bent: bool

    def polygons(self, rows: np.ndarray) -> np.ndarray:
        """Return polygons (k,), None but for some rows."""
        return self._copies_of([(shape, slice(None)) for shape in self.silhouettes], rows)

    def in_runs(self, rows: np.ndarray) -> np.ndarray:
        """Return the rings of polygons (k,) as lines of few sides each, None but for some rows."""
        return self._copies_of([_in_runs(shape) for shape in self.silhouettes], rows)

    def _copies_of(self, templates: Sequence[tuple[shapely.Geometry, slice | np.ndarray]], rows: np.ndarray) -> np.ndarray:
        out, wanted = np.empty(len(self.which), object), np.zeros(len(self.which), bool)
        wanted[rows] = True
        for v, ((shape, some), points) in enumerate(zip(templates, self.points, strict=True)):
            own = np.flatnonzero(wanted & (self.which == v))
            row = self.row[own]
            out[own] = _copies(shape, points[row] if isinstance(some, slice) else points[row[:, None], some])
        return out

    @cached_property
    def _boxes(self) -> tuple[np.ndarray, np.ndarray]:
        """Return the lowest and the highest x and y (k, 2) of each polygon, NaN where there is nothing."""
        low, high = np.full((2, len(self.which), 2), np.nan)
        for v, points in enumerate(self.points):
            if points.size:
                for axis in (0, 1):  # one by one: many times as fast as both at once
                    low[self.which == v, axis], high[self.which == v, axis] = points[..., axis].min(axis=1), points[..., axis].max(axis=1)
        return low, high

    def apart(self, one: np.ndarray, two: np.ndarray) -> np.ndarray:
        """Return how far pairs (p,) of polygons stand apart: 0 where they meet, NaN where one draws nothing.

        Of those that do not meet the rings are measured, as runs of sides: GEOS leaves out what it knows to be too far by its box, but
        asks that of whole lines and polygons alone, and would else look at every two sides.
        """
        (low, high), out, met = self._boxes, np.zeros(len(one)), np.zeros(len(one), bool)
        near = np.flatnonzero((np.maximum(low[one], low[two]) <= np.minimum(high[one], high[two])).all(axis=1))
        shapes = self.polygons(np.append(one[near], two[near]))
        met[near] = shapely.intersects(shapes[one[near]], shapes[two[near]])
        off = np.flatnonzero(~met)
        rings = self.in_runs(np.append(one[off], two[off]))
        out[off] = shapely.distance(rings[one[off]], rings[two[off]])
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
    points = _ring_points(shape)
    return np.setdiff1d(np.arange(int(points.sum())), np.cumsum(points) - 1)


def _ring_points(shape: shapely.Geometry) -> np.ndarray:
    """Return how many points each ring of a polygon has, the first one also as the last."""
    return shapely.get_num_points(shapely.get_rings(shapely.get_parts(shape)))


def _in_runs(shape: shapely.Geometry) -> tuple[shapely.Geometry, np.ndarray]:
    """Return a polygon's rings as lines of about as many sides each as there are lines, and which of its points each of theirs is."""
    points = _ring_points(shape)
    most = max(1, round(np.sqrt(points.sum())))
    runs = -(-(points - 1) // most)
    first = np.repeat(heads(points), runs) + most * places_of(runs)
    sides = np.minimum(most, np.repeat(np.cumsum(points) - 1, runs) - first)
    points = ranges(first, sides + 1)
    lines = shapely.linestrings(shapely.get_coordinates(shape)[points], indices=owners(sides + 1))
    return shapely.MultiLineString(list(np.asarray(lines))), points


def drawn_polygons(motifs: Sequence[Motif], size: float, placed: Placed, pieces: np.ndarray, bends: Bends | None) -> Drawn:
    """Return the polygons (k,) of some pieces as they lie on the page, up to ``size`` times as large as their motifs.

    Those that are bent have sides so short that they stay flat in their own bends.
    """
    shapes, which = [silhouette(motif, size) for motif in motifs], placed.motif[pieces]
    places: list[Places | None] = [None] * len(motifs)
    if bends is not None:
        radius = [max(bends.tightest, motif.height * size) for motif in motifs]  # where they are bent tighter still, they fold
        bent = np.flatnonzero(~bends.stamped[pieces])
        as_soft = 1 / np.maximum(bends.sharpest(pieces[bent]), LEAST_BEND)
        softer = np.searchsorted(SOFTER, as_soft / np.array(radius)[which[bent]], side="right")
        which[bent] += len(motifs) * (1 + softer)
        for factor in (1.0, *(SOFTER / SURELY)):
            shapes += [_bendable(shape, size, factor * r) for shape, r in zip(shapes[: len(motifs)], radius, strict=True)]
            places += [bends.places] * len(motifs)
    points = [_points_on_page(shape, placed, pieces[which == v], how) for v, (shape, how) in enumerate(zip(shapes, places, strict=True))]
    return Drawn(shapes, which, rows_within(which), points, bends is not None)


def _bendable(shape: shapely.Geometry, size: float, radius: float) -> shapely.Geometry:
    """Return a motif's silhouette with sides so short that, laid ``size`` times as large, they stay flat in a bend of some radius."""
    side = np.sqrt(8 * radius * FLATNESS_MM / 2) / size  # the sagitta of a chord
    return shapely.segmentize(shape, max(side, shapely.length(shape) / MOST_SIDES)) if np.isfinite(side) else shape


def rows_within(which: np.ndarray) -> np.ndarray:
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
        return flat @ placed.linear_of(pieces) + placed.centre[pieces, None]
    return places(pieces, flat)


def _copies(shape: shapely.Geometry, points: np.ndarray) -> np.ndarray:
    """Return copies (k,) of a polygon, each with points of its own (k, points, 2)."""
    return np.asarray(shapely.set_coordinates(np.full(len(points), shape, object), points.reshape(-1, 2)))
