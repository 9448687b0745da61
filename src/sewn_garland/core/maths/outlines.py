"""Outlines out of M L C Z with their points (k, 2): pieces of them, flattened, and to and from the boolean engine."""

from __future__ import annotations

from collections.abc import Iterator

import numpy as np
import pathops

from .curves import bernstein

TAKES = {"M": 1, "L": 1, "C": 3, "Z": 0}
WORKING_EXTENT = 8192.0  # the engine computes in single precision; so large, 0.001 of its units is far below a micrometre
NO_SIDE_MM = 5e-5  # half of what is written of a coordinate: a shorter side would come to nothing
WRITTEN = {pathops.PathVerb.MOVE: "M", pathops.PathVerb.LINE: "L", pathops.PathVerb.QUAD: "C", pathops.PathVerb.CUBIC: "C"}
Outline = tuple[str, np.ndarray]


def subpaths(commands: str, points: np.ndarray) -> Iterator[Outline]:
    """Yield each subpath, from its M on."""
    at = 0
    for part in commands.split("M")[1:]:
        takes = 1 + sum(TAKES[c] for c in part)
        yield "M" + part, points[at : at + takes]
        at += takes


def joined(parts: list[Outline]) -> Outline:
    """Put outlines behind one another; none give an empty outline."""
    if not parts:
        return "", np.zeros((0, 2))
    return "".join(c for c, _ in parts), np.concatenate([p for _, p in parts])


def on_curve(commands: str) -> np.ndarray:
    """Return which points (k,) lie on the curve."""
    flags: list[bool] = []
    for command in commands:
        flags += [False, False, True] if command == "C" else [True] * TAKES[command]
    return np.array(flags, bool)


def cubics_of(commands: str, points: np.ndarray, *, close: bool = True) -> np.ndarray:
    """Return every segment as a cubic (m, 4, 2); straight ones with handles at their thirds.

    ``close`` adds the side that closes a subpath which does not end where it began.
    """
    return owned_cubics(commands, points, close=close)[0]


def owned_cubics(commands: str, points: np.ndarray, *, close: bool = True) -> tuple[np.ndarray, np.ndarray]:
    """Return the segments as ``cubics_of`` does, and which subpath (m,) each belongs to."""
    kinds = np.frombuffer(commands.encode("ascii"), np.uint8)
    moves = np.flatnonzero(kinds == ord("M"))
    if not len(moves):
        return np.zeros((0, 4, 2)), np.zeros(0, int)
    ends = np.cumsum(np.where(kinds == ord("C"), 3, kinds != ord("Z"))) - 1  # the last point that each command takes
    curved, straight = np.flatnonzero(kinds == ord("C")), np.flatnonzero(kinds == ord("L"))
    sides = [(curved, points[ends[curved][:, None] + np.arange(-3, 1)]),
             (straight, _straight(points[ends[straight] - 1], points[ends[straight]]))]  # fmt: skip
    if close:
        stops = np.append(moves[1:], len(kinds)) - 1  # the last command of each subpath
        gaps = np.hypot(*(points[ends[stops]] - points[ends[moves]]).T) > 1e-12
        sides.append((stops[gaps], _straight(points[ends[stops[gaps]]], points[ends[moves[gaps]]])))
    place = np.concatenate([place for place, _ in sides])
    order = np.argsort(place, kind="stable")
    return np.concatenate([cubics for _, cubics in sides])[order], np.searchsorted(moves, place[order], side="right") - 1


def against(commands: str, points: np.ndarray) -> Outline:
    """Return one closed subpath drawn the other way round; a straight side back to its start is left to closing."""
    commands, points = "M" + commands[-2:0:-1] + "Z", points[::-1]
    if commands.endswith("LZ") and np.array_equal(points[0], points[-1]):
        return commands[:-2] + "Z", points[:-1]
    return commands, points


def _straight(a: np.ndarray, b: np.ndarray) -> np.ndarray:
    """Return sides from a (m, 2) to b (m, 2) as cubics."""
    return np.stack([a, a + (b - a) / 3, a + (b - a) * 2 / 3, b], axis=1)


def bezier_at(cubics: np.ndarray, t: np.ndarray) -> np.ndarray:
    """Return the points (m, k, 2) of cubics (m, 4, 2) at parameters t (k,)."""
    return bernstein(np.asarray(t)) @ cubics


def split_cubics(cubics: np.ndarray, t: float | np.ndarray) -> tuple[np.ndarray, np.ndarray]:
    """Split each cubic (m, 4, 2) at its t (scalar or (m,)); return first and second halves."""
    t = np.broadcast_to(np.asarray(t, float), (len(cubics),))[:, None]
    p0, p1, p2, p3 = (cubics[:, i] for i in range(4))
    a, b, c = p0 + (p1 - p0) * t, p1 + (p2 - p1) * t, p2 + (p3 - p2) * t
    d, e = a + (b - a) * t, b + (c - b) * t
    f = d + (e - d) * t
    return np.stack([p0, a, d, f], axis=1), np.stack([f, e, c, p3], axis=1)


