"""Lines to lay on, and the tracks that their rows go along."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass

import numpy as np

from .arrays import freeze_arrays
from .line import Frames, MeasuredLine
from .widths import Widths

Located = Callable[[np.ndarray, np.ndarray], tuple[np.ndarray, np.ndarray, np.ndarray]]
"""Takes tracks (n,) and distances (n,), returns places and unit tangents as complex numbers, and curvature (n,)."""

FramesAt = Callable[[np.ndarray, np.ndarray], Frames]
"""Takes tracks (n,) and distances (n,)."""

Straight = Callable[[np.ndarray, np.ndarray, np.ndarray], np.ndarray]
"""Takes tracks (m,) and from which distance to which (m,), tells (m,) where nothing bends between."""


@dataclass(frozen=True, eq=False)
class LineToLay:
    """A measured line with the number it is known by: chance and hand-set pieces go by that, never by a place in a call.

    A line that is ``unended`` is a window on one without an end.
    """

    line: MeasuredLine
    key: int = 0
    unended: bool = False


@dataclass(frozen=True, eq=False)
class Tracks:
    """What the rows of n lines are laid on, line by line, row by row: ``rows`` tracks a line, t = n · rows in all.

    ``measured`` (t,) are the tracks, set out and rounded; ``keys`` (n,) what lines are known by; ``shift`` (t,) the mm that
    pieces lie to the right of their track, ``phase`` (t,) the share of a pitch that they are moved on, ``unended`` (t,) which
    are windows on lines without an end. ``crowded`` are track (c,) and mm along it (c,) of corners too crowded to be rounded.
    """

    measured: tuple[MeasuredLine, ...]
    rows: int
    keys: tuple[int, ...]
    shift: np.ndarray
    phase: np.ndarray
    unended: np.ndarray
    crowded: tuple[np.ndarray, np.ndarray]

    def __post_init__(self) -> None:
        freeze_arrays(self)

    @property
    def lengths(self) -> np.ndarray:
        """Return the lengths (t,) of all, mm."""
        return np.array([line.length for line in self.measured])

    @property
    def tightest(self) -> float:
        """Return the tightest bend of all, mm; infinite where none bends."""
        return min((line.tightest_radius for line in self.measured if line.tightest_radius is not None), default=np.inf)

    @property
    def row(self) -> np.ndarray:
        """Return the row (t,) of each track in its line."""
        return np.arange(len(self.measured)) % self.rows

    @property
    def line(self) -> np.ndarray:
        """Return the line (t,) of each track."""
        return np.arange(len(self.measured)) // self.rows

    def of(self, pieces) -> np.ndarray:
        """Return the track (n,) of every row of a table of pieces."""
        return pieces.line * self.rows + pieces.row

    def only(self, track: int) -> Tracks:
        """Return one track alone, as row 0 of one line known as its line is."""
        which, at = self.crowded
        own = which == track
        return Tracks(
            self.measured[track : track + 1], 1, (self.keys[track // self.rows],), self.shift[[track]], self.phase[[track]],
            self.unended[[track]], (np.zeros(int(own.sum()), int), at[own]),
        )  # fmt: skip


ON, TURNS, JUMPS, STAYS = 0, 1, 2, 3  # what a line does behind a break: also go on as wide as it is there


@dataclass(frozen=True, eq=False)
class Softened:
    """Tracks whose vertices have arcs too small to see, for bent pieces to turn about.

    ``moved(track, s)`` brings distances (n,) of the tracks to the softened ones, of ``lengths`` (t,) mm. ``breaks`` are, by track, the
    distances at which a softened one begins and ends to turn, rising, and ``behind`` what it does behind each: it goes ``ON``, ``TURNS``
    in an arc, or ``JUMPS`` round a vertex too sharp for one. About so many ``curves`` (t,) are to follow each.
    """

    measured: tuple[MeasuredLine, ...]
    lengths: np.ndarray
    located: Located
    straight: Straight
    moved: Callable[[np.ndarray, np.ndarray], np.ndarray]
    breaks: tuple[np.ndarray, ...]
    behind: tuple[np.ndarray, ...]
    widths: Widths | None
    curves: np.ndarray

    def on_legs(self, track: np.ndarray, s: np.ndarray, legs: np.ndarray | None):
        """Return places, tangents and curvature at distances, straight on beyond their legs' vertices (n, 2), if any."""
        return straight_beyond(self.located, self.lengths, track, s, legs)


def straight_beyond(located: Located, lengths: np.ndarray, track: np.ndarray, s: np.ndarray, legs: np.ndarray | None):
    """Return what ``located`` does, straight on beyond the legs' vertices (n, 2), where there are any; ``lengths`` (t,) of tracks."""
    if legs is None:
        return located(track, s)
    slack = 1e-9 * lengths[track]
    inside = np.clip(s, legs[:, 0] + slack, legs[:, 1] - slack)
    place, tangent, bend = located(track, inside)
    beyond = s - inside
    return place + beyond * tangent, tangent, np.where(np.abs(beyond) > 2 * slack, 0.0, bend)
