"""Where a closed line closes: its first pieces have to lie over its last, as everywhere else a piece lies over the one before it."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from functools import lru_cache

import numpy as np
import shapely

from ..artwork.passes import half_of, passes_of
from ..artwork.silhouette import rough_silhouette
from ..values.bends import Places
from ..values.brush import Brush
from ..values.closes import Close
from ..values.motif import Motif, see_through
from ..values.outlines import BisectorCuts
from ..values.pieces import Placed
from ..values.tracks import Tracks
from .drawn import on_page

OVERLAP_SHARE = 1e-4  # of the smaller piece's area; less is a touch
MARGIN_SHARE = 0.05  # of a piece's shorter side, about what it covers: no rim of it shows round what is painted over it
ROUGH_SHARE = 0.01  # of a silhouette's shorter side, that its polygon may stray: less than the margin
MOST_CORNERS = 200  # of a silhouette; one with more is taken for its hull
MOST_DEEP = 32  # pieces that lie over one another; of more it is told that they reach too far round
MOST_OTHERS = 100  # pieces of the same line, further on, that are looked at for crossing it where it closes
SIDES = 8  # at least, along a piece: a bent one stays within the margin
AT_ONCE = 2  # pieces at either end whose polygons are worked out together; most lines need no more
NEIGHBOURS = 3  # pieces beside those that overlap, which can do nothing else there than these
PolygonOf = Callable[[int], shapely.Geometry]


def closes_of(placed: Placed, brush: Brush, tracks: Tracks, cuts: BisectorCuts, places: Places | None) -> tuple[list[Close], list[int]]:
    """Return where pieces are painted once more for the stacking to go round, and the tracks on which it cannot.

    It is looked at a closed track and a pass of painting at a time. Pieces that overlap half way round, or more, have no such order.
    """
    closes: list[Close] = []
    broken: list[int] = []
    closed = [t for t, line in enumerate(tracks.measured) if line.closed] if brush.travel.kind == "repeated" else []
    if not closed or not len(placed.s):
        return closes, broken
    track, motifs = tracks.of(placed), brush.pieces.motifs
    kinds = [(motif, mirrored) for mirrored in (False, True) for motif in motifs]
    kind = placed.motif + len(motifs) * placed.turned_over
    used = set(kind.tolist())
    for under in passes_of(motifs):
        halves = [half_of(motif, under, mirrored) for motif, mirrored in kinds]
        apart = brush.ink.see_through or any(map(_any_see_through, halves))
        shown = [_shown(*kinds[k], under) if k in used else shapely.Polygon() for k in range(len(kinds))]
        for t in closed:
            own = np.flatnonzero(track == t)
            found = _closed_over(len(own), _polygons(placed, kind, shown, own, cuts, places), placed.where[own])
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
def _shown(motif: Motif, mirrored: bool, under: bool) -> shapely.Geometry:
    """Return what of a motif's half is not hidden by the rest of it, about its base line's middle; roughly, in sides that can be bent."""
    own = rough_silhouette(half_of(motif, under, mirrored))
    shown = shapely.difference(own, rough_silhouette(half_of(motif, False, mirrored))) if under else own
    if shapely.is_empty(shown):
        return shown
    stray = ROUGH_SHARE * _shorter_side(shown)
    rough = shapely.simplify(shown, stray)
    while shapely.get_num_coordinates(rough) > MOST_CORNERS and stray < MARGIN_SHARE * _shorter_side(shown):
        stray *= 2
        rough = shapely.simplify(shown, stray)
    if shapely.get_num_coordinates(rough) > MOST_CORNERS:
        rough = shapely.convex_hull(shown)
    left, top, right, bottom = shapely.bounds(rough)
    return shapely.segmentize(rough, max(right - left, bottom - top) / SIDES)


def _closed_over(n: int, polygon_of: PolygonOf, where: np.ndarray) -> tuple[int, shapely.Geometry] | None:
    """Return how many of n pieces are painted once more, and within what; 0 where the last and the first are apart, None where the
    pieces reach too far round.

    ``where`` (n, 2) is where they lie.
    """
    shared = _shared(polygon_of(0), polygon_of(n - 1)) if n > 1 else None
    if shared is None:
        return 0, shapely.Polygon()
    half = min((n - 1) // 2, MOST_DEEP)  # from there on it is as near the other way round
    first = next((i for i in range(1, half) if _shared(polygon_of(i), polygon_of(n - 1)) is None), half)
    last = next((k for k in range(1, half) if _shared(polygon_of(n - 1 - k), polygon_of(0)) is None), half)
    too_deep = max(first, last) == MOST_DEEP
    as_near = first == half and n % 2 == 0 and _shared(polygon_of(half), polygon_of(n - 1)) is not None
    if too_deep or as_near or 2 * (first + last) >= n + 2:
        return None
    if first + last > 2:
        shared = shapely.intersection(_joined(polygon_of, range(first)), _joined(polygon_of, range(n - last, n)))
    margin = MARGIN_SHARE * _shorter_side(polygon_of(n - 1))
    rough = shapely.simplify(shared, margin / 4)
    rough = shapely.convex_hull(rough) if shapely.get_num_coordinates(rough) > 4 * MOST_CORNERS else rough
    within = shapely.buffer(rough, margin, quad_segs=2)
    count = next((i for i in range(first, min(n - last, 2 * MOST_DEEP)) if not shapely.intersects(polygon_of(i), within)), None)
    if count is None:
        return None
    others = _others_near(where, within, _across(polygon_of(0)), count + NEIGHBOURS, n - last - NEIGHBOURS)
    above = shapely.intersection(within, _joined(polygon_of, range(count))) if len(others) else within
    for q in others[:MOST_OTHERS]:
        if shapely.intersects(polygon_of(q), above):  # the line crosses itself here: what comes later lies over it
            within = shapely.difference(within, polygon_of(q))
    return (count, within) if shapely.area(within) > 0 else (0, within)


def _others_near(where: np.ndarray, area: shapely.Geometry, reach: float, begin: int, end: int) -> np.ndarray:
    """Return those of the pieces from ``begin`` to ``end`` that may touch an area, where a piece is ``reach`` mm across."""
    left, top, right, bottom = shapely.bounds(area)
    middle, half = np.array([left + right, top + bottom]) / 2, np.hypot(right - left, bottom - top) / 2
    return begin + np.flatnonzero(np.hypot(*(where[begin:end] - middle).T) < half + reach)


def _shorter_side(polygon: shapely.Geometry) -> float:
    left, top, right, bottom = shapely.bounds(polygon)
    return min(right - left, bottom - top)


def _across(polygon: shapely.Geometry) -> float:
    left, top, right, bottom = shapely.bounds(polygon)
    return float(np.hypot(right - left, bottom - top))


def _shared(one: shapely.Geometry, two: shapely.Geometry) -> shapely.Geometry | None:
    """Return what two pieces both cover, None where that is but a touch."""
    if not shapely.intersects(one, two):
        return None
    shared = shapely.intersection(one, two)
    return shared if shapely.area(shared) > OVERLAP_SHARE * min(shapely.area(one), shapely.area(two)) else None


def _joined(polygon_of: PolygonOf, some: range) -> shapely.Geometry:
    return polygon_of(some[0]) if len(some) == 1 else shapely.union_all([polygon_of(i) for i in some])


def _polygons(
    placed: Placed, kind: np.ndarray, silhouettes: Sequence[shapely.Geometry], own: np.ndarray, cuts: BisectorCuts, places: Places | None
) -> PolygonOf:
    """Return what gives the polygon of one of the pieces ``own`` (k,), each worked out once; ``kind`` (n,) says whose silhouette it has."""

    known: dict[int, shapely.Geometry] = {}

    def work_out(some: list[int]) -> None:
        pieces = own[some]
        for v in np.unique(kind[pieces]):
            alike = pieces[kind[pieces] == v]
            known.update(zip(alike.tolist(), shapely.make_valid(on_page(silhouettes[v], placed, alike, places)), strict=True))
        for row in np.flatnonzero(np.isin(cuts.piece, pieces)):
            piece = int(cuts.piece[row])
            known[piece] = shapely.intersection(known[piece], _kept(cuts.vertex[row], cuts.away[row], shapely.bounds(known[piece])))

    def polygon_of(i: int) -> shapely.Geometry:
        if own[i] not in known:
            work_out([i])
        return known[int(own[i])]

    if len(own):
        work_out(sorted({*range(min(AT_ONCE, len(own))), *range(max(0, len(own) - AT_ONCE), len(own))}))
    return polygon_of


def _kept(vertex: np.ndarray, away: np.ndarray, bounds: np.ndarray) -> shapely.Geometry:
    """Return the half-plane behind a bisector, as far as something of some bounds reaches."""
    if not np.isfinite(bounds).all():
        return shapely.Polygon()
    far = 2 * float(np.abs(np.reshape(bounds, (2, 2)) - vertex).sum()) + 1
    along = np.array([-away[1], away[0]]) * far
    return shapely.Polygon([vertex + along, vertex - along, vertex - along - away * far, vertex + along - away * far])
