"""Outlines out of M L C Z as cubics with the contour that each belongs to, and back."""

from __future__ import annotations

import numpy as np

from .curves import are_straight, as_complex, as_points
from .outlines import owned_cubics


def contour_cubics(commands: str, points: np.ndarray) -> tuple[np.ndarray, np.ndarray, np.ndarray]:
    """Return cubics (m, 4, 2), the contour (m,) of each, and which contours (c,) are closed; closing sides are drawn out.

    Straight sides have their handles at their thirds, wherever they were drawn.
    """
    cubics, owner, closed = _cubics_by_contour(commands, points)
    straight = are_straight(cubics)
    if straight.any():
        begin, end = cubics[straight, 0], cubics[straight, 3]
        cubics[straight, 1], cubics[straight, 2] = begin + (end - begin) / 3, begin + (end - begin) * 2 / 3
    return cubics, owner, closed


def _cubics_by_contour(commands: str, points: np.ndarray) -> tuple[np.ndarray, np.ndarray, np.ndarray]:
    parts = commands.split("M")[1:]
    closed = np.array([part.endswith("Z") for part in parts], bool)
    cubics, owner = owned_cubics(commands, points)
    if closed.all():
        return cubics, owner, closed
    plain, plain_owner = owned_cubics(commands, points, close=False)
    keep, keep_plain = closed[owner], ~closed[plain_owner]
    cubics, owner = np.concatenate([cubics[keep], plain[keep_plain]]), np.concatenate([owner[keep], plain_owner[keep_plain]])
    order = np.argsort(owner, kind="stable")
    return cubics[order], owner[order], closed


def joined_cubics(cubics: np.ndarray, heads: np.ndarray) -> tuple[np.ndarray, np.ndarray]:
    """Return points (heads + 3·cubics, 2) of runs of cubics (m, 4, 2) that follow on, and where each run starts (c + 1,).

    ``heads`` (c,) are the first cubics of the runs. A run is its first point and three a cubic.
    """
    m = len(cubics)
    starts = 3 * np.asarray(heads) + np.arange(len(heads))
    own = np.ones(3 * m + len(heads), bool)  # where cubics' three points go; elsewhere begins a run
    own[starts] = False
    points, numbers = np.empty(len(own), complex), as_complex(cubics)
    points[own] = numbers[:, 1:].ravel()
    points[starts] = numbers[heads, 0]
    return as_points(points), np.append(starts, len(points))
