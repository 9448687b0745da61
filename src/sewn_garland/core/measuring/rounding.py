"""Round the vertices of a line by arcs that touch both legs."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace
from itertools import pairwise
from typing import NamedTuple

import numpy as np

from ..maths.curves import cross
from ..maths.ragged import owners, places, run_heads
from ..values.arrays import freeze_arrays
from ..values.line import Frames, Line, MeasuredLine
from .arc_length import Segments, frames_and_bends_on, measure, measured_all, parameters_on

NEWTON_ROUNDS = 40
LAST_BITS = 4e-15  # of a place, in double precision with the sums about it
SHARPEST_TURN = np.radians(179.0)  # beyond it the legs lie on one another and no arc touches both


@dataclass(frozen=True, eq=False)
class Rounded:
    """A line with arcs for some of its vertices.

    ``old`` and ``new`` (b,) are distances along the line before and after that answer to one
    another; between them distances go evenly. ``crowded`` (c,) are the distances of vertices that
    could not be rounded, for a leg was too short.
    """

    line: MeasuredLine
    old: np.ndarray
    new: np.ndarray
    crowded: np.ndarray

    def __post_init__(self) -> None:
        freeze_arrays(self)

    def moved(self, s: np.ndarray) -> np.ndarray:
        """Return where distances (n,) of the old line lie on the rounded one; open lines go on straight beyond their ends."""
        if len(self.old) < 2:
            return np.asarray(s, float)
        return np.interp(s, self.old, self.new) + np.minimum(s - self.old[0], 0) + np.maximum(s - self.old[-1], 0)


def rounded(measured: MeasuredLine, vertices: np.ndarray, radius: float, *, shrink: bool = False) -> Rounded:
    """Round the vertices numbered ``vertices`` (v,) of one line, as ``rounded_all`` does."""
    return rounded_all([measured], [vertices], radius, shrink=shrink)[0]


def rounded_all(lines: Sequence[MeasuredLine], vertices: Sequence[np.ndarray], radius: float, *, shrink: bool = False) -> list[Rounded]:
    """Round, of every line, the vertices numbered ``vertices`` (v,) with arcs of ``radius`` mm, all in one go.

    On straight legs the tangent length is r·tan(θ/2); on curved ones the arc's centre is where the
    legs' offsets at r cross, found by Newton from there. A vertex whose tangents do not fit beside
    those of its neighbours is crowded and stays; with ``shrink`` its radius is taken smaller
    instead. A turn of 179° or more stays as it is.
    """
    corners = _corners_of(lines, vertices)
    if not len(corners.at) or radius <= 0:
        return [_as_it_is(line) for line in lines]
    radii = np.full(len(corners.at), float(radius))
    if shrink:
        radii = np.minimum(radii, 0.45 * _room(corners) / np.tan(np.abs(corners.turn) / 2))
    before, after, centre, sweep, settled = _touching(lines, corners, radii)
    fits = settled & (before < corners.at) & (after > corners.at)
    fits &= ~_overlapping(corners, before, after, fits)
    arcs = _Arcs(corners.which[fits], before[fits], after[fits], centre[fits], radii[fits], sweep[fits])
    made = iter(_assembled(lines, arcs))
    changed = set(arcs.which.tolist())
    out = [Rounded(*next(made), np.zeros(0)) if i in changed else _as_it_is(line) for i, line in enumerate(lines)]
    for i in set(corners.which[~fits].tolist()):
        out[i] = replace(out[i], crowded=corners.at[~fits & (corners.which == i)])
    return out


def _as_it_is(line: MeasuredLine) -> Rounded:
    return Rounded(line, np.zeros(0), np.zeros(0), np.zeros(0))


class _Corners(NamedTuple):
    """Corners (c,) line by line: the line of each, mm along it, radians; ``first`` and ``last`` (k,) are each line's, ``following`` (c,)
    is the next of the same line, the last's being its first. ``closed`` and ``length`` (c,) are the lines'.
    """

    which: np.ndarray
    at: np.ndarray
    turn: np.ndarray
    first: np.ndarray
    last: np.ndarray
    following: np.ndarray
    closed: np.ndarray
    length: np.ndarray


class _Arcs(NamedTuple):
    """Arcs (c,) line by line: from where to where along the line they lie, where they turn about, mm, and by how much, radians."""

    which: np.ndarray
    before: np.ndarray
    after: np.ndarray
    centre: np.ndarray
    radii: np.ndarray
    sweep: np.ndarray


def _corners_of(lines: Sequence[MeasuredLine], vertices: Sequence[np.ndarray]) -> _Corners:
    """Return those of the vertices that can be rounded."""
    which = owners(np.array([len(own) for own in vertices], int))
    at, turn = (
        np.concatenate([getattr(line, name)[own] for line, own in zip(lines, vertices, strict=True)])
        for name in ("vertex_s", "vertex_turn")
    )
    length, closed = np.array([[line.length, line.closed] for line in lines]).T
    keep = (np.abs(turn) > 1e-9) & (np.abs(turn) < SHARPEST_TURN) & (length[which] > 0)
    which = which[keep]
    first = run_heads(which)
    last = np.append(first[1:], len(which))[: len(first)] - 1
    following = np.arange(len(which)) + 1
    following[last] = first
    return _Corners(which, at[keep], turn[keep], first, last, following, closed[which].astype(bool), length[which])


def _room(corners: _Corners) -> np.ndarray:
    """Return the mm (c,) from each corner to the nearer of its neighbours, or to an open line's end."""
    at, first, last = corners.at, corners.first, corners.last
    closed, length = corners.closed[first], corners.length[first]
    before, after = np.append(0.0, at[:-1]), np.append(at[1:], 0.0)
    before[first], after[last] = np.where(closed, at[last] - length, 0.0), np.where(closed, at[first] + length, length)
    return np.minimum(at - before, after - at)


