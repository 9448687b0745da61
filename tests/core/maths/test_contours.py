"""Cubics put together as contours."""

import numpy as np

from sewn_garland.core.maths.contours import joined_cubics, merged_cubics
from sewn_garland.core.maths.curves import as_complex, as_points


def sides(*places):
    """Straight sides from place to place, complex (m, 4)."""
    a, b = np.array(places[:-1], complex), np.array(places[1:], complex)
    return a[:, None] + (b - a)[:, None] * np.arange(4) / 3


def put_together(cubics, rows, heads, sources, second=()):
    """What comes of cubics, of which those at ``second`` come in the other list."""
    later = np.isin(np.arange(len(rows)), second)
    points, starts = merged_cubics(cubics[~later], rows[~later], cubics[later], rows[later], np.array(heads), sources)
    return as_complex(points), starts


def test_two_lists_become_what_one_of_all_would():
    one, two = sides(0, 3, 3 + 3j, 0), sides(9, 12, 12 + 3j)
    cubics, rows = np.concatenate([one, two]), np.array([0, 1, 1, 2, 2])
    expected, starts = joined_cubics(as_points(cubics), np.array([0, 3]))
    for second in ((), (1, 2), (0, 3, 4)):
        points, begins = put_together(cubics, rows, [0, 2], sides(*range(4)), second)
        assert np.array_equal(as_points(points), expected) and np.array_equal(begins, starts)


def test_a_side_leads_to_a_cubic_that_begins_elsewhere():
    cubics = np.concatenate([sides(0, 3), sides(3 + 6j, 9 + 6j)])
    points, starts = put_together(cubics, np.arange(2), [0], sides(0, 5, 10))
    assert np.allclose(points, [0, 1, 2, 3, 3 + 2j, 3 + 4j, 3 + 6j, 5 + 6j, 7 + 6j, 9 + 6j]) and starts.tolist() == [0, 10]


def test_many_sides_lead_on_as_one_does():
    cubics = np.concatenate([sides(k * 3j, k * 3j + 3) for k in range(5000)])
    points, starts = put_together(cubics, np.arange(5000), [0], sides(*range(5001)))
    assert starts.tolist() == [0, 1 + 3 * (2 * 5000 - 1)]
    assert np.allclose(points[0::6], np.arange(5000) * 3j) and np.allclose(points[3::6], np.arange(5000) * 3j + 3)


def test_what_is_next_to_nothing_long_and_elsewhere_is_left_out():
    cubics = np.concatenate([sides(0, 3), sides(50j, 60j, 70j), sides(3, 6)])
    points, starts = put_together(cubics, np.array([0, 1, 1, 2]), [0], sides(0, 5, 5 + 1e-6j, 10))
    assert np.allclose(points, [0, 1, 2, 3, 4, 5, 6]) and starts.tolist() == [0, 7]


def test_no_cubics_give_no_points():
    nothing = np.zeros((0, 4), complex)
    points, starts = put_together(nothing, np.zeros(0, int), np.zeros(0, int), nothing)
    assert len(points) == 0 and starts.tolist() == [0]
