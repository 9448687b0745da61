"""Artwork as the browser paints it: parts with their paints, in mm."""

from __future__ import annotations

from typing import Literal

from ...core.values.motif import Lies
from .base import Message


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
    """A part of a motif; ``box`` is left, top, right, bottom in mm, ``group`` 0 none; derived parts are made from others.

    How it ``lies`` beside its neighbours: what lies under is painted before anything else of the line; what is interlocked is
    divided when it is laid.
    """

    d: str
    name: str
    group: int
    derived: bool
    lies: Lies
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
    dash_offset: float = 0.0


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
