"""How wide lines are along their way, and the distances that pieces take evenly."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cached_property

import numpy as np

from ..maths.compiled import compiled, for_compiled
from .arrays import freeze_arrays


@dataclass(frozen=True, eq=False)
class Widths:
    """The width of n lines along them, as a factor, linear between knots that lie behind one another.

    Line i has the knots from ``starts[i]`` up to ``starts[i + 1]`` (at least two): ``s`` mm along
    it, the factor ``width`` (> 0) there and the ``even`` distance ∫ds/width, in which every piece
    takes as much as any other of its kind. ``closed`` (n,) lines go on with their start; beyond the
    ends of open ones the width stays. Lookups take lines and places, arrays (m,) each.
    """

    s: np.ndarray
    width: np.ndarray
    even: np.ndarray
    starts: np.ndarray
    closed: np.ndarray

    def __post_init__(self) -> None:
        freeze_arrays(self)

    def at(self, line: np.ndarray, s: np.ndarray) -> tuple[np.ndarray, np.ndarray]:
        """Return the width (m,) at distances in mm and its change a mm (m,)."""
        return _widths_at(*self.table, *_asked(line, s))

    def even_of(self, line: np.ndarray, s: np.ndarray) -> np.ndarray:
        """Return the even distance (m,) at distances in mm."""
        return _evens_at(*self.table, *_asked(line, s))

    def mm_of(self, line: np.ndarray, even: np.ndarray) -> np.ndarray:
        """Return the distance in mm (m,) at even distances."""
        return self.along(line, even)[0]

    def along(self, line: np.ndarray, even: np.ndarray) -> tuple[np.ndarray, np.ndarray, np.ndarray]:
        """Return the distance in mm (m,) at even distances, the width there and its change a mm, as ``at`` does, in one lookup."""
        return _along(*self.table, *_asked(line, even))

    def of_runs(self, line: np.ndarray) -> RunWidths:
        """Return the widths as runs see them; ``line`` (k,) is the line of each."""
        return RunWidths(self, line)

    @cached_property
    def table(self) -> tuple[np.ndarray, np.ndarray]:
        """Return what ``width_at`` and ``mm_at`` ask for: the knots (k, 4), distances, widths, even distances and the width's change a mm
        behind each, and of every line (n, 3) its first and its last knot, and whether it is closed.
        """
        step = np.diff(self.s)
        slope = np.where(step > 0, np.diff(self.width) / np.where(step > 0, step, 1.0), 0.0)
        knots = np.column_stack([self.s, self.width, self.even, np.append(slope, 0.0)[: len(self.s)]])
        lines = np.column_stack([self.starts[:-1], self.starts[1:] - 1, self.closed])
        return for_compiled(knots, float), for_compiled(lines, int)


S, WIDTH, EVEN, SLOPE = range(4)  # columns of knots
LEAST_GROWTH = 0.1  # up to which what a series leaves out, x¹¹ / 12!, is lost in rounding


def _asked(line: np.ndarray, at: np.ndarray) -> tuple[np.ndarray, np.ndarray]:
    return for_compiled(line, int), for_compiled(at, float)


@compiled
def _knot(at, line, knots, lines, column, last_found):
    """Return the knot before a place, never a line's last, how far behind it the place lies, how far beyond the line, and after how many
    rounds of it. The one in ``last_found`` (1,) is tried first, and it is put there.
    """
    first, last = lines[line, 0], lines[line, 1]
    whole = knots[last, column]
    rounds = np.floor(at / whole) if lines[line, 2] and whole > 0 else 0.0
    now = at - rounds * whole
    inside = min(max(now, knots[first, column]), whole)
    k, end = first, last
    if first <= last_found[0] < last and knots[last_found[0], column] <= inside < knots[last_found[0] + 1, column]:
        k = end = last_found[0]
    while end - k > 1:
        middle = (k + end) // 2
        if knots[middle, column] <= inside:
            k = middle
        else:
            end = middle
    last_found[0] = k
    return k, inside - knots[k, column], now - inside, rounds


@compiled
def width_at(s, line, knots, lines, last_found):
    """Return a line's width at a distance in mm, and its change a mm; ``last_found`` (1,) is the knot found last, at first any."""
    k, on, beyond, _ = _knot(s, line, knots, lines, S, last_found)
    return knots[k, WIDTH] + knots[k, SLOPE] * on, knots[k, SLOPE] if beyond == 0 else 0.0


@compiled
def mm_at(even, line, knots, lines, last_found):
    """Return the distance in mm at an even distance, the width there and its change a mm; ``last_found`` as for ``width_at``."""
    k, on, beyond, rounds = _knot(even, line, knots, lines, EVEN, last_found)
    width, slope = knots[k, WIDTH], knots[k, SLOPE]
    grown = slope * on
    ratio = _mean_growth(grown)
    here = width * (1 + grown * ratio)
    s = knots[k, S] + width * on * ratio + beyond * here + rounds * knots[lines[line, 1], S]
    return s, here, slope if beyond == 0 else 0.0


@compiled
def _mean_growth(x):
    """Return (eˣ − 1) / x, near 0 by its series."""
    if abs(x) > LEAST_GROWTH:
        return np.expm1(x) / x
    rest = 1 / 5040 + x * (1 / 40320 + x * (1 / 362880 + x * (1 / 3628800 + x / 39916800)))
    return 1 + x * (1 / 2 + x * (1 / 6 + x * (1 / 24 + x * (1 / 120 + x * (1 / 720 + x * rest)))))


@compiled
def _even_at(s, line, knots, lines, last_found):
    k, on, beyond, rounds = _knot(s, line, knots, lines, S, last_found)
    width = knots[k, WIDTH]
    share, last = knots[k, SLOPE] * on / width, width + knots[k, SLOPE] * on
    ratio = np.log1p(share) / share if abs(share) > 1e-9 else 1 - share / 2
    return knots[k, EVEN] + on / width * ratio + beyond / last + rounds * knots[lines[line, 1], EVEN]


@compiled
def _widths_at(knots, lines, line, s):
    width, change, last_found = np.empty(len(s)), np.empty(len(s)), np.zeros(1, np.int64)
    for i in range(len(s)):
        width[i], change[i] = width_at(s[i], line[i], knots, lines, last_found)
    return width, change


@compiled
def _evens_at(knots, lines, line, s):
    even, last_found = np.empty(len(s)), np.zeros(1, np.int64)
    for i in range(len(s)):
        even[i] = _even_at(s[i], line[i], knots, lines, last_found)
    return even


@compiled
def _along(knots, lines, line, even):
    s, width, change, last_found = np.empty(len(even)), np.empty(len(even)), np.empty(len(even)), np.zeros(1, np.int64)
    for i in range(len(even)):
        s[i], width[i], change[i] = mm_at(even[i], line[i], knots, lines, last_found)
    return s, width, change


@dataclass(frozen=True, eq=False)
class RunWidths:
    """Widths of k runs; ``line`` (k,) is the line that each lies on."""

    widths: Widths
    line: np.ndarray

    def at(self, run: np.ndarray, s: np.ndarray) -> tuple[np.ndarray, np.ndarray]:
        return self.widths.at(self.line[run], s)

    def even_of(self, run: np.ndarray, s: np.ndarray) -> np.ndarray:
        return self.widths.even_of(self.line[run], s)

    def mm_of(self, run: np.ndarray, even: np.ndarray) -> np.ndarray:
        return self.widths.mm_of(self.line[run], even)

    def of(self, rows: np.ndarray) -> RunWidths:
        """Return the widths of some of the runs."""
        return RunWidths(self.widths, self.line[rows])
