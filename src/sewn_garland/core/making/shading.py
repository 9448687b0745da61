"""Light and backing: a backing shape under parts, highlights and shadows cut to them."""

from __future__ import annotations

from dataclasses import replace
from typing import Literal

import numpy as np

from ..artwork.fills import covered
from ..errors import InputError
from ..maths.booleans import combined, stroke_outline
from ..maths.bounds import outline_box
from ..maths.outlines import joined, subpaths
from ..values.motif import Paint, Shape

INSET_SHARE = 0.2  # of the outline's shorter side, cut away at once; chosen: well below where a rim turns inside out
LEAST_INSET_MM = 0.01


def backing(shapes: list[Shape], *, colour: str, grow_mm: float, fill_holes: bool = True) -> Shape:
    """Return a shape that lies behind others: their joint outline, grown by ``grow_mm``, its holes filled."""
    outlines = [covered(s) for s in shapes if s.picture is None]
    if not outlines:
        raise InputError("a picture has no outline to back; trace it first")
    commands, points = combined(outlines, "join")
    if grow_mm > 0:
        rim = stroke_outline(commands, points, width=2 * grow_mm, join="round")
        commands, points = combined([(commands, points, "nonzero"), (*rim, "nonzero")], "join")
    if fill_holes:
        parts = list(subpaths(commands, points))
        commands, points = combined([(c, p, "nonzero") for c, p in parts], "join") if len(parts) > 1 else joined(parts)
    return Shape(commands, points, Paint(colour), name="Back")


def inset(own: tuple[str, np.ndarray, str], inset_mm: float) -> tuple[str, np.ndarray, str]:
    """Return an outline with its rim cut away, empty where nothing is left.

    A rim wider than what it goes round turns inside out in the engine, so it is cut in steps that
    are small against the outline.
    """
    rest = inset_mm
    while rest > 1e-9 and own[0]:
        left, top, right, bottom = outline_box(own[0], own[1])
        step = min(rest, INSET_SHARE * min(right - left, bottom - top))
        if step < LEAST_INSET_MM and step < rest:
            return "", np.zeros((0, 2)), "nonzero"
        rim = stroke_outline(own[0], own[1], width=2 * step, join="round")
        own = (*combined([own, (*rim, "nonzero")], "cut_out"), "nonzero")
        rest -= step
    return own


def light_on(
    shape: Shape,
    kind: Literal["highlight", "shadow"],
    *,
    from_deg: float,
    width_mm: float,
    colour: str,
    opacity: float,
    inset_mm: float = 0.0,
) -> Shape | None:
    """Return a rim of light or shade, cut to the shape: what of it the shape, moved by ``width_mm``, leaves bare.

    ``from_deg`` is where the light comes from, clockwise from the right of the page; a shadow lies
    on the far side. Given the same angle, every ring is lit on the same side, the inside of its
    hole too. ``inset_mm`` keeps the light off the edge. None where nothing would be seen.
    """
    own = covered(shape)
    angle = np.radians(from_deg)
    toward = np.array([np.cos(angle), np.sin(angle)]) * (1 if kind == "highlight" else -1)
    own = inset(own, inset_mm)
    if not own[0]:
        return None
    commands, points = combined([own, (own[0], own[1] - toward * width_mm, own[2])], "cut_out")
    if not commands:
        return None
    paint = Paint(colour, opacity)
    return replace(shape, commands=commands, points=points, fill=paint, fill_rule="nonzero", stroke=None, name=kind.capitalize())
