"""The Page station: pages, their lines, laying them, and taking them away."""

from __future__ import annotations

import re
import time
from dataclasses import replace

import numpy as np
from flask import Response, current_app
from flask_openapi import APIBlueprint
from sqlmodel import Session, col, select

from ..core.drawing.line_path import path_data_from_line
from ..core.drawing.png import pixels_of, png_from_svg
from ..core.drawing.svg import Layer, compact_svg, plain_svg
from ..core.drawing.tables import pieces_csv
from ..core.errors import InputError
from ..core.measuring.arc_length import measure
from ..core.pipeline import changed_line, lay
from ..core.reading.svg_lines import lines_from_svg
from ..core.values.line import MeasuredLine
from ..store import tables
from ..store.history import Change, make_step
from .messages import (
    ExportQuery,
    IdPath,
    LineChange,
    LineMessage,
    LinesFile,
    NewLine,
    NewPage,
    PageChange,
    PageLines,
    PageMessage,
    PageRequest,
    PointsSource,
    VersionQuery,
)  # fmt: skip
from .routes_bench import merged_settings
from .scenes import Scene, packed_scenes
from .workshop import (
    binary,
    brush_of,
    ids_by_role,
    kept_source,
    laid_ids,
    line_from_source,
    line_message,
    measured_path,
    page_message,
    row_of,
    sent,
    settings_of,
    store,
)  # fmt: skip

api = APIBlueprint("page", __name__, url_prefix="/api")


def lines_of(session: Session, page_id: int) -> list[tables.Line]:
    """Return a page's lines from back to front."""
    query = select(tables.Line).where(tables.Line.page_id == page_id)
    return list(session.exec(query.order_by(col(tables.Line.position), col(tables.Line.id))).all())


@api.post("/pages", responses={201: PageMessage}, summary="Make a page")
def new_page(body: NewPage):
    with store().writing() as session:
        row = make_step(session, f"new page {body.name}", [Change("page", None, body.model_dump() | {"scenery": []})])[0]
        return sent(page_message(tables.Page(**row)), 201)


@api.get("/pages/<int:id>", responses={200: PageLines}, summary="A page with its lines, back to front")
def get_page(path: IdPath):
    with store().reading() as session:
        page = row_of(session, "page", path.id)
        lines = [line_message(line) for line in lines_of(session, path.id)]
        return sent(PageLines(page=page_message(page), lines=lines))


@api.patch("/pages/<int:id>", responses={200: PageMessage}, summary="Change a page's name, size or ground")
def change_page(path: IdPath, body: PageChange):
    with store().writing() as session:
        row = row_of(session, "page", path.id)
        values = body.model_dump(exclude_none=True, exclude={"version"})
        if values.get("ground") == "none":
            values["ground"] = None
        after = make_step(session, f"change {row.name}", [Change("page", path.id, values, body.version)])[0]
        return sent(page_message(tables.Page(**after)))


@api.delete("/pages/<int:id>", summary="Delete a page with its lines")
def delete_page(path: IdPath, query: VersionQuery):
    with store().writing() as session:
        row = row_of(session, "page", path.id)
        changes = [Change("line", line.id, None) for line in lines_of(session, path.id)]
        changes.append(Change("page", path.id, None, query.version))
        make_step(session, f"delete {row.name}", changes)
    return Response(status=204)


@api.post("/pages/<int:id>/lines", responses={201: LineMessage}, summary="Draw a line on a page")
def new_line(path: IdPath, body: NewLine):
    source, drawn = kept_source(body.source)
    with store().writing() as session:
        row_of(session, "page", path.id)
        row_of(session, "brush", body.brush_id)
        lines = lines_of(session, path.id)
        name = body.name or _free_name([line.name for line in lines])
        values = {"page_id": path.id, "brush_id": body.brush_id, "name": name, "position": _front(lines), "source": source,
                  "path": drawn, "size_pct": body.size_pct, "ink": body.ink, "visible": True}  # fmt: skip
        row = make_step(session, f"draw {name}", [Change("line", None, values)])[0]
        return sent(line_message(tables.Line(**row)), 201)


def _front(lines: list[tables.Line]) -> float:
    return lines[-1].position + 1.0 if lines else 1.0


def _free_name(taken: list[str]) -> str:
    n = len(taken) + 1
    while f"Line {n}" in taken:
        n += 1
    return f"Line {n}"


@api.post("/pages/<int:id>/lines-file", responses={201: PageLines}, summary="Bring in the lines of an SVG")
def bring_in_lines(path: IdPath, body: LinesFile):
    found = lines_from_svg(body.svg, where="the file")
    if len(found.lines) > 500:
        raise InputError(f"the file has {len(found.lines)} lines, more than 500; split it")
    with store().writing() as session:
        page = row_of(session, "page", path.id)
        row_of(session, "brush", body.brush_id)
        lines = lines_of(session, path.id)
        taken = [line.name for line in lines]
        changes = []
        for i, line in enumerate(found.lines):
            drawn = path_data_from_line(line)
            name = _free_name(taken)
            taken.append(name)
            values = {"page_id": path.id, "brush_id": body.brush_id, "name": name, "position": _front(lines) + i, "path": drawn,
                      "source": {"kind": "path", "d": drawn}, "size_pct": 100.0, "ink": None, "visible": True}  # fmt: skip
            changes.append(Change("line", None, values))
        make_step(session, f"bring in {len(changes)} lines", changes)
        kept = [line_message(line) for line in lines_of(session, path.id)]
        return sent(PageLines(page=page_message(page), lines=kept), 201)


