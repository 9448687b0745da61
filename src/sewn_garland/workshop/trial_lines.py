"""The standing trial lines, drawn in a box of 100 × 70 and scaled to the brush."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from ..core.errors import InputError
from ..core.maths.outlines import cubics_of
from ..core.reading.path_data import subpaths_from_path_data
from ..core.reading.svg_motif import outline_from_subpaths

TRIAL_BOX = (100.0, 70.0)
STEPS_MM = (*(decade * first for decade in (10, 100, 1000) for first in (1, 1.2, 1.5, 2, 2.5, 3, 4, 5, 6, 8)), 10_000)
MOST_REPEATS, LEAST_REPEATS = 14, 9  # across the sheet's box; chosen
HEIGHTS = 26  # across the box; chosen: a piece is as high as a line of text on a sheet among eight


@dataclass(frozen=True)
class TrialLine:
    key: str
    name: str
    path: str


TRIAL_LINES = (
    TrialLine("straight", "Straight", "M8 35H92"),
    TrialLine("wave", "Wave", "M6 35C20 26 36 26 50 35S80 44 94 35"),
    TrialLine("hairpin", "Hairpin", "M10 22H72A13 13 0 0 1 72 48H10"),
    TrialLine("corners", "Square corners", "M4 58H34V12H66V58H96"),
    TrialLine("point", "Sharp point", "M14 60L50 10L86 60"),
    TrialLine("circle", "Circle", "M78 35A28 28 0 0 1 50 63A28 28 0 0 1 22 35A28 28 0 0 1 50 7A28 28 0 0 1 78 35Z"),
    TrialLine(
        "loop", "Wavy loop",
        "M50 10C58 10 60 16 68 14S88 18 86 30S92 44 86 50S70 58 62 56S44 66 36 58S20 56 18 48S8 36 14 28S18 12 28 14S42 10 50 10Z",
    ),
    TrialLine("letter", "Letter", "M67 20C64 11 55 8 49 8C40 8 33 13 33 21C33 41 68 29 68 48C68 57 60 62 50 62C42 62 35 58 32 49"),
)  # fmt: skip


def points_of(path: str) -> np.ndarray:
    """Return the points (n, 2) of a line that can be moved: where its segments meet, a closed line's start once."""
    cubics, closed = _cubics(path)
    ends = np.concatenate([cubics[:1, 0], cubics[:, 3]])
    return ends[:-1] if closed else ends


def reshaped(path: str, points: np.ndarray) -> str:
    """Return a line's path data with its points moved to ``points`` (n, 2); handles go with their points.

    Raises InputError when there are not as many as the line has.
    """
    cubics, closed = _cubics(path)
    own = points_of(path)
    if len(points) != len(own):
        raise InputError(f"this trial line has {len(own)} points, not {len(points)}")
    moved = np.asarray(points, float) - own
    ends = np.concatenate([moved, moved[:1]]) if closed else moved
    cubics = cubics + np.stack([ends[:-1], ends[:-1], ends[1:], ends[1:]], axis=1)
    return _path_of(cubics, closed)


def set_on_sheet(path: str) -> tuple[str, tuple[float, float]]:
    """Return a user's own line moved to a sheet of its own with some room about it, and the sheet's size in mm; its size stays."""
    cubics, closed = _cubics(path)
    low, high = cubics.reshape(-1, 2).min(axis=0), cubics.reshape(-1, 2).max(axis=0)
    room = 2.0 + 0.1 * float((high - low).max())
    width, height = (high - low + 2 * room).tolist()
    return _path_of(cubics - low + room, closed), (width, height)


def _path_of(cubics: np.ndarray, closed: bool) -> str:
    text = [f"M{cubics[0, 0, 0]:.4f} {cubics[0, 0, 1]:.4f}"]
    text += ["C" + " ".join(f"{v:.4f}" for v in cubic[1:].ravel()) for cubic in cubics]
    return "".join(text) + ("Z" if closed else "")


def _cubics(path: str) -> tuple[np.ndarray, bool]:
    """Return a line's segments as cubics (m, 4, 2), straight ones with handles at their thirds, arcs by the reader's own pieces."""
    (sub,) = subpaths_from_path_data(path)
    commands, points = outline_from_subpaths([sub])
    closed = commands.endswith("Z")
    return cubics_of(commands, points, close=closed), closed


def trial_width_mm(pitch: float, *, height: float = 0.0, step: int = 0) -> float:
    """Return how wide the trial sheet's box is for a brush of this pitch and height, in round steps: pieces are large enough to be judged.

    About fourteen repeats, fewer of flat pieces; those much higher than their pitch, such as rope strands, get a wider sheet.
    ``step`` goes that many times further by about a half (or closer, below 0), as far as there are round steps.
    """
    wanted = MOST_REPEATS * max(pitch, 0.9 * height)
    if height > 0:
        wanted = max(min(wanted, HEIGHTS * height), LEAST_REPEATS * pitch)
    usual = int(np.argmin(np.abs(np.log(np.array(STEPS_MM) / max(wanted, STEPS_MM[0])))))
    return float(STEPS_MM[min(max(usual + 2 * step, 0), len(STEPS_MM) - 1)])
