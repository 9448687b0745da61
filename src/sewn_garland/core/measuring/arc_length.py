"""Measure a line: arc length, its inverse, direction and curvature."""

from __future__ import annotations

from collections.abc import Sequence
from functools import lru_cache
from itertools import pairwise
from typing import NamedTuple

import numpy as np
from numpy.polynomial.chebyshev import chebvander

from ..errors import InputError, NumericError
from ..maths.curvature import LEAST_SPEED, SHARPEST_CURVATURE, curvature, curvature_of, sharpest_of
from ..maths.curves import as_complex, as_points, cross, end_directions, jets, speeds_of
from ..maths.quadrature import chebyshev_at, gauss, running_integral_matrix
from ..maths.ragged import heads, owners, places, run_heads
from ..values.line import Frames, Line, MeasuredLine

COARSE, FINE = 8, 16
PANEL_REL_TOL = 1e-12  # chosen: of the whole length; the sum then stays below 1e-9 by far
MOST_HALVINGS = 60
SOLVE_ROUNDS = 60
INVERSE_CELLS = 32  # of a panel, in the table that solving starts from; chosen: two or three rounds are then enough
INVERSE_ENTRIES = 1 << 15  # about as many in all; chosen: of many short panels a coarser table takes less time than it saves
CIRCLE_REL_TOL = 4e-16  # of an arc's half axes: their last bits
GUESS_REL_TOL = 1e-9  # of a panel's length
MOST_TIGHT = 32  # samples whose segments are looked at for the tightest bend; chosen
AT_ONCE = 1 << 15  # distances looked up in one go, for what each takes on the way, some 600 bytes, to stay small; chosen
SOLVE_REL_TOL = 1e-14  # of the line's length: five orders below what is promised


class Segments(NamedTuple):
    """The segments (m, 4, 2) of n lines behind one another, which are arcs (m,), the ``line`` (m,) of each, the ``first`` (n,) of lines."""

    coeffs: np.ndarray
    is_arc: np.ndarray
    line: np.ndarray
    first: np.ndarray

    @classmethod
    def of(cls, lines: Sequence[Line]) -> Segments:
        """Return those of at least one line."""
        coeffs, is_arc = ([getattr(line, name) for line in lines] for name in ("coeffs", "is_arc"))
        counts = np.array([len(own) for own in is_arc])
        return cls(np.concatenate(coeffs), np.concatenate(is_arc), owners(counts), heads(counts))


def segments_of(lines: Sequence[MeasuredLine]) -> tuple[Segments, np.ndarray]:
    """Return the segments of measured lines behind one another, and the segment (p,) among them of each of their panels."""
    segments = Segments.of([line.line for line in lines])
    return segments, np.concatenate([line.panel_segment + own for line, own in zip(lines, segments.first, strict=True)])


def measure(line: Line) -> MeasuredLine:
    """Measure one line, as ``measured_all`` does."""
    return measured_all([line])[0]


