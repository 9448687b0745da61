"""Widths along lines: thick and thin by a profile, tapered ends."""

from __future__ import annotations

from collections.abc import Sequence
from itertools import pairwise

import numpy as np
import scipy

from ..values.brush import Hand
from ..values.line import MeasuredLine
from ..values.taking import AlongTrack
from ..values.widths import Widths

KNOTS = 64  # chosen: between two points of a profile and on a taper; the sides look smooth
LEAST_HELD = 1 / 4  # of a reach, for less is of no use; chosen
KNOTS_OF_SIZES = 512  # chosen: along a line whose sizes go by their place; a change over a tenth of it has some fifty


def widths_of(lines: Sequence[MeasuredLine], hand: Hand, sizes: AlongTrack | None = None) -> Widths:
    """Return how wide lines are along them: by the hand's profile, with its tapers at open ends, and by ``sizes`` where given.

    Between its points the profile is a monotone cubic, so no width lies beyond its neighbours'; on
    closed lines it goes round. A taper grows from its least width in a quarter sine; two that are
    longer than their line share it. An empty profile is 1 everywhere.
    """
    tables = [_knots(line, hand.profile, hand.taper_start_mm, hand.taper_end_mm, hand.taper_to_pct / 100) for line in lines]
    if sizes is not None:
        tables = [_sized(i, *table, sizes) for i, table in enumerate(tables)]
    return _widths(tables, np.array([line.closed for line in lines], bool))


def _widths(tables: list[tuple[np.ndarray, np.ndarray]], closed: np.ndarray) -> Widths:
    evens = [_even(s, width) for s, width in tables]
    starts = np.cumsum([0, *(len(s) for s, _ in tables)])
    s, width = (np.concatenate([t[k] for t in tables]) if tables else np.zeros(0) for k in (0, 1))
    return Widths(s, width, np.concatenate(evens) if evens else np.zeros(0), starts, closed)


def held(widths: Widths, line: np.ndarray, s: np.ndarray, reach: np.ndarray) -> Widths:
    """Return widths that at places ``s`` (c,) of lines (c,) stay as they are there for ``reach`` (c,) mm to both sides, times the width.

    They catch up over as much again. Between two places that are near one another each holds a quarter of the way, or nothing where
    that is far less than its reach.
    """
    reach, tables = reach * widths.at(line, s)[0], []
    for i, closed in enumerate(widths.closed.tolist()):
        own, knots = line == i, slice(*widths.starts[i : i + 2])
        table = widths.s[knots], widths.width[knots]
        tables.append(_held(*table, s[own], reach[own], closed=closed) if own.any() else table)
    return _widths(tables, widths.closed)


def _held(s: np.ndarray, width: np.ndarray, at: np.ndarray, reach: np.ndarray, *, closed: bool) -> tuple[np.ndarray, np.ndarray]:
    """Return the knots (k,) and the widths there of a line, which at places ``at`` (c,) looks for its widths at these alone."""
    length, (at, first) = s[-1], np.unique(at, return_index=True)
    reach = reach[first]
    if closed:
        at, reach = np.concatenate([at - length, at, at + length]), np.tile(reach, 3)
    room = np.append(np.diff(at), np.inf)
    half = np.minimum(reach, np.minimum(room, np.append(np.inf, room[:-1])) / 4)
    use = half > LEAST_HELD * reach
    at, half = at[use], half[use]
    if not len(at):
        return s, width
    bends = (at[:, None] + half[:, None] * (-2, -1, 1, 2)).ravel()
    sought = np.stack([bends[::4], at, at, bends[3::4]], axis=1).ravel()
    far = 1 + length + np.abs(bends).max(initial=0.0)
    knots = np.union1d(s, bends[(bends > 0) & (bends < length)])
    where = np.interp(knots, [-far, *bends, far], [-far, *sought, far])
    if closed:
        where = np.where((where < 0) | (where > length), np.mod(where, length), where)  # its two ends may be unlike
    return knots, np.interp(where, s, width)


def _sized(track: int, s: np.ndarray, width: np.ndarray, sizes: AlongTrack) -> tuple[np.ndarray, np.ndarray]:
    """Return more knots, with the widths (k,) times the sizes there."""
    knots = np.union1d(s, np.linspace(s[0], s[-1], KNOTS_OF_SIZES + 1))
    return knots, np.interp(knots, s, width) * sizes(track, knots)


def _knots(line: MeasuredLine, profile, taper_start: float, taper_end: float, taper_to: float) -> tuple[np.ndarray, np.ndarray]:
    length = max(line.length, 1e-12)
    points = sorted(profile)
    between = [np.linspace(a[0], b[0], KNOTS + 1) for a, b in pairwise(_round(points) if line.closed else points)]
    shares = np.unique(np.concatenate([[0.0, 1.0], *(between if len(points) > 1 else [])]))
    tapers = np.zeros(2) if line.closed else np.array([taper_start, taper_end])
    tapers = tapers * min(1.0, length / max(tapers.sum(), 1e-12))
    ramp = np.linspace(0, 1, KNOTS + 1)
    ramps = [ramp * tapers[0], length - ramp * tapers[1]] if tapers.any() else []
    s = np.unique(np.clip(np.concatenate([shares[(shares >= 0) & (shares <= 1)] * length, *ramps]), 0.0, length))
    width = _profile_at(points, s / length, closed=line.closed)
    for taper, from_end in zip(tapers, (s, length - s), strict=True):
        if taper > 0:
            width = width * (taper_to + (1 - taper_to) * np.sin(np.pi / 2 * np.clip(from_end / taper, 0.0, 1.0)))
    return s, width


def _round(points: list) -> list:
    """Return a closed line's profile with a round more on either side."""
    return [(share + turn, width) for turn in (-1, 0, 1) for share, width in points]


def _profile_at(points: list, share: np.ndarray, *, closed: bool) -> np.ndarray:
    if len(points) < 2:
        return np.full(len(share), points[0][1] if points else 1.0)
    x, y = np.array(_round(points) if closed else points).T
    keep = np.append(True, np.diff(x) > 1e-9)
    x, y = x[keep], y[keep]
    return scipy.interpolate.PchipInterpolator(x, y)(np.clip(share, x[0], x[-1])) if len(x) > 1 else np.full(len(share), y[0])


def _even(s: np.ndarray, width: np.ndarray) -> np.ndarray:
    """Return ∫ds/width at the knots: over a stretch on which the width is linear, Δs·ln(w₁/w₀)/(w₁ − w₀)."""
    first, last = width[:-1], width[1:]
    share = last / first - 1
    ratio = np.where(np.abs(share) > 1e-9, np.log1p(share) / np.where(share == 0, 1.0, share), 1.0 - share / 2)
    return np.concatenate([[0.0], np.cumsum(np.diff(s) / first * ratio)])
