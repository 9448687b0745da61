"""A brush: its pieces, and the sections that say how they travel.

Every section is defined here once, with the keys, units and limits it has in files and messages; what the core counts
otherwise (shares instead of per cent) it asks of properties.
"""

from __future__ import annotations

from dataclasses import dataclass, field, replace
from functools import cached_property
from typing import Annotated, Any, Literal

import numpy as np
from pydantic import BaseModel, ConfigDict, Field

from .blend import Blend
from .motif import Motif
from .variations import ALONG_THE_LINE, LEAST_SIZE, MOST_VARIATIONS, Property, Source, Variation, most_at_a_stop

Role = Literal["repeat", "start", "end", "outside_corner", "inside_corner"]
ROLES: tuple[Role, ...] = ("repeat", "start", "end", "outside_corner", "inside_corner")
SINGLE_ROLES: tuple[Role, ...] = ROLES[1:]  # those that have one motif
RoundBends = Literal["rigid", "bent", "jointed"]
Facing = Literal["line", "page", "start"]
Kind = Literal["repeated", "once_length", "once_proportion", "scattered"]
Order = Literal["in_turn", "shuffled", "chance", "no_twin"]
Mirror = Literal["off", "up_down", "left_right", "every_second"]
Ease = Literal["leave", "gaps", "size", "length"]
Rest = Literal["end", "both", "start"]
CornerStyle = Literal["through", "mitre", "lap", "butt", "round", "piece"]

PASSED: tuple[CornerStyle, ...] = ("through", "round")  # what a brush does at corners that end no run
GAP_TOLERANCE_MM = 0.1  # chosen: the finest opening seen at reading distance
TONE_TOLERANCE = 3.0  # chosen: a ΔE2000 that begins to show as a line where two flats meet
LIGHTEST_TOUCH_PCT = 20.0  # common practice: below a fifth of the width a mark is lost
KINK_TOLERANCE_DEG = 15.0  # chosen: an angle at a join that begins to read as broken
MOST_VARIANTS = 64
MOST_ARRANGEMENT = 2**31

Finite = Annotated[float, Field(allow_inf_nan=False)]
Row = Annotated[Finite, Field(ge=-1000, le=1000)]
Weight = Annotated[Finite, Field(gt=0, le=1000)]


class Section(BaseModel):
    """A part of a brush document."""

    model_config = ConfigDict(extra="forbid", strict=True, allow_inf_nan=False, frozen=True, defer_build=True)


class Travel(Section):
    kind: Kind = "repeated"
    round_bends: RoundBends = "rigid"
    facing: Facing = "line"
    turn_deg: Annotated[Finite, Field(ge=-360, le=360)] = 0
    mirror: Mirror = "off"
    side_shift_mm: Annotated[Finite, Field(ge=-1000, le=1000)] = 0
    turn_about: bool = False
    starts_at_mm: Annotated[Finite, Field(ge=0, le=1_000_000)] = 0

    @property
    def once(self) -> bool:
        """Tell whether one piece goes over the whole line."""
        return self.kind in ("once_length", "once_proportion")

    @property
    def jointed(self) -> bool:
        """Tell whether pieces hang together by their joints."""
        return self.round_bends == "jointed" and not self.once

    @property
    def bent(self) -> bool:
        """Tell whether pieces are bent along the line."""
        return self.round_bends == "bent" or self.once


class Spacing(Section):
    size_pct: Annotated[Finite, Field(gt=0, le=10_000)] = 100
    gap_pct: Annotated[Finite, Field(gt=-100, le=100_000)] = 0
    ease: Ease = "leave"
    ease_limit_pct: Annotated[Finite, Field(ge=0, lt=100)] = 10
    rest: Rest = "end"

    @property
    def size(self) -> float:
        return self.size_pct / 100

    @property
    def gap(self) -> float:
        """Return the gap as a share of a piece's length."""
        return self.gap_pct / 100

    @property
    def ease_limit(self) -> float:
        return self.ease_limit_pct / 100


class Ends(Section):
    corner_from_deg: Annotated[Finite, Field(gt=0, le=180)] = 30
    outside_corner: CornerStyle = "through"
    inside_corner: CornerStyle = "through"
    round_radius_mm: Annotated[Finite, Field(ge=0, le=10_000)] = 5

    @property
    def corner_from(self) -> float:
        """Return from how many radians of turn on a vertex is a corner."""
        return float(np.radians(self.corner_from_deg))


class Variants(Section):
    order: Order = "in_turn"
    weights: Annotated[tuple[Weight, ...], Field(min_length=1, max_length=MOST_VARIANTS, strict=False)] | None = None
    arrangement: Annotated[int, Field(ge=0, le=MOST_ARRANGEMENT)] = 1


