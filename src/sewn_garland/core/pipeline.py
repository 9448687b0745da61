"""Lay a brush on lines: the one file where the stages meet."""

from __future__ import annotations

from collections.abc import Collection, Sequence
from dataclasses import replace
from functools import lru_cache

import numpy as np

from .inspecting.bends import safe_radius
from .inspecting.cures import with_cures
from .inspecting.findings import findings_of
from .inspecting.joins import joins_of
from .inspecting.rows import in_rows
from .making.cutting import clipped_to, cut_in_three
from .making.framing import joints_moved
from .measuring.arc_length import frames_on, measure
from .measuring.parallel import parallel
from .measuring.rounding import Rounded, rounded
from .measuring.runs import PASSED, runs_of
from .measuring.setting_out import set_out
from .measuring.smoothing import scaled, smoothed
from .outline_joins import tones_of, with_outlines
from .placing.jointed import place_jointed
from .placing.rigid import place_rigid
from .reading.brush_document import changed
from .shaped_pieces import ShapedPieces, frames_on_legs, legs_of, lengths_of, located_along, widths_on
from .shaping.bend import TOLERANCE_MM
from .spacing.corners import cut_at_corners
from .spacing.ends import trimmed_runs, with_ends
from .spacing.joints import Chains, Curve, RunsOfLinks, link_widths
from .spacing.links import link_runs
from .spacing.stops import even_runs, phased, refuse_too_many, repeat_extents, rests_in_mm, spacings_of, stops_of_links, stops_on, widened
from .spacing.variants import variant_sequence
from .values.arrays import rows_of
from .values.brush import Brush, CornerStyle
from .values.laid import LaidLine, Runs, RunSpacings, Stops
from .values.line import Line, MeasuredLine
from .values.widths import Widths


def lay(
    brush: Brush, lines: Sequence[Line | MeasuredLine], *, unended: Collection[int] = (), tolerance: float = TOLERANCE_MM, cut: bool = True
) -> list[LaidLine]:
    """Lay a brush on every line, measure the joins and say what is wrong.

    Refuses with LimitError, before laying any, what would take more than 2 000 000 pieces in
    all. Findings come without cures: ``cured`` proves those. ``unended`` names the lines, by
    place, that are windows on a line without an end. ``tolerance`` mm is how far bent outlines may stray. Outlines
    that are not ``cut`` go on beyond bisectors; the line's ``cuts`` say where they end.
    """
    measured = [line if isinstance(line, MeasuredLine) else measure(line) for line in lines]
    thinnest = min((brush.taper_to if brush.taper_start or brush.taper_end else 1.0), *(w for _, w in brush.width_along), 1.0)
    extents = repeat_extents(brush)
    refuse_too_many(sum(line.length for line in measured) * (1 + len(brush.rows)) / thinnest, extents)
    if brush.rows and _on_own_lines(brush):  # a parallel may be much longer than the line
        refuse_too_many(sum(parallel(line, beside).length for line in measured for beside in (0.0, *brush.rows)) / thinnest, extents)
    return _lay_together(brush, measured, unended, tolerance, cut=cut)


def cured(brush: Brush, line: Line | MeasuredLine, laid: LaidLine, *, of_brush_only: bool = False) -> LaidLine:
    """Return the laid line with cures on its findings, each proved by laying again under it.

    ``of_brush_only`` leaves out changes to the line, for lines that are not the user's to change.
    """
    if not laid.findings:
        return laid
    measured = line if isinstance(line, MeasuredLine) else measure(line)
    extents = repeat_extents(brush)
    return replace(laid, findings=with_cures(
        laid, brush, measured, lengths=extents.length, gaps=extents.gap,
        relay=lambda change: _relaid(brush, measured, change), of_brush_only=of_brush_only,
    ))  # fmt: skip


def with_pieces_cut(brush: Brush) -> Brush:
    """Cut the repeat's motifs at their cuts; the outer parts of the first become the start and end piece where there is none.

    A brush without cuts stays as it is. Raises InputError where nothing lies between two cuts.
    """
    if all(m.cuts is None for m in brush.repeat):
        return brush
    first = brush.repeat[0]
    start, _, end = cut_in_three(first) if first.cuts else (None, None, None)
    repeat = tuple(m if m.cuts is None else clipped_to(m, *m.cuts) for m in brush.repeat)
    return replace(brush, repeat=repeat, start=brush.start or start, end=brush.end or end)


def hung_at(brush: Brush, pitch: float) -> Brush:
    """Return a jointed brush whose repeats hang ``pitch`` mm from one another on a straight line, on the mean: their joints are moved.

    Raises InputError where joints would meet.
    """
    by = pitch / brush.size - float(brush.link_lengths[: len(brush.repeat)].mean()) / brush.size
    return replace(brush, repeat=tuple(joints_moved(m, by) for m in brush.repeat))


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


