"""Chains of sides too short to be seen."""

import numpy as np
import pytest

from sewn_garland.core.maths.crumbs import seen_of_chain


def test_by_hand_a_chain_goes_on_in_steps_that_can_be_seen():
    points = np.array([[0, 0], [1, 0], [2, 0], [3, 0], [3.5, 0], [7, 0], [7.5, 0]])
    assert seen_of_chain(points, 2.0).tolist() == [0, 2, 6]  # 3.5 lies near 2, 7.5 near 7, in whose place it stays
    assert seen_of_chain(points, 0.1).tolist() == [0, 1, 2, 3, 4, 5, 6]


@pytest.mark.parametrize("points", [np.zeros((0, 2)), np.zeros((1, 2)), np.array([[0.0, 0], [1e-9, 0]])])
def test_two_points_or_fewer_all_stay(points):
    assert seen_of_chain(points, 1.0).tolist() == list(range(len(points)))


def test_a_chain_that_comes_back_at_once_has_its_ends_alone():
    assert seen_of_chain(np.array([[0.0, 0], [0.3, 0.1], [0.1, 0.2], [0.0, 0.0]]), 1.0).tolist() == [0, 3]


@pytest.mark.parametrize("seed", range(5))
def test_whatever_is_left_out_lies_near_what_stays(seed):
    """By brute force: distances of all points from all that stay."""
    walk = np.cumsum(np.random.default_rng(seed).normal(0, 0.3, (400, 2)), axis=0)
    kept = seen_of_chain(walk, 1.0)
    away = np.hypot(*np.moveaxis(walk[:, None] - walk[kept], 2, 0)).min(axis=1)
    steps = np.hypot(*np.diff(walk[kept], axis=0).T)
    assert kept[0] == 0 and kept[-1] == len(walk) - 1 and (np.diff(kept) > 0).all()
    assert away.max() < 1.0 and steps[:-1].min() >= 1.0 and len(kept) < 200
