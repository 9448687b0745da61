"""Fill runs with repeats of unlike sizes and gaps, one after the other: each takes the length of its own size."""

from __future__ import annotations

from dataclasses import replace
from functools import cached_property
from typing import NamedTuple

import numpy as np

from ..errors import LimitError
from ..maths.ragged import heads, owners, places, run_heads
from ..values.brush import Spacing
from ..values.pieces import START, Stops
from ..values.runs import Runs, RunSpacings
from ..values.taking import Taking
from ..values.tracks import Tracks
from ..values.variations import LEAST_SIZE
from .ease import FIT_SLACK, LIMIT_SLACK, SHARE_OF_REST
from .extents import MOST_PIECES, Extents, grouped

LEAST_PITCH = 0.01  # chosen: of the mean length, that a piece takes with its gap at least; they would else never fill their line
LEFT_ALONE = Spacing()  # nothing is left over on a window on a line without an end
TOO_SHORT_REL_TOL = 1e-6  # chosen: far beyond the slack within which a piece fits
FIRST_GUESS = 64  # stops; chosen
MANY_RUNS = 8  # of a row, from which on they are looked at together; chosen
ROUNDS = 12  # in which gaps that go by their place settle


class _Sizes(NamedTuple):
    """What pieces take, by the number of their stop: factors on size, and mm of the gap after each."""

    factor: np.ndarray
    gap: np.ndarray


_Taken = tuple[np.ndarray, np.ndarray, np.ndarray]
"""The factors on size, the lengths and the gaps after (n,) of some repeats of a row that follow one another, mm."""


class _Fill(NamedTuple):
    """How a run is filled."""

    count: int
    factor: float
    extra_gap: float
    rest: float
    eased: float
    short: bool


def uneven_stops(runs: Runs, spacing: Spacing, own: Extents, tracks: Tracks, taking: Taking, others: Stops) -> tuple[RunSpacings, Stops]:
    """Fill runs, in the order of travel, with repeats laid in turn that take what their stops' numbers say.

    ``others`` are the stops of corner, start and end pieces, which are numbered with them. A run is filled by the whole number of
    pieces that changes least by the ease. Raises LimitError beyond what may be laid.
    """
    fills: list[_Fill] = []
    parts: list[_Taken] = []
    before = _others_before(runs, others, tracks)
    laid, track = 0, -1
    for i in range(len(runs.start)):
        if runs.track[i] != track:
            track, laid = int(runs.track[i]), 0
            how = LEFT_ALONE if tracks.unended[track] else spacing
            every = runs.track == track
            row, begun = _Row(track, own, taking, runs.start[every], _most_room(runs.length[every], how)), i
        first = laid + int(before[i])
        fill, taken = _filled(row, i - begun, first, float(runs.length[i]), bool(runs.closed[i]), how)
        laid += fill.count
        fills.append(fill)
        if fill.count:
            factor, lengths, gaps = taken
            parts.append((factor[: fill.count], lengths[: fill.count], gaps[: fill.count]))
    spacings = _spacings(fills, runs, spacing)
    return spacings, _stops(runs, spacings, own, tracks, parts)


