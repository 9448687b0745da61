"""Lines under the changes that a cure makes to them."""

from __future__ import annotations

from dataclasses import replace

import numpy as np

from ..values.line import Line, MeasuredLine
from .smoothing import scaled, smoothed


def changed_line(measured: MeasuredLine, change: dict) -> Line | None:
    """Apply the line's part of a cure; None when the line is taken away."""
    if change.get("remove"):
        return None
    line = measured.line
    if "smooth_mm" in change:
        line = smoothed(measured, float(change["smooth_mm"]))
    return scaled(line, float(change["scale"])) if "scale" in change else line


def under(line: Line, matrix: np.ndarray) -> Line:
    """Return a line under an affine map (2, 3); its course stays what it is, arcs too."""
    linear, by = matrix[:, :2], matrix[:, 2]
    coeffs = line.coeffs @ linear.T
    coeffs[:, 0] += by
    coeffs[line.is_arc, 3] = line.coeffs[line.is_arc, 3]  # the angles of an arc
    return replace(line, coeffs=coeffs, start=line.start @ linear.T + by)


def sides_of(measured: MeasuredLine, *, corner_from: float) -> list[Line]:
    """Return what lies between a line's corners, that turn by at least ``corner_from`` radians, in the order of travel; one that has
    none is its own only side, a closed one is begun at its first corner.
    """
    line = measured.line
    at = measured.vertex_s[np.abs(measured.vertex_turn) >= corner_from]
    if not len(at):
        return [line]
    ends = np.cumsum(np.bincount(measured.panel_segment, measured.panel_length, minlength=len(line.coeffs)))
    first = np.searchsorted(ends, at + 1e-9 * measured.length)  # the segment that begins at each corner
    order = np.arange(len(line.coeffs))
    if line.closed:
        order, first = np.roll(order, -int(first[0])), first - int(first[0])
    groups = [rows for rows in np.split(order, first[first > 0]) if len(rows)]
    return [Line(line.coeffs[rows], line.is_arc[rows], False, _beginning(line, int(rows[0]))) for rows in groups]


def _beginning(line: Line, segment: int) -> np.ndarray:
    """Return where a segment begins (2,)."""
    row = line.coeffs[segment]
    return row[0] + np.cos(row[3, 0]) * row[1] + np.sin(row[3, 0]) * row[2] if line.is_arc[segment] else row[0]
