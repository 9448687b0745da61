"""Lay a brush on lines: the story of the stages."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import replace
from functools import partial

import numpy as np

from .artwork.contours import curves_about
from .errors import InputError
from .inspecting.by_line import by_line, joined_rows
from .inspecting.cures import NEVER, Deadline, Stretch, with_cures
from .inspecting.joins import joins_of
from .inspecting.outline_joins import as_drawn_apart, with_outlines
from .inspecting.said import Taken, said_of
from .inspecting.stacking import closes_of
from .inspecting.tones import tones_of
from .measuring.arc_length import frames_on, measure, measured_all
from .measuring.changing import changed_line
from .measuring.parallel import parallel
from .measuring.rounding import part_of_line
from .measuring.runs import runs_of
from .measuring.tracks import follow_parallels, frames_near, located_along, softened, tracks_of
from .measuring.widths import held, widths_of
from .placing.placed import placed_at
from .shaping.shaped import PRINT, Detail, shaped
from .spacing.corners import cut_at_corners, mitres_of
from .spacing.ends import trimmed_runs
from .spacing.extents import extents_of, refuse_too_many, repeat_extents
from .spacing.stops import merged, stops_of
from .spacing.variants import dealt
from .values.arrays import rows_of
from .values.brush import PASSED, Brush
from .values.laid import LaidLine
from .values.line import Line, MeasuredLine
from .values.pieces import Placed, Stops, Varied
from .values.runs import Corners, Filled
from .values.taking import AlongTrack
from .values.tracks import LineToLay, Softened, Tracks
from .values.variations import ALONG_THE_LINE
from .values.widths import Widths
from .varying.apart import kept_apart
from .varying.taking import size_along, taking_of
from .varying.varied import multiplied, seen, varied

CURVES_A_PIECE = 16  # that are looked up as often as a link, whose joint is sought, or a gap that goes by its place; chosen
OUTLINE_POINTS = 100  # of a piece that is measured by its outline, about; chosen

Layable = LineToLay | MeasuredLine | Line


def lay(brush: Brush, lines: Sequence[Layable], *, detail: Detail = PRINT) -> list[LaidLine]:
    """Lay a brush on every line, measure the joins and say what is wrong.

    Refuses with LimitError, before laying any, what would take more than 2 000 000 pieces in
    all. Findings come without cures: ``cured`` proves those. A bare line is known by its place.
    No lines give none; a brush without a motif to repeat is refused with InputError.
    """
    if not brush.pieces.repeat:
        raise InputError("this brush has no motif to repeat; give it one")
    if not lines:
        return []
    wanted = lines_to_lay(lines)
    refuse_too_many(_length_to_fill(brush, wanted), repeat_extents(brush))
    brush = _as_travelled(brush)
    tracks = tracks_of(wanted, brush)
    _refuse_lengths(brush, np.array([way.length for way in tracks.measured]))  # a parallel may be far longer than its line
    if brush.travel.kind != "once_proportion":
        return _laid(brush, tracks, detail)
    rows = [_laid(_in_proportion(brush, line), tracks.only(i), detail)[0] for i, line in enumerate(tracks.measured)]
    return [joined_rows(rows[i : i + tracks.rows]) for i in range(0, len(rows), tracks.rows)]


def cured(brush: Brush, line: Layable, laid: LaidLine, *, of_brush_only: bool = False, deadline: Deadline = NEVER) -> LaidLine:
    """Return the laid line with cures on its findings, each proved by laying again under it.

    ``of_brush_only`` leaves out changes to the line, for lines that are not the user's to change. ``deadline`` may be shared by
    lines; without one all are tried.
    """
    if not laid.findings:
        return laid
    extents, own = repeat_extents(brush), line_to_lay(line, laid.key)
    return replace(laid, findings=with_cures(
        laid, brush, own.line, lengths=extents.length, gaps=extents.gap, lean=extents.lean,
        relay=partial(_relaid, brush, own), of_brush_only=of_brush_only, deadline=deadline,
    ))  # fmt: skip


def line_to_lay(line: Layable, key: int) -> LineToLay:
    """Return a line measured, known by ``key`` where it has no number of its own."""
    if isinstance(line, LineToLay):
        return line
    return LineToLay(line if isinstance(line, MeasuredLine) else measure(line), key)


def lines_to_lay(lines: Sequence[Layable]) -> list[LineToLay]:
    """Return lines measured, known by their places where they have no numbers of their own."""
    bare = [line for line in lines if isinstance(line, Line)]
    measured = iter(measured_all(bare))
    return [line_to_lay(next(measured) if isinstance(line, Line) else line, place) for place, line in enumerate(lines)]


def without_end(brush: Brush) -> Brush:
    """Return the brush for a line without an end: nothing is left over there, so nothing is eased."""
    return brush.changed({"spacing": {"ease": "leave", "rest": "end"}})


def _laid(brush: Brush, tracks: Tracks, detail: Detail) -> list[LaidLine]:
    """Lay the rows of all lines in one go."""
    measured, extents = tracks.measured, extents_of(brush)
    curves = _curves_to_bend(brush, tracks)
    frames_at, located = partial(frames_on, measured), located_along(measured, curves=curves)
    sizes = size_along(brush, tracks, frames_at)
    divided = runs_of(tracks, brush.ends)
    widths = widths_of(measured, brush.hand, sizes) if brush.hand.widened or sizes else None
    widths = _held_at_mitres(widths, brush, tracks, divided.corners)
    cut = cut_at_corners(brush, tracks, divided.runs, divided.corners, widths)
    _refuse_lengths(brush, cut.runs.length + cut.runs.beyond.sum(axis=1))  # with what mitres lay beyond the vertex
    free, ends = trimmed_runs(brush, extents, tracks, cut.runs, frames_at, widths)
    often = brush.travel.jointed or brush.varying("gap", follows=ALONG_THE_LINE)
    near_at = frames_near(measured, curves=_curves_as_often(brush, tracks)) if often else None
    taking = taking_of(brush, tracks, near_at or frames_at)
    spacings, stops = stops_of(brush, extents, tracks, free, frames_at, widths, taking, (ends, cut.stops), near_at)
    stops = multiplied(merged(tracks, stops, ends, cut.stops), brush, tracks, frames_at)
    pieces = dealt(stops, brush.variants, len(brush.pieces.repeat), tracks)
    legs = divided.legs(tracks, pieces)

    vary = partial(varied, brush=brush, tracks=tracks, frames_at=frames_at, lengths=extents.length)
    put = partial(placed_at, brush=brush, tracks=tracks, located=located, frames_at=frames_at)
    moves = bool(brush.varying("across", "along", follows=("chance",)))
    deal = _dealing(pieces, cut.corners, legs, vary, put)
    placed, left_out = kept_apart(deal, len(pieces.s), brush.looseness.keep_apart_mm, moves=moves)
    placed = seen(placed)
    soft = _softened(brush, tracks, divided.corners, placed, sizes) if brush.travel.bent else None
    drawn = shaped(placed, brush, tracks, divided, cut.corners, soft, detail)
    joins = joins_of(placed, brush, tracks, cut.corners, closed=divided.closed(len(measured)), along=located if soft else None)
    joins = replace(joins, tone=tones_of(joins, brush, placed))
    if brush.loose:
        joins = as_drawn_apart(joins, brush, placed, drawn.bends)
    elif brush.joins.by_outlines:
        joins = with_outlines(joins, brush, placed, drawn.bends, drawn.whole)
    closes, broken = closes_of(placed, brush, tracks, drawn.cuts, drawn.bends and drawn.bends.places)
    said = said_of(
        placed, joins, Filled(free, spacings), cut.crowded, brush, tracks, taken=_at_their_largest(brush, stops), widths=widths,
        frames_at=frames_at, broken=broken, left_out=left_out,
    )  # fmt: skip
    return by_line(tracks, placed, drawn.outlines, drawn.cuts, closes, joins, said)


def _held_at_mitres(
    widths: Widths | None, brush: Brush, tracks: Tracks, corners: Corners, at: Callable[[np.ndarray, np.ndarray], np.ndarray] | None = None
) -> Widths | None:
    """Return widths that stay the same about the corners whose legs meet on bisectors, to be as wide as one another there.

    ``at`` says where distances of the tracks lie on those that the widths are of, which else are the same.
    """
    if widths is None:
        return None
    mitred, reach = mitres_of(brush, tracks, corners)
    return held(widths, mitred.track, mitred.s if at is None else at(mitred.track, mitred.s), reach)


def _softened(brush: Brush, tracks: Tracks, corners: Corners, placed: Placed, sizes: AlongTrack | None) -> Softened:
    curves = _curves_to_bend(brush, tracks, np.bincount(tracks.of(placed), minlength=len(tracks.measured)))
    soft = softened(tracks, corners, brush.hand, curves=curves, sizes=sizes)
    return replace(soft, widths=_held_at_mitres(soft.widths, brush, tracks, corners, soft.moved))


def _dealing(
    pieces: Stops, corners: Corners, legs: np.ndarray | None, vary: Callable[..., Varied], put: Callable[..., Placed]
) -> Callable[[Sequence[int]], list[Placed]]:
    """Return what deals all pieces, and places them, for several attempts in one go: a table for each."""

    def deal(attempts: Sequence[int]) -> list[Placed]:
        count, times = len(pieces.s), len(attempts)
        again = [slice(None) if times == 1 else np.tile(np.arange(n), times) for n in (count, len(corners.s))]
        own = vary(rows_of(pieces, again[0]), attempt=np.repeat(attempts, count))
        placed = put(own, corners=rows_of(corners, again[1]), legs=None if legs is None else legs[again[0]])
        return [rows_of(placed, slice(k * count, (k + 1) * count)) for k in range(times)]

    return deal


def _at_their_largest(brush: Brush, stops: Stops) -> Taken:
    """Return what the repeat's variants take, as large as the largest piece."""
    own, largest = repeat_extents(brush), float(stops.size.max(initial=1.0))
    return Taken(own.length * largest, own.gap * largest, own.lean * largest)


