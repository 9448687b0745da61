"""Cut tracks into runs at the corners that end one."""

from __future__ import annotations

from functools import lru_cache

import numpy as np

from ..values.brush import PASSED, CornerStyle, Ends
from ..values.line import MeasuredLine
from ..values.runs import Corners, Divided, Runs
from ..values.tracks import Tracks
from .arc_length import frames_on


def corners_of(measured: MeasuredLine, *, corner_from: float) -> tuple[np.ndarray, np.ndarray]:
    """Return distance (c,) and turn (c,) radians of every vertex that turns by ``corner_from`` or more."""
    is_corner = np.abs(measured.vertex_turn) >= corner_from - 1e-12
    return measured.vertex_s[is_corner], measured.vertex_turn[is_corner]


def runs_of(tracks: Tracks, ends: Ends) -> Divided:
    """Return the runs of tracks in order, and the corners between them; a track without extent has none.

    A turn to the right is an outside corner, to the left an inside one; corners that the brush passes
    through or makes round end no run. On a closed track the first run starts at the first that does; that
    corner comes last, it follows the last run.
    """
    return _runs_on(tracks.measured, tracks.rows, ends.corner_from, ends.outside_corner, ends.inside_corner)


@lru_cache(maxsize=64)
def _runs_on(tracks: tuple[MeasuredLine, ...], rows: int, corner_from: float, outside: CornerStyle, inside: CornerStyle) -> Divided:
    runs, corners, first = [_NO_RUNS], [_NO_CORNERS], 0
    for i, line in enumerate(tracks):
        if line.length <= 0:
            continue
        at, turn = corners_of(line, corner_from=corner_from)
        style = np.where(turn > 0, outside, inside)
        ends = ~np.isin(style, PASSED)
        own, own_corners = _runs_between(i, line, at[ends], turn[ends], style[ends], first)
        runs.append(own)
        corners.append(own_corners)
        first += len(own.start)
    every = {name: np.concatenate([getattr(own, name) for own in runs]) for name in vars(_NO_RUNS)}
    line_of_run = every["track"] // rows
    every["number"] = np.arange(len(line_of_run)) - np.searchsorted(line_of_run, line_of_run)
    track, at, turn, style, before, after = (np.concatenate(column) for column in zip(*corners, strict=True))
    return Divided(Runs(**every), Corners(track, at, turn, style, before, after, *_legs_at(tracks, track, at)))


def _runs_between(i: int, line: MeasuredLine, at: np.ndarray, turn: np.ndarray, style: np.ndarray, first: int):
    """Return the runs of track ``i`` between its corners, the first numbered ``first`` among all, and the corners' columns."""
    if not len(at):
        whole = np.array([0.0, line.length])
        return _table(i, whole, closed=line.closed, leg=np.array([[-np.inf, np.inf]])), _NO_CORNERS
    edges = np.append(at, at[0] + line.length) if line.closed else np.concatenate([[0.0], at, [line.length]])
    before = np.arange(len(at))
    if line.closed:
        at, turn, style = (np.roll(column, -1) for column in (at, turn, style))
    after = (before + 1) % (len(edges) - 1)
    runs = _table(i, edges, closed=False, leg=np.stack([edges[:-1], edges[1:]], axis=1))
    return runs, (np.full(len(at), i), at, turn, style, first + before, first + after)


def _legs_at(tracks: tuple[MeasuredLine, ...], track: np.ndarray, at: np.ndarray) -> tuple[np.ndarray, np.ndarray, np.ndarray]:
    """Return the vertices and the directions into and out of corners (c, 2); the one at a closed track's start is reached at its end."""
    if not len(at):
        return np.zeros((0, 2)), np.zeros((0, 2)), np.zeros((0, 2))
    length = np.array([each.length for each in tracks])[track]
    slack = 1e-9 * length
    into, on, out = (frames_on(tracks, track, s) for s in (np.where(at < slack, length, at) - slack, at, at + slack))
    return on.position, into.tangent, out.tangent


def _table(track: int, edges: np.ndarray, *, closed: bool, leg: np.ndarray) -> Runs:
    r = len(edges) - 1
    return Runs(
        track=np.full(r, track), number=np.arange(r), start=edges[:-1], length=np.diff(edges), closed=np.full(r, closed), leg=leg,
        mitred=np.zeros((r, 2), bool), beyond=np.zeros((r, 2)),
    )  # fmt: skip


_NO_RUNS = _table(0, np.zeros(1), closed=False, leg=np.zeros((0, 2)))
_NO_CORNERS = tuple(np.zeros(0, kind) for kind in (int, float, float, "U7", int, int))
