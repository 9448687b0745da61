"""Links from joint to joint, against numpy's and scipy's own ways to the same."""

import numpy as np
import pytest
from scipy.linalg import solve_banded

from sewn_garland.core.spacing.chords import chords, held_between, marched, newton_steps

RUNS = np.array([0, 0, 0, 0, 1, 2, 2, 2])
BEFORE = np.array([0, 1, 2, 5, 6])  # joints that begin a link: three links, none, and two


def test_a_link_goes_from_its_joint_to_the_next_one_of_its_run():
    rng = np.random.default_rng(1)
    place, way = rng.normal(size=(2, 8)) + 1j * rng.normal(size=(2, 8))
    distance, ahead, behind = chords(place, way, BEFORE)
    across = place[BEFORE + 1] - place[BEFORE]
    assert distance == pytest.approx(np.abs(across), rel=1e-15)
    assert ahead == pytest.approx(np.real(across / np.abs(across) * way[BEFORE + 1].conj()), rel=1e-13)
    assert behind == pytest.approx(np.real(across / np.abs(across) * way[BEFORE].conj()), rel=1e-13)


def test_joints_in_one_place_have_a_link_of_no_length_and_no_direction():
    distance, ahead, behind = chords(np.full(2, 3 + 4j), np.ones(2, complex), np.zeros(1, int))
    assert (distance.tolist(), ahead.tolist(), behind.tolist()) == ([0.0], [0.0], [0.0])


def test_steps_of_newton_are_those_of_a_banded_system():
    """``scipy.linalg.solve_banded`` of the same matrix: 1 on the diagonal where a run begins, ``ahead`` elsewhere, −``behind`` beside it."""
    rng = np.random.default_rng(2)
    ahead, behind, miss, own = rng.uniform(0.5, 1, (4, 5))
    on = np.array([True, True, True, False, False])
    band, right = np.zeros((2, 8)), np.zeros((8, 2))
    band[0] = 1.0
    band[0, BEFORE[on] + 1], band[1, BEFORE[on]] = ahead[on], -behind[on]
    right[BEFORE[on] + 1] = np.column_stack([miss, own])[on]
    assert np.array(newton_steps(BEFORE, on, ahead, behind, miss, own, 8)) == pytest.approx(solve_banded((1, 0), band, right).T, rel=1e-13)


def test_joints_come_one_by_one_where_chords_of_a_circle_reach():
    """A chord c of a circle of radius r takes 2 r asin(c / 2 r) of it (geometry)."""
    at = np.linspace(0, 300, 30_001)
    own = np.array([4.0, 9.0, 1.0, 30.0, 59.0, 4.0, 4.0])
    found = marched(30 * np.exp(1j * at / 30), at, own)
    assert found == pytest.approx(np.cumsum(60 * np.arcsin(own / 60)), abs=1e-4)


def test_joints_come_first_where_a_line_turns_back_and_end_with_the_line():
    """By hand: out 10 mm and back along itself, links of 4 mm find no place behind 8 mm until the line is 4 mm before that: at 16 mm."""
    at = np.linspace(0, 20, 201)
    found = marched(10 - np.abs(10 - at) + 0j, at, np.full(9, 4.0))
    assert found == pytest.approx([4, 8, 16, 20], abs=1e-9)
    assert not len(marched(np.array([1j]), np.zeros(1), np.ones(3)))


def test_what_lies_beyond_an_open_run_is_held_within_it():
    low, high, slack, closed = np.array([2.0, 5.0]), np.array([4.0, 9.0]), np.array([0.25, 0.5]), np.array([False, True])
    held = held_between(np.array([0, 0, 0, 0, 1, 1]), np.array([1.0, 2.0, 4.0, 7.0, 1.0, 12.0]), low, high, slack, closed)
    assert held.tolist() == [2.25, 2.0, 4.0, 3.75, 1.0, 12.0]
