"""Parallel rows, against shapely's offset curves and closed forms."""

from itertools import pairwise

import numpy as np
import pytest
from shapely import LineString, Point, Polygon

from making import bar, brush, measured
from sewn_garland.core.errors import LimitError
from sewn_garland.core.lay import lay
from sewn_garland.core.measuring.arc_length import frames_at
from sewn_garland.core.measuring.parallel import parallel


def points_of(line, n=6000):
    return frames_at(line, np.union1d(np.linspace(0, line.length, n), line.vertex_s)).position


@pytest.mark.thorough
@pytest.mark.parametrize("beside", [-6.0, -1.5, 2.0, 5.0])
@pytest.mark.parametrize("path", ["M0 0C40 60 80 -60 120 0", "M0 0L50 0L80 40L140 30", "M0 0A60 40 20 0 1 90 30"])
def test_a_parallel_is_the_offset_curve(path, beside):
    """Hausdorff distance to shapely's offset_curve, which is to the left where positive with y up, so to the right with y down."""
    line = measured(path)
    own = LineString(points_of(parallel(line, beside)))
    theirs = LineString(points_of(line)).offset_curve(beside, quad_segs=64, join_style="mitre", mitre_limit=20)
    assert own.hausdorff_distance(theirs) < 0.02


def test_lengths_of_closed_parallels():
    """2π(r − v) round a clockwise circle, 2(w + h) + 8·v outside a rectangle, its corners mitred."""
    circle = measured("M30 0A30 30 0 0 1 -30 0A30 30 0 0 1 30 0Z")
    assert parallel(circle, 4.0).length == pytest.approx(2 * np.pi * 26, rel=1e-6)
    assert parallel(circle, -4.0).length == pytest.approx(2 * np.pi * 34, rel=1e-6)
    rectangle = measured("M0 0H60V40H0Z")
    assert parallel(rectangle, -5.0).length == pytest.approx(200 + 40, rel=1e-9)
    assert parallel(rectangle, 5.0).length == pytest.approx(200 - 40, rel=1e-9)
    assert Polygon(points_of(parallel(rectangle, 5.0))).area == pytest.approx(50 * 30, rel=1e-3)


def test_two_rows_kept_in_step_have_their_stitches_beside_one_another():
    path = "M0 0H80A20 20 0 0 1 100 20V60"
    laid = lay(brush(bar(6, 2), gap=0.5, ease="gaps", rows=(4.0,), row_ease="in_step"), [measured(path)])[0]
    n = len(laid.pieces.s) // 2
    assert laid.pieces.s[:n] == pytest.approx(laid.pieces.s[n:])
    assert np.hypot(*(laid.pieces.centre[:n] - laid.pieces.centre[n:]).T) == pytest.approx(4.0)
    assert laid.runs == 2
    assert laid.pieces.run.tolist() == [0] * n + [1] * n
    assert len(laid.joins.gap) == 2 * (n - 1)


def test_rows_eased_on_their_own_end_flush_and_keep_their_distance():
    path = "M0 0H80A20 20 0 0 1 100 20V60"
    laid = lay(brush(bar(6, 2), gap=0.5, ease="gaps", rows=(-4.0, 4.0)), [measured(path)])[0]
    line = LineString(points_of(measured(path)))
    for run, beside in enumerate((0.0, 4.0, 4.0)):
        own = laid.pieces.centre[laid.pieces.run == run]
        assert [line.distance(Point(p)) for p in own[1:-1]] == pytest.approx([beside] * (len(own) - 2), abs=2e-3)
    outer, inner = (np.flatnonzero(laid.pieces.run == run) for run in (1, 2))
    assert len(outer) > len(inner)
    assert laid.findings == () or all(f.kind != "leftover" for f in laid.findings)


def test_brick_rows_lie_half_a_pitch_on():
    laid = lay(brush(bar(10, 2), rows=(3.0, 6.0), row_ease="in_step", brick=True), [measured("M0 0H100")])[0]
    by_row = [laid.pieces.centre[laid.pieces.run == run] for run in range(3)]
    assert [len(own) for own in by_row] == [10, 9, 10]
    assert by_row[1][:, 0] == pytest.approx(by_row[0][:-1, 0] + 5)
    assert by_row[2] == pytest.approx(by_row[0] + (0, 6))
    closed = lay(brush(bar(10, 2), ease="size", rows=(3.0,), row_ease="in_step", brick=True), [measured("M0 0H60V40H0Z")])[0]
    assert len(closed.pieces.s) % 2 == 0


@pytest.mark.parametrize("rows", [(3.0, 6.0), (6.0, 3.0), (-3.0, 3.0), (3.0, -6.0, -3.0)])
def test_brick_goes_by_where_rows_lie_not_by_how_they_are_listed(rows):
    laid = lay(brush(bar(10, 2), rows=rows, row_ease="in_step", brick=True), [measured("M0 0H100")])[0]
    first = {y: laid.pieces.centre[laid.pieces.centre[:, 1] == y][0, 0] for y in (0.0, *rows)}
    ordered = sorted(first)
    for low, high in pairwise(ordered):
        assert abs(first[low] - first[high]) == pytest.approx(5)  # half a pitch from one row to the next


