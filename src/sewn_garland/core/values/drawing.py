"""What is drawn, decided once: a small display list that every writer walks."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from functools import cached_property

import numpy as np

from .arrays import freeze_arrays
from .blend import Blend
from .motif import Motif
from .outlines import ShapedOutlines

Box = tuple[float, float, float, float]  # left, top, width, height in mm
SIMILAR_REL_TOL = 1e-9  # chosen: of a piece's size; far below what is written of a matrix


@dataclass(frozen=True, eq=False)
class Colours:
    """The colours of n pieces: ``which`` (n,) row of ``table`` (k, p) each has, 0xRRGGBBAA in the order of its motif's paints."""

    table: np.ndarray
    which: np.ndarray

    def __post_init__(self) -> None:
        freeze_arrays(self)

    def some(self, rows: slice | np.ndarray) -> Colours:
        """Return the colours of some of the pieces."""
        return Colours(self.table, self.which[rows])


@dataclass(frozen=True, eq=False)
class PaintedPieces:
    """n pieces in the order of painting: artwork under affine maps, or shaped outlines with its paints.

    ``artwork`` are motifs, ``motif`` (n,) each piece's place among them; ``colours`` are what pieces have in place of their motif's.
    ``matrices`` (n, 6), a b c d e f, take it from about its base line's middle to the page, strokes and all: a stroke is a part
    of the artwork and is scaled as the artwork is. Pieces in ``outlines`` are drawn as these, their gradients and pictures as
    their matrices say. ``several`` (k,), rising, are those that stand for several pieces drawn as one, wherever their outlines lie.
    """

    artwork: tuple[Motif, ...]
    motif: np.ndarray
    matrices: np.ndarray
    outlines: ShapedOutlines | None = None
    opacity: np.ndarray | None = None
    blend: Blend = "normal"
    colours: Colours | None = None
    several: np.ndarray | None = None

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
    def covers(self) -> np.ndarray:
        """Return how much each piece (n,) covers, 0 to 1."""
        return np.ones(len(self.motif)) if self.opacity is None else self.opacity

    @cached_property
    def all_cover(self) -> float | None:
        """Return how much every piece covers where all do alike, 0 to 1; None where they differ, 1 without pieces."""
        first = float(self.covers[0]) if len(self.motif) else 1.0
        return first if (self.covers == first).all() else None

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

    @cached_property
    def mirrored(self) -> np.ndarray:
        """Tell which pieces (n,) are mirrored, along or across but not both."""
        a, b, c, d = self.matrices[:, :4].T
        return a * d < b * c

    def blocks(self, size: int) -> Iterator[PaintedPieces]:
        """Yield the pieces by blocks of at most ``size``, all in one where they are no more; no pieces are one block."""
        count = len(self.motif)
        yield from [self] if count <= size else (self.part(first, min(first + size, count)) for first in range(0, count, size))

    def part(self, first: int, last: int) -> PaintedPieces:
        """Return the pieces from the first up to the last, which is not among them."""
        own = slice(first, last)
        outlines = self.outlines and self.outlines.split([first, last])[0]
        colours = self.colours and self.colours.some(own)
        several = self.several
        if several is not None:
            several = several[(several >= first) & (several < last)] - first
        return PaintedPieces(self.artwork, self.motif[own], self.matrices[own], outlines, self.covers[own], self.blend, colours, several)


@dataclass(frozen=True)
class Flat:
    """A flat shape: path data in mm and a colour ``#rrggbb``."""

    d: str
    fill: str


@dataclass(frozen=True, eq=False)
class Group:
    """Items put together by themselves on nothing, then laid as one on what is below: an isolated group of the compositing standard.

    In the order of SVG: the ``filter`` (primitives of Filter Effects 1 as markup, lengths in mm), then what lies within ``clip``
    (path data in mm), as much as the alpha of the ``mask``'s items lets through, by ``opacity`` (0 to 1), as ``blend`` says.
    """

    items: tuple[Item, ...]
    opacity: float = 1.0
    blend: Blend = "normal"
    clip: str | None = None
    mask: tuple[Item, ...] = ()
    filter: str | None = None


@dataclass(frozen=True)
class PagePicture:
    """A picture as PNG, stretched to a ``box`` (left, top, width, height in mm); without one it is of the whole page, pixel for pixel:
    what was painted already.
    """

    png: bytes
    box: Box | None = None


Item = PaintedPieces | Flat | Group | PagePicture


@dataclass(frozen=True)
class Drawing:
    """A page in mm, its items from below; ``ground`` is a colour under all, or none."""

    width_mm: float
    height_mm: float
    items: tuple[Item, ...]
    ground: str | None = None

    def pieces(self) -> Iterator[tuple[PaintedPieces, tuple[Group, ...]]]:
        """Yield the pieces of all items, from below, each with the groups that it lies in, the outermost first."""
        return _pieces_of(self.items, ())


def _pieces_of(items: Sequence[Item], within: tuple[Group, ...]) -> Iterator[tuple[PaintedPieces, tuple[Group, ...]]]:
    for item in items:
        if isinstance(item, PaintedPieces):
            yield item, within
        elif isinstance(item, Group):
            yield from _pieces_of(item.items, (*within, item))
