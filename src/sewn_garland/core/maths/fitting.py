"""Fit cubics to dense points: Schneider, An Algorithm for Automatically Fitting Digitized Curves (1990), with corners kept."""

from __future__ import annotations

import itertools
import math
from collections.abc import Callable

import numpy as np

from .outlines import Outline

ROUNDS = 4  # of moving the points' parameters before a stretch is split; chosen
HOPELESS = 5  # times the tolerance: moving parameters does not mend so much; chosen
LEAST_POINTS = 3


def fitted(points: np.ndarray, *, tolerance: float, closed: bool, corner_from: float, pause: Callable[[], None] = lambda: None) -> Outline:
    """Return cubics and lines through a polyline (k, 2) that stray at most ``tolerance`` from its points.

    ``corner_from`` radians of turn at a point make a corner, which is kept. A closed line does not
    repeat its first point. Fewer than two points give an empty outline. ``pause`` is called between
    the stretches of a long line, and may raise to stop.
    """
    points = np.asarray(points, float)
    if len(points) > 1:
        apart = np.hypot(*np.diff(points, axis=0).T) > 1e-12
        points = points[np.concatenate([[True], apart])]
    if len(points) < 2:
        return "", np.zeros((0, 2))
    corners = corners_of(points, closed=closed, corner_from=corner_from, reach=3 * tolerance)
    if closed:
        first = corners[0] if len(corners) else 0
        ring = np.vstack([np.roll(points, -first, axis=0), points[first : first + 1]])
        edges = sorted({0, *(int(c - first) for c in corners), len(points)})
        smooth = not len(corners)
    else:
        ring, edges, smooth = points, sorted({0, *map(int, corners), len(points) - 1}), False
    seam = _direction(ring[[-2, 1]]) if smooth and len(ring) > 3 else None
    commands, out = "M", [ring[:1]]
    for a, b in itertools.pairwise(edges):
        part = ring[a : b + 1]
        for cubic in _fit(part, seam if a == 0 else None, -seam if seam is not None and b == edges[-1] else None, tolerance, pause):
            commands += "L" if len(cubic) == 1 else "C"
            out.append(cubic)
    return commands + ("Z" if closed else ""), np.concatenate(out)


def one_cubic(points: np.ndarray, u: np.ndarray, first: np.ndarray, last: np.ndarray, *, tolerance: float) -> tuple[np.ndarray, float]:
    """Return the cubic (4, 2) that fits some points (k, 2) best, and how far it misses the worst; ``tolerance`` ends the search.

    It is sought from the parameters u (k,) on, then from shares of the length. It sets out in the unit direction ``first``;
    ``last`` looks back from its end.
    """
    cubic, miss, _ = _one(points, u, first, last, tolerance)
    if tolerance < miss < 30 * tolerance:
        cubic, miss, _ = _one(points, _by_length(points), first, last, tolerance, rounds=2 * ROUNDS, hopeless=30)
    return cubic, miss


def corners_of(points: np.ndarray, *, closed: bool, corner_from: float, reach: float) -> np.ndarray:
    """Return the points at which a polyline turns by at least ``corner_from``, looking ``reach`` mm to both sides."""
    n = len(points)
    if n < 3:
        return np.zeros(0, int)
    ring = np.vstack([points, points[:1]]) if closed else points
    s = np.concatenate([[0.0], np.cumsum(np.hypot(*np.diff(ring, axis=0).T))])
    at = s[:n]
    if closed:
        look = lambda x: np.stack([np.interp(x, s, ring[:, d], period=s[-1]) for d in (0, 1)], axis=1)  # noqa: E731
    else:
        look = lambda x: np.stack([np.interp(x, s, ring[:, d]) for d in (0, 1)], axis=1)  # noqa: E731
    reach = max(min(reach, s[-1] / 8), float(s[-1] / n))
    into, out = points - look(at - reach), look(at + reach) - points
    turn = np.abs(np.arctan2(into[:, 0] * out[:, 1] - into[:, 1] * out[:, 0], (into * out).sum(axis=1)))
    if not closed:
        turn[[0, -1]] = 0
    high = turn >= corner_from
    best = np.zeros(0, int)
    for i in np.flatnonzero(high)[np.argsort(-turn[high], kind="stable")]:
        gap = np.abs(at[best] - at[i])
        if not len(best) or np.minimum(gap, s[-1] - gap if closed else gap).min() > reach:
            best = np.append(best, i)
    return np.sort(best)


def _direction(points: np.ndarray) -> np.ndarray:
    """Return the unit direction from a polyline's first point to its last; (0, 0) where they are one."""
    v = points[-1] - points[0]
    return v / (np.hypot(*v) or 1.0)


def _end_direction(points: np.ndarray, tolerance: float) -> np.ndarray:
    """Return the unit direction in which a polyline sets out, over a few tolerances."""
    away = np.hypot(*(points - points[0]).T)
    far = np.flatnonzero(away > 2 * tolerance)
    v = points[far[0] if len(far) else -1] - points[0]
    size = np.hypot(*v)
    return v / size if size > 0 else np.array([1.0, 0.0])


