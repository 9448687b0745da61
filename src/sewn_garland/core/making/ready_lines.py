"""Ready lines for a page: rectangle, ellipse, polygon, star, arch, swag, spiral and wave, each drawn from a few figures in mm.

Each is a function of its figures that returns its course about its middle, y down: stretches of cubics and straight lines, the ones
that close marked. Curves meet their formula with its direction at the ends of their cubics, which are short enough to stay within
a fifty-thousandth of the line's size of it.
"""

from __future__ import annotations

import itertools
from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass

import numpy as np
import scipy

from ..errors import InputError
from ..maths.curves import cubics_from_arc

MOST_MM = 5_000.0
SWAG_STEP = 0.2  # of x/a between the ends of a swag's cubics, that stray by a four-hundredth of its fourth power
MOST_FLAT, STEEPEST = 1e-5, 20.0  # half a swag's width over its catenary's a; chosen: from next to straight to all but two plumb lines
Figures = Mapping[str, float]
Course = tuple[list[np.ndarray], bool]
"""Stretches of points, (2, 2) straight or (4, 2) cubic, each from where the one before ends; and whether the line closes."""


@dataclass(frozen=True)
class ReadyFigure:
    """One number that a ready line is drawn from: its unit ("" counts), its least and most, and what it is on a page of so many mm."""

    name: str
    unit: str
    least: float
    most: float
    begins: Callable[[float, float], float]


@dataclass(frozen=True)
class ReadyLine:
    """A ready line's name, figures and course."""

    name: str
    figures: tuple[ReadyFigure, ...]
    draw: Callable[[Figures], Course]


def checked(shape: str, figures: Figures) -> dict[str, float]:
    """Return all figures of a ready line, those not given as on a page of A5; raises InputError for what it has not, or beyond limits."""
    ready = READY.get(shape)
    if ready is None:
        raise InputError(f"there is no ready line “{shape[:40]}”; take one of {', '.join(READY)}")
    known = {figure.name: figure for figure in ready.figures}
    for name, value in figures.items():
        figure = known.get(name)
        if figure is None:
            raise InputError(f"{ready.name.lower()}: it has no figure “{name[:40]}”, but {', '.join(known)}")
        if not figure.least <= value <= figure.most:
            unit = f" {figure.unit}" if figure.unit else ""
            raise InputError(f"{ready.name.lower()}: {name} must be from {figure.least:g} to {figure.most:g}{unit} (came: {value:g})")
    return {name: float(figures.get(name, figure.begins(210.0, 148.0))) for name, figure in known.items()}


def scaled(shape: str, figures: Figures, scale: float) -> dict[str, float]:
    """Return a ready line's figures at another size: those in mm are scaled, counts and angles stay."""
    lengths = {figure.name for figure in READY[shape].figures if figure.unit == "mm"}
    return {name: value * scale if name in lengths else value for name, value in figures.items()}


def begun(shape: str, width_mm: float, height_mm: float) -> dict[str, float]:
    """Return the figures that a ready line begins with in the middle of a page."""
    return {f.name: round(float(np.clip(f.begins(width_mm, height_mm), f.least, f.most)), 1) for f in READY[shape].figures}


def path_of(shape: str, figures: Figures, at: Sequence[float] = (0.0, 0.0), turn_deg: float = 0.0) -> str:
    """Return the path data in mm of a ready line with its middle at a place, turned clockwise. Raises InputError as ``checked`` does."""
    own = checked(shape, figures)
    stretches, closed = READY[shape].draw(own)
    turn = np.radians(turn_deg)
    matrix = np.array([[np.cos(turn), np.sin(turn)], [-np.sin(turn), np.cos(turn)]])

    def exact(points: np.ndarray) -> str:
        return " ".join(repr(round(float(v), 6) + 0.0) for v in (points @ matrix + at).ravel())

    parts = [f"{'L' if len(stretch) == 2 else 'C'}{exact(stretch[1:])}" for stretch in stretches]
    return f"M{exact(stretches[0][:1])}{''.join(parts)}{'Z' if closed else ''}"


