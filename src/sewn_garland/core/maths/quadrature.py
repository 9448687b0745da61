"""Gauss–Legendre rules, and the running integral of a function known at their nodes."""

from __future__ import annotations

from functools import cache

import numpy as np
from numpy.polynomial import chebyshev, legendre


@cache
def gauss(n: int) -> tuple[np.ndarray, np.ndarray]:
    """Return the nodes and weights (n,) of the n-point Gauss–Legendre rule on [−1, 1]."""
    return legendre.leggauss(n)


@cache
def running_integral_matrix(n: int) -> np.ndarray:
    """Return the (n + 1, n) matrix from values at the Gauss nodes to a Chebyshev series.

    The series is the integral from −1 of the polynomial through those values. Derived: the
    discrete Legendre transform is exact up to degree n − 1; then integrate and change basis.
    """
    x, w = gauss(n)
    k = np.arange(n)
    to_legendre = (k[:, None] + 0.5) * w * legendre.legvander(x, n - 1).T
    integrals = [legendre.legint(column, lbnd=-1) for column in to_legendre.T]
    return np.stack([chebyshev.chebinterpolate(lambda u, c=c: legendre.legval(u, c), n) for c in integrals], axis=1)


def chebyshev_at(series: np.ndarray, u: np.ndarray) -> np.ndarray:
    """Evaluate one Chebyshev series a row, ``series`` (n + 1, m) column-wise, at u (m,): Clenshaw."""
    b1, b2, spare = (np.zeros_like(u) for _ in range(3))
    twice = 2.0 * u
    for row in series[:0:-1]:
        np.multiply(twice, b1, out=spare)  # in place: fresh arrays would take as long as the sums
        spare -= b2
        spare += row
        b1, b2, spare = spare, b1, b2
    return series[0] + u * b1 - b2
