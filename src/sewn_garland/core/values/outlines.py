"""Outlines of pieces that are not stamped but shaped: bent, stretched or clipped."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace

import numpy as np

from ..maths.curves import as_complex, as_points
from ..maths.ragged import heads, owners, picked
from .arrays import freeze_arrays


@dataclass(frozen=True, eq=False)
class PictureMeshes:
    """q bent pictures: ``points`` (q, rows + 1, columns + 1, 2) on the page, evenly over each picture from its top left.

    Between them a picture is drawn straight. ``piece`` and ``shape`` (q,) as for contours.
    """

    points: np.ndarray
    piece: np.ndarray
    shape: np.ndarray

    def __post_init__(self) -> None:
        freeze_arrays(self)

    def some(self, rows: np.ndarray) -> PictureMeshes:
        """Return some of the pictures, by rows or by a mask."""
        return PictureMeshes(self.points[rows], self.piece[rows], self.shape[rows])


@dataclass(frozen=True, eq=False)
class ShapedOutlines:
    """c contours on the page, each a first point and three a cubic: ``points`` (m, 2) from ``starts`` (c + 1,) on.

    ``closed`` (c,), the ``piece`` (c,) of its line and the ``shape`` (c,) of that piece's motif that
    each contour belongs to; in the order of pieces, shapes and contours. ``pieces`` (p,), rising, are
    those that are shaped, also where nothing is left of one; the others are stamped. No contours
    are empty arrays with ``starts`` [0]. ``meshes`` are the pictures of shaped pieces.

    ``outlined`` (o,), rising, are the pieces whose strokes are filled outlines, ``stroked`` (c,), in the stroke's paint; those of
    the others are drawn along their contours. ``cut`` (q,), rising, are those of them that were cut on a bisector: contours
    of their pictures say what is seen of these.
    """

    points: np.ndarray
    starts: np.ndarray
    closed: np.ndarray
    piece: np.ndarray
    shape: np.ndarray
    stroked: np.ndarray
    pieces: np.ndarray
    outlined: np.ndarray
    cut: np.ndarray
    meshes: tuple[PictureMeshes, ...] = ()

    def __post_init__(self) -> None:
        freeze_arrays(self)

    def split(self, edges: Sequence[int]) -> list[ShapedOutlines]:
        """Return the contours of the pieces from each of ``edges``, rising, up to the next; each part's are numbered from 0."""
        of_contour, of_shaped, of_outlined, of_cut = (
            np.searchsorted(column, edges).tolist() for column in (self.piece, self.pieces, self.outlined, self.cut)
        )
        parts = []
        for i, first in enumerate(edges[:-1]):
            own, shaped, outlined, cut = (slice(*places[i : i + 2]) for places in (of_contour, of_shaped, of_outlined, of_cut))
            starts = self.starts[own.start : own.stop + 1]
            begun = int(starts[0])
            parts.append(ShapedOutlines(
                self.points[begun : starts[-1]], starts - begun, self.closed[own], self.piece[own] - first, self.shape[own],
                self.stroked[own], self.pieces[shaped] - first, self.outlined[outlined] - first, self.cut[cut] - first,
                tuple(_meshes_of(mesh, first, edges[i + 1]) for mesh in self.meshes),
            ))  # fmt: skip
        return parts

    def some(self, contours: np.ndarray, piece: np.ndarray, shape: np.ndarray) -> ShapedOutlines:
        """Return some of the contours, a mask (c,), of pieces and shapes numbered anew.

        ``piece`` (n,) gives every piece its new number, −1 where it goes, ``shape`` (n, most shapes) likewise every shape's.
        """
        first, count = self.starts[:-1][contours], np.diff(self.starts)[contours]
        own, of = self.piece[contours], self.shape[contours]
        renumbered = {name: (new := piece[getattr(self, name)])[new >= 0] for name in ("pieces", "outlined", "cut")}
        meshes = []
        for mesh in self.meshes:
            new = shape[mesh.piece, mesh.shape]
            kept = new >= 0
            meshes.append(PictureMeshes(mesh.points[kept], piece[mesh.piece[kept]], new[kept]))
        points, starts = as_points(picked(as_complex(self.points), first, count)), np.append(0, np.cumsum(count))
        return ShapedOutlines(
            points, starts, self.closed[contours], piece[own], shape[own, of], self.stroked[contours], meshes=tuple(meshes), **renumbered,
        )  # fmt: skip


