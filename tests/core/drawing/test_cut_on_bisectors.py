"""Strokes and pictures are cut on a mitre's bisector as fills are: the same bar drawn in each way gives the same frame."""

import io
from dataclasses import replace

import numpy as np
import pytest
import shapely
from PIL import Image

from making import bar, bar_svg, brush, drawing, measured, shapes_drawn, svg
from sewn_garland.core.drawing.png import png_from_svg
from sewn_garland.core.drawing.svg import compact_svg, plain_svg
from sewn_garland.core.lay import lay
from sewn_garland.core.maths.curves import cross
from sewn_garland.core.maths.outlines import area_of, subpaths
from sewn_garland.core.maths.raster import png_from_rgba, rgba_from_png
from sewn_garland.core.reading.svg_motif import motif_from_svg
from sewn_garland.core.shaping.shaped import Detail
from sewn_garland.core.values.motif import Motif, Picture, Shape

FRAME = "M10 10H50V40H10Z"  # whole pieces on every leg, so nothing is eased
FRAME_MM2 = 2 * (40 + 30) * 4  # a mitred frame 4 mm wide about its centre line
RED = "#a33a2f"
FILLED = motif_from_svg(bar_svg(10, 4, RED))
STROKED = motif_from_svg(svg(f'<path d="M0 2H10" fill="none" stroke="{RED}" stroke-width="4"/>', 10, 4))


def picture():
    pixels = np.tile(np.array([0xA3, 0x3A, 0x2F, 255], np.uint8), (40, 100, 1))
    corners = np.array([[0.0, 0], [10, 0], [10, 4], [0, 4]])
    return Motif((Shape("MLLLZ", corners, None, picture=Picture(png_from_rgba(pixels), 100, 40)),), 10, 4, 2)


def laid(motif, travel, **more):
    own = brush(motif, round_bends=travel, ease="length", outside_corner="mitre", inside_corner="mitre", **more)
    return lay(own, [measured(FRAME)])[0]


@pytest.mark.parametrize("travel", ["rigid", "bent"])
def test_uncut_outlines_and_their_bisectors_say_the_same_as_cut_ones(travel):
    faint = replace(FILLED, shapes=tuple(replace(s, fill=replace(s.fill, opacity=0.5)) for s in FILLED.shapes))  # never drawn as one
    own = brush(faint, round_bends=travel, ease="length", outside_corner="mitre", inside_corner="mitre")
    cut, uncut = (lay(own, [measured(FRAME)], detail=Detail(cut=how))[0] for how in (True, False))
    assert cut.cuts.piece.tolist() == uncut.cuts.piece.tolist() and len(cut.cuts.piece) >= 8
    for piece in np.unique(cut.cuts.piece):
        (whole,), kept = shapes_drawn([faint], uncut, [piece]), shapes_drawn([faint], cut, [piece])
        left = shapely.Polygon(whole.points)
        for row in np.flatnonzero(uncut.cuts.piece == piece):
            away, vertex = uncut.cuts.away[row], uncut.cuts.vertex[row]
            side = np.array([away[1], -away[0]])
            left &= shapely.Polygon(
                [vertex + 99 * side, vertex - 99 * side, vertex - 99 * side - 99 * away, vertex + 99 * side - 99 * away]
            )
        assert sum(abs(area_of(s.commands, s.points)) for s in kept) == pytest.approx(left.area, abs=1e-6)


def test_on_very_small_segments_a_mitred_piece_is_not_split_where_its_line_is_not_its_own():
    crumbs = "M0 0" + "".join(f"l0.006 {0.006 * (i % 2)}" for i in range(400))
    own = brush(bar(2, 1), round_bends="bent", ease="length", outside_corner="mitre", inside_corner="mitre")
    done = lay(own, [measured(crumbs)])[0]
    assert len(done.pieces.s) > 100
    assert len(done.outlines.points) < 40 * len(done.pieces.s)  # a bar is four sides: 13 points, and a few where it is cut


def cover(motif, done, write=compact_svg):
    """Return how far every tenth of a millimetre is covered."""
    pixels = Image.open(io.BytesIO(png_from_svg(write(drawing(60, 55, ((motif,), done))), width_px=600, height_px=550)))
    return np.asarray(pixels.convert("RGBA"))[..., 3] / 255.0


@pytest.mark.parametrize("travel", ["rigid", "bent"])
@pytest.mark.parametrize("write", [compact_svg, plain_svg])
@pytest.mark.parametrize("motif", [STROKED, picture()], ids=["stroked", "picture"])
def test_a_bar_drawn_as_a_stroke_or_a_picture_is_cut_as_a_filled_one(motif, travel, write):
    done = laid(motif, travel)
    got, filled = cover(motif, done, write), cover(FILLED, laid(FILLED, travel))
    assert filled.sum() / 100 == pytest.approx(FRAME_MM2, rel=0.005)
    assert np.abs(got - filled).sum() / 100 < 0.01 * FRAME_MM2  # edges are smoothed a little differently
    inside = np.zeros(filled.shape, bool)
    inside[85:115, 85:515] = True  # the upper leg, corners included
    assert got[inside].min() > 0.5
    assert done.outlines.cut.tolist() == done.outlines.pieces[np.isin(done.outlines.pieces, done.outlines.cut)].tolist()


@pytest.mark.parametrize("travel", ["rigid", "bent"])
def test_what_is_picked_up_of_them_covers_the_frame_too(travel):
    done = laid(STROKED, travel)
    (whole,) = shapes_drawn([STROKED], done, [0])  # all are one
    assert whole.stroke is None and whole.fill.colour == RED
    assert sum(abs(area_of(*contour)) for contour in subpaths(whole.commands, whole.points)) == pytest.approx(FRAME_MM2, rel=2e-3)


def test_a_picked_up_picture_is_clear_beyond_the_bisector():
    motif = picture()
    done = laid(motif, "rigid")
    seen = 0.0
    for shape in shapes_drawn([motif], done, done.outlines.cut):
        rgba = rgba_from_png(shape.picture.png)
        side, down = shape.points[1] - shape.points[0], shape.points[3] - shape.points[0]
        seen += (rgba[..., 3] / 255).mean() * abs(side[0] * down[1] - side[1] * down[0])
    areas = [abs(cross(*np.diff(s.points[:3], axis=0))) for s in shapes_drawn([motif], done, range(len(done.pieces.s)))]
    hidden = sum(areas) - FRAME_MM2
    assert seen == pytest.approx(sum(areas[i] for i in done.outlines.cut) - hidden, rel=0.01)


def test_fill_and_stroke_of_a_cut_shape_keep_their_own_paints():
    motif = motif_from_svg(svg('<rect x="0.5" y="0.5" width="9" height="3" fill="#ddcc88" stroke="#223344" stroke-width="1"/>', 10, 4))
    done = laid(motif, "rigid")
    cut = text = compact_svg(drawing(60, 55, ((motif,), done)))
    assert 'fill="#ddcc88"' in cut and 'fill="#223344"' in cut and "stroke=" not in cut
    pixels = np.asarray(Image.open(io.BytesIO(png_from_svg(text, width_px=600, height_px=550))).convert("RGBA"))
    assert pixels[100, 100, :3].tolist() == [0xDD, 0xCC, 0x88]  # on the bisector itself the fill, no line along the cut
    assert not done.outlines.stroked.all() and done.outlines.stroked.any()
