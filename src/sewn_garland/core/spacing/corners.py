"""What corners take off the runs beside them, and the stops of corner pieces."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace

import numpy as np

from ..values.brush import Brush, Role
from ..values.laid import Corner, Run, Stops
from ..values.motif import Motif
from ..values.widths import Widths

MOST_MITRED = np.radians(165.0)  # chosen: beyond it the tip, 7.6 times the height, is cut off
AT_CORNER = 2**31 - 2  # place of a corner piece in the run that it follows


@dataclass(frozen=True)
class CutRuns:
    """Runs with what their corners take off, the stops of corner pieces, their lines and corners, and corners that are too crowded."""

    runs: list[list[Run]]
    stops: Stops
    line: np.ndarray
    corners: list[Corner]
    crowded: list[list[float]]


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


def cut_at_corners(
    brush: Brush, runs: Sequence[list[Run]], corners: Sequence[list[Corner]], widths: Widths | None = None
) -> CutRuns:
    """Take off each run what the corners at its ends need: an own piece its allowance, a lap the width of the other leg.

    A mitred run keeps its length and has a piece over each mitred vertex. Runs that would be left
    without length crowd their corners: those are left without a piece.
    """
    out, rows, kept, crowded = [list(of_line) for of_line in runs], [], [], [[] for _ in runs]
    above = max(m.base_line for m in brush.repeat) * brush.size - brush.side_shift
    below = max(m.height - m.base_line for m in brush.repeat) * brush.size + brush.side_shift
    for i, of_line in enumerate(corners):
        cuts = np.zeros((len(runs[i]), 2))
        mitred, beyond = np.zeros((len(runs[i]), 2), bool), np.zeros((len(runs[i]), 2))
        wide = np.ones(len(of_line))
        if widths is not None and of_line:
            wide = widths.at(np.full(len(of_line), i), np.array([c.s for c in of_line]))[0]
        takes = [tuple(w * mm for mm in _takes(brush, corner, above, below)) for corner, w in zip(of_line, wide.tolist(), strict=True)]
        for corner, (before, after), w in zip(of_line, takes, wide.tolist(), strict=True):
            cuts[corner.before, 1], cuts[corner.after, 0] = before, after
            if corner.style == "mitre":
                mitred[corner.before, 1] = mitred[corner.after, 0] = True
                reach = w * max(above, below) * np.tan(min(abs(corner.turn), MOST_MITRED) / 2)
                beyond[corner.before, 1] = beyond[corner.after, 0] = reach
        full = np.array([run.length - cut.sum() < -1e-9 for run, cut in zip(runs[i], cuts, strict=True)], bool)
        for corner, (before, after), w in zip(of_line, takes, wide.tolist(), strict=True):
            motif = _own_piece(brush, corner)
            if full[corner.before] or full[corner.after]:
                crowded[i].append(corner.s)
                cuts[corner.before, 1] = cuts[corner.after, 0] = 0.0
            elif motif is not None:
                end = runs[i][corner.before].start + runs[i][corner.before].length
                rows.append((i, end, before, after, brush.index_of(role_at(corner.turn)), corner.before, w))
                kept.append(corner)
        out[i] = [
            replace(run, start=float(run.start + a), length=float(run.length - a - b), mitred=tuple(m), beyond=tuple(far))
            for run, (a, b), m, far in zip(runs[i], cuts, mitred.tolist(), beyond.tolist(), strict=True)
        ]
    line, s, before, after, variant, run, width = np.array(rows, float).reshape(-1, 7).T
    whole = variant.astype(int), run.astype(int), np.full(len(s), AT_CORNER)
    return CutRuns(out, Stops(s, before, after, np.ones(len(s)), np.zeros(len(s)), *whole, width), line.astype(int), kept, crowded)


def _own_piece(brush: Brush, corner: Corner) -> Motif | None:
    return brush.piece_of(role_at(corner.turn)) if corner.style == "piece" else None


def _takes(brush: Brush, corner: Corner, above: float, below: float) -> tuple[float, float]:
    """Return the mm that a corner takes off the run before and the run after it; a lap gives the first leg more."""
    motif = _own_piece(brush, corner)
    if motif is not None:
        stretch = np.tan(abs(corner.turn) / 2) * brush.size
        near, far = allowances_of(motif, corner.turn)
        return float(min(near * stretch, 1e9)), float(min(far * stretch, 1e9))
    if corner.style == "lap":
        sine = max(np.sin(abs(corner.turn)), 0.05)
        outer, inner = (above, below) if corner.turn > 0 else (below, above)
        return -outer / sine, inner / sine
    return 0.0, 0.0
