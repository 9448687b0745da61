"""Kept rows as values of the core: motifs, brushes, lines."""

from __future__ import annotations

import itertools
import re
from collections.abc import Sequence
from dataclasses import replace
from functools import lru_cache
from typing import Any, NamedTuple

from sqlalchemy.orm.util import identity_key
from sqlmodel import Session, SQLModel, col, select

from ..core.colouring.inked import PictureInk
from ..core.errors import InputError
from ..core.making.brushes import laid_part
from ..core.making.cutting import clipped_to
from ..core.maths.recent import Recent
from ..core.measuring.arc_length import measure
from ..core.reading.brush_document import brush_of
from ..core.reading.svg_lines import line_from_path_data
from ..core.reading.svg_motif import motif_from_svg
from ..core.values.brush import SINGLE_ROLES, Brush, Ink, Pieces, Role, Settings
from ..core.values.line import MeasuredLine
from ..core.values.motif import Motif
from ..core.values.tracks import LineToLay
from ..store import tables
from ..store.history import NotFound
from .parked import whole

CutsMm = tuple[float, float] | None
JointPair = tuple[tuple[float, float], tuple[float, float]] | None
FRAME = re.compile(r'<svg [^>]*?width="([\d.]+)mm" height="([\d.]+)mm"')
_motifs: Recent[Motif] = Recent(64)  # a motif may hold a picture of some megabytes


class KeptMotif(NamedTuple):
    """All that decides how a kept motif is drawn."""

    svg: str
    base_line_mm: float
    cuts: CutsMm
    joints: JointPair


def row_of(session: Session, table: str, row_id: int) -> Any:
    """Return a row; raises NotFound."""
    row: SQLModel | None = session.get(tables.TABLES[table], row_id)
    if row is None:
        raise NotFound(table)
    return row


def named(rows: Sequence) -> str:
    """Name a few rows in words."""
    shown = ", ".join(row.name for row in rows[:3])
    return shown if len(rows) <= 3 else f"{shown} and {len(rows) - 3} more"


def numbered(name: str, taken: set[str]) -> str:
    """Return a name with the next number, from 2 on, that is not taken; a number that it has goes."""
    stem = re.sub(r" \d+$", "", name)[:190]
    return next(other for n in itertools.count(2) if (other := f"{stem} {n}") not in taken)


def kept_of(row: tables.Motif) -> KeptMotif:
    """Return what decides how a row's motif is drawn."""
    cuts = (float(row.cuts_mm[0]), float(row.cuts_mm[1])) if row.cuts_mm else None
    (joints,) = [((float(a), float(b)), (float(c), float(d))) for (a, b), (c, d) in [row.joints_mm]] if row.joints_mm else [None]
    return KeptMotif(row.svg, row.base_line_mm, cuts, joints)


def frame_of(row: tables.Motif) -> tuple[float, float]:
    """Return the length and height of a motif's frame, mm, from the head of its SVG, which we wrote."""
    found = FRAME.match(row.svg)
    return (float(found.group(1)), float(found.group(2))) if found else (0.0, 0.0)


def motif_of(session: Session, row: tables.Motif) -> Motif:
    """Return the motif of a row as it is drawn, whole."""
    kept = kept_of(row)

    def read() -> Motif:
        motif = motif_from_svg(whole(session, kept.svg), where="the motif", base_line_mm=kept.base_line_mm)
        return replace(motif, cuts=kept.cuts, joints=kept.joints)

    return _motifs.get(kept, read)


def piece_of(session: Session, row: tables.Motif) -> Motif:
    """Return what of a motif is repeated: what lies between its cuts."""
    motif = motif_of(session, row)
    return motif if motif.cuts is None else clipped_to(motif, *motif.cuts)


def laid_of(session: Session, row: tables.Motif) -> Motif:
    """Return a motif as it is laid, divided where it interlocks."""
    return _laid(motif_of(session, row))


@lru_cache(maxsize=64)
def _laid(motif: Motif) -> Motif:
    return laid_part(motif)


def ink_code(how: PictureInk | None) -> str | None:
    """Return what colours the pictures of a motif, written to be asked for with it."""
    if how is None:
        return None
    ink = how.ink
    return ".".join([ink.gives, ink.darkest, (ink.ink or "").removeprefix("#"), ink.coverage, *(str(int(value)) for value in how[1:])])


def ink_of_code(code: str | None) -> PictureInk | None:
    """Return what ``ink_code`` wrote; raises InputError for another text."""
    if code is None:
        return None
    try:
        gives, darkest, colour, coverage, *varied = code.split(".")
        hue, strength, lightness, lap = map(int, varied)
        ink = Ink.model_validate({"gives": gives, "darkest": darkest, "ink": f"#{colour}" if colour else None, "coverage": coverage})
        return PictureInk(ink, hue % 360, min(abs(strength), 1000), max(-1000, min(lightness, 1000)), lap != 0)
    except ValueError:
        raise InputError("this ink is not known; take one of the page") from None


