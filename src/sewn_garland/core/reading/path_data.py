"""Read SVG 2 path data (chapter 9) and the basic shapes' equivalent paths."""

from __future__ import annotations

import math
import re
from dataclasses import dataclass, field
from typing import NoReturn

import numpy as np

from ..errors import InputError, LimitError
from ..maths.crumbs import seen_of_chain
from ..maths.curves import are_straight, power_from_bezier, power_from_ends
from ..values.line import Line

NUMBER = re.compile(r"[\s,]*([+-]?(?:\d+\.?\d*|\.\d+)(?:[eE][+-]?\d+)?)")
_ATOMIC = r"[\s,]*+(?>[+-]?(?:\d++\.?\d*+|\.\d++)(?:[eE][+-]?\d++)?+)"
SIDES = re.compile(rf"(?:[\s,]*+L{_ATOMIC}{_ATOMIC})++")  # straight sides to places on the page, many in a row
FLAG = re.compile(r"[\s,]*([01])")
COMMAND = re.compile(r"[\s,]*([A-Za-z])")
ARGUMENTS = {"M": 2, "L": 2, "H": 1, "V": 1, "C": 6, "S": 4, "Q": 4, "T": 2, "A": 7, "Z": 0}
MOST_SEGMENTS = 500_000
LARGEST = 1e9
CRUMB_MM = 0.005  # of a side that cannot be seen: half of what shapes may stray; chosen
MANY_CRUMBS = 100  # in a line, fewer of which stay as they are; chosen
FLAT_ARC = 1e-9  # of the larger radius: the smaller is as good as none; chosen


@dataclass
class Subpath:
    """A start point and segments: cubics as (4, 2) control points, lines as (2, 2), arcs as an Arc."""

    start: np.ndarray
    segments: list = field(default_factory=list)
    closed: bool = False


@dataclass(frozen=True)
class Arc:
    """centre + a·cos θ + b·sin θ for θ from start through sweep."""

    centre: np.ndarray
    a: np.ndarray
    b: np.ndarray
    start: float
    sweep: float


def subpaths_from_path_data(text: str, *, where: str = "path") -> list[Subpath]:
    """Read path data into subpaths, one for every moveto; empty text gives none.

    Raises InputError naming the character at which it stops making sense.
    """
    return _Reader(text, where).read()