def measured_all(lines: Sequence[Line]) -> list[MeasuredLine]:
    """Measure lines by adaptive Gauss quadrature of |P′(t)| with halving, all in one go; no lines give none.

    A line without extent has length 0 and no panels. Raises InputError for numbers that are
    not finite or so large that they cannot be measured.
    """
    if not lines:
        return []
    segments = Segments.of(lines)
    if not np.isfinite(segments.coeffs).all() or np.abs(segments.coeffs).max(initial=0.0) > 1e9:
        raise InputError("the line has numbers that are not finite or beyond 1 000 000 000 mm")
    steady = steady_of(segments)
    segment, t0, t1 = _panels(segments, steady, len(lines))
    length, series = _lengths(segments, steady, segment, t0, t1)
    edges = np.searchsorted(segments.line[segment], np.arange(len(lines) + 1))  # where each line's panels begin
    sums = [np.append(0.0, np.cumsum(length[a:b])) for a, b in pairwise(edges)]  # by line: its places do not depend on the others
    s0 = np.concatenate([own[:-1] for own in sums])
    bend_s, bend_k, bend_segment = _bends(segments, steady[segment] >= 0, segment, t0, t1, s0, length, series)
    vertex_s, vertex_turn, vertex_line = _vertices(segments, np.array([line.closed for line in lines]), segment, s0)
    bend_edges, vertex_edges = (
        np.searchsorted(of_line, np.arange(len(lines) + 1)) for of_line in (segments.line[bend_segment], vertex_line)
    )
    tightest = _tightest(segments, bend_s, bend_k, bend_segment, bend_edges)
    series, out = series.T, []
    for i, line in enumerate(lines):
        own, bends, turns = (slice(*part[i : i + 2]) for part in (edges, bend_edges, vertex_edges))
        out.append(MeasuredLine(
            line=line, length=float(sums[i][-1]), panel_segment=segment[own] - segments.first[i], panel_t0=t0[own], panel_t1=t1[own],
            panel_s0=s0[own], panel_length=length[own], panel_series=series[own],
            vertex_s=vertex_s[turns], vertex_turn=vertex_turn[turns], bend_s=bend_s[bends], bend_k=bend_k[bends],
            tightest_radius=tightest[i][0], tightest_s=tightest[i][1],
        ))  # fmt: skip
    return out


Located = tuple[np.ndarray, np.ndarray, np.ndarray]
"""Places and unit tangents (n,) as complex numbers, and signed curvature (n,) in 1/mm."""


def frames_at(measured: MeasuredLine, s: np.ndarray) -> Frames:
    """Return position and direction at distances s (n,) in mm along one line.

    Closed lines wrap; open ones go on straight beyond their ends. A line without extent answers
    with its start and the direction (1, 0).
    """
    s = np.asarray(s, dtype=float)
    return frames_on([measured], np.zeros(len(s), int), s)


def curvature_at(measured: MeasuredLine, s: np.ndarray) -> np.ndarray:
    """Return the signed curvature (n,) in 1/mm at distances s (n,); 0 on a line without extent and beyond the ends."""
    s = np.asarray(s, dtype=float)
    return curvature_on([measured], np.zeros(len(s), int), s)


def curvature_on(lines: Sequence[MeasuredLine], which: np.ndarray, s: np.ndarray) -> np.ndarray:
    """Return the signed curvature (n,) at distances s (n,) along the lines ``which`` (n,), all in one go."""
    return frames_and_bends_on(lines, which, s)[1]


def parameters_on(lines: Sequence[MeasuredLine], which: np.ndarray, s: np.ndarray) -> tuple[np.ndarray, np.ndarray]:
    """Return segment (n,), counted through all lines, and parameter (n,) at distances s (n,) within lines ``which`` of some length."""
    table = _table_of(tuple(lines))
    return _parameters(table, which, *_panel_at(table, which, np.clip(s, 0.0, table.length[which])))


def frames_on(lines: Sequence[MeasuredLine], which: np.ndarray, s: np.ndarray) -> Frames:
    """Return the frames at distances s (n,) along the lines ``which`` (n,), all in one go."""
    return _located(lines, which, s, order=1)[0]


def frames_and_bends_on(lines: Sequence[MeasuredLine], which: np.ndarray, s: np.ndarray) -> tuple[Frames, np.ndarray]:
    """Return the frames and the signed curvature (n,) at distances s (n,), 0 beyond the ends of open lines."""
    return _located(lines, which, s, order=2)


def _located(lines: Sequence[MeasuredLine], which: np.ndarray, s: np.ndarray, *, order: int) -> tuple[Frames, np.ndarray]:
    table = _table_of(tuple(lines))
    if len(s) > AT_ONCE:
        blocks = [slice(i, i + AT_ONCE) for i in range(0, len(s), AT_ONCE)]
        parts = [_located(lines, which[own], s[own], order=order) for own in blocks]
        place, tangent = (np.concatenate([getattr(frames, name) for frames, _ in parts]) for name in ("position", "tangent"))
        return Frames(place, tangent), np.concatenate([bend for _, bend in parts])
    if (table.length <= 0).any():
        return _located_with_gaps(lines, which, s, table.length[which], order)
    if len(lines) == 1:
        which = np.zeros((), int)  # what follows then takes the one line's numbers as they are
    length, closed = table.length[which], table.closed[which]
    inside = np.where(closed, np.mod(s, length), np.clip(s, 0.0, length))
    place, tangent, bend = _by_kind(table, which, *_panel_at(table, which, inside), order)
    beyond = np.where(closed, 0.0, s - inside)
    if beyond.any():
        place += beyond * tangent
        bend[beyond != 0] = 0.0
    return Frames(as_points(place), as_points(tangent)), bend if order > 1 else np.zeros(0)


