"""Very many pairs of polygons that cross themselves: about how much of them overlaps."""

from __future__ import annotations

import numpy as np

from .compiled import compiled, for_compiled

LINES = 256  # across what both reach, besides those between corners; chosen: random walks are then within 2e-4 of the box about them


def covered_by_both(
    one: np.ndarray, begins: np.ndarray, weights: np.ndarray, two: np.ndarray, others: np.ndarray, other_weights: np.ndarray
) -> np.ndarray:
    """Return about how much (p,) polygons ``one`` (p, m) and ``two`` (p, n), complex, cover both.

    Sides go on from their points ``begins`` (k,) and ``others`` (j,) to the next ones. A polygon covers what it winds about in all, a
    ring that leaves out having ``weights`` (k,) of the other sign. It is summed over lines across, in the middle between corners: that is
    exact but for where sides cross.
    """
    own = for_compiled(one, complex), for_compiled(begins, int), for_compiled(weights, float)
    their = for_compiled(two, complex), for_compiled(others, int), for_compiled(other_weights, float)
    return _covered_by_both(*own, *their)


@compiled
def _covered_by_both(one, begins, weights, two, others, other_weights):
    out = np.zeros(len(one))
    for i in range(len(one)):
        top, foot = _heights(one[i], begins)
        their_top, their_foot = _heights(two[i], others)
        top, foot = max(top, their_top), min(foot, their_foot)
        if foot <= top:
            continue
        lines, heights = _across(one[i], begins, two[i], others, top, foot)
        first, at, turn = _crossings(one[i], begins, weights, lines)
        their_first, their_at, their_turn = _crossings(two[i], others, other_weights, lines)
        for k in range(len(lines)):
            out[i] += heights[k] * _both(at, turn, first[k], first[k + 1], their_at, their_turn, their_first[k], their_first[k + 1])
    return out


@compiled
def _heights(points, begins):
    top, foot = np.inf, -np.inf
    for k in begins:
        top, foot = min(top, points[k].imag), max(foot, points[k].imag)
    return top, foot


@compiled
def _across(one, begins, two, others, top, foot):
    """Return at which y (n,) lines go across, rising, and how much (n,) of the height is each one's: one or more between any corners."""
    corners, n = np.empty(len(begins) + len(others) + 2), 2
    corners[0], corners[1] = top, foot
    for k in begins:
        corners[n] = one[k].imag
        n += top < one[k].imag < foot
    for k in others:
        corners[n] = two[k].imag
        n += top < two[k].imag < foot
    corners = np.sort(corners[:n])
    lines, heights, many = np.empty(LINES + n), np.empty(LINES + n), 0
    for i in range(n - 1):
        share = np.ceil((corners[i + 1] - corners[i]) / (foot - top) * LINES)
        height = (corners[i + 1] - corners[i]) / max(share, 1.0)
        for j in range(int(share)):
            lines[many], heights[many] = corners[i] + (j + 0.5) * height, height
            many += 1
    return lines[:many], heights[:many]


@compiled
def _crossings(points, begins, weights, lines):
    """Return where each line's crossings begin among all (lines + 1,), and of these, in order, the x and which way the side goes on."""
    first = np.zeros(len(lines) + 1, np.int64)
    for k in begins:
        low, high = _lines_of(points[k].imag, points[k + 1].imag, lines)
        for line in range(low, high):
            first[line + 1] += 1
    first = np.cumsum(first)
    at, turn, filled = np.empty(first[-1]), np.empty(first[-1]), np.zeros(len(lines), np.int64)
    for j in range(len(begins)):
        a, b = points[begins[j]], points[begins[j] + 1]
        low, high = _lines_of(a.imag, b.imag, lines)
        for line in range(low, high):
            x = a.real + (b.real - a.real) * (lines[line] - a.imag) / (b.imag - a.imag)
            k = first[line] + filled[line]
            filled[line] += 1
            while k > first[line] and at[k - 1] > x:
                at[k], turn[k] = at[k - 1], turn[k - 1]
                k -= 1
            at[k], turn[k] = x, weights[j] if b.imag > a.imag else -weights[j]
    return first, at, turn


@compiled
def _lines_of(a, b, lines):
    """Return from which line, and up to which, those between two heights lie."""
    return np.searchsorted(lines, min(a, b)), np.searchsorted(lines, max(a, b))


@compiled
def _both(at, turn, k, end, their_at, their_turn, j, their_end):
    """Return how much of a line both polygons cover, by its crossings from ``k`` and from ``j`` on."""
    wound, their_wound, last, length = 0.0, 0.0, 0.0, 0.0
    while k < end or j < their_end:
        own = j >= their_end or (k < end and at[k] <= their_at[j])
        x = at[k] if own else their_at[j]
        if wound != 0 and their_wound != 0:
            length += x - last
        if own:
            wound += turn[k]
            k += 1
        else:
            their_wound += their_turn[j]
            j += 1
        last = x
    return length
