"""Lines on pages: drawn, brought in, changed, cured."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Any

import numpy as np
from sqlmodel import Session, col, func, select

from ..core.drawing.line_path import path_data_from_line
from ..core.errors import InputError
from ..core.making import ready_lines
from ..core.measuring.arc_length import measure
from ..core.measuring.changing import changed_line, sides_of, under
from ..core.measuring.hand import STANDARD_PCT, knots_of_hand
from ..core.measuring.smoothing import HAND_TOLERANCE_MM, WITHIN_MM, line_from_hand, line_from_points
from ..core.reading.svg_lines import line_from_path_data, lines_from_svg
from ..core.values.line import Line, MeasuredLine
from ..store import tables
from ..store.history import Change, make_step
from .brushes import copy_name, merged_settings
from .rows import measured_path, row_of, settings_of

MOST_BROUGHT_IN = 500
CURES_OF_LINES = {"smooth_mm": (0, 1e5), "scale": (0, 1000)}  # more than, at most


@dataclass(frozen=True)
class Moving:
    """A move by some mm, after a turn (degrees, clockwise) and scaling about a place."""

    by: tuple[float, float] = (0.0, 0.0)
    turn_deg: float = 0.0
    scale: float = 1.0
    about: tuple[float, float] = (0.0, 0.0)

    @property
    def matrix(self) -> np.ndarray:
        """Return it as an affine map (2, 3)."""
        turn = np.radians(self.turn_deg)
        linear = self.scale * np.array([[np.cos(turn), -np.sin(turn)], [np.sin(turn), np.cos(turn)]])
        about = np.array(self.about)
        return np.column_stack([linear, about - linear @ about + self.by])


def lines_of(session: Session, page_id: int) -> list[tables.Line]:
    """Return a page's lines from back to front."""
    query = select(tables.Line).where(tables.Line.page_id == page_id)
    return list(session.exec(query.order_by(col(tables.Line.position), col(tables.Line.id))).all())


def line_from_source(source: dict) -> Line:
    """Draw the line that a source describes: path data, a ready line's figures, points, or a hand's stroke."""
    if source["kind"] == "path":
        return line_from_path_data(source["d"], where="the line")
    if source["kind"] == "ready":
        return line_from_path_data(_path_of_ready(source), where="the line")
    points = np.array(source["points"], float)
    if source["kind"] == "hand":
        if source["straight"]:
            return line_from_hand(points, straight=True)
        return line_from_points(*_knots_of(source), closed=source.get("closed", False))
    return line_from_points(points, np.array(source["flowing"], bool), closed=source.get("closed", False))


def kept_source(source: dict) -> tuple[dict, str]:
    """Return what is kept of a source, and the path it gives. A hand's stroke is kept as points, with what the hand gave beside them."""
    line = line_from_source(source)
    if source["kind"] == "path":
        return source, source["d"]
    if source["kind"] == "ready":
        return source | {"figures": ready_lines.checked(source["shape"], source["figures"])}, _path_of_ready(source)
    if source["kind"] == "points":
        return source, path_data_from_line(line)
    if not len(line.coeffs):
        raise InputError("the line has no length; draw a little further")
    if source["straight"]:
        ends = np.array(source["points"], float)[[0, -1]]
        kept = {"kind": "points", "points": ends.round(4).tolist(), "flowing": [False, False], "closed": False}
        return kept, path_data_from_line(line_from_source(kept))
    knots, flowing = _knots_of(source)
    stroke = {key: source.get(key) for key in ("points", "times", "smooth_pct", "within_mm")}
    kept = {"kind": "points", "points": knots.round(4).tolist(), "flowing": flowing.tolist(), "closed": line.closed, "stroke": stroke}
    return kept, path_data_from_line(line_from_source(kept))


def _knots_of(source: dict) -> tuple[np.ndarray, np.ndarray]:
    times = source.get("times")
    return knots_of_hand(
        np.array(source["points"], float), None if times is None else np.array(times, float),
        smooth_pct=source.get("smooth_pct", STANDARD_PCT),
        within_mm=source.get("within_mm", HAND_TOLERANCE_MM), closed=source.get("closed", False),
    )  # fmt: skip


def _path_of_ready(source: dict) -> str:
    return ready_lines.path_of(source["shape"], source["figures"], source["at"], source["turn_deg"])


