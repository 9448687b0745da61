"""Smooth lines: through points, from the hand, and as a cure for bends that are too tight."""

from __future__ import annotations

from dataclasses import replace
from itertools import pairwise

import numpy as np
import scipy

from ..errors import InputError
from ..maths.curves import power_from_bezier
from ..values.line import Line, MeasuredLine
from .arc_length import frames_at

HAND_SMOOTHING_MM = 1.5  # chosen: takes the tremor out and keeps a 5 mm wave
HAND_TOLERANCE_MM = 0.15
WITHIN_MM = (0.01, 5.0)  # how near to the hand a fitted line may be asked to stay; chosen
MOST_SAMPLES = 4000


def line_from_points(points: np.ndarray, flowing: np.ndarray, *, closed: bool = False) -> Line:
    """Draw a line through points (n, 2) mm: curved through ``flowing`` ones (n,), pointed at the rest.

    Stretches of flowing points are cubic splines of continuous curvature. Coincident
    neighbours are dropped; fewer than two points left give a line without extent.
    """
    points, flowing = distinct(np.asarray(points, float), np.asarray(flowing, bool), closed)
    if len(points) < 2:
        return Line(np.zeros((0, 4, 2)), np.zeros(0, bool), False, points[0] if len(points) else np.zeros(2))
    if closed and len(points) > 2:
        if flowing.all():
            coeffs = _spline(np.vstack([points, points[:1]]), "periodic")
            return Line(coeffs, np.zeros(len(coeffs), bool), True, points[0])
        first = int(np.flatnonzero(~flowing)[0])
        points, flowing = np.roll(points, -first, axis=0), np.roll(flowing, -first)
        points, flowing = np.vstack([points, points[:1]]), np.append(flowing, False)
    else:
        closed = False
    breaks = np.unique(np.concatenate([[0], np.flatnonzero(~flowing), [len(points) - 1]]))
    parts = [_spline(points[a : b + 1], "natural") for a, b in pairwise(breaks)]
    coeffs = np.concatenate(parts)
    return Line(coeffs, np.zeros(len(coeffs), bool), closed, points[0])


def line_from_hand(points: np.ndarray, *, straight: bool = False, closed: bool = False) -> Line:
    """Smooth a hand-drawn stroke (n, 2) mm into few cubics within 0.15 mm of the smoothed hand.

    ``straight`` keeps only its ends, ``closed`` goes on from its last point to its first. Fewer than two distinct points give a line
    without extent.
    """
    points, _ = distinct(np.asarray(points, float), np.ones(len(points), bool), False)
    if len(points) < 2 or straight:
        ends = points[[0, -1]] if len(points) else np.zeros((0, 2))
        return line_from_points(ends, np.zeros(len(ends), bool))
    closed = closed and len(points) > 2
    points = np.vstack([points, points[:1]]) if closed else points
    along = np.concatenate([[0.0], np.cumsum(np.hypot(*np.diff(points, axis=0).T))])
    n = int(np.clip(along[-1] / 0.4, 8, MOST_SAMPLES))
    even = np.linspace(0.0, along[-1], n, endpoint=not closed)
    dense = np.stack([np.interp(even, along, points[:, i]) for i in range(2)], axis=1)
    smooth = _filtered(dense, HAND_SMOOTHING_MM / (along[-1] / (n - 1)), closed=closed)
    return fewest_knots(smooth, closed=closed)


def smoothed(measured: MeasuredLine, over_mm: float) -> Line:
    """Smooth a line over a distance: bends shorter than ``over_mm`` open out, open ends stay.

    A closed line keeps its length, so it grows rounder instead of smaller.
    """
    if measured.length <= 0:
        return measured.line
    n = int(np.clip(measured.length / over_mm * 12, 48, MOST_SAMPLES))
    s = np.linspace(0.0, measured.length, n, endpoint=not measured.closed)
    dense = frames_at(measured, s).position
    smooth = _filtered(dense, over_mm / (measured.length / n), closed=measured.closed)
    if not measured.closed:
        coeffs = _spline(smooth, "natural")
        return Line(coeffs, np.zeros(len(coeffs), bool), False, smooth[0])
    ring = np.vstack([smooth, smooth[:1]])
    shrunk = np.hypot(*np.diff(ring, axis=0).T).sum()
    if shrunk <= 1e-6 * measured.length:  # smoothed to a point: the round limit is a circle
        angle = np.linspace(0, 2 * np.pi, n + 1)
        ring = dense.mean(axis=0) + measured.length / (2 * np.pi) * np.stack([np.cos(angle), np.sin(angle)], axis=1)
    else:
        middle = smooth.mean(axis=0)
        ring = middle + (ring - middle) * (measured.length / shrunk)
    ring[-1] = ring[0]
    coeffs = _spline(ring, "periodic")
    return Line(coeffs, np.zeros(len(coeffs), bool), True, ring[0])


