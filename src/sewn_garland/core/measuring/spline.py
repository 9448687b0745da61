"""Lines as splines by arc length: frames at very many distances, without solving for parameters."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from functools import cached_property, lru_cache

import numpy as np

from ..maths.compiled import compiled, for_compiled
from ..maths.curvature import curvature_of
from ..maths.curves import as_complex, end_directions, jets
from ..maths.quadrature import chebyshev_at
from ..maths.ragged import owners
from ..values.arrays import freeze_arrays
from ..values.line import MeasuredLine
from .arc_length import frames_and_bends_on, segments_of, steady_of

PLACE_TOL_MM = 1e-6  # chosen: a ten-thousandth of what bending may stray
TANGENT_TOL = 2e-6  # radians; 20 mm to the side of the line as much again
FIRST_CELLS = 4  # of a curved panel
MOST_HALVINGS = 7
MOST_PANELS = 40_000  # to fit; chosen
KNOWN_SHARE = 0.1  # of what a curved panel takes, about; chosen
TESTED = (0.25, 0.5)  # shares of a cell; there tangent and place are furthest off


@dataclass(frozen=True, eq=False)
class ArcLengthSpline:
    """Lines of some length as cubics of their arc length, cell by cell (c of them), behind one another.

    ``start`` and ``width`` (c,) mm; ``coeffs`` (c, 4), complex, are powers of the share of a cell, ``bends``
    (c, 2) the signed curvature at its ends. ``rough`` (c,) cells are too sharp for a cubic: there
    the line itself is asked. ``round`` (c,) cells are arcs of circles: their coefficients are the place and the
    unit tangent where they begin. ``first`` and ``last`` (n,) are each line's cells, ``offset`` (n,) mm where it begins.
    """

    lines: tuple[MeasuredLine, ...]
    start: np.ndarray
    width: np.ndarray
    coeffs: np.ndarray
    bends: np.ndarray
    rough: np.ndarray
    round: np.ndarray
    first: np.ndarray
    last: np.ndarray
    offset: np.ndarray
    length: np.ndarray
    closed: np.ndarray

    def __post_init__(self) -> None:
        freeze_arrays(self)

    def located(self, which: np.ndarray, s: np.ndarray) -> tuple[np.ndarray, np.ndarray, np.ndarray]:
        """Return places and unit tangents as complex numbers, and signed curvature (m,), at distances s along lines ``which`` (m,).

        Beyond the ends of open lines they go straight on.
        """
        which, s = np.asarray(which), np.asarray(s)
        place, tangent, bend, rough = _located(for_compiled(which, int), for_compiled(s, float), *self._columns)
        if len(rough):
            place[rough], tangent[rough], bend[rough] = located_on(self.lines, which[rough], s[rough])
        return place, tangent, bend

    @cached_property
    def _columns(self) -> tuple[np.ndarray, ...]:
        kinds = {"start": float, "width": float, "bends": float, "offset": float, "length": float, "coeffs": complex, "first": int,
                 "last": int, "rough": bool, "round": bool, "closed": bool}  # fmt: skip
        return tuple(for_compiled(getattr(self, name), kind) for name, kind in kinds.items())


@compiled
def _located(which, s, start, width, bends, offset, length, coeffs, first, last, rough, is_round, closed):
    """Return places and unit tangents, complex, and curvature (m,), and the rows (k,) in cells that are rough, which have none."""
    place, tangent, bend = np.empty(len(s), np.complex128), np.empty(len(s), np.complex128), np.empty(len(s))
    left, count, cell = np.empty(len(s), np.int64), 0, -1
    for i in range(len(s)):
        line = which[i]
        inside = s[i] - np.floor(s[i] / length[line]) * length[line] if closed[line] else min(max(s[i], 0.0), length[line])
        beyond = 0.0 if closed[line] else s[i] - inside
        along = inside + offset[line]
        if not (first[line] <= cell < last[line] and start[cell] <= along < start[cell + 1]):  # where the one before lies, mostly
            cell, end = first[line], last[line] + 1
            while end - cell > 1:
                middle = (cell + end) // 2
                if start[middle] <= along:
                    cell = middle
                else:
                    end = middle
        if rough[cell]:
            left[count] = i
            count += 1
        f, c0, c1, c2, c3 = (along - start[cell]) / width[cell], coeffs[cell, 0], coeffs[cell, 1], coeffs[cell, 2], coeffs[cell, 3]
        if is_round[cell]:
            k = bends[cell, 0]
            half = k * (along - start[cell]) / 2
            turn = complex(np.cos(half), np.sin(half))
            way, here = c1 * turn * turn, c0 + c1 * turn * (2 * turn.imag / k)
        else:
            here, way = ((c3 * f + c2) * f + c1) * f + c0, (3 * c3 * f + 2 * c2) * f + c1
        tangent[i] = way / np.sqrt(way.real * way.real + way.imag * way.imag)
        place[i] = here + tangent[i] * beyond
        bend[i] = bends[cell, 0] + f * (bends[cell, 1] - bends[cell, 0]) if beyond == 0 else 0.0
    return place, tangent, bend, left[:count]


def located_on(lines: Sequence[MeasuredLine], which: np.ndarray, s: np.ndarray) -> tuple[np.ndarray, np.ndarray, np.ndarray]:
    """Return what ``ArcLengthSpline.located`` does, by the lines themselves."""
    frames, bend = frames_and_bends_on(lines, which, s)
    return as_complex(frames.position), as_complex(frames.tangent), bend


@lru_cache(maxsize=32)
def panels_to_fit(lines: tuple[MeasuredLine, ...]) -> np.ndarray:
    """Return how many panels of each line (n,) are curved, sides and arcs of circles, which are cells as they are, for a tenth each."""
    own, segment = segments_of(lines)
    known = steady_of(own)[segment] >= 0
    of_line = owners(np.array([len(line.panel_s0) for line in lines]))
    return np.bincount(of_line, weights=np.where(known, KNOWN_SHARE, 1.0), minlength=len(lines))


@lru_cache(maxsize=32)
def spline_of(lines: tuple[MeasuredLine, ...]) -> ArcLengthSpline | None:
    """Return lines as a spline within 1e-6 mm of them, None where one has no length or there is too much of them for it to pay.

    Panels are cut into cells, evenly by parameter, and halved where Hermite's cubic strays.
    """
    if any(line.length <= 0 for line in lines) or panels_to_fit(lines).sum() > MOST_PANELS:
        return None
    of_line, start, width, coeffs, bends, rough, is_round = _cells_of(_panels_of(lines))
    length = np.array([line.length for line in lines])
    offset = np.append(0.0, np.cumsum(length)[:-1])
    last = np.cumsum(np.bincount(of_line, minlength=len(lines))) - 1
    return ArcLengthSpline(
        lines, start + offset[of_line], width, coeffs, bends, rough, is_round, np.append(0, last[:-1] + 1), last, offset, length,
        np.array([line.closed for line in lines]),
    )  # fmt: skip


@dataclass(frozen=True, eq=False)
class _Panels:
    """The panels (p,) of lines behind one another, each with its line, its segment among all (m,) and what is known of it."""

    line: np.ndarray
    segment: np.ndarray
    t0: np.ndarray
    t1: np.ndarray
    s0: np.ndarray
    series: np.ndarray
    straight: np.ndarray
    round: np.ndarray
    coeffs: np.ndarray
    is_arc: np.ndarray


def _panels_of(lines: Sequence[MeasuredLine]) -> _Panels:
    own, segment = segments_of(lines)
    of_line = owners(np.array([len(line.panel_s0) for line in lines]))
    steady = steady_of(own)[segment] >= 0
    t0, t1, s0 = (np.concatenate([getattr(line, name) for line in lines]) for name in ("panel_t0", "panel_t1", "panel_s0"))
    return _Panels(
        of_line, segment, t0, t1, s0, np.concatenate([line.panel_series for line in lines]), steady & ~own.is_arc[segment],
        steady & own.is_arc[segment], own.coeffs, own.is_arc,
    )  # fmt: skip


def _cells_of(panels: _Panels) -> tuple[np.ndarray, ...]:
    """Return line, start in its line, width, coefficients, bends, roughness and roundness of all lines' cells, in order."""
    straight, known = panels.straight, panels.straight | panels.round
    panel = np.repeat(np.arange(len(straight)), np.where(known, 1, FIRST_CELLS))
    number = np.arange(len(panel)) - np.searchsorted(panel, panel)
    parts = np.where(known[panel], 1, FIRST_CELLS)
    u0, u1 = -1 + 2 * number / parts, -1 + 2 * (number + 1) / parts
    done = []
    for level in range(MOST_HALVINGS + 1):
        s0, s1 = _arc_length(panels, panel, u0), _arc_length(panels, panel, u1)
        (p0, d0, k0), (p1, d1, k1) = _ends(panels, panel, u0), _ends(panels, panel, u1)
        width = s1 - s0
        way0, way1 = d0 * width, d1 * width
        coeffs = np.stack([p0, way0, 3 * (p1 - p0) - 2 * way0 - way1, 2 * (p0 - p1) + way0 + way1], axis=1)
        flat, arcs = straight[panel], panels.round[panel]
        coeffs[flat, 1], coeffs[flat, 2:] = (p1 - p0)[flat], 0.0
        coeffs[arcs, 1], coeffs[arcs, 2:] = d0[arcs], 0.0
        kept = width > 0
        good = flat | arcs | ~kept
        tested = np.flatnonzero(~good)
        good[tested] = _holds(panels, panel[tested], u0[tested], u1[tested], s0[tested], width[tested], coeffs[tested])
        ready = good | (level == MOST_HALVINGS)
        chosen = ready & kept
        columns = panels.line[panel], s0, width, coeffs, np.stack([k0, k1], axis=1), ~good, arcs
        done.append(tuple(column[chosen] for column in columns))
        panel, middle = panel[~ready], (u0 + u1)[~ready] / 2
        u0, u1 = np.concatenate([u0[~ready], middle]), np.concatenate([middle, u1[~ready]])
        panel = np.tile(panel, 2)
        if not len(panel):
            break
    columns = [np.concatenate(column) for column in zip(*done, strict=True)]
    order = np.lexsort((columns[1], columns[0]))
    return tuple(column[order] for column in columns)


