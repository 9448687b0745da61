"""Set a line out anew: from its other end, or a closed one from another point."""

from __future__ import annotations

from functools import lru_cache

import numpy as np

from ..values.line import Line, MeasuredLine
from .arc_length import measure
from .rounding import first_point, stretch_of


@lru_cache(maxsize=512)
def set_out(measured: MeasuredLine, *, turn_about: bool, starts_at: float) -> MeasuredLine:
    """Return the line laid from its other end where asked, a closed one from ``starts_at`` mm along it on.

    An open line starts where it starts. Distances are along the line as it is drawn, before it is
    turned about.
    """
    start = starts_at % measured.length if measured.closed and measured.length > 0 else 0.0
    if 1e-9 * measured.length < start < (1 - 1e-9) * measured.length:
        coeffs, is_arc = stretch_of(measured, start, start + measured.length)
        measured = measure(Line(coeffs, is_arc, True, first_point(coeffs, is_arc)))
    return measure(turned_about(measured.line)) if turn_about else measured


def turned_about(line: Line) -> Line:
    """Return a line drawn from its other end; a closed one keeps its start."""
    coeffs, is_arc = line.coeffs[::-1], line.is_arc[::-1]
    if not len(coeffs):
        return line
    c0, c1, c2, c3 = (coeffs[:, i] for i in range(4))
    out = np.stack([c0 + c1 + c2 + c3, -(c1 + 2 * c2 + 3 * c3), c2 + 3 * c3, -c3], axis=1)
    out[is_arc] = coeffs[is_arc]
    start, sweep = coeffs[is_arc, 3].T
    out[is_arc, 3] = np.stack([start + sweep, -sweep], axis=1)
    return Line(out, is_arc, line.closed, first_point(out, is_arc))
