"""Rigid travel: each piece is turned by the direction at its stop and stamped undeformed."""

from __future__ import annotations

import numpy as np

from ..values.brush import Brush
from ..values.laid import Placements, Stops
from ..values.line import Frames


def place_rigid(stops: Stops, frames: Frames, brush: Brush, *, start_direction: np.ndarray) -> Placements:
    """Place a piece at every stop.

    ``frames`` are the line's frames at the stops, ``start_direction`` (n,) the direction
    (radians) where each piece's line begins, for pieces that face as at the start.
    """
    n = len(stops.s)
    along = np.arctan2(frames.tangent[:, 1], frames.tangent[:, 0])
    direction = {"line": along, "page": np.zeros(n), "start": start_direction}[brush.facing]
    scale = scales_of(stops, brush)
    flip_x, flip_y = mirror_factors(stops, brush)
    return Placements(
        centre=frames.position + brush.side_shift * frames.normal,
        turn=direction + np.radians(brush.turn_deg),
        scale=scale * np.stack([flip_x, flip_y], axis=1),
        direction=direction,
        variant=stops.variant,
    )


def scales_of(stops: Stops, brush: Brush) -> np.ndarray:
    """Return the size (n, 2) of every piece along and across, not yet mirrored.

    Length ease leaves it as it is across; the line's width makes a repeated piece larger both
    ways, one laid once only across.
    """
    across = np.ones(len(stops.factor)) if brush.ease == "length" or brush.kind != "repeated" else stops.factor
    return brush.size * np.stack([stops.factor * along_width(stops, brush), across * stops.width], axis=1)


def along_width(stops: Stops, brush: Brush) -> np.ndarray:
    """Return the factor (n,) that the line's width puts on every piece's length."""
    return stops.width if brush.kind == "repeated" else np.ones(len(stops.width))


def mirror_factors(stops: Stops, brush: Brush) -> tuple[np.ndarray, np.ndarray]:
    """Return 1 or −1 along and across (n,) for every piece."""
    ones = np.ones(len(stops.s))
    repeats = stops.variant < len(brush.repeat)  # the pieces at the ends keep their ends where they are
    if brush.mirror == "left_right":
        return np.where(repeats, -1.0, 1.0), ones
    if brush.mirror == "up_down":
        return ones, -ones
    if brush.mirror == "every_second":
        return np.where(repeats & (stops.place % 2 == 1), -1.0, 1.0), ones
    return ones, ones


def matrices_of(placements: Placements) -> np.ndarray:
    """Return (n, 6) affine matrices a b c d e f (SVG order) from motif to page.

    They act on coordinates measured from the base line's middle.
    """
    cos, sin = np.cos(placements.turn), np.sin(placements.turn)
    sx, sy = placements.scale[:, 0], placements.scale[:, 1]
    x, y = placements.centre[:, 0], placements.centre[:, 1]
    return np.stack([cos * sx, sin * sx, -sin * sy, cos * sy, x, y], axis=1)
