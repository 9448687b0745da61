"""Starters: real geometry from a few figures, drawn about its own repeat.

Each starter is a function of its figures that returns outlines in mm, its frame from 0 to the
length and height it says. Circles and arcs are cubics of at most 45° (error below 5e-6 of r).
"""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass, replace

import numpy as np
from scipy.optimize import root_scalar

from ..errors import InputError
from ..maths.booleans import combined, stroke_outline
from ..maths.bounds import outline_box
from ..maths.colour import hex_from_rgb, rgb_from_hex
from ..maths.curves import cubics_from_arc
from ..maths.outlines import Outline, bezier_at, joined
from ..values.motif import Lies, Motif, Paint, Recipe, Shape
from .shading import inset

COLOURS = {"loden": "#20352c", "madder": "#a63a2f", "indigo": "#2c4a84", "weld": "#c9971c", "brass": "#9a7a3c", "sea": "#3f7f78"}
Figures = Mapping[str, float]


@dataclass(frozen=True)
class Figure:
    """One number that shapes a starter, with its unit, standard and limits."""

    name: str
    unit: str
    standard: float
    least: float
    most: float


EDGE_NAME = "edge"
EDGE = Figure(EDGE_NAME, "mm", 0.3, 0, 100)  # a darker rim, for crossings to be seen
LATER = {EDGE.name: 0.0}  # figures that came later, and what they are of recipes without them
EDGE_SHADE = 0.62  # of the colour's light; chosen
SLENDER = 0.5  # of its height, that a strand may be broad before it is stretched; chosen: rounder ones close beside their middle too
LEAST_SHARE = 1e-6  # of its height, that a strand is thick, or less high than thick
KNOT_OVER = 0.28  # of half a knot's way, to either side of where it crosses itself, that is drawn once more; chosen


@dataclass(frozen=True)
class Drawn:
    """What a starter draws: outlines in order, with the frame's size, base line and joints in mm, and whether neighbours interlock.

    ``edges`` lie below one outline each, in a darker shade; without any there are none.
    """

    outlines: tuple[Outline, ...]
    width: float
    height: float
    base_line: float
    edges: tuple[Outline, ...] = ()
    joints: tuple[tuple[float, float], tuple[float, float]] | None = None
    interlocks: bool = False


@dataclass(frozen=True)
class Starter:
    """A starter's name, figures, colour and drawing."""

    name: str
    figures: tuple[Figure, ...]
    colour: str
    draw: Callable[[Figures], Drawn]


def motif_from_starter(name: str, figures: Figures | None = None, *, colour: str | None = None) -> Motif:
    """Draw a starter as a motif of one group with its recipe; figures not given take their standard.

    Raises InputError for an unknown starter or figure, and for a figure beyond its limits.
    """
    starter = starter_named(name)
    values = checked_figures(starter, figures or {})
    drawn = starter.draw(values)
    paint = Paint(colour or COLOURS[starter.colour])
    dark = Paint(hex_from_rgb(EDGE_SHADE * rgb_from_hex(paint.colour)))
    edges = [(edge, dark, f"{starter.name} {EDGE_NAME}") for edge in drawn.edges] or [None] * len(drawn.outlines)
    filled = [(outline, paint, starter.name) for outline in drawn.outlines]
    outlines = [part for pair in zip(edges, filled, strict=True) for part in pair if part]
    lies: Lies = "interlocked" if drawn.interlocks else "over"
    shapes = tuple(Shape(c, p, own, group=1, derived=False, name=named, lies=lies) for (c, p), own, named in outlines)
    recipe = Recipe(1, "starter", (("starter", name), *values.items()))
    return Motif(shapes, drawn.width, drawn.height, drawn.base_line, joints=drawn.joints, recipes=(recipe,))


def starter_named(name: str) -> Starter:
    """Return a starter; raises InputError when there is none of that name."""
    if name not in STARTERS:
        raise InputError(f"there is no starter “{name[:40]}”; there are {', '.join(STARTERS)}")
    return STARTERS[name]