@api.patch("/lines/<int:id>", responses={200: LineMessage}, summary="Change a line")
def change_line(path: IdPath, body: LineChange):
    with store().writing() as session:
        row = row_of(session, "line", path.id)
        values = body.model_dump(include={"name", "brush_id", "size_pct", "visible"}, exclude_none=True)
        if body.ink is not None:
            values["ink"] = None if body.ink == "own" else body.ink
        if body.brush_id is not None:
            row_of(session, "brush", body.brush_id)
        if body.source is not None:
            values["source"], values["path"] = kept_source(body.source)
        if body.move_by is not None:
            values["source"], values["path"] = _moved(row, np.array(body.move_by))
        if body.to_place is not None:
            values["position"] = _position_at(lines_of(session, row.page_id), row, body.to_place)
        changes = [Change("line", path.id, values, body.version)]
        if body.cure is not None:
            changes = _cure(session, row, body.cure, body.version)
        label = body.label or f"change {row.name}"
        after = make_step(session, label, changes, merge_key=body.merge_key)[0]
        return sent(line_message(tables.Line(**(after or row.model_dump()))))


def _moved(row: tables.Line, by: np.ndarray) -> tuple[dict, str]:
    if row.source.get("kind") == "points":
        points = (np.array(row.source["points"]) + by).tolist()
        return kept_source(PointsSource.model_validate(row.source | {"points": points}))
    line = measured_path(row.path).line
    coeffs = line.coeffs.copy()
    coeffs[:, 0] += by
    moved = path_data_from_line(replace(line, coeffs=coeffs, start=line.start + by))
    return {"kind": "path", "d": moved}, moved


def _position_at(lines: list[tables.Line], row: tables.Line, place: int) -> float:
    """Return a position that puts the row at ``place`` counted from the front."""
    others = [line.position for line in reversed(lines) if line.id != row.id]
    place = min(place, len(others))
    above = others[place - 1] if place else None
    below = others[place] if place < len(others) else None
    if above is None:
        return 1.0 if below is None else below + 1.0
    return above - 1.0 if below is None else (above + below) / 2


def _cure(session: Session, row: tables.Line, change: dict, version: int) -> list[Change]:
    """Turn a finding's cure into changes of the line or of its brush."""
    if set(change) == {"brush"} and isinstance(change["brush"], dict):
        brush = row_of(session, "brush", row.brush_id)
        settings = merged_settings(settings_of(brush), _for_line_size(change["brush"], row.size_pct))
        touched = Change("line", row.id, {}, version)
        return [touched, Change("brush", brush.id, {"settings": settings.model_dump()})]
    line = _changed(measured_path(row.path), change)
    if line is None:
        return [Change("line", row.id, None, version)]
    drawn = path_data_from_line(line.line)
    return [Change("line", row.id, {"path": drawn, "source": {"kind": "path", "d": drawn}}, version)]


def _for_line_size(patch: dict, size_pct: float) -> dict:
    """Turn the size a cure gives, which holds the line's own size too, back into the brush's."""
    spacing = patch.get("spacing")
    size = spacing.get("size_pct") if isinstance(spacing, dict) else None
    if isinstance(size, bool) or not isinstance(size, int | float) or not 0 < size <= 1e6:
        return patch  # nothing of ours to turn; what is wrong is refused where settings are merged
    return patch | {"spacing": spacing | {"size_pct": size * 100 / size_pct}}


def _changed(measured: MeasuredLine, change: dict) -> MeasuredLine | None:
    known = {"smooth_mm": (0, 1e5), "scale": (0, 1000)}
    entries = change.get("line") if set(change) == {"line"} else None
    if not isinstance(entries, dict) or not entries or not set(entries) <= {*known, "remove"}:
        raise InputError("cure: this change is not known")
    for key, (low, high) in known.items():
        value = entries.get(key, 1)
        if isinstance(value, bool) or not isinstance(value, int | float) or not low < value <= high:
            raise InputError(f"cure.line.{key}: it must be more than {low:g} and at most {high:g}")
    line = changed_line(measured, entries)
    return None if line is None else measure(line)


@api.delete("/lines/<int:id>", summary="Delete a line")
def delete_line(path: IdPath, query: VersionQuery):
    with store().writing() as session:
        row = row_of(session, "line", path.id)
        make_step(session, f"delete {row.name}", [Change("line", path.id, None, query.version)])
    return Response(status=204)