class _Row:
    """The repeats of a row, by the number of their stop, as many as are asked for; its runs (r,) begin at their ``starts`` and take their
    ``rooms`` at most.
    """

    def __init__(self, track: int, own: Extents, taking: Taking, starts: np.ndarray, rooms: np.ndarray) -> None:
        self.track, self.own, self.taking, self.starts, self.rooms = track, own, taking, starts, rooms
        self.least = LEAST_PITCH * float(own.length.mean())
        self.known = _Sizes(np.zeros(0), np.zeros(0))

    def _upto(self, count: int) -> _Sizes:
        if count > MOST_PIECES:
            raise _too_many()
        if len(self.known.factor) < count:
            count = max(count, 2 * len(self.known.factor), FIRST_GUESS)
            size, gap = self.taking.size, self.taking.gap
            self.known = _Sizes(
                np.ones(count) if size is None else size(self.track, count), np.zeros(count) if gap is None else gap(self.track, count)
            )
        return self.known

    def first_length(self, first: int) -> float:
        """Return the length of the first repeat of a run that begins with stop ``first``, mm."""
        factor = self._upto(first + 1).factor[first]
        return float(self.own.length[0] * (1.0 if factor < LEAST_SIZE else factor))

    def taken(self, first: int, count: int, start: float) -> _Taken:
        """Return what the repeats from stop ``first`` on take, so many of them."""
        known, variant = self._upto(first + count), np.arange(count) % len(self.own.gap)
        factor, more = known.factor[first : first + count], known.gap[first : first + count]
        takes = np.where(factor < LEAST_SIZE, 1.0, factor)  # one too small to be seen leaves its place empty
        lengths, gaps = self.own.length[variant] * takes, self.own.gap[variant] * takes
        unvaried = self.own.length[variant]
        if self.taking.gap_along is None:
            return factor, lengths, np.maximum(gaps + more * unvaried, self.least - lengths)
        at = start + np.cumsum(lengths + gaps) - gaps
        for _ in range(ROUNDS):
            gap = np.maximum(gaps + (more + self.taking.gap_along(self.track, at)) * unvaried, self.least - lengths)
            onward = start + np.cumsum(lengths + gap) - gap
            settled = bool(np.abs(onward - at).max(initial=0.0) < FIT_SLACK)
            at = onward
            if settled:
                break
        return factor, lengths, gap

    @cached_property
    def _all_enough(self) -> list[_Taken]:
        """Return what ``enough`` does for each run, in one go; nothing where these are few or repeats take what their numbers say."""
        starts, rooms = self.starts, self.rooms
        if self.taking.size or self.taking.gap or len(starts) < MANY_RUNS:
            return []
        counts = np.maximum(rooms / max(self.own.mean_pitch, self.least), 0.0).astype(int) + 3
        out: list[_Taken | None] = [None] * len(starts)
        left = np.arange(len(starts))
        while len(left):
            if counts[left].sum() > MOST_PIECES:
                raise _too_many()
            lengths, gaps = self._side_by_side(starts[left], counts[left])
            first, short = heads(counts[left]), []
            for k, (i, begin) in enumerate(zip(left.tolist(), first.tolist(), strict=True)):
                some = slice(begin, begin + counts[i])
                if (lengths[some] + gaps[some])[:-2].sum() > rooms[i]:
                    out[i] = np.ones(counts[i]), lengths[some], gaps[some]
                else:
                    short.append(left[k])
            left = np.array(short, int)
            counts[left] = 2 * counts[left] + FIRST_GUESS
        return [taken for taken in out if taken is not None]

    def _side_by_side(self, starts: np.ndarray, counts: np.ndarray) -> tuple[np.ndarray, np.ndarray]:
        """Return the lengths and the gaps after (Σ counts,) of so many repeats in each run (r,), which hang on no numbers."""
        variant = places(counts) % len(self.own.gap)
        lengths, gaps = self.own.length[variant], self.own.gap[variant]
        found, of, moving = gaps.copy(), owners(counts), np.arange(len(lengths))
        at = _onward(starts[of], lengths + gaps, of) - gaps
        for _ in range(ROUNDS):
            asked = self.taking.gap_along(self.track, at[moving]) if self.taking.gap_along else np.zeros(len(moving))
            found[moving] = np.maximum(gaps[moving] + asked * lengths[moving], self.least - lengths[moving])
            onward = _onward(starts[of[moving]], lengths[moving] + found[moving], of[moving]) - found[moving]
            off = np.bincount(of[moving], np.abs(onward - at[moving]) >= FIT_SLACK, minlength=len(counts))
            at[moving] = onward
            moving = moving[off[of[moving]] > 0]  # a run that has settled stays, whatever is laid beside it
            if not len(moving):
                break
        return lengths, found

    def enough(self, run: int, first: int) -> _Taken:
        """Return what the repeats of a run from stop ``first`` on take, more than fill it."""
        if self._all_enough:
            return self._all_enough[run]
        start, room = float(self.starts[run]), float(self.rooms[run])
        count = int(room / max(self.own.mean_pitch, self.least)) + 3
        while True:
            taken = self.taken(first, count, start)
            if (taken[1] + taken[2])[:-2].sum() > room:
                return taken
            count = 2 * count + FIRST_GUESS


def _too_many() -> LimitError:
    return LimitError(f"these sizes and gaps need more than {grouped(MOST_PIECES)} pieces: enlarge the least of them, or widen the gap")


def _onward(start: np.ndarray, takes: np.ndarray, of: np.ndarray) -> np.ndarray:
    """Return where repeats (n,) end that take so much one after the other, in runs ``of`` (n,) that begin at their ``start`` (n,)."""
    behind, first = np.cumsum(takes), run_heads(of)
    before = behind[first] - takes[first]
    return start + behind - np.repeat(before, np.diff(np.append(first, len(of))))


def _most_room(length: np.ndarray, spacing: Spacing) -> np.ndarray:
    """Return how much room (r,) repeats may take as they are that are then eased into runs of some length (r,)."""
    return length / (1 - (spacing.ease_limit if spacing.ease in ("size", "length") else 0.0))


def _filled(row: _Row, run: int, first: int, room: float, closed: bool, spacing: Spacing) -> tuple[_Fill, _Taken]:
    """Return how a run is filled from stop ``first`` on, and what its repeats take and some more behind; one too short for its first piece
    has none.
    """
    nothing = (np.zeros(0), np.zeros(0), np.zeros(0))
    if room <= 0:  # its corners or ends take it all
        return _Fill(0, 1.0, 0.0, 0.0, 0.0, True), nothing
    if row.first_length(first) > row.rooms[run] * (1 + TOO_SHORT_REL_TOL):
        way = 0.0 if spacing.ease == "leave" else 1.0 if spacing.ease == "gaps" and not closed else -1.0
        eased = way * spacing.ease_limit  # as far as it goes, to no avail
        return _Fill(0, 1.0 if spacing.ease == "gaps" else 1.0 + eased, 0.0, room, eased, True), nothing
    taken = row.enough(run, first)
    return _fill(taken[1], taken[2], room, closed, spacing), taken