def _by_kind(table: _Table, which: np.ndarray, panel: np.ndarray, along: np.ndarray, order: int) -> Located:
    """Return places and unit tangents (n,), and signed curvature (n,), 0 unless ``order`` is 2, so far along panels, each as its kind
    has it.
    """
    steady = table.panel_steady[panel]
    if steady.all():
        return _on_steady(table, panel, along)
    if not steady.any():
        return _on_curved(table, which, panel, along, order)
    out = np.zeros(len(panel), complex), np.zeros(len(panel), complex), np.zeros(len(panel))
    even, curved = np.flatnonzero(steady), np.flatnonzero(~steady)
    for rows, found in (
        (even, _on_steady(table, panel[even], along[even])),
        (curved, _on_curved(table, which[curved] if which.ndim else which, panel[curved], along[curved], order)),
    ):
        for column, values in zip(out, found, strict=True):
            column[rows] = values
    return out


def _on_curved(table: _Table, which: np.ndarray, panel: np.ndarray, along: np.ndarray, order: int) -> Located:
    """Answer for panels whose speed changes, by the parameter that lies so far along."""
    segment, t = _parameters(table, which, panel, along)
    coeffs, is_arc = table.coeffs[segment], table.is_arc[segment]
    place, d1, *d2 = (as_complex(each) for each in jets(coeffs, is_arc, t, order=order))
    speed = np.abs(d1)
    stalled = speed <= 1e-9 * table.segment_scale[segment] + LEAST_SPEED
    tangent = d1 / np.where(stalled, 1.0, speed)
    if stalled.any():
        tangent[stalled] = as_complex(end_directions(coeffs[stalled], is_arc[stalled], t[stalled]))
    return place, tangent, curvature(d1, d2[0], speed, stalled) if d2 else np.zeros(len(t))


def _on_steady(table: _Table, panel: np.ndarray, along: np.ndarray) -> Located:
    """Answer for straight sides and arcs of circles in closed form."""
    place, tangent, bend = table.panel_place[panel], table.panel_tangent[panel], table.panel_bend[panel]
    arcs = np.flatnonzero(bend)
    k, start = bend[arcs], tangent[arcs]
    turn = np.exp(1j * k * along[arcs])
    on_circle = place[arcs] + start * (turn - 1) / (1j * k)
    place += along * tangent
    place[arcs], tangent[arcs] = on_circle, start * turn
    return place, tangent, bend


def _located_with_gaps(lines, which, s: np.ndarray, length: np.ndarray, order: int) -> tuple[Frames, np.ndarray]:
    """Answer for lines without extent with their start, and for the others as usual."""
    starts = np.array([line.line.start for line in lines])
    position, tangent, bend = starts[which].copy(), np.tile([1.0, 0.0], (len(s), 1)), np.zeros(len(s))
    long = np.flatnonzero(length > 0)
    if len(long):
        kept = [i for i, line in enumerate(lines) if line.length > 0]
        renumbered = np.searchsorted(kept, which[long])
        frames, own = _located([lines[i] for i in kept], renumbered, s[long], order=order)
        position[long], tangent[long] = frames.position, frames.tangent
        if order > 1:
            bend[long] = own
    return Frames(position, tangent), bend


