"""Groups and cover: what W3C Compositing and Blending 1 says of the pixels, by its own formulas, written out here from the standard."""

import io
from dataclasses import replace

import numpy as np
import pytest
from PIL import Image

from making import bar, brush, measured, svg
from sewn_garland.core.assemble import drawing_of, on_page, painted
from sewn_garland.core.drawing.columns import piece_columns
from sewn_garland.core.drawing.png import png_from_svg
from sewn_garland.core.drawing.shapes import motif_within
from sewn_garland.core.drawing.svg import compact_svg, plain_svg
from sewn_garland.core.lay import lay
from sewn_garland.core.reading.svg_motif import motif_from_svg
from sewn_garland.core.values.blend import BLENDS
from sewn_garland.core.values.brush import Ink
from sewn_garland.core.values.drawing import Drawing, Flat, Group

GROUND, INK = "#7fa3b5", "#c9571c"
WRITERS = [compact_svg, plain_svg]


def rgb(colour):
    return np.array([int(colour[i : i + 2], 16) for i in (1, 3, 5)]) / 255


def luminosity(c):
    return c @ [0.3, 0.59, 0.11]


def clipped(c):
    lum, low, high = luminosity(c), c.min(), c.max()
    if low < 0:
        c = lum + (c - lum) * lum / (lum - low)
    return lum + (c - lum) * (1 - lum) / (high - lum) if high > 1 else c


def with_luminosity(c, lum):
    return clipped(c + lum - luminosity(c))


def with_saturation(c, saturation):
    return (c - c.min()) / (c.max() - c.min()) * saturation if c.max() > c.min() else np.zeros(3)


def saturation(c):
    return c.max() - c.min()


def hard_light(b, s):
    return np.where(s <= 0.5, b * 2 * s, b + (2 * s - 1) - b * (2 * s - 1))


def soft_light(b, s):
    deep = np.where(b <= 0.25, ((16 * b - 12) * b + 4) * b, np.sqrt(b))
    return np.where(s <= 0.5, b - (1 - 2 * s) * b * (1 - b), b + (2 * s - 1) * (deep - b))


STANDARD = {  # sections 9 and 10: the backdrop b, the source s
    "normal": lambda b, s: s,
    "multiply": lambda b, s: b * s,
    "screen": lambda b, s: b + s - b * s,
    "overlay": lambda b, s: hard_light(s, b),
    "darken": np.minimum,
    "lighten": np.maximum,
    "color-dodge": lambda b, s: np.where(b == 0, 0, np.where(s == 1, 1, np.minimum(1, b / np.where(s == 1, 1, 1 - s)))),
    "color-burn": lambda b, s: np.where(b == 1, 1, np.where(s == 0, 0, 1 - np.minimum(1, (1 - b) / np.where(s == 0, 1, s)))),
    "hard-light": hard_light,
    "soft-light": soft_light,
    "difference": lambda b, s: abs(b - s),
    "exclusion": lambda b, s: b + s - 2 * b * s,
    "hue": lambda b, s: with_luminosity(with_saturation(s, saturation(b)), luminosity(b)),
    "saturation": lambda b, s: with_luminosity(with_saturation(b, saturation(s)), luminosity(b)),
    "color": lambda b, s: with_luminosity(s, luminosity(b)),
    "luminosity": lambda b, s: with_luminosity(b, luminosity(s)),
}


def over(backdrop, source, alpha, mode="normal"):
    """Section 8: what is seen of a source of some alpha over an opaque backdrop."""
    return (1 - alpha) * backdrop + alpha * STANDARD[mode](backdrop, source)


def page(*items, ground=GROUND):
    return Drawing(40, 10, items, ground)


def pixel(text, x, y=5.0, width=40, height=10):
    """Return the colour at a place in mm, and its alpha."""
    image = Image.open(io.BytesIO(png_from_svg(text, width_px=10 * width, height_px=10 * height))).convert("RGBA")
    return np.asarray(image)[round(10 * y), round(10 * x)] / 255


