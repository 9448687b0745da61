"""Evaluate polynomial and arc segments, many parameters at once."""

from __future__ import annotations

import numpy as np

STRAIGHT_MM = 1e-6  # off its side; chosen: far below what files write of a coordinate


def jets(coeffs: np.ndarray, is_arc: np.ndarray, t: np.ndarray, *, order: int, least: int = 0) -> list[np.ndarray]:
    """Return the derivatives by t from the ``least`` to the largest ``order``, 0 being the position, at most 2: each (n, 2).

    ``coeffs`` (n, 4, 2) and ``is_arc`` (n,) as in values.line.Line, one row a parameter t (n,); or several,
    t (n, j), of each, which gives (n, j, 2). Empty input gives empty arrays.
    """
    numbers = as_complex(coeffs)
    rows = numbers if t.ndim == 1 else numbers[:, None]
    c0, c1, c2, c3 = np.moveaxis(rows, -1, 0)
    if numbers[:, 2:].any():
        ways = (lambda: ((c3 * t + c2) * t + c1) * t + c0, lambda: (3 * c3 * t + 2 * c2) * t + c1, lambda: 6 * c3 * t + 2 * c2)
    else:  # straight lines alone
        ways = (lambda: c1 * t + c0, lambda: c1 + np.zeros(t.shape), lambda: np.zeros(t.shape, complex))
    out = [way() for way in ways[least : order + 1]]
    if is_arc.any():
        centre, a, b, angles = np.moveaxis(rows[is_arc], -1, 0)
        sweep = angles.imag
        angle = angles.real + sweep * t[is_arc]
        cos, sin = np.cos(angle), np.sin(angle)
        of_arcs = (lambda: centre + a * cos + b * sin, lambda: sweep * (b * cos - a * sin), lambda: -(sweep**2) * (a * cos + b * sin))
        for each, way in zip(out, of_arcs[least : order + 1], strict=True):
            each[is_arc] = way()
    return [as_points(z) for z in out]


def speeds_of(coeffs: np.ndarray, is_arc: np.ndarray, t: np.ndarray) -> np.ndarray:
    """Return |P′| of segments (n, 4, 2) at parameters t, (n,) or several of each, (n, j)."""
    return np.abs(as_complex(jets(coeffs, is_arc, t, order=1, least=1)[0]))


def bernstein(t: np.ndarray) -> np.ndarray:
    """Return Bernstein's polynomials of degree 3 at parameters t (n,): (n, 4), the shares of a cubic's control points."""
    t = t[:, None]
    return np.hstack([(1 - t) ** 3, 3 * t * (1 - t) ** 2, 3 * t**2 * (1 - t), t**3])


def as_complex(points: np.ndarray) -> np.ndarray:
    """Return points (..., 2) as complex numbers x + iy (...), a quarter turn to the right being the factor i."""
    return np.ascontiguousarray(points, float).view(complex)[..., 0]


def as_points(numbers: np.ndarray) -> np.ndarray:
    """Return complex numbers (...) as points (..., 2)."""
    return np.ascontiguousarray(numbers, complex)[..., None].view(float)


def cross(a: np.ndarray, b: np.ndarray) -> np.ndarray:
    """Return the z of a × b for rows (n, 2): positive when b lies clockwise of a on screen."""
    return a[..., 0] * b[..., 1] - a[..., 1] * b[..., 0]


def are_straight(cubics: np.ndarray) -> np.ndarray:
    """Tell which cubics (m, 4, 2) are straight sides: both handles lie on the way from end to end, within a millionth of a mm.

    So are those whose handles are drawn back into their ends; a side that doubles back on itself is not.
    """
    ends = as_complex(cubics[:, 3] - cubics[:, 0])[:, None]
    handles = as_complex(cubics[:, 1:3] - cubics[:, :1])
    size = np.abs(ends)
    way = ends / np.where(size > 0, size, 1.0)
    on = handles * way.conj()  # in the side's own direction, mm: along, and across
    beyond = np.maximum(-on.real, on.real - size)
    return ((beyond <= STRAIGHT_MM) & (np.abs(on.imag) <= STRAIGHT_MM)).all(axis=1) & (size[:, 0] > 0)


def power_from_bezier(points: np.ndarray) -> np.ndarray:
    """Convert cubic control points (..., 4, 2) to power coefficients of the same shape."""
    p0, p1, p2, p3 = (points[..., i, :] for i in range(4))
    return np.stack([p0, 3 * (p1 - p0), 3 * (p0 - 2 * p1 + p2), p3 - 3 * p2 + 3 * p1 - p0], axis=-2)


def power_from_ends(points: np.ndarray) -> np.ndarray:
    """Convert straight segments' ends (..., 2, 2) to power coefficients (..., 4, 2)."""
    p0, p1 = points[..., 0, :], points[..., 1, :]
    return np.stack([p0, p1 - p0, np.zeros_like(p0), np.zeros_like(p0)], axis=-2)


def end_directions(coeffs: np.ndarray, is_arc: np.ndarray, t: np.ndarray) -> np.ndarray:
    """Return unit directions (n, 2), also where the derivative vanishes.

    There the first higher derivative that does not vanish decides, looking forward at t < 1 and
    backward at t = 1 (SVG 2, path directionality). A segment of no extent yields (1, 0).
    """
    d1, d2 = jets(coeffs, is_arc, t, order=2, least=1)
    scale = np.abs(coeffs[:, 1:]).max(axis=(1, 2)) if len(coeffs) else np.zeros(0)
    eps = 1e-9 * scale + 1e-300
    speed = np.hypot(d1[:, 0], d1[:, 1])
    bad = speed <= eps
    if bad.any():
        back = np.where(t[bad] >= 1.0, -1.0, 1.0)[:, None]
        second, third = d2[bad] * back, np.where(is_arc[bad, None], 0.0, coeffs[bad, 3])
        use_second = np.hypot(second[:, 0], second[:, 1]) > eps[bad]
        d1 = d1.copy()
        d1[bad] = np.where(use_second[:, None], second, third)
        speed = np.hypot(d1[:, 0], d1[:, 1])
    safe = speed > 0
    unit = d1 / np.where(safe, speed, 1.0)[:, None]
    unit[~safe] = (1.0, 0.0)
    return unit


def cubics_from_arc(centre: np.ndarray, a: np.ndarray, b: np.ndarray, start: float, sweep: float) -> np.ndarray:
    """Approximate centre + a·cos θ + b·sin θ by cubics (k, 4, 2) of at most 45° each.

    The error is below 5e-6 of the radius (the usual 4/3·tan(δ/4) handles).
    """
    count = max(1, int(np.ceil(abs(sweep) / (np.pi / 4) - 1e-9)))
    edges = start + sweep * np.arange(count + 1) / count
    handle = 4.0 / 3.0 * np.tan(sweep / count / 4.0)
    at = centre + np.cos(edges)[:, None] * a + np.sin(edges)[:, None] * b
    along = (-np.sin(edges)[:, None] * a + np.cos(edges)[:, None] * b) * handle
    return np.stack([at[:-1], at[:-1] + along[:-1], at[1:] - along[1:], at[1:]], axis=1)
