"""Pieces that meet are drawn as one shape. The truth is the rasteriser's own stroke, which has no seams."""

import io
from dataclasses import replace

import numpy as np
import pytest
import scipy
from PIL import Image

from making import brush, measured, svg
from sewn_garland.core.assemble import drawing_of, on_page, painted
from sewn_garland.core.drawing.png import png_from_svg
from sewn_garland.core.drawing.shapes import motif_within
from sewn_garland.core.drawing.svg import compact_svg, plain_svg
from sewn_garland.core.lay import lay
from sewn_garland.core.making.corners import corner_from_repeat
from sewn_garland.core.reading.svg_motif import motif_from_svg
from sewn_garland.core.values.variations import Variation

SIZE = (120, 100)
INK = "#2c4a84"
ZOOMS = (0.5, 1, 2.5, 7, 15)  # px a mm
STRIP = svg(f'<rect width="10" height="4" fill="{INK}"/>', 10, 4)
TWO = svg(f'<rect width="10" height="4" fill="{INK}"/><rect y="1" width="10" height="1" fill="#c9971c"/>', 10, 4)
LINES = {
    "closed rectangle, mitred": ("M10 20H100V80H10Z", "miter"),
    "wave": ("M10 50C40 0 70 100 110 50", "miter"),
    "straight": ("M10.3 31.7L104 55", "miter"),
    "circle": ("M100 50A40 40 0 1 1 20 50A40 40 0 1 1 100 50Z", "miter"),
}


def laid(path, drawing=STRIP, **sections):
    made = brush(motif_from_svg(drawing)).changed({
        "travel": {"round_bends": "bent"}, "spacing": {"ease": "length"}, "ends": {"outside_corner": "mitre", "inside_corner": "mitre"},
        **sections,
    })  # fmt: skip
    return made, lay(made, [measured(path)])[0]


def page_of(made, line):
    return drawing_of(*SIZE, on_page(made.pieces.motifs, line, made.ink))


def pixels(text, zoom):
    width, height = (round(side * zoom) for side in SIZE)
    return np.asarray(Image.open(io.BytesIO(png_from_svg(text, width_px=width, height_px=height))).convert("RGBA"), int)


@pytest.mark.parametrize("write", [compact_svg, plain_svg])
@pytest.mark.parametrize("name", LINES)
def test_a_bar_of_touching_pieces_equals_a_plain_stroke_at_five_zooms(name, write):
    path, join = LINES[name]
    made, line = laid(path)
    assert len(line.pieces.s) > 8
    stroke = svg(f'<path d="{path}" fill="none" stroke="{INK}" stroke-width="4" stroke-linejoin="{join}"/>', *SIZE)
    for zoom in ZOOMS:
        own, truth = pixels(write(page_of(made, line)), zoom)[..., 3], pixels(stroke, zoom)[..., 3]
        assert np.abs(own - truth).mean() < 1  # the rims of curves: two ways to bend a stroke stray by hundredths of a millimetre
        inside = scipy.ndimage.minimum_filter(truth, 3) == 255
        assert (own[inside] == 255).all()


def test_the_same_pieces_drawn_one_by_one_show_the_ground_at_their_seams():
    """What the tests above would find: hairlines at the sloping seams."""
    made, line = laid(LINES["wave"][0])
    one_by_one = on_page(made.pieces.motifs, replace(line, joins=replace(line.joins, gap=line.joins.gap + 1e-3)))
    seen = pixels(compact_svg(drawing_of(*SIZE, one_by_one)), 7)[..., 3]
    inside = scipy.ndimage.minimum_filter(pixels(compact_svg(page_of(made, line)), 7)[..., 3], 3) == 255
    assert seen[inside].min() < 220


def test_touching_pieces_of_several_colours_have_no_hairline_either():
    made, line = laid("M10 50C40 0 70 100 110 50", TWO)
    assert painted(made.pieces.motifs, line).several.tolist() == [0]
    seen = pixels(compact_svg(page_of(made, line)), 3)
    plain, whole = laid("M10 50C40 0 70 100 110 50")
    filled = pixels(compact_svg(page_of(plain, whole)), 3)
    assert (seen[scipy.ndimage.minimum_filter(filled[..., 3], 3) == 255][..., 3] == 255).all()


@pytest.mark.parametrize("change", [
    {"spacing": {"gap_pct": 5}}, {"spacing": {"gap_pct": -5}}, {"travel": {"kind": "scattered"}}, {"ink": {"per_piece_pct": 50}},
    {"ink": {"laid_on_as": "multiply", "blends": "each_piece"}},
])  # fmt: skip
def test_pieces_that_do_not_meet_or_show_what_is_below_stay_pieces(change):
    made, line = laid("M10 50C40 0 70 100 110 50", **change)
    item = painted(made.pieces.motifs, line, made.ink)
    assert item.several is None
    assert len(item.motif) == len(line.pieces.s)