@pytest.mark.parametrize("travel", ["bent", "jointed"])
def test_bent_and_jointed_rows_stand_in_one_line(travel):
    laid = lay(brush(bar(10, 2), round_bends=travel, ease="size", rows=(5.0,)), [measured("M0 0C40 60 80 -60 120 0")])[0]
    assert laid.runs == 2
    if travel == "bent":
        assert len(laid.outlines.pieces) == len(laid.pieces.s)
        assert laid.outlines.piece.max() == len(laid.pieces.s) - 1
    else:
        for run in (0, 1):
            joints = laid.pieces.joints[laid.pieces.run == run]
            assert np.hypot(*(joints[1:, 0] - joints[:-1, 1]).T).max() < 1e-9


def test_a_line_without_extent_has_no_parallel_of_its_own():
    line = measured("M5 5")
    assert parallel(line, 3.0) is line


@pytest.mark.parametrize("beside", [-1.0, 1.0])
def test_rows_beside_very_many_corners_are_offset_leg_by_leg(beside):
    """By hand: a zigzag of right angles has every leg's parallel as long as the leg, but at its two ends, which differ by the trim."""
    corners = 3000
    line = measured("M0 0" + "".join(f"l{5} {5 if i % 2 else -5}" for i in range(corners + 1)))
    row = parallel(line, beside)
    assert len(row.line.coeffs) == corners + 1
    assert np.abs(row.line.coeffs[:, 2:]).max() < 1e-9
    legs = np.hypot(*row.line.coeffs[:, 1].T)
    assert legs[1:-1] == pytest.approx(np.full(corners - 1, 5 * np.sqrt(2)))
    assert abs(legs[[0, -1]] - 5 * np.sqrt(2)) == pytest.approx([1.0, 1.0])
    distance = np.abs(frames_at(line, np.array([2.0])).position - frames_at(row, np.array([2.0])).position)
    assert np.hypot(*distance[0]) >= 1.0 - 1e-9


def test_where_a_line_turns_back_its_parallels_are_joined_straight_across():
    there_and_back = parallel(measured("M0 0H50H0"), 3.0)
    assert len(there_and_back.line.coeffs) == 3
    assert there_and_back.length == pytest.approx(50 + 6 + 50)


@pytest.mark.parametrize("beside", [-13.0, 5.0])
def test_where_a_curve_turns_back_on_itself_its_parallel_goes_round_the_point(beside):
    line = measured("M69 -97Q117 0 -8 -129Q117 0 -8 -129")  # the second curve goes out and comes back on the same straight line
    own = parallel(line, beside)
    assert line.length < own.length < line.length + 4 * np.pi * abs(beside)  # a half circle at its tip, and one at the vertex at most
    near = LineString(points_of(line)).buffer(1.5 * abs(beside))
    assert near.covers(LineString(points_of(own)))
    laid = lay(brush(bar(8, 3), rows=(beside,), ease="gaps"), [line])[0]
    assert len(laid.pieces.s) < 200


def test_rows_far_longer_than_their_line_are_refused_before_they_are_laid():
    line = measured("M0 0A.01 .01 0 0 1 .02 0A.01 .01 0 0 1 0 0Z")  # a row 10 mm outside a dot is a thousand times as long
    with pytest.raises(LimitError, match="pieces"):
        lay(brush(bar(8, 3), rows=(-400.0,), size=1e-4), [line])


def test_a_turn_too_slight_to_see_is_no_reason_to_halve_a_parallel():
    turn = np.radians(0.05)  # three millimetres beside it the sides stand 2.6 micrometres apart
    line = measured(f"M0 0H20l{20 * np.cos(turn)} {20 * np.sin(turn)}")
    for beside in (-3.0, 3.0):
        row = parallel(line, beside)
        assert len(row.line.coeffs) == 2
        assert row.length == pytest.approx(40 - beside * turn, abs=1e-6)


@pytest.mark.thorough
def test_one_sharp_bend_does_not_refine_the_whole_leg():
    """The offset's own definition, P + d N, sampled densely, is the independent truth."""
    line = measured("M0 0C40 60 10 60 50 0")  # turns within 0.63 mm
    beside = parallel(line, 6.0)
    assert 8 <= len(beside.line.coeffs) < 200
    frames = frames_at(line, np.linspace(0, line.length, 200_001))
    truth = LineString(frames.position + 6.0 * frames.normal)
    places = frames_at(beside, np.linspace(0, beside.length, 500)).position
    assert max(truth.distance(Point(place)) for place in places) < 2e-4