def _touching(lines: Sequence[MeasuredLine], corners: _Corners, radii: np.ndarray):
    """Return where along its line each arc touches both legs (c,), its centre (c, 2) and sweep (c,), and whether it was found (c,)."""
    side, reach = np.sign(corners.turn), radii * np.tan(np.abs(corners.turn) / 2)  # the arc lies to the right of a right turn
    back, fore, r = reach.copy(), reach.copy(), side * radii
    centre, sweep, settled = np.zeros((len(radii), 2)), np.zeros(len(radii)), np.zeros(len(radii), bool)
    bits, left = np.zeros(0), np.arange(len(radii))  # those not found yet
    for _ in range(NEWTON_ROUNDS):
        at, n = corners.at[left], len(left)
        both, bends = frames_and_bends_on(lines, np.tile(corners.which[left], 2), np.concatenate([at - back[left], at + fore[left]]))
        a, b = (Frames(both.position[half], both.tangent[half]) for half in (slice(n), slice(n, None)))
        if not len(bits):  # far from the origin, or along a line, places are no finer
            largest = np.maximum(np.maximum.reduceat(np.abs(a.position).max(axis=1), corners.first), corners.length[corners.first])
            bits = LAST_BITS * np.repeat(largest, corners.last - corners.first + 1)
        own = r[left, None]
        centre[left] = a.position + own * a.normal
        sweep[left] = np.arctan2(cross(a.tangent, b.tangent), (a.tangent * b.tangent).sum(axis=1))
        miss = centre[left] - (b.position + own * b.normal)
        # d/d(back) of the first offset is −T·(1 − k·r), d/d(fore) of the second T·(1 − k·r)
        way_a = -a.tangent * (1 - bends[:n, None] * own)
        way_b = b.tangent * (1 - bends[n:, None] * own)
        determinant = cross(way_a, -way_b)
        settled[left] = np.hypot(*miss.T) < np.maximum(1e-9 * np.maximum(radii[left], 1e-3), bits[left])
        still = ~settled[left] & (np.abs(determinant) > 1e-12)
        if not still.any():
            break
        left, miss, way_a, way_b, determinant = left[still], miss[still], way_a[still], way_b[still], determinant[still]
        step_back, step_fore = cross(-miss, -way_b) / determinant, cross(way_a, -miss) / determinant
        back[left] = np.clip(back[left] + step_back, 0.2 * back[left], 5 * back[left])
        fore[left] = np.clip(fore[left] + step_fore, 0.2 * fore[left], 5 * fore[left])
    return corners.at - back, corners.at + fore, centre, sweep, settled & (sweep * side > 0)


