"""Merge curves that follow one another smoothly into fewer: what an engine hands over in many short pieces."""

from __future__ import annotations

import numpy as np

from .fitting import one_cubic
from .outlines import TAKES, Outline, bezier_at, joined, subpaths

SMOOTH = np.cos(0.02)  # radians, chosen: pieces that turn by more at their joint meet in a corner
SAMPLES = np.linspace(0, 1, 7)[1:]  # of each piece; chosen: what is fitted to them strays no further between


def merged(commands: str, points: np.ndarray, *, tolerance: float) -> Outline:
    """Return an outline with its runs of smoothly joined cubics fitted by fewer, which stray by at most ``tolerance`` mm.

    Straight sides, corners and the ends of runs stay where they are, and so do the directions there.
    """
    return joined([_merged_subpath(part, own, tolerance) for part, own in subpaths(commands, points)])


def _merged_subpath(commands: str, points: np.ndarray, tolerance: float) -> Outline:
    out, run = [("M", points[:1])], np.zeros((0, 4, 2))
    at = 1
    for command in commands[1:]:
        if command == "C":
            cubic = points[at - 1 : at + 3]
            if len(run) and not _smooth(run[-1], cubic):
                out.append(_fewer(run, tolerance))
                run = run[:0]
            run = np.concatenate([run, cubic[None]])
        else:
            out.append(_fewer(run, tolerance))
            out.append((command, points[at : at + TAKES[command]]))
            run = run[:0]
        at += TAKES[command]
    return joined([*out, _fewer(run, tolerance)])


def _smooth(before: np.ndarray, after: np.ndarray) -> bool:
    """Tell whether one cubic (4, 2) goes on in the direction in which the other ends; not where either has none."""
    into, onward = before[3] - before[2], after[1] - after[0]
    size = np.hypot(*into) * np.hypot(*onward)
    return bool(size > 0 and into @ onward > SMOOTH * size)


def _fewer(run: np.ndarray, tolerance: float) -> Outline:
    """Return a run of cubics (m, 4, 2) as fewer, without the point it begins at: each as many of them as one cubic can stand for."""
    out: list[np.ndarray] = []
    begin, like = 0, 2
    while begin < len(run):
        cubic, like = _longest(run[begin:], tolerance, like)
        out.append(cubic)
        begin += like
    return "C" * len(out), np.concatenate([np.zeros((0, 2)), *(cubic[1:] for cubic in out)])


def _longest(run: np.ndarray, tolerance: float, like: int) -> tuple[np.ndarray, int]:
    """Return one cubic for as much of a run's beginning as it can stand for, and how many that are; ``like`` as many are tried first."""
    best, held, least_too_many = run[0], 1, len(run) + 1
    taken = min(max(2, like), len(run))
    while held < taken < least_too_many:
        cubic = _as_one(run[:taken], tolerance)
        if cubic is None:
            least_too_many = taken
        else:
            best, held = cubic, taken
        # a half more while nothing was too many, then between what held and what was too many
        taken = min(held + max(1, held // 2), len(run)) if least_too_many > len(run) else (held + least_too_many) // 2
    return best, held


def _as_one(run: np.ndarray, tolerance: float) -> np.ndarray | None:
    """Return one cubic for a run, with its directions at both ends; None where it strays further than tolerance."""
    first, last = run[0, 1] - run[0, 0], run[-1, 2] - run[-1, 3]
    sizes = np.hypot(*first), np.hypot(*last)
    if not all(sizes):
        return None
    dense = np.concatenate([run[0, :1], bezier_at(run, SAMPLES).reshape(-1, 2)])
    cubic, miss = one_cubic(dense, _parameters(run), first / sizes[0], last / sizes[1], tolerance=tolerance)
    return cubic if miss <= tolerance else None


def _parameters(run: np.ndarray) -> np.ndarray:
    """Return the parameters of the samples (6 m + 1,) on one curve that goes on as fast as it came at every joint of the run."""
    onward, into = (np.hypot(*(run[:, k + 1] - run[:, k]).T) for k in (0, 2))
    length = np.cumprod(np.concatenate([[1.0], onward[1:] / into[:-1]]))
    ends = np.concatenate([[0.0], np.cumsum(length)])
    inner = ends[:-1, None] + length[:, None] * SAMPLES
    return np.concatenate([[0.0], inner.ravel()]) / ends[-1]
