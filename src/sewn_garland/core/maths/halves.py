"""Split cubics where they cross a straight line, and cut outlines at one."""

from __future__ import annotations

import numpy as np

from .curves import bernstein
from .outlines import split_cubics

SAMPLES = 17  # chosen: crossings closer together than a sixteenth of a cubic may be missed
BISECTIONS = 8
NEWTON_ROUNDS = 4  # after that many bisections simple roots are then known to the last bits


def split_where(cubics: np.ndarray, value: np.ndarray) -> tuple[np.ndarray, np.ndarray, np.ndarray]:
    """Split cubics (m, 4, 2) where ``value`` (m, 4), given at their control points, changes its sign.

    ``value`` is a linear function of the place, so along a cubic it is a cubic with these as its
    control values. Return the parts in order, the cubic (k,) each is of, and on which side (k,) it
    lies: 1 where the value is positive at its middle, −1 elsewhere.
    """
    low, high = (pick(pick(value[:, 0], value[:, 1]), pick(value[:, 2], value[:, 3])) for pick in (np.minimum, np.maximum))
    mixes = (low < 0) & (high > 0)  # no other curve leaves its side
    which, at = _crossings(value, np.flatnonzero(mixes))
    parts, owner, begin = [], [], []
    rest, start, left = cubics.copy(), np.zeros(len(cubics)), np.arange(len(cubics))
    rank = np.arange(len(which)) - np.searchsorted(which, which)
    for k in range(int(rank.max(initial=-1)) + 1):
        rows, u = which[rank == k], at[rank == k]
        first, second = split_cubics(rest[rows], (u - start[rows]) / (1 - start[rows]))
        parts.append(first)
        owner.append(rows)
        begin.append(start[rows])
        rest[rows], start[rows] = second, u
    out = np.concatenate([*parts, rest])
    own, begun = np.concatenate([*owner, left]), np.concatenate([*begin, start])
    order = np.argsort(own, kind="stable")  # of one cubic each part begins after those before it
    out, own, begun = out[order], own[order], begun[order]
    ends = np.append(begun[1:], 1.0)
    ends = np.where(np.append(own[1:] != own[:-1], True), 1.0, ends)
    side = np.where(high > 0, 1, -1)[own]
    mixed = np.flatnonzero(mixes[own])
    side[mixed] = np.where(_value_at(value[own[mixed]], (begun + ends)[mixed] / 2) > 0, 1, -1)
    return out, own, side


def _crossings(value: np.ndarray, mixed: np.ndarray) -> tuple[np.ndarray, np.ndarray]:
    """Return which cubic (n,) of those ``mixed`` and where on it (n,), as a parameter in order, a value (m, 4) changes its sign."""
    t = np.linspace(0, 1, SAMPLES)
    signs = np.sign(value[mixed] @ bernstein(t).T)
    crossed, cell = np.nonzero(signs[:, :-1] * signs[:, 1:] < 0)
    which = mixed[crossed]
    low, high = t[cell], t[cell + 1]
    rising = signs[crossed, cell + 1] > 0
    own_value = value[which]
    for _ in range(BISECTIONS):  # a root finder for arrays takes longer to be called than these rounds do
        middle = (low + high) / 2
        above = _value_at(own_value, middle) > 0
        high, low = np.where(above == rising, middle, high), np.where(above == rising, low, middle)
    at = (low + high) / 2
    for _ in range(NEWTON_ROUNDS):
        slope = _slope_at(own_value, at)
        step = _value_at(own_value, at) / np.where(slope == 0, np.inf, slope)
        at = np.clip(at - step, low, high)
    return which, at


def _value_at(value: np.ndarray, t: np.ndarray) -> np.ndarray:
    return value[:, 0] * (1 - t) ** 3 + 3 * value[:, 1] * t * (1 - t) ** 2 + 3 * value[:, 2] * t**2 * (1 - t) + value[:, 3] * t**3


def _slope_at(value: np.ndarray, t: np.ndarray) -> np.ndarray:
    a, b, c = (value[:, i + 1] - value[:, i] for i in range(3))
    return 3 * (a * (1 - t) ** 2 + 2 * b * t * (1 - t) + c * t**2)


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
