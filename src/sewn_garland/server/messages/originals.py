"""Pictures on their way to a motif, the scan tray, and long work."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import BaseModel, ConfigDict, Field

from .base import Message, Name, RowId, Sequenced, Versioned
from .motifs import MotifMessage
from .preparing import PreparationMessage


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


class PreviewRequest(Sequenced):
    preparation: PreparationMessage


class PreviewMessage(Message):
    """A prepared picture at the size of the screen: the motif it would give, with its frame in the picture's pixels.

    ``cleared`` is what is left of the picture where something of it turns clear (PNG, a data URL), and where that lies in it.
    """

    motif: MotifMessage
    points: int
    deviation_mm: float | None
    frame_px: list[float]
    cleared: str | None
    cleared_px: list[float]


class MotifAnew(Versioned):
    id: RowId


class NewFromPicture(Message):
    """Make a motif of a picture, or put it in the place of one that was made of a picture before."""

    name: Name
    preparation: PreparationMessage
    anew: MotifAnew | None = None


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
