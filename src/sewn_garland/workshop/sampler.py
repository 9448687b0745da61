"""The sampler: a small line with a corner of each kind, on which all pieces of a brush lie from start to end."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from ..core.lay import lay
from ..core.making.corners import SIDE_OF, vertex_of
from ..core.reading.svg_lines import line_from_path_data
from ..core.values.brush import Brush, Role
from ..core.values.motif import Motif

LEG_REPEATS = 3  # chosen: enough to see the run between two corners


@dataclass(frozen=True)
class SampledPiece:
    """A piece where it lies: its role, its place among the role's motifs, and its matrix (a, b, c, d, e, f) in mm."""

    role: Role
    variant: int
    matrix: tuple[float, ...]


@dataclass(frozen=True)
class Slot:
    """Where a piece of a role would lie: the middle, in mm, and the turn of the line there, in degrees."""

    role: Role
    x: float
    y: float
    turn_deg: float
    made: bool


@dataclass(frozen=True)
class Sample:
    """All pieces of a brush on the sampler, with its line's path data and the box they lie in (left, top, right, bottom, mm)."""

    pieces: tuple[SampledPiece, ...]
    slots: tuple[Slot, ...]
    path: str
    box: tuple[float, float, float, float]


def sample_of(brush: Brush, pieces: dict[Role, Motif]) -> Sample:
    """Lay a brush along, right round an outside corner, left round an inside one, and on to its end piece.

    ``pieces`` holds the motifs of the roles start, end, outside_corner and inside_corner that
    there are. Each leg's run is laid by itself between what the pieces at its ends take of it.
    """
    size = brush.spacing.size
    longest = max(m.width for m in brush.pieces.repeat) * size
    high = max(m.height for m in brush.pieces.repeat) * size
    take: dict[Role, float] = {"start": 0.0, "end": 0.0, "outside_corner": 0.0, "inside_corner": 0.0}
    for role, motif in pieces.items():
        take[role] = (float(vertex_of(motif, SIDE_OF[role])[0]) if role in SIDE_OF else motif.width) * size
    first = take["start"] + LEG_REPEATS * longest + take["outside_corner"]
    second = take["outside_corner"] + max(2 * longest, 1.6 * high) + take["inside_corner"]
    third = take["inside_corner"] + LEG_REPEATS * longest + take["end"]
    corners = np.array([[0.0, 0.0], [first, 0.0], [first, second], [first + third, second]])
    taken = (take["start"], take["outside_corner"], take["inside_corner"], take["end"])
    out = _runs_between(brush, corners, taken)
    if "start" in pieces:
        out.append(_placed("start", size, (take["start"] / 2, 0.0)))
    if "end" in pieces:
        out.append(_placed("end", size, (first + third - take["end"] / 2, second)))
    for (role, side), place, turn in zip(SIDE_OF.items(), corners[1:3], (0.0, 90.0), strict=True):
        if role in pieces:
            motif = pieces[role]
            off = (np.array([motif.width / 2, motif.base_line]) - vertex_of(motif, side)) * size
            angle = np.radians(turn)
            rotated = np.array([off[0] * np.cos(angle) - off[1] * np.sin(angle), off[0] * np.sin(angle) + off[1] * np.cos(angle)])
            out.append(_placed(role, size, tuple(place + rotated), turn))
    slots = (
        Slot("start", take["start"] / 2, 0.0, 0.0, "start" in pieces),
        Slot("outside_corner", first, 0.0, 45.0, "outside_corner" in pieces),
        Slot("inside_corner", first, second, 45.0, "inside_corner" in pieces),
        Slot("end", first + third - take["end"] / 2, second, 0.0, "end" in pieces),
    )
    path = "M" + "L".join(f"{x:.4f} {y:.4f}" for x, y in corners)
    return Sample(tuple(out), slots, path, (-0.3 * high, -high, first + third + 0.3 * high, second + high))


def _runs_between(brush: Brush, corners: np.ndarray, taken: tuple[float, ...]) -> list[SampledPiece]:
    """Lay the repeat on each leg between ``corners`` (4, 2), less the mm ``taken`` by the pieces that stand there."""
    ease = "size" if brush.spacing.ease == "size" else "gaps"
    plain = brush.changed({"spacing": {"ease": ease}, "ends": {"outside_corner": "through", "inside_corner": "through"}})
    out: list[SampledPiece] = []
    for a, b, before, after in zip(corners[:-1], corners[1:], taken[:-1], taken[1:], strict=True):
        way = (b - a) / np.hypot(*(b - a))
        (x0, y0), (x1, y1) = a + way * before, b - way * after
        (laid,) = lay(plain, [line_from_path_data(f"M{x0} {y0}L{x1} {y1}")])
        placed = zip(laid.pieces.variant, laid.pieces.matrices, strict=True)
        out += [SampledPiece("repeat", int(variant), tuple(matrix.tolist())) for variant, matrix in placed]
    return out


def _placed(role: Role, size: float, at: tuple[float, float], turn_deg: float = 0.0) -> SampledPiece:
    """Place a piece with its base line's middle at a point."""
    cos, sin = np.cos(np.radians(turn_deg)) * size, np.sin(np.radians(turn_deg)) * size
    return SampledPiece(role, 0, (float(cos), float(sin), float(-sin), float(cos), float(at[0]), float(at[1])))