NOTHING = np.zeros(0, int)


@dataclass(frozen=True, eq=False)
class BisectorCuts:
    """Where pieces end on the bisectors of mitred corners, a row (k,) a cut, in the order of pieces.

    ``vertex`` (k, 2) lies on the bisector, the unit direction ``away`` (k, 2) is square to it and leaves
    what is kept of the ``piece`` (k,). A piece may have several.
    """

    piece: np.ndarray
    vertex: np.ndarray
    away: np.ndarray

    def __post_init__(self) -> None:
        freeze_arrays(self)

    def some(self, rows: np.ndarray) -> BisectorCuts:
        """Return some of the cuts, by rows or by a mask."""
        return BisectorCuts(self.piece[rows], self.vertex[rows], self.away[rows])

    def split(self, edges: Sequence[int]) -> list[BisectorCuts]:
        """Return the cuts of the pieces from each of ``edges``, rising, up to the next; each part's are numbered from 0."""
        if not len(self.piece):
            return [self] * (len(edges) - 1)
        places = np.searchsorted(self.piece, edges).tolist()
        own = [slice(*places[i : i + 2]) for i in range(len(edges) - 1)]
        return [BisectorCuts(self.piece[o] - first, self.vertex[o], self.away[o]) for o, first in zip(own, edges, strict=False)]


def _meshes_of(mesh: PictureMeshes, first: int, last: int) -> PictureMeshes:
    own = (mesh.piece >= first) & (mesh.piece < last)
    return replace(mesh.some(own), piece=mesh.piece[own] - first)


def put_together(parts: Sequence[tuple[ShapedOutlines, int]]) -> ShapedOutlines:
    """Put outlines behind one another, each with the number that its pieces are counted on from."""
    offsets = np.cumsum([0, *(len(o.points) for o, _ in parts)])
    starts = np.concatenate([*(o.starts[:-1] + offset for (o, _), offset in zip(parts, offsets, strict=False)), offsets[-1:]])
    pieces = {name: np.concatenate([getattr(o, name) + begin for o, begin in parts]) for name in ("piece", "pieces", "outlined", "cut")}
    rest = {name: np.concatenate([getattr(o, name) for o, _ in parts]) for name in ("points", "closed", "shape", "stroked")}
    meshes = tuple(replace(mesh, piece=mesh.piece + begin) for o, begin in parts for mesh in o.meshes)
    return ShapedOutlines(starts=starts, **pieces, **rest, meshes=meshes)


def contours_in_order(parts: Sequence[tuple[ShapedOutlines, np.ndarray]], order: np.ndarray) -> dict[str, np.ndarray]:
    """Return the columns of some contours, rows of each part, where ``order`` puts them among those of all the parts."""
    names = ("piece", "shape", "closed", "stroked")
    columns = {name: np.concatenate([getattr(part, name)[rows] for part, rows in parts])[order] for name in names}
    many = [np.diff(part.starts)[rows] for part, rows in parts]
    own = [picked(as_complex(part.points), part.starts[:-1][rows], count) for (part, rows), count in zip(parts, many, strict=True)]
    counts = np.concatenate(many)
    points = picked(np.concatenate(own), heads(counts)[order], counts[order])
    return {"points": as_points(points), "starts": np.append(0, np.cumsum(counts[order])), **columns}


def merged(parts: Sequence[ShapedOutlines]) -> ShapedOutlines:
    """Put outlines of different pieces together, in the order of pieces; a later part takes the place of an earlier one's piece."""
    taken = np.zeros(1 + max(int(part.pieces.max(initial=-1)) for part in parts), bool)
    kept: list[tuple[ShapedOutlines, np.ndarray]] = []
    for part in reversed(parts):
        kept.append((part, np.flatnonzero(~taken[part.piece])))
        taken[part.pieces] = True
    owner, every = owners(np.array([len(rows) for _, rows in kept])), np.concatenate([rows for _, rows in kept])
    piece, shape = (np.concatenate([getattr(part, name)[rows] for part, rows in kept]) for name in ("piece", "shape"))
    columns = contours_in_order(kept, np.lexsort((every, owner, shape, piece)))
    outlined, cut = (np.unique(np.concatenate([getattr(part, name) for part in parts])) for name in ("outlined", "cut"))
    meshes = tuple(mesh for part in parts for mesh in part.meshes)
    return ShapedOutlines(**columns, pieces=np.flatnonzero(taken), outlined=outlined, cut=cut, meshes=meshes)
