"""Artwork that covers less than it was drawn to."""

from __future__ import annotations

from dataclasses import replace

import numpy as np

from ..maths.raster import png_from_rgba, rgba_from_png
from ..values.motif import Paint, Picture, Shape


def faded(shape: Shape, share: float) -> Shape:
    """Return a shape whose fill, stroke and picture each cover ``share`` (0 to 1) of what they did; a share of 1 gives it as it is.

    Where its fill and its stroke lie over one another both are seen, which a group that is faded as one would not show.
    """
    if share == 1:
        return shape
    stroke = shape.stroke and replace(shape.stroke, paint=_faded_paint(shape.stroke.paint, share))
    picture = shape.picture and _faded_picture(shape.picture, share)
    return replace(shape, fill=shape.fill and _faded_paint(shape.fill, share), stroke=stroke, picture=picture)


def _faded_paint(paint: Paint, share: float) -> Paint:
    return replace(paint, opacity=paint.opacity * share)


def _faded_picture(picture: Picture, share: float) -> Picture:
    rgba = rgba_from_png(picture.png)
    rgba[..., 3] = np.rint(rgba[..., 3] * share)
    return replace(picture, png=png_from_rgba(rgba))
