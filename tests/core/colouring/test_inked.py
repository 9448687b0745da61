"""Pictures in each piece's own colours, against coloraide; how many colourings are made of them."""

import base64

import numpy as np
import pytest
from coloraide import Color

from making import brush, measured, svg
from sewn_garland.core.assemble import painted
from sewn_garland.core.colouring.inked import MOST_COLOURINGS, STEPS, PictureInk, pictures_of, with_pictures_in
from sewn_garland.core.lay import lay
from sewn_garland.core.maths.raster import png_from_rgba, rgba_from_png
from sewn_garland.core.reading.svg_motif import motif_from_svg
from sewn_garland.core.values.brush import Ink
from sewn_garland.core.values.variations import Variation

GREEN = (90, 140, 70)


def pictured(colour=GREEN, side=4):
    pixels = np.zeros((side, side, 4), np.uint8)
    pixels[..., :3], pixels[..., 3] = colour, 255
    pixels[0, :, 3] = 0
    href = "data:image/png;base64," + base64.b64encode(png_from_rgba(pixels)).decode()
    return motif_from_svg(svg(f'<image width="10" height="4" preserveAspectRatio="none" href="{href}"/>', 10, 4))


def laid(motif, *variations, ink=Ink(), path="M0 0H600"):  # noqa: B008, an Ink does not change
    made = brush(motif).changed({"variations": variations, "ink": ink.model_dump()})
    return made, lay(made, [measured(path)])[0]


def shown(motif):
    return rgba_from_png(motif.shapes[0].picture.png)


@pytest.mark.parametrize(("of", "between"), [("hue", (-30, 30)), ("lightness", (-9, 9)), ("strength", (70, 130))])
def test_a_picture_is_turned_lightened_and_strengthened_in_oklch_within_half_a_step(of, between):
    made, line = laid(pictured(), Variation(of=of, between=between))
    item = painted(made.pieces.motifs, line, made.ink)
    assert len(item.artwork) > 8
    own = Color("srgb", [v / 255 for v in GREEN]).convert("oklch")
    given = {"hue": line.pieces.hue, "lightness": line.pieces.lightness, "strength": line.pieces.strength}[of]
    half = STEPS[{"hue": 1, "strength": 2, "lightness": 3}[of]] / 2
    for value, kind in zip(given.tolist(), item.motif.tolist()[-len(given) :], strict=True):
        seen = Color("srgb", (shown(item.artwork[kind])[2, 2, :3] / 255).tolist()).convert("oklch")
        off = {
            "hue": (seen["h"] - own["h"] - np.degrees(value) + 180) % 360 - 180,
            "lightness": 100 * (seen["l"] - own["l"] - value),
            "strength": 100 * (seen["c"] / own["c"] - value),
        }[of]
        assert abs(off) < half + 1.2  # what 8 bits a channel leave open
        assert (shown(item.artwork[kind])[0, :, 3] == 0).all()


def test_an_ink_is_mixed_toward_the_second_for_each_piece():
    made, line = laid(pictured(), Variation(of="mix", follows="length", between=(0, 100)), ink=Ink(ink="#c9971c", second_ink="#2c4a84"))
    item = painted(made.pieces.motifs, line, made.ink)
    first, last = (Color(c).convert("oklab") for c in ("#c9971c", "#2c4a84"))
    for k in (0, len(line.pieces.s) // 2, len(line.pieces.s) - 1):
        wanted = first.mix(last, line.pieces.mix[k], space="oklab").convert("srgb")
        seen = Color("srgb", (shown(item.artwork[item.motif[k - len(line.pieces.s)]])[2, 2, :3] / 255).tolist())
        assert seen.delta_e(wanted, method="2000") < 3  # a sixteenth of the way between yellow and blue


def test_there_are_no_more_colourings_than_can_be_held_and_large_pictures_have_fewer():
    wild = [
        Variation(of="hue", between=(-180, 180)),
        Variation(of="lightness", between=(-50, 50)),
        Variation(of="strength", between=(0, 300)),
    ]
    for motif, most in ((pictured(), MOST_COLOURINGS), (pictured(side=1200), 5)):
        made, line = laid(motif, *wild, path="M0 0H3000")
        found = pictures_of(made.pieces.motifs, line.pieces, made.ink)
        assert 1 < len(found.drawn) <= most
        assert len(found.which) == len(line.pieces.s)


def test_what_has_no_picture_or_no_colour_to_give_is_left_alone():
    motif = pictured()
    made, line = laid(motif)
    assert pictures_of((motif,), line.pieces, Ink()) is None
    bar = motif_from_svg(svg('<rect width="10" height="4" fill="#ff0000"/>', 10, 4))
    made, line = laid(bar, Variation(of="hue", between=(-30, 30)))
    assert pictures_of(made.pieces.motifs, line.pieces, made.ink) is None
    assert with_pictures_in(bar, PictureInk(Ink(ink="#2c4a84"))) is bar
    made, line = laid(motif, Variation(of="hue", between=(-30, 30)), path="M0 0H1")  # too short for a piece
    assert painted(made.pieces.motifs, line, made.ink).artwork
