"""What is said about brushes: their settings, their pieces, and the pieces that a repeat can make."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import BaseModel, Field

from ...core.making.borders import Arrangement
from ...core.making.corners import EndWay
from ...core.values.brush import MOST_ARRANGEMENT, Finite, Role, Settings
from ...workshop.corner_proposals import CornerWay
from .artwork import PieceMessage
from .base import Message, Name, RowId, Versioned


class BrushPieces(Message):
    """Motif ids by role: the variants of the repeat in order, and one of each other."""

    repeat: list[int]
    start: int | None = None
    end: int | None = None
    outside_corner: int | None = None
    inside_corner: int | None = None


MOST_PINNED = 100


class BrushMessage(Message):
    id: int
    name: str
    version: int
    motif_id: int
    pieces: BrushPieces
    settings: Settings
    pinned: list[int]


class NewBrush(Message):
    """A brush made from a motif, or as a copy of another brush.

    ``settings``, a merge patch (RFC 7396) of the plain ones or the copied brush's, go before those that suit the motif.
    """

    name: Name | None = None
    motif_id: RowId | None = None
    copy_of: RowId | None = None
    settings: dict | None = None


class BrushChange(Versioned):
    """``change`` is a JSON merge patch (RFC 7396) of the settings, ``pinned`` are the arrangements found good.

    ``was`` tells what the settings of the change were where it was made, so that others that were changed elsewhere since stay.
    """

    name: Name | None = None
    motif_id: RowId | None = None
    change: dict | None = None
    was: dict | None = None
    pinned: Annotated[list[Annotated[int, Field(ge=0, le=MOST_ARRANGEMENT)]], Field(max_length=MOST_PINNED)] | None = None
    label: Annotated[str, Field(max_length=120)] | None = None
    merge_key: Annotated[str, Field(max_length=120)] = ""


class PitchChange(Message):
    """Hang the links of a jointed brush so many mm from one another."""

    pitch_mm: Annotated[Finite, Field(gt=0, le=10_000)]
    merge_key: Annotated[str, Field(max_length=120)] = ""


class PiecesChange(Versioned):
    """Put a motif to a role of a brush, take it away, or set all variants of the repeat."""

    role: Role
    motif_ids: Annotated[list[Annotated[int, Field(ge=1, le=2**53)]], Field(max_length=64)]


class Divide(Versioned):
    """Cut a motif in three: start, repeat and end piece of a new brush."""

    name: Name


class MakePiece(Versioned):
    """Make the piece of a role from the repeat: an end by one of four ways, a corner by one of its own, or as suits the brush."""

    role: Literal["start", "end", "outside_corner", "inside_corner"]
    way: EndWay | CornerWay | None = None


class CornerPath(BaseModel):
    id: RowId
    role: Literal["outside_corner", "inside_corner"]


class CornerWaysMessage(Message):
    """The ways in which the repeat can be made into a corner piece, and which of them the piece has."""

    ways: list[CornerWay]
    way: CornerWay | None


class CornerMessage(Message):
    """Between what a corner piece lies: a repeat, and matrices of those that come before and after it, about its base line's middle."""

    repeat: PieceMessage
    repeat_matrices: list[list[float]]


class SampledPieceMessage(Message):
    role: Role
    motif_id: int
    matrix: list[float]


class SlotMessage(Message):
    """Where a piece of a role lies or would lie, in mm."""

    role: Role
    x_mm: float
    y_mm: float
    made: bool
    motif_id: int | None


class SampleMessage(Message):
    """All pieces of a brush on the sampler."""

    pieces: list[SampledPieceMessage]
    slots: list[SlotMessage]
    path: str
    box: list[float]


class BorderMessage(Message):
    """Which of the seven border arrangements a brush's repeat has."""

    arrangement: Arrangement


class BorderChange(Versioned):
    """Give a brush one of the seven border arrangements of the motif it began with."""

    arrangement: Arrangement


class NumberLimit(Message):
    """What a number may be, and the sentence that refuses it otherwise."""

    path: str
    kind: Literal["gt", "ge", "lt", "le"]
    value: float
    sentence: str


class SettingsLimits(Message):
    defaults: Settings
    limits: list[NumberLimit]
