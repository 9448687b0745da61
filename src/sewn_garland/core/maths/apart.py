"""Very many pairs of polygons, by their rings: how far they stand apart."""

from __future__ import annotations

from typing import NamedTuple

import numpy as np

from .compiled import compiled, for_compiled
from .ragged import heads
from .ragged import places as places_of

TIED = 1e-12  # share of a square: what is nearer by less is not looked for, as along strokes side by side


class Runs(NamedTuple):
    """The sides of a polygon's rings in runs of about as many sides as there are runs: from and up to which points (k,) each goes."""

    first: np.ndarray
    last: np.ndarray


def runs_of(counts: np.ndarray) -> Runs:
    """Return the runs of rings of so many points (r,) each, the first one also the last, which lie behind one another."""
    most = max(1, round(np.sqrt(counts.sum())))
    runs = np.maximum(-(-(counts - 1) // most), 0)
    first = np.repeat(heads(counts), runs) + most * places_of(runs)
    return Runs(first, np.minimum(first + most, np.repeat(np.cumsum(counts) - 1, runs)))


def apart(one: np.ndarray, runs: Runs, two: np.ndarray, others: Runs) -> np.ndarray:
    """Return how far polygons ``one`` (p, m) stand from polygons ``two`` (p, n), complex, with ``runs`` and ``others``: 0 where they meet
    or one lies within the other. They have the same rings each, none of them empty; a hole is a ring like others.

    Of two that stand apart that is the least distance of two sides. Of runs whose boxes are further apart than that no sides are looked
    at; boxes stand along the way in which both polygons are long. Those that cross themselves lie where a way out crosses them an odd
    number of times.
    """
    own, their = (for_compiled(np.column_stack(each), int) for each in (runs, others))
    return _apart(for_compiled(one, complex), own, for_compiled(two, complex), their)


@compiled
def _apart(one, runs, two, others):
    out, boxes, their_boxes = np.empty(len(one)), np.empty((_boxes(len(runs)), 4)), np.empty((_boxes(len(others)), 4))
    along, their_along = np.empty(one.shape[1], np.complex128), np.empty(two.shape[1], np.complex128)
    for i in range(len(one)):
        way = np.sqrt(_spread(one, i) + _spread(two, i))
        _put_along(one, i, one[i, 0], way, along)
        _put_along(two, i, one[i, 0], way, their_along)
        _put_boxes(along, runs, boxes)
        _put_boxes(their_along, others, their_boxes)
        square = _least_square(one, along, runs, boxes, two, their_along, others, their_boxes, i)
        if square > 0 and (_lies_in(along, runs, their_along, others, their_boxes) or _lies_in(their_along, others, along, runs, boxes)):
            square = 0.0
        out[i] = np.sqrt(square)
    return out


@compiled
def _spread(points, i):
    """Return the sum of the squares of points as they lie from their middle: its root points along them, if they are long."""
    count, about, x, y, real, imag = points.shape[1], points[i, 0], 0.0, 0.0, 0.0, 0.0
    for j in range(count):
        p, q = points[i, j].real - about.real, points[i, j].imag - about.imag
        x, y, real, imag = x + p, y + q, real + (p * p - q * q), imag + p * q
    return complex(real - (x * x - y * y) / count, 2 * (imag - x * y / count))


@compiled
def _put_along(points, i, about, way, along):
    """Put points as they lie from somewhere, with a way to the right; as they are if it leads nowhere."""
    length = np.hypot(way.real, way.imag)
    cos, sin = (way.real / length, way.imag / length) if length > 0 else (1.0, 0.0)
    for j in range(points.shape[1]):
        x, y = points[i, j].real - about.real, points[i, j].imag - about.imag
        along[j] = complex(cos * x + sin * y, cos * y - sin * x)


@compiled
def _group(runs):
    """Return how many of so many runs are a group: about as many as there are groups."""
    return max(1, int(np.ceil(np.sqrt(runs))))


@compiled
def _boxes(runs):
    """Return how many boxes there are about so many runs and their groups."""
    return runs + (runs + _group(runs) - 1) // _group(runs)


@compiled
def _put_boxes(points, runs, boxes):
    """Put the boxes about runs, and behind them those about groups of these."""
    count, size = len(runs), _group(len(runs))
    for k in range(count):
        left = right = points[runs[k, 0]].real
        top = bottom = points[runs[k, 0]].imag
        for j in range(runs[k, 0] + 1, runs[k, 1] + 1):
            x, y = points[j].real, points[j].imag
            left, right, top, bottom = min(left, x), max(right, x), min(top, y), max(bottom, y)
        boxes[k, 0], boxes[k, 1], boxes[k, 2], boxes[k, 3] = left, right, top, bottom
        g = count + k // size
        if k % size == 0:
            boxes[g, 0], boxes[g, 1], boxes[g, 2], boxes[g, 3] = left, right, top, bottom
        else:
            boxes[g, 0], boxes[g, 1] = min(boxes[g, 0], left), max(boxes[g, 1], right)
            boxes[g, 2], boxes[g, 3] = min(boxes[g, 2], top), max(boxes[g, 3], bottom)


@compiled
def _between_boxes(boxes, k, others, j):
    """Return the square of how far two boxes stand apart."""
    x = max(max(boxes[k, 0] - others[j, 1], others[j, 0] - boxes[k, 1]), 0.0)
    y = max(max(boxes[k, 2] - others[j, 3], others[j, 2] - boxes[k, 3]), 0.0)
    return x * x + y * y


@compiled
def _least_square(one, along, runs, boxes, two, their_along, others, their_boxes, i):
    """Return the square of the least distance of two sides; those whose boxes are nearest are looked at first."""
    own, their, k0, j0, least = _group(len(runs)), _group(len(others)), 0, 0, np.inf
    for closely in (False, True):  # at boxes alone, to begin near, and at what is in them
        if closely:
            least = _of_runs(one, along, runs, k0, two, their_along, others, j0, their_boxes, i, np.inf)
        for g in range(len(boxes) - len(runs)):
            for h in range(len(their_boxes) - len(others)):
                if _between_boxes(boxes, len(runs) + g, their_boxes, len(others) + h) >= least:
                    continue
                for k in range(g * own, min((g + 1) * own, len(runs))):
                    if _between_boxes(boxes, k, their_boxes, len(others) + h) >= least:
                        continue
                    for j in range(h * their, min((h + 1) * their, len(others))):
                        square = _between_boxes(boxes, k, their_boxes, j)
                        if square < least * (1 - TIED) and closely:
                            least = _of_runs(one, along, runs, k, two, their_along, others, j, their_boxes, i, least)
                        elif square < least:
                            least, k0, j0 = square, k, j
    return least


@compiled
def _of_runs(one, along, runs, k, two, their_along, others, j, boxes, i, least):
    """Return the square of the least distance of a side of one run from one of another, ``least`` if none is nearer."""
    for m in range(runs[k, 0], runs[k, 1]):
        a, b = along[m], along[m + 1]
        left, right, top, bottom = min(a.real, b.real), max(a.real, b.real), min(a.imag, b.imag), max(a.imag, b.imag)
        x = max(max(left - boxes[j, 1], boxes[j, 0] - right), 0.0)
        y = max(max(top - boxes[j, 3], boxes[j, 2] - bottom), 0.0)
        if x * x + y * y >= least * (1 - TIED):
            continue
        for n in range(others[j, 0], others[j, 1]):
            c, d = their_along[n], their_along[n + 1]
            x = max(max(left - max(c.real, d.real), min(c.real, d.real) - right), 0.0)
            y = max(max(top - max(c.imag, d.imag), min(c.imag, d.imag) - bottom), 0.0)
            if x * x + y * y < least * (1 - TIED):
                least = min(least, _of_sides(one[i, m], one[i, m + 1], two[i, n], two[i, n + 1]))
    return least


@compiled
def _of_sides(a, b, c, d):
    """Return the square of how far two sides stand apart, 0 where they cross."""
    if _turn(a, b, c) * _turn(a, b, d) < 0 and _turn(c, d, a) * _turn(c, d, b) < 0:
        return 0.0
    return min(min(_off(a, c, d), _off(b, c, d)), min(_off(c, a, b), _off(d, a, b)))


@compiled
def _turn(a, b, c):
    """Return the z of (b − a) × (c − a)."""
    return (b.real - a.real) * (c.imag - a.imag) - (b.imag - a.imag) * (c.real - a.real)


@compiled
def _off(z, a, b):
    """Return the square of how far a point lies from a side."""
    x, y, p, q = b.real - a.real, b.imag - a.imag, z.real - a.real, z.imag - a.imag
    length = x * x + y * y
    t = min(max((p * x + q * y) / length, 0.0), 1.0) if length > 0 else 0.0
    return (p - t * x) ** 2 + (q - t * y) ** 2


@compiled
def _lies_in(one, runs, two, others, their_boxes):
    """Tell whether some ring of one polygon, none of whose sides cross the other's, lies in that."""
    size, groups = _group(len(others)), their_boxes[len(others) :]
    left, right, top, bottom = groups[:, 0].min(), groups[:, 1].max(), groups[:, 2].min(), groups[:, 3].max()
    for k in range(len(runs)):
        z, inside = one[runs[k, 0]], False
        if not (left <= z.real <= right and top <= z.imag <= bottom) or (k > 0 and runs[k, 0] == runs[k - 1, 1]):
            continue  # beside all, or of a ring that was looked at
        for h in range(len(groups)):
            if not _is_above(z, groups, h):
                continue
            for j in range(h * size, min((h + 1) * size, len(others))):
                if not _is_above(z, their_boxes, j):
                    continue
                for m in range(others[j, 0], others[j, 1]):
                    a, b = two[m], two[m + 1]
                    if (a.real > z.real) != (b.real > z.real) and (_turn(a, b, z) < 0) == (b.real > a.real):
                        inside = not inside
        if inside:
            return True
    return False


@compiled
def _is_above(z, boxes, k):
    """Tell whether the way down from a point, across that in which polygons are long, may come to a box."""
    return z.imag <= boxes[k, 3] and boxes[k, 0] <= z.real <= boxes[k, 1]
