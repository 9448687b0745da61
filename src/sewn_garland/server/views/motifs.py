"""Motifs as the browser sees them: parts, paints, seams, weights, points."""

from __future__ import annotations

import base64
from dataclasses import asdict
from functools import lru_cache
from typing import NamedTuple

from sqlmodel import Session

from ...core.artwork.box import box_of_shape
from ...core.artwork.sections import Section, seam_between, seam_sections
from ...core.colouring.inked import PictureInk, with_pictures_in
from ...core.drawing.svg import path_data
from ...core.making.brushes import laid_part
from ...core.making.interlocking import divided
from ...core.making.live import grading_of
from ...core.making.nodes import contours_of
from ...core.making.starters import STARTERS, motif_from_starter
from ...core.making.weight import weight_of
from ...core.maths.colour import hex_from_rgb
from ...core.values.motif import Motif, Paint, Shape
from ...store import tables
from ...workshop.rows import frame_of, laid_of, motif_of
from ..messages.artwork import GradientMessage, GradientStopMessage, PictureMessage, PieceMessage, RecipeMessage, ShapeMessage
from ..messages.motifs import (
    ContourMessage,
    EdgeMessage,
    FigureMessage,
    GradingMessage,
    MotifBench,
    MotifMessage,
    MotifSummary,
    SeamMessage,
    StarterMessage,
    WeightMessage,
)  # fmt: skip
from ..messages.preparing import KeptPicture

INLINE_BYTES = 200_000  # pictures up to this travel with their motif, larger ones are fetched
MOST_PROFILE = 400


def motif_summary(row: tables.Motif) -> MotifSummary:
    """Return a motif's message without its shapes, which are not even read for it."""
    width, height = frame_of(row)
    return MotifSummary(
        id=row.id, name=row.name, version=row.version, width_mm=width, height_mm=height, base_line_mm=row.base_line_mm,
        joints_mm=row.joints_mm, cut=row.cuts_mm is not None,
    )  # fmt: skip


def motif_message(session: Session, row: tables.Motif, ink: PictureInk | None = None) -> MotifMessage:
    """Return a kept motif's message, its pictures in an ink."""
    motif = motif_of(session, row)
    piece = None if laid_part(motif) is motif else piece_message(with_pictures_in(laid_of(session, row), ink), _Kept(row, motif))
    return _message(with_pictures_in(motif, ink), _Kept(row, motif), piece)


def draft_message(row: tables.Motif, kept: Motif, motif: Motif) -> MotifMessage:
    """Return the message of a row's motif as it would be, its piece only where it is seen among neighbours; ``kept`` is it as it is."""
    piece = None if motif.cuts is not None or divided(motif) is motif else piece_message(divided(motif), _Kept(row, kept))
    return _message(motif, _Kept(row, kept), piece)


def fresh_message(name: str, motif: Motif) -> MotifMessage:
    """Return the message of a motif that is not kept."""
    row = tables.Motif(id=0, name=name, svg="", base_line_mm=0.0, version=0)
    return draft_message(row, motif, motif)


@lru_cache
def starter_message(key: str) -> StarterMessage:
    """Return a starter with its figures, drawn; always the same."""
    starter = STARTERS[key]
    figures = [FigureMessage(**f.__dict__) for f in starter.figures]
    return StarterMessage(key=key, name=starter.name, figures=figures, motif=fresh_message(starter.name, motif_from_starter(key)))


class _Kept(NamedTuple):
    """A motif's row and the motif as kept, whose larger pictures can be fetched instead of being sent."""

    row: tables.Motif
    motif: Motif

    def place_of(self, png: bytes) -> int | None:
        """Return the place of the part with a picture, None where it is not kept."""
        places = (i for i, s in enumerate(self.motif.shapes) if self.row.svg and s.picture is not None and s.picture.png == png)
        return next(places, None)


