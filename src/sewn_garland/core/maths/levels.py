"""Split cubics where their x passes given levels."""

from __future__ import annotations

from typing import NamedTuple

import numpy as np

from .compiled import compiled, for_compiled

LEAST_PAST = 1e-6  # by which a cubic goes past a level on both sides to pass it; as small as parts may be, chosen
ROUNDS = 44  # of halving, which Newton's steps seldom need
SETTLED = 1e-14  # of a parameter
EVEN_REL_TOL = 1e-14  # of a cubic's rise: a straight side's last bits


class Split(NamedTuple):
    """The ``parts`` (k, 4) of cubics, complex, in order: the ``row`` (k,) each is of, where in it (k,) it ``begin``s, how many of all
    levels (k,) lie ``before`` its middle, its own cubic's, and whether its begin and its end (k, 2) lie on one, ``passing`` it.
    """

    parts: np.ndarray
    row: np.ndarray
    begin: np.ndarray
    before: np.ndarray
    passing: np.ndarray


def split_at_levels(cubics: np.ndarray, first: np.ndarray, end: np.ndarray, levels: np.ndarray, *, most: int) -> Split | None:
    """Split cubics (n, 4), complex, where their x passes their own ones of ``levels`` (m,), rising, from ``first`` (n,) up to ``end`` (n,).

    Return None where they pass ``most`` or more. No cubics give none. Parts that follow on one another share their ends to the bit.
    """
    cubics, levels = for_compiled(cubics, complex), for_compiled(levels, float)
    first, end = for_compiled(first, int), for_compiled(end, int)
    row, at = _passed(cubics, first, end, levels, most)
    return None if len(row) >= most else Split(*_parts(cubics, first, end, levels, row, at))


@compiled
def _passed(cubics, first, end, levels, most):
    """Return the rows of cubics that pass levels, once a level, and the parameters where, in order; it stops at ``most``."""
    row, at, count = np.empty(64, np.int64), np.empty(64), 0
    bounds = np.empty(4)
    for i in range(len(cubics)):
        x0, x1, x2, x3 = cubics[i, 0].real, cubics[i, 1].real, cubics[i, 2].real, cubics[i, 3].real
        least, largest = min(min(x0, x1), min(x2, x3)), max(max(x0, x1), max(x2, x3))
        low = first_beyond(levels, first[i], end[i], least)
        high = low
        while high < end[i] and levels[high] < largest:
            high += 1
        if low >= high:
            continue
        ways = _one_way(x0, x1, x2, x3, least, largest, bounds)
        for k in range(ways):
            t0, t1 = bounds[k], bounds[k + 1]
            a, b = _value(x0, x1, x2, x3, t0), _value(x0, x1, x2, x3, t1)
            rising = b > a
            for j in range(high - low):
                level = levels[low + j] if rising else levels[high - 1 - j]
                if not (min(a, b) < level - LEAST_PAST and max(a, b) > level + LEAST_PAST):
                    continue
                if count == len(row):
                    row, at = np.append(row, row), np.append(at, at)
                row[count], at[count] = i, _reached(x0, x1, x2, x3, level, t0, t1, rising)
                count += 1
                if count >= most:
                    return row[:count], at[:count]
    return row[:count], at[:count]


@compiled
def first_beyond(levels, first, end, x):
    """Return the first place from ``first`` on, at most ``end``, with a level beyond x."""
    while first < end:
        middle = (first + end) // 2
        if levels[middle] <= x:
            first = middle + 1
        else:
            end = middle
    return first


@compiled
def extent(x0, x1, x2, x3):
    """Return from which to which x a cubic goes."""
    one, two = _turns(x0, x1, x2, x3)
    one, two = _value(x0, x1, x2, x3, one), _value(x0, x1, x2, x3, two)
    return min(min(x0, x3), min(one, two)), max(max(x0, x3), max(one, two))


@compiled
def _turns(x0, x1, x2, x3):
    """Return the two parameters, the lesser first, at which a cubic turns back, 1 where it does not."""
    a, b, c = x1 - x0, x2 - x1, x3 - x2
    square, half = a - 2 * b + c, b - a  # a third of the derivative is square·t² + 2·half·t + a
    root = half * half - square * a
    if root <= 0:
        return 1.0, 1.0
    q = -(half + np.copysign(np.sqrt(root), half))
    one, two = q / square if square != 0 else 1.0, a / q if q != 0 else 1.0
    one, two = one if 0 < one < 1 else 1.0, two if 0 < two < 1 else 1.0
    return min(one, two), max(one, two)


