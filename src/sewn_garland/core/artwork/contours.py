"""A motif's outlines as one table of cubics."""

from __future__ import annotations

from dataclasses import dataclass, replace
from functools import lru_cache

import numpy as np

from ..maths.contours import contour_cubics
from ..values.arrays import freeze_arrays
from ..values.motif import Motif, Shape
from .fills import outline_of_stroke

OUTLINE_CURVES, DASH_CURVES = 8, 4  # of a curve's stroke, and of a dash, about; chosen


@dataclass(frozen=True, eq=False)
class Contours:
    """A motif's cubics (m, 4, 2) about its base line's middle, and the contour (m,) of each.

    By contour (c,): its shape, whether it is closed, and whether it outlines that shape's stroke.
    """

    cubics: np.ndarray
    contour: np.ndarray
    shape: np.ndarray
    closed: np.ndarray
    stroked: np.ndarray

    def __post_init__(self) -> None:
        freeze_arrays(self)


@lru_cache(maxsize=512)
def contours_of(motif: Motif, *, strokes: bool = False, pictures: bool = False, strays: float = 0.0) -> Contours:
    """Return a motif's contours.

    ``strokes`` are outlined, so that every contour is to be filled, and may stray by ``strays`` mm of the motif; else they are
    drawn along the contours of their shapes.
    ``pictures`` have the contour of their rectangle, else none.
    """
    cubics, contours, shapes, closed, stroked, count = [np.zeros((0, 4, 2))], [np.zeros(0, int)], [], [], [], 0
    for number, shape in enumerate(motif.shapes):
        for part, is_stroke in _parts(shape, strokes=strokes, pictures=pictures, strays=strays):
            own, contour, is_closed = contour_cubics(part.commands, part.points)
            cubics.append(own)
            contours.append(contour + count)
            count += len(is_closed)
            shapes += [number] * len(is_closed)
            stroked += [is_stroke] * len(is_closed)
            closed += is_closed.tolist()
    about = np.concatenate(cubics) - (motif.width / 2, motif.base_line)
    return Contours(about, np.concatenate(contours), np.array(shapes, int), np.array(closed, bool), np.array(stroked, bool))


def curves_about(motif: Motif) -> float:
    """Return about how many curves a motif has with its strokes outlined; none is, for that takes long where it is not needed."""
    return sum((_curves_about(shape) for shape in motif.shapes), 0.0)


def _curves_about(shape: Shape) -> float:
    own, stroke = len(shape.points) / 3, shape.stroke
    if stroke is None:
        return own
    length = float(np.hypot(*np.diff(shape.points, axis=0).T).sum())
    dashes = length * len(stroke.dashes) / (2 * sum(stroke.dashes)) if any(stroke.dashes) else 0.0
    return own * bool(shape.fill) + max(OUTLINE_CURVES * own, DASH_CURVES * dashes)


def _parts(shape: Shape, *, strokes: bool, pictures: bool, strays: float) -> list[tuple[Shape, bool]]:
    if shape.picture is not None:
        return [(replace(shape, commands="MLLLZ"), False)] if pictures else []
    if not strokes:
        return [(shape, False)]
    fill = [(shape, False)] if shape.fill else []
    if shape.stroke is None:
        return fill
    commands, points = outline_of_stroke(shape, strays=strays)
    return [*fill, (replace(shape, commands=commands, points=points), True)] if commands else fill
