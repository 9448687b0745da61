"""What is drawn, decided once: a small display list that every writer walks."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from functools import cached_property

import numpy as np

from .arrays import freeze_arrays
from .motif import Motif
from .outlines import ShapedOutlines

SIMILAR_REL_TOL = 1e-9  # chosen: of a piece's size; far below what is written of a matrix


@dataclass(frozen=True, eq=False)
class PaintedPieces:
    """n pieces in the order of painting: artwork under affine maps, or shaped outlines with its paints.

    ``artwork`` are coloured motifs, ``motif`` (n,) each piece's place among them; another colour is another artwork.
    ``matrices`` (n, 6), a b c d e f, take it from about its base line's middle to the page, strokes and all: a stroke is a part
    of the artwork and is scaled as the artwork is. Pieces in ``outlines`` are drawn as these, their gradients and pictures as
    their matrices say.
    """

    artwork: tuple[Motif, ...]
    motif: np.ndarray
    matrices: np.ndarray
    outlines: ShapedOutlines | None = None

    def __post_init__(self) -> None:
        freeze_arrays(self)

    @cached_property
    def shaped(self) -> np.ndarray:
        """Tell which pieces (n,) are drawn as outlines."""
        shaped = np.zeros(len(self.motif), bool)
        if self.outlines is not None:
            shaped[self.outlines.pieces] = True
        return shaped

    @cached_property
    def similar(self) -> np.ndarray:
        """Tell which pieces (n,) keep their proportions, so that a stroke of theirs has one width."""
        a, b, c, d = self.matrices[:, :4].T
        size = a * a + b * b
        return (np.abs(a * c + b * d) <= SIMILAR_REL_TOL * size) & (np.abs(c * c + d * d - size) <= SIMILAR_REL_TOL * size)

    @cached_property
    def scales(self) -> np.ndarray:
        """Return the factor (n,) on lengths, the root of the factor on areas."""
        a, b, c, d = self.matrices[:, :4].T
        return np.sqrt(np.abs(a * d - b * c))


@dataclass(frozen=True)
class Flat:
    """A flat shape: path data in mm and a colour ``#rrggbb``."""

    d: str
    fill: str


Item = PaintedPieces | Flat


@dataclass(frozen=True)
class Drawing:
    """A page in mm, its items from below; ``ground`` is a colour under all, or none."""

    width_mm: float
    height_mm: float
    items: tuple[Item, ...]
    ground: str | None = None

    def pieces(self) -> Iterator[PaintedPieces]:
        """Yield the pieces of all items, from below."""
        for item in self.items:
            if isinstance(item, PaintedPieces):
                yield item
