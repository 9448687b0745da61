"""Bend very many curves where it is known in closed form where points go: straight on, about an arc, or by polynomials."""

from __future__ import annotations

from typing import NamedTuple

import numpy as np
from numpy.typing import ArrayLike

from ..maths.compiled import compiled, for_compiled
from ..values.widths import mm_at, width_at
from .near import BEYOND, Near
from .way import Warp, Way

MOST_HALVINGS = 14
TESTED = np.array([1, 2]) / 3  # shares of a cubic
AT_MOST = 81 / 64  # of how far a cubic strays at the thirds, as far as it does anywhere: by t²(1 − t)², as ends and directions agree
PLAINLY, ACROSS, EVENLY, BY_POLYNOMIALS = range(
    4
)  # how points go along lines: as long as they are, in width or also in length as these are wide


class Steady(NamedTuple):
    """Parts (f,) of pieces whose lines go straight on or in an arc of a circle, from the x ``low`` to ``high`` (f,).

    The x of 0 lies at the distance ``begin`` (f,) along the line, or at that even distance. From the distance ``origin`` (f,) on it lies
    at ``place`` (f,), goes along the unit ``tangent`` (f,), both complex, and has the curvature ``bend`` (f,). ``shift`` (f,) mm to the
    right of it lies v = 0.
    """

    low: np.ndarray
    high: np.ndarray
    begin: np.ndarray
    origin: np.ndarray
    place: np.ndarray
    tangent: np.ndarray
    bend: np.ndarray
    shift: np.ndarray


class Polynomials(NamedTuple):
    """Pieces (k,) whose points (x, v) go to A(u) + v·B(u), with u = (x − middle) / half from −1 to 1, or next to nothing beyond.

    ``degree`` (k,) is from where on nothing is left, and ``coeffs`` (2, degrees + 1, k), complex, are of A and of B by powers of u.
    """

    middle: np.ndarray
    half: np.ndarray
    degree: np.ndarray
    coeffs: np.ndarray


class Following(NamedTuple):
    """How steady parts (f,) follow the widths of their ``line`` (f,): ``kind`` is ``PLAINLY``, ``ACROSS`` or ``EVENLY``.

    ``knots`` (k, 4) and ``lines`` (n, 3) are the table of their ``Widths``.
    """

    kind: int
    line: np.ndarray
    knots: np.ndarray
    lines: np.ndarray


class Forms(NamedTuple):
    """What is known: first the steady parts (f,), with the widths that these follow, and behind them the polynomials (k,)."""

    steady: Steady
    following: Following
    polynomials: Polynomials


def steady_of(*columns: ArrayLike) -> Steady:
    """Return steady parts by their columns (f,) of numbers."""
    kinds = float, float, float, float, complex, complex, float, float
    return Steady(*(for_compiled(column, kind) for column, kind in zip(columns, kinds, strict=True)))


def following_of(warp: Warp | None, parts: np.ndarray) -> Following:
    """Return how some parts (f,) of all those of ``warp`` follow their lines' widths."""
    if warp is None:
        return Following(PLAINLY, for_compiled([], int), for_compiled(np.zeros((0, 4)), float), for_compiled(np.zeros((0, 3)), int))
    return Following(ACROSS if warp.across else EVENLY, for_compiled(warp.track[parts], int), *warp.widths.table)


def polynomials_of(told: Way | Near) -> Polynomials:
    """Return the polynomials of pieces, none where ``told`` has none."""
    near = (told.middle, told.half, told.degree, told.coeffs) if isinstance(told, Near) else ([], [], [], np.zeros((2, 1, 0)))
    return Polynomials(*(for_compiled(column, kind) for column, kind in zip(near, (float, float, int, complex), strict=True)))


def forms_of(told: Way | Near) -> tuple[np.ndarray, Forms]:
    """Return of all pieces (n,) that do not turn about vertices the closed form, −1 where there is none, and all these."""
    form = told.rows if isinstance(told, Near) else np.full(len(told.s), -1)
    return form, Forms(steady_of(*[[]] * 8), following_of(None, form), polynomials_of(told))


