"""What the routes share: the store, and rows turned into messages and core values."""

from __future__ import annotations

from dataclasses import replace
from functools import lru_cache
from typing import Any

import numpy as np
from flask import Response, current_app
from pydantic import BaseModel
from sqlmodel import Session, SQLModel

from ..core.colouring import inked
from ..core.drawing.line_path import path_data_from_line
from ..core.drawing.svg import path_data
from ..core.errors import InputError
from ..core.measuring.arc_length import measure
from ..core.measuring.smoothing import line_from_hand, line_from_points
from ..core.reading.brush_document import BrushDocument, brush_from_document
from ..core.reading.svg_lines import line_from_path_data
from ..core.reading.svg_motif import motif_from_svg
from ..core.values.brush import Brush
from ..core.values.line import Line, MeasuredLine
from ..core.values.motif import Motif
from ..store import tables
from ..store.database import Store
from ..store.history import NotFound
from .messages import BrushMessage, HandSource, LineMessage, MotifMessage, PageMessage, PathSource, PointsSource, Settings, ShapeMessage


def store() -> Store:
    """Return the store of the app that answers."""
    return current_app.extensions["sewn_garland_store"]


def row_of(session: Session, table: str, row_id: int) -> Any:
    """Return a row; raises NotFound."""
    row: SQLModel | None = session.get(tables.TABLES[table], row_id)
    if row is None:
        raise NotFound(table)
    return row


@lru_cache(maxsize=256)
def _motif(svg: str, base_line_mm: float, ink: str | None) -> Motif:
    return inked(motif_from_svg(svg, where="the motif", base_line_mm=base_line_mm), ink)


def motif_of(row: tables.Motif, ink: str | None = None) -> Motif:
    """Return the motif of a row, in the line's ink where one is given."""
    return _motif(row.svg, row.base_line_mm, ink)


def brush_of(name: str, motif: Motif, settings: Settings, *, size_pct: float = 100.0) -> Brush:
    """Make the brush a line lays: settings, motif, and the line's own size on top."""
    sections = settings.model_dump()
    document = BrushDocument(format="sewn-garland/brush", version=1, name=name,
                             pieces={"repeat": [{"svg": ""}]}, **{k: getattr(settings, k) for k in sections})  # fmt: skip
    brush = brush_from_document(document, (motif,), where=name)
    return replace(brush, size=brush.size * size_pct / 100)


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


def motif_message(row: tables.Motif, ink: str | None = None) -> MotifMessage:
    motif = motif_of(row, ink)
    return MotifMessage(
        id=row.id, name=row.name, version=row.version, width_mm=float(motif.width), height_mm=float(motif.height),
        base_line_mm=float(motif.base_line), points=motif.points, left_out=row.left_out,
        shapes=[_shape_message(s) for s in motif.shapes],
    )  # fmt: skip


def _shape_message(shape) -> ShapeMessage:
    fill, stroke = shape.fill, shape.stroke
    return ShapeMessage(
        d=path_data(shape.commands, shape.points),
        fill=fill.colour if fill else None, fill_opacity=fill.opacity if fill else 1.0, fill_rule=shape.fill_rule,
        stroke=stroke.paint.colour if stroke else None, stroke_opacity=stroke.paint.opacity if stroke else 1.0,
        stroke_width=float(stroke.width) if stroke else 0.0, cap=stroke.cap if stroke else "butt",
        join=stroke.join if stroke else "miter", miter_limit=float(stroke.miter_limit) if stroke else 4.0,
        dashes=[float(d) for d in stroke.dashes] if stroke else [],
    )  # fmt: skip


def settings_of(row: tables.Brush) -> Settings:
    return Settings.model_validate(row.settings)


def brush_message(row: tables.Brush) -> BrushMessage:
    return BrushMessage(id=row.id, name=row.name, version=row.version, motif_id=row.motif_id, settings=settings_of(row))


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
