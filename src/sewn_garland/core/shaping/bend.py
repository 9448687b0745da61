"""Bent travel: every point (x, v) of a piece goes to P(s₀ + x) + v·N(s₀ + x); curves stay curves."""

from __future__ import annotations

from collections.abc import Callable, Sequence

import numpy as np

from ..maths.contours import contour_cubics, joined_cubics
from ..maths.outlines import split_cubics
from ..values.motif import Motif
from ..values.outlines import PictureMeshes, ShapedOutlines

TOLERANCE_MM = 0.01  # chosen: at final size; finer than a print shows
MOST_HALVINGS = 14
MOST_CELLS = 64  # along one side of a picture
TESTED = np.array([0.25, 0.5, 0.75])
FIRST_HALF = 0.5

Warp = Callable[[np.ndarray, np.ndarray], tuple[np.ndarray, np.ndarray, np.ndarray, np.ndarray]]
"""Takes pieces (n,) and the x (n,) of points, returns distances along the line, their change with x, the width and its change a mm (n,)."""

Frame = Callable[[np.ndarray, np.ndarray], tuple[np.ndarray, np.ndarray, np.ndarray]]
"""Takes pieces (n,) and distances along their lines (n,), returns positions (n, 2), unit tangents (n, 2) and curvature (n,)."""


class Way:
    """Where points (x, v) of pieces go.

    Base lines' middles lie at distances ``s`` (n,) and ``shift`` (n,) mm to the right of their lines.
    ``warp`` lets pieces follow a line's width: (x, v) goes to P(s(x)) + (shift + v·width)·N.
    """

    def __init__(self, s: np.ndarray, shift: np.ndarray, frame: Frame, warp: Warp | None) -> None:
        self.s, self.shift, self.frame, self.warp = s, shift, frame, warp

    def places(self, piece: np.ndarray, x: np.ndarray, v: np.ndarray) -> np.ndarray:
        """Return the places (n, 2)."""
        s, _, width, _ = self._on_line(piece, x)
        place, tangent, _ = self.frame(piece, s)
        return place + (self.shift[piece] + v * width)[:, None] * _right_of(tangent)

    def moves(self, piece: np.ndarray, x: np.ndarray, v: np.ndarray) -> tuple[np.ndarray, np.ndarray, np.ndarray]:
        """Return the places (n, 2), and how they move a mm of x and of v (n, 2).

        With N turned clockwise from T, dN/ds = −k·T: the place P(s) + h·N with h = shift + v·width
        moves by (1 − k·h)·T + v·width′·N along the line, and by width·N across it.
        """
        s, rate, width, change = self._on_line(piece, x)
        place, tangent, bend = self.frame(piece, s)
        normal = _right_of(tangent)
        h = self.shift[piece] + v * width
        along = (rate * (1 - bend * h))[:, None] * tangent
        if self.warp is not None:
            along += (rate * v * change)[:, None] * normal
        return place + h[:, None] * normal, along, np.broadcast_to(width, len(x))[:, None] * normal

    def _on_line(self, piece: np.ndarray, x: np.ndarray):
        return (self.s[piece] + x, 1.0, 1.0, 0.0) if self.warp is None else self.warp(piece, x)


def _right_of(tangent: np.ndarray) -> np.ndarray:
    return np.stack([-tangent[:, 1], tangent[:, 0]], axis=1)


def bent_outlines(
    motifs: Sequence[Motif], variant: np.ndarray, linear: np.ndarray, way: Way, *, tolerance: float = TOLERANCE_MM
) -> ShapedOutlines:
    """Bend the shapes of every piece along its line, within ``tolerance`` mm on the page.

    ``variant`` (n,) says each piece's motif, ``linear`` (n, 2, 2) turns, mirrors and sizes it about
    its base line's middle, from where ``way`` takes its points to the page.
    Pictures become meshes, fine enough for the same tolerance. A curve is halved, level by level and only
    where the cubic with its mapped ends and end directions strays at ¼, ½ or ¾, at most 14 times.
    """
    parts = [_of_motif(motif, np.flatnonzero(variant == v), linear) for v, motif in enumerate(motifs)]
    cubics, piece, shape, contour, place = (np.concatenate(columns) for columns in zip(*[p[:5] for p in parts], strict=True))
    closed_of = {(v, *key): closed for v, part in enumerate(parts) for key, closed in part[5].items()}
    bent, row, begin = _bent(cubics, piece, way, tolerance)
    order = np.lexsort((begin, place[row], contour[row], shape[row], piece[row]))
    bent, row = bent[order], row[order]
    keys = np.stack([piece[row], shape[row], contour[row]], axis=1)
    heads = np.flatnonzero(np.any(np.diff(keys, axis=0, prepend=-1) != 0, axis=1)) if len(row) else np.zeros(0, int)
    points, starts = joined_cubics(bent, heads)
    first = keys[heads]
    closed = np.array([closed_of[variant[p], sh, c] for p, sh, c in first.tolist()], bool)
    meshes = tuple(
        _mesh(np.flatnonzero(variant == v), number, drawn.points - (motif.width / 2, motif.base_line), linear, way, tolerance)
        for v, motif in enumerate(motifs) for number, drawn in enumerate(motif.shapes) if drawn.picture is not None
    )  # fmt: skip
    return ShapedOutlines(points, starts, closed, first[:, 0], first[:, 1], np.arange(len(variant)), meshes)


