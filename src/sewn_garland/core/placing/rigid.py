"""Rigid travel: each piece is turned by the direction at its stop and stamped undeformed."""

from __future__ import annotations

import numpy as np

from ..values.arrays import extended
from ..values.brush import Brush, Travel
from ..values.line import Frames
from ..values.pieces import REPEAT, Placed, Varied


def place_rigid(stops: Varied, frames: Frames, brush: Brush, *, shift: np.ndarray, start_direction: np.ndarray) -> Placed:
    """Place a piece at every stop, ``shift`` (n,) mm to the right of its track, turned and mirrored by what varies.

    ``frames`` are the tracks' frames at the stops, ``start_direction`` (n,) the direction
    (radians) where each piece's track begins, for pieces that face as at the start.
    """
    along = np.arctan2(frames.tangent[:, 1], frames.tangent[:, 0])
    direction = {"line": along, "page": np.zeros(len(stops.s)), "start": start_direction}[brush.travel.facing]
    turn = direction + np.radians(brush.travel.turn_deg)
    return extended(
        stops, Placed, centre=frames.position + shift[:, None] * frames.normal, turn=turn if stops.swing is None else turn + stops.swing,
        scale=sizes_of(stops, brush) * signs_of(stops, brush.travel), direction=direction, joints=None,
    )  # fmt: skip


def sizes_of(stops: Varied, brush: Brush) -> np.ndarray:
    """Return the size (n, 2) of every piece along and across, not yet mirrored.

    Length ease leaves it as it is across; the line's width makes a repeated piece larger both
    ways, one laid once only across.
    """
    once = brush.travel.once
    across = np.ones(len(stops.factor)) if brush.spacing.ease == "length" or once else stops.factor
    along = stops.factor if once else stops.factor * stops.width
    across = across if stops.squash is None else across * stops.squash
    return brush.spacing.size * stops.size[:, None] * np.stack([along, across * stops.width], axis=1)


def signs_of(stops: Varied, travel: Travel) -> np.ndarray:
    """Return 1 or −1 along and across (n, 2) for every piece, −1 where it is mirrored."""
    signs = np.ones((len(stops.s), 2))
    repeats = stops.role == REPEAT  # the pieces at the ends keep their ends where they are
    if travel.mirror == "left_right":
        signs[repeats, 0] = -1.0
    elif travel.mirror == "up_down":
        signs[:, 1] = -1.0
    elif travel.mirror == "every_second":
        signs[repeats & (stops.place % 2 == 1), 0] = -1.0
    return signs if stops.mirrored is None else np.where(stops.mirrored, -signs, signs)
