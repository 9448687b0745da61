"""Colour pieces: what the ink gives each paint of each piece, and what varies of it."""

from __future__ import annotations

import itertools
from collections.abc import Sequence
from typing import NamedTuple

import numpy as np

from ..artwork.paints import largest_paint, rgba_of
from ..maths.colour import luminance_of, oklab_from_srgb, rgb_from_hex, srgb_within_gamut
from ..values.brush import Ink
from ..values.drawing import Colours
from ..values.motif import Motif
from ..values.pieces import Varied

NEUTRAL_CHROMA = 0.02  # in OKLCH; below it a colour has no hue to turn
WHITE, BLACK = np.array([1.0, 0.0, 0.0]), np.zeros(3)  # in OKLab


class Tints(NamedTuple):
    """What the colours of n pieces go by: their motif's place, and what varies of them, each (n,) or None."""

    motif: np.ndarray
    mix: np.ndarray | None
    hue: np.ndarray | None
    strength: np.ndarray | None
    lightness: np.ndarray | None


def coloured_together(motifs: Sequence[Motif], lines: Sequence[Varied], ink: Ink) -> list[Colours | None]:
    """Return what ``coloured`` does for each of several lines, which there may be none of, worked out in one go."""
    if len(lines) < 2 or not any(varies_in_colour(pieces, ink) for pieces in lines):
        return [coloured(motifs, pieces, ink) for pieces in lines]
    varied = [_of_all([getattr(pieces, name) for pieces in lines]) for name in Tints._fields[1:]]
    whole = coloured(motifs, Tints(np.concatenate([pieces.motif for pieces in lines]), *varied), ink)
    assert whole is not None  # for it varies
    ends = np.cumsum([0, *(len(pieces.motif) for pieces in lines)]).tolist()
    return [Colours(whole.table[a:b], np.arange(b - a)) for a, b in itertools.pairwise(ends)]


def _of_all(columns: Sequence[np.ndarray | None]) -> np.ndarray | None:
    known = [column for column in columns if column is not None]
    return np.concatenate(known) if len(known) == len(columns) else None


def coloured(motifs: Sequence[Motif], pieces: Varied | Tints, ink: Ink) -> Colours | None:
    """Return the colours of every piece's paints, None where all keep those they are drawn with.

    Each is the motif's as a whole where nothing of its colour varies from piece to piece.
    """
    varies = varies_in_colour(pieces, ink)
    if not varies and not inks(ink):
        return None
    paints = max((len(rgba_of(motif)) for motif in motifs), default=0)
    count = len(pieces.motif) if varies else len(motifs)
    table, which = np.zeros((count, paints), np.uint32), np.arange(count) if varies else pieces.motif
    for v, motif in enumerate(motifs):
        rgba = rgba_of(motif)
        rows = np.flatnonzero(pieces.motif == v) if varies else np.array([v])
        if len(rgba) and len(rows):
            table[rows, : len(rgba)] = pack(_laid(rgba, largest_paint(motif), pieces, rows if varies else None, ink))
    return Colours(table, which)


def inks(ink: Ink) -> bool:
    """Tell whether an ink changes the colours of what it lays."""
    return ink.coverage != "as_drawn" or (ink.ink is not None and ink.gives != "nothing")


def varies_in_colour(pieces: Varied | Tints, ink: Ink) -> bool:
    """Tell whether colours differ from piece to piece by what varies."""
    mixed = pieces.mix is not None and ink.ink is not None and ink.second_ink is not None and ink.gives != "nothing"
    return mixed or any(column is not None for column in (pieces.hue, pieces.strength, pieces.lightness))


def rgba_in_ink(rgba: np.ndarray, largest: np.ndarray | None, ink: Ink, varied: tuple[float, float, float] = (0.0, 1.0, 0.0)) -> np.ndarray:
    """Return colours (p, 4) in shares as an ink lays them; ``largest`` (3,) leads where hues turn, ``varied`` is what the piece turns
    its hue by (radians), the factor on chroma, and what it adds to lightness.
    """
    lab = oklab_from_srgb(rgba[:, :3])
    laid = _given(lab, None if largest is None else oklab_from_srgb(largest), _inks_of(None, None, ink), ink) if ink.ink else lab
    laid = _shifted(laid, *(np.full((len(laid),), value) for value in varied))
    return _covered(rgba, srgb_within_gamut(laid), ink)