def _overlapping(corners: _Corners, before: np.ndarray, after: np.ndarray, fits: np.ndarray) -> np.ndarray:
    """Tell which corners (c,) reach past an open line's ends or into a neighbour's arc."""
    closed, length, following, last = corners.closed, corners.length, corners.following, corners.last
    slack = 1e-9 * length
    out = ~closed & ((before < -slack) | (after > length + slack))
    lap = np.zeros(len(out))
    lap[last] = length[last]
    meets = (after > before[following] + lap + slack) & fits & fits[following]
    meets[last] &= closed[last]
    out |= meets
    out[following[meets]] = True
    return out


def _assembled(lines: Sequence[MeasuredLine], arcs: _Arcs) -> list[tuple[MeasuredLine, np.ndarray, np.ndarray]]:
    """Put stretches and arcs together; return every line that has arcs, and distances before and after that answer to one another.

    An open line begins and ends with a stretch; a closed one goes from the end of its first arc round to its start, and after each
    stretch comes the next corner's arc.
    """
    if not len(arcs.which):
        return []
    heading = np.arctan2(*(frames_and_bends_on(lines, arcs.which, arcs.before)[0].position - arcs.centre).T[::-1])
    pieces = np.zeros((len(heading), 4, 2))
    pieces[:, 0], pieces[:, 1, 0], pieces[:, 2, 1] = arcs.centre, arcs.radii, arcs.radii
    pieces[:, 3] = np.stack([heading, arcs.sweep], axis=1)
    first = run_heads(arcs.which)
    parts = [_parted(lines[arcs.which[a]], arcs.before[a:b], arcs.after[a:b], a) for a, b in pairwise([*first.tolist(), len(arcs.which)])]
    a, b, corner = (np.concatenate(column) for column in zip(*parts, strict=True))
    own = owners(np.array([len(part[0]) for part in parts]))  # which of the lines with arcs a stretch is of
    coeffs, is_arc, stretch = stretches_of(lines, arcs.which[first][own], a, b)
    turning = np.flatnonzero(corner >= 0)  # the stretches with an arc after them
    order = np.argsort(np.append(stretch, turning + 0.5), kind="stable")
    coeffs = np.concatenate([coeffs, pieces[corner[turning]]])[order]
    is_arc = np.append(is_arc, np.ones(len(turning), bool))[order]
    edges = np.searchsorted(np.append(own[stretch], own[turning])[order], np.arange(1, len(parts)))
    turned = [lines[i] for i in arcs.which[first].tolist()]
    segments = zip(turned, np.split(coeffs, edges), np.split(is_arc, edges), strict=True)
    made = measured_all([Line(each, round_, line.closed, first_point(each, round_)) for line, each, round_ in segments])
    taken = np.where(corner >= 0, (arcs.radii * np.abs(arcs.sweep))[corner], 0.0)
    bounds = np.searchsorted(own, np.arange(len(parts) + 1))
    return [_answering(made[i], turned[i].length, a[u:v], b[u:v], taken[u:v]) for i, (u, v) in enumerate(pairwise(bounds))]


def _parted(line: MeasuredLine, before: np.ndarray, after: np.ndarray, first: int) -> tuple[np.ndarray, np.ndarray, np.ndarray]:
    """Return from where to where along a line (k,) the stretches between its arcs go, and the arc (k,) after each, −1 where none is.

    The line's arcs are numbered from ``first`` on.
    """
    corner = first + np.arange(len(before))
    if line.closed:
        return after, np.append(before[1:], before[0] + line.length), np.roll(corner, -1)
    return np.append(0.0, after), np.append(before, line.length), np.append(corner, -1)


def _answering(
    made: MeasuredLine, length: float, a: np.ndarray, b: np.ndarray, taken: np.ndarray
) -> tuple[MeasuredLine, np.ndarray, np.ndarray]:
    """Return a line made of stretches from a to b (k,) of one ``length`` mm long, ``taken`` (k,) mm of arc after each, and what answers."""
    begin = np.append(0.0, np.cumsum(b - a + taken)[:-1])
    old, new = np.stack([a, b], axis=1).ravel(), np.stack([begin, begin + b - a], axis=1).ravel()
    if not made.closed:
        return made, old, new
    # distances of the old line begin before the first corner's arc ends
    return made, np.concatenate([old - length, old, old + length]), np.concatenate([new - made.length, new, new + made.length])