def _lay_together(
    brush: Brush, lines: list[MeasuredLine], unended: Collection[int] = (), tolerance: float = TOLERANCE_MM, *, cut: bool
) -> list[LaidLine]:
    """Lay all rows of all lines, each row in one go."""
    if not brush.rows:
        return _lay_row(brush, lines, unended, tolerance, cut=cut)
    single = replace(brush, rows=())
    rows = [_lay_row(single, lines, unended, tolerance, cut=cut)]
    for number, beside in enumerate(brush.rows, start=1):
        own = replace(single, phase=0.5 if brush.brick and number % 2 else 0.0)
        if _on_own_lines(brush):
            rows.append(_lay_row(own, [parallel(line, beside) for line in lines], unended, tolerance, cut=cut))
        else:  # the same distances along the line
            rows.append(_lay_row(replace(own, side_shift=own.side_shift + beside), lines, unended, tolerance, cut=cut))
    return [in_rows(list(each)) for each in zip(*rows, strict=True)]


def _on_own_lines(brush: Brush) -> bool:
    """Tell whether rows follow parallels of their own; links always do, for their chords cannot keep in step."""
    return brush.row_ease == "own" or brush.jointed


def _lay_row(brush: Brush, lines: list[MeasuredLine], unended: Collection[int], tolerance: float, *, cut: bool) -> list[LaidLine]:
    """Lay one row on all lines in one go: stops line by line, everything about pieces and joins at once."""
    if brush.kind == "once_proportion":  # every line has its own size then
        return [_lay_row(_in_proportion(brush, line), [line], (), tolerance, cut=cut)[0] for line in lines]
    if brush.jointed and brush.side_shift:
        lines, brush = [parallel(line, brush.side_shift) for line in lines], replace(brush, side_shift=0.0)
    if brush.kind == "once_length":
        brush = replace(brush, facing="line", outside_corner=_passed(brush.outside_corner), inside_corner=_passed(brush.inside_corner))
    if brush.turn_about or brush.starts_at:
        lines = [set_out(line, turn_about=brush.turn_about, starts_at=brush.starts_at) for line in lines]
    extents = repeat_extents(brush)
    safe = safe_radius(brush, lengths=extents.length, gaps=extents.gap)
    lines, crowded = _with_round_corners(brush, lines)
    runs, corners = runs_of(
        tuple(lines), corner_from=float(np.radians(brush.corner_from_deg)), outside=brush.outside_corner, inside=brush.inside_corner,
    )  # fmt: skip
    curve = _curve_on(lines)
    widths = widths_on(brush, lines) if brush.widened else None
    at_corners = cut_at_corners(brush, runs, corners, widths)
    left, ends, ends_line = trimmed_runs(brush, at_corners.runs, lengths_of(lines), curve, widths)
    spacings, stops, line_of = (_linked if brush.jointed else _spaced)(brush, left, unended, curve, widths)
    stops, line_of = with_ends(stops, line_of, ends, ends_line)
    stops, line_of = with_ends(stops, line_of, at_corners.stops, at_corners.corners.line)
    counts = np.bincount(line_of, minlength=len(lines))
    legs = legs_of(runs, len(lines), line_of, stops.run)
    located = located_along(lines, by_spline=brush.bent)
    if brush.jointed:
        placements = place_jointed(stops, *(curve(line_of, s)[0] for s in (stops.s - stops.before, stops.s + stops.after)), brush)
    else:
        frames = frames_on_legs(located, lines, line_of, stops.s, legs)
        placements = place_rigid(stops, frames, brush, start_direction=_starts(brush, lines)[line_of])
    shaped = ShapedPieces(brush, lines, runs, corners, line_of, stops, legs, widths)
    placements = shaped.with_corner_pieces(placements, at_corners.corners)
    closed = np.zeros(len(lines), bool)
    closed[runs.line[runs.closed]] = True
    along = (lambda which, s: frames_on_legs(located, lines, which, s, None)) if brush.bent else None
    from_centres = shaped.from_centres(stops, placements, at_corners.corners)
    joins = joins_of(from_centres, placements, brush, line_of=line_of, closed=closed, length=lengths_of(lines), along=along)
    joins = replace(joins, tone=tones_of(joins, brush, stops, placements))
    outlines = shaped.outlines(placements, at_corners.corners, tolerance, cut=cut)
    if brush.by_outlines:
        tightest = min((line.tightest_radius for line in lines if line.tightest_radius is not None), default=np.inf)
        joins = with_outlines(joins, brush, stops, placements, *shaped.where_drawn(placements, outlines), tightest)
    edges = np.append(0, np.cumsum(counts)).tolist()
    run_edges = runs.edges(len(lines)).tolist()
    join_line = line_of[joins.first]
    join_edges = np.searchsorted(join_line, np.arange(len(lines) + 1)).tolist()
    begun = np.array(edges)[join_line]
    joins = replace(joins, first=joins.first - begun, second=joins.second - begun)
    round_ = np.array([line.closed and line.length > 0 for line in lines], bool)[line_of]
    wrapped = replace(stops, s=np.where(round_, np.mod(stops.s, np.where(round_, lengths_of(lines)[line_of], 1.0)), stops.s))
    pitches = _pitches(stops, line_of, len(brush.repeat), len(lines))
    drawn = outlines.split(edges) if outlines else [None] * len(lines)
    cuts = shaped.cuts.split(edges)
    laid = []
    for i, line in enumerate(lines):
        of_line, own_runs, own = (slice(*table[i : i + 2]) for table in (edges, run_edges, join_edges))
        own_spacings, own_joins = rows_of(spacings, own_runs), rows_of(joins, own)
        laid.append(LaidLine(
            length=line.length, closed=line.closed, runs=own_runs.stop - own_runs.start,
            stops=rows_of(wrapped, of_line), placements=rows_of(placements, of_line), joins=own_joins,
            findings=tuple(findings_of(
                line, rows_of(left, own_runs), own_spacings, own_joins, brush, safe,
                crowded=[*crowded[i], *at_corners.crowded.s[at_corners.crowded.line == i]], **_wide(widths, i),
            )),
            pitch=pitches[i], eased=_largest_ease(own_spacings),
            tightest_radius=line.tightest_radius, safe_radius=safe, roles=brush.roles,
            outlines=drawn[i], cuts=cuts[i],
        ))  # fmt: skip
    return _located(laid, lines)


