"""Width along the line: what it measures, and that joins still meet under it."""

from itertools import pairwise

import numpy as np
import pytest
from scipy.integrate import quad

from making import bar, brush, measured
from sewn_garland.core.lay import lay
from sewn_garland.core.maths.outlines import swept
from sewn_garland.core.measuring.widths import held, widths_of
from sewn_garland.core.values.motif import Motif

WAVE = "M0 40C40 0 60 0 100 40S160 80 200 40"
RING = "M50 0A50 50 0 0 1 -50 0A50 50 0 0 1 50 0Z"
THICK = ((0.0, 1.0), (0.4, 1.8), (1.0, 0.6))


def of(path, profile=(), start=0.0, end=0.0, to=0.2):
    line = measured(path)
    own = brush(width_along=profile, taper_start=start, taper_end=end, taper_to=to)
    return line, widths_of([line], own.hand)


def on_line(lookup, at):
    return lookup(np.zeros(len(at), int), np.asarray(at, float))


def test_even_distance_is_the_integral_of_one_over_the_width():
    """Against SciPy's adaptive quadrature."""
    _, widths = of("M0 0H120", THICK, start=15, end=25)
    for s in (3.0, 30.0, 77.7, 119.0):
        edges = np.append(widths.s[widths.s < s], s)
        true = sum(quad(lambda x: 1 / on_line(widths.at, [x])[0][0], a, b)[0] for a, b in pairwise(edges.tolist()))
        assert on_line(widths.even_of, [s])[0] == pytest.approx(true, rel=1e-10)


@pytest.mark.parametrize("path", ["M0 0H120", RING])
def test_even_distances_and_mm_are_each_other_s_inverse_also_beyond_the_ends(path):
    line, widths = of(path, THICK)
    s = np.linspace(-0.4, 1.4, 301) * line.length
    assert on_line(widths.mm_of, on_line(widths.even_of, s)) == pytest.approx(s, abs=1e-9)


def test_tapers_begin_with_the_least_width_and_share_a_short_line():
    _, widths = of("M0 0H10", start=30, end=10, to=0.25)
    width = on_line(widths.at, [0, 7.5, 10])[0]
    assert width == pytest.approx([0.25, 1.0, 0.25])


def test_a_closed_line_has_no_taper_and_its_width_goes_round():
    line, widths = of(RING, THICK, start=20, end=20)
    before, after = on_line(widths.at, [line.length - 1e-9, 1e-9])[0]
    assert before == pytest.approx(after, abs=1e-6)
    assert before == pytest.approx(0.6, abs=1e-6) or before == pytest.approx(1.0, abs=1e-6)


def test_rigid_pieces_meet_on_a_straight_line_and_are_as_wide_as_it_is():
    laid = lay(brush(bar(6, 2), ease="size", width_along=THICK), [measured("M0 0H200")])[0]
    assert np.abs(laid.joins.gap).max() < 1e-9
    ends = (laid.pieces.s[0] - laid.pieces.before[0], laid.pieces.s[-1] + laid.pieces.after[-1])
    assert ends == pytest.approx((0, 200), abs=1e-9)
    assert laid.pieces.scale[:, 0] == pytest.approx(laid.pieces.scale[:, 1])
    assert (laid.pieces.width.max(), laid.pieces.width[-1]) == pytest.approx((1.8, 0.65), abs=0.02)
    assert laid.findings == ()


def test_what_is_left_over_is_told_in_mm():
    laid = lay(brush(bar(7, 2), taper_start=60.0, taper_end=60.0), [measured("M0 0H200")])[0]
    end = laid.pieces.s[-1] + laid.pieces.after[-1]
    assert [f.kind for f in laid.findings] == ["leftover"]
    assert laid.findings[0].amount == pytest.approx(200 - end, abs=1e-9)


@pytest.mark.parametrize(("path", "closed"), [(RING, True), (WAVE, False)])
def test_links_of_a_thick_and_thin_chain_meet_at_their_joints(path, closed):
    link = Motif((), 10.0, 4.0, 2.0, joints=((1.0, 2.0), (9.0, 2.0)))
    laid = lay(brush(link, round_bends="jointed", ease="size", width_along=THICK), [measured(path)])[0]
    joints = laid.pieces.joints
    apart = np.hypot(*(joints[1:, 0] - joints[:-1, 1]).T)
    assert max(apart.max(), np.hypot(*(joints[0, 0] - joints[-1, 1])) if closed else 0.0) < 1e-9
    lengths = np.hypot(*(joints[:, 1] - joints[:, 0]).T)
    assert lengths == pytest.approx(8 * laid.pieces.factor * laid.pieces.width, abs=1e-9)
    assert lengths.max() / lengths.min() > 2.2


