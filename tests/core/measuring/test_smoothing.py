"""Lines through points and from the hand, and smoothing as a cure."""

import numpy as np
import pytest

from making import measured
from sewn_garland.core.drawing.line_path import path_data_from_line
from sewn_garland.core.errors import InputError
from sewn_garland.core.measuring.arc_length import frames_at, measure
from sewn_garland.core.measuring.smoothing import line_from_hand, line_from_points, smoothed


def test_flowing_points_are_passed_without_a_corner():
    points = np.array([[0, 0], [20, 10], [40, 0], [60, 15.0]])
    line = measure(line_from_points(points, np.ones(4, bool)))
    assert np.abs(line.vertex_turn).max() < 1e-9
    through = frames_at(line, line.vertex_s).position
    assert through == pytest.approx(points[1:-1])


def test_a_pointed_point_keeps_its_corner():
    line = measure(line_from_points(np.array([[0, 0], [20, 0], [20, 20.0]]), np.array([True, False, True])))
    assert np.degrees(line.vertex_turn) == pytest.approx([90])
    assert line.length == pytest.approx(40)


def test_a_closed_flowing_line_is_smooth_where_it_closes():
    angle = np.arange(12) * np.pi / 6
    ring = line_from_points(30 * np.stack([np.cos(angle), np.sin(angle)], axis=1), np.ones(12, bool), closed=True)
    line = measure(ring)
    assert line.closed
    assert line.length == pytest.approx(2 * np.pi * 30, rel=2e-4)
    assert np.abs(line.vertex_turn).max() < 1e-9


@pytest.mark.parametrize("points", [np.zeros((0, 2)), np.array([[3.0, 4.0]]), np.array([[3.0, 4.0], [3.0, 4.0]])])
def test_too_few_points_give_a_line_without_length(points):
    assert measure(line_from_points(points, np.ones(len(points), bool))).length == 0
    assert measure(line_from_hand(points)).length == 0


def test_a_shaky_hand_is_smoothed_and_its_ends_kept():
    x = np.linspace(0, 100, 400)
    rng = np.random.Generator(np.random.PCG64(7))
    shaky = np.stack([x, 20 * np.sin(x / 16) + rng.uniform(-0.4, 0.4, 400)], axis=1)
    line = measure(line_from_hand(shaky))
    clean = np.stack([x, 20 * np.sin(x / 16)], axis=1)
    at = frames_at(line, np.linspace(0, line.length, 800)).position
    apart = np.array([np.hypot(*(at - p).T).min() for p in clean[20:-20:10]])
    assert apart.max() < 0.45
    assert at[0] == pytest.approx(shaky[0])
    assert at[-1] == pytest.approx(shaky[-1])
    assert len(line.line.coeffs) < 60


def test_straight_keeps_only_the_ends():
    line = measure(line_from_hand(np.array([[0, 0], [5, 9], [20, 0.0]]), straight=True))
    assert line.length == pytest.approx(20)
    assert line.tightest_radius is None


def test_smoothing_opens_a_bend_and_holds_open_ends():
    wave = measured("M0 0C8 -20 16 -20 24 0S40 20 48 0S64 -20 72 0")
    opened = measure(smoothed(wave, 20))
    assert opened.tightest_radius > 1.5 * wave.tightest_radius
    assert frames_at(opened, np.array([0.0, opened.length])).position == pytest.approx(np.array([[0, 0], [72, 0]]), abs=1e-6)


def test_smoothing_a_closed_line_keeps_its_length():
    square = measured("M0 0H40V40H0Z")
    rounder = measure(smoothed(square, 8))
    assert rounder.length == pytest.approx(160, rel=5e-3)
    assert rounder.tightest_radius > 5


def test_a_point_that_is_not_finite_is_refused():
    with pytest.raises(InputError, match="not a finite number"):
        line_from_hand(np.array([[0, 0], [np.nan, 1]]))


def test_path_data_draws_the_same_line_again():
    for path in ("M0 0C10 20 30 -20 40 0L50 5", "M10 0A10 6 20 0 1 -10 0A10 6 20 0 1 10 0Z", "M1 2L1 2"):
        line = measured(path)
        again = measured(path_data_from_line(line.line))
        assert again.length == pytest.approx(line.length, rel=1e-5)
        assert again.closed == line.closed


def test_a_hand_that_comes_back_closes_round_as_it_was_drawn():
    """The truth is the circle that the hand went round, 30 mm, with a tremor of 0.2 mm."""
    angle = np.linspace(0, 2 * np.pi * 0.985, 300)
    radius = 30 + 0.2 * np.sin(40 * angle)
    points = np.stack([50 + radius * np.cos(angle), 50 + radius * np.sin(angle)], axis=1)
    line = line_from_hand(points, closed=True)
    assert line.closed
    assert len(line.coeffs) < 40
    s = measure(line)
    seen = frames_at(s, np.linspace(0, s.length, 400)).position
    assert np.abs(np.hypot(*(seen - 50).T) - 30).max() < 0.5
    ends = frames_at(s, np.array([0.0, s.length - 1e-9]))
    assert np.hypot(*(ends.position[0] - ends.position[1])) < 1e-6
    assert ends.tangent[0] @ ends.tangent[1] > 0.999
    assert not line_from_hand(points).closed
