"""Stops: where along its track each piece goes."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace

import numpy as np

from ..maths.ragged import heads, owners, places
from ..values.arrays import rows_of, stacked
from ..values.brush import Brush, Spacing, Travel
from ..values.line import MeasuredLine
from ..values.pieces import END, REPEAT, START, Stops
from ..values.runs import Runs, RunSpacings
from ..values.taking import Taking
from ..values.tracks import FramesAt, Tracks
from ..values.widths import Widths
from .ease import space_mitred, space_runs
from .extents import Extents
from .joints import Chains, RunsOfLinks, Ways, link_widths
from .links import link_runs
from .uneven import uneven_stops

GENTLE_RADII = 1.2  # of a track's tightest bend
GENTLE_VERTICES = 0.25  # radians that all vertices of a track turn by; with 74° it stays below a quarter


def stops_of(
    brush: Brush, extents: Extents, tracks: Tracks, runs: Runs, frames_at: FramesAt, widths: Widths | None,
    taking: Taking | None = None, others: Sequence[Stops] = (), near_at: FramesAt | None = None,
) -> tuple[RunSpacings, Stops]:  # fmt: skip
    """Fill runs with the repeats of a brush, in turn; return how each is filled, and the stops.

    ``widths`` are None where no track is thick and thin, ``taking`` where all pieces take alike; else it goes by the numbers of
    stops, among those of ``others``, corner, start and end pieces. ``near_at`` tells sooner, and up to 1e-6 mm off, what
    ``frames_at`` does; None where nothing does.
    """
    own = extents.first(len(brush.pieces.repeat))
    if brush.travel.jointed:
        return _linked(brush.spacing, own.length, tracks, runs, frames_at, near_at, widths)
    return _by_frames(brush, own, tracks, runs, widths, taking, others)


def _by_frames(
    brush: Brush, own: Extents, tracks: Tracks, runs: Runs, widths: Widths | None, taking: Taking | None, others: Sequence[Stops]
) -> tuple[RunSpacings, Stops]:
    """Space pieces by their frames."""
    once, filled = brush.travel.once, runs
    if widths is not None and not once:
        filled = even_runs(runs, widths)
    if taking is not None:
        spacings, stops = uneven_stops(filled, brush.spacing, own, tracks, taking, stacked(list(others)))
    else:
        spacings = spacings_of(filled, brush.travel, brush.spacing, own, tracks.unended)
        if tracks.phase.any():
            spacings = phased(spacings, own, tracks.phase[runs.track], closed=runs.closed)
        stops = stops_on(filled, spacings, own, tracks)
    if widths is None:
        return spacings, stops
    if once:  # one piece over the whole line is as long as it is at any width
        return spacings, replace(stops, width=widths.at(tracks.of(stops), stops.s)[0])
    return rests_in_mm(runs, filled, spacings, widths), widened(stops, tracks, widths, bent=brush.travel.bent)


def spacings_of(runs: Runs, travel: Travel, spacing: Spacing, extents: Extents, unended: np.ndarray) -> RunSpacings:
    """Return how each run is filled; on tracks ``unended`` (t,) nothing is left over, so nothing is eased there."""
    if travel.once:
        return _once(runs.length, float(extents.length[0]))
    spacings = _repeated(runs, extents, ease=spacing.ease, limit=spacing.ease_limit, rest=spacing.rest)
    endless = np.flatnonzero(unended[runs.track])
    if len(endless):
        left = _repeated(rows_of(runs, endless), extents, ease="leave", limit=spacing.ease_limit, rest="end")
        spacings = spacings.with_rows(endless, left)
    return spacings


def _repeated(runs: Runs, extents: Extents, **how) -> RunSpacings:
    pieces = extents.length, extents.gap
    mitred = np.asarray(runs.mitred.any(axis=1))
    if mitred.all() and len(mitred):
        return space_mitred(runs.length, *pieces, mitred=runs.mitred, beyond=runs.beyond, **how)
    spacings = space_runs(runs.length, *pieces, closed=runs.closed, **how)
    if mitred.any():
        spacings = space_mitred(runs.length, *pieces, mitred=runs.mitred, beyond=runs.beyond, **how).where(mitred, spacings)
    return spacings


def _once(room: np.ndarray, length: float) -> RunSpacings:
    """Lay one piece over each whole run; a run without length has none."""
    laid = room > 0
    factor = np.where(laid, room / length, 1.0)
    return RunSpacings.of(laid.astype(int), factor=factor, eased=factor - 1, short=~laid)


def phased(spacings: RunSpacings, extents: Extents, phase: np.ndarray, *, closed: np.ndarray) -> RunSpacings:
    """Move runs' pieces on by shares ``phase`` (r,) of their pitch; an open run that is moved then has one less."""
    pitch = extents.mean_pitch * spacings.factor + spacings.extra_gap
    count = np.where(closed | (phase == 0), spacings.count, np.maximum(spacings.count - 1, 0))
    return replace(spacings, count=count, offset=spacings.offset + phase * pitch)


