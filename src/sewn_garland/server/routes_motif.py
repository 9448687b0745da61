"""The Motif station: make and change artwork, cut it for the repeat, give it its place in a brush."""

from __future__ import annotations

from collections.abc import Callable, Iterable
from dataclasses import replace

import numpy as np
from flask import Response, current_app
from flask_openapi import APIBlueprint
from pydantic import BaseModel, ConfigDict, Field
from sqlmodel import Session, select

from ..core.corner_proposals import CORNER_WAYS, corner_made, corner_proposals, gap_of, on_a_corner
from ..core.drawing.line_path import path_data_from_line
from ..core.drawing.svg import motif_svg
from ..core.errors import InputError
from ..core.making.borders import arrangement_of, in_arrangement
from ..core.making.corners import END_WAYS, end_from_repeat
from ..core.making.cutting import cut_in_three
from ..core.making.edits import EDITS, edited
from ..core.making.framing import trimmed
from ..core.making.starters import STARTERS, motif_from_starter
from ..core.measuring.smoothing import line_from_hand
from ..core.picture_pipeline import cut_found_in, darned_motif, only_picture, repeat_in
from ..core.placing.rigid import matrices_of
from ..core.reading.path_data import subpaths_from_path_data
from ..core.reading.svg_motif import motif_from_svg, outline_from_subpaths
from ..core.sampler import sample_of
from ..core.values.brush import Role
from ..core.values.motif import Motif, Paint, Shape, Stroke
from ..store import tables
from ..store.history import Change, NotFound, make_step
from .edit_messages import Draw, Edit
from .messages import BrushMessage, IdPath, InkQuery, MotifMessage, NewMotif, RowId, Settings, VersionQuery
from .motif_messages import (
    BorderChange,
    BorderMessage,
    Divide,
    FigureMessage,
    FoundRepeatMessage,
    MakePiece,
    MotifBench,
    MotifDraft,
    MotifEdit,
    NewFromStarter,
    NewFromStroke,
    PiecesChange,
    ProposalMessage,
    ProposalPath,
    ProposalsMessage,
    RenameMotif,
    SampledPieceMessage,
    SampleMessage,
    SlotMessage,
    StarterMessage,
    Starters,
)  # fmt: skip
from .motif_views import bench_of, motif_message, piece_message
from .parked_pictures import parked, whole
from .scenes import Overtaken
from .workshop import brush_message, ids_by_role, laid_ids, motif_of, piece_of, repeat_alone, row_of, sent, store

api = APIBlueprint("motif", __name__, url_prefix="/api")


class NamePath(BaseModel):
    model_config = ConfigDict(extra="forbid")

    id: RowId
    place: int = Field(ge=0, le=100_000)


def motif_values(session: Session, motif: Motif) -> dict:
    """Return what is kept of a motif; its larger pictures are parked on the way."""
    return {
        "svg": parked(session, motif_svg(motif)), "base_line_mm": float(motif.base_line), "left_out": list(motif.left_out),
        "cuts_mm": motif.cuts and list(motif.cuts), "joints_mm": motif.joints and [list(j) for j in motif.joints],
    }  # fmt: skip


def keep_motif(session: Session, name: str, motif: Motif, label: str) -> tables.Motif:
    """Keep a new motif as a step of its own."""
    return tables.Motif(**make_step(session, label, [Change("motif", None, motif_values(session, motif) | {"name": name})])[0])


@api.post("/motifs", responses={201: MotifMessage}, summary="Bring in an SVG as a motif")
def bring_in_motif(body: NewMotif):
    motif = motif_from_svg(body.svg, where=body.name)
    motif = trimmed(motif, where=body.name, keep_base=False) if body.trim else motif
    with store().writing() as session:
        kept = keep_motif(session, body.name, motif, f"bring in {body.name}")
    return sent(motif_message(kept), 201)  # its pictures can be read once they are kept


@api.get("/starters", responses={200: Starters}, summary="The starters with their figures, each drawn")
def starters():
    return sent(Starters(starters=[_starter(key) for key in STARTERS]))


