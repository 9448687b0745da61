"""How heavy a motif is to lay by the hundred, in words, with a cure."""

from __future__ import annotations

from dataclasses import dataclass, replace

import numpy as np
from PIL import Image

from ..maths.raster import png_from_rgba, rgba_from_png
from ..values.motif import Motif
from .rims import thinned

# chosen, from painting 2 000 pieces on screen: light stays at once, heavy makes pages slow
FAIR_POINTS, HEAVY_POINTS = 400, 2_000
HEAVY_PIXELS = 1_500_000
TOLERANCES_MM = (0.01, 0.02, 0.05, 0.1)


@dataclass(frozen=True)
class Weight:
    """``word`` is light, fair or heavy; ``thin_mm`` a tolerance that makes a heavy outline lighter, ``pixels_to`` a width to scale to."""

    points: int
    parts: int
    pixels: int
    word: str
    warning: str | None = None
    thin_mm: float | None = None
    thin_points: int | None = None
    pixels_to: int | None = None


def with_lighter_pictures(motif: Motif, width_px: int) -> Motif:
    """Scale pictures wider than ``width_px`` down to it; they stay as large in mm."""
    shapes = []
    for shape in motif.shapes:
        picture = shape.picture
        if picture is not None and picture.width_px > width_px:
            height = max(1, round(picture.height_px * width_px / picture.width_px))
            small = Image.fromarray(rgba_from_png(picture.png), "RGBA").convert("RGBa").resize((width_px, height), Image.Resampling.BOX)
            png = png_from_rgba(np.array(small.convert("RGBA")))
            shape = replace(shape, picture=replace(picture, png=png, width_px=width_px, height_px=height))
        shapes.append(shape)
    return replace(motif, shapes=tuple(shapes))


def weight_of(motif: Motif) -> Weight:
    """Weigh a motif; what is heavy comes with a warning and a cure that was tried."""
    pixels = sum(s.picture.width_px * s.picture.height_px for s in motif.shapes if s.picture)
    points = motif.points
    word = "heavy" if points > HEAVY_POINTS or pixels > HEAVY_PIXELS else "fair" if points > FAIR_POINTS else "light"
    if word != "heavy":
        return Weight(points, len(motif.shapes), pixels, word)
    if pixels > HEAVY_PIXELS:
        largest = max((s.picture for s in motif.shapes if s.picture), key=lambda p: p.width_px * p.height_px)
        to = int(largest.width_px * (HEAVY_PIXELS / pixels) ** 0.5)
        return Weight(points, len(motif.shapes), pixels, word,
                      f"{pixels / 1e6:.1f} million pixels in every piece make pages slow", pixels_to=to)  # fmt: skip
    warning = f"{points} points in every piece make pages slow"
    if motif.points > 20_000:  # trying would itself take long
        return Weight(points, len(motif.shapes), pixels, word, warning, thin_mm=TOLERANCES_MM[1])
    for tolerance in TOLERANCES_MM:
        left = sum(len(t.commands) - t.commands.count("Z") for t in (thinned(s, tolerance) for s in motif.shapes))
        if left <= 0.6 * points or tolerance == TOLERANCES_MM[-1]:
            break
    return Weight(points, len(motif.shapes), pixels, word, warning, thin_mm=tolerance if left < points else None, thin_points=left)
