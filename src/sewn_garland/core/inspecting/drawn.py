"""What pieces draw, as polygons."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from functools import cached_property

import numpy as np
import shapely

from ..maths.curves import as_complex
from ..maths.ragged import heads, owners, ranges
from ..maths.ragged import places as places_of
from ..maths.sides import Sides
from ..values.pieces import Placed

Places = Callable[[np.ndarray, np.ndarray], np.ndarray]
"""Takes pieces (k,) and their points (k, 2) about the base line's middle in the motif's own mm, returns places on the page (k, 2)."""


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

    @cached_property
    def shapes(self) -> np.ndarray:
        """Return the polygons (k,)."""
        return self._copies_of([(shape, slice(None)) for shape in self.silhouettes])

    @cached_property
    def in_runs(self) -> np.ndarray:
        """Return the rings of the polygons (k,) as lines of few sides each."""
        return self._copies_of([_in_runs(shape) for shape in self.silhouettes])

    def _copies_of(self, templates: list[tuple[shapely.Geometry, slice | np.ndarray]]) -> np.ndarray:
        out = np.empty(len(self.which), object)
        for v, ((shape, some), points) in enumerate(zip(templates, self.points, strict=True)):
            out[self.which == v] = _copies(shape, points[:, some])
        return out

    def apart(self, one: np.ndarray, two: np.ndarray) -> np.ndarray:
        """Return how far pairs (p,) of polygons stand apart: 0 where they meet, NaN where one draws nothing.

        Of those that do not meet the rings are measured, as runs of sides: GEOS leaves out what it knows to be too far by its box, but
        asks that of whole lines and polygons alone, and would else look at every two sides.
        """
        out = np.zeros(len(one))
        off = np.flatnonzero(~shapely.intersects(self.shapes[one], self.shapes[two]))
        out[off] = shapely.distance(self.in_runs[one[off]], self.in_runs[two[off]])
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


def placed_polygons(silhouettes: list, placed: Placed, pieces: np.ndarray, places: Places | None) -> Drawn:
    """Return the polygons (k,) of some pieces on the page."""
    which = placed.motif[pieces]
    points = [_points_on_page(shape, placed, pieces[which == v], places) for v, shape in enumerate(silhouettes)]
    return Drawn(silhouettes, which, rows_within(which), points, places is not None)


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
        return flat @ placed.matrices[pieces, :4].reshape(-1, 2, 2) + placed.matrices[pieces, None, 4:]
    return places(np.repeat(pieces, len(flat)), np.tile(flat, (len(pieces), 1))).reshape(len(pieces), len(flat), 2)


def _copies(shape: shapely.Geometry, points: np.ndarray) -> np.ndarray:
    """Return copies (k,) of a polygon, each with points of its own (k, points, 2)."""
    return np.asarray(shapely.set_coordinates(np.full(len(points), shape, object), points.reshape(-1, 2)))