class Rows(Section):
    """Further rows beside the line: mm to the right of travel (negative to the left)."""

    beside_mm: Annotated[tuple[Row, ...], Field(max_length=50, strict=False)] = ()
    ease: Literal["own", "in_step"] = "own"
    brick: bool = False


class WidthPoint(Section):
    """How wide pieces are at a place along the line."""

    at_pct: Annotated[Finite, Field(ge=0, le=100)]
    width_pct: Annotated[Finite, Field(ge=1, le=1000)]


class Hand(Section):
    """What the hand does: the width along the line, and tapered ends."""

    width_along: Annotated[tuple[WidthPoint, ...], Field(max_length=50, strict=False)] = ()
    taper_start_mm: Annotated[Finite, Field(ge=0, le=10_000)] = 0
    taper_end_mm: Annotated[Finite, Field(ge=0, le=10_000)] = 0
    taper_to_pct: Annotated[Finite, Field(ge=1, le=100)] = LIGHTEST_TOUCH_PCT

    @property
    def widened(self) -> bool:
        """Tell whether the width changes along the line."""
        return bool(self.width_along) or self.taper_start_mm > 0 or self.taper_end_mm > 0

    @property
    def profile(self) -> tuple[tuple[float, float], ...]:
        """Return the width along the line as (share of the line, factor)."""
        return tuple((point.at_pct / 100, point.width_pct / 100) for point in self.width_along)

    @property
    def thinnest(self) -> float:
        """Return the least factor on a piece's width, at most 1."""
        tapered = self.taper_to_pct / 100 if self.taper_start_mm or self.taper_end_mm else 1.0
        return min(tapered, *(width for _, width in self.profile), 1.0)


class Joins(Section):
    """How joins are measured, and from what on they are a finding."""

    measured_by: Literal["frames", "outlines"] = "frames"
    gap_tolerance_mm: Annotated[Finite, Field(gt=0, le=100)] = GAP_TOLERANCE_MM
    kink_tolerance_deg: Annotated[Finite, Field(gt=0, le=180)] = KINK_TOLERANCE_DEG
    tone_tolerance: Annotated[Finite, Field(gt=0, le=100)] = TONE_TOLERANCE

    @property
    def by_outlines(self) -> bool:
        return self.measured_by == "outlines"


COLOUR = r"^#[0-9a-fA-F]{6}$"
Colour = Annotated[str, Field(pattern=COLOUR)]


class Ink(Section):
    """What a line's ink gives its artwork, and how the colours come to lie on what is below: each piece's share of cover, the finished
    line's, and the blending. A line on a page may have inks of its own, which go before the brush's.
    """

    gives: Literal["nothing", "hue", "hue_strength", "everything"] = "everything"
    darkest: Literal["black", "ink"] = "black"
    ink: Colour | None = None
    second_ink: Colour | None = None
    coverage: Literal["as_drawn", "light_shows", "dark_shows"] = "as_drawn"
    per_piece_pct: Annotated[Finite, Field(ge=0, le=100)] = 100
    ceiling_pct: Annotated[Finite, Field(ge=0, le=100)] = 100
    laid_on_as: Blend = "normal"
    blends: Literal["line", "each_piece"] = "line"

    @property
    def per_piece(self) -> float:
        """Return how much a piece covers inside its line, 0 to 1."""
        return self.per_piece_pct / 100

    @property
    def ceiling(self) -> float:
        """Return how much the finished line covers at most, 0 to 1."""
        return self.ceiling_pct / 100

    @property
    def see_through(self) -> bool:
        """Tell whether a piece shows what is below it, or mixes with it."""
        return self.per_piece < 1 or self.of_piece != "normal"

    @property
    def of_line(self) -> Blend:
        """Return how the line as one is laid on."""
        return self.laid_on_as if self.blends == "line" else "normal"

    @property
    def of_piece(self) -> Blend:
        """Return how each piece is laid on what lies below it."""
        return self.laid_on_as if self.blends == "each_piece" else "normal"


class Looseness(Section):
    """What holds between pieces that lie loosely."""

    keep_apart_mm: Annotated[Finite, Field(ge=0, le=1000)] = 0


Variations = Annotated[tuple[Variation, ...], Field(max_length=MOST_VARIATIONS, strict=False)]


class Settings(Section):
    """The sections of a brush document that say how its pieces travel; ``variations`` is a list of what varies."""

    travel: Travel = Travel()
    spacing: Spacing = Spacing()
    ends: Ends = Ends()
    variants: Variants = Variants()
    rows: Rows = Rows()
    hand: Hand = Hand()
    joins: Joins = Joins()
    ink: Ink = Ink()
    variations: Variations = ()
    looseness: Looseness = Looseness()


