"""Handles of a cubic that is to go through given places, wherever along it these lie."""

from __future__ import annotations

import numpy as np

from .compiled import compiled

FARTHEST = 0.4  # share of a cubic that may lie between two places next to one another; evenly it is a sixth; chosen
SLIDING = 2  # steps to where along a cubic it comes closest to a place; chosen


@compiled
def fitted_handles(a, b, c, d, one, two, three, four, five, most_off):
    """Return whether a cubic with the ends and end directions of ``a, b, c, d`` goes through five places within the root of ``most_off``,
    and its handles; those given where it does not.

    The places are the sixths of a curve as it goes by its parameter, which the cubic need not: it passes them in order, and none far from
    the next. The handles given are thirds of the curve's speed. What goes about a circle, nearer or farther as well, needs longer ones, by
    4 tan(turn / 4) / turn. The cubic has not been held against what the curve does between the places.
    """
    turned = (d - c) * (b - a).conjugate()
    turn = abs(np.arctan2(turned.imag, turned.real))
    longer = 4 * np.tan(turn / 4) / turn if turn > 0 else 1.0
    head, tail = a + times(b - a, longer), d - times(d - c, longer)
    if _goes_through(a, head, tail, d, one, two, three, four, five, most_off):
        return True, head, tail
    return False, b, c


@compiled
def _goes_through(a, b, c, d, one, two, three, four, five, most_off):
    before = 0.0
    for k in range(1, 6):
        place = one if k == 1 else two if k == 2 else three if k == 3 else four if k == 4 else five
        t, steps = k / 6, 0
        off = _at(a, b, c, d, t) - place
        while off.real * off.real + off.imag * off.imag > most_off and steps < SLIDING:
            by_t = _third_of_slope(a, b, c, d, t)
            t -= (off.real * by_t.real + off.imag * by_t.imag) / (3 * (by_t.real * by_t.real + by_t.imag * by_t.imag))
            off, steps = _at(a, b, c, d, t) - place, steps + 1
        if not (off.real * off.real + off.imag * off.imag <= most_off and before < t < before + FARTHEST):
            return False
        before = t
    return 1 - FARTHEST < before < 1


@compiled
def _at(a, b, c, d, t):
    s = 1 - t
    return summed(a, b, c, d, s * s * s, 3 * t * s * s, 3 * t * t * s, t * t * t)


@compiled
def _third_of_slope(a, b, c, d, t):
    s = 1 - t
    return summed(b - a, c - b, d - c, 0j, s * s, 2 * t * s, t * t, 0.0)


@compiled
def summed(a, b, c, d, p, q, r, s):
    """Return p·a + q·b + r·c + s·d, of complex numbers by real ones."""
    return complex(p * a.real + q * b.real + r * c.real + s * d.real, p * a.imag + q * b.imag + r * c.imag + s * d.imag)


@compiled
def times(z, factor):
    """Return a complex number by a real one."""
    return complex(z.real * factor, z.imag * factor)
