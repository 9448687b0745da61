"""How tight a bend a brush can take."""

from __future__ import annotations

from dataclasses import replace
from functools import lru_cache

import numpy as np

from ..maths.bounds import outline_box, stroke_box
from ..values.brush import Brush
from ..values.motif import Motif

HALF_TURNS = np.linspace(0.0, np.pi / 2, 2049)[1:]


def safe_radius(brush: Brush, *, lengths: np.ndarray, gaps: np.ndarray) -> float | None:
    """Return the smallest radius (mm) at which every join stays within tolerance.

    ``lengths`` and ``gaps`` (m,) mm of the variants at the brush's size. None where pieces do
    not turn with the line, for then its bends decide nothing. A rigid link between joints ℓ
    apart passes a bend of ℓ/2, where it spans the circle, and no tighter one. A bent piece turns
    inside out where its outline reaches the bend's centre. Else two neighbours p apart on a
    circle of radius r stand φ = p/r to each other; with a side shift d their gap is
    2(r ± d)·sin(φ/2) − L·cos(φ/2), the worse side counts.
    """
    if brush.jointed:
        return float(lengths.max()) / 2
    if brush.bent:
        return float(np.abs(reach_across(brush)).max())
    if brush.facing != "line":
        return None
    after = np.roll(lengths, -1)
    mean_length = (lengths + after) / 2
    fixed = (abs(brush.side_shift), brush.gap_tolerance, brush.kink_tolerance_deg)
    return max(_radius_of_pair(float(length), float(gap), *fixed) for length, gap in zip(mean_length, gaps, strict=True))


@lru_cache(maxsize=256)
def reach_across(brush: Brush) -> tuple[float, float]:
    """Return how far outlines reach across the line as laid: mm to its left (negative) and to its right.

    Corner pieces are not bent, so theirs do not count.
    """
    turn = np.radians(brush.turn_deg)
    flips = {"up_down": (1.0, -1.0), "left_right": (-1.0, 1.0)}.get(brush.mirror, (1.0, 1.0))
    across = []
    for motif, role in zip(brush.motifs, brush.roles, strict=True):
        if role.endswith("corner"):
            continue
        left, top, right, foot = _ink_box(motif)
        corners = np.array([[x - motif.width / 2, y - motif.base_line] for x in (left, right) for y in (top, foot)]) * flips
        ways = [corners, corners * (-1.0, 1.0)] if brush.mirror == "every_second" else [corners]
        across += [np.sin(turn) * way[:, 0] + np.cos(turn) * way[:, 1] for way in ways]
    reach = np.concatenate(across) * brush.size + brush.side_shift
    return float(reach.min()), float(reach.max())


@lru_cache(maxsize=1024)
def _ink_box(motif: Motif) -> tuple[float, float, float, float]:
    """Return the box (left, top, right, bottom) of a motif's outlines and strokes, its frame where it has none."""
    if not motif.shapes:
        return 0.0, 0.0, motif.width, motif.height
    boxes = [outline_box(s.commands, s.points) for s in motif.shapes]
    boxes += [stroke_box(s.commands, s.points, width=s.stroke.width, cap=s.stroke.cap, join=s.stroke.join, miter_limit=s.stroke.miter_limit)
              for s in motif.shapes if s.stroke]  # fmt: skip
    edges = np.array([box for box in boxes if box is not None])
    return (*edges[:, :2].min(axis=0).tolist(), *edges[:, 2:].max(axis=0).tolist())


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
        smaller = replace(brush, size=brush.size * middle)
        needed = safe_radius(smaller, lengths=lengths * middle, gaps=gaps * middle)
        if needed is None or needed <= radius:
            low = middle
        else:
            high = middle
    return low
