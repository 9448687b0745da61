"""Outlines out of M L C Z as cubics with the contour that each belongs to, and back."""

from __future__ import annotations

import numpy as np

from .compiled import compiled, for_compiled
from .curves import are_straight, as_complex, as_points
from .outlines import owned_cubics

APART_MM = 1e-3  # from which on cubics do not hang together: what is written; chosen
NOTHING_MM = 1e-5  # up to which a side is next to nothing long: lines go round vertices within a millionth; chosen


def contour_cubics(commands: str, points: np.ndarray) -> tuple[np.ndarray, np.ndarray, np.ndarray]:
    """Return cubics (m, 4, 2), the contour (m,) of each, and which contours (c,) are closed; closing sides are drawn out.

    Straight sides have their handles at their thirds, wherever they were drawn.
    """
    cubics, owner, closed = _cubics_by_contour(commands, points)
    straight = are_straight(cubics)
    if straight.any():
        begin, end = cubics[straight, 0], cubics[straight, 3]
        cubics[straight, 1], cubics[straight, 2] = begin + (end - begin) / 3, begin + (end - begin) * 2 / 3
    return cubics, owner, closed


def _cubics_by_contour(commands: str, points: np.ndarray) -> tuple[np.ndarray, np.ndarray, np.ndarray]:
    parts = commands.split("M")[1:]
    closed = np.array([part.endswith("Z") for part in parts], bool)
    cubics, owner = owned_cubics(commands, points)
    if closed.all():
        return cubics, owner, closed
    plain, plain_owner = owned_cubics(commands, points, close=False)
    keep, keep_plain = closed[owner], ~closed[plain_owner]
    cubics, owner = np.concatenate([cubics[keep], plain[keep_plain]]), np.concatenate([owner[keep], plain_owner[keep_plain]])
    order = np.argsort(owner, kind="stable")
    return cubics[order], owner[order], closed


def joined_cubics(cubics: np.ndarray, heads: np.ndarray) -> tuple[np.ndarray, np.ndarray]:
    """Return points (heads + 3·cubics, 2) of runs of cubics (m, 4, 2) that follow on, and where each run starts (c + 1,).

    ``heads`` (c,) are the first cubics of the runs. A run is its first point and three a cubic.
    """
    m = len(cubics)
    starts = 3 * np.asarray(heads) + np.arange(len(heads))
    own = np.ones(3 * m + len(heads), bool)  # where cubics' three points go; elsewhere begins a run
    own[starts] = False
    points, numbers = np.empty(len(own), complex), as_complex(cubics)
    points[own] = numbers[:, 1:].ravel()
    points[starts] = numbers[heads, 0]
    return as_points(points), np.append(starts, len(points))


def merged_cubics(one: np.ndarray, of_one: np.ndarray, two: np.ndarray, of_two: np.ndarray, heads: np.ndarray, sources: np.ndarray):
    """Return what ``joined_cubics`` does of two lists of cubics (m, 4), complex, by the rows (m,), rising, that they are of, none of both.

    Runs begin with the first cubics of the rows ``heads`` (c,), rising, each of which has some. Where a cubic does not begin where the one
    before it ends, a straight side leads there; it is left out if its row in ``sources`` (k, 4), complex, is next to nothing long.
    """
    cubics = for_compiled(one, complex), for_compiled(of_one, int), for_compiled(two, complex), for_compiled(of_two, int)
    points, starts = _merged(*cubics, for_compiled(heads, int), for_compiled(sources, complex))
    return as_points(points), starts


@compiled
def _merged(one, of_one, two, of_two, heads, sources):
    points, starts = np.empty(3 * (len(one) + len(two)) + len(heads) + 6, np.complex128), np.empty(len(heads) + 1, np.int64)
    i = j = n = run = 0
    while i < len(one) or j < len(two):
        first = j == len(two) or (i < len(one) and of_one[i] < of_two[j])
        row, cubic = (of_one[i], one[i]) if first else (of_two[j], two[j])
        i, j = (i + 1, j) if first else (i, j + 1)
        if n + 6 > len(points):
            points = np.append(points, points)
        if run < len(heads) and row == heads[run]:
            starts[run], points[n] = n, cubic[0]
            run, n = run + 1, n + 1
        elif _are_apart(points[n - 1], cubic[0], APART_MM):
            if not _are_apart(sources[row, 0], sources[row, 3], NOTHING_MM):
                continue
            a, b = points[n - 1], cubic[0]
            points[n], points[n + 1], points[n + 2] = (2 * a + b) / 3, (a + 2 * b) / 3, b
            n += 3
        for k in range(1, 4):
            points[n] = cubic[k]
            n += 1
    starts[run] = n
    return points[:n], starts


@compiled
def _are_apart(a, b, most):
    return abs(b.real - a.real) > most or abs(b.imag - a.imag) > most
