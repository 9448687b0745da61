"""Fit a hand's stroke: its tremor is taken out by the time it was drawn in, the corners that were meant stay.

A hand trembles at 8 to 12 Hz (from memory: physiological tremor) and draws at a few; so a stroke is smoothed as a signal in time, by
the penalised least squares of Whittaker (1923) and Henderson with third differences, which lets f pass by 1 / (1 + (f/f0)^6).
"""

from __future__ import annotations

from collections.abc import Sequence
from itertools import pairwise

import numpy as np
import scipy

from ..errors import InputError
from ..values.line import Line
from .smoothing import HAND_TOLERANCE_MM, distinct, fewest_knots, line_from_points

STANDARD_MM = 30.0  # of a wave that half of passes at the standard; chosen: what is larger than a tremor stays all the same
STANDARD_PCT, STANDARD_HZ, SMOOTHEST_HZ = 35.0, 5.0, 1.0  # chosen: at 35 % a sixteenth of 8 Hz is left, at 100 % what is slower than 1 Hz
STEP_S = 0.008  # chosen: a mouse tells of itself as often
UNTIMED_S = 1 / 60  # between points without times; chosen: a screen's frame
MOST_SAMPLES = 8_000
GRID_MM, EVENED_MM = 0.2, 12.0  # along a stroke: between places looked at, and over how far its pace is evened; chosen
# about a corner of a stroke whose tremor is out, how far it is looked at and close by (mm), and by how much it turns at least (°);
# chosen: a bend of a radius of 5 mm or more turns less than CORNER_SHARE of that close by, a corner more
LOOKS = ((12.0, 4.0, 50.0), (6.0, 2.0, 70.0))
CORNER_SHARE, LOOKED_AT_PCT = 0.55, 30.0
MOST_STRENGTH = 1e9  # beyond it the equations lose their figures
MOST_CORNERS = 200  # chosen: a stroke of more has none that was meant
LEAST_SIDE_MM = 3.0  # between corners
SIDE_MM, STRAIGHT_MM, MOST_AWAY_MM = (2.5, 18.0), 0.15, 2.0  # of what tells where a corner was meant; chosen
# about a corner, the stretch of its sides, how far from straight they are at most, and how near its tip a stroke comes: as a bend of
# that radius does, or nearer than a tremor moves it; chosen
TIP_SIDE_MM, TIP_STRAIGHT_MM, TIP_RADIUS_MM, TIP_MM, TIP_TREMORS = (2.5, 6.0), 0.35, 2.0, (0.75, 3.0), 1.6
MOST_MOVED_MM = 1.2  # at the standard; chosen: tremors are less
FREE_FROM_PCT = 60.0  # from where on smoothness goes before what was drawn; chosen
PINNED = 1e8  # the weight of a sample that stays


def line_of_hand(
    points: np.ndarray, times_ms: np.ndarray | None, *, smooth_pct: float, within_mm: float = HAND_TOLERANCE_MM, closed: bool = False
) -> Line:
    """Return the line of a stroke as ``knots_of_hand`` fits it."""
    return line_from_points(*knots_of_hand(points, times_ms, smooth_pct=smooth_pct, within_mm=within_mm, closed=closed), closed=closed)


