"""Split cubics where they cross a straight line, and cut outlines at one."""

from __future__ import annotations

import numpy as np

from .compiled import compiled, for_compiled
from .curves import as_complex, as_points

SAMPLES = 17  # chosen: crossings closer together than a sixteenth of a cubic may be missed
BISECTIONS = 8
NEWTON_ROUNDS = 4  # after that many bisections simple roots are then known to the last bits


def split_where(cubics: np.ndarray, value: np.ndarray) -> tuple[np.ndarray, np.ndarray, np.ndarray]:
    """Split cubics (m, 4, 2) where ``value`` (m, 4), given at their control points, changes its sign.

    ``value`` is a linear function of the place, so along a cubic it is a cubic with these as its
    control values. Return the parts in order, the cubic (k,) each is of, and on which side (k,) it
    lies: 1 where the value is positive at its middle, −1 elsewhere.
    """
    parts, own, side = _split(for_compiled(as_complex(cubics), complex), for_compiled(value, float))
    return as_points(parts), own, side


@compiled
def _split(cubics, value):
    room = len(cubics) + len(cubics) // 2 + 64
    parts, own, side = np.empty((room, 4), np.complex128), np.empty(room, np.int64), np.empty(room, np.int64)
    at, n = np.empty(SAMPLES + 1), 0
    for i in range(len(cubics)):
        a, b, c, d = value[i, 0], value[i, 1], value[i, 2], value[i, 3]
        low, high = min(min(a, b), min(c, d)), max(max(a, b), max(c, d))
        mixed = low < 0 < high  # no other curve leaves its side
        many = _put_crossings(a, b, c, d, at) if mixed else 0
        if n + many >= len(parts):
            parts, own, side = np.concatenate((parts, parts)), np.append(own, own), np.append(side, side)
        begin, rest = 0.0, (cubics[i, 0], cubics[i, 1], cubics[i, 2], cubics[i, 3])
        for k in range(many + 1):
            end = at[k] if k < many else 1.0
            own[n], side[n] = i, 1 if high > 0 else -1
            if mixed:
                side[n] = 1 if _value_at(a, b, c, d, (begin + end) / 2) > 0 else -1
            if k < many:
                rest = _put_first_part(rest, (end - begin) / (1 - begin), parts[n])
            else:
                parts[n, 0], parts[n, 1], parts[n, 2], parts[n, 3] = rest
            begin, n = end, n + 1
    return parts[:n], own[:n], side[:n]


@compiled
def _put_first_part(cubic, t, part):
    """Put what of a cubic lies before t in ``part``, and return the rest (de Casteljau)."""
    p0, p1, p2, p3 = cubic
    s = 1 - t
    a, b, c = p0 * s + p1 * t, p1 * s + p2 * t, p2 * s + p3 * t
    d, e = a * s + b * t, b * s + c * t
    middle = d * s + e * t
    part[0], part[1], part[2], part[3] = p0, a, d, middle
    return middle, e, c, p3


@compiled
def _put_crossings(a, b, c, d, at):
    """Put the parameters where a value changes its sign in ``at``, in order, and return how many there are."""
    many, before, low = 0, a, 0.0
    for k in range(1, SAMPLES):
        high = k / (SAMPLES - 1)
        now = _value_at(a, b, c, d, high)
        if now == 0 and high < 1:
            continue  # what is 0 here has its other sign behind, or none
        if (before < 0 < now) or (now < 0 < before):
            at[many] = _crossing(a, b, c, d, low, high, now > 0)
            many += 1
        before, low = now, high
    return many


@compiled
def _crossing(a, b, c, d, low, high, rising):
    for _ in range(BISECTIONS):
        middle = (low + high) / 2
        if (_value_at(a, b, c, d, middle) > 0) == rising:
            high = middle
        else:
            low = middle
    t = (low + high) / 2
    for _ in range(NEWTON_ROUNDS):
        s = 1 - t
        slope = 3 * ((b - a) * s * s + 2 * (c - b) * t * s + (d - c) * t * t)
        if slope != 0:
            t = min(max(t - _value_at(a, b, c, d, t) / slope, low), high)
    return t


@compiled
def _value_at(a, b, c, d, t):
    s = 1 - t
    return a * s * s * s + 3 * b * t * s * s + 3 * c * t * t * s + d * t * t * t


def kept_side(cubics: np.ndarray, contour: np.ndarray, closed: np.ndarray, value: np.ndarray):
    """Keep of contours what lies where ``value`` (m, 4) is not positive.

    ``contour`` (m,) numbers each cubic's contour, in order, ``closed`` (c,) says which are rims of
    fills: those are closed along the line that ``value`` is 0 on (Sutherland and Hodgman's way:
    a rim cut in two keeps a double edge there, which covers nothing). Open ones fall apart.
    Return cubics, the contour (k,) of each numbered anew, and the old one (c′,) of every new one.
    """
    parts, own, side = split_where(cubics, value)
    keep = side < 0
    parts, of = parts[keep], contour[own[keep]]
    if not len(parts):
        return np.zeros((0, 4, 2)), np.zeros(0, int), np.zeros(0, int)
    first = np.append(True, of[1:] != of[:-1])
    apart = np.append(False, np.hypot(*(parts[1:, 0] - parts[:-1, 3]).T) > 1e-9)
    breaks = first | (apart & ~closed[of])
    number = np.cumsum(breaks) - 1
    old = of[breaks]
    head = np.flatnonzero(first)[np.cumsum(first) - 1]  # the first part of each part's contour
    last = np.append(first[1:], True)
    follows = np.where(last, head, np.minimum(np.arange(len(parts)) + 1, len(parts) - 1))
    gap = np.hypot(*(parts[follows, 0] - parts[:, 3]).T) > 1e-9
    bridge = np.flatnonzero(gap & closed[of])
    a, b = parts[bridge, 3], parts[follows[bridge], 0]
    lines = np.stack([a, a + (b - a) / 3, a + (b - a) * 2 / 3, b], axis=1)
    every = np.concatenate([parts, lines])
    order = np.argsort(np.append(np.arange(len(parts)), bridge), kind="stable")  # a bridge follows the part it begins at
    return every[order], np.append(number, number[bridge])[order], old
