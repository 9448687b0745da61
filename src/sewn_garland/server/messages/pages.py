"""What is said about pages and the lines on them."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import BaseModel, ConfigDict, Field, model_validator

from ...core.measuring.smoothing import HAND_TOLERANCE_MM, WITHIN_MM
from ...core.values.brush import MOST_ARRANGEMENT, Finite
from .base import Colour, Message, Name, Point, RowId, Sequenced, SizePct, Versioned
from .edits import Mm

MOST_POINTS = 5_000
MOST_TOGETHER = 2_000  # lines changed at once

Arrangement = Annotated[int, Field(ge=0, le=MOST_ARRANGEMENT)]
Side = Annotated[Finite, Field(ge=1, le=5_000)]


class PaletteInk(Message):
    """An ink of a page's palette."""

    name: Name
    colour: Colour


class PaletteShown(PaletteInk):
    """An ink of a page's palette with its contrast to the ground (WCAG's ratio, 1 to 21), to the colour of it that it stands out
    from least; none where there is no ground.
    """

    contrast: float | None


class GroundPicture(Message):
    """The picture of a page's ground: ``fitted`` covers the page, ``true_size`` is laid as large as it is, in the middle."""

    sha: Annotated[str, Field(pattern=r"^[0-9a-f]{64}$")]
    laid: Literal["fitted", "true_size"] = "fitted"


class GroundPictureShown(GroundPicture):
    """The same with its name, its own size and where it lies on the page (left, top, width, height), in mm."""

    name: str
    size_mm: list[float]
    box: list[float]


class PageMessage(Message):
    id: int
    name: str
    version: int
    width_mm: float
    height_mm: float
    ground: str | None
    ground_picture: GroundPictureShown | None
    ground_colours: list[str]
    scenery: list[dict]
    palette: list[PaletteShown]


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
    ground_picture: GroundPicture | Literal["none"] | None = None
    palette: Annotated[list[PaletteInk], Field(max_length=64)] | None = None


WithinMm = Annotated[Finite, Field(ge=WITHIN_MM[0], le=WITHIN_MM[1])]
SmoothPct = Annotated[Finite, Field(ge=0, le=100)]
StrokePoints = Annotated[list[Point], Field(min_length=1, max_length=20_000)]
StrokeTimes = Annotated[list[Finite], Field(max_length=20_000)]


class HandSource(Message):
    """A stroke as the hand drew it, ``closed`` where it came back to its start, ``times`` (ms) when it was where; kept smoothed, as
    points whose curve stays ``within_mm`` of it, with the stroke beside them.
    """

    kind: Literal["hand"]
    points: StrokePoints
    times: StrokeTimes | None = None
    smooth_pct: SmoothPct = 35.0
    within_mm: WithinMm = HAND_TOLERANCE_MM
    straight: bool = False
    closed: bool = False


class Stroke(Message):
    """What the hand gave for a line that is kept as points, and how much it was smoothed."""

    points: StrokePoints
    times: StrokeTimes | None = None
    smooth_pct: SmoothPct
    within_mm: WithinMm = HAND_TOLERANCE_MM


class PointsSource(Message):
    """Points the line passes: curved through flowing ones, pointed at the rest."""

    kind: Literal["points"]
    points: Annotated[list[Point], Field(min_length=1, max_length=MOST_POINTS)]
    flowing: Annotated[list[bool], Field(max_length=MOST_POINTS)]
    closed: bool = False
    stroke: Stroke | None = None

    @model_validator(mode="after")
    def _as_many(self) -> PointsSource:
        if len(self.flowing) != len(self.points):
            raise ValueError("flowing must say yes or no for every point")
        return self


class PathSource(Message):
    """SVG path data in mm."""

    kind: Literal["path"]
    d: Annotated[str, Field(min_length=1, max_length=400_000)]


class ReadySource(Message):
    """A ready line: its figures by name (in their units; those left out as on a page of A5), where its middle lies, and its turn."""

    kind: Literal["ready"]
    shape: Annotated[str, Field(max_length=40)]
    figures: Annotated[dict[str, Finite], Field(max_length=8)]
    at: Point
    turn_deg: Annotated[Finite, Field(ge=-3600, le=3600)] = 0.0