def _straight(points: np.ndarray) -> list[np.ndarray]:
    return [np.stack(pair) for pair in itertools.pairwise(points)]


def _ring(points: np.ndarray) -> Course:
    """Return a polygon's sides; its last is drawn by closing."""
    return _straight(points), True


def _through(points: np.ndarray, speeds: np.ndarray, steps: np.ndarray) -> list[np.ndarray]:
    """Return cubics through points (n + 1, 2) of a curve with its derivatives there, over steps (n,) of its parameter."""
    thirds = steps[:, None] / 3
    first, last = points[:-1] + speeds[:-1] * thirds, points[1:] - speeds[1:] * thirds
    return list(np.stack([points[:-1], first, last, points[1:]], axis=1))


def _rectangle(f: Figures) -> Course:
    w, h = f["width"] / 2, f["height"] / 2
    r = min(f["rounded"], w, h)
    if r <= 0:
        return _ring(np.array([(-w, -h), (w, -h), (w, h), (-w, h)]))
    out: list[np.ndarray] = []
    corners = ((w - r, -h + r, -0.5), (w - r, h - r, 0.0), (-w + r, h - r, 0.5), (-w + r, -h + r, 1.0))
    here = np.array((-w + r, -h))
    for x, y, quarter in corners:
        bow = list(cubics_from_arc(np.array((x, y)), np.array((r, 0.0)), np.array((0.0, r)), quarter * np.pi, np.pi / 2))
        if np.hypot(*(bow[0][0] - here)) > 1e-9:
            out.append(np.stack([here, bow[0][0]]))
        out += bow
        here = bow[-1][-1]
    return out, True


def _ellipse(f: Figures) -> Course:
    a, b = np.array((f["width"] / 2, 0.0)), np.array((0.0, f["height"] / 2))
    return list(cubics_from_arc(np.zeros(2), a, b, 0.0, 2 * np.pi)), True


def _about(radii: np.ndarray) -> np.ndarray:
    """Return points at distances (n,) from the middle, evenly round it, clockwise from the top."""
    angle = 2 * np.pi * np.arange(len(radii)) / len(radii)
    return np.stack([radii * np.sin(angle), -radii * np.cos(angle)], axis=1)


def _polygon(f: Figures) -> Course:
    return _ring(_about(np.full(round(f["sides"]), f["radius"])))


def _star(f: Figures) -> Course:
    return _ring(_about(np.tile((f["radius"], f["radius"] * f["waist"] / 100), round(f["points"]))))


def _arch(f: Figures) -> Course:
    w, h = f["width"] / 2, f["height"] / 2
    rise = min(w, f["height"])
    top = -h + rise
    legs = [] if h - top < 1e-9 else [np.array([(-w, h), (-w, top)])]
    bow = cubics_from_arc(np.array((0.0, top)), np.array((w, 0.0)), np.array((0.0, rise)), np.pi, np.pi)
    return [*legs, *bow, *(leg[::-1] * (-1, 1) for leg in legs)], False


def _swag(f: Figures) -> Course:
    """Catenaries y = a·cosh(x/a) between pegs at one height; a from a·(cosh(w/2a) − 1) = sag."""
    count = round(f["swags"])
    half, sag = f["width"] / count / 2, f["sag"]
    a = _hanging(half, sag)
    t = np.linspace(-half / a, half / a, 2 * max(8, int(np.ceil(half / a / SWAG_STEP))) + 1)
    bow = np.stack([a * t, a * (np.cosh(half / a) - np.cosh(t)) - sag / 2], axis=1)
    speeds = np.stack([np.full(len(t), a), -a * np.sinh(t)], axis=1)
    stretches = _through(bow, speeds, np.diff(t))
    pegs = [np.array(((2 * k + 1 - count) * half, 0.0)) for k in range(count)]
    return [stretch + peg for peg in pegs for stretch in stretches], False


