"""Bent travel: every point (x, v) of a piece goes to P(s₀ + x) + v·N(s₀ + x); curves stay curves."""

from __future__ import annotations

from collections.abc import Callable, Sequence

import numpy as np

from ..maths.contours import joined_cubics
from ..maths.outlines import part_of, split_cubics
from ..values.motif import Motif
from ..values.outlines import PictureMeshes, ShapedOutlines
from .contours import contours_of

TOLERANCE_MM = 0.01  # chosen: at final size; finer than a print shows
MOST_HALVINGS = 14
MOST_CELLS = 64  # along one side of a picture
JUST_INSIDE = 1e-5  # share of a cubic
LEAST_PART_MM = 1e-6
CROSSING_ROUNDS = 44
TESTED = np.array([0.25, 0.5, 0.75])
FIRST_HALF = 0.5

Warp = Callable[[np.ndarray, np.ndarray], tuple[np.ndarray, np.ndarray, np.ndarray, np.ndarray]]
"""Takes pieces (n,) and the x (n,) of points, returns distances along the line, their change with x, the width and its change a mm (n,)."""

Frame = Callable[[np.ndarray, np.ndarray], tuple[np.ndarray, np.ndarray, np.ndarray]]
"""Takes pieces (n,) and distances along their lines (n,), returns positions (n, 2), unit tangents (n, 2) and curvature (n,)."""


class Way:
    """Where points (x, v) of pieces go.

    Base lines' middles lie at distances ``s`` (n,) and ``shift`` (n,) mm to the right of their lines.
    ``warp`` lets pieces follow a line's width: (x, v) goes to P(s(x)) + (shift + v·width)·N. ``breaks``
    (m, 2), sorted, are pieces and the x in them at which the line begins or ends to turn about a vertex.
    """

    def __init__(self, s: np.ndarray, shift: np.ndarray, frame: Frame, warp: Warp | None, breaks: np.ndarray | None = None) -> None:
        self.s, self.shift, self.frame, self.warp = s, shift, frame, warp
        self.breaks = np.zeros((0, 2)) if breaks is None else breaks

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
    bent, row, begin = _bent(cubics, piece, way, tolerance)
    order = np.lexsort((begin, place[row], contour[row], shape[row], piece[row]))
    bent, row = bent[order], row[order]
    keys = np.stack([piece[row], shape[row], contour[row]], axis=1)
    heads = np.flatnonzero(np.any(np.diff(keys, axis=0, prepend=-1) != 0, axis=1)) if len(row) else np.zeros(0, int)
    points, starts = joined_cubics(bent, heads)
    first = keys[heads]
    closed = np.zeros(len(first), bool)
    for v, part in enumerate(parts):
        own = variant[first[:, 0]] == v
        closed[own] = part[5][first[own, 2]]
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
    """Return all cubics of some pieces of a motif in the line's own (x, v), with piece, shape, contour and place of each.

    The last column tells which of the motif's contours are closed.
    """
    about, contour, shapes, closed = contours_of(motif)
    n, m = len(pieces), len(about)
    placed = about.reshape(1, -1, 2) @ linear[pieces].transpose(0, 2, 1)
    of_shape, of_contour, place = np.tile(shapes[contour], n), np.tile(contour, n), np.tile(np.arange(m), n)
    return placed.reshape(-1, 4, 2), np.repeat(pieces, m), of_shape, of_contour, place, closed


def _bent(cubics: np.ndarray, piece: np.ndarray, way: Way, tolerance: float):
    """Return bent cubics (k, 4, 2), the row (k,) that each came from and where in it (k,) it begins."""
    cubics, row, begin, width, broken = _broken(cubics, piece, way.breaks)
    done: list[tuple[np.ndarray, np.ndarray, np.ndarray]] = []
    for level in range(MOST_HALVINGS + 1):
        mapped = _hermite(cubics, piece[row], way, broken)
        good = np.ones(len(row), bool) if level == MOST_HALVINGS else _strays(cubics, mapped, piece[row], way) <= tolerance
        done.append((mapped[good], row[good], begin[good]))
        if good.all():
            break
        first, second = split_cubics(cubics[~good], FIRST_HALF)
        first_broken, second_broken = broken[~good] & (True, False), broken[~good] & (False, True)
        broken = np.concatenate([first_broken, second_broken])
        width = np.tile(width[~good] / 2, 2)
        row, begin = np.tile(row[~good], 2), np.concatenate([begin[~good], begin[~good] + width[: (~good).sum()]])
        cubics = np.concatenate([first, second])
    return tuple(np.concatenate(columns) for columns in zip(*done, strict=True))


