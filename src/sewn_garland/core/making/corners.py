"""Pieces made from the repeat: corners by two mitred legs, starts and ends by a half or a mirror."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace
from typing import Literal, NamedTuple, get_args

import numpy as np
import shapely

from ..artwork.fills import stroke_as_shape
from ..artwork.sections import JUST_INSIDE_MM, layers_of, section_at
from ..errors import InputError
from ..maths.booleans import combined
from ..values.brush import Role
from ..values.motif import Motif, Shape, mapped, shifted
from .cutting import clipped_to, stretch_of
from .offcuts import without_offcuts

Side = Literal["outside", "inside"]
SIDE_OF: dict[Role, Side] = {"outside_corner": "outside", "inside_corner": "inside"}
EndWay = Literal["same", "mirror", "turned", "half"]
END_WAYS: tuple[EndWay, ...] = get_args(EndWay)
LEVEL_RAD = np.radians(10)  # chosen: what reaches an edge at less goes on as a band
LAP_MM = 1e-5  # over a bisector: far below what is written, above what the engine rounds, so that halves join without a sliver
LEAST_LEG = 0.05  # of the repeat's length, where overlaps would leave a corner no leg


class Apart(NamedTuple):
    """How far repeats lie from one another, and the first and last of a corner from its piece's edges, mm of the motif.

    Negative where they overlap. A run of separate pieces ends with a frame, so both are the gap; a run of links ends with a joint.
    """

    gap: float = 0.0
    lead: float = 0.0


MEETING = Apart()


def corner_from_repeat(repeat: Motif, side: Side, apart: Apart = MEETING) -> Motif:
    """Return a piece for a right-angled corner: the repeat runs into the corner and is cut on its bisector, the other leg is its mirror.

    The line enters its left edge along the base line and leaves by the bottom edge (outside, the
    turn away from the motif's top) or the top edge (inside). Each leg is at least one repeat long. Both edges are met as the
    repeat's own left edge meets its neighbour.
    """
    h, b = repeat.height, repeat.base_line
    if not 0 <= b <= h:
        raise InputError("the base line lies outside the frame; move it in before making a corner")
    sign = 1.0 if side == "outside" else -1.0
    near, starts = _leg(repeat, apart)
    far = 4 * (near + repeat.width + h)
    # the leg's side of the bisector through the vertex (near, b): (x - near) + sign·(y - b) < 0
    along = np.array([1.0, -sign]) / np.sqrt(2)
    inward = np.array([-1.0, -sign]) / np.sqrt(2)
    vertex = np.array([near, b])
    out, back = (vertex + along * way * far - inward * LAP_MM for way in (1, -1))
    window = np.array([out, out + inward * far, back + inward * far, back])
    outlined = [part for shape in repeat.shapes for part in (stroke_as_shape(shape) if shape.stroke else [shape])]  # once for all repeats
    uncut = [replace(_moved(shape, start), group=k) for start in starts for k, shape in enumerate(outlined)]
    leg = [part for shape in uncut for part in _halved(shape, window, sign, vertex)]
    leg = without_offcuts(leg, uncut, shapely.LineString([back, out]), near - (repeat.width + apart.gap) / 2)
    mirror = np.array([[0.0, -sign, near + sign * b], [-sign, 0.0, b + sign * near]])
    apart_ones = [[part] for part in leg] if apart.gap < 0 else [[p for p in leg if p.group == k] for k in range(len(outlined))]
    shapes = [part for parts in apart_ones for part in _with_mirror(parts, mirror, vertex, sign)]
    return _on_corner_frame(shapes, near, repeat, side)


def goes_on_level(repeat: Motif) -> bool:
    """Tell whether all that reaches a repeat's edges runs along the line there, so that a leg and its mirror image meet as one band."""
    layers = layers_of(repeat)
    slopes = np.concatenate([section_at(layers, x).slopes for x in (JUST_INSIDE_MM, repeat.width - JUST_INSIDE_MM)])
    return len(slopes) > 0 and bool(np.abs(slopes).max() < LEVEL_RAD)


def lapped_corner(repeat: Motif, side: Side, apart: Apart = MEETING) -> Motif:
    """Return a corner piece in which the leg that comes in runs through to the outer edge and the other ends against it.

    Edges and frame are those of ``corner_from_repeat``; the leg that leaves ends with the repeat's right edge.
    """
    h, b = repeat.height, repeat.base_line
    outer, inner = (b, h - b) if side == "outside" else (h - b, b)
    sign = 1.0 if side == "outside" else -1.0
    near, starts = _leg(repeat, apart)
    through = [part for start in starts for part in _cut_to(repeat, start, high=near + outer)]
    pitch, last = repeat.width + apart.gap, near - apart.lead - repeat.width
    back = last - np.arange(int(np.ceil(max(0.0, last - inner) / pitch)) + 1) * pitch
    # (x, v) of the other leg goes to the vertex + x along it + v to its right
    turn = np.array([[0.0, -sign, near + sign * b], [sign, 0.0, b]])
    leaving = [mapped(part, turn) for start in back[::-1] for part in _cut_to(repeat, float(start), low=inner)]
    return _on_corner_frame([*leaving, *through], near, repeat, side)


def corner_across(repeat: Motif, side: Side, apart: Apart = MEETING) -> Motif:
    """Return a corner piece in which the repeat stands over the vertex, turned half-way between the legs, as far as ever from both."""
    w, b = repeat.width, repeat.base_line
    near = max(w / 2 + apart.lead, LEAST_LEG * w)
    angle = np.pi / 4 if side == "outside" else -np.pi / 4
    cos, sin = np.cos(angle), np.sin(angle)
    linear = np.array([[cos, -sin], [sin, cos]])
    matrix = np.column_stack([linear, np.array([near, b]) - linear @ np.array([w / 2, b])])
    return _on_corner_frame([mapped(s, matrix) for s in repeat.shapes], near, repeat, side)


def set_round(repeat: Motif, side: Side, apart: Apart, count: int) -> Motif:
    """Return a corner piece in which ``count`` whole repeats follow one another, as far apart as ever, each turned on from the last.

    Joints half-way between them lie ``repeat.width + gap`` apart; where they meet, and where the runs meet them, the line turns by
    90° / (count + 1).
    """
    pitch, half, base = repeat.width + apart.gap, apart.gap / 2, repeat.base_line
    begins = apart.lead - half
    turns = np.radians(90) * np.arange(1, count + 1) / (count + 1) * (1 if side == "outside" else -1)
    ways = np.column_stack([np.cos(turns), np.sin(turns)])
    joints = np.array([begins, base]) + pitch * np.vstack([np.zeros(2), np.cumsum(ways, axis=0)])
    shapes = []
    for joint, (cos, sin) in zip(joints, ways, strict=False):
        linear = np.array([[cos, -sin], [sin, cos]])
        matrix = np.column_stack([linear, joint - linear @ np.array([-half, base])])
        shapes += [mapped(s, matrix) for s in repeat.shapes]
    return _on_corner_frame(shapes, float(joints[-1, 0]) + begins, repeat, side)


def _leg(repeat: Motif, apart: Apart) -> tuple[float, list[float]]:
    """Return how long a corner's leg is, and where repeats begin on it, the last ones past the vertex as far as the artwork may reach."""
    pitch, lead = repeat.width + apart.gap, apart.lead
    count = max(1, int(np.ceil((repeat.width - lead) / pitch - 1e-9)))
    near = lead + count * pitch
    beyond = int(np.ceil(max(repeat.height, repeat.width) / pitch))
    return near, [lead + k * pitch for k in range(count + beyond)]


def _moved(shape: Shape, dx: float) -> Shape:
    return mapped(shape, np.array([[1.0, 0.0, dx], [0.0, 1.0, 0.0]]))


def _cut_to(repeat: Motif, start: float, *, low: float = -np.inf, high: float = np.inf) -> list[Shape]:
    """Return a repeat's shapes from ``start`` on, of which what lies between two places along the line."""
    a, b = max(low - start, 0.0), min(high - start, repeat.width)
    if b - a <= 1e-9:
        return []
    if a <= 0 and b >= repeat.width:
        return [_moved(shape, start) for shape in repeat.shapes]
    return [_moved(shape, start + a) for shape in stretch_of(repeat, a, b).shapes]


def _on_corner_frame(shapes: Sequence[Shape], near: float, repeat: Motif, side: Side) -> Motif:
    """Put shapes on a corner piece's frame: the line enters on y = the repeat's base line and turns ``near`` mm from the left edge."""
    h, b = repeat.height, repeat.base_line
    lift = 0.0 if side == "outside" else near - b
    reach = b if side == "outside" else h - b
    moved = tuple(replace(mapped(s, np.array([[1.0, 0.0, 0.0], [0.0, 1.0, lift]])), group=0, derived=False) for s in shapes)
    return Motif(moved, near + reach, near + reach, b + lift)


def _with_mirror(parts: list[Shape], mirror: np.ndarray, vertex: np.ndarray, sign: float) -> list[Shape]:
    """Return shapes of one paint on a leg with their mirror images, as one shape where they are flat and several or touch on the bisector,
    so that no hairline shows between.
    """
    every = [*parts, *(mapped(part, mirror) for part in parts)]
    touching = any(((part.points - vertex) @ np.array([1.0, sign])).max() > -1e-3 for part in parts)
    if (len(parts) < 2 and not touching) or not all(s.fill is not None and s.fill.gradient is None and s.stroke is None for s in every):
        return every
    commands, points = combined([(s.commands, s.points, s.fill_rule) for s in every], "join")
    return [replace(every[0], commands=commands, points=points, fill_rule="nonzero")] if commands else []


def _halved(shape: Shape, window: np.ndarray, sign: float, vertex: np.ndarray) -> list[Shape]:
    """Keep what of a shape without a stroke lies on the leg's side of the bisector."""
    depth = (shape.points - vertex) @ np.array([1.0, sign])
    if (depth <= 1e-9).all():
        return [shape]
    if (depth >= -1e-9).all():
        return []
    if shape.picture is not None:
        raise InputError("a picture cannot be mitred; draw the corner or trace the repeat first")
    commands, points = combined([(shape.commands, shape.points, shape.fill_rule), ("MLLLZ", window, "nonzero")], "overlap")
    return [replace(shape, commands=commands, points=points, fill_rule="nonzero")] if commands else []


def end_from_repeat(repeat: Motif, role: Role, way: EndWay) -> Motif:
    """Return a start or end piece: the repeat again, its mirror image, turned half round, or the half of it that meets the run."""
    plain = replace(repeat, recipes=(), cuts=None, joints=None, shapes=tuple(replace(s, group=0, derived=False) for s in repeat.shapes))
    if way in ("mirror", "turned"):
        down = [0.0, 1.0, 0.0] if way == "mirror" else [0.0, -1.0, 2 * repeat.base_line]
        matrix = np.array([[-1.0, 0.0, repeat.width], down])
        turned = replace(plain, shapes=tuple(mapped(s, matrix) for s in plain.shapes))
        lift = 0.0 if way == "mirror" else repeat.height - 2 * repeat.base_line
        return replace(shifted(turned, 0.0, lift), height=repeat.height)
    if way == "half":
        middle = repeat.width / 2
        return clipped_to(plain, middle, repeat.width) if role == "start" else clipped_to(plain, 0.0, middle)
    return plain


def vertex_of(corner: Motif, side: Side) -> np.ndarray:
    """Return where the corner's vertex lies in a corner piece (2,): as far from its far sides as the line from the near ones."""
    far = corner.base_line if side == "outside" else corner.height - corner.base_line
    return np.array([corner.width - far, corner.base_line])
