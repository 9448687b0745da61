"""What corners take off the runs beside them, and the stops of corner pieces."""

from __future__ import annotations

from dataclasses import dataclass, replace

import numpy as np

from ..values.brush import Brush, Role
from ..values.laid import Corners, Runs, Stops
from ..values.motif import Motif
from ..values.widths import Widths

MOST_MITRED = np.radians(165.0)  # chosen: beyond it the tip, 7.6 times the height, is cut off
AT_CORNER = 2**31 - 2  # place of a corner piece in the run that it follows


@dataclass(frozen=True)
class CutRuns:
    """Runs with what their corners take off, the stops of corner pieces, their corners, and the corners that are too crowded."""

    runs: Runs
    stops: Stops
    corners: Corners
    crowded: Corners


def role_at(turn: float) -> Role:
    """Return the role of a piece for a corner that turns right (positive) or left."""
    return "outside_corner" if turn > 0 else "inside_corner"


def allowances_of(motif: Motif, turn: float) -> tuple[float, float]:
    """Return how far a corner piece's vertex lies from its left edge and from the edge by which the line leaves it, mm of the motif.

    Drawn for a right angle, it takes as much of both legs, and the base line lies as far from the
    edge it leaves by.
    """
    far = motif.height - motif.base_line if turn > 0 else motif.base_line
    near = motif.base_line if turn > 0 else motif.height - motif.base_line
    return motif.width - near, far


def cut_at_corners(brush: Brush, runs: Runs, corners: Corners, widths: Widths | None = None) -> CutRuns:
    """Take off each run what the corners at its ends need: an own piece its allowance, a lap the width of the other leg.

    A mitred run keeps its length and has a piece over each mitred vertex. Runs that would be left
    without length crowd their corners: those are left without a piece.
    """
    above = max(m.base_line for m in brush.repeat) * brush.size - brush.side_shift
    below = max(m.height - m.base_line for m in brush.repeat) * brush.size + brush.side_shift
    wide = np.ones(len(corners.s)) if widths is None else widths.at(corners.line, corners.s)[0]
    takes = wide[:, None] * _takes(brush, corners, above, below)
    cuts, mitred, beyond = np.zeros((len(runs.start), 2)), runs.mitred.copy(), runs.beyond.copy()
    cuts[corners.before, 1], cuts[corners.after, 0] = takes.T
    mitre = corners.some(corners.style == "mitre")
    mitred[mitre.before, 1] = mitred[mitre.after, 0] = True
    reach = max(above, below) * np.tan(np.minimum(np.abs(mitre.turn), MOST_MITRED) / 2)
    beyond[mitre.before, 1] = beyond[mitre.after, 0] = wide[corners.style == "mitre"] * reach
    full = runs.length - cuts.sum(axis=1) < -1e-9
    crowded = full[corners.before] | full[corners.after]
    cuts[corners.before[crowded], 1] = cuts[corners.after[crowded], 0] = 0.0
    kept = _has_piece(brush, corners) & ~crowded
    own = corners.some(kept)
    index = np.where(own.turn > 0, *(brush.index_of(role_at(turn)) if brush.piece_of(role_at(turn)) else 0 for turn in (1.0, -1.0)))
    stops = Stops(
        s=(runs.start + runs.length)[own.before], before=takes[kept, 0], after=takes[kept, 1], factor=np.ones(len(own.s)),
        gap_after=np.zeros(len(own.s)), variant=index, run=runs.number[own.before], place=np.full(len(own.s), AT_CORNER), width=wide[kept],
    )  # fmt: skip
    left = replace(runs, start=runs.start + cuts[:, 0], length=runs.length - cuts.sum(axis=1), mitred=mitred, beyond=beyond)
    return CutRuns(left, stops, own, corners.some(crowded))


def _has_piece(brush: Brush, corners: Corners) -> np.ndarray:
    """Tell at which corners (c,) an own piece goes."""
    has = [brush.piece_of(role_at(turn)) is not None for turn in (1.0, -1.0)]
    return (corners.style == "piece") & np.where(corners.turn > 0, *has)


def _takes(brush: Brush, corners: Corners, above: float, below: float) -> np.ndarray:
    """Return the mm that corners take off the runs before and after them (c, 2); a lap gives the first leg more."""
    takes = np.zeros((len(corners.s), 2))
    has_piece, turn = _has_piece(brush, corners), np.abs(corners.turn)
    for side in (1.0, -1.0):
        motif = brush.piece_of(role_at(side))
        here = has_piece & ((corners.turn > 0) == (side > 0))
        if motif is not None and here.any():
            takes[here] = np.minimum(np.tan(turn[here, None] / 2) * brush.size * allowances_of(motif, side), 1e9)
    lap = corners.style == "lap"
    sine = np.maximum(np.sin(turn[lap]), 0.05)
    right = corners.turn[lap] > 0
    takes[lap] = np.stack([-np.where(right, below, above) / sine, np.where(right, above, below) / sine], axis=1)
    return takes