def checked_figures(starter: Starter, given: Figures) -> dict[str, float]:
    """Return every figure of a starter, the standard where none is given, or raise InputError naming the wrong one."""
    known = {f.name: f for f in starter.figures}
    for name, value in given.items():
        if name not in known:
            raise InputError(f"{starter.name} has no figure “{name[:40]}”")
        figure = known[name]
        if not figure.least <= float(value) <= figure.most:
            raise InputError(f"{name} of a {starter.name.lower()} must be from {figure.least:g} to {figure.most:g} {figure.unit}".strip())
    return {f.name: float(given.get(f.name, f.standard)) for f in starter.figures}


def _arc(cx: float, cy: float, rx: float, ry: float, start_deg: float = 0.0, sweep_deg: float = 360.0) -> np.ndarray:
    """Return an elliptical arc as points (3k + 1, 2): a start and three a cubic."""
    cubics = cubics_from_arc(np.array([cx, cy]), np.array([rx, 0.0]), np.array([0.0, ry]), np.radians(start_deg), np.radians(sweep_deg))
    return np.vstack([cubics[0, :1], cubics[:, 1:].reshape(-1, 2)])


def _ellipse(cx: float, cy: float, rx: float, ry: float, *, hole: bool = False) -> Outline:
    points = _arc(cx, cy, rx, ry, 0, -360 if hole else 360)
    return "M" + "C" * (len(points) // 3) + "Z", points


def _polygon(points: list | np.ndarray) -> Outline:
    points = np.array(points, float)
    return "M" + "L" * (len(points) - 1) + "Z", points


def _rounded_rect(left: float, top: float, w: float, h: float, r: float, *, hole: bool = False) -> Outline:
    r = min(r, w / 2, h / 2)
    if r <= 0:
        corners = [[left, top], [left + w, top], [left + w, top + h], [left, top + h]]
        return _polygon(corners[::-1] if hole else corners)
    centres = [(left + w - r, top + r, -90), (left + w - r, top + h - r, 0), (left + r, top + h - r, 90), (left + r, top + r, 180)]
    commands, points = "", []
    for i, (cx, cy, start) in enumerate(centres[::-1] if hole else centres):
        arc = _arc(cx, cy, r, r, start + 90 if hole else start, -90 if hole else 90)
        commands += ("M" if i == 0 else "L") + "C" * (len(arc) // 3)
        points.append(arc)
    return commands + "Z", np.concatenate(points)


def _pen(points: np.ndarray | list, commands: str, width: float, *, cap: str = "butt", join: str = "round") -> Outline:
    return stroke_outline(commands, np.array(points, float), width=width, cap=cap, join=join)


def _pill(f: Figures) -> Drawn:
    return Drawn((_rounded_rect(0, 0, f["length"], f["thickness"], f["thickness"] / 2),), f["length"], f["thickness"], f["thickness"] / 2)


def _ring(f: Figures) -> Drawn:
    r = f["diameter"] / 2
    if f["wire"] >= r:
        raise InputError("the wire of a ring must be less than half its diameter")

    def rim(inset: float) -> Outline:
        outer, hole = r - inset, r - f["wire"] + inset
        return joined([_ellipse(r, r, outer, outer), _ellipse(r, r, hole, hole, hole=True)])

    return _wired(f, rim, 2 * r, 2 * r)


def _link(f: Figures) -> Drawn:
    length, height, wire = f["length"], f["height"], f["wire"]
    if 2 * wire >= min(length, height):
        raise InputError("the wire of a link must be less than half its length and height")

    def rim(inset: float) -> Outline:
        sides = [(e, length - 2 * e, height - 2 * e) for e in (inset, wire - inset)]
        return joined([_rounded_rect(e, e, w, h, h / 2, hole=i == 1) for i, (e, w, h) in enumerate(sides)])

    return _wired(f, rim, length, height)


def _wired(f: Figures, rim: Callable[[float], Outline], length: float, height: float) -> Drawn:
    """Return what is bent of wire, its outline drawn inset by mm, on a darker edge, with joints for its neighbours to hang in it."""
    wire, edge, base_line = f["wire"], f["edge"], height / 2
    if 2 * edge >= wire:
        raise InputError("the edge must be less than half the wire")
    edges = (rim(0.0),) if edge else ()
    joints = ((wire, base_line), (length - wire, base_line))
    return Drawn((rim(edge),), length, height, base_line, edges, joints, interlocks=True)


def _bar(f: Figures) -> Drawn:
    return Drawn((_rounded_rect(0, 0, f["length"], f["thickness"], f["rounding"]),), f["length"], f["thickness"], f["thickness"] / 2)


def _ellipse_starter(f: Figures) -> Drawn:
    return Drawn((_ellipse(f["length"] / 2, f["height"] / 2, f["length"] / 2, f["height"] / 2),), f["length"], f["height"], f["height"] / 2)


def _leaf(f: Figures) -> Drawn:
    """Two curves from the stem to the tip, fullest at ``fullest`` per cent of the length, the tip bent down by ``bow``."""
    w, h, bow = f["length"], f["height"], f["bow"]
    x = w * f["fullest"] / 100
    points = [[0, 0], [x * 0.5, -h * 0.75], [x + (w - x) * 0.4, -h * 0.6], [w, bow],
              [x + (w - x) * 0.3, h * 0.6 + bow * 0.4], [x * 0.5, h * 0.55], [0, 0]]  # fmt: skip
    drawn = _around([("MCCZ", np.array(points, float))], fit=(w, h))
    return replace(drawn, base_line=float(drawn.outlines[0][1][0, 1]))


def _petal(f: Figures) -> Drawn:
    w, h = f["length"], f["height"]
    points = [[0, h / 2], [w * 0.28, h / 2 - h * 0.12], [w * 0.42, 0], [w * 0.74, 0], [w * 0.93, 0], [w, h * 0.22], [w, h / 2],
              [w, h * 0.78], [w * 0.93, h], [w * 0.74, h], [w * 0.42, h], [w * 0.28, h / 2 + h * 0.12], [0, h / 2]]  # fmt: skip
    return Drawn((("MCCCCZ", np.array(points, float)),), w, h, h / 2)


def _curve(place: Callable[[np.ndarray], np.ndarray], u: np.ndarray) -> Outline:
    """Return a smooth curve through place(u) (n, 2) as cubics, its directions by central differences."""
    small = 1e-5 * (u[-1] - u[0])
    speed = (place(u + small) - place(u - small)) / (2 * small)
    at, step = place(u), np.diff(u)[:, None] / 3
    cubics = np.stack([at[:-1] + speed[:-1] * step, at[1:] - speed[1:] * step, at[1:]], axis=1)
    return "M" + "C" * len(cubics), np.vstack([at[:1], cubics.reshape(-1, 2)])


def _spiral(f: Figures) -> Drawn:
    """An Archimedean spiral of a pen's width that runs out into a foot along the whole length."""
    turns, pen, r = f["turns"], f["pen"], f["height"] / 2
    least = pen * 0.6
    grows = (r - pen / 2 - least) / (2 * np.pi * turns)
    if 2 * np.pi * grows <= pen * 1.05:
        raise InputError("the spiral's turns touch; take fewer turns, a thinner pen or more height")

    def place(angle: np.ndarray) -> np.ndarray:
        radius, turn = least + grows * angle, angle + np.pi / 2 - 2 * np.pi * turns
        return np.stack([f["length"] / 2 + radius * np.cos(turn), r + radius * np.sin(turn)], axis=1)

    commands, points = _curve(place, np.linspace(0, 2 * np.pi * turns, int(12 * turns) + 1))
    foot = 2 * r - pen / 2
    parts = [_pen(points, commands, pen, cap="round"), _pen([[0, foot], [f["length"], foot]], "ML", pen)]
    return Drawn((combined([(*p, "nonzero") for p in parts], "join"),), f["length"], 2 * r, foot)


def _star(f: Figures) -> Drawn:
    n, r = round(f["points"]), f["diameter"] / 2
    angle = np.pi * np.arange(2 * n) / n - np.pi / 2
    radius = np.where(np.arange(2 * n) % 2, r * f["depth"] / 100, r)
    points = np.stack([r + radius * np.cos(angle), r + radius * np.sin(angle)], axis=1)
    return _around([_polygon(points)])


def _polygon_starter(f: Figures) -> Drawn:
    n, r = round(f["sides"]), f["diameter"] / 2
    angle = 2 * np.pi * np.arange(n) / n + np.pi / n
    return _around([_polygon(np.stack([r * np.cos(angle), r * np.sin(angle)], axis=1))])


def _heart(f: Figures) -> Drawn:
    w, h = f["length"], f["height"]
    right = [[0.56, 0.0], [0.8, -0.04], [0.92, 0.14], [1.06, 0.36], [0.92, 0.62], [0.5, 1.0]]
    left = [[1 - x, y] for x, y in right[-2::-1]]
    points = [[0.5, 0.26], *right, *left, [0.5, 0.26]]
    return _around([("MCCCCZ", np.array(points, float))], fit=(w, h))


def _anchor(f: Figures) -> Drawn:
    h, pen = f["height"], f["pen"]
    r, arm = h * 0.11, h * 0.36
    shank = _pen([[0, 2 * r], [0, h - pen / 2]], "ML", pen)
    stock = _pen([[-arm * 0.62, 3.1 * r], [arm * 0.62, 3.1 * r]], "ML", pen, cap="round")
    ring = _pen(_arc(0, r, r - pen / 2, r - pen / 2), "M" + "C" * 8 + "Z", pen)
    arms = _pen(_arc(0, h - pen / 2 - arm, arm, arm, 20, 140), "M" + "C" * (len(_arc(0, 0, 1, 1, 20, 140)) // 3), pen)
    tips = [_polygon([[s * arm * 1.16, h - arm * 1.06], [s * arm * 1.06, h - arm * 0.5], [s * arm * 0.7, h - arm * 0.86]]) for s in (-1, 1)]
    whole = combined([(*p, "nonzero") for p in (shank, stock, ring, arms, *tips)], "join")
    return _around([whole])


def _scallop(f: Figures) -> Drawn:
    """An arch that hangs from the base line, its ends on the frame's sides."""
    w, h = f["length"], f["depth"]
    arch = _arc(w / 2, f["band"], w / 2, h, 180, -180)
    points = np.vstack([[[w, 0]], [[0, 0]], [[0, f["band"]]], arch[1:]])
    return Drawn((("MLL" + "C" * (len(arch) // 3) + "Z", points),), w, h + f["band"], 0.0)


def _wave(f: Figures) -> Drawn:
    """One whole sine wave as a band: handles at a third of the quarter wave, within 0.6 % of the sine."""
    w, a, pen = f["length"], f["height"] / 2, f["pen"]
    quarter, up = w / 4, a * np.pi / 2 / 3
    base = a + pen / 2

    def row(y: float) -> np.ndarray:
        x = quarter * np.arange(5)
        s = y - a * np.array([0, 1, 0, -1, 0])
        slope = -up * np.array([1, 0, -1, 0, 1])
        cubics = [np.array([[x[i] + quarter / 3, s[i] + slope[i]], [x[i + 1] - quarter / 3, s[i + 1] - slope[i + 1]], [x[i + 1], s[i + 1]]])
                  for i in range(4)]  # fmt: skip
        return np.vstack([[[x[0], s[0]]], *cubics])

    top, foot = row(base - pen / 2), row(base + pen / 2)[::-1]
    return Drawn((("MCCCC" + "L" + "CCCC" + "Z", np.vstack([top, foot])),), w, f["height"] + pen, base)


def _rope_strand(f: Figures) -> Drawn:
    """One strand of a laid rope, a leaning S: with an edge its round ends lie under the neighbours, without one strands lie side by side.

    The frame is one repeat long; the strand leans out of it on both sides, with ``groove`` mm left open. A strand whose ends would
    reach below the middle of a neighbour lies over the one before it.
    """
    w, h, edge = f["length"], f["thickness"], f["edge"]
    if w <= f["groove"]:
        raise InputError("the groove must be less than the strand's length")
    if not edge:
        return Drawn((_side_by_side(w, h, np.tan(np.radians(f["lean"])), w - f["groove"]),), w, h, h / 2)
    longer = max(1.0, w / (SLENDER * h))  # a broad strand is a slender one stretched, for only that lies close in the middle alone
    broad = (w - f["groove"] if f["groove"] else w + edge) / longer  # what touches shares its edge

    def too_broad(pen: float) -> float:
        return 2 * _half_across(_centre_line(h, pen, f["lean"]), pen, h) - broad

    if too_broad(LEAST_SHARE * h) > 0 or too_broad((1 - LEAST_SHARE) * h) < 0:
        raise InputError("such a strand cannot be drawn; take a greater length or thickness, or a thinner edge")
    pen = root_scalar(too_broad, bracket=(LEAST_SHARE * h, (1 - LEAST_SHARE) * h), xtol=1e-9 * h).root
    if 2 * edge >= pen:
        raise InputError("the edge must be less than half the strand")
    points = _centre_line(h, pen, f["lean"])
    commands, rim = _pen(points, "MC", pen, cap="round")
    own = (commands, rim * (longer, 1.0) + (w / 2, 0.0), "nonzero")
    left, _, right, _ = outline_box(*own[:2])
    return Drawn((inset(own, edge)[:2],), w, h, h / 2, (own[:2],), interlocks=bool((right - left) / 2 < w))


def _side_by_side(w: float, h: float, slope: float, broad: float) -> Outline:
    """Return a strand whose right side is its left one moved by its breadth."""
    reach = h * slope
    side = np.array([[reach, 0], [reach * 0.25, h * 0.2], [reach * 0.75, h * 0.8], [0, h]])
    across = np.array([broad, 0.0])
    points = np.vstack([side[:1], side + across, side[3:], side[2::-1]])
    return "MLCLCZ", points - ((reach + broad - w) / 2, 0)


def _centre_line(h: float, pen: float, lean_deg: float) -> np.ndarray:
    """Return the S (4, 2), about x = 0, along which a round pen draws a strand of a height."""
    down = h - pen
    reach = down * np.tan(np.radians(lean_deg))
    return np.array([[0.5, 0.0], [-0.25, 0.2], [0.25, 0.8], [-0.5, 1.0]]) * (reach, down) + (0.0, pen / 2)


def _half_across(points: np.ndarray, pen: float, h: float) -> float:
    """Return how far from x = 0 a round pen reaches half-way down."""
    x, y = bezier_at(points[None], np.linspace(0, 1, 401))[0].T
    left = (pen / 2) ** 2 - (y - h / 2) ** 2
    return float((x + np.sqrt(np.maximum(left, 0)))[left >= 0].max())


def _zigzag(f: Figures) -> Drawn:
    """Strokes at ± the angle, a peak and a valley to a repeat; the seam falls on the straight, half-way up."""
    w, pen, slope = f["length"], f["pen"], np.tan(np.radians(f["angle"]))
    rise = w / 4 * slope
    thick = pen / np.cos(np.radians(f["angle"]))
    row = np.array([[0, rise], [w / 4, 0], [3 * w / 4, 2 * rise], [w, rise]])
    return Drawn((_polygon(np.vstack([row, row[::-1] + np.array([0, thick])])),), w, 2 * rise + thick, rise + thick / 2)


def _knot(f: Figures) -> Drawn:
    """A hitch on its rope: one loop above that crosses itself, with an edge over its own strand, else over a gap in it.

    Loops that are longer than the frame interlock with their neighbours.
    """
    w, h, pen, edge = f["length"], f["height"], f["pen"], f["edge"]
    foot = h - pen / 2

    def along(u: np.ndarray) -> np.ndarray:
        level = np.maximum(1 - u**2, 0) ** 2  # both ends come in along the base line
        back = h * np.sin(np.pi * u) * np.exp(-((u / 0.5) ** 2)) * level
        return np.stack([w / 2 * (1 + u) - back, foot - (h - pen) * np.exp(-((u / 0.42) ** 2)) * level], axis=1)

    def drawn(begin: float, end: float, width: float) -> Outline:
        curve = _curve(along, np.linspace(begin, end, max(12, int(20 * (end - begin)) + 1)))
        return _pen(curve[1], curve[0], width)

    if not edge:
        wide, narrow = ((*drawn(0.2, 0.75, pen * times), "nonzero") for times in (1.5, 1.06))
        gap = combined([wide, narrow], "cut_out")
        return Drawn((combined([(*drawn(-1, 1, pen), "nonzero"), (*gap, "nonzero")], "cut_out"),), w, h, foot)
    if 2 * edge >= pen:
        raise InputError("the edge must be less than half the pen")
    over_edge = 1 + pen / 4 / w  # an eighth of the pen over the frame, for neighbours to close without a seam
    parts = [(-over_edge, over_edge, 0.0)]
    beside = along(np.linspace(0, 1, 501))[1:-1, 0] - w / 2
    if (beside < 0).any():  # from there on the way back it is over itself
        over = np.linspace(0, 1, 501)[1:-1][beside < 0].max()
        parts.append((max(over - KNOT_OVER, 0.05), min(over + KNOT_OVER, 0.95), 0.06))
    edges = tuple(drawn(begin, end, pen) for begin, end, _ in parts)
    inner = tuple(drawn(begin - more, end + more, pen - 2 * edge) for begin, end, more in parts)
    return Drawn(inner, w, h, foot, edges, interlocks=True)


def _around(outlines: list[Outline], *, fit: tuple[float, float] | None = None) -> Drawn:
    """Frame outlines tightly, scaled to ``fit`` where that is given; the base line is the middle."""
    boxes = np.array([outline_box(*o) for o in outlines])
    low, high = boxes[:, :2].min(axis=0), boxes[:, 2:].max(axis=0)
    factor = np.array(fit) / (high - low) if fit else np.ones(2)
    width, height = (high - low) * factor
    return Drawn(tuple((c, (p - low) * factor) for c, p in outlines), float(width), float(height), float(height) / 2)


def _mm(name: str, standard: float, least: float = 0.1, most: float = 500.0) -> Figure:
    return Figure(name, "mm", standard, least, most)


STARTERS: dict[str, Starter] = {s.name.lower().replace(" ", "-"): s for s in (
    Starter("Pill", (_mm("length", 8), _mm("thickness", 2)), "madder", _pill),
    Starter("Ring", (_mm("diameter", 10), _mm("wire", 1.6), EDGE), "brass", _ring),
    Starter("Link", (_mm("length", 16), _mm("height", 9), _mm("wire", 2), EDGE), "indigo", _link),
    Starter("Bar", (_mm("length", 10), _mm("thickness", 2.5), _mm("rounding", 0, 0)), "loden", _bar),
    Starter("Ellipse", (_mm("length", 8), _mm("height", 5)), "sea", _ellipse_starter),
    Starter("Leaf", (_mm("length", 14), _mm("height", 5), Figure("fullest", "%", 40, 10, 90), _mm("bow", 1, 0)), "sea", _leaf),
    Starter("Petal", (_mm("length", 12), _mm("height", 7)), "madder", _petal),
    Starter("Spiral", (_mm("length", 14), _mm("height", 11), Figure("turns", "", 2.25, 1, 8), _mm("pen", 1.2)), "indigo", _spiral),
    Starter("Star", (_mm("diameter", 10), Figure("points", "", 5, 3, 40), Figure("depth", "%", 42, 5, 98)), "weld", _star),
    Starter("Polygon", (_mm("diameter", 9), Figure("sides", "", 6, 3, 40)), "loden", _polygon_starter),
    Starter("Heart", (_mm("length", 9), _mm("height", 8)), "madder", _heart),
    Starter("Anchor", (_mm("height", 16, 1), _mm("pen", 1.5)), "indigo", _anchor),
    Starter("Scallop", (_mm("length", 12), _mm("depth", 6), _mm("band", 1.5)), "sea", _scallop),
    Starter("Wave", (_mm("length", 16), _mm("height", 6), _mm("pen", 1.6)), "indigo", _wave),
    Starter("Rope strand", (_mm("length", 4), _mm("thickness", 8), Figure("lean", "°", 35, 0, 70), _mm("groove", 0, 0), EDGE),
            "brass", _rope_strand),
    Starter("Zigzag", (_mm("length", 8), Figure("angle", "°", 45, 5, 80), _mm("pen", 1.4)), "loden", _zigzag),
    Starter("Knot", (_mm("length", 7), _mm("height", 12), _mm("pen", 2.2), EDGE), "brass", _knot),
)}  # fmt: skip
