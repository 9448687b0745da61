"""Measure every join on the laid result, as the deviation from what was wished."""

from __future__ import annotations

from dataclasses import replace

import numpy as np

from ..maths.curves import cross
from ..values.arrays import rows_of
from ..values.brush import Brush
from ..values.joins import Joins
from ..values.line import Frames
from ..values.pieces import Placed
from ..values.runs import Corners
from ..values.tracks import Located, Tracks


def joins_of(placed: Placed, brush: Brush, tracks: Tracks, corners: Corners, *, closed: np.ndarray, along: Located | None) -> Joins:
    """Measure gap, step and kink between neighbours of the same run, closing joins included, and on both sides of corner pieces.

    ``corners`` are those that have a piece, in order; ``closed`` (t,) tells which tracks are one closed run. For bent pieces
    ``along`` gives places at distances along tracks.
    """
    if brush.travel.kind == "scattered":
        return _no_joins()
    if placed.slot.any():  # the first piece at a stop joins the next stop's
        own = np.flatnonzero(placed.slot == 0)
        joins = _joins_in_rows(rows_of(placed, own), brush, tracks, corners, closed=closed, along=along)
        return replace(joins, first=own[joins.first], second=own[joins.second])
    return _joins_in_rows(placed, brush, tracks, corners, closed=closed, along=along)


def _joins_in_rows(placed: Placed, brush: Brush, tracks: Tracks, corners: Corners, *, closed: np.ndarray, along: Located | None) -> Joins:
    """Return the joins of pieces of which one stands at each stop, as ``joins_of``."""
    track, length = tracks.of(placed), tracks.lengths
    first, second = _pairs(placed, track, closed, np.array([line.closed for line in tracks.measured]))
    a, b, onward = placed.centre[first], placed.centre[second], _units(placed.direction[first])
    bend = placed.direction[second] - placed.direction[first]
    wish = placed.gap_after[first]
    if along is not None:
        a, b, onward, gap, bend = _between_bent(placed, track, first, second, length, along)
        step = np.zeros(len(first))
    elif placed.joints is not None:
        a, b = placed.joints[first, 1], placed.joints[second, 0]
        gap, step = np.hypot(*(b - a).T), np.zeros(len(first))
    elif brush.travel.facing == "line":
        unit_a, unit_b = _units(placed.direction[first]), _units(placed.direction[second])
        a, b = a + placed.after[first, None] * unit_a, b - placed.before[second, None] * unit_b
        gap, step = _between_edges(b - a, unit_a, unit_b)
    else:
        gap, step = _between_frames(placed, brush, first, second)
    at_corner = np.flatnonzero(placed.at_corner[first] | placed.at_corner[second])
    if len(at_corner):
        a, b, onward, gap, step, bend, wish = (np.array(each) for each in (a, b, onward, gap, step, bend, wish))
        pair = (first[at_corner], second[at_corner])
        edges = _edges_at_corners(placed, corners, track, *pair, length, along)
        (a[at_corner], unit_a), (b[at_corner], unit_b), wish[at_corner] = edges
        gap[at_corner], step[at_corner] = _between_edges(b[at_corner] - a[at_corner], unit_a, unit_b)
        bend[at_corner], onward[at_corner] = np.arctan2(cross(unit_a, unit_b), (unit_a * unit_b).sum(axis=1)), unit_a
    kink = np.abs(_wrapped(bend))
    onwards = placed.s[first] + placed.after[first] + placed.gap_after[first] / 2
    whole = length[track[first]]
    s = np.where(onwards > whole, onwards - whole, onwards)
    gap = gap - wish
    return Joins((a + b) / 2, s, gap, step, kink, first, second, tone=np.zeros(len(first)), onward=onward)


def _no_joins() -> Joins:
    none, which = np.zeros(0), np.zeros(0, int)
    return Joins(np.zeros((0, 2)), none, none, none, none, which, which, tone=none, onward=np.zeros((0, 2)))


def _between_bent(placed: Placed, track, first, second, length, along: Located):
    """Return the facing edges of bent pieces on the line, the way on from the first, the room between, and the turn where edges meet.

    Such pieces follow the line, so a bend between two that stand apart is no kink.
    """
    own = track[first]
    out, into = placed.s[first] + placed.after[first], placed.s[second] - placed.before[second]
    into = into + np.where(second <= first, length[own], 0.0)
    found = Frames.of(*along(np.tile(own, 2), np.concatenate([out, into]))[:2])
    (place_out, place_in), (way_out, way_in) = np.split(found.position, 2), np.split(found.tangent, 2)
    gap = into - out
    meet = np.abs(gap) < 1e-6
    return place_out, place_in, way_out, gap, np.where(meet, np.arctan2(cross(way_out, way_in), (way_out * way_in).sum(axis=1)), 0.0)


