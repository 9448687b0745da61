"""Lay a brush on lines: the one file where the stages meet."""

from __future__ import annotations

from collections.abc import Collection, Sequence
from dataclasses import replace

import numpy as np

from .drawing.svg import Layer
from .errors import InputError, LimitError
from .inspecting.bends import safe_radius
from .inspecting.cures import with_cures
from .inspecting.findings import findings_of
from .inspecting.joins import joins_of
from .making.cutting import clipped_to_box
from .making.parts import MOST_PARTS, checked_size
from .maths.affine import compose
from .measuring.arc_length import curvature_on, frames_on, measure
from .measuring.runs import runs_of
from .measuring.smoothing import scaled, smoothed
from .placing.jointed import place_jointed
from .placing.rigid import matrices_of, place_rigid
from .reading.brush_document import changed
from .spacing.joints import RunsOfLinks
from .spacing.links import link_runs
from .spacing.stops import extents_of, refuse_too_many, spacings_of, stops_of_links, stops_on
from .values.brush import Brush
from .values.laid import LaidLine, Placements, Run, RunSpacing, Stops
from .values.line import Line, MeasuredLine
from .values.motif import Motif, mapped


def lay(
    brush: Brush, lines: Sequence[Line | MeasuredLine], *, unended: Collection[int] = ()
) -> list[LaidLine]:
    """Lay a brush on every line, measure the joins and say what is wrong.

    Refuses with LimitError, before laying any, what would take more than 2 000 000 pieces in
    all. Findings come without cures: ``cured`` proves those. ``unended`` names the lines, by
    place, that are windows on a line without an end.
    """
    measured = [line if isinstance(line, MeasuredLine) else measure(line) for line in lines]
    refuse_too_many(sum(line.length for line in measured), extents_of(brush))
    return _lay_together(brush, measured, unended)


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


def picked_up(layers: Sequence[Layer], box: tuple[float, float, float, float]) -> Motif:
    """Return what is laid within a region (left, top, right, bottom in mm) as a motif of its own, cut at the region's rim.

    Raises InputError when nothing lies there, LimitError when it is more than a motif may hold.
    """
    left, top, right, bottom = box
    shapes = []
    for layer in layers:
        matrices = matrices_of(layer.laid.placements)
        near = np.flatnonzero(_may_touch(layer, matrices, box))
        if len(near) > MOST_PARTS:
            raise LimitError(f"{len(near)} pieces lie in the region, more than the {MOST_PARTS} parts a motif may have; take a smaller one")
        for i in near:
            motif = layer.motifs[int(layer.laid.placements.variant[i])]
            a, b, c, d, e, f = matrices[i]
            anchor = np.array([[1.0, 0.0, -motif.width / 2], [0.0, 1.0, -motif.base_line]])
            matrix = compose(np.array([[a, c, e - left], [b, d, f - top]]), anchor)
            shapes += [replace(mapped(s, matrix), group=0, derived=False) for s in motif.shapes]
    if not shapes:
        raise InputError("nothing is laid in this region; pull it over some pieces")
    whole = Motif(tuple(shapes), right - left, bottom - top, (bottom - top) / 2)
    return checked_size(clipped_to_box(whole))


def _may_touch(layer: Layer, matrices: np.ndarray, box: tuple[float, float, float, float]) -> np.ndarray:
    reach = max(np.hypot(m.width, m.height) for m in layer.motifs) * max(np.hypot(matrices[:, 0], matrices[:, 1]).max(initial=0), 1e-9)
    x, y = matrices[:, 4], matrices[:, 5]
    return (x > box[0] - reach) & (x < box[2] + reach) & (y > box[1] - reach) & (y < box[3] + reach)


def without_end(brush: Brush) -> Brush:
    """Return the brush for a line without an end: nothing is left over there, so nothing is eased."""
    return replace(brush, ease="leave", rest="end")


def changed_line(measured: MeasuredLine, change: dict) -> Line | None:
    """Apply the line's part of a cure; None when the line is taken away."""
    if change.get("remove"):
        return None
    line = measured.line
    if "smooth_mm" in change:
        line = smoothed(measured, float(change["smooth_mm"]))
    return scaled(line, float(change["scale"])) if "scale" in change else line


def _lay_together(brush: Brush, lines: list[MeasuredLine], unended: Collection[int] = ()) -> list[LaidLine]:
    """Lay all lines in one go: stops line by line, everything about pieces and joins at once."""
    extents = extents_of(brush)
    safe = safe_radius(brush, lengths=extents.length, gaps=extents.gap)
    runs = [runs_of(
        line, corner_from=np.radians(brush.corner_from_deg),
        outside_ends=brush.outside_corner != "through", inside_ends=brush.inside_corner != "through",
    ) for line in lines]  # fmt: skip
    lay_pieces = _lay_links if brush.jointed else _lay_rigid
    spacings, stops, counts, placements = lay_pieces(brush, lines, runs, unended)
    line_of = np.repeat(np.arange(len(lines)), counts)
    closed = np.array([bool(of_line) and of_line[0].closed for of_line in runs], bool)
    joins = joins_of(stops, placements, brush, line_of=line_of, closed=closed, length=_lengths(lines))
    ends = np.cumsum(counts)
    join_edges = np.searchsorted(line_of[joins.first], np.arange(len(lines) + 1))
    laid = []
    for i, line in enumerate(lines):
        of_line = slice(ends[i] - counts[i], ends[i])
        own_joins = _rows(joins, slice(join_edges[i], join_edges[i + 1]))
        own_joins = replace(own_joins, first=own_joins.first - of_line.start)
        own_stops = _rows(stops, of_line)
        laid.append(LaidLine(
            length=line.length, closed=line.closed, runs=len(runs[i]),
            stops=replace(own_stops, s=np.mod(own_stops.s, line.length)) if line.closed and line.length else own_stops,
            placements=_rows(placements, of_line), joins=own_joins,
            findings=tuple(findings_of(line, runs[i], spacings[i], own_joins, brush, safe)),
            pitch=_pitch(own_stops), eased=_largest_ease(spacings[i]), tightest_radius=line.tightest_radius, safe_radius=safe,
        ))  # fmt: skip
    return _located(laid, lines)


