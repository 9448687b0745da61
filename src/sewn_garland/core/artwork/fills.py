"""What a shape covers, its stroke turned into an outline to be filled."""

from __future__ import annotations

from dataclasses import replace
from functools import lru_cache

import numpy as np

from ..errors import InputError
from ..maths.booleans import combined, stroke_outline
from ..maths.merging import merged
from ..values.motif import Motif, Shape, stroke_as_fill, stroke_of

STRAYS_REL_TOL, STRAYS_MM = 3e-3, 1e-3  # a stroke's outline, of its width and in mm of its motif; chosen: twice what the engine's does


@lru_cache(maxsize=2048)
def outline_of_stroke(shape: Shape, *, strays: float = 0.0) -> tuple[str, np.ndarray]:
    """Return the outline of what a stroked shape's stroke covers, in few curves; empty where it covers nothing.

    It may stray by ``strays`` mm where that is more than a print needs, for a picture on screen.
    """
    s = stroke_of(shape)
    for_print = min(STRAYS_REL_TOL * s.width, STRAYS_MM)
    if strays > for_print:
        return merged(*outline_of_stroke(shape), tolerance=strays - for_print)
    outline = stroke_outline(shape.commands, shape.points, width=s.width, cap=s.cap, join=s.join, miter_limit=s.miter_limit,
                             dashes=s.dashes, dash_offset=s.dash_offset)  # fmt: skip
    return merged(*outline, tolerance=for_print)


def as_fills(shape: Shape) -> list[Shape]:
    """Return a shape as filled shapes alone: its fill, then what its stroke covers, as far as there is either."""
    out = [replace(shape, stroke=None)] if shape.fill else []
    if shape.stroke is None:
        return out
    commands, points = outline_of_stroke(shape)
    return [*out, replace(stroke_as_fill(shape), commands=commands, points=points)] if commands else out


def stroke_as_shape(shape: Shape) -> list[Shape]:
    """Return the shape's fill, where it has one, and its stroke as a filled shape of its own.

    Raises InputError without a stroke, or where it covers nothing.
    """
    if shape.stroke is None:
        raise InputError("this part has no stroke to turn into a shape")
    parts = as_fills(shape)
    if len(parts) == bool(shape.fill):
        raise InputError("this stroke covers nothing")
    return parts


def covered(shape: Shape) -> tuple[str, np.ndarray, str]:
    """Return the outline of all that a shape covers, fill and stroke together, with its fill rule."""
    if shape.stroke is None:
        return shape.commands, shape.points, shape.fill_rule
    parts = stroke_as_shape(shape)
    if len(parts) == 1:
        return parts[0].commands, parts[0].points, "nonzero"
    return (*combined([(p.commands, p.points, p.fill_rule) for p in parts], "join"), "nonzero")


@lru_cache(maxsize=512)
def without_strokes(motif: Motif) -> Motif:
    """Return a motif that looks the same, its strokes as filled outlines; it may then be stretched without a stroke's width in doubt."""
    if all(shape.stroke is None for shape in motif.shapes):
        return motif
    shapes = (part for shape in motif.shapes for part in ([shape] if shape.picture is not None else as_fills(shape)))
    return replace(motif, shapes=tuple(shapes))
