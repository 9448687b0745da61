"""Changes to a motif's artwork as messages: each says by its names and limits what a core change takes."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from ...core.values.brush import Finite
from ...core.values.motif import Lies
from .base import Colour, Message

Mm = Annotated[Finite, Field(ge=-10_000, le=10_000)]
Length = Annotated[Finite, Field(ge=0.05, le=10_000)]
PointMm = Annotated[list[Mm], Field(min_length=2, max_length=2)]
Place = Annotated[int, Field(ge=0, le=100_000)]
Parts = Annotated[list[Place], Field(min_length=1, max_length=3_000)]
Share = Annotated[Finite, Field(ge=0, le=1)]
Factor = Annotated[Finite, Field(ge=-1000, le=1000)]
Angle = Annotated[Finite, Field(ge=-3600, le=3600)]
Figures = Annotated[dict[str, Finite], Field(max_length=16)]


class Move(Message):
    op: Literal["move"]
    parts: Parts
    dx_mm: Mm
    dy_mm: Mm


class Transform(Message):
    """Scale, then turn clockwise, about a point or the parts' middle; negative scales mirror."""

    op: Literal["transform"]
    parts: Parts
    scale_x: Factor = 1.0
    scale_y: Factor = 1.0
    turn_deg: Angle = 0.0
    about_mm: PointMm | None = None


class Duplicate(Message):
    op: Literal["duplicate"]
    parts: Parts
    dx_mm: Mm = 0.0
    dy_mm: Mm = 0.0
    copies: Annotated[int, Field(ge=1, le=200)] = 1
    turn_deg: Angle = 0.0
    scale: Annotated[float, Field(ge=0.01, le=100)] = 1.0
    about_mm: PointMm | None = None


class OnParts(Message):
    """A change that needs nothing but its parts."""

    op: Literal["remove", "group", "ungroup", "outline"]
    parts: Parts


class Lie(Message):
    """Lay parts over the neighbouring pieces, under them, or interlocked: half over, half under."""

    op: Literal["lie"]
    parts: Parts
    lies: Lies


class Order(Message):
    op: Literal["order"]
    parts: Parts
    to: Literal["front", "forward", "backward", "back"]


class AlignParts(Message):
    op: Literal["align"]
    parts: Parts
    to: Literal["left", "middle", "right", "top", "centre", "foot", "on_base_line", "in_frame"]


class Combine(Message):
    op: Literal["combine"]
    parts: Parts
    way: Literal["join", "cut_out", "overlap", "exclude"]


class Thin(Message):
    op: Literal["thin"]
    parts: Parts
    tolerance_mm: Annotated[Finite, Field(ge=0.001, le=10)]


class Fray(Message):
    op: Literal["fray"]
    parts: Parts
    depth_mm: Annotated[Finite, Field(gt=0, le=50)]
    tufts_per_cm: Annotated[Finite, Field(gt=0, le=400)]
    snapped: bool = False
    seed: Annotated[int, Field(ge=0, le=2**31)] = 1


class PaintParts(Message):
    """Flat paints; "none" takes one away, what is not given stays."""

    op: Literal["paint"]
    parts: Parts
    fill: Colour | Literal["none"] | None = None
    fill_opacity: Share | None = None
    stroke: Colour | Literal["none"] | None = None
    stroke_width_mm: Annotated[Finite, Field(gt=0, le=1000)] | None = None
    stroke_opacity: Share | None = None
    cap: Literal["butt", "round", "square"] | None = None
    join: Literal["miter", "round", "bevel"] | None = None


class GradientStop(Message):
    """A colour at a share of the gradient's way."""

    offset: Share
    colour: Colour
    opacity: Share = 1.0


class GradientParts(Message):
    """A gradient over each part's own box."""

    op: Literal["gradient"]
    parts: Parts
    kind: Literal["linear", "radial"]
    stops: Annotated[list[GradientStop], Field(min_length=2, max_length=16)]
    angle_deg: Angle = 90.0
    centre_x_pct: Annotated[Finite, Field(ge=-100, le=200)] = 50.0
    centre_y_pct: Annotated[Finite, Field(ge=-100, le=200)] = 50.0


class NameParts(Message):
    op: Literal["name"]
    parts: Parts
    name: Annotated[str, Field(max_length=80)]


class Back(Message):
    op: Literal["back"]
    parts: Parts
    colour: Colour
    grow_mm: Annotated[Finite, Field(ge=0, le=100)] = 0.0
    fill_holes: bool = True


