"""Bent pieces part by part: between two vertices a line mostly goes straight on, and about one it turns in an arc of a circle."""

from __future__ import annotations

from dataclasses import dataclass, replace
from typing import NamedTuple

import numpy as np

from ..maths.ragged import owners
from ..values.tracks import JUMPS, ON, STAYS, TURNS
from .forms import Forms, both, polynomials_of, steady
from .near import LEAST_PART_MM, Near
from .way import Frame, Way


@dataclass(frozen=True, eq=False)
class Parts:
    """Some ``pieces`` (p,), rising, and behind them their parts between the breaks of their lines. Of all these (q,) ``piece`` is the
    piece, and ``low`` and ``high`` are from which to which x they go. ``breaks`` (k,) are x of the pieces whose places are ``broken`` (k,).

    ``way`` tells where points of them go, as if each were a piece; of steady ones as ``known``, without looking for these along the line.
    What lies in ``even`` ones (q,) is not bent: the line is straight there, or jumps.
    """

    way: Way
    pieces: np.ndarray
    piece: np.ndarray
    known: _Steady
    low: np.ndarray
    high: np.ndarray
    even: np.ndarray
    breaks: np.ndarray
    broken: np.ndarray

    @property
    def steady(self) -> np.ndarray:
        """Tell of all parts (q,) which are steady."""
        return self.known.row >= 0

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

    def first(self) -> np.ndarray:
        """Return the first part (p,) of each piece, which has one more than breaks."""
        own = np.arange(len(self.pieces))
        return len(own) + own + np.searchsorted(self.broken, own)

    def told(self, told: Way | Near) -> Way | Near:
        """Return what tells of pieces and parts where points go, as ``told`` does of pieces."""
        return replace(told, way=self.way, rows=told.rows[self.piece]) if isinstance(told, Near) else self.way

    def forms(self, told: Way | Near) -> tuple[np.ndarray, Forms]:
        """Return of all parts (q,) the closed form, −1 where there is none, and all these: the steady ones, and polynomials as ``told``."""
        known, warp = self.known, self.way.warp
        low, high = self.low[known.part] - LEAST_PART_MM, self.high[known.part] + LEAST_PART_MM
        begin, shift = (self.way.s if warp is None else warp.begin)[known.part], self.way.shift[known.part]
        forms = steady(low, high, begin, known.at, known.place, known.tangent, known.bend, shift, warp=warp, parts=known.part)
        if not isinstance(told, Near):
            return known.row, forms
        row = told.rows[self.piece]
        return np.where((known.row < 0) & (row >= 0), len(known.part) + row, known.row), both(forms, polynomials_of(told))


class Along(NamedTuple):
    """The closed forms that tell where points of some pieces go: of each part of theirs, or each piece, ``form`` (q,) is one of ``forms``,
    −1 where none is known. ``parts`` are None where no line turns about a vertex; then ``form`` may be a single one, of all pieces.

    Behind so many of all breaks a piece has the form as much after its ``base`` (n,), None without parts.
    """

    form: np.ndarray
    base: np.ndarray | None
    forms: Forms
    parts: Parts | None

    def base_of(self, piece: np.ndarray) -> np.ndarray:
        """Return where (m,) the forms of pieces (m,) are counted from."""
        return np.minimum(piece, len(self.form) - 1) if self.base is None else self.base[piece]


def forms_along(way: Way, told: Way | Near, pieces: np.ndarray) -> Along:
    """Return the closed forms of ``pieces`` (p,), rising."""
    if not len(way.breaks):
        form = told.rows if isinstance(told, Near) else np.array([-1])
        return Along(form, None, polynomials_of(told), None)
    parts = parts_of(way, pieces)
    base = np.empty(len(way.s), int)
    base[pieces] = parts.first() - way.first_break[pieces]
    form, forms = parts.forms(told)
    return Along(form, base, forms, parts)


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
    piece = np.append(pieces, own)
    known = _steady(way, own, low, high, (does == TURNS) & whole, len(piece))
    warp = None if way.warp is None else way.warp.of(piece)
    by_parts = Way(way.s[piece], way.shift[piece], _frame_of(way, piece, known), warp)
    low, high = np.append(np.full(len(pieces), -np.inf), low), np.append(np.full(len(pieces), np.inf), high)
    even = np.append(np.zeros(len(pieces), bool), (does == JUMPS) & whole)
    if warp is None:
        even[known.part[known.bend == 0]] = True
    return Parts(by_parts, pieces, piece, known, low, high, even, x, of)


@dataclass(frozen=True, eq=False)
class _Steady:
    """The steady ones among all parts (q,): which ``part`` (f,) each is, and its ``row`` (q,) of these, −1 where a part is not.

    From a distance ``at`` (f,) on, its middle, its line goes on from ``place`` along the unit ``tangent`` with the curvature ``bend`` (f,).
    """

    part: np.ndarray
    row: np.ndarray
    at: np.ndarray
    place: np.ndarray
    tangent: np.ndarray
    bend: np.ndarray


def _steady(way: Way, piece: np.ndarray, low: np.ndarray, high: np.ndarray, arcs: np.ndarray, count: int) -> _Steady:
    """Return which of the last ones (k,) of all parts, ``count``, are steady, being ``arcs`` or straight."""
    inset = np.minimum(LEAST_PART_MM, (high - low) / 4)  # to be on one side of a break for certain
    begin, middle, end = (way.on_line(piece, x)[0] for x in (low + inset, (low + high) / 2, high - inset))
    sought = np.flatnonzero(~arcs & np.isfinite(high - low) & (high >= low))
    straight = np.zeros(len(piece), bool)
    straight[sought] = way.straight_on(piece[sought], begin[sought], end[sought])
    own = np.flatnonzero(straight | arcs)
    place, tangent, bend = way.frame(piece[own], middle[own])
    row, part = np.full(count, -1), count - len(piece) + own
    row[part] = np.arange(len(own))
    return _Steady(part, row, middle[own], place, tangent, np.where(straight[own], 0.0, bend))


def _frame_of(way: Way, piece: np.ndarray, known: _Steady) -> Frame:
    """Return the frames of parts (q,): of steady ones from their middles on, of others as the line has them."""

    def steadily(row: np.ndarray, s: np.ndarray) -> tuple[np.ndarray, np.ndarray, np.ndarray]:
        tangent, bend, along = known.tangent[row], known.bend[row], s - known.at[row]
        here = known.place[row] + along * tangent
        arcs = np.flatnonzero(bend)
        if len(arcs):
            turned = tangent[arcs] * np.exp(1j * bend[arcs] * along[arcs])
            here[arcs] = known.place[row[arcs]] + (turned - tangent[arcs]) / (1j * bend[arcs])
            tangent[arcs] = turned
        return here, tangent, bend

    def frame(part: np.ndarray, s: np.ndarray) -> tuple[np.ndarray, np.ndarray, np.ndarray]:
        row = known.row[part]
        rest = np.flatnonzero(row < 0)
        if not len(rest):
            return steadily(row, s)
        found = way.frame(piece[part[rest]], s[rest])
        if len(rest) == len(part):
            return found
        out = steadily(np.maximum(row, 0), s)
        for column, values in zip(out, found, strict=True):
            column[rest] = values
        return out

    return frame
