"""Fitting cubics, random streams, rasters: against closed forms and SciPy."""

from __future__ import annotations

import numpy as np
import pytest
import scipy.stats
from hypothesis import given, settings
from hypothesis import strategies as st
from scipy.spatial import cKDTree

from examples import examples
from sewn_garland.core.maths.fitting import corners_of, fitted
from sewn_garland.core.maths.outlines import area_of, bezier_at, cubics_of
from sewn_garland.core.maths.raster import png_from_rgba, rgba_from_png
from sewn_garland.core.maths.streams import uniforms

SHARP = np.radians(40)


def stray(points, outline):
    curve = bezier_at(cubics_of(*outline, close=outline[0].endswith("Z")), np.linspace(0, 1, 1500)).reshape(-1, 2)
    return cKDTree(curve).query(points)[0].max()


def test_a_circle_takes_few_cubics_and_keeps_its_area():
    angle = np.linspace(0, 2 * np.pi, 300, endpoint=False)
    points = 20 * np.stack([np.cos(angle), np.sin(angle)], axis=1)
    outline = fitted(points, tolerance=0.05, closed=True, corner_from=SHARP)
    assert outline[0].count("C") <= 10
    assert abs(area_of(*outline)) == pytest.approx(np.pi * 400, rel=2e-3)
    assert stray(points, outline) <= 0.06


def test_the_corners_of_a_square_are_kept_and_its_sides_straight():
    side = np.linspace(0, 10, 40, endpoint=False)
    zero = np.zeros(40)
    points = np.concatenate([np.stack(p, axis=1) for p in ((side, zero), (zero + 10, side), (10 - side, zero + 10), (zero, 10 - side))])
    assert len(corners_of(points, closed=True, corner_from=SHARP, reach=0.5)) == 4
    commands, out = fitted(points, tolerance=0.05, closed=True, corner_from=SHARP)
    assert commands == "MLLLLZ"
    assert abs(area_of(commands, out)) == pytest.approx(100, rel=1e-9)


def test_an_open_line_keeps_its_ends():
    x = np.linspace(0, 30, 200)
    points = np.stack([x, 3 * np.sin(x / 3)], axis=1)
    outline = fitted(points, tolerance=0.02, closed=False, corner_from=SHARP)
    assert outline[1][0] == pytest.approx(points[0])
    assert outline[1][-1] == pytest.approx(points[-1])
    assert stray(points, outline) <= 0.025
    assert outline[0].count("C") < 16


@pytest.mark.parametrize(("points", "commands"), [
    (np.zeros((0, 2)), ""), (np.array([[3.0, 4.0]]), ""), (np.array([[3.0, 4.0], [3.0, 4.0]]), ""), (np.array([[0.0, 0.0], [5.0, 0.0]]), "ML"),
])  # fmt: skip
def test_hardly_any_points_give_hardly_any_outline(points, commands):
    assert fitted(points, tolerance=0.1, closed=False, corner_from=SHARP)[0] == commands


@given(st.integers(0, 2**31), st.floats(0.02, 0.5))
@settings(max_examples=examples(30), deadline=None)
def test_no_point_strays_further_than_the_tolerance(seed, tolerance):
    rng = np.random.default_rng(seed)
    angle = np.linspace(0, 2 * np.pi, 400, endpoint=False)
    radius = 20 + sum(rng.uniform(-2, 2) * np.cos(k * angle + rng.uniform(0, 6)) for k in range(2, 7))
    points = radius[:, None] * np.stack([np.cos(angle), np.sin(angle)], axis=1)
    outline = fitted(points, tolerance=tolerance, closed=True, corner_from=SHARP)
    assert stray(points, outline) <= tolerance * 1.05 + 0.02
    assert np.isfinite(outline[1]).all()


def test_streams_are_even_and_named():
    first = uniforms(7, "fray 0", 4000)
    assert np.array_equal(first, uniforms(7, "fray 0", 4000))
    assert np.array_equal(first[:100], uniforms(7, "fray 0", 100))  # drawn by number: more of them change none
    assert not np.array_equal(first[:100], uniforms(7, "fray 1", 100))
    assert scipy.stats.kstest(first, "uniform").pvalue > 0.001  # Kolmogorov and Smirnov
    assert len(uniforms(1, "none", 0)) == 0


def test_pixels_survive_png():
    rgba = np.random.default_rng(1).integers(0, 256, (7, 5, 4), dtype=np.uint8)
    assert np.array_equal(rgba_from_png(png_from_rgba(rgba)), rgba)
