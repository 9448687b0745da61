"""How tight a bend a brush can take."""

from __future__ import annotations

from functools import lru_cache

import numpy as np

from ..values.brush import Brush

HALF_TURNS = np.linspace(0.0, np.pi / 2, 2049)[1:]


def safe_radius(brush: Brush, *, lengths: np.ndarray, gaps: np.ndarray) -> float | None:
    """Return the smallest radius (mm) at which every join stays within tolerance.

    ``lengths`` and ``gaps`` (m,) mm of the variants at the brush's size. None where pieces do
    not turn with the line, for then its bends decide nothing. A rigid link between joints ℓ
    apart passes a bend of ℓ/2, where it spans the circle, and no tighter one. Else two neighbours p apart on a
    circle of radius r stand φ = p/r to each other; with a side shift d their gap is
    2(r ± d)·sin(φ/2) − L·cos(φ/2), the worse side counts.
    """
    if brush.jointed:
        return float(lengths.max()) / 2
    if brush.facing != "line":
        return None
    after = np.roll(lengths, -1)
    mean_length = (lengths + after) / 2
    fixed = (abs(brush.side_shift), brush.gap_tolerance, brush.kink_tolerance_deg)
    return max(_radius_of_pair(float(length), float(gap), *fixed) for length, gap in zip(mean_length, gaps, strict=True))


@lru_cache(maxsize=1024)
def _radius_of_pair(length: float, gap: float, shift: float, gap_tolerance: float, kink_tolerance_deg: float) -> float:
    pitch = length + gap

    def worst(half: np.ndarray) -> np.ndarray:
        radius = pitch / (2 * half)
        straight = np.stack([2 * (radius + side) * np.sin(half) for side in (shift, -shift)])
        return np.abs(straight - length * np.cos(half) - gap).max(axis=0)

    most = float(np.radians(kink_tolerance_deg)) / 2
    halves = np.append(HALF_TURNS[most > HALF_TURNS], most)
    out = np.flatnonzero(worst(halves) > gap_tolerance)
    if not len(out):
        return pitch / (2 * most)
    high = float(halves[out[0]])
    low = high / 2 if out[0] == 0 else float(halves[out[0] - 1])
    while worst(np.array([low]))[0] > gap_tolerance and low > 1e-9:
        high, low = low, low / 2
    for _ in range(60):
        middle = (low + high) / 2
        if worst(np.array([middle]))[0] > gap_tolerance:
            high = middle
        else:
            low = middle
    return pitch / (2 * low)


def size_for_radius(brush: Brush, radius: float, *, lengths: np.ndarray, gaps: np.ndarray) -> float:
    """Return the factor on size (≤ 1) at which the safe radius comes down to ``radius`` mm."""
    low, high = 0.0, 1.0
    for _ in range(40):
        middle = (low + high) / 2
        needed = safe_radius(brush, lengths=lengths * middle, gaps=gaps * middle)
        if needed is None or needed <= radius:
            low = middle
        else:
            high = middle
    return low
