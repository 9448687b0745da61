"""Trace a picture to outlines: sub-pixel contours, fitted with cubics."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from functools import partial

import numpy as np
import scipy

from ..errors import InputError
from ..maths.colour import hex_from_rgb
from ..maths.fitting import fitted
from ..maths.outlines import flattened, joined
from ..values.motif import Paint, Shape
from .clearing import lab_of, lightness_of

MOST_COLOURS = 16
MANY_POINTS = 60
SMOOTH_PX = 0.8  # chosen: takes the stairs of pixels out and leaves corners within half a pixel
Report = Callable[[float], None]


@dataclass(frozen=True)
class Traced:
    """Shapes in the picture's pixels, their on-curve points, and the farthest that a contour strays from its curve (pixels)."""

    shapes: tuple[Shape, ...]
    points: int
    deviation_px: float


def traced(
    rgba: np.ndarray, *, colours: int | None, threshold: float | None = None, least_speck_px: float = 16.0, sharpness: float = 0.5,
    tolerance_px: float = 0.75, report: Report = lambda share: None,
) -> Traced:  # fmt: skip
    """Trace ink from ground (``colours`` None) or so many flat colours.

    Ink is what is darker than ``threshold`` (lightness 0 to 1; None finds it by Otsu's method) and
    not clear. Contours that enclose less than ``least_speck_px`` square pixels are left out.
    ``sharpness`` 0 keeps no corner, 1 keeps every one. ``report`` is told the share done, and may
    raise to stop. Raises InputError when nothing is found.
    """
    report(0.0)
    if colours is not None and not 2 <= colours <= MOST_COLOURS:
        raise InputError(f"the number of colours must be from 2 to {MOST_COLOURS}")
    fields = list(_ink(rgba, threshold)) if colours is None else list(_colour_fields(rgba, colours))
    corner_from = np.radians(170 - 140 * float(np.clip(sharpness, 0, 1)))
    shapes: list[Shape] = []
    worst = 0.0
    for done, (field, colour) in enumerate(fields):
        shape, strayed = _traced_field(field, colour, least_speck_px, corner_from, tolerance_px,
                                       lambda share, done=done: report((done + share) / len(fields)))  # fmt: skip
        if shape is not None:
            shapes.append(shape)
            worst = max(worst, strayed)
    if not shapes:
        raise InputError("no ink was found to trace; move the threshold or take a smaller least speck")
    report(1.0)
    return Traced(tuple(shapes), sum(len(s.commands) - s.commands.count("Z") for s in shapes), worst)


def threshold_of(lightness: np.ndarray) -> float:
    """Return the lightness (0 to 1) that parts ink from ground best: Otsu (1979), the greatest variance between classes."""
    counts, edges = np.histogram(lightness, bins=256, range=(0, 1))
    middle = (edges[1:] + edges[:-1]) / 2
    below, total = np.cumsum(counts), counts.sum()
    sums = np.cumsum(counts * middle)
    above = total - below
    with np.errstate(divide="ignore", invalid="ignore"):
        between = below * above * (sums / below - (sums[-1] - sums) / above) ** 2
    between = np.nan_to_num(between)
    return float(middle[np.flatnonzero(between >= between.max() * (1 - 1e-12))].mean())


def _ink(rgba: np.ndarray, threshold: float | None):
    lightness = lightness_of(rgba)
    alpha = rgba[..., 3] / np.float32(255)
    seen = 1 - (1 - lightness) * alpha  # clear is as light as the ground
    at = threshold_of(seen) if threshold is None else float(threshold)
    dark = seen < at
    colour = hex_from_rgb(np.median(rgba[..., :3][dark][:: max(1, int(dark.sum()) // 20_000)], axis=0) / 255) if dark.any() else "#000000"
    yield scipy.ndimage.gaussian_filter(at - seen, SMOOTH_PX, truncate=2.5), colour


def _colour_fields(rgba: np.ndarray, colours: int):
    """Yield a field for each flat colour, from the lightest down; each covers the darker ones too, so that no slit opens between."""
    lab = lab_of(rgba)
    seen = rgba[..., 3] >= 128
    if not seen.any():
        return
    sample = lab[seen][:: max(1, int(seen.sum() // 20_000))]
    centres = _centres(sample, colours)
    nearest = np.stack([((lab - c) ** 2).sum(axis=-1) for c in centres]).argmin(axis=0)
    nearest = scipy.ndimage.median_filter(nearest.astype(np.int16), size=3)
    order = np.argsort(-centres[:, 0])
    covered = np.where(seen, 1.0, 0.0).astype(np.float32)
    for k in order:
        own = seen & (nearest == k)
        if not own.any():
            continue
        colour = hex_from_rgb(np.median(rgba[..., :3][own], axis=0) / 255)
        yield scipy.ndimage.gaussian_filter(covered, 0.6) - 0.5, colour
        covered = np.where(own, 0.0, covered).astype(np.float32)


def _centres(sample: np.ndarray, count: int) -> np.ndarray:
    """Return cluster centres by k-means, started from the colours farthest from one another."""
    centres = [np.median(sample, axis=0)]
    apart = ((sample - centres[0]) ** 2).sum(axis=1)
    while len(centres) < count:
        centres.append(sample[int(apart.argmax())])
        apart = np.minimum(apart, ((sample - centres[-1]) ** 2).sum(axis=1))
    out = np.array(centres)
    for _ in range(10):
        near = ((sample[:, None] - out[None]) ** 2).sum(axis=-1).argmin(axis=1)
        for k in range(count):
            if (near == k).any():
                out[k] = sample[near == k].mean(axis=0)
    return out


def _traced_field(field, colour, least, corner_from, tolerance, report: Report) -> tuple[Shape | None, float]:
    from skimage.measure import find_contours  # loaded where it is wanted

    padded = np.pad(field, 1, constant_values=min(-0.5, float(field.min())))
    contours = [c for c in find_contours(padded, 0.0) if len(c) > 3]
    report(0.4)
    outlines, worst = [], 0.0
    for i, contour in enumerate(contours):
        pause = partial(report, 0.4 + 0.6 * i / len(contours))  # a long contour is broken off in its midst
        pause()
        line = contour[:-1, ::-1] - 0.5  # rows and columns to x and y; pixel centres to pixel edges
        x, y = line.T
        if abs((x * np.roll(y, -1) - y * np.roll(x, -1)).sum()) / 2 < least:
            continue
        dense = line[::2] if len(line) > MANY_POINTS else line  # two a pixel are more than a fit can use
        outline = fitted(dense, tolerance=tolerance, closed=True, corner_from=corner_from, pause=pause)
        if len(outline[0]) < 3:
            continue
        outlines.append(outline)
        worst = max(worst, _strayed(line, outline))
    if not outlines:
        return None, 0.0
    commands, points = joined(outlines)
    return Shape(commands, points, Paint(colour), "evenodd", name="Traced"), worst


def _strayed(line: np.ndarray, outline) -> float:
    """Return the farthest that a contour's points lie from the fitted curve, by its samples."""
    curve = np.vstack([flattened(*outline, tolerance=0.02)[0], outline[1][:1]])
    s = np.concatenate([[0.0], np.cumsum(np.hypot(*np.diff(curve, axis=0).T))])
    at = np.linspace(0, s[-1], int(np.clip(2 * s[-1], 8, 20_000)))
    curve = np.stack([np.interp(at, s, curve[:, d]) for d in (0, 1)], axis=1)
    return float(scipy.spatial.KDTree(curve).query(line[:: max(1, len(line) // 150)])[0].max())
