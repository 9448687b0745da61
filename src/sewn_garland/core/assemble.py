"""Put a page and what is laid on it together as one drawing."""

from __future__ import annotations

import itertools
from collections.abc import Iterable, Sequence
from dataclasses import replace
from typing import NamedTuple

import numpy as np

from .artwork.paints import in_own_colours, largest_paint, paints_of
from .artwork.passes import half_of, passes_of, places_of_half
from .colouring.coloured import coloured, coloured_together
from .colouring.inked import Pictures, as_drawn, laps_first, pictures_of, with_pictures_in
from .drawing.svg import path_data
from .drawing.tables import pieces_csv
from .shaping.as_one import as_one
from .shaping.laps import with_laps
from .shaping.picture_laps import picture_laps, with_laps_first
from .values.brush import Brush, Ink
from .values.closes import Close
from .values.drawing import Box, Colours, Drawing, Flat, Group, Item, PagePicture, PaintedPieces
from .values.laid import LaidLine
from .values.motif import Motif
from .values.outlines import BisectorCuts

Artwork = tuple[Motif, ...]
PLAIN = Ink()
BLACK = "#000000"
FAR_MM = 1e5  # about an area: further than a page reaches


class Look(NamedTuple):
    """A laid line's pieces as they are painted but for their pictures, which are as drawn, and how these are to be coloured; where
    pieces are still to end on bisectors.
    """

    pieces: PaintedPieces
    cuts: BisectorCuts
    pictures: Pictures | None


def looks(artwork: Artwork, lines: Sequence[LaidLine], ink: Ink) -> list[Look]:
    """Return how lines laid with one brush look in an ink; ``artwork`` are the motifs of the brush in their order."""
    colours = coloured_together(artwork, [laid.pieces for laid in lines], ink)
    return [_look(artwork, laid, ink, own) for laid, own in zip(lines, colours, strict=True)]


def _look(artwork: Artwork, laid: LaidLine, ink: Ink, colours: Colours | None) -> Look:
    pictures = pictures_of(artwork, laid.pieces, ink)
    opacity = None if ink.per_piece == 1 else np.full(len(laid.pieces.motif), ink.per_piece)
    if laid.pieces.opacity is not None:
        opacity = ink.per_piece * laid.pieces.opacity
    drawn = artwork if pictures is None else tuple(artwork[place] for place, _ in pictures.drawn)
    which = laid.pieces.motif if pictures is None else pictures.which
    pieces = PaintedPieces(drawn, which, laid.pieces.matrices, laid.outlines, opacity, ink.of_piece, colours)
    laps = picture_laps(pieces, laid)
    if laps is not None:
        pictures = laps_first(pictures or as_drawn(artwork, which), laps.of)
        artwork = tuple(artwork[place] for place, _ in pictures.drawn)
        return Look(with_laps_first(pieces, laps, artwork, pictures.which), laps.pushed(laid.cuts), pictures)
    if pictures is not None:
        return Look(pieces, laid.cuts, pictures)
    one, cuts = as_one(pieces, laid)
    return Look(with_laps(one, laid) if one is pieces else one, cuts, None)


def painted(artwork: Artwork, laid: LaidLine, ink: Ink = PLAIN) -> PaintedPieces:
    """Return a laid line's pieces as they are painted in an ink; ``artwork`` are the motifs of its brush in their order."""
    pieces, _, pictures = looks(artwork, [laid], ink)[0]
    if pictures is None:
        return pieces
    inks = [how for _, how in pictures.drawn]
    return replace(pieces, artwork=tuple(with_pictures_in(motif, how) for motif, how in zip(pieces.artwork, inks, strict=True)))


def pieces_list(lines: Sequence[tuple[Brush, LaidLine]]) -> str:
    """Return the list of every piece of lines, each with its brush, as CSV."""
    inks = [_laid_inks(brush.pieces.motifs, laid, brush.ink) for brush, laid in lines]
    return pieces_csv([laid for _, laid in lines], inks, [brush.ink.per_piece for brush, _ in lines])


def _laid_inks(artwork: Artwork, laid: LaidLine, ink: Ink = PLAIN) -> list[str]:
    """Return the colour of each piece's largest paint as it is laid, ``#rrggbb``; black for one without paint."""
    colours, own = coloured(artwork, laid.pieces, ink), [largest_paint(motif) for motif in artwork]
    if colours is None:
        drawn = [BLACK if k is None else paints_of(motif)[k][0] for motif, k in zip(artwork, own, strict=True)]
        return [drawn[v] for v in laid.pieces.motif.tolist()]
    column = np.array([-1 if k is None else k for k in own])[laid.pieces.motif]
    found = np.where(column < 0, 0, colours.table[colours.which, np.maximum(column, 0)] >> 8) if colours.table.shape[1] else 0 * column
    return [f"#{rgb:06x}" for rgb in found.tolist()]


