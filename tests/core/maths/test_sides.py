"""What polygons share, against GEOS (shapely), which cuts them."""

import numpy as np
import pytest
import shapely

from sewn_garland.core.maths import sides as sides_module
from sewn_garland.core.maths.sides import Sides, overlaps


def stars(rng: np.random.Generator, n: int, corners: int, spread: float) -> np.ndarray:
    """Polygons (n, corners) without crossings, as complex numbers, either way round, about random places."""
    angle = (np.arange(corners) + rng.uniform(0.1, 0.9, (n, corners))) * 2 * np.pi / corners
    points = rng.uniform(0.4, 1, (n, corners)) * np.exp(1j * angle) + spread * (
        rng.uniform(-1, 1, (n, 1)) + 1j * rng.uniform(-1, 1, (n, 1))
    )
    return np.where(rng.random((n, 1)) < 0.5, points, points.conj())


def sides_of(polygons: np.ndarray) -> Sides:
    n, corners = polygons.shape
    return Sides(polygons.ravel(), np.roll(polygons, -1, axis=1).ravel(), corners * np.arange(n + 1))


def shapes_of(polygons: np.ndarray) -> np.ndarray:
    return shapely.polygons(np.stack([polygons.real, polygons.imag], axis=-1))


@pytest.mark.parametrize("corners", [3, 8, 25])
@pytest.mark.parametrize("spread", [0.0, 0.5, 1.5])
def test_polygons_share_what_geos_cuts_out_of_both(corners, spread):
    rng = np.random.default_rng(corners)
    n = 300
    polygons = stars(rng, 2 * n, corners, spread)
    shapes, one, two = shapes_of(polygons), np.arange(n), n + np.arange(n)
    shared = overlaps(sides_of(polygons), one, two, np.exp(1j * rng.uniform(0, 7, n)))
    assert np.isfinite(shared).all()
    assert shared == pytest.approx(shapely.area(shapely.intersection(shapes[one], shapes[two])), abs=1e-13)


def test_holes_are_left_out_and_parts_add_up():
    square = np.array([0, 10, 10 + 10j, 10j])
    hole = np.array([2 + 2j, 2 + 8j, 8 + 8j, 8 + 2j])  # the other way round
    rings = [[square, hole], [np.array([4 + 4j, 14 + 4j, 14 + 6j, 4 + 6j]), np.array([-1 - 1j, 1 - 1j, 1 + 1j, -1 + 1j])]]
    begins = [np.concatenate(part) for part in rings]
    ends = [np.concatenate([np.roll(ring, -1) for ring in part]) for part in rings]
    sides = Sides(np.concatenate(begins), np.concatenate(ends), np.array([0, 8, 16]))
    for along in (1, 1j, np.exp(2j)):
        assert overlaps(sides, np.array([0]), np.array([1]), np.array([along])) == pytest.approx([2 * 2 + 1])


def test_polygons_that_touch_or_stand_apart_share_nothing():
    square = np.array([0, 1, 1 + 1j, 1j])
    polygons = np.stack([square, square + 1, square + 3, square + 1 + 1j])
    assert overlaps(sides_of(polygons), np.zeros(3, int), np.arange(1, 4), np.ones(3)).tolist() == [0, 0, 0]


def test_what_is_sooner_cut_is_left_and_blocks_are_as_all_in_one_go(monkeypatch):
    rng = np.random.default_rng(3)
    polygons = stars(rng, 60, 20, 0.3)
    sides, one, two, along = sides_of(polygons), np.arange(30), 30 + np.arange(30), np.ones(30)
    whole = overlaps(sides, one, two, along)
    monkeypatch.setattr(sides_module, "SIDES_AT_ONCE", 50)
    monkeypatch.setattr(sides_module, "PAIRS_AT_ONCE", 70)
    assert overlaps(sides, one, two, along) == pytest.approx(whole, abs=1e-15)
    monkeypatch.setattr(sides_module, "MOST_A_SIDE", 0)
    assert np.isnan(overlaps(sides, one, two, along)).all()


def test_no_pairs_share_nothing():
    nothing = np.zeros(0, int)
    assert len(overlaps(sides_of(stars(np.random.default_rng(0), 1, 3, 0.0)), nothing, nothing, nothing.astype(complex))) == 0
