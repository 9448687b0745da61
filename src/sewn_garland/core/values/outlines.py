"""Outlines of pieces that are not stamped but shaped: bent, stretched or clipped."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

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


@dataclass(frozen=True, eq=False)
class ShapedOutlines:
    """c contours on the page, each a first point and three a cubic: ``points`` (m, 2) from ``starts`` (c + 1,) on.

    ``closed`` (c,), the ``piece`` (c,) of its line and the ``shape`` (c,) of that piece's motif that
    each contour belongs to; in the order of pieces, shapes and contours. ``pieces`` (p,), rising, are
    those that are shaped, also where nothing is left of one; the others are stamped. No contours
    are empty arrays with ``starts`` [0]. ``meshes`` are the pictures of shaped pieces.

    ``cut`` (q,), rising, are the pieces that were cut on a bisector. Their strokes are filled outlines,
    ``stroked`` (c,), in the stroke's paint; contours of their pictures say what is seen of these.
    """

    points: np.ndarray
    starts: np.ndarray
    closed: np.ndarray
    piece: np.ndarray
    shape: np.ndarray
    stroked: np.ndarray
    pieces: np.ndarray
    cut: np.ndarray
    meshes: tuple[PictureMeshes, ...] = ()

    def __post_init__(self) -> None:
        freeze_arrays(self)

    def of_pieces(self, first: int, last: int) -> ShapedOutlines:
        """Return the contours of the pieces from ``first`` up to ``last``, which are numbered from 0 then."""
        a, b = np.searchsorted(self.piece, (first, last))
        starts = self.starts[a : b + 1]
        c, d = np.searchsorted(self.pieces, (first, last))
        e, f = np.searchsorted(self.cut, (first, last))
        return ShapedOutlines(
            self.points[starts[0] : starts[-1]], starts - starts[0], self.closed[a:b], self.piece[a:b] - first, self.shape[a:b],
            self.stroked[a:b], self.pieces[c:d] - first, self.cut[e:f] - first,
            tuple(_meshes_of(mesh, first, last) for mesh in self.meshes),
        )  # fmt: skip


@dataclass(frozen=True, eq=False)
class Cuts:
    """Where pieces end on the bisectors of mitred corners, a row (k,) a cut, in the order of pieces.

    ``vertex`` (k, 2) lies on the bisector, the unit direction ``away`` (k, 2) is square to it and leaves
    what is kept of the ``piece`` (k,). A piece may have several.
    """

    piece: np.ndarray
    vertex: np.ndarray
    away: np.ndarray

    def __post_init__(self) -> None:
        freeze_arrays(self)

    def some(self, rows: np.ndarray) -> Cuts:
        """Return some of the cuts, by rows or by a mask."""
        return Cuts(self.piece[rows], self.vertex[rows], self.away[rows])

    def of_pieces(self, first: int, last: int) -> Cuts:
        """Return the cuts of the pieces from ``first`` up to ``last``, which are numbered from 0 then."""
        own = slice(*np.searchsorted(self.piece, (first, last)))
        return Cuts(self.piece[own] - first, self.vertex[own], self.away[own])


def _meshes_of(mesh: PictureMeshes, first: int, last: int) -> PictureMeshes:
    own = (mesh.piece >= first) & (mesh.piece < last)
    return PictureMeshes(mesh.points[own], mesh.piece[own] - first, mesh.shape[own])
