"""What of pictures lies below their right seam, half of it their own and half the next ones': for the seam to be closed."""

from __future__ import annotations

from dataclasses import replace
from functools import lru_cache

import numpy as np

from ..maths.raster import png_from_rgba, rgba_from_png
from ..values.motif import Motif, Picture, Shape, picture_of

LAP_SHARE = 0.06  # of a picture's length, to either side of a seam; chosen: a pixel where a piece is 17 of them long
RIM_SHARE = 0.02  # of a picture's height, that a lap lies within its rim; chosen: a rim that is painted twice would be bolder
REACHES_SHARE = 1e-4  # of the frame's length, that a picture's edge may be off its own; chosen: far less than a pixel


@lru_cache(maxsize=512)
def lapping(motif: Motif) -> tuple[int, ...]:
    """Return the places of those of a motif's shapes that are pictures upright from edge to edge of its frame."""
    return tuple(i for i, shape in enumerate(motif.shapes) if _fills_length(shape, motif))


def lap_shares(shape: Shape) -> tuple[float, float]:
    """Return how much of a picture's length its lap shows to either side of the seam, and how much of its height it leaves out at either
    rim: whole pixels.
    """
    picture = picture_of(shape)
    return _lap_px(picture) / picture.width_px, _rim_px(picture) / picture.height_px


def lap_of(motif: Motif) -> Motif:
    """Return the laps of a motif's pictures alone, on its frame; what is seen through is left out, for it would be seen twice."""
    return replace(motif, shapes=tuple(_lap(motif.shapes[i]) for i in lapping(motif)), recipes=())


def _lap_px(picture: Picture) -> int:
    return max(1, round(LAP_SHARE * picture.width_px))


def _rim_px(picture: Picture) -> int:
    return int(np.ceil(RIM_SHARE * picture.height_px)) if picture.height_px > 4 else 0


def _fills_length(shape: Shape, motif: Motif) -> bool:
    if shape.picture is None or shape.lies != "over":
        return False
    origin, right, _, below = shape.points
    off = [origin[0], right[0] - motif.width, below[0], right[1] - origin[1]]
    return float(np.abs(off).max()) < REACHES_SHARE * motif.width


def _lap(shape: Shape) -> Shape:
    picture, (origin, right, _, below) = picture_of(shape), shape.points
    px, rim = _lap_px(picture), _rim_px(picture)
    rgba = rgba_from_png(picture.png)[rim : picture.height_px - rim]
    own = np.hstack([rgba[:, -px:], rgba[:, :px]])
    own[own[..., 3] < 255] = 0
    along, down = (right - origin) * px / picture.width_px, (below - origin) * rim / picture.height_px
    top, foot = right + down, right + below - origin - down
    corners = np.array([top - along, top + along, foot + along, foot - along])
    return replace(shape, points=corners, picture=Picture(png_from_rgba(own), 2 * px, len(own), picture.stencil))
