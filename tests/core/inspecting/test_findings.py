"""What a finding says, where it lies, and that neighbours of one fault are told once."""

import numpy as np
import pytest

from making import bar, brush, measured
from sewn_garland.core.lay import lay


def findings(path, kind=None, motif=None, **settings):
    found = lay(brush(motif or bar(), **settings), [measured(path)])[0].findings
    return [f for f in found if kind in (None, f.kind)]


def test_joins_side_by_side_are_one_finding_at_their_worst():
    hairpin = "M0 0H60A15 15 0 0 1 60 30H0"
    kinks = findings(hairpin, "kink")
    assert len(kinks) == 1
    assert kinks[0].count >= 4
    assert 60 <= kinks[0].at_mm <= 60 + 15 * np.pi
    assert kinks[0].message.startswith(f"{kinks[0].count} kinks, largest ")
    assert kinks[0].at[0] == pytest.approx(75, abs=16)


def test_faults_apart_are_findings_of_their_own():
    corners = findings("M0 0H40V40H80V80", "kink")
    assert [round(f.at_mm / 10) for f in corners] == [4, 8, 12]
    assert all(f.count == 1 and f.message == f"kink 90° at {f.at_mm:.1f} mm" for f in corners)


def test_findings_come_in_the_order_of_travel():
    found = findings("M0 0H43V43C90 43 90 0 140 0")
    assert [f.at_mm for f in found] == sorted(f.at_mm for f in found)
    assert len({f.kind for f in found}) >= 3


@pytest.mark.parametrize(
    ("path", "settings", "message", "amount"),
    [
        ("M0 0H106", {}, "6.00 mm left over", 6),
        ("M0 0H7", {}, "7.00 mm is too short for one piece", 7),
        # two pieces would change least (−30 %), so the ease goes to −10 % and one of 9 mm fits
        ("M0 0H14", {"ease": "size", "ease_limit": 0.1}, "5.00 mm left over: the ease limit was reached", 5),
        ("M5 5L5 5", {}, "the line has no length, so no piece fits on it", 0),
    ],
)
def test_what_is_left_over_is_said_with_its_size(path, settings, message, amount):
    (only,) = findings(path, "leftover", **settings)
    assert (only.message, only.unit) == (message, "mm")
    assert only.amount == pytest.approx(amount, abs=1e-9)


def test_a_rest_too_small_to_see_is_no_finding():
    assert findings("M0 0H100.05") == []
    assert len(findings("M0 0H100.2", "leftover")) == 1


def test_the_rest_of_a_closed_line_lies_where_it_closes():
    (rest,) = findings("M20 0H40V40H0V0Z", "leftover", outside_corner="butt", ease="leave", gap=0.3)[-1:]
    assert 0 <= rest.at_mm <= 160
    assert rest.at in [(0.0, 0.0), (40.0, 0.0), (40.0, 40.0), (0.0, 40.0)]


def test_every_tight_stretch_is_told_with_its_own_radius():
    path = "M0 0H60A12 12 0 0 1 60 24H30A8 8 0 0 0 30 40H90"
    bends = findings(path, "tight bend")
    assert [round(f.amount) for f in bends] == [12, 8]
    assert bends[0].at_mm < bends[1].at_mm
    assert findings("M0 0A400 400 0 0 1 200 60", "tight bend") == []


def test_overlaps_are_told_on_the_inside_of_a_bend():
    inside = findings("M50 0A50 50 0 0 1 -50 0", "overlap", side_shift=8.0)
    assert inside
    assert inside[0].amount > 1
    assert not findings("M50 0A50 50 0 0 1 -50 0", "gap", side_shift=8.0)


def test_level_pieces_have_no_tight_bends():
    assert findings("M0 0H40A8 8 0 0 1 40 16H0", "tight bend", facing="page") == []


@pytest.mark.parametrize("corner", ["through", "round"])
def test_bent_pieces_that_turn_right_back_fold_as_deep_as_they_reach(corner):
    """No arc rounds a corner of 180°: what lies beside the line is turned inside out about the vertex (half the height of 3 mm)."""
    (fold,) = findings("M0 0H50H0", "fold", motif=bar(10, 3), round_bends="bent", outside_corner=corner, inside_corner=corner)
    assert fold.amount == pytest.approx(1.5)
    assert fold.at_mm == pytest.approx(50)


def test_a_corner_without_room_for_its_own_piece_is_told_so():
    crowded = findings("M0 0H6V6H12", "crowded corner", outside_corner="piece", inside_corner="piece",
                       outside_corner_piece=bar(9, 9), inside_corner_piece=bar(9, 9))  # fmt: skip
    assert crowded and all(f.message.endswith("no room for its piece") for f in crowded)


def test_no_length_is_told_as_negative():
    for settings in (
        {"outside_corner": "lap", "inside_corner": "lap"},
        {"outside_corner": "butt", "inside_corner": "butt"},
        {"starts_at": 30.0},
    ):
        done = lay(brush(bar(10, 8), **settings), [measured("M0 0H3V3H6L6.5 .1H20V1")])[0]
        assert done.findings
        assert not any("-" in f.message.replace("over-", "") for f in done.findings)
