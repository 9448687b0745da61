"""How tight a bend a brush can take."""

from __future__ import annotations

from collections.abc import Callable
from functools import lru_cache

import numpy as np
import scipy

from ..artwork.reach import reach_of
from ..values.brush import Brush

HALF_TURNS = np.linspace(0.0, np.pi / 2, 2049)[1:]
HALF_CIRCLE_DEG = 180.0
LEAST_TURN = 1e-9  # radians; chosen: below it two neighbours are as on a straight line
LEAST_SIZE = 1e-6  # chosen: smaller pieces are no cure


def safe_radius(brush: Brush, *, lengths: np.ndarray, gaps: np.ndarray, shift: float, lean: np.ndarray | None = None) -> float | None:
    """Return the smallest radius (mm) at which every join stays within tolerance.

    ``lengths`` and ``gaps`` (m,) mm of the variants at the brush's size, which lie ``shift`` mm beside their track; ``lean`` (m,) is
    by how many mm each reaches further onward than back, none where it is left out. None where pieces do
    not turn with the line, for then its bends decide nothing. A rigid link between joints ℓ
    apart passes a bend of ℓ/2, where it spans the circle, and no tighter one. A bent piece turns
    inside out where its outline reaches the bend's centre. Else two neighbours p apart on a
    circle of radius r stand φ = p/r to each other; with a side shift d their gap is
    2(r ± d)·sin(φ/2) − L·cos(φ/2), the worse side counts, and their step is |a − b|·sin(φ/2) where one reaches a onward and the
    other b back. Every pair counts that may come to lie side by side. Where pieces are to stand apart, only their gap counts.
    """
    if brush.travel.jointed:
        return float(lengths.max()) / 2
    if brush.travel.bent:
        return float(np.abs(np.array(reach_of(brush)) + shift).max())
    if brush.travel.facing != "line" or brush.loose:
        return None
    fixed = (abs(shift), brush.joins.gap_tolerance_mm, HALF_CIRCLE_DEG if brush.apart else brush.joins.kink_tolerance_deg)
    lean = np.zeros(len(lengths)) if lean is None else lean
    onward, back = (lengths + lean) / 2, (lengths - lean) / 2
    first, second = _neighbours(len(lengths), in_turn=brush.variants.order == "in_turn")
    back = back[second]
    ways = [(onward[first], back)]
    if brush.travel.mirror == "every_second":  # one of the two lies the other way round
        ways = [(onward[first], onward[second]), ((lengths - lean)[first] / 2, back)]
    pairs = {(float(a), float(b), float(gap)) for a, b in ways for a, b, gap in zip(a, b, gaps[first], strict=True)}
    if brush.apart:  # a step is none, so they count as reaching as far to both sides
        pairs = {((onward + back) / 2, (onward + back) / 2, gap) for onward, back, gap in pairs}
    return max(_radius_of_pair(*pair, *fixed) for pair in pairs)


def _neighbours(m: int, *, in_turn: bool) -> tuple[np.ndarray, np.ndarray]:
    """Return which of m variants may follow on which (k,) (k,)."""
    if in_turn:
        return np.arange(m), np.roll(np.arange(m), -1)
    return np.repeat(np.arange(m), m), np.tile(np.arange(m), m)


@lru_cache(maxsize=1024)
def _radius_of_pair(onward: float, back: float, gap: float, shift: float, gap_tolerance: float, kink_tolerance_deg: float) -> float:
    """Return the smallest radius for a piece that reaches so far onward and the next, which reaches so far back."""
    length = onward + back
    pitch = length + gap

    def worst(half: np.ndarray) -> np.ndarray:
        radius = pitch / (2 * half)
        straight = np.stack([2 * (radius + side) * np.sin(half) for side in (shift, -shift)])
        return np.maximum(np.abs(straight - length * np.cos(half) - gap).max(axis=0), abs(onward - back) * np.sin(half))

    most = float(np.radians(kink_tolerance_deg)) / 2
    halves = np.append(HALF_TURNS[most > HALF_TURNS], most)
    out = np.flatnonzero(worst(halves) > gap_tolerance)
    if not len(out):
        return pitch / (2 * most)
    high = float(halves[out[0]])
    low = high / 2 if out[0] == 0 else float(halves[out[0] - 1])
    while worst(np.array([low]))[0] > gap_tolerance and low > LEAST_TURN:
        high, low = low, low / 2

    def beyond(half: float) -> float:
        return float(worst(np.array([half]))[0]) - gap_tolerance

    return pitch / (2 * (_root(beyond, low, high, 1e-15) if beyond(low) < 0 < beyond(high) else low))


def size_for_radius(brush: Brush, radius: float, *, lengths: np.ndarray, gaps: np.ndarray, lean: np.ndarray | None = None) -> float:
    """Return the factor on size (≤ 1) at which the safe radius comes down to ``radius`` mm."""

    def beyond(factor: float) -> float:
        shift = brush.travel.side_shift_mm
        leaning = None if lean is None else lean * factor
        needed = safe_radius(brush.at_size(factor), lengths=lengths * factor, gaps=gaps * factor, shift=shift, lean=leaning)
        return -1.0 if needed is None else needed - radius

    if beyond(1.0) <= 0:
        return 1.0
    return _root(beyond, LEAST_SIZE, 1.0, 1e-12) if beyond(LEAST_SIZE) < 0 else 0.0


def _root(of: Callable[[float], float], low: float, high: float, abs_tol: float) -> float:
    """Return where a function that is negative at ``low`` and positive at ``high`` is 0 (Brent's method)."""
    root = scipy.optimize.brentq(of, low, high, xtol=abs_tol)
    return float(root)  # pyright: ignore[reportArgumentType]  # a float unless all is asked for
