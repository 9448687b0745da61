"""Corner pieces fitted to their angle, and pieces clipped on a corner's bisector."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace
from functools import lru_cache

import numpy as np

from ..artwork.contours import contours_of
from ..maths.compiled import compiled, for_compiled
from ..maths.contours import joined_cubics
from ..maths.curves import as_complex, as_points
from ..maths.halves import kept_side, split_where
from ..maths.ragged import heads, places, ranges, run_heads
from ..values.motif import Motif
from ..values.outlines import BisectorCuts, ShapedOutlines, contours_in_order


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
    contours = contours_of(motif, strokes=True)
    contour, shapes, closed, stroked = contours.contour, contours.shape, contours.closed, contours.stroked
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
    pieces = np.unique(cuts.piece)
    if bent is None:
        stamps = _stamps_of(motifs, variant, pieces)
        whole, off = stamps.sides(matrices, cuts)
        drawn, whole = stamps.some(~off).outlines(matrices, pieces), whole[~off]
        off = np.zeros(len(whole), bool)
    else:
        drawn = bent
        as_they_lie = np.tile([1.0, 0, 0, 1, 0, 0], (1 + int(pieces[-1]), 1))
        boxes = _corners_about(as_complex(bent.points), bent.starts)
        whole, off = _sides_of(boxes, np.arange(len(boxes)), bent.piece, as_they_lie, cuts)
    cut, of = _cut(drawn, np.flatnonzero(~whole & ~off), cuts)
    rows = np.flatnonzero(whole)
    parts = [(drawn, rows), (cut, np.arange(len(of)))]
    columns = contours_in_order(parts, np.argsort(np.append(rows, of), kind="stable"))
    return ShapedOutlines(**columns, pieces=pieces, outlined=pieces, cut=pieces, meshes=drawn.meshes)


def stamped_outlines(motifs: Sequence[Motif], variant: np.ndarray, matrices: np.ndarray, pieces: np.ndarray) -> ShapedOutlines:
    """Return the outlines of some ``pieces`` (p,), rising, where ``matrices`` (n, 6) stamp them, strokes outlined."""
    return _stamps_of(motifs, variant, pieces).outlines(matrices, pieces)


@dataclass(frozen=True, eq=False)
class _Stamps:
    """Contours of stamped pieces: of each (k,) its ``piece`` and its ``row`` in the table of all motifs' contours.

    By row: ``points`` (complex) of contours from ``starts`` on, ``shape``, ``stroked`` and ``closed``.
    """

    piece: np.ndarray
    row: np.ndarray
    points: np.ndarray
    starts: np.ndarray
    shape: np.ndarray
    stroked: np.ndarray
    closed: np.ndarray

    def some(self, contours: np.ndarray) -> _Stamps:
        return replace(self, piece=self.piece[contours], row=self.row[contours])

    def sides(self, matrices: np.ndarray, cuts: BisectorCuts) -> tuple[np.ndarray, np.ndarray]:
        """Tell of contours (k,) which lie whole on the side that is kept of all cuts of their piece, and which wholly off it."""
        return _sides_of(_corners_about(self.points, self.starts), self.row, self.piece, matrices, cuts)

    def outlines(self, matrices: np.ndarray, pieces: np.ndarray) -> ShapedOutlines:
        along, against, shift = (for_compiled(column, complex) for column in _maps_of(matrices))
        rows = for_compiled(self.starts, int), for_compiled(self.row, int), for_compiled(self.piece, int)
        points, starts = _stamped(for_compiled(self.points, complex), *rows, along, against, shift)
        shape, stroked, closed = (column[self.row] for column in (self.shape, self.stroked, self.closed))
        return ShapedOutlines(as_points(points), starts, closed, self.piece, shape, stroked, pieces, pieces, pieces[:0])


def _stamps_of(motifs: Sequence[Motif], variant: np.ndarray, pieces: np.ndarray) -> _Stamps:
    """Return all contours of some pieces (p,), rising; strokes are outlined, pictures have their rectangles."""
    tables = [contours_of(motif, strokes=True, pictures=True) for motif in motifs]
    made = [joined_cubics(table.cubics, run_heads(table.contour)) for table in tables]
    many = np.array([len(table.shape) for table in tables])
    lengths = np.concatenate([np.diff(starts) for _, starts in made])
    counts = many[variant[pieces]]
    shape, stroked, closed = (np.concatenate([getattr(table, name) for table in tables]) for name in ("shape", "stroked", "closed"))
    every, row = as_complex(np.concatenate([points for points, _ in made])), ranges(heads(many)[variant[pieces]], counts)
    return _Stamps(np.repeat(pieces, counts), row, every, np.append(0, np.cumsum(lengths)), shape, stroked, closed)


def _maps_of(matrices: np.ndarray) -> tuple[np.ndarray, np.ndarray, np.ndarray]:
    """Return affine maps (n, 6) as z → α·z + β·z̄ + γ: α, β and γ (n,), complex, with no β where they turn and size alone."""
    a, b, c, d, e, f = matrices.T
    return ((a + d) + 1j * (b - c)) / 2, ((a - d) + 1j * (b + c)) / 2, e + 1j * f


@compiled
def _stamped(points, starts, row, piece, along, against, shift):
    """Return the points of contours (k,), each a ``row`` of those from ``starts`` on, where their pieces' maps put them, and where each
    contour starts (k + 1,).
    """
    begins = np.zeros(len(row) + 1, np.int64)
    for i in range(len(row)):
        begins[i + 1] = begins[i] + starts[row[i] + 1] - starts[row[i]]
    out, n = np.empty(begins[-1], np.complex128), 0
    for i in range(len(row)):
        a, b, c = along[piece[i]], against[piece[i]], shift[piece[i]]
        for k in range(starts[row[i]], starts[row[i] + 1]):
            out[n] = a * points[k] + b * points[k].conjugate() + c
            n += 1
    return out, begins


def _corners_about(points: np.ndarray, starts: np.ndarray) -> np.ndarray:
    """Return the corners (c, 4) of upright boxes about contours (m,), complex; control points lie inside."""
    return _boxed(for_compiled(points, complex), for_compiled(starts, int))


@compiled
def _boxed(points, starts):
    out = np.empty((len(starts) - 1, 4), np.complex128)
    for i in range(len(out)):
        left = right = points[starts[i]].real
        top = bottom = points[starts[i]].imag
        for k in range(starts[i] + 1, starts[i + 1]):
            x, y = points[k].real, points[k].imag
            left, right, top, bottom = min(left, x), max(right, x), min(top, y), max(bottom, y)
        out[i, 0], out[i, 1], out[i, 2], out[i, 3] = complex(left, top), complex(left, bottom), complex(right, top), complex(right, bottom)
    return out


def _sides_of(
    corners: np.ndarray, row: np.ndarray, piece: np.ndarray, matrices: np.ndarray, cuts: BisectorCuts
) -> tuple[np.ndarray, np.ndarray]:
    """Tell of contours (c,), by corners (r, 4) about them, each ``row`` (c,) of which the matrices (n, 6) of their pieces (c,) put on
    the page, which lie whole on the side that is kept, and which wholly off it.
    """
    along, against, shift = (for_compiled(column, complex) for column in _maps_of(matrices))
    first = np.searchsorted(cuts.piece, np.arange(len(matrices) + 1))
    vertex, away = for_compiled(as_complex(cuts.vertex), complex), for_compiled(as_complex(cuts.away), complex)
    of = for_compiled(row, int), for_compiled(piece, int)
    return _sides(for_compiled(corners, complex), *of, along, against, shift, for_compiled(first, int), vertex, away)


@compiled
def _sides(corners, row, piece, along, against, shift, first, vertex, away):
    whole, off = np.empty(len(piece), np.bool_), np.empty(len(piece), np.bool_)
    for i in range(len(piece)):
        p = piece[i]
        kept, gone = True, False
        for k in range(first[p], first[p + 1]):
            least, most = np.inf, -np.inf
            for j in range(4):
                z = corners[row[i], j]
                off_vertex = along[p] * z + against[p] * z.conjugate() + shift[p] - vertex[k]
                beyond = off_vertex.real * away[k].real + off_vertex.imag * away[k].imag
                least, most = min(least, beyond), max(most, beyond)
            kept, gone = kept and most <= 0, gone or least > 0
        whole[i], off[i] = kept and not gone, gone
    return whole, off


def _cut(drawn: ShapedOutlines, contours: np.ndarray, cuts: BisectorCuts) -> tuple[ShapedOutlines, np.ndarray]:
    """Return what is left of some contours (k,), and which one (c,) each that is left is of."""
    points, starts = for_compiled(as_complex(drawn.points), complex), for_compiled(drawn.starts, int)
    vertex, away = for_compiled(as_complex(cuts.vertex), complex), for_compiled(as_complex(cuts.away), complex)
    cubics, contour = _cubics_of(points, starts, for_compiled(contours, int))
    of, rank = contours, places(np.unique(cuts.piece, return_counts=True)[1])
    at = np.full(1 + max(int(column.max(initial=-1)) for column in (drawn.piece, cuts.piece)), -1)
    for k in range(int(rank.max(initial=-1)) + 1):
        at[:] = -1
        rows = np.flatnonzero(rank == k)
        at[cuts.piece[rows]] = rows
        beyond = _beyond(for_compiled(cubics, complex), for_compiled(contour, int), for_compiled(at[drawn.piece[of]], int), vertex, away)
        kept, contour, old = kept_side(as_points(cubics), contour, drawn.closed[of], beyond)
        cubics, of = as_complex(kept), of[old]
    points, starts = joined_cubics(as_points(cubics), run_heads(contour))
    columns = (getattr(drawn, name)[of] for name in ("closed", "piece", "shape", "stroked"))
    return ShapedOutlines(points, starts, *columns, *[contours[:0]] * 3), of


@compiled
def _cubics_of(points, starts, contours):
    """Return the cubics (m, 4) of some contours (k,) out of points from ``starts`` on, and which contour's (m,) each is."""
    many = 0
    for i in contours:
        many += (starts[i + 1] - starts[i]) // 3
    cubics, contour, n = np.empty((many, 4), np.complex128), np.empty(many, np.int64), 0
    for j in range(len(contours)):
        for k in range(starts[contours[j]], starts[contours[j] + 1] - 1, 3):
            cubics[n, 0], cubics[n, 1], cubics[n, 2], cubics[n, 3] = points[k], points[k + 1], points[k + 2], points[k + 3]
            contour[n] = j
            n += 1
    return cubics, contour


@compiled
def _beyond(cubics, contour, row, vertex, away):
    """Return how far (m, 4) the points of cubics lie beyond the cuts, each ``row`` (k,), of their contours; −1 where there is none."""
    out = np.full(cubics.shape, -1.0)
    for i in range(len(cubics)):
        k = row[contour[i]]
        for j in range(4 if k >= 0 else 0):
            off = cubics[i, j] - vertex[k]
            out[i, j] = off.real * away[k].real + off.imag * away[k].imag
    return out


def _assembled(cubics: np.ndarray, keys: np.ndarray, closed: np.ndarray, *, pieces: np.ndarray) -> ShapedOutlines:
    """Put cubics with their keys (m, 3) together as outlines, strokes outlined; their order within a contour stays."""
    order = np.lexsort((keys[:, 2], keys[:, 1], keys[:, 0]))
    cubics, keys, closed = cubics[order], keys[order], closed[order]
    heads = run_heads(*keys.T)
    points, starts = joined_cubics(cubics, heads)
    shape, stroked = np.divmod(keys[heads, 1], 2)
    return ShapedOutlines(points, starts, closed[heads], keys[heads, 0], shape, stroked == 1, pieces, pieces, pieces[:0])