def _holds(panels: _Panels, panel, u0, u1, s0, width, coeffs) -> np.ndarray:
    """Tell which cells' cubics lie on the line, by place and by direction."""
    good = np.ones(len(panel), bool)
    for share in TESTED:
        u = u0 + share * (u1 - u0)
        place, tangent, _ = _ends(panels, panel, u)
        f = (_arc_length(panels, panel, u) - s0) / width
        c0, c1, c2, c3 = coeffs.T
        way = (3 * c3 * f + 2 * c2) * f + c1
        off = np.abs(((c3 * f + c2) * f + c1) * f + c0 - place)
        good &= (off <= PLACE_TOL_MM) & (np.abs(np.angle(way * tangent.conj())) <= TANGENT_TOL) & (way != 0)
    return good


def _arc_length(panels: _Panels, panel: np.ndarray, u: np.ndarray) -> np.ndarray:
    s = panels.s0[panel] + panels.series[panel, 0] * (1 + u)  # as straight sides go
    curved = np.flatnonzero(~panels.straight[panel])
    s[curved] = panels.s0[panel[curved]] + chebyshev_at(panels.series[panel[curved]].T, u[curved])
    return s


def _ends(panels: _Panels, panel: np.ndarray, u: np.ndarray) -> tuple[np.ndarray, np.ndarray, np.ndarray]:
    """Return place and unit tangent (complex) and curvature at places ``u`` in panels, as the panel's own segment has them."""
    segment = panels.segment[panel]
    t0, t1 = panels.t0[panel], panels.t1[panel]
    t = t0 + (t1 - t0) * (u + 1) / 2
    coeffs, is_arc = panels.coeffs[segment], panels.is_arc[segment]
    place, tangent = jets(coeffs, is_arc, t, order=0)[0], end_directions(coeffs, is_arc, t)
    return as_complex(place), as_complex(tangent), curvature_of(coeffs, is_arc, t)
