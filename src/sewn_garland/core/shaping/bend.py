"""Bent travel: every point (x, v) of a piece goes to P(s₀ + x) + v·N(s₀ + x); curves stay curves."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace
from typing import NamedTuple

import numpy as np

from ..artwork.contours import Contours, contours_of
from ..errors import LimitError
from ..maths.compiled import compiled, for_compiled
from ..maths.contours import merged_cubics
from ..maths.curves import as_complex, as_points, bernstein
from ..maths.handles import summed
from ..maths.levels import Split, split_at_levels
from ..maths.ragged import run_heads
from ..values.motif import Motif
from ..values.outlines import PictureMeshes, ShapedOutlines, merged
from .forms import AT_MOST, MOST_HALVINGS, TESTED, bent_by_forms, placed_by_forms
from .near import Near, near
from .parts import Parts, forms_along
from .together import HALVES, bent_together, box_of
from .way import Way

MOST_AT_ONCE = 2_000_000  # curves: a gigabyte on the way; chosen
MOST_CELLS = 64  # along one side of a picture
STROKES_SHARE = 1 / 4  # of the tolerance, that outlines of strokes may use up before they are bent; chosen
THIRDS = bernstein(TESTED).T  # of a cubic, by its control points
THIRDS_LEFT = np.kron(np.eye(2), np.ones((4, 1))) * np.tile(THIRDS, (2, 1))  # of two halves, the first's first and the second's second
JUST_INSIDE = 1e-5  # share of a cubic


def bent_outlines(
    motifs: Sequence[Motif],
    variant: np.ndarray,
    linear: np.ndarray,
    way: Way,
    pieces: np.ndarray,
    outlined: np.ndarray,
    *,
    pictures: bool = False,
    tolerance: float,
) -> ShapedOutlines:
    """Bend the shapes of some ``pieces`` (p,), rising, along their lines, within ``tolerance`` mm on the page.

    ``variant`` (n,) says each piece's motif, ``linear`` (n, 2, 2) turns, mirrors and sizes it about
    its base line's middle, from where ``way`` takes its points to the page.
    Pictures become meshes, fine enough for the same tolerance. A curve is halved, level by level and only
    where the cubic with its mapped ends and end directions strays, at most 14 times. The strokes of ``outlined`` (p,)
    pieces are outlined first; ``pictures`` come with contours where asked, as ``contours_of`` says.
    """
    groups: list[tuple[Contours, np.ndarray]] = []
    for strokes, own in ((False, pieces[~outlined]), (True, pieces[outlined])):
        strays = _stray_of_strokes(tolerance, linear[own]) if strokes else 0.0
        tables = (contours_of(motif, strokes=strokes, pictures=pictures, strays=strays) for motif in motifs)
        groups += [(table, own[variant[own] == v]) for v, table in enumerate(tables)]
    told = _told_of(groups, linear, way)
    done: list[ShapedOutlines] = []
    if isinstance(told, Near):
        tried = [(contours, *bent_together(contours, own, linear, told, tolerance)) for contours, own in groups]
        done = [part for _, parts, _ in tried for part in parts]
        groups = [(contours, rest) for contours, _, rest in tried]
    parts = [*done, _bent_apart(groups, linear, way, told, tolerance)]
    meshes = tuple(
        _mesh(pieces[variant[pieces] == v], number, drawn.points - (motif.width / 2, motif.base_line), linear, way, tolerance)
        for v, motif in enumerate(motifs) for number, drawn in enumerate(motif.shapes) if drawn.picture is not None
    )  # fmt: skip
    return replace(merged(parts) if done else parts[0], pieces=pieces, outlined=pieces[outlined], cut=pieces[:0], meshes=meshes)


def _told_of(groups: list[tuple[Contours, np.ndarray]], linear: np.ndarray, way: Way) -> Way | Near:
    """Return what tells where the points of pieces go, of each motif's contours some."""
    groups = [(contours, own) for contours, own in groups if way.crowd[own].any() and len(contours.cubics)]
    if not groups:
        return way
    reach = [np.stack(box_of(contours).reach(linear[own])) for contours, own in groups]
    return near(way, np.concatenate([own for _, own in groups]), *np.concatenate(reach, axis=1))


