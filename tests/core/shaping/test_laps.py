"""Pieces with gradients that meet reach under the next. The truth is the rasteriser's own stroke, which has no seams."""

import io
import math

import numpy as np
import pytest
import scipy
import shapely
from PIL import Image

from making import brush, measured, svg
from sewn_garland.core.assemble import drawing_of, on_page, painted
from sewn_garland.core.drawing.png import png_from_svg
from sewn_garland.core.drawing.svg import compact_svg, plain_svg
from sewn_garland.core.lay import lay
from sewn_garland.core.maths.outlines import bezier_at
from sewn_garland.core.reading.svg_motif import motif_from_svg

SIZE = (120, 100)


def shaded(length: float) -> str:
    """Return a band of 4 mm that is shaded across."""
    gradient = '<linearGradient id="g" x2="0" y2="1"><stop stop-color="#2c4a84"/><stop offset="1" stop-color="#9db9f0"/></linearGradient>'
    return svg(f'{gradient}<rect width="{length}" height="4" fill="url(#g)"/>', length, 4)


SHADED = shaded(20)
LINES = {"straight": "M10.3 31.7L104 55", "wave": "M10 50C40 0 70 100 110 50", "closed": "M100 50A40 40 0 1 1 20 50A40 40 0 1 1 100 50Z"}


def laid(drawing, path, **settings):
    made = brush(motif_from_svg(drawing), **settings).changed({"spacing": {"ease": "length", "ease_limit_pct": 50}})
    return made, lay(made, [measured(path)])[0]


def alpha(text, zoom):
    width, height = (round(side * zoom) for side in SIZE)
    return np.asarray(Image.open(io.BytesIO(png_from_svg(text, width_px=width, height_px=height))).convert("RGBA"), int)[..., 3]


@pytest.mark.parametrize("write", [compact_svg, plain_svg])
@pytest.mark.parametrize("name", LINES)
def test_a_shaded_band_shows_no_ground_at_its_seams(name, write):
    made, line = laid(SHADED, LINES[name], round_bends="bent")
    text = write(drawing_of(*SIZE, on_page(made.pieces.motifs, line, made.ink)))
    stroke = svg(f'<path d="{LINES[name]}" fill="none" stroke="#000" stroke-width="4"/>', *SIZE)
    for zoom in (1, 2.5, 7, 15):
        own, inside = alpha(text, zoom), scipy.ndimage.minimum_filter(alpha(stroke, zoom), 3) == 255
        assert not ((own < 255) & inside).any()


def test_a_lap_is_as_long_as_told_and_only_where_pieces_meet():
    made, line = laid(SHADED, "M10 50H110")
    item = painted(made.pieces.motifs, line)
    ends = [item.outlines.points[item.outlines.piece == 0][:, 0].max()] if len(item.outlines.pieces) == 1 else None
    own = [item.outlines.points[a:b, 0].max() for a, b in zip(item.outlines.starts, item.outlines.starts[1:])]
    assert ends is None and own == pytest.approx([30 + 1.2, 50 + 1.2, 70 + 1.2, 90 + 1.2])  # the last piece ends where it did
    for change in ({"gap": 0.05}, {"gap": -0.05}, {"mirror": "left_right", "gap": 0.01}):
        apart, other = laid(SHADED, "M10 50H110", **change)
        assert painted(apart.pieces.motifs, other).outlines is None


def test_of_a_half_ring_only_the_edges_at_its_seams_go_on():
    """By hand: two pieces round a circle, whose ends lie on one line through its middle; the first ends at (20, 50) going up, and goes
    on below the second at both ends."""
    made, line = laid(shaded(40), "M100 50A40 40 0 1 1 20 50A40 40 0 1 1 100 50Z", round_bends="bent", size=math.pi)
    assert len(line.pieces.s) == 2
    width, lap = 4 * math.pi, 0.06 * 40 * math.pi
    own, was = (covered_by(outlines, 0) for outlines in (painted(made.pieces.motifs, line).outlines, line.outlines))
    wanted = [shapely.box(x - width / 2, 50 - lap, x + width / 2, 50) for x in (20, 100)]
    assert own.difference(was).symmetric_difference(shapely.union_all(wanted)).area < 1e-6 * own.area
    assert was.difference(own).area < 1e-6 * own.area


def covered_by(outlines, piece):
    rings = [outlines.points[a:b] for a, b, of in zip(outlines.starts, outlines.starts[1:], outlines.piece) if of == piece]
    flat = [bezier_at(np.stack([ring[k : k + 4] for k in range(0, len(ring) - 3, 3)]), np.linspace(0, 1, 65)) for ring in rings]
    return shapely.union_all([shapely.Polygon(each.reshape(-1, 2)).buffer(0) for each in flat])


def test_faint_sloping_and_unlike_edges_do_not_lap():
    for drawing in (SHADED.replace('stop-color="#2c4a84"', 'stop-color="#2c4a84" stop-opacity=".5"'),
                    SHADED.replace('<rect width="20" height="4"', '<path d="M0 0L20 1V4H0Z"'),
                    SHADED.replace('<rect width="20" height="4"', '<path d="M0 1H5L6 0H20V4H0Z"')):  # fmt: skip
        made, line = laid(drawing, "M10 50H110")
        assert painted(made.pieces.motifs, line).outlines is None
