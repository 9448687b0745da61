"""Cut a measured line into runs at the corners that end one."""

from __future__ import annotations

from itertools import pairwise

import numpy as np

from ..values.laid import Corner, Run
from ..values.line import MeasuredLine

PASSED = ("through", "round")  # what a brush does at corners that end no run


def corners_of(measured: MeasuredLine, *, corner_from: float) -> tuple[np.ndarray, np.ndarray]:
    """Return distance (c,) and turn (c,) radians of every vertex that turns by ``corner_from`` or more."""
    is_corner = np.abs(measured.vertex_turn) >= corner_from - 1e-12
    return measured.vertex_s[is_corner], measured.vertex_turn[is_corner]


def runs_of(measured: MeasuredLine, *, corner_from: float, outside_ends: bool, inside_ends: bool) -> list[Run]:
    """Return the runs in order; a line without extent has none.

    A turn to the right is an outside corner, to the left an inside one; each ends a run only
    where asked. On a closed line run 0 starts at the first such corner.
    """
    if measured.length <= 0:
        return []
    at, _ = _ending(measured, corner_from, outside_ends, inside_ends)
    if not len(at):
        return [Run(0.0, measured.length, measured.closed)]
    edges = np.concatenate([at, [at[0] + measured.length]]) if measured.closed else (
        np.concatenate([[0.0], at, [measured.length]]))
    return [Run(float(a), float(b - a), False, (float(a), float(b))) for a, b in pairwise(edges)]


def corners_between(measured: MeasuredLine, *, corner_from: float, outside: str, inside: str) -> list[Corner]:
    """Return the corners between the runs that ``runs_of`` gives for these styles, each with the runs beside it.

    Corners passed through or round end no run. On a closed line the first corner comes last: it
    follows the last run.
    """
    ends = [style not in PASSED for style in (outside, inside)]
    at, turn = _ending(measured, corner_from, *ends)
    n = len(at)
    styles = [outside if t > 0 else inside for t in turn]
    if measured.closed:
        return [Corner(float(at[k]), float(turn[k]), styles[k], (k - 1) % n, k) for k in [*range(1, n), *range(min(n, 1))]]
    return [Corner(float(a), float(t), style, k, k + 1) for k, (a, t, style) in enumerate(zip(at, turn, styles, strict=True))]


def _ending(measured: MeasuredLine, corner_from: float, outside_ends: bool, inside_ends: bool) -> tuple[np.ndarray, np.ndarray]:
    at, turn = corners_of(measured, corner_from=corner_from)
    ends = np.where(turn > 0, outside_ends, inside_ends)
    return at[ends], turn[ends]
