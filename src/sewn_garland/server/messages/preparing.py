"""What is done to a picture on its way to a motif."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from ...core.values.brush import Finite
from .base import Colour, Message
from .edits import Length, Share

PointPx = Annotated[list[Finite], Field(min_length=2, max_length=2)]
Marks = Annotated[list[PointPx], Field(max_length=2000)]
Pixel = Annotated[int, Field(ge=0, le=100_000)]


class PreparationMessage(Message):
    """What is done to a picture; the region and the marks are in the file's pixels."""

    region: Annotated[list[Pixel], Field(min_length=4, max_length=4)] | None = None
    clear: Literal["background", "background_and_holes", "white"] | Colour | None = None
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


class KeptPicture(Message):
    """The picture that a motif was made of, and how."""

    sha: str
    preparation: PreparationMessage
