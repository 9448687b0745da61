"""Which variant comes next: in turn, shuffled, by chance, never the same twice."""

from __future__ import annotations

import numpy as np

from ..maths.streams import uniforms
from ..values.brush import Brush


def variant_sequence(brush: Brush, line: int, count: int) -> np.ndarray:
    """Return the variant of each of a line's first ``count`` repeat pieces (count,).

    Drawn by piece number from the arrangement's own stream for this line, so drawing on leaves
    earlier ones as they are: ``shuffled`` lays every variant once before any comes again, ``chance``
    draws by weight, ``no_twin`` by weight among those that differ from the one before.
    """
    m = len(brush.repeat)
    number = np.arange(count)
    if m == 1 or brush.order == "in_turn":
        return number % m
    if brush.order == "shuffled":
        blocks = -(-count // m)
        keys = uniforms(brush.arrangement, f"{line} variant", blocks * m).reshape(blocks, m)
        return np.argsort(keys, axis=1, kind="stable").ravel()[:count]
    weights = np.ones(m) if brush.weights is None else np.array(brush.weights, float)
    draw = uniforms(brush.arrangement, f"{line} variant", count)
    edges = np.cumsum(weights) / weights.sum()
    free = np.minimum(np.searchsorted(edges, draw, side="right"), m - 1)
    return free if brush.order == "chance" else _without_twins(weights, draw, free)


def _without_twins(weights: np.ndarray, draw: np.ndarray, free: np.ndarray) -> np.ndarray:
    """Draw each from others than the one before: as maps of what came before, composed by doubling."""
    m, n = len(weights), len(draw)
    maps = np.empty((n, m), int)
    for last in range(m):
        others = np.where(np.arange(m) == last, 0.0, weights)
        total = others.sum()
        edges = np.cumsum(others) / total if total > 0 else np.arange(1, m + 1) / m
        pick = np.minimum(np.searchsorted(edges, draw, side="right"), m - 1)
        maps[:, last] = np.where(pick == last, (last + 1) % m, pick)
    if n:
        maps[0] = free[0]
    reach = 1
    while reach < n:  # a prefix of compositions: each map after all before it
        maps[reach:] = np.take_along_axis(maps[reach:], maps[:-reach], axis=1)
        reach *= 2
    return maps[:, 0]