@api.post("/pages/<int:id>/lay", summary="Lay a page's lines (binary)")
def lay_page(path: IdPath, body: PageRequest):
    with store().reading() as session:
        row_of(session, "page", path.id)
        rows = [row for row in lines_of(session, path.id) if row.visible]
        if body.only is not None:
            rows = [row for row in rows if row.id in body.only]
        scenes = [scene for row in rows if (scene := _scene(session, row, body)) is not None]
        if body.draft is not None and body.draft.line_id is None:
            scenes.append(_draft_scene(session, body, "draft"))
    question = current_app.extensions["sewn_garland_latest"].question(f"page {body.client}", body.seq)
    strip = f"line-{body.strip}" if body.strip else None
    return binary(packed_scenes(scenes, cures=body.cures, overtaken=question, header={"seq": body.seq}, strip=strip))


def _scene(session: Session, row: tables.Line, body: PageRequest) -> Scene | None:
    if body.draft is not None and body.draft.line_id == row.id:
        return _draft_scene(session, body, f"line-{row.id}")
    brush_row = row_of(session, "brush", row.brush_id)
    settings, line, path = settings_of(brush_row), measured_path(row.path), row.path
    if body.draft_cure is not None:
        change = body.draft_cure.change
        if isinstance(change.get("brush"), dict):
            tried = row_of(session, "line", body.draft_cure.line_id)
            if tried.brush_id == row.brush_id:
                settings = merged_settings(settings, _for_line_size(change["brush"], tried.size_pct))
        elif body.draft_cure.line_id == row.id:
            line = _changed(line, change)
            if line is None:
                return None
            path = path_data_from_line(line.line)
    brush = brush_of(session, brush_row.name, ids_by_role(brush_row), settings, size_pct=row.size_pct)
    return Scene(f"line-{row.id}", brush, line, _about(session, row.id, brush_row, row.ink, path))


def _about(session: Session, line_id: int | None, brush: tables.Brush, ink: str | None, path: str) -> dict:
    ids = laid_ids(ids_by_role(brush))
    versions = [row_of(session, "motif", i).version for i in ids]
    return {"line_id": line_id, "motif_id": ids[0], "motif_ids": ids, "motif_versions": versions, "ink": ink, "path": path}


def _draft_scene(session: Session, body: PageRequest, key: str) -> Scene:
    draft = body.draft
    brush_row = row_of(session, "brush", draft.brush_id)
    line = line_from_source(draft.source)
    brush = brush_of(session, brush_row.name, ids_by_role(brush_row), settings_of(brush_row), size_pct=draft.size_pct)
    return Scene(key, brush, measure(line), _about(session, draft.line_id, brush_row, draft.ink, path_data_from_line(line)))


def laid_page(session: Session, page_id: int) -> tuple[tables.Page, list[Layer]]:
    page = row_of(session, "page", page_id)
    layers = []
    for row in lines_of(session, page_id):
        if row.visible:
            brush_row = row_of(session, "brush", row.brush_id)
            settings = settings_of(brush_row)
            brush = brush_of(session, brush_row.name, ids_by_role(brush_row), settings, size_pct=row.size_pct, ink=row.ink)
            layers.append(Layer(brush.motifs, lay(brush, [measured_path(row.path)])[0]))
    return page, layers


def _download(data: bytes | str, kind: str, page: tables.Page, ending: str) -> Response:
    name = re.sub(r"[^A-Za-z0-9]+", "-", page.name).strip("-").lower() or "page"
    stamp = time.strftime("%Y-%m-%d")
    return Response(data, mimetype=kind, headers={
        "Content-Disposition": f'attachment; filename="{name}-{stamp}.{ending}"',
        "Content-Security-Policy": "sandbox; default-src 'none'",
    })  # fmt: skip


def _ground(query: ExportQuery, page: tables.Page) -> dict:
    """Return what lies under the lines: nothing, a colour, or the page's own ground with its scenery."""
    if query.ground == "page":
        return {"ground": page.ground, "scenery": [(flat["d"], flat["fill"]) for flat in page.scenery]}
    return {"ground": None if query.ground == "clear" else query.ground}


@api.get("/pages/<int:id>/page.svg", summary="The page's laid lines as SVG")
def export_svg(path: IdPath, query: ExportQuery):
    with store().reading() as session:
        page, layers = laid_page(session, path.id)
    draw = compact_svg if query.form == "compact" else plain_svg
    return _download(draw(page.width_mm, page.height_mm, layers, **_ground(query, page)), "image/svg+xml", page, "svg")


@api.get("/pages/<int:id>/page.png", summary="The page's laid lines as PNG")
def export_png(path: IdPath, query: ExportQuery):
    with store().reading() as session:
        page = row_of(session, "page", path.id)
        width, height = pixels_of(page.width_mm, page.height_mm, query.dpi)
        page, layers = laid_page(session, path.id)
    svg = compact_svg(page.width_mm, page.height_mm, layers, **_ground(query, page))
    return _download(png_from_svg(svg, width_px=width, height_px=height), "image/png", page, "png")


@api.get("/pages/<int:id>/pieces.csv", summary="The list of every laid piece")
def export_pieces(path: IdPath):
    with store().reading() as session:
        page, layers = laid_page(session, path.id)
    return _download(pieces_csv([layer.laid for layer in layers]), "text/csv", page, "csv")

