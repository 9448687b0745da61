"""What is said about motifs: as they are, as they would be, with their measures."""

from __future__ import annotations

from typing import Annotated

from pydantic import BaseModel, ConfigDict, Field

from .artwork import PieceMessage, RecipeMessage, ShapeMessage
from .base import Message, Name, RowId, Sequenced, Versioned
from .edits import Draw, Edit, Figures, Place
from .preparing import KeptPicture


class _MotifHead(Message):
    id: int
    name: str
    version: int
    width_mm: float
    height_mm: float
    base_line_mm: float
    joints_mm: list[list[float]] | None


class MotifMessage(_MotifHead):
    """A motif with its shapes, in mm from the frame's top left; ``pitch_mm`` is how far its neighbours lie."""

    pitch_mm: float
    cuts_mm: list[float] | None
    points: int
    left_out: list[str]
    shapes: list[ShapeMessage]
    recipes: list[RecipeMessage]
    piece: PieceMessage | None
    picture: KeptPicture | None = None


class NewMotif(Message):
    name: Name
    svg: Annotated[str, Field(max_length=12_000_000)]
    trim: bool = True


class RenameMotif(Versioned):
    name: Name


class MotifEdit(Versioned):
    edit: Edit
    label: Annotated[str, Field(max_length=120)] | None = None
    merge_key: Annotated[str, Field(max_length=120)] = ""


class MotifDraft(Sequenced):
    """A change tried out while it is dragged; ``points_of`` asks for one part's points."""

    edit: Edit | None = None
    points_of: Place | None = None


class ContourMessage(Message):
    """One outline by its points: ``at``, ``into`` and ``out`` as x, y in mm, and which flow."""

    at: list[list[float]]
    into: list[list[float]]
    out: list[list[float]]
    flowing: list[bool]
    closed: bool


class EdgeMessage(Message):
    """What is filled along one edge of the repeat, from the top down: mm from the frame's top, colour, coverage."""

    top_mm: list[float]
    foot_mm: list[float]
    colour: list[str]
    cover: list[float]


class SeamMessage(Message):
    """The seam's figures; ``filled_mm`` is what reaches the edges, ``inside_mm`` what is filled a little inside of them (means of both)."""

    mismatch_mm: float
    slope_deg: float
    delta_e: float
    filled_mm: float
    inside_mm: float
    left: EdgeMessage
    right: EdgeMessage


class WeightMessage(Message):
    points: int
    parts: int
    pixels: int
    word: str
    warning: str | None
    thin_mm: float | None
    thin_points: int | None
    pixels_to: int | None


class GradingMessage(Message):
    """What a soft edge costs."""

    group: int
    steps: int
    largest_difference: float
    points: int


class MotifBench(Message):
    """A motif as it stands or as it would be, with everything measured about it."""

    motif: MotifMessage
    seam: SeamMessage
    weight: WeightMessage
    gradings: list[GradingMessage]
    contours: list[ContourMessage] | None


class FigureMessage(Message):
    name: str
    unit: str
    standard: float
    least: float
    most: float


class StarterMessage(Message):
    key: str
    name: str
    figures: list[FigureMessage]
    motif: MotifMessage


class Starters(Message):
    starters: list[StarterMessage]


class NewFromStarter(Message):
    starter: Annotated[str, Field(max_length=40)]
    name: Name | None = None
    figures: Figures = Field(default_factory=dict)


class NewFromStroke(Message):
    stroke: Draw
    name: Name | None = None


class FoundRepeatMessage(Message):
    length_mm: float
    strength: float
    second_mm: float | None
    second_strength: float | None


class InkQuery(BaseModel):
    model_config = ConfigDict(extra="forbid")

    ink: Annotated[str, Field(max_length=80)] | None = None


class MotifSummary(_MotifHead):
    """A motif without its shapes, which are asked for once a version; ``cut`` says that only a stretch of it is laid."""

    cut: bool


class PicturePath(BaseModel):
    """A part of a motif by its place."""

    model_config = ConfigDict(extra="forbid")

    id: RowId
    place: Annotated[int, Field(ge=0, le=100_000)]
