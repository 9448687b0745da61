"""How wide lines are along their way, and the distances that pieces take evenly."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cached_property

import numpy as np

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
        s, _ = self._on_line(line, s, self.s)
        k, inside = self._knots(line, s, self.s)
        slope = self._slope[k]
        beyond = s != inside
        return self.width[k] + slope * (inside - self.s[k]), np.where(beyond, 0.0, slope)

    def even_of(self, line: np.ndarray, s: np.ndarray) -> np.ndarray:
        """Return the even distance (m,) at distances in mm."""
        s, rounds = self._on_line(line, s, self.s)
        k, inside = self._knots(line, s, self.s)
        first, slope = self.width[k], self._slope[k]
        share = slope * (inside - self.s[k]) / first
        straight = (inside - self.s[k]) / first
        ratio = np.where(np.abs(share) > 1e-9, np.log1p(share) / np.where(share == 0, 1.0, share), 1.0 - share / 2)
        last = first + slope * (inside - self.s[k])
        return self.even[k] + straight * ratio + (s - inside) / last + rounds * self.even[self.starts[line + 1] - 1]

    def mm_of(self, line: np.ndarray, even: np.ndarray) -> np.ndarray:
        """Return the distance in mm (m,) at even distances."""
        return self.along(line, even)[0]

    def along(self, line: np.ndarray, even: np.ndarray) -> tuple[np.ndarray, np.ndarray, np.ndarray]:
        """Return the distance in mm (m,) at even distances, the width there and its change a mm, as ``at`` does, in one lookup."""
        even, rounds = self._on_line(line, even, self.even)
        k, inside = self._knots(line, even, self.even)
        first, slope = self.width[k], self._slope[k]
        grown = slope * (inside - self.even[k])
        straight = first * (inside - self.even[k])
        ratio = np.where(np.abs(grown) > 1e-9, np.expm1(grown) / np.where(grown == 0, 1.0, grown), 1.0 + grown / 2)
        last = first * np.exp(grown)
        s = self.s[k] + straight * ratio + (even - inside) * last + rounds * self.s[self.starts[line + 1] - 1]
        return s, last, np.where(even == inside, slope, 0.0)

    def of_runs(self, line: np.ndarray) -> RunWidths:
        """Return the widths as runs see them; ``line`` (k,) is the line of each."""
        return RunWidths(self, line)

    def _on_line(self, line: np.ndarray, at: np.ndarray, knots: np.ndarray) -> tuple[np.ndarray, np.ndarray]:
        """Take closed lines' distances back into their first round; return them and the rounds taken off."""
        if not self.closed.any():
            return at, np.zeros(())
        whole = knots[self.starts[line + 1] - 1]
        rounds = np.where(self.closed[line], np.floor(at / np.where(whole > 0, whole, 1.0)), 0.0)
        return at - rounds * whole, rounds

    def _knots(self, line: np.ndarray, at: np.ndarray, knots: np.ndarray) -> tuple[np.ndarray, np.ndarray]:
        """Return the knot before each place, never a line's last, and the places kept on their lines."""
        first, last = self.starts[line], self.starts[line + 1] - 1
        inside = np.clip(at, knots[first], knots[last])
        base, behind = self._behind_in_mm if knots is self.s else self._behind_evenly
        k = np.searchsorted(behind, inside + base[line], side="right") - 1
        return np.clip(k, first, last - 1), inside

    @cached_property
    def _behind_in_mm(self) -> tuple[np.ndarray, np.ndarray]:
        return self._behind(self.s)

    @cached_property
    def _behind_evenly(self) -> tuple[np.ndarray, np.ndarray]:
        return self._behind(self.even)

    def _behind(self, knots: np.ndarray) -> tuple[np.ndarray, np.ndarray]:
        """Return what is added to each line's knots (n,) for all lines to lie behind one another, and all knots so (k,), rising."""
        ends = knots[self.starts[1:] - 1]
        base = np.cumsum(np.append(0.0, ends[:-1] + 1.0))
        return base, knots + np.repeat(base, np.diff(self.starts))

    @cached_property
    def _slope(self) -> np.ndarray:
        """Return the width's change a mm after every knot but the last of all (k - 1,)."""
        step = np.diff(self.s)
        return np.where(step > 0, np.diff(self.width) / np.where(step > 0, step, 1.0), 0.0)


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
