"""Give a motif the line's ink."""

from __future__ import annotations

from dataclasses import replace

import numpy as np

from .maths.raster import png_from_rgba, rgba_from_png
from .values.motif import Motif, Paint, Picture, Shape


def inked(motif: Motif, ink: str | None) -> Motif:
    """Return the motif with every paint turned to ``ink`` (#rrggbb); what covers half still covers half.

    None keeps the artwork's own colours.
    """
    if ink is None:
        return motif
    return replace(motif, shapes=tuple(_inked_shape(s, ink) for s in motif.shapes))


def _inked_shape(shape: Shape, ink: str) -> Shape:
    stroke = shape.stroke and replace(shape.stroke, paint=_inked_paint(shape.stroke.paint, ink))
    picture = shape.picture and _inked_picture(shape.picture, ink)
    return replace(shape, fill=shape.fill and _inked_paint(shape.fill, ink), stroke=stroke, picture=picture)


def _inked_paint(paint: Paint, ink: str) -> Paint:
    gradient = paint.gradient and replace(paint.gradient, stops=tuple(replace(s, colour=ink) for s in paint.gradient.stops))
    return replace(paint, colour=ink, gradient=gradient)


def _inked_picture(picture: Picture, ink: str) -> Picture:
    rgba = rgba_from_png(picture.png)
    rgba[..., :3] = np.array([int(ink[i : i + 2], 16) for i in (1, 3, 5)], np.uint8)
    return replace(picture, png=png_from_rgba(rgba))
