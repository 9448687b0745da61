"""Lines under the changes that a cure makes to them."""

from __future__ import annotations

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
