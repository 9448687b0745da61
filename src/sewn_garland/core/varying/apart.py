"""Keep the pieces of a line apart: one that comes too near to those before it is dealt again, and left out in the end."""

from __future__ import annotations

from collections.abc import Callable
from math import floor

import numpy as np
import scipy

from ..values.arrays import rows_of
from ..values.pieces import REPEAT, Placed

MOST_ATTEMPTS = 8  # beside the first
BLOCK = 2048  # pieces looked at together; chosen

Deal = Callable[[int], Placed]
"""Takes how often all pieces have been dealt before, returns them placed."""


def kept_apart(deal: Deal, least_mm: float, *, moves: bool) -> tuple[Placed, np.ndarray]:
    """Return the pieces whose middles lie at least so many mm apart within each line, in their order, and the lines (k,) of those
    left out.

    ``moves`` tells whether pieces that are dealt again lie elsewhere. Pieces are taken in order; start, end and corner pieces stay
    where they are. What one piece may do depends on all before it, so those near one another are taken piece by piece.
    """
    first = deal(0)
    if least_mm <= 0 or not len(first.s):
        return first, np.zeros(0, int)
    dealt = [first, *map(deal, range(1, MOST_ATTEMPTS + 1 if moves else 1))]
    at = np.stack([each.centre for each in dealt])
    fixed, chosen = first.role != REPEAT, np.full(len(first.s), -1)
    for rows in np.split(np.arange(len(first.s)), np.flatnonzero(np.diff(first.line)) + 1):
        chosen[rows] = _chosen(at[:, rows], fixed[rows], least_mm)
    kept = np.flatnonzero(chosen >= 0)
    columns = {}
    for name, column in vars(first).items():
        if column is not None:
            out = column.copy()
            for attempt in range(1, len(dealt)):
                rows = chosen == attempt
                out[rows] = getattr(dealt[attempt], name)[rows]
            columns[name] = out
    return rows_of(Placed(**{**vars(first), **columns}), kept), first.line[chosen < 0]


def _chosen(at: np.ndarray, fixed: np.ndarray, least: float) -> np.ndarray:
    """Return in which attempt (n,) each piece of a line lies far enough from those before it, of places (a, n, 2); −1 where in none.

    Block after block: what is too near to a piece of an earlier block is known at once.
    """
    chosen, taken = np.full(len(fixed), -1), np.zeros((0, 2))
    for begin in range(0, len(fixed), BLOCK):
        own = slice(begin, begin + BLOCK)
        free = np.ones(at[:, own].shape[:2], bool)
        if len(taken):
            reach = scipy.spatial.cKDTree(taken).query(at[:, own], distance_upper_bound=least)[0]
            free = reach >= least
        free[0] |= fixed[own]
        grid: dict[tuple[int, int], list[complex]] = {}
        places = (at[:, own, 0] + 1j * at[:, own, 1]).T.tolist()
        for k in np.flatnonzero(free.any(axis=0)).tolist():
            for attempt in (0,) if fixed[begin + k] else np.flatnonzero(free[:, k]).tolist():
                place = places[k][attempt]
                if fixed[begin + k] or not _crowded(grid, place, least):
                    grid.setdefault(_cell(place, least), []).append(place)
                    chosen[begin + k] = attempt
                    break
        now = np.flatnonzero(chosen[own] >= 0)
        taken = np.concatenate([taken, at[chosen[own][now], begin + now]])
    return chosen


def _cell(place: complex, side: float) -> tuple[int, int]:
    return floor(place.real / side), floor(place.imag / side)


def _crowded(grid: dict[tuple[int, int], list[complex]], place: complex, least: float) -> bool:
    column, row = _cell(place, least)
    return any(
        abs(other - place) < least
        for x in (column - 1, column, column + 1) for y in (row - 1, row, row + 1) for other in grid.get((x, y), ())
    )  # fmt: skip