def knots_of_hand(
    points: np.ndarray, times_ms: np.ndarray | None, *, smooth_pct: float, within_mm: float = HAND_TOLERANCE_MM, closed: bool = False
) -> tuple[np.ndarray, np.ndarray]:
    """Return few points (k, 2) that a stroke (n, 2) mm passes, and which (k,) it flows through; at the others it has a corner.

    ``times_ms`` (n,) say when it was where, evenly where they are None; ``smooth_pct`` is 0, as it was drawn, to 100;
    the points are so few that their curve stays ``within_mm`` of what was smoothed. Fewer than two
    distinct points come back as they are. Raises InputError for times that run backwards.
    """
    points = np.asarray(points, float).reshape(-1, 2)
    times = UNTIMED_S * np.arange(len(points)) if times_ms is None else np.asarray(times_ms, float) / 1000
    if len(times) != len(points) or not np.isfinite(times).all() or (np.diff(times) < 0).any():
        raise InputError("the times of a stroke must be as many as its points, one after the other")
    kept, _ = distinct(points, np.ones(len(points), bool), False)
    if len(kept) < 3:
        return kept, np.ones(len(kept), bool)
    even, step = _evenly(points, times)
    even = np.vstack([even, even[:1]]) if closed else even
    corners = _corners(even, _smooth(even, _strength(LOOKED_AT_PCT, step)))
    strength = _strength(smooth_pct, step, speed=_speed(even, step))
    most_mm = MOST_MOVED_MM * smooth_pct / STANDARD_PCT if smooth_pct <= FREE_FROM_PCT else np.inf
    if closed and len(corners):
        even = np.roll(even[:-1], -corners[0], axis=0)
        even, corners = np.vstack([even, even[:1]]), corners[1:] - corners[0]
    elif closed:
        return _fitted(_round(even[:-1], _gentle(even, strength, most_mm)), within_mm, closed=True)
    ends = np.concatenate([[0], corners, [len(even) - 1]])
    strengths = [_gentle(even[a : b + 1], strength, most_mm) for a, b in pairwise(ends)]
    stretches = _joined(even, ends, strengths, closed=closed)
    parts = [_fitted(stretch, within_mm)[0] for stretch in stretches]
    knots = np.vstack([parts[0][:1], *(part[1:] for part in parts)])
    flowing = np.ones(len(knots), bool)
    flowing[np.cumsum([len(part) - 1 for part in parts])[:-1]] = False
    if closed:  # it begins at a corner, and its last point is its first
        knots, flowing = knots[:-1], np.append(False, flowing[1:-1])
    return knots, flowing if len(knots) > 2 else np.zeros(len(knots), bool)


def _evenly(points: np.ndarray, times: np.ndarray) -> tuple[np.ndarray, float]:
    """Return a stroke's places (m, 2) at even steps in time, and the step in seconds.

    What tells of a pointer does so in bursts, so how long each mm took is evened out along the stroke first.
    """
    along = np.concatenate([[0.0], np.cumsum(np.hypot(*np.diff(points, axis=0).T))])
    s = np.linspace(0.0, along[-1], int(np.clip(along[-1] / GRID_MM, 16, MOST_SAMPLES)))
    taken = np.diff(np.interp(s, *_last_of_each(along, times)))
    pace = scipy.ndimage.gaussian_filter1d(taken, EVENED_MM / (s[1] - s[0]), mode="nearest")
    spent = max(float(times[-1] - times[0]), STEP_S)
    when = np.concatenate([[0.0], np.cumsum(pace + 1e-9)])
    when *= spent / when[-1]
    count = int(np.clip(round(spent / STEP_S) + 1, min(8, 2 * len(points)), MOST_SAMPLES))
    at = np.interp(np.linspace(0.0, spent, count), when, s)
    return np.stack([np.interp(at, along, points[:, i]) for i in range(2)], axis=1), spent / max(count - 1, 1)


def _last_of_each(along: np.ndarray, times: np.ndarray) -> tuple[np.ndarray, np.ndarray]:
    """Return places along a stroke that grow, each with the time at which it was left."""
    last = np.append(np.diff(along) > 0, True)
    return along[last], times[last]


def _speed(even: np.ndarray, step: float) -> float:
    """Return the mean speed of samples (n, 2) along their way, mm/s."""
    return float(np.hypot(*np.diff(even, axis=0).T).sum()) / (step * max(len(even) - 1, 1))


def _strength(smooth_pct: float, step: float, *, speed: float = np.inf) -> float:
    """Return the weight of third differences that lets half of the cut-off pass: what a hand that draws slowly trembles is slower too."""
    if smooth_pct <= 0:
        return 0.0
    standard = min(STANDARD_HZ, speed / STANDARD_MM)
    beyond = max(smooth_pct - STANDARD_PCT, 0) / (100 - STANDARD_PCT)
    share = STANDARD_PCT / smooth_pct if smooth_pct < STANDARD_PCT else (SMOOTHEST_HZ / STANDARD_HZ) ** beyond
    return min(MOST_STRENGTH, float((2 * np.sin(np.pi * min(max(standard * share * step, 1e-6), 0.5))) ** -6))