PLAIN = Ink()


def bars(ink=PLAIN, gap=0.0, **settings):
    """Bars of 10 × 4 mm from x = 0 along y = 5."""
    made = brush(bar(10, 4, fill=INK), gap=gap, **settings)
    return made.pieces.motifs, lay(made, [measured("M0 5H40")])[0], ink


@pytest.mark.parametrize("write", WRITERS)
@pytest.mark.parametrize("mode", BLENDS)
def test_a_line_is_laid_on_in_each_of_the_sixteen_ways(mode, write):
    text = write(page(*on_page(*bars(Ink(laid_on_as=mode, ceiling_pct=80.0)))))
    assert pixel(text, 15)[:3] == pytest.approx(over(rgb(GROUND), rgb(INK), 0.8, mode), abs=1.6 / 255)
    assert pixel(text, 15, 9)[:3] == pytest.approx(rgb(GROUND), abs=0.6 / 255)


@pytest.mark.parametrize("write", WRITERS)
@pytest.mark.parametrize("settings", [{}, {"round_bends": "bent"}], ids=["stamped", "bent"])
@pytest.mark.parametrize("mode", ["normal", "multiply", "screen"])
def test_each_piece_is_laid_on_what_lies_below_it(mode, settings, write):
    text = write(page(*on_page(*bars(Ink(laid_on_as=mode, blends="each_piece", per_piece_pct=50.0), gap=-0.5, **settings))))
    one = over(rgb(GROUND), rgb(INK), 0.5, mode)
    assert pixel(text, 2.5)[:3] == pytest.approx(one, abs=2 / 255)
    assert pixel(text, 12.5)[:3] == pytest.approx(over(one, rgb(INK), 0.5, mode), abs=2 / 255)  # two of them lie there


@pytest.mark.parametrize("write", WRITERS)
def test_pieces_gather_up_to_the_ceiling_and_never_past_it(write):
    for ceiling in (100.0, 60.0):
        text = write(page(*on_page(*bars(Ink(per_piece_pct=50.0, ceiling_pct=ceiling), gap=-0.75)), ground=None))
        alpha = [pixel(text, x)[3] for x in (1.25, 3.75, 6.25, 8.75)]
        assert alpha == pytest.approx([ceiling / 100 * (1 - 0.5**n) for n in (1, 2, 3, 4)], abs=1.5 / 255)
        assert max(alpha) <= ceiling / 100


@pytest.mark.parametrize("write", WRITERS)
@pytest.mark.parametrize("settings", [{}, {"round_bends": "bent"}, {"outside_corner": "mitre", "inside_corner": "mitre"}], ids=str)
@pytest.mark.parametrize("blend", ["normal", "multiply"])
def test_every_piece_may_cover_by_its_own_share(write, settings, blend):
    artwork, laid, _ = bars(**settings)
    shares = np.array([1.0, 0.75, 0.5, 0.0])
    text = write(page(replace(painted(artwork, laid, Ink(per_piece_pct=50.0)), opacity=shares, blend=blend)))
    for n, share in enumerate(shares):
        assert pixel(text, 10 * n + 5)[:3] == pytest.approx(over(rgb(GROUND), rgb(INK), share, blend), abs=1.6 / 255)


@pytest.mark.parametrize("write", WRITERS)
def test_a_piece_covers_as_one_where_its_parts_lie_over_one_another(write):
    two = motif_from_svg(svg(f'<path d="M0 0H10V4H0Z" fill="{INK}"/><path d="M0 0H10V4H0Z" fill="#123456"/>', 10, 4))
    made = brush(two)
    laid = lay(made, [measured("M0 5H40")])[0]
    text = write(page(painted(made.pieces.motifs, laid, Ink(per_piece_pct=50.0))))
    assert pixel(text, 15)[:3] == pytest.approx(over(rgb(GROUND), rgb("#123456"), 0.5), abs=1.6 / 255)