def test_a_line_of_several_colours_that_crosses_itself_keeps_its_upper_strand_on_top():
    path = "M10 90L100 10H60L60 95"
    holed = svg(f'<path fill-rule="evenodd" fill="{INK}" d="M0 0H10V4H0ZM3 1H6V3H3Z"/>', 10, 4)
    for drawing, one in ((STRIP, True), (TWO, False), (holed, False)):
        made, line = laid(path, drawing, ends={"outside_corner": "round", "inside_corner": "round"})
        assert (painted(made.pieces.motifs, line).several is not None) == one


def test_mirrored_pieces_go_round_the_same_way_as_their_neighbours():
    made, line = laid("M10 50C40 0 70 100 110 50", travel={"mirror": "every_second", "round_bends": "bent"})
    plain, whole = laid("M10 50C40 0 70 100 110 50")
    ours, theirs = (pixels(compact_svg(page_of(*each)), 4)[..., 3] for each in ((made, line), (plain, whole)))
    assert np.abs(ours - theirs).max() <= 3


def test_unlike_inks_part_what_is_one():
    made, line = laid("M10 50H110", ink={"ink": "#ff0000", "second_ink": "#0000ff", "gives": "everything"},
                      variations=(Variation(of="mix", follows="turns", between=(0, 100)),))  # fmt: skip
    assert painted(made.pieces.motifs, line, made.ink).several is None


def test_what_is_one_is_picked_up_wherever_it_lies():
    made, line = laid("M10 50H110")
    motif = motif_within(page_of(made, line), (90, 40, 100, 60), most=50)
    assert len(motif.shapes) == 1


EDGED = svg(f'<rect width="10" height="4" fill="{INK}"/><path d="M0 .5H10M10 3.5H0" stroke="#c9971c" stroke-width="1"/>', 10, 4)


@pytest.mark.parametrize("drawing", [STRIP, EDGED], ids=["filled", "with strokes"])
@pytest.mark.parametrize("travel", ["rigid", "bent"])
@pytest.mark.parametrize("path", ["M10.3 31.7L104 55", "M10 20H100V80H10Z"], ids=["straight", "mitred"])
def test_pieces_that_are_stamped_or_have_strokes_have_no_hairline(drawing, travel, path):
    made, line = laid(path, drawing, travel={"round_bends": travel})
    stroke = svg(f'<path d="{path}" fill="none" stroke="{INK}" stroke-width="4"/>', *SIZE)
    assert painted(made.pieces.motifs, line).several.tolist() == [0]
    for zoom in ZOOMS:
        own, truth = pixels(compact_svg(page_of(made, line)), zoom)[..., 3], pixels(stroke, zoom)[..., 3]
        inside = scipy.ndimage.minimum_filter(truth, 3) == 255
        assert (own[inside] == 255).all()


def test_unlike_motifs_and_corner_pieces_of_the_same_paints_are_one_with_the_run():
    """Two bars of unlike length, one drawn the other way round, and a corner made of the first: the mitred frame is one bar."""
    long, back = motif_from_svg(STRIP), motif_from_svg(svg(f'<path d="M0 0V4H6V0Z" fill="{INK}"/>', 6, 4))
    corner = corner_from_repeat(long, "outside")
    path = "M10 20H110V88H10Z"
    made = brush(long, back, outside_corner_piece=corner).changed({"spacing": {"ease": "length"}, "ends": {"outside_corner": "piece"}})
    line = lay(made, [measured(path)])[0]
    assert len(np.unique(line.pieces.motif)) == 3
    assert painted(made.pieces.motifs, line).several.tolist() == [0]
    stroke = svg(f'<path d="{path}" fill="none" stroke="{INK}" stroke-width="4"/>', *SIZE)
    for zoom in ZOOMS:
        own, truth = pixels(compact_svg(page_of(made, line)), zoom)[..., 3], pixels(stroke, zoom)[..., 3]
        assert (own[scipy.ndimage.minimum_filter(truth, 3) == 255] == 255).all()


def test_very_many_stamped_pieces_stay_references():
    made = brush(motif_from_svg(STRIP), round_bends="rigid")
    for count, one in ((1000, True), (16_000, False)):
        line = lay(made, [measured(f"M0 0H{10 * count}")])[0]
        assert (painted(made.pieces.motifs, line).several is not None) == one


def test_short_and_empty_lines_have_nothing_to_be_one():
    for path in ("M10 10H12", "M10 10H10"):
        made, line = laid(path)
        assert painted(made.pieces.motifs, line).several is None
