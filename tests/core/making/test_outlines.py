"""Booleans, stroke outlines, thinning, fraying: against two independent geometry libraries (GEOS by shapely, Clipper by pyclipper)."""

from __future__ import annotations

from dataclasses import replace

import numpy as np
import pyclipper
import pytest
import shapely
from hypothesis import given, settings
from hypothesis import strategies as st

from examples import examples
from sewn_garland.core.artwork import fills
from sewn_garland.core.errors import InputError
from sewn_garland.core.making import rims
from sewn_garland.core.making.nodes import contours_of, outline_from_contours
from sewn_garland.core.making.starters import STARTERS, motif_from_starter
from sewn_garland.core.maths.booleans import combined, stroke_outline
from sewn_garland.core.maths.outlines import area_of, bezier_at, cubics_of, flattened, split_cubics

WAYS = {"join": "union", "cut_out": "difference", "overlap": "intersection", "exclude": "symmetric_difference"}
CLIP = {"join": pyclipper.CT_UNION, "cut_out": pyclipper.CT_DIFFERENCE, "overlap": pyclipper.CT_INTERSECTION, "exclude": pyclipper.CT_XOR}
GRID = 2**20


def region(commands, points):
    """Return what an outline fills as a region of GEOS, even-odd over its flattened contours."""
    out = shapely.Polygon()
    for line in flattened(commands, points, tolerance=0.0005):
        if len(line) > 2:
            out = out.symmetric_difference(shapely.make_valid(shapely.Polygon(line)))
    return out


def blob(seed, n=24):
    rng = np.random.default_rng(seed)
    angle = np.sort(rng.uniform(0, 2 * np.pi, n))
    radius = rng.uniform(4, 9, n)
    points = np.stack([radius * np.cos(angle), radius * np.sin(angle)], axis=1) + rng.uniform(-3, 3, 2)
    return rims._rounded(points)


@pytest.mark.parametrize("way", WAYS)
@pytest.mark.parametrize("seed", range(4))
def test_booleans_agree_with_two_other_libraries(way, seed):
    one, two = blob(2 * seed), blob(2 * seed + 1)
    ours = region(*combined([(*one, "evenodd"), (*two, "evenodd")], way))
    theirs = getattr(region(*one), WAYS[way])(region(*two))
    assert ours.symmetric_difference(theirs).area < 0.02  # flattening to 0.0005 mm and single precision on some 120 mm of rim
    clip = pyclipper.Pyclipper()
    for outline, kind in ((one, pyclipper.PT_SUBJECT), (two, pyclipper.PT_CLIP)):
        paths = [(line * GRID).round().astype(np.int64).tolist() for line in flattened(*outline, tolerance=0.0005)]
        clip.AddPaths(paths, kind, True)
    third = clip.Execute(CLIP[way], pyclipper.PFT_EVENODD, pyclipper.PFT_EVENODD)
    assert ours.area == pytest.approx(abs(sum(pyclipper.Area(p) for p in third)) / GRID**2, abs=0.02)


def test_curves_stay_curves_through_a_boolean():
    ring, pill = motif_from_starter("ring", {"edge": 0}).shapes[0], motif_from_starter("pill").shapes[0]
    commands, _ = combined([(ring.commands, ring.points, "nonzero"), (pill.commands, pill.points, "nonzero")], "join")
    assert commands.count("C") > 12
    assert commands.count("C") > 3 * commands.count("L")


def test_a_circle_less_a_circle_is_a_ring():
    def circle(r):
        m = motif_from_starter("ellipse", {"length": 2 * r, "height": 2 * r}).shapes[0]
        return m.commands, m.points - r, "nonzero"

    area = area_of(*combined([circle(5), circle(3)], "cut_out"))
    assert area == pytest.approx(np.pi * 16, rel=1e-5)  # closed form


@pytest.mark.parametrize("cap,join", [("butt", "miter"), ("round", "round"), ("square", "bevel")])
def test_stroke_outlines_agree_with_the_other_library(cap, join):
    points = np.array([[0, 0], [10, 2], [4, 9], [14, 12.0]])
    ours = region(*stroke_outline("MLLL", points, width=1.6, cap=cap, join=join, miter_limit=10))
    style = {"butt": "flat", "miter": "mitre"}
    theirs = shapely.LineString(points).buffer(
        0.8, cap_style=style.get(cap, cap), join_style=style.get(join, join), mitre_limit=10, quad_segs=64
    )
    assert ours.symmetric_difference(theirs).area < 0.01


