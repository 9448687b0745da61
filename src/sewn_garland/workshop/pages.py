"""Pages: made, changed, laid for the browser, taken away."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import Any

from sqlmodel import Session

from ..core.assemble import drawing_of, on_page
from ..core.drawing.line_path import path_data_from_line
from ..core.drawing.shapes import motif_within
from ..core.lay import lay
from ..core.making.cutting import clipped_to_box
from ..core.making.parts import MOST_PARTS, checked_size
from ..core.maths.recent import Recent
from ..core.measuring.arc_length import measure
from ..core.values.brush import Brush
from ..core.values.drawing import Drawing, Flat
from ..core.values.laid import LaidLine
from ..core.values.motif import Motif
from ..core.values.tracks import LineToLay
from ..store import tables
from ..store.history import Change, make_step
from . import grounds
from .brushes import merged_settings
from .lines import Moving, changed_by_cure, for_line_size, line_from_source, lines_of, made, moved_row, next_seed
from .rows import AS_ITS_BRUSH, OfLine, all_ids, brush_from_row, held_of, known_by, line_of, row_of, settings_of
from .scenes import LaidScene, Overtaking, Scene, laid_anew

DYES = (("madder", "#a63a2f"), ("indigo", "#2c4a84"), ("weld", "#c9971c"), ("woad green", "#3f7150"), ("walnut", "#5a4027"),
        ("loden", "#20352c"))  # fmt: skip
_lines: Recent[LaidScene] = Recent(1_000_000, weigh=lambda laid: laid.weight)  # at 240 bytes a stamped piece, 240 MB in all


@dataclass(frozen=True)
class DraftLine:
    """A line as it would be; ``line_id`` names the one it stands for while it is dragged."""

    brush_id: int
    source: dict
    line_id: int | None = None
    own: OfLine = AS_ITS_BRUSH


@dataclass(frozen=True)
class DraftCure:
    """A finding's cure tried out on a line, or on its brush wherever it lies."""

    line_id: int
    change: dict


def make(
    session: Session, name: str, width_mm: float, height_mm: float, ground: str | None, scenery: list[dict] | None = None,
    inks: Sequence[tuple[str, str]] = DYES,
) -> tables.Page:  # fmt: skip
    """Make a page, with its inks by name."""
    palette = [{"name": name, "colour": colour} for name, colour in inks]
    values = {"name": name, "width_mm": width_mm, "height_mm": height_mm, "ground": ground, "scenery": scenery or [], "palette": palette}
    return tables.Page(**made(make_step(session, f"new page {name}", [Change("page", None, values)])))


def change(session: Session, page_id: int, version: int, values: dict[str, Any]) -> tables.Page:
    """Change a page's name, size, ground or palette; an ink of the palette that changes is changed on every line that has it.

    A picture for its ground is given by its ``sha`` and how it is ``laid``.
    """
    row = row_of(session, "page", page_id)
    if values.get("ground_picture"):
        values = {**values, "ground_picture": grounds.ground_of_picture(session, **values["ground_picture"])}
    dyed = _dyed(row, values["palette"], lines_of(session, page_id)) if "palette" in values else []
    return tables.Page(**made(make_step(session, f"change {row.name}", [Change("page", page_id, values, version), *dyed])))


def _dyed(page: tables.Page, palette: list[dict], lines: Sequence[tables.Line]) -> list[Change]:
    """Return the changes of lines whose inks change with the page's palette, in which an ink is known by its place."""
    changed = {old["colour"]: new["colour"] for old, new in zip(page.palette, palette, strict=False) if len(palette) == len(page.palette)}
    changes = []
    for line in lines:
        inks = {key: changed[own] for key in ("ink", "second_ink") if (own := getattr(line, key)) in changed and changed[own] != own}
        changes += [Change("line", line.id, inks)] if inks else []
    return changes


def delete(session: Session, page_id: int, version: int) -> None:
    """Delete a page with its lines."""
    row = row_of(session, "page", page_id)
    lines = [Change("line", line.id, None) for line in lines_of(session, page_id)]
    make_step(session, f"delete {row.name}", [*lines, Change("page", page_id, None, version)])


def scenes_of(
    session: Session,
    page_id: int,
    *,
    only: list[int] | None = None,
    draft: DraftLine | None = None,
    cure: DraftCure | None = None,
    moving: tuple[frozenset[int], Moving] | None = None,
) -> list[Scene]:
    """Return a page's visible lines, or only some, to be laid; a draft, lines as they would be moved, by their ids, and a cure that is
    tried out are not kept.
    """
    row_of(session, "page", page_id)
    lines = lines_of(session, page_id)
    rows = [row for row in lines if row.visible and (only is None or row.id in only)]
    held = held_of(session, rows)
    scenes = [_as_asked(session, row, draft, cure, moving) for row in rows]
    if draft is not None and draft.line_id is None:
        scenes.append(_draft_scene(session, draft, None, next_seed(lines)))
    del held
    return [scene for scene in scenes if scene is not None]


