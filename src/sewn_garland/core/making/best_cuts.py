"""Find where a drawing is best cut for the repeat."""

from __future__ import annotations

from dataclasses import dataclass
from functools import lru_cache, partial

import numpy as np

from ..artwork.box import box_of
from ..artwork.sections import JUST_INSIDE_MM, Layer, Seam, columns_of, layers_of, seam_between, section_at
from ..errors import InputError
from ..values.motif import Motif

LEAST_GAIN = 1e-6  # mm of mismatch that a move must save; chosen: along an even drawing every place is as good, but for its last bits


@dataclass(frozen=True)
class FoundCut:
    """Two cuts in mm and the seam they leave."""

    left: float
    right: float
    seam: Seam


def best_cut(motif: Motif, *, least_share: float = 0.35, length: float | None = None) -> FoundCut:
    """Find the two cuts whose seam shows least, keeping at least ``least_share`` of the drawing's length, or about ``length`` mm.

    Upright sections at many places are compared all with all, each with its neighbours so that
    slopes count too; the best few pairs are then measured exactly and refined.
    """
    left, _, right, _ = box_of(motif.shapes)
    left, right = max(left, 0.0), min(right, motif.width)
    count = int(np.clip((right - left) / 0.1, 60, 320))
    xs = np.linspace(left + JUST_INSIDE_MM, right - JUST_INSIDE_MM, count)
    layers = layers_of(motif)
    shortest = 2 if length is not None else max(2, int(least_share * count))
    cost = pair_costs(columns_of(layers, motif.height, xs, 128).reshape(count, -1), least=shortest)
    best: FoundCut | None = None
    step = xs[1] - xs[0]
    least = least_share * (right - left)
    if length is not None:
        apart = np.subtract.outer(xs, xs).T  # how far j lies after i
        cost[np.abs(apart - length) > 2 * step] = np.inf
        least = length - 2 * step
    for i, j in _least_pairs(cost, 4):
        found = _refined(layers, float(xs[i]), float(xs[j]), step, (left, right), least)
        if best is None or _badness(found) < _badness(best) - 1e-9:
            best = found
    if best is None:
        raise InputError("the drawing is too short to be cut; take a longer one")
    return best


def _least_pairs(cost: np.ndarray, count: int) -> list[tuple[int, int]]:
    """Return the cheapest pairs, none of them next to another."""
    out: list[tuple[int, int]] = []
    for flat in np.argsort(cost, axis=None)[: 40 * count]:
        i, j = (int(v) for v in np.unravel_index(flat, cost.shape))
        if np.isfinite(cost[i, j]) and all(max(abs(i - a), abs(j - b)) > 3 for a, b in out):
            out.append((i, j))
        if len(out) == count:
            break
    return out


def _badness(found: FoundCut) -> float:
    """Weigh a seam: a mm of mismatch as much as 30° or 15 ΔE; of equal seams the longer repeat."""
    s = found.seam
    return s.mismatch_mm + s.slope_deg / 30 + s.delta_e / 15 - 1e-4 * (found.right - found.left)


def _refined(layers: list[Layer], a: float, b: float, step: float, ends: tuple[float, float], least: float) -> FoundCut:
    section = lru_cache(maxsize=64)(partial(section_at, layers))  # moves of one cut meet the same places of the other

    def tried(x1: float, x2: float) -> FoundCut:
        x1, x2 = max(x1, ends[0]), min(x2, ends[1])
        if x2 - x1 < least:
            return FoundCut(x1, x2, Seam(np.inf, 0.0, 0.0))
        inside = JUST_INSIDE_MM
        return FoundCut(x1, x2, seam_between(section(x1 + inside), section(x2 - inside)))

    best = tried(a, b)
    while step > 0.004:
        moves = [tried(best.left + i * step, best.right + j * step) for i in (-1, 0, 1) for j in (-1, 0, 1) if i or j]
        better = min(moves, key=_badness)
        if _badness(better) < _badness(best) - LEAST_GAIN:
            best = better
        else:
            step /= 2
    return best


def pair_costs(columns: np.ndarray, *, least: int, reach: int = 2) -> np.ndarray:
    """Return how badly column i meets column j (n, n), for j at least ``least`` after i; infinite elsewhere.

    Squared distances of all pairs at once (|a|² + |b|² − 2ab), summed with those of the neighbours
    up to ``reach`` columns to both sides, so that what runs on must match as well.
    """
    columns = np.asarray(columns, np.float32)
    n = len(columns)
    square = (columns * columns).sum(axis=1)
    apart = np.maximum(square[:, None] + square[None] - 2 * (columns @ columns.T), 0)
    total, weight = np.zeros_like(apart), np.zeros_like(apart)
    for d in range(-reach, reach + 1):
        a, b = slice(max(0, d), n + min(0, d)), slice(max(0, -d), n + min(0, -d))
        total[b, b] += apart[a, a]
        weight[b, b] += 1
    total /= weight
    i, j = np.indices(total.shape, sparse=True)
    total[j - i < least] = np.inf
    return total + np.float32(1e-4) * (1 - (j - i) / n) * columns.shape[1]
