"""How far polygons stand apart, against GEOS (shapely)."""

import numpy as np
import pytest
import shapely

from sewn_garland.core.maths.apart import apart, runs_of


def stars(rng, n, corners, spread):
    """Polygons (n, corners + 1) that cross themselves nowhere, about random places, as complex numbers."""
    angle = (np.arange(corners) + rng.uniform(0.1, 0.9, (n, corners))) * 2 * np.pi / corners
    about = spread * (rng.uniform(-1, 1, (n, 1)) + 1j * rng.uniform(-1, 1, (n, 1)))
    points = rng.uniform(0.1, 1, (n, 1)) * rng.uniform(0.4, 1, (n, corners)) * np.exp(1j * angle) + about
    return np.concatenate([points, points[:, :1]], axis=1)


def as_points(points):
    return np.stack([points.real, points.imag], axis=-1)


@pytest.mark.parametrize(("corners", "others"), [(3, 3), (5, 40), (150, 90)])
@pytest.mark.parametrize("spread", [0.3, 1.5, 20.0])
def test_polygons_stand_apart_as_geos_says(corners, others, spread):
    rng = np.random.default_rng(corners)
    one, two = stars(rng, 300, corners, spread), stars(rng, 300, others, spread)
    true = shapely.distance(shapely.polygons(as_points(one)), shapely.polygons(as_points(two)))
    found = apart(one, runs_of(np.array([corners + 1])), two, runs_of(np.array([others + 1])))
    assert found == pytest.approx(true, abs=1e-12)
    assert 0 < (found == 0).sum() < 300 or spread == 20.0


@pytest.mark.parametrize(("parts", "others"), [(1, 90), (90, 90), (130, 7)])
def test_rows_of_dashes_stand_apart_as_geos_says(parts, others):
    """As strokes of dashes lie that cross or pass one another."""
    rng = np.random.default_rng(parts)

    def dashes(count):
        square = np.array([0, 0.6, 0.6 + 0.6j, 0.6j, 0])
        rows = (np.arange(count)[:, None] - count / 2 + square).ravel() * np.exp(1j * rng.uniform(0, 7, 200))[:, None]
        return rows + 30 * (rng.uniform(-1, 1, (200, 1)) + 1j * rng.uniform(-1, 1, (200, 1))), np.full(count, 5)

    (one, counts), (two, their) = dashes(parts), dashes(others)
    shapes = [[shapely.union_all(shapely.polygons(as_points(row).reshape(-1, 5, 2))) for row in rows] for rows in (one, two)]
    found = apart(one, runs_of(counts), two, runs_of(their))
    assert found == pytest.approx(shapely.distance(*map(np.array, shapes)), abs=1e-12)
    assert 0 < (found == 0).sum() < 200


@pytest.mark.parametrize("wave", [0.0, 0.4, 4.0])
@pytest.mark.parametrize("beside", [0.3, 2.5])
def test_dashes_side_by_side_stand_apart_as_geos_says(wave, beside):
    """Many of them are as near as the nearest; those of steep waves lie above and below one another."""
    rng = np.random.default_rng(3)
    x = 0.1 * np.arange(60)[:, None] + np.array([0, 0.06, 0.06, 0, 0])
    row = (x + 1j * (wave * np.sin(2 * x) + np.array([0, 0, 0.05, 0.05, 0]))).ravel()
    way = np.exp(1j * rng.uniform(0, 7, (100, 1)))
    one, two = 1000 * way + row * way, 1000 * way + (row + rng.uniform(-3, 3, (100, 1)) + beside * 1j) * way
    shapes = (shapely.multipolygons(shapely.polygons(as_points(all_).reshape(100, 60, 5, 2))) for all_ in (one, two))
    true = shapely.distance(*shapes)
    runs = runs_of(np.full(60, 5))
    assert apart(one, runs, two, runs) == pytest.approx(true, abs=1e-11)
    assert (true == 0).any() == (wave > beside)


def test_what_lies_in_a_hole_stands_apart_and_what_lies_about_one_meets():
    square = np.array([0, 10, 10 + 10j, 10j, 0])
    with_hole = np.concatenate([square, np.array([2 + 2j, 2 + 8j, 8 + 8j, 8 + 2j, 2 + 2j])])
    small = np.array([4 + 4j, 5 + 4j, 5 + 5j, 4 + 5j, 4 + 4j])
    one, runs = np.stack([with_hole] * 5), runs_of(np.array([5, 5]))
    two = np.stack([small, small - 3.5, 20 * small - 85 - 85j, small + 20, small - 2.5])
    assert apart(one, runs, two, runs_of(np.array([5]))).tolist() == [2.0, 0.0, 0.0, 14.0, 0.0]
    assert apart(two, runs_of(np.array([5])), one, runs).tolist() == [2.0, 0.0, 0.0, 14.0, 0.0]


def test_a_part_that_lies_in_another_polygon_meets_it_wherever_the_others_lie():
    square = np.array([0, 1, 1 + 1j, 1j, 0])
    parts = np.concatenate([square + 50, square + 4 + 4j])[None]
    assert apart(parts, runs_of(np.array([5, 5])), 10 * square[None], runs_of(np.array([5]))).tolist() == [0.0]


def test_those_that_touch_cross_or_have_sides_of_no_length_meet():
    square = np.array([0, 1, 1 + 1j, 1j, 0])
    two = np.stack([square + 1, square + 1 + 0.25j, square + 1 + 1j, np.array([0.5, 0.5, 0.5, 2, 0.5]) + 0.5j, square + 1 + 1e-9])
    found = apart(np.stack([square] * 5), runs_of(np.array([5])), two, runs_of(np.array([5])))
    assert found[:4].tolist() == [0.0] * 4 and found[4] == pytest.approx(1e-9)


@pytest.mark.parametrize("counts", [[4], [5, 5], [401], [4, 300, 7]])
def test_runs_have_every_side_once(counts):
    runs = runs_of(np.array(counts))
    sides = np.concatenate([np.arange(a, b) for a, b in zip(*runs, strict=True)])
    ends = np.cumsum(counts) - 1
    assert sides.tolist() == np.setdiff1d(np.arange(sum(counts)), ends).tolist()
    assert len(runs.first) <= np.sqrt(sum(counts)) + len(counts) + 1


def test_no_pairs_give_none():
    assert len(apart(np.zeros((0, 4), complex), runs_of(np.array([4])), np.zeros((0, 4), complex), runs_of(np.array([4])))) == 0
