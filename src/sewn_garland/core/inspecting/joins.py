"""Measure every join on the laid result, as the deviation from what was wished."""

from __future__ import annotations

from collections.abc import Callable

import numpy as np

from ..maths.curves import cross
from ..values.brush import Brush
from ..values.laid import Joins, Placements, Stops
from ..values.line import Frames


def joins_of(
    stops: Stops, placements: Placements, brush: Brush, *, line_of: np.ndarray, closed: np.ndarray, length: np.ndarray,
    along: Callable[[np.ndarray, np.ndarray], Frames] | None = None,
) -> Joins:
    """Measure gap, step and kink between neighbours of the same run, closing joins included.

    ``line_of`` (n,) is the line of each piece, in order; ``closed`` and ``length`` (mm) are given
    by line, ``closed`` only for a line that is one closed run. For bent pieces ``along`` gives the
    frames at distances along lines.
    """
    first, second = _pairs(stops, line_of, closed)
    a, b = placements.centre[first], placements.centre[second]
    bend = placements.direction[second] - placements.direction[first]
    if along is not None:
        a, b, gap, bend = _between_bent(stops, line_of, first, second, length, along)
        step = np.zeros(len(first))
    elif placements.joints is not None:
        a, b = placements.joints[first, 1], placements.joints[second, 0]
        gap, step = np.hypot(*(b - a).T), np.zeros(len(first))
    elif brush.facing == "line":
        unit_a, unit_b = _units(placements.direction[first]), _units(placements.direction[second])
        a, b = a + stops.after[first, None] * unit_a, b - stops.before[second, None] * unit_b
        gap, step = _between_edges(b - a, unit_a, unit_b)
    else:
        gap, step = _between_frames(placements, brush, first, second)
    kink = np.abs(_wrapped(bend))
    onwards = stops.s[first] + stops.after[first] + stops.gap_after[first] / 2
    whole = length[line_of[first]]
    s = np.where(onwards > whole, onwards - whole, onwards)
    gap = gap - stops.gap_after[first]
    return Joins((a + b) / 2, s, gap, step, kink, first, second, tone=np.zeros(len(first)))


def _between_bent(stops: Stops, line_of, first, second, length, along):
    """Return the facing edges of bent pieces on the line, the room between them along it, and the turn where edges meet.

    Such pieces follow the line, so a bend between two that stand apart is no kink.
    """
    line = line_of[first]
    out, into = stops.s[first] + stops.after[first], stops.s[second] - stops.before[second]
    into = into + np.where(second <= first, length[line], 0.0)
    found = along(np.tile(line, 2), np.concatenate([out, into]))
    (place_out, place_in), (way_out, way_in) = np.split(found.position, 2), np.split(found.tangent, 2)
    gap = into - out
    meet = np.abs(gap) < 1e-6
    return place_out, place_in, gap, np.where(meet, np.arctan2(cross(way_out, way_in), (way_out * way_in).sum(axis=1)), 0.0)


def _pairs(stops: Stops, line_of: np.ndarray, closed: np.ndarray) -> tuple[np.ndarray, np.ndarray]:
    """Return the earlier and later piece of every join, in the order of travel, line by line."""
    n = len(stops.s)
    if not n:
        return np.zeros(0, int), np.zeros(0, int)
    onward = np.append((stops.run[:-1] == stops.run[1:]) & (line_of[:-1] == line_of[1:]), False)
    second = np.arange(n) + 1
    last_of_line = np.append(line_of[:-1] != line_of[1:], True)
    closing = last_of_line & closed[line_of]
    second[closing] = np.searchsorted(line_of, line_of[closing])
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


def _between_frames(placements: Placements, brush: Brush, first, second) -> tuple[np.ndarray, np.ndarray]:
    """Return the room between frames that keep their own heading, seen from one to the next.

    Such pieces have no facing edges; the frames' reach toward each other takes their place and
    a sideways offset is no fault.
    """
    half = np.array([[m.width / 2, m.height / 2] for m in brush.motifs])[placements.variant] * np.abs(placements.scale)
    lift = np.array([m.height / 2 - m.base_line for m in brush.motifs])[placements.variant] * placements.scale[:, 1]
    sin, cos = np.sin(placements.turn), np.cos(placements.turn)
    middle = placements.centre + lift[:, None] * np.stack([-sin, cos], axis=1)
    across = middle[second] - middle[first]
    distance = np.hypot(across[:, 0], across[:, 1])
    heading = np.arctan2(across[:, 1], across[:, 0])

    def reach(i: np.ndarray) -> np.ndarray:
        angle = heading - placements.turn[i]
        return half[i, 0] * np.abs(np.cos(angle)) + half[i, 1] * np.abs(np.sin(angle))

    return distance - reach(first) - reach(second), np.zeros(len(first))