def _fit(
    points: np.ndarray, first: np.ndarray | None, last: np.ndarray | None, tolerance: float, pause: Callable[[], None]
) -> list[np.ndarray]:
    """Return what follows the first point: rows (1, 2) for a line, (3, 2) for a cubic."""
    out: list[np.ndarray] = []
    first = _end_direction(points, tolerance) if first is None else first
    last = _end_direction(points[::-1], tolerance) if last is None else last
    stack = [(points, first, last)]
    while stack:
        pause()
        own, a, b = stack.pop()
        if len(own) == 2 or _straight(own, tolerance / 2):
            out.append(own[-1:])
            continue
        cubic, worst, at = _one(own, _by_length(own), a, b, tolerance)
        if worst <= tolerance or len(own) < LEAST_POINTS + 1:
            out.append(cubic[1:])
            continue
        at = int(np.clip(at, 1, len(own) - 2))
        span = max(1, min(3, at, len(own) - 1 - at))
        middle = own[at + span] - own[at - span]
        middle = middle / (np.hypot(*middle) or 1.0)
        stack.append((own[at:], middle, b))
        stack.append((own[: at + 1], a, -middle))
    return out


def _straight(points: np.ndarray, tolerance: float) -> bool:
    v = points[-1] - points[0]
    size = np.hypot(*v)
    if size < 1e-12:
        return False
    across = np.abs((points - points[0]) @ np.array([-v[1], v[0]])) / size
    along = (points - points[0]) @ v / size
    return bool(across.max() <= tolerance and along.min() >= -tolerance and along.max() <= size + tolerance)


def _by_length(points: np.ndarray) -> np.ndarray:
    """Return how far along a polyline its points (k, 2) lie, as shares of the whole."""
    step = points[1:] - points[:-1]
    u = np.zeros(len(points))
    np.cumsum(np.hypot(step[:, 0], step[:, 1]), out=u[1:])
    return u / float(u[-1])


def _one(
    points: np.ndarray, u: np.ndarray, a: np.ndarray, b: np.ndarray, tolerance: float, *, rounds: int = ROUNDS, hopeless: float = HOPELESS
) -> tuple[np.ndarray, float, int]:
    """Fit one cubic with given end directions, its points at about u (k,); return it, its largest miss and where that is.

    The parameters are moved for some rounds, unless the miss is ``hopeless`` times the tolerance.
    """
    step = points[1:] - points[:-1]
    reach = float(np.hypot(step[:, 0], step[:, 1]).sum())
    for _ in range(rounds):
        cubic, basis = _least_squares(points, u, a, b, reach)
        off = basis @ cubic - points
        miss = off[:, 0] ** 2 + off[:, 1] ** 2
        at = int(miss.argmax())
        if miss[at] <= tolerance**2:
            break
        if miss[at] > (hopeless * tolerance) ** 2:
            break
        u = _closer(cubic, off, u)
    return cubic, float(np.sqrt(miss[at])), at


def _least_squares(points: np.ndarray, u: np.ndarray, a: np.ndarray, b: np.ndarray, reach: float) -> tuple[np.ndarray, np.ndarray]:
    """Return the cubic that fits best with its end directions given, and the Bernstein basis (n, 4) at u."""
    p0, p3 = points[0], points[-1]
    v = 1 - u
    uv = 3 * u * v
    basis = _columns(v * v * v, uv * v, uv * u, u * u * u)
    cubic = np.array([p0, p0, p3, p3])
    inner = basis[:, 1:3]
    (aa, ab), (_, bb) = (inner.T @ inner).tolist()
    (ax, ay), (bx, by) = a.tolist(), b.tolist()
    ab *= ax * bx + ay * by
    (ux, uy), (wx, wy) = (inner.T @ (points - basis @ cubic)).tolist()
    ra, rb = ux * ax + uy * ay, wx * bx + wy * by
    det = aa * bb - ab * ab
    chord = math.hypot(*(p3 - p0).tolist())
    if abs(det) > 1e-12:
        alpha, beta = (ra * bb - rb * ab) / det, (rb * aa - ra * ab) / det
    else:
        alpha = beta = chord / 3
    if not (1e-4 * reach < alpha < 3 * reach and 1e-4 * reach < beta < 3 * reach):
        alpha = beta = max(chord, reach / 2) / 3
    cubic[1] += a * alpha
    cubic[2] += b * beta
    return cubic, basis


def _columns(*columns: np.ndarray) -> np.ndarray:
    """Put arrays side by side; much cheaper than stacking where there are few short ones."""
    out = np.empty((len(columns[0]), len(columns)))
    for k, column in enumerate(columns):
        out[:, k] = column
    return out


def _closer(cubic: np.ndarray, miss: np.ndarray, u: np.ndarray) -> np.ndarray:
    """Move each parameter toward its point's foot on the cubic, one Newton step."""
    d1 = 3 * (cubic[1:] - cubic[:-1])
    d2 = 2 * (d1[1:] - d1[:-1])
    v = 1 - u
    first = _columns(v * v, 2 * u * v, u * u) @ d1
    second = _columns(v, u) @ d2
    down = first[:, 0] ** 2 + first[:, 1] ** 2 + miss[:, 0] * second[:, 0] + miss[:, 1] * second[:, 1]
    step = (miss[:, 0] * first[:, 0] + miss[:, 1] * first[:, 1]) / np.where(np.abs(down) > 1e-12, down, np.inf)
    return np.maximum.accumulate(np.clip(u - step, 0.0, 1.0))