def _mesh(pieces: np.ndarray, shape: int, corners: np.ndarray, linear: np.ndarray, way: Way, tolerance: float) -> PictureMeshes:
    """Return a picture's mesh on some pieces; both sides are halved until their middles lie within tolerance, at most to 64 cells.

    ``corners`` (4, 2) of the picture's rectangle, clockwise from the top left, about the base line's middle.
    """
    origin, sides = corners[0], (corners[1] - corners[0], corners[3] - corners[0])

    def grid(columns: int, rows: int) -> np.ndarray:
        u, v = np.meshgrid(np.linspace(0, 1, columns + 1), np.linspace(0, 1, rows + 1))
        flat = origin + u[..., None] * sides[0] + v[..., None] * sides[1]
        placed = np.einsum("nij,rcj->nrci", linear[pieces], flat)
        which = np.repeat(pieces, u.size)
        return way.places(which, placed[..., 0].ravel(), placed[..., 1].ravel()).reshape(placed.shape)

    cells = [1, 1]
    for axis in (0, 1):
        while cells[axis] < MOST_CELLS:
            finer = list(cells)
            finer[axis] *= 2
            points = np.moveaxis(grid(*finer), 2 - axis, 0)
            off = points[1::2] - (points[:-1:2] + points[2::2]) / 2
            if np.hypot(off[..., 0], off[..., 1]).max(initial=0.0) <= tolerance:
                break
            cells = finer
    return PictureMeshes(grid(*cells), pieces, np.full(len(pieces), shape))


def _of_motif(motif: Motif, pieces: np.ndarray, linear: np.ndarray):
    """Return all cubics of some pieces of a motif in the line's own (x, v), with piece, shape, contour and place of each."""
    rows, closed = [], {}
    for number, drawn in enumerate(motif.shapes):
        if drawn.picture is None:
            own, contour, is_closed = contour_cubics(drawn.commands, drawn.points)
            rows.append((own, np.full(len(own), number), contour))
            closed |= {(number, c): bool(flag) for c, flag in enumerate(is_closed)}
    cubics = np.concatenate([r[0] for r in rows]) if rows else np.zeros((0, 4, 2))
    shape, contour = (np.concatenate([r[k] for r in rows]) if rows else np.zeros(0, int) for k in (1, 2))
    about = cubics - (motif.width / 2, motif.base_line)
    n, m = len(pieces), len(cubics)
    placed = np.einsum("nij,mkj->nmki", linear[pieces], about)
    return (placed.reshape(-1, 4, 2), np.repeat(pieces, m), np.tile(shape, n), np.tile(contour, n), np.tile(np.arange(m), n), closed)


def _bent(cubics: np.ndarray, piece: np.ndarray, way: Way, tolerance: float):
    """Return bent cubics (k, 4, 2), the row (k,) that each came from and where in it (k,) it begins."""
    row, begin, width = np.arange(len(cubics)), np.zeros(len(cubics)), 1.0
    done: list[tuple[np.ndarray, np.ndarray, np.ndarray]] = []
    for level in range(MOST_HALVINGS + 1):
        mapped = _hermite(cubics, piece[row], way)
        good = np.ones(len(row), bool) if level == MOST_HALVINGS else _strays(cubics, mapped, piece[row], way) <= tolerance
        done.append((mapped[good], row[good], begin[good]))
        if good.all():
            break
        first, second = split_cubics(cubics[~good], FIRST_HALF)
        width /= 2
        row, begin = np.tile(row[~good], 2), np.concatenate([begin[~good], begin[~good] + width])
        cubics = np.concatenate([first, second])
    return tuple(np.concatenate(columns) for columns in zip(*done, strict=True))


def _hermite(cubics: np.ndarray, piece: np.ndarray, way: Way) -> np.ndarray:
    """Return the cubics with the mapped ends and end directions.

    Both ends of a cubic that follows another are the very same numbers, for contours to hang together.
    """
    ends = cubics[:, [0, 3]].reshape(-1, 2)
    ways = 3 * np.stack([cubics[:, 1] - cubics[:, 0], cubics[:, 3] - cubics[:, 2]], axis=1).reshape(-1, 2)
    place, by_x, by_v = way.moves(np.repeat(piece, 2), ends[:, 0], ends[:, 1])
    at = place.reshape(-1, 2, 2)
    along = (ways[:, :1] * by_x + ways[:, 1:] * by_v).reshape(-1, 2, 2)
    return np.stack([at[:, 0], at[:, 0] + along[:, 0] / 3, at[:, 1] - along[:, 1] / 3, at[:, 1]], axis=1)


def _strays(cubics: np.ndarray, mapped: np.ndarray, piece: np.ndarray, way: Way) -> np.ndarray:
    """Return how far (m,) the mapped cubics lie from the mapped curves at a quarter, the half and three quarters."""
    t = TESTED[:, None]
    basis = np.hstack([(1 - t) ** 3, 3 * t * (1 - t) ** 2, 3 * t**2 * (1 - t), t**3])
    flat = (basis @ cubics).reshape(-1, 2)
    true = way.places(np.repeat(piece, 3), flat[:, 0], flat[:, 1])
    return np.hypot(*((basis @ mapped).reshape(-1, 2) - true).T).reshape(-1, 3).max(axis=1, initial=0.0)
