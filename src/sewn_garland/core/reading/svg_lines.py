"""Read the lines of an SVG."""

from __future__ import annotations

import re
from dataclasses import dataclass

import numpy as np

from ..errors import InputError, LimitError
from ..maths.outlines import subpaths
from ..values.line import Line
from .path_data import Subpath, ellipse_subpath, line_from_subpath, rect_subpath, subpath_from_outline, subpaths_from_path_data
from .svg_source import Drawn, drawn_elements, parse_svg, with_reasons

MOST_LINES = 50_000


@dataclass(frozen=True)
class LinesOnPage:
    """The page's size in mm, its lines in document order, and what was left out of the file, a sentence each."""

    width_mm: float
    height_mm: float
    lines: tuple[Line, ...]
    left_out: tuple[str, ...] = ()


def lines_from_svg(data: bytes | str, *, where: str = "the file") -> LinesOnPage:
    """Read every drawn shape as a line, each subpath of its own, transforms applied.

    A subpath without length keeps its place. Raises InputError when there is none at all.
    """
    source = parse_svg(data, where=where)
    lines: list[Line] = []
    left_out: list[str] = []
    for drawn in drawn_elements(source, left_out, where=where):
        lines.extend(line_from_subpath(subpath, drawn.matrix) for subpath in subpaths_of(drawn))
        if len(lines) > MOST_LINES:
            raise LimitError(f"it has more than {MOST_LINES} lines", where=where)
    if not lines:
        what = "it has no line: draw a path, line, polyline, polygon, rect, circle or ellipse"
        raise InputError(with_reasons(what, left_out), where=where)
    return LinesOnPage(source.width_mm, source.height_mm, tuple(lines), tuple(left_out))


def line_from_path_data(text: str, *, where: str = "path") -> Line:
    """Read path data in mm that holds one subpath."""
    subpaths = subpaths_from_path_data(text, where=where)
    if len(subpaths) != 1:
        raise InputError(f"one line was expected and {len(subpaths)} came", where=where)
    return line_from_subpath(subpaths[0], np.array([[1.0, 0, 0], [0, 1.0, 0]]))


def subpaths_of(drawn: Drawn) -> list[Subpath]:
    """Return an element's subpaths in its own user units."""
    if drawn.letters is not None:
        return [subpath_from_outline(*contour) for contour in subpaths(*drawn.letters)]
    element, where = drawn.element, drawn.where
    name = element.tag.rsplit("}", 1)[-1]
    if name == "path":
        return subpaths_from_path_data(element.get("d", ""), where=where)
    if name in ("polyline", "polygon"):
        return _poly(element.get("points", ""), name == "polygon", where)

    number = drawn.length
    if name == "line":
        ends = np.array([[number("x1"), number("y1")], [number("x2"), number("y2")]])
        return [Subpath(ends[0], [ends])]
    if name == "rect":
        rx, ry = (number(key) if element.get(key) not in (None, "auto") else None for key in ("rx", "ry"))
        rx, ry = (ry if rx is None else rx) or 0.0, (rx if ry is None else ry) or 0.0
        return [rect_subpath(number("x"), number("y"), number("width"), number("height"), rx, ry)]
    radii = (number("r"), number("r")) if name == "circle" else (number("rx"), number("ry"))
    return [ellipse_subpath(number("cx"), number("cy"), *radii)]


def _poly(text: str, closed: bool, where: str) -> list[Subpath]:
    try:
        values = [float(v) for v in re.split(r"[\s,]+", text.strip()) if v]
    except ValueError:
        raise InputError("its points hold something that is not a number", where=where) from None
    points = np.array(values[: len(values) // 2 * 2]).reshape(-1, 2)
    if not np.isfinite(points).all() or np.abs(points).max(initial=0) > 1e9:
        raise InputError("a point is not finite or beyond 1 000 000 000", where=where)
    if not len(points):
        return []
    ring = np.vstack([points, points[:1]]) if closed and np.any(points[0] != points[-1]) else points
    return [Subpath(points[0], [ring[i : i + 2] for i in range(len(ring) - 1)], closed)]