def _bent_apart(
    groups: list[tuple[Contours, np.ndarray]], linear: np.ndarray, way: Way, told: Way | Near, tolerance: float
) -> ShapedOutlines:
    """Bend pieces of motifs curve by curve."""
    columns = [np.concatenate(column) for column in zip(*(_of_motif(contours, own, linear) for contours, own in groups), strict=True)]
    order = np.argsort(columns[1], kind="stable")  # within a piece the motif's own order of shapes and contours stays
    cubics, piece, shape, contour, closed, stroked = (column[order] for column in columns)
    points, starts, first = _bent(cubics, piece, contour, way, told, tolerance)
    points[starts[1:][closed[first]] - 1] = points[starts[:-1][closed[first]]]  # to the last bit
    pieces = np.unique(np.concatenate([own for _, own in groups]))
    return ShapedOutlines(points, starts, closed[first], piece[first], shape[first], stroked[first], pieces, pieces[:0], pieces[:0])


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
        return as_points(way.places(which, placed[..., 0].ravel(), placed[..., 1].ravel())).reshape(placed.shape)

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


def _of_motif(contours: Contours, pieces: np.ndarray, linear: np.ndarray):
    """Return all cubics of some pieces of a motif in the line's own (x, v), each with its piece, and its contour's shape, number, and
    whether it is closed and a stroke's.
    """
    n, m = len(pieces), len(contours.cubics)
    placed = contours.cubics.reshape(1, -1, 2) @ linear[pieces].transpose(0, 2, 1)
    by_contour = contours.shape, np.arange(len(contours.closed)), contours.closed, contours.stroked
    return placed.reshape(-1, 4, 2), np.repeat(pieces, m), *(np.tile(column[contours.contour], n) for column in by_contour)


def too_many_curves() -> LimitError:
    """Return the refusal of what would bend into more curves than can be drawn."""
    return LimitError("these bent pieces take more curves than can be drawn: take larger or fewer pieces, "
                      "a motif with fewer points, or smooth the line")  # fmt: skip


def _stray_of_strokes(tolerance: float, linear: np.ndarray) -> float:
    """Return how far a stroke's outline may stray in mm of its motif, so that it strays by little of ``tolerance`` on the page.

    It is a power of two, for outlines that were made at one size to serve at others; ``linear`` (n, 2, 2) may be empty.
    """
    largest = np.abs(linear).sum(axis=2).max(initial=0.0)
    return float(2.0 ** np.floor(np.log2(STROKES_SHARE * tolerance / largest))) if largest > 0 else 0.0


def _bent(cubics: np.ndarray, piece: np.ndarray, contour: np.ndarray, way: Way, told: Way | Near, tolerance: float):
    """Return the points (k, 2) of contours' bent cubics, where each contour starts (c + 1,), and its first row (c,) as it was."""
    first = way.first_break
    split = split_at_levels(as_complex(cubics), first[piece], first[piece + 1], way.break_x, most=MOST_AT_ONCE)
    if split is None:
        raise too_many_curves()
    of = piece[split.row]
    along = forms_along(way, told, piece[run_heads(piece)])
    done = bent_by_forms(split.parts, along.form[along.base_of(of) + split.before], along.forms, tolerance=tolerance, most=MOST_AT_ONCE)
    if done is None:
        raise too_many_curves()
    rest = _looked_up(split, done.left, of, along.parts, way, told, tolerance) if len(done.left) else _Rest(done.cubics[:0], done.left)
    heads = run_heads(piece, contour)
    points, starts = merged_cubics(done.cubics, done.row, rest.cubics, rest.row, np.searchsorted(split.row, heads), split.parts)
    return points, starts, heads