class Bent(NamedTuple):
    """Bent ``cubics`` (m, 4), complex, in order, the ``row`` (m,) that each came from, and the rows (j,) that are ``left`` as they were."""

    cubics: np.ndarray
    row: np.ndarray
    left: np.ndarray


def bent_by_forms(cubics: np.ndarray, form: np.ndarray, forms: Forms, *, tolerance: float, most: int) -> Bent | None:
    """Bend cubics (n, 4), complex, x and v of their pieces, within ``tolerance`` mm by their own ``form`` (n,), −1 where none is known.

    A cubic is halved as long as the one with its mapped ends and end directions strays, at most 14 times. Left are those without a form,
    and those that reach beyond what theirs holds for. Return None where they become ``most`` or more.
    """
    bent, row, left = _bent(for_compiled(cubics, complex), for_compiled(form, int), forms, (tolerance / AT_MOST) ** 2, most)
    return None if len(row) >= most else Bent(bent, row, left)


@compiled
def _bent(cubics, form, forms, most_off, most):
    low, high, begin, origin, place, tangent, bend, shift = forms.steady
    middle, half, degree, coeffs = forms.polynomials
    kind, line, knots, lines = forms.following
    size, count, known, room = 0, 0, len(low), len(cubics) + len(cubics) // 4 + 64
    out, row, left = np.empty((room, 4), np.complex128), np.empty(room, np.int64), np.empty(len(cubics), np.int64)
    todo, depth = np.empty((MOST_HALVINGS + 2, 12), np.complex128), np.empty(MOST_HALVINGS + 2, np.int64)
    for i in range(len(cubics)):
        f, k = form[i], form[i] - known
        least, largest = _extent(cubics[i, 0].real, cubics[i, 1].real, cubics[i, 2].real, cubics[i, 3].real)
        if f < 0 or not (
            low[f] <= least and largest <= high[f] if k < 0 else max(middle[k] - least, largest - middle[k]) <= half[k] * (1 + BEYOND)
        ):
            left[count] = i
            count += 1
            continue
        if k < 0:
            about = (kind, line[f] if kind != PLAINLY else 0, 0, begin[f], origin[f], bend[f], shift[f], place[f], tangent[f])
        else:
            about = (BY_POLYNOMIALS, k, degree[k], middle[k], half[k], 0.0, 0.0, 0j, 0j)
        flat = about[0] == PLAINLY and about[5] == 0
        if not flat:
            _put_first(cubics[i, 0], cubics[i, 1], cubics[i, 2], cubics[i, 3], about, coeffs, knots, lines, todo)
        top = depth[0] = 0
        while top >= 0 and size < most:
            if size == len(out):
                out, row = np.concatenate((out, np.empty_like(out))), np.concatenate((row, np.empty_like(row)))
            if flat:
                for j in range(4):
                    out[size, j] = about[7] + about[8] * (cubics[i, j] + complex(about[3] - about[4], about[6]))
            elif not _put_bent(todo, top, out, size, most_off) and depth[top] < MOST_HALVINGS:
                _halve(about, coeffs, knots, lines, todo, top)
                depth[top] += 1
                depth[top + 1] = depth[top]
                top += 1
                continue
            row[size] = i
            size, top = size + 1, top - 1
    return out[:size], row[:size], left[:count]


@compiled
def _extent(a, b, c, d):
    return min(min(a, b), min(c, d)), max(max(a, b), max(c, d))


@compiled
def _put_first(a, b, c, d, about, coeffs, knots, lines, todo):
    """Put a whole cubic in first place, with where its ends go and how they move, and where its thirds go."""
    todo[0, 0], todo[0, 1], todo[0, 2], todo[0, 3] = a, b, c, d
    todo[0, 4], todo[0, 5], todo[0, 6] = _moved(a, about, coeffs, knots, lines)
    todo[0, 7], todo[0, 8], todo[0, 9] = _moved(d, about, coeffs, knots, lines)
    todo[0, 10] = _moved((8 * a + 12 * b + 6 * c + d) / 27, about, coeffs, knots, lines)[0]
    todo[0, 11] = _moved((a + 6 * b + 12 * c + 8 * d) / 27, about, coeffs, knots, lines)[0]


