"""Lines made ready to be laid on: rows beside them, set out anew, corners rounded, vertices softened for bending."""

from __future__ import annotations

from collections.abc import Sequence
from functools import partial

import numpy as np

from ..maths.recent import Recent
from ..values.brush import Brush, Ends, Hand, Rows, Travel
from ..values.line import Frames, MeasuredLine
from ..values.runs import Corners
from ..values.taking import AlongTrack
from ..values.tracks import JUMPS, ON, TURNS, FramesAt, LineToLay, Located, Softened, Tracks
from .parallel import parallel
from .rounding import Rounded, rounded_all
from .setting_out import set_out
from .sides import straight_between
from .spline import ArcLengthSpline, located_on, panels_to_fit, spline_of
from .widths import widths_of

VERTEX_RADIUS_MM = 0.005  # chosen: half of what bending may stray
CURVES_A_PANEL = 16  # from which on it pays to lay out a spline; chosen: twice as fast where lines are laid again, little slower at first
KEPT_SEGMENTS = 100_000  # of lines with arcs that are remembered, at some kB each; chosen: a drag asks again for all lines but one
JUMP_MM = 3e-6  # to either side of a vertex that stays sharp, in which what lies beside it is drawn straight across; chosen
LEAST_TURN = 5e-4  # radians; chosen: below it pieces 20 mm to a side of the line open by less than 0.01 mm
_round, _soft = (Recent[Rounded](KEPT_SEGMENTS, weigh=lambda made: 1 + len(made.line.line.coeffs)) for _ in range(2))


def follow_parallels(travel: Travel, rows: Rows) -> bool:
    """Tell whether rows go along parallels of their own; links always do, for their chords cannot keep in step."""
    return bool(rows.beside_mm) and (rows.ease == "own" or travel.jointed)


def tracks_of(lines: Sequence[LineToLay], brush: Brush) -> Tracks:
    """Return what the rows of lines are laid on.

    A row of its own goes along a parallel, one in step along the line itself, shifted; links are never shifted.
    """
    travel, rows = brush.travel, (0.0, *brush.rows.beside_mm)
    beside = np.array(rows)
    aside, shift = (beside, 0 * beside) if follow_parallels(travel, brush.rows) else (0 * beside, beside)
    shift = shift + travel.side_shift_mm
    if travel.jointed:
        ways = [(parallel(parallel(line.line, a), travel.side_shift_mm), line) for line in lines for a in aside.tolist()]
        shift = 0 * shift
    else:
        ways = [(parallel(line.line, a), line) for line in lines for a in aside.tolist()]
    measured = [way for way, _ in ways]
    if travel.turn_about or travel.starts_at_mm:
        measured = [set_out(way, turn_about=travel.turn_about, starts_at=travel.starts_at_mm) for way in measured]
    measured, crowded = _with_round_corners(measured, brush.ends)
    place = np.argsort(np.argsort(beside, kind="stable"), kind="stable")  # from the left of travel
    phase = np.where(((place - place[0]) % 2 == 1) & brush.rows.brick, 0.5, 0.0)
    return Tracks(
        tuple(measured), len(rows), tuple(line.key for line in lines), np.tile(shift, len(lines)), np.tile(phase, len(lines)),
        np.array([line.unended for _, line in ways], bool), crowded,
    )  # fmt: skip


def _with_round_corners(measured: list[MeasuredLine], ends: Ends) -> tuple[list[MeasuredLine], tuple[np.ndarray, np.ndarray]]:
    """Round the corners that are passed in an arc; return the tracks, and track and mm of those too crowded for it."""
    inside, outside = ends.inside_corner == "round", ends.outside_corner == "round"
    if not (inside or outside):
        return measured, (np.zeros(0, int), np.zeros(0))
    done = _round.all_of([(way, ends.corner_from, inside, outside, ends.round_radius_mm) for way in measured], _rounded_where)
    which = np.repeat(np.arange(len(done)), [len(each.crowded) for each in done])
    return [each.line for each in done], (which, np.concatenate([np.zeros(0), *(each.crowded for each in done)]))


def _rounded_where(keys: list[tuple[MeasuredLine, float, bool, bool, float]]) -> list[Rounded]:
    """Round the corners of lines, of all in the same way: corners from so much on, inside and outside ones or not, radius."""
    _, corner_from, inside, outside, radius = keys[0]
    lines = [line for line, *_ in keys]
    corners = [(np.abs(line.vertex_turn) >= corner_from - 1e-12) & np.where(line.vertex_turn > 0, outside, inside) for line in lines]
    return rounded_all(lines, [np.flatnonzero(own) for own in corners], radius)


def located_along(measured: tuple[MeasuredLine, ...], *, curves: np.ndarray) -> Located:
    """Return the way to places along tracks that so many ``curves`` (t,) each are to follow.

    By its spline, where that pays and it has some length, a track's places are up to 1e-6 mm off.
    """
    return _by_splines(measured, curves) or partial(located_on, measured)


