"""Every change that can be made to a motif, by name: the one table that the app and scripts go by."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import replace
from typing import Any, NamedTuple

from ..artwork.fills import stroke_as_shape
from ..errors import InputError
from ..values.motif import Motif, Shape
from . import best_cuts, cutting, framing, interlocking, live, nodes, rims, shading, weight
from . import parts as shape_work


class Edit(NamedTuple):
    """A change, what it is called in the list of steps, and whether a starter keeps its figures under it."""

    change: Callable[..., Motif]
    label: str
    keeps_figures: bool = False


def edited(motif: Motif, name: str, figures: dict[str, Any]) -> Motif:
    """Make one change and everything that follows from it; raises InputError naming what is wrong."""
    if name not in EDITS:
        raise InputError(f"there is no change “{name[:40]}”")
    edit = EDITS[name]
    if not edit.keeps_figures:
        motif = live.without_starters(motif, figures.get("parts", range(len(motif.shapes)) if "part" not in figures else [figures["part"]]))
    return live.remade(shape_work.checked_size(edit.change(motif, **figures)))


def _each(change: Callable[..., Shape]) -> Callable[..., Motif]:
    """Return the change of a motif that changes each of its chosen parts."""
    return lambda motif, parts, **figures: shape_work.with_parts(motif, parts, lambda s: change(s, **figures))


def _by_points(change: Callable[..., Shape]) -> Callable[..., Motif]:
    """Return the change of a motif that changes one part by its points."""

    def made(motif: Motif, part: int, **figures) -> Motif:
        if shape_work.chosen(motif, [part])[0].derived:
            raise InputError("this part is made from others; change those, or let its group go first")
        return shape_work.with_parts(motif, [part], lambda s: change(s, **figures))

    return made


def _strokes_as_shapes(motif: Motif, parts: list[int]) -> Motif:
    shape_work.chosen(motif, parts)
    shapes = [s for i, shape in enumerate(motif.shapes) for s in (stroke_as_shape(shape) if i in set(parts) else [shape])]
    return replace(motif, shapes=tuple(shapes))


def _backed(motif: Motif, parts: list[int], **figures) -> Motif:
    own = shape_work.chosen(motif, parts)
    back = replace(shading.backing(own, **figures), lies=own[0].lies)
    at = min(parts)
    return replace(motif, shapes=(*motif.shapes[:at], back, *motif.shapes[at:]))


def _lit(motif: Motif, parts: list[int], **figures) -> Motif:
    """Light each part on its own, right above it, so that every ring is lit on the same side."""
    shape_work.chosen(motif, parts)
    out: list[Shape] = []
    for i, shape in enumerate(motif.shapes):
        out.append(shape)
        light = shading.light_on(shape, **figures) if i in set(parts) and shape.picture is None else None
        if light is not None:
            out.append(replace(light, group=0, derived=False))
    if len(out) == len(motif.shapes):
        raise InputError("the light falls on nothing; take it narrower or nearer to the edge")
    return replace(motif, shapes=tuple(out))


def _base_line(motif: Motif, base_line_mm: float) -> Motif:
    return replace(motif, base_line=base_line_mm)


def _cuts(motif: Motif, cuts_mm: list[float] | None) -> Motif:
    if cuts_mm is not None and cuts_mm[1] - cuts_mm[0] < 0.05:
        raise InputError("the cuts are crossed over; the left one must lie left of the right one")
    return replace(motif, cuts=cuts_mm and (float(cuts_mm[0]), float(cuts_mm[1])))


def _joints(motif: Motif, joints_mm: list[list[float]] | None) -> Motif:
    if joints_mm is not None and joints_mm[0][0] >= joints_mm[1][0]:
        raise InputError("the left joint must lie left of the right one")
    return replace(motif, joints=joints_mm and tuple((float(x), float(y)) for x, y in joints_mm))


def _best_cut(motif: Motif) -> Motif:
    found = best_cuts.best_cut(replace(motif, cuts=None))
    return replace(motif, cuts=(round(float(found.left), 4), round(float(found.right), 4)))


def _kept_between(motif: Motif) -> Motif:
    if motif.cuts is None:
        raise InputError("there are no cuts yet; pull the two tapes onto the drawing first")
    return cutting.clipped_to(motif, *motif.cuts)


def _resized(motif: Motif, width_mm: float) -> Motif:
    made, told = framing.resized(motif, width_mm)
    return replace(made, left_out=(*motif.left_out, *told))


EDITS: dict[str, Edit] = {
    "move": Edit(shape_work.moved, "move", True),
    "transform": Edit(shape_work.transformed, "scale or turn"),
    "duplicate": Edit(shape_work.duplicated, "duplicate", True),
    "remove": Edit(shape_work.removed, "delete"),
    "order": Edit(shape_work.ordered, "bring over or under", True),
    "group": Edit(shape_work.grouped, "group"),
    "ungroup": Edit(shape_work.ungrouped, "let go the group"),
    "align": Edit(shape_work.aligned, "align", True),
    "combine": Edit(shape_work.combined_parts, "combine"),
    "lie": Edit(interlocking.lying, "lie over or under", True),
    "outline": Edit(_strokes_as_shapes, "stroke to shape"),
    "thin": Edit(_each(rims.thinned), "thin"),
    "fray": Edit(_each(rims.frayed), "fray"),
    "paint": Edit(shape_work.painted, "paint", True),
    "gradient": Edit(shape_work.with_gradient, "gradient", True),
    "name": Edit(shape_work.named, "name", True),
    "back": Edit(_backed, "back", True),
    "light": Edit(_lit, "light", True),
    "mirror": Edit(live.with_mirror, "mirror live"),
    "soft_edge": Edit(live.with_soft_edge, "soft edge"),
    "dense_to_clear": Edit(live.with_dense_to_clear, "dense to clear"),
    "figures": Edit(live.with_figures, "figures", True),
    "starter": Edit(live.with_starter_added, "starter", True),
    "add": Edit(shape_work.with_part_added, "draw", True),
    "move_nodes": Edit(_by_points(nodes.with_nodes_moved), "move points"),
    "handle": Edit(_by_points(nodes.with_handle_at), "pull a handle"),
    "flow": Edit(_by_points(nodes.with_nodes_flowing), "flowing or pointed"),
    "add_node": Edit(_by_points(nodes.with_node_added), "add a point"),
    "remove_nodes": Edit(_by_points(nodes.with_nodes_removed), "remove points"),
    "squash": Edit(_by_points(nodes.with_nodes_squashed), "squash points"),
    "frame": Edit(framing.framed, "frame", True),
    "base_line": Edit(_base_line, "base line", True),
    "trim": Edit(framing.trimmed, "trim", True),
    "turn": Edit(framing.turned, "turn"),
    "resize": Edit(_resized, "resize"),
    "cuts": Edit(_cuts, "cuts", True),
    "joints": Edit(_joints, "joints", True),
    "best_cut": Edit(_best_cut, "best cut", True),
    "lighten": Edit(weight.with_lighter_pictures, "lighter picture", True),
    "darn": Edit(cutting.darned, "darn the seam"),
    "keep_between": Edit(_kept_between, "keep what lies between the cuts"),
}  # fmt: skip