def scaled(line: Line, factor: float) -> Line:
    """Scale a line about its start."""
    coeffs = line.coeffs * factor
    coeffs[:, 0] += line.start * (1 - factor)
    coeffs[line.is_arc, 3] = line.coeffs[line.is_arc, 3]  # angles do not scale
    return replace(line, coeffs=coeffs)


def distinct(points: np.ndarray, flowing: np.ndarray, closed: bool) -> tuple[np.ndarray, np.ndarray]:
    """Return points (n, 2) without those that lie on the one before, and what (n,) goes with them; raises InputError for NaN."""
    points = points.reshape(-1, 2)
    if not np.isfinite(points).all():
        raise InputError("a point of the line is not a finite number")
    keep = np.ones(len(points), bool)
    keep[1:] = np.hypot(*np.diff(points, axis=0).T) > 1e-6
    if closed and len(points) > 1 and np.hypot(*(points[-1] - points[0])) <= 1e-6:
        keep[-1] = False
    return points[keep], flowing[keep]


def _spline(points: np.ndarray, ends: str) -> np.ndarray:
    """Return power coefficients (k, 4, 2) of the cubic spline through points (k + 1, 2)."""
    if len(points) == 2:
        thirds = points[0] + np.array([0, 1, 2, 3])[:, None] / 3 * (points[1] - points[0])
        straight = power_from_bezier(thirds)[None]
        straight[:, 2:] = 0.0
        return straight
    steps = np.sqrt(np.hypot(*np.diff(points, axis=0).T))  # centripetal: no loops at uneven points
    knots = np.concatenate([[0.0], np.cumsum(np.maximum(steps, 1e-9))])
    spline = scipy.interpolate.CubicSpline(knots, points, bc_type=ends)
    h = np.diff(knots)[:, None]
    c3, c2, c1, c0 = spline.c
    return np.stack([c0, c1 * h, c2 * h**2, c3 * h**3], axis=1)


def _filtered(points: np.ndarray, sigma: float, *, closed: bool) -> np.ndarray:
    """Smooth positions by a Gaussian of ``sigma`` samples; open ends are held by reflection through them."""
    n = len(points)
    sigma = min(sigma, float(n))  # wider than the line is the same, and would take memory without end
    if closed:
        return scipy.ndimage.gaussian_filter1d(points, sigma, axis=0, mode="wrap")
    reach = min(n - 1, int(4 * sigma) + 1)
    head = 2 * points[0] - points[reach:0:-1]
    tail = 2 * points[-1] - points[-2 : -reach - 2 : -1]
    out = scipy.ndimage.gaussian_filter1d(np.vstack([head, points, tail]), sigma, axis=0, mode="nearest")[reach : reach + n]
    out[0], out[-1] = points[0], points[-1]
    return out


def fewest_knots(dense: np.ndarray, within_mm: float = HAND_TOLERANCE_MM, *, closed: bool) -> Line:
    """Pass a spline through as few of the dense points (n, 2) as stay within so many mm of all, round and round where ``closed``."""
    n = len(dense)
    count = 4
    while True:
        picks = np.unique(np.linspace(0, n - (not closed), min(count, n), endpoint=not closed).round().astype(int))
        coeffs = _spline(np.vstack([dense[picks], dense[:1]]), "periodic") if closed else _spline(dense[picks], "natural")
        share = np.linspace(0, 1, 9 + 8 * n // len(picks))[:, None, None]  # closer than the tolerance
        c0, c1, c2, c3 = (coeffs[:, i] for i in range(4))
        curve = (((c3 * share + c2) * share + c1) * share + c0).transpose(1, 0, 2).reshape(-1, 2)
        miss = scipy.spatial.KDTree(curve, balanced_tree=False, compact_nodes=False).query(dense[:: max(1, n // 200)])[0].max()
        if miss <= within_mm or count >= n:
            return Line(coeffs, np.zeros(len(coeffs), bool), closed, dense[0])
        count = int(count * 1.5) + 1
