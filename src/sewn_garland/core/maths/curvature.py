"""How segments bend, and where they do most."""

from __future__ import annotations

import numpy as np

from .curves import as_complex, jets

SHARPEST_CURVATURE = 1e9  # 1/mm; stands for "a point" where the speed vanishes
LEAST_SPEED = 1e-300  # below it double precision has too few bits left to divide by
NEAR_A_CUSP = 1e3  # 1/mm; chosen
LEAST_LEAD = 1e-14  # of a quintic's largest coefficient


def curvature(d1: np.ndarray, d2: np.ndarray, speed: np.ndarray, stalled: np.ndarray) -> np.ndarray:
    """Return the signed curvature (n,) of first and second derivatives (n,), complex, clipped where they are ``stalled`` (n,)."""
    with np.errstate(over="ignore", divide="ignore", invalid="ignore"):  # what overflows is clipped below
        across = np.imag(d1.conj() * d2)
        k = across / np.where(stalled, 1.0, speed) ** 3
    k = np.nan_to_num(k, nan=0.0, posinf=SHARPEST_CURVATURE, neginf=-SHARPEST_CURVATURE)
    k = np.where(stalled, np.where(across == 0, 0.0, SHARPEST_CURVATURE), k)
    return np.clip(k, -SHARPEST_CURVATURE, SHARPEST_CURVATURE)


def curvature_of(coeffs: np.ndarray, is_arc: np.ndarray, t: np.ndarray) -> np.ndarray:
    """Return the signed curvature in 1/mm of segments (n, 4, 2) at parameters t, (n,) or several of each, (n, j).

    It is clipped where the speed vanishes.
    """
    d1, d2 = (as_complex(each) for each in jets(coeffs, is_arc, t, order=2, least=1))
    speed = np.abs(d1)
    least = 1e-9 * np.abs(coeffs[:, 1:]).max(axis=(1, 2), initial=0.0) + LEAST_SPEED
    return curvature(d1, d2, speed, speed <= (least if t.ndim == 1 else least[:, None]))


def sharpest_of(coeffs: np.ndarray, is_arc: np.ndarray) -> np.ndarray:
    """Return the largest curvature (m,) of segments (m, 4, 2) at the extremes within each; no segments give none."""
    at = np.clip(np.where(is_arc[:, None], _extremes_of_arcs(coeffs), _extremes_of_cubics(coeffs)), 0.0, 1.0)
    bends = np.abs(curvature_of(coeffs, is_arc, at))
    largest = bends.max(axis=1, initial=0.0)
    near = np.flatnonzero(largest > NEAR_A_CUSP)
    if len(near):
        largest[near] = np.maximum(largest[near], _zoomed(coeffs[near], is_arc[near], at[near, bends[near].argmax(axis=1)]))
    return largest


def _zoomed(coeffs: np.ndarray, is_arc: np.ndarray, t: np.ndarray) -> np.ndarray:
    """Return the largest curvature of segments about parameters t (m,), where a quintic's roots lie too close to one another to be told."""
    width, tries = 1e-3, np.linspace(-1.0, 1.0, 17)
    largest = np.zeros(len(t))
    for _ in range(12):
        at = np.clip(t[:, None] + width * tries, 0.0, 1.0)
        bends = np.abs(curvature_of(coeffs, is_arc, at))
        t, width, largest = at[np.arange(len(t)), bends.argmax(axis=1)], width / 5, np.maximum(largest, bends.max(axis=1))
    return largest


def _extremes_of_cubics(coeffs: np.ndarray) -> np.ndarray:
    """Return the parameters (m, 5) at which cubics (m, 4, 2) may bend most or least, real or not in the second place: real parts alone.

    With the bend C/σ^(3/2), C = P′ × P″ and σ = |P′|², they are the roots of C′·σ − 3/2·C·σ′, a quintic.
    """
    _, a, b, c = as_complex(coeffs).T
    zero = np.zeros(len(coeffs))
    across = [2 * _cross(a, b), 6 * _cross(a, c), 6 * _cross(b, c)]
    square = [_dot(a, a), 4 * _dot(a, b), 4 * _dot(b, b) + 6 * _dot(a, c), 12 * _dot(b, c), 9 * _dot(c, c)]
    quintic = np.stack([zero] * 6)
    for n, one in enumerate(across):
        for m, other in enumerate(square):
            if n:
                quintic[n - 1 + m] += n * one * other
            if m:
                quintic[n + m - 1] -= 1.5 * m * one * other
    largest = np.abs(quintic).max(axis=0)
    quintic /= np.where(largest > 0, largest, 1.0)
    lead = np.where(np.abs(quintic[5]) < LEAST_LEAD, LEAST_LEAD, quintic[5])  # a root more, far away
    companion = np.zeros((len(coeffs), 5, 5))
    companion[:, np.arange(1, 5), np.arange(4)] = 1.0
    companion[:, :, 4] = -(quintic[:5] / lead).T
    return np.linalg.eigvals(companion).real


def _extremes_of_arcs(coeffs: np.ndarray) -> np.ndarray:
    """Return the parameters (m, 5) at which arcs of ellipses (m, 4, 2) pass the ends of their axes, some beyond them."""
    _, a, b, angles = as_complex(coeffs).T
    start, sweep = angles.real, angles.imag
    axis = np.arctan2(-2 * _dot(a, b), _dot(b, b) - _dot(a, a)) / 2
    low = np.minimum(start, start + sweep)
    first = np.ceil((low - axis) / (np.pi / 2))
    angle = axis[:, None] + (first[:, None] + np.arange(5)) * (np.pi / 2)
    with np.errstate(over="ignore"):  # a sweep next to nothing passes none
        return (angle - start[:, None]) / np.where(sweep != 0, sweep, 1.0)[:, None]


def _cross(a: np.ndarray, b: np.ndarray) -> np.ndarray:
    return np.imag(a.conj() * b)


def _dot(a: np.ndarray, b: np.ndarray) -> np.ndarray:
    return np.real(a.conj() * b)
