"""What the Motif station and the server say to each other: motifs with their measures, pictures, pieces."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import BaseModel, Field, model_validator

from ..core.corner_proposals import CornerWay
from ..core.making.borders import Arrangement
from ..core.making.corners import EndWay
from ..core.reading.brush_document import Finite
from .edit_messages import Draw, Edit, Figures, Length, Mm, Place, Share
from .messages import Colour, Message, MotifMessage, Name, PieceMessage, RowId, Sequenced, Versioned

PointPx = Annotated[list[Finite], Field(min_length=2, max_length=2)]
Marks = Annotated[list[PointPx], Field(max_length=2000)]
Pixel = Annotated[int, Field(ge=0, le=100_000)]


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
    """A motif as it stands or as it would be, with everything measured about it; ``pitch_mm`` is how far its neighbours lie."""

    motif: MotifMessage
    pitch_mm: float
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


class OriginalMessage(Message):
    sha: str
    name: str
    width_px: int
    height_px: int
    dpi: float | None
    told: list[str]


class ScanMessage(Message):
    """A scan that lies in the tray; ``at`` is when it came, in seconds since 1970."""

    name: str
    at: float
    bytes: int


class Scans(Message):
    """What lies in the scan tray, the newest first, and the folder that is watched."""

    folder: str
    scans: list[ScanMessage]


class ShaPath(Message):
    sha: Annotated[str, Field(pattern=r"^[0-9a-f]{64}$")]


class PreparationMessage(Message):
    """What is done to a picture; the region and the marks are in the file's pixels."""

    region: Annotated[list[Pixel], Field(min_length=4, max_length=4)] | None = None
    clear: Literal["background", "white"] | Colour | None = None
    tolerance: Annotated[Finite, Field(ge=0, le=150)] = 12.0
    belongs: Marks = Field(default_factory=list)
    belongs_not: Marks = Field(default_factory=list)
    mark_px: Annotated[Finite, Field(ge=1, le=1000)] = 12.0
    fade_rim_pct: Annotated[Finite, Field(ge=0, le=100)] = 0.0
    fade_corner_pct: Annotated[Finite, Field(ge=0, le=50)] = 0.0
    coverage: Literal["light", "dark"] | None = None
    stencil: bool = False
    back_white: bool = False
    trim: bool = True
    trace: Literal["threshold", "colours"] | None = None
    threshold: Share | None = None
    colours: Annotated[int, Field(ge=2, le=16)] = 4
    least_speck_px: Annotated[Finite, Field(ge=0, le=1e6)] = 16.0
    sharpness: Share = 0.5
    width_mm: Length | None = None
    dpi: Annotated[Finite, Field(ge=1, le=10_000)] | None = None


class PreviewRequest(Sequenced):
    preparation: PreparationMessage


class PreviewMessage(Message):
    """A prepared picture at the size of the screen: the motif it would give."""

    motif: MotifMessage
    points: int
    deviation_mm: float | None
    frame_px: list[float]


class NewFromPicture(Message):
    name: Name
    preparation: PreparationMessage


class JobMessage(Message):
    """Long work: ``state`` is waiting, working, done, stopped or failed; ``share`` from 0 to 1."""

    id: str
    state: Literal["waiting", "working", "done", "stopped", "failed"]
    share: float
    message: str | None
    motif_id: int | None


class JobPath(Message):
    id: Annotated[str, Field(pattern=r"^[0-9a-f]{32}$")]


class PickUp(Message):
    """A region of a page, in mm, to be picked up as a motif."""

    name: Name
    left_mm: Mm
    top_mm: Mm
    right_mm: Mm
    bottom_mm: Mm

    @model_validator(mode="after")
    def _some_region(self) -> PickUp:
        if self.right_mm - self.left_mm < 0.1 or self.bottom_mm - self.top_mm < 0.1:
            raise ValueError("the region needs a length and a height")
        return self


class Divide(Versioned):
    """Cut a motif in three: start, repeat and end piece of a new brush."""

    name: Name


class MakePiece(Versioned):
    """Make the piece of a role from the repeat: an end by one of four ways, a corner by one of its proposals."""

    role: Literal["start", "end", "outside_corner", "inside_corner"]
    way: EndWay | CornerWay


class ProposalPath(BaseModel):
    id: RowId
    role: Literal["outside_corner", "inside_corner"]


class ProposalMessage(Message):
    """A corner piece that could be made, laid between repeats: the piece, matrices of it and of the repeats, and the box they lie in."""

    way: CornerWay
    corner: PieceMessage
    repeat: PieceMessage
    corner_matrix: list[float]
    repeat_matrices: list[list[float]]
    box: list[float]


class ProposalsMessage(Message):
    proposals: list[ProposalMessage]


class SampledPieceMessage(Message):
    role: str
    motif_id: int
    matrix: list[float]


class SlotMessage(Message):
    """Where a piece of a role lies or would lie, in mm."""

    role: str
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


class PiecesChange(Versioned):
    """Put a motif to a role of a brush, take it away, or set all variants of the repeat."""

    role: Literal["repeat", "start", "end", "outside_corner", "inside_corner"]
    motif_ids: Annotated[list[Annotated[int, Field(ge=1, le=2**53)]], Field(max_length=64)]
