"""A brush: motifs and how they travel. Shares are fractions here, per cent only at the edges."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cached_property
from typing import Literal

import numpy as np

from .motif import Motif

RoundBends = Literal["rigid", "bent", "jointed"]
Facing = Literal["line", "page", "start"]
Kind = Literal["repeated", "once_length", "once_proportion"]
Order = Literal["in_turn", "shuffled", "chance", "no_twin"]
RowEase = Literal["own", "in_step"]
Mirror = Literal["off", "up_down", "left_right", "every_second"]
Ease = Literal["leave", "gaps", "size", "length"]
Role = Literal["repeat", "start", "end", "outside_corner", "inside_corner"]
Rest = Literal["end", "both", "start"]
CornerStyle = Literal["through", "mitre", "lap", "butt", "round", "piece"]

# roles that have one motif, in the order of ``Brush.motifs``, and the field that holds it
SINGLE_PIECES: dict[Role, str] = {"start": "start", "end": "end", "outside_corner": "outside_piece", "inside_corner": "inside_piece"}
GAP_TOLERANCE_MM = 0.1  # chosen: the finest opening seen at reading distance
TONE_TOLERANCE = 3.0  # chosen: a ΔE2000 that begins to show as a line where two flats meet
LIGHTEST_TOUCH = 0.2  # common practice: below a fifth of the width a mark is lost
KINK_TOLERANCE_DEG = 15.0  # chosen: an angle at a join that begins to read as broken


@dataclass(frozen=True)
class Brush:
    """Pieces with everything that decides where they lie.

    ``motifs`` puts all pieces in one order, the repeat's variants first; a placed piece says by
    its place there which it is. ``rows`` are the mm beside the line (positive to the right of
    travel) at which further rows lie, each eased on its own or in step with the first; ``brick``
    shifts every second row by half a pitch. ``phase`` is that shift of one row, as a share of a pitch.
    ``width_along`` gives the width as (share of the line, factor), the tapers are mm at the ends of
    open lines, where the width begins with ``taper_to``. ``by_outlines`` measures gaps by what is drawn
    instead of by frames; the tolerances are those of findings.
    """

    name: str
    repeat: tuple[Motif, ...]
    start: Motif | None = None
    end: Motif | None = None
    outside_piece: Motif | None = None
    inside_piece: Motif | None = None
    kind: Kind = "repeated"
    round_bends: RoundBends = "rigid"
    facing: Facing = "line"
    turn_deg: float = 0.0
    mirror: Mirror = "off"
    side_shift: float = 0.0
    turn_about: bool = False
    starts_at: float = 0.0
    order: Order = "in_turn"
    weights: tuple[float, ...] | None = None
    arrangement: int = 1
    size: float = 1.0
    gap: float = 0.0
    ease: Ease = "leave"
    ease_limit: float = 0.1
    rest: Rest = "end"
    corner_from_deg: float = 30.0
    outside_corner: CornerStyle = "through"
    inside_corner: CornerStyle = "through"
    round_radius: float = 5.0
    rows: tuple[float, ...] = ()
    row_ease: RowEase = "own"
    brick: bool = False
    phase: float = 0.0
    width_along: tuple[tuple[float, float], ...] = ()
    taper_start: float = 0.0
    taper_end: float = 0.0
    taper_to: float = LIGHTEST_TOUCH
    by_outlines: bool = False
    gap_tolerance: float = GAP_TOLERANCE_MM
    kink_tolerance_deg: float = KINK_TOLERANCE_DEG
    tone_tolerance: float = TONE_TOLERANCE

    def corner_style(self, turn: float) -> CornerStyle:
        """Return what happens at a corner that turns right (positive) or left."""
        return self.outside_corner if turn > 0 else self.inside_corner

    @property
    def jointed(self) -> bool:
        """Tell whether pieces hang together by their joints."""
        return self.round_bends == "jointed" and self.kind == "repeated"

    @property
    def bent(self) -> bool:
        """Tell whether pieces are bent along the line."""
        return self.round_bends == "bent" or self.kind != "repeated"

    @property
    def widened(self) -> bool:
        """Tell whether the width changes along the line."""
        return bool(self.width_along) or self.taper_start > 0 or self.taper_end > 0

    @property
    def link_lengths(self) -> np.ndarray:
        """Return the distance between the joints of each motif (m,), mm at the brush's size."""
        return np.array([np.hypot(*(right - left)) for left, right in (m.joint_points for m in self.motifs)]) * self.size

    @cached_property
    def roles(self) -> tuple[Role, ...]:
        """Return the role of every motif, in their order."""
        return (*("repeat" for _ in self.repeat), *(role for role in SINGLE_PIECES if self.piece_of(role) is not None))

    @cached_property
    def motifs(self) -> tuple[Motif, ...]:
        """Return every motif that may be laid."""
        return (*self.repeat, *(m for m in map(self.piece_of, SINGLE_PIECES) if m is not None))

    def piece_of(self, role: Role) -> Motif | None:
        """Return the motif of a role that has one alone, or None."""
        return getattr(self, SINGLE_PIECES[role])

    def index_of(self, role: Role) -> int:
        """Return the place of a role's first motif; raises ValueError for a role without one."""
        return self.roles.index(role)
