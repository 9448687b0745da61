"""Fewer curves for the same outline: measured by distance, and against a circle's closed form."""

import numpy as np
import pytest
import shapely

from sewn_garland.core.maths.booleans import stroke_outline
from sewn_garland.core.maths.merging import merged
from sewn_garland.core.maths.outlines import area_of, bezier_at, cubics_of, split_cubics

WAVE = "MCC", np.array([[0, 0], [4, -6], [8, 6], [12, 0], [14, -3], [18, 3], [20, 0]], float)


def in_pieces(commands, points, times):
    """Halve every cubic of an outline some times over."""
    cubics = cubics_of(commands, points, close=False)
    for _ in range(times):
        cubics = np.stack(split_cubics(cubics, 0.5), axis=1).reshape(-1, 4, 2)
    return "M" + "C" * len(cubics), np.concatenate([cubics[0, :1], cubics[:, 1:].reshape(-1, 2)])


def apart(one, other):
    """Return the larger of the distances (Hausdorff) between two outlines, by shapely, each as a polyline of many sides."""
    a, b = (bezier_at(cubics_of(*each, close=each[0].endswith("Z")), np.linspace(0, 1, 400)).reshape(-1, 2) for each in (one, other))
    return max(_furthest(a, b), _furthest(b, a))


def _furthest(points, polyline):
    sides = shapely.STRtree(shapely.linestrings(np.stack([polyline[:-1], polyline[1:]], axis=1)))
    return sides.query_nearest(shapely.points(points), return_distance=True, all_matches=False)[1].max()


@pytest.mark.parametrize("times", [2, 4, 6])
def test_a_curve_in_many_pieces_comes_together_again(times):
    one = "MC", WAVE[1][:4]
    commands, points = merged(*in_pieces(*one, times), tolerance=1e-3)
    assert commands == "MC"
    assert apart((commands, points), one) <= 1.2e-3  # the polylines' own sides


@pytest.mark.parametrize("width", [0.3, 1.0, 2.5])
@pytest.mark.parametrize("cap", ["butt", "round"])
def test_a_strokes_outline_stays_where_it_is_in_far_fewer_curves(width, cap):
    whole = stroke_outline(*WAVE, width=width, cap=cap)
    fewer = merged(*whole, tolerance=1e-3)
    assert len(fewer[0]) < 0.7 * len(whole[0])
    assert apart(fewer, whole) <= 1.2e-3
    assert area_of(*fewer) == pytest.approx(area_of(*whole), abs=1e-3 * 45)  # by a thousandth along its rim at most


def test_a_ring_keeps_its_radii():
    circle = stroke_outline("MCCCCZ", np.array([[5, 0], [5, 2.76142375], [2.76142375, 5], [0, 5], [-2.76142375, 5], [-5, 2.76142375], [-5, 0],
                                               [-5, -2.76142375], [-2.76142375, -5], [0, -5], [2.76142375, -5], [5, -2.76142375], [5, 0]]), width=1.0)  # fmt: skip
    commands, points = merged(*circle, tolerance=1e-3)
    assert len(commands) < 30
    radii = np.hypot(*bezier_at(cubics_of(commands, points), np.linspace(0, 1, 50)).reshape(-1, 2).T)
    assert np.abs(np.minimum(np.abs(radii - 4.5), np.abs(radii - 5.5))).max() <= 3e-3  # four cubics are no circle by 1.4e-3 themselves


def test_sides_and_corners_stay_to_the_bit():
    square = "MLLLZ", np.array([[0, 0], [9, 0], [9, 9], [0, 9]], float)
    assert merged(*square, tolerance=1)[0] == square[0]
    bends = "MCCLC", np.array([[0, 0], [1, 0], [2, 0], [3, 1], [3, 2], [3, 3], [3, 4], [0, 4], [0, 5], [0, 6], [1, 7]], float)
    commands, points = merged(*bends, tolerance=1e-6)
    assert commands == "MCCLC"  # the first two turn by 45° where they meet
    assert points.tolist() == bends[1].tolist()


def test_nothing_and_coincident_points_stay():
    assert merged("", np.zeros((0, 2)), tolerance=1)[0] == ""
    still = "MCCC", np.zeros((10, 2))
    commands, points = merged(*still, tolerance=1e-3)
    assert commands == "MCCC"
    assert points.tolist() == still[1].tolist()