def _starter(key: str) -> StarterMessage:
    starter = STARTERS[key]
    figures = [FigureMessage(**f.__dict__) for f in starter.figures]
    row = tables.Motif(id=0, name=starter.name, svg="", base_line_mm=0.0, version=0)
    return StarterMessage(key=key, name=starter.name, figures=figures, motif=motif_message(row, as_drawn=motif_from_starter(key)))


@api.post("/motifs/starter", responses={201: MotifMessage}, summary="Begin a motif with a starter")
def begin_with_starter(body: NewFromStarter):
    motif = motif_from_starter(body.starter, body.figures)
    with store().writing() as session:
        name = body.name or _free_name(session, STARTERS[body.starter].name)
        return sent(motif_message(keep_motif(session, name, motif, f"begin {name}")), 201)


@api.post("/motifs/drawn", responses={201: MotifMessage}, summary="Begin a motif with a stroke drawn by hand")
def begin_with_stroke(body: NewFromStroke):
    motif = trimmed(Motif((_drawn(body.stroke),), 1.0, 1.0, 0.5))
    motif = replace(motif, base_line=motif.height / 2)
    with store().writing() as session:
        name = body.name or _free_name(session, "Drawing")
        return sent(motif_message(keep_motif(session, name, motif, f"begin {name}")), 201)


def _free_name(session: Session, stem: str) -> str:
    taken = set(session.exec(select(tables.Motif.name)).all())
    return next(name for n in range(1, len(taken) + 3) if (name := stem if n == 1 else f"{stem} {n}") not in taken)


@api.get("/motifs/<int:id>", responses={200: MotifMessage}, summary="A motif with its shapes")
def get_motif(path: IdPath, query: InkQuery):
    with store().reading() as session:
        return sent(motif_message(row_of(session, "motif", path.id), query.ink))


@api.get("/motifs/<int:id>/pictures/<int:place>", summary="A picture that a motif holds (PNG)")
def motif_picture(path: NamePath):
    with store().reading() as session:
        shapes = motif_of(row_of(session, "motif", path.id)).shapes
    if path.place >= len(shapes) or shapes[path.place].picture is None:
        raise NotFound("motif")
    return Response(shapes[path.place].picture.png, mimetype="image/png", headers={"Cache-Control": "private, max-age=31536000, immutable"})


@api.get("/motifs/<int:id>/motif.svg", summary="A motif as an SVG file")
def export_motif(path: IdPath):
    with store().reading() as session:
        row = row_of(session, "motif", path.id)
    return Response(whole(row.svg), mimetype="image/svg+xml", headers={
        "Content-Disposition": f'attachment; filename="motif-{row.id}.svg"', "Content-Security-Policy": "sandbox; default-src 'none'",
    })  # fmt: skip


@api.patch("/motifs/<int:id>", responses={200: MotifMessage}, summary="Rename a motif")
def rename_motif(path: IdPath, body: RenameMotif):
    with store().writing() as session:
        row = row_of(session, "motif", path.id)
        after = make_step(session, f"rename {row.name}", [Change("motif", path.id, {"name": body.name}, body.version)])[0]
        return sent(motif_message(tables.Motif(**after)))


@api.post("/motifs/<int:id>/edit", responses={200: MotifMessage}, summary="Change a motif's artwork, frame or cuts")
def edit_motif(path: IdPath, body: MotifEdit):
    with store().writing() as session:
        row = row_of(session, "motif", path.id)
        values = motif_values(session, changed_motif(motif_of(row), body.edit))
        label = body.label or f"{_label_of(body.edit)}: {row.name}"
        after = make_step(session, label, [Change("motif", path.id, values, body.version)], merge_key=body.merge_key)[0]
    return sent(motif_message(tables.Motif(**after)))


