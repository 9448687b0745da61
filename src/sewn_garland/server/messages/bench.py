"""Drafts that are laid on the Repeat station's bench."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from ...core.values.brush import MOST_ARRANGEMENT, Finite, Settings
from ...workshop.corner_bench import LEAST_DEG, MOST_DEG
from .base import Message, RowId, Sequenced

TrialKey = Annotated[str, Field(max_length=40)]
TrialPoint = Annotated[list[Annotated[Finite, Field(ge=-1000, le=1000)]], Field(min_length=2, max_length=2)]
TrialPoints = Annotated[list[TrialPoint], Field(min_length=2, max_length=100)]


class OtherPieces(Message):
    """Motifs of the roles that have one."""

    start: RowId | None = None
    end: RowId | None = None
    outside_corner: RowId | None = None
    inside_corner: RowId | None = None


class BrushDraft(Sequenced):
    """Draft settings of a motif, further variants of it in turn, and other pieces."""

    motif_id: RowId
    variants: Annotated[list[RowId], Field(max_length=64)] = Field(default_factory=list)
    others: OtherPieces = Field(default_factory=OtherPieces)
    settings: Settings


class CornerRequest(Sequenced):
    """Lay a brush's piece for a corner between two runs that stand at an angle."""

    brush_id: RowId
    role: Literal["outside_corner", "inside_corner"]
    angle_deg: Annotated[Finite, Field(ge=LEAST_DEG, le=MOST_DEG)] = 90.0


class DealsRequest(BrushDraft):
    """Lay a draft in twelve arrangements, from the ``first`` on, or ``straight`` in that one alone."""

    first: Annotated[int, Field(ge=0, le=MOST_ARRANGEMENT)] = 1
    straight: bool = False


class BenchRequest(BrushDraft):
    """Lay draft settings of a motif, further variants of it in turn, and other pieces on the flat run and the trial lines.

    ``pitch_mm`` moves the joints of a jointed brush so far apart. ``shaped`` gives points of trial lines
    that were dragged, in the sheet's own 100 × 70; ``pinned`` are lines of pages shown beside them;
    ``large`` is the one whose joins and points are wanted; ``aside`` are settings to lay on the same
    lines for comparison.
    """

    pitch_mm: Annotated[Finite, Field(gt=0, le=10_000)] | None = None
    flat_mm: Annotated[Finite, Field(gt=0, le=100_000)]
    trial_mm: Annotated[Finite, Field(gt=0, le=100_000)] | None = None
    trial_step: Annotated[int, Field(ge=-8, le=8)] = 0
    trials: bool = True
    shaped: dict[TrialKey, TrialPoints] = Field(default_factory=dict)
    pinned: Annotated[list[RowId], Field(max_length=2)] = Field(default_factory=list)
    large: Annotated[str, Field(max_length=40)] | None = None
    aside: Settings | None = None
    cures: bool = False
