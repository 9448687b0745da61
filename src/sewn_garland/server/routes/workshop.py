"""Everything there is, and its steps taken back and again."""

from __future__ import annotations

from flask_openapi import APIBlueprint
from sqlmodel import select

from ...store import tables
from ...store.history import redo, standing, take_step, undo
from ..access import sent, store
from ..messages.workshop import History, StepRequest, Workshop
from ..views.brushes import brush_message
from ..views.motifs import motif_summary
from ..views.pages import page_message

api = APIBlueprint("workshop", __name__, url_prefix="/api")


@api.get("/workshop", responses={200: Workshop}, summary="Everything there is, in summaries")
def workshop():
    with store().reading() as session:
        motifs, brushes, pages = (
            session.exec(select(model).order_by(model.id)).all() for model in (tables.Motif, tables.Brush, tables.Page)
        )
        return sent(Workshop(
            motifs=[motif_summary(m) for m in motifs], brushes=[brush_message(b) for b in brushes],
            pages=[page_message(p) for p in pages], history=History(**standing(session)),
        ))  # fmt: skip


@api.post("/undo", responses={200: History}, summary="Take the last step back")
def take_back(body: StepRequest):
    with store().writing() as session:
        return sent(History(**take_step(session, body.step_id, undo)))


@api.post("/redo", responses={200: History}, summary="Take the last undone step again")
def take_again(body: StepRequest):
    with store().writing() as session:
        return sent(History(**take_step(session, body.step_id, redo)))
