"""Jointed travel: each piece is turned, sized and moved so that its two joints lie on the line's."""

from __future__ import annotations

import numpy as np

from ..values.brush import Brush
from ..values.laid import Placements, Stops
from .rigid import mirror_factors


def place_jointed(stops: Stops, left: np.ndarray, right: np.ndarray, brush: Brush) -> Placements:
    """Place a piece at every stop, its joints at ``left`` and ``right`` (n, 2) on the page.

    A piece mirrored left to right meets its neighbours with its joints exchanged. Turn does not
    apply: the joints say how a piece lies.
    """
    pairs = np.array([m.joint_points for m in brush.motifs])
    middles = np.array([(m.width / 2, m.base_line) for m in brush.motifs])
    flips = np.stack(mirror_factors(stops, brush), axis=1)
    own = (pairs[stops.variant] - middles[stops.variant][:, None]) * flips[:, None]
    own = np.where((flips[:, 0] < 0)[:, None, None], own[:, ::-1], own)
    chord, drawn = right - left, own[:, 1] - own[:, 0]
    direction = np.arctan2(chord[:, 1], chord[:, 0])
    turn = direction - np.arctan2(drawn[:, 1], drawn[:, 0])
    scale = brush.size * stops.factor * stops.width
    cos, sin = np.cos(turn) * scale, np.sin(turn) * scale
    x, y = own[:, 0].T
    centre = left - np.stack([cos * x - sin * y, sin * x + cos * y], axis=1)
    x, y = own.transpose(2, 0, 1)  # the joints as the placed piece has them, for joins are measured on the result
    joints = centre[:, None] + np.stack([cos[:, None] * x - sin[:, None] * y, sin[:, None] * x + cos[:, None] * y], axis=2)
    return Placements(centre, turn, scale[:, None] * flips, direction, stops.variant, joints)
