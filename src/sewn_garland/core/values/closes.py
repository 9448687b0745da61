"""Where the pieces of a closed line are painted once more, for the first to lie over the last."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace

import numpy as np
import shapely
from shapely.geometry.polygon import orient

from .arrays import freeze_arrays


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
        polygons = [orient(part) for part in shapely.get_parts(within) if isinstance(part, shapely.Polygon)]
        rings = [np.array(ring.coords)[:-1] for part in polygons for ring in (part.exterior, *part.interiors)]
        points = np.concatenate([np.zeros((0, 2)), *rings])
        return cls(first, count, last, under, apart, points, np.cumsum([0, *map(len, rings)]))

    def moved(self, by: int) -> Close:
        """Return the close with its pieces counted on by so many."""
        return replace(self, first=self.first + by, last=self.last + by)


def closes_within(closes: Sequence[Close], begin: int, end: int) -> tuple[Close, ...]:
    """Return the closes of the pieces from ``begin`` up to ``end``, which is not among them; these are counted from 0."""
    return tuple(close.moved(-begin) for close in closes if begin <= close.first < end)
