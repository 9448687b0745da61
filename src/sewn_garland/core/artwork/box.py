"""Where a motif draws: boxes of its ink, strokes included, and of its points."""

from __future__ import annotations

from collections.abc import Sequence
from functools import lru_cache

import numpy as np

from ..maths.bounds import Box, outline_box, stroke_box
from ..values.motif import Motif, Shape


def ink_box(motif: Motif) -> Box:
    """Return the box (left, top, right, bottom), mm, of everything that is painted; the frame of a motif without shapes."""
    return box_of(motif.shapes) if motif.shapes else (0.0, 0.0, motif.width, motif.height)


def box_of(shapes: Sequence[Shape]) -> Box:
    """Return the box of at least one shape, strokes included."""
    return _around([box_of_shape(shape) for shape in shapes])


@lru_cache(maxsize=8192)
def box_of_shape(shape: Shape) -> Box:
    """Return a shape's box; shapes do not change, so it is worked out once."""
    boxes = [outline_box(shape.commands, shape.points)] if shape.fill or not shape.stroke else []
    if (s := shape.stroke) is not None:
        box = stroke_box(shape.commands, shape.points, width=s.width, cap=s.cap, join=s.join,
                         miter_limit=s.miter_limit, dashes=s.dashes, dash_offset=s.dash_offset)  # fmt: skip
        boxes += [box] if box else []
    return _around(boxes or [outline_box(shape.commands, shape.points)])


def _around(boxes: Sequence[Box]) -> Box:
    edges = np.array(boxes)
    return (*edges[:, :2].min(axis=0).tolist(), *edges[:, 2:].max(axis=0).tolist())


@lru_cache(maxsize=512)
def point_corners(motif: Motif) -> np.ndarray:
    """Return the corners (4, 2) of a box about all points of a motif, handles too, strokes' widths aside, from its base line's middle."""
    every = np.concatenate([np.zeros((1, 2)), *(shape.points - (motif.width / 2, motif.base_line) for shape in motif.shapes)])
    (left, top), (right, bottom) = every.min(axis=0), every.max(axis=0)
    corners = np.array([[left, top], [right, top], [left, bottom], [right, bottom]])
    corners.setflags(write=False)
    return corners
