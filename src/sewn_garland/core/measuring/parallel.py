"""Lines beside a line at a fixed distance."""

from __future__ import annotations

from functools import lru_cache

import numpy as np

from ..values.line import Line, MeasuredLine
from .arc_length import frames_and_bends_on, measure

TOLERANCE_MM = 1e-4  # of the parallel's own place
MOST_PIECES = 4096
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
    """Return the parallels of all legs (n,) as cubics in power form (m, 4, 2), leg after leg; of some nothing is left."""
    low, high = a + trim_a, b - trim_b
    legs, count = np.flatnonzero(high - low > 1e-9 * measured.length), 1
    done: list[tuple[np.ndarray, np.ndarray]] = [(np.zeros(0, int), np.zeros((0, 4, 2)))]
    while len(legs):

        def beside_at(share: np.ndarray, legs=legs):
            s = low[legs, None] + share * (high - low)[legs, None]
            begin, finish = (np.repeat(end[legs], len(share)) for end in (a, b))
            return (found.reshape(*s.shape, *found.shape[1:]) for found in _at(measured, s.ravel(), begin, finish, beside))

        place, way, bent = beside_at(np.linspace(0, 1, count + 1))
        step = ((high - low)[legs] / count)[:, None, None]
        p0, p1, d0, d1 = place[:, :-1], place[:, 1:], way[:, :-1] * step, way[:, 1:] * step
        if count >= MOST_PIECES:  # where a curve turns back on itself its bend, and the change with it, has no bound
            most = LONGEST_CHANGE * np.hypot(*np.moveaxis(p1 - p0, 2, 0))[..., None]
            d0, d1 = (d * np.minimum(1.0, most / np.maximum(np.hypot(*np.moveaxis(d, 2, 0))[..., None], 1e-300)) for d in (d0, d1))
        coeffs = np.stack([p0, d0, 3 * (p1 - p0) - 2 * d0 - d1, 2 * (p0 - p1) + d0 + d1], axis=2)
        straight = ~bent.any(axis=1) & (count == 1)
        coeffs[straight, :, 1], coeffs[straight, :, 2:] = (p1 - p0)[straight], 0.0
        middle = coeffs[:, :, 0] + coeffs[:, :, 1] / 2 + coeffs[:, :, 2] / 4 + coeffs[:, :, 3] / 8
        true = next(beside_at((np.arange(count) + 0.5) / count))
        off = np.hypot(*np.moveaxis(middle - true, 2, 0)).max(axis=1)
        good = (count >= MOST_PIECES) | ((off <= TOLERANCE_MM) & ((count >= 8) | ~bent.any(axis=1)))
        done.append((np.repeat(legs[good], count), coeffs[good].reshape(-1, 4, 2)))
        legs, count = legs[~good], 2 * count
    leg, coeffs = (np.concatenate(column) for column in zip(*done, strict=True))
    return coeffs[np.argsort(leg, kind="stable")]


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
