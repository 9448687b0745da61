"""Write a line as path data, so that it can be kept and drawn."""

from __future__ import annotations

import numpy as np

from ..maths.curves import cubics_from_arc
from ..values.line import Line


def path_data_from_line(line: Line, *, decimals: int = 4) -> str:
    """Return path data in mm; arcs become cubics, a line without extent a bare ``M x yL x y``."""

    def exact(p: np.ndarray) -> str:
        return " ".join(repr(round(float(v), decimals)) for v in p)

    if not len(line.coeffs):
        return f"M{exact(line.start)}L{exact(line.start)}"
    parts = [f"M{exact(line.start)}"]
    for row, is_arc in zip(line.coeffs, line.is_arc, strict=True):
        if is_arc:
            cubics = cubics_from_arc(row[0], row[1], row[2], float(row[3, 0]), float(row[3, 1]))
            parts.extend(f"C{exact(c[1])} {exact(c[2])} {exact(c[3])}" for c in cubics)
        elif not row[2:].any():
            parts.append(f"L{exact(row[0] + row[1])}")
        else:
            c0, c1, c2, c3 = row
            parts.append(f"C{exact(c0 + c1 / 3)} {exact(c0 + 2 * c1 / 3 + c2 / 3)} {exact(c0 + c1 + c2 + c3)}")
    return "".join(parts) + ("Z" if line.closed else "")
