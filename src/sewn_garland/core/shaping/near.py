"""Where very many points of bent pieces go: two polynomials a piece, where such hold."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cache

import numpy as np
from numpy.polynomial import chebyshev

from .way import Way

NODES = 8  # of a polynomial; chosen: a piece that bends by half a radian needs fewer
PAYS = 2  # times as many points as nodes; chosen
STRAYS_MM, STRAYS_RAD = 1e-6, 2e-6  # chosen: as a line's spline does, by place and by direction
SETTLED = 2  # of a series' last coefficients are to be as small as it may stray
BEYOND = 1e-9  # share of a piece
LEAST_PART_MM = 1e-6  # of a piece, that may lie beyond where its line begins to turn


@dataclass(frozen=True, eq=False)
class Near:
    """What a ``Way`` tells, faster: a point (x, v) of a piece goes to A(u) + v·B(u), polynomials of u = (x − middle) / half.

    ``rows`` (n,) is each piece's row, −1 where the way itself is asked. By row: ``middle`` and ``half`` (k,) mm, the ``degree`` (k,)
    from which on nothing is left, and ``coeffs`` (2, degrees + 1, k), complex, of A and B by powers of u from −1 to 1.
    """

    way: Way
    rows: np.ndarray
    middle: np.ndarray
    half: np.ndarray
    degree: np.ndarray
    coeffs: np.ndarray

    def places(self, piece: np.ndarray, x: np.ndarray, v: np.ndarray) -> np.ndarray:
        """Return the places (m,)."""
        row, u, apart = self._at(piece, x)
        if len(apart) == len(x):
            return self.way.places(piece, x, v)
        along, across = self.coeffs
        place = _value(along, row, u) + v * _value(across, row, u)
        if len(apart):
            place[apart] = self.way.places(piece[apart], x[apart], v[apart])
        return place

    def moves(self, piece: np.ndarray, x: np.ndarray, v: np.ndarray) -> tuple[np.ndarray, np.ndarray, np.ndarray]:
        """Return the places (m,), and how they move a mm of x and of v (m,)."""
        row, u, apart = self._at(piece, x)
        if len(apart) == len(x):
            return self.way.moves(piece, x, v)
        (along, along_by_u), (across, across_by_u) = (_value_and_slope(coeffs, row, u) for coeffs in self.coeffs)
        found = along + v * across, (along_by_u + v * across_by_u) / self.half[row], across
        if len(apart):
            for column, exact in zip(found, self.way.moves(piece[apart], x[apart], v[apart]), strict=True):
                column[apart] = exact
        return found

    def _at(self, piece: np.ndarray, x: np.ndarray) -> tuple[np.ndarray, np.ndarray, np.ndarray]:
        """Return the row and the u (m,) of points, and those (j,) that are no piece's here or lie beyond it."""
        row = self.rows[piece]
        u = (x - self.middle[row]) / self.half[row]
        apart = np.flatnonzero((row < 0) | (np.abs(u) > 1 + BEYOND))
        u[apart] = 0.0
        return row, u, apart


def near(way: Way, pieces: np.ndarray, low: np.ndarray, high: np.ndarray, reach: np.ndarray) -> Way | Near:
    """Return what tells where points of ``pieces`` (p,) go, with x from ``low`` to ``high`` and v up to ``reach`` (p,) mm either way.

    A piece has polynomials where the last coefficients of their series say that they stray by little more than a line's spline may: a
    millionth of a millimetre, and twice as much of what lies off the line. It has none where its line turns about a vertex, nor where
    it is one of few. Where none has, that is the way itself.
    """
    fit = way.crowd[pieces] & (high > low)
    if not fit.any():
        return way
    fit &= ~_turning(way, pieces, low, high)
    pieces, middle, half, reach = pieces[fit], (low + high)[fit] / 2, (high - low)[fit] / 2, reach[fit]
    nodes, to_series = _nodes()
    at = (middle[:, None] + half[:, None] * nodes).ravel()
    place, _, across = way.moves(np.repeat(pieces, NODES), at, np.zeros(len(at)))
    series = np.stack([(values.reshape(-1, NODES) @ to_series.T).T for values in (place, across)])
    off, most = np.abs(series[0]) + reach * np.abs(series[1]), STRAYS_MM + STRAYS_RAD * reach
    good = off[-SETTLED:].max(axis=0, initial=0.0) <= most
    if not good.any():
        return way
    rows = np.full(len(way.s), -1)
    rows[pieces[good]] = np.arange(int(good.sum()))
    left = off[::-1, good].cumsum(axis=0)[::-1]  # from each degree on
    degree = np.maximum((left > STRAYS_MM).sum(axis=0) - 1, 1)
    return Near(way, rows, middle[good], half[good], degree, _shortened(series[:, :, good], degree)[:, : int(degree.max()) + 1])


def near_points(way: Way, pieces: np.ndarray, points: np.ndarray) -> Way | Near:
    """Return what tells where points (k, m), x + iv, of pieces (k,) go: the way itself where they are few."""
    if points.shape[1] < PAYS * NODES or not way.crowd[pieces].any():
        return way
    x = np.real(points)
    return near(way, pieces, x.min(axis=1), x.max(axis=1), np.abs(np.imag(points)).max(axis=1))


def _turning(way: Way, pieces: np.ndarray, low: np.ndarray, high: np.ndarray) -> np.ndarray:
    """Tell of pieces (p,) whether their line begins or ends to turn about a vertex between ``low`` and ``high`` (p,)."""
    at, x, _ = way.breaks_of(pieces)
    inside = (x > low[at] + LEAST_PART_MM) & (x < high[at] - LEAST_PART_MM)
    turning = np.zeros(len(pieces), bool)
    turning[at[inside]] = True
    return turning


def _shortened(series: np.ndarray, degree: np.ndarray) -> np.ndarray:
    """Return polynomials by powers (2, n, k) out of series without what lies beyond their degrees (k,), the same at both ends.

    There neighbours meet.
    """
    beyond = np.where(np.arange(NODES)[:, None] > degree, series, 0.0)
    high, low = beyond.sum(axis=1), (beyond * (-1.0) ** np.arange(NODES)[:, None]).sum(axis=1)
    kept = series - beyond
    kept[:, 0] += (high + low) / 2
    kept[:, 1] += (high - low) / 2
    return np.einsum("ij,kjn->kin", _to_powers(), kept)


@cache
def _nodes() -> tuple[np.ndarray, np.ndarray]:
    """Return Chebyshev's nodes (n,) from −1 to 1, both among them, and the matrix (n, n) from values there to his series."""
    nodes = chebyshev.chebpts2(NODES)
    return nodes, np.linalg.inv(chebyshev.chebvander(nodes, NODES - 1))


@cache
def _to_powers() -> np.ndarray:
    """Return the matrix (n, n) from a series of Chebyshev's polynomials to powers."""
    out = np.zeros((NODES, NODES))
    for k in range(NODES):
        powers = chebyshev.cheb2poly(np.eye(NODES)[k, : k + 1])
        out[: len(powers), k] = powers
    return out


def _value(coeffs: np.ndarray, row: np.ndarray, u: np.ndarray) -> np.ndarray:
    value = coeffs[-1][row]
    for power in coeffs[-2::-1]:
        value *= u
        value += power[row]
    return value


def _value_and_slope(coeffs: np.ndarray, row: np.ndarray, u: np.ndarray) -> tuple[np.ndarray, np.ndarray]:
    value = coeffs[-1][row]
    slope = np.zeros_like(value)
    for power in coeffs[-2::-1]:
        slope *= u
        slope += value
        value *= u
        value += power[row]
    return value, slope
