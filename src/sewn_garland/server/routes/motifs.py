"""Motifs."""

from __future__ import annotations

from flask import Response

from ...core.making.starters import STARTERS
from ...workshop import motifs
from ...workshop.rows import ink_of_code, motif_of, row_of
from ...workshop.scenes import Overtaken
from ..access import overtaken, sent, store
from ..messages.base import IdPath, VersionQuery
from ..messages.motifs import (
    FoundRepeatMessage,
    InkQuery,
    MotifBench,
    MotifDraft,
    MotifEdit,
    MotifMessage,
    NewFromStarter,
    NewFromStroke,
    NewMotif,
    PicturePath,
    RenameMotif,
    Starters,
)  # fmt: skip
from ..resource import Resource
from ..views.motifs import bench_of, draft_message, motif_message, starter_message

api = Resource("motifs", __name__)


@api.post("/motifs", responses={201: MotifMessage}, summary="Bring in an SVG as a motif")
def bring_in_motif(body: NewMotif):
    with store().writing() as session:
        return sent(motif_message(session, motifs.bring_in(session, body.name, body.svg, trim=body.trim)), 201)


@api.get("/starters", responses={200: Starters}, summary="The starters with their figures, each drawn")
def starters():
    return sent(Starters(starters=[starter_message(key) for key in STARTERS]))


@api.post("/motifs/starter", responses={201: MotifMessage}, summary="Begin a motif with a starter")
def begin_with_starter(body: NewFromStarter):
    with store().writing() as session:
        return sent(motif_message(session, motifs.begin_with_starter(session, body.starter, body.figures, body.name)), 201)


@api.post("/motifs/drawn", responses={201: MotifMessage}, summary="Begin a motif with a stroke drawn by hand")
def begin_with_stroke(body: NewFromStroke):
    with store().writing() as session:
        return sent(motif_message(session, motifs.begin_with_stroke(session, body.stroke.model_dump(), body.name)), 201)


@api.get("/motifs/<int:id>", responses={200: MotifMessage}, summary="A motif with its shapes")
def get_motif(path: IdPath, query: InkQuery):
    with store().reading() as session:
        return sent(motif_message(session, row_of(session, "motif", path.id), ink_of_code(query.ink)))


@api.get("/motifs/<int:id>/pictures/<int:place>", summary="A picture that a motif holds (PNG)")
def motif_picture(path: PicturePath):
    with store().reading() as session:
        png = motifs.picture_of(session, path.id, path.place)
    return Response(png, mimetype="image/png", headers={"Cache-Control": "private, max-age=31536000, immutable"})


@api.get("/motifs/<int:id>/motif.svg", summary="A motif as an SVG file")
def export_motif(path: IdPath):
    with store().reading() as session:
        svg = motifs.svg_of(session, path.id)
    return Response(svg, mimetype="image/svg+xml", headers={
        "Content-Disposition": f'attachment; filename="motif-{path.id}.svg"', "Content-Security-Policy": "sandbox; default-src 'none'",
    })  # fmt: skip


@api.post("/motifs/<int:id>/copy", responses={201: MotifMessage}, summary="Keep a copy of a motif")
def copy_motif(path: IdPath):
    with store().writing() as session:
        return sent(motif_message(session, motifs.duplicate(session, path.id)), 201)


@api.patch("/motifs/<int:id>", responses={200: MotifMessage}, summary="Rename a motif")
def rename_motif(path: IdPath, body: RenameMotif):
    with store().writing() as session:
        return sent(motif_message(session, motifs.rename(session, path.id, body.version, body.name)))


@api.post("/motifs/<int:id>/edit", responses={200: MotifMessage}, summary="Change a motif's artwork, frame or cuts")
def edit_motif(path: IdPath, body: MotifEdit):
    figures = body.edit.model_dump(exclude={"op"})
    with store().writing() as session:
        row = motifs.edit(session, path.id, body.version, body.edit.op, figures, label=body.label, merge_key=body.merge_key)
        return sent(motif_message(session, row))


@api.post("/motifs/<int:id>/draft", responses={200: MotifBench}, summary="A motif with its seam and weight, as it is or would be")
def draft_motif(path: IdPath, body: MotifDraft):
    newer = overtaken("motif", body.client, body.seq)
    with store().reading() as session:
        row = row_of(session, "motif", path.id)
        kept, as_kept = motif_of(session, row), None if body.edit else motif_message(session, row)
    motif = kept if body.edit is None else motifs.changed_motif(kept, body.edit.op, body.edit.model_dump(exclude={"op"}))
    if newer():
        raise Overtaken
    return sent(bench_of(motif, as_kept or draft_message(row, kept, motif), points_of=body.points_of))


@api.get("/motifs/<int:id>/repeat", responses={200: FoundRepeatMessage}, summary="The length after which a motif's artwork repeats")
def find_repeat(path: IdPath):
    with store().reading() as session:
        return sent(FoundRepeatMessage(**motifs.found_repeat(session, path.id).__dict__))


@api.delete("/motifs/<int:id>", summary="Delete a motif that no brush uses")
def delete_motif(path: IdPath, query: VersionQuery):
    with store().writing() as session:
        motifs.delete(session, path.id, query.version)
    return Response(status=204)
