"""What a shape covers, its stroke turned into an outline to be filled."""

from __future__ import annotations

from dataclasses import replace
from functools import lru_cache

import numpy as np

from ..errors import InputError
from ..maths.booleans import combined, stroke_outline
from ..maths.merging import merged
from ..values.motif import Motif, Paint, Shape, Stroke, stroke_as_fill, stroke_of

ANY_COLOUR = Paint("#000000")  # stands for all: pieces in many colours have strokes of one outline
STRAYS_REL_TOL, STRAYS_MM = 3e-3, 1e-3  # a stroke's outline, of its width and in mm of its motif; chosen: twice what the engine's does


def outline_of_stroke(shape: Shape, *, strays: float = 0.0) -> tuple[str, np.ndarray]:
    """Return the outline of what a stroked shape's stroke covers, in few curves; empty where it covers nothing.

    It may stray by ``strays`` mm where that is more than a print needs, for a picture on screen.
    """
    of_any_colour = replace(stroke_of(shape), paint=ANY_COLOUR)
    return _outline(shape.commands, np.asarray(shape.points, float).tobytes(), of_any_colour, strays)


@lru_cache(maxsize=2048)
def _outline(commands: str, points: bytes, stroke: Stroke, strays: float) -> tuple[str, np.ndarray]:
    for_print = min(STRAYS_REL_TOL * stroke.width, STRAYS_MM)
    if strays > for_print:
        return merged(*_outline(commands, points, stroke, 0.0), tolerance=strays - for_print)
    outline = stroke_outline(
        commands, np.frombuffer(points).reshape(-1, 2), width=stroke.width, cap=stroke.cap, join=stroke.join,
        miter_limit=stroke.miter_limit, dashes=stroke.dashes, dash_offset=stroke.dash_offset,
    )  # fmt: skip
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