class Light(Message):
    op: Literal["light"]
    parts: Parts
    kind: Literal["highlight", "shadow"]
    from_deg: Angle = -120.0
    width_mm: Annotated[Finite, Field(gt=0, le=100)]
    colour: Colour
    opacity: Annotated[Finite, Field(gt=0, le=1)]
    inset_mm: Annotated[Finite, Field(ge=0, le=100)] = 0.0


class MirrorLive(Message):
    op: Literal["mirror"]
    parts: Parts
    side: Literal["left_right", "up_down"]


class SoftEdge(Message):
    """``steps`` 0 takes the fewest that cannot be seen."""

    op: Literal["soft_edge"]
    parts: Parts
    steps: Annotated[int, Field(ge=0, le=200)]


class DenseToClear(Message):
    """Each part fades from its middle to its rim."""

    op: Literal["dense_to_clear"]
    parts: Parts


class SetFigures(Message):
    op: Literal["figures"]
    group: Place
    figures: Figures


class AddStarter(Message):
    op: Literal["starter"]
    starter: Annotated[str, Field(max_length=40)]
    figures: Figures = Field(default_factory=dict)
    x_mm: Mm
    y_mm: Mm
    colour: Colour | None = None


class Draw(Message):
    """A stroke drawn by hand, smoothed; ``closed`` fills what it goes round, else it is a pen stroke of ``width_mm``."""

    op: Literal["draw"]
    points: Annotated[list[PointMm], Field(min_length=2, max_length=20_000)]
    width_mm: Annotated[Finite, Field(gt=0, le=100)] = 0.8
    colour: Colour = "#20352c"
    closed: bool = False
    straight: bool = False


class OnPoints(Message):
    """What every change by points says: the part, its outline, the points in it."""

    part: Place
    contour: Place
    nodes: Annotated[list[Place], Field(min_length=1, max_length=5_000)]


class MoveNodes(OnPoints):
    op: Literal["move_nodes"]
    dx_mm: Mm
    dy_mm: Mm


class Flow(OnPoints):
    op: Literal["flow"]
    flowing: bool


class RemoveNodes(OnPoints):
    op: Literal["remove_nodes"]


class Squash(OnPoints):
    op: Literal["squash"]
    along_pct: Annotated[Finite, Field(ge=0, le=1000)]
    across_pct: Annotated[Finite, Field(ge=0, le=1000)]


class PullHandle(Message):
    op: Literal["handle"]
    part: Place
    contour: Place
    node: Place
    side: Literal["into", "out"]
    x_mm: Mm
    y_mm: Mm


class AddNode(Message):
    op: Literal["add_node"]
    part: Place
    contour: Place
    side: Place
    at: Annotated[Finite, Field(gt=0, lt=1)] = 0.5


class Frame(Message):
    op: Literal["frame"]
    left_mm: Mm
    top_mm: Mm
    right_mm: Mm
    bottom_mm: Mm


class BaseLine(Message):
    op: Literal["base_line"]
    base_line_mm: Mm


class Cuts(Message):
    op: Literal["cuts"]
    cuts_mm: PointMm | None


class Joints(Message):
    op: Literal["joints"]
    joints_mm: Annotated[list[PointMm], Field(min_length=2, max_length=2)] | None


class Turn(Message):
    op: Literal["turn"]
    turn_deg: Annotated[Finite, Field(ge=-360, le=360)]


class Resize(Message):
    op: Literal["resize"]
    width_mm: Length


class Lighten(Message):
    """Scale pictures wider than this many pixels down to it."""

    op: Literal["lighten"]
    width_px: Annotated[int, Field(ge=8, le=10_000)]


class Whole(Message):
    """A change of the whole motif that needs nothing more."""

    op: Literal["trim", "best_cut", "keep_between"]


class DarnSeam(Message):
    """``width_mm`` is over how much a picture is blended; outlines move the points that miss."""

    op: Literal["darn"]
    width_mm: Annotated[Finite, Field(gt=0, le=1000)] = 2.0


class RepeatCut(Message):
    """Cut to a repeating length, where it shows least."""

    op: Literal["cut_to_length"]
    length_mm: Length


Edit = Annotated[
    Move | Transform | Duplicate | OnParts | Lie | Order | AlignParts | Combine | Thin | Fray | PaintParts | GradientParts | NameParts
    | Back | Light | MirrorLive | SoftEdge | DenseToClear
    | SetFigures | AddStarter | Draw | MoveNodes | Flow | RemoveNodes | Squash | PullHandle | AddNode
    | Frame | BaseLine | Cuts | Joints | Turn | Resize | Lighten | Whole | DarnSeam | RepeatCut,
    Field(discriminator="op"),
]  # fmt: skip