def _broken(cubics: np.ndarray, piece: np.ndarray, breaks: np.ndarray) -> tuple[np.ndarray, ...]:
    """Split cubics where they cross the breaks of their pieces.

    Return the parts, the row (k,) of each, where in it it begins and how much of it it is (k,), and
    which of its ends (k, 2) lie on a break. A cubic that turns back across a break is split once
    there; halving does the rest.
    """
    row, begin, width = np.arange(len(cubics)), np.zeros(len(cubics)), np.ones(len(cubics))
    if not len(breaks) or not len(cubics):
        return cubics, row, begin, width, np.zeros((len(cubics), 2), bool)
    heads = np.searchsorted(breaks[:, 0], np.arange(int(piece.max(initial=0)) + 2))
    many = np.diff(heads)[piece]
    pair = np.repeat(row, many)
    x = breaks[np.repeat(heads[piece], many) + np.arange(len(pair)) - np.repeat(np.cumsum(many) - many, many), 1]
    ends = cubics[pair][:, [0, 3], 0]
    crossed = (ends.min(axis=1) < x - LEAST_PART_MM) & (ends.max(axis=1) > x + LEAST_PART_MM)
    pair, x = pair[crossed], x[crossed]
    t = _crossing(cubics[pair, :, 0], x)
    order = np.lexsort((t, pair))
    pair, t = pair[order], t[order]
    row = np.concatenate([row, pair])
    begin, broken = np.append(begin, t), np.append(np.zeros(len(cubics), bool), np.ones(len(pair), bool))
    order = np.lexsort((begin, row))
    row, begin, broken = row[order], begin[order], broken[order]
    last = np.append(row[1:] != row[:-1], True)
    end = np.where(last, 1.0, np.append(begin[1:], 1.0))
    return part_of(cubics[row], begin, end), row, begin, end - begin, np.column_stack([broken, ~last])


def _crossing(x: np.ndarray, level: np.ndarray) -> np.ndarray:
    """Return the parameters (n,) at which cubics with control values ``x`` (n, 4) pass levels (n,) between their ends, by bisection."""
    low, high = np.zeros(len(x)), np.ones(len(x))
    rising = x[:, 3] > x[:, 0]
    for _ in range(CROSSING_ROUNDS):
        t = (low + high) / 2
        value = ((1 - t) ** 3 * x[:, 0] + 3 * t * (1 - t) ** 2 * x[:, 1]) + (3 * t**2 * (1 - t) * x[:, 2] + t**3 * x[:, 3])
        above = (value > level) == rising
        low, high = np.where(above, low, t), np.where(above, t, high)
    return (low + high) / 2


def _hermite(cubics: np.ndarray, piece: np.ndarray, way: Way, broken: np.ndarray) -> np.ndarray:
    """Return the cubics with the mapped ends and end directions.

    Both ends of a cubic that follows another are the very same numbers, for contours to hang
    together. At ends (m, 2) that are ``broken`` the line's bend jumps: there the direction is that
    of a point just inside.
    """
    ends = cubics[:, [0, 3]].reshape(-1, 2)
    ways = 3 * np.stack([cubics[:, 1] - cubics[:, 0], cubics[:, 3] - cubics[:, 2]], axis=1).reshape(-1, 2)
    place, by_x, by_v = way.moves(np.repeat(piece, 2), ends[:, 0], ends[:, 1])
    rows, end = np.nonzero(broken)
    if len(rows):
        t = np.where(end == 0, JUST_INSIDE, 1 - JUST_INSIDE)
        inside = (_basis(t)[:, None, :] @ cubics[rows])[:, 0]
        by_x[2 * rows + end], by_v[2 * rows + end] = way.moves(piece[rows], inside[:, 0], inside[:, 1])[1:]
    at = place.reshape(-1, 2, 2)
    along = (ways[:, :1] * by_x + ways[:, 1:] * by_v).reshape(-1, 2, 2)
    return np.stack([at[:, 0], at[:, 0] + along[:, 0] / 3, at[:, 1] - along[:, 1] / 3, at[:, 1]], axis=1)


def _strays(cubics: np.ndarray, mapped: np.ndarray, piece: np.ndarray, way: Way) -> np.ndarray:
    """Return how far (m,) the mapped cubics lie from the mapped curves at a quarter, the half and three quarters."""
    basis = _basis(TESTED)
    flat = (basis @ cubics).reshape(-1, 2)
    true = way.places(np.repeat(piece, 3), flat[:, 0], flat[:, 1])
    return np.hypot(*((basis @ mapped).reshape(-1, 2) - true).T).reshape(-1, 3).max(axis=1, initial=0.0)


def _basis(t: np.ndarray) -> np.ndarray:
    """Return Bernstein's polynomials of degree 3 at parameters t (n,): (n, 4)."""
    t = t[:, None]
    return np.hstack([(1 - t) ** 3, 3 * t * (1 - t) ** 2, 3 * t**2 * (1 - t), t**3])
