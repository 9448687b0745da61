"""Bend many pieces of one motif at once: where polynomials say where its points go, its bent curves are sums of a few curves.

A piece's point (p, q), as shares of the motif's box, goes to a polynomial of both, Σ c · pⁱ · qʲ. The cubic that has the ends
and end directions of a bent curve, and how far it strays at its thirds, depend linearly on c: for the curves of a motif both are
worked out once for every pⁱ · qʲ, and then pieces are one product of matrices.
"""

from __future__ import annotations

from dataclasses import dataclass, replace
from functools import lru_cache

import numpy as np

from ..artwork.contours import Contours
from ..maths.curves import bernstein
from ..maths.ragged import heads, run_heads
from ..values.arrays import freeze_arrays
from ..values.outlines import ShapedOutlines
from .forms import AT_MOST, TESTED
from .near import Near

HALVES = (
    np.array([[8, 4, 2, 1, 1, 0, 0, 0], [0, 4, 4, 3, 3, 2, 0, 0], [0, 0, 2, 3, 3, 4, 4, 0], [0, 0, 0, 1, 1, 2, 4, 8]]) / 8
)  # a cubic's control points to those of its two halves (de Casteljau)
MOST_HALVINGS = 3  # for pieces alike; chosen
LEAST_ALIKE = 12  # pieces whose same curves are to be halved; chosen
MOST_DEGREES = 5  # beyond, sums have many terms; chosen


@dataclass(frozen=True, eq=False)
class Box:
    """The upright box about a motif's control points, from its base line's middle: ``middle`` and ``half`` (2,) mm, none 0."""

    middle: np.ndarray
    half: np.ndarray

    def __post_init__(self) -> None:
        freeze_arrays(self)

    def reach(self, linear: np.ndarray) -> tuple[np.ndarray, np.ndarray, np.ndarray]:
        """Return from which to which x, and up to which v either way, pieces (n,) reach that ``linear`` (n, 2, 2) turns and sizes."""
        middle, half = linear @ self.middle, np.abs(linear) @ self.half
        return middle[:, 0] - half[:, 0], middle[:, 0] + half[:, 0], np.abs(middle[:, 1]) + half[:, 1]


@lru_cache(maxsize=512)
def box_of(contours: Contours) -> Box:
    """Return the box about contours; one of 1 mm where there are none."""
    points = contours.cubics.reshape(-1, 2)
    low, high = (points.min(axis=0), points.max(axis=0)) if len(points) else (np.zeros(2), np.zeros(2))
    half = (high - low) / 2
    return Box((low + high) / 2, np.where(half > 0, half, 0.5))


def bent_together(
    contours: Contours, pieces: np.ndarray, linear: np.ndarray, near: Near, tolerance: float
) -> tuple[list[ShapedOutlines], np.ndarray]:
    """Bend pieces (p,), rising, of a motif within tolerance, those together whose same curves are to be halved.

    Return outlines, and the pieces (r,), rising, that are left: without polynomials, or too few of their kind. ``linear`` (n, 2, 2) are
    all pieces' maps from the motif to the line's own (x, v).
    """
    row, box = near.rows[pieces], box_of(contours)
    degree = np.where(row < 0, MOST_DEGREES + 1, near.degree[row])
    done, left = [], [pieces[degree > MOST_DEGREES]]
    for d in np.unique(degree[degree <= MOST_DEGREES]).tolist():
        own = pieces[degree == d]
        groups = [(contours, own, *_sums(near, own, linear[own], box, d))]
        for _ in range(1 + MOST_HALVINGS):
            finer = []
            for table, some, x, y in groups:
                basis = _basis_of(table, box, d)
                strays = np.hypot(x @ basis.strays, y @ basis.strays).reshape(len(some), -1, len(TESTED)).max(axis=2)
                fails = AT_MOST * strays > tolerance
                good = ~fails.any(axis=1)
                points = np.stack([part[good] @ basis.points for part in (x, y)], axis=-1).reshape(-1, 2)
                done.append(_outlines(points, table, basis, some[good]))
                finer += [(_halved(table, mask), some[rows], x[rows], y[rows]) for mask, rows in _alike(fails, np.flatnonzero(~good))]
            groups = [group for group in finer if len(group[1]) >= LEAST_ALIKE]
            left += [group[1] for group in finer if len(group[1]) < LEAST_ALIKE]
        left += [some for _, some, *_ in groups]
    return done, np.sort(np.concatenate(left))


def _alike(fails: np.ndarray, rows: np.ndarray) -> list[tuple[bytes, np.ndarray]]:
    """Return for some rows of a table of masks (n, m) each mask that there is, and the rows that have it."""
    packed = np.packbits(fails[rows], axis=1)
    _, first, which = np.unique(packed, axis=0, return_index=True, return_inverse=True)
    return [(fails[rows[k]].tobytes(), rows[which.ravel() == number]) for number, k in enumerate(first)]


