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
    xs = [points]
    at = 0
    for command in commands:
        if command == "C":
            xs.append(_extremes(points[at - 1 : at + 3]))
        at += {"M": 1, "L": 1, "C": 3, "Z": 0}[command]
    xs[0] = points[on_curve(commands)]
    every = np.concatenate(xs)
    return (*every.min(axis=0), *every.max(axis=0))


LAST_BITS = 1e-15  # of the largest; below them a power says nothing


def _extremes(p: np.ndarray) -> np.ndarray:
    """Return the points (k, 2) of a cubic where x or y turns."""
    found = []
    a = -p[0] + 3 * p[1] - 3 * p[2] + p[3]
    b = 2 * (p[0] - 2 * p[1] + p[2])
    c = p[1] - p[0]
    for axis in (0, 1):
        powers = np.array([a[axis], b[axis], c[axis]])
        powers[np.abs(powers) <= LAST_BITS * np.abs(powers).max()] = 0.0  # a leading one of no weight would be divided by
        roots = np.roots(np.trim_zeros(powers, "f")) if powers[:2].any() else np.zeros(0)
        found.extend(float(r.real) for r in roots if abs(r.imag) < 1e-12 and 0 < r.real < 1)
    t = np.array(found)[:, None]
    return (1 - t) ** 3 * p[0] + 3 * t * (1 - t) ** 2 * p[1] + 3 * t**2 * (1 - t) * p[2] + t**3 * p[3]


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
