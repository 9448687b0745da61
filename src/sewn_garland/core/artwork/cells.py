"""Pictures as cells of what they cover, for questions that are about outlines."""

from __future__ import annotations

from dataclasses import replace

import numpy as np

from ..maths.raster import rgba_from_png
from ..values.motif import Motif, Paint, Shape, picture_of

MOST_CELLS = 192  # along a picture's longer side; chosen: outlines that slope over an edge meet as drawn ones do
COVERED = 0.5  # of a cell, that is covered as a whole


def pictures_as_cells(motif: Motif) -> Motif:
    """Return a motif with outlines of what its pictures cover in their place, cell by cell; itself without any."""
    if all(shape.picture is None for shape in motif.shapes):
        return motif
    shapes = (shape if shape.picture is None else _cells(shape) for shape in motif.shapes)
    return replace(motif, shapes=tuple(shape for shape in shapes if shape.commands))


def _cells(shape: Shape) -> Shape:
    """Return runs of covered cells as rectangles, row by row; nothing where a picture covers nothing."""
    picture, (origin, right, _, below) = picture_of(shape), shape.points
    alpha = rgba_from_png(picture.png)[..., 3] / 255
    size = np.minimum(alpha.shape, np.maximum(1, np.array(alpha.shape) * MOST_CELLS // max(alpha.shape)))
    rows, columns = (np.linspace(0, n, cells + 1).astype(int) for n, cells in zip(alpha.shape, size, strict=True))
    sums = np.add.reduceat(np.add.reduceat(alpha, rows[:-1], axis=0), columns[:-1], axis=1)
    filled = np.pad(sums >= COVERED * np.outer(np.diff(rows), np.diff(columns)), ((0, 0), (1, 1)))
    row, begin = np.nonzero(~filled[:, :-1] & filled[:, 1:])
    end = np.nonzero(filled[:, :-1] & ~filled[:, 1:])[1]
    x0, x1 = (columns[at] / alpha.shape[1] for at in (begin, end))
    y0, y1 = (rows[at] / alpha.shape[0] for at in (row, row + 1))
    share = np.stack([np.stack([x0, y0], 1), np.stack([x1, y0], 1), np.stack([x1, y1], 1), np.stack([x0, y1], 1)], axis=1).reshape(-1, 2)
    points = origin + share[:, :1] * (right - origin) + share[:, 1:] * (below - origin)
    return Shape("MLLLZ" * len(row), points, Paint("#000000"), name=shape.name, lies=shape.lies)
