"""Corner pieces fitted to their angle, and pieces clipped on a corner's bisector."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace
from functools import lru_cache

import numpy as np

from ..artwork.contours import contours_of
from ..maths.contours import joined_cubics
from ..maths.curves import as_complex, as_points
from ..maths.halves import kept_side, split_where
from ..maths.ragged import owners, ranges, run_heads
from ..values.motif import Motif
from ..values.outlines import BisectorCuts, ShapedOutlines


def fitted_corners(
    motif: Motif,
    allowance: tuple[float, float],
    piece: np.ndarray,
    vertex: np.ndarray,
    into: np.ndarray,
    out: np.ndarray,
    stretch: np.ndarray,
    size: np.ndarray,
    side: np.ndarray,
) -> ShapedOutlines:
    """Fit a piece drawn for a right angle to n corners: split along its diagonal, each half stretched along its leg.

    The line enters the piece at its left and turns at ``allowance`` mm from the left edge, on the
    base line. ``vertex``, ``into``, ``out`` (n, 2) are the corners and the directions of their legs,
    ``stretch`` (n,) is tan(θ/2), ``size`` (n,) the factor on the motif, ``side`` (n,) 1 for right turns
    and −1 for left ones; ``piece`` (n,) numbers the pieces. The map is one affine map on each side of the diagonal and both agree on it.
    """
    _, contour, shapes, closed, stroked = contours_of(motif, strokes=True)
    made = []
    for sign in np.unique(side):
        rows = np.flatnonzero(side == sign)
        parts, own, half = _on_diagonal(motif, allowance[0], float(sign))
        x, y = parts[..., 0], parts[..., 1]
        scale = size[rows, None, None, None]
        t, i, o = stretch[rows, None, None, None], into[rows, None, None], out[rows, None, None]
        right_i, right_o = np.stack([-i[..., 1], i[..., 0]], axis=-1), np.stack([-o[..., 1], o[..., 0]], axis=-1)
        entering = t * x[..., None] * i + y[..., None] * right_i
        leaving = sign * t * y[..., None] * o - sign * x[..., None] * right_o
        placed = vertex[rows, None, None] + scale * np.where((half < 0)[None, :, None, None], entering, leaving)
        n, m = len(rows), len(parts)
        keys = np.stack([np.repeat(piece[rows], m), np.tile((2 * shapes + stroked)[contour[own]], n), np.tile(contour[own], n)], axis=1)
        made.append((placed.reshape(-1, 4, 2), keys))
    cubics, keys = (np.concatenate(columns) for columns in zip(*made, strict=True))
    return _assembled(cubics, keys, closed[keys[:, 2]], pieces=np.unique(keys[:, 0]))


@lru_cache(maxsize=256)
def _on_diagonal(motif: Motif, near: float, sign: float) -> tuple[np.ndarray, np.ndarray, np.ndarray]:
    """Return a corner piece's cubics about its vertex, split on its diagonal, as ``split_where`` gives them."""
    local = contours_of(motif, strokes=True).cubics + np.array([motif.width / 2 - near, 0.0])
    return split_where(local, local[..., 0] + sign * local[..., 1])


def clipped_pieces(
    motifs: Sequence[Motif], variant: np.ndarray, matrices: np.ndarray, bent: ShapedOutlines | None, cuts: BisectorCuts
) -> ShapedOutlines:
    """Clip some pieces on the bisectors of their corners and keep what lies on their own leg's side.

    Pieces that are ``bent`` already are clipped as they lie, others are stamped by ``matrices`` (n, 6) first. Strokes
    are cut as wide as they are, of pictures the contour of what is seen is cut.
    """
    piece, vertex, away = cuts.piece, cuts.vertex, cuts.away
    pieces = np.unique(piece)
    cubics, keys, closed = _drawn(motifs, variant, matrices, bent, pieces)
    rank = np.arange(len(piece)) - np.searchsorted(piece, piece)
    for k in range(int(rank.max(initial=-1)) + 1):
        rows = np.flatnonzero(rank == k)
        at = np.full(len(variant), -1)
        at[piece[rows]] = rows
        row = at[keys[:, 0]]
        value = np.real((as_complex(cubics) - as_complex(vertex)[row, None]) * as_complex(away)[row, None].conj())
        value[row < 0] = -1.0
        heads = run_heads(*keys.T)
        contour = owners(np.diff(np.append(heads, len(keys))))
        cubics, number, old = kept_side(cubics, contour, closed[heads], value)
        keys = np.column_stack([keys[heads[old], :2], np.arange(len(old))])[number]
        closed = closed[heads[old]][number]
    return replace(_assembled(cubics, keys, closed, pieces=pieces), cut=pieces, meshes=() if bent is None else bent.meshes)


