"""Ragged arrays: rows of different lengths behind one another, by their ``counts`` (k,)."""

from __future__ import annotations

from collections.abc import Iterator

import numpy as np

from .compiled import compiled, for_compiled


def owners(counts: np.ndarray) -> np.ndarray:
    """Return which row (Σ counts,) every entry belongs to; no rows give none."""
    return np.repeat(np.arange(len(counts)), counts)


def places(counts: np.ndarray) -> np.ndarray:
    """Return the place (Σ counts,) of every entry in its row, from 0."""
    counts = np.asarray(counts, int)
    return np.arange(int(counts.sum())) - np.repeat(np.cumsum(counts) - counts, counts)


def ranges(first: np.ndarray, counts: np.ndarray) -> np.ndarray:
    """Return, row by row, the whole numbers from ``first`` (k,) on, ``counts`` (k,) of them: (Σ counts,)."""
    return np.repeat(first, counts) + places(counts)


def picked(values: np.ndarray, first: np.ndarray, counts: np.ndarray) -> np.ndarray:
    """Return the complex ``values`` (n,) at ``ranges(first, counts)``, without listing these."""
    return _picked(for_compiled(values, complex), for_compiled(first, int), for_compiled(counts, int))


@compiled
def _picked(values, first, counts):
    out, n = np.empty(counts.sum(), np.complex128), 0
    for i in range(len(counts)):
        for k in range(first[i], first[i] + counts[i]):
            out[n] = values[k]
            n += 1
    return out


def heads(counts: np.ndarray) -> np.ndarray:
    """Return where each row begins (k,)."""
    return np.cumsum(counts) - counts


def run_heads(*columns: np.ndarray) -> np.ndarray:
    """Return where each run of equal rows begins, for sorted columns (n,) of a table; no rows give none."""
    if not len(columns[0]):
        return np.zeros(0, int)
    changed = np.zeros(len(columns[0]) - 1, bool)
    for column in columns:
        changed |= column[1:] != column[:-1]
    return np.flatnonzero(np.append(True, changed))


def alike(table: np.ndarray) -> tuple[np.ndarray, np.ndarray]:
    """Return the first row (k,) of each kind of equal rows of a table (n, c), c ≥ 1, sorted by columns, and every row's kind (n,).

    It does what ``np.unique`` does along an axis, column by column: several times as fast where the columns are few.
    """
    order = np.lexsort(table.T[::-1])
    first = run_heads(*table[order].T)
    kind = np.empty(len(table), int)
    kind[order] = owners(np.diff(np.append(first, len(table))))
    return order[first], kind


def in_blocks(costs: np.ndarray, most: int) -> Iterator[slice]:
    """Yield rows (k,), in order, that cost up to ``most`` together, at least one each."""
    behind, begin = np.cumsum(costs), 0
    while begin < len(costs):
        before = behind[begin] - costs[begin]
        end = max(begin + 1, int(np.searchsorted(behind, before + most, side="right")))
        yield slice(begin, end)
        begin = end