def _smooth(z: np.ndarray, strength: float, pinned: tuple[bool, bool] = (False, False)) -> np.ndarray:
    """Return samples (n, 2) smoothed; the first and last stay where they are pinned."""
    n = len(z)
    if n < 4 or strength <= 0:
        return z
    weight = np.ones(n)
    weight[[0, -1]] = np.where(pinned, PINNED * max(1.0, strength), 1.0)
    third = scipy.sparse.diags_array([-1.0, 3.0, -3.0, 1.0], offsets=[0, 1, 2, 3], shape=(n - 3, n))
    squared = (third.T @ third).todia()
    bands = np.zeros((4, n))
    for k in range(4):
        bands[k, : n - k] = strength * squared.diagonal(-k)
    bands[0] += weight
    return scipy.linalg.solveh_banded(bands, weight[:, None] * z, lower=True)


def _round(ring: np.ndarray, strength: float) -> np.ndarray:
    """Return a closed stroke's samples smoothed round and round."""
    return _smooth(np.vstack([ring, ring, ring]), strength)[len(ring) : 2 * len(ring)]


def _gentle(z: np.ndarray, strength: float, most_mm: float) -> float:
    """Return a strength, at most as given, that moves no sample (n, 2) more than so many mm off the way: a quick hand means its bends."""
    if not np.isfinite(most_mm) or len(z) < 4:
        return strength
    along = np.concatenate([[0.0], np.cumsum(np.hypot(*np.diff(z, axis=0).T))])
    s = np.linspace(0.0, along[-1], int(np.clip(along[-1] / GRID_MM, 16, MOST_SAMPLES)))
    way = scipy.spatial.KDTree(np.stack([np.interp(s, along, z[:, i]) for i in range(2)], axis=1))
    while strength > 1 and way.query(_smooth(z, strength))[0].max() > most_mm:
        strength /= 4
    return strength


def _joined(even: np.ndarray, ends: np.ndarray, strengths: Sequence[float], *, closed: bool) -> list[np.ndarray]:
    """Return the stretches between corners smoothed, each by its strength, so that they meet there; a line that does not close begins
    and ends as it comes out.
    """
    stretches = [_smooth(even[a : b + 1], strength) for (a, b), strength in zip(pairwise(ends), strengths, strict=True)]
    meet = [_meeting(one, other) for one, other in pairwise(stretches)]
    around = [_meeting(stretches[-1], stretches[0])] if closed else []
    begins, stops = [*(around or [None]), *meet], [*meet, *(around or [None])]
    out = []
    for (a, b), strength, begin, end in zip(pairwise(ends), strengths, begins, stops, strict=True):
        own = even[a : b + 1].copy()
        for place, corner in ((0, begin), (-1, end)):
            own[place] = own[place] if corner is None else corner
        own = _smooth(own, strength, (begin is not None, end is not None))
        for place, corner in ((0, begin), (-1, end)):
            own[place] = own[place] if corner is None else corner  # to the last digit, for the next begins there
        out.append(own)
    return out


def _meeting(one: np.ndarray, other: np.ndarray) -> np.ndarray:
    """Return where two smoothed stretches meet: where their sides cross, as far as these are straight, else half-way between their ends."""
    half_way = (one[-1] + other[0]) / 2
    into, out = _side(one[::-1]), _side(other)
    if into is None or out is None:
        return half_way
    met = _crossing(into, out)
    return met if met is not None and np.hypot(*(met - half_way)) < MOST_AWAY_MM else half_way


def _crossing(one: tuple[np.ndarray, np.ndarray], other: tuple[np.ndarray, np.ndarray]) -> np.ndarray | None:
    """Return where two lines, each a point and a direction, cross; None where they are all but parallel."""
    (p, u), (q, v) = one, other
    across = u[0] * v[1] - u[1] * v[0]
    return None if abs(across) < 0.3 else p + u * ((q - p)[0] * v[1] - (q - p)[1] * v[0]) / across


def _side(stretch: np.ndarray) -> tuple[np.ndarray, np.ndarray] | None:
    """Return the middle and the direction of a stretch near its start, None where it is not straight there."""
    away = np.concatenate([[0.0], np.cumsum(np.hypot(*np.diff(stretch, axis=0).T))])
    return _straight_through(stretch[(away >= SIDE_MM[0]) & (away <= min(SIDE_MM[1], 0.6 * away[-1]))])


