"""The paints of a motif in one order, to read them off and to put others in their place."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import replace
from functools import lru_cache

import numpy as np

from ..maths.colour import rgb_from_hex
from ..maths.outlines import flattened
from ..values.drawing import PaintedPieces
from ..values.motif import Motif, Paint, Shape

FLAT_MM = 0.1  # chosen: for comparing areas alone


@lru_cache(maxsize=2048)
def paints_of(motif: Motif) -> tuple[tuple[str, float], ...]:
    """Return every colour ``#rrggbb`` with its opacity: shape by shape the fill's and the stroke's, of each its colour, then its stops."""
    return tuple(own for shape in motif.shapes for paint in _painted(shape) for own in _of_paint(paint))


@lru_cache(maxsize=2048)
def rgba_of(motif: Motif) -> np.ndarray:
    """Return the paints (p, 4) in shares."""
    rows = [[*rgb_from_hex(colour), opacity] for colour, opacity in paints_of(motif)]
    rgba = np.array(rows, float).reshape(-1, 4)
    rgba.setflags(write=False)
    return rgba


def with_paints(motif: Motif, rgba: Sequence[int]) -> Motif:
    """Return the motif in other colours, 0xRRGGBBAA each, in the order of its paints; what comes beyond these is not looked at."""
    left = iter(rgba)
    return replace(motif, shapes=tuple(_repainted(shape, left) for shape in motif.shapes))


def in_own_colours(item: PaintedPieces) -> PaintedPieces:
    """Return the same pieces with an artwork of its own for every motif in every colouring that it has."""
    if item.colours is None:
        return item
    table, motif = item.colours.table[item.colours.which], item.motif
    rows = np.ascontiguousarray(np.column_stack([motif, table]), np.int64)
    packed = rows.view([("", np.int64)] * rows.shape[1]).ravel()
    _, first, which = np.unique(packed, return_index=True, return_inverse=True)
    artwork = tuple(with_paints(item.artwork[int(motif[i])], table[i].tolist()) for i in first)
    return replace(item, artwork=artwork, motif=which.ravel(), colours=None)


@lru_cache(maxsize=2048)
def largest_paint(motif: Motif) -> int | None:
    """Return the place among its paints of the one that covers most, about; None where a motif has none."""
    place, areas = 0, {}
    for shape in motif.shapes:
        rings = flattened(shape.commands, shape.points, tolerance=FLAT_MM) if _painted(shape) else []
        filled = abs(sum(float((ring[:, 0] * np.roll(ring[:, 1], -1) - ring[:, 1] * np.roll(ring[:, 0], -1)).sum()) / 2 for ring in rings))
        drawn = sum(float(np.hypot(*np.diff(ring, axis=0).T).sum()) for ring in rings)
        for paint in _painted(shape):
            areas[place] = filled if paint is shape.fill else drawn * (shape.stroke.width if shape.stroke else 0.0)
            place += len(_of_paint(paint))
    return max(areas, key=lambda each: areas[each]) if areas else None


def _painted(shape: Shape) -> list[Paint]:
    return [paint for paint in (shape.fill, shape.stroke and shape.stroke.paint) if paint is not None]


def _of_paint(paint: Paint) -> list[tuple[str, float]]:
    stops = paint.gradient.stops if paint.gradient else ()
    return [(paint.colour, paint.opacity), *((stop.colour, stop.opacity) for stop in stops)]


def _repainted(shape: Shape, left: Iterator[int]) -> Shape:
    fill = shape.fill and _with_colours(shape.fill, left)
    stroke = shape.stroke and replace(shape.stroke, paint=_with_colours(shape.stroke.paint, left))
    return replace(shape, fill=fill, stroke=stroke) if fill or stroke else shape


def _with_colours(paint: Paint, left: Iterator[int]) -> Paint:
    colour, opacity = _written(next(left))
    gradient = paint.gradient
    if gradient is not None:
        stops = [(stop, *_written(next(left))) for stop in gradient.stops]
        gradient = replace(gradient, stops=tuple(replace(stop, colour=own, opacity=cover) for stop, own, cover in stops))
    return replace(paint, colour=colour, opacity=opacity, gradient=gradient)


def _written(rgba: int) -> tuple[str, float]:
    return f"#{rgba >> 8:06x}", (rgba & 255) / 255
