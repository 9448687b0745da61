"""Give a motif an ink as a whole, its pictures too."""

from __future__ import annotations

from dataclasses import replace

import numpy as np

from ..artwork.paints import largest_paint, rgba_of, with_paints
from ..maths.raster import png_from_rgba, rgba_from_png
from ..values.brush import SINGLE_ROLES, Brush, Ink, Pieces
from ..values.motif import Motif, Picture, Shape
from .coloured import inks, pack, rgba_in_ink


def inked(motif: Motif, ink: Ink) -> Motif:
    """Return the motif as an ink lays it, nothing of it varied; one without ink keeps the artwork's own colours."""
    if not inks(ink):
        return motif
    rgba, largest = rgba_of(motif), largest_paint(motif)
    leads = None if largest is None else rgba[largest, :3]
    painted = with_paints(motif, pack(rgba_in_ink(rgba, leads, ink)).tolist())
    return replace(painted, shapes=tuple(_with_picture(shape, ink) for shape in painted.shapes))


def pictures_in_ink(brush: Brush) -> Brush:
    """Return a brush with its motifs' pictures as its ink lays them; what is painted is coloured piece by piece."""
    pieces = brush.pieces
    singles = {role: own and with_pictures_in(own, brush.ink) for role, own in ((role, pieces.of(role)) for role in SINGLE_ROLES)}
    return replace(brush, pieces=Pieces(tuple(with_pictures_in(motif, brush.ink) for motif in pieces.repeat), **singles))


def with_pictures_in(motif: Motif, ink: Ink) -> Motif:
    """Return a motif with its pictures as an ink lays them, its paints as they are."""
    if not inks(ink) or all(shape.picture is None for shape in motif.shapes):
        return motif
    return replace(motif, shapes=tuple(_with_picture(shape, ink) for shape in motif.shapes))


def _with_picture(shape: Shape, ink: Ink) -> Shape:
    return shape if shape.picture is None else replace(shape, picture=_inked_picture(shape.picture, ink))


def _inked_picture(picture: Picture, ink: Ink) -> Picture:
    """Colour a picture; its hues turn by the colour that most of it shows."""
    rgba = rgba_from_png(picture.png)
    shares = rgba.reshape(-1, 4) / 255
    colours, back = np.unique(rgba.reshape(-1, 4).view(np.uint32).ravel(), return_inverse=True)
    own = colours.view(np.uint8).reshape(-1, 4) / 255
    weight = np.bincount(back, weights=shares[:, 3])
    laid = rgba_in_ink(own, own[int(weight.argmax()), :3] if len(own) else None, ink)
    eight = np.round(np.clip(laid, 0, 1) * 255).astype(np.uint8)[back.ravel()].reshape(rgba.shape)
    return replace(picture, png=png_from_rgba(eight))
