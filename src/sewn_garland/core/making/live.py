"""Recipes that stay live: a starter's figures, a mirrored half, a graded soft edge.

A group's derived shapes are made anew from its own shapes whenever those change.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import replace

import numpy as np

from ..artwork.box import box_of
from ..errors import InputError
from ..values.motif import Motif, Paint, Recipe, Shape, fill_of, mapped
from .parts import checked_size, chosen, duplicated, free_group
from .soft_edge import Grading, graded
from .starters import EDGE_NAME, LATER, motif_from_starter, starter_named

DENSEST = 0.2  # chosen: how much of a shape its densest place has, each way, when it is to fade to its rim


def remade(motif: Motif) -> Motif:
    """Make every derived shape anew and let go of recipes whose group is gone."""
    groups = {s.group for s in motif.shapes if not s.derived}
    motif = replace(
        motif, recipes=tuple(r for r in motif.recipes if r.group in groups),
        shapes=tuple(s for s in motif.shapes if not s.derived or s.group in groups),
    )  # fmt: skip
    for recipe in motif.recipes:
        if recipe.kind != "starter":
            motif = _remade_group(motif, recipe)
    return checked_size(motif)


def _remade_group(motif: Motif, recipe: Recipe) -> Motif:
    own = [s for s in motif.shapes if s.group == recipe.group and not s.derived]
    if recipe.kind == "soft_edge":
        own, derived, recipe = _graded_group(recipe, own)
        motif = replace(motif, recipes=tuple(recipe if r.group == recipe.group else r for r in motif.recipes))
    else:
        derived = {len(own): _mirrored(motif, recipe, own)}
    out: list[Shape] = []
    seen = 0
    for shape in motif.shapes:
        if shape.group != recipe.group:
            out.append(shape)
        elif not shape.derived:
            out.append(own[seen])
            seen += 1
            out += derived.get(seen, [])
    return replace(motif, shapes=tuple(out))


def _mirrored(motif: Motif, recipe: Recipe, own: list[Shape]) -> list[Shape]:
    left_right = recipe.figure("side") == "left_right"
    at = motif.width / 2 if left_right else motif.base_line
    matrix = np.array([[-1.0, 0.0, 2 * at], [0.0, 1.0, 0.0]]) if left_right else np.array([[1.0, 0.0, 0.0], [0.0, -1.0, 2 * at]])
    return [replace(mapped(s, matrix), derived=True) for s in own]


def _wanted_covers(recipe: Recipe, own: list[Shape]) -> list[float]:
    """Return what each shape is wanted to cover: as the recipe keeps it, unless the shape was painted anew since."""
    figures = dict(recipe.figures)
    kept = [(figures.get(f"own_{k}"), figures.get(f"cover_{k}")) for k in range(len(own))]
    return [
        float(cover)
        if cover is not None and carried is not None and abs(fill_of(s).opacity - float(carried)) < 1e-4
        else fill_of(s).opacity
        for s, (carried, cover) in zip(own, kept, strict=True)
    ]


def _covering(shape: Shape, opacity: float) -> Shape:
    return replace(shape, fill=replace(fill_of(shape), opacity=opacity))


def _graded_group(recipe: Recipe, own: list[Shape]) -> tuple[list[Shape], dict[int, list[Shape]], Recipe]:
    """Return a soft edge's own shapes with the covers they must carry, its steps by how many of them lie below, and its recipe."""
    if len(own) < 2 or any(s.fill is None for s in own):
        return own, {}, recipe
    steps = int(recipe.figure("steps"))
    covers = _wanted_covers(recipe, own)
    wanted = [_covering(s, c) for s, c in zip(own, covers, strict=True)]
    found = graded(wanted, steps=steps or None)
    out, at = {}, 0
    for k in range(1, len(own)):
        count = found.counts[k - 1]
        out[k] = [replace(s, group=recipe.group, derived=True) for s in found.shapes[at : at + count]]
        at += count
    carried = [round(c, 4) for c in found.own_covers]
    figures = {"steps": float(steps)}
    for k, (cover, own_cover) in enumerate(zip(covers, carried, strict=True)):
        figures |= {f"cover_{k}": cover, f"own_{k}": own_cover}
    shapes = [_covering(s, c) for s, c in zip(own, carried, strict=True)]
    return shapes, out, replace(recipe, figures=tuple(figures.items()))


def with_mirror(motif: Motif, parts: Sequence[int], side: str) -> Motif:
    """Mirror parts live about the frame's middle (left_right) or the base line (up_down)."""
    chosen(motif, parts)
    group = free_group(motif)
    shapes = tuple(replace(s, group=group, derived=False) if i in set(parts) else s for i, s in enumerate(motif.shapes))
    return replace(motif, shapes=shapes, recipes=(*motif.recipes, Recipe(group, "mirror", (("side", side),))))


def with_soft_edge(motif: Motif, parts: Sequence[int], steps: int) -> Motif:
    """Grade between nested parts, from the lowest to the highest; ``steps`` 0 takes the fewest that cannot be seen."""
    own = chosen(motif, parts)
    graded(own, steps=steps or None)  # says what is wrong before anything changes
    group = free_group(motif)
    lowest = min(parts)
    inside = [replace(s, group=group, derived=False) for s in own]
    shapes = [s for i, s in enumerate(motif.shapes) if i not in set(parts)]
    at = sum(1 for i in range(lowest) if i not in set(parts))
    shapes[at:at] = inside
    return replace(motif, shapes=tuple(shapes), recipes=(*motif.recipes, Recipe(group, "soft_edge", (("steps", float(steps)),))))


