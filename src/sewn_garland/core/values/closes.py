"""Where the pieces of a closed line are painted once more, for the first to lie over the last."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace

import numpy as np
import shapely

from .arrays import freeze_arrays

POLYGON = 3  # by the simple features standard


@dataclass(frozen=True, eq=False)
class Close:
    """Pieces from ``first`` on, ``count`` of them, are painted once more after the piece ``last``, within an area.

    ``under`` tells in which pass of painting. Where they are see-through they lie ``apart`` from what was painted first: then the
    first time they are painted outside the area only. The area is that of rings, ``points`` (m, 2) mm from ``starts`` (k + 1,) on,
    that do not cross; a ring in another is a hole of it, and turns the other way round.
    """

    first: int
    count: int
    last: int
    under: bool
    apart: bool
    points: np.ndarray
    starts: np.ndarray

    def __post_init__(self) -> None:
        freeze_arrays(self)

    @classmethod
    def of(cls, first: int, count: int, last: int, *, under: bool, apart: bool, within: shapely.Geometry) -> Close:
        """Return the close within polygons."""
        parts = shapely.get_parts(within)
        rings = shapely.get_rings(shapely.orient_polygons(parts[shapely.get_type_id(parts) == POLYGON]))
        points, of = shapely.get_coordinates(rings, return_index=True)
        last_of = np.append(of[1:] != of[:-1], True)[: len(of)]  # each ring ends where it began
        return cls(first, count, last, under, apart, points[~last_of], np.append(0, np.cumsum(np.bincount(of[~last_of]))))

    def moved(self, by: int) -> Close:
        """Return the close with its pieces counted on by so many."""
        return replace(self, first=self.first + by, last=self.last + by)


def closes_within(closes: Sequence[Close], begin: int, end: int) -> tuple[Close, ...]:
    """Return the closes of the pieces from ``begin`` up to ``end``, which is not among them; these are counted from 0."""
    return tuple(close.moved(-begin) for close in closes if begin <= close.first < end)
