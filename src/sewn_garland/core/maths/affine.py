"""Plane affine maps as 2 × 3 arrays [[a, c, e], [b, d, f]]."""

from __future__ import annotations

import numpy as np

IDENTITY = np.array([[1.0, 0.0, 0.0], [0.0, 1.0, 0.0]])


def compose(outer: np.ndarray, inner: np.ndarray) -> np.ndarray:
    """Return the map that applies ``inner`` first."""
    with np.errstate(invalid="ignore", over="ignore"):  # who reads maps tells of those that are not finite
        out = outer[:, :2] @ inner
        out[:, 2] += outer[:, 2]
    return out


def apply(matrix: np.ndarray, points: np.ndarray) -> np.ndarray:
    """Map points (..., 2)."""
    return points @ matrix[:, :2].T + matrix[:, 2]


def mean_scale(matrix: np.ndarray) -> float:
    """Return the factor on lengths, the root of the factor on areas."""
    return float(np.sqrt(abs(np.linalg.det(matrix[:, :2]))))
