"""What laying yields for one line."""

from __future__ import annotations

from dataclasses import dataclass

from .closes import Close
from .findings import Finding
from .joins import Joins
from .outlines import BisectorCuts, ShapedOutlines
from .pieces import PieceId, Placed


@dataclass(frozen=True, eq=False)
class LaidLine:
    """One line with its brush on it, all rows; ``key`` is the number the line is known by.

    Joins and outlines speak of pieces by their place in ``pieces``. Bent pieces come as ``outlines``; their placement then
    says how each would be stamped, which pictures and gradients go by. ``cuts`` say where pieces end on bisectors, whether
    or not the outlines are cut there already, ``closes`` which pieces are painted once more where a closed line closes.
    Length, bends and pitch are those of the line itself.
    """

    key: int
    length: float
    closed: bool
    runs: int
    pieces: Placed
    joins: Joins
    findings: tuple[Finding, ...]
    pitch: float | None
    eased: float
    tightest_radius: float | None
    safe_radius: float | None
    outlines: ShapedOutlines | None
    cuts: BisectorCuts
    closes: tuple[Close, ...] = ()

    def id_of(self, place: int) -> PieceId:
        """Return who the piece at a place in ``pieces`` is."""
        return self.pieces.id_of(place, self.key)
