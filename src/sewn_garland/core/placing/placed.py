"""Place every piece: by its joints, or by the direction at its stop; corner pieces by their vertex."""

from __future__ import annotations

import numpy as np

from ..values.brush import Brush
from ..values.line import Frames
from ..values.pieces import Placed, Varied, moved
from ..values.runs import Corners
from ..values.tracks import FramesAt, Located, Tracks, straight_beyond
from .corners import with_corner_pieces
from .jointed import place_jointed
from .rigid import place_rigid


def placed_at(
    stops: Varied, brush: Brush, tracks: Tracks, corners: Corners, legs: np.ndarray | None, *, located: Located, frames_at: FramesAt
) -> Placed:
    """Return the pieces placed; ``corners`` (k,) are those of corner pieces, in order.

    Jointed ones hang between their joints, the others lie where ``located`` says, straight on beyond their ``legs`` (n, 2).
    """
    track = tracks.of(stops)
    if brush.travel.jointed:
        left, right = (frames_at(track, s).position for s in (stops.s - stops.before, stops.s + stops.after))
        return with_corner_pieces(place_jointed(stops, left, right, brush), brush, corners)
    starts = np.zeros(len(tracks.measured))
    if brush.travel.facing == "start":
        tangent = frames_at(np.arange(len(starts)), np.zeros(len(starts))).tangent
        starts = np.arctan2(tangent[:, 1], tangent[:, 0])
    frames = Frames.of(*straight_beyond(located, tracks.lengths, track, stops.s + moved(stops.along), legs)[:2])
    shift = tracks.shift[track] + moved(stops.across)
    placed = place_rigid(stops, frames, brush, shift=shift, start_direction=starts[track])
    return with_corner_pieces(placed, brush, corners)
