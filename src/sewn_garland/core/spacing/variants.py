"""Which variant comes next: in turn, shuffled, by chance, never the same twice."""

from __future__ import annotations

from dataclasses import replace

import numpy as np

from ..maths.streams import uniforms
from ..values.brush import Variants
from ..values.pieces import REPEAT, Stops
from ..values.tracks import Tracks


def dealt(stops: Stops, variants: Variants, count: int, tracks: Tracks) -> Stops:
    """Return stops with the variant of every repeat as the order says; ``count`` is how many variants there are.

    What is drawn goes by the number that a line is known by, by the row and by the number of the repeat in it.
    """
    if variants.order == "in_turn" or count == 1 or not len(stops.s):
        return stops
    repeats = np.flatnonzero(stops.role == REPEAT)
    track = tracks.of(stops)[repeats]
    many = np.bincount(track, minlength=len(tracks.measured)).tolist()
    drawn = [
        variant_sequence(variants, count, tracks.keys[i // tracks.rows], i % tracks.rows, n, closed=tracks.measured[i].line.closed)
        for i, n in enumerate(many)
    ]
    variant, motif = stops.variant.copy(), stops.motif.copy()
    variant[repeats] = motif[repeats] = np.concatenate(drawn)
    return replace(stops, variant=variant, motif=motif)


def variant_sequence(variants: Variants, m: int, line: int, row: int, count: int, *, closed: bool = False) -> np.ndarray:
    """Return the variant, of m, of each of the first ``count`` repeats of a line's row (count,).

    Drawn by their number from the arrangement's own stream for this line and row, so drawing on leaves
    earlier ones as they are: ``shuffled`` lays every variant once before any comes again, ``chance``
    draws by weight, ``no_twin`` by weight among those that differ from the one before, and the last of a ``closed`` line
    from the first as well, as far as there are so many.
    """
    if m == 1 or variants.order == "in_turn":
        return np.arange(count) % m
    name = f"{line} variant" if row == 0 else f"{line} row {row} variant"
    if variants.order == "shuffled":
        blocks = -(-count // m)
        keys = uniforms(variants.arrangement, name, blocks * m).reshape(blocks, m)
        return np.argsort(keys, axis=1, kind="stable").ravel()[:count]
    weights = np.ones(m) if variants.weights is None else np.array(variants.weights, float)
    draw = uniforms(variants.arrangement, name, count)
    edges = np.cumsum(weights) / weights.sum()
    free = np.minimum(np.searchsorted(edges, draw, side="right"), m - 1)
    if variants.order == "chance":
        return free
    drawn = _without_twins(weights, draw, free)
    if closed and count > 2 and m > 2 and drawn[-1] == drawn[0]:
        others = np.where(np.isin(np.arange(m), drawn[[0, -2]]), 0.0, weights)
        drawn[-1] = np.searchsorted(np.cumsum(others) / others.sum(), draw[-1], side="right")
    return drawn


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