Laying = tuple[list[list[RunSpacing]], Stops, np.ndarray, Placements]


def _lay_rigid(brush: Brush, lines: list[MeasuredLine], runs: list[list[Run]], unended: Collection[int]) -> Laying:
    """Space pieces by their frames and stamp them at their stops."""
    extents = extents_of(brush)
    spacings = [spacings_of(of_line, without_end(brush) if i in unended else brush, extents) for i, of_line in enumerate(runs)]
    stops, counts = stops_on(runs, spacings, extents)
    line_of = np.repeat(np.arange(len(lines)), counts)
    frames = frames_on(lines, line_of, stops.s)
    return spacings, stops, counts, place_rigid(stops, frames, brush, start_direction=_starts(brush, lines)[line_of])


def _lay_links(brush: Brush, lines: list[MeasuredLine], runs: list[list[Run]], unended: Collection[int]) -> Laying:
    """Hang pieces together by their joints, which lie on the line (beside it by the side shift)."""
    flat = [(i, run) for i, of_line in enumerate(runs) for run in of_line]
    of_line = np.array([i for i, _ in flat], int)
    table = RunsOfLinks(*(np.array([getattr(run, name) for _, run in flat], kind)
                          for name, kind in (("start", float), ("length", float), ("closed", bool))))  # fmt: skip

    def curve(run: np.ndarray, s: np.ndarray) -> tuple[np.ndarray, np.ndarray]:
        frames = frames_on(lines, of_line[run], s)
        if not brush.side_shift:
            return frames.position, frames.tangent
        bend = curvature_on(lines, of_line[run], s)
        return frames.position + brush.side_shift * frames.normal, frames.tangent * (1 - bend * brush.side_shift)[:, None]

    own = brush.link_lengths
    spacings, chains = link_runs(curve, table, own, ease=brush.ease, limit=brush.ease_limit, rest=brush.rest)
    joint_run = np.repeat(np.arange(len(flat)), chains.count + 1)
    joints = curve(joint_run, chains.s)[0]
    inner = joint_run[:-1] == joint_run[1:]
    left, right = joints[:-1][inner], joints[1:][inner]
    openings = np.zeros(len(left))
    last = np.cumsum(chains.count)[table.closed & (chains.count > 0)] - 1
    first = (np.cumsum(chains.count) - chains.count)[table.closed & (chains.count > 0)]
    openings[last] = np.hypot(*(left[first] - right[last]).T)
    stops, counts = stops_of_links(runs, chains, len(own), openings)
    filled = iter(spacings)
    return [[next(filled) for _ in of_line] for of_line in runs], stops, counts, place_jointed(stops, left, right, brush)


def _rows(table, rows: slice):
    """Return a dataclass of arrays cut to some rows."""
    return type(table)(**{name: None if array is None else array[rows] for name, array in vars(table).items()})


def _lengths(lines: list[MeasuredLine]) -> np.ndarray:
    return np.array([line.length for line in lines])


def _starts(brush: Brush, lines: list[MeasuredLine]) -> np.ndarray:
    """Return each line's direction where it begins (radians), where the brush asks for it."""
    if brush.facing != "start":
        return np.zeros(len(lines))
    tangent = frames_on(lines, np.arange(len(lines)), np.zeros(len(lines))).tangent
    return np.arctan2(tangent[:, 1], tangent[:, 0])


def _relaid(brush: Brush, measured: MeasuredLine, change: dict) -> LaidLine | None:
    brush = changed(brush, change.get("brush", {}))
    line = changed_line(measured, change.get("line", {}))
    if line is None:
        return None
    return _lay_together(brush, [measured if line is measured.line else measure(line)])[0]


def _located(laid: list[LaidLine], lines: list[MeasuredLine]) -> list[LaidLine]:
    """Give every finding that has no place on the page yet the one where the line passes."""
    wanted = [(i, f.at_mm) for i, line in enumerate(laid) for f in line.findings if f.at is None]
    if not wanted:
        return laid
    which, at_mm = (np.array(column) for column in zip(*wanted, strict=True))
    places = iter(frames_on(lines, which, at_mm).position.tolist())
    return [replace(line, findings=tuple(replace(f, at=tuple(next(places))) if f.at is None else f for f in line.findings))
            for line in laid]  # fmt: skip


def _pitch(stops: Stops) -> float | None:
    """Return the mean centre-to-centre distance inside runs; None without one or where runs differ."""
    same = stops.run[:-1] == stops.run[1:]
    if not same.any():
        return None
    steps, owners = np.diff(stops.s)[same], stops.run[:-1][same]
    if owners[0] == owners[-1]:
        return float(steps.mean())
    sums, counts = np.bincount(owners, weights=steps), np.bincount(owners)
    means = sums[counts > 0] / counts[counts > 0]
    return None if np.ptp(means) > 1e-6 else float(steps.mean())


def _largest_ease(spacings: list[RunSpacing]) -> float:
    return max((spacing.eased for spacing in spacings), key=abs, default=0.0)
