"""Corners and the runs between them."""

import numpy as np
import pytest

from making import measured
from sewn_garland.core.measuring.runs import corners_of, runs_of

ZIGZAG = "M0 0H30V30H60"  # a right turn, then a left one


def runs(path, *, outside=True, inside=True, corner_from=30.0):
    return runs_of(measured(path), corner_from=np.radians(corner_from), outside_ends=outside, inside_ends=inside)


def test_right_turns_are_outside_corners():
    assert [run.length for run in runs(ZIGZAG, inside=False)] == pytest.approx([30, 60])
    assert [run.length for run in runs(ZIGZAG, outside=False)] == pytest.approx([60, 30])
    assert [run.length for run in runs(ZIGZAG)] == pytest.approx([30, 30, 30])


def test_run_through_makes_no_boundary():
    only = runs(ZIGZAG, outside=False, inside=False)
    assert len(only) == 1
    assert only[0].length == pytest.approx(90)


def test_a_closed_line_begins_its_first_run_at_its_first_corner():
    rounded = "M20 0H40V40H0V20A20 20 0 0 1 20 0Z"  # smooth where it closes
    cut = runs(rounded)
    assert cut[0].start == pytest.approx(20)
    assert sum(run.length for run in cut) == pytest.approx(measured(rounded).length)
    assert not any(run.closed for run in cut)


def test_a_closed_line_without_corners_is_one_closed_run():
    assert [run.closed for run in runs("M10 0A10 10 0 0 1 -10 0A10 10 0 0 1 10 0Z")] == [True]


def test_corner_from_decides_what_counts():
    line = measured("M0 0H30L60 10")  # turns by 18.4°
    assert len(corners_of(line, corner_from=np.radians(18))[0]) == 1
    assert len(corners_of(line, corner_from=np.radians(19))[0]) == 0


def test_a_line_without_length_has_no_runs():
    assert runs("M5 5L5 5") == []