def _straight_through(places: np.ndarray, straight_mm: float = STRAIGHT_MM) -> tuple[np.ndarray, np.ndarray] | None:
    """Return the middle and the direction of places (n, 2), None where they are fewer than four or not straight."""
    if len(places) < 4:
        return None
    middle = places.mean(axis=0)
    _, spread, ways = np.linalg.svd(places - middle, full_matrices=False)
    return (middle, ways[0]) if spread[1] / np.sqrt(len(places)) < straight_mm else None


def _fitted(samples: np.ndarray, within_mm: float, *, closed: bool = False) -> tuple[np.ndarray, np.ndarray]:
    """Return few points that a curve passes which stays within so many mm of all samples."""
    apart, _ = distinct(samples, np.ones(len(samples), bool), closed)
    if len(apart) < 3:
        return apart, np.ones(len(apart), bool)
    line = fewest_knots(apart, within_mm, closed=closed)
    ends = [] if line.closed else [line.coeffs[-1].sum(axis=0)]
    knots = np.vstack([line.coeffs[:, 0], *ends])
    return knots, np.ones(len(knots), bool)


def _corners(drawn: np.ndarray, path: np.ndarray) -> np.ndarray:
    """Return the samples (c,) at which a stroke has a corner: its ``path`` (n, 2) without tremor turns as much close by as further about,
    and much, and what was ``drawn`` (n, 2) goes on to where its sides would cross.

    Long sides tell of it beyond the tremor, short ones as they can.
    """
    along = np.concatenate([[0.0], np.cumsum(np.hypot(*np.diff(path, axis=0).T))])
    out: list[int] = []
    for far, close, least in LOOKS:
        if along[-1] < 2 * far:
            continue
        wide, near = _turns(path, along, far), _turns(path, along, close)
        candidates = np.flatnonzero((wide >= least) & (near >= CORNER_SHARE * wide) & (along > close) & (along < along[-1] - close))
        for sample in candidates[np.argsort(-near[candidates], kind="stable")].tolist():
            if all(abs(along[sample] - along[other]) >= close + LEAST_SIDE_MM for other in out):
                out.append(sample)
            if len(out) > MOST_CORNERS:
                return np.zeros(0, int)
    return np.array(sorted(k for k in out if _reaches_its_tip(drawn, path, along, k)), int)


def _reaches_its_tip(drawn: np.ndarray, path: np.ndarray, along: np.ndarray, corner: int) -> bool:
    """Tell whether a stroke goes as far as where the sides of a bend would cross: a wave's crest stays well short of it. Sides that are
    curved, or all but in line, do not tell.
    """
    side = np.linspace(*TIP_SIDE_MM, 8)
    before, after = (np.stack([np.interp(along[corner] + by * side, along, path[:, i]) for i in range(2)], axis=1) for by in (-1, 1))
    into, out = (_straight_through(places, TIP_STRAIGHT_MM) for places in (before, after))
    tip = _crossing(into, out) if into is not None and out is not None else None
    if tip is None:
        return True
    ways = [(near - far) / max(np.hypot(*(near - far)), 1e-12) for near, far in ((before[0], before[-1]), (after[-1], after[0]))]
    half = np.arccos(np.clip(ways[0] @ ways[1], -0.999, 1.0)) / 2
    away = np.abs(along - along[corner])
    near, beside = away <= TIP_SIDE_MM[1], (away > TIP_SIDE_MM[0]) & (away <= TIP_SIDE_MM[1])
    tremor = np.sqrt(((drawn - path)[beside] ** 2).sum(axis=1).mean()) if beside.any() else 0.0
    short = np.clip(TIP_RADIUS_MM * (1 / np.cos(half) - 1), TIP_MM[0] + TIP_TREMORS * tremor, TIP_MM[1])
    return bool(np.hypot(*(drawn[near] - tip).T).min() <= short)


def _turns(path: np.ndarray, along: np.ndarray, reach: float) -> np.ndarray:
    """Return by how many degrees (n,) a path turns from the way that leads to each sample over ``reach`` mm to the way on."""
    before, after = (np.stack([np.interp(along + by, along, path[:, i]) for i in range(2)], axis=1) for by in (-reach, reach))
    into, out = path - before, after - path
    angle = np.arctan2(into[:, 0] * out[:, 1] - into[:, 1] * out[:, 0], (into * out).sum(axis=1))
    return np.degrees(np.abs(angle))
