"""Keep the pieces of a line apart: one that comes too near to those before it is dealt again, and left out in the end."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from math import floor

import numpy as np
import scipy

from ..maths.curves import as_complex, as_points
from ..values.arrays import rows_of
from ..values.pieces import REPEAT, Placed

MOST_ATTEMPTS = 8  # beside the first
BLOCK = 2048  # pieces looked at together; chosen
MOSTLY_FREE = 0.5  # of a block; chosen
AT_ONCE = 8192  # pieces; chosen: as many attempts as come to no more are dealt together, for few pieces cost what one does

Deal = Callable[[Sequence[int]], list[Placed]]
"""Takes how often all pieces have been dealt before, once or for several attempts, and returns them placed, a table for each."""


def kept_apart(deal: Deal, count: int, least_mm: float, *, moves: bool) -> tuple[Placed, np.ndarray]:
    """Return those of ``count`` pieces whose middles lie at least so many mm apart within each line, in their order, and the lines
    (k,) of those left out.

    ``moves`` tells whether pieces that are dealt again lie elsewhere. Pieces are taken in order; start, end and corner pieces stay
    where they are. What one piece may do depends on all before it, so those that have room are taken one by one.
    """
    if least_mm <= 0 or not count:
        return deal([0])[0], np.zeros(0, int)
    dealt = _Dealt(deal, count, MOST_ATTEMPTS + 1 if moves else 1)
    first = dealt.known[0]
    fixed, chosen = first.role != REPEAT, np.full(len(first.s), -1)
    for rows in np.split(np.arange(len(first.s)), np.flatnonzero(np.diff(first.line)) + 1):
        chosen[rows] = _chosen(dealt, rows, fixed[rows], least_mm)
    kept = np.flatnonzero(chosen >= 0)
    columns = {}
    for name, column in vars(first).items():
        if column is not None:
            out = column.copy()
            for attempt in range(1, len(dealt.known)):
                rows = chosen == attempt
                out[rows] = getattr(dealt.known[attempt], name)[rows]
            columns[name] = out
    return rows_of(Placed(**{**vars(first), **columns}), kept), first.line[chosen < 0]


class _Dealt:
    """All ``count`` pieces as dealt again and again, at first once or as often as it costs no more, then once they are asked for."""

    def __init__(self, deal: Deal, count: int, attempts: int) -> None:
        self._deal, self._together, self.attempts = deal, max(1, AT_ONCE // count), attempts
        self.known: list[Placed] = []
        self._go_on()

    def _go_on(self) -> None:
        self.known += self._deal(range(len(self.known), min(len(self.known) + self._together, self.attempts)))

    def places(self, attempt: int, rows: np.ndarray) -> np.ndarray:
        """Return where some pieces (n,) lie in an attempt (n,)."""
        while len(self.known) <= attempt:
            self._go_on()
        return as_complex(self.known[attempt].centre[rows])


class _Block:
    """Some pieces of a line beside those ``taken`` (t,) before them: in each attempt, where they lie and which are free of these."""

    def __init__(self, dealt: _Dealt, rows: np.ndarray, taken: np.ndarray, least: float) -> None:
        self._dealt, self._rows, self._least = dealt, rows, least
        self._tree = scipy.spatial.cKDTree(as_points(taken)) if len(taken) else None
        self._known: list[tuple[np.ndarray, np.ndarray]] = []

    def attempt(self, number: int) -> tuple[np.ndarray, np.ndarray]:
        """Return the places (n,) of an attempt, and which (n,) are free."""
        while len(self._known) <= number:
            at = self._dealt.places(len(self._known), self._rows)
            reach = np.inf if self._tree is None else self._tree.query(as_points(at), distance_upper_bound=self._least)[0]
            self._known.append((at, np.broadcast_to(reach >= self._least, len(at))))
        return self._known[number]

    def places(self, attempts: np.ndarray, pieces: np.ndarray) -> np.ndarray:
        """Return where pieces (k,) of the block lie in an attempt each (k,)."""
        return np.stack([at for at, _ in self._known])[attempts, pieces]

    def roomy(self) -> float:
        """Return about which share of the pieces has room as first dealt, beside those before and one another."""
        at, free = self.attempt(0)
        return float(free.mean() * min(1.0, np.abs(np.diff(at)).mean() / self._least if len(at) > 1 else 1.0))


def _chosen(dealt: _Dealt, rows: np.ndarray, fixed: np.ndarray, least: float) -> np.ndarray:
    """Return in which attempt (n,) each of a line's pieces ``rows`` (n,) lies far enough from those before it; −1 where in none.

    Block after block: what is too near to a piece of an earlier block is known at once.
    """
    chosen, taken = np.full(len(rows), -1), np.zeros(0, complex)
    for begin in range(0, len(rows), BLOCK):
        own = slice(begin, begin + BLOCK)
        block = _Block(dealt, rows[own], taken, least)
        way = _of_few if block.roomy() > MOSTLY_FREE else _of_crowd
        chosen[own] = way(block, dealt.attempts, fixed[own], least)
        kept = np.flatnonzero(chosen[own] >= 0)
        taken = np.concatenate([taken, block.places(chosen[own][kept], kept)])
    return chosen


def _of_few(block: _Block, attempts: int, fixed: np.ndarray, least: float) -> np.ndarray:
    """Return the attempt (n,) of each piece of a block, most of which have room: each looks at those before it nearby."""
    chosen = np.full(len(fixed), -1)
    grid: dict[tuple[int, int], list[complex]] = {}
    for k in range(len(fixed)):
        for attempt in range(1 if fixed[k] else attempts):
            at, free = block.attempt(attempt)
            place = complex(at[k])
            if fixed[k] or (free[k] and not _crowded(grid, place, least)):
                grid.setdefault(_cell(place, least), []).append(place)
                chosen[k] = attempt
                break
    return chosen


def _of_crowd(block: _Block, attempts: int, fixed: np.ndarray, least: float) -> np.ndarray:
    """Return the attempt (n,) of each piece of a block, few of which have room: each that takes some closes it to those after it."""
    chosen = np.full(len(fixed), -1)
    at, free = (np.stack(each) for each in zip(*(block.attempt(number) for number in range(attempts)), strict=True))
    free[:, fixed] = np.arange(attempts)[:, None] == 0
    k = 0
    while k < len(fixed):
        k += int(free[:, k:].any(axis=0).argmax())
        if not free[:, k].any():
            break
        chosen[k] = free[:, k].argmax()
        later = slice(k + 1, None)
        free[:, later] &= (np.abs(at[:, later] - at[chosen[k], k]) >= least) | fixed[later]
        k += 1
    return chosen


def _cell(place: complex, side: float) -> tuple[int, int]:
    return floor(place.real / side), floor(place.imag / side)


def _crowded(grid: dict[tuple[int, int], list[complex]], place: complex, least: float) -> bool:
    column, row = _cell(place, least)
    return any(
        abs(other - place) < least
        for x in (column - 1, column, column + 1) for y in (row - 1, row, row + 1) for other in grid.get((x, y), ())
    )  # fmt: skip