def points_along(way: Way, told: Way | Near, pieces: np.ndarray, points: np.ndarray) -> np.ndarray:
    """Return where points (k, m), x + iv, of pieces (k,) go on the page, complex; ``told`` may tell it faster than ``way``."""
    first, along = way.first_break, forms_along(way, told, np.unique(pieces))
    breaks = first[pieces], first[pieces + 1], way.break_x
    out, left = placed_by_forms(points, breaks, along.base_of(pieces), along.form, along.forms)
    if len(left):
        of, x, v = pieces[left // points.shape[1]], np.real(points).ravel()[left], np.imag(points).ravel()[left]
        of, told = (of, told) if along.parts is None else (along.parts.at(of, x), along.parts.told(told))
        out.ravel()[left] = told.places(of, x, v)
    return out


class _Rest(NamedTuple):
    """Bent cubics (k, 4) as complex numbers, in order, and the rows (k,) that they came from."""

    cubics: np.ndarray
    row: np.ndarray


def _looked_up(split: Split, row: np.ndarray, of: np.ndarray, parts: Parts | None, way: Way, told: Way | Near, tolerance: float) -> _Rest:
    """Bend some rows (m,) of cubics of pieces ``of`` (n,) by looking up where their points go, level by level of halves."""
    cubics, of, broken = split.parts[row], of[row], split.passing[row]
    bending = ~way.straight[of]
    if parts is not None:
        x = np.real(cubics)
        of, told = parts.holding(of, x.min(axis=1), x.max(axis=1)), parts.told(told)
        broken &= ~parts.steady[of, None]
        bending &= ~parts.even[of]
    begin, width = np.zeros(len(row)), np.ones(len(row))
    known = _Known(_ends_of(cubics, of, told, broken), np.zeros((len(row), len(TESTED)), complex))
    tested = np.flatnonzero(bending)
    known.inside[tested] = _inside_of(cubics[tested], of[tested], told, THIRDS)
    done: list[tuple[np.ndarray, np.ndarray, np.ndarray]] = []
    for level in range(MOST_HALVINGS + 1):
        (mapped, strays), good = _between(cubics, known), np.ones(len(row), bool)
        good[tested] = strays[tested] <= tolerance
        if level == MOST_HALVINGS:  # where even so small a part strays, handles may point anywhere
            mapped[~good, 1:3] = mapped[~good][:, [0, 3]] @ [[2 / 3, 1 / 3], [1 / 3, 2 / 3]]
            good[:] = True
        if good.all():
            done.append((mapped, row, begin))
            break
        done.append((mapped[good], row[good], begin[good]))
        if 2 * (len(row) - good.sum()) > MOST_AT_ONCE:
            raise too_many_curves()
        row, of, width = (np.repeat(column[~good], 2) for column in (row, of, width / 2))
        begin = np.repeat(begin[~good], 2) + np.where(np.arange(len(row)) % 2, width, 0.0)
        cubics = (cubics[~good] @ HALVES).reshape(-1, 4)  # halves follow on one another
        known, tested = _of_halves(cubics, of, known.some(~good), told), slice(None)
    if len(done) == 1:
        return _Rest(*done[0][:2])
    bent, row, begin = (np.concatenate(columns) for columns in zip(*done, strict=True))
    order = np.lexsort((begin, row))
    return _Rest(bent[order], row[order])


class _Known(NamedTuple):
    """What is known of cubics (m, 4): the places of their ``ends`` (3, m, 2) and how these move a mm of x and of v, and of their
    ``inside`` (m, 2), the thirds.
    """

    ends: np.ndarray
    inside: np.ndarray

    def some(self, rows: np.ndarray) -> _Known:
        return _Known(self.ends[:, rows], self.inside[rows])


def _of_halves(halves: np.ndarray, piece: np.ndarray, whole: _Known, told: Way | Near) -> _Known:
    """Return what is known of halves (2 m, 4), two of each cubic behind one another, whose own ends and thirds are theirs: the first half
    has a third where the whole had one, and so has the second; what else they need is looked up.
    """
    first, second = slice(None, None, 2), slice(1, None, 2)
    middle, of = halves[first, 3], piece[first]
    new = np.stack(told.moves(of, np.real(middle), np.imag(middle)))
    ends, inside = np.empty((3, len(halves), 2), complex), np.empty((len(halves), len(TESTED)), complex)
    ends[:, first, 0], ends[:, second, 1] = np.moveaxis(whole.ends, 2, 0)
    ends[:, first, 1] = ends[:, second, 0] = new
    inside[first, 1], inside[second, 0] = whole.inside.T
    inside.ravel()[[0, 3] + 4 * np.arange(len(of))[:, None]] = _inside_of(halves.reshape(-1, 8), of, told, THIRDS_LEFT)
    return _Known(ends, inside)


def _ends_of(cubics: np.ndarray, piece: np.ndarray, told: Way | Near, broken: np.ndarray) -> np.ndarray:
    """Return the places of the ends of cubics (m, 4), and how they move a mm of x and of v: (3, m, 2), as complex numbers.

    Both ends of a cubic that follows another are the very same numbers, for contours to hang
    together, and are looked up once. At ends (m, 2) that are ``broken`` the line's bend jumps: there the direction is that
    of a point just inside.
    """
    m = len(cubics)
    follows = (piece[1:] == piece[:-1]) & (cubics[1:, 0] == cubics[:-1, 3])
    apart = np.flatnonzero(~np.append(follows, False)[:m])  # cubics whose end begins no other
    looked_up = np.arange(m)[:, None] + (0, 1)
    looked_up[apart, 1] = m + np.arange(len(apart))
    ends, of = np.concatenate([cubics[:, 0], cubics[apart, 3]]), np.append(piece, piece[apart])
    out = np.stack([found[looked_up] for found in told.moves(of, np.real(ends), np.imag(ends))])
    rows, end = np.nonzero(broken)
    if len(rows):
        t = np.where(end == 0, JUST_INSIDE, 1 - JUST_INSIDE)
        inside = (bernstein(t) * cubics[rows]).sum(axis=1)
        out[1:, rows, end] = told.moves(piece[rows], np.real(inside), np.imag(inside))[1:]
    return out


def _between(cubics: np.ndarray, known: _Known) -> tuple[np.ndarray, np.ndarray]:
    """Return the cubics (m, 4) with the mapped ends and end directions, and how far (m,) they lie from the mapped curves at most, judged by
    where these have their thirds.
    """
    mapped, square = _hermite(for_compiled(cubics, complex), for_compiled(known.ends, complex), for_compiled(known.inside, complex))
    return mapped, AT_MOST * np.sqrt(square)


@compiled
def _hermite(cubics, ends, inside):
    mapped, square = np.empty((len(cubics), 4), np.complex128), np.empty(len(cubics))
    for i in range(len(cubics)):
        one, two = cubics[i, 1] - cubics[i, 0], cubics[i, 3] - cubics[i, 2]  # thirds of the derivatives
        a, d = ends[0, i, 0], ends[0, i, 1]
        b = a + summed(ends[1, i, 0], ends[2, i, 0], 0j, 0j, one.real, one.imag, 0.0, 0.0)
        c = d - summed(ends[1, i, 1], ends[2, i, 1], 0j, 0j, two.real, two.imag, 0.0, 0.0)
        first = summed(a, b, c, d, 8 / 27, 12 / 27, 6 / 27, 1 / 27) - inside[i, 0]
        second = summed(a, b, c, d, 1 / 27, 6 / 27, 12 / 27, 8 / 27) - inside[i, 1]
        mapped[i, 0], mapped[i, 1], mapped[i, 2], mapped[i, 3] = a, b, c, d
        square[i] = max(first.real**2 + first.imag**2, second.real**2 + second.imag**2)
    return mapped, square


def _inside_of(controls: np.ndarray, piece: np.ndarray, told: Way | Near, basis: np.ndarray) -> np.ndarray:
    """Return where points go (m, t) that are sums of cubics' ``controls`` (m, c), by a ``basis`` (c, t)."""
    flat = _weighted(for_compiled(controls, complex), for_compiled(basis, float))
    return told.places(np.repeat(piece, basis.shape[1]), np.real(flat), np.imag(flat)).reshape(-1, basis.shape[1])


@compiled
def _weighted(controls, basis):
    count, many = basis.shape
    out = np.empty(len(controls) * many, np.complex128)
    for i in range(len(controls)):
        for j in range(many):
            x, y = 0.0, 0.0
            for k in range(count):
                x += controls[i, k].real * basis[k, j]
                y += controls[i, k].imag * basis[k, j]
            out[many * i + j] = complex(x, y)
    return out
