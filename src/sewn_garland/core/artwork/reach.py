"""How far the pieces of a brush reach across the line they lie on."""

from __future__ import annotations

from functools import lru_cache

import numpy as np

from ..values.brush import Brush, Mirror, Pieces
from .box import ink_box


def reach_of(brush: Brush) -> tuple[float, float]:
    """Return how far outlines reach across the track under a brush, its side shift aside: mm to the left (negative) and the right."""
    return reach_across(brush.pieces, brush.travel.turn_deg, brush.travel.mirror, brush.spacing.size)


@lru_cache(maxsize=256)
def reach_across(pieces: Pieces, turn_deg: float, mirror: Mirror, size: float) -> tuple[float, float]:
    """Return how far outlines reach across the track as laid without a side shift: mm to its left (negative) and to its right.

    Corner pieces are not bent, so theirs do not count.
    """
    turn = np.radians(turn_deg)
    flips = {"up_down": (1.0, -1.0), "left_right": (-1.0, 1.0)}.get(mirror, (1.0, 1.0))
    across = []
    for motif, role in zip(pieces.motifs, pieces.roles, strict=True):
        if role.endswith("corner"):
            continue
        left, top, right, foot = ink_box(motif)
        corners = np.array([[x - motif.width / 2, y - motif.base_line] for x in (left, right) for y in (top, foot)]) * flips
        ways = [corners, corners * (-1.0, 1.0)] if mirror == "every_second" else [corners]
        across += [np.sin(turn) * way[:, 0] + np.cos(turn) * way[:, 1] for way in ways]
    reach = np.concatenate(across) * size
    return float(reach.min()), float(reach.max())
