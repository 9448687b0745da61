"""Where neighbouring pieces meet, measured on the result."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from .arrays import freeze_arrays


@dataclass(frozen=True, eq=False)
class Joins:
    """j neighbouring pairs: place on the page (between the facing edges) and along the line, and deviations from the wish.

    ``gap`` mm (negative: overlap), ``step`` mm, ``kink`` radians, ``tone`` ΔE2000; arrays (j,), ``at``
    (j, 2). ``first`` and ``second`` are the earlier and the later piece. ``apart`` mm and ``overlap`` mm² are
    those of the outlines where these are measured, NaN where a join's are not. ``wished`` mm are the gaps that are wished,
    None where they are those after the earlier pieces. ``onward`` (j, 2) is the unit direction in which the earlier piece ends.
    """

    at: np.ndarray
    s: np.ndarray
    gap: np.ndarray
    step: np.ndarray
    kink: np.ndarray
    first: np.ndarray
    second: np.ndarray
    tone: np.ndarray
    apart: np.ndarray | None = None
    overlap: np.ndarray | None = None
    wished: np.ndarray | None = None
    onward: np.ndarray | None = None

    def __post_init__(self) -> None:
        freeze_arrays(self)
