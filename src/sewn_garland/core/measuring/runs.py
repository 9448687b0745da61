"""Cut a measured line into runs at the corners that end one."""

from __future__ import annotations

from itertools import pairwise

import numpy as np

from ..values.laid import Run
from ..values.line import MeasuredLine


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
    at, turn = corners_of(measured, corner_from=corner_from)
    at = at[np.where(turn > 0, outside_ends, inside_ends)]
    if not len(at):
        return [Run(0.0, measured.length, measured.closed)]
    edges = np.concatenate([at, [at[0] + measured.length]]) if measured.closed else (
        np.concatenate([[0.0], at, [measured.length]]))
    return [Run(float(a), float(b - a), False) for a, b in pairwise(edges)]
