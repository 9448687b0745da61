"""Joins measured on the result, and the safe radius, against closed forms."""

from dataclasses import replace

import numpy as np
import pytest

from making import bar, brush, measured
from sewn_garland.core.inspecting.bends import safe_radius
from sewn_garland.core.inspecting.verdict import verdict
from sewn_garland.core.lay import lay
from sewn_garland.core.reading.svg_lines import line_from_path_data
from sewn_garland.core.shaping.shaped import Detail


def circle(radius):
    return f"M{radius} 0A{radius} {radius} 0 0 1 {-radius} 0A{radius} {radius} 0 0 1 {radius} 0Z"


def laid(path, **settings):
    return lay(brush(bar(), **settings), [line_from_path_data(path)])[0]


@pytest.mark.parametrize("radius", [20.0, 50.0, 200.0])
def test_pieces_without_gap_open_on_a_circle_by_the_chord(radius):
    line = laid(circle(radius), ease="size")
    length = 10 * line.pieces.factor[0]
    phi = length / radius
    exact = 2 * radius * np.sin(phi / 2) - length * np.cos(phi / 2)
    assert line.joins.gap == pytest.approx(exact, abs=1e-9)
    assert exact == pytest.approx(length**3 / (12 * radius**2), rel=0.02)  # the leading term
    assert line.joins.kink == pytest.approx(phi)
    assert line.joins.step == pytest.approx(0, abs=1e-9)
    assert len(line.joins.gap) == len(line.pieces.s)  # a closed line has as many joins as pieces


def test_a_wished_gap_is_no_fault_on_a_straight_line():
    for gap in (-0.4, 0.0, 1.5):
        line = laid("M0 0H100", gap=gap, ease="gaps")
        assert line.joins.gap == pytest.approx(0, abs=1e-9)
        assert not [f for f in line.findings if f.kind != "leftover"]


def test_a_corner_run_through_kinks_by_its_turn():
    line = laid("M0 0H30V30")
    assert np.degrees(line.joins.kink.max()) == pytest.approx(90)
    kinks = [f for f in line.findings if f.kind == "kink"]
    assert len(kinks) == 1
    assert kinks[0].amount == pytest.approx(90)
    assert kinks[0].at == pytest.approx((30, 0), abs=1)


def test_level_pieces_on_a_slope_have_room_but_no_step():
    line = laid("M0 0L100 100", facing="page")
    assert line.joins.kink == pytest.approx(0)
    assert line.joins.step == pytest.approx(0)
    reach = (10 + 2) / np.sqrt(2)  # two half frames seen along the diagonal
    assert line.joins.gap == pytest.approx(10 - reach)


def test_side_shift_outside_a_bend_opens_the_joins():
    line = laid(circle(60), side_shift=-3, ease="size")  # left of a right turn is outside
    assert line.joins.gap.min() > 0.4
    assert laid(circle(60), side_shift=3, ease="size").joins.gap.max() < -0.4


def test_the_safe_radius_is_where_a_tolerance_is_just_met():
    for settings in ({}, {"gap": 0.5}, {"gap": -0.3}, {"size": 3.0}, {"side_shift": 1.0}):
        which = brush(bar(), **settings)
        length = np.array([10.0 * which.spacing.size])
        radius = safe_radius(which, lengths=length, gaps=length * which.spacing.gap, shift=which.travel.side_shift_mm)
        for factor, sound in ((1.001, True), (0.995, False)):
            r = radius * factor
            pitch = 10 * which.spacing.size * (1 + which.spacing.gap)
            worst = max(abs(2 * (r + d) * np.sin(pitch / r / 2) - length[0] * np.cos(pitch / r / 2) - length[0] * which.spacing.gap)
                        for d in (which.travel.side_shift_mm, -which.travel.side_shift_mm))  # fmt: skip
            kink = 0 if which.apart else np.degrees(pitch / r)  # what stands apart has no join to kink
            assert bool(worst <= 0.1 and kink <= 15) is sound


@pytest.mark.parametrize("settings", [
    {}, {"turn_deg": 30.0}, {"turn_deg": 30.0, "mirror": "every_second"}, {"order": "shuffled"}, {"order": "chance", "turn_deg": -70.0}, {"gap": 0.3},
])  # fmt: skip
def test_at_the_safe_radius_no_join_of_any_pair_is_off(settings):
    """Laid on circles a hair wider: measured joins, steps too unless pieces stand apart, stay within tolerance; a little tighter one does not."""
    motifs = (bar(10, 4), bar(6, 4), replace(bar(8, 6), base_line=1.0))
    which = brush(*motifs, gap_tolerance=0.1, kink_tolerance_deg=15.0, **settings)
    safe = lay(which, [measured("M0 0H100")])[0].safe_radius
    off = []
    for factor in (1.0005, 0.98):
        r = safe * factor
        joins = lay(which, [measured(f"M{r} 0A{r} {r} 0 1 1 {-r} 0A{r} {r} 0 0 1 {r} 0")])[0].joins
        bent = not which.apart and (joins.step.max() > 0.1 or np.degrees(joins.kink.max()) > 15)
        off.append(np.abs(joins.gap).max() > 0.1 or bent)
    assert not off[0]
    assert off[1] or which.variants.order == "chance"  # where the worst pair need not have come up


def test_pieces_that_do_not_turn_have_no_safe_radius():
    assert safe_radius(brush(facing="page"), lengths=np.array([10.0]), gaps=np.array([0.0]), shift=0.0) is None


@pytest.mark.parametrize(
    ("path", "words"),
    [("M0 0H100", "joins within 0.01 mm"), ("M0 0H4", "too short for a piece"), ("M0 0H104", "4.00 mm left over"),
     ("M0 0H10", "one piece, no joins")],
)  # fmt: skip
def test_the_verdict_in_words(path, words):
    assert verdict(laid(path)) == words


@pytest.mark.parametrize("bends", ["rigid", "bent", "jointed"])
@pytest.mark.parametrize("corner", ["mitre", "round", "lap", "piece"])
@pytest.mark.parametrize("by_outlines", [False, True])
def test_joins_and_findings_are_the_same_where_nothing_is_drawn(bends, corner, by_outlines):
    own = brush(bar(), outside_corner_piece=bar(3, 3), round_bends=bends, outside_corner=corner, by_outlines=by_outlines, gap=-0.1)
    line = measured("M10 10H52V50C52 80 20 60 12 40")
    drawn, bare = (lay(own, [line], detail=Detail(drawn=how))[0] for how in (True, False))
    assert bare.findings == drawn.findings
    for name in ("gap", "step", "kink"):
        assert getattr(bare.joins, name).tolist() == getattr(drawn.joins, name).tolist()
    assert bare.outlines is None or len(bare.outlines.points) <= len(drawn.outlines.points)