def _laid(rgba: np.ndarray, largest: int | None, pieces: Varied | Tints, rows: np.ndarray | None, ink: Ink) -> np.ndarray:
    """Return the colours (k, p, 4) of paints (p, 4) on some pieces, of one that does not vary where ``rows`` is None."""
    count = 1 if rows is None else len(rows)
    lab = np.tile(oklab_from_srgb(rgba[:, :3]), (count, 1, 1))
    if ink.ink is not None:
        lab = _given(lab, None if largest is None else lab[0, largest], _inks_of(pieces, rows, ink)[:, None], ink)
    if rows is not None:
        lab = _shifted(lab, *(None if column is None else column[rows, None] for column in (pieces.hue, pieces.strength, pieces.lightness)))
    rgb = srgb_within_gamut(lab.reshape(-1, 3)).reshape(lab.shape)
    return _covered(np.tile(rgba, (count, 1, 1)), rgb, ink)


def _inks_of(pieces: Varied | Tints | None, rows: np.ndarray | None, ink: Ink) -> np.ndarray:
    """Return the ink (k, 3) of each piece in OKLab, mixed toward the second."""
    first = oklab_from_srgb(rgb_from_hex(ink.ink or "#000000"))[None]
    if pieces is None or rows is None or pieces.mix is None or ink.second_ink is None:
        return first
    return first + pieces.mix[rows, None] * (oklab_from_srgb(rgb_from_hex(ink.second_ink)) - first)


def _given(lab: np.ndarray, largest: np.ndarray | None, inks: np.ndarray, ink: Ink) -> np.ndarray:
    """Return colours (..., 3) in OKLab by what inks, which go with them, give."""
    if ink.gives == "everything":
        return np.broadcast_to(inks, lab.shape).copy()
    if ink.gives == "hue":
        return _hue_turned(lab, largest, inks)
    return _on_ladder(lab, inks, ink) if ink.gives == "hue_strength" else lab


def _hue_turned(lab: np.ndarray, largest: np.ndarray | None, inks: np.ndarray) -> np.ndarray:
    """Turn hues by the angle that brings the largest colour to the ink's hue; neutrals have none, and a neutral ink turns none."""
    if largest is None or np.hypot(*largest[1:]) < NEUTRAL_CHROMA:
        return lab
    angle = np.arctan2(inks[..., 2], inks[..., 1]) - np.arctan2(largest[2], largest[1])
    angle = np.where(np.hypot(inks[..., 1], inks[..., 2]) < NEUTRAL_CHROMA, 0.0, angle)
    angle = np.where(np.hypot(lab[..., 1], lab[..., 2]) < NEUTRAL_CHROMA, 0.0, angle)
    return _turned(lab, angle)


def _on_ladder(lab: np.ndarray, inks: np.ndarray, ink: Ink) -> np.ndarray:
    """Put colours where their lightness stands on the way from white to the ink, and where the darkest is black on from there to it."""
    light = np.clip(lab[..., :1], 0.0, 1.0)
    if ink.darkest == "ink":
        return WHITE + (1 - light) * (inks - WHITE)
    own = np.clip(inks[..., :1], 1e-9, 1 - 1e-9)
    above = WHITE + (1 - light) / (1 - own) * (inks - WHITE)
    return np.where(light >= own, above, inks + (own - light) / own * (BLACK - inks))


def _shifted(lab: np.ndarray, hue: np.ndarray | None, strength: np.ndarray | None, lightness: np.ndarray | None) -> np.ndarray:
    """Turn hues by radians, multiply chroma and add to lightness, each (k, 1) or None."""
    if strength is not None:
        lab = np.concatenate([lab[..., :1], lab[..., 1:] * strength[..., None]], axis=-1)
    if hue is not None:
        lab = _turned(lab, hue)
    return lab if lightness is None else lab + np.stack([lightness, 0 * lightness, 0 * lightness], axis=-1)


def _turned(lab: np.ndarray, angle: np.ndarray) -> np.ndarray:
    cos, sin = np.cos(angle), np.sin(angle)
    a, b = lab[..., 1], lab[..., 2]
    return np.stack([lab[..., 0], cos * a - sin * b, sin * a + cos * b], axis=-1)


def _covered(rgba: np.ndarray, rgb: np.ndarray, ink: Ink) -> np.ndarray:
    """Return colours with how much they cover: as drawn, or as much as what was drawn is light, or dark."""
    alpha = rgba[..., 3]
    if ink.coverage != "as_drawn":
        light = luminance_of(rgba[..., :3])
        alpha = alpha * (light if ink.coverage == "light_shows" else 1 - light)
    return np.concatenate([rgb, alpha[..., None]], axis=-1)


def pack(rgba: np.ndarray) -> np.ndarray:
    """Return colours (..., 4) in shares as whole numbers 0xRRGGBBAA."""
    eight = np.round(np.clip(rgba, 0, 1) * 255).astype(np.uint32)
    return (eight[..., 0] << 24) | (eight[..., 1] << 16) | (eight[..., 2] << 8) | eight[..., 3]
