"""Sections that check combined outlines, against shapely and closed forms."""

import numpy as np
import pytest
from shapely import Polygon

from sewn_garland.core.maths.booleans import COVERS, combined
from sewn_garland.core.maths.coverage import mismatch, wound
from sewn_garland.core.maths.outlines import against, area_of, cubics_of, owned_cubics, swept


def square(x, y, side):
    return "MLLLZ", np.array([[x, y], [x + side, y], [x + side, y + side], [x, y + side]], float)


def together(*outlines):
    return "".join(c for c, _ in outlines), np.concatenate([p for _, p in outlines])


A, B = square(0, 0, 10), square(5, 5, 10)
BOTH = [(*A, "nonzero"), (*B, "nonzero")]


@pytest.mark.parametrize(("way", "wrong", "area"), [
    ("join", A, 75), ("overlap", B, 75), ("cut_out", A, 25), ("exclude", ("", np.zeros((0, 2))), 150),
])  # fmt: skip
def test_mismatch_is_the_area_of_the_symmetric_difference(way, wrong, area):
    """Against shapely's areas: the squares overlap in 25 of 175 mm²; the extent squared is that of the slanted box."""
    one, two = Polygon(A[1]), Polygon(B[1])
    true = {"join": one.union(two), "overlap": one & two, "cut_out": one - two, "exclude": one ^ two}[way]
    assert true.symmetric_difference(Polygon(wrong[1]) if wrong[0] else Polygon()).area == pytest.approx(area)
    right, off = (mismatch(BOTH, result, COVERS[way]) for result in (combined(BOTH, way), wrong))
    extent = np.ptp(np.vstack([A[1], B[1]]) @ np.array([[np.cos(0.3217), np.sin(0.3217)], [-np.sin(0.3217), np.cos(0.3217)]]), axis=0).max()
    assert right < 1e-9
    assert off * extent**2 == pytest.approx(area, rel=0.01)


def test_nothing_has_no_mismatch():
    empty = ("", np.zeros((0, 2)))
    assert mismatch([(*empty, "nonzero")], empty, COVERS["join"]) == 0.0
    assert mismatch([("MZ", np.array([[1.0, 1.0]]), "nonzero")], empty, COVERS["join"]) == 0.0


def test_a_fill_rule_says_what_an_outline_covers():
    ring = together(square(0, 0, 10), square(3, 3, 4))  # both clockwise: solid by non-zero, a hole by even-odd
    assert mismatch([(*ring, "nonzero")], square(0, 0, 10), COVERS["join"]) < 1e-9
    assert mismatch([(*ring, "evenodd")], square(0, 0, 10), COVERS["join"]) > 0.05


@pytest.mark.parametrize("turned", [(), (0,), (1,), (0, 1, 2), (3,)])
def test_nested_outlines_are_wound_by_their_depth(turned):
    """Outer, hole, island in the hole, and one beside: areas add up as the even-odd rule says, whichever way each was drawn."""
    parts = [square(0, 0, 10), square(1, 1, 8), square(2, 2, 6), square(20, 0, 3)]
    given = together(*(against(*part) if i in turned else part for i, part in enumerate(parts)))
    assert area_of(*wound(*given)) == pytest.approx(100 - 64 + 36 + 9)


def test_outlines_that_touch_in_a_point_are_both_outer():
    assert area_of(*wound(*together(square(0, 0, 4), against(*square(4, 4, 4))))) == pytest.approx(32)
    assert wound("", np.zeros((0, 2)))[0] == ""


def test_drawn_the_other_way_round_the_area_turns_its_sign():
    commands, points = "MCCLZ", np.array([[0, 0], [3, -2], [6, -2], [9, 0], [11, 3], [11, 6], [9, 9], [0, 9]], float)
    assert area_of(*against(commands, points)) == pytest.approx(-area_of(commands, points))
    again = against(*against(commands, points))
    assert again[0] == commands
    assert np.array_equal(again[1], points)
    back_home = "MLCZ", np.array([[0, 0], [4, 0], [4, 3], [2, 4], [0, 0]], float)
    assert against(*back_home)[0] == "MCZ"
    assert area_of(*against(*back_home)) == pytest.approx(-area_of(*back_home))


def test_segments_know_their_subpath():
    outline = together(square(0, 0, 1), square(5, 5, 2))
    cubics, owner = owned_cubics(*outline)
    assert np.array_equal(cubics, cubics_of(*outline))
    assert np.bincount(owner, swept(cubics)) == pytest.approx([1, 4])
    assert owned_cubics("M", np.zeros((1, 2)))[0].shape == (0, 4, 2)
