"""Cut measured lines into runs at the corners that end one."""

from __future__ import annotations

from functools import lru_cache

import numpy as np

from ..values.laid import Corners, Runs
from ..values.line import MeasuredLine
from .arc_length import frames_on

PASSED = ("through", "round")  # what a brush does at corners that end no run


def corners_of(measured: MeasuredLine, *, corner_from: float) -> tuple[np.ndarray, np.ndarray]:
    """Return distance (c,) and turn (c,) radians of every vertex that turns by ``corner_from`` or more."""
    is_corner = np.abs(measured.vertex_turn) >= corner_from - 1e-12
    return measured.vertex_s[is_corner], measured.vertex_turn[is_corner]


@lru_cache(maxsize=64)
def runs_of(lines: tuple[MeasuredLine, ...], *, corner_from: float, outside: str, inside: str) -> tuple[Runs, Corners]:
    """Return the runs of lines in order, and the corners between them; a line without extent has none.

    A turn to the right is an outside corner, to the left an inside one; corners that the brush passes
    through or makes round end no run. On a closed line run 0 starts at the first that does; that
    corner comes last, it follows the last run.
    """
    runs, columns, first = [_NO_RUNS], [_NO_CORNERS], 0
    for i, line in enumerate(lines):
        if line.length <= 0:
            continue
        at, turn = corners_of(line, corner_from=corner_from)
        style = np.where(turn > 0, outside, inside)
        ends = ~np.isin(style, PASSED)
        at, turn, style = at[ends], turn[ends], style[ends]
        if not len(at):
            runs.append(_table(i, np.array([0.0, line.length]), closed=line.closed, leg=np.array([[-np.inf, np.inf]])))
            first += 1
            continue
        edges = np.append(at, at[0] + line.length) if line.closed else np.concatenate([[0.0], at, [line.length]])
        runs.append(_table(i, edges, closed=False, leg=np.stack([edges[:-1], edges[1:]], axis=1)))
        before = np.arange(len(at))
        if line.closed:
            at, turn, style = (np.roll(column, -1) for column in (at, turn, style))
        after = (before + 1) % (len(edges) - 1)
        columns.append((np.full(len(at), i), at, turn, style, first + before, first + after))
        first += len(edges) - 1
    all_runs = Runs(**{name: np.concatenate([getattr(own, name) for own in runs]) for name in vars(_NO_RUNS)})
    line, at, *others = (np.concatenate(column) for column in zip(*columns, strict=True))
    return all_runs, Corners(line, at, *others, *_legs_at(lines, line, at))


def _legs_at(lines: tuple[MeasuredLine, ...], line: np.ndarray, at: np.ndarray) -> tuple[np.ndarray, np.ndarray, np.ndarray]:
    """Return the vertices and the directions into and out of corners (c, 2); the one at a closed line's start is reached at its end."""
    if not len(at):
        return np.zeros((0, 2)), np.zeros((0, 2)), np.zeros((0, 2))
    length = np.array([each.length for each in lines])[line]
    slack = 1e-9 * length
    into, on, out = (frames_on(lines, line, s) for s in (np.where(at < slack, length, at) - slack, at, at + slack))
    return on.position, into.tangent, out.tangent


def _table(line: int, edges: np.ndarray, *, closed: bool, leg: np.ndarray) -> Runs:
    r = len(edges) - 1
    return Runs(
        line=np.full(r, line), number=np.arange(r), start=edges[:-1], length=np.diff(edges), closed=np.full(r, closed), leg=leg,
        mitred=np.zeros((r, 2), bool), beyond=np.zeros((r, 2)),
    )  # fmt: skip


_NO_RUNS = _table(0, np.zeros(1), closed=False, leg=np.zeros((0, 2)))
_NO_CORNERS = tuple(np.zeros(0, kind) for kind in (int, float, float, "U7", int, int))
