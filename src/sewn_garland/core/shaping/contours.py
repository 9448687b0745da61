"""A motif's outlines as one table of cubics."""

from __future__ import annotations

from functools import lru_cache

import numpy as np

from ..maths.contours import contour_cubics
from ..values.motif import Motif


@lru_cache(maxsize=512)
def contours_of(motif: Motif) -> tuple[np.ndarray, np.ndarray, np.ndarray, np.ndarray]:
    """Return a motif's cubics (m, 4, 2) about its base line's middle, the contour (m,) of each, and by contour its shape and closure."""
    cubics, contours, shapes, closed, count = [np.zeros((0, 4, 2))], [np.zeros(0, int)], [], [], 0
    for number, shape in enumerate(motif.shapes):
        if shape.picture is None:
            own, contour, is_closed = contour_cubics(shape.commands, shape.points)
            cubics.append(own)
            contours.append(contour + count)
            count += len(is_closed)
            shapes += [number] * len(is_closed)
            closed += is_closed.tolist()
    about = np.concatenate(cubics) - (motif.width / 2, motif.base_line)
    return about, np.concatenate(contours), np.array(shapes, int), np.array(closed, bool)
