"""Put a page and what is laid on it together as one drawing."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace

import numpy as np

from .values.brush import Ink
from .values.drawing import Drawing, Flat, Group, Item, PaintedPieces
from .values.laid import LaidLine
from .values.motif import Motif
from .values.outlines import put_together

Artwork = tuple[Motif, ...]
PLAIN = Ink()


def painted(artwork: Artwork, laid: LaidLine, ink: Ink = PLAIN) -> PaintedPieces:
    """Return a laid line's pieces as they are painted; ``artwork`` are the motifs of its brush in their order, coloured."""
    opacity = None if ink.per_piece == 1 else np.full(len(laid.pieces.motif), ink.per_piece)
    return PaintedPieces(artwork, laid.pieces.motif, laid.pieces.matrices, laid.outlines, opacity, ink.of_piece)


def on_page(artwork: Artwork, laid: LaidLine, ink: Ink = PLAIN) -> Item:
    """Return a laid line as it lies on a page: its pieces, as one where a ceiling holds them or the line blends as one."""
    pieces = in_passes(painted(artwork, laid, ink))
    if ink.ceiling == 1 and ink.of_line == "normal":
        return pieces
    return Group((pieces,), ink.ceiling, ink.of_line)


def in_passes(pieces: PaintedPieces) -> PaintedPieces:
    """Return pieces with what lies under the neighbours first, of all of them, and everything else after it."""
    if not any(shape.under for motif in pieces.artwork for shape in motif.shapes):
        return pieces
    parts = [_half(pieces, under=under) for under in (True, False)]
    outlines = None
    if pieces.outlines is not None:
        under, over = (part.outlines for part in parts)
        outlines = under and over and put_together([(under, 0), (over, len(parts[0].motif))])
    return PaintedPieces(
        parts[0].artwork + parts[1].artwork, np.concatenate([parts[0].motif, parts[1].motif + len(parts[0].artwork)]),
        np.concatenate([p.matrices for p in parts]), outlines, np.concatenate([p.covers for p in parts]), pieces.blend,
    )  # fmt: skip


def _half(pieces: PaintedPieces, *, under: bool) -> PaintedPieces:
    """Return what of some pieces lies under their neighbours, or what does not; pieces that have nothing of it are left out."""
    halves = [tuple(s for s in motif.shapes if s.under == under) for motif in pieces.artwork]
    artwork = tuple(replace(motif, shapes=half) for motif, half in zip(pieces.artwork, halves, strict=True))
    kept = np.array([len(half) > 0 for half in halves])[pieces.motif]
    outlines = None
    if pieces.outlines is not None:
        number = np.full((len(halves), max(len(m.shapes) for m in pieces.artwork)), -1)
        for v, motif in enumerate(pieces.artwork):
            own = [i for i, s in enumerate(motif.shapes) if s.under == under]
            number[v, own] = np.arange(len(own))
        shape = number[pieces.motif]
        piece = np.where(kept, np.cumsum(kept) - 1, -1)
        outlines = pieces.outlines.some(shape[pieces.outlines.piece, pieces.outlines.shape] >= 0, piece, shape)
    return PaintedPieces(artwork, pieces.motif[kept], pieces.matrices[kept], outlines, pieces.covers[kept], pieces.blend)


def drawing_of(
    width_mm: float, height_mm: float, lines: Sequence[Item], *, ground: str | None = None, scenery: Sequence[Flat] = ()
) -> Drawing:
    """Return a page of some mm as a drawing: lines from below, on flat shapes on a colour, where there are any."""
    return Drawing(width_mm, height_mm, (*scenery, *lines), ground)
