"""Bend very many curves where it is known in closed form where points go: straight on, about an arc, or by polynomials."""

from __future__ import annotations

from typing import NamedTuple

import numpy as np

from ..maths.compiled import compiled, for_compiled
from ..maths.curves import as_points
from ..maths.handles import fitted_handles, summed, times
from ..maths.levels import extent, first_beyond
from ..values.widths import mm_at, width_at
from .near import BEYOND, Near
from .way import Warp, Way

MOST_HALVINGS = 14
TESTED = np.array([1, 2]) / 3  # shares of a cubic
SURELY_EVEN = 8  # times less than a curve may stray, its ends are to differ in how they move; chosen
LARGE_ANGLE = 0.8  # up to which the series below hold: what they leave out is 1.4e-15
COLUMNS = 12  # of a table of forms
AT_MOST = 81 / 64  # of how far a cubic strays at the thirds, as far as it does anywhere: by t²(1 − t)², as ends and directions agree
PLAINLY, ACROSS, EVENLY, POLYNOMIAL = range(4)  # kinds of forms; as ``steady`` says


class Forms(NamedTuple):
    """Where points x + iv of some parts or pieces go, each by a row of ``table`` (f, 12): what it holds for, its kind, and its figures.

    ``knots`` and ``lines`` are the table of the ``Widths`` that steady ones follow, ``coeffs`` (2, degrees + 1, k) the polynomials'.
    """

    table: np.ndarray
    knots: np.ndarray
    lines: np.ndarray
    coeffs: np.ndarray


def steady(low, high, begin, origin, place, tangent, bend, shift, *, warp: Warp | None = None, parts: np.ndarray | None = None) -> Forms:
    """Return the forms of parts (f,) whose lines go straight on or in an arc of a circle, from the x ``low`` to ``high`` (f,).

    The x of 0 lies at the distance ``begin`` (f,) along the line, or at that even distance. From the distance ``origin`` (f,) on it lies
    at ``place`` (f,), goes along the unit ``tangent`` (f,), both complex, and has the curvature ``bend`` (f,). ``shift`` (f,) mm to the
    right of it lies v = 0. They go ``PLAINLY``, or follow the widths of their lines ``ACROSS`` or ``EVENLY``, as ``parts`` of ``warp``.
    """
    place, tangent = as_points(np.asarray(place)).T, as_points(np.asarray(tangent)).T
    kind, line = (PLAINLY, np.zeros(len(bend))) if warp is None else (ACROSS if warp.across else EVENLY, warp.track[parts])
    columns = low, high, np.full(len(bend), kind), line, begin, origin, *place, *tangent, bend, shift
    knots, lines = (np.zeros((0, 4)), np.zeros((0, 3))) if warp is None else warp.widths.table
    return _forms(np.column_stack(columns), knots, lines, np.zeros((2, 1, 0)))


def polynomials_of(told: Way | Near) -> Forms:
    """Return the forms of pieces (k,), row by row, whose points go to A(u) + v·B(u), polynomials; none where ``told`` has none."""
    if not isinstance(told, Near):
        return _forms(np.zeros((0, COLUMNS)), np.zeros((0, 4)), np.zeros((0, 3)), np.zeros((2, 1, 0)))
    middle, half, nothing = told.middle, told.half, np.zeros((len(told.middle), COLUMNS - 7))
    room = half * (1 + BEYOND)
    kind, row = np.full(len(middle), POLYNOMIAL), np.arange(len(middle))
    table = np.column_stack([middle - room, middle + room, kind, row, middle, half, told.degree, nothing])
    return _forms(table, np.zeros((0, 4)), np.zeros((0, 3)), told.coeffs)


def both(one: Forms, polynomials: Forms) -> Forms:
    """Return steady forms, and polynomials behind them."""
    return Forms(for_compiled(np.concatenate([one.table, polynomials.table]), float), one.knots, one.lines, polynomials.coeffs)


def _forms(table: np.ndarray, knots: np.ndarray, lines: np.ndarray, coeffs: np.ndarray) -> Forms:
    return Forms(for_compiled(table, float), for_compiled(knots, float), for_compiled(lines, int), for_compiled(coeffs, complex))


@compiled
def _figures(f, table):
    """Return of a form its kind, its line or its polynomials' row, and its other figures: four numbers, and two for steady parts alone."""
    place, tangent = complex(table[f, 6], table[f, 7]), complex(table[f, 8], table[f, 9])
    return int(table[f, 2]), int(table[f, 3]), table[f, 4], table[f, 5], place, tangent, table[f, 10], table[f, 11]


class Bent(NamedTuple):
    """Bent ``cubics`` (m, 4), complex, in order, the ``row`` (m,) that each came from, and the rows (j,) that are ``left`` as they were."""

    cubics: np.ndarray
    row: np.ndarray
    left: np.ndarray