def stops_on(runs: Runs, spacings: RunSpacings, extents: Extents, tracks: Tracks) -> Stops:
    """Return the stops of all runs in the order of travel.

    Variants are laid in turn and begin anew on every run. No runs give empty stops.
    """
    of, place = owners(spacings.count), places(spacings.count)
    whole, variant = np.divmod(place, len(extents.gap))
    begun = np.concatenate([[0.0], np.cumsum(extents.length + extents.gap)])
    factors, extra_gap = spacings.factor[of], spacings.extra_gap[of]
    taken = (whole * begun[-1] + begun[variant]) * factors + place * extra_gap + spacings.offset[of]
    before = extents.before[variant] * factors
    gap_after = extents.gap[variant] * factors + extra_gap
    round_ = runs.closed & (spacings.count > 0)
    gap_after[np.cumsum(spacings.count)[round_] - 1] += spacings.rest[round_]
    return Stops.on(
        runs.track[of], tracks.rows, variant, run=runs.number[of], place=place, s=runs.start[of] + taken + before,
        before=before, after=extents.after[variant] * factors, factor=factors, gap_after=gap_after,
    )  # fmt: skip


def even_runs(runs: Runs, widths: Widths) -> Runs:
    """Return the runs in even distances, in which their pieces take as much anywhere."""
    ends = runs.start, runs.start + runs.length
    begin, finish = (widths.even_of(runs.track, at) for at in ends)
    wide = np.stack([widths.at(runs.track, at)[0] for at in ends], axis=1)
    return replace(runs, start=begin, length=finish - begin, beyond=runs.beyond / wide)


def rests_in_mm(runs: Runs, even: Runs, spacings: RunSpacings, widths: Widths) -> RunSpacings:
    """Return how runs are filled with their rests in mm; ``even`` are the runs in even distances."""
    before = np.minimum(spacings.offset, spacings.rest)
    first, last = even.start + before, even.start + even.length - (spacings.rest - before)
    taken = widths.mm_of(runs.track, last) - widths.mm_of(runs.track, first)
    return replace(spacings, rest=np.where(spacings.rest > 0, np.maximum(runs.length - taken, 0.0), 0.0))


def widened(stops: Stops, tracks: Tracks, widths: Widths, *, bent: bool) -> Stops:
    """Bring stops from even distances to mm on their tracks, each piece as wide as its stretch is long.

    Base lines' middles divide rigid pieces' stretches as they divide the piece; bent pieces follow
    the even distances themselves.
    """
    track = tracks.of(stops)
    edges = [stops.s - stops.before, stops.s + stops.after, stops.s + stops.after + stops.gap_after]
    low, high, on = (widths.mm_of(track, e) for e in edges)
    even = stops.before + stops.after
    width = np.where(even > 0, (high - low) / np.where(even > 0, even, 1.0), 1.0)
    s = widths.mm_of(track, stops.s) if bent else low + stops.before * width
    return replace(stops, s=s, before=s - low, after=high - s, gap_after=on - high, width=width)


