"""A line as drawn, and the same line measured."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from ..maths.curves import as_points
from .arrays import freeze_arrays


@dataclass(frozen=True, eq=False)
class Line:
    """One subpath: m segments, each a polynomial of degree ≤ 3 or an elliptical arc.

    ``coeffs`` is (m, 4, 2) in mm. A polynomial row holds c0..c3 of c0 + c1·t + c2·t² + c3·t³.
    An arc row holds the centre, the cosine axis, the sine axis and (start angle, sweep) of
    centre + cosine axis · cos θ + sine axis · sin θ with θ = start + sweep · t.
    Segments of zero length are left out, so m may be 0: then ``start`` alone tells the place.
    """

    coeffs: np.ndarray
    is_arc: np.ndarray
    closed: bool
    start: np.ndarray

    def __post_init__(self) -> None:
        freeze_arrays(self)


@dataclass(frozen=True, eq=False)
class MeasuredLine:
    """A line with its arc-length table, corners-to-be and tightest bend.

    Panels (k of them) tile the segments; on each, arc length is a Chebyshev series of
    ``panel_series`` (k, 17) in u ∈ [−1, 1] that is 0 at u = −1.
    Vertices lie between segments: ``vertex_s`` (v,) mm along and ``vertex_turn`` (v,) radians,
    positive to the right; on a closed line the vertex at s = 0 is among them.
    ``bend_s``, ``bend_k`` (b,) sample signed curvature (1/mm), in order along the line.
    """

    line: Line
    length: float
    panel_segment: np.ndarray
    panel_t0: np.ndarray
    panel_t1: np.ndarray
    panel_s0: np.ndarray
    panel_length: np.ndarray
    panel_series: np.ndarray
    vertex_s: np.ndarray
    vertex_turn: np.ndarray
    bend_s: np.ndarray
    bend_k: np.ndarray
    tightest_radius: float | None
    tightest_s: float

    def __post_init__(self) -> None:
        freeze_arrays(self)

    @property
    def closed(self) -> bool:
        return self.line.closed


@dataclass(frozen=True, eq=False)
class Frames:
    """Position (n, 2) and unit tangent (n, 2) at n distances."""

    position: np.ndarray
    tangent: np.ndarray

    def __post_init__(self) -> None:
        freeze_arrays(self)

    @classmethod
    def of(cls, place: np.ndarray, tangent: np.ndarray) -> Frames:
        """Return frames of places and unit tangents (n,) as complex numbers."""
        return cls(as_points(place), as_points(tangent))

    @property
    def normal(self) -> np.ndarray:
        """Unit normals (n, 2): the tangent turned clockwise on screen, to the right of travel."""
        return np.stack([-self.tangent[:, 1], self.tangent[:, 0]], axis=1)
