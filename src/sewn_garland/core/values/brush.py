"""A brush: motifs and how they travel. Shares are fractions here, per cent only at the edges."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

import numpy as np

from .motif import Motif

RoundBends = Literal["rigid", "bent", "jointed"]
Facing = Literal["line", "page", "start"]
Mirror = Literal["off", "up_down", "left_right", "every_second"]
Ease = Literal["leave", "gaps", "size"]
Rest = Literal["end", "both", "start"]
CornerStyle = Literal["through", "butt"]

GAP_TOLERANCE_MM = 0.1  # chosen: the finest opening seen at reading distance
KINK_TOLERANCE_DEG = 15.0  # chosen: an angle at a join that begins to read as broken


@dataclass(frozen=True)
class Brush:
    """Repeat pieces with everything that decides where they lie."""

    name: str
    repeat: tuple[Motif, ...]
    round_bends: RoundBends = "rigid"
    facing: Facing = "line"
    turn_deg: float = 0.0
    mirror: Mirror = "off"
    side_shift: float = 0.0
    size: float = 1.0
    gap: float = 0.0
    ease: Ease = "leave"
    ease_limit: float = 0.1
    rest: Rest = "end"
    corner_from_deg: float = 30.0
    outside_corner: CornerStyle = "through"
    inside_corner: CornerStyle = "through"
    gap_tolerance: float = GAP_TOLERANCE_MM
    kink_tolerance_deg: float = KINK_TOLERANCE_DEG

    @property
    def jointed(self) -> bool:
        """Tell whether pieces hang together by their joints."""
        return self.round_bends == "jointed"

    @property
    def link_lengths(self) -> np.ndarray:
        """Return the distance between the joints of each repeat piece (m,), mm at the brush's size."""
        return np.array([np.hypot(*(right - left)) for left, right in (m.joint_points for m in self.repeat)]) * self.size
