"""Brushes, and the pieces that their repeats make."""

from __future__ import annotations

from flask import Response

from ...workshop import brushes, pieces_made
from ..access import sent, store
from ..messages.base import IdPath, VersionQuery
from ..messages.brushes import (
    BorderChange,
    BorderMessage,
    BrushChange,
    BrushMessage,
    CornerMessage,
    CornerPath,
    CornerWaysMessage,
    Divide,
    MakePiece,
    NewBrush,
    PiecesChange,
    PitchChange,
    SampleMessage,
    SettingsLimits,
)  # fmt: skip
from ..resource import Resource
from ..views.brushes import brush_message, corner_message, sample_message, settings_limits

api = Resource("brushes", __name__)


@api.post("/brushes", responses={201: BrushMessage}, summary="Make a brush from a motif, or copy one")
def new_brush(body: NewBrush):
    with store().writing() as session:
        row = brushes.make(session, body.name, motif_id=body.motif_id, copy_of=body.copy_of, patch=body.settings)
        return sent(brush_message(row), 201)


@api.patch("/brushes/<int:id>", responses={200: BrushMessage}, summary="Change a brush's settings, motif or name")
def change_brush(path: IdPath, body: BrushChange):
    with store().writing() as session:
        row = brushes.change(
            session, path.id, body.version, name=body.name, motif_id=body.motif_id, patch=body.change, pinned=body.pinned,
            was=body.was, label=body.label, merge_key=body.merge_key,
        )  # fmt: skip
        return sent(brush_message(row))


@api.delete("/brushes/<int:id>", summary="Delete a brush that no line uses")
def delete_brush(path: IdPath, query: VersionQuery):
    with store().writing() as session:
        brushes.delete(session, path.id, query.version)
    return Response(status=204)


@api.post("/brushes/<int:id>/pitch", responses={200: BrushMessage}, summary="Move the joints of a jointed brush's links")
def change_pitch(path: IdPath, body: PitchChange):
    with store().writing() as session:
        return sent(brush_message(brushes.hang(session, path.id, body.pitch_mm, merge_key=body.merge_key)))


@api.get("/limits", responses={200: SettingsLimits}, summary="What every number may be, with the words that refuse it")
def limits():
    return sent(settings_limits())


@api.post("/motifs/<int:id>/divide", responses={201: BrushMessage}, summary="Cut a motif in three pieces of a new brush")
def divide_motif(path: IdPath, body: Divide):
    with store().writing() as session:
        return sent(brush_message(brushes.divide(session, path.id, body.name)), 201)


@api.post("/brushes/<int:id>/pieces", responses={200: BrushMessage}, summary="Set the motifs of a role of a brush")
def set_pieces(path: IdPath, body: PiecesChange):
    with store().writing() as session:
        return sent(brush_message(brushes.set_pieces(session, path.id, body.version, body.role, body.motif_ids)))


@api.get("/brushes/<int:id>/border", responses={200: BorderMessage}, summary="Which of the seven border arrangements a brush has")
def border_of(path: IdPath):
    with store().reading() as session:
        return sent(BorderMessage(arrangement=pieces_made.border_of(session, path.id)))


@api.post("/brushes/<int:id>/border", responses={200: BrushMessage}, summary="Give a brush a border arrangement of the motif it began with")
def set_border(path: IdPath, body: BorderChange):
    with store().writing() as session:
        return sent(brush_message(pieces_made.set_border(session, path.id, body.version, body.arrangement)))


@api.post("/brushes/<int:id>/make-piece", responses={200: BrushMessage}, summary="Make the piece of a role from the repeat")
def make_piece(path: IdPath, body: MakePiece):
    with store().writing() as session:
        return sent(brush_message(pieces_made.make_piece(session, path.id, body.version, body.role, body.way)))


@api.get("/brushes/<int:id>/corner-ways/<role>", responses={200: CornerWaysMessage}, summary="Ways to make a corner piece of the repeat")
def corner_ways(path: CornerPath):
    with store().reading() as session:
        ways, way = pieces_made.corner_ways(session, path.id, path.role)
        return sent(CornerWaysMessage(ways=ways, way=way))


@api.get("/brushes/<int:id>/corner/<role>", responses={200: CornerMessage}, summary="What lies beside a corner piece")
def corner(path: CornerPath):
    with store().reading() as session:
        return sent(corner_message(session, *pieces_made.on_its_corner(session, path.id, path.role)))


@api.get("/brushes/<int:id>/sampler", responses={200: SampleMessage}, summary="All pieces of a brush where they lie, from start to end")
def sampler(path: IdPath):
    with store().reading() as session:
        return sent(sample_message(*pieces_made.sampled(session, path.id)))