def test_a_bent_bar_widens_with_the_line_and_its_edges_meet():
    """Area ∫h·w ds on a straight line (closed form)."""
    line, widths = of("M0 0H200", THICK)
    laid = lay(brush(bar(6, 2), round_bends="bent", ease="length", width_along=THICK), [line])[0]
    points = [laid.outlines.points[a:b] for a, b in zip(laid.outlines.starts[:-1], laid.outlines.starts[1:], strict=True)]
    cubics = np.concatenate([np.stack([p[0:-1:3], p[1::3], p[2::3], p[3::3]], axis=1) for p in points])
    true, _ = quad(lambda s: 2 * on_line(widths.at, [s])[0][0], 0, 200, limit=300, epsabs=1e-3)
    assert abs(swept(cubics).sum()) == pytest.approx(true, rel=2e-4)
    right = points[10][np.isclose(points[10][:, 0], points[10][:, 0].max(), atol=1e-9), 1]
    left = points[11][np.isclose(points[11][:, 0], points[11][:, 0].min(), atol=1e-9), 1]
    assert (right.min(), right.max()) == pytest.approx((left.min(), left.max()), abs=1e-9)


def test_once_over_the_line_the_width_changes_only_across():
    laid = lay(brush(bar(50, 4), kind="once_length", taper_start=40.0, taper_end=40.0), [measured("M0 0H200")])[0]
    points = laid.outlines.points
    assert (points[:, 0].min(), points[:, 0].max()) == pytest.approx((0, 200), abs=1e-9)
    at_start = points[np.isclose(points[:, 0], 0, atol=1e-9)]
    assert np.abs(at_start[:, 1]).max() == pytest.approx(2 * 0.2, abs=1e-9)
    assert np.abs(points[::3, 1]).max() == pytest.approx(2.0, abs=1e-6)  # ends of cubics


def test_a_wider_stretch_needs_a_wider_bend():
    sharp = "M0 0H60A8 8 0 0 1 60 16H0"
    plain = lay(brush(bar(4, 12), round_bends="bent"), [measured(sharp)])[0]
    wide = lay(brush(bar(4, 12), round_bends="bent", width_along=((0.0, 1.0), (0.5, 2.0), (1.0, 1.0))), [measured(sharp)])[0]
    assert "tight bend" not in [f.kind for f in plain.findings]
    assert "tight bend" in [f.kind for f in wide.findings]


def test_widths_stay_the_same_about_a_place_and_catch_up():
    """By hand: from 1 at the begin to 0.2 at 80 mm, held for 10 times the width, 5 mm, about 50 mm, and as it was from 60 mm on."""
    _, widths = of("M0 0H80", ((0.0, 1.0), (1.0, 0.2)))
    flat = held(widths, np.zeros(1, int), np.array([50.0]), np.array([10.0]))
    at = np.array([0, 20, 40, 42.5, 45, 48, 55, 57.5, 60, 80])
    assert on_line(flat.at, at)[0] == pytest.approx(1 - 0.01 * np.array([0, 20, 40, 45, 50, 50, 50, 55, 60, 80]), abs=1e-9)
    edges = np.append(flat.s[flat.s < 77.7], 77.7)
    true = sum(quad(lambda x: 1 / on_line(flat.at, [x])[0][0], a, b)[0] for a, b in pairwise(edges.tolist()))
    assert on_line(flat.even_of, [77.7])[0] == pytest.approx(true, rel=1e-10)


def test_widths_held_about_the_close_of_a_line_are_held_on_both_sides_of_it():
    line, widths = of(RING, ((0.0, 1.0), (0.5, 2.0)))
    flat = held(widths, np.zeros(1, int), np.zeros(1), np.array([6.0]))
    near = line.length * 0.01
    assert on_line(flat.at, [0.0, 5.9, line.length - 5.9, near, line.length - near])[0] == pytest.approx(1.0, abs=1e-9)
    assert on_line(flat.at, [12.1, 90.0])[0] == pytest.approx(on_line(widths.at, [12.1, 90.0])[0], abs=1e-9)


def test_a_width_that_jumps_where_its_line_closes_does_so_still():
    line = measured(RING)
    widths = widths_of([line], brush().hand, lambda track, s: 1 + s / line.length)
    flat = held(widths, np.zeros(1, int), np.array([50.0]), np.array([6.0]))
    assert flat.width[[0, -1]] == pytest.approx([1.0, 2.0], abs=1e-9)
    assert on_line(flat.at, [line.length - 0.01])[0] == pytest.approx(2.0, abs=1e-3)


def test_places_near_one_another_share_the_way_between_them():
    _, widths = of("M0 0H80", ((0.0, 1.0), (1.0, 0.2)))
    flat = held(widths, np.zeros(3, int), np.array([44.0, 40.0, 40.0]), np.full(3, 5.0))
    at = np.linspace(0, 80, 4001)
    width = on_line(flat.at, at)[0]
    assert (np.diff(width) <= 1e-12).all() and width[[0, -1]] == pytest.approx([1.0, 0.2])
    assert on_line(flat.at, [40.0, 41.0, 42.0, 43.0, 44.0])[0] == pytest.approx([0.6, 0.6, 0.58, 0.56, 0.56], abs=1e-9)


@pytest.mark.parametrize("places", [[], [40.0, 44.0]])
def test_widths_go_on_as_they_are_where_none_is_held_or_there_is_no_room(places):
    _, widths = of("M0 0H80", ((0.0, 1.0), (1.0, 0.2)))
    same = held(widths, np.zeros(len(places), int), np.array(places), np.full(len(places), 30.0))
    assert np.array_equal(same.s, widths.s) and np.array_equal(same.width, widths.width) and np.array_equal(same.even, widths.even)
