"""Recipes that stay live, light and backing: by closed forms where there are any."""

from __future__ import annotations

import io
from dataclasses import replace

import numpy as np
import pytest
import shapely
from PIL import Image

from sewn_garland.core.artwork.box import box_of, ink_box
from sewn_garland.core.artwork.fills import as_fills, covered
from sewn_garland.core.drawing.png import png_from_svg
from sewn_garland.core.drawing.svg import motif_svg
from sewn_garland.core.errors import InputError, LimitError
from sewn_garland.core.making.edits import edited
from sewn_garland.core.making.live import DENSEST, grading_of, remade, with_mirror
from sewn_garland.core.making.shading import backing, light_on
from sewn_garland.core.making.soft_edge import graded
from sewn_garland.core.making.starters import motif_from_starter
from sewn_garland.core.maths.outlines import area_of, flattened
from sewn_garland.core.maths.raster import rgba_from_png
from sewn_garland.core.values.motif import Motif, Paint, Picture, Recipe, Shape, Stroke, mapped


def area(shape):
    return abs(area_of(shape.commands, shape.points))


def centroid(shape):
    rings = [shapely.Polygon(line) for line in flattened(shape.commands, shape.points, tolerance=0.001)]
    return np.array(shapely.union_all(rings).centroid.coords[0])


def disc(r, x=0.0, y=0.0, colour="#a63a2f", opacity=1.0, group=0):
    shape = motif_from_starter("ellipse", {"length": 2 * r, "height": 2 * r}).shapes[0]
    placed = mapped(shape, np.array([[1.0, 0.0, x - r], [0.0, 1.0, y - r]]))
    return replace(placed, fill=Paint(colour, opacity), group=group)


def crescent(r, d):
    """Return the area of a disc less the same disc moved by d: πr² less the lens of two equal circles (closed form)."""
    return np.pi * r**2 - (2 * r**2 * np.arccos(d / (2 * r)) - d / 2 * np.sqrt(4 * r**2 - d**2))


@pytest.mark.parametrize("d", [0.3, 1.0, 3.0])
@pytest.mark.parametrize("angle", [-120, 0, 77])
def test_light_on_a_disc_is_a_crescent_on_the_side_it_comes_from(d, angle):
    lit = light_on(disc(5), "highlight", from_deg=angle, width_mm=d, colour="#ffffff", opacity=0.5)
    assert area(lit) == pytest.approx(crescent(5, d), rel=2e-3)
    middle = centroid(lit)
    assert np.degrees(np.arctan2(middle[1], middle[0])) == pytest.approx(angle, abs=3)
    shade = light_on(disc(5), "shadow", from_deg=angle, width_mm=d, colour="#000000", opacity=0.5)
    assert area(shade) == pytest.approx(area(lit), rel=2e-3)
    assert centroid(shade) == pytest.approx(-middle, abs=0.05)


def test_light_off_the_edge_stays_inside_and_none_is_left_of_what_is_too_thin():
    lit = light_on(disc(5), "highlight", from_deg=-90, width_mm=0.5, colour="#ffffff", opacity=0.5, inset_mm=1.0)
    assert np.hypot(*lit.points.T).max() <= 4.05
    assert area(lit) == pytest.approx(crescent(4, 0.5), rel=5e-3)
    assert light_on(disc(0.8), "highlight", from_deg=0, width_mm=0.5, colour="#ffffff", opacity=0.5, inset_mm=1.0) is None


def test_a_back_covers_fills_strokes_and_gaps():
    stroked = Shape("ML", np.array([[0.0, 0.0], [10.0, 0.0]]), None, stroke=Stroke(Paint("#000000"), 2.0))
    assert area(backing([stroked], colour="#ffffff", grow_mm=0)) == pytest.approx(20)
    grown = backing([stroked], colour="#ffffff", grow_mm=1)
    assert area(grown) == pytest.approx(10 * 2 + 2 * (10 + 2) + np.pi, rel=1e-3)  # Steiner: A + rP + πr²
    two = backing([disc(3), disc(3, 4)], colour="#ffffff", grow_mm=0)
    assert area(two) == pytest.approx(np.pi * 9 + crescent(3, 4), rel=1e-3)
    picture = Shape("MLLLZ", np.zeros((4, 2)), None, picture=Picture(b"", 1, 1))
    with pytest.raises(InputError, match="a picture has no outline to back"):
        backing([picture], colour="#ffffff", grow_mm=0)


def test_fills_and_strokes_come_apart_and_together():
    both = replace(disc(5), stroke=Stroke(Paint("#000000"), 2.0))
    fill, stroke = as_fills(both)
    assert area(fill) == pytest.approx(np.pi * 25, rel=1e-4)
    assert area_of(stroke.commands, stroke.points) == pytest.approx(np.pi * (36 - 16), rel=1e-3)
    assert abs(area_of(*covered(both)[:2])) == pytest.approx(np.pi * 36, rel=1e-3)
    assert as_fills(replace(both, fill=None, stroke=None)) == []


@pytest.mark.parametrize("side", ["left_right", "up_down"])
def test_a_live_mirror_is_about_the_frames_middle_or_the_base_line(side):
    motif = Motif((disc(1, 2, 3),), 20, 10, 4.0)
    whole = remade(with_mirror(motif, [0], side))
    left, top, right, bottom = box_of([whole.shapes[1]])
    assert ((left + right) / 2, (top + bottom) / 2) == pytest.approx((18, 3) if side == "left_right" else (2, 5))
    wider = remade(replace(whole, width=30.0, base_line=6.0))
    moved = box_of([wider.shapes[1]])
    assert (moved[0] + moved[2]) / 2 == pytest.approx(28 if side == "left_right" else 2)


