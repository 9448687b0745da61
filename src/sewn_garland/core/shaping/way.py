"""Where the points of bent pieces go on the page."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from functools import cached_property

import numpy as np

from ..maths.compiled import for_compiled
from ..maths.ragged import owners, ranges
from ..values.tracks import ON
from ..values.widths import Widths

Frame = Callable[[np.ndarray, np.ndarray], tuple[np.ndarray, np.ndarray, np.ndarray]]
"""Takes pieces (n,) and distances along their lines (n,), returns places and unit tangents (n,) as complex numbers, and curvature (n,)."""

Straight = Callable[[np.ndarray, np.ndarray, np.ndarray], np.ndarray]
"""Takes pieces (m,) and from which to which distances along their lines (m,), tells (m,) where these are straight between."""


@dataclass(frozen=True, eq=False)
class Warp:
    """How pieces (n,) follow the ``widths`` of their ``track`` (n,) from the distance ``begin`` (n,) on: ``across`` alone, or along it as
    well, and then ``begin`` is an even distance.
    """

    widths: Widths
    track: np.ndarray
    begin: np.ndarray
    across: bool

    def __call__(self, piece: np.ndarray, x: np.ndarray) -> tuple[np.ndarray, np.ndarray, np.ndarray, np.ndarray]:
        """Return of points with some x (m,) the distances along the line, their change with x, the width, and its change a mm (m,)."""
        at = self.begin[piece] + x
        if self.across:
            return at, np.ones(len(at)), *self.widths.at(self.track[piece], at)
        at, width, change = self.widths.along(self.track[piece], at)
        return at, width, width, change

    def of(self, pieces: np.ndarray) -> Warp:
        """Return the same of some pieces (m,), whichever they are."""
        return Warp(self.widths, self.track[pieces], self.begin[pieces], self.across)


class Way:
    """Where points (x, v) of pieces go; places on the page are complex numbers.

    Base lines' middles lie at distances ``s`` (n,) and ``shift`` (n,) mm to the right of their lines.
    ``warp`` lets pieces follow a line's width: (x, v) goes to P(s(x)) + (shift + v·width)·N. ``breaks``
    (m, 2), sorted, are pieces and the x in them at which the line begins or ends to turn about a vertex, and ``behind`` (m,) what it
    does there, as ``Softened`` says. ``reach`` (2, n) is from which to which x pieces reach, and ``straight`` tells where lines are
    straight; the attribute ``straight`` (n,) are the pieces known to lie where nothing bends. ``crowd`` (n,) are pieces among so many on
    their line that it pays to look for what is alike in them; all, where it is not given. ``outer`` (2, n) is how far they reach with
    their strokes' widths.
    """

    def __init__(
        self,
        s: np.ndarray,
        shift: np.ndarray,
        frame: Frame,
        warp: Warp | None,
        breaks: np.ndarray | None = None,
        behind: np.ndarray | None = None,
        reach: np.ndarray | None = None,
        straight: Straight | None = None,
        crowd: np.ndarray | None = None,
        outer: np.ndarray | None = None,
    ) -> None:
        self.s, self.shift, self.frame, self.warp = s, shift, frame, warp
        self._outer, self._straight = reach if outer is None else outer, straight
        self.straight = np.zeros(len(s), bool) if reach is None else self.straight_between(np.arange(len(s)), *reach)
        self.breaks = np.zeros((0, 2)) if breaks is None else breaks
        self._behind = np.full(len(self.breaks), ON) if behind is None else behind
        self.crowd = np.ones(len(s), bool) if crowd is None else crowd

    @cached_property
    def break_x(self) -> np.ndarray:
        """Return the x of all breaks (m,)."""
        return for_compiled(self.breaks[:, 1], float)

    @cached_property
    def first_break(self) -> np.ndarray:
        """Return the place among all breaks of the first of each piece, and behind the last (n + 1,)."""
        return np.append(0, np.cumsum(np.bincount(self.breaks[:, 0].astype(int), minlength=len(self.s))))

    def breaks_of(self, piece: np.ndarray) -> tuple[np.ndarray, np.ndarray, np.ndarray]:
        """Return of pieces (m,), whichever they are, the place (k,) of each one's breaks' piece among them, the x (k,) of these, and
        what (k,) the line does behind.
        """
        first = self.first_break[piece]
        many = self.first_break[piece + 1] - first
        rows = ranges(first, many)
        return owners(many), self.break_x[rows], self._behind[rows]

    def reach_of(self, piece: np.ndarray) -> np.ndarray:
        """Return from which to which x (2, m) pieces reach with all they have, NaN where that is not known."""
        return np.full((2, len(piece)), np.nan) if self._outer is None else self._outer[:, piece]

    def straight_between(self, piece: np.ndarray, low: np.ndarray, high: np.ndarray) -> np.ndarray:
        """Tell of pieces (m,) where it is known that nothing bends from the x ``low`` to ``high`` (m,)."""
        if self.warp is not None:
            return np.zeros(len(piece), bool)
        return self.straight_on(piece, self.s[piece] + low, self.s[piece] + high)

    def straight_on(self, piece: np.ndarray, low: np.ndarray, high: np.ndarray) -> np.ndarray:
        """Tell of pieces (m,) where it is known that their line is straight from the distances ``low`` to ``high`` (m,) along it."""
        return np.zeros(len(piece), bool) if self._straight is None else self._straight(piece, low, high)

    def places(self, piece: np.ndarray, x: np.ndarray, v: np.ndarray) -> np.ndarray:
        """Return the places (n,)."""
        s, _, width, _ = self.on_line(piece, x)
        place, tangent, _ = self.frame(piece, s)
        return place + 1j * (self.shift[piece] + v * width) * tangent

    def moves(self, piece: np.ndarray, x: np.ndarray, v: np.ndarray) -> tuple[np.ndarray, np.ndarray, np.ndarray]:
        """Return the places (n,), and how they move a mm of x and of v (n,).

        With N = i·T turned clockwise from T, dN/ds = −k·T: the place P(s) + h·N with h = shift + v·width
        moves by (1 − k·h)·T + v·width′·N along the line, and by width·N across it.
        """
        s, rate, width, change = self.on_line(piece, x)
        place, tangent, bend = self.frame(piece, s)
        normal = 1j * tangent
        h = self.shift[piece] + v * width
        along = rate * (1 - bend * h) * tangent
        if self.warp is not None:
            along += rate * v * change * normal
        return place + h * normal, along, width * normal

    def on_line(self, piece: np.ndarray, x: np.ndarray):
        """Return the distances (m,) along their lines of points of pieces with some x (m,), their change with x, the width, and its
        change a mm.
        """
        return (self.s[piece] + x, 1.0, 1.0, 0.0) if self.warp is None else self.warp(piece, x)
