"""Transforms of SVG and CSS: lists of them, and the properties that stand for one each."""

from __future__ import annotations

import math
import re
from collections.abc import Mapping

import numpy as np

from ..errors import InputError
from ..maths.affine import IDENTITY, compose
from .svg_viewports import LENGTH, MM_PER_UNIT, Viewport

PROPERTIES = ("translate", "rotate", "scale", "transform", "transform-origin")
PLACES = {"left": 0.0, "top": 0.0, "center": 0.5, "right": 1.0, "bottom": 1.0}
TRANSFORM = re.compile(r"[\s,]*(matrix|translate[XY]?|scale[XY]?|rotate|skew[XY]|skew)\s*\(([^()]*)\)")
DEGREES = {"": 1.0, "deg": 1.0, "rad": 180 / math.pi, "grad": 0.9, "turn": 360.0}
ANGLES = ("rotate", "skewX", "skewY", "skew")


def transform_from_text(text: str, *, where: str) -> np.ndarray:
    """Read a transform list, as SVG or as CSS writes it, into a 2 × 3 affine; empty and ``none`` are the identity."""
    matrix, at, text = IDENTITY, 0, "" if text.strip() == "none" else text.strip()
    while at < len(text):
        found = TRANSFORM.match(text, at)
        if not found:
            raise InputError(f"transform “{text[at : at + 24]}” cannot be read", where=where)
        try:
            values = [v for v in re.split(r"[\s,]+", found.group(2).strip()) if v]
            matrix = compose(matrix, _one_transform(found.group(1), _numbers(found.group(1), values)))
        except (ValueError, TypeError, KeyError, IndexError):
            raise InputError(f"transform “{found.group(0).strip()[:40]}” has the wrong numbers", where=where) from None
        at = found.end()
    if not np.isfinite(matrix).all() or np.abs(matrix).max() > 1e12:
        raise InputError("a transform is not finite", where=where)
    return matrix


def _numbers(name: str, values: list[str]) -> list[float]:
    """Read the values of one transform: lengths in user units, angles in degrees, shares; raises ValueError for other units."""
    out = []
    for k, text in enumerate(values):
        found = LENGTH.fullmatch(text)
        if found is None:
            raise ValueError(text)
        unit, number = found.group(2).lower(), float(found.group(1))
        if name in ANGLES and k < (2 if name == "skew" else 1):
            factor = DEGREES[unit]
        elif name.startswith("translate") or name == "rotate":
            factor = MM_PER_UNIT[unit] / MM_PER_UNIT["px"]
        else:
            factor = {"": 1.0, "%": 0.01}[unit] if name.startswith("scale") else {"": 1.0}[unit]
        out.append(number * factor)
    return out


def _one_transform(name: str, v: list[float]) -> np.ndarray:
    allowed = {"matrix": (6,), "translate": (1, 2), "scale": (1, 2), "rotate": (1, 3), "skew": (1, 2)}
    if len(v) not in allowed.get(name, (1,)):
        raise ValueError(name)
    if name in ("translateX", "translateY"):
        return np.array([[1.0, 0.0, v[0] if name[-1] == "X" else 0.0], [0.0, 1.0, v[0] if name[-1] == "Y" else 0.0]])
    if name in ("scaleX", "scaleY"):
        return np.array([[v[0] if name[-1] == "X" else 1.0, 0.0, 0.0], [0.0, v[0] if name[-1] == "Y" else 1.0, 0.0]])
    if name == "skew":
        return np.array([[1.0, math.tan(math.radians(v[0])), 0.0], [math.tan(math.radians(v[1])) if len(v) > 1 else 0.0, 1.0, 0.0]])
    if name == "matrix":
        return np.array([[v[0], v[2], v[4]], [v[1], v[3], v[5]]])
    if name == "translate":
        return np.array([[1.0, 0.0, v[0]], [0.0, 1.0, v[1] if len(v) > 1 else 0.0]])
    if name == "scale":
        return np.array([[v[0], 0.0, 0.0], [0.0, v[-1], 0.0]])
    angle = math.radians(v[0])
    if name == "rotate":
        cos, sin = math.cos(angle), math.sin(angle)
        x, y = v[1:] if len(v) == 3 else (0.0, 0.0)
        return np.array([[cos, -sin, x - cos * x + sin * y], [sin, cos, y - sin * x - cos * y]])
    tan = math.tan(angle)
    return np.array([[1.0, tan, 0.0], [0.0, 1.0, 0.0]]) if name == "skewX" else np.array([[1.0, 0.0, 0.0], [tan, 1.0, 0.0]])


def transform_of(own: Mapping[str, str], port: Viewport, *, where: str) -> np.ndarray:
    """Return the map of an element by its properties (CSS Transforms 2, section 5): its origin, translate, rotate, scale, transform."""
    given = {key: own[key].strip() for key in PROPERTIES if own.get(key, "none").strip() not in ("none", "")}
    matrix = IDENTITY
    for key in ("translate", "rotate", "scale"):
        if key in given:
            matrix = compose(matrix, transform_from_text(f"{key}({given[key]})", where=where))
    if "transform" in given:
        matrix = compose(matrix, transform_from_text(given["transform"], where=where))
    x, y = _origin(given.get("transform-origin", ""), port, where)
    if not (x or y):
        return matrix
    return compose(compose(np.array([[1.0, 0.0, x], [0.0, 1.0, y]]), matrix), np.array([[1.0, 0.0, -x], [0.0, 1.0, -y]]))


def _origin(text: str, port: Viewport, where: str) -> tuple[float, float]:
    """Read where a transform's origin lies in user units; of SVG elements it is the viewport's by default."""
    if not text:
        return 0.0, 0.0
    words = text.split()[:2]
    if words[0] in ("top", "bottom") or (len(words) > 1 and words[1] in ("left", "right")):
        words.reverse()
    words = [*words, "center"][:2]
    out = []
    for word, of in zip(words, (port.width, port.height), strict=True):
        if word in PLACES:
            out.append(PLACES[word] * of)
            continue
        found = LENGTH.fullmatch(word)
        unit = found.group(2).lower() if found else "?"
        if found is None or (unit != "%" and unit not in MM_PER_UNIT):
            raise InputError(f"transform-origin “{text[:40]}” cannot be read", where=where)
        factor = of / 100 if unit == "%" else MM_PER_UNIT[unit] / MM_PER_UNIT["px"]
        out.append(float(found.group(1)) * factor)
    return out[0], out[1]