def ids_by_role(row: tables.Brush) -> dict[Role, list[int]]:
    """Return the motifs of a brush's pieces: the repeat's variants in order, and those roles that have one."""
    singles: dict[Role, list[int]] = {role: [row.pieces[role]] for role in SINGLE_ROLES if row.pieces.get(role)}
    return {"repeat": [row.motif_id, *row.pieces.get("repeat", [])], **singles}


def laid_ids(ids: dict[Role, list[int]]) -> list[int]:
    """Return motif ids in the order in which a brush numbers its motifs."""
    return [i for role in ("repeat", *SINGLE_ROLES) for i in ids.get(role, [])]


def all_ids(brush: tables.Brush) -> list[int]:
    """Return every motif that a brush uses."""
    return laid_ids(ids_by_role(brush))


def settings_of(row: tables.Brush) -> Settings:
    """Return a brush's settings."""
    return Settings.model_validate(row.settings)


def motif_rows(session: Session, ids: Sequence[int]) -> dict[int, tables.Motif]:
    """Return rows of motifs by id, asking only for those that the session does not hold; raises NotFound."""
    held = {i: session.identity_map.get(identity_key(tables.Motif, i)) for i in ids}
    rows: dict[int, tables.Motif] = {i: row for i, row in held.items() if row is not None}
    if asked := [i for i in held if i not in rows]:
        rows |= {row.id: row for row in session.exec(select(tables.Motif).where(col(tables.Motif.id).in_(asked))) if row.id is not None}
    if missing := set(ids) - set(rows):
        raise NotFound(f"motif {min(missing)}")
    return rows


def held_of(session: Session, lines: Sequence[tables.Line]) -> list[SQLModel]:
    """Return the brushes of lines and the motifs of those brushes; while they are held the session does not ask for them again."""
    brushes = [row_of(session, "brush", i) for i in {line.brush_id for line in lines}]
    return [*brushes, *motif_rows(session, sorted({i for brush in brushes for i in all_ids(brush)})).values()]


def pieces_of(session: Session, ids: dict[Role, list[int]]) -> Pieces:
    """Return the motifs of a brush's pieces as they are laid."""
    rows = motif_rows(session, laid_ids(ids))
    made = {role: tuple(laid_of(session, rows[i]) for i in of_role) for role, of_role in ids.items()}
    repeat = made.pop("repeat")
    return Pieces(repeat, **{role: motif for role, (motif,) in made.items()})


class OfLine(NamedTuple):
    """What a line has of its own beside its brush: its size, and where they are not None its inks and its arrangement."""

    size_pct: float = 100.0
    ink: str | None = None
    second_ink: str | None = None
    arrangement: int | None = None

    @classmethod
    def of(cls, row: tables.Line) -> OfLine:
        return cls(row.size_pct, row.ink, row.second_ink, row.arrangement)

    def settings(self, settings: Settings) -> Settings:
        """Return a brush's settings as the line has them, its size aside."""
        inks = {key: value for key, value in (("ink", self.ink), ("second_ink", self.second_ink)) if value is not None}
        if inks:
            settings = settings.model_copy(update={"ink": settings.ink.model_copy(update=inks)})
        if self.arrangement is not None:
            settings = settings.model_copy(update={"variants": settings.variants.model_copy(update={"arrangement": self.arrangement})})
        return settings


AS_ITS_BRUSH = OfLine()


def brush_from_row(session: Session, row: tables.Brush, own: OfLine = AS_ITS_BRUSH, *, settings: Settings | None = None) -> Brush:
    """Return the brush that a line lays: its settings, or others that are tried, with what the line has of its own on top."""
    settings = own.settings(settings_of(row) if settings is None else settings)
    pieces = pieces_of(session, ids_by_role(row))
    return brush_of(row.name, pieces, settings, where=row.name).at_size(own.size_pct / 100)


def repeat_alone(session: Session, row: tables.Brush) -> Brush:
    """Return a brush of a row's repeat alone, which runs through its corners."""
    settings = settings_of(row)
    through = settings.ends.model_copy(update={"outside_corner": "through", "inside_corner": "through"})
    pieces = pieces_of(session, {"repeat": ids_by_role(row)["repeat"]})
    return brush_of(row.name, pieces, settings.model_copy(update={"ends": through}), where=row.name)


def known_by(session: Session, motif_ids: list[int]) -> dict[str, list[int]]:
    """Return what the browser knows the motifs of a scene by, in their order: their ids and versions."""
    rows = motif_rows(session, motif_ids)
    return {"motif_ids": motif_ids, "motif_versions": [rows[i].version for i in motif_ids]}


def of_one_width(brush: Brush) -> Brush:
    """Return a brush without tapers, thick and thin, which are those of a whole line."""
    return brush.changed({"hand": {"width_along": (), "taper_start_mm": 0.0, "taper_end_mm": 0.0}})


@lru_cache(maxsize=512)
def measured_path(path: str) -> MeasuredLine:
    """Measure path data in mm; the same text is measured once."""
    return measure(line_from_path_data(path, where="the line"))


def line_of(row: tables.Line) -> LineToLay:
    """Return a page's line with the number that it keeps when lines are reordered."""
    return LineToLay(measured_path(row.path), row.seed)
