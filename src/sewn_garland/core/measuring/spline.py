"""Lines as splines by arc length: frames at very many distances, without solving for parameters."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache

import numpy as np

from ..maths.curves import as_complex, end_directions, jets
from ..maths.quadrature import chebyshev_at
from ..values.arrays import freeze_arrays
from ..values.line import MeasuredLine
from .arc_length import curvature_of, frames_and_bends_on, sides_of

PLACE_TOL_MM = 1e-6  # chosen: a ten-thousandth of what bending may stray
TANGENT_TOL = 2e-6  # radians; 20 mm to the side of the line as much again
FIRST_CELLS = 4  # of a curved panel
MOST_HALVINGS = 7
MOST_PANELS = 2000  # chosen: thousands of small arcs take longer to lay out as cells than it saves
TESTED = (0.25, 0.5)  # shares of a cell; there tangent and place are furthest off


@dataclass(frozen=True, eq=False)
class ArcLengthSpline:
    """Lines of some length as cubics of their arc length, cell by cell (c of them), behind one another.

    ``start`` and ``width`` (c,) mm; ``coeffs`` (c, 4), complex, are powers of the share of a cell, ``bends``
    (c, 2) the signed curvature at its ends. ``rough`` (c,) cells are too sharp for a cubic: there
    the line itself is asked. ``first`` and ``last`` (n,) are each line's cells, ``offset`` (n,) mm where it begins.
    """

    lines: tuple[MeasuredLine, ...]
    start: np.ndarray
    width: np.ndarray
    coeffs: np.ndarray
    bends: np.ndarray
    rough: np.ndarray
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
        along, beyond = self._along(which, s)
        cell = np.clip(np.searchsorted(self.start, along, side="right") - 1, self.first[which], self.last[which])
        f = (along - self.start[cell]) / self.width[cell]
        c0, c1, c2, c3 = np.take(self.coeffs, cell, axis=0).T
        place, way = ((c3 * f + c2) * f + c1) * f + c0, (3 * c3 * f + 2 * c2) * f + c1
        tangent = way / np.abs(way)
        begin, finish = np.take(self.bends, cell, axis=0).T
        bend = begin + f * (finish - begin)
        if beyond is not None:
            place, bend = place + beyond * tangent, np.where(beyond == 0, bend, 0.0)
        rows = np.flatnonzero(self.rough[cell]) if self.rough.any() else []
        if len(rows):
            place[rows], tangent[rows], bend[rows] = located_on(self.lines, which[rows], s[rows])
        return place, tangent, bend

    def _along(self, which: np.ndarray, s: np.ndarray) -> tuple[np.ndarray, np.ndarray | None]:
        """Return distances among all lines' cells, and by how much (m,) they lie beyond the ends of open lines, None where none does."""
        length, offset = self.length[which], self.offset[which]
        if not len(s) or (s.min() >= 0 and (s < length).all()):
            return s + offset, None
        inside = np.where(self.closed[which], np.mod(s, length), np.clip(s, 0.0, length))
        beyond = np.where(self.closed[which], 0.0, s - inside)
        return inside + offset, beyond if beyond.any() else None


def located_on(lines: Sequence[MeasuredLine], which: np.ndarray, s: np.ndarray) -> tuple[np.ndarray, np.ndarray, np.ndarray]:
    """Return what ``ArcLengthSpline.located`` does, by the lines themselves."""
    frames, bend = frames_and_bends_on(lines, which, s)
    return as_complex(frames.position), as_complex(frames.tangent), bend


@lru_cache(maxsize=32)
def spline_of(lines: tuple[MeasuredLine, ...]) -> ArcLengthSpline | None:
    """Return lines as a spline within 1e-6 mm of them, None where one has no length or there is too much of them for it to pay.

    Panels are cut into cells, evenly by parameter, and halved where Hermite's cubic strays.
    """
    if any(line.length <= 0 for line in lines) or sum(len(line.panel_s0) for line in lines) > MOST_PANELS:
        return None
    cells = [_cells_of(line) for line in lines]
    counts = np.array([len(own[0]) for own in cells])
    length = np.array([line.length for line in lines])
    offset = np.append(0.0, np.cumsum(length)[:-1])
    start, width, coeffs, bends, rough = (np.concatenate(columns) for columns in zip(*cells, strict=True))
    last = np.cumsum(counts) - 1
    return ArcLengthSpline(
        lines, start + np.repeat(offset, counts), width, coeffs, bends, rough, last - counts + 1, last, offset, length,
        np.array([line.closed for line in lines]),
    )  # fmt: skip


