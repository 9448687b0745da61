"""Corners and the runs between them."""

import numpy as np
import pytest

from making import measured, tracks
from sewn_garland.core.measuring.runs import corners_of, runs_of
from sewn_garland.core.values.brush import Ends

ZIGZAG = "M0 0H30V30H60"  # a right turn, then a left one


def runs(path, *, outside=True, inside=True, corner_from=30.0):
    styles = {"outside_corner": "butt" if outside else "through", "inside_corner": "butt" if inside else "round"}
    return runs_of(tracks(measured(path)), Ends(corner_from_deg=corner_from, **styles)).runs


def test_right_turns_are_outside_corners():
    assert runs(ZIGZAG, inside=False).length == pytest.approx([30, 60])
    assert runs(ZIGZAG, outside=False).length == pytest.approx([60, 30])
    assert runs(ZIGZAG).length == pytest.approx([30, 30, 30])


def test_run_through_makes_no_boundary():
    only = runs(ZIGZAG, outside=False, inside=False)
    assert only.length == pytest.approx([90])


def test_a_closed_line_begins_its_first_run_at_its_first_corner():
    rounded = "M20 0H40V40H0V20A20 20 0 0 1 20 0Z"  # smooth where it closes
    cut = runs(rounded)
    assert cut.start[0] == pytest.approx(20)
    assert cut.length.sum() == pytest.approx(measured(rounded).length)
    assert not cut.closed.any()


def test_a_closed_line_without_corners_is_one_closed_run():
    assert runs("M10 0A10 10 0 0 1 -10 0A10 10 0 0 1 10 0Z").closed.tolist() == [True]


def test_corner_from_decides_what_counts():
    line = measured("M0 0H30L60 10")  # turns by 18.4°
    assert len(corners_of(line, corner_from=np.radians(18))[0]) == 1
    assert len(corners_of(line, corner_from=np.radians(19))[0]) == 0


def test_a_line_without_length_has_no_runs():
    assert len(runs("M5 5L5 5").start) == 0


def test_corners_know_the_runs_beside_them_on_all_lines():
    lines = (measured("M5 5L5 5"), measured(ZIGZAG), measured("M0 0H30V30H0Z"))
    divided = runs_of(tracks(*lines), Ends(corner_from_deg=28, outside_corner="mitre", inside_corner="lap"))
    cut, corners = divided.runs, divided.corners
    assert cut.number.tolist() == [0, 1, 2, 0, 1, 2, 3]
    assert cut.edges(3).tolist() == [0, 0, 3, 7]
    assert corners.style.tolist() == ["mitre", "lap", "mitre", "mitre", "mitre", "mitre"]
    assert corners.track.tolist() == [1, 1, 2, 2, 2, 2]
    assert cut.leg[corners.before, 1] % lines[2].length == pytest.approx(corners.s % lines[2].length)
    assert cut.leg[corners.after, 0] == pytest.approx(corners.s)
    assert corners.before.tolist()[2:] == [3, 4, 5, 6]  # the corner where a closed line begins comes last
    assert corners.after.tolist()[2:] == [4, 5, 6, 3]
