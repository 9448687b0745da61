"""A motif's outlines as one table of cubics."""

from __future__ import annotations

from dataclasses import replace
from functools import lru_cache

import numpy as np

from ..maths.booleans import stroke_outline
from ..maths.contours import contour_cubics
from ..values.motif import Motif, Shape


@lru_cache(maxsize=512)
def contours_of(motif: Motif, *, to_cut: bool = False) -> tuple[np.ndarray, np.ndarray, np.ndarray, np.ndarray, np.ndarray]:
    """Return a motif's cubics (m, 4, 2) about its base line's middle and the contour (m,) of each.

    Then, by contour (c,): its shape, whether it is closed, and whether it outlines that shape's stroke.

    Strokes and pictures have no contours of their own unless these are ``to_cut``: then strokes are outlined, and
    pictures have the contour of their rectangle.
    """
    cubics, contours, shapes, closed, stroked, count = [np.zeros((0, 4, 2))], [np.zeros(0, int)], [], [], [], 0
    for number, shape in enumerate(motif.shapes):
        for part, is_stroke in _parts(shape, to_cut=to_cut):
            own, contour, is_closed = contour_cubics(part.commands, part.points)
            cubics.append(own)
            contours.append(contour + count)
            count += len(is_closed)
            shapes += [number] * len(is_closed)
            stroked += [is_stroke] * len(is_closed)
            closed += is_closed.tolist()
    about = np.concatenate(cubics) - (motif.width / 2, motif.base_line)
    return about, np.concatenate(contours), np.array(shapes, int), np.array(closed, bool), np.array(stroked, bool)


def _parts(shape: Shape, *, to_cut: bool) -> list[tuple[Shape, bool]]:
    if not to_cut:
        return [] if shape.picture is not None else [(shape, False)]
    if shape.picture is not None:
        return [(replace(shape, commands="MLLLZ"), False)]
    fill = [(shape, False)] if shape.fill else []
    if (s := shape.stroke) is None:
        return fill
    commands, points = stroke_outline(shape.commands, shape.points, width=s.width, cap=s.cap, join=s.join, miter_limit=s.miter_limit,
                                      dashes=s.dashes, dash_offset=s.dash_offset)  # fmt: skip
    return [*fill, (replace(shape, commands=commands, points=points), True)] if commands else fill