def _as_asked(
    session: Session, row: tables.Line, draft: DraftLine | None, cure: DraftCure | None, moving: tuple[frozenset[int], Moving] | None
) -> Scene | None:
    if draft and draft.line_id == row.id:
        return _draft_scene(session, draft, row, row.seed)
    if moving and row.id in moving[0]:
        scene = _scene(session, moved_row(row, moving[1]), None)
        return scene and replace(scene, passing=True)
    return _scene(session, row, cure)


def _scene(session: Session, row: tables.Line, cure: DraftCure | None) -> Scene | None:
    """Return a line to be laid, under a cure that is tried out; None where that takes it off."""
    brush_row = row_of(session, "brush", row.brush_id)
    settings, line, path = settings_of(brush_row), line_of(row), row.path
    if cure is not None and isinstance(cure.change.get("brush"), dict):
        tried = row_of(session, "line", cure.line_id)
        if tried.brush_id == row.brush_id:
            settings = merged_settings(settings, for_line_size(cure.change["brush"], tried.size_pct))
    elif cure is not None and cure.line_id == row.id:
        measured = changed_by_cure(line.line, cure.change)
        if measured is None:
            return None
        line, path = LineToLay(measured, row.seed), path_data_from_line(measured.line)
    brush = brush_from_row(session, brush_row, OfLine.of(row), settings=settings)
    return Scene(f"line-{row.id}", brush, line, _about(session, row.id, brush_row, path), passing=cure is not None)


def _draft_scene(session: Session, draft: DraftLine, row: tables.Line | None, seed: int) -> Scene:
    """Return a line as it would be; chance knows it by ``seed`` as it will once the line is kept."""
    brush_row = row_of(session, "brush", draft.brush_id)
    line = line_from_source(draft.source)
    brush = brush_from_row(session, brush_row, draft.own)
    key = "draft" if row is None else f"line-{row.id}"
    about = _about(session, draft.line_id, brush_row, path_data_from_line(line))
    return Scene(key, brush, LineToLay(measure(line), seed), about, passing=True)


def laid_page(scenes: Sequence[Scene], *, cures: bool, overtaken: Overtaking) -> list[LaidScene]:
    """Lay a page's lines; those that stand as they did when they were last laid are not laid again."""
    return laid_anew(scenes, _lines, overtaken=overtaken, cures=cures)


def _about(session: Session, line_id: int | None, row: tables.Brush, path: str) -> dict[str, Any]:
    return {"line_id": line_id, "path": path, **known_by(session, all_ids(row))}


def laid_lines(session: Session, page_id: int) -> tuple[tables.Page, list[tuple[Brush, LaidLine]]]:
    """Lay a page's visible lines for good; return it, and each line's brush with the line laid, from below."""
    page = row_of(session, "page", page_id)
    laid, rows = [], [row for row in lines_of(session, page_id) if row.visible]
    held = held_of(session, rows)
    for row in rows:
        brush = brush_from_row(session, row_of(session, "brush", row.brush_id), OfLine.of(row))
        laid.append((brush, lay(brush, [line_of(row)])[0]))
    del held
    return page, laid


def drawing_of_page(session: Session, page_id: int, *, ground: str = "clear", once: bool = False) -> tuple[tables.Page, Drawing]:
    """Return a page and its drawing, on nothing ("clear"), a colour, or the page's own ground with its scenery ("page").

    Every piece is painted ``once``, to be taken up again, or the first of a closed line once more over its last.
    """
    page, laid = laid_lines(session, page_id)
    under = page.ground if ground == "page" else None if ground == "clear" else ground
    scenery = [*grounds.drawn(session, page), *(Flat(flat["d"], flat["fill"]) for flat in page.scenery)] if ground == "page" else []
    drawn = [(brush, replace(line, closes=()) if once else line) for brush, line in laid]
    lines = [item for brush, line in drawn for item in on_page(brush.pieces.motifs, line, brush.ink)]
    return page, drawing_of(page.width_mm, page.height_mm, lines, ground=under, scenery=scenery)


def picked_up(drawing: Drawing, box: tuple[float, float, float, float]) -> Motif:
    """Return what is drawn within a region (left, top, right, bottom in mm) as a motif, cut at the region's rim.

    Raises InputError when nothing lies there, LimitError when it is more than a motif may hold.
    """
    return checked_size(clipped_to_box(motif_within(drawing, box, most=MOST_PARTS)))
