"""Pictures that meet let no ground through. The truth is the rasteriser's own stroke, which has no seams."""

import io

import numpy as np
import pytest
import scipy
from PIL import Image

from making import brush, measured, svg
from sewn_garland.core.artwork.picture_laps import lap_of
from sewn_garland.core.assemble import drawing_of, looks, on_page, painted
from sewn_garland.core.drawing.png import png_from_svg
from sewn_garland.core.drawing.svg import compact_svg, plain_svg
from sewn_garland.core.lay import lay
from sewn_garland.core.maths.raster import png_from_rgba, rgba_from_png
from sewn_garland.core.values.motif import Motif, Picture, Shape

SIZE = (120, 100)
WAVE, CIRCLE = "M10 50C40 0 70 100 110 50", "M100 50A40 40 0 1 1 20 50A40 40 0 1 1 100 50Z"
PIXELS = [[(200, 80, 40, 255)] * 9 + [(20, 90, 160, 255)] * 8]


def pictured(rows=PIXELS):
    """Return a motif of 17 × 5 mm, a picture of a row of pixels."""
    rgba = np.array(rows, np.uint8)
    corners = np.array([[0.0, 0], [17, 0], [17, 5], [0, 5]])
    return Motif((Shape("MLLLZ", corners, None, picture=Picture(png_from_rgba(rgba), *rgba.shape[1::-1])),), 17, 5, 2.5)


@pytest.mark.parametrize("write", [compact_svg, plain_svg])
@pytest.mark.parametrize(
    ("path", "settings"),
    [
        ("M10.3 31.7L104 55", {}), ("M10.3 31.7L104 55", {"turn_about": True}), ("M10.3 55H104", {"round_bends": "bent"}),
        (WAVE, {"round_bends": "bent"}), (CIRCLE, {"round_bends": "bent"}), ("M10.3 31.7L104 55", {"ink": {"ink": "#304050", "gives": "hue"}}),
    ],
)  # fmt: skip
def test_pictures_that_meet_show_no_ground_between_them(path, settings, write):
    fine = np.repeat(np.repeat(PIXELS, 20, axis=0), 20, axis=1)  # a bent picture's rim is soft within a pixel of it
    sections = {"spacing": {"ease": "length", "ease_limit_pct": 50}, **{key: settings[key] for key in settings if key == "ink"}}
    made = brush(pictured(fine), **{key: settings[key] for key in settings if key != "ink"}).changed(sections)
    assert made.ink.ink == settings.get("ink", {}).get("ink")
    line = lay(made, [measured(path)])[0]
    text = write(drawing_of(*SIZE, on_page(made.pieces.motifs, line, made.ink)))
    stroke = svg(f'<path d="{path}" fill="none" stroke="#000" stroke-width="4.4"/>', *SIZE)
    for zoom in (2.5, 7, 15):
        inside = scipy.ndimage.minimum_filter(alpha(stroke, zoom), 5) == 255
        assert alpha(text, zoom)[inside].min() == 255


def alpha(text, zoom):
    width, height = (round(side * zoom) for side in SIZE)
    return np.asarray(Image.open(io.BytesIO(png_from_svg(text, width_px=width, height_px=height))).convert("RGBA"), int)[..., 3]


def test_a_lap_shows_the_end_of_one_piece_and_the_beginning_of_the_next_below_both():
    """By hand: pixels of 1 mm, of which a lap shows one to either side of a seam."""
    made = brush(pictured())
    line = lay(made, [measured("M10 50H78")])[0]
    item = painted(made.pieces.motifs, line)
    assert len(item.motif) == 3 + len(line.pieces.s)
    lap = item.artwork[item.motif[0]].shapes[0]
    assert lap.points == pytest.approx(np.array([[16, 0], [18, 0], [18, 5], [16, 5]]))
    assert rgba_from_png(lap.picture.png)[0].tolist() == [list(PIXELS[0][-1]), list(PIXELS[0][0])]
    assert item.matrices[:3] == pytest.approx(item.matrices[3:6])
    assert rgba_from_png(lap_of(pictured([[(200, 80, 40, 128)] * 17])).shapes[0].picture.png)[..., 3].max() == 0
    for change, count in (({"gap": 0.05}, 0), ({"gap": -0.05}, 0), ({"mirror": "left_right"}, 0), ({"turn_deg": 180.0}, 3)):
        other = brush(pictured(), **change)
        laid = lay(other, [measured("M10 50H78")])[0]
        item = painted(other.pieces.motifs, laid)
        assert len(item.motif) == count + len(laid.pieces.s), change
    assert item.matrices[:3] == pytest.approx(item.matrices[4:7])  # of turned ones the later has its right edge at the seam


def test_where_a_line_of_pictures_is_cut_on_a_bisector_it_is_cut_as_before():
    made = brush(pictured(), outside_corner="mitre", inside_corner="mitre").changed({"spacing": {"ease": "length", "ease_limit_pct": 50}})
    line = lay(made, [measured("M10 20H95V90")])[0]
    look = looks(made.pieces.motifs, [line], made.ink)[0]
    laps = len(look.pieces.motif) - len(line.pieces.s)
    assert laps > 0 and (look.cuts.piece - laps).tolist() == line.cuts.piece.tolist()