class _Reader:
    def __init__(self, text: str, where: str) -> None:
        self.text, self.where, self.at = text.rstrip(" \t\r\n\f,"), where, 0
        self.subpaths: list[Subpath] = []
        self.point = np.zeros(2)
        self.handle = np.zeros(2)  # the last control point, for S and T
        self.handle_of = ""
        self.segments = 0

    def read(self) -> list[Subpath]:
        command = ""
        while self.at < len(self.text):
            if command and command not in "Zz" and self._sides():
                command = "L"
                continue
            found = COMMAND.match(self.text, self.at)
            if found:
                command, self.at = found.group(1), found.end()
                if command.upper() not in ARGUMENTS:
                    self._refuse(f"“{command}” is not a path command")
                if not self.subpaths and command.upper() != "M":
                    self._refuse("path data must begin with M")
            elif command.upper() in ("", "Z"):
                self._refuse("a command letter was expected")
            self._step(command)
            command = {"M": "L", "m": "l"}.get(command, command)
        return self.subpaths

    def _sides(self) -> bool:
        """Read straight sides in a row in one go; False where there are none, or a number of them wants a sentence."""
        found = SIDES.match(self.text, self.at)
        if not found:
            return False
        ends = np.array(NUMBER.findall(found.group()), float).reshape(-1, 2)
        if not (np.abs(ends) <= LARGEST).all() or self.segments + len(ends) > MOST_SEGMENTS:
            return False
        self._current().segments.extend(np.stack([np.vstack([self.point, ends[:-1]]), ends], axis=1))
        self.segments += len(ends)
        self.at, self.point, self.handle_of = found.end(), ends[-1], ""
        return True

    def _refuse(self, message: str) -> NoReturn:
        near = self.text[self.at : self.at + 12].strip()
        raise InputError(f"{message} at character {self.at + 1} (“{near}”)", where=self.where)

    def _numbers(self, command: str) -> list[float]:
        values = []
        for i in range(ARGUMENTS[command.upper()]):
            pattern = FLAG if command in "Aa" and i in (3, 4) else NUMBER
            found = pattern.match(self.text, self.at)
            if not found:
                self._refuse(f"“{command}” needs {ARGUMENTS[command.upper()]} numbers; number {i + 1} is missing or not a number")
            value = float(found.group(1))
            if not abs(value) <= LARGEST:
                self._refuse("a number is not finite or beyond 1 000 000 000")
            values.append(value)
            self.at = found.end()
        return values

    def _step(self, command: str) -> None:
        n = self._numbers(command)
        self.segments += 1
        if self.segments > MOST_SEGMENTS:
            raise LimitError(f"more than {MOST_SEGMENTS} segments", where=self.where)
        kind, relative = command.upper(), command.islower()
        origin = self.point if relative else np.zeros(2)
        if kind == "M":
            self.point = origin + n
            self.subpaths.append(Subpath(self.point))
        elif kind == "Z":
            self._close()
        else:
            self._current()
            self._draw(kind, n, origin, relative)
        if kind not in "CSQT":
            self.handle_of = ""

    def _current(self) -> Subpath:
        if self.subpaths[-1].closed:  # drawing on after Z begins anew where the last one began
            self.subpaths.append(Subpath(self.subpaths[-1].start))
        return self.subpaths[-1]

    def _close(self) -> None:
        current = self._current()
        if np.any(self.point != current.start):
            current.segments.append(np.stack([self.point, current.start]))
        current.closed = True
        self.point = current.start

    def _draw(self, kind: str, n: list[float], origin: np.ndarray, relative: bool) -> None:
        begin = self.point
        if kind in "HV":
            end = begin.copy()
            axis = 0 if kind == "H" else 1
            end[axis] = n[0] + (begin[axis] if relative else 0.0)
            segment = np.stack([begin, end])
        elif kind == "L":
            segment = np.array([begin, origin + n])
        elif kind == "A":
            self.point = origin + n[5:]
            arc = arc_from_endpoints(begin, n[0], n[1], n[2], n[3] != 0, n[4] != 0, self.point)
            if arc is not None:
                self.subpaths[-1].segments.append(arc)
            return
        else:
            segment = self._curve(kind, [origin + p for p in np.reshape(n, (-1, 2))])
        self.subpaths[-1].segments.append(segment)
        self.point = segment[-1]

    def _curve(self, kind: str, points: list[np.ndarray]) -> np.ndarray:
        begin, smooth = self.point, kind in "ST"
        family = {"C": "C", "S": "C", "Q": "Q", "T": "Q"}[kind]
        if smooth:
            mirrored = 2 * begin - self.handle if self.handle_of == family else begin
            points = [mirrored, *points]
        self.handle, self.handle_of = points[-2], family
        if family == "Q":
            control, end = points
            points = [begin + 2 / 3 * (control - begin), end + 2 / 3 * (control - end), end]
        return np.stack([begin, *points])


def arc_from_endpoints(begin, rx: float, ry: float, turn_deg: float, large: bool, sweep: bool, end) -> Arc | np.ndarray | None:
    """Convert endpoint to centre form with the corrections of SVG 2, appendix B.2.5.

    A radius of 0, or next to nothing of the other, gives the straight line, coinciding ends give None (the arc is left out).
    """
    if np.array_equal(begin, end):
        return None
    size = max(abs(rx), abs(ry))
    if size == 0 or min(abs(rx), abs(ry)) < FLAT_ARC * size:
        return np.stack([begin, end])
    rx, ry = abs(rx) / size, abs(ry) / size  # as shares of the larger, so that squares stay within numbers
    phi = math.radians(turn_deg % 360)
    axes = np.array([[math.cos(phi), math.sin(phi)], [-math.sin(phi), math.cos(phi)]])
    half = axes @ ((begin - end) / 2)
    size = max(size, math.hypot(half[0] / rx, half[1] / ry))  # radii too small grow together
    x, y = half / size
    over = max(0.0, (rx * ry) ** 2 - (rx * y) ** 2 - (ry * x) ** 2)
    under = (rx * y) ** 2 + (ry * x) ** 2
    if under == 0:  # so far round that its ends lie together
        return np.stack([begin, end])
    centre_turned = (1 if large != sweep else -1) * math.sqrt(over / under) * np.array([rx * y / ry, -ry * x / rx])
    centre = axes.T @ centre_turned * size + (begin + end) / 2
    first, last = ((x, y) - centre_turned) / (rx, ry), ((-x, -y) - centre_turned) / (rx, ry)
    start = math.atan2(first[1], first[0])
    turn = math.atan2(first[0] * last[1] - first[1] * last[0], first @ last)
    if sweep and turn < 0:
        turn += 2 * math.pi
    if not sweep and turn > 0:
        turn -= 2 * math.pi
    return Arc(centre, axes[0] * rx * size, axes[1] * ry * size, start, turn)