def _wide(widths: Widths | None, line: int) -> dict:
    """Return how wide a line is along it, for its findings."""
    return {} if widths is None else {"width": lambda s: widths.at(np.full(len(s), line), s)[0]}


def _passed(style: CornerStyle) -> CornerStyle:
    """Return how a piece over the whole line takes a corner: round where the brush says so, else about the vertex."""
    return style if style in PASSED else "through"


def _in_proportion(brush: Brush, line: MeasuredLine) -> Brush:
    """Return the brush at the size at which its pieces, laid once, are as long as the line."""
    length = sum(m.width for m in (brush.repeat[0], brush.start, brush.end) if m is not None)
    whole = line.closed or line.length <= 0
    size = (line.length / (brush.repeat[0].width if whole else length)) if line.length > 0 else brush.size
    return replace(brush, kind="once_length", size=size)


def _with_round_corners(brush: Brush, lines: list[MeasuredLine]) -> tuple[list[MeasuredLine], list[np.ndarray]]:
    """Round the corners that the brush passes in an arc; return the lines and where each has corners too crowded for it."""
    sides = [brush.inside_corner == "round", brush.outside_corner == "round"]
    if not any(sides):
        return lines, [np.zeros(0)] * len(lines)
    done = [_rounded_where(line, brush.corner_from_deg, *sides, brush.round_radius) for line in lines]
    return [each.line for each in done], [each.crowded for each in done]


@lru_cache(maxsize=256)
def _rounded_where(line: MeasuredLine, corner_from_deg: float, inside: bool, outside: bool, radius: float) -> Rounded:
    corner = np.abs(line.vertex_turn) >= np.radians(corner_from_deg) - 1e-12
    return rounded(line, np.flatnonzero(corner & np.where(line.vertex_turn > 0, outside, inside)), radius)


Spaced = tuple[RunSpacings, Stops, np.ndarray]


def _spaced(brush: Brush, runs: Runs, unended: Collection[int], curve: Curve, widths: Widths | None) -> Spaced:
    """Space pieces by their frames; return how each run is filled, the stops, and the line (n,) of each."""
    extents = repeat_extents(brush)
    drawn = runs
    if widths is not None and brush.kind == "repeated":
        runs = even_runs(runs, widths)
    spacings = spacings_of(runs, brush, extents, unended)
    if brush.phase:
        spacings = phased(spacings, extents, brush.phase, closed=runs.closed)
    stops, line_of = stops_on(runs, spacings, extents)
    stops = _in_their_order(brush, stops, line_of)
    if widths is None:
        return spacings, stops, line_of
    if brush.kind != "repeated":  # one piece over the whole line is as long as it is at any width
        return spacings, replace(stops, width=widths.at(line_of, stops.s)[0]), line_of
    return rests_in_mm(drawn, runs, spacings, widths), widened(stops, line_of, widths, bent=brush.bent), line_of