def frames_near(measured: tuple[MeasuredLine, ...], *, curves: np.ndarray) -> FramesAt | None:
    """Return the way to frames up to 1e-6 mm off, looked up as often as by so many ``curves`` (t,); None where that does not pay."""
    located = _by_splines(measured, curves)
    return None if located is None else lambda track, s: Frames.of(*located(track, s)[:2])


def _by_splines(measured: tuple[MeasuredLine, ...], curves: np.ndarray) -> Located | None:
    pays = curves >= np.maximum(CURVES_A_PANEL * panels_to_fit(measured), 1)
    pays &= np.array([line.length > 0 for line in measured], bool)
    spline = spline_of(tuple(line for line, own in zip(measured, pays, strict=True) if own)) if pays.any() else None
    if spline is None:
        return None
    return spline.located if pays.all() else partial(_located_by_either, measured, spline, pays)


def _located_by_either(measured: tuple[MeasuredLine, ...], spline: ArcLengthSpline, pays: np.ndarray, which: np.ndarray, s: np.ndarray):
    """Return places, tangents and curvature (n,) along tracks, of those that ``pays`` (t,) tells by their spline."""
    place, by_spline = np.cumsum(pays) - 1, pays[which]
    if by_spline.all():
        return spline.located(place[which], s)
    if not by_spline.any():
        return located_on(measured, which, s)
    out = np.zeros(len(s), complex), np.zeros(len(s), complex), np.zeros(len(s))
    for some, found in (
        (by_spline, spline.located(place[which[by_spline]], s[by_spline])),
        (~by_spline, located_on(measured, which[~by_spline], s[~by_spline])),
    ):
        for column, values in zip(out, found, strict=True):
            column[some] = values
    return out


def softened(tracks: Tracks, corners: Corners, hand: Hand, *, curves: np.ndarray, sizes: AlongTrack | None = None) -> Softened:
    """Give every vertex that turns, but those at ``corners``, an arc so small that it cannot be seen; so many ``curves`` (t,) are to follow
    each track.

    Where the pieces' ``sizes`` go by their place they do so on the softened tracks.
    """
    kept = np.split(corners.s, np.searchsorted(corners.track, np.arange(1, len(tracks.measured))))
    soft = _soft.all_of([(line, tuple(own.tolist())) for line, own in zip(tracks.measured, kept, strict=True)], _softened)
    measured = tuple(each.line for each in soft)
    changed = [i for i, each in enumerate(soft) if each.line is not tracks.measured[i]]

    def moved(track: np.ndarray, s: np.ndarray) -> np.ndarray:
        out, order = s.copy(), np.argsort(track, kind="stable")
        edges = np.searchsorted(track[order], np.arange(len(soft) + 1))
        for i in changed:
            own = order[edges[i] : edges[i + 1]]
            out[own] = soft[i].moved(s[own])
        return out

    breaks, behind = zip(*(_breaks_of(each, each.moved(own)) for each, own in zip(soft, kept, strict=True)), strict=True)
    lengths = np.array([line.length for line in measured])
    return Softened(
        measured, lengths, located_along(measured, curves=curves), partial(straight_between, measured), moved, breaks, behind,
        widths_of(measured, hand, sizes) if hand.widened or sizes else None, curves,
    )  # fmt: skip


def _breaks_of(soft: Rounded, kept: np.ndarray) -> tuple[np.ndarray, np.ndarray]:
    """Return where a softened line begins and ends to turn (b,), rising, but at its vertices ``kept``, and what it does behind (b,)."""
    line, kept = soft.line, np.sort(kept)
    sharp = line.vertex_s[np.abs(line.vertex_turn) > LEAST_TURN]
    sharp = sharp[np.searchsorted(kept, sharp - JUMP_MM) == np.searchsorted(kept, sharp + JUMP_MM)]
    if line.closed:
        sharp = np.concatenate([sharp - line.length, sharp, sharp + line.length])
    breaks = np.concatenate([soft.new, sharp - JUMP_MM, sharp + JUMP_MM])
    stretches = np.tile([ON, TURNS], len(soft.new) // 2)  # where each begins and ends
    if not line.closed:
        stretches[-1:] = ON
    behind = np.concatenate([stretches, np.full(len(sharp), JUMPS), np.full(len(sharp), ON)])
    order = np.argsort(breaks, kind="stable")
    return breaks[order], behind[order]


def _softened(keys: list[tuple[MeasuredLine, tuple[float, ...]]]) -> list[Rounded]:
    """Round the vertices of lines that turn, but those at the distances kept."""
    turning = [~np.isin(line.vertex_s, kept) & (np.abs(line.vertex_turn) > LEAST_TURN) for line, kept in keys]
    return rounded_all([line for line, _ in keys], [np.flatnonzero(own) for own in turning], VERTEX_RADIUS_MM, shrink=True)
