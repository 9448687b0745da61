"""Cubics split at levels of their x, against NumPy's roots, SciPy's root finder and the cubics themselves."""

import numpy as np
import pytest
from scipy.optimize import brentq

from sewn_garland.core.maths.curves import bernstein
from sewn_garland.core.maths.levels import split_at_levels


def split(x, levels, *, most=10**6, y=None):
    """Split cubics with control values ``x`` (n, 4), each at its own levels, given as a list of lists."""
    counts = np.array([len(own) for own in levels])
    end = np.cumsum(counts)
    flat = np.concatenate([np.sort(own) for own in levels]) if len(levels) else np.zeros(0)
    return split_at_levels(np.asarray(x) + 1j * (np.zeros(np.shape(x)) if y is None else y), end - counts, end, flat, most=most)


def test_cubics_pass_levels_where_numpy_finds_roots():
    dice = np.random.default_rng(8)
    x, levels = dice.normal(0, 1, (400, 4)), dice.normal(0, 0.5, (400, 3))
    found = split(x, levels)
    true = []
    for i in range(400):
        a, b, c, d = x[i]
        true += [(i, 0.0)]
        for y in levels[i]:
            roots = np.roots([d - 3 * c + 3 * b - a, 3 * (c - 2 * b + a), 3 * (b - a), a - y])
            true += [(i, root.real) for root in roots if abs(root.imag) < 1e-12 and 1e-9 < root.real < 1 - 1e-9]
    true = np.array(sorted(true))
    assert found.row.tolist() == true[:, 0].tolist() and np.abs(found.begin - true[:, 1]).max() < 1e-6


def test_a_level_is_passed_where_a_root_finder_says():
    """Against SciPy's ``brentq``: cubics that rise or fall, some of which begin or end level, or bend back on themselves nowhere."""
    dice = np.random.default_rng(1)
    x = np.sort(dice.normal(size=(300, 4)), axis=1) * dice.choice([1, -1], (300, 1))
    x[:40, 1], x[40:80, 2], x[80:120, 1:3] = x[:40, 0], x[40:80, 3], x[80:120, :1]
    level = x[:, 0] + dice.uniform(0.01, 0.99, 300) * (x[:, 3] - x[:, 0])
    found = split(x, level[:, None])
    assert found.row.tolist() == np.repeat(np.arange(300), 2).tolist()
    for own, at, t in zip(x, level, found.begin[1::2], strict=True):
        assert t == pytest.approx(brentq(lambda u, own=own, at=at: bernstein(np.array([u]))[0] @ own - at, 0, 1, xtol=1e-15), abs=1e-9)


def test_parts_lie_on_their_cubics_and_share_their_ends():
    dice = np.random.default_rng(2)
    x, y = dice.normal(0, 1, (100, 4)), dice.normal(0, 1, (100, 4))
    levels = [dice.uniform(-1, 1, count) for count in dice.integers(0, 6, 100)]
    found, t = split(x, levels, y=y), np.linspace(0, 1, 7)
    same = found.row[1:] == found.row[:-1]
    ends = np.append(np.where(same, found.begin[1:], 1.0), 1.0)
    for part, row, begin, end in zip(found.parts, found.row, found.begin, ends, strict=True):
        assert bernstein(t) @ part == pytest.approx(bernstein(begin + t * (end - begin)) @ (x + 1j * y)[row], abs=1e-13)
    assert np.array_equal(found.parts[1:][same, 0], found.parts[:-1][same, 3])
    assert np.array_equal(found.passing[1:, 0], same) and np.array_equal(found.passing[:-1, 1], same)
    end = np.cumsum([len(own) for own in levels])
    for part, row, before in zip(found.parts.real, found.row, found.before, strict=True):
        assert before - (end[row] - len(levels[row])) == (levels[row] <= (part.min() + part.max()) / 2).sum()


def test_what_is_touched_or_passed_by_next_to_nothing_is_not_split():
    x = [[0, 1, 2, 3], [0, 1, 2, 3], [0, 1, 2, 3], [0, 4, 4, 0], [1, 1, 1, 1]]
    found = split(x, [[0.0, 3.0], [5e-7, 3 - 5e-7], [2e-6], [3.0], [1.0]])
    assert found.row.tolist() == [0, 1, 2, 2, 3, 4]
    assert found.before.tolist() == [1, 3, 4, 5, 5, 7]  # a cubic that lies on a level lies behind it


def test_none_give_none_and_too_many_are_told():
    assert len(split(np.zeros((0, 4)), []).row) == 0
    levels = [np.linspace(0.1, 2.9, 50)] * 3
    assert split([[0, 1, 2, 3]] * 3, levels, most=150) is None
    assert len(split([[0, 1, 2, 3]] * 3, levels, most=151).row) == 153
