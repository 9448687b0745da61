"""Make motifs out of motifs."""

from __future__ import annotations

from dataclasses import replace

import numpy as np

from .maths.affine import apply
from .values.motif import Motif


def turned(motif: Motif, turn_deg: float) -> Motif:
    """Turn the artwork clockwise about its frame's middle; the frame becomes the turned one's box.

    A quarter turn swaps length and height. The base line goes to half the new height.
    """
    angle = np.radians(turn_deg)
    cos, sin = np.cos(angle), np.sin(angle)
    if turn_deg % 90 == 0:
        cos, sin = round(cos), round(sin)
    width = motif.width * abs(cos) + motif.height * abs(sin)
    height = motif.width * abs(sin) + motif.height * abs(cos)
    linear = np.array([[cos, -sin], [sin, cos]], float)
    shift = np.array([width / 2, height / 2]) - linear @ [motif.width / 2, motif.height / 2]
    matrix = np.column_stack([linear, shift])
    shapes = tuple(replace(shape, points=apply(matrix, shape.points)) for shape in motif.shapes)
    return replace(motif, shapes=shapes, width=float(width), height=float(height), base_line=float(height) / 2)
