"""Put a page and what is laid on it together as one drawing."""

from __future__ import annotations

from collections.abc import Sequence

from .values.drawing import Drawing, Flat, PaintedPieces
from .values.laid import LaidLine
from .values.motif import Motif

Artwork = tuple[Motif, ...]


def painted(artwork: Artwork, laid: LaidLine) -> PaintedPieces:
    """Return a laid line's pieces as they are painted; ``artwork`` are the motifs of its brush in their order, coloured."""
    return PaintedPieces(artwork, laid.pieces.motif, laid.pieces.matrices, laid.outlines)


def drawing_of(
    width_mm: float,
    height_mm: float,
    lines: Sequence[tuple[Artwork, LaidLine]],
    *,
    ground: str | None = None,
    scenery: Sequence[Flat] = (),
) -> Drawing:
    """Return a page of some mm as a drawing: lines from below, on flat shapes on a colour, where there are any."""
    return Drawing(width_mm, height_mm, (*scenery, *(painted(artwork, laid) for artwork, laid in lines)), ground)
