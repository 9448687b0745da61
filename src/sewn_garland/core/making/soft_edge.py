"""Soft edges in graded steps between nested shapes."""

from __future__ import annotations

import itertools
from dataclasses import dataclass, replace
from functools import lru_cache

import numpy as np

from ..errors import InputError
from ..maths.booleans import combined
from ..maths.colour import delta_e_2000, hex_from_rgb, lab_from_srgb, rgb_from_hex
from ..maths.fitting import fitted
from ..maths.outlines import Outline, flattened, subpaths
from ..values.motif import Paint, Shape, fill_of

MOST_STEPS = 200
LEAST_STEP_MM = 0.04  # chosen: finer steps cannot be told apart at reading distance
SAMPLES = 96
MISS_PER_STEP = 1.5  # chosen: a colour that is off shows less than a step of the same ΔE2000
LIGHT_FROM = 60.0  # CIE L, chosen: lighter colours stand out from black


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
    be seen: neighbours differ by ΔE2000 of at most 1 as drawn in 8 bits on the ground that the
    colour stands out from. The inner shape may lie anywhere inside. A shape's opacity is what is
    wanted to be seen there. Opacities add up as the shapes lie over one another, so each step
    carries only what brings the stack to the wanted value, and ``own_covers`` says what the given
    shapes must carry for that.
    """
    if len(shapes) < 2:
        raise InputError("a soft edge needs two nested shapes; draw or duplicate one inside the other")
    if any(s.fill is None or s.picture is not None for s in shapes):
        raise InputError("a soft edge runs between filled shapes; give each a fill")
    if steps is not None and not 1 <= steps <= MOST_STEPS:
        raise InputError(f"steps must be from 1 to {MOST_STEPS}")
    covers = [fill_of(s).opacity for s in shapes]
    if any(b < a - 1e-9 for a, b in itertools.pairwise(covers)):
        raise InputError("covers must rise toward the inside, for steps can only add; let the inner shape cover at least as much")
    out: list[Shape] = []
    largest, counts, own_covers = 0.0, [], [covers[0]]
    for outer, inner in itertools.pairwise(shapes):
        count = _fewest(outer, inner) if steps is None else steps
        made, own_cover, difference = _between(outer, inner, count)
        out += made
        own_covers.append(own_cover)
        counts.append(count)
        largest = max(largest, difference)
    return Grading(tuple(out), tuple(counts), largest, sum(len(s.commands) - s.commands.count("Z") for s in out), tuple(own_covers))


def _ladder(outer: Paint, inner: Paint, count: int) -> tuple[np.ndarray, np.ndarray, np.ndarray]:
    """Return t (count + 2,), premultiplied colour and coverage of the whole stack at each step, ends included."""
    t = np.linspace(0, 1, count + 2)
    (c0, a0), (c1, a1) = ((rgb_from_hex(p.colour), p.opacity) for p in (outer, inner))
    return t, c0 * a0 + (c1 * a1 - c0 * a0) * t[:, None], a0 + (a1 - a0) * t


def _difference(seen: np.ndarray, others: np.ndarray | None = None) -> float:
    """Return the largest ΔE2000 between neighbours of sRGB (n, 3) in shares, or to ``others``."""
    lab = lab_from_srgb(np.clip(seen, 0, 1))
    return float((delta_e_2000(lab[:-1], lab[1:]) if others is None else delta_e_2000(lab, lab_from_srgb(np.clip(others, 0, 1)))).max())


def _fewest(outer: Shape, inner: Shape) -> int:
    """Return the least count whose steps cannot be seen, else the one that shows least; none are finer than the eye parts."""
    most = int(np.clip(_room(outer, inner) / LEAST_STEP_MM, 1, MOST_STEPS))
    unbound = _fewest_of(outer.fill, inner.fill, MOST_STEPS)
    return unbound if unbound <= most else _fewest_of(outer.fill, inner.fill, most)


@lru_cache(maxsize=256)
def _fewest_of(outer: Paint, inner: Paint, most: int) -> int:
    """Return the count for two paints; shapes in the hand ask for the same ones again and again."""
    least = next((n for n in range(1, most) if _difference(_on_ground(*_ladder(outer, inner, n)[1:])) <= 1.0), most)
    tries = [*range(least, min(most, 2 * least + 4) + 1), *range(least - 1, least // 4, -1)]
    shown = []
    for n in tries:  # as drawn, a step is a whole number of levels, and many faint ones may miss the colour
        _, step, miss = _stack(*_ladder(outer, inner, n)[1:])
        shown.append(max(step, miss / MISS_PER_STEP))
        if shown[-1] <= 1.0:
            return n
    return tries[int(np.argmin(shown))]


def _room(outer: Shape, inner: Shape) -> float:
    """Return the greatest distance that a point of the rim travels inward."""
    a, b = _matched(outer, inner)
    return float(np.hypot(*(b - a).T).max())


def _between(outer: Shape, inner: Shape, count: int) -> tuple[list[Shape], float, float]:
    """Return the steps, what the inner shape must carry over them, and the largest step."""
    t, whole, alpha = _ladder(fill_of(outer), fill_of(inner), count)
    fills, difference, _ = _stack(whole, alpha)
    outlines = _morphed(outer, inner, t[1:-1])
    return (
        [
            replace(outer, commands=commands, points=points, fill=fill, stroke=None, fill_rule="nonzero", name="Step", derived=True)
            for (commands, points), fill in zip(outlines, fills[1:-1], strict=True)
        ],
        fills[-1].opacity,
        difference,
    )


def _ground(whole: np.ndarray, alpha: np.ndarray) -> float:
    """Return the ground that the innermost colour stands out from: white (1) under a dark one, black (0) under a light one."""
    return 1.0 if lab_from_srgb(whole[-1] / max(alpha[-1], 1e-9))[0] < LIGHT_FROM else 0.0


def _on_ground(whole: np.ndarray, alpha: np.ndarray) -> np.ndarray:
    return whole + _ground(whole, alpha) * (1 - alpha)[:, None]


def _stack(whole: np.ndarray, alpha: np.ndarray) -> tuple[list[Paint], float, float]:
    """Return what each layer carries for the stack to come to what is wanted, its largest step and largest miss (ΔE2000).

    ``whole`` (n, 3) is the wanted premultiplied colour, ``alpha`` (n,) the wanted cover. A faint
    layer changes 8 bits by a level or two, and many would lose the hue to rounding. So opacities
    are whole levels, and each layer makes up for what those below lost on the ground, drawn as a
    browser's canvas does (measured: colour times level rounded, ground rounded down).
    """
    drawn = np.full(3, 255 * _ground(whole, alpha))
    out, seen, below = [], [], 0.0
    on_ground = _on_ground(whole, alpha)
    for wanted, cover in zip(on_ground * 255, alpha, strict=True):
        level = int(np.clip(np.round(255 * _added(below, float(cover))), 0, 255))
        kept = np.floor(drawn * (256 - level) / 256) if level < 255 else 0.0
        colour = hex_from_rgb((wanted - kept) / max(level, 1))
        drawn = kept + np.round(rgb_from_hex(colour) * level)
        below = 1 - (1 - below) * (1 - level / 255)
        out.append(Paint(colour, round(level / 255, 5)))
        seen.append(drawn)
    shown = np.array(seen) / 255
    return out, _difference(shown), _difference(shown, on_ground)


def _added(below: float, wanted: float) -> float:
    """Return the opacity that brings what already covers ``below`` to ``wanted``."""
    return 1.0 if wanted >= 1 else max(0.0, 1 - (1 - wanted) / (1 - below))


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
