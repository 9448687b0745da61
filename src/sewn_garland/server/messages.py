"""What the browser and the server say to each other."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import BaseModel, ConfigDict, Field, model_validator

from ..core.reading.brush_document import (
    EndsDocument,
    Finite,
    HandDocument,
    JoinsDocument,
    RowsDocument,
    SpacingDocument,
    TravelDocument,
    VariantsDocument,
)  # fmt: skip

Name = Annotated[str, Field(min_length=1, max_length=200, pattern=r"\S")]
Colour = Annotated[str, Field(pattern=r"^#[0-9a-f]{6}$")]
Coordinate = Annotated[Finite, Field(ge=-10_000, le=10_000)]
Point = Annotated[list[Coordinate], Field(min_length=2, max_length=2)]
SizePct = Annotated[Finite, Field(gt=0, le=10_000)]
Side = Annotated[Finite, Field(ge=1, le=5_000)]
RowId = Annotated[int, Field(ge=1, le=2**53)]
MOST_POINTS = 5_000


class Message(BaseModel):
    model_config = ConfigDict(extra="forbid", strict=True, allow_inf_nan=False)


class IdPath(BaseModel):
    id: RowId


class Settings(Message):
    """The sections of a brush document that say how the pieces travel."""

    travel: TravelDocument = TravelDocument()
    spacing: SpacingDocument = SpacingDocument()
    ends: EndsDocument = EndsDocument()
    variants: VariantsDocument = VariantsDocument()
    rows: RowsDocument = RowsDocument()
    hand: HandDocument = HandDocument()
    joins: JoinsDocument = JoinsDocument()


class GradientStopMessage(Message):
    offset: float
    colour: str
    opacity: float


class GradientMessage(Message):
    """``matrix`` maps the gradient's own space (a unit way, a unit circle) to mm."""

    kind: Literal["linear", "radial"]
    matrix: list[float]
    focus: float
    spread: str
    stops: list[GradientStopMessage]


class PictureMessage(Message):
    """A picture on a part's rectangle: where to fetch it, and its pixels."""

    href: str
    width_px: int
    height_px: int
    stencil: bool


class ShapeMessage(Message):
    """A part of a motif; ``box`` is left, top, right, bottom in mm, ``group`` 0 none; derived parts are made from others."""

    d: str
    name: str
    group: int
    derived: bool
    box: list[float]
    fill_gradient: GradientMessage | None
    stroke_gradient: GradientMessage | None
    picture: PictureMessage | None
    fill: str | None
    fill_opacity: float
    fill_rule: str
    stroke: str | None
    stroke_opacity: float
    stroke_width: float
    cap: str
    join: str
    miter_limit: float
    dashes: list[float]


class RecipeMessage(Message):
    """How a group is made; the figures can be set anew."""

    group: int
    kind: Literal["starter", "mirror", "soft_edge"]
    figures: dict[str, float | str]


class PieceMessage(Message):
    """What of a motif with cuts is laid: the stretch between them."""

    width_mm: float
    height_mm: float
    base_line_mm: float
    shapes: list[ShapeMessage]


class MotifMessage(Message):
    """A motif with its shapes, in mm from the frame's top left."""

    id: int
    name: str
    version: int
    width_mm: float
    height_mm: float
    base_line_mm: float
    cuts_mm: list[float] | None
    joints_mm: list[list[float]] | None
    points: int
    left_out: list[str]
    shapes: list[ShapeMessage]
    recipes: list[RecipeMessage]
    piece: PieceMessage | None


class BrushPieces(Message):
    """Motif ids by role: the variants of the repeat in order, and one of each other."""

    repeat: list[int]
    start: int | None = None
    end: int | None = None
    outside_corner: int | None = None
    inside_corner: int | None = None


class BrushMessage(Message):
    id: int
    name: str
    version: int
    motif_id: int
    pieces: BrushPieces
    settings: Settings


class PageMessage(Message):
    id: int
    name: str
    version: int
    width_mm: float
    height_mm: float
    ground: str | None
    scenery: list[dict]


class HandSource(Message):
    """A stroke as the hand drew it; kept smoothed, as points."""

    kind: Literal["hand"]
    points: Annotated[list[Point], Field(min_length=1, max_length=20_000)]
    straight: bool = False


class PointsSource(Message):
    """Points the line passes: curved through flowing ones, pointed at the rest."""

    kind: Literal["points"]
    points: Annotated[list[Point], Field(min_length=1, max_length=MOST_POINTS)]
    flowing: Annotated[list[bool], Field(max_length=MOST_POINTS)]
    closed: bool = False

    @model_validator(mode="after")
    def _as_many(self) -> PointsSource:
        if len(self.flowing) != len(self.points):
            raise ValueError("flowing must say yes or no for every point")
        return self


class PathSource(Message):
    """SVG path data in mm."""

    kind: Literal["path"]
    d: Annotated[str, Field(min_length=1, max_length=400_000)]


Source = Annotated[HandSource | PointsSource | PathSource, Field(discriminator="kind")]


class LineMessage(Message):
    id: int
    page_id: int
    brush_id: int
    name: str
    version: int
    position: float
    source: dict
    path: str
    size_pct: float
    ink: str | None
    visible: bool


class History(Message):
    """The names of the steps that undo and redo would take; ``kept_at`` in seconds since 1970."""

    undo: str | None
    undo_id: int | None
    redo: str | None
    redo_id: int | None
    kept_at: float | None


