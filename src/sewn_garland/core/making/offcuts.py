"""What a mitre leaves of motifs that lie beyond it."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace

import numpy as np
import shapely

from ..artwork.silhouette import rough_silhouette
from ..maths.outlines import joined, subpaths
from ..values.motif import Motif, Shape

MOST_SHAPES = 200  # chosen: of a leg of more, what is left of one is too small to be seen as a scrap
KEPT_SHARE = 0.5  # chosen: of a part that a mitre cuts, less than this reads as a scrap
NEAR_MM = 0.01  # what touches the cut, and how far outlines may stray from their polygons beyond the silhouette's own sides


def without_offcuts(leg: Sequence[Shape], uncut: Sequence[Shape], on_cut: shapely.Geometry, begins: float) -> list[Shape]:
    """Return a leg's shapes without what a cut has left of parts that lie past it.

    ``uncut`` are the same shapes before. An offcut touches the cut (``on_cut``, a line), begins right of ``begins`` (mm), so does not
    hang together with the leg, and is less than half of the part that it was cut from.
    """
    if not leg or len(uncut) > MOST_SHAPES:
        return list(leg)
    left, whole = _islands(leg), _islands(uncut)
    offcuts = [part for part in left if shapely.bounds(part)[0] > begins and shapely.dwithin(part, on_cut, NEAR_MM)]
    offcuts = [part for part in offcuts if part.area < KEPT_SHARE * _cut_from(part, whole).area]
    if not offcuts:
        return list(leg)
    gone = shapely.buffer(shapely.union_all(offcuts), 2 * NEAR_MM + _size(leg) / 400)
    shapely.prepare(gone)
    return [kept for shape in leg for kept in _outside(shape, gone)]


def _islands(shapes: Sequence[Shape]) -> list[shapely.Polygon]:
    """Return what shapes cover, piece by piece, where it lies."""
    covered = rough_silhouette(Motif(tuple(shapes), 1.0, 1.0, 0.0))
    return [part for part in shapely.get_parts(shapely.affinity.translate(covered, 0.5)) if part.area > 0]


def _size(shapes: Sequence[Shape]) -> float:
    return float(np.ptp(np.concatenate([s.points for s in shapes]), axis=0).max())


def _cut_from(part: shapely.Polygon, whole: Sequence[shapely.Polygon]) -> shapely.Polygon:
    inside = shapely.point_on_surface(part)
    return min(whole, key=lambda island: shapely.distance(island, inside))


def _outside(shape: Shape, gone: shapely.Geometry) -> list[Shape]:
    """Return a shape without the contours that lie in a region; nothing where all do."""
    contours = list(subpaths(shape.commands, shape.points))
    kept = [c for c in contours if not shapely.covers(gone, shapely.MultiPoint(c[1]))]
    if len(kept) == len(contours):
        return [shape]
    commands, points = joined(kept)
    return [replace(shape, commands=commands, points=points)] if kept else []
