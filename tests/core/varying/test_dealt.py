"""Pieces get the shares of their own streams, whatever their order in the table and however many are dealt together."""

import numpy as np
import pytest

from sewn_garland.core.values.variations import Variation
from sewn_garland.core.varying.dealt import Named, dealt_shares
from sewn_garland.core.varying.shares import shares_of_stops

TRACKS = [(5, 0), (5, 1), (9, 0)]


def one_by_one(variation, k, arrangement, track, slot, attempt, stop):
    """The published rule, a piece at a time."""
    return [
        shares_of_stops(
            variation, k, int(n) + 1, arrangement=arrangement, line=TRACKS[t][0], row=TRACKS[t][1], slot=int(j), attempt=int(a)
        )[n]
        for t, j, a, n in zip(track, slot, attempt, stop, strict=True)
    ]  # fmt: skip


@pytest.mark.parametrize("variation", [
    Variation(of="turn", between=(-10, 10)), Variation(of="turn", between=(0, 1), gather_pct=40),
    Variation(of="size", follows="turns", between=(50, 100), over=3), Variation(of="opacity", follows="pieces", between=(100, 0)),
])  # fmt: skip
def test_every_piece_has_the_share_of_its_own_stream(variation):
    dice = np.random.default_rng(3)
    table = [dice.integers(0, most, 200) for most in (3, 2, 4, 60)]
    found = dealt_shares(variation, 1, 7, Named(TRACKS, *table))
    assert found.tolist() == one_by_one(variation, 1, 7, *table)


def test_what_is_remembered_goes_by_all_that_the_share_goes_by_and_not_by_the_values_between():
    table = [np.zeros(6, int), np.zeros(6, int), np.zeros(6, int), np.arange(6)]
    wide, narrow = (Variation(of="turn", between=(-most, most)) for most in (90, 10))
    first = dealt_shares(wide, 0, 1, Named(TRACKS, *table))
    assert dealt_shares(narrow, 0, 1, Named(TRACKS, *table)) is first
    others = [
        dealt_shares(wide, 1, 1, Named(TRACKS, *table)), dealt_shares(wide, 0, 2, Named(TRACKS, *table)),
        dealt_shares(wide, 0, 1, Named([(6, 0)], *table)), dealt_shares(Variation(of="turn", between=(0, 1), gather_pct=20), 0, 1, Named(TRACKS, *table)),
    ]  # fmt: skip
    assert len({tuple(each) for each in [first, *others]}) == 5


def test_no_pieces_have_no_shares():
    none = [np.zeros(0, int)] * 4
    assert dealt_shares(Variation(of="turn", between=(0, 1)), 0, 0, Named([], *none)).shape == (0,)
