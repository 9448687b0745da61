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
    be seen: neighbours differ by ΔE2000 of at most 1, on white and on black (see-through ones
    before an 8-bit screen rounds them). The inner shape may lie anywhere inside. A shape's
    opacity is what is wanted to be seen there. Opacities add up as the shapes lie over one
    another, so each step carries only what brings the stack to the wanted value, and
    ``own_covers`` says what the given shapes must carry for that.
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
    """Return the largest ΔE2000 between neighbours, on white and on black; opaque ones as 8 bits write them."""
    colour = premultiplied / np.maximum(alpha, 1e-9)[:, None]
    shown = [over_white(colour, alpha), premultiplied]
    if alpha.min() >= 1:
        shown = [np.round(colour * 255) / 255]
    return float(max(delta_e_2000(lab[:-1], lab[1:]).max() for lab in map(lab_from_srgb, shown)))


def _fewest(outer: Shape, inner: Shape) -> int:
    """Return the least count whose steps cannot be seen; none are finer than the eye parts."""
    most = int(np.clip(_room(outer, inner) / LEAST_STEP_MM, 1, MOST_STEPS))
    unseen = (n for n in range(1, most) if _difference(*_ladder(outer, inner, n)[1:]) <= 1.0)
    return next(unseen, most)


def _room(outer: Shape, inner: Shape) -> float:
    """Return the greatest distance that a point of the rim travels inward."""
    a, b = _matched(outer, inner)
    return float(np.hypot(*(b - a).T).max())


def _between(outer: Shape, inner: Shape, count: int) -> tuple[list[Shape], float]:
    t, whole, alpha = _ladder(outer, inner, count)
    fills = _layers(whole, alpha)[1:-1]
    outlines = _morphed(outer, inner, t[1:-1])
    return [
        replace(outer, commands=commands, points=points, fill=fill, stroke=None, fill_rule="nonzero", name="Step", derived=True)
        for (commands, points), fill in zip(outlines, fills, strict=True)
    ], _difference(whole, alpha)


def _layers(whole: np.ndarray, alpha: np.ndarray) -> list[Paint]:
    """Return what each layer carries so that the stack comes to ``whole`` (n, 3) premultiplied and ``alpha`` (n,).

    A faint layer changes 8 bits by a level or two, and many of them would lose the hue to
    rounding. So each layer makes up for what those below lost, as seen on the ground that the
    colour stands out from: white under dark colours, black under light ones.
    """
    ground = 1.0 if lab_from_srgb(whole[-1] / max(alpha[-1], 1e-9))[0] < LIGHT_FROM else 0.0
    drawn = np.full(3, ground)
    out, below = [], 0.0
    for wanted, cover in zip(whole + ground * (1 - alpha)[:, None], alpha, strict=True):
        own = round(_added(below, float(cover)), 5)
        colour = hex_from_rgb((wanted - drawn * (1 - own)) / max(own, 1e-9))
        drawn = np.round((drawn * (1 - own) + rgb_from_hex(colour) * own) * 255) / 255
        below = 1 - (1 - below) * (1 - own)
        out.append(Paint(colour, own))
    return out


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
