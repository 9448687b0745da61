"""Split cubics where they cross a straight line, and cut outlines at one."""

from __future__ import annotations

import numpy as np

from .compiled import compiled, for_compiled
from .curves import as_complex, as_points

SAMPLES = 17  # chosen: crossings closer together than a sixteenth of a cubic may be missed
BISECTIONS = 8
APART_MM = 1e-9  # ends that are to be joined
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
    parts, own, side = _split(for_compiled(as_complex(cubics), complex), for_compiled(value, float))
    parts, number, old = _kept(parts, own, side, for_compiled(contour, int), for_compiled(closed, bool))
    return as_points(parts), number, old


@compiled
def _kept(parts, own, side, contour, closed):
    room = 2 * len(parts)  # each may be followed by a bridge
    out, number, old = np.empty((room, 4), np.complex128), np.empty(room, np.int64), np.empty(len(parts), np.int64)
    n, contours, head = 0, 0, 0
    for i in range(len(parts)):
        if side[i] > 0:
            continue
        of = contour[own[i]]
        anew = contours == 0 or of != old[contours - 1]
        if n > 0 and closed[old[contours - 1]]:
            n = _bridged(out, number, n, out[head, 0] if anew else parts[i, 0])
        if anew or (not closed[of] and _are_apart(out[n - 1, 3], parts[i, 0])):
            old[contours], head = of, n
            contours += 1
        out[n, 0], out[n, 1], out[n, 2], out[n, 3], number[n] = parts[i, 0], parts[i, 1], parts[i, 2], parts[i, 3], contours - 1
        n += 1
    if n > 0 and closed[old[contours - 1]]:
        n = _bridged(out, number, n, out[head, 0])
    return out[:n], number[:n], old[:contours]


@compiled
def _bridged(out, number, n, to):
    """Put a straight side behind n parts, if the last one does not end where that leads; return how many there are then."""
    if not _are_apart(out[n - 1, 3], to):
        return n
    a = out[n - 1, 3]
    out[n, 0], out[n, 1], out[n, 2], out[n, 3], number[n] = a, a + (to - a) / 3, a + (to - a) * 2 / 3, to, number[n - 1]
    return n + 1


@compiled
def _are_apart(a, b):
    return (a.real - b.real) ** 2 + (a.imag - b.imag) ** 2 > APART_MM**2