def _cells_of(measured: MeasuredLine) -> tuple[np.ndarray, ...]:
    """Return start, width, coefficients, bends and roughness of one line's cells, in order."""
    straight = sides_of(measured.line)[measured.panel_segment] >= 0
    panel = np.repeat(np.arange(len(straight)), np.where(straight, 1, FIRST_CELLS))
    number = np.arange(len(panel)) - np.searchsorted(panel, panel)
    parts = np.where(straight[panel], 1, FIRST_CELLS)
    u0, u1 = -1 + 2 * number / parts, -1 + 2 * (number + 1) / parts
    done = []
    for level in range(MOST_HALVINGS + 1):
        s0, s1 = _arc_length(measured, panel, u0), _arc_length(measured, panel, u1)
        (p0, d0, k0), (p1, d1, k1) = _ends(measured, panel, u0), _ends(measured, panel, u1)
        width = s1 - s0
        way0, way1 = d0 * width, d1 * width
        coeffs = np.stack([p0, way0, 3 * (p1 - p0) - 2 * way0 - way1, 2 * (p0 - p1) + way0 + way1], axis=1)
        flat = straight[panel]
        coeffs[flat, 1], coeffs[flat, 2:] = (p1 - p0)[flat], 0.0
        kept = width > 0
        good = flat | ~kept | _holds(measured, panel, u0, u1, s0, width, coeffs)
        ready = good | (level == MOST_HALVINGS)
        chosen = ready & kept
        done.append((s0[chosen], width[chosen], coeffs[chosen], np.stack([k0, k1], axis=1)[chosen], ~good[chosen]))
        panel, middle = panel[~ready], (u0 + u1)[~ready] / 2
        u0, u1 = np.concatenate([u0[~ready], middle]), np.concatenate([middle, u1[~ready]])
        panel = np.tile(panel, 2)
        if not len(panel):
            break
    columns = [np.concatenate(column) for column in zip(*done, strict=True)]
    order = np.argsort(columns[0], kind="stable")
    return tuple(column[order] for column in columns)


def _holds(measured: MeasuredLine, panel, u0, u1, s0, width, coeffs) -> np.ndarray:
    """Tell which cells' cubics lie on the line, by place and by direction."""
    good = np.ones(len(panel), bool)
    for share in TESTED:
        u = u0 + share * (u1 - u0)
        place, tangent, _ = _ends(measured, panel, u)
        f = (_arc_length(measured, panel, u) - s0) / np.where(width > 0, width, 1.0)
        c0, c1, c2, c3 = coeffs.T
        way = (3 * c3 * f + 2 * c2) * f + c1
        off = np.abs(((c3 * f + c2) * f + c1) * f + c0 - place)
        good &= (off <= PLACE_TOL_MM) & (np.abs(np.angle(way * tangent.conj())) <= TANGENT_TOL) & (way != 0)
    return good


def _arc_length(measured: MeasuredLine, panel: np.ndarray, u: np.ndarray) -> np.ndarray:
    return measured.panel_s0[panel] + chebyshev_at(measured.panel_series[panel].T, u)


def _ends(measured: MeasuredLine, panel: np.ndarray, u: np.ndarray) -> tuple[np.ndarray, np.ndarray, np.ndarray]:
    """Return place and unit tangent (complex) and curvature at places ``u`` in panels, as the panel's own segment has them."""
    segment = measured.panel_segment[panel]
    t0, t1 = measured.panel_t0[panel], measured.panel_t1[panel]
    t = t0 + (t1 - t0) * (u + 1) / 2
    coeffs, is_arc = measured.line.coeffs[segment], measured.line.is_arc[segment]
    place, tangent = jets(coeffs, is_arc, t, order=0)[0], end_directions(coeffs, is_arc, t)
    return as_complex(place), as_complex(tangent), curvature_of(coeffs, is_arc, t)
