"""Lay a brush on lines: the one file where the stages meet."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import replace

import numpy as np

from .inspecting.bends import safe_radius
from .inspecting.cures import with_cures
from .inspecting.findings import findings_of
from .inspecting.joins import joins_of
from .measuring.arc_length import frames_at, measure
from .measuring.runs import runs_of
from .measuring.smoothing import scaled, smoothed
from .placing.rigid import place_rigid
from .reading.brush_document import changed
from .spacing.stops import extents_of, refuse_too_many, stops_on
from .values.brush import Brush
from .values.laid import Finding, LaidLine, RunSpacing, Stops
from .values.line import Line, MeasuredLine


def lay(
    brush: Brush, lines: Sequence[Line | MeasuredLine], *, overtaken: Callable[[], bool] = lambda: False
) -> list[LaidLine]:
    """Lay a brush on every line, measure the joins and say what is wrong.

    Refuses with LimitError, before laying any, what would take more than 2 000 000 pieces in
    all. ``overtaken`` is asked between lines; once it says yes the lines still to come are left
    out. Findings come without cures: ``cured`` proves those.
    """
    measured = [line if isinstance(line, MeasuredLine) else measure(line) for line in lines]
    refuse_too_many(sum(line.length for line in measured), extents_of(brush))
    laid = []
    for line in measured:
        if overtaken():
            break
        laid.append(_lay_one(brush, line))
    return laid


def cured(brush: Brush, line: Line | MeasuredLine, laid: LaidLine, *, of_brush_only: bool = False) -> LaidLine:
    """Return the laid line with cures on its findings, each proved by laying again under it.

    ``of_brush_only`` leaves out changes to the line, for lines that are not the user's to change.
    """
    if not laid.findings:
        return laid
    measured = line if isinstance(line, MeasuredLine) else measure(line)
    extents = extents_of(brush)
    return replace(laid, findings=with_cures(
        laid, brush, measured, lengths=extents.length, gaps=extents.gap,
        relay=lambda change: _relaid(brush, measured, change), of_brush_only=of_brush_only,
    ))  # fmt: skip


def changed_line(measured: MeasuredLine, change: dict) -> Line | None:
    """Apply the line's part of a cure; None when the line is taken away."""
    if change.get("remove"):
        return None
    line = measured.line
    if "smooth_mm" in change:
        line = smoothed(measured, float(change["smooth_mm"]))
    return scaled(line, float(change["scale"])) if "scale" in change else line


def _lay_one(brush: Brush, measured: MeasuredLine) -> LaidLine:
    extents = extents_of(brush)
    runs = runs_of(
        measured, corner_from=np.radians(brush.corner_from_deg),
        outside_ends=brush.outside_corner != "through", inside_ends=brush.inside_corner != "through",
    )  # fmt: skip
    stops, spacings = stops_on(runs, brush, extents)
    frames = frames_at(measured, np.append(stops.s, 0.0))
    start = frames.tangent[-1]
    at_stops = replace(frames, position=frames.position[:-1], tangent=frames.tangent[:-1], curvature=frames.curvature[:-1])
    placements = place_rigid(stops, at_stops, brush, start_direction=float(np.arctan2(start[1], start[0])))
    joins = joins_of(stops, placements, runs, brush, measured.length)
    safe = safe_radius(brush, lengths=extents.length, gaps=extents.gap)
    findings = _located(findings_of(measured, runs, spacings, joins, brush, safe), measured)
    if measured.closed:
        stops = replace(stops, s=np.mod(stops.s, measured.length) if measured.length else stops.s)
    return LaidLine(
        length=measured.length, closed=measured.closed, runs=len(runs), stops=stops, placements=placements,
        joins=joins, findings=findings, pitch=_pitch(stops, runs, measured), eased=_largest_ease(spacings),
        tightest_radius=measured.tightest_radius, safe_radius=safe,
    )  # fmt: skip


def _relaid(brush: Brush, measured: MeasuredLine, change: dict) -> LaidLine | None:
    brush = changed(brush, change.get("brush", {}))
    line = changed_line(measured, change.get("line", {}))
    if line is None:
        return None
    return _lay_one(brush, measured if line is measured.line else measure(line))


def _located(findings: list[Finding], measured: MeasuredLine) -> tuple[Finding, ...]:
    """Give every finding its place on the page, where the line itself passes."""
    if measured.length <= 0:
        return tuple(findings)
    at = frames_at(measured, np.array([f.at_mm for f in findings])).position if findings else []
    return tuple(replace(f, at=(float(p[0]), float(p[1]))) for f, p in zip(findings, at, strict=True))


def _pitch(stops: Stops, runs: list, measured: MeasuredLine) -> float | None:
    """Return the mean centre-to-centre distance inside runs; None without one or where runs differ."""
    same = stops.run[:-1] == stops.run[1:]
    steps = np.diff(stops.s)[same]
    steps = np.mod(steps, measured.length) if measured.closed and len(steps) else steps
    owners = stops.run[:-1][same]
    if not len(steps):
        return None
    sums, counts = np.bincount(owners, weights=steps), np.bincount(owners)
    means = sums[counts > 0] / counts[counts > 0]
    return None if np.ptp(means) > 1e-6 else float(steps.mean())


def _largest_ease(spacings: list[RunSpacing]) -> float:
    return max((spacing.eased for spacing in spacings), key=abs, default=0.0)
