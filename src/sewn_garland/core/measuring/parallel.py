"""Lines beside a line at a fixed distance."""

from __future__ import annotations

from functools import lru_cache

import numpy as np

from ..values.line import Line, MeasuredLine
from .arc_length import frames_and_bends_on, measure

TOLERANCE_MM = 1e-4  # of the parallel's own place
FEWEST_PIECES, MOST_PIECES = 8, 4096  # of a leg that bends
HALFWAY = 0.5 ** np.arange(4)  # the powers of t in the middle of a cubic
LONGEST_CHANGE = 2.0  # of a cubic over its chord: half a circle's
SHARPEST_TURN = np.radians(175.0)


@lru_cache(maxsize=512)
def parallel(measured: MeasuredLine, beside: float) -> MeasuredLine:
    """Return the line ``beside`` mm to the right of another's travel (negative: to the left).

    At a vertex the sides meet where the two legs' parallels do: they are trimmed on the inner side
    and go straight on to the point on the outer one; where the line turns back on itself they are
    joined straight across. Where a bend is tighter than the distance the parallel turns back on itself, as the bend's finding says.
    """
    if measured.length <= 0 or beside == 0:
        return measured
    corner = np.abs(measured.vertex_turn) * abs(beside) > TOLERANCE_MM / 2  # at lesser ones the sides meet well enough
    at, turn = measured.vertex_s[corner], measured.vertex_turn[corner]
    trim = np.where(np.abs(turn) < SHARPEST_TURN, beside * np.tan(turn / 2), 0.0)
    coeffs = _joined(_beside(measured, *_legs(measured, at, trim), beside), closed=measured.closed)
    return measure(Line(coeffs, np.zeros(len(coeffs), bool), measured.closed, coeffs[0, 0] if len(coeffs) else measured.line.start))


def _legs(measured: MeasuredLine, at: np.ndarray, trim: np.ndarray) -> tuple[np.ndarray, np.ndarray, np.ndarray, np.ndarray]:
    """Return from where to where each leg goes, its vertices, and what its parallel is trimmed by at both: arrays (n,)."""
    if measured.closed and len(at):
        return at, np.append(at[1:], at[0] + measured.length), trim, np.roll(trim, -1)
    edges, trims = np.concatenate([[0.0], at, [measured.length]]), np.concatenate([[0.0], trim, [0.0]])
    return edges[:-1], edges[1:], trims[:-1], trims[1:]


def _beside(measured: MeasuredLine, a: np.ndarray, b: np.ndarray, trim_a: np.ndarray, trim_b: np.ndarray, beside: float) -> np.ndarray:
    """Return the parallels of all legs (n,) as cubics in power form (m, 4, 2), leg after leg; of some nothing is left.

    A leg's stretches are halved where they are off, each for itself, so that one sharp bend does not refine its whole leg.
    """
    low, high = a + trim_a, b - trim_b
    leg = np.flatnonzero(high - low > 1e-9 * measured.length)
    number, count = np.zeros(len(leg), int), 1  # which of the ``count`` equal stretches of its leg each is
    done: list[tuple[np.ndarray, np.ndarray, np.ndarray]] = [(np.zeros(0, int), np.zeros(0), np.zeros((0, 4, 2)))]
    while len(leg):
        step = (high - low)[leg] / count
        s = low[leg, None] + step[:, None] * (number[:, None] + np.array([0.0, 0.5, 1.0]))
        begin, finish = np.repeat(a[leg], 3), np.repeat(b[leg], 3)
        place, way, bent = (part.reshape(*s.shape, *part.shape[1:]) for part in _at(measured, s.ravel(), begin, finish, beside))
        coeffs = _cubics(place[:, ::2], way[:, ::2] * step[:, None, None], bounded=count >= MOST_PIECES)
        bends = bent.any(axis=1)
        straight = ~bends & (count == 1)
        coeffs[straight, 1], coeffs[straight, 2:] = (place[:, 2] - place[:, 0])[straight], 0.0
        middle = np.einsum("nkd,k->nd", coeffs, HALFWAY)
        off = np.hypot(*(middle - place[:, 1]).T)
        good = (count >= MOST_PIECES) | ((off <= TOLERANCE_MM) & ((count >= FEWEST_PIECES) | ~bends))
        done.append((leg[good], number[good] / count, coeffs[good]))
        leg, number, count = np.repeat(leg[~good], 2), np.stack([2 * number[~good], 2 * number[~good] + 1], axis=1).ravel(), 2 * count
    leg, share, coeffs = (np.concatenate(column) for column in zip(*done, strict=True))
    return coeffs[np.lexsort((share, leg))]


def _cubics(place: np.ndarray, way: np.ndarray, *, bounded: bool) -> np.ndarray:
    """Return the cubics (n, 4, 2) in power form with these ends (n, 2, 2) and changes at them (n, 2, 2).

    Where a curve turns back on itself its bend, and the change with it, has no bound; ``bounded`` cubics get one.
    """
    (p0, p1), (d0, d1) = np.moveaxis(place, 1, 0), np.moveaxis(way, 1, 0)
    if bounded:
        most = LONGEST_CHANGE * np.hypot(*(p1 - p0).T)[:, None]
        d0, d1 = (d * np.minimum(1.0, most / np.maximum(np.hypot(*d.T)[:, None], 1e-300)) for d in (d0, d1))
    return np.stack([p0, d0, 3 * (p1 - p0) - 2 * d0 - d1, 2 * (p0 - p1) + d0 + d1], axis=1)


def _at(measured: MeasuredLine, s: np.ndarray, a: np.ndarray, b: np.ndarray, beside: float) -> tuple[np.ndarray, np.ndarray, np.ndarray]:
    """Return places beside a leg, their change a mm and where it bends, straight on beyond its vertices."""
    slack = 1e-9 * measured.length
    inside = np.clip(s, a + slack, b - slack)
    frames, bend = frames_and_bends_on([measured], np.zeros(len(s), int), inside)
    beyond = s - inside
    bend = np.where(np.abs(beyond) > 2 * slack, 0.0, bend)
    place = frames.position + beyond[:, None] * frames.tangent + beside * frames.normal
    return place, frames.tangent * (1 - bend * beside)[:, None], np.abs(bend) > 1e-12


def _joined(coeffs: np.ndarray, *, closed: bool) -> np.ndarray:
    """Put straight sides where the parallels of two curved legs do not quite meet, and close a closed line."""
    if not len(coeffs):
        return coeffs
    ends = coeffs.sum(axis=1)
    starts = np.roll(coeffs[:, 0], -1, axis=0)
    apart = np.hypot(*(starts - ends).T)
    gaps = np.flatnonzero(apart > 1e-9)
    gaps = gaps[(gaps < len(coeffs) - 1) | closed]
    sides = np.zeros((len(gaps), 4, 2))
    sides[:, 0], sides[:, 1] = ends[gaps], (starts - ends)[gaps]
    order = np.argsort(np.concatenate([np.arange(len(coeffs)), gaps + 0.5]), kind="stable")
    return np.concatenate([coeffs, sides])[order]
