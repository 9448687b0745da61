"""A motif: shapes with paint, or a picture, on a frame in millimetres."""

from __future__ import annotations

from dataclasses import dataclass, replace
from typing import Literal

import numpy as np

from ..maths.affine import apply, compose, mean_scale
from .arrays import freeze_arrays

Lies = Literal["over", "under", "interlocked"]


@dataclass(frozen=True)
class GradientStop:
    """A colour at a share (0 to 1) of the gradient's way."""

    offset: float
    colour: str
    opacity: float = 1.0


@dataclass(frozen=True)
class Gradient:
    """A linear gradient runs from (0, 0) to (1, 0), a radial one from the origin to the unit circle.

    ``matrix`` (a, b, c, d, e, f) maps that space to mm; ``focus`` is a radial one's focal x.
    """

    kind: Literal["linear", "radial"]
    matrix: tuple[float, float, float, float, float, float]
    stops: tuple[GradientStop, ...]
    focus: float = 0.0
    spread: Literal["pad", "reflect", "repeat"] = "pad"


@dataclass(frozen=True)
class Paint:
    """One flat colour, ``#rrggbb``, and how much of what lies below it covers (0 to 1).

    With a ``gradient`` the colour is its mean, for where a single colour must stand for it.
    """

    colour: str
    opacity: float = 1.0
    gradient: Gradient | None = None


@dataclass(frozen=True)
class Stroke:
    """A stroke in mm; ``dashes`` empty means solid."""

    paint: Paint
    width: float
    cap: str = "butt"
    join: str = "miter"
    miter_limit: float = 4.0
    dashes: tuple[float, ...] = ()
    dash_offset: float = 0.0


@dataclass(frozen=True)
class Picture:
    """A picture as PNG, RGBA; ``stencil`` says that only its coverage counts and the ink colours it."""

    png: bytes
    width_px: int
    height_px: int
    stencil: bool = False


@dataclass(frozen=True, eq=False)
class Shape:
    """One outline: ``commands`` out of M L C Z and their ``points`` (k, 2) in mm, in order.

    A picture is a shape whose outline is its rectangle, from its top left clockwise, without fill
    and stroke. ``group`` 0 is none; ``derived`` shapes are made from the others of their group by
    the group's recipe, and made anew with it. How it ``lies`` beside the neighbouring pieces: what lies under is painted before
    anything else of the line; what is interlocked is divided when it is laid, and lies half over, half under. ``half`` tells one
    of these halves: of a mirrored piece it lies the other way, for neighbours to interlock as before.
    """

    commands: str
    points: np.ndarray
    fill: Paint | None
    fill_rule: str = "nonzero"
    stroke: Stroke | None = None
    picture: Picture | None = None
    name: str = ""
    group: int = 0
    derived: bool = False
    lies: Lies = "over"
    half: bool = False

    def __post_init__(self) -> None:
        freeze_arrays(self)


@dataclass(frozen=True)
class Recipe:
    """How a group's shapes are made: a starter's figures, a live mirror, a graded soft edge."""

    group: int
    kind: Literal["starter", "mirror", "soft_edge"]
    figures: tuple[tuple[str, float | str], ...]

    def figure(self, name: str) -> float | str:
        """Return one figure; raises KeyError when the recipe has none of that name."""
        return dict(self.figures)[name]


@dataclass(frozen=True, eq=False)
class Motif:
    """Artwork to be repeated. Coordinates run from the frame's top left, y down.

    ``joints`` are the points where it meets its neighbours, None for both ends of the base line;
    ``cuts`` x₁ < x₂ divide it into start, repeat and end, None for none.
    """

    shapes: tuple[Shape, ...]
    width: float
    height: float
    base_line: float
    left_out: tuple[str, ...] = ()
    joints: tuple[tuple[float, float], tuple[float, float]] | None = None
    cuts: tuple[float, float] | None = None
    recipes: tuple[Recipe, ...] = ()

    @property
    def points(self) -> int:
        """Count the on-curve points, the motif's weight."""
        return sum(len(shape.commands) - shape.commands.count("Z") for shape in self.shapes)

    @property
    def joint_points(self) -> tuple[np.ndarray, np.ndarray]:
        """Return the left and the right joint (2,), by default the ends of the base line."""
        left, right = self.joints or ((0.0, self.base_line), (self.width, self.base_line))
        return np.array(left), np.array(right)

    @property
    def span(self) -> tuple[float, float]:
        """Return where the repeat lies along the base line: between the cuts, else the whole frame."""
        return self.cuts or (0.0, self.width)

    @property
    def pitch(self) -> float:
        """Return how far its neighbours lie in mm: from joint to joint where it has level ones, else from edge to edge."""
        left, right = self.joint_points
        level = self.joints is not None and self.cuts is None and left[1] == right[1]
        return float(right[0] - left[0]) if level else float(self.span[1] - self.span[0])

    def recipe_of(self, group: int) -> Recipe | None:
        """Return the recipe of a group, or None."""
        return next((r for r in self.recipes if r.group == group), None) if group else None


