"""Bent pieces part by part: between two vertices a line mostly goes straight on, and about one it turns in an arc of a circle."""

from __future__ import annotations

from dataclasses import dataclass, replace

import numpy as np

from ..maths.ragged import owners
from ..values.tracks import JUMPS, ON, STAYS, TURNS
from .near import LEAST_PART_MM, Near
from .way import Frame, Way


@dataclass(frozen=True, eq=False)
class Parts:
    """Some ``pieces`` (p,), rising, and behind them their parts between the breaks of their lines. Of all these (q,) ``piece`` is the
    piece, and ``low`` and ``high`` are from which to which x they go. ``breaks`` (k,) are x of the pieces whose places are ``broken`` (k,).

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
    breaks: np.ndarray
    broken: np.ndarray

    def at(self, piece: np.ndarray, x: np.ndarray) -> np.ndarray:
        """Return the part (m,) of some pieces that x (m,) lies in, the piece itself where none has it; at a break it is one of the two."""
        return self.holding(piece, x, x)

    def holding(self, piece: np.ndarray, low: np.ndarray, high: np.ndarray) -> np.ndarray:
        """Return the part (m,) that has all of a piece from ``low`` to ``high`` (m,), or the piece where none has."""
        own, x = np.searchsorted(self.pieces, piece), (low + high) / 2
        room = 1 + 2 * max(np.abs(self.breaks).max(initial=0.0), np.abs(x).max(initial=0.0))
        passed = np.searchsorted(self.breaks + room * self.broken, x + room * own, side="right")
        part = len(self.pieces) + own + passed  # each piece has a part more than breaks
        inside = (self.low[part] <= low + LEAST_PART_MM) & (high <= self.high[part] + LEAST_PART_MM)
        return np.where(inside, part, own)

    def told(self, told: Way | Near) -> Way | Near:
        """Return what tells of pieces and parts where points go, as ``told`` does of pieces."""
        return replace(told, way=self.way, rows=told.rows[self.piece]) if isinstance(told, Near) else self.way


def parts_of(way: Way, pieces: np.ndarray) -> Parts:
    """Return some pieces (p,), rising, with their parts."""
    of, x, behind = way.breaks_of(pieces)
    breaks = np.bincount(of, minlength=len(pieces))
    before = of + np.arange(len(of))  # the part that each break ends
    own = pieces[owners(breaks + 1)]
    reach = way.reach_of(own)
    low, high = np.where(np.isnan(reach), [[-np.inf], [np.inf]], reach)
    does, then = np.full((2, len(own)), STAYS)
    high[before], low[before + 1], does[before + 1], then[before] = x, x, behind, behind
    whole = then == ON  # what begins to turn within a piece may end beyond it
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
    return Parts(by_parts, pieces, piece, low, high, steady, even, x, of)


def _steady(way: Way, piece: np.ndarray, low: np.ndarray, high: np.ndarray, arcs: np.ndarray):
    """Return the distance along its line of each part's middle (k,), which parts (k,) are steady, being ``arcs`` or straight, and which
    are straight.
    """
    inset = np.minimum(LEAST_PART_MM, (high - low) / 4)  # to be on one side of a break for certain
    begin, middle, end = (way.on_line(piece, x)[0] for x in (low + inset, (low + high) / 2, high - inset))
    known = np.flatnonzero(~arcs & np.isfinite(high - low) & (high >= low))
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

    def steadily(part: np.ndarray, s: np.ndarray) -> tuple[np.ndarray, np.ndarray, np.ndarray]:
        (place, tangent), (begin, bend) = np.take(fixed, part, axis=0).T, np.take(bends, part, axis=0).T
        along = s - begin
        here = place + along * tangent
        arcs = np.flatnonzero(bend)
        if len(arcs):
            turned = tangent[arcs] * np.exp(1j * bend[arcs] * along[arcs])
            here[arcs] = place[arcs] + (turned - tangent[arcs]) / (1j * bend[arcs])
            tangent[arcs] = turned
        return here, tangent, bend

    def frame(part: np.ndarray, s: np.ndarray) -> tuple[np.ndarray, np.ndarray, np.ndarray]:
        known = steady[part]
        if known.all():
            return steadily(part, s)
        rest = np.flatnonzero(~known)
        found = way.frame(piece[part[rest]], s[rest])
        if len(rest) == len(part):
            return found
        out = steadily(part, s)
        for column, values in zip(out, found, strict=True):
            column[rest] = values
        return out

    return frame
