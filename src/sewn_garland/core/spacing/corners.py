"""What corners take off the runs beside them, and the stops of corner pieces."""

from __future__ import annotations

from dataclasses import dataclass, replace

import numpy as np

from ..artwork.corner import allowances_of, role_at
from ..values.brush import ROLES, Brush, Pieces
from ..values.pieces import Stops
from ..values.runs import Corners, Runs
from ..values.tracks import Tracks
from ..values.widths import Widths

MOST_MITRED = np.radians(165.0)  # chosen: beyond it the tip, 7.6 times the height, is cut off


@dataclass(frozen=True, eq=False)
class CutRuns:
    """Runs with what their corners take off, the stops of corner pieces, their corners, and the corners that are too crowded."""

    runs: Runs
    stops: Stops
    corners: Corners
    crowded: Corners


def cut_at_corners(brush: Brush, tracks: Tracks, runs: Runs, corners: Corners, widths: Widths | None) -> CutRuns:
    """Take off each run what the corners at its ends need: an own piece its allowance, a lap the width of the other leg.

    A mitred run keeps its length and has a piece over each mitred vertex. Runs that would be left
    without length crowd their corners: those are left without a piece.
    """
    size, (above, below) = brush.spacing.size, _sides(brush, tracks, corners)
    wide = np.ones(len(corners.s)) if widths is None else widths.at(corners.track, corners.s)[0]
    takes = wide[:, None] * _takes(brush.pieces, size, corners, above, below)
    cuts, mitred, beyond = np.zeros((len(runs.start), 2)), runs.mitred.copy(), runs.beyond.copy()
    cuts[corners.before, 1], cuts[corners.after, 0] = takes.T
    is_mitre = corners.style == "mitre"
    mitre = corners.some(is_mitre)
    mitred[mitre.before, 1] = mitred[mitre.after, 0] = True
    beyond[mitre.before, 1] = beyond[mitre.after, 0] = wide[is_mitre] * _past(mitre, above[is_mitre], below[is_mitre])
    full = runs.length - cuts.sum(axis=1) < -1e-9
    crowded = full[corners.before] | full[corners.after]
    cuts[corners.before[crowded], 1] = cuts[corners.after[crowded], 0] = 0.0
    kept = _has_piece(brush.pieces, corners) & ~crowded
    own = corners.some(kept)
    stops = _corner_stops(brush.pieces, tracks, runs, own, takes[kept], wide[kept])
    left = replace(runs, start=runs.start + cuts[:, 0], length=runs.length - cuts.sum(axis=1), mitred=mitred, beyond=beyond)
    return CutRuns(left, stops, own, corners.some(crowded))


def _sides(brush: Brush, tracks: Tracks, corners: Corners) -> tuple[np.ndarray, np.ndarray]:
    """Return how many mm (c,) the repeat reaches to the left and to the right of the lines of corners, where these are 1 wide."""
    repeat, size, shift = brush.pieces.repeat, brush.spacing.size, tracks.shift[corners.track]
    return max(m.base_line for m in repeat) * size - shift, max(m.height - m.base_line for m in repeat) * size + shift


def _past(mitred: Corners, above: np.ndarray, below: np.ndarray) -> np.ndarray:
    """Return how many mm (c,) past their vertices legs go on that are cut on bisectors, by what lies on their sides (c,)."""
    return np.maximum(above, below) * np.tan(np.minimum(np.abs(mitred.turn), MOST_MITRED) / 2)


def mitres_of(brush: Brush, tracks: Tracks, corners: Corners) -> tuple[Corners, np.ndarray]:
    """Return the corners (c,) that are cut on bisectors, and how many mm (c,) to both sides pieces there reach, where lines are 1 wide."""
    mitred = corners.some(corners.style == "mitre")
    longest = max(m.width for m in brush.pieces.repeat) * brush.spacing.size
    return mitred, np.maximum(_past(mitred, *_sides(brush, tracks, mitred)), longest / 2)


def _corner_stops(pieces: Pieces, tracks: Tracks, runs: Runs, own: Corners, takes: np.ndarray, wide: np.ndarray) -> Stops:
    """Return the stops of the pieces of corners (k,) that have one."""
    indices = [pieces.index_of(role_at(turn)) if pieces.of(role_at(turn)) else 0 for turn in (1.0, -1.0)]
    roles = [ROLES.index(role_at(turn)) for turn in (1.0, -1.0)]
    right = own.turn > 0
    return Stops.on(
        own.track, tracks.rows, np.where(right, *indices), role=np.where(right, *roles), variant=np.zeros(len(own.s), int),
        run=runs.number[own.before], s=(runs.start + runs.length)[own.before], before=takes[:, 0], after=takes[:, 1], width=wide,
    )  # fmt: skip


def _has_piece(pieces: Pieces, corners: Corners) -> np.ndarray:
    """Tell at which corners (c,) an own piece goes."""
    has = [pieces.of(role_at(turn)) is not None for turn in (1.0, -1.0)]
    return (corners.style == "piece") & np.where(corners.turn > 0, *has)


def _takes(pieces: Pieces, size: float, corners: Corners, above: np.ndarray, below: np.ndarray) -> np.ndarray:
    """Return the mm that corners take off the runs before and after them (c, 2); a lap gives the first leg more."""
    takes = np.zeros((len(corners.s), 2))
    has_piece, turn = _has_piece(pieces, corners), np.abs(corners.turn)
    for side in (1.0, -1.0):
        motif = pieces.of(role_at(side))
        here = has_piece & ((corners.turn > 0) == (side > 0))
        if motif is not None and here.any():
            takes[here] = np.minimum(np.tan(turn[here, None] / 2) * size * allowances_of(motif, side), 1e9)
    lap = corners.style == "lap"
    sine = np.maximum(np.sin(turn[lap]), 0.05)
    right, above, below = corners.turn[lap] > 0, above[lap], below[lap]
    outer, inner = np.where(right, above, below), np.where(right, below, above)  # of a leg, seen from the inside of the turn
    takes[lap] = np.stack([-outer / sine, inner / sine], axis=1)
    return takes
