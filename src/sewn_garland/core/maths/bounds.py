"""Tight boxes of outlines and of their strokes."""

from __future__ import annotations

import numpy as np
import pathops

from .outlines import engine_path, on_curve

CAPS = {"butt": pathops.LineCap.BUTT_CAP, "round": pathops.LineCap.ROUND_CAP, "square": pathops.LineCap.SQUARE_CAP}
JOINS = {"miter": pathops.LineJoin.MITER_JOIN, "round": pathops.LineJoin.ROUND_JOIN, "bevel": pathops.LineJoin.BEVEL_JOIN}
Box = tuple[float, float, float, float]


def outline_box(commands: str, points: np.ndarray) -> Box:
    """Return (left, top, right, bottom) of an outline out of M L C Z, its curves' extremes included."""
    takes = np.array([POINTS_OF[command] for command in commands], int)
    curved = (np.cumsum(takes) - takes)[takes == POINTS_OF["C"]]
    every = np.concatenate([points[on_curve(commands)], _extremes(points[curved[:, None] + np.arange(-1, 3)])])
    return (*every.min(axis=0), *every.max(axis=0))


LAST_BITS = 1e-15  # of the largest; below them a power says nothing
POINTS_OF = {"M": 1, "L": 1, "C": 3, "Z": 0}


def _extremes(p: np.ndarray) -> np.ndarray:
    """Return the points (k, 2) of cubics (m, 4, 2) where x or y turns; none for none."""
    powers = np.stack([-p[:, 0] + 3 * p[:, 1] - 3 * p[:, 2] + p[:, 3], 2 * (p[:, 0] - 2 * p[:, 1] + p[:, 2]), p[:, 1] - p[:, 0]])
    a, b, c = np.where(np.abs(powers) <= LAST_BITS * np.abs(powers).max(axis=0), 0.0, powers)
    with np.errstate(divide="ignore", invalid="ignore", over="ignore"):  # a root that there is not lies within no cubic
        far = -(b + np.copysign(np.sqrt(b * b - 4 * a * c), b)) / 2
        t = np.stack([far / a, c / far], axis=-1)
    cubic, axis, which = np.nonzero((t > 0) & (t < 1))
    t, p = t[cubic, axis, which][:, None], p[cubic]
    return (1 - t) ** 3 * p[:, 0] + 3 * t * (1 - t) ** 2 * p[:, 1] + 3 * t**2 * (1 - t) * p[:, 2] + t**3 * p[:, 3]


def stroke_box(
    commands: str,
    points: np.ndarray,
    *,
    width: float,
    cap: str,
    join: str,
    miter_limit: float,
    dashes: tuple[float, ...] = (),
    dash_offset: float = 0.0,
) -> Box | None:
    """Return the box of what a stroke covers, or None where it covers nothing."""
    path = engine_path(commands, points)
    path.stroke(width, CAPS[cap], JOINS[join], miter_limit, list(dashes) or None, dash_offset)
    path.convertConicsToQuads()
    return path.bounds if len(list(path.segments)) else None