class _Table(NamedTuple):
    """The panels and segments of several lines behind one another.

    Of ``panel_steady`` ones, straight sides and arcs of circles, ``panel_place``, ``panel_tangent`` and ``panel_bend`` say how each begins,
    and its bend goes on.
    """

    length: np.ndarray
    closed: np.ndarray
    first_panel: np.ndarray
    last_panel: np.ndarray
    offset: np.ndarray
    panel_segment: np.ndarray
    panel_t0: np.ndarray
    panel_t1: np.ndarray
    panel_s0: np.ndarray
    panel_length: np.ndarray
    panel_series: np.ndarray
    straight: np.ndarray
    inverse: np.ndarray
    coeffs: np.ndarray
    is_arc: np.ndarray
    segment_scale: np.ndarray
    panel_steady: np.ndarray
    panel_place: np.ndarray
    panel_tangent: np.ndarray
    panel_bend: np.ndarray


@lru_cache(maxsize=16)
def _table_of(lines: tuple[MeasuredLine, ...]) -> _Table:
    counts = np.array([len(line.panel_s0) for line in lines])
    segments, panel_segment = segments_of(lines)
    coeffs = segments.coeffs
    length = np.array([line.length for line in lines])
    ends = np.cumsum(counts)
    offset = np.concatenate([[0.0], np.cumsum(length)[:-1]])
    series = np.concatenate([line.panel_series for line in lines])
    panel_length = np.concatenate([line.panel_length for line in lines])
    place, tangent, bend = (column[panel_segment] for column in _begins(segments))
    straight = np.abs(series[:, 2:]).max(axis=1, initial=0.0) <= 1e-14 * panel_length
    return _Table(
        length=length, closed=np.array([line.closed for line in lines]), first_panel=ends - counts, last_panel=ends - 1,
        offset=offset,
        panel_segment=panel_segment,
        panel_t0=np.concatenate([line.panel_t0 for line in lines]), panel_t1=np.concatenate([line.panel_t1 for line in lines]),
        panel_s0=np.concatenate([line.panel_s0 for line in lines]) + np.repeat(offset, counts),
        panel_length=panel_length, panel_series=series,
        straight=straight, inverse=_inverse_table(series, panel_length, straight),
        coeffs=coeffs, is_arc=segments.is_arc,
        segment_scale=np.abs(coeffs[:, 1:]).max(axis=(1, 2), initial=0.0),
        panel_steady=(steady_of(segments) >= 0)[panel_segment], panel_place=place, panel_tangent=tangent, panel_bend=bend,
    )  # fmt: skip


def _begins(line: Segments) -> tuple[np.ndarray, np.ndarray, np.ndarray]:
    """Return place and unit tangent (complex) and signed curvature (m,) where segments begin, the last of arcs of circles alone."""
    start = np.zeros(len(line.coeffs))
    place, tangent = jets(line.coeffs, line.is_arc, start, order=0)[0], end_directions(line.coeffs, line.is_arc, start)
    return as_complex(place), as_complex(tangent), np.where(line.is_arc, _bend_of_circles(line), 0.0)


def _panel_at(table: _Table, which, s: np.ndarray) -> tuple[np.ndarray, np.ndarray]:
    """Return the panel (n,) at distances s (n,) within each line, and how far along it (n,) they lie, mm."""
    along = s + table.offset[which]
    panel = np.searchsorted(table.panel_s0, along, side="right") - 1
    panel = np.clip(panel, table.first_panel[which], table.last_panel[which])
    return panel, along - table.panel_s0[panel]


def _parameters(table: _Table, which: np.ndarray, panel: np.ndarray, want: np.ndarray) -> tuple[np.ndarray, np.ndarray]:
    """Return segment (n,) and parameter t (n,) so many mm along panels (n,) of lines ``which``, by the panels' own series."""
    length = table.panel_length[panel]
    share = np.clip(want / np.where(length > 0, length, 1.0), 0.0, 1.0)
    u = 2.0 * share - 1.0
    curved = np.flatnonzero(~table.straight[panel])
    if len(curved):
        own = panel[curved]
        tol = np.broadcast_to(SOLVE_REL_TOL * table.length[which], want.shape)[curved]
        guess, gain = _guess(table, own, share[curved])
        u[curved] = _solve(np.ascontiguousarray(table.panel_series[own].T), want[curved], guess, gain / length[curved], tol)
    t0, t1 = table.panel_t0[panel], table.panel_t1[panel]
    return table.panel_segment[panel], t0 + (t1 - t0) * (u + 1.0) / 2.0