SECTIONS = tuple(Settings.model_fields)


@dataclass(frozen=True)
class Pieces:
    """The motifs of a brush by their roles: the repeat's variants in order, and one of each other role or none.

    ``motifs`` puts them all in one order, the repeat's variants first; a laid piece says by its place there which it is.
    """

    repeat: tuple[Motif, ...]
    start: Motif | None = None
    end: Motif | None = None
    outside_corner: Motif | None = None
    inside_corner: Motif | None = None

    @cached_property
    def roles(self) -> tuple[Role, ...]:
        """Return the role of every motif, in their order."""
        return (*("repeat" for _ in self.repeat), *(role for role in SINGLE_ROLES if self.of(role) is not None))

    @cached_property
    def motifs(self) -> tuple[Motif, ...]:
        """Return every motif that may be laid."""
        return (*self.repeat, *(m for m in map(self.of, SINGLE_ROLES) if m is not None))

    def of(self, role: Role) -> Motif | None:
        """Return the motif of a role that has one alone, or None."""
        return getattr(self, role)

    def index_of(self, role: Role) -> int:
        """Return the place of a role's first motif; raises ValueError for a role without one."""
        return self.roles.index(role)

    @cached_property
    def _link_lengths(self) -> np.ndarray:
        return np.array([np.hypot(*(right - left)) for left, right in (m.joint_points for m in self.motifs)])

    def link_lengths(self, size: float) -> np.ndarray:
        """Return the distance between the joints of each motif (m,), mm at a factor on their size."""
        return self._link_lengths * size


@dataclass(frozen=True)
class Brush:
    """Pieces with everything that decides where they lie, in the sections of its document."""

    name: str
    pieces: Pieces
    travel: Travel = field(default_factory=Travel)
    spacing: Spacing = field(default_factory=Spacing)
    ends: Ends = field(default_factory=Ends)
    variants: Variants = field(default_factory=Variants)
    rows: Rows = field(default_factory=Rows)
    hand: Hand = field(default_factory=Hand)
    joins: Joins = field(default_factory=Joins)
    ink: Ink = field(default_factory=Ink)
    variations: tuple[Variation, ...] = ()
    looseness: Looseness = field(default_factory=Looseness)

    @classmethod
    def of(cls, name: str, pieces: Pieces, settings: Settings) -> Brush:
        """Return a brush of pieces that travel by some settings."""
        return cls(name, pieces, **{section: getattr(settings, section) for section in SECTIONS})

    def changed(self, patch: dict[str, Any]) -> Brush:
        """Return the brush under a merge patch of its sections, in the document's own keys and units; limits are not looked at.

        What varies is a list, and is changed as a whole.
        """
        return replace(self, **{
            section: values if section == "variations" else getattr(self, section).model_copy(update=values)
            for section, values in patch.items()
        })  # fmt: skip

    def varying(self, *properties: Property, follows: tuple[Source, ...] | None = None) -> tuple[Variation, ...]:
        """Return what varies of some properties, in order, of what follows some sources where these are given."""
        return tuple(v for v in self.variations if v.of in properties and (follows is None or v.follows in follows))

    @property
    def crowding(self) -> float:
        """Return by what factor more pieces a line may take than it has pitches: of smaller ones, and of several at a stop.

        What sizes vary to by stops is not among it: laying counts these as it goes.
        """
        least = 1.0
        for variation in self.varying("size", follows=ALONG_THE_LINE) if self.travel.kind != "scattered" else ():
            least *= max(min(*variation.between, 100.0) / 100, LEAST_SIZE)
        return most_at_a_stop(self.variations) / (least * self.hand.thinnest)

    @property
    def loose(self) -> bool:
        """Tell whether pieces lie off their stops, so that they are not meant to meet edge to edge."""
        return self.travel.kind == "scattered" or bool(self.varying("turn", "across", "along", "squash", "count"))

    @property
    def apart(self) -> bool:
        """Tell whether pieces are wished to stand apart, by more than a join may open, so that they have no joins to look at."""
        if self.travel.jointed or self.travel.once or not self.pieces.repeat:
            return False
        shortest = min(motif.width for motif in self.pieces.repeat) * self.spacing.size
        return self.spacing.gap * shortest > self.joins.gap_tolerance_mm

    def at_size(self, factor: float) -> Brush:
        """Return the brush with its pieces so many times as large."""
        return self.changed({"spacing": {"size_pct": self.spacing.size_pct * factor}})