def _length_to_fill(brush: Brush, lines: Sequence[LineToLay]) -> float:
    """Return how many mm would be filled with as many pieces as may be laid; a row's parallel may be much longer than its line."""
    beside = (0.0, *brush.rows.beside_mm)
    lengths = [line.line.length * len(beside) for line in lines]
    if follow_parallels(brush.travel, brush.rows):
        refuse_too_many(sum(lengths) * brush.crowding, repeat_extents(brush))  # before any parallel is drawn
        lengths = [parallel(line.line, aside).length for line in lines for aside in beside]
    return sum(lengths) * brush.crowding


def _curves_to_bend(brush: Brush, tracks: Tracks, pieces: np.ndarray | None = None) -> np.ndarray:
    """Return about how many curves are to follow each track (t,) with its ``pieces`` (t,), else with as many as it may have; those that are
    split at vertices are told twice for each. A drawing laid once over its line is taken for very many.
    """
    if not brush.travel.bent:
        return np.zeros(len(tracks.measured))
    if brush.travel.once:
        return np.full(len(tracks.measured), np.inf)
    of_piece = np.mean([curves_about(motif) for motif in brush.pieces.repeat])
    of_piece += OUTLINE_POINTS if brush.joins.by_outlines else 0
    vertices = np.array([len(line.vertex_s) for line in tracks.measured])
    if pieces is None:
        pieces = tracks.lengths / repeat_extents(brush).mean_pitch * brush.crowding
    return (pieces + 2 * vertices) * of_piece


