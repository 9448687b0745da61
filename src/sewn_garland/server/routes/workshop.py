"""Everything there is, and its steps taken back and again."""

from __future__ import annotations

from collections.abc import Sequence
from typing import TypeVar

from sqlmodel import Session, col, select

from ...store import tables
from ...store.history import redo, standing, take_step, undo
from ...workshop.lines import uses_of_brushes
from ..access import sent, store
from ..messages.workshop import BrushUse, History, StepRequest, Workshop
from ..resource import Resource
from ..views.brushes import brush_message
from ..views.motifs import motif_summary
from ..views.pages import page_message

Row = TypeVar("Row", bound=tables.Versioned)
api = Resource("workshop", __name__)


@api.get("/workshop", responses={200: Workshop}, summary="Everything there is, in summaries")
def workshop():
    with store().reading() as session:
        return sent(Workshop(
            motifs=[motif_summary(m) for m in _all(session, tables.Motif)], brushes=[brush_message(b) for b in _all(session, tables.Brush)],
            pages=[page_message(p) for p in _all(session, tables.Page)], history=History(**standing(session)),
            uses=[BrushUse(brush_id=brush_id, lines=count, pages=on) for brush_id, count, on in uses_of_brushes(session)],
        ))  # fmt: skip


@api.get("/history", responses={200: History}, summary="What stands: the steps to take back and again, and when the last was kept")
def history():
    with store().reading() as session:
        return sent(History(**standing(session)))


def _all(session: Session, table: type[Row]) -> Sequence[Row]:
    return session.exec(select(table).order_by(col(table.id))).all()


@api.post("/undo", responses={200: History}, summary="Take the last step back")
def take_back(body: StepRequest):
    with store().writing() as session:
        return sent(History(**take_step(session, body.step_id, undo)))


@api.post("/redo", responses={200: History}, summary="Take the last undone step again")
def take_again(body: StepRequest):
    with store().writing() as session:
        return sent(History(**take_step(session, body.step_id, redo)))