def _in_their_order(brush: Brush, stops: Stops, line_of: np.ndarray) -> Stops:
    """Say which variant each piece is, where they are not laid in turn; ``line_of`` (n,) are their lines."""
    if brush.order == "in_turn" or len(brush.repeat) == 1 or not len(line_of):
        return stops
    counts = np.bincount(line_of)
    drawn = [variant_sequence(brush, i, int(count)) for i, count in enumerate(counts)]
    return replace(stops, variant=np.concatenate(drawn))


def _linked(brush: Brush, runs: Runs, unended: Collection[int], curve: Curve, widths: Widths | None) -> Spaced:
    """Space pieces by their joints, each at a link's length from the one before."""
    table = RunsOfLinks(runs.start, runs.length, runs.closed, widths and widths.of_runs(runs.line))
    own = brush.link_lengths[: len(brush.repeat)]
    spacings, chains = link_runs(
        lambda run, s: curve(runs.line[run], s), table, own, ease=brush.ease, limit=brush.ease_limit, rest=brush.rest,
        unended=np.isin(runs.line, list(unended)),
    )
    width = None if widths is None else link_widths(lambda run, s: curve(runs.line[run], s), chains, own)
    stops, line_of = stops_of_links(runs, chains, len(own), width)
    stops = _in_their_order(brush, stops, line_of)
    stops = _with_openings(stops, line_of, table.closed & (chains.count > 0), chains, curve)
    return spacings, stops, line_of


def _with_openings(stops: Stops, line_of: np.ndarray, closed: np.ndarray, chains: Chains, curve: Curve) -> Stops:
    """Wish for the opening that a closed line's links leave between the last and the first: it is told as what is left over."""
    last = np.cumsum(chains.count)[closed] - 1
    first = (np.cumsum(chains.count) - chains.count)[closed]
    if not len(last):
        return stops
    end, start = (curve(line_of[i], s)[0] for i, s in ((last, (stops.s + stops.after)[last]), (first, (stops.s - stops.before)[first])))
    gap_after = stops.gap_after.copy()
    gap_after[last] = np.hypot(*(start - end).T)
    return replace(stops, gap_after=gap_after)


def _curve_on(lines: list[MeasuredLine]) -> Curve:
    """Return the lines as a function of line and distance."""

    def curve(which: np.ndarray, s: np.ndarray) -> tuple[np.ndarray, np.ndarray]:
        frames = frames_on(lines, which, s)
        return frames.position, frames.tangent

    return curve


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
    return _lay_together(brush, [measured if line is measured.line else measure(line)], cut=False)[0]


def _located(laid: list[LaidLine], lines: list[MeasuredLine]) -> list[LaidLine]:
    """Give every finding that has no place on the page yet the one where the line passes."""
    wanted = [(i, f.at_mm) for i, line in enumerate(laid) for f in line.findings if f.at is None]
    if not wanted:
        return laid
    which, at_mm = (np.array(column) for column in zip(*wanted, strict=True))
    places = iter(frames_on(lines, which, at_mm).position.tolist())
    return [
        replace(line, findings=tuple(f.placed(tuple(next(places))) if f.at is None else f for f in line.findings))
        if any(f.at is None for f in line.findings) else line for line in laid
    ]  # fmt: skip


def _pitches(stops: Stops, line_of: np.ndarray, repeats: int, lines: int) -> list[float | None]:
    """Return each line's mean centre-to-centre distance of repeat pieces inside runs; None without one or where runs differ."""
    repeat = stops.variant < repeats
    same = (stops.run[:-1] == stops.run[1:]) & (line_of[:-1] == line_of[1:]) & repeat[:-1] & repeat[1:]
    steps, line, run = np.diff(stops.s)[same], line_of[:-1][same], stops.run[:-1][same]
    pitches: list[float | None] = [None] * lines
    if not len(steps):
        return pitches
    of_run = np.flatnonzero(np.append(True, (line[1:] != line[:-1]) | (run[1:] != run[:-1])))
    means = np.add.reduceat(steps, of_run) / np.diff(np.append(of_run, len(steps)))
    of_line = np.flatnonzero(np.append(True, line[of_run][1:] != line[of_run][:-1]))
    even = np.maximum.reduceat(means, of_line) - np.minimum.reduceat(means, of_line) <= 1e-6
    begun = of_run[of_line]
    mean = np.add.reduceat(steps, begun) / np.diff(np.append(begun, len(steps)))
    for i, is_even, pitch in zip(line[begun].tolist(), even.tolist(), mean.tolist(), strict=True):
        pitches[i] = pitch if is_even else None
    return pitches


def _largest_ease(spacings: RunSpacings) -> float:
    return float(max(spacings.eased.min(initial=0.0), spacings.eased.max(initial=0.0), key=abs))
