"""Put a page and what is laid on it together as one drawing."""

from __future__ import annotations

from collections.abc import Sequence

import numpy as np

from .values.brush import Ink
from .values.drawing import Drawing, Flat, Group, Item, PaintedPieces
from .values.laid import LaidLine
from .values.motif import Motif

Artwork = tuple[Motif, ...]
PLAIN = Ink()


def painted(artwork: Artwork, laid: LaidLine, ink: Ink = PLAIN) -> PaintedPieces:
    """Return a laid line's pieces as they are painted; ``artwork`` are the motifs of its brush in their order, coloured."""
    opacity = None if ink.per_piece == 1 else np.full(len(laid.pieces.motif), ink.per_piece)
    return PaintedPieces(artwork, laid.pieces.motif, laid.pieces.matrices, laid.outlines, opacity, ink.of_piece)


def on_page(artwork: Artwork, laid: LaidLine, ink: Ink = PLAIN) -> Item:
    """Return a laid line as it lies on a page: its pieces, as one where a ceiling holds them or the line blends as one."""
    pieces = painted(artwork, laid, ink)
    if ink.ceiling == 1 and ink.of_line == "normal":
        return pieces
    return Group((pieces,), ink.ceiling, ink.of_line)


def drawing_of(
    width_mm: float, height_mm: float, lines: Sequence[Item], *, ground: str | None = None, scenery: Sequence[Flat] = ()
) -> Drawing:
    """Return a page of some mm as a drawing: lines from below, on flat shapes on a colour, where there are any."""
    return Drawing(width_mm, height_mm, (*scenery, *lines), ground)
