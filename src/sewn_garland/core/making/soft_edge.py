"""Soft edges in graded steps between nested shapes."""

from __future__ import annotations

import itertools
from dataclasses import dataclass, replace

import numpy as np

from ..errors import InputError
from ..maths.booleans import combined
from ..maths.colour import delta_e_2000, hex_from_rgb, lab_from_srgb, over_white, rgb_from_hex
from ..maths.fitting import fitted
from ..maths.outlines import Outline, flattened, subpaths
from ..values.motif import Paint, Shape

MOST_STEPS = 200
LEAST_STEP_MM = 0.04  # chosen: finer steps cannot be told apart at reading distance
SAMPLES = 96
TRIES = (1, 2, 3, 4, 6, 8, 10, 12, 16, 20, 25, 32, 40, 50, 64, 80, 100, 128, 160)


@dataclass(frozen=True)
class Grading:
    """The shapes between, from the outside in, how many between each pair, and how far neighbours differ (the largest ΔE2000)."""

    shapes: tuple[Shape, ...]
    counts: tuple[int, ...]
    largest_difference: float
    points: int
    own_covers: tuple[float, ...]

    @property
    def steps(self) -> int:
        """The most shapes between two neighbours."""
        return max(self.counts, default=0)


def graded(shapes: list[Shape], *, steps: int | None) -> Grading:
    """Return the steps between two or more nested filled shapes given from the outside in.

    ``steps`` counts the shapes between each neighbouring pair; None takes the fewest that cannot
    be seen: neighbours differ by ΔE2000 of at most 1, on white and on black. The inner shape may
    lie anywhere inside. A shape's opacity is what is wanted to be seen there. Opacities add up as the
    shapes lie over one another, so each step carries only what brings the stack to the wanted
    value, and ``own_covers`` says what the given shapes must carry for that.
    """
    if len(shapes) < 2:
        raise InputError("a soft edge needs two nested shapes; draw or duplicate one inside the other")
    if any(s.fill is None or s.picture is not None for s in shapes):
        raise InputError("a soft edge runs between filled shapes; give each a fill")
    if steps is not None and not 1 <= steps <= MOST_STEPS:
        raise InputError(f"steps must be from 1 to {MOST_STEPS}")
    covers = [s.fill.opacity for s in shapes]
    if any(b < a - 1e-9 for a, b in itertools.pairwise(covers)):
        raise InputError("covers must rise toward the inside, for steps can only add; let the inner shape cover at least as much")
    out: list[Shape] = []
    largest, counts, own_covers = 0.0, [], [covers[0]]
    for outer, inner in itertools.pairwise(shapes):
        count = _fewest(outer, inner) if steps is None else steps
        made, difference = _between(outer, inner, count)
        out += made
        own_covers.append(_added(*_ladder(outer, inner, count)[2][-2:]))
        counts.append(count)
        largest = max(largest, difference)
    return Grading(tuple(out), tuple(counts), largest, sum(len(s.commands) - s.commands.count("Z") for s in out), tuple(own_covers))


def _wanted(shape: Shape) -> tuple[np.ndarray, float]:
    return rgb_from_hex(shape.fill.colour), shape.fill.opacity


def _ladder(outer: Shape, inner: Shape, count: int) -> tuple[np.ndarray, np.ndarray, np.ndarray]:
    """Return t (count + 2,), premultiplied colour and coverage of the whole stack at each step, ends included."""
    t = np.linspace(0, 1, count + 2)
    (c0, a0), (c1, a1) = _wanted(outer), _wanted(inner)
    return t, c0 * a0 + (c1 * a1 - c0 * a0) * t[:, None], a0 + (a1 - a0) * t


def _difference(premultiplied: np.ndarray, alpha: np.ndarray) -> float:
    """Return the largest ΔE2000 between neighbours as they are shown, in 8 bits, on white and on black."""
    colour = premultiplied / np.maximum(alpha, 1e-9)[:, None]
    shown = [np.round(np.clip(seen, 0, 1) * 255) / 255 for seen in (over_white(colour, alpha), premultiplied)]
    return float(max(delta_e_2000(lab[:-1], lab[1:]).max() for lab in map(lab_from_srgb, shown)))


def _fewest(outer: Shape, inner: Shape) -> int:
    """Return the least count whose steps cannot be seen, else the one that shows least; none are finer than the eye parts.

    See-through steps that each add less than a level of 8 bits come to nothing when they are
    drawn and take the hue away, so more of them can show more than fewer.
    """
    most = int(np.clip(_room(outer, inner) / LEAST_STEP_MM, 1, MOST_STEPS))
    tries = [n for n in TRIES if n < most] + [most]
    shown = [_shows(outer, inner, n) for n in tries]
    unseen = next((i for i, amount in enumerate(shown) if amount <= 1.0), None)
    if unseen is None:
        return tries[int(np.argmin(shown))]
    after = tries[unseen - 1] if unseen else 0
    return next(n for n in range(after + 1, tries[unseen] + 1) if _shows(outer, inner, n) <= 1.0)


