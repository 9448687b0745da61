"""Lay what closes the seams between pictures that meet below all pieces: a little of both, where each fades into the other."""

from __future__ import annotations

from dataclasses import dataclass, replace

import numpy as np

from ..artwork.picture_laps import lap_shares, lapping
from ..values.drawing import PaintedPieces
from ..values.laid import LaidLine
from ..values.motif import Motif
from ..values.outlines import BisectorCuts, PictureMeshes, ShapedOutlines, put_together
from .as_one import MOST_PIECES
from .laps import seams_of

NO_OUTLINES = ShapedOutlines(
    np.zeros((0, 2)), np.zeros(1, int), np.zeros(0, bool), np.zeros(0, int), np.zeros(0, int), np.zeros(0, bool), np.zeros(0, int),
    np.zeros(0, int), np.zeros(0, int),
)  # fmt: skip


@dataclass(frozen=True, eq=False)
class PictureLaps:
    """k laps: ``of`` (k,) are the pieces at whose motifs' right edges they lie, bent ones on ``meshes``."""

    of: np.ndarray
    meshes: tuple[PictureMeshes, ...]

    def pushed(self, cuts: BisectorCuts) -> BisectorCuts:
        """Return cuts of pieces that come after the laps."""
        return replace(cuts, piece=cuts.piece + len(self.of))


def picture_laps(item: PaintedPieces, laid: LaidLine) -> PictureLaps | None:
    """Return the laps of a laid line's pictures that meet others of their kind; None where there are none."""
    pictured = np.array([len(lapping(motif)) > 0 for motif in item.artwork], bool)
    if not pictured.any() or len(item.motif) > MOST_PIECES:
        return None
    found = seams_of(item, laid, pictured[item.motif] & ~item.mirrored)
    if found is None:
        return None
    ahead = (item.matrices[found.first, :2] * found.direction).sum(axis=1) > 0  # turned ones meet the other way round
    of, after = np.where(ahead, found.first, found.second), np.where(ahead, found.second, found.first)
    bent = item.shaped[of] | item.shaped[after]
    meshes = _meshes(item, of, after) if bent.any() else ()
    drawn = np.bincount(np.concatenate([np.zeros(0, int), *(mesh.piece for mesh in meshes)]), minlength=len(of))
    every = np.array([len(lapping(motif)) for motif in item.artwork])[item.motif[of]]
    covered = np.where(bent, drawn == every, True)
    number = np.where(covered, np.cumsum(covered) - 1, -1)
    kept = [replace(mesh, piece=number[mesh.piece]) for mesh in meshes]
    return PictureLaps(of[covered], tuple(mesh.some(mesh.piece >= 0) for mesh in kept)) if covered.any() else None


def with_laps_first(item: PaintedPieces, laps: PictureLaps, artwork: tuple[Motif, ...], which: np.ndarray) -> PaintedPieces:
    """Return pieces with laps below them; ``artwork`` is of both, ``which`` (k + n,) says which each has."""
    rows = np.concatenate([laps.of, np.arange(len(item.motif))])
    bent = np.unique(np.concatenate([np.zeros(0, int), *(mesh.piece for mesh in laps.meshes)]))
    below = replace(NO_OUTLINES, pieces=bent, meshes=laps.meshes)
    outlines = put_together([(below, 0), (item.outlines or NO_OUTLINES, len(laps.of))]) if len(bent) or item.outlines else None
    return PaintedPieces(
        artwork, which, item.matrices[rows], outlines, item.opacity if item.opacity is None else item.opacity[rows], item.blend,
        item.colours and item.colours.some(rows),
    )  # fmt: skip


def _meshes(item: PaintedPieces, of: np.ndarray, after: np.ndarray) -> tuple[PictureMeshes, ...]:
    """Return the meshes of laps, numbered as the pieces ``of`` (k,) come, where both they and those ``after`` are bent as finely."""
    outlines, out = item.outlines, []
    grids: dict[tuple[int, ...], list[PictureMeshes]] = {}
    for mesh in outlines.meshes if outlines else ():
        grids.setdefault(mesh.points.shape[1:], []).append(mesh)
    for alike in grids.values():
        points, piece, shape = (np.concatenate([getattr(mesh, name) for mesh in alike]) for name in ("points", "piece", "shape"))
        for motif in np.unique(item.motif[of]):
            for lap, number in enumerate(lapping(item.artwork[motif])):
                row = np.full(len(item.motif), -1)
                own = shape == number
                row[piece[own]] = np.flatnonzero(own)
                k = np.flatnonzero((item.motif[of] == motif) & (row[of] >= 0) & (row[after] >= 0))
                share, rim = lap_shares(item.artwork[motif].shapes[number])
                first, second = (_within_rims(points[row[some[k]]], rim) for some in (of, after))
                column = np.stack([_column(first, 1 - share), _column(second, 0.0), _column(second, share)], axis=2)
                out.append(PictureMeshes(column, k, np.full(len(k), lap)))
    return tuple(mesh for mesh in out if len(mesh.piece))


def _within_rims(meshes: np.ndarray, rim: float) -> np.ndarray:
    """Return meshes (q, rows + 1, columns + 1, 2) between two shares of their pictures' height, as many rows evenly."""
    return np.stack([_column(meshes.swapaxes(1, 2), at) for at in np.linspace(rim, 1 - rim, meshes.shape[1])], axis=1)


def _column(meshes: np.ndarray, share: float) -> np.ndarray:
    """Return the points (q, rows + 1, 2) of meshes at a share of their pictures' length."""
    cells = meshes.shape[2] - 1
    cell = min(int(share * cells), cells - 1)
    part = share * cells - cell
    return meshes[:, :, cell] * (1 - part) + meshes[:, :, cell + 1] * part
