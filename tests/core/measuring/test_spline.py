"""The spline of a line by arc length, against the line itself and closed forms."""

import numpy as np
import pytest

from making import measured
from sewn_garland.core.measuring import spline as splines
from sewn_garland.core.measuring.arc_length import frames_and_bends_on
from sewn_garland.core.measuring.spline import spline_of

WAVE, CIRCLE = "M8 35C18 13 26 13 36 35S54 57 64 35S82 13 92 35", "M20 0A20 20 0 0 1 -20 0A20 20 0 0 1 20 0Z"
CUSP, POLYLINE = "M0 0C40 40 -10 40 30 0", "M0 0H30V30H60"


def both(path, count=4001, beyond=5.0):
    line = measured(path)
    s = np.linspace(-beyond, line.length + beyond, count)
    which = np.zeros(count, int)
    place, tangent, bend = spline_of((line,)).located(which, s)
    frames, true_bend = frames_and_bends_on([line], which, s)
    return line, s, (place, tangent, bend), (frames.position @ (1, 1j), frames.tangent @ (1, 1j), true_bend)


@pytest.mark.parametrize("path", [WAVE, CIRCLE, CUSP, POLYLINE, "M0 0A30 4 20 1 1 50 9"])
def test_it_lies_on_the_line_and_goes_its_way(path):
    line, s, (place, tangent, _), (true_place, true_tangent, _) = both(path)
    apart = np.abs(s[:, None] - line.vertex_s).min(axis=1, initial=np.inf) > 1e-6  # at a vertex either side's way is right
    assert np.abs(place - true_place).max() < 2e-6
    assert np.abs(np.angle(tangent * true_tangent.conj()))[apart].max() < 1e-5
    assert np.abs(np.abs(tangent) - 1).max() < 1e-12


def test_bends_of_a_circle_are_its_own_and_none_lie_beyond_an_open_end():
    _, _, (_, _, bend), _ = both(CIRCLE)
    assert bend == pytest.approx(np.full(len(bend), 1 / 20), abs=1e-7)
    line, s, (_, _, bend), _ = both(WAVE)
    assert not bend[(s < 0) | (s > line.length)].any()


def test_there_is_none_for_a_line_without_length_nor_where_it_would_not_pay(monkeypatch):
    assert spline_of((measured(WAVE), measured("M5 5L5 5"))) is None
    monkeypatch.setattr(splines, "MOST_PANELS", 2)
    spline_of.cache_clear()
    assert spline_of((measured(WAVE),)) is None


def test_sides_and_arcs_of_circles_are_a_cell_each_and_places_on_them_exact():
    line, s, (place, tangent, bend), (true_place, true_tangent, _) = both("M0 0H20A12 12 0 0 1 20 24H5A3 3 0 0 0 5 30")
    spline = spline_of((line,))
    assert len(spline.start) == len(line.panel_s0)
    assert spline.round.sum() == line.line.is_arc[line.panel_segment].sum()
    assert np.abs(place - true_place).max() < 1e-12
    assert np.abs(tangent - true_tangent).max() < 1e-12
    assert set(np.round(bend[(s > 0) & (s < line.length)], 9)) == {0.0, round(1 / 12, 9), -round(1 / 3, 9)}