class Workshop(Message):
    """Everything there is, without the shapes and lines themselves."""

    motifs: list[MotifMessage]
    brushes: list[BrushMessage]
    pages: list[PageMessage]
    history: History


class PageLines(Message):
    page: PageMessage
    lines: list[LineMessage]


class NumberLimit(Message):
    """What a number may be, and the sentence that refuses it otherwise."""

    path: str
    kind: Literal["gt", "ge", "lt", "le"]
    value: float
    sentence: str


class SettingsLimits(Message):
    defaults: Settings
    limits: list[NumberLimit]


class ErrorMessage(Message):
    """Why a request was refused; ``current`` is the row as it stands when a change was stale."""

    message: str
    current: dict | None = None


class Versioned(Message):
    version: Annotated[int, Field(ge=1)]


class NewMotif(Message):
    name: Name
    svg: Annotated[str, Field(max_length=12_000_000)]
    trim: bool = True


class NewBrush(Message):
    """A brush made from a motif, or as a copy of another brush."""

    name: Name
    motif_id: RowId | None = None
    copy_of: RowId | None = None


class BrushChange(Versioned):
    """``change`` is a JSON merge patch (RFC 7396) of the settings."""

    name: Name | None = None
    motif_id: RowId | None = None
    change: dict | None = None
    label: Annotated[str, Field(max_length=120)] | None = None
    merge_key: Annotated[str, Field(max_length=120)] = ""


class NewPage(Message):
    name: Name
    width_mm: Side
    height_mm: Side
    ground: Colour | None = None


class PageChange(Versioned):
    name: Name | None = None
    width_mm: Side | None = None
    height_mm: Side | None = None
    ground: Colour | Literal["none"] | None = None


class NewLine(Message):
    brush_id: RowId
    source: Source
    name: Name | None = None
    size_pct: SizePct = 100.0
    ink: Colour | None = None


class LineChange(Versioned):
    """What to change; ``ink`` "own" gives the artwork its own colours back, ``cure`` is a finding's change."""

    name: Name | None = None
    brush_id: RowId | None = None
    source: Source | None = None
    size_pct: SizePct | None = None
    ink: Colour | Literal["own"] | None = None
    visible: bool | None = None
    move_by: Point | None = None
    to_place: Annotated[int, Field(ge=0, le=100_000)] | None = None
    cure: dict | None = None
    label: Annotated[str, Field(max_length=120)] | None = None
    merge_key: Annotated[str, Field(max_length=120)] = ""


class LinesFile(Message):
    """An SVG whose lines are to be put on a page."""

    brush_id: RowId
    svg: Annotated[str, Field(max_length=12_000_000)]


class Sequenced(Message):
    """A request that a newer one of the same client and kind overtakes."""

    client: Annotated[str, Field(max_length=64)] = ""
    seq: Annotated[int, Field(ge=-(2**53), le=2**53)] = 0


class OtherPieces(Message):
    """Motifs of the roles that have one."""

    start: RowId | None = None
    end: RowId | None = None
    outside_corner: RowId | None = None
    inside_corner: RowId | None = None


class PitchChange(Message):
    """Hang the links of a jointed brush so many mm from one another."""

    pitch_mm: Annotated[Finite, Field(gt=0, le=10_000)]


TrialKey = Annotated[str, Field(max_length=40)]
TrialPoint = Annotated[list[Annotated[Finite, Field(ge=-1000, le=1000)]], Field(min_length=2, max_length=2)]
TrialPoints = Annotated[list[TrialPoint], Field(min_length=2, max_length=100)]


class BenchRequest(Sequenced):
    """Lay draft settings of a motif, further variants of it in turn, and other pieces on the flat run and the trial lines.

    ``pitch_mm`` moves the joints of a jointed brush so far apart. ``shaped`` gives points of trial lines
    that were dragged, in the sheet's own 100 × 70; ``pinned`` are lines of pages shown beside them;
    ``large`` is the one whose joins and points are wanted; ``aside`` are settings to lay on the same
    lines for comparison.
    """

    motif_id: RowId
    variants: Annotated[list[RowId], Field(max_length=64)] = Field(default_factory=list)
    others: OtherPieces = Field(default_factory=OtherPieces)
    settings: Settings
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


class DraftLine(Message):
    """A line as it would be: ``line_id`` names the one it stands for while it is dragged."""

    line_id: RowId | None = None
    brush_id: RowId
    source: Source
    size_pct: SizePct = 100.0
    ink: Colour | None = None


class DraftCure(Message):
    line_id: RowId
    change: dict


class PageRequest(Sequenced):
    """Lay the page's visible lines, or only some; drafts and a cure tried out are not kept."""

    only: list[RowId] | None = None
    draft: DraftLine | None = None
    draft_cure: DraftCure | None = None
    strip: RowId | None = None
    cures: bool = False


class StepRequest(Message):
    """Take back or again the step the window last knew of."""

    step_id: RowId


class ExportQuery(BaseModel):
    model_config = ConfigDict(extra="forbid", allow_inf_nan=False)

    form: Literal["compact", "plain"] = "compact"
    dpi: Annotated[float, Field(ge=10, le=2400)] = 300.0
    ground: Literal["clear", "page"] | Colour = "clear"


class InkQuery(BaseModel):
    model_config = ConfigDict(extra="forbid")

    ink: Colour | None = None


class VersionQuery(BaseModel):
    """The version that the window knew when it asked to delete."""

    model_config = ConfigDict(extra="forbid")

    version: Annotated[int, Field(ge=1)]
