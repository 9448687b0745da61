"""Pictures on their way to a motif, the scan tray, and long work."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import BaseModel, ConfigDict, Field

from ...core.values.brush import Finite
from .base import Colour, Message, Name, Sequenced
from .edits import Length, Share
from .motifs import MotifMessage

PointPx = Annotated[list[Finite], Field(min_length=2, max_length=2)]
Marks = Annotated[list[PointPx], Field(max_length=2000)]
Pixel = Annotated[int, Field(ge=0, le=100_000)]


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


class ScanPath(BaseModel):
    """A scan by its file's name."""

    model_config = ConfigDict(extra="forbid")

    name: str = Field(max_length=255)


class OriginalQuery(BaseModel):
    """The name that a picture is brought in under."""

    model_config = ConfigDict(extra="forbid")

    name: str = Field("Picture", min_length=1, max_length=200)