def _edges_at_corners(placed: Placed, corners: Corners, track, first, second, length, along: Located | None):
    """Return the facing edges of pairs (k,) of which one is a corner piece, each a place (k, 2) and the unit direction (k, 2) of travel
    there, and the room (k,) that the line leaves between them.

    A corner piece has an edge square to either leg; others have theirs where they end on their base line, links at their joint.
    """
    row = np.cumsum(placed.at_corner) - 1  # a corner piece's among the corners

    def edge(pieces: np.ndarray, end: int) -> tuple[np.ndarray, np.ndarray]:
        reach = (-placed.before, placed.after)[end][pieces]
        unit = _units(placed.direction[pieces])
        place = placed.centre[pieces] + reach[:, None] * unit
        if placed.joints is not None:
            place = placed.joints[pieces, end].copy()
        elif along is not None:
            found = Frames.of(*along(track[pieces], placed.s[pieces] + reach)[:2])
            place, unit = found.position.copy(), found.tangent.copy()
        own = np.flatnonzero(placed.at_corner[pieces])
        leg = (corners.into, corners.out)[end][row[pieces[own]]]
        place[own], unit[own] = corners.vertex[row[pieces[own]]] + reach[own, None] * leg, leg
        return place, unit

    room = (placed.s - placed.before)[second] - (placed.s + placed.after)[first]
    return edge(first, 1), edge(second, 0), np.where(second < first, room + length[track[first]], room)


def _pairs(placed: Placed, track: np.ndarray, closed: np.ndarray, whole: np.ndarray) -> tuple[np.ndarray, np.ndarray]:
    """Return the earlier and later piece of every join, in the order of travel, track by track.

    A corner piece also joins the next run's first piece, on the ``whole`` (t,) closed tracks round their start too.
    """
    n = len(placed.s)
    if not n:
        return np.zeros(0, int), np.zeros(0, int)
    leaves = placed.at_corner & ~np.roll(placed.at_corner, -1)
    onward = np.append(((placed.run[:-1] == placed.run[1:]) | leaves[:-1]) & (track[:-1] == track[1:]), False)
    second = np.arange(n) + 1
    last_of_track = np.append(track[:-1] != track[1:], True)
    last = np.flatnonzero(last_of_track)
    begin, own = np.searchsorted(track, track[last]), track[last]
    round_start = closed[own] | (whole[own] & placed.at_corner[last] & ~placed.at_corner[begin])
    closing = np.zeros(n, bool)
    closing[last[round_start]] = True
    second[last[round_start]] = begin[round_start]
    first = np.flatnonzero(onward | closing)
    return first, second[first]


def _wrapped(angle: np.ndarray) -> np.ndarray:
    return (angle + np.pi) % (2 * np.pi) - np.pi


def _units(angle: np.ndarray) -> np.ndarray:
    return np.stack([np.cos(angle), np.sin(angle)], axis=1)


def _between_edges(across: np.ndarray, unit_a: np.ndarray, unit_b: np.ndarray) -> tuple[np.ndarray, np.ndarray]:
    """Return signed gap and absolute step from one facing frame edge ``across`` to the next, on the base lines.

    Both are taken in the mean direction of the two pieces: for pieces without gap on a circle
    of radius r the gap is 2r·sin(φ/2) − L·cos(φ/2) with φ = L/r, about L³/(12r²).
    """
    mean = unit_a + unit_b
    size = np.hypot(mean[:, 0], mean[:, 1])
    mean = np.where(size[:, None] > 1e-9, mean / np.where(size > 1e-9, size, 1.0)[:, None], unit_a)
    gap = (across * mean).sum(axis=1)
    return gap, np.abs(across[:, 1] * mean[:, 0] - across[:, 0] * mean[:, 1])


def _between_frames(placed: Placed, brush: Brush, first, second) -> tuple[np.ndarray, np.ndarray]:
    """Return the room between frames that keep their own heading, seen from one to the next.

    Such pieces have no facing edges; the frames' reach toward each other takes their place and
    a sideways offset is no fault.
    """
    half = np.array([[m.width / 2, m.height / 2] for m in brush.pieces.motifs])[placed.motif] * np.abs(placed.scale)
    lift = np.array([m.height / 2 - m.base_line for m in brush.pieces.motifs])[placed.motif] * placed.scale[:, 1]
    sin, cos = np.sin(placed.turn), np.cos(placed.turn)
    middle = placed.centre + lift[:, None] * np.stack([-sin, cos], axis=1)
    across = middle[second] - middle[first]
    distance = np.hypot(across[:, 0], across[:, 1])
    heading = np.arctan2(across[:, 1], across[:, 0])

    def reach(i: np.ndarray) -> np.ndarray:
        angle = heading - placed.turn[i]
        return half[i, 0] * np.abs(np.cos(angle)) + half[i, 1] * np.abs(np.sin(angle))

    return distance - reach(first) - reach(second), np.zeros(len(first))