def on_page(artwork: Artwork, laid: LaidLine, ink: Ink = PLAIN) -> tuple[Item, ...]:
    """Return a laid line as it lies on a page: its pieces, as one where a ceiling holds them or the line blends as one.

    What lies under the neighbours is painted first, of all pieces, then everything else; where a closed line closes, its first
    pieces lie over its last.
    """
    pieces = painted(artwork, laid, ink)
    items = tuple(item for under in passes_of(artwork) for item in _in_order(_half(pieces, under=under), under, laid.closes))
    if ink.ceiling == 1 and ink.of_line == "normal":
        return items
    return (Group(items, ink.ceiling, ink.of_line),)


def _half(pieces: PaintedPieces, *, under: bool) -> tuple[PaintedPieces, np.ndarray]:
    """Return what of some pieces lies under their neighbours, or what does not, and where (n + 1,) among these each piece begins."""
    if all(half_of(motif, under, mirrored) is motif for motif in pieces.artwork for mirrored in (False, True)):
        return pieces, np.arange(len(pieces.motif) + 1)
    pieces = in_own_colours(pieces)
    kinds = [(motif, mirrored) for mirrored in (False, True) for motif in pieces.artwork]
    halves = tuple(half_of(motif, under, mirrored) for motif, mirrored in kinds)
    kind = pieces.motif + len(pieces.artwork) * pieces.mirrored
    kept = np.array([len(half.shapes) > 0 for half in halves], bool)[kind]
    begins = np.append(0, np.cumsum(kept))
    outlines = None
    if pieces.outlines is not None:
        number = np.full((len(halves), max((len(m.shapes) for m in pieces.artwork), default=0)), -1)
        for v, (motif, mirrored) in enumerate(kinds):
            own = places_of_half(motif, under, mirrored)
            number[v, own] = np.arange(len(own))
        shape = number[kind]
        outlines = pieces.outlines.some(shape[pieces.outlines.piece, pieces.outlines.shape] >= 0, np.where(kept, begins[:-1], -1), shape)
    covers = pieces.covers[kept]
    return PaintedPieces(halves, kind[kept], pieces.matrices[kept], outlines, covers, pieces.blend), begins


def _in_order(half: tuple[PaintedPieces, np.ndarray], under: bool, closes: Sequence[Close]) -> list[Item]:
    """Return the pieces of a pass in their order, those that are painted once more after the last of their row."""
    pieces, begins = half
    items: list[Item] = []
    at = 0
    for close in (each for each in closes if each.under == under):
        first, behind, end = (int(begins[k]) for k in (close.first, close.first + close.count, close.last + 1))
        if first == behind:
            continue
        inside, outside = _clips(close)
        if close.apart:
            items += [pieces.part(at, first), *_clipped(pieces.part(first, behind), outside), pieces.part(behind, end)]
        else:
            items.append(pieces.part(at, end))
        items += _clipped(pieces.part(first, behind), inside)
        at = end
    return [*items, pieces.part(at, len(pieces.motif))] if items else [pieces]


def _clipped(pieces: PaintedPieces, clip: str) -> list[Item]:
    """Return pieces within a clip: each by itself, for what is clipped together mixes with nothing below it."""
    alone = [pieces.part(i, i + 1) for i in range(len(pieces.motif))]
    return [Group((replace(one, opacity=None, blend="normal"),), float(one.covers[0]), one.blend, clip) for one in alone]


def _clips(close: Close) -> tuple[str, str]:
    """Return path data of a close's area, and of all of the page but it."""
    rings = [close.points[a:b] for a, b in itertools.pairwise(close.starts.tolist())]
    low, high = close.points.min(axis=0) - FAR_MM, close.points.max(axis=0) + FAR_MM
    frame = np.array([low, (low[0], high[1]), high, (high[0], low[1])])  # turns the other way round than the outer rings
    area = "".join(path_data("M" + "L" * (len(ring) - 1) + "Z", ring) for ring in rings)
    return area, area + path_data("MLLLZ", frame)


def ground_box(width_mm: float, height_mm: float, picture_mm: tuple[float, float], *, fitted: bool) -> Box:
    """Return where a picture of some mm lies on a page: in its middle, at its own size or grown until it covers the page."""
    across, down = picture_mm
    grown = max(width_mm / across, height_mm / down) if fitted else 1.0
    return ((width_mm - grown * across) / 2, (height_mm - grown * down) / 2, grown * across, grown * down)


def drawing_of(
    width_mm: float, height_mm: float, lines: Iterable[Item], *, ground: str | None = None, scenery: Sequence[Flat | PagePicture] = ()
) -> Drawing:
    """Return a page of some mm as a drawing: lines from below, on pictures and flat shapes on a colour, where there are any."""
    return Drawing(width_mm, height_mm, (*scenery, *lines), ground)