def split_at_corners(session: Session, line_id: int, version: int) -> list[tables.Line]:
    """Make a line of its own of each side of a line, in its place and with what it has; return all lines of the page.

    Corners are what its brush takes for corners. Raises InputError where there are none.
    """
    row = row_of(session, "line", line_id)
    corner_from = settings_of(row_of(session, "brush", row.brush_id)).ends.corner_from
    sides = sides_of(measured_path(row.path), corner_from=corner_from)
    if len(sides) < 2:
        raise InputError(f"{row.name} has no corner of {np.degrees(corner_from):g}° or more; there is nothing to part")
    lines = lines_of(session, row.page_id)
    above = [line.position for line in lines if line.position > row.position]
    room = (min(above, default=row.position + len(sides)) - row.position) / len(sides)
    own = {key: getattr(row, key) for key in ("page_id", "brush_id", "size_pct", "ink", "second_ink", "arrangement", "visible")}
    changes, seed = [Change("line", row.id, None, version)], next_seed(lines)
    for k, side in enumerate(sides):
        path = path_data_from_line(side)
        changes.append(Change("line", None, own | {
            "name": f"{row.name}, side {k + 1}", "path": path, "source": {"kind": "path", "d": path},
            "position": row.position + k * room, "seed": seed + k,
        }))  # fmt: skip
    make_step(session, f"sides of {row.name}", changes)
    return lines_of(session, row.page_id)


def draw(
    session: Session, page_id: int, brush_id: int, source: dict, *, name: str | None = None, size_pct: float = 100.0, ink: str | None = None
) -> tables.Line:
    """Draw a line on a page, in front of the others."""
    kept, path = kept_source(source)
    row_of(session, "page", page_id)
    row_of(session, "brush", brush_id)
    lines = lines_of(session, page_id)
    name = name or _free_name([line.name for line in lines])
    values = _new(page_id, brush_id, lines, 0) | {"name": name, "source": kept, "path": path, "size_pct": size_pct, "ink": ink}
    return tables.Line(**made(make_step(session, f"draw {name}", [Change("line", None, values)])))


def bring_in(session: Session, page_id: int, brush_id: int, svg: str) -> tuple[list[tables.Line], tuple[str, ...]]:
    """Bring in the lines of an SVG, in front of the others; return all lines of the page, and what was left out of the file."""
    found = lines_from_svg(svg, where="the file")
    if len(found.lines) > MOST_BROUGHT_IN:
        raise InputError(f"the file has {len(found.lines)} lines, more than {MOST_BROUGHT_IN}; split it")
    row_of(session, "page", page_id)
    row_of(session, "brush", brush_id)
    lines = lines_of(session, page_id)
    taken, changes = [line.name for line in lines], []
    for i, line in enumerate(found.lines):
        path = path_data_from_line(line)
        taken.append(_free_name(taken))
        values = {"name": taken[-1], "source": {"kind": "path", "d": path}, "path": path, "size_pct": 100.0, "ink": None}
        changes.append(Change("line", None, _new(page_id, brush_id, lines, i) | values))
    make_step(session, "bring in a line" if len(changes) == 1 else f"bring in {len(changes)} lines", changes)
    return lines_of(session, page_id), found.left_out


def change(
    session: Session,
    line_id: int,
    version: int,
    values: dict[str, Any],
    *,
    source: dict | None = None,
    move_by: list[float] | None = None,
    to_place: int | None = None,
    cure: dict | None = None,
    on_copy: Sequence[int] | None = None,
    label: str | None = None,
    merge_key: str = "",
) -> tables.Line:
    """Change a line: some of its values, its course, its place among the others, or by a finding's cure.

    A cure of the brush changes a copy of it where lines of that brush are given ``on_copy``: the line and these take the copy.
    """
    row = row_of(session, "line", line_id)
    if "brush_id" in values:
        row_of(session, "brush", values["brush_id"])
    if source is not None:
        values = values | dict(zip(("source", "path"), kept_source(source), strict=True))
    if move_by is not None:
        values = values | dict(zip(("source", "path"), _moved(row, Moving(by=(move_by[0], move_by[1]))), strict=True))
    if to_place is not None:
        values = values | {"position": _position_at(lines_of(session, row.page_id), row, to_place)}
    if on_copy is not None:
        return _cured_on_copy(session, row, version, cure, on_copy, label)
    changes = [Change("line", line_id, values, version)] if cure is None else _cure(session, row, cure, version)
    after = make_step(session, label or f"change {row.name}", changes, merge_key=merge_key)[0]
    return tables.Line(**(after or row.model_dump()))


