"""Where lines go straight on, told from their own segments."""

from dataclasses import replace

import numpy as np
import pytest

from making import bar, brush, measured, shapes_drawn
from sewn_garland.core.lay import lay
from sewn_garland.core.measuring import tracks
from sewn_garland.core.measuring.arc_length import frames_at
from sewn_garland.core.measuring.sides import straight_between

WAVE, POLYLINE, RING = "M8 35C18 13 26 13 36 35S54 57 64 35S82 13 92 35", "M0 0H30V30H60", "M0 0H30V30H0Z"


def straight(path, *ways):
    low, high = np.array(ways, float).T
    return straight_between([measured(path)], np.zeros(len(low), int), low, high).tolist()


def test_sides_of_a_polyline_are_and_a_turn_or_a_bend_ends_them():
    assert straight(POLYLINE, (2, 29), (25, 35), (31, 59), (55, 80)) == [True, False, True, False]
    assert straight(WAVE, (3, 3.1)) == [False]
    assert straight("M0 0A5 5 0 0 1 10 0H40", (1, 3), (20, 30), (10, 20)) == [False, True, False]  # an arc's even speed is no straight way


def test_an_open_line_goes_on_beyond_its_ends_and_a_closed_one_turns_there():
    assert straight(POLYLINE, (-5, 20), (65, 100)) == [True, True]
    assert straight(RING, (-5, 20), (95, 119), (95, 121)) == [False, True, False]


def test_vertices_without_a_turn_and_lines_without_length_are_told():
    assert straight("M0 0H10H20H30", (2, 28)) == [True]
    lines = [measured("M5 5L5 5"), measured(POLYLINE)]
    assert straight_between(lines, np.array([0, 1]), np.array([0.0, 2.0]), np.array([0.0, 29.0])).tolist() == [False, True]


@pytest.mark.parametrize("more", [{}, {"turn_deg": 30.0, "mirror": "every_second", "side_shift": 1.5}])
@pytest.mark.parametrize("path", [POLYLINE, RING, "M0 0H40C60 0 60 20 40 20H0"])
def test_stamped_where_it_is_straight_a_bent_brush_lies_as_if_all_were_bent(path, more, monkeypatch):
    own = brush(bar(4, 2), bar(2, 3), round_bends="bent", **more)

    def drawn():
        done = lay(own, [measured(path)])[0]
        one_by_one = replace(done, joins=replace(done.joins, gap=done.joins.gap + 1e-3))  # as if none met
        return done, shapes_drawn(own.pieces.motifs, one_by_one, range(len(done.pieces.s)))

    some, with_stamps = drawn()
    monkeypatch.setattr(tracks, "straight_between", lambda lines, which, low, high: np.zeros(len(which), bool))
    whole, all_bent = drawn()
    assert 0 < len(some.outlines.pieces) < len(whole.outlines.pieces) == len(whole.pieces.s)
    for one, two in zip(with_stamps, all_bent, strict=True):
        assert np.abs(_box(one) - _box(two)).max() < 1e-5


def _box(shape):
    return np.concatenate([shape.points.min(axis=0), shape.points.max(axis=0)])


@pytest.mark.parametrize("size", [5e-324, 1e-310, 1e-290])
def test_the_smallest_sides_there_are_have_a_direction(size):
    frames = frames_at(measured(f"M0 0L{size!r} 0"), np.array([0.0, size, 1.0]))
    assert np.isfinite(frames.position).all()
    assert frames.tangent.tolist() == [[1.0, 0.0]] * 3