def test_a_soft_edge_through_three_shapes_grades_each_pair():
    nest = [disc(8, opacity=0.1), disc(5, 1, 0, opacity=0.5), disc(2, 2, 1, opacity=0.9)]
    found = graded(nest, steps=4)
    assert found.counts == (4, 4)
    motif = edited(Motif(tuple(nest), 16, 16, 8), "soft_edge", {"parts": [0, 1, 2], "steps": 4})
    assert [s.derived for s in motif.shapes] == [False, *[True] * 4, False, *[True] * 4, False]
    covers = 1 - np.cumprod([1 - s.fill.opacity for s in motif.shapes])
    assert covers[[0, 5, 10]] == pytest.approx([0.1, 0.5, 0.9], abs=2e-3)
    radii = [np.ptp(s.points, axis=0).max() / 2 for s in motif.shapes]
    assert (np.diff(radii) < 0).all()


def test_painting_a_shape_of_a_soft_edge_anew_changes_what_is_wanted_there():
    motif = edited(Motif((disc(8, opacity=0.1), disc(2, opacity=0.9)), 16, 16, 8), "soft_edge", {"parts": [0, 1], "steps": 5})
    group = motif.shapes[0].group
    painted = edited(motif, "paint", {"parts": [6], "fill_opacity": 0.6})
    assert dict(painted.recipe_of(group).figures)["cover_1"] == pytest.approx(0.6)
    assert 1 - np.prod([1 - s.fill.opacity for s in painted.shapes]) == pytest.approx(0.6, abs=2e-3)
    again = edited(painted, "move", {"parts": [6], "dx_mm": 1, "dy_mm": 0})
    assert 1 - np.prod([1 - s.fill.opacity for s in again.shapes]) == pytest.approx(0.6, abs=2e-3)  # it does not drift
    assert grading_of(again, group).steps == 5


def test_recipes_go_with_their_groups_and_limits_hold():
    motif = Motif((disc(3),), 6, 6, 3, recipes=(Recipe(9, "mirror", (("side", "left_right"),)),))
    assert remade(motif).recipes == ()
    many = edited(motif, "duplicate", {"parts": [0], "copies": 199})
    with pytest.raises(LimitError, match="more than a motif may have"):
        edited(many, "duplicate", {"parts": list(range(200)), "copies": 20})
    with pytest.raises(InputError, match="no figures any more"):
        edited(motif, "figures", {"group": 0, "figures": {"wire": 1.0}})
    assert ink_box(motif) == pytest.approx((-3, -3, 3, 3), abs=1e-6)


def test_see_through_steps_are_so_few_that_their_hue_is_kept_when_drawn():
    """Drawn by the rasteriser, the place between keeps the hue of the shapes: teal stays teal."""
    nest = [disc(10, 10, 10, colour="#3f7f78", opacity=0.05), disc(2, 12, 9, colour="#3f7f78", opacity=0.9)]
    motif = edited(Motif(tuple(nest), 20, 20, 10), "soft_edge", {"parts": [0, 1], "steps": 0})
    found = grading_of(motif, motif.shapes[0].group)
    assert 10 <= found.steps <= 64
    pixels = np.asarray(Image.open(io.BytesIO(png_from_svg(motif_svg(motif), width_px=400, height_px=400)))).astype(float)
    for x in (60, 100, 140, 180):
        r, g, b, a = pixels[200, x]
        assert a > 15
        assert g - r > 0.55 * (0x7F - 0x3F), (x, pixels[200, x])  # not grey
        assert abs(g - b) < 40


def test_dense_to_clear_covers_as_drawn_in_the_middle_and_nothing_at_the_rim():
    """The truth is the rasteriser: cover along a radius falls evenly from the middle to the rim, by whole levels of eight bits."""
    motif = edited(Motif((disc(8, x=8, y=8, opacity=0.9),), 16, 16, 8), "dense_to_clear", {"parts": [0]})
    alpha = rgba_from_png(png_from_svg(motif_svg(motif), width_px=320, height_px=320))[..., 3] / 255
    radius = alpha[160, 160:]
    wanted = 0.9 * np.clip((8 - (np.arange(160) + 0.5) / 20) / (8 * (1 - DENSEST)), 0, 1)
    assert radius == pytest.approx(wanted, abs=0.03)
    assert grading_of(motif, motif.recipes[0].group).largest_difference <= 1
    assert [s.derived for s in motif.shapes] == [False, *[True] * (len(motif.shapes) - 2), False]


def test_dense_to_clear_takes_every_part_by_itself_and_needs_a_fill():
    two = Motif((disc(8, opacity=1.0), disc(2, opacity=1.0)), 16, 16, 8)
    both = edited(two, "dense_to_clear", {"parts": [0, 1]})
    assert len(both.recipes) == 2
    assert sum(not s.derived for s in both.shapes) == 4
    hollow = replace(two.shapes[0], fill=None, stroke=Stroke(Paint("#000000", 1.0), 0.5))
    with pytest.raises(InputError, match="give this one a fill"):
        edited(replace(two, shapes=(hollow,)), "dense_to_clear", {"parts": [0]})