def bent_by_forms(cubics: np.ndarray, form: np.ndarray, forms: Forms, *, tolerance: float, most: int) -> Bent | None:
    """Bend cubics (n, 4), complex, x and v of their pieces, within ``tolerance`` mm by their own ``form`` (n,), −1 where none is known.

    A cubic is halved as long as the one with its mapped ends and end directions strays, with their lengths as well or, in steady parts,
    with such as fit, at most 14 times. Left are those without a form,
    and those that reach beyond what theirs holds for. Return None where they become ``most`` or more.
    """
    bent, row, left = _bent(for_compiled(cubics, complex), for_compiled(form, int), *forms, (tolerance / AT_MOST) ** 2, most)
    return None if len(row) >= most else Bent(bent, row, left)


def placed_by_forms(
    points: np.ndarray, breaks: tuple[np.ndarray, np.ndarray, np.ndarray], base: np.ndarray, form: np.ndarray, forms: Forms
):
    """Return where points (k, m), x + iv, of pieces (k,) go, and the places (j,) of those left as by ``bent_by_forms``, row by row.

    ``breaks`` are the places (k,) of the first one of each piece's, and behind the last, among the x of all, rising in each piece: behind
    so many of all of them a piece has the ``form`` (q,) as much after its ``base`` (k,).
    """
    first, end, levels = breaks
    first, end, base, form = (for_compiled(column, int) for column in (first, end, base, form))
    return _placed(for_compiled(points, complex), for_compiled(levels, float), first, end, base, form, *forms)


@compiled
def _placed(points, levels, first, end, base, form, table, knots, lines, coeffs):
    pieces, many = points.shape
    out, left, count = np.empty((pieces, many), np.complex128), np.empty(pieces * many, np.int64), 0
    last_found = np.zeros(1, np.int64)
    for i in range(pieces):
        for j in range(many):
            x = points[i, j].real
            f = form[base[i] + first_beyond(levels, first[i], end[i], x)]
            if f >= 0 and table[f, 0] <= x <= table[f, 1]:
                out[i, j] = _moved(points[i, j], _figures(f, table), coeffs, knots, lines, last_found)[0]
            else:
                left[count] = i * many + j
                count += 1
    return out, left[:count]


@compiled
def _bent(cubics, form, table, knots, lines, coeffs, most_off, most):
    done, count, room = 0, 0, len(cubics) + len(cubics) // 4 + 64
    out, row, left = np.empty((room, 4), np.complex128), np.empty(room, np.int64), np.empty(len(cubics), np.int64)
    todo, depth, last_found = np.empty((MOST_HALVINGS + 2, 17), np.complex128), np.empty(MOST_HALVINGS + 2, np.int64), np.zeros(1, np.int64)
    for i in range(len(cubics)):
        f = form[i]
        if f < 0 or not _holds(cubics[i, 0].real, cubics[i, 1].real, cubics[i, 2].real, cubics[i, 3].real, table[f, 0], table[f, 1]):
            left[count] = i
            count += 1
            continue
        figures = _figures(f, table)
        flat = even = _is_flat(figures)
        if not flat:
            even = _put_ends(cubics[i, 0], cubics[i, 1], cubics[i, 2], cubics[i, 3], figures, coeffs, knots, lines, last_found, todo)
            even = figures[0] != POLYNOMIAL and even and _is_even(todo, most_off)
        if not even:
            _put_thirds(figures, coeffs, knots, lines, last_found, todo)
        top = depth[0] = 0
        while top >= 0 and done < most:
            if done == len(out):
                out, row = np.concatenate((out, np.empty_like(out))), np.concatenate((row, np.empty_like(row)))
            if flat:
                for j in range(4):
                    out[done, j] = _on_flat(cubics[i, j], figures)
            else:
                _put_bent(todo, top, out, done)
            if not (even or _is_close(todo, top, out, done, most_off)):
                _put_between(figures, coeffs, knots, lines, last_found, todo, top)
                if figures[0] == POLYNOMIAL or not _put_fitted(todo, top, out, done, most_off):
                    if depth[top] < MOST_HALVINGS:
                        _halve(todo, top)
                        depth[top] += 1
                        depth[top + 1] = depth[top]
                        top += 1
                        continue
                    _put_straight(out, done)
            row[done] = i
            done, top = done + 1, top - 1
    return out[:done], row[:done], left[:count]


@compiled
def _is_flat(figures):
    """Tell whether points go on just as they lie."""
    kind, _, _, _, _, _, bend, _ = figures
    return kind == PLAINLY and bend == 0


@compiled
def _on_flat(z, figures):
    _, _, begin, origin, place, tangent, _, shift = figures
    return place + tangent * (z + complex(begin - origin, shift))


