"""Round the vertices of a line by arcs that touch both legs."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from ..maths.curves import cross
from ..maths.ragged import owners, places
from ..values.arrays import freeze_arrays
from ..values.line import Frames, Line, MeasuredLine
from .arc_length import frames_and_bends_on, measure, parameters_at

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
    """Round the vertices numbered ``vertices`` (v,) with arcs of ``radius`` mm.

    On straight legs the tangent length is r·tan(θ/2); on curved ones the arc's centre is where the
    legs' offsets at r cross, found by Newton from there. A vertex whose tangents do not fit beside
    those of its neighbours is crowded and stays; with ``shrink`` its radius is taken smaller
    instead. A turn of 179° or more stays as it is.
    """
    turn = measured.vertex_turn[vertices]
    keep = (np.abs(turn) > 1e-9) & (np.abs(turn) < SHARPEST_TURN)
    at, turn = measured.vertex_s[vertices][keep], turn[keep]
    if not len(at) or radius <= 0 or measured.length <= 0:
        return Rounded(measured, np.zeros(0), np.zeros(0), np.zeros(0))
    room = _room(measured, at)
    radii = np.full(len(at), float(radius))
    if shrink:
        radii = np.minimum(radii, 0.45 * room / np.tan(np.abs(turn) / 2))
    before, after, centre, sweep, settled = _touching(measured, at, turn, radii)
    fits = settled & (before < at) & (after > at)
    fits &= ~_overlapping(measured, at, before, after, fits)
    crowded = at[~fits]
    if not fits.any():
        return Rounded(measured, np.zeros(0), np.zeros(0), crowded)
    line, old, new = _assembled(measured, before[fits], after[fits], centre[fits], radii[fits], sweep[fits])
    return Rounded(line, old, new, crowded)


def _room(measured: MeasuredLine, at: np.ndarray) -> np.ndarray:
    """Return the mm (c,) from each corner to the nearer of its neighbours, or to an open line's end."""
    if measured.closed:
        around = np.concatenate([[at[-1] - measured.length], at, [at[0] + measured.length]])
    else:
        around = np.concatenate([[0.0], at, [measured.length]])
    gaps = np.diff(around)
    return np.minimum(gaps[:-1], gaps[1:])


def _touching(measured: MeasuredLine, at, turn, radii):
    """Return where along the line each arc touches both legs (c,), its centre (c, 2) and sweep (c,), and whether it was found (c,)."""
    which, n = np.zeros(2 * len(at), int), len(at)
    side = np.sign(turn)  # the arc lies to the right of a right turn
    back = fore = radii * np.tan(np.abs(turn) / 2)
    settled = np.zeros(len(at), bool)
    for _ in range(NEWTON_ROUNDS):
        both, bends = frames_and_bends_on([measured], which, np.concatenate([at - back, at + fore]))
        a, b = (Frames(both.position[half], both.tangent[half]) for half in (slice(n), slice(n, None)))
        ka, kb = bends[:n], bends[n:]
        miss = (a.position + (side * radii)[:, None] * a.normal) - (b.position + (side * radii)[:, None] * b.normal)
        bits = LAST_BITS * np.abs(a.position).max(initial=0.0)  # far from the origin places are no finer
        settled = np.hypot(*miss.T) < np.maximum(1e-9 * np.maximum(radii, 1e-3), bits)
        if settled.all():
            break
        # d/d(back) of the first offset is −T·(1 − k·r), d/d(fore) of the second T·(1 − k·r)
        way_a = -a.tangent * (1 - ka * side * radii)[:, None]
        way_b = b.tangent * (1 - kb * side * radii)[:, None]
        determinant = cross(way_a, -way_b)
        safe = np.where(np.abs(determinant) > 1e-12, determinant, 1.0)
        step_back = cross(-miss, -way_b) / safe
        step_fore = cross(way_a, -miss) / safe
        still = ~settled & (np.abs(determinant) > 1e-12)
        back = np.where(still, np.clip(back + step_back, 0.2 * back, 5 * back), back)
        fore = np.where(still, np.clip(fore + step_fore, 0.2 * fore, 5 * fore), fore)
    sweep = np.arctan2(cross(a.tangent, b.tangent), (a.tangent * b.tangent).sum(axis=1))
    return at - back, at + fore, a.position + (side * radii)[:, None] * a.normal, sweep, settled & (sweep * side > 0)


