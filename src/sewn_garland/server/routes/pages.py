"""Pages: made, laid, taken away."""

from __future__ import annotations

import re
import time

from flask import Response

from ...core.assemble import pieces_list
from ...core.drawing.png import pixels_of
from ...core.drawing.steps import png_of
from ...core.drawing.svg import compact_svg, plain_svg
from ...store import tables
from ...workshop import motifs, pages
from ...workshop.lines import lines_of
from ...workshop.rows import OfLine, row_of
from ..access import overtaken, sent, store
from ..messages.base import IdPath, VersionQuery
from ..messages.motifs import MotifMessage
from ..messages.pages import DraftLine, ExportQuery, NewPage, PageChange, PageLines, PageMessage, PageRequest, PickUp
from ..resource import Resource
from ..views.motifs import motif_message
from ..views.pages import moving_of, page_lines, page_message
from ..views.scenes import scenes_reply

api = Resource("pages", __name__)


@api.post("/pages", responses={201: PageMessage}, summary="Make a page")
def new_page(body: NewPage):
    with store().writing() as session:
        return sent(page_message(pages.make(session, **body.model_dump())), 201)


@api.get("/pages/<int:id>", responses={200: PageLines}, summary="A page with its lines, back to front")
def get_page(path: IdPath):
    with store().reading() as session:
        return sent(page_lines(row_of(session, "page", path.id), lines_of(session, path.id)))


@api.patch("/pages/<int:id>", responses={200: PageMessage}, summary="Change a page's name, size, ground or palette")
def change_page(path: IdPath, body: PageChange):
    values = body.model_dump(exclude_none=True, exclude={"version"})
    values = {key: None if key in ("ground", "ground_picture") and value == "none" else value for key, value in values.items()}
    with store().writing() as session:
        return sent(page_message(pages.change(session, path.id, body.version, values)))


@api.delete("/pages/<int:id>", summary="Delete a page with its lines")
def delete_page(path: IdPath, query: VersionQuery):
    with store().writing() as session:
        pages.delete(session, path.id, query.version)
    return Response(status=204)


@api.post("/pages/<int:id>/lay", summary="Lay a page's lines (binary)")
def lay_page(path: IdPath, body: PageRequest):
    newer = overtaken("page", body.client, body.seq)
    draft = body.draft and _draft_line(body.draft)
    drafted = body.draft_moving
    moving = drafted and (frozenset(drafted.lines), moving_of(drafted.moving))
    cure = body.draft_cure and pages.DraftCure(body.draft_cure.line_id, body.draft_cure.change)
    with store().reading() as session:
        scenes = pages.scenes_of(session, path.id, only=body.only, draft=draft, cure=cure, moving=moving)
    laid = pages.laid_page(scenes, cures=body.cures, overtaken=newer)
    return scenes_reply(body.seq, laid, strip=f"line-{body.strip}" if body.strip else None)


@api.get("/pages/<int:id>/page.svg", summary="The page's laid lines as SVG")
def export_svg(path: IdPath, query: ExportQuery):
    with store().reading() as session:
        page, drawing = pages.drawing_of_page(session, path.id, ground=query.ground)
    draw = compact_svg if query.form == "compact" else plain_svg
    return _download(draw(drawing), "image/svg+xml", page, "svg")


@api.get("/pages/<int:id>/page.png", summary="The page's laid lines as PNG")
def export_png(path: IdPath, query: ExportQuery):
    with store().reading() as session:
        page = row_of(session, "page", path.id)
        width, height = pixels_of(page.width_mm, page.height_mm, query.dpi)  # refused before anything is laid
        page, drawing = pages.drawing_of_page(session, path.id, ground=query.ground)
    return _download(png_of(drawing, width_px=width, height_px=height), "image/png", page, "png")


@api.get("/pages/<int:id>/pieces.csv", summary="The list of every laid piece")
def export_pieces(path: IdPath):
    with store().reading() as session:
        page, laid = pages.laid_lines(session, path.id)
    return _download(pieces_list(laid), "text/csv", page, "csv")


@api.post("/pages/<int:id>/pick-up", responses={201: MotifMessage}, summary="Pick up a region of a page, as it is laid, as a motif")
def pick_up(path: IdPath, body: PickUp):
    with store().reading() as session:
        _, drawing = pages.drawing_of_page(session, path.id, once=True)
    motif = pages.picked_up(drawing, (body.left_mm, body.top_mm, body.right_mm, body.bottom_mm))
    with store().writing() as session:
        return sent(motif_message(session, motifs.keep(session, body.name, motif, f"pick up {body.name}")), 201)


def _draft_line(draft: DraftLine) -> pages.DraftLine:
    own = OfLine(draft.size_pct, draft.ink, draft.second_ink, draft.arrangement)
    return pages.DraftLine(draft.brush_id, draft.source.model_dump(), draft.line_id, own)


def _download(data: bytes | str, kind: str, page: tables.Page, ending: str) -> Response:
    name = re.sub(r"[^A-Za-z0-9]+", "-", page.name).strip("-").lower() or "page"
    stamp = time.strftime("%Y-%m-%d")
    return Response(data, mimetype=kind, headers={
        "Content-Disposition": f'attachment; filename="{name}-{stamp}.{ending}"',
        "Content-Security-Policy": "sandbox; default-src 'none'",
    })  # fmt: skip
