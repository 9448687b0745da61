"""Polygons on the page, against what GEOS says of them one by one."""

import numpy as np
import pytest
import shapely

from sewn_garland.core.inspecting.drawn import Drawn, outline_of
from sewn_garland.core.maths.curves import as_complex, as_points

RING = shapely.Point(0, 0).buffer(3, quad_segs=40).difference(shapely.Point(0, 0).buffer(2, quad_segs=25))
TWO_PARTS = shapely.union_all([shapely.box(-4, -1, -1, 1), shapely.Point(2, 0).buffer(1.5, quad_segs=12)])
SPEAR = shapely.Polygon([(-5, 0), (5, -0.2), (5, 0.2)])


def strewn(shapes, many, room, seed=5):
    """Return so many of each of some shapes, turned and sheared, in a square of a room."""
    dice = np.random.default_rng(seed)
    points = []
    for shape in shapes:
        linear = np.eye(2) + dice.normal(0, 0.5, (many, 2, 2))
        points.append(shapely.get_coordinates(shape) @ linear + dice.uniform(0, room, (many, 1, 2)))
    return Drawn(
        [outline_of(shape) for shape in shapes],
        np.repeat(np.arange(len(shapes)), many),
        np.tile(np.arange(many), len(shapes)),
        points,
        False,
    )


@pytest.mark.parametrize("room", [15, 60, 4000])
def test_polygons_stand_apart_as_far_as_geos_measures(room):
    drawn = strewn([RING, TWO_PARTS, SPEAR], 40, room)
    one, two = (np.random.default_rng(side).integers(0, 120, 3000) for side in (1, 2))
    apart = drawn.apart(one, two)
    shapes = drawn.polygons(np.arange(120))
    assert apart == pytest.approx(shapely.distance(shapes[one], shapes[two]), abs=1e-12)
    assert (apart[one == two] == 0).all() and (apart > 0).any()


def test_what_lies_in_another_meets_it_but_not_in_its_hole():
    drawn = Drawn([outline_of(RING), outline_of(SPEAR)], np.array([0, 1, 1]), np.array([0, 0, 1]),
                  [shapely.get_coordinates(RING)[None], shapely.get_coordinates(SPEAR) / 20 * np.ones((2, 1, 1)) + [[[2.5, 0]], [[0, 0]]]],
                  False)  # fmt: skip
    assert drawn.apart(np.array([0, 0]), np.array([1, 2])) == pytest.approx([0, 1.75], abs=0.01)


def test_what_draws_nothing_stands_nowhere():
    drawn = Drawn([outline_of(SPEAR), outline_of(shapely.Polygon())], np.array([0, 1]), np.array([0, 0]),
                  [shapely.get_coordinates(SPEAR)[None], np.zeros((1, 0, 2))], False)  # fmt: skip
    assert np.isnan(drawn.apart(np.array([0, 1]), np.array([1, 1]))).all()
    assert not len(drawn.apart(np.zeros(0, int), np.zeros(0, int)))


def test_rings_with_holes_and_parts_cover_both_what_geos_cuts_whichever_way_round_they_are_drawn():
    """By lines across, as those are measured that cross themselves; here none does, and mirroring turns every ring round."""
    shape = shapely.MultiPolygon([
        shapely.Polygon([(0, 0), (10, 1), (9, 8), (1, 9)], [[(3, 3), (3, 6), (6, 6), (6, 3)]]), shapely.Polygon([(12, 0), (12, 5), (15, 2)]),
    ])  # fmt: skip
    flat, dice = shapely.get_coordinates(shape), np.random.default_rng(6)
    turn = np.exp(1j * dice.uniform(0, 6, 40))
    points = as_complex(flat)[None] * turn[:, None] + dice.uniform(-4, 4, (40, 1)) + 1j * dice.uniform(-4, 4, (40, 1))
    points[::2] = points[::2].conj()
    drawn = Drawn([outline_of(shape)], np.zeros(40, int), np.arange(40), [as_points(points)], True)
    one, two = np.arange(39), np.arange(1, 40)
    shapes = drawn.polygons(np.arange(40))
    assert drawn.covered_by_both(one, two) == pytest.approx(shapely.area(shapely.intersection(shapes[one], shapes[two])), abs=0.03)
