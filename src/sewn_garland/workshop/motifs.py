"""Motifs: brought in, begun, changed, deleted."""

from __future__ import annotations

from dataclasses import replace

import numpy as np
from sqlmodel import Session, select

from ..core.drawing.line_path import path_data_from_line
from ..core.drawing.svg import motif_svg
from ..core.errors import InputError
from ..core.making.edits import EDITS, edited
from ..core.making.framing import trimmed
from ..core.making.starters import STARTERS, motif_from_starter
from ..core.measuring.smoothing import line_from_hand
from ..core.reading.path_data import subpaths_from_path_data
from ..core.reading.svg_motif import motif_from_svg, outline_from_subpaths
from ..core.values.motif import Motif, Paint, Shape, Stroke
from ..store import tables
from ..store.history import Change, NotFound, make_step
from .parked import parked, whole
from .pictures import FoundRepeat, cut_found_in, darned_motif, only_picture, repeat_in
from .rows import all_ids, motif_of, named, numbered, row_of


def motif_values(session: Session, motif: Motif) -> dict:
    """Return what is kept of a motif; its larger pictures are parked on the way."""
    values = plain_values(motif)
    return {**values, "svg": parked(session, values["svg"])}


def plain_values(motif: Motif) -> dict:
    """Return what there is to keep of a motif, its pictures where they are."""
    return {
        "svg": motif_svg(motif), "base_line_mm": float(motif.base_line), "left_out": list(motif.left_out),
        "cuts_mm": motif.cuts and list(motif.cuts), "joints_mm": motif.joints and [list(j) for j in motif.joints],
    }  # fmt: skip


def keep(
    session: Session, name: str, motif: Motif, label: str, *, anew: tuple[int, int] | None = None, picture: dict | None = None
) -> tables.Motif:
    """Keep a new motif as a step of its own, or ``anew`` in the place of one, by its id and version; with what is known of the
    ``picture`` it was made of.
    """
    own_id, version = anew or (None, None)
    return _kept(session, label, Change("motif", own_id, motif_values(session, motif) | {"name": name, "picture": picture}, version))


def bring_in(session: Session, name: str, svg: str, *, trim: bool) -> tables.Motif:
    """Bring in an SVG as a motif, its frame cut down to the ink where asked."""
    motif = motif_from_svg(svg, where=name)
    return keep(session, name, trimmed(motif, where=name, keep_base=False) if trim else motif, f"bring in {name}")


def duplicate(session: Session, motif_id: int) -> tables.Motif:
    """Keep a copy of a motif under the next name that is free, cuts, joints, recipes and all."""
    row = row_of(session, "motif", motif_id)
    name = numbered(row.name, _names(session))
    return keep(session, name, motif_of(session, row), f"duplicate {row.name}", picture=row.picture)


def begin_with_starter(session: Session, starter: str, figures: dict[str, float], name: str | None = None) -> tables.Motif:
    """Begin a motif with a starter."""
    motif = motif_from_starter(starter, figures)
    name = name or _free_name(session, STARTERS[starter].name)
    return keep(session, name, motif, f"begin {name}")


def begin_with_stroke(session: Session, stroke: dict, name: str | None = None) -> tables.Motif:
    """Begin a motif with a stroke drawn by hand."""
    motif = trimmed(Motif((_drawn(stroke),), 1.0, 1.0, 0.5))
    name = name or _free_name(session, "Drawing")
    return keep(session, name, replace(motif, base_line=motif.height / 2), f"begin {name}")


def rename(session: Session, motif_id: int, version: int, name: str) -> tables.Motif:
    """Give a motif another name."""
    row = row_of(session, "motif", motif_id)
    return _kept(session, f"rename {row.name}", Change("motif", motif_id, {"name": name}, version))


def edit(
    session: Session, motif_id: int, version: int, op: str, figures: dict, *, label: str | None = None, merge_key: str = ""
) -> tables.Motif:
    """Change a motif's artwork, frame, cuts or joints, by a change's name and figures."""
    row = row_of(session, "motif", motif_id)
    values = motif_values(session, changed_motif(motif_of(session, row), op, figures))
    label = label or f"{_label_of(op)}: {row.name}"
    return _kept(session, label, Change("motif", motif_id, values, version), merge_key=merge_key)


def changed_motif(motif: Motif, op: str, figures: dict) -> Motif:
    """Return a motif under a change, by its name and figures."""
    if op == "draw":
        return edited(motif, "add", {"shape": _drawn(figures)})
    if op == "darn" and only_picture(motif) is not None:
        return darned_motif(motif, figures["width_mm"])
    if op == "darn":
        return edited(motif, "darn", {})
    if op == "cut_to_length" or (op == "best_cut" and only_picture(motif) is not None):
        cuts, _ = cut_found_in(replace(motif, cuts=None), length_mm=figures.get("length_mm"))
        return replace(motif, cuts=cuts)
    return edited(motif, op, figures)


def found_repeat(session: Session, motif_id: int) -> FoundRepeat:
    """Return the length after which a motif's artwork repeats."""
    return repeat_in(replace(motif_of(session, row_of(session, "motif", motif_id)), cuts=None))


def picture_of(session: Session, motif_id: int, place: int) -> bytes:
    """Return the PNG of the shape at a place of a motif; raises NotFound where there is none."""
    shapes = motif_of(session, row_of(session, "motif", motif_id)).shapes
    picture = shapes[place].picture if place < len(shapes) else None
    if picture is None:
        raise NotFound("motif")
    return picture.png


def svg_of(session: Session, motif_id: int) -> str:
    """Return a motif as an SVG file."""
    return whole(session, row_of(session, "motif", motif_id).svg)


def delete(session: Session, motif_id: int, version: int) -> None:
    """Delete a motif; raises InputError while a brush uses it."""
    row = row_of(session, "motif", motif_id)
    users = [b for b in session.exec(select(tables.Brush)).all() if motif_id in all_ids(b)]
    if users:
        raise InputError(f"{row.name} is used by {named(users)}; delete or change that first")
    make_step(session, f"delete {row.name}", [Change("motif", motif_id, None, version)])


def _kept(session: Session, label: str, wanted: Change, *, merge_key: str = "") -> tables.Motif:
    """Make a change of one motif as a step; return it as it is then."""
    (after,) = make_step(session, label, [wanted], merge_key=merge_key)
    assert after is not None
    return tables.Motif(**after)


def _free_name(session: Session, stem: str) -> str:
    taken = _names(session)
    return numbered(stem, taken) if stem in taken else stem


def _names(session: Session) -> set[str]:
    return set(session.exec(select(tables.Motif.name)))


def _label_of(op: str) -> str:
    return {"draw": "draw", "cut_to_length": "cut to a repeat"}.get(op) or EDITS[op].label


def _drawn(stroke: dict) -> Shape:
    """Return a hand-drawn stroke as a part: smoothed as lines on a page are."""
    line = line_from_hand(np.array(stroke["points"], float), straight=stroke["straight"])
    if not len(line.coeffs):
        raise InputError("the stroke has no length; draw a little further")
    commands, points = outline_from_subpaths(subpaths_from_path_data(path_data_from_line(line)))
    if stroke["closed"]:
        return Shape(commands + "Z", points, Paint(stroke["colour"]), name="Drawn")
    return Shape(commands, points, None, stroke=Stroke(Paint(stroke["colour"]), stroke["width_mm"], "round", "round"), name="Drawn")