@compiled
def _holds(x0, x1, x2, x3, low, high):
    """Tell whether a cubic goes from ``low`` to ``high`` at most; its control points may lie further out."""
    if low <= min(min(x0, x1), min(x2, x3)) and max(max(x0, x1), max(x2, x3)) <= high:
        return True
    least, largest = extent(x0, x1, x2, x3)
    return low <= least and largest <= high


@compiled
def _put_ends(a, b, c, d, figures, coeffs, knots, lines, last_found, todo):
    """Put a whole cubic in first place, with where its ends go and how they move; tell whether no knot of widths lies between these."""
    todo[0, 0], todo[0, 1], todo[0, 2], todo[0, 3] = a, b, c, d
    todo[0, 4], todo[0, 5], todo[0, 6] = _moved(a, figures, coeffs, knots, lines, last_found)
    knot = last_found[0]
    todo[0, 7], todo[0, 8], todo[0, 9] = _moved(d, figures, coeffs, knots, lines, last_found)
    return last_found[0] == knot


@compiled
def _is_even(todo, most_off):
    """Tell whether points of the first cubic move by so nearly the same that it needs no trial: by how its ends do, and where they go."""
    a, b, c, d = todo[0, 0], todo[0, 1], todo[0, 2], todo[0, 3]
    by_x, by_v, off = todo[0, 8] - todo[0, 5], todo[0, 9] - todo[0, 6], todo[0, 7] - todo[0, 4]
    x = max(max(a.real, b.real), max(c.real, d.real)) - min(min(a.real, b.real), min(c.real, d.real))
    v = max(max(a.imag, b.imag), max(c.imag, d.imag)) - min(min(a.imag, b.imag), min(c.imag, d.imag))
    off -= summed(todo[0, 5], todo[0, 6], by_x, by_v, (d - a).real, (d - a).imag, (d - a).real / 2, (d - a).imag / 2)
    return SURELY_EVEN**2 * (_square(by_x) * x * x + _square(by_v) * v * v + _square(off)) <= most_off


@compiled
def _square(z):
    return z.real * z.real + z.imag * z.imag


@compiled
def _put_thirds(figures, coeffs, knots, lines, last_found, todo):
    """Put behind what is known of a whole cubic where its thirds go."""
    a, b, c, d = todo[0, 0], todo[0, 1], todo[0, 2], todo[0, 3]
    todo[0, 10] = _moved(summed(a, b, c, d, 8 / 27, 12 / 27, 6 / 27, 1 / 27), figures, coeffs, knots, lines, last_found)[0]
    todo[0, 11] = _moved(summed(a, b, c, d, 1 / 27, 6 / 27, 12 / 27, 8 / 27), figures, coeffs, knots, lines, last_found)[0]


@compiled
def _put_bent(todo, top, out, n):
    """Put in row ``n`` the cubic with the mapped ends and end directions."""
    one, two = todo[top, 1] - todo[top, 0], todo[top, 3] - todo[top, 2]  # thirds of the derivatives
    out[n, 0], out[n, 3] = todo[top, 4], todo[top, 7]
    out[n, 1] = out[n, 0] + summed(todo[top, 5], todo[top, 6], 0j, 0j, one.real, one.imag, 0.0, 0.0)
    out[n, 2] = out[n, 3] - summed(todo[top, 8], todo[top, 9], 0j, 0j, two.real, two.imag, 0.0, 0.0)


@compiled
def _is_close(todo, top, out, n, most_off):
    """Tell whether the cubic in row ``n`` has its thirds close to where these go."""
    a, b, c, d = out[n, 0], out[n, 1], out[n, 2], out[n, 3]
    one = summed(a, b, c, d, 8 / 27, 12 / 27, 6 / 27, 1 / 27) - todo[top, 10]
    two = summed(a, b, c, d, 1 / 27, 6 / 27, 12 / 27, 8 / 27) - todo[top, 11]
    return _square(one) <= most_off and _square(two) <= most_off


@compiled
def _put_straight(out, n):
    """Put the handles of the cubic in row ``n`` on its chord: where even so small a part strays, they may point anywhere."""
    out[n, 1], out[n, 2] = (2 * out[n, 0] + out[n, 3]) / 3, (out[n, 0] + 2 * out[n, 3]) / 3


@compiled
def _put_between(figures, coeffs, knots, lines, last_found, todo, top):
    """Put behind what is known of a cubic where its middle goes and how that moves, and where its first and its last sixth go."""
    a, b, c, d = todo[top, 0], todo[top, 1], todo[top, 2], todo[top, 3]
    first, last = summed(a, b, c, d, 125 / 216, 75 / 216, 15 / 216, 1 / 216), summed(a, b, c, d, 1 / 216, 15 / 216, 75 / 216, 125 / 216)
    middle = summed(a, b, c, d, 1 / 8, 3 / 8, 3 / 8, 1 / 8)
    todo[top, 12], todo[top, 13], todo[top, 14] = _moved(middle, figures, coeffs, knots, lines, last_found)
    todo[top, 15] = _moved(first, figures, coeffs, knots, lines, last_found)[0]
    todo[top, 16] = _moved(last, figures, coeffs, knots, lines, last_found)[0]