def _shows(outer: Shape, inner: Shape, count: int) -> float:
    """Return how much so many steps show (ΔE2000): between neighbours, or as drift when drawn in 8 bits, on white and on black."""
    _, whole, alpha = _ladder(outer, inner, count)
    own = np.array([alpha[0], *(_added(a, b) for a, b in itertools.pairwise(alpha))])
    below = np.vstack([np.zeros(3), whole[:-1]])
    colour = np.clip((whole - below * (1 - own)[:, None]) / np.maximum(own, 1e-9)[:, None], 0, 1)
    drawn = np.array([[255.0] * 3, [0.0] * 3])
    drift = 0.0
    for k in range(len(own)):
        drawn = np.round(drawn * (1 - own[k]) + 255 * colour[k] * own[k])
        ideal = np.array([over_white(whole[k] / max(alpha[k], 1e-9), alpha[k]), whole[k]])
        if k in (len(own) // 3, 2 * len(own) // 3, len(own) - 1):
            drift = max(drift, float(delta_e_2000(lab_from_srgb(drawn / 255), lab_from_srgb(np.clip(ideal, 0, 1))).max()))
    return max(_difference(whole, alpha), drift)


def _room(outer: Shape, inner: Shape) -> float:
    """Return the greatest distance that a point of the rim travels inward."""
    a, b = _matched(outer, inner)
    return float(np.hypot(*(b - a).T).max())


def _between(outer: Shape, inner: Shape, count: int) -> tuple[list[Shape], float]:
    t, whole, alpha = _ladder(outer, inner, count)
    out = []
    for i, outline in enumerate(_morphed(outer, inner, t[1:-1]), start=1):
        own = _added(alpha[i - 1], alpha[i])
        colour = (whole[i] - whole[i - 1] * (1 - own)) / max(own, 1e-9)
        fill = Paint(hex_from_rgb(colour), round(own, 5))
        commands, points = outline
        out.append(replace(outer, commands=commands, points=points, fill=fill, stroke=None, fill_rule="nonzero", name="Step", derived=True))
    return out, _difference(whole, alpha)


def _added(below: float, wanted: float) -> float:
    """Return the opacity that brings what already covers ``below`` to ``wanted``."""
    return 1.0 if wanted >= 1 else float(1 - (1 - wanted) / (1 - below))


def _matched(outer: Shape, inner: Shape) -> tuple[np.ndarray, np.ndarray]:
    """Return as many points on both rims, paired so that they travel least."""
    a, b = (_ring(s) for s in (outer, inner))
    centred = b - b.mean(axis=0) + a.mean(axis=0)
    shift = min(range(SAMPLES), key=lambda k: float(((np.roll(centred, -k, axis=0) - a) ** 2).sum()))
    return a, np.roll(b, -shift, axis=0)


def _ring(shape: Shape) -> np.ndarray:
    """Return points at equal distances along a shape's outer rim, clockwise on screen."""
    commands, points = combined([(shape.commands, shape.points, shape.fill_rule)], "join")
    lines = flattened(commands, points, tolerance=0.005)
    if not lines:
        raise InputError("a soft edge runs between filled shapes; one of these covers nothing")
    line = max(lines, key=lambda p: abs(_area(p)))
    line = line if _area(line) > 0 else line[::-1]
    ring = np.vstack([line, line[:1]])
    s = np.concatenate([[0.0], np.cumsum(np.hypot(*np.diff(ring, axis=0).T))])
    at = np.linspace(0, s[-1], SAMPLES, endpoint=False)
    return np.stack([np.interp(at, s, ring[:, d]) for d in (0, 1)], axis=1)


def _area(line: np.ndarray) -> float:
    x, y = line.T
    return float((x * np.roll(y, -1) - y * np.roll(x, -1)).sum()) / 2


def _morphed(outer: Shape, inner: Shape, t: np.ndarray) -> list[Outline]:
    """Return the outlines at shares t of the way inward; outlines built alike keep their points."""
    if outer.commands == inner.commands and len(list(subpaths(outer.commands, outer.points))) == 1:
        return [(outer.commands, outer.points + (inner.points - outer.points) * share) for share in t]
    a, b = _matched(outer, inner)
    tolerance = max(0.003, float(np.ptp(a, axis=0).max()) / 1500)
    return [fitted(a + (b - a) * share, tolerance=tolerance, closed=True, corner_from=np.radians(40)) for share in t]
