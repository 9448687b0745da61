"""Colour pictures: a motif's as a whole, or each piece's by what varies of it, in few enough colourings to be held."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace
from typing import NamedTuple

import numpy as np

from ..artwork.paints import largest_paint, rgba_of, with_paints
from ..artwork.picture_laps import lap_of
from ..maths.colour import hex_from_rgb, oklab_from_srgb, rgb_from_hex, srgb_within_gamut
from ..maths.ragged import alike
from ..maths.raster import png_from_rgba, rgba_from_png
from ..maths.recent import Recent
from ..values.brush import Ink
from ..values.motif import Motif, Picture, Shape
from ..values.pieces import Varied
from .coloured import inks, pack, rgba_in_ink, varies_in_colour

MOST_COLOURINGS = 64  # of one motif's pictures; chosen: as many as 3 to 4 % of hue, strength and lightness give in the steps below
MOST_COLOURED = 8_000_000  # pixels of a motif's pictures in all their colourings
STEPS = np.array([1 / 16, 4.0, 4.0, 1.0])  # of mix, hue (°), strength (%) and lightness (points of OKLCH); chosen: not to be told apart
_coloured: Recent[Motif] = Recent(200_000_000, weigh=lambda motif: 1 + sum(len(s.picture.png) for s in motif.shapes if s.picture))


class PictureInk(NamedTuple):
    """What colours the pictures of a piece: an ink, mixed already, and what varies in whole degrees of hue, per cent of chroma and
    tenths of a point of lightness; ``lap`` is for what of them lies below a seam alone.
    """

    ink: Ink
    hue_deg: int = 0
    strength_pct: int = 100
    lightness: int = 0
    lap: bool = False


class Pictures(NamedTuple):
    """The artworks of n pieces whose pictures are coloured: ``drawn`` names each by its motif's place and its pictures' ink (None: as
    drawn), ``which`` (n,) is each piece's place among these.
    """

    drawn: tuple[tuple[int, PictureInk | None], ...]
    which: np.ndarray


def inked(motif: Motif, ink: Ink) -> Motif:
    """Return the motif as an ink lays it, nothing of it varied; one without ink keeps the artwork's own colours."""
    if not inks(ink):
        return motif
    rgba, largest = rgba_of(motif), largest_paint(motif)
    leads = None if largest is None else rgba[largest, :3]
    painted = with_paints(motif, pack(rgba_in_ink(rgba, leads, ink)).tolist())
    return with_pictures_in(painted, PictureInk(ink))


def pictures_of(motifs: Sequence[Motif], pieces: Varied, ink: Ink) -> Pictures | None:
    """Return in which colours the pictures of every piece are laid; None where all keep their own, or there are none.

    What varies is taken in steps, which are doubled until there are no more colourings than can be held.
    """
    pixels = np.array([sum(s.picture.width_px * s.picture.height_px for s in motif.shapes if s.picture) for motif in motifs])
    varies = varies_in_colour(pieces, ink)
    if not (pixels.any() and len(pieces.s) and (varies or inks(ink))):
        return None
    columns, motif = _columns(pieces), pieces.motif
    pictured = pixels[motif] > 0
    most = int(np.clip(MOST_COLOURED // pixels.max(), 1, MOST_COLOURINGS))
    steps = STEPS
    while True:
        rows = np.column_stack([motif, np.where(pictured[:, None], np.round(columns / steps), 0)])
        first, which = alike(rows)
        kinds = rows[first]
        if max(np.bincount(kinds[:, 0].astype(int))) <= most:
            break
        steps = steps * 2
    drawn = tuple((int(row[0]), _ink_of(row[1:] * steps, ink) if pixels[int(row[0])] else None) for row in kinds)
    return Pictures(drawn, which)


def as_drawn(motifs: Sequence[Motif], which: np.ndarray) -> Pictures:
    """Return the pictures of pieces (n,) as their motifs have them."""
    return Pictures(tuple((place, None) for place in range(len(motifs))), which)


def laps_first(pictures: Pictures, of: np.ndarray) -> Pictures:
    """Return the artworks of pieces with the laps of some ``of`` them (k,) before all others."""
    kinds, lap = np.unique(pictures.which[of], return_inverse=True)
    laps = tuple((place, (how or PictureInk(Ink()))._replace(lap=True)) for place, how in (pictures.drawn[k] for k in kinds.tolist()))
    return Pictures(pictures.drawn + laps, np.concatenate([len(pictures.drawn) + lap.ravel(), pictures.which]))


def _columns(pieces: Varied) -> np.ndarray:
    """Return what varies of the colours of n pieces (n, 4): mix, hue (°), strength beyond 100 % and lightness in points."""
    given = (pieces.mix, pieces.hue, pieces.strength, pieces.lightness)
    mix, hue, strength, lightness = (None if column is None else np.asarray(column, float) for column in given)
    nothing = np.zeros(len(pieces.s))
    return np.column_stack([
        nothing if mix is None else mix, nothing if hue is None else np.degrees(hue) % 360,
        nothing if strength is None else 100 * (strength - 1), nothing if lightness is None else 100 * lightness,
    ])  # fmt: skip


def _ink_of(values: np.ndarray, ink: Ink) -> PictureInk:
    mix, hue, strength, lightness = (float(value) for value in values)
    colour = ink.ink
    if colour is not None and ink.second_ink is not None and mix:
        first, second = (oklab_from_srgb(rgb_from_hex(each)[None]) for each in (colour, ink.second_ink))
        colour = hex_from_rgb(srgb_within_gamut(first + min(mix, 1.0) * (second - first))[0])
    own = Ink(gives=ink.gives, darkest=ink.darkest, ink=colour, coverage=ink.coverage)
    return PictureInk(own, round(hue) % 360, max(round(100 + strength), 0), round(10 * lightness))


def with_pictures_in(motif: Motif, how: PictureInk | None) -> Motif:
    """Return a motif with its pictures coloured, its paints as they are; itself where it has none, or they are laid as drawn."""
    if how is None or all(shape.picture is None for shape in motif.shapes):
        return motif
    return _coloured.get((motif, how), lambda: _with_pictures(motif, how))


def _with_pictures(motif: Motif, how: PictureInk) -> Motif:
    as_is = how._replace(lap=False) == PictureInk(how.ink) and not inks(how.ink)
    shown = motif if as_is else replace(motif, shapes=tuple(_with_picture(shape, how) for shape in motif.shapes))
    return lap_of(shown) if how.lap else shown


def _with_picture(shape: Shape, how: PictureInk) -> Shape:
    return shape if shape.picture is None else replace(shape, picture=_inked_picture(shape.picture, how))


def _inked_picture(picture: Picture, how: PictureInk) -> Picture:
    """Colour a picture; its hues turn by the colour that most of it shows."""
    rgba = rgba_from_png(picture.png)
    shares = rgba.reshape(-1, 4) / 255
    colours, back = np.unique(rgba.reshape(-1, 4).view(np.uint32).ravel(), return_inverse=True)
    own = colours.view(np.uint8).reshape(-1, 4) / 255
    weight = np.bincount(back, weights=shares[:, 3])
    leads = own[int(weight.argmax()), :3] if len(own) else None
    varied = np.radians(how.hue_deg), how.strength_pct / 100, how.lightness / 1000
    laid = rgba_in_ink(own, leads, how.ink, varied)
    eight = np.round(np.clip(laid, 0, 1) * 255).astype(np.uint8)[back.ravel()].reshape(rgba.shape)
    return replace(picture, png=png_from_rgba(eight))
