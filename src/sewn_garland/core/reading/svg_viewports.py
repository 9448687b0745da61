"""Lengths of SVG and what they are relative to: viewports and view boxes, by SVG 2, chapter 8."""

from __future__ import annotations

import math
import re
from dataclasses import dataclass

import numpy as np

from ..errors import InputError
from ..maths.affine import compose

MM_PER_UNIT = {"": 25.4 / 96, "px": 25.4 / 96, "mm": 1.0, "cm": 10.0, "in": 25.4, "pt": 25.4 / 72, "pc": 25.4 / 6, "q": 0.25}
LENGTH = re.compile(r"\s*([+-]?(?:\d+\.?\d*|\.\d+)(?:[eE][+-]?\d+)?)\s*([a-zA-Z%]*)\s*")
ACROSS, DOWN = {"x", "x1", "x2", "cx", "rx", "width"}, {"y", "y1", "y2", "cy", "ry", "height"}


def mm_from_length(text: str | None, *, where: str, relative_to: float | None = None) -> float | None:
    """Read a CSS length as mm (96 px to the inch); None for none, per cent of ``relative_to``."""
    if text is None or not text.strip() or text.strip() == "auto":
        return None
    found = LENGTH.fullmatch(text)
    unit = found.group(2).lower() if found else ""
    if found is not None and unit == "%":
        return None if relative_to is None else float(found.group(1)) / 100 * relative_to
    if found is None or unit not in MM_PER_UNIT:
        raise InputError(f"“{text[:40]}” is not a length that can be read", where=where)
    value = float(found.group(1)) * MM_PER_UNIT[unit]
    if not math.isfinite(value) or abs(value) > 1e9:
        raise InputError(f"“{text[:40]}” is not a finite length", where=where)
    return value


@dataclass(frozen=True)
class Viewport:
    """What per cents of an element are of: a width and a height in its user units."""

    width: float
    height: float

    @property
    def diagonal(self) -> float:
        """Return what per cents are of that go neither across nor down: the diagonal over √2."""
        return math.hypot(self.width, self.height) / math.sqrt(2)

    def length(self, element, key: str, *, where: str, absent: str = "0") -> float:
        """Read an attribute as a length in user units; per cents are of the width, the height or the diagonal / √2, as its name says."""
        text = element.get(key)
        of = self.width if key in ACROSS else self.height if key in DOWN else self.diagonal
        given = absent if text is None or text.strip() in ("", "auto") else text
        return (mm_from_length(given, where=f"{where}, {key}", relative_to=of * MM_PER_UNIT["px"]) or 0.0) / MM_PER_UNIT["px"]

    def frame_of_child(self, element, size_of, *, where: str) -> tuple[float, float, float, float]:
        """Return x, y, width and height of what ``of_child`` maps into, in this viewport's user units."""
        sides = [(size_of if size_of.get(key) else element, key) for key in ("width", "height")]
        width, height = (self.length(of, key, where=where, absent="100%") for of, key in sides)
        placed = element.tag.endswith("}svg")
        x, y = (self.length(element, key, where=where) for key in ("x", "y")) if placed else (0.0, 0.0)
        return x, y, width, height

    def of_child(self, element, size_of, *, where: str) -> tuple[np.ndarray, Viewport] | None:
        """Return the map into a new viewport, from a nested svg's or a used symbol's user units, and that viewport.

        ``size_of`` is the element that says its width and height, all of this one's where it says none. None where it has no extent.
        """
        x, y, width, height = self.frame_of_child(element, size_of, where=where)
        if width <= 0 or height <= 0:
            return None
        shift = np.array([[1.0, 0.0, x], [0.0, 1.0, y]])
        box = view_box(element, where)
        if box is None:
            return shift, Viewport(width, height)
        return compose(shift, fit(box, width, height, element.get("preserveAspectRatio", ""))), Viewport(box[2], box[3])


def view_box(element, where: str) -> tuple[float, float, float, float] | None:
    """Read an element's viewBox, x, y, width and height; None without one. Raises InputError for one that is none."""
    text = element.get("viewBox")
    if text is None:
        return None
    try:
        x, y, w, h = (float(v) for v in re.split(r"[\s,]+", text.strip()))
    except ValueError:
        raise InputError(f"its viewBox “{text[:40]}” is not four numbers", where=where) from None
    if not all(map(math.isfinite, (x, y, w, h))) or max(map(abs, (x, y, w, h))) > 1e9:
        raise InputError("its viewBox has a number that is not finite or beyond 1 000 000 000", where=where)
    if w <= 0 or h <= 0:
        raise InputError("its viewBox has no width or no height", where=where)
    return x, y, w, h


def fit(box: tuple[float, float, float, float], width: float, height: float, aspect: str) -> np.ndarray:
    """Map a viewBox into width × height as preserveAspectRatio says (default: meet, centred)."""
    sx, sy = width / box[2], height / box[3]
    x_share = y_share = 0.5
    if aspect.strip().startswith("none"):
        return np.array([[sx, 0, -box[0] * sx], [0, sy, -box[1] * sy]])
    x_share = {"xMin": 0.0, "xMax": 1.0}.get(aspect[:4], x_share)
    y_share = {"YMin": 0.0, "YMax": 1.0}.get(aspect[4:8], y_share)
    s = max(sx, sy) if "slice" in aspect else min(sx, sy)
    dx = (width - box[2] * s) * x_share
    dy = (height - box[3] * s) * y_share
    return np.array([[s, 0, dx - box[0] * s], [0, s, dy - box[1] * s]])
