"""Who a piece is does not depend on what else is laid."""

import numpy as np
import pytest

from making import bar, brush, measured
from sewn_garland.core.lay import lay
from sewn_garland.core.values.pieces import START
from sewn_garland.core.values.tracks import LineToLay

PATHS = ("M0 0H80V60H20", "M0 0C60 90 90 -40 140 10", "M0 0H60V40H0Z")
KEYS = (7, 2, 11)
THREE = (bar(8, 2), bar(8, 3), bar(8, 4))
WAYS = {
    "shuffled": {"order": "shuffled"},
    "by chance": {"order": "chance"},
    "never a twin, bent": {"order": "no_twin", "round_bends": "bent", "ease": "size"},
    "jointed": {"order": "shuffled", "round_bends": "jointed", "ease": "size"},
    "rows": {"order": "chance", "rows": (-6.0, 6.0)},
    "rows in step": {"order": "chance", "rows": (-6.0, 6.0), "row_ease": "in_step"},
    "with ends and corners": {
        "order": "chance", "start_piece": bar(5, 2), "end_piece": bar(6, 2), "outside_corner_piece": bar(4, 4), "outside_corner": "piece",
    },
    "mitred": {"order": "chance", "outside_corner": "mitre", "inside_corner": "mitre"},
}  # fmt: skip


def lines():
    return [LineToLay(measured(path), key) for path, key in zip(PATHS, KEYS, strict=True)]


def told(laid):
    """Return each piece's motif and place on the page by who it is."""
    ids = [laid.id_of(place) for place in range(len(laid.pieces.s))]
    assert len(set(ids)) == len(ids)
    found = zip(laid.pieces.motif.tolist(), np.round(laid.pieces.matrices, 9).tolist(), strict=True)
    return dict(zip(ids, found, strict=True))


@pytest.mark.parametrize("more", WAYS.values(), ids=WAYS)
def test_a_line_is_laid_alone_as_among_others_and_in_any_order(more):
    made = brush(*THREE, **more)
    together = lay(made, lines())
    backwards = lay(made, lines()[::-1])[::-1]
    for line, among, turned in zip(lines(), together, backwards, strict=True):
        (alone,) = lay(made, [line])
        assert told(alone) == told(among) == told(turned)
        assert {each.line for each in told(alone)} == {line.key}


def test_stops_are_numbered_along_each_row_over_all_roles():
    more = {"start_piece": bar(5, 2), "end_piece": bar(6, 2), "rows": (-6.0,)}
    (laid,) = lay(brush(bar(8, 2), **more), [LineToLay(measured("M0 0H100"), 3)])
    for row in (0, 1):
        own = laid.pieces.row == row
        assert laid.pieces.stop[own].tolist() == list(range(own.sum()))
        assert (np.diff(laid.pieces.s[own]) > 0).all()
        assert np.flatnonzero(own & (laid.pieces.role == START)).size == 1
    assert set(laid.pieces.slot.tolist()) == {0}


def test_two_lines_are_dealt_unlike_and_two_of_one_key_alike():
    made = brush(*THREE, order="chance")
    line = measured("M0 0H400")
    one, other, twin = lay(made, [LineToLay(line, 1), LineToLay(line, 2), LineToLay(line, 1)])
    assert one.pieces.variant.tolist() == twin.pieces.variant.tolist()
    assert one.pieces.variant.tolist() != other.pieces.variant.tolist()


def test_another_arrangement_deals_anew_and_the_same_one_again():
    line = LineToLay(measured("M0 0H400"), 1)
    dealt = [lay(brush(*THREE, order="chance", arrangement=n), [line])[0].pieces.variant.tolist() for n in (1, 2, 1)]
    assert dealt[0] == dealt[2] != dealt[1]