def _guess(table: _Table, panel: np.ndarray, share: np.ndarray) -> tuple[np.ndarray, np.ndarray]:
    """Return a first u by cubic Hermite interpolation in each panel's table of the inverse, and how it grows with the share."""
    cells = table.inverse.shape[1] - 1
    cell = np.minimum((share * cells).astype(int), cells - 1)
    f = share * cells - cell
    at = table.inverse.reshape(-1, 2)
    row = panel * (cells + 1) + cell
    (u0, d0), (u1, d1) = at[row].T, at[row + 1].T
    rise = u1 - u0
    second, third = 3 * rise - 2 * d0 - d1, d0 + d1 - 2 * rise
    return u0 + f * (d0 + f * (second + f * third)), (d0 + f * (2 * second + 3 * f * third)) * cells


def _inverse_table(series: np.ndarray, length: np.ndarray, straight: np.ndarray) -> np.ndarray:
    """Return u and its growth over a cell, (p, cells + 1, 2), at equal shares of each panel's length."""
    curved = np.flatnonzero(~straight & (length > 0))
    cells = int(np.clip(INVERSE_ENTRIES // max(1, len(curved)), 2, INVERSE_CELLS))
    table = np.zeros((len(length), cells + 1, 2))
    share = np.tile(np.linspace(0.0, 1.0, cells + 1), len(curved))
    panel = np.repeat(curved, cells + 1)
    series, whole = (np.ascontiguousarray(part[panel].T) for part in (series, length))
    u = _solve(series, share * whole, 2.0 * share - 1.0, 2.0 / whole, GUESS_REL_TOL * whole)
    growth = whole / np.maximum(chebyshev_at(_derivative_series(series), u), 1e-3 * whole) / cells
    table[curved] = np.stack([u, np.minimum(growth, 2.0)], axis=1).reshape(-1, cells + 1, 2)
    return table


def _solve(series: np.ndarray, want: np.ndarray, u: np.ndarray, gain: np.ndarray, tol: np.ndarray) -> np.ndarray:
    """Solve series(u) = want for u in [−1, 1] from a first u and about how u grows with what is wanted; series column-wise, (17, n).

    By secants, kept inside a shrinking bracket, so that it always ends. What is settled does not move on: places do not depend on others.
    """
    out, low, high, open_ = u, np.full_like(u, -1.0), np.ones_like(u), slice(None)
    before = miss_before = np.full_like(u, np.nan)
    for _ in range(SOLVE_ROUNDS):
        miss = chebyshev_at(series, u) - want
        unsettled = (np.abs(miss) > tol) & (high - low > 1e-15)
        count = np.count_nonzero(unsettled)
        if not count:
            break
        if count < len(u) / 2:  # chosen: taking apart what most still need takes longer than it saves
            open_ = np.arange(len(out))[open_][unsettled]
            series, (want, u, gain, tol, low, high, before, miss_before, miss) = (
                series[:, unsettled],
                (part[unsettled] for part in (want, u, gain, tol, low, high, before, miss_before, miss)),
            )
            unsettled = np.ones(count, bool)
        low, high = np.where(miss < 0, u, low), np.where(miss > 0, u, high)
        with np.errstate(divide="ignore", invalid="ignore"):
            secant = (u - before) / (miss - miss_before)
        gain = np.where((secant > 0) & (secant < np.inf), secant, gain)
        step = u - miss * gain
        step = np.where((step >= low) & (step <= high), step, (low + high) / 2)
        before, miss_before, u = u, miss, np.where(unsettled, step, u)
        out[open_] = u
    return out


def _derivative_series(series: np.ndarray) -> np.ndarray:
    """Differentiate Chebyshev series given column-wise (n + 1, m)."""
    n = len(series) - 1
    out = np.zeros((n + 2, series.shape[1]))
    for k in range(n, 0, -1):
        out[k - 1] = out[k + 1] + 2 * k * series[k]
    out[0] /= 2
    return out[:n]


def sides_of(line: Segments) -> np.ndarray:
    """Return the length (m,) of every segment that is a straight side, whose speed does not change, and −1 for others."""
    numbers = as_complex(line.coeffs)
    straight = ~line.is_arc & (numbers[:, 2] == 0) & (numbers[:, 3] == 0)
    return np.where(straight, np.abs(numbers[:, 1]), -1.0)


def steady_of(line: Segments) -> np.ndarray:
    """Return the length (m,) of every segment whose speed does not change, straight sides and arcs of circles, and −1 for others."""
    length = sides_of(line)
    arcs = np.flatnonzero(line.is_arc)
    _, a, b, angles = as_complex(line.coeffs[arcs]).T
    radius = np.abs(a)
    circle = (np.abs(radius - np.abs(b)) <= CIRCLE_REL_TOL * radius) & (np.abs((a * b.conj()).real) <= CIRCLE_REL_TOL * radius**2)
    length[arcs[circle]] = (radius * np.abs(angles.imag))[circle]
    return length


def _lengths(line: Segments, steady: np.ndarray, segment: np.ndarray, t0: np.ndarray, t1: np.ndarray) -> tuple[np.ndarray, np.ndarray]:
    """Return the length (p,) of every panel, and its arc length as a Chebyshev series (FINE + 1, p)."""
    length = steady[segment]
    series = np.zeros((FINE + 1, len(segment)))
    series[:2] = length / 2
    curved = np.flatnonzero(length < 0)
    nodes, weights = gauss(FINE)
    half = (t1 - t0)[curved] / 2
    t = (t0[curved] + half)[:, None] + half[:, None] * nodes
    speeds = speeds_of(line.coeffs[segment[curved]], line.is_arc[segment[curved]], t) * half[:, None]
    length[curved], series[:, curved] = speeds @ weights, running_integral_matrix(FINE) @ speeds.T
    return length, series


def _panels(line: Segments, steady: np.ndarray, lines: int) -> tuple[np.ndarray, np.ndarray, np.ndarray]:
    """Halve every segment that is not ``steady`` (m,) until the 8- and 16-point rules agree; return the panels of all in order."""
    even, segment = np.flatnonzero(steady >= 0), np.flatnonzero(steady < 0)
    t0, t1 = np.zeros(len(segment)), np.ones(len(segment))
    done: list[tuple[np.ndarray, np.ndarray, np.ndarray]] = [(even, np.zeros(len(even)), np.ones(len(even)))]
    tol = None
    for _ in range(MOST_HALVINGS):
        if not len(segment):
            break
        fine = _rule(line, segment, t0, t1, FINE)
        if tol is None:
            whole = np.bincount(line.line[segment], fine, lines) + np.bincount(line.line[even], steady[even], lines)
            tol = (PANEL_REL_TOL * np.maximum(whole, 1e-300))[line.line]
        ok = np.abs(fine - _rule(line, segment, t0, t1, COARSE)) <= tol[segment]
        done.append((segment[ok], t0[ok], t1[ok]))
        segment, t0, t1 = segment[~ok], t0[~ok], t1[~ok]
        middle = (t0 + t1) / 2
        segment, t0, t1 = np.tile(segment, 2), np.concatenate([t0, middle]), np.concatenate([middle, t1])
        if len(segment) > 4_000_000:
            raise NumericError("the line's length did not settle")
    done.append((segment, t0, t1))
    segment, t0, t1 = (np.concatenate(parts) for parts in zip(*done, strict=True))
    order = np.lexsort((t0, segment))
    return segment[order], t0[order], t1[order]


def _rule(line: Segments, segment: np.ndarray, t0: np.ndarray, t1: np.ndarray, n: int) -> np.ndarray:
    nodes, weights = gauss(n)
    half = (t1 - t0) / 2
    t = ((t0 + t1) / 2)[:, None] + half[:, None] * nodes
    return (speeds_of(line.coeffs[segment], line.is_arc[segment], t) @ weights) * half


def _bends(line: Segments, steady: np.ndarray, segment, t0, t1, s0, length, series) -> tuple[np.ndarray, ...]:
    """Sample curvature at both ends of every panel (p,) and, where it is not straight, at the Gauss nodes."""
    nodes = np.concatenate([[-1.0], gauss(FINE)[0], [1.0]])
    straight = steady & ~line.is_arc[segment]
    own = np.where(straight, 2, len(nodes))
    panel = owners(own)
    u = np.concatenate([nodes, nodes[[0, -1]]])[places(own) + np.repeat(len(nodes) * straight, own)]
    segments = segment[panel]
    s = s0[panel] + length[panel] * (u + 1) / 2
    k = np.zeros(len(panel))
    arcs, curved = (np.flatnonzero(rows) for rows in ((steady & ~straight)[panel], ~steady[panel]))
    k[arcs] = _bend_of_circles(line)[segments[arcs]]
    rows = np.flatnonzero(~steady)
    s[curved] = (s0[rows, None] + np.maximum(series[:, rows].T @ chebvander(nodes, FINE).T, 0.0)).ravel()
    t = t0[rows, None] + (t1 - t0)[rows, None] * (nodes + 1) / 2
    k[curved] = curvature_of(line.coeffs[segment[rows]], line.is_arc[segment[rows]], t).ravel()
    return s, k, segments


def _bend_of_circles(line: Segments) -> np.ndarray:
    """Return the signed curvature (m,) that segments have if they are arcs of circles; a point counts as one of no radius."""
    _, a, b, angles = as_complex(line.coeffs).T
    radius = np.where(line.is_arc, np.abs(a), 1.0)
    turn = np.sign(angles.imag) * np.sign((a.conj() * b).imag)
    return np.clip(turn / np.maximum(radius, 1 / SHARPEST_CURVATURE), -SHARPEST_CURVATURE, SHARPEST_CURVATURE)


def _tightest(line: Segments, s, k, segment, edges: np.ndarray) -> list[tuple[float | None, float]]:
    """Return, of every line, the radius of the tightest bend and about where it lies (mm); None where it is straight between corners.

    A line's samples lie between its ``edges``. Of the segments with the sharpest every extreme of curvature is looked at.
    """
    sharp = np.abs(k)
    rows = [a + np.argsort(sharp[a:b])[-MOST_TIGHT:] for a, b in pairwise(edges)]
    own = np.unique(segment[np.concatenate(rows)])
    extreme = dict(zip(own.tolist(), sharpest_of(line.coeffs[own], line.is_arc[own]).tolist(), strict=True))
    out: list[tuple[float | None, float]] = []
    for best in rows:
        largest = float(sharp[best[-1]]) if len(best) else 0.0
        if largest < 1e-12:
            out.append((None, 0.0))
        else:
            out.append((1.0 / max(largest, *(extreme[each] for each in segment[best].tolist())), float(s[best[-1]])))
    return out


def _vertices(line: Segments, closed: np.ndarray, segment: np.ndarray, s0: np.ndarray) -> tuple[np.ndarray, np.ndarray, np.ndarray]:
    """Return distance, turn and line of every vertex between segments; ``closed`` (n,) lines have one where they begin."""
    m = len(line.coeffs)
    if not m:
        return np.zeros(0), np.zeros(0), np.zeros(0, int)
    starts = end_directions(line.coeffs, line.is_arc, np.zeros(m))
    ends = end_directions(line.coeffs, line.is_arc, np.ones(m))
    before, first = np.arange(m) - 1, run_heads(line.line)
    before[first] = np.append(first[1:], m) - 1
    keep = np.ones(m, bool)
    keep[first] = closed[line.line[first]]
    into, out = ends[before[keep]], starts[keep]
    at = s0[np.searchsorted(segment, np.flatnonzero(keep))]
    return at, np.arctan2(cross(into, out), (into * out).sum(axis=1)), line.line[keep]