def change_together(
    session: Session,
    page_id: int,
    versions: dict[int, int],
    values: dict[str, Any],
    *,
    moving: Moving | None = None,
    remove: bool = False,
    label: str | None = None,
    merge_key: str = "",
) -> list[tables.Line]:
    """Change several lines of a page, by their ids and versions, in one step; return all lines of the page.

    They take the ``values``, are moved, or taken off. Raises InputError for a line that is not on the page.
    """
    rows = [row_of(session, "line", line_id) for line_id in versions]
    if any(row.page_id != page_id for row in rows):
        raise InputError("not all of these lines are on this page")
    if "brush_id" in values:
        row_of(session, "brush", values["brush_id"])
    changes = []
    for row in rows:
        own = values if moving is None else values | dict(zip(("source", "path"), _moved(row, moving), strict=True))
        changes.append(Change("line", row.id, None if remove else own, versions[row.id]))
    verb = "delete" if remove else "change" if moving is None else "move"
    make_step(session, label or f"{verb} {len(rows)} lines", changes, merge_key=merge_key)
    return lines_of(session, page_id)


def uses_of_brushes(session: Session) -> list[tuple[int, int, int]]:
    """Return of every brush that lies on a line its id, and on how many lines of how many pages it lies."""
    counted = select(tables.Line.brush_id, func.count(), func.count(func.distinct(tables.Line.page_id))).group_by(col(tables.Line.brush_id))
    return [(brush_id, count, pages) for brush_id, count, pages in session.exec(counted)]


def delete(session: Session, line_id: int, version: int) -> None:
    """Take a line off its page."""
    row = row_of(session, "line", line_id)
    make_step(session, f"delete {row.name}", [Change("line", line_id, None, version)])


def changed_by_cure(measured: MeasuredLine, cure: dict) -> MeasuredLine | None:
    """Return a line under a cure's change to it, None where it is taken off; raises InputError for a change that is no cure's."""
    entries = cure.get("line") if set(cure) == {"line"} else None
    if not isinstance(entries, dict) or not entries or not set(entries) <= {*CURES_OF_LINES, "remove"}:
        raise InputError("cure: this change is not known")
    for key, (low, high) in CURES_OF_LINES.items():
        value = entries.get(key, 1)
        if isinstance(value, bool) or not isinstance(value, int | float) or not low < value <= high:
            raise InputError(f"cure.line.{key}: it must be more than {low:g} and at most {high:g}")
    line = changed_line(measured, entries)
    return None if line is None else measure(line)


def for_line_size(patch: dict, size_pct: float) -> dict:
    """Turn the size a cure gives, which holds the line's own size too, back into the brush's."""
    spacing = patch.get("spacing")
    size = spacing.get("size_pct") if isinstance(spacing, dict) else None
    if isinstance(size, bool) or not isinstance(size, int | float) or not 0 < size <= 1e6:
        return patch  # nothing of ours to turn; what is wrong is refused where settings are merged
    return patch | {"spacing": patch["spacing"] | {"size_pct": size * 100 / size_pct}}


def made(rows: list[dict | None]) -> dict:
    """Return the first row of a step that made or changed it."""
    row = rows[0]
    assert row is not None
    return row


def _new(page_id: int, brush_id: int, lines: list[tables.Line], more: int) -> dict:
    """Return what a new line begins with, ``more`` of its step before it: a place in front, a number of its own for chance."""
    position = (lines[-1].position if lines else 0.0) + 1.0 + more
    seed = next_seed(lines) + more
    return {"page_id": page_id, "brush_id": brush_id, "position": position, "seed": seed, "visible": True}


def next_seed(lines: Sequence[tables.Line]) -> int:
    """Return the number that chance will know a page's next line by."""
    return max((line.seed for line in lines), default=-1) + 1


