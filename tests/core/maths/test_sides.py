"""What polygons share, against GEOS (shapely), which cuts them."""

import numpy as np
import pytest
import shapely

from sewn_garland.core.maths import sides
from sewn_garland.core.maths.sides import overlaps


def stars(rng: np.random.Generator, n: int, corners: int, spread: float) -> np.ndarray:
    """Polygons (n, corners) without crossings, as complex numbers, either way round, about random places."""
    angle = (np.arange(corners) + rng.uniform(0.1, 0.9, (n, corners))) * 2 * np.pi / corners
    points = rng.uniform(0.4, 1, (n, corners)) * np.exp(1j * angle) + spread * (
        rng.uniform(-1, 1, (n, 1)) + 1j * rng.uniform(-1, 1, (n, 1))
    )
    return np.where(rng.random((n, 1)) < 0.5, points, points.conj())


def shared_by(one: np.ndarray, two: np.ndarray, along: np.ndarray) -> np.ndarray:
    """What polygons (n, corners) share; they go on from the last corner to the first."""
    rings = [np.concatenate([polygons, polygons[:, :1]], axis=1) for polygons in (one, two)]
    return overlaps(rings[0], np.arange(one.shape[1]), rings[1], np.arange(two.shape[1]), along)


def shapes_of(polygons: np.ndarray) -> np.ndarray:
    return shapely.polygons(np.stack([polygons.real, polygons.imag], axis=-1))


@pytest.mark.parametrize("corners", [3, 8, 25])
@pytest.mark.parametrize("spread", [0.0, 0.5, 1.5])
def test_polygons_share_what_geos_cuts_out_of_both(corners, spread):
    rng = np.random.default_rng(corners)
    n = 300
    one, two = stars(rng, n, corners, spread), stars(rng, n, corners + 4, spread)
    shared = shared_by(one, two, np.exp(1j * rng.uniform(0, 7, n)))
    assert np.isfinite(shared).all()
    assert shared == pytest.approx(shapely.area(shapely.intersection(shapes_of(one), shapes_of(two))), abs=1e-13)


def test_holes_are_left_out_and_parts_add_up():
    square = np.array([0, 10, 10 + 10j, 10j])
    hole = np.array([2 + 2j, 2 + 8j, 8 + 8j, 8 + 2j])  # the other way round
    bar, corner = np.array([4 + 4j, 14 + 4j, 14 + 6j, 4 + 6j]), np.array([-1 - 1j, 1 - 1j, 1 + 1j, -1 + 1j])
    one, two = (np.concatenate([np.append(ring, ring[0]) for ring in rings])[None] for rings in ((square, hole), (bar, corner)))
    begins = np.array([0, 1, 2, 3, 5, 6, 7, 8])
    for along in (1, 1j, np.exp(2j)):
        assert overlaps(one, begins, two, begins, np.array([along])) == pytest.approx([2 * 2 + 1])


def test_polygons_that_touch_or_stand_apart_share_nothing():
    square = np.array([0, 1, 1 + 1j, 1j])
    others = np.stack([square + 1, square + 3, square + 1 + 1j])
    assert shared_by(np.stack([square] * 3), others, np.ones(3)).tolist() == [0, 0, 0]


def test_what_is_sooner_cut_is_left(monkeypatch):
    rng = np.random.default_rng(3)
    one, two = stars(rng, 30, 20, 0.3), stars(rng, 30, 20, 0.3)
    assert (shared_by(one, two, np.ones(30)) > 0).all()
    monkeypatch.setattr(sides, "MOST_A_SIDE", 0)
    assert np.isnan(shared_by(one, two, np.ones(30))).all()


def test_no_pairs_share_nothing():
    none = np.zeros((0, 3), complex)
    assert len(shared_by(none, none, np.zeros(0, complex))) == 0