def _overlapping(measured: MeasuredLine, at, before, after, fits) -> np.ndarray:
    """Tell which corners (c,) reach past an open line's ends or into a neighbour's arc."""
    out = np.zeros(len(at), bool)
    slack = 1e-9 * measured.length
    if not measured.closed:
        out |= (before < -slack) | (after > measured.length + slack)
    following = np.roll(np.arange(len(at)), -1)
    lap = np.where(following <= np.arange(len(at)), measured.length, 0.0)
    meets = after > before[following] + lap + slack
    if not measured.closed:
        meets[-1:] = False
    meets &= fits & fits[following]
    return out | meets | np.roll(meets, 1)


def _assembled(measured: MeasuredLine, before, after, centre, radii, sweep) -> tuple[MeasuredLine, np.ndarray, np.ndarray]:
    """Put the stretches between the arcs and the arcs together; return the line and distances that answer to one another."""
    length, closed = measured.length, measured.closed
    if closed:  # from the end of the first arc round to its start: after each stretch comes the next corner's arc
        a, b = after, np.append(before[1:], before[0] + length)
        corner = np.append(np.arange(1, len(before)), 0)
    else:
        a, b = np.append(0.0, after), np.append(before, length)
        corner = np.arange(len(before))
    heading = np.arctan2(*(frames_and_bends_on([measured], np.zeros(len(before), int), before)[0].position - centre).T[::-1])
    arcs = np.zeros((len(before), 4, 2))
    arcs[:, 0], arcs[:, 1, 0], arcs[:, 2, 1] = centre, radii, radii
    arcs[:, 3] = np.stack([heading, sweep], axis=1)
    coeffs, is_arc, stretch = stretches_of(measured, a, b)
    order = np.argsort(np.append(stretch, np.arange(len(corner)) + 0.5), kind="stable")
    coeffs = np.concatenate([coeffs, arcs[corner]])[order]
    is_arc = np.append(is_arc, np.ones(len(corner), bool))[order]
    made = measure(Line(coeffs, is_arc, closed, first_point(coeffs, is_arc)))
    taken = np.append(radii[corner] * np.abs(sweep[corner]), np.zeros(len(a) - len(corner)))
    begin = np.append(0.0, np.cumsum(b - a + taken)[:-1])
    old, new = np.stack([a, b], axis=1).ravel(), np.stack([begin, begin + b - a], axis=1).ravel()
    if closed:  # distances of the old line begin before the first corner's arc ends
        lap_old, lap_new = np.concatenate([old - length, old, old + length]), np.concatenate([new - made.length, new, new + made.length])
        return made, lap_old, lap_new
    return made, old, new


def first_point(coeffs: np.ndarray, is_arc: np.ndarray) -> np.ndarray:
    """Return where segments (m, 4, 2), at least one, begin."""
    c = coeffs[0]
    return c[0] + c[1] * np.cos(c[3, 0]) + c[2] * np.sin(c[3, 0]) if is_arc[0] else c[0].copy()


def stretch_of(measured: MeasuredLine, a: float, b: float) -> tuple[np.ndarray, np.ndarray]:
    """Return the segments of a line from distance a to b, which may reach past the end of a closed one."""
    return stretches_of(measured, np.array([a]), np.array([b]))[:2]


def stretches_of(measured: MeasuredLine, a: np.ndarray, b: np.ndarray) -> tuple[np.ndarray, np.ndarray, np.ndarray]:
    """Return the segments of a line from distances a to b (k,) behind one another, and the stretch (m,) each is of.

    A stretch of a closed line may reach past its end; one without length has no segments.
    """
    line, length, count = measured.line, measured.length, len(measured.line.coeffs)
    ends = np.concatenate([a, b])
    laps = (ends >= length).astype(int) if measured.closed else np.zeros(len(ends), int)
    laps[len(a) :] -= (laps[len(a) :] > 0) & (b == length)
    segment, t = parameters_at(measured, ends - laps * length)
    segment = segment + laps * count
    first, last, t0, t1 = segment[: len(a)], segment[len(a) :], t[: len(a)], t[len(a) :]
    ended = (t0 >= 1 - 1e-12) & (first < last)
    first, t0 = np.where(ended, first + 1, first), np.where(ended, 0.0, t0)
    unbegun = (t1 <= 1e-12) & (last > first)
    last, t1 = np.where(unbegun, last - 1, last), np.where(unbegun, 1.0, t1)
    many = np.where(b - a > 1e-12 * length, last - first + 1, 0)
    stretch = owners(many)
    place = places(many)
    which = (first[stretch] + place) % max(count, 1)
    low = np.where(place == 0, t0[stretch], 0.0)
    high = np.where(place == many[stretch] - 1, t1[stretch], 1.0)
    is_arc = line.is_arc[which]
    return cut_segments(line.coeffs[which], is_arc, low, high), is_arc, stretch


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
