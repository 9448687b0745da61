"""Let pieces that meet but cannot be one reach a little under the next, for less of the ground to show between them.

What has gradients turns with its piece, so two such pieces cannot be parts of one path. Where one is painted over the other and both have
the same edge, the lower one goes on below the upper: nothing of it is seen but through the seam.
"""

from __future__ import annotations

from dataclasses import replace
from functools import lru_cache

import numpy as np

from ..artwork.box import ink_box
from ..artwork.passes import passes_of
from ..artwork.sections import JUST_INSIDE_MM, layers_of, section_at
from ..maths.ragged import owners
from ..values.drawing import PaintedPieces
from ..values.laid import LaidLine
from ..values.motif import Motif, Paint
from .as_one import MOST_PIECES, MOST_POINTS, REACHES_MM, meeting, opaque, outlines_with, points_of, written_out

LAP_SHARE = 0.06  # of a piece's length under the next; chosen: a pixel where a piece is 17 of them long
SAME_EDGE_MM, LEVEL_RAD = 1e-3, 1e-6  # chosen: what edges may differ by and be the same, and slope by and be level


def with_laps(item: PaintedPieces, laid: LaidLine) -> PaintedPieces:
    """Return a laid line's pieces, those that meet the next exactly each going on below it; as they were where none does."""
    if len(item.motif) > MOST_PIECES:
        return item
    plain = item.all_cover == 1 and item.blend == "normal" and len(passes_of(item.artwork)) == 1
    laps = np.array(list(map(_may_lap, item.artwork)))
    if not plain or laid.closes or laid.joins.onward is None or not laps.any():
        return item
    rows = meeting(laid.joins, laid.pieces.gap_after)
    first, second = laid.joins.first[rows], laid.joins.second[rows]
    fit = laps[item.motif] & opaque(item) & written_out(item)
    fit[laid.cuts.piece] = False
    own = (
        fit[first]
        & fit[second]
        & (item.motif[first] == item.motif[second])
        & (item.mirrored[first] == item.mirrored[second])
        & (first < second)
    )
    if not own.any():
        return item
    return _lapped(item, first[own], laid.joins.at[rows[own]], laid.joins.onward[rows[own]])


def _lapped(item: PaintedPieces, pieces: np.ndarray, at: np.ndarray, onward: np.ndarray) -> PaintedPieces:
    """Return the pieces with those of some ``pieces`` (k,) longer, from the seams ``at`` (k, 2) on in the directions ``onward``."""
    outlines = outlines_with(item, np.unique(pieces))
    seam = np.full(len(item.motif), -1)
    seam[pieces] = np.arange(len(pieces))
    own = seam[outlines.piece][owners(np.diff(outlines.starts))]
    width, height = (
        np.array([getattr(m, side) for m in item.artwork])[item.motif[pieces]] * item.scales[pieces] for side in ("width", "height")
    )
    length, off = LAP_SHARE * width, outlines.points - at[own]
    edge = np.abs((off * onward[own]).sum(axis=1)) < REACHES_MM * max(1.0, item.scales.max(initial=1.0))
    edge &= (own >= 0) & (np.hypot(*off.T) < height[own] + REACHES_MM)  # the other edge of a half ring is in line with it too
    points = outlines.points + np.where(edge, length[own], 0.0)[:, None] * onward[own]
    return replace(item, outlines=replace(outlines, points=points))


@lru_cache(maxsize=512)
def _may_lap(motif: Motif) -> bool:
    """Tell whether a motif is opaque, reaches both ends of its frame and lies within it, and is level and the same at both."""
    if not motif.shapes or points_of(motif) > MOST_POINTS or any(s.picture is not None or s.lies != "over" for s in motif.shapes):
        return False
    if not all(map(_is_opaque, [p for s in motif.shapes for p in (s.fill, s.stroke and s.stroke.paint) if p is not None])):
        return False
    left, _, right, _ = ink_box(motif)
    if abs(left) > REACHES_MM or abs(right - motif.width) > REACHES_MM:
        return False
    layers = layers_of(motif)
    one, two = (section_at(layers, x) for x in (JUST_INSIDE_MM, motif.width - JUST_INSIDE_MM))
    same = len(one.top) == len(two.top) and np.abs(np.concatenate([one.top - two.top, one.foot - two.foot])).max(initial=0.0) < SAME_EDGE_MM
    return bool(same and np.abs(np.concatenate([one.slopes, two.slopes])).max(initial=0.0) < LEVEL_RAD)


def _is_opaque(paint: Paint) -> bool:
    return paint.opacity == 1 and (paint.gradient is None or all(stop.opacity == 1 for stop in paint.gradient.stops))
