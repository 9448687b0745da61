"""Let pieces that meet but cannot be one reach a little under the next, for less of the ground to show between them.

What has gradients turns with its piece, so two such pieces cannot be parts of one path. Where one is painted over the other and both
have the same edge, the lower one goes on below the upper: nothing of it is seen but through the seam.
"""

from __future__ import annotations

from dataclasses import replace
from functools import lru_cache
from typing import NamedTuple

import numpy as np

from ..artwork.box import ink_box
from ..artwork.passes import passes_of
from ..artwork.picture_laps import LAP_SHARE
from ..artwork.sections import JUST_INSIDE_MM, layers_of, section_at
from ..maths.ragged import owners
from ..values.drawing import PaintedPieces
from ..values.laid import LaidLine
from ..values.motif import Motif, Paint
from ..values.outlines import ShapedOutlines
from .as_one import MOST_PIECES, MOST_POINTS, REACHES_MM, meeting, opaque, outlines_with, points_of, written_out

SAME_EDGE_MM, LEVEL_RAD = 1e-3, 1e-6  # chosen: what edges may differ by and be the same, and slope by and be level


def with_laps(item: PaintedPieces, laid: LaidLine) -> PaintedPieces:
    """Return a laid line's pieces, those that meet one painted later exactly going on below it; as they were where none does."""
    laps = np.array(list(map(_may_lap, item.artwork)), bool)
    if len(item.motif) > MOST_PIECES or not laps.any():
        return item
    found = seams_of(item, laid, laps[item.motif] & opaque(item) & written_out(item))
    if found is None:
        return item
    lower = np.where(found.onward, found.first, found.second)
    ways = np.where(found.onward, 1.0, -1.0)[:, None] * found.direction
    for own in (found.onward, ~found.onward):  # a piece may go on at both its ends
        if own.any():
            item = _lapped(item, lower[own], found.at[own], ways[own])
    return item


class Seams(NamedTuple):
    """k joins: the earlier and the later piece, where they meet, which way the earlier one ends (k, 2), and whether it is painted first."""

    first: np.ndarray
    second: np.ndarray
    at: np.ndarray
    direction: np.ndarray
    onward: np.ndarray


def seams_of(item: PaintedPieces, laid: LaidLine, fit: np.ndarray) -> Seams | None:
    """Return the joins at which alike pieces meet that are ``fit`` (n,); None where there are none."""
    plain = item.all_cover == 1 and item.blend == "normal" and len(passes_of(item.artwork)) == 1
    if not plain or laid.closes or laid.joins.onward is None:
        return None
    fit = fit & ~np.isin(np.arange(len(fit)), laid.cuts.piece)
    rows = meeting(laid.joins, laid.pieces.gap_after)
    first, second = laid.joins.first[rows], laid.joins.second[rows]
    own = fit[first] & fit[second] & (item.motif[first] == item.motif[second]) & (item.mirrored[first] == item.mirrored[second])
    own &= first != second
    rows, first, second = rows[own], first[own], second[own]
    return Seams(first, second, laid.joins.at[rows], laid.joins.onward[rows], first < second) if len(rows) else None


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
    return replace(item, outlines=_pulled_out(outlines, edge, np.where(edge, length[own], 0.0)[:, None] * onward[own]))


def _pulled_out(outlines: ShapedOutlines, edge: np.ndarray, by: np.ndarray) -> ShapedOutlines:
    """Return outlines whose curves with all points on an edge (m,) are moved by so much (m, 2), with straight sides to where they were."""
    at = np.arange(len(edge)) - np.repeat(outlines.starts[:-1], np.diff(outlines.starts))
    whole = edge[:-3] & edge[1:-2] & edge[2:-1] & edge[3:] & (at[:-3] % 3 == 0) & (at[:-3] < at[3:])
    first = np.flatnonzero(whole)
    if not len(first):
        return outlines
    points, moved = outlines.points.copy(), outlines.points + by
    for k in (1, 2, 3):
        points[first + k] = moved[first + k]
    begin, end = outlines.points[first], outlines.points[first + 3]
    sides = np.stack([begin, moved[first], moved[first], moved[first + 3], end, end], axis=1).reshape(-1, 2)
    points = np.insert(points, np.stack([first + 1] * 3 + [first + 4] * 3, axis=1).ravel(), sides, axis=0)
    starts = outlines.starts + 6 * np.searchsorted(first, outlines.starts)
    return replace(outlines, points=points, starts=starts)


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