def _free_name(taken: list[str]) -> str:
    n = len(taken) + 1
    while f"Line {n}" in taken:
        n += 1
    return f"Line {n}"


def moved_row(row: tables.Line, moving: Moving) -> tables.Line:
    """Return a line's row as it would be moved, turned and scaled."""
    source, path = _moved(row, moving)
    return tables.Line(**row.model_dump() | {"source": source, "path": path})


def _moved(row: tables.Line, moving: Moving) -> tuple[dict, str]:
    """Return the source and the path of a line that is moved, turned and scaled; what it was drawn from is kept."""

    def on(points: Sequence) -> list:
        return (np.array(points, float) @ moving.matrix[:, :2].T + moving.matrix[:, 2]).round(4).tolist()

    source = row.source
    if source.get("kind") == "ready":
        figures = ready_lines.scaled(source["shape"], source["figures"], moving.scale)
        return kept_source(source | {"at": on([source["at"]])[0], "turn_deg": source["turn_deg"] + moving.turn_deg, "figures": figures})
    if source.get("kind") == "points":
        stroke = source.get("stroke")
        moved = {"stroke": _stroke_under(stroke, on(stroke["points"]), moving.scale)} if stroke else {}
        return kept_source(source | {"points": on(source["points"])} | moved)
    path = path_data_from_line(under(measured_path(row.path).line, moving.matrix))
    return {"kind": "path", "d": path}, path


def _stroke_under(stroke: dict, points: list, scale: float) -> dict:
    """Return what a hand gave where its line is moved to points, and how near to it a line stays at the new scale."""
    within = scale * (stroke.get("within_mm") or HAND_TOLERANCE_MM)
    return stroke | {"points": points, "within_mm": float(np.clip(within, *WITHIN_MM))}


def _position_at(lines: list[tables.Line], row: tables.Line, place: int) -> float:
    """Return a position that puts the row at ``place`` counted from the front."""
    others = [line.position for line in reversed(lines) if line.id != row.id]
    place = min(place, len(others))
    above = others[place - 1] if place else None
    below = others[place] if place < len(others) else None
    if above is None:
        return 1.0 if below is None else below + 1.0
    return above - 1.0 if below is None else (above + below) / 2


def _cure(session: Session, row: tables.Line, cure: dict, version: int) -> list[Change]:
    """Turn a finding's cure into changes of the line or of its brush."""
    if set(cure) == {"brush"} and isinstance(cure["brush"], dict):
        brush = row_of(session, "brush", row.brush_id)
        settings = merged_settings(settings_of(brush), for_line_size(cure["brush"], row.size_pct))
        touched = Change("line", row.id, {}, version)
        return [touched, Change("brush", brush.id, {"settings": settings.model_dump()})]
    line = changed_by_cure(measured_path(row.path), cure)
    if line is None:
        return [Change("line", row.id, None, version)]
    path = path_data_from_line(line.line)
    return [Change("line", row.id, {"path": path, "source": {"kind": "path", "d": path}}, version)]


def _cured_on_copy(
    session: Session, row: tables.Line, version: int, cure: dict | None, others: Sequence[int], label: str | None
) -> tables.Line:
    """Give a line, and others of its brush, a copy of that with the cure's change."""
    if cure is None or set(cure) != {"brush"} or not isinstance(cure["brush"], dict):
        raise InputError("on_copy: only a cure that changes the brush can change a copy of it")
    brush = row_of(session, "brush", row.brush_id)
    rows = [row_of(session, "line", i) for i in others if i != row.id]
    if any(other.brush_id != brush.id for other in rows):
        raise InputError(f"on_copy: not all of these lines carry {brush.name}")
    settings = merged_settings(settings_of(brush), for_line_size(cure["brush"], row.size_pct))
    values = {"motif_id": brush.motif_id, "pieces": brush.pieces, "settings": settings.model_dump(), "name": copy_name(session, brush)}
    label, key = label or f"change {row.name}", f"copy {brush.id} {row.id} {version}"
    copied = made(make_step(session, label, [Change("brush", None, values)], merge_key=key))
    taking = [Change("line", row.id, {"brush_id": copied["id"]}, version)]
    taking += [Change("line", other.id, {"brush_id": copied["id"]}) for other in rows]
    return tables.Line(**made(make_step(session, label, taking, merge_key=key)))
