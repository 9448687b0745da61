"""What pieces take of their line, and how many of them one call may lay."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from ..errors import LimitError
from ..values.arrays import freeze_arrays
from ..values.brush import Brush

MOST_PIECES = 2_000_000
LEAST_PITCH_MM = 1e-9  # below it a count says nothing any more


@dataclass(frozen=True, eq=False)
class Extents:
    """What each motif takes of the line, mm, arrays (m,): before and after its base line's middle, and the gap."""

    before: np.ndarray
    after: np.ndarray
    gap: np.ndarray

    def __post_init__(self) -> None:
        freeze_arrays(self)

    @property
    def length(self) -> np.ndarray:
        return self.before + self.after

    @property
    def lean(self) -> np.ndarray:
        """Return by how much each reaches further onward than back."""
        return self.after - self.before

    @property
    def mean_pitch(self) -> float:
        return float((self.length + self.gap).mean())

    def first(self, n: int) -> Extents:
        """Return the extents of the first n motifs."""
        return Extents(self.before[:n], self.after[:n], self.gap[:n])


def extents_of(brush: Brush) -> Extents:
    """Return what each motif takes along the line, Turn and Size included, ease not.

    The frame turned by τ spans w·|cos τ| + h·|sin τ|; a base line off the frame's middle moves
    that span to one side of the stop. Jointed pieces take what lies between their joints.
    """
    pieces, travel, size = brush.pieces, brush.travel, brush.spacing.size
    if travel.jointed:
        half = pieces.link_lengths(size) / 2
        return Extents(half, half, np.zeros(len(half)))
    turn = np.radians(travel.turn_deg)
    cos, sin = abs(np.cos(turn)), abs(np.sin(turn))
    width = np.array([m.width for m in pieces.motifs])
    height = np.array([m.height for m in pieces.motifs])
    base = np.array([m.base_line for m in pieces.motifs])
    length = (width * cos + height * sin) * size
    flip = -1.0 if travel.mirror == "up_down" else 1.0
    offset = -np.sin(turn) * (height / 2 - base) * flip * size
    return Extents(length / 2 - offset, length / 2 + offset, length * brush.spacing.gap)


def repeat_extents(brush: Brush) -> Extents:
    """Return what the repeat's variants take."""
    return extents_of(brush).first(len(brush.pieces.repeat))


def grouped(number: float) -> str:
    """Write a whole number in groups of three."""
    return f"{number:,.0f}".replace(",", " ")


def refuse_too_many(total_length: float, extents: Extents) -> None:
    """Raise LimitError when lines of so many mm in all would take more pieces than one call may lay."""
    if extents.mean_pitch < LEAST_PITCH_MM:
        raise LimitError("these pieces are smaller than can be laid: enlarge them")
    count = total_length / extents.mean_pitch
    if count > MOST_PIECES:
        raise LimitError(
            f"this spacing needs about {grouped(count)} pieces, more than {grouped(MOST_PIECES)}: "
            f"widen the gap or enlarge the pieces (pitch is now {extents.mean_pitch:.3g} mm)"
        )
