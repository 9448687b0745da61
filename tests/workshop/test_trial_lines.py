"""Trial lines whose points are moved, and lines of the user's own among them."""

import numpy as np
import pytest

from making import measured
from sewn_garland.core.errors import InputError
from sewn_garland.workshop.trial_lines import TRIAL_LINES, points_of, reshaped, set_on_sheet


@pytest.mark.parametrize("trial", TRIAL_LINES, ids=lambda t: t.key)
def test_a_line_whose_points_stay_is_the_line_as_it_was(trial):
    same = reshaped(trial.path, points_of(trial.path))
    one, two = measured(trial.path), measured(same)
    assert two.length == pytest.approx(one.length, rel=3e-4)  # a cubic's arc is not quite round
    assert two.closed == one.closed


def test_a_moved_point_takes_its_handles_along_and_no_other_point():
    wave = next(t for t in TRIAL_LINES if t.key == "wave").path
    points = points_of(wave)
    moved = points.copy()
    moved[1] += (5, -8)
    assert points_of(reshaped(wave, moved)) == pytest.approx(moved, abs=1e-4)
    assert np.degrees(np.abs(measured(reshaped(wave, moved)).vertex_turn)).max() < 1e-2  # still smooth there


def test_a_closed_line_has_its_start_once_and_stays_closed():
    ring = next(t for t in TRIAL_LINES if t.key == "circle").path
    points = points_of(ring)
    points[0] += (10, 0)
    line = measured(reshaped(ring, points))
    assert line.closed and len(points_of(ring)) == 8  # an arc is two cubics here


def test_too_few_points_are_refused():
    with pytest.raises(InputError, match="has 2 points, not 3"):
        reshaped(TRIAL_LINES[0].path, np.zeros((3, 2)))


def test_a_line_of_a_page_keeps_its_size_on_a_sheet_of_its_own():
    path, (width, height) = set_on_sheet("M100 200H180V240")
    assert measured(path).length == pytest.approx(120)
    assert (width, height) == pytest.approx((100, 60))
    assert points_of(path)[0] == pytest.approx((10, 10))
