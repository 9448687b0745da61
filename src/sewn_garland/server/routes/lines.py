"""Lines on pages."""

from __future__ import annotations

from flask import Response

from ...core.making.ready_lines import READY
from ...workshop import lines
from ...workshop.rows import row_of
from ..access import sent, store
from ..messages.base import IdPath, Versioned, VersionQuery
from ..messages.pages import BroughtIn, LineChange, LineMessage, LinesChange, LinesFile, NewLine, PageLines, ReadyLines
from ..resource import Resource
from ..views.pages import line_message, moving_of, page_lines, ready_message

api = Resource("lines", __name__)


@api.post("/pages/<int:id>/lines", responses={201: LineMessage}, summary="Draw a line on a page")
def new_line(path: IdPath, body: NewLine):
    with store().writing() as session:
        row = lines.draw(session, path.id, body.brush_id, body.source.model_dump(), name=body.name, size_pct=body.size_pct, ink=body.ink)
        return sent(line_message(row), 201)


@api.post("/pages/<int:id>/lines-file", responses={201: BroughtIn}, summary="Bring in the lines of an SVG")
def bring_in_lines(path: IdPath, body: LinesFile):
    with store().writing() as session:
        kept, left_out = lines.bring_in(session, path.id, body.brush_id, body.svg)
        shown = page_lines(row_of(session, "page", path.id), kept)
        return sent(BroughtIn(page=shown.page, lines=shown.lines, left_out=list(left_out)), 201)


@api.patch("/lines/<int:id>", responses={200: LineMessage}, summary="Change a line")
def change_line(path: IdPath, body: LineChange):
    values = body.model_dump(include={"name", "brush_id", "size_pct", "visible"}, exclude_none=True)
    for key in ("ink", "second_ink", "arrangement"):
        value = getattr(body, key)
        if value is not None:
            values[key] = None if value == "own" else value
    with store().writing() as session:
        row = lines.change(
            session, path.id, body.version, values, source=body.source and body.source.model_dump(), move_by=body.move_by,
            to_place=body.to_place, cure=body.cure, on_copy=body.on_copy, label=body.label, merge_key=body.merge_key,
        )  # fmt: skip
        return sent(line_message(row))


@api.patch("/pages/<int:id>/lines", responses={200: PageLines}, summary="Change several lines of a page in one step")
def change_lines(path: IdPath, body: LinesChange):
    values = body.model_dump(include={"brush_id", "size_pct", "visible"}, exclude_none=True)
    if body.ink is not None:
        values["ink"] = None if body.ink == "own" else body.ink
    with store().writing() as session:
        kept = lines.change_together(
            session, path.id, {line.id: line.version for line in body.lines}, values, moving=body.moving and moving_of(body.moving),
            remove=body.remove, label=body.label, merge_key=body.merge_key,
        )  # fmt: skip
        return sent(page_lines(row_of(session, "page", path.id), kept))


@api.post("/lines/<int:id>/sides", responses={201: PageLines}, summary="Make a line of its own of each side of a line")
def part_line(path: IdPath, body: Versioned):
    with store().writing() as session:
        kept = lines.split_at_corners(session, path.id, body.version)
        return sent(page_lines(row_of(session, "page", kept[0].page_id), kept), 201)


@api.get("/pages/<int:id>/ready-lines", responses={200: ReadyLines}, summary="The ready lines as they begin on a page")
def ready_lines_of(path: IdPath):
    with store().reading() as session:
        page = row_of(session, "page", path.id)
    return sent(ReadyLines(ready=[ready_message(shape, page) for shape in READY]))


@api.delete("/lines/<int:id>", summary="Delete a line")
def delete_line(path: IdPath, query: VersionQuery):
    with store().writing() as session:
        lines.delete(session, path.id, query.version)
    return Response(status=204)
