"""What the ink gives, and what varies of colour; the truth is coloraide's OKLab, OKLCH and gamut mapping."""

import itertools
import re

import numpy as np
import pytest
from coloraide import Color

from making import bar, brush, measured, svg
from sewn_garland.core.artwork.paints import in_own_colours, largest_paint, paints_of
from sewn_garland.core.assemble import on_page, painted, pieces_list
from sewn_garland.core.colouring.coloured import coloured, coloured_together
from sewn_garland.core.colouring.inked import inked
from sewn_garland.core.drawing.columns import piece_columns
from sewn_garland.core.drawing.png import png_from_svg
from sewn_garland.core.drawing.steps import png_of
from sewn_garland.core.drawing.svg import compact_svg, plain_svg
from sewn_garland.core.lay import lay
from sewn_garland.core.maths.colour import contrast_of, oklab_from_srgb, rgb_from_hex, srgb_from_oklab, srgb_within_gamut
from sewn_garland.core.maths.raster import rgba_from_png
from sewn_garland.core.reading.svg_motif import motif_from_svg
from sewn_garland.core.values.brush import Ink
from sewn_garland.core.values.drawing import Drawing
from sewn_garland.core.values.variations import Variation

FLOAT = svg('<rect width="10" height="4" fill="#c9971c"/><circle cx="5" cy="2" r="1.5" fill="#2c4a84" stroke="#777777"/>', 10, 4)
RANDOM = np.random.default_rng(20)


def drawn(*variations, path="M0 5H100", motif=None, **ink):
    made = brush(motif or bar()).changed({"variations": variations, "ink": {**ink}})
    line = lay(made, [measured(path)])[0]
    return made, line, painted(made.pieces.motifs, line, made.ink)


def hexes(item):
    return [f"#{rgba >> 8:06x}" for rgba in item.colours.table[item.colours.which, 0].tolist()]


def varying(of, low, high, follows="chance", **more):
    return Variation(of=of, between=(low, high), follows=follows, **more)


def test_conversions_are_those_of_css_color_4():
    rgb = RANDOM.random((1000, 3))
    truth = np.array([Color("srgb", list(own)).convert("oklab").coords() for own in rgb])
    assert oklab_from_srgb(rgb) == pytest.approx(truth, abs=1e-12)
    assert srgb_from_oklab(truth) == pytest.approx(rgb, abs=1e-9)


def test_samples_of_css_color_4():
    """CSS Color 4, examples of oklab() in the text, as remembered: green, and a colour that sRGB has not."""
    assert oklab_from_srgb(rgb_from_hex("#008000")) == pytest.approx([0.51975, -0.1403, 0.10768], abs=5e-5)
    assert contrast_of(np.ones(3), np.zeros(3)) == pytest.approx(21)


def test_colours_that_srgb_has_not_are_mapped_as_the_standard_says():
    lab = np.column_stack([RANDOM.random(1000), *RANDOM.uniform(-0.4, 0.4, (2, 1000))])
    truth = np.array([Color("oklab", list(own)).fit("srgb", method="oklch-chroma").convert("srgb").coords() for own in lab])
    assert srgb_within_gamut(lab) == pytest.approx(truth, abs=1e-9)


def test_without_an_ink_and_without_variation_the_artwork_keeps_its_colours():
    assert drawn()[2].colours is None
    assert drawn(ink="#a63a2f", gives="nothing")[2].colours is None
    assert drawn(varying("mix", 0, 100), ink="#a63a2f")[2].colours.which.tolist() == [0]  # all one: without a second ink nothing mixes


@pytest.mark.parametrize(("second", "share"), [("#2c4a84", 0.0), ("#2c4a84", 0.4), ("#2c4a84", 1.0)])
def test_inks_mix_in_oklab(second, share):
    own = drawn(varying("mix", 100 * share, 100 * share), ink="#c9971c", second_ink=second)[2]
    truth = Color("#c9971c").mix(second, share, space="oklab").fit("srgb", method="oklch-chroma").convert("srgb").to_string(hex=True)
    assert set(hexes(own)) == {truth}