@api.post("/motifs/<int:id>/draft", responses={200: MotifBench}, summary="A motif with its seam and weight, as it is or would be")
def draft_motif(path: IdPath, body: MotifDraft):
    question = current_app.extensions["sewn_garland_latest"].question(f"motif {body.client}", body.seq)
    with store().reading() as session:
        row = row_of(session, "motif", path.id)
    motif = motif_of(row) if body.edit is None else changed_motif(motif_of(row), body.edit)
    if question():
        raise Overtaken
    return sent(bench_of(row, motif, as_drawn=body.edit is not None, points_of=body.points_of))


def changed_motif(motif: Motif, edit: Edit) -> Motif:
    """Make a change that came as a message."""
    figures = edit.model_dump(exclude={"op"})
    if edit.op == "draw":
        return edited(motif, "add", {"shape": _drawn(edit)})
    if edit.op == "darn" and only_picture(motif) is not None:
        return darned_motif(motif, edit.width_mm)
    if edit.op == "darn":
        return edited(motif, "darn", {})
    if edit.op == "cut_to_length" or (edit.op == "best_cut" and only_picture(motif) is not None):
        cuts, _ = cut_found_in(replace(motif, cuts=None), length_mm=figures.get("length_mm"))
        return replace(motif, cuts=cuts)
    return edited(motif, edit.op, figures)


def _label_of(edit: Edit) -> str:
    return {"draw": "draw", "cut_to_length": "cut to a repeat"}.get(edit.op) or EDITS[edit.op].label


def _drawn(edit: Draw) -> Shape:
    """Return a hand-drawn stroke as a part: smoothed as lines on a page are."""
    line = line_from_hand(np.array(edit.points, float), straight=edit.straight)
    if not len(line.coeffs):
        raise InputError("the stroke has no length; draw a little further")
    commands, points = outline_from_subpaths(subpaths_from_path_data(path_data_from_line(line)))
    if edit.closed:
        return Shape(commands + "Z", points, Paint(edit.colour), name="Drawn")
    return Shape(commands, points, None, stroke=Stroke(Paint(edit.colour), edit.width_mm, "round", "round"), name="Drawn")


@api.get("/motifs/<int:id>/repeat", responses={200: FoundRepeatMessage}, summary="The length after which a motif's artwork repeats")
def find_repeat(path: IdPath):
    with store().reading() as session:
        found = repeat_in(replace(motif_of(row_of(session, "motif", path.id)), cuts=None))
    return sent(FoundRepeatMessage(**found.__dict__))


@api.delete("/motifs/<int:id>", summary="Delete a motif that no brush uses")
def delete_motif(path: IdPath, query: VersionQuery):
    with store().writing() as session:
        row = row_of(session, "motif", path.id)
        users = [b for b in session.exec(select(tables.Brush)).all() if path.id in all_ids(b)]
        if users:
            raise InputError(f"{row.name} is used by {named(users)}; delete or change that first")
        make_step(session, f"delete {row.name}", [Change("motif", path.id, None, query.version)])
    return Response(status=204)


def all_ids(brush: tables.Brush) -> list[int]:
    """Return every motif that a brush uses."""
    return laid_ids(ids_by_role(brush))


def named(rows: list) -> str:
    """Name a few rows in words."""
    shown = ", ".join(row.name for row in rows[:3])
    return shown if len(rows) <= 3 else f"{shown} and {len(rows) - 3} more"


@api.post("/motifs/<int:id>/divide", responses={201: BrushMessage}, summary="Cut a motif in three pieces of a new brush")
def divide_motif(path: IdPath, body: Divide):
    with store().writing() as session:
        row = row_of(session, "motif", path.id)
        parts = zip(("start", "repeat", "end"), cut_in_three(motif_of(row)), strict=True)
        made = {role: motif_values(session, part) | {"name": f"{body.name}, {role}"} for role, part in parts if part is not None}
        rows = make_step(session, f"cut {row.name} in three", [Change("motif", None, values) for values in made.values()])
        ids = {role: after["id"] for role, after in zip(made, rows, strict=True)}
        pieces = {role: ids[role] for role in ("start", "end") if role in ids}
        values = {"name": body.name, "motif_id": ids["repeat"], "pieces": pieces, "settings": Settings().model_dump()}
        after = make_step(session, f"brush of {row.name}, cut in three", [Change("brush", None, values)])[0]
        return sent(brush_message(tables.Brush(**after)), 201)


