"""What the routes share: the store, and rows turned into messages and core values."""

from __future__ import annotations

from dataclasses import replace
from functools import lru_cache
from typing import Any

import numpy as np
from flask import Response, current_app
from pydantic import BaseModel
from sqlmodel import Session, SQLModel, select

from ..core.colouring import inked
from ..core.drawing.line_path import path_data_from_line
from ..core.errors import InputError
from ..core.making.cutting import clipped_to
from ..core.measuring.arc_length import measure
from ..core.measuring.smoothing import line_from_hand, line_from_points
from ..core.reading.brush_document import BrushDocument, brush_from_document
from ..core.reading.svg_lines import line_from_path_data
from ..core.reading.svg_motif import motif_from_svg
from ..core.values.brush import SINGLE_PIECES, Brush, Role
from ..core.values.line import Line, MeasuredLine
from ..core.values.motif import Motif
from ..store import tables
from ..store.database import Store
from ..store.history import NotFound
from .messages import BrushMessage, BrushPieces, HandSource, LineMessage, PageMessage, PathSource, PointsSource, Settings
from .parked_pictures import whole


def store() -> Store:
    """Return the store of the app that answers."""
    return current_app.extensions["sewn_garland_store"]


def row_of(session: Session, table: str, row_id: int) -> Any:
    """Return a row; raises NotFound."""
    row: SQLModel | None = session.get(tables.TABLES[table], row_id)
    if row is None:
        raise NotFound(table)
    return row


Cuts = tuple[float, float] | None
JointPair = tuple[tuple[float, float], tuple[float, float]] | None


@lru_cache(maxsize=64)  # a motif may hold a picture of some megabytes
def _motif(svg: str, base_line_mm: float, cuts: Cuts, joints: JointPair) -> Motif:
    motif = motif_from_svg(whole(svg), where="the motif", base_line_mm=base_line_mm)
    return replace(motif, cuts=cuts, joints=joints)


@lru_cache(maxsize=64)
def _piece(svg: str, base_line_mm: float, cuts: Cuts, joints: JointPair, ink: str | None) -> Motif:
    motif = _motif(svg, base_line_mm, cuts, joints)
    return inked(motif if cuts is None else clipped_to(motif, *cuts), ink)


def _kept(row: tables.Motif) -> tuple[str, float, Cuts, JointPair]:
    joints = row.joints_mm and tuple((float(x), float(y)) for x, y in row.joints_mm)
    return row.svg, row.base_line_mm, row.cuts_mm and (float(row.cuts_mm[0]), float(row.cuts_mm[1])), joints


def motif_of(row: tables.Motif) -> Motif:
    """Return the motif of a row as it is drawn, whole."""
    return _motif(*_kept(row))


def piece_of(row: tables.Motif, ink: str | None = None) -> Motif:
    """Return what of a motif is laid: what lies between its cuts, in the line's ink where one is given."""
    return _piece(*_kept(row), ink)


def ids_by_role(row: tables.Brush) -> dict[Role, list[int]]:
    """Return the motifs of a brush's pieces: the repeat's variants in order, and those roles that have one."""
    singles = {role: [row.pieces[role]] for role in SINGLE_PIECES if row.pieces.get(role)}
    return {"repeat": [row.motif_id, *row.pieces.get("repeat", [])], **singles}


def laid_ids(ids: dict[Role, list[int]]) -> list[int]:
    """Return motif ids in the order in which a brush numbers its motifs."""
    return [i for role in ("repeat", *SINGLE_PIECES) for i in ids.get(role, [])]


def brush_of(
    session: Session, name: str, ids: dict[Role, list[int]], settings: Settings, *, size_pct: float = 100.0, ink: str | None = None
) -> Brush:
    """Make the brush a line lays: settings, its pieces in the line's ink, and the line's own size on top."""
    return brush_from_rows(motif_rows(session, ids), name, ids, settings, size_pct=size_pct, ink=ink)