def ellipse_subpath(cx: float, cy: float, rx: float, ry: float) -> Subpath:
    """Return the equivalent path of an ellipse: from its right end, clockwise, four arcs."""
    centre, a, b = np.array([cx, cy]), np.array([rx, 0.0]), np.array([0.0, ry])
    quarters = [Arc(centre, a, b, i * math.pi / 2, math.pi / 2) for i in range(4)] if rx > 0 and ry > 0 else []
    return Subpath(np.array([cx + rx, cy]), quarters, closed=True)


def rect_subpath(x: float, y: float, w: float, h: float, rx: float, ry: float) -> Subpath:
    """Return the equivalent path of a rectangle: from its top left, clockwise; a flat one has no extent."""
    if w <= 0 or h <= 0:
        return Subpath(np.array([x, y]), [], closed=True)
    rx, ry = min(rx, w / 2), min(ry, h / 2)
    if rx <= 0 or ry <= 0:
        rx = ry = 0.0
    text = f"M{x + rx!r} {y!r}H{x + w - rx!r}"
    corners = [(x + w, y + ry, f"V{y + h - ry!r}"), (x + w - rx, y + h, f"H{x + rx!r}"), (x, y + h - ry, f"V{y + ry!r}"), (x + rx, y, "")]
    for cx, cy, side in corners:
        text += (f"A{rx!r} {ry!r} 0 0 1 {cx!r} {cy!r}" if rx else "") + side
    return subpaths_from_path_data(text + "Z")[0]


def subpath_from_outline(commands: str, points: np.ndarray) -> Subpath:
    """Return one contour out of M L C Z as a subpath, its closing side drawn out."""
    segments, at = [], 1
    for command in commands[1:].rstrip("Z"):
        takes = 3 if command == "C" else 1
        segments.append(points[at - 1 : at + takes])
        at += takes
    closed = commands.endswith("Z")
    if closed and np.any(points[-1] != points[0]):
        segments.append(points[[-1, 0]])
    return Subpath(points[0], segments, closed)


def line_from_subpath(subpath: Subpath, matrix: np.ndarray) -> Line:
    """Map a subpath by a 2 × 3 affine into a Line, leaving out segments of no extent; a cubic that is straight becomes a side.

    Where sides too short to be seen are many, those that follow on one another become as few as can be seen: else each of the
    vertices of such noise would be a corner.
    """
    linear, shift = matrix[:, :2], matrix[:, 2]
    segments, m = subpath.segments, len(subpath.segments)
    points = np.array([0 if isinstance(segment, Arc) else len(segment) for segment in segments], int)
    rows, empty = np.zeros((m, 4, 2)), np.zeros(m, bool)
    for size, to_power in ((2, power_from_ends), (4, power_from_bezier)):
        own = np.flatnonzero(points == size)
        if len(own):
            placed = np.array([segments[i] for i in own]) @ linear.T + shift
            rows[own], empty[own] = to_power(placed), ~np.ptp(placed, axis=1).any(axis=1)
            if size == 4:
                sides = are_straight(placed)
                rows[own[sides]] = power_from_ends(placed[sides][:, [0, 3]])
    for i in np.flatnonzero(points == 0):
        arc = segments[i]
        rows[i] = linear @ arc.centre + shift, linear @ arc.a, linear @ arc.b, (arc.start, arc.sweep)
        empty[i] = arc.sweep == 0
    rows, is_arc = _without_crumbs(rows[~empty], (points == 0)[~empty])
    return Line(rows, is_arc, subpath.closed and len(rows) > 0, linear @ subpath.start + shift)


def _without_crumbs(rows: np.ndarray, is_arc: np.ndarray) -> tuple[np.ndarray, np.ndarray]:
    """Return a line's segments (m, 4, 2), and which are arcs, with those sides in one that are too short to be seen."""
    crumbs = ~is_arc & ~rows[:, 2:].any(axis=(1, 2)) & (np.hypot(*rows[:, 1].T) < CRUMB_MM)
    if crumbs.sum() < MANY_CRUMBS:
        return rows, is_arc
    edges = np.flatnonzero(np.diff(np.concatenate([[False], crumbs, [False]]).astype(int)))
    out, keep = rows.copy(), np.ones(len(rows), bool)
    for begin, end in edges.reshape(-1, 2).tolist():
        points = np.append(rows[begin:end, 0], rows[[end - 1], :2].sum(axis=1), axis=0)
        seen = seen_of_chain(points, CRUMB_MM)
        steps = np.diff(points[seen], axis=0)
        stay = begin + seen[:-1]
        keep[begin:end] = False
        keep[stay], out[stay, 1] = steps.any(axis=1), steps
    return (out[keep], is_arc[keep]) if keep.any() else (rows, is_arc)
