"""The order of variants, drawn by piece number."""

from itertools import pairwise

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from scipy import stats

from making import bar, brush, measured
from sewn_garland.core.lay import lay
from sewn_garland.core.spacing.variants import variant_sequence
from sewn_garland.core.values.tracks import LineToLay


def order(which, m=5, **more):
    return brush(*(bar() for _ in range(m)), order=which, **more)


def drawn_by(which, line, count, row=0):
    return variant_sequence(which.variants, len(which.pieces.repeat), line, row, count)


@given(st.sampled_from(["in_turn", "shuffled", "chance", "no_twin"]), st.integers(1, 7), st.integers(0, 300), st.integers(0, 2**31))
def test_drawing_on_leaves_earlier_pieces_where_they_are(which, m, count, arrangement):
    long = drawn_by(order(which, m, arrangement=arrangement), 0, count + 40)
    assert (drawn_by(order(which, m, arrangement=arrangement), 0, count) == long[:count]).all()
    assert ((long >= 0) & (long < m)).all()


def test_shuffled_lays_every_variant_once_before_any_comes_again():
    drawn = drawn_by(order("shuffled"), 0, 500).reshape(-1, 5)
    assert (np.sort(drawn, axis=1) == np.arange(5)).all()
    assert len(np.unique(drawn, axis=0)) > 50


def test_chance_follows_the_weights():
    """Pearson's chi-squared test (SciPy)."""
    drawn = drawn_by(order("chance", 3, weights=(1.0, 2.0, 5.0)), 0, 8000)
    assert stats.chisquare(np.bincount(drawn), [1000, 2000, 5000]).pvalue > 0.001


def test_no_two_neighbours_are_twins_and_none_is_favoured():
    drawn = drawn_by(order("no_twin", 4), 0, 8000)
    assert (np.diff(drawn) != 0).all()
    assert stats.chisquare(np.bincount(drawn)).pvalue > 1e-4
    assert len(set(pairwise(drawn.tolist()))) == 12  # every pair that may follow does


def test_lines_and_arrangements_differ_and_the_same_gives_the_same():
    one, again, other_line = (drawn_by(order("chance"), line, 50) for line in (0, 0, 1))
    assert (one == again).all()
    assert (one != other_line).any()
    assert (one != drawn_by(order("chance", arrangement=2), 0, 50)).any()
    laid = lay(order("chance"), [measured("M0 0H500"), measured("M0 0H500")])
    assert (laid[0].pieces.motif == one).all()
    assert (laid[1].pieces.motif == other_line).all()


@pytest.mark.parametrize("which", ["shuffled", "no_twin"])
def test_links_take_the_order_too(which):
    laid = lay(order(which, 3, round_bends="jointed"), [measured("M0 0H300")])[0]
    assert (laid.pieces.motif == drawn_by(order(which, 3), 0, 30)).all()


def test_what_is_dealt_goes_by_the_number_a_line_is_known_by_and_by_the_row():
    which = order("chance", rows=(4.0,))
    one = LineToLay(measured("M0 0H500"), key=7)
    alone, (_, among) = lay(which, [one])[0].pieces, lay(which, [LineToLay(measured("M0 40H300"), key=3), one])
    assert (alone.variant == among.pieces.variant).all()
    assert (alone.variant[alone.row == 0] == drawn_by(which, 7, 50)).all()
    assert (alone.variant[alone.row == 1] == drawn_by(which, 7, 50, row=1)).all()
    assert (alone.variant[alone.row == 0] != alone.variant[alone.row == 1]).any()


@pytest.mark.parametrize("m", [3, 5])
@pytest.mark.parametrize("weights", [None, (1.0, 1.0, 20.0, 3.0, 0.5)])
def test_no_twins_meet_at_the_close_either(m, weights):
    """Brute force: all neighbours round the ring, for many arrangements; the others are as they are on an open line."""
    more = {} if weights is None else {"weights": weights[:m]}
    ring = measured("M40 0A40 40 0 0 1 -40 0A40 40 0 0 1 40 0Z")
    for arrangement in range(40):
        which = order("no_twin", m, arrangement=arrangement, ease="size", **more)
        drawn = lay(which, [ring])[0].pieces.variant
        assert (drawn != np.roll(drawn, 1)).all()
        assert (drawn[:-1] == drawn_by(which, 0, len(drawn))[:-1]).all()
