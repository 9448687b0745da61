"""What pieces draw, as polygons."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass

import numpy as np
import shapely

from ..artwork.silhouette import FLATNESS_MM, silhouette
from ..maths.apart import apart, runs_of
from ..maths.covered import covered_by_both
from ..maths.curves import as_complex
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
        out, wanted = np.empty(len(self.which), object), np.zeros(len(self.which), bool)
        wanted[rows] = True
        for v, (shape, points) in enumerate(zip(self.silhouettes, self.points, strict=True)):
            own = np.flatnonzero(wanted & (self.which == v))
            out[own] = _copies(shape, points[self.row[own]])
        return out

    def apart(self, one: np.ndarray, two: np.ndarray) -> np.ndarray:
        """Return how far pairs (p,) of polygons stand apart: 0 where they meet, NaN where one draws nothing."""
        runs = [runs_of(_ring_points(shape)) for shape in self.silhouettes]
        return self._by_kind(one, two, lambda a, v, b, w: apart(a, runs[v], b, runs[w]))

    def covered_by_both(self, one: np.ndarray, two: np.ndarray) -> np.ndarray:
        """Return about how much (p,) pairs of polygons cover both, whether they cross themselves or not; NaN where one draws nothing."""
        sides = [(_begins(shape), _windings(shape)) for shape in self.silhouettes]
        return self._by_kind(one, two, lambda a, v, b, w: covered_by_both(a, *sides[v], b, *sides[w]))

    def _by_kind(self, one: np.ndarray, two: np.ndarray, ask: Callable[[np.ndarray, int, np.ndarray, int], np.ndarray]) -> np.ndarray:
        """Return what is asked of pairs (p,), those of the same two silhouettes in one go: of their points, complex, and which they are."""
        out, many = np.full(len(one), np.nan), len(self.silhouettes)
        kinds = self.which[one] * many + self.which[two]
        for kind in np.unique(kinds).tolist():
            v, w = divmod(kind, many)
            if self.points[v].size and self.points[w].size:
                own = np.flatnonzero(kinds == kind)
                rows = as_complex(self.points[v])[self.row[one[own]]], as_complex(self.points[w])[self.row[two[own]]]
                out[own] = ask(rows[0], v, rows[1], w)
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


def _windings(shape: shapely.Geometry) -> np.ndarray:
    """Return for each of a polygon's sides how often its ring winds about what it shuts in, seen so that shells do once and holes less."""
    rings, part = shapely.get_rings(shapely.get_parts(shape), return_index=True)
    shell = np.append(True, part[1:] != part[:-1])[: len(part)]
    return np.repeat(np.where(shell, 1.0, -1.0) * np.where(shapely.is_ccw(rings), 1.0, -1.0), shapely.get_num_points(rings) - 1)


def _ring_points(shape: shapely.Geometry) -> np.ndarray:
    """Return how many points each ring of a polygon has, the first one also as the last."""
    return shapely.get_num_points(shapely.get_rings(shapely.get_parts(shape)))


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
