"""All that a motif covers, as polygons."""

from __future__ import annotations

from functools import lru_cache
from typing import Literal

import numpy as np
import shapely

from ..maths.outlines import flattened
from ..values.motif import Motif
from .fills import as_fills

ROUGH_PARTS = 400
CAPS: dict[str, Literal["flat", "round", "square"]] = {"butt": "flat", "round": "round", "square": "square"}
FLATNESS_MM = 0.005  # chosen: outlines are polygons to this, a twentieth of what a join may miss


def silhouette(motif: Motif, size: float = 1.0) -> shapely.Geometry:
    """Return all that a motif covers as polygons about its base line's middle, strokes included; empty where it draws nothing.

    A picture covers its rectangle. Sides are as flat as has to be where the motif is laid ``size`` times as large.
    """
    return _silhouette(motif, FLATNESS_MM / 2.0 ** np.ceil(np.log2(size)))


@lru_cache(maxsize=512)
def _silhouette(motif: Motif, flatness: float) -> shapely.Geometry:
    parts = []
    for shape in motif.shapes:
        for part in [shape] if shape.picture is not None else as_fills(shape):
            parts.append(_filled(flattened(part.commands, part.points, tolerance=flatness), part.fill_rule))
    whole = shapely.union_all(parts) if parts else shapely.Polygon()
    return shapely.transform(whole, lambda xy: xy - (motif.width / 2, motif.base_line))


@lru_cache(maxsize=128)
def rough_silhouette(motif: Motif) -> shapely.Geometry:
    """Return what a motif covers as ``silhouette`` does, to a four-hundredth of its size and without dashes, fast for any stroke."""
    flatness = max(FLATNESS_MM, max(motif.width, motif.height) / ROUGH_PARTS)
    parts = []
    for shape in motif.shapes:
        rings = flattened(shape.commands, shape.points, tolerance=flatness)
        parts += [_filled(rings, shape.fill_rule)] if shape.fill or shape.picture is not None else []
        if shape.stroke is not None:
            lines = shapely.union_all([shapely.LineString(ring) for ring in rings if len(ring) > 1])
            parts.append(shapely.buffer(lines, shape.stroke.width / 2, quad_segs=4, cap_style=CAPS[shape.stroke.cap]))
    whole = shapely.union_all(parts) if parts else shapely.Polygon()
    return shapely.transform(whole, lambda xy: xy - (motif.width / 2, motif.base_line))


def _filled(rings: list[np.ndarray], rule: str) -> shapely.Geometry:
    """Return what rings fill: by ``evenodd`` what an odd number covers, else (nonzero) holes are the rings drawn the other way round."""
    rings = [ring for ring in rings if len(ring) > 2]
    polygons = [shapely.make_valid(shapely.Polygon(ring)) for ring in rings]
    if not polygons:
        return shapely.Polygon()
    if rule == "evenodd":
        out = polygons[0]
        for polygon in polygons[1:]:
            out = shapely.symmetric_difference(out, polygon)
        return out
    signs = np.array([_turn(ring) for ring in rings])
    main = signs[np.argmax(shapely.area(polygons))]
    solid = shapely.union_all([p for p, s in zip(polygons, signs, strict=True) if s == main])
    holes = [p for p, s in zip(polygons, signs, strict=True) if s != main]
    return shapely.difference(solid, shapely.union_all(holes)) if holes else solid


def _turn(ring: np.ndarray) -> float:
    x, y = ring.T
    return float(np.sign((x * np.roll(y, -1) - y * np.roll(x, -1)).sum()))
