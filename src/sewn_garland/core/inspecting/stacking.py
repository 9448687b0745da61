"""Where a closed line closes: its first pieces have to lie over its last, as everywhere else a piece lies over the one before it."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from functools import cache, lru_cache

import numpy as np
import shapely

from ..artwork.passes import half_of, passes_of
from ..artwork.silhouette import rough_silhouette
from ..values.brush import Brush
from ..values.closes import Close
from ..values.line import MeasuredLine
from ..values.motif import Motif, see_through
from ..values.outlines import BisectorCuts
from ..values.pieces import Placed
from ..values.tracks import Tracks
from .outline_joins import Places, bendable, on_page

OVERLAP_SHARE = 1e-4  # of the smaller piece's area; less is a touch
MARGIN_SHARE = 0.05  # of a piece's shorter side, about what it covers: no rim of it shows round what is painted over it
PolygonOf = Callable[[int], shapely.Geometry]


def closes_of(placed: Placed, brush: Brush, tracks: Tracks, cuts: BisectorCuts, places: Places | None) -> tuple[list[Close], list[int]]:
    """Return where pieces are painted once more for the stacking to go round, and the tracks on which it cannot.

    It is looked at a closed track and a pass of painting at a time. Pieces that overlap half way round, or more, have no such order.
    """
    closes: list[Close] = []
    broken: list[int] = []
    closed = [t for t, line in enumerate(tracks.measured) if line.closed] if not brush.travel.once else []
    if not closed or not len(placed.s):
        return closes, broken
    track = tracks.of(placed)
    for under in passes_of(brush.pieces.motifs):
        motifs = brush.pieces.motifs
        apart = brush.ink.see_through or any(_any_see_through(half_of(m, under)) for m in motifs)
        shown = [_shown(m, under) for m in motifs]
        for t in closed:
            own = np.flatnonzero(track == t)
            fine = shown if places is None else [_in_bends(s, m, brush, tracks.measured[t]) for s, m in zip(shown, motifs, strict=True)]
            polygon_of = _polygons(placed, fine, own, cuts, places)
            found = _closed_over(len(own), polygon_of, placed.where[own])
            if found is None:
                broken += [t] * (t not in broken)
            elif found[0]:
                count, within = found
                closes.append(Close.of(int(own[0]), count, int(own[-1]), under=under, apart=apart, within=within))
    return closes, broken


@lru_cache(maxsize=512)
def _any_see_through(motif: Motif) -> bool:
    return any(map(see_through, motif.shapes))


@lru_cache(maxsize=512)
def _shown(motif: Motif, under: bool) -> shapely.Geometry:
    """Return what of a motif's half is not hidden by the rest of it, about its base line's middle."""
    own = rough_silhouette(half_of(motif, under))
    return shapely.difference(own, rough_silhouette(half_of(motif, False))) if under else own


def _in_bends(shape: shapely.Geometry, motif: Motif, brush: Brush, line: MeasuredLine) -> shapely.Geometry:
    size, tightest = brush.spacing.size, np.inf if line.tightest_radius is None else line.tightest_radius
    return bendable(shape, motif.height * size, size, tightest)


def _closed_over(n: int, polygon_of: PolygonOf, where: np.ndarray) -> tuple[int, shapely.Geometry] | None:
    """Return how many of n pieces are painted once more, and within what; 0 where the last and the first are apart, None where the
    pieces reach too far round.

    ``where`` (n, 2) is where they lie.
    """
    if n < 2 or not _overlap(polygon_of(0), polygon_of(n - 1)):
        return 0, shapely.Polygon()
    half = (n - 1) // 2  # from there on it is as near the other way round
    first = next((i for i in range(1, half) if not _overlap(polygon_of(i), polygon_of(n - 1))), half)
    last = next((k for k in range(1, half) if not _overlap(polygon_of(n - 1 - k), polygon_of(0))), half)
    as_near = first == half and n % 2 == 0 and _overlap(polygon_of(half), polygon_of(n - 1))
    if as_near or 2 * (first + last) >= n + 2:
        return None
    starts, ends = (shapely.union_all([polygon_of(i) for i in some]) for some in (range(first), range(n - last, n)))
    within = shapely.buffer(shapely.intersection(starts, ends), MARGIN_SHARE * _shorter_side(polygon_of(n - 1)), quad_segs=2)
    count = next((i for i in range(first, n - last) if not shapely.intersects(polygon_of(i), within)), None)
    if count is None:
        return None
    above = shapely.intersection(within, shapely.union_all([polygon_of(i) for i in range(count)]))
    for q in _others_near(where, above, count, n - last):
        if shapely.intersects(polygon_of(q), above):  # the line crosses itself here: what comes later lies over it
            within = shapely.difference(within, polygon_of(q))
    return count, within


def _others_near(where: np.ndarray, area: shapely.Geometry, begin: int, end: int) -> np.ndarray:
    """Return those of the pieces from ``begin`` to ``end`` that lie no further from an area than four times its own reach."""
    left, top, right, bottom = shapely.bounds(area)
    middle, reach = np.array([left + right, top + bottom]) / 2, max(right - left, bottom - top)
    return begin + np.flatnonzero(np.hypot(*(where[begin:end] - middle).T) < 4 * reach)


def _shorter_side(polygon: shapely.Geometry) -> float:
    left, top, right, bottom = shapely.bounds(polygon)
    return min(right - left, bottom - top)


def _overlap(one: shapely.Geometry, two: shapely.Geometry) -> bool:
    if not shapely.intersects(one, two):
        return False
    return bool(shapely.area(shapely.intersection(one, two)) > OVERLAP_SHARE * min(shapely.area(one), shapely.area(two)))


def _polygons(
    placed: Placed, silhouettes: Sequence[shapely.Geometry], own: np.ndarray, cuts: BisectorCuts, places: Places | None
) -> PolygonOf:
    """Return what gives the polygon of one of the pieces ``own`` (k,), each worked out once."""

    @cache
    def polygon_of(i: int) -> shapely.Geometry:
        piece = own[i : i + 1]
        v = int(placed.motif[piece[0]])
        polygon = shapely.make_valid(on_page(silhouettes[v], placed, piece, places)[0])
        for row in np.flatnonzero(cuts.piece == piece[0]):
            polygon = shapely.intersection(polygon, _kept(cuts.vertex[row], cuts.away[row], shapely.bounds(polygon)))
        return polygon

    return polygon_of


def _kept(vertex: np.ndarray, away: np.ndarray, bounds: np.ndarray) -> shapely.Geometry:
    """Return the half-plane behind a bisector, as far as something of some bounds reaches."""
    if not np.isfinite(bounds).all():
        return shapely.Polygon()
    far = 2 * float(np.abs(np.reshape(bounds, (2, 2)) - vertex).sum()) + 1
    along = np.array([-away[1], away[0]]) * far
    return shapely.Polygon([vertex + along, vertex - along, vertex - along - away * far, vertex + along - away * far])
