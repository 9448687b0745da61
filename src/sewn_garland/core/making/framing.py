"""Fit a motif's frame: to the ink, to a size, turned; and say what the change does."""

from __future__ import annotations

from dataclasses import replace

import numpy as np

from ..artwork.box import ink_box
from ..errors import InputError
from ..values.motif import Motif, mapped, shifted

LEAST_LINK_MM = 0.01  # chosen: joints closer together hold nothing


def trimmed(motif: Motif, *, where: str = "the motif", keep_base: bool = True) -> Motif:
    """Cut the frame down to the ink, so that no margin opens the joins.

    The base line stays on the artwork, or goes to half the new height.
    """
    left, top, right, bottom = ink_box(motif)
    width, height = right - left, bottom - top
    if width <= 1e-6 and height <= 1e-6:
        raise InputError("the drawing has no size", where=where)
    if width <= 1e-6 or height <= 1e-6:
        raise InputError("the drawing has no width or no height; give it a stroke or a filled shape", where=where)
    told = _told_margins(left, motif.width - right, top, motif.height - bottom)
    moved = shifted(motif, -left, -top)
    base = moved.base_line if keep_base else height / 2
    return replace(moved, width=width, height=height, base_line=base, left_out=(*motif.left_out, *told))


def _told_margins(left: float, right: float, top: float, bottom: float) -> list[str]:
    sides = [(left, "left"), (right, "right"), (top, "above"), (bottom, "below")]
    cut = [f"{margin:.1f} mm {side}" for margin, side in sides if margin > 0.05]
    return [f"Empty margin cut away: {', '.join(cut)}."] if cut else []


def turned(motif: Motif, turn_deg: float) -> Motif:
    """Turn the artwork clockwise about its frame's middle; the frame becomes the turned one's box.

    A quarter turn swaps length and height. The base line goes to half the new height, joints and
    cuts are given up.
    """
    angle = np.radians(turn_deg)
    cos, sin = np.cos(angle), np.sin(angle)
    if turn_deg % 90 == 0:
        cos, sin = round(cos), round(sin)
    width = motif.width * abs(cos) + motif.height * abs(sin)
    height = motif.width * abs(sin) + motif.height * abs(cos)
    linear = np.array([[cos, -sin], [sin, cos]], float)
    shift = np.array([width / 2, height / 2]) - linear @ [motif.width / 2, motif.height / 2]
    matrix = np.column_stack([linear, shift])
    shapes = tuple(mapped(shape, matrix) for shape in motif.shapes)
    return replace(motif, shapes=shapes, width=float(width), height=float(height), base_line=float(height) / 2, joints=None, cuts=None)


def resized(motif: Motif, width_mm: float) -> tuple[Motif, list[str]]:
    """Scale everything so that the frame is ``width_mm`` long; say in sentences what becomes of strokes."""
    factor = width_mm / motif.width
    matrix = np.array([[factor, 0.0, 0.0], [0.0, factor, 0.0]])
    told = []
    widths = sorted({round(s.stroke.width, 4) for s in motif.shapes if s.stroke})
    if widths and abs(factor - 1) > 1e-9:
        told.append(f"Strokes of {_span(widths)} mm become {_span([w * factor for w in widths])} mm.")
    if widths and widths[0] * factor < 0.1:
        told.append("The thinnest stroke falls below 0.1 mm, which many printers lose.")  # common practice
    joints = motif.joints and tuple((x * factor, y * factor) for x, y in motif.joints)
    cuts = motif.cuts and (motif.cuts[0] * factor, motif.cuts[1] * factor)
    return replace(
        motif, shapes=tuple(mapped(s, matrix) for s in motif.shapes), width=width_mm, height=motif.height * factor,
        base_line=motif.base_line * factor, joints=joints, cuts=cuts,
    ), told  # fmt: skip


def _span(values: list[float]) -> str:
    return f"{values[0]:.2f}" if len(values) == 1 else f"{values[0]:.2f} to {values[-1]:.2f}"


def framed(motif: Motif, left_mm: float, top_mm: float, right_mm: float, bottom_mm: float) -> Motif:
    """Give the motif another frame, in its own mm; the artwork stays, coordinates begin at the new top left."""
    if right_mm - left_mm < 0.01 or bottom_mm - top_mm < 0.01:
        raise InputError("the frame needs a length and a height; pull its sides apart")
    return replace(shifted(motif, -left_mm, -top_mm), width=right_mm - left_mm, height=bottom_mm - top_mm)


def joints_moved(motif: Motif, by: float) -> Motif:
    """Return the motif with its joints ``by`` mm further apart, each moved by half of it along the line through both.

    Raises InputError where they would meet.
    """
    left, right = motif.joint_points
    apart = float(np.hypot(*(right - left)))
    if apart + by < LEAST_LINK_MM:
        raise InputError(f"links of {apart + by:.2f} mm cannot be; keep the joints at least {LEAST_LINK_MM:g} mm apart")
    step = (right - left) / apart * by / 2
    return replace(motif, joints=(tuple((left - step).tolist()), tuple((right + step).tolist())))