def with_dense_to_clear(motif: Motif, parts: Sequence[int]) -> Motif:
    """Let each part fade from what it covers in its middle to nothing at its rim, in the fewest steps that cannot be seen."""
    for part in sorted(set(parts), reverse=True):  # from the top, for what is put inside one moves those above it
        motif = _faded(motif, part)
    return motif


def _faded(motif: Motif, part: int) -> Motif:
    rim = chosen(motif, [part])[0]
    if rim.fill is None or rim.picture is not None:
        raise InputError("a soft edge runs in a filled shape; give this one a fill")
    plain = replace(rim, fill=Paint(rim.fill.colour, rim.fill.opacity), stroke=None, group=0, derived=False)
    densest = duplicated(replace(motif, shapes=(plain,)), [0], scale=DENSEST).shapes[1]
    shapes = (*motif.shapes[:part], _covering(plain, 0.0), densest, *motif.shapes[part + 1 :])
    return with_soft_edge(replace(motif, shapes=shapes), [part, part + 1], 0)


def grading_of(motif: Motif, group: int) -> Grading | None:
    """Return what a group's soft edge costs; None when it has none."""
    recipe = motif.recipe_of(group)
    own = [s for s in motif.shapes if s.group == group and not s.derived]
    if recipe is None or recipe.kind != "soft_edge" or len(own) < 2:
        return None
    wanted = [_covering(s, c) for s, c in zip(own, _wanted_covers(recipe, own), strict=True)]
    return graded(wanted, steps=int(recipe.figure("steps")) or None)


def with_figures(motif: Motif, group: int, figures: Mapping[str, float]) -> Motif:
    """Set a recipe's figures: a starter is drawn anew in its place, a soft edge graded anew.

    A motif that is only its starter takes the new frame too.
    """
    recipe = motif.recipe_of(group)
    if recipe is None:
        raise InputError("this part has no figures any more; it was changed by hand")
    if recipe.kind != "starter":
        changed = replace(recipe, figures=tuple({**dict(recipe.figures), **{k: float(v) for k, v in figures.items()}}.items()))
        return replace(motif, recipes=tuple(changed if r.group == group else r for r in motif.recipes))
    kept = dict(recipe.figures)
    name = str(kept.pop("starter"))
    known = {key: LATER[key] for key in (f.name for f in starter_named(name).figures) if key in LATER} | {
        key: float(value) for key, value in kept.items()
    }
    old = [s for s in motif.shapes if s.group == group]
    new = motif_from_starter(name, {**known, **figures}, colour=old[-1].fill and old[-1].fill.colour)
    before = motif_from_starter(name, known)
    shift = np.array(box_of(old)[:2]) - np.array(box_of(before.shapes)[:2])
    matrix = np.array([[1.0, 0.0, shift[0]], [0.0, 1.0, shift[1]]])
    made = [_painted_as(replace(mapped(s, matrix), group=group), old) for s in new.shapes]
    at = next(i for i, s in enumerate(motif.shapes) if s.group == group)
    shapes = [s for s in motif.shapes if s.group != group]
    shapes[at:at] = made
    recipes = tuple(replace(new.recipes[0], group=group) if r.group == group else r for r in motif.recipes)
    alone = len(old) == len(motif.shapes) and np.abs(shift).max() < 1e-3  # what is kept is rounded
    frame = {"width": new.width, "height": new.height, "base_line": new.base_line, "joints": new.joints} if alone else {}
    return replace(motif, shapes=tuple(shapes), recipes=recipes, **frame)


def _painted_as(shape: Shape, old: list[Shape]) -> Shape:
    """Paint and lay a starter's shape as the old one of its name; renamed ones as the topmost, but an edge, which has its own shade."""
    known = next((s for s in old if s.name == shape.name), None if shape.name.endswith(EDGE_NAME) else old[-1])
    return shape if known is None else replace(shape, fill=known.fill, stroke=known.stroke, name=known.name, lies=known.lies)


def with_starter_added(motif: Motif, starter: str, figures: Mapping[str, float], x_mm: float, y_mm: float, colour: str | None) -> Motif:
    """Lay a starter on top, its frame's middle at (x_mm, y_mm)."""
    new = motif_from_starter(starter, figures, colour=colour)
    group = free_group(motif)
    matrix = np.array([[1.0, 0.0, x_mm - new.width / 2], [0.0, 1.0, y_mm - new.height / 2]])
    shapes = (*motif.shapes, *(replace(mapped(s, matrix), group=group) for s in new.shapes))
    return checked_size(replace(motif, shapes=shapes, recipes=(*motif.recipes, replace(new.recipes[0], group=group))))


def without_starters(motif: Motif, parts: Sequence[int]) -> Motif:
    """Let go of the figures of starters whose parts are changed by hand."""
    groups = {motif.shapes[i].group for i in parts if 0 <= i < len(motif.shapes)}
    return replace(motif, recipes=tuple(r for r in motif.recipes if r.kind != "starter" or r.group not in groups))
