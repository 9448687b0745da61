"""Outlines cut at a straight line, against shapely."""

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from shapely import MultiPolygon, Polygon

from core.laws.test_making_laws import blob
from examples import examples
from sewn_garland.core.maths.contours import contour_cubics
from sewn_garland.core.maths.halves import kept_side, split_where
from sewn_garland.core.maths.outlines import flattened, swept


@given(st.integers(0, 2**31), st.floats(-9, 9), st.floats(0, 360))
@settings(max_examples=examples(40), deadline=None)
def test_what_is_kept_has_the_area_of_the_half_plane_s_share(seed, offset, angle):
    commands, points = blob(seed)
    normal = np.array([np.cos(np.radians(angle)), np.sin(np.radians(angle))])
    cubics, contour, closed = contour_cubics(commands, points)
    parts, number, _ = kept_side(cubics, contour, closed, cubics @ normal - offset)
    rings = [Polygon(line) for line in flattened(commands, points, tolerance=1e-4)]
    along = np.array([-normal[1], normal[0]])
    half = Polygon(
        [
            offset * normal + along * 99,
            offset * normal - along * 99,
            (offset - 99) * normal - along * 99,
            (offset - 99) * normal + along * 99,
        ]
    )
    assert abs(swept(parts).sum()) == pytest.approx(MultiPolygon(rings).intersection(half).area, abs=5e-3)
    for c in np.unique(number):  # every rim is whole
        own = parts[number == c]
        assert own[:, 3] == pytest.approx(np.roll(own[:, 0], -1, axis=0), abs=1e-9)
    assert (np.concatenate([parts.reshape(-1, 2)[::4], parts.reshape(-1, 2)[3::4]]) @ normal - offset).max(initial=-1) < 1e-6


def test_an_open_stroke_falls_apart_where_it_is_cut():
    cubics, contour, closed = contour_cubics("MLLL", np.array([[0, 0], [10, 0], [10, 5], [0, 5]], float))
    parts, number, old = kept_side(cubics, contour, closed, cubics[..., 0] - 4)
    assert len(parts) == 2
    assert number.tolist() == [0, 1]
    assert old.tolist() == [0, 0]
    assert parts[0, 3] == pytest.approx([4, 0])


def test_splitting_loses_nothing_and_tells_the_sides():
    commands, points = blob(5)
    cubics, _, _ = contour_cubics(commands, points)
    parts, own, side = split_where(cubics, cubics[..., 1] - 1.0)
    assert swept(parts).sum() == pytest.approx(swept(cubics).sum())
    assert (np.diff(own) >= 0).all()
    middle = (parts[:, 0] + 3 * parts[:, 1] + 3 * parts[:, 2] + parts[:, 3]) / 8
    assert (np.sign(middle[:, 1] - 1.0) == side).all()


@pytest.mark.parametrize("share", [*(np.arange(1, 16) / 16), 0.3, 1e-9])
def test_a_side_is_cut_wherever_that_is_also_where_it_is_looked_at(share):
    side = np.array([[[-3, 1], [-1, 1], [1, 1], [3, 1]]], float)
    parts, own, sides = split_where(side, side[..., 0] - (6 * share - 3))
    assert own.tolist() == [0, 0] and sides.tolist() == [-1, 1]
    assert parts[:, [0, 3], 0] == pytest.approx(np.array([[-3, 6 * share - 3], [6 * share - 3, 3]]), abs=1e-12)


def test_a_curve_that_only_touches_the_line_is_not_cut():
    bow = np.array([[[0, 0], [1, 4], [2, 4], [3, 0]]], float)
    for off, side in ((3.0, -1), (0.0, 1)):
        parts, _, sides = split_where(bow, bow[..., 1] - off)
        assert len(parts) == 1 and sides.tolist() == [side]


def test_nothing_kept_is_nothing():
    cubics, contour, closed = contour_cubics("MLLZ", np.array([[5, 5], [6, 5], [6, 6]], float))
    parts, number, old = kept_side(cubics, contour, closed, cubics[..., 0] - 4)
    assert len(parts) == len(number) == len(old) == 0


def test_of_no_cubics_nothing_is_kept():
    kept = kept_side(np.zeros((0, 4, 2)), np.zeros(0, int), np.zeros(0, bool), np.zeros((0, 4)))
    assert [len(column) for column in kept] == [0, 0, 0]
