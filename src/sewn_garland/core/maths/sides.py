"""Very many pairs of polygons, by their sides: how much of them overlaps."""

from __future__ import annotations

import numpy as np

from .compiled import compiled, for_compiled

MOST_A_SIDE = 150  # others beside each side of two polygons up to which they are summed; chosen


def overlaps(one: np.ndarray, begins: np.ndarray, two: np.ndarray, others: np.ndarray, along: np.ndarray) -> np.ndarray:
    """Return how much (p,) of polygons ``one`` (p, m) and ``two`` (p, n), complex, overlaps; they may not cross themselves. NaN where
    they have so many sides beside one another that polygons are sooner cut than summed.

    Sides go on from their points ``begins`` (k,) and ``others`` (j,) to the next ones.
    ``along`` (p,), unit complex numbers, leads from the first to the second. Seen so, the first is what lies before its sides that end
    it but not before those that begin it, and the second likewise what lies behind: the two share the sum, over each pair of
    sides, of how far one lies behind the other. Sides of the first before all of the second, and the other way round, do not count.
    """
    own, their = ((for_compiled(each, complex), for_compiled(sides, int)) for each, sides in ((one, begins), (two, others)))
    return _overlaps(*own, *their, for_compiled(np.conj(along), complex), MOST_A_SIDE * (len(begins) + len(others)))


@compiled
def _overlaps(one, begins, two, others, turn, most):
    out, own, their = np.zeros(len(one)), np.empty((len(begins), 5)), np.empty((len(others), 5))
    for i in range(len(one)):
        left, right, _, last = _room(one, i, begins, turn[i])
        their_left, their_right, first, _ = _room(two, i, others, turn[i])
        left, right = max(left, their_left), min(right, their_right)
        if left < right and first < last:
            many = _put_across(one, i, begins, turn[i], left, right, first, np.inf, own)
            their_many = _put_across(two, i, others, turn[i], left, right, -np.inf, last, their)
            out[i] = _shared(own, np.argsort(own[:many, 0]), their, np.argsort(their[:their_many, 0]), most)
    return out


@compiled
def _turned(points, i, k, turn):
    """Return a point, turned, as x and y."""
    z = points[i, k]
    return z.real * turn.real - z.imag * turn.imag, z.real * turn.imag + z.imag * turn.real


@compiled
def _room(points, i, begins, turn):
    """Return from which to which y, and from which to which x, a polygon reaches, turned."""
    left = first = np.inf
    right = last = -np.inf
    for k in begins:
        x, y = _turned(points, i, k, turn)
        left, right, first, last = min(left, y), max(right, y), min(first, x), max(last, x)
    return left, right, first, last


@compiled
def _put_across(points, i, begins, turn, left, right, first, last, table):
    """Put of the sides, turned, that reach past ``first`` and begin before ``last``, between ``left`` and ``right``: from which to which
    y they go, the x at the first, its change with y, and which way they run. Return how many these are.
    """
    n = 0
    for k in begins:
        x, y = _turned(points, i, k, turn)
        x_end, y_end = _turned(points, i, k + 1, turn)
        low, high = min(y, y_end), max(y, y_end)
        if low < high and low < right and left < high and max(x, x_end) > first and min(x, x_end) < last:
            up = y_end > y
            table[n, 0], table[n, 1], table[n, 2] = low, high, x if up else x_end
            table[n, 3], table[n, 4] = (x_end - x) / (y_end - y), 1.0 if up else -1.0
            n += 1
    return n


@compiled
def _shared(own, order, their, their_order, most):
    """Return what two polygons share, by sides in the order in which they begin; NaN if more than ``most`` pairs lie beside one another."""
    shared, met, j, i = 0.0, 0, 0, 0
    for a in order:  # with those that begin while it lasts
        while j < len(their_order) and their[their_order[j], 0] < own[a, 0]:
            j += 1
        k = j
        while k < len(their_order) and their[their_order[k], 0] < own[a, 1]:
            shared += _behind(own, a, their, their_order[k])
            k += 1
        met += k - j
        if met > most:
            return np.nan
    for b in their_order:
        while i < len(order) and own[order[i], 0] <= their[b, 0]:
            i += 1
        k = i
        while k < len(order) and own[order[k], 0] < their[b, 1]:
            shared += _behind(own, order[k], their, b)
            k += 1
        met += k - i
        if met > most:
            return np.nan
    return abs(shared)


@compiled
def _behind(own, a, their, b):
    """Return how much of the way, where two sides lie beside one another, the one of the first polygon lies behind the other's."""
    low, high = max(own[a, 0], their[b, 0]), min(own[a, 1], their[b, 1])
    begin = own[a, 2] + own[a, 3] * (low - own[a, 0]) - their[b, 2] - their[b, 3] * (low - their[b, 0])
    end = own[a, 2] + own[a, 3] * (high - own[a, 0]) - their[b, 2] - their[b, 3] * (high - their[b, 0])
    return own[a, 4] * their[b, 4] * _above(begin, end) * (high - low)


@compiled
def _above(begin, end):
    """Return how far a straight line, from one height to another, lies above 0 in the mean."""
    over = max(begin, 0.0) + max(end, 0.0)
    return over / 2 * over / (abs(begin) + abs(end)) if begin * end < 0 else over / 2