def test_an_ink_passes_into_another_along_the_line_and_floats_take_turns():
    along = hexes(drawn(varying("mix", 0, 100, "length"), ink="#c9971c", second_ink="#2c4a84")[2])
    blue = [Color(each).convert("oklab")["b"] for each in along]
    assert all(a > b for a, b in itertools.pairwise(blue))
    assert len(set(hexes(drawn(varying("mix", 0, 100, "turns"), ink="#c9971c", second_ink="#2c4a84")[2])[::2])) == 1


@pytest.mark.parametrize("darkest", ["black", "ink"])
@pytest.mark.parametrize("colour", ["#000000", "#333333", "#a33a2f", "#dddddd", "#ffffff"])
def test_the_ladder_goes_from_white_over_the_ink_to_the_darkest(colour, darkest):
    ink, own = Color("#2c4a84").convert("oklab"), Color(colour).convert("oklab")["l"]
    if darkest == "ink":
        truth = Color("white").mix(ink, 1 - own, space="oklab")
    elif own >= ink["l"]:
        truth = Color("white").mix(ink, (1 - own) / (1 - ink["l"]), space="oklab")
    else:
        truth = ink.mix("black", (ink["l"] - own) / ink["l"], space="oklab")
    laid = inked(bar(fill=colour), Ink(ink="#2c4a84", gives="hue_strength", darkest=darkest)).shapes[0].fill.colour
    wanted = truth.fit("srgb", method="oklch-chroma").convert("srgb").to_string(hex=True)
    assert Color(laid).delta_e(wanted, method="2000") < 0.5  # eight bits


def test_hues_turn_together_and_neutrals_stay():
    motif = motif_from_svg(FLOAT)
    laid = inked(motif, Ink(ink="#3f7150", gives="hue"))
    before, after = ([Color(colour).convert("oklch") for colour, _ in paints_of(own)] for own in (motif, laid))
    angle = (Color("#3f7150").convert("oklch")["h"] - before[0]["h"]) % 360
    assert (after[0]["h"] - before[0]["h"]) % 360 == pytest.approx(angle, abs=1.5)
    assert (after[1]["h"] - before[1]["h"]) % 360 == pytest.approx(angle, abs=4)  # eight bits, and mapped into sRGB
    assert paints_of(laid)[2] == ("#777777", 1.0)
    assert largest_paint(motif) == 0


def test_hue_strength_and_lightness_vary_in_oklch():
    own = drawn(varying("hue", 20, 20), varying("strength", 50, 50), varying("lightness", 5, 5), motif=bar(fill="#a33a2f"))[2]
    colour = Color("#a33a2f").convert("oklch")
    colour["h"], colour["c"], colour["l"] = colour["h"] + 20, colour["c"] / 2, colour["l"] + 0.05
    assert set(hexes(own)) == {colour.convert("srgb").to_string(hex=True)}


@pytest.mark.parametrize(("shows", "white", "black"), [("light_shows", 1.0, 0.0), ("dark_shows", 0.0, 1.0)])
def test_what_is_light_or_dark_shows(shows, white, black):
    ink = Ink(coverage=shows, ink="#2c4a84")
    assert inked(bar(fill="#ffffff"), ink).shapes[0].fill.opacity == white
    assert inked(bar(fill="#000000"), ink).shapes[0].fill.opacity == black
    assert inked(bar(fill="#000000"), ink).shapes[0].fill.colour == "#2c4a84"


def test_opacity_varies_what_a_piece_covers():
    own = drawn(varying("opacity", 100, 0, "pieces", over=10), per_piece_pct=50)[2]
    assert own.covers == pytest.approx(0.5 * (1 - np.arange(10) / 10))


LOOSE = (varying("hue", -30, 30), varying("lightness", -10, 10), varying("opacity", 40, 100))