def _curves_as_often(brush: Brush, tracks: Tracks) -> np.ndarray:
    """Return how many curves would be looked up as often, about, as the pieces of each track (t,) are while these are spaced."""
    return CURVES_A_PIECE * tracks.lengths / repeat_extents(brush).mean_pitch


def _refuse_lengths(brush: Brush, lengths: np.ndarray) -> None:
    """Refuse what would take too many pieces to fill, once over the whole line aside."""
    if not brush.travel.once:
        refuse_too_many(float(lengths.sum()) * brush.crowding, repeat_extents(brush))


def _as_travelled(brush: Brush) -> Brush:
    """Return the brush as its way of travel has it: a piece over the whole line follows it, and takes corners round or about the vertex;
    scattered ones are not eased, and no corner is made of them but by a piece of its own.
    """
    if brush.travel.kind == "repeated":
        return brush
    kept = PASSED if brush.travel.once else (*PASSED, "piece")
    ends = {key: style if (style := getattr(brush.ends, key)) in kept else "through" for key in ("outside_corner", "inside_corner")}
    own = {"travel": {"facing": "line"}} if brush.travel.once else {"spacing": {"ease": "leave"}}
    return brush.changed({**own, "ends": ends})


def _in_proportion(brush: Brush, track: MeasuredLine) -> Brush:
    """Return the brush at the size at which its pieces, laid once, are as long as the track."""
    pieces = brush.pieces
    length = pieces.repeat[0].width if track.closed else sum(m.width for m in (pieces.repeat[0], pieces.start, pieces.end) if m is not None)
    size = track.length / length if track.length > 0 else brush.spacing.size
    return brush.changed({"travel": {"kind": "once_length"}, "spacing": {"size_pct": 100 * size}})


def _relaid(brush: Brush, line: LineToLay, change: dict, stretch: Stretch | None) -> tuple[LaidLine, Brush] | None:
    own = line.line if stretch is None else part_of_line(line.line, *stretch)
    changed = changed_line(own, change.get("line", {}))
    if changed is None:
        return None
    measured = own if changed is own.line else measure(changed)
    other = brush.changed(change.get("brush", {}))
    return lay(other, [replace(line, line=measured)], detail=Detail(drawn=False))[0], other