def _message(motif: Motif, kept: _Kept, piece: PieceMessage | None) -> MotifMessage:
    row = kept.row
    return MotifMessage(
        id=row.id, name=row.name, version=row.version, width_mm=float(motif.width), height_mm=float(motif.height),
        base_line_mm=float(motif.base_line), pitch_mm=motif.pitch, cuts_mm=motif.cuts and list(motif.cuts),
        joints_mm=motif.joints and [list(j) for j in motif.joints], points=motif.points, left_out=list(motif.left_out or row.left_out),
        shapes=_shapes(motif, kept), piece=piece, picture=KeptPicture.model_validate(row.picture, strict=False) if row.picture else None,
        recipes=[RecipeMessage(group=r.group, kind=r.kind, figures=dict(r.figures)) for r in motif.recipes],
    )  # fmt: skip


def laid_message(session: Session, row: tables.Motif, motif: Motif) -> PieceMessage:
    """Return artwork as it is laid; ``row`` is the motif whose kept pictures it may show."""
    return piece_message(motif, _Kept(row, motif_of(session, row)))


def piece_message(motif: Motif, kept: _Kept) -> PieceMessage:
    return PieceMessage(
        width_mm=float(motif.width), height_mm=float(motif.height), base_line_mm=float(motif.base_line), shapes=_shapes(motif, kept)
    )


def png_url(png: bytes) -> str:
    """Return a PNG as a data URL."""
    return "data:image/png;base64," + base64.b64encode(png).decode()


def _shapes(motif: Motif, kept: _Kept) -> list[ShapeMessage]:
    return [_shape_message(s, kept) for s in motif.shapes]


def _shape_message(shape: Shape, kept: _Kept) -> ShapeMessage:
    fill, stroke = shape.fill, shape.stroke
    return ShapeMessage(
        d=path_data(shape.commands, shape.points), name=shape.name, group=shape.group, derived=shape.derived, lies=shape.lies,
        box=list(box_of_shape(shape)), fill_gradient=_gradient(fill), stroke_gradient=_gradient(stroke and stroke.paint),
        picture=_picture(shape, kept),
        fill=fill.colour if fill else None, fill_opacity=fill.opacity if fill else 1.0, fill_rule=shape.fill_rule,
        stroke=stroke.paint.colour if stroke else None, stroke_opacity=stroke.paint.opacity if stroke else 1.0,
        stroke_width=float(stroke.width) if stroke else 0.0, cap=stroke.cap if stroke else "butt",
        join=stroke.join if stroke else "miter", miter_limit=float(stroke.miter_limit) if stroke else 4.0,
        dashes=[float(d) for d in stroke.dashes] if stroke else [], dash_offset=float(stroke.dash_offset) if stroke else 0.0,
    )  # fmt: skip


def _gradient(paint: Paint | None) -> GradientMessage | None:
    if paint is None or paint.gradient is None:
        return None
    g = paint.gradient
    stops = [GradientStopMessage(offset=s.offset, colour=s.colour, opacity=s.opacity) for s in g.stops]
    return GradientMessage(kind=g.kind, matrix=list(g.matrix), focus=g.focus, spread=g.spread, stops=stops)


def _picture(shape: Shape, kept: _Kept) -> PictureMessage | None:
    picture = shape.picture
    if picture is None:
        return None
    place = kept.place_of(picture.png) if len(picture.png) > INLINE_BYTES else None
    if place is not None:
        href = f"/api/motifs/{kept.row.id}/pictures/{place}?version={kept.row.version}"
    else:
        href = png_url(picture.png)
    return PictureMessage(href=href, width_px=picture.width_px, height_px=picture.height_px, stencil=picture.stencil)


def bench_of(motif: Motif, message: MotifMessage, *, points_of: int | None = None) -> MotifBench:
    """Return a motif's message with all that is measured about it."""
    groups = [r.group for r in motif.recipes if r.kind == "soft_edge"]
    gradings = [GradingMessage(group=g, steps=found.steps, largest_difference=found.largest_difference, points=found.points)
                for g in groups if (found := grading_of(motif, g)) is not None]  # fmt: skip
    contours = None
    if points_of is not None and points_of < len(motif.shapes) and motif.shapes[points_of].picture is None:
        contours = _contours(motif.shapes[points_of])
    weight = WeightMessage(**asdict(weight_of(motif)))
    return MotifBench(motif=message, seam=seam_message(motif), weight=weight, gradings=gradings, contours=contours)


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
