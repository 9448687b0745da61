"""What varies of that which repeats take of their line."""

from __future__ import annotations

from functools import partial

import numpy as np

from ..values.brush import Brush
from ..values.taking import AlongTrack, BySize, Taking
from ..values.tracks import FramesAt, Tracks
from ..values.variations import ALONG_THE_LINE, LEAST_SIZE, Property, Variation
from .shares import combined, numbered, shares_along, shares_of_stops, values_at


def taking_of(brush: Brush, tracks: Tracks, frames_at: FramesAt) -> Taking | None:
    """Return what unlike pieces take of their tracks, None where all take alike; of scattered ones only their gaps vary."""
    scattered = brush.travel.kind == "scattered"
    size = None if scattered else _by_stop(brush, tracks, "size", unit=0.01)
    gap = _by_stop(brush, tracks, "gap", unit=0.01)
    along = brush.varying("gap", follows=ALONG_THE_LINE)
    gap_along = partial(_along, along, tracks, frames_at, 0.01) if along else None
    return Taking(size, gap, gap_along) if size or gap or gap_along else None


def size_along(brush: Brush, tracks: Tracks, frames_at: FramesAt) -> AlongTrack | None:
    """Return the factor on the size of repeated pieces that goes by their place along the line; None where none does."""
    along = brush.varying("size", follows=ALONG_THE_LINE)
    if not along or brush.travel.kind == "scattered":
        return None
    factor = partial(_along, along, tracks, frames_at, 0.01)
    return lambda track, s: np.maximum(factor(track, s), LEAST_SIZE)


def _by_stop(brush: Brush, tracks: Tracks, of: Property, *, unit: float) -> BySize | None:
    own = [(v, k) for v, k in numbered(brush.variations) if v.of == of and v.follows not in ALONG_THE_LINE]
    if not own:
        return None

    def values(track: int, count: int) -> np.ndarray:
        line, row = divmod(track, tracks.rows)
        known = {"arrangement": brush.variants.arrangement, "line": tracks.keys[line], "row": row}
        return unit * combined(of, [values_at(v, shares_of_stops(v, k, count, **known)) for v, k in own])

    return values


def _along(own: tuple[Variation, ...], tracks: Tracks, frames_at: FramesAt, unit: float, track: int, s: np.ndarray) -> np.ndarray:
    length, direction = np.full(len(s), tracks.measured[track].length), np.zeros(len(s))
    if any(v.follows == "direction" for v in own):
        direction = np.arctan2(*frames_at(np.full(len(s), track), s).tangent.T[::-1])
    return unit * combined(own[0].of, [values_at(v, shares_along(v, s, length, direction)) for v in own])