@api.post("/brushes/<int:id>/pieces", responses={200: BrushMessage}, summary="Set the motifs of a role of a brush")
def set_pieces(path: IdPath, body: PiecesChange):
    with store().writing() as session:
        row = row_of(session, "brush", path.id)
        for motif_id in body.motif_ids:
            row_of(session, "motif", motif_id)
        if body.role == "repeat":
            if not body.motif_ids:
                raise InputError("a brush keeps at least one repeat piece")
            values = {"motif_id": body.motif_ids[0], "pieces": {**row.pieces, "repeat": body.motif_ids[1:]}}
        else:
            if len(body.motif_ids) > 1:
                raise InputError(f"there is one piece for {body.role.replace('_', ' ')}, not {len(body.motif_ids)}")
            values = {"pieces": {**row.pieces, body.role: body.motif_ids[0] if body.motif_ids else None}}
        label = f"{body.role.replace('_', ' ')} of {row.name}"
        after = make_step(session, label, [Change("brush", path.id, values, body.version)])[0]
        return sent(brush_message(tables.Brush(**after)))


@api.get("/brushes/<int:id>/border", responses={200: BorderMessage}, summary="Which of the seven border arrangements a brush has")
def border_of(path: IdPath):
    with store().reading() as session:
        row = row_of(session, "brush", path.id)
        repeat = [piece_of(row_of(session, "motif", i)) for i in ids_by_role(row)["repeat"]]
    return sent(BorderMessage(arrangement=arrangement_of(repeat)))


@api.post("/brushes/<int:id>/border", responses={200: BrushMessage}, summary="Give a brush a border arrangement of the motif it began with")
def set_border(path: IdPath, body: BorderChange):
    with store().writing() as session:
        row = row_of(session, "brush", path.id)
        motif, made = _border_made_of(session, row)
        label, key = f"border of {row.name}", f"border {row.id} {row.version}"
        if body.arrangement == "slide" and made:
            ids, border = [motif.id], None  # the motif itself, as it was before any border
        else:
            own = [
                motif_values(session, each) | {"name": f"{motif.name}, in border {i + 1}"}
                for i, each in enumerate(in_arrangement(piece_of(motif), body.arrangement))
            ]
            ids = [after["id"] for after in make_step(session, label, [Change("motif", None, values) for values in own], merge_key=key)]
            border = {"motif_id": motif.id, "arrangement": body.arrangement}
        values = {"motif_id": ids[0], "pieces": {**row.pieces, "repeat": ids[1:], "border": border}}
        used = {i for b in session.exec(select(tables.Brush).where(tables.Brush.id != row.id)).all() for i in all_ids(b)}
        used |= {i for role, of_role in ids_by_role(row).items() if role != "repeat" for i in of_role}
        gone = [Change("motif", i, None) for i in made if i not in used]
        after = make_step(session, label, [Change("brush", path.id, values, body.version), *gone], merge_key=key)[0]
        return sent(brush_message(tables.Brush(**after)))


def _border_made_of(session: Session, row: tables.Brush) -> tuple[tables.Motif, list[int]]:
    """Return the motif that a brush's border was made of, and the ids of what was made of it.

    Where its repeat is no border, or one that was changed since, that is its first motif, and nothing was made.
    """
    ids, border = ids_by_role(row)["repeat"], row.pieces.get("border")
    began = border and session.get(tables.Motif, border["motif_id"])
    if began is not None:
        made = [motif_values(session, motif) for motif in in_arrangement(piece_of(began), border["arrangement"])]
        rows = [row_of(session, "motif", i).model_dump() for i in ids]
        if len(made) == len(rows) and all(one.items() <= other.items() for one, other in zip(made, rows, strict=True)):
            return began, ids
    return row_of(session, "motif", row.motif_id), []