@compiled
def _put_fitted(todo, top, out, n, most_off):
    """Make the handles of the cubic in row ``n`` longer or shorter for it to go where its sixths go; tell whether it does."""
    a, b, c, d = out[n, 0], out[n, 1], out[n, 2], out[n, 3]
    sixths = todo[top, 15], todo[top, 10], todo[top, 12], todo[top, 11], todo[top, 16]
    fits, out[n, 1], out[n, 2] = fitted_handles(a, b, c, d, *sixths, most_off)
    return fits


@compiled
def _halve(todo, top):
    """Put the second half of the last cubic in its place, and the first half behind it, with what is known of both.

    The first half has its second third where the whole had its first, and the second its first where the whole had its second.
    """
    a, b, c, d = todo[top, 0], todo[top, 1], todo[top, 2], todo[top, 3]
    ab, bc, cd = times(a + b, 0.5), times(b + c, 0.5), times(c + d, 0.5)
    abc, bcd, n = times(ab + bc, 0.5), times(bc + cd, 0.5), top + 1
    middle = times(abc + bcd, 0.5)
    todo[n, 0], todo[n, 1], todo[n, 2], todo[n, 3] = a, ab, abc, middle
    todo[top, 0], todo[top, 1], todo[top, 2] = middle, bcd, cd
    for k in range(3):
        todo[n, 4 + k], todo[n, 7 + k] = todo[top, 4 + k], todo[top, 12 + k]
        todo[top, 4 + k] = todo[top, 12 + k]
    todo[n, 10], todo[n, 11], todo[top, 10], todo[top, 11] = todo[top, 15], todo[top, 10], todo[top, 11], todo[top, 16]


@compiled
def _moved(z, figures, coeffs, knots, lines, last_found):
    """Return where a point x + iv goes, and how that moves a mm of x and of v; as ``Way.moves`` does."""
    kind, row, begin, origin, place, tangent, bend, shift = figures
    if kind == POLYNOMIAL:
        return _by_polynomials(z, row, begin, origin, int(place.real), coeffs)
    s, rate, width, change = begin + z.real, 1.0, 1.0, 0.0
    if kind == ACROSS:
        width, change = width_at(s, row, knots, lines, last_found)
    elif kind == EVENLY:
        s, width, change = mm_at(s, row, knots, lines, last_found)
        rate = width
    along = s - origin
    if bend != 0:
        turn = _unit(bend * along / 2)
        tangent, along = tangent * turn, 2 * turn.imag / bend
        here, tangent = place + times(tangent, along), tangent * turn
    else:
        here = place + times(tangent, along)
    h = shift + z.imag * width
    by_x = times(tangent, rate * (1 - bend * h)) + _beside(tangent, rate * z.imag * change)
    return here + _beside(tangent, h), by_x, _beside(tangent, width)


@compiled
def _beside(tangent, h):
    """Return what leads ``h`` mm to the right of where a unit tangent goes."""
    return complex(-tangent.imag * h, tangent.real * h)


@compiled
def _unit(angle):
    """Return the unit number at an angle; of one that is not large by its series, to the last bit or two."""
    q = angle * angle
    if not q < LARGE_ANGLE**2:
        return complex(np.cos(angle), np.sin(angle))
    even = 1 / 24 + q * (-1 / 720 + q * (1 / 40320 + q * (-1 / 3628800 + q * (1 / 479001600 + q * (-1 / 87178291200)))))
    odd = 1 / 120 + q * (-1 / 5040 + q * (1 / 362880 + q * (-1 / 39916800 + q * (1 / 6227020800 + q * (-1 / 1307674368000)))))
    return complex(1 + q * (-0.5 + q * even), angle * (1 + q * (-1 / 6 + q * odd)))


@compiled
def _by_polynomials(z, row, middle, half, degree, coeffs):
    u = (z.real - middle) / half
    a, b = coeffs[0, degree, row], coeffs[1, degree, row]
    by_u, across_by_u = 0j, 0j
    for k in range(degree - 1, -1, -1):
        by_u, across_by_u = times(by_u, u) + a, times(across_by_u, u) + b
        a, b = times(a, u) + coeffs[0, k, row], times(b, u) + coeffs[1, k, row]
    return a + times(b, z.imag), times(by_u + times(across_by_u, z.imag), 1 / half), b