@lru_cache(maxsize=256)
def _halved(contours: Contours, which: bytes) -> Contours:
    """Return contours with some of their cubics, a mask (m,), in two halves."""
    half = np.frombuffer(which, bool)
    many = np.where(half, 2, 1)
    cubics, first = np.repeat(contours.cubics, many, axis=0), heads(many)[half]
    halves = np.einsum("ij,mjk->mik", HALVES.T, contours.cubics[half])
    cubics[first], cubics[first + 1] = halves[:, :4], halves[:, 4:]
    return replace(contours, cubics=cubics, contour=np.repeat(contours.contour, many))


@dataclass(frozen=True, eq=False)
class _Basis:
    """For every pⁱ · qʲ (k of them): the ``points`` (k, m) of the cubics of all contours, which begin at ``starts`` (c + 1,) of them, and
    by how much these stray (k, 2 · cubics) at their thirds.
    """

    points: np.ndarray
    starts: np.ndarray
    strays: np.ndarray


def _powers(degree: int) -> list[tuple[int, int]]:
    return [(i, total - i) for total in range(degree + 2) for i in range(total, -1, -1)]


@lru_cache(maxsize=64)
def _basis_of(contours: Contours, box: Box, degree: int) -> _Basis:
    cubics = (contours.cubics - box.middle) / box.half
    ends, ways = cubics[:, [0, 3]], 3 * (cubics[:, [1, 3]] - cubics[:, [0, 2]])
    inside = np.einsum("tb,mbd->mtd", bernstein(TESTED), cubics)
    points, strays = [], []
    for i, j in _powers(degree):
        (p, q), (dp, dq) = np.moveaxis(ends, 2, 0), np.moveaxis(ways, 2, 0)
        value = p**i * q**j
        slope = (i * p ** max(i - 1, 0) * dp * q**j + j * p**i * q ** max(j - 1, 0) * dq) / 3
        hermite = np.stack([value[:, 0], value[:, 0] + slope[:, 0], value[:, 1] - slope[:, 1], value[:, 1]], axis=1)
        points.append(hermite.ravel())
        strays.append((inside[..., 0] ** i * inside[..., 1] ** j - hermite @ bernstein(TESTED).T).ravel())
    first = run_heads(contours.contour)
    every = 4 * np.arange(len(cubics))
    taken = np.insert((every[:, None] + (1, 2, 3)).ravel(), 3 * first, every[first])  # of cubics that follow on, ends once
    starts = np.append(3 * first + np.arange(len(first)), len(taken))
    return _Basis(np.array(points)[:, taken], starts, np.array(strays))


def _sums(near: Near, pieces: np.ndarray, linear: np.ndarray, box: Box, degree: int) -> tuple[np.ndarray, np.ndarray]:
    """Return the factors (n, k) of x and of y on the page for every pⁱ · qʲ: A(u) + v·B(u) with u and v linear in p and q."""
    row = near.rows[pieces]
    middle, across = (linear @ box.middle).T
    by_p, by_q = np.moveaxis(linear * box.half, 2, 0)
    half = near.half[row]
    u = {(0, 0): (middle - near.middle[row]) / half, (1, 0): by_p[:, 0] / half, (0, 1): by_q[:, 0] / half}
    v = {(0, 0): across, (1, 0): by_p[:, 1], (0, 1): by_q[:, 1]}
    along, over = (_composed(coeffs[: degree + 1, row], u) for coeffs in near.coeffs)
    total = _product(over, v)
    for power, factor in along.items():
        total[power] = total[power] + factor
    table = np.stack([total[power] for power in _powers(degree)], axis=1)
    return np.ascontiguousarray(np.real(table)), np.ascontiguousarray(np.imag(table))


Polynomial = dict[tuple[int, int], np.ndarray]
"""Factors (n,) by powers of p and q."""


def _composed(coeffs: np.ndarray, u: Polynomial) -> Polynomial:
    """Return a polynomial (degree + 1, n) of u: Horner's way."""
    out: Polynomial = {(0, 0): coeffs[-1]}
    for coeff in coeffs[-2::-1]:
        out = _product(out, u)
        out[0, 0] = out[0, 0] + coeff
    return out


def _product(one: Polynomial, two: Polynomial) -> Polynomial:
    out: Polynomial = {}
    for (i, j), a in one.items():
        for (k, m), b in two.items():
            out[i + k, j + m] = out[i + k, j + m] + a * b if (i + k, j + m) in out else a * b
    return out


def _outlines(points: np.ndarray, contours: Contours, basis: _Basis, pieces: np.ndarray) -> ShapedOutlines:
    n, m, c = len(pieces), int(basis.starts[-1]), len(contours.closed)
    starts = np.append((m * np.arange(n)[:, None] + basis.starts[:-1]).ravel(), n * m)
    closed, shape, stroked = (np.tile(column, n) for column in (contours.closed, contours.shape, contours.stroked))
    return ShapedOutlines(points, starts, closed, np.repeat(pieces, c), shape, stroked, pieces, pieces[:0], pieces[:0])
