"""Motifs as the browser sees them: parts, paints, seams, weights, points."""

from __future__ import annotations

import base64
from dataclasses import asdict
from functools import lru_cache
from hashlib import sha256

from ..core.colouring import inked
from ..core.drawing.svg import path_data
from ..core.making.framing import box_of
from ..core.making.live import grading_of
from ..core.making.nodes import contours_of
from ..core.making.sections import Section, seam_between, seam_sections
from ..core.making.weight import weight_of
from ..core.maths.colour import hex_from_rgb
from ..core.reading.svg_motif import motif_from_svg
from ..core.values.motif import Motif, Paint, Shape
from ..store import tables
from .messages import (
    GradientMessage,
    GradientStopMessage,
    MotifMessage,
    PictureMessage,
    PieceMessage,
    RecipeMessage,
    ShapeMessage,
)  # fmt: skip
from .motif_messages import ContourMessage, EdgeMessage, GradingMessage, MotifBench, SeamMessage, WeightMessage
from .parked_pictures import whole
from .workshop import motif_of, piece_of

INLINE_BYTES = 200_000  # pictures up to this travel with their motif, larger ones are fetched
MOST_PROFILE = 400


@lru_cache(maxsize=64)
def _kept_pictures(svg: str) -> dict[str, int]:
    """Return the places of a kept motif's pictures by the hash of their bytes."""
    motif = motif_from_svg(whole(svg), where="the motif")
    return {sha256(s.picture.png).hexdigest(): i for i, s in enumerate(motif.shapes) if s.picture}


def motif_message(row: tables.Motif, ink: str | None = None, *, as_drawn: Motif | None = None) -> MotifMessage:
    """Return a motif's message, as kept or as it would be (``as_drawn``)."""
    motif = as_drawn or motif_of(row)
    whole = inked(motif, ink)
    piece = None
    if motif.cuts is not None and as_drawn is None:
        piece = piece_message(piece_of(row, ink), row)
    return MotifMessage(
        id=row.id, name=row.name, version=row.version, width_mm=float(motif.width), height_mm=float(motif.height),
        base_line_mm=float(motif.base_line), cuts_mm=motif.cuts and list(motif.cuts),
        joints_mm=motif.joints and [list(j) for j in motif.joints], points=motif.points, left_out=list(motif.left_out or row.left_out),
        shapes=_shapes(whole, row), piece=piece,
        recipes=[RecipeMessage(group=r.group, kind=r.kind, figures=dict(r.figures)) for r in motif.recipes],
    )  # fmt: skip


def piece_message(motif: Motif, row: tables.Motif) -> PieceMessage:
    """Return artwork as it is laid; ``row`` is the motif whose kept pictures it may show."""
    return PieceMessage(
        width_mm=float(motif.width), height_mm=float(motif.height), base_line_mm=float(motif.base_line), shapes=_shapes(motif, row)
    )


def _shapes(motif: Motif, row: tables.Motif) -> list[ShapeMessage]:
    return [_shape_message(s, row) for s in motif.shapes]


def _shape_message(shape: Shape, row: tables.Motif) -> ShapeMessage:
    fill, stroke = shape.fill, shape.stroke
    return ShapeMessage(
        d=path_data(shape.commands, shape.points), name=shape.name, group=shape.group, derived=shape.derived,
        box=list(_box(shape)), fill_gradient=_gradient(fill), stroke_gradient=_gradient(stroke and stroke.paint),
        picture=_picture(shape, row),
        fill=fill.colour if fill else None, fill_opacity=fill.opacity if fill else 1.0, fill_rule=shape.fill_rule,
        stroke=stroke.paint.colour if stroke else None, stroke_opacity=stroke.paint.opacity if stroke else 1.0,
        stroke_width=float(stroke.width) if stroke else 0.0, cap=stroke.cap if stroke else "butt",
        join=stroke.join if stroke else "miter", miter_limit=float(stroke.miter_limit) if stroke else 4.0,
        dashes=[float(d) for d in stroke.dashes] if stroke else [],
    )  # fmt: skip


@lru_cache(maxsize=4096)
def _box(shape: Shape) -> tuple[float, float, float, float]:
    return tuple(float(v) for v in box_of([shape]))


def _gradient(paint: Paint | None) -> GradientMessage | None:
    if paint is None or paint.gradient is None:
        return None
    g = paint.gradient
    stops = [GradientStopMessage(offset=s.offset, colour=s.colour, opacity=s.opacity) for s in g.stops]
    return GradientMessage(kind=g.kind, matrix=list(g.matrix), focus=g.focus, spread=g.spread, stops=stops)


def _picture(shape: Shape, row: tables.Motif) -> PictureMessage | None:
    picture = shape.picture
    if picture is None:
        return None
    place = _kept_pictures(row.svg).get(sha256(picture.png).hexdigest()) if row.svg and len(picture.png) > INLINE_BYTES else None
    href = (
        f"/api/motifs/{row.id}/pictures/{place}?version={row.version}"
        if place is not None
        else ("data:image/png;base64," + base64.b64encode(picture.png).decode())
    )
    return PictureMessage(href=href, width_px=picture.width_px, height_px=picture.height_px, stencil=picture.stencil)


def bench_of(row: tables.Motif, motif: Motif, *, as_drawn: bool, points_of: int | None = None) -> MotifBench:
    """Return a motif with all that is measured about it."""
    left, right = motif.span
    message = motif_message(row, as_drawn=motif if as_drawn else None)
    groups = [r.group for r in motif.recipes if r.kind == "soft_edge"]
    gradings = [GradingMessage(group=g, steps=found.steps, largest_difference=found.largest_difference, points=found.points)
                for g in groups if (found := grading_of(motif, g)) is not None]  # fmt: skip
    contours = None
    if points_of is not None and points_of < len(motif.shapes) and motif.shapes[points_of].picture is None:
        contours = _contours(motif.shapes[points_of])
    weight = WeightMessage(**asdict(weight_of(motif)))
    return MotifBench(
        motif=message, pitch_mm=float(right - left), seam=seam_message(motif), weight=weight, gradings=gradings, contours=contours
    )


def seam_message(motif: Motif) -> SeamMessage:
    """Return the seam between a motif and its next one, with what is filled along both edges."""
    left, right = seam_sections(motif)
    inner = seam_sections(motif, inside=min(1.0, 0.03 * (motif.span[1] - motif.span[0])))
    filled, inside = (sum(float((s.foot - s.top).sum()) for s in pair) / 2 for pair in ((left, right), inner))
    seam = seam_between(left, right)
    return SeamMessage(**asdict(seam), filled_mm=filled, inside_mm=inside, left=_edge(left), right=_edge(right))


def _edge(section: Section) -> EdgeMessage:
    every = slice(None, None, max(1, len(section.top) // MOST_PROFILE))
    colours = [hex_from_rgb(c) for c in section.rgb[every]]
    return EdgeMessage(
        top_mm=section.top[every].tolist(), foot_mm=section.foot[every].tolist(), colour=colours, cover=section.alpha[every].tolist()
    )


def _contours(shape: Shape) -> list[ContourMessage]:
    return [ContourMessage(at=c.at.tolist(), into=c.into.tolist(), out=c.out.tolist(), flowing=c.flowing.tolist(), closed=c.closed)
            for c in contours_of(shape.commands, shape.points)]  # fmt: skip
