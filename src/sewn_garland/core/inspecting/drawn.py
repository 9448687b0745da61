"""What pieces draw, as polygons."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass

import numpy as np
import shapely

from ..artwork.silhouette import FLATNESS_MM, silhouette
from ..maths.apart import Runs, apart, runs_of
from ..maths.covered import covered_by_both
from ..maths.curves import as_complex
from ..maths.ragged import places as places_of
from ..maths.sides import overlaps
from ..values.bends import Bends, Places
from ..values.motif import Motif
from ..values.pieces import Placed

MOST_SIDES = 500  # chosen: of a bent polygon, besides its own
SOFTER = np.array([64.0, 1024.0])  # times the tightest radius, from which on sides may be longer; chosen
LEAST_BEND = 1e-12  # a mm; straight
SURELY = 4  # times as soft as seen a bend is not taken to be: it was looked at here and there; chosen


@dataclass(frozen=True, eq=False)
class Outline:
    """The polygon of a motif about its base line's middle, with what very many pairs of it ask for: at which of its ``points`` (p, 2)
    its sides begin, how often the ring of each winds about what it shuts in, seen so that shells do once and holes less, and its runs.
    """

    shape: shapely.Geometry
    points: np.ndarray
    begins: np.ndarray
    windings: np.ndarray
    runs: Runs


def outline_of(shape: shapely.Geometry) -> Outline:
    """Return the outline of a polygon, or of several; one of nothing has no points."""
    rings, part = shapely.get_rings(shapely.get_parts(shape), return_index=True)
    counts, shell = shapely.get_num_points(rings), np.append(True, part[1:] != part[:-1])[: len(part)]
    begins = np.setdiff1d(np.arange(int(counts.sum())), np.cumsum(counts) - 1)  # at all but the last of each ring
    windings = np.repeat(np.where(shell, 1.0, -1.0) * np.where(shapely.is_ccw(rings), 1.0, -1.0), counts - 1)
    return Outline(shape, shapely.get_coordinates(shape), begins, windings, runs_of(counts))


@dataclass(frozen=True, eq=False)
class Drawn:
    """Polygons: of each (k,) which of the ``outlines`` it has, and its ``row`` among those, whose ``points`` (rows, points, 2) lie
    where they are drawn. Those that are not ``bent`` cross themselves nowhere.
    """

    outlines: list[Outline]
    which: np.ndarray
    row: np.ndarray
    points: list[np.ndarray]
    bent: bool

    def polygons(self, rows: np.ndarray) -> np.ndarray:
        """Return polygons (k,), None but for some rows."""
        out, wanted = np.empty(len(self.which), object), np.zeros(len(self.which), bool)
        wanted[rows] = True
        for v, (outline, points) in enumerate(zip(self.outlines, self.points, strict=True)):
            own = np.flatnonzero(wanted & (self.which == v))
            out[own] = _copies(outline.shape, points[self.row[own]])
        return out

    def apart(self, one: np.ndarray, two: np.ndarray) -> np.ndarray:
        """Return how far pairs (p,) of polygons stand apart: 0 where they meet, NaN where one draws nothing."""
        return self._by_kind(one, two, lambda a, own, b, their: apart(a, own.runs, b, their.runs))

    def covered_by_both(self, one: np.ndarray, two: np.ndarray) -> np.ndarray:
        """Return about how much (p,) pairs of polygons cover both, whether they cross themselves or not; NaN where one draws nothing."""

        def covered(a: np.ndarray, own: Outline, b: np.ndarray, their: Outline) -> np.ndarray:
            return covered_by_both(a, own.begins, own.windings, b, their.begins, their.windings)

        return self._by_kind(one, two, covered)

    def overlaps(self, one: np.ndarray, two: np.ndarray, along: np.ndarray) -> np.ndarray:
        """Return how much (p,) of pairs of polygons overlaps, none of which crosses itself, the second ``along`` (p,), complex, from the
        first; NaN where one draws nothing, or where they are sooner cut.
        """
        return self._by_kind(one, two, lambda a, own, b, their, along: overlaps(a, own.begins, b, their.begins, along), along)

    def _by_kind(self, one: np.ndarray, two: np.ndarray, ask: Callable[..., np.ndarray], *more: np.ndarray) -> np.ndarray:
        """Return what is asked of pairs (p,), those of the same two outlines in one go: of the first ones' points, complex, and their
        outline, of the second ones' and theirs, and of ``more`` (p,) of each pair.
        """
        out, many = np.full(len(one), np.nan), len(self.outlines)
        kinds = self.which[one] * many + self.which[two]
        for kind in np.unique(kinds).tolist():
            v, w = divmod(kind, many)
            if self.points[v].size and self.points[w].size:
                own = np.flatnonzero(kinds == kind)
                rows = as_complex(self.points[v])[self.row[one[own]]], as_complex(self.points[w])[self.row[two[own]]]
                out[own] = ask(rows[0], self.outlines[v], rows[1], self.outlines[w], *(column[own] for column in more))
        return out


@dataclass(frozen=True, eq=False)
class Kinds:
    """The outlines of motifs: ``plain``, as they are, and ``all`` of them, behind those the ones to be bent by ``bends``: with sides so
    short that they stay flat in bends of the tightest ``radius`` (m,) of each, then with longer ones for softer bends.
    """

    plain: list[Outline]
    all: list[Outline]
    radius: np.ndarray
    bends: Bends | None


def kinds_of(motifs: Sequence[Motif], size: float, bends: Bends | None) -> Kinds:
    """Return the kinds of outlines that pieces of motifs are drawn with, up to ``size`` times as large as these."""
    plain = [outline_of(silhouette(motif, size)) for motif in motifs]
    if bends is None:
        return Kinds(plain, plain, np.zeros(len(plain)), None)
    radius = np.array([max(bends.tightest, motif.height * size) for motif in motifs])  # where they are bent tighter still, they fold
    shapes = [_bendable(own.shape, size, factor * r) for factor in (1.0, *(SOFTER / SURELY)) for own, r in zip(plain, radius, strict=True)]
    return Kinds(plain, plain + [outline_of(shape) for shape in shapes], radius, bends)


def drawn_polygons(kinds: Kinds, placed: Placed, pieces: np.ndarray) -> Drawn:
    """Return the polygons (k,) of some pieces as they lie on the page."""
    which, bends, places = placed.motif[pieces], kinds.bends, None
    if bends is not None:
        places = bends.places
        bent = np.flatnonzero(~bends.stamped[pieces])
        as_soft = 1 / np.maximum(bends.sharpest(pieces[bent]), LEAST_BEND)
        softer = np.searchsorted(SOFTER, as_soft / kinds.radius[which[bent]], side="right")
        which[bent] += len(kinds.plain) * (1 + softer)
    points = [
        _points_on_page(outline.points, placed, pieces[which == v], None if v < len(kinds.plain) else places)
        for v, outline in enumerate(kinds.all)
    ]
    return Drawn(kinds.all, which, rows_within(which), points, bends is not None)


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
    return _copies(shape, _points_on_page(shapely.get_coordinates(shape), placed, pieces, places))


def _points_on_page(flat: np.ndarray, placed: Placed, pieces: np.ndarray, places: Places | None) -> np.ndarray:
    """Return points (p, 2) about a base line's middle where they lie for some pieces (k,): (k, p, 2)."""
    if not len(pieces):
        return np.zeros((0, len(flat), 2))
    if places is None:
        return flat @ placed.linear_of(pieces) + placed.centre[pieces, None]
    return places(pieces, flat)


def _copies(shape: shapely.Geometry, points: np.ndarray) -> np.ndarray:
    """Return copies (k,) of a polygon, each with points of its own (k, points, 2)."""
    return np.asarray(shapely.set_coordinates(np.full(len(points), shape, object), points.reshape(-1, 2)))