def stamped_outlines(motifs: Sequence[Motif], variant: np.ndarray, matrices: np.ndarray, pieces: np.ndarray) -> ShapedOutlines:
    """Return the outlines of some ``pieces`` (p,), rising, where ``matrices`` (n, 6) stamp them, strokes outlined."""
    return _assembled(*_drawn(motifs, variant, matrices, None, pieces), pieces=pieces)


def _drawn(motifs, variant, matrices, bent: ShapedOutlines | None, pieces: np.ndarray):
    """Return the cubics of some pieces on the page, with their keys and whether their contours are closed.

    A key is (piece, twice the shape plus one for its stroke, contour).
    """
    if bent is not None:
        rows = np.flatnonzero(np.isin(bent.piece, pieces))
        counts = (np.diff(bent.starts)[rows] - 1) // 3
        begun = np.repeat(bent.starts[rows], counts)
        cubics = bent.points[(3 * ranges(0 * counts, counts) + begun)[:, None] + np.arange(4)]
        which = np.repeat(rows, counts)
        return cubics, np.column_stack([bent.piece[which], 2 * bent.shape[which] + bent.stroked[which], which]), bent.closed[which]
    made = [(np.zeros((0, 4, 2)), np.zeros((0, 3), int), np.zeros(0, bool))]
    for v, motif in enumerate(motifs):
        own = pieces[variant[pieces] == v]
        if len(own):
            cubics, contour, shapes, closed, stroked = contours_of(motif, strokes=True, pictures=True)
            linear, shift = matrices[own, :4].reshape(-1, 2, 2), matrices[own, 4:]
            placed = (cubics.reshape(1, -1, 2) @ linear).reshape(len(own), *cubics.shape) + shift[:, None, None]
            n, m = len(own), len(cubics)
            keys = np.stack([np.repeat(own, m), np.tile((2 * shapes + stroked)[contour], n), np.tile(contour, n)], axis=1)
            made.append((placed.reshape(-1, 4, 2), keys, np.tile(closed[contour], n)))
    return tuple(np.concatenate(columns) for columns in zip(*made, strict=True))


def _assembled(cubics: np.ndarray, keys: np.ndarray, closed: np.ndarray, *, pieces: np.ndarray) -> ShapedOutlines:
    """Put cubics with their keys (m, 3) together as outlines, strokes outlined; their order within a contour stays."""
    order = np.lexsort((keys[:, 2], keys[:, 1], keys[:, 0]))
    cubics, keys, closed = cubics[order], keys[order], closed[order]
    heads = run_heads(*keys.T)
    points, starts = joined_cubics(cubics, heads)
    shape, stroked = np.divmod(keys[heads, 1], 2)
    return ShapedOutlines(points, starts, closed[heads], keys[heads, 0], shape, stroked == 1, pieces, pieces, pieces[:0])


def merged(parts: Sequence[ShapedOutlines]) -> ShapedOutlines:
    """Put outlines of different pieces together, in the order of pieces; a later part takes the place of an earlier one's piece."""
    taken = np.zeros(1 + max(int(part.pieces.max(initial=-1)) for part in parts), bool)
    kept: list[tuple[ShapedOutlines, np.ndarray]] = []
    for part in reversed(parts):
        kept.append((part, np.flatnonzero(~taken[part.piece])))
        taken[part.pieces] = True
    owner = np.concatenate([np.full(len(rows), i) for i, (_, rows) in enumerate(kept)])
    rows = np.concatenate([rows for _, rows in kept]).astype(int)
    names = ("piece", "shape", "closed", "stroked")
    piece, shape, closed, stroked = (np.concatenate([getattr(p, name)[r] for p, r in kept]) for name in names)
    counts = np.concatenate([np.diff(p.starts)[r] for p, r in kept])
    begins = np.concatenate([p.starts[:-1][r] for p, r in kept])
    order = np.lexsort((rows, owner, shape, piece))
    offset = np.cumsum([0, *(len(p.points) for p, _ in kept)])[:-1]
    every = as_complex(np.concatenate([p.points for p, _ in kept]))
    begins = (begins + offset[owner])[order]
    counts = counts[order]
    starts = np.concatenate([[0], np.cumsum(counts)])
    take = np.repeat(begins - starts[:-1], counts) + np.arange(starts[-1])
    meshes = tuple(mesh for part in parts for mesh in part.meshes)
    outlined, cut = (np.unique(np.concatenate([getattr(part, name) for part in parts])) for name in ("outlined", "cut"))
    closed, piece, shape, stroked = (column[order] for column in (closed, piece, shape, stroked))
    pieces = np.flatnonzero(taken)
    return ShapedOutlines(as_points(every[take]), starts, closed, piece, shape, stroked, pieces, outlined, cut, meshes)
