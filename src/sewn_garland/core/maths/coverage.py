"""What outlines cover, by sections along parallel lines; independent of the boolean engine."""

from __future__ import annotations

from collections.abc import Callable, Sequence

import numpy as np

from .outlines import Outline, against, bezier_at, cubics_of, joined, owned_cubics, subpaths, swept
from .ragged import ranges

LINES = 256  # chosen: what is wrong and thicker than a 256th of the whole is seen
SLANT = 0.3217  # radians, chosen: sides that lie along the lines are rare
MOST_CHORDS = 64
CHORD_REL_TOL = 1e-5  # of the extent


def mismatch(outlines: Sequence[tuple[str, np.ndarray, str]], result: Outline, wanted: Callable[[np.ndarray], np.ndarray]) -> float:
    """Return the area between a result and what is wanted of outlines, as a share of their extent squared.

    Outlines are (commands, points (k, 2), fill rule). ``wanted`` takes which outlines cover
    (events, outlines) and returns where the result should cover (events,). The area is estimated
    from 256 sections (Cavalieri); outlines without extent have none. The result is read by the non-zero rule.
    """
    every = [*outlines, (*result, "nonzero")]
    chords = [_chords(cubics_of(commands, points))[0] for commands, points, _ in every]
    x, y = (np.concatenate([own[:, :, axis].ravel() for own in chords]) for axis in (0, 1))
    extent = max(float(np.ptp(x)), float(np.ptp(y))) if len(x) else 0.0
    left, right = x.min(initial=np.inf), x.max(initial=-np.inf)
    if not right > left:
        return 0.0
    at = left + (right - left) * (np.arange(LINES) + 0.5) / LINES
    owner = np.repeat(np.arange(len(every)), [len(own) for own in chords])
    line, y, sign, which = _crossings(np.concatenate(chords), at)
    order = np.lexsort((y, line))
    turns = np.zeros((len(order), len(every)), np.int64)
    turns[np.arange(len(order)), owner[which[order]]] = sign[order]
    winding = np.cumsum(turns, axis=0)  # closed outlines come back to 0 before the next line
    covers = np.where([rule == "evenodd" for _, _, rule in every], winding % 2, winding) != 0
    wrong = wanted(covers[:, :-1]) != covers[:, -1]
    steps = np.diff(y[order], append=0.0)
    return float(np.abs(steps[wrong]).sum()) * (right - left) / LINES / extent**2


def wound(commands: str, points: np.ndarray) -> Outline:
    """Turn the subpaths of an even-odd outline that do not cross so that the non-zero rule covers the same.

    Outer rims run clockwise on screen, holes against them. Every subpath must end in Z.
    """
    cubics, part_of = owned_cubics(commands, points)
    if not len(cubics):
        return commands, points
    parts = list(subpaths(commands, points))
    area = np.bincount(part_of, swept(cubics), len(parts))
    chords, cubic = _chords(cubics)
    owner = part_of[cubic]
    order = np.lexsort((np.abs(chords[:, 1, 0] - chords[:, 0, 0]), owner))
    widest = order[np.searchsorted(owner[order], np.arange(len(parts)), side="right") - 1]  # each subpath's chord that is easiest to hit
    middle = chords[widest].mean(axis=1)
    order = np.argsort(middle[:, 0])
    line, y, _, which = _crossings(chords, middle[order, 0])
    about = order[line]
    over = (y < middle[about, 1]) & (owner[which] != about)
    depth = np.bincount(about[over], minlength=len(parts))
    return joined([part if (a > 0) == (d % 2 == 0) else against(*part) for part, a, d in zip(parts, area, depth, strict=True)])


def _chords(cubics: np.ndarray) -> tuple[np.ndarray, np.ndarray]:
    """Return cubics (m, 4, 2) as chords (n, 2, 2) turned by the slant, all curves cut evenly, and which cubic (n,) each is of."""
    if not len(cubics):
        return np.zeros((0, 2, 2)), np.zeros(0, int)
    cos, sin = np.cos(SLANT), np.sin(SLANT)
    cubics = cubics @ np.array([[cos, sin], [-sin, cos]])
    bend = np.hypot(*np.maximum(*np.abs(np.diff(cubics, 2, axis=1)).transpose(1, 2, 0)))
    extent = float(np.ptp(cubics.reshape(-1, 2), axis=0).max()) or 1.0
    counts = np.clip(np.sqrt(0.75 * bend / (CHORD_REL_TOL * extent)), 1, MOST_CHORDS)
    doublings = np.ceil(np.log2(counts)).astype(int)
    chords, owner = [], []
    for times in np.unique(doublings):
        own = np.flatnonzero(doublings == times)
        at = bezier_at(cubics[own], np.linspace(0, 1, 2**times + 1))
        chords.append(np.stack([at[:, :-1], at[:, 1:]], axis=2).reshape(-1, 2, 2))
        owner.append(np.repeat(own, 2**times))
    return np.concatenate(chords), np.concatenate(owner)


def _crossings(chords: np.ndarray, at: np.ndarray) -> tuple[np.ndarray, np.ndarray, np.ndarray, np.ndarray]:
    """Return line (n,), height (n,), direction (n,) and chord (n,) of every crossing with the upright lines at rising x (k,)."""
    a, b = chords[:, 0], chords[:, 1]
    first, last = (np.searchsorted(at, end(a[:, 0], b[:, 0])) for end in (np.minimum, np.maximum))
    counts = last - first
    which = np.repeat(np.arange(len(chords)), counts)
    line = ranges(first, counts)
    a, b = a[which], b[which]
    share = (at[line] - a[:, 0]) / (b[:, 0] - a[:, 0])
    return line, a[:, 1] + share * (b[:, 1] - a[:, 1]), np.where(b[:, 0] > a[:, 0], 1, -1), which
