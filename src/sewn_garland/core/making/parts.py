"""Shape work on the parts of a motif: place, order, group, align, combine, paint."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import replace
from typing import Literal

import numpy as np

from ..artwork.box import box_of
from ..artwork.fills import covered
from ..errors import InputError, LimitError
from ..maths.booleans import Way, combined
from ..values.motif import Gradient, GradientStop, Motif, Paint, Shape, Stroke, mapped, stroke_of

MOST_PARTS = 3_000
MOST_POINTS = 50_000
Align = Literal["left", "middle", "right", "top", "centre", "foot", "on_base_line", "in_frame"]


def chosen(motif: Motif, parts: Sequence[int]) -> list[Shape]:
    """Return the parts of a motif by their places; raises InputError when one is not there or none is named."""
    if not parts:
        raise InputError("choose a part first")
    for part in parts:
        if not 0 <= part < len(motif.shapes):
            raise InputError(f"there is no part {part} in this motif")
    return [motif.shapes[i] for i in sorted(set(parts))]


def with_parts(motif: Motif, parts: Sequence[int], change) -> Motif:
    """Return the motif with a change made to some of its parts."""
    chosen(motif, parts)
    return replace(motif, shapes=tuple(change(s) if i in set(parts) else s for i, s in enumerate(motif.shapes)))


def checked_size(motif: Motif) -> Motif:
    """Return the motif, or raise LimitError when it has more parts or points than one may have."""
    if len(motif.shapes) > MOST_PARTS or motif.points > MOST_POINTS:
        raise LimitError(f"{len(motif.shapes)} parts with {motif.points} points are more than a motif may have "
                         f"({MOST_PARTS} and {MOST_POINTS}); thin it or take fewer steps")  # fmt: skip
    if not motif.shapes:
        raise InputError("nothing would be left; a motif keeps at least one part")
    return motif


def moved(motif: Motif, parts: Sequence[int], dx_mm: float, dy_mm: float) -> Motif:
    """Move parts by mm."""
    return with_parts(motif, parts, lambda s: mapped(s, np.array([[1.0, 0.0, dx_mm], [0.0, 1.0, dy_mm]])))


def transformed(motif: Motif, parts: Sequence[int], *, scale_x: float = 1.0, scale_y: float = 1.0, turn_deg: float = 0.0,
                about_mm: Sequence[float] | None = None) -> Motif:  # fmt: skip
    """Scale, then turn parts clockwise about a point (default: the middle of their box). Negative scales mirror."""
    if scale_x == 0 or scale_y == 0:
        raise InputError("a part scaled to nothing would be lost; take a size above 0")
    left, top, right, bottom = box_of(chosen(motif, parts))
    centre = np.array(about_mm if about_mm is not None else ((left + right) / 2, (top + bottom) / 2))
    cos, sin = np.cos(np.radians(turn_deg)), np.sin(np.radians(turn_deg))
    linear = np.array([[cos, -sin], [sin, cos]]) @ np.diag([scale_x, scale_y])
    return with_parts(motif, parts, lambda s: mapped(s, np.column_stack([linear, centre - linear @ centre])))


def duplicated(motif: Motif, parts: Sequence[int], *, dx_mm: float = 0.0, dy_mm: float = 0.0, copies: int = 1, turn_deg: float = 0.0,
               scale: float = 1.0, about_mm: Sequence[float] | None = None) -> Motif:  # fmt: skip
    """Put copies of parts on top, each moved, turned and scaled once more than the one before."""
    own = [replace(s, derived=False, group=0) for s in chosen(motif, parts)]
    if abs(np.log10(scale)) * copies > 3:
        word = "smaller" if scale < 1 else "larger"
        raise InputError(f"the last of {copies} copies would be more than a thousand times {word}; make fewer")
    left, top, right, bottom = box_of(own)
    centre = np.array(about_mm if about_mm is not None else ((left + right) / 2, (top + bottom) / 2))
    out = list(motif.shapes)
    for k in range(1, copies + 1):
        cos, sin = np.cos(np.radians(turn_deg * k)), np.sin(np.radians(turn_deg * k))
        linear = np.array([[cos, -sin], [sin, cos]]) * scale**k
        matrix = np.column_stack([linear, centre - linear @ centre + (dx_mm * k, dy_mm * k)])
        out += [mapped(s, matrix) for s in own]
    return checked_size(replace(motif, shapes=tuple(out)))


def removed(motif: Motif, parts: Sequence[int]) -> Motif:
    """Take parts away; the last one stays."""
    chosen(motif, parts)
    return checked_size(replace(motif, shapes=tuple(s for i, s in enumerate(motif.shapes) if i not in set(parts))))


def ordered(motif: Motif, parts: Sequence[int], to: Literal["front", "forward", "backward", "back"]) -> Motif:
    """Bring parts over or under the others, keeping their own order."""
    chosen(motif, parts)
    order, picked = list(range(len(motif.shapes))), sorted(set(parts))
    if to in ("front", "back"):
        rest = [i for i in order if i not in picked]
        order = rest + picked if to == "front" else picked + rest
    else:
        step = 1 if to == "forward" else -1
        for i in sorted(picked, reverse=to == "forward"):
            at = order.index(i)
            if 0 <= at + step < len(order) and order[at + step] not in picked:
                order[at], order[at + step] = order[at + step], order[at]
    return replace(motif, shapes=tuple(motif.shapes[i] for i in order))


def free_group(motif: Motif) -> int:
    """Return a group number that no part has yet."""
    return 1 + max((s.group for s in motif.shapes), default=0)


def grouped(motif: Motif, parts: Sequence[int]) -> Motif:
    """Make parts one group, so that they are chosen together."""
    group = free_group(motif)
    return with_parts(motif, parts, lambda s: replace(s, group=group, derived=False))


def ungrouped(motif: Motif, parts: Sequence[int]) -> Motif:
    """Let the groups of parts go, and with them the recipes they were made by; what was derived stays as plain parts."""
    groups = {s.group for s in chosen(motif, parts)} - {0}
    shapes = tuple(replace(s, group=0, derived=False) if s.group in groups else s for s in motif.shapes)
    return replace(motif, shapes=shapes, recipes=tuple(r for r in motif.recipes if r.group not in groups))


def aligned(motif: Motif, parts: Sequence[int], to: Align) -> Motif:
    """Align parts: several to their common box, one to the frame; or centre them together on the base line or in the frame."""
    left, top, right, bottom = box_of(chosen(motif, parts))
    if to in ("on_base_line", "in_frame"):
        dx = motif.width / 2 - (left + right) / 2 if to == "in_frame" else 0.0
        dy = (motif.height / 2 if to == "in_frame" else motif.base_line) - (top + bottom) / 2
        return moved(motif, parts, dx, dy)
    box = (0.0, 0.0, motif.width, motif.height) if len(set(parts)) == 1 else (left, top, right, bottom)

    def change(shape: Shape) -> Shape:
        own = box_of([shape])
        dx = {"left": box[0] - own[0], "middle": (box[0] + box[2] - own[0] - own[2]) / 2, "right": box[2] - own[2]}.get(to, 0.0)
        dy = {"top": box[1] - own[1], "centre": (box[1] + box[3] - own[1] - own[3]) / 2, "foot": box[3] - own[3]}.get(to, 0.0)
        return mapped(shape, np.array([[1.0, 0.0, dx], [0.0, 1.0, dy]]))

    return with_parts(motif, parts, change)


def combined_parts(motif: Motif, parts: Sequence[int], way: Way) -> Motif:
    """Join, cut out, overlap or exclude parts; the lowest one gives the paint and is cut by the others. Curves stay curves."""
    own = chosen(motif, parts)
    if len(own) < 2:
        raise InputError("choose at least two parts to combine")
    if any(s.picture is not None for s in own):
        raise InputError("a picture cannot be combined with shapes; trace it first")
    commands, points = combined([covered(s) for s in own], way)
    if not commands:
        raise InputError("nothing would be left: these parts do not overlap so")
    first = min(parts)
    paint = own[0].fill or stroke_of(own[0]).paint
    made = replace(own[0], commands=commands, points=points, fill=paint, fill_rule="nonzero", stroke=None, group=0, derived=False)
    shapes = [made if i == first else s for i, s in enumerate(motif.shapes) if i == first or i not in set(parts)]
    return replace(motif, shapes=tuple(shapes))


def painted(
    motif: Motif, parts: Sequence[int], *, fill: str | None = None, fill_opacity: float | None = None, stroke: str | None = None,
    stroke_width_mm: float | None = None, stroke_opacity: float | None = None, cap: str | None = None, join: str | None = None,
) -> Motif:  # fmt: skip
    """Set flat paints; "none" takes a fill or stroke away, what is not given stays. A part keeps at least one paint."""

    def change(shape: Shape) -> Shape:
        own_fill = _flat(shape.fill, fill, fill_opacity)
        own = shape.stroke
        paint = _flat(own and own.paint, stroke, stroke_opacity)
        if paint is not None and own is None:
            own = Stroke(paint, stroke_width_mm or 0.5, cap or "round", join or "round")
        if own is not None and paint is not None:
            own = replace(own, paint=paint, width=stroke_width_mm or own.width, cap=cap or own.cap, join=join or own.join)
        own = own if paint is not None else None
        if own_fill is None and own is None and shape.picture is None:
            raise InputError("a part needs a fill or a stroke to be seen; delete it instead")
        return replace(shape, fill=own_fill, stroke=own)

    return with_parts(motif, parts, change)


def _flat(paint: Paint | None, colour: str | None, opacity: float | None) -> Paint | None:
    if colour == "none":
        return None
    if colour is not None:
        paint = Paint(colour, paint.opacity if paint else 1.0)
    return paint if paint is None or opacity is None else replace(paint, opacity=opacity)


def with_gradient(
    motif: Motif, parts: Sequence[int], *, kind: Literal["linear", "radial"], stops: Sequence[Mapping[str, float | str]],
    angle_deg: float = 90.0, centre_x_pct: float = 50.0, centre_y_pct: float = 50.0,
) -> Motif:  # fmt: skip
    """Fill each part with a gradient over its own box.

    A linear one runs across the box in the direction of ``angle_deg`` (clockwise from the right);
    a radial one from (``centre_x_pct``, ``centre_y_pct`` of the box) to the farthest corner.
    """
    if len(stops) < 2:
        raise InputError("a gradient needs at least two colours")
    made = tuple(
        GradientStop(float(s["offset"]), str(s["colour"]), float(s.get("opacity", 1.0))) for s in sorted(stops, key=lambda s: s["offset"])
    )

    def change(shape: Shape) -> Shape:
        if shape.picture is not None:
            raise InputError("a picture has no fill; put a shape over it")
        left, top, right, bottom = box_of([replace(shape, stroke=None)])
        w, h = right - left, bottom - top
        if kind == "linear":
            cos, sin = np.cos(np.radians(angle_deg)), np.sin(np.radians(angle_deg))
            reach = (abs(w * cos) + abs(h * sin)) / 2 or 1e-3
            middle = np.array([(left + right) / 2, (top + bottom) / 2])
            along = np.array([cos, sin]) * reach
            (a, b), (e, f) = (2 * along).tolist(), (middle - along).tolist()
            matrix = (a, b, -b, a, e, f)
        else:
            cx, cy = left + w * centre_x_pct / 100, top + h * centre_y_pct / 100
            r = max(float(np.hypot(x - cx, y - cy)) for x in (left, right) for y in (top, bottom)) or 1e-3
            matrix = (r, 0.0, 0.0, r, cx, cy)
        gradient = Gradient(kind, matrix, made)
        return replace(shape, fill=Paint(made[len(made) // 2].colour, 1.0, gradient))

    return with_parts(motif, parts, change)


def named(motif: Motif, parts: Sequence[int], name: str) -> Motif:
    """Name parts."""
    return with_parts(motif, parts, lambda s: replace(s, name=name))


def with_part_added(motif: Motif, shape: Shape) -> Motif:
    """Lay a new part on top."""
    return checked_size(replace(motif, shapes=(*motif.shapes, shape)))