@compiled
def _one_way(x0, x1, x2, x3, least, largest, bounds):
    """Put the parameters between which a cubic goes one way into ``bounds``, at most four, and return how many such stretches there are."""
    bounds[0], many = 0.0, 0
    if least < min(x0, x3) or largest > max(x0, x3):  # else it can not turn back by more than it may
        for t in _turns(x0, x1, x2, x3):
            if bounds[many] < t < 1:
                many += 1
                bounds[many] = t
    bounds[many + 1] = 1.0
    return many + 1


@compiled
def _value(x0, x1, x2, x3, t):
    s = 1 - t
    return (s * s * s * x0 + 3 * t * s * s * x1) + (3 * t * t * s * x2 + t * t * t * x3)


@compiled
def _reached(x0, x1, x2, x3, level, low, high, rising):
    """Return the parameter between ``low`` and ``high`` at which a cubic that goes one way there reaches a level.

    What goes evenly is divided; else by Newton's steps, and halving where these leave what is known to hold it.
    """
    rise = x3 - x0
    if abs(x1 - x0 - rise / 3) + abs(x3 - x2 - rise / 3) <= EVEN_REL_TOL * abs(rise):
        return (level - x0) / rise
    t = (low + high) / 2
    for _ in range(ROUNDS):
        off = _value(x0, x1, x2, x3, t) - level
        if (off > 0) == rising:
            high = t
        else:
            low = t
        s = 1 - t
        slope = 3 * (s * s * (x1 - x0) + 2 * t * s * (x2 - x1) + t * t * (x3 - x2))
        step = t - off / slope
        if not (low <= step <= high):
            step = (low + high) / 2
        if abs(step - t) <= SETTLED:
            break
        t = step
    return t


@compiled
def _parts(cubics, first, end, levels, rows, at):
    """Return the columns of ``Split`` by the rows of cubics that pass levels, and the parameters where, in order."""
    n = len(cubics) + len(rows)
    parts, row, before = np.empty((n, 4), np.complex128), np.empty(n, np.int64), np.empty(n, np.int64)
    begin, passing = np.empty(n), np.empty((n, 2), np.bool_)
    k = j = 0
    for i in range(len(cubics)):
        own, t0 = cubics[i], 0.0
        while True:
            last = j == len(rows) or rows[j] != i
            t1 = 1.0 if last else at[j]
            if last and t0 == 0.0:
                parts[k] = own
            else:
                _put_part(own, t0, t1, parts[k])
            x = parts[k]
            low = min(min(x[0].real, x[1].real), min(x[2].real, x[3].real))
            high = max(max(x[0].real, x[1].real), max(x[2].real, x[3].real))
            before[k] = first_beyond(levels, first[i], end[i], (low + high) / 2)
            row[k], begin[k], passing[k, 0], passing[k, 1] = i, t0, t0 > 0, not last
            k += 1
            if last:
                break
            j, t0 = j + 1, t1
    return parts, row, begin, before, passing


@compiled
def _put_part(cubic, t0, t1, part):
    """Put a cubic's part from t0 to t1 in ``part``, by blossoms: its ends hang on their own parameters alone."""
    p0, p1, p2, p3, s0, s1 = cubic[0], cubic[1], cubic[2], cubic[3], 1 - t0, 1 - t1
    a, b, c = p0 * s0 + p1 * t0, p1 * s0 + p2 * t0, p2 * s0 + p3 * t0
    d, e, f = p0 * s1 + p1 * t1, p1 * s1 + p2 * t1, p2 * s1 + p3 * t1
    aa, bb = a * s0 + b * t0, b * s0 + c * t0
    dd, ee = d * s1 + e * t1, e * s1 + f * t1
    part[0] = aa * s0 + bb * t0
    part[1] = aa * s1 + bb * t1
    part[2] = (a * s1 + b * t1) * s1 + (b * s1 + c * t1) * t1
    part[3] = dd * s1 + ee * t1
