"""Arcs in place of vertices, against closed forms and shapely's buffers."""

import numpy as np
import pytest
from shapely import LinearRing, Polygon

from making import measured
from sewn_garland.core.measuring.arc_length import frames_at, measured_all
from sewn_garland.core.measuring.rounding import rounded, rounded_all
from sewn_garland.core.reading.svg_lines import line_from_path_data


def rounding(path, radius, **more):
    line = measured(path)
    return line, rounded(line, np.arange(len(line.vertex_s)), radius, **more)


def points_of(line, n=4000):
    return frames_at(line, np.linspace(0, line.length, n)).position


@pytest.mark.parametrize("path", ["M0 0H60V40H0Z", "M0 0V40H60V0Z", "M30 0H60V40H0V0Z"])
def test_a_rounded_rectangle_is_the_opening_of_the_sharp_one(path):
    """Erosion then dilation by a disc (shapely's buffers) and the closed form of its length."""
    _, out = rounding(path, 8.0)
    assert out.line.length == pytest.approx(200 - 8 * 8 + 2 * np.pi * 8, rel=1e-12)
    rim = Polygon(points_of(out.line))
    assert rim.symmetric_difference(Polygon([(0, 0), (60, 0), (60, 40), (0, 40)]).buffer(-8).buffer(8, quad_segs=400)).area < 0.05
    assert out.line.tightest_radius == pytest.approx(8)
    assert np.abs(out.line.vertex_turn).max() < 1e-6


@pytest.mark.parametrize("turn", [20.0, 60.0, 90.0, 150.0, 178.0])
@pytest.mark.parametrize("side", [1, -1])
def test_the_tangent_length_on_straight_legs(turn, side):
    """r·tan(θ/2) off each leg, the arc r·θ (geometry)."""
    angle = np.radians(turn) * side
    line, out = rounding(f"M0 0H300l{300 * np.cos(angle):.9f} {300 * np.sin(angle):.9f}", 2.0)
    tangent = 2 * np.tan(np.radians(turn) / 2)
    assert out.line.length == pytest.approx(line.length - 2 * tangent + 2 * np.radians(turn), rel=1e-9)
    assert out.old[1:3] == pytest.approx([300 - tangent, 300 + tangent])


def test_curved_legs_meet_the_arc_in_the_same_direction_at_the_radius():
    """Two circles of 50 mm crossing: the centre lies where their offsets cross, so both distances to it are r."""
    line, out = rounding("M0 0A50 50 0 0 1 50 -20A50 50 0 0 1 100 0", 6.0)
    assert len(out.crowded) == 0
    assert out.line.tightest_radius == pytest.approx(6.0)
    assert np.abs(out.line.vertex_turn).max() < 1e-6
    kept = points_of(out.line)
    assert np.hypot(*np.diff(kept, axis=0).T).max() < 2 * out.line.length / 4000
    moved = out.moved(np.array([0.0, line.length]))
    assert frames_at(out.line, moved).position == pytest.approx(frames_at(line, np.array([0.0, line.length])).position, abs=1e-9)


def test_a_leg_too_short_is_crowded_or_has_a_smaller_arc():
    _, out = rounding("M0 0H40V3H80", 8.0)
    assert out.crowded == pytest.approx([40, 43])
    _, out = rounding("M0 0H40V3H80", 8.0, shrink=True)
    assert len(out.crowded) == 0
    assert out.line.tightest_radius == pytest.approx(0.45 * 3)


def test_distances_answer_to_one_another_round_a_closed_line():
    line, out = rounding("M0 0H60V40H0Z", 8.0)
    ring = LinearRing([(0, 0), (60, 0), (60, 40), (0, 40)])
    s = np.linspace(0, 200, 801)
    old, new = frames_at(line, s).position, frames_at(out.line, out.moved(s)).position
    assert np.hypot(*(old - new).T).max() == pytest.approx(8 * (np.sqrt(2) - 1), rel=1e-3)  # at the vertices
    assert max(ring.distance(p) for p in map(__import__("shapely").Point, new)) < 8
    assert (np.diff(out.moved(s)) >= 0).all()


@pytest.mark.parametrize("path", ["M0 0H50H0", "M0 0C10 10 20 10 30 0", "M5 5", "M0 0H10"])
def test_what_has_no_vertex_to_round_stays(path):
    line, out = rounding(path, 3.0)
    assert out.line is line
    assert out.moved(np.array([1.5])) == pytest.approx([1.5])


def test_corners_far_from_the_origin_are_rounded_by_arcs_as_small():
    """Where double precision places nothing finer than 1e-11 mm, 5 µm arcs are still found."""
    done = rounded(measured("M90000 80000H90100V80100"), np.array([0]), 0.005)
    assert len(done.crowded) == 0
    assert done.line.length == pytest.approx(200 - 2 * 0.005 + 0.005 * np.pi / 2, abs=1e-9)


def test_several_lines_are_measured_and_rounded_as_each_alone():
    paths = ["M0 0H60V40H0Z", "M0 0C30 -40 60 40 90 0L90 60", "M5 5L5 5", "M0 0H40", "M0 0L20 30L40 0A20 20 0 0 1 80 0L90 40"]
    lines = [line_from_path_data(path) for path in paths]
    together = measured_all(lines)
    for one, alone in zip(together, map(measured, paths), strict=True):
        assert one.length == pytest.approx(alone.length, rel=1e-14)
        assert (one.tightest_radius or 0) == pytest.approx(alone.tightest_radius or 0, rel=1e-12)
        for name in ("panel_segment", "panel_s0", "panel_series", "vertex_s", "vertex_turn", "bend_s", "bend_k"):
            assert getattr(one, name) == pytest.approx(getattr(alone, name), rel=1e-12, abs=1e-12), name
    every = [np.arange(len(line.vertex_s)) for line in together]
    for out, line, own in zip(rounded_all(together, every, 4.0), together, every, strict=True):
        alone = rounded(line, own, 4.0)
        assert (out.line is line) == (alone.line is line)
        assert out.line.length == pytest.approx(alone.line.length, rel=1e-12)
        for name in ("old", "new", "crowded"):
            assert getattr(out, name) == pytest.approx(getattr(alone, name), abs=1e-9), name
    assert measured_all([]) == []


def test_every_corner_of_a_very_long_line_is_rounded():
    """Along a kilometre places are no finer than some billionths of a millimetre: two legs need not meet an arc more exactly."""
    line, out = rounding("M0 0" + "l35 5l25 -35l-60 30" * 8_000, 0.005, shrink=True)
    assert line.length > 1_000_000
    assert not len(out.crowded)
    assert not (np.abs(out.line.vertex_turn) > 1e-3).any()