@api.post("/brushes/<int:id>/make-piece", responses={200: BrushMessage}, summary="Make the piece of a role from the repeat")
def make_piece(path: IdPath, body: MakePiece):
    with store().writing() as session:
        row = row_of(session, "brush", path.id)
        repeat = piece_of(row_of(session, "motif", row.motif_id))
        corner = body.role.endswith("corner")
        if corner != (body.way in CORNER_WAYS):
            raise InputError(f"a piece for {body.role.replace('_', ' ')} is not made so")
        gap = gap_of(repeat_alone(session, row))
        words = body.role.replace("_", " ")

        def made(way: str) -> dict:
            motif = corner_made(repeat, body.role.split("_")[0], way, gap) if corner else end_from_repeat(repeat, body.role, way)
            return motif_values(session, motif) | {"name": f"{row.name}, {words}"}

        label, key = f"{words} of {row.name}", f"piece {row.id} {row.version}"
        motif = make_step(session, label, [Change("motif", None, made(body.way))], merge_key=key)[0]
        values = {"pieces": {**row.pieces, body.role: motif["id"]}}
        gone = [Change("motif", i, None) for i in _left_over(session, row, body.role, CORNER_WAYS if corner else END_WAYS, made)]
        after = make_step(session, label, [Change("brush", path.id, values, body.version), *gone], merge_key=key)[0]
        return sent(brush_message(tables.Brush(**after)))


def _left_over(session: Session, row: tables.Brush, role: Role, ways: Iterable[str], made: Callable[[str], dict]) -> list[int]:
    """Return the id of a role's piece where it was made in one of some ways, not worked on since, and nothing else uses it."""
    old = session.get(tables.Motif, row.pieces.get(role) or 0)
    brushes = session.exec(select(tables.Brush)).all()
    if old is None or sum(all_ids(b).count(old.id) for b in brushes) > 1:
        return []
    kept = old.model_dump().items()
    for way in ways:
        try:
            if made(way).items() <= kept:
                return [old.id]
        except InputError:  # not every way suits every repeat
            continue
    return []


@api.get("/brushes/<int:id>/corner-proposals/<role>", responses={200: ProposalsMessage}, summary="Corner pieces that the repeat can make")
def proposals(path: ProposalPath):
    with store().reading() as session:
        brush = row_of(session, "brush", path.id)
        row = row_of(session, "motif", brush.motif_id)
        gap = gap_of(repeat_alone(session, brush))
        repeat = piece_of(row)
    side, made = path.role.split("_")[0], []
    for way, corner in corner_proposals(repeat, side, gap).items():
        laid, box = on_a_corner(repeat, corner, side, gap)
        matrices = matrices_of(laid.placements)
        at = laid.placements.variant == 1
        made.append(ProposalMessage(
            way=way, corner=piece_message(corner, row), repeat=piece_message(repeat, row), box=list(box),
            corner_matrix=matrices[at][0].tolist(), repeat_matrices=matrices[~at].tolist(),
        ))  # fmt: skip
    return sent(ProposalsMessage(proposals=made))


@api.get("/brushes/<int:id>/sampler", responses={200: SampleMessage}, summary="All pieces of a brush where they lie, from start to end")
def sampler(path: IdPath):
    with store().reading() as session:
        row = row_of(session, "brush", path.id)
        ids = ids_by_role(row)
        brush = repeat_alone(session, row)
        own = {role: of_role[0] for role, of_role in ids.items() if role != "repeat"}
        sample = sample_of(brush, {role: piece_of(row_of(session, "motif", i)) for role, i in own.items()})
    return sent(
        SampleMessage(
            pieces=[SampledPieceMessage(role=p.role, motif_id=ids[p.role][p.variant], matrix=list(p.matrix)) for p in sample.pieces],
            slots=[SlotMessage(role=s.role, x_mm=s.x, y_mm=s.y, made=s.made, motif_id=own.get(s.role)) for s in sample.slots],
            path=sample.path,
            box=list(sample.box),
        )
    )
