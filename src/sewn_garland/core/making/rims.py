"""Work on an outline's rim: thin its points, fray it, turn strokes into shapes."""

from __future__ import annotations

from dataclasses import replace

import numpy as np

from ..errors import InputError
from ..maths.fitting import fitted
from ..maths.outlines import flattened, joined, subpaths
from ..maths.streams import uniforms
from ..values.motif import Shape

CORNER_FROM = np.radians(32.0)  # chosen: sharper turns are kept as corners when points are thinned
MOST_TUFTS = 4_000
RIM_STEP_MM = 0.8  # between places of a frayed rim at most; chosen: rims keep their form


def thinned(shape: Shape, tolerance_mm: float) -> Shape:
    """Return the shape with the fewest points found that keep its outline within ``tolerance_mm``.

    A subpath that would not lose any points stays as it is.
    """
    if shape.picture is not None:
        return shape
    parts = []
    for commands, points in subpaths(shape.commands, shape.points):
        closed = commands.endswith("Z")
        line = flattened(commands, points, tolerance=tolerance_mm / 4)[0]
        new = fitted(_dense(line, tolerance_mm, closed), tolerance=tolerance_mm * 0.7, closed=closed, corner_from=CORNER_FROM)
        fewer = new[0] and len(new[0]) < len(commands)
        parts.append(new if fewer else (commands, points))
    commands, points = joined(parts)
    return replace(shape, commands=commands, points=points)


def _dense(line: np.ndarray, tolerance: float, closed: bool) -> np.ndarray:
    """Return the polyline with points added on long sides, so that a fit cannot stray between them."""
    ring = np.vstack([line, line[:1]]) if closed else line
    size = np.hypot(*np.diff(ring, axis=0).T)
    s = np.concatenate([[0.0], np.cumsum(size)])
    if s[-1] <= 0:
        return line
    extra = np.linspace(0, s[-1], int(np.clip(s[-1] / (8 * tolerance), 8, 4000)), endpoint=False)
    at = np.unique(np.concatenate([s[:-1] if closed else s, extra]))
    return np.stack([np.interp(at, s, ring[:, d]) for d in (0, 1)], axis=1)


def frayed(shape: Shape, *, depth_mm: float, tufts_per_cm: float, snapped: bool, seed: int) -> Shape:
    """Make the outline ragged: tufts stand out up to ``depth_mm``, with shallow notches between.

    Soft tufts are rounded, ``snapped`` ones pointed. The same seed gives the same rim. Raises
    InputError for a stroke without fill and for more tufts than an outline may have.
    """
    if shape.fill is None:
        raise InputError("only filled shapes can be frayed; turn the stroke into a shape first")
    parts = []
    for number, line in enumerate(flattened(shape.commands, shape.points, tolerance=0.01)):
        ring = np.vstack([line, line[:1]])
        s = np.concatenate([[0.0], np.cumsum(np.hypot(*np.diff(ring, axis=0).T))])
        count = round(s[-1] / 10 * tufts_per_cm)
        if count > MOST_TUFTS:
            raise InputError(f"{count} tufts are more than the {MOST_TUFTS} an outline may have; take fewer per cm")
        if count < 3:
            parts.append(("M" + "L" * (len(line) - 1) + "Z", line))
            continue
        random = uniforms(seed, f"fray {number}", 4 * count).reshape(4, count)
        step = s[-1] / count
        peak = (np.arange(count) + 0.3 * (random[0] - 0.5)) * step
        notch = (np.arange(count) + 0.5 + 0.3 * (random[1] - 0.5)) * step
        at = np.stack([peak, notch], axis=1).ravel()
        lift = np.stack([depth_mm * (0.35 + 0.65 * random[2]), -0.35 * depth_mm * random[3]], axis=1).ravel()
        at, lift = _filled_in(at, lift, s[-1], step / 2, snapped)
        place, ahead = _on(ring, s, at), _on(ring, s, (at + step / 8) % s[-1]) - _on(ring, s, (at - step / 8) % s[-1])
        size = np.hypot(*ahead.T)[:, None]
        normal = np.stack([ahead[:, 1], -ahead[:, 0]], axis=1) / np.where(size > 0, size, 1)
        outward = 1.0 if _clockwise(line) else -1.0
        ragged = place + normal * (lift * outward)[:, None]
        parts.append(("M" + "L" * (len(ragged) - 1) + "Z", ragged) if snapped else _rounded(ragged))
    commands, points = joined(parts)
    return replace(shape, commands=commands, points=points)


def _filled_in(at: np.ndarray, lift: np.ndarray, length: float, step: float, snapped: bool) -> tuple[np.ndarray, np.ndarray]:
    """Return places along a closed rim and how far each stands out; some are added between tufts far apart, to keep the rim's form."""
    many = int(np.clip(np.ceil(step / RIM_STEP_MM), 1, 12))
    share = np.arange(many) / many
    rise = share if snapped else (1 - np.cos(np.pi * share)) / 2
    following, next_lift = np.append(at[1:], at[0] + length), np.roll(lift, -1)
    places = at[:, None] + (following - at)[:, None] * share
    lifts = lift[:, None] + (next_lift - lift)[:, None] * rise
    return places.ravel() % length, lifts.ravel()


def _on(ring: np.ndarray, s: np.ndarray, at: np.ndarray) -> np.ndarray:
    return np.stack([np.interp(at, s, ring[:, d]) for d in (0, 1)], axis=1)


def _clockwise(line: np.ndarray) -> bool:
    x, y = line.T
    return float((x * np.roll(y, -1) - y * np.roll(x, -1)).sum()) > 0


def _rounded(points: np.ndarray) -> tuple[str, np.ndarray]:
    """Return a closed curve that flows through points, its handles a sixth of the way between neighbours (Catmull–Rom)."""
    handle = (np.roll(points, -1, axis=0) - np.roll(points, 1, axis=0)) / 6
    following = np.roll(points, -1, axis=0)
    cubics = np.stack([points + handle, following - np.roll(handle, -1, axis=0), following], axis=1)
    return "M" + "C" * len(points) + "Z", np.vstack([points[:1], cubics.reshape(-1, 2)])
