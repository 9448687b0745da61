"""Jointed travel: each piece is turned, sized and moved so that its two joints lie on the line's."""

from __future__ import annotations

import numpy as np

from ..maths.curves import as_complex, as_points
from ..values.arrays import extended
from ..values.brush import Brush
from ..values.pieces import Placed, Varied
from .rigid import signs_of


def place_jointed(stops: Varied, left: np.ndarray, right: np.ndarray, brush: Brush) -> Placed:
    """Place a piece at every stop, its joints at ``left`` and ``right`` (n, 2) on the page.

    A piece mirrored left to right meets its neighbours with its joints exchanged. Turn does not
    apply: the joints say how a piece lies.
    """
    motifs, signs = brush.pieces.motifs, signs_of(stops, brush.travel)
    pairs = np.array([m.joint_points for m in motifs])
    middles = np.array([(m.width / 2, m.base_line) for m in motifs])
    own = (pairs[stops.motif] - middles[stops.motif][:, None]) * signs[:, None]
    own = np.where((signs[:, 0] < 0)[:, None, None], own[:, ::-1], own)
    chord, drawn = right - left, own[:, 1] - own[:, 0]
    direction = np.arctan2(chord[:, 1], chord[:, 0])
    turn = direction - np.arctan2(drawn[:, 1], drawn[:, 0])
    scale = brush.spacing.size * stops.factor * stops.width
    cos, sin = np.cos(turn) * scale, np.sin(turn) * scale
    x, y = own[:, 0].T
    centre = left - np.stack([cos * x - sin * y, sin * x + cos * y], axis=1)
    if stops.swing is not None:  # about the middle between the joints
        swing, middle = np.exp(1j * stops.swing), as_complex((left + right) / 2)
        centre = as_points(middle + (as_complex(centre) - middle) * swing)
        turn = turn + stops.swing
        cos, sin = np.cos(turn) * scale, np.sin(turn) * scale
    x, y = own.transpose(2, 0, 1)  # the joints as the placed piece has them, for joins are measured on the result
    joints = centre[:, None] + np.stack([cos[:, None] * x - sin[:, None] * y, sin[:, None] * x + cos[:, None] * y], axis=2)
    return extended(stops, Placed, centre=centre, turn=turn, scale=scale[:, None] * signs, direction=direction, joints=joints)
