"""Place corner pieces: their vertex on the line's, turned as the line comes in."""

from __future__ import annotations

from dataclasses import replace

import numpy as np

from ..values.brush import Brush
from ..values.laid import Placements


def with_corner_pieces(
    placements: Placements, brush: Brush, rows: np.ndarray, vertex: np.ndarray, into: np.ndarray, near: np.ndarray,
    width: np.ndarray,
) -> Placements:
    """Put the pieces ``rows`` (k,) where a corner piece lies: ``near`` (k,) mm of its motif from its left edge to the vertex.

    ``width`` (k,) is a factor on their size.

    ``vertex`` and ``into`` (k, 2) are the corners and the directions in which the line reaches them.
    """
    motifs = [brush.motifs[v] for v in placements.variant[rows]]
    size = brush.size * width
    along = (np.array([m.width / 2 for m in motifs]) - near) * size
    direction = np.arctan2(into[:, 1], into[:, 0])
    columns = {name: getattr(placements, name).copy() for name in ("centre", "turn", "scale", "direction")}
    columns["centre"][rows] = vertex + along[:, None] * into
    columns["turn"][rows] = columns["direction"][rows] = direction
    columns["scale"][rows] = size[:, None]
    joints = placements.joints
    if joints is not None:
        joints = joints.copy()
        joints[rows] = columns["centre"][rows][:, None]
    return replace(placements, joints=joints, **columns)
