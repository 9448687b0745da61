"""What all messages share: names, numbers with limits, versions, refusals."""

from __future__ import annotations

from typing import Annotated

from pydantic import BaseModel, ConfigDict, Field

from ...core.values.brush import Finite

Name = Annotated[str, Field(min_length=1, max_length=200, pattern=r"\S")]
Colour = Annotated[str, Field(pattern=r"^#[0-9a-f]{6}$")]
Coordinate = Annotated[Finite, Field(ge=-10_000, le=10_000)]
Point = Annotated[list[Coordinate], Field(min_length=2, max_length=2)]
SizePct = Annotated[Finite, Field(gt=0, le=10_000)]
RowId = Annotated[int, Field(ge=1, le=2**53)]


class Message(BaseModel):
    model_config = ConfigDict(extra="forbid", strict=True, allow_inf_nan=False, defer_build=True)  # built when first met: there are 150


class IdPath(BaseModel):
    id: RowId


class ErrorMessage(Message):
    """Why a request was refused; ``current`` is the row as it stands when a change was stale."""

    message: str
    current: dict | None = None


class Versioned(Message):
    version: Annotated[int, Field(ge=1)]


class Sequenced(Message):
    """A request that a newer one of the same client and kind overtakes."""

    client: Annotated[str, Field(max_length=64)] = ""
    seq: Annotated[int, Field(ge=-(2**53), le=2**53)] = 0


class VersionQuery(BaseModel):
    """The version that the window knew when it asked to delete."""

    model_config = ConfigDict(extra="forbid")

    version: Annotated[int, Field(ge=1)]