@compiled
def _put_bent(todo, top, out, n, most_off):
    """Put in row ``n`` the cubic with the mapped ends and end directions; tell whether it has its thirds close to where these go."""
    one, two = todo[top, 1] - todo[top, 0], todo[top, 3] - todo[top, 2]  # thirds of the derivatives
    a, d = todo[top, 4], todo[top, 7]
    b = a + (todo[top, 5] * one.real + todo[top, 6] * one.imag)
    c = d - (todo[top, 8] * two.real + todo[top, 9] * two.imag)
    out[n, 0], out[n, 1], out[n, 2], out[n, 3] = a, b, c, d
    one = (8 * a + 12 * b + 6 * c + d) / 27 - todo[top, 10]
    two = (a + 6 * b + 12 * c + 8 * d) / 27 - todo[top, 11]
    return one.real * one.real + one.imag * one.imag <= most_off and two.real * two.real + two.imag * two.imag <= most_off


@compiled
def _halve(about, coeffs, knots, lines, todo, top):
    """Put the second half of the last cubic in its place, and the first half behind it, with what is known and what is not.

    The first half has its second third where the whole had its first, and the second its first where the whole had its second.
    """
    a, b, c, d = todo[top, 0], todo[top, 1], todo[top, 2], todo[top, 3]
    ab, bc, cd = (a + b) / 2, (b + c) / 2, (c + d) / 2
    abc, bcd = (ab + bc) / 2, (bc + cd) / 2
    middle, n = (abc + bcd) / 2, top + 1
    todo[n, 0], todo[n, 1], todo[n, 2], todo[n, 3] = a, ab, abc, middle
    todo[top, 0], todo[top, 1], todo[top, 2] = middle, bcd, cd
    todo[n, 4], todo[n, 5], todo[n, 6] = todo[top, 4], todo[top, 5], todo[top, 6]
    todo[n, 7], todo[n, 8], todo[n, 9] = _moved(middle, about, coeffs, knots, lines)
    todo[top, 4], todo[top, 5], todo[top, 6] = todo[n, 7], todo[n, 8], todo[n, 9]
    todo[n, 11], todo[top, 10] = todo[top, 10], todo[top, 11]
    todo[n, 10] = _moved((8 * a + 12 * ab + 6 * abc + middle) / 27, about, coeffs, knots, lines)[0]
    todo[top, 11] = _moved((middle + 6 * bcd + 12 * cd + 8 * d) / 27, about, coeffs, knots, lines)[0]


@compiled
def _moved(z, about, coeffs, knots, lines):
    """Return where a point x + iv goes, and how that moves a mm of x and of v; as ``Way.moves`` does."""
    kind, row, degree, begin, origin, bend, shift, place, tangent = about
    if kind == BY_POLYNOMIALS:
        return _by_polynomials(z, row, degree, begin, origin, coeffs)
    s, rate, width, change = begin + z.real, 1.0, 1.0, 0.0
    if kind == ACROSS:
        width, change = width_at(s, row, knots, lines)
    elif kind == EVENLY:
        s, width, change = mm_at(s, row, knots, lines)
        rate = width
    here = place + tangent * (s - origin)
    if bend != 0:
        angle = bend * (s - origin) / 2
        turn = complex(np.cos(angle), np.sin(angle))
        here = place + tangent * turn * (2 * turn.imag / bend)
        tangent = tangent * turn * turn
    normal, h = complex(-tangent.imag, tangent.real), shift + z.imag * width
    return here + normal * h, tangent * (rate * (1 - bend * h)) + normal * (rate * z.imag * change), normal * width


@compiled
def _by_polynomials(z, row, degree, middle, half, coeffs):
    u = (z.real - middle) / half
    a, b = coeffs[0, degree, row], coeffs[1, degree, row]
    by_u, across_by_u = 0j, 0j
    for k in range(degree - 1, -1, -1):
        by_u, across_by_u = by_u * u + a, across_by_u * u + b
        a, b = a * u + coeffs[0, k, row], b * u + coeffs[1, k, row]
    return a + b * z.imag, (by_u + across_by_u * z.imag) / half, b