def _hanging(half: float, sag: float) -> float:
    """Return a of the catenary that hangs ``sag`` below pegs ``half`` to either side: x = half/a solves x·sag = half·(cosh x − 1)."""
    found = scipy.optimize.brentq(lambda x: np.cosh(x) - 1 - x * sag / half, MOST_FLAT, STEEPEST, xtol=1e-15, rtol=1e-14)
    return half / float(found)


def _spiral(f: Figures) -> Course:
    turn = 2 * np.pi * f["turns"]
    t = np.linspace(0, turn, int(np.ceil(turn / (np.pi / 12))) + 1)
    slope = (f["outer"] - f["inner"]) / turn
    r = f["inner"] + slope * t
    points = np.stack([r * np.sin(t), -r * np.cos(t)], axis=1)
    speeds = np.stack([slope * np.sin(t) + r * np.cos(t), -slope * np.cos(t) + r * np.sin(t)], axis=1)
    return _through(points, speeds, np.diff(t)), False


def _wave(f: Figures) -> Course:
    bows, high = round(f["bows"]), f["height"] / 2
    t = np.linspace(0, np.pi * bows, 12 * bows + 1)
    along = f["length"] / (np.pi * bows)
    points = np.stack([along * t - f["length"] / 2, -high * np.sin(t)], axis=1)
    speeds = np.stack([np.full(len(t), along), -high * np.cos(t)], axis=1)
    return _through(points, speeds, np.diff(t)), False


def _mm(name: str, begins: Callable[[float, float], float], *, least: float = 0.1) -> ReadyFigure:
    return ReadyFigure(name, "mm", least, MOST_MM, begins)


def _count(name: str, begins: int, least: int, most: int) -> ReadyFigure:
    return ReadyFigure(name, "", least, most, lambda w, h: begins)


READY: dict[str, ReadyLine] = {
    "rectangle": ReadyLine("Rectangle", (
        _mm("width", lambda w, h: w - 0.2 * min(w, h)), _mm("height", lambda w, h: h - 0.2 * min(w, h)),
        _mm("rounded", lambda w, h: 0, least=0),
    ), _rectangle),
    "ellipse": ReadyLine("Ellipse", (_mm("width", lambda w, h: 0.6 * w), _mm("height", lambda w, h: 0.6 * h)), _ellipse),
    "polygon": ReadyLine("Polygon", (_mm("radius", lambda w, h: 0.35 * min(w, h)), _count("sides", 6, 3, 60)), _polygon),
    "star": ReadyLine("Star", (
        _mm("radius", lambda w, h: 0.38 * min(w, h)), _count("points", 5, 3, 60), ReadyFigure("waist", "%", 5, 100, lambda w, h: 45),
    ), _star),
    "arch": ReadyLine("Arch", (_mm("width", lambda w, h: 0.4 * min(w, h)), _mm("height", lambda w, h: 0.6 * min(w, h))), _arch),
    "swag": ReadyLine("Swag", (
        _mm("width", lambda w, h: 0.8 * w), _mm("sag", lambda w, h: 0.14 * min(w, h)), _count("swags", 2, 1, 40),
    ), _swag),
    "spiral": ReadyLine("Spiral", (
        _mm("outer", lambda w, h: 0.36 * min(w, h)), _mm("inner", lambda w, h: 0.05 * min(w, h), least=0),
        ReadyFigure("turns", "", 0.25, 50, lambda w, h: 3),
    ), _spiral),
    "wave": ReadyLine("Wave", (
        _mm("length", lambda w, h: 0.8 * w), _mm("height", lambda w, h: 0.12 * min(w, h)), _count("bows", 5, 1, 200),
    ), _wave),
}  # fmt: skip
