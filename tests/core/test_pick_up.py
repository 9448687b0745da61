"""Picking up what is laid, and clipping to a box: against areas worked out by hand and by a geometry library."""

from __future__ import annotations

import numpy as np
import pytest
import shapely

from making import bar, brush, drawing, measured, svg
from sewn_garland.core.artwork.box import ink_box
from sewn_garland.core.errors import InputError, LimitError
from sewn_garland.core.lay import lay
from sewn_garland.core.making.cutting import clipped_to_box
from sewn_garland.core.making.weight import weight_of, with_lighter_pictures
from sewn_garland.core.maths.outlines import area_of, flattened
from sewn_garland.core.maths.raster import png_from_rgba
from sewn_garland.core.reading.svg_motif import motif_from_svg
from sewn_garland.core.values.motif import Motif, Picture, Shape
from sewn_garland.workshop.pages import picked_up


def area(motif):
    return sum(abs(area_of(s.commands, s.points)) for s in motif.shapes)


def layer(path, **settings):
    own = brush(bar(10, 2), **settings)
    return own.pieces.repeat, lay(own, [measured(path)])[0]


def test_bars_on_a_straight_line_are_cut_at_the_regions_rim():
    """By hand: pieces of 10 × 2 mm from 0 on; the region takes 5 mm of one, three whole and 5 mm of another, 1.5 of 2 mm high."""
    motif = picked_up(drawing(200, 200, layer("M0 10H100")), (15, 9.5, 55, 20))
    assert (motif.width, motif.height) == (40, pytest.approx(10.5))
    assert area(motif) == pytest.approx(40 * 1.5, rel=1e-6)
    assert ink_box(motif) == pytest.approx((0, 0, 40, 1.5), abs=1e-6)


@pytest.mark.parametrize("box", [(5, 5, 60, 50), (30, 0, 70, 70), (0, 0, 100, 100)])
def test_pieces_on_a_curve_are_picked_up_where_they_lie(box):
    laid = layer("M10 60C20 0 70 0 90 60", gap=0.3)
    pieces = []
    for a, b, c, d, e, f in laid[1].pieces.matrices:
        corners = np.array([[-5, -1], [5, -1], [5, 1], [-5, 1.0]]) @ np.array([[a, b], [c, d]]) + (e, f)
        pieces.append(shapely.Polygon(corners).intersection(shapely.box(*box)))
    motif = picked_up(drawing(200, 200, laid), box)
    assert area(motif) == pytest.approx(sum(p.area for p in pieces), rel=1e-4)
    ours = shapely.union_all([shapely.Polygon(line) for s in motif.shapes for line in flattened(s.commands, s.points, tolerance=0.01)])
    theirs = shapely.affinity.translate(shapely.union_all(pieces), -box[0], -box[1])
    assert ours.symmetric_difference(theirs).area < 0.01


def test_layers_keep_their_order_and_mirrored_pieces_their_side():
    leaf = motif_from_svg(svg('<path d="M0 0H10L0 4Z" fill="#3f7f78"/>', 10, 4))
    own = brush(leaf, mirror="every_second", gap=0.1)
    above = layer("M0 10H43", gap=0.1)
    motif = picked_up(drawing(200, 200, (own.pieces.repeat, lay(own, [measured("M0 10H43")])[0]), above), (0, 0, 43, 20))
    assert [s.fill.colour for s in motif.shapes[:4]] == ["#3f7f78"] * 4
    assert [s.fill.colour for s in motif.shapes[4:]] == ["#a33a2f"] * 4
    tips = [s.points[s.points[:, 1].argmax(), 0] for s in motif.shapes[:2]]
    assert tips == pytest.approx([0, 21])


def test_where_nothing_is_laid_and_where_too_much_is_the_answer_is_a_sentence():
    with pytest.raises(InputError, match="nothing is laid in this region"):
        picked_up(drawing(200, 200, layer("M0 10H100")), (0, 60, 50, 90))
    with pytest.raises(InputError, match="nothing is laid in this region"):
        picked_up(drawing(200, 200), (0, 0, 50, 90))
    with pytest.raises(LimitError, match="more than the 3000 parts"):
        picked_up(drawing(200, 200, layer("M0 10H4000", size=0.1, gap=0.01)), (0, 0, 4000, 20))


def test_a_box_cuts_strokes_to_shapes_and_leaves_what_is_inside():
    drawn = svg(
        '<circle cx="5" cy="5" r="2" fill="none" stroke="#000" stroke-width="1"/><path d="M-4 8H30" stroke="#a00" stroke-width="2"/>',
        12,
        12,
    )
    motif = clipped_to_box(motif_from_svg(drawn))
    inside, cut = motif.shapes
    assert inside.stroke.width == 1
    assert cut.stroke is None
    assert abs(area_of(cut.commands, cut.points)) == pytest.approx(12 * 2)
    with pytest.raises(InputError, match="nothing lies within"):
        clipped_to_box(motif_from_svg(svg('<rect x="20" y="20" width="5" height="5"/>', 12, 12)))


def picture_motif(width, height):
    rgba = np.random.default_rng(1).integers(0, 255, (height, width, 4), dtype=np.uint8)
    corners = np.array([[0, 0], [30, 0], [30, 20], [0, 20.0]])
    return Motif((Shape("MLLLZ", corners, None, picture=Picture(png_from_rgba(rgba), width, height)),), 30, 20, 10)


def test_a_heavy_picture_has_a_cure_that_makes_it_light_enough():
    heavy = picture_motif(2000, 1400)
    weight = weight_of(heavy)
    assert weight.word == "heavy"
    assert "2.8 million pixels" in weight.warning
    light = with_lighter_pictures(heavy, weight.pixels_to)
    assert weight_of(light).word == "light"
    assert light.shapes[0].picture.width_px == weight.pixels_to
    assert np.array_equal(light.shapes[0].points, heavy.shapes[0].points)  # as large in mm as before
    small = picture_motif(100, 80)
    assert with_lighter_pictures(small, 500).shapes[0] is small.shapes[0]
