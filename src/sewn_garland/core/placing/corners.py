"""Place corner pieces: their vertex on the line's, turned as the line comes in."""

from __future__ import annotations

from dataclasses import replace

import numpy as np

from ..artwork.corner import allowances_of
from ..values.brush import Brush
from ..values.pieces import OUTSIDE_CORNER, Placed
from ..values.runs import Corners


def with_corner_pieces(placed: Placed, brush: Brush, corners: Corners) -> Placed:
    """Put the corner pieces among others where they lie; ``corners`` (k,) are theirs, in order."""
    rows = np.flatnonzero(placed.at_corner)
    if not len(rows):
        return placed
    motifs, motif = brush.pieces.motifs, placed.motif[rows]
    size = brush.spacing.size * placed.width[rows]
    width = np.array([m.width for m in motifs])[motif]
    along = (width / 2 - vertex_from_left(placed, brush)) * size
    direction = np.arctan2(corners.into[:, 1], corners.into[:, 0])
    columns = {name: getattr(placed, name).copy() for name in ("centre", "turn", "scale", "direction")}
    columns["centre"][rows] = corners.vertex + along[:, None] * corners.into
    columns["turn"][rows] = columns["direction"][rows] = direction
    columns["scale"][rows] = size[:, None]
    joints = placed.joints
    if joints is not None:
        joints = joints.copy()
        joints[rows] = columns["centre"][rows][:, None]
    return replace(placed, joints=joints, **columns)


def vertex_from_left(placed: Placed, brush: Brush) -> np.ndarray:
    """Return how far the vertex of each corner piece (k,) lies from its left edge, mm of the motif."""
    near = np.array([[allowances_of(m, turn)[0] for turn in (1.0, -1.0)] for m in brush.pieces.motifs])
    rows = placed.at_corner
    return near[placed.motif[rows], placed.role[rows] - OUTSIDE_CORNER]
