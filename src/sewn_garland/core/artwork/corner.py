"""Corner pieces as they are drawn: for a right angle, the line entering at the left."""

from __future__ import annotations

from ..values.brush import Role
from ..values.motif import Motif


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