def _linked(
    spacing: Spacing, own: np.ndarray, tracks: Tracks, runs: Runs, frames_at: FramesAt, near_at: FramesAt | None, widths: Widths | None
) -> tuple[RunSpacings, Stops]:
    """Space pieces by their joints, each at a link's length ``own`` (m,) from the one before."""
    ways = Ways.along(frames_at, near_at, runs.track)
    gentle = np.array([_gentle(track) for track in tracks.measured])
    table = RunsOfLinks(runs.start, runs.length, runs.closed, widths and widths.of_runs(runs.track), gentle[runs.track])
    spacings, chains = link_runs(
        ways, table, own, ease=spacing.ease, limit=spacing.ease_limit, rest=spacing.rest, unended=tracks.unended[runs.track]
    )
    width = None if widths is None else link_widths(ways.line, chains, own)
    stops = stops_of_links(runs, chains, len(own), width, tracks)
    return spacings, _with_openings(stops, tracks, table.closed & (chains.count > 0), chains, frames_at)


def _gentle(track: MeasuredLine) -> float:
    """Return how long (mm) a link may be that cannot turn by a quarter on a track, so that the line goes away from it all along.

    On a circle a chord of 1.2 r turns by 74°, and elsewhere one turns by no more than on the tightest bend, and at vertices.
    """
    if np.abs(track.vertex_turn).sum() > GENTLE_VERTICES:
        return 0.0
    return np.inf if track.tightest_radius is None else GENTLE_RADII * track.tightest_radius


def stops_of_links(runs: Runs, chains: Chains, own: int, width: np.ndarray | None, tracks: Tracks) -> Stops:
    """Return the stops of jointed pieces half-way along the line between their joints.

    ``own`` is the number of variants, ``width`` (n,) how wide each link is where lines are thick and thin.
    """
    of, place = owners(chains.count), places(chains.count)
    first = np.arange(len(of)) + of  # every run before has a joint more than links
    a, b = chains.s[first], chains.s[first + 1] if len(first) else chains.s[:0]
    return Stops.on(
        runs.track[of], tracks.rows, place % own, run=runs.number[of], place=place, s=(a + b) / 2, before=(b - a) / 2,
        after=(b - a) / 2, factor=chains.sigma[of], width=np.ones(len(of)) if width is None else width,
    )  # fmt: skip


def _with_openings(stops: Stops, tracks: Tracks, closed: np.ndarray, chains: Chains, frames_at: FramesAt) -> Stops:
    """Wish for the opening that a closed line's links leave between the last and the first: it is told as what is left over."""
    first = heads(chains.count)[closed]
    last = first + chains.count[closed] - 1
    if not len(last):
        return stops
    track = tracks.of(stops)
    begin, finish = (stops.s - stops.before)[first], (stops.s + stops.after)[last]
    end, start = (frames_at(track[i], s).position for i, s in ((last, finish), (first, begin)))
    gap_after = stops.gap_after.copy()
    gap_after[last] = np.hypot(*(start - end).T)
    return replace(stops, gap_after=gap_after)


def merged(tracks: Tracks, repeats: Stops, *others: Stops) -> Stops:
    """Put the stops of corner, start and end pieces among the repeats in the order of travel, and number them along each row.

    The gap that was wished next to such a piece is the one that the run's rest leaves there.
    """
    stops = repeats
    if any(len(other.s) for other in others):
        every = stacked([repeats, *others])
        rank = np.where(every.role == START, 0, np.where(every.role == REPEAT, 1, np.where(every.role == END, 3, 2)))
        every = rows_of(every, np.lexsort((every.place, rank, every.run, every.row, every.line)))
        beside = (every.line[1:] == every.line[:-1]) & (every.run[1:] == every.run[:-1])
        beside &= (every.role[:-1] == START) | (every.role[1:] != REPEAT)
        between = (every.s - every.before)[1:] - (every.s + every.after)[:-1]
        gap_after = every.gap_after.copy()
        gap_after[:-1][beside] = between[beside]
        stops = replace(every, gap_after=gap_after)
    return replace(stops, stop=places(np.bincount(tracks.of(stops))))