class ReadyFigureMessage(Message):
    """A figure of a ready line; ``value`` is what it begins with on this page."""

    name: str
    unit: str
    least: float
    most: float
    value: float


class ReadyLineMessage(Message):
    """A ready line as it begins in the middle of a page: its figures and its path data in mm."""

    shape: str
    name: str
    figures: list[ReadyFigureMessage]
    path: str


class ReadyLines(Message):
    ready: list[ReadyLineMessage]


Source = Annotated[HandSource | PointsSource | PathSource | ReadySource, Field(discriminator="kind")]


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
    second_ink: str | None
    arrangement: int | None
    visible: bool


class NewLine(Message):
    brush_id: RowId
    source: Source
    name: Name | None = None
    size_pct: SizePct = 100.0
    ink: Colour | None = None


class LineChange(Versioned):
    """What to change; inks that are "own" and an arrangement "own" are the brush's again, ``cure`` is a finding's change,
    made to a copy of the brush for this line and those given ``on_copy``.
    """

    name: Name | None = None
    brush_id: RowId | None = None
    source: Source | None = None
    size_pct: SizePct | None = None
    ink: Colour | Literal["own"] | None = None
    second_ink: Colour | Literal["own"] | None = None
    arrangement: Arrangement | Literal["own"] | None = None
    visible: bool | None = None
    move_by: Point | None = None
    to_place: Annotated[int, Field(ge=0, le=100_000)] | None = None
    cure: dict | None = None
    on_copy: Annotated[list[RowId], Field(max_length=MOST_POINTS)] | None = None
    label: Annotated[str, Field(max_length=120)] | None = None
    merge_key: Annotated[str, Field(max_length=120)] = ""


class MovingMessage(Message):
    """A move by some mm, after a turn (degrees, clockwise) and scaling about a place."""

    by: Point = Field(default_factory=lambda: [0.0, 0.0])
    turn_deg: Annotated[Finite, Field(ge=-3600, le=3600)] = 0.0
    scale: Annotated[Finite, Field(ge=0.001, le=1000)] = 1.0
    about: Point = Field(default_factory=lambda: [0.0, 0.0])


class OneOfLines(Versioned):
    id: RowId


class LinesChange(Message):
    """What to change of several lines of a page at once; inks that are "own" are the brush's again."""

    lines: Annotated[list[OneOfLines], Field(min_length=1, max_length=MOST_TOGETHER)]
    moving: MovingMessage | None = None
    remove: bool = False
    brush_id: RowId | None = None
    size_pct: SizePct | None = None
    ink: Colour | Literal["own"] | None = None
    visible: bool | None = None
    label: Annotated[str, Field(max_length=120)] | None = None
    merge_key: Annotated[str, Field(max_length=120)] = ""


class DraftMoving(Message):
    """Several lines as they would be moved."""

    lines: Annotated[list[RowId], Field(max_length=MOST_TOGETHER)]
    moving: MovingMessage


class LinesFile(Message):
    """An SVG whose lines are to be put on a page."""

    brush_id: RowId
    svg: Annotated[str, Field(max_length=12_000_000)]


class PageLines(Message):
    page: PageMessage
    lines: list[LineMessage]


class BroughtIn(PageLines):
    """A page with lines that were brought in, and what was left out of their file, a sentence each."""

    left_out: list[str]


class DraftLine(Message):
    """A line as it would be: ``line_id`` names the one it stands for while it is dragged."""

    line_id: RowId | None = None
    brush_id: RowId
    source: Source
    size_pct: SizePct = 100.0
    ink: Colour | None = None
    second_ink: Colour | None = None
    arrangement: Arrangement | None = None


class DraftCure(Message):
    line_id: RowId
    change: dict


class PageRequest(Sequenced):
    """Lay the page's visible lines, or only some; drafts and a cure tried out are not kept."""

    only: list[RowId] | None = None
    draft: DraftLine | None = None
    draft_cure: DraftCure | None = None
    draft_moving: DraftMoving | None = None
    strip: RowId | None = None
    cures: bool = False


class ExportQuery(BaseModel):
    model_config = ConfigDict(extra="forbid", allow_inf_nan=False)

    form: Literal["compact", "plain"] = "compact"
    dpi: Annotated[float, Field(ge=10, le=2400)] = 300.0
    ground: Literal["clear", "page"] | Colour = "clear"


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