def flattened(commands: str, points: np.ndarray, *, tolerance: float) -> list[np.ndarray]:
    """Return each subpath as a polyline (k, 2) within ``tolerance`` mm; closed ones do not repeat their start."""
    out = []
    for part, own in subpaths(commands, points):
        pieces, at, last = [own[:1]], 1, own[0]
        for command in part[1:]:
            if command == "C":
                pieces.append(_sampled(np.vstack([last[None], own[at : at + 3]]), tolerance))
            elif command == "L":
                pieces.append(own[at : at + 1])
            at += TAKES[command]
            last = own[at - 1]
        line = np.concatenate(pieces)
        if part.endswith("Z") and len(line) > 1 and np.hypot(*(line[-1] - line[0])) < 1e-12:
            line = line[:-1]
        out.append(line)
    return out


def _sampled(cubic: np.ndarray, tolerance: float) -> np.ndarray:
    """Sample a cubic evenly so that no chord strays further than tolerance (from its second differences)."""
    bend = np.hypot(*np.abs(np.diff(cubic, 2, axis=0)).max(axis=0))
    count = int(min(512, max(1, np.ceil(np.sqrt(0.75 * bend / tolerance)))))
    return bezier_at(cubic[None], np.arange(1, count + 1) / count)[0]


def area_of(commands: str, points: np.ndarray) -> float:
    """Return the signed area that the subpaths enclose (Green's theorem, exact for cubics); clockwise on screen is positive."""
    return float(swept(cubics_of(commands, points)).sum())


def swept(cubics: np.ndarray) -> np.ndarray:
    """Return half the integral of x dy - y dx over each cubic (m, 4, 2), in closed form; round a closed outline they add up to its area."""
    x, y = cubics[..., 0], cubics[..., 1]
    cross = lambda i, j: x[:, i] * y[:, j] - x[:, j] * y[:, i]  # noqa: E731
    return (6 * cross(0, 1) + 3 * cross(0, 2) + cross(0, 3) + 3 * cross(1, 2) + 3 * cross(1, 3) + 6 * cross(2, 3)) / 20


def working_scale(*points: np.ndarray) -> float:
    """Return the power of two that brings outlines to the engine's working extent."""
    extent = max((float(np.abs(p).max()) for p in points if len(p)), default=1.0) or 1.0
    return float(2.0 ** np.round(np.log2(WORKING_EXTENT / extent)))


def engine_path(commands: str, points: np.ndarray, *, scale: float = 1.0, fill_rule: str = "nonzero") -> pathops.Path:
    """Return the outline as a path of the boolean engine, its points times ``scale``."""
    path = pathops.Path(fillType=pathops.FillType.EVEN_ODD if fill_rule == "evenodd" else pathops.FillType.WINDING)
    places = (points * scale).tolist()
    at = 0
    for command in commands:
        if command == "L":
            path.lineTo(*places[at])
        elif command == "C":
            path.cubicTo(*places[at], *places[at + 1], *places[at + 2])
        elif command == "M":
            path.moveTo(*places[at])
        else:
            path.close()
        at += TAKES[command]
    return path


def outline_from_engine(path: pathops.Path, *, scale: float = 1.0) -> Outline:
    """Return the engine's path as an outline, its points divided by ``scale``; quadratics become cubics."""
    commands: list[str] = []
    points: list[tuple[float, float]] = []
    for verb, own in path:
        if verb == pathops.PathVerb.CLOSE:
            start = points[-1 - sum(TAKES[c] for c in _since_move(commands))]
            if commands[-1] == "L" and max(abs(points[-1][0] - start[0]), abs(points[-1][1] - start[1])) < NO_SIDE_MM * scale:
                del commands[-1], points[-1]  # closing draws that side
            commands.append("Z")
            continue
        commands.append(WRITTEN[verb])
        if verb == pathops.PathVerb.QUAD:
            (ax, ay), (bx, by), (sx, sy) = *own, points[-1]
            own = ((sx + (ax - sx) * 2 / 3, sy + (ay - sy) * 2 / 3), (bx + (ax - bx) * 2 / 3, by + (ay - by) * 2 / 3), (bx, by))
        points += own
    return "".join(commands), np.array(points, float).reshape(-1, 2) / scale


def _since_move(commands: list[str]) -> list[str]:
    """Return the commands after the last M."""
    at = len(commands)
    while commands[at - 1] != "M":
        at -= 1
    return commands[at:]