def test_dashes_and_both_rims_of_a_closed_stroke_are_outlined():
    dashed = stroke_outline("ML", np.array([[0, 0], [10, 0.0]]), width=1, dashes=(2, 2))
    assert area_of(*dashed) == pytest.approx(6)
    square = stroke_outline("MLLLZ", np.array([[0, 0], [10, 0], [10, 10], [0, 10.0]]), width=2)
    assert area_of(*square) == pytest.approx(12 * 12 - 8 * 8, rel=1e-6)


def test_a_stroke_becomes_a_shape_with_the_strokes_paint_and_keeps_its_fill_below():
    shape = motif_from_starter("pill").shapes[0]
    from sewn_garland.core.values.motif import Paint, Stroke

    both = replace(shape, stroke=Stroke(Paint("#112233"), 0.5))
    parts = fills.stroke_as_shape(both)
    assert [p.fill.colour for p in parts] == ["#a63a2f", "#112233"]
    with pytest.raises(InputError, match="no stroke to turn"):
        fills.stroke_as_shape(shape)


@pytest.mark.parametrize("name", ["spiral", "knot", "anchor", "ring", "heart"])
def test_thinning_keeps_the_outline_within_its_tolerance_by_hausdorff_distance(name):
    shape = motif_from_starter(name).shapes[0]
    thin = rims.thinned(shape, 0.05)
    apart = shapely.hausdorff_distance(
        region(shape.commands, shape.points).boundary, region(thin.commands, thin.points).boundary, densify=0.05
    )
    assert apart <= 0.06  # the tolerance, and what flattening adds
    assert len(thin.commands) <= len(shape.commands)
    if name in ("spiral", "knot", "anchor"):
        assert len(thin.commands) < 0.55 * len(shape.commands)


def test_fraying_is_the_same_for_the_same_seed_and_stays_within_its_depth():
    shape = motif_from_starter("ellipse", {"length": 20, "height": 12}).shapes[0]
    first, again, other = (rims.frayed(shape, depth_mm=0.8, tufts_per_cm=10, snapped=False, seed=s) for s in (5, 5, 6))
    assert np.array_equal(first.points, again.points)
    assert not np.array_equal(first.points, other.points)
    rim = region(shape.commands, shape.points).boundary
    apart = shapely.distance(shapely.points(first.points[first.points[:, 0] > -99]), rim)
    assert 0.5 < apart.max() < 0.95
    snapped = rims.frayed(shape, depth_mm=0.8, tufts_per_cm=10, snapped=True, seed=5)
    assert "C" not in snapped.commands
    assert len(snapped.commands) == pytest.approx(2 * 10 * rim.length / 10, abs=4)  # a peak and a notch a tuft


@given(st.floats(0.05, 0.95), st.integers(0, 2**31))
@settings(max_examples=examples(30), deadline=None)
def test_splitting_a_cubic_changes_nothing(t, seed):
    cubic = np.random.default_rng(seed).uniform(-50, 50, (1, 4, 2))
    a, b = split_cubics(cubic, t)
    u = np.linspace(0, 1, 7)
    assert bezier_at(a, u) == pytest.approx(bezier_at(cubic, u * t), abs=1e-9)
    assert bezier_at(b, u) == pytest.approx(bezier_at(cubic, t + u * (1 - t)), abs=1e-9)


@pytest.mark.parametrize("name", STARTERS)
def test_nodes_and_back_is_the_same_outline(name):
    for shape in motif_from_starter(name).shapes:
        commands, points = outline_from_contours(contours_of(shape.commands, shape.points))
        assert area_of(commands, points) == pytest.approx(area_of(shape.commands, shape.points), rel=1e-9, abs=1e-9)


def test_areas_of_cubics_are_exact():
    quarter = np.array([[0, 0], [0, 30], [30, 30], [30, 0.0]])
    x, y = (
        np.polynomial.polynomial.Polynomial([p[0], 3 * (p[1] - p[0]), 3 * (p[0] - 2 * p[1] + p[2]), p[3] - 3 * p[2] + 3 * p[1] - p[0]])
        for p in quarter.T
    )
    by_integral = ((x * y.deriv() - y * x.deriv()).integ()(1)) / 2
    assert area_of("MC", quarter) == pytest.approx(by_integral)
    assert len(cubics_of("MC", quarter)) == 2