@pytest.mark.parametrize("artwork", [bar(), motif_from_svg(FLOAT)])
@pytest.mark.parametrize("bends", ["rigid", "bent"])
def test_every_drawing_shows_the_same_colours(artwork, bends):
    made = brush(artwork, round_bends=bends).changed({"variations": LOOSE})
    line = lay(made, [measured("M5 20C40 -10 60 50 95 20")])[0]
    page = Drawing(100, 40, on_page(made.pieces.motifs, line, made.ink))
    one, two = (rgba_from_png(png_of_svg(draw(page))) for draw in (compact_svg, plain_svg))
    assert (one[..., 3] > 0).mean() > 0.02
    assert (np.abs(one.astype(int) - two) > 2).any(axis=-1).mean() < 0.003
    assert rgba_from_png(png_of(page, width_px=400, height_px=160)).shape == one.shape


def png_of_svg(text):
    return png_from_svg(text, width_px=400, height_px=160)


def test_one_paint_has_its_colour_where_it_is_placed():
    made, line, own = drawn(varying("hue", -60, 60), path="M0 5H1000")
    text = compact_svg(Drawing(1000, 10, (own,)))
    assert text.count('fill="currentColor"') == 1
    assert re.findall(r'color="(#\w{6})"', text) == hexes(own)
    assert max(map(len, re.findall(r"<use.*", text))) <= 90 + len(' color="#rrggbb"')
    assert [row.split(",")[-1] for row in pieces_list([(made, line)]).splitlines()[1:]] == hexes(own)


def test_the_browser_gets_the_colours_of_every_paint():
    _, line, own = drawn(*LOOSE, motif=motif_from_svg(FLOAT))
    tables = {each.table: each.values for each in piece_columns(own)}
    assert tables["paints"].shape == (10, 3)
    assert tables["colouring"].ravel().tolist() == list(range(10))
    assert tables["opacity"].ravel() == pytest.approx(line.pieces.opacity)
    whole = in_own_colours(own)
    assert [paints_of(whole.artwork[v])[1][0] for v in whole.motif] == [f"#{rgba >> 8:06x}" for rgba in tables["paints"][:, 1].tolist()]


def test_no_pieces_have_no_colours():
    made, line, own = drawn(varying("hue", 0, 9), path="M0 0H1")
    assert not len(line.pieces.s)
    assert coloured(made.pieces.motifs, line.pieces, made.ink).table.shape == (0, 1)
    assert not len(own.motif)


def test_no_two_things_of_a_drawing_have_one_name():
    fading = svg('<radialGradient id="f"><stop stop-color="#a33a2f"/><stop offset="1" stop-color="#c9971c" stop-opacity="0"/>'
                 '</radialGradient><circle cx="5" cy="2" r="2" fill="url(#f)"/>', 10, 4)  # fmt: skip
    own = drawn(varying("hue", 0, 99), path="M0 5H600", motif=motif_from_svg(fading))[2]
    names = re.findall(r' id="(\w+)"', compact_svg(Drawing(600, 10, (own,))))
    assert len(names) == len(set(names)) > 100


@pytest.mark.parametrize("variations", [(), (varying("hue", -30, 30),), (varying("mix", 0, 100), varying("lightness", -9, 9))])
def test_lines_coloured_together_have_the_colours_they_have_alone(variations):
    made = brush(motif_from_svg(FLOAT)).changed(
        {"variations": variations, "ink": {"ink": "#a33a2f", "second_ink": "#2c4a84", "gives": "hue"}}
    )
    lines = [each.pieces for each in lay(made, [measured("M0 5H100"), measured("M0 5H40"), measured("M0 5H3")])]
    together = coloured_together(made.pieces.motifs, lines, made.ink)
    for pieces, own in zip(lines, together, strict=True):
        alone = coloured(made.pieces.motifs, pieces, made.ink)
        assert own.table[own.which].tolist() == alone.table[alone.which].tolist()
    assert coloured_together(made.pieces.motifs, [], made.ink) == []