def mapped(shape: Shape, matrix: np.ndarray) -> Shape:
    """Return the shape under an affine map (2, 3), its gradients and stroke widths along with it.

    An uneven map gives strokes its mean scale, for a stroke here has one width.
    """
    factor = mean_scale(matrix)
    stroke = shape.stroke
    if stroke is not None:
        stroke = replace(
            stroke, paint=_mapped_paint(stroke.paint, matrix), width=stroke.width * factor,
            dashes=tuple(d * factor for d in stroke.dashes), dash_offset=stroke.dash_offset * factor,
        )  # fmt: skip
    fill = None if shape.fill is None else _mapped_paint(shape.fill, matrix)
    return replace(shape, points=apply(matrix, shape.points), fill=fill, stroke=stroke)


def picture_of(shape: Shape) -> Picture:
    """Return the picture of a shape that is one; raises ValueError for another."""
    if shape.picture is None:
        raise ValueError("this shape is no picture")
    return shape.picture


def stroke_of(shape: Shape) -> Stroke:
    """Return the stroke of a shape that has one; raises ValueError for another."""
    if shape.stroke is None:
        raise ValueError("this shape has no stroke")
    return shape.stroke


def see_through(shape: Shape) -> bool:
    """Tell whether what is below a shape may show through it; a picture may."""
    paints = [paint for paint in (shape.fill, shape.stroke and shape.stroke.paint) if paint]
    stops = [stop for paint in paints if paint.gradient for stop in paint.gradient.stops]
    return shape.picture is not None or any(each.opacity < 1 for each in (*paints, *stops))


def fill_of(shape: Shape) -> Paint:
    """Return the fill of a shape that has one; raises ValueError for another."""
    if shape.fill is None:
        raise ValueError("this shape has no fill")
    return shape.fill


def stroke_as_fill(shape: Shape) -> Shape:
    """Return a stroked shape with its stroke's paint as its fill, for an outline of the stroke to be filled with."""
    return replace(shape, fill=stroke_of(shape).paint, fill_rule="nonzero", stroke=None)


def painted_by(shape: Shape, matrix: np.ndarray) -> Shape:
    """Return the shape as it is, its gradients under an affine map (2, 3)."""
    stroke = shape.stroke and replace(shape.stroke, paint=_mapped_paint(shape.stroke.paint, matrix))
    return replace(shape, fill=shape.fill and _mapped_paint(shape.fill, matrix), stroke=stroke)


def _mapped_paint(paint: Paint, matrix: np.ndarray) -> Paint:
    if paint.gradient is None:
        return paint
    own = np.array(paint.gradient.matrix).reshape(3, 2).T
    return replace(paint, gradient=replace(paint.gradient, matrix=tuple(compose(matrix, own).T.ravel().tolist())))


def shifted(motif: Motif, dx: float, dy: float) -> Motif:
    """Return the motif with everything on it moved by mm, the frame's size as it was."""
    matrix = np.array([[1.0, 0.0, dx], [0.0, 1.0, dy]])
    joints = motif.joints and tuple((x + dx, y + dy) for x, y in motif.joints)
    cuts = motif.cuts and (motif.cuts[0] + dx, motif.cuts[1] + dx)
    return replace(motif, shapes=tuple(mapped(s, matrix) for s in motif.shapes), base_line=motif.base_line + dy, joints=joints, cuts=cuts)
