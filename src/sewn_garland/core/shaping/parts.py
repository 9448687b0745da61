"""Bent pieces part by part: between two vertices a line mostly goes straight on, and about one it turns in an arc of a circle."""

from __future__ import annotations

from dataclasses import dataclass, replace
from functools import cached_property

import numpy as np

from ..maths.ragged import owners
from ..values.tracks import JUMPS, ON, TURNS
from .near import LEAST_PART_MM, Near
from .way import Frame, Way


@dataclass(frozen=True, eq=False)
class Parts:
    """Some ``pieces`` (p,), rising, and behind them their parts between the breaks of their lines. Of all these (q,) ``piece`` is the
    piece, and ``low`` and ``high`` are from which to which x they go.

    ``way`` tells where points of them go, as if each were a piece; of ``steady`` ones (q,) without looking for these along the line.
    What lies in ``even`` ones (q,) is not bent: the line is straight there, or jumps.
    """

    way: Way
    pieces: np.ndarray
    piece: np.ndarray
    low: np.ndarray
    high: np.ndarray
    steady: np.ndarray
    even: np.ndarray

    def at(self, piece: np.ndarray, x: np.ndarray) -> np.ndarray:
        """Return the part (m,) of some pieces that x (m,) lies in; right at a break it is one of the two."""
        breaks, of = self._breaks
        room = 1 + 2 * max(np.abs(breaks).max(initial=0.0), np.abs(x).max(initial=0.0))
        own = self._place(piece)
        passed = np.searchsorted(breaks + room * of, x + room * own, side="right")
        return len(self.pieces) + own + passed  # each piece has a part more than breaks

    def holding(self, piece: np.ndarray, low: np.ndarray, high: np.ndarray) -> np.ndarray:
        """Return the part (m,) that has all of a piece from ``low`` to ``high`` (m,), or the piece where none has."""
        part = self.at(piece, (low + high) / 2)
        inside = (self.low[part] <= low + LEAST_PART_MM) & (high <= self.high[part] + LEAST_PART_MM)
        return np.where(inside, part, self._place(piece))

    def told(self, told: Way | Near) -> Way | Near:
        """Return what tells of pieces and parts where points go, as ``told`` does of pieces."""
        return replace(told, way=self.way, rows=told.rows[self.piece]) if isinstance(told, Near) else self.way

    def _place(self, piece: np.ndarray) -> np.ndarray:
        return np.searchsorted(self.pieces, piece)

    @cached_property
    def _breaks(self) -> tuple[np.ndarray, np.ndarray]:
        """Return the x of all breaks, and the place of each one's piece among the pieces."""
        begins = np.flatnonzero(np.isfinite(self.low))
        return self.low[begins], self._place(self.piece[begins])


def parts_of(way: Way, pieces: np.ndarray) -> Parts:
    """Return some pieces (p,), rising, with their parts."""
    of, x, behind = way.breaks_of(pieces)
    breaks = np.bincount(of, minlength=len(pieces))
    before = of + np.arange(len(of))  # the part that each break ends
    own = pieces[owners(breaks + 1)]
    low, high, does = np.full(len(own), -np.inf), np.full(len(own), np.inf), np.full(len(own), ON)
    high[before], low[before + 1], does[before + 1] = x, x, behind
    whole = np.isfinite(high)  # what begins to turn within a piece may end beyond it
    at, steady, straight = _steady(way, own, low, high, (does == TURNS) & whole)
    piece = np.append(pieces, own)
    steady, straight = (np.append(np.zeros(len(pieces), bool), some) for some in (steady, straight))
    at = np.append(np.zeros(len(pieces)), at)
    warp = way.warp
    by_parts = Way(
        way.s[piece], way.shift[piece], _frame_of(way, piece, at, steady, straight),
        None if warp is None else lambda part, x: warp(piece[part], x),
    )  # fmt: skip
    low, high = np.append(np.full(len(pieces), -np.inf), low), np.append(np.full(len(pieces), np.inf), high)
    even = np.append(np.zeros(len(pieces), bool), (does == JUMPS) & whole) | (straight & (warp is None))
    return Parts(by_parts, pieces, piece, low, high, steady, even)


def _steady(way: Way, piece: np.ndarray, low: np.ndarray, high: np.ndarray, arcs: np.ndarray):
    """Return the distance along its line of each part's middle (k,), which parts (k,) are steady, being ``arcs`` or straight, and which
    are straight.
    """
    ends = way.reach_of(piece)
    low, high = np.where(np.isfinite(low), low, ends[0]), np.where(np.isfinite(high), high, ends[1])
    inset = np.minimum(LEAST_PART_MM, (high - low) / 4)  # to be on one side of a break for certain
    begin, middle, end = (way.distance(piece, x) for x in (low + inset, (low + high) / 2, high - inset))
    known = np.flatnonzero(~arcs & np.isfinite(middle) & (high >= low))
    straight = np.zeros(len(piece), bool)
    straight[known] = way.straight_on(piece[known], begin[known], end[known])
    return middle, straight | arcs, straight


def _frame_of(way: Way, piece: np.ndarray, at: np.ndarray, steady: np.ndarray, straight: np.ndarray) -> Frame:
    """Return the frames of parts (q,): from the middle ``at`` of those that are ``steady`` on, of others as the line has them."""
    own = np.flatnonzero(steady)
    fixed, bends = np.zeros((len(piece), 2), complex), np.zeros((len(piece), 2))
    place, tangent, bend = way.frame(piece[own], at[own])
    fixed[own] = np.column_stack([place, tangent])
    bends[own] = np.column_stack([at[own], np.where(straight[own], 0.0, bend)])

    def frame(part: np.ndarray, s: np.ndarray) -> tuple[np.ndarray, np.ndarray, np.ndarray]:
        (place, tangent), (begin, bend) = np.take(fixed, part, axis=0).T, np.take(bends, part, axis=0).T
        along = s - begin
        here = place + along * tangent
        arcs = np.flatnonzero(bend)
        if len(arcs):
            turned = tangent[arcs] * np.exp(1j * bend[arcs] * along[arcs])
            here[arcs] = place[arcs] + (turned - tangent[arcs]) / (1j * bend[arcs])
            tangent[arcs] = turned
        rest = np.flatnonzero(~steady[part])
        if len(rest):
            here[rest], tangent[rest], bend[rest] = way.frame(piece[part[rest]], s[rest])
        return here, tangent, bend

    return frame