@pytest.mark.parametrize("write", WRITERS)
def test_a_group_is_clipped_masked_and_filtered(write):
    pieces = painted(*bars()[:2])
    left = "M0 0H20V10H0Z"
    fading = painted(*bars()[:2], Ink(per_piece_pct=40.0))
    grey = '<feColorMatrix type="saturate" values="0" color-interpolation-filters="sRGB"/>'
    shown = {
        "clip": Group((pieces,), clip=left),
        "mask": Group((pieces,), mask=(Flat(left, "#000000"), fading)),
        "filter": Group((pieces,), filter=grey),
    }
    seen = {key: [pixel(write(page(group)), x)[:3] for x in (15, 25)] for key, group in shown.items()}
    ink, ground = rgb(INK), rgb(GROUND)
    assert np.array(seen["clip"]) == pytest.approx(np.array([ink, ground]), abs=1.6 / 255)
    assert np.array(seen["mask"]) == pytest.approx(np.array([ink, over(ground, ink, 0.4)]), abs=1.6 / 255)
    level = np.full(3, ink @ [0.213, 0.715, 0.072])  # Filter Effects 1, saturate 0
    assert np.array(seen["filter"]) == pytest.approx(np.array([level, level]), abs=1.6 / 255)


@pytest.mark.parametrize("write", WRITERS)
def test_groups_lie_in_groups_and_are_put_together_by_themselves(write):
    (inner,) = on_page(*bars(Ink(laid_on_as="multiply", ceiling_pct=50.0)))
    text = write(page(Group((Flat("M0 0H40V10H0Z", "#ffffff"), inner), opacity=0.5)))
    alone = over(np.ones(3), rgb(INK), 0.5, "multiply")
    assert pixel(text, 15)[:3] == pytest.approx(over(rgb(GROUND), alone, 0.5), abs=1.6 / 255)
    within = write(page(Group((replace(painted(*bars()[:2]), blend="multiply"),))))
    assert pixel(within, 15)[:3] == pytest.approx(rgb(INK), abs=1.6 / 255)  # nothing lies below it in its group


def test_what_covers_alike_is_said_once_and_own_shares_cost_little():
    made = brush(bar(10, 4), size=0.05)
    laid = lay(made, [measured("M0 0C300 900 600 -900 900 0")])[0]
    pieces = painted(made.pieces.motifs, laid, Ink(per_piece_pct=30.0, blends="each_piece", laid_on_as="multiply"))
    count = len(laid.pieces.s)
    alike = compact_svg(drawing_of(1000, 1000, [pieces]))
    own = compact_svg(drawing_of(1000, 1000, [replace(pieces, blend="normal", opacity=np.linspace(0, 1, count))]))
    assert count > 1000
    assert alike.count("opacity") == alike.count("multiply") == 1
    assert len(alike) / count <= 90
    assert len(own) / count <= 110


def test_the_browser_gets_every_pieces_share_where_one_is_not_whole():
    artwork, laid, _ = bars()
    assert "opacity" not in {table.table for table in piece_columns(painted(artwork, laid))}
    half = next(table for table in piece_columns(painted(artwork, laid, Ink(per_piece_pct=50.0))) if table.table == "opacity")
    assert half.values.tolist() == [[0.5]] * 4


def test_what_is_picked_up_covers_as_it_did_and_says_what_is_lost():
    drawing = page(*on_page(*bars(Ink(per_piece_pct=50.0, ceiling_pct=60.0, laid_on_as="screen"))))
    motif = motif_within(drawing, (12, 0, 18, 10), most=10)
    assert [shape.fill.opacity for shape in motif.shapes] == pytest.approx([0.3] * len(motif.shapes))
    assert any("screen" in told for told in motif.left_out)
    assert not motif_within(page(painted(*bars()[:2])), (12, 0, 18, 10), most=10).left_out
    elsewhere = page(painted(*bars()[:2]), Group((Group((), blend="multiply"),), opacity=0.5))
    assert not motif_within(elsewhere, (12, 0, 18, 10), most=10).left_out  # nothing of that group lies in the region
