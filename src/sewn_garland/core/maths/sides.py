"""Very many pairs of polygons, by their sides: how much of them overlaps."""

from __future__ import annotations

from collections.abc import Iterator
from typing import NamedTuple

import numpy as np

from .ragged import heads, in_blocks, owners, ranges

SIDES_AT_ONCE = 100_000  # of pairs' polygons; chosen
PAIRS_AT_ONCE = 500_000  # of sides; chosen
MOST_A_SIDE = 150  # others beside each side of two polygons up to which they are summed; chosen


Table = tuple[np.ndarray, ...]
"""Of sides (n,) their pair, from which to which y they go, and what ``_across`` tells."""


class Sides(NamedTuple):
    """The sides of k polygons: ``begin`` and ``end`` (m,), complex, those of polygon i from ``starts[i]`` (k + 1,) on; none is empty."""

    begin: np.ndarray
    end: np.ndarray
    starts: np.ndarray

    @property
    def many(self) -> np.ndarray:
        """Return how many sides (k,) each polygon has."""
        return np.diff(self.starts)


def overlaps(sides: Sides, one: np.ndarray, two: np.ndarray, along: np.ndarray) -> np.ndarray:
    """Return how much (p,) of pairs of polygons, ``one`` and ``two`` (p,), overlaps; they may not cross themselves. NaN where they have so
    many sides beside one another that polygons are sooner cut than summed.

    ``along`` (p,), unit complex numbers, leads from the first to the second. Seen so, the first is what lies before its sides that end
    it but not before those that begin it, and the second likewise what lies behind: the two share the sum, over each pair of
    sides, of how far one lies behind the other. Sides of the first before all of the second, and the other way round, do not count.
    """
    out = np.zeros(len(one))
    for rows in in_blocks(sides.many[one] + sides.many[two], SIDES_AT_ONCE):
        out[rows] = _overlaps(sides, one[rows], two[rows], along[rows].conj())
    return out


def _overlaps(sides: Sides, one: np.ndarray, two: np.ndarray, turn: np.ndarray) -> np.ndarray:
    turned = [_turned(sides, some, turn) for some in (one, two)]
    (most, left, right), (least, left2, right2) = (
        (pick.reduceat(np.real(begin), first), np.minimum.reduceat(np.imag(begin), first), np.maximum.reduceat(np.imag(begin), first))
        for pick, (begin, _, _, first) in zip((np.maximum, np.minimum), turned, strict=True)
    )
    left, right = np.maximum(left, left2), np.minimum(right, right2)
    behind, before = turned[0][:3], turned[1][:3]
    tables = [
        _across(*behind, left, right, np.maximum(np.real(behind[0]), np.real(behind[1])) > least[behind[2]]),
        _across(*before, left, right, np.minimum(np.real(before[0]), np.real(before[1])) < most[before[2]]),
    ]
    tables, meetings = _meetings(*tables)
    of_pair = [np.bincount(table[0], counts, len(one)) for table, (_, counts) in zip(tables, meetings, strict=True)]
    told = of_pair[0] + of_pair[1] <= MOST_A_SIDE * (sides.many[one] + sides.many[two])
    out = np.where(told, 0.0, np.nan)
    for i, j in _met(tables, meetings, told):
        low, high = np.maximum(tables[0][1][i], tables[1][1][j]), np.minimum(tables[0][2][i], tables[1][2][j])
        (ta, ya, ma, sa), (tb, yb, mb, sb) = ([table[c][k] for c in (1, 3, 4, 5)] for table, k in zip(tables, (i, j), strict=True))
        past = [ya + ma * (t - ta) - yb - mb * (t - tb) for t in (low, high)]
        out += np.bincount(tables[0][0][i], weights=sa * sb * _above(*past) * np.maximum(high - low, 0.0), minlength=len(one))
    return np.abs(out)


def _turned(sides: Sides, some: np.ndarray, turn: np.ndarray) -> tuple[np.ndarray, np.ndarray, np.ndarray, np.ndarray]:
    """Return begins and ends of the sides of some polygons (p,), turned, the place of each side's polygon, and where each's sides begin."""
    counts = sides.many[some]
    rows, pair = ranges(sides.starts[some], counts), owners(counts)
    return sides.begin[rows] * turn[pair], sides.end[rows] * turn[pair], pair, heads(counts)


def _across(begin: np.ndarray, end: np.ndarray, pair: np.ndarray, left: np.ndarray, right: np.ndarray, counts: np.ndarray):
    """Return of the sides (n,) that count, and lie between their pairs' ``left`` and ``right``: the pair, from which to which y, the x
    at the first, its change with y, and which way the side runs.
    """
    low, high = np.minimum(np.imag(begin), np.imag(end)), np.maximum(np.imag(begin), np.imag(end))
    kept = np.flatnonzero(counts & (high > low) & (high > left[pair]) & (low < right[pair]))
    begin, end, pair, low, high = (column[kept] for column in (begin, end, pair, low, high))
    rise = np.imag(end) - np.imag(begin)
    at_low = np.where(rise > 0, np.real(begin), np.real(end))
    return pair, low, high, at_low, (np.real(end) - np.real(begin)) / rise, np.sign(rise)


def _above(begin: np.ndarray, end: np.ndarray) -> np.ndarray:
    """Return how far straight lines, from heights ``begin`` to ``end`` (n,), lie above 0 in the mean."""
    over = np.maximum(begin, 0.0) + np.maximum(end, 0.0)
    crosses = begin * end < 0
    return over / 2 * np.where(crosses, over / np.where(crosses, np.abs(begin) + np.abs(end), 1.0), 1.0)


def _meetings(one: Table, two: Table) -> tuple[list[Table], list[tuple[np.ndarray, np.ndarray]]]:
    """Return two tables of sides (n,) in the order in which they begin, pair by pair, and for the sides of each the first of the other's
    that begin while they last, and how many do: every two of a pair that lie beside one another are told once.
    """
    base = min(float(table[1].min(initial=np.inf)) for table in (one, two))
    room = 1.0 + max(float(table[2].max(initial=-np.inf)) for table in (one, two)) - base
    tables, begins, ends = [], [], []
    for table in (one, two):
        behind = table[0] * room - base if len(table[0]) else np.zeros(0)  # one pair's behind another's
        order = np.argsort(behind + table[1], kind="stable")
        tables.append(tuple(column[order] for column in table))
        begins.append((behind + table[1])[order])
        ends.append((behind + table[2])[order])
    out = []
    firsts = np.searchsorted(begins[1], begins[0], side="left"), np.searchsorted(begins[0], begins[1], side="right")
    for first, other, own in zip(firsts, begins[::-1], ends, strict=True):
        out.append((first, np.maximum(np.searchsorted(other, own, side="left") - first, 0)))
    return tables, out


def _met(tables: list[Table], meetings: list[tuple[np.ndarray, np.ndarray]], told: np.ndarray) -> Iterator[tuple[np.ndarray, np.ndarray]]:
    """Yield the sides of the first and of the second table that lie beside one another, of the pairs that are ``told``, block by block."""
    for k, (first, counts) in enumerate(meetings):
        rows = np.flatnonzero(told[tables[k][0]] & (counts > 0))
        for block in in_blocks(counts[rows], PAIRS_AT_ONCE):
            some = rows[block]
            own, others = np.repeat(some, counts[some]), ranges(first[some], counts[some])
            yield (own, others) if k == 0 else (others, own)