def first_point(coeffs: np.ndarray, is_arc: np.ndarray) -> np.ndarray:
    """Return where segments (m, 4, 2), at least one, begin."""
    c = coeffs[0]
    return c[0] + c[1] * np.cos(c[3, 0]) + c[2] * np.sin(c[3, 0]) if is_arc[0] else c[0].copy()


def stretch_of(measured: MeasuredLine, a: float, b: float) -> tuple[np.ndarray, np.ndarray]:
    """Return the segments of a line from distance a to b, which may reach past the end of a closed one."""
    return stretches_of([measured], np.zeros(1, int), np.array([a]), np.array([b]))[:2]


def part_of_line(measured: MeasuredLine, a: float, b: float) -> MeasuredLine:
    """Return the stretch of a line from distance a to b as an open line; of a closed one it may reach past both ends."""
    rounds = a % measured.length - a if measured.closed else 0.0
    coeffs, is_arc = stretch_of(measured, a + rounds, b + rounds)
    return measure(Line(coeffs, is_arc, False, first_point(coeffs, is_arc)))


def stretches_of(
    lines: Sequence[MeasuredLine], which: np.ndarray, a: np.ndarray, b: np.ndarray
) -> tuple[np.ndarray, np.ndarray, np.ndarray]:
    """Return the segments of lines ``which`` (k,) from distances a to b (k,) behind one another, and the stretch (m,) each is of.

    A stretch of a closed line may reach past its end; one without length has no segments.
    """
    segments = Segments.of([line.line for line in lines])
    length, closed = (np.array([getattr(line, name) for line in lines])[which] for name in ("length", "closed"))
    begins, count = segments.first[which], np.bincount(segments.line, minlength=len(lines))[which]
    ends = np.concatenate([a, b])
    laps = np.where(np.tile(closed, 2), ends >= np.tile(length, 2), False).astype(int)
    laps[len(a) :] -= (laps[len(a) :] > 0) & (b == length)
    segment, t = parameters_on(lines, np.tile(which, 2), ends - laps * np.tile(length, 2))
    segment = segment - np.tile(begins, 2) + laps * np.tile(count, 2)
    first, last, t0, t1 = segment[: len(a)], segment[len(a) :], t[: len(a)], t[len(a) :]
    ended = (t0 >= 1 - 1e-12) & (first < last)
    first, t0 = np.where(ended, first + 1, first), np.where(ended, 0.0, t0)
    unbegun = (t1 <= 1e-12) & (last > first)
    last, t1 = np.where(unbegun, last - 1, last), np.where(unbegun, 1.0, t1)
    many = np.where(b - a > 1e-12 * length, last - first + 1, 0)
    stretch = owners(many)
    place = places(many)
    own = begins[stretch] + (first[stretch] + place) % np.maximum(count, 1)[stretch]
    low = np.where(place == 0, t0[stretch], 0.0)
    high = np.where(place == many[stretch] - 1, t1[stretch], 1.0)
    is_arc = segments.is_arc[own]
    return cut_segments(segments.coeffs[own], is_arc, low, high), is_arc, stretch


def cut_segments(coeffs: np.ndarray, is_arc: np.ndarray, t0: np.ndarray, t1: np.ndarray) -> np.ndarray:
    """Return segments (m, 4, 2) cut to the parameters from t0 to t1 (m,)."""
    low, width = t0[:, None], (t1 - t0)[:, None]
    c0, c1, c2, c3 = (coeffs[:, i] for i in range(4))
    out = np.stack([
        ((c3 * low + c2) * low + c1) * low + c0, ((3 * c3 * low + 2 * c2) * low + c1) * width,
        (3 * c3 * low + c2) * width**2, c3 * width**3,
    ], axis=1)  # fmt: skip
    arcs = np.flatnonzero(is_arc)
    out[arcs] = coeffs[arcs]
    start, sweep = coeffs[arcs, 3, 0], coeffs[arcs, 3, 1]
    out[arcs, 3] = np.stack([start + sweep * t0[arcs], sweep * (t1 - t0)[arcs]], axis=1)
    return out