def motif_rows(session: Session, ids: dict[Role, list[int]]) -> dict[int, tables.Motif]:
    """Return the rows of a brush's motifs by id; raises NotFound."""
    rows = {row.id: row for row in session.exec(select(tables.Motif).where(tables.Motif.id.in_(laid_ids(ids))))}
    if missing := set(laid_ids(ids)) - set(rows):
        raise NotFound(f"motif {min(missing)}")
    return rows


def brush_from_rows(
    rows: dict[int, tables.Motif], name: str, ids: dict[Role, list[int]], settings: Settings, *,
    size_pct: float = 100.0, ink: str | None = None,
) -> Brush:
    """Make a brush as ``brush_of`` does, of rows that were looked up."""
    pieces = {role: tuple(piece_of(rows[i], ink) for i in of_role) for role, of_role in ids.items()}
    sections = {section: getattr(settings, section) for section in Settings.model_fields}
    document = BrushDocument(format="sewn-garland/brush", version=1, name=name, pieces={"repeat": [{"svg": ""}]}, **sections)
    repeat = pieces.pop("repeat")
    brush = brush_from_document(document, repeat, {role: motif for role, (motif,) in pieces.items()}, where=name)
    return replace(brush, size=brush.size * size_pct / 100)


def repeat_alone(session: Session, row: tables.Brush) -> Brush:
    """Make a brush of a row's repeat alone, which runs through its corners."""
    settings = settings_of(row)
    through = settings.ends.model_copy(update={"outside_corner": "through", "inside_corner": "through"})
    return brush_of(session, row.name, {"repeat": ids_by_role(row)["repeat"]}, settings.model_copy(update={"ends": through}))


@lru_cache(maxsize=512)
def measured_path(path: str) -> MeasuredLine:
    """Measure path data in mm; the same text is measured once."""
    return measure(line_from_path_data(path, where="the line"))


def line_from_source(source: HandSource | PointsSource | PathSource) -> Line:
    """Draw the line that a source describes."""
    if isinstance(source, PathSource):
        return line_from_path_data(source.d, where="the line")
    points = np.array(source.points, float)
    if isinstance(source, HandSource):
        return line_from_hand(points, straight=source.straight)
    return line_from_points(points, np.array(source.flowing, bool), closed=source.closed)


def kept_source(source: HandSource | PointsSource | PathSource) -> tuple[dict, str]:
    """Return what is kept of a source, and the path it gives. A hand's stroke is kept as points."""
    line = line_from_source(source)
    if not isinstance(source, HandSource):
        return source.model_dump(), path_data_from_line(line) if isinstance(source, PointsSource) else source.d
    if not len(line.coeffs):
        raise InputError("the line has no length; draw a little further")
    knots = np.vstack([line.coeffs[:, 0], line.coeffs[-1].sum(axis=0)]).round(4)
    flowing = [len(knots) > 2] * len(knots)
    kept = PointsSource(kind="points", points=knots.tolist(), flowing=flowing)
    return kept.model_dump(), path_data_from_line(line_from_source(kept))


def settings_of(row: tables.Brush) -> Settings:
    return Settings.model_validate(row.settings)


def brush_message(row: tables.Brush) -> BrushMessage:
    others = {role: row.pieces.get(role) for role in SINGLE_PIECES}
    pieces = BrushPieces(repeat=ids_by_role(row)["repeat"], **others)
    return BrushMessage(id=row.id, name=row.name, version=row.version, motif_id=row.motif_id, pieces=pieces, settings=settings_of(row))


def page_message(row: tables.Page) -> PageMessage:
    return PageMessage.model_validate(row.model_dump())


def line_message(row: tables.Line) -> LineMessage:
    return LineMessage.model_validate(row.model_dump())


def sent(message: BaseModel, status: int = 200) -> Response:
    """Reply with a message as JSON."""
    return Response(message.model_dump_json(), status=status, mimetype="application/json")


def binary(data: bytes) -> Response:
    """Reply with packed scenes."""
    return Response(data, mimetype="application/octet-stream")
