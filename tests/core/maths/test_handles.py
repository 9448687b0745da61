"""Handles that fit, against circles, whose cubics are known, and against curves that lie in the cubic though they go along it otherwise."""

import numpy as np
import pytest

from sewn_garland.core.maths.curves import bernstein
from sewn_garland.core.maths.handles import fitted_handles

SIXTHS = np.arange(1, 6) / 6


def fitted(ends, handles, places, off=1e-3):
    fits, head, tail = fitted_handles(ends[0], handles[0], handles[1], ends[1], *places, off**2)
    return fits, np.array([ends[0], head, tail, ends[1]])


def arc(turn, radius=10.0):
    """The ends of an arc about 0, handles as long as a third of how fast it is gone along evenly, and the places of its sixths."""
    ends = radius * np.exp(1j * np.array([0, turn]))
    return ends, (ends[0] + 1j * turn * ends[0] / 3, ends[1] - 1j * turn * ends[1] / 3), radius * np.exp(1j * turn * SIXTHS)


@pytest.mark.parametrize("turn", [0.1, 1.0, np.pi / 2, -np.pi / 2])
def test_along_an_arc_handles_are_as_long_as_common_practice_has_them(turn):
    """4/3 · tan(turn / 4) of the radius, from memory; such a cubic strays by 2.7e-4 of the radius over a right angle."""
    fits, cubic = fitted(*arc(turn))
    assert fits == (abs(turn) <= 1.0)  # 10 mm · 2.7e-4 are too much
    fits, cubic = fitted(*arc(turn), off=3e-3)
    assert fits and abs(cubic[1] - cubic[0]) == pytest.approx(10 * 4 / 3 * np.tan(abs(turn) / 4), rel=1e-9)
    off = np.abs(bernstein(np.linspace(0, 1, 500)) @ cubic) - 10
    assert off.min() > -1e-9 and off.max() < 10 * 2.73e-4


def test_a_straight_side_may_be_gone_along_faster_and_faster():
    """Three times as fast at its end as at its begin: by its parameter a cubic strays from it by far more than it may."""
    way, share = 6 + 3j, np.expm1(np.log(3) * SIXTHS) / 2
    handles = way * np.log(3) / 6, way * (1 - np.log(3) / 2)
    fits, cubic = fitted((0j, way), handles, way * share)
    assert fits and cubic == pytest.approx(np.array([0, *handles, way]))
    assert np.abs(bernstein(SIXTHS) @ cubic - way * share).max() > 0.02


def test_a_spiral_keeps_what_its_handles_differ_by():
    """Its radius grows from 10 mm by half over a right angle; handles that are alike stray by twice as much."""
    turn, grown, u = np.pi / 2, 5.0, np.array([0, 1])

    def spiral(u):
        return (10 + grown * u) * np.exp(1j * turn * u)

    ends, slopes = spiral(u), (grown + 1j * turn * (10 + grown * u)) * np.exp(1j * turn * u)
    fits, cubic = fitted(ends, (ends[0] + slopes[0] / 3, ends[1] - slopes[1] / 3), spiral(SIXTHS), off=0.035)
    assert fits and abs(cubic[3] - cubic[2]) / abs(cubic[1] - cubic[0]) == pytest.approx(abs(slopes[1]) / abs(slopes[0]))
    true = spiral(np.linspace(0, 1, 2000))
    assert np.abs((bernstein(np.linspace(0, 1, 100)) @ cubic)[:, None] - true).min(axis=1).max() < 0.035


@pytest.mark.parametrize(
    "places",
    [
        6 * np.array([1, 2, 3, 4, 3.9]) / 6,  # back again
        6 * np.array([0.01, 0.02, 0.03, 0.04, 0.05]),  # far from the end
        6 * SIXTHS + np.array([0, 0, 0.2j, 0, 0]),  # off
        6 * SIXTHS + np.nan,
    ],
)
def test_what_does_not_fit_keeps_its_handles(places):
    fits, cubic = fitted((0j, 6 + 0j), (1 + 0j, 5 + 0j), places)
    assert not fits and cubic.tolist() == [0, 1, 5, 6]


@pytest.mark.parametrize("handles", [(0j, 5 + 0j), (1 + 0j, 6 + 0j), (0j, 6 + 0j)])
def test_handles_may_have_no_length(handles):
    cubic = np.array([0, *handles, 6])
    assert fitted((0j, 6 + 0j), handles, bernstein(SIXTHS) @ cubic)[0]


def test_what_has_no_extent_fits_where_it_is():
    assert fitted((0j, 0j), (0j, 0j), 0j * SIXTHS)[0] and not fitted((0j, 0j), (0j, 0j), 0j * SIXTHS + 1)[0]