def _fill(lengths: np.ndarray, gaps: np.ndarray, room: float, closed: bool, spacing: Spacing) -> _Fill:
    """Return how a run is filled by repeats of some lengths and gaps (n,), more than fill it."""
    mean = float((lengths + gaps).mean())
    spans = np.maximum.accumulate(np.cumsum(lengths + gaps) - (0.0 if closed else gaps))  # one may reach past those after it
    fits = int(np.searchsorted(spans, room + FIT_SLACK * mean, side="right"))
    if spacing.ease == "leave":
        return _Fill(fits, 1.0, 0.0, max(0.0, room - spans[fits - 1]) if fits else room, 0.0, fits == 0)
    best = min((n for n in (max(1, fits), fits + 1)), key=lambda n: abs(_change(n, spans, room, mean, closed, spacing)))
    eased = _change(best, spans, room, mean, closed, spacing)
    if abs(eased) > spacing.ease_limit + LIMIT_SLACK:
        eased = np.sign(eased) * spacing.ease_limit
        room_then = room / (1 + eased) if spacing.ease != "gaps" else room
        then = spans if spacing.ease != "gaps" else spans + eased * mean * (np.arange(len(spans)) + closed)
        best = int(np.searchsorted(then, room_then + FIT_SLACK * mean, side="right"))
        left = max(0.0, room_then - then[best - 1]) * (1 + eased * (spacing.ease != "gaps")) if best else room
    else:
        left = 0.0
    if spacing.ease == "gaps":
        return _Fill(best, 1.0, eased * mean, left, eased, left > 0 or not best)
    return _Fill(best, 1.0 + eased, 0.0, left, eased, left > 0 or not best)


def _change(n: int, spans: np.ndarray, room: float, mean: float, closed: bool, spacing: Spacing) -> float:
    """Return by what share n pieces are changed to fill the room; one alone has no gap to ease."""
    if spacing.ease != "gaps":
        return room / spans[n - 1] - 1
    between = n if closed else n - 1
    return (room - spans[n - 1]) / between / mean if between else np.inf


def _others_before(runs: Runs, others: Stops, tracks: Tracks) -> np.ndarray:
    """Return how many pieces of other roles lie before the repeats of each run (r,) on its track."""
    if not len(others.s):
        return np.zeros(len(runs.start), int)
    track, edges = tracks.of(others), runs.edges(len(tracks.measured))
    own = edges[track] + others.run + np.where(others.role == START, 0, 1)  # from which run on each lies before
    own = np.minimum(own, edges[track + 1])
    counts = np.bincount(own, minlength=len(runs.start) + 1)[: len(runs.start)]
    total = np.cumsum(counts)
    begin = edges[runs.track]
    return total - np.where(begin > 0, total[begin - 1], 0)


def _spacings(fills: list[_Fill], runs: Runs, spacing: Spacing) -> RunSpacings:
    count, factor, extra, rest, eased, short = (np.array(column) for column in zip(*fills, strict=True)) if fills else [np.zeros(0)] * 6
    left = np.where((count > 0) & ~runs.closed, rest * SHARE_OF_REST[spacing.rest], 0.0)
    return RunSpacings.of(count.astype(int), factor=factor, extra_gap=extra, rest=rest, eased=eased, short=short.astype(bool), offset=left)


def _stops(runs: Runs, spacings: RunSpacings, own: Extents, tracks: Tracks, parts: list) -> Stops:
    of, place = owners(spacings.count), places(spacings.count)
    size, lengths, gaps = (np.concatenate([np.zeros(0), *column]) for column in zip(*parts, strict=True)) if parts else [np.zeros(0)] * 3
    factor = spacings.factor[of]
    lengths, gap_after = lengths * factor, gaps * factor + spacings.extra_gap[of]
    begun = np.cumsum(lengths + gap_after) - (lengths + gap_after)
    first = heads(spacings.count)
    begun = begun - begun[np.minimum(first, max(len(begun) - 1, 0))][of] if len(begun) else begun
    variant = place % len(own.gap)
    before = own.before[variant] / own.length[variant] * lengths
    round_ = runs.closed & (spacings.count > 0)
    gap_after[np.cumsum(spacings.count)[round_] - 1] += spacings.rest[round_]
    stops = Stops.on(
        runs.track[of], tracks.rows, variant, run=runs.number[of], place=place,
        s=runs.start[of] + spacings.offset[of] + begun + before, before=before, after=lengths - before, factor=factor, gap_after=gap_after,
    )  # fmt: skip
    return replace(stops, size=size)
