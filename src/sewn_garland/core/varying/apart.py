"""Keep the pieces of a line apart: one that comes too near to those before it is dealt again, and left out in the end."""

from __future__ import annotations

from collections.abc import Callable
from math import floor

import numpy as np

from ..values.arrays import rows_of
from ..values.pieces import REPEAT, Placed

MOST_ATTEMPTS = 8  # beside the first

Deal = Callable[[int], Placed]
"""Takes how often all pieces have been dealt before, returns them placed."""


def kept_apart(deal: Deal, least_mm: float, *, moves: bool) -> tuple[Placed, np.ndarray]:
    """Return the pieces whose middles lie at least so many mm apart within each line, in their order, and the lines (k,) of those
    left out.

    ``moves`` tells whether pieces that are dealt again lie elsewhere. Pieces are taken in order; start, end and corner pieces stay where they are. What one piece may do depends on all before it, so
    this goes from piece to piece, by a grid.
    """
    first = deal(0)
    if least_mm <= 0 or not len(first.s):
        return first, np.zeros(0, int)
    dealt, chosen = [first], np.zeros(len(first.s), int)
    grid: dict[tuple[int, int, int], list[complex]] = {}
    at = [_complex(first)]
    for i, (line, fixed) in enumerate(zip(first.line.tolist(), (first.role != REPEAT).tolist(), strict=True)):
        for attempt in range(1 if fixed or not moves else MOST_ATTEMPTS + 1):
            if attempt == len(dealt):
                dealt.append(deal(attempt))
                at.append(_complex(dealt[attempt]))
            place = at[attempt][i]
            if fixed or not _crowded(grid, line, place, least_mm):
                grid.setdefault(_cell(line, place, least_mm), []).append(place)
                chosen[i] = attempt
                break
        else:
            chosen[i] = -1
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


def _complex(placed: Placed) -> list[complex]:
    return (placed.centre[:, 0] + 1j * placed.centre[:, 1]).tolist()


def _cell(line: int, place: complex, side: float) -> tuple[int, int, int]:
    return line, floor(place.real / side), floor(place.imag / side)


def _crowded(grid: dict[tuple[int, int, int], list[complex]], line: int, place: complex, least: float) -> bool:
    _, column, row = _cell(line, place, least)
    return any(
        abs(other - place) < least
        for x in (column - 1, column, column + 1) for y in (row - 1, row, row + 1) for other in grid.get((line, x, y), ())
    )  # fmt: skip
