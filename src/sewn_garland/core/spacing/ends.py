"""Start and end pieces: what they take off the runs at a line's ends, and their own stops."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import replace
from itertools import pairwise
from typing import NamedTuple

import numpy as np

from ..values.brush import ROLES, Brush, Role
from ..values.pieces import Stops
from ..values.runs import Runs
from ..values.tracks import FramesAt, Tracks
from ..values.widths import Widths
from .extents import Extents
from .joints import Curve, RunsOfLinks, Ways, curve_along, laid_chains

_ENDS: tuple[Role, Role] = ("start", "end")


class _Taken(NamedTuple):
    """The mm of a track that a piece at its end takes, and how wide the track is for it."""

    mm: float
    width: float


def trimmed_runs(
    brush: Brush, extents: Extents, tracks: Tracks, runs: Runs, frames_at: FramesAt, widths: Widths | None
) -> tuple[Runs, Stops]:
    """Take start and end pieces off the first and last runs of open tracks; return what is left, and their stops.

    A closed track has neither, nor has one too short for what is asked.
    """
    start, length, rows = runs.start.copy(), runs.length.copy(), []
    for track, first, last in _open_tracks(brush, tracks, runs):
        whole = float(tracks.lengths[track])
        begin, finish = (_taken(brush, extents, frames_at, track, whole, widths, role) for role in _ENDS)
        room = length[first] if first == last else min(length[first] - begin.mm, length[last] - finish.mm) + begin.mm + finish.mm
        if begin.mm + finish.mm > room + 1e-9:
            continue
        start[first] += begin.mm
        length[first] -= begin.mm
        length[last] = max(length[last] - finish.mm, 0.0)
        both: tuple[tuple[Role, _Taken, float, int], ...] = (("start", begin, 0.0, first), ("end", finish, whole - finish.mm, last))
        for role, taken, at, run in both:
            if brush.pieces.of(role) is not None:
                before = _before(brush, extents, role, taken, at, track, widths)
                index = brush.pieces.index_of(role)
                rows.append((track, index, ROLES.index(role), runs.number[run], at + before, before, taken.mm - before, taken.width))
    track, index, role, run, s, before, after, width = np.array(rows, float).reshape(-1, 8).T
    stops = Stops.on(
        track.astype(int), tracks.rows, index.astype(int), role=role.astype(int), run=run.astype(int),
        variant=np.zeros(len(s), int), s=s, before=before, after=after, width=width,
    )  # fmt: skip
    return replace(runs, start=start, length=length), stops


def _open_tracks(brush: Brush, tracks: Tracks, runs: Runs) -> Iterator[tuple[int, int, int]]:
    """Yield the tracks that have ends, each with its first and last run, where the brush has pieces for ends."""
    if brush.pieces.start is None and brush.pieces.end is None:
        return
    for track, (first, end) in enumerate(pairwise(runs.edges(len(tracks.measured)).tolist())):
        if end > first and not runs.closed[first] and not _meets_itself(runs, end - 1, float(tracks.lengths[track])):
            yield track, first, end - 1


def _meets_itself(runs: Runs, last: int, length: float) -> bool:
    """Tell whether a track of a length goes round without an end: its last run then reaches past that."""
    reach = runs.leg[last, 1]
    return (reach if np.isfinite(reach) else runs.start[last] + runs.length[last]) > length + 1e-9


def _taken(brush: Brush, extents: Extents, frames_at: FramesAt, track: int, length: float, widths: Widths | None, role: Role) -> _Taken:
    """Return what the piece of a role takes at its end of a track."""
    if brush.pieces.of(role) is None:
        return _Taken(0.0, 1.0)
    index, from_end = brush.pieces.index_of(role), role == "end"
    if not brush.travel.jointed:
        return _stretch(float(extents.length[index]), track, length, widths, from_end=from_end)
    width = 1.0 if widths is None else float(widths.at(np.array([track]), np.array([length * from_end]))[0][0])
    curve = curve_along(frames_at, np.array([track]))
    way = _backwards(curve, length) if from_end else curve
    run = RunsOfLinks(np.zeros(1), np.array([length]), np.zeros(1, bool))
    own = extents.length[[index]] * width
    chain = laid_chains(Ways(way, way), run, own, np.ones(1, int), sigma=np.ones(1), offset=np.zeros(1))
    return _Taken(float(chain.s[1]), width)


def _stretch(even: float, track: int, length: float, widths: Widths | None, *, from_end: bool) -> _Taken:
    """Return what a piece of so many mm at full width takes at an end of a track."""
    if widths is None:
        return _Taken(even, 1.0)
    which = np.array([track])
    if from_end:
        taken = length - float(widths.mm_of(which, widths.even_of(which, np.array([length])) - even)[0])
    else:
        taken = float(widths.mm_of(which, np.array([even]))[0])
    return _Taken(taken, taken / even)


def _before(brush: Brush, extents: Extents, role: Role, taken: _Taken, at: float, track: int, widths: Widths | None) -> float:
    """Return how many mm of what a piece takes, from ``at`` on, lie before its base line's middle."""
    before = float(extents.before[brush.pieces.index_of(role)])
    if brush.travel.jointed:
        return taken.mm / 2
    if widths is None or not brush.travel.bent:
        return before * taken.width
    which = np.array([track])  # a bent piece follows the even distance, and so does its base line's middle
    return float(widths.mm_of(which, widths.even_of(which, np.array([at])) + before)[0]) - at


def _backwards(curve: Curve, length: float) -> Curve:
    def turned(run: np.ndarray, s: np.ndarray) -> tuple[np.ndarray, np.ndarray]:
        position, velocity = curve(run, length - s)
        return position, -velocity

    return turned
