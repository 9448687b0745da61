"""A picture painted in steps is the picture painted in one go."""

import io

import numpy as np
import pytest
from PIL import Image

from making import bar, brush, measured, svg
from sewn_garland.core.assemble import on_page, painted
from sewn_garland.core.drawing.png import png_from_svg
from sewn_garland.core.drawing.steps import png_of
from sewn_garland.core.drawing.svg import compact_svg
from sewn_garland.core.lay import lay
from sewn_garland.core.reading.svg_motif import motif_from_svg
from sewn_garland.core.values.brush import Ink
from sewn_garland.core.values.drawing import Drawing, Flat, Group

LENS = (
    '<path d="M0 2C3 -1 7 -1 10 2S3 5 0 2Z" fill="#336" fill-opacity=".6"/><path d="M2 2H8" stroke="#fc0" stroke-width=".5" fill="none"/>'
)
INKS = {
    "plain": Ink(), "see-through": Ink(per_piece_pct=40.0), "as one": Ink(per_piece_pct=60.0, ceiling_pct=70.0, laid_on_as="multiply"),
    "each": Ink(laid_on_as="multiply", blends="each_piece"),
}  # fmt: skip


def pixels(png):
    rgba = np.asarray(Image.open(io.BytesIO(png)).convert("RGBA")).astype(float)
    return np.dstack([rgba[..., :3] * rgba[..., 3:] / 255, rgba[..., 3]])


def waves(ink, **settings):
    made = brush(motif_from_svg(svg(LENS, 10, 4)), bar(6, 3), gap=-0.4, **settings)
    lines = [measured("M5 20C30 -20 60 60 95 20"), measured("M5 30C30 -10 60 70 95 10")]
    return [item for laid in lay(made, lines) for item in on_page(made.pieces.motifs, laid, ink)]


@pytest.mark.parametrize("ink", INKS)
@pytest.mark.parametrize("settings", [{}, {"round_bends": "bent"}], ids=["stamped", "bent"])
@pytest.mark.parametrize("ground", [None, "#d8c9a0"])
def test_steps_give_the_picture_of_one_go(ink, settings, ground):
    page = Drawing(100, 40, (Flat("M10 5H90V15H10Z", "#88aacc"), *waves(INKS[ink], **settings)), ground)
    whole = pixels(png_from_svg(compact_svg(page), width_px=300, height_px=120))
    assert np.abs(pixels(png_of(page, width_px=300, height_px=120, most_shapes=15)) - whole).max() <= 6  # of 255, 8 bits a step


def test_a_group_that_holds_too_many_is_painted_by_itself_with_its_mask():
    made = brush(bar(10, 4))
    pieces = painted(made.pieces.motifs, lay(made, [measured("M0 5H40")])[0])
    page = Drawing(
        40, 10, (Group((pieces, pieces), opacity=0.5, clip="M0 0H20V10H0Z", mask=(Flat("M0 0H40V5H0Z", "#000000"),)),), "#ffffff"
    )
    whole = pixels(png_from_svg(compact_svg(page), width_px=400, height_px=100))
    assert np.abs(pixels(png_of(page, width_px=400, height_px=100, most_shapes=3)) - whole).max() <= 2


def test_an_empty_page_is_its_ground():
    assert (pixels(png_of(Drawing(10, 10, (), "#204060"), width_px=20, height_px=20)) == (0x20, 0x40, 0x60, 255)).all()
    assert not pixels(png_of(Drawing(10, 10, ()), width_px=20, height_px=20)).any()
