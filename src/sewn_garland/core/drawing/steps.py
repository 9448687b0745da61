"""Paint a drawing as a picture in steps, for the renderer holds so many shapes at a time and no more."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import replace

import numpy as np

from ..values.drawing import Drawing, Group, Item, PagePicture, PaintedPieces
from .png import png_from_svg, with_resolution
from .svg import compact_svg

MOST_SHAPES = 200_000  # in a step; chosen: the renderer refuses a million nodes, and a step's own memory stays below the picture's


def png_of(drawing: Drawing, *, width_px: int, height_px: int, most_shapes: int = MOST_SHAPES) -> bytes:
    """Render a drawing, fitted to fill the pixels exactly, the ground clear where it has none; the picture says its resolution.

    Each step is painted on what the steps before gave, so that it blends with what is below it; a group of more shapes than
    one step holds is painted by itself first. Raises LimitError when a step takes too long or too much memory.
    """
    below: bytes | None = None
    for step in _steps(drawing.items, most_shapes):
        items = tuple(_alone(drawing, item, width_px, height_px, most_shapes) for item in step)
        under = () if below is None else (PagePicture(below),)
        ground = drawing.ground if below is None else None
        below = png_from_svg(compact_svg(replace(drawing, items=(*under, *items), ground=ground)), width_px=width_px, height_px=height_px)
    png = below or png_from_svg(compact_svg(drawing), width_px=width_px, height_px=height_px)
    return with_resolution(png, per_mm=(width_px / drawing.width_mm, height_px / drawing.height_mm))


def _alone(drawing: Drawing, item: Item, width_px: int, height_px: int, most_shapes: int) -> Item:
    """Return a group of more shapes than a step holds as one of a picture of them; anything else as it is."""
    if not isinstance(item, Group) or _weight(item) <= most_shapes:
        return item
    inside = replace(drawing, items=item.items, ground=None)
    return replace(item, items=(PagePicture(png_of(inside, width_px=width_px, height_px=height_px, most_shapes=most_shapes)),))


def _steps(items: Sequence[Item], most_shapes: int) -> Iterator[list[Item]]:
    """Yield the items in their order in lists of at most so many shapes, pieces divided among them; a group stays whole."""
    step: list[Item] = []
    held = 0
    for item in items:
        for part, weight in _parts(item, most_shapes):
            if step and held + weight > most_shapes:
                yield step
                step, held = [], 0
            step.append(part)
            held += weight
    if step:
        yield step


def _parts(item: Item, most_shapes: int) -> Iterator[tuple[Item, int]]:
    """Yield an item's parts of at most so many shapes with how many they have; a group that has more counts as a step's fill."""
    if not isinstance(item, PaintedPieces):
        yield item, min(_weight(item), most_shapes)
        return
    ends = np.cumsum(_shapes(item))
    first = 0
    while first < len(ends):
        before = int(ends[first - 1]) if first else 0
        last = max(first + 1, int(np.searchsorted(ends, before + most_shapes, side="right")))
        yield (item if last - first == len(ends) else item.part(first, last)), int(ends[last - 1]) - before
        first = last


def _weight(item: Item) -> int:
    """Return how many shapes an item has."""
    if isinstance(item, PaintedPieces):
        return int(_shapes(item).sum())
    return sum(map(_weight, (*item.items, *item.mask))) + 1 if isinstance(item, Group) else 1


def _shapes(item: PaintedPieces) -> np.ndarray:
    """Return how many shapes each piece (n,) has, itself counted as one."""
    return np.array([1 + len(motif.shapes) for motif in item.artwork] or [1])[item.motif]
