"""Text of drawings, by hand on the fonts' own figures; beside a browser in tests/browser/test_letters.py."""

import time
from importlib.resources import files

import numpy as np
import pytest
from fontTools.ttLib import TTFont

from making import svg
from sewn_garland.core.artwork.box import box_of_shape
from sewn_garland.core.errors import InputError
from sewn_garland.core.reading.letters import NAMES, Face, set_letters
from sewn_garland.core.reading.svg_fonts import families, font_size, font_weight, from_shorthand
from sewn_garland.core.reading.svg_lines import lines_from_svg
from sewn_garland.core.reading.svg_motif import motif_from_svg

SANS = 'font-family="Hanken Grotesk"'


def box(body: str) -> tuple[float, ...]:
    (shape,) = motif_from_svg(svg(body)).shapes
    return box_of_shape(shape)


@pytest.mark.parametrize("family", NAMES)
def test_letters_advance_by_the_fonts_own_table(family):
    name = f"{family.replace(' ', '-')}-latin-wght-normal.woff2"
    font = TTFont((files("sewn_garland.core.reading") / "fonts" / name).open("rb"))
    letters, lost = set_letters("HHn", Face(family))
    wanted = [font["hmtx"][font.getBestCmap()[ord(c)]][0] / font["head"].unitsPerEm for c in "HHn"]
    assert [letter.advance for letter in letters] == pytest.approx(wanted, abs=2e-3)  # kerning of these is none
    assert not lost


def test_the_height_of_a_letter_is_that_of_the_font_at_any_size_and_an_anchor_lies_where_it_is_told():
    font = TTFont((files("sewn_garland.core.reading") / "fonts" / "hanken-grotesk-latin-wght-normal.woff2").open("rb"))
    cap = font["OS/2"].sCapHeight / font["head"].unitsPerEm
    for size in (0.5, 10.0, 80.0):
        _, top, _, foot = box(f'<text x="50" y="90" font-size="{size}" {SANS}>H</text>')
        assert (foot, foot - top) == pytest.approx((90, cap * size), rel=1e-3)
    left, _, right, _ = box(f'<text x="50" y="90" font-size="20" text-anchor="middle" {SANS}>HOH</text>')
    assert (left + right) / 2 == pytest.approx(50, abs=0.01)  # H and O are alike on both sides


def test_white_space_counts_once_between_words_and_not_at_the_ends():
    one = box(f'<text x="5" y="20" {SANS} font-size="9">a b</text>')
    assert box(f'<text x="5" y="20" {SANS} font-size="9">  a \n\t <tspan> b </tspan>\n</text>') == pytest.approx(one)
    kept = box(f'<text x="5" y="20" {SANS} font-size="9" xml:space="preserve">a   b</text>')
    assert kept[2] > one[2] + 2


@pytest.mark.parametrize(
    ("body", "told"),
    [
        ('<text font-family="Tide Script" y="9">no</text>', "Text in Tide Script was left out: that font is not here; turn the text into outlines first"),
        ('<text font-family="Tide Script, sans-serif" y="9">yes</text>', "Text in Tide Script is set in Hanken Grotesk, which the drawing names next"),
        (f'<text y="9" {SANS}>a☃</text>', "“☃” was left out of text: Hanken Grotesk has no such letter."),
        (f'<text y="9" {SANS} textLength="50">a</text>', "The width that text was to fill was left out"),
        (f'<text y="9" {SANS}><textPath href="#p">a</textPath></text>', "Text along a path was left out"),
        (f'<text y="9" {SANS} writing-mode="vertical-rl">a</text>', "Text that does not run from left to right was left out"),
    ],
)  # fmt: skip
def test_what_cannot_be_set_is_told_with_what_to_do(body, told):
    rect = '<rect width="5" height="5"/>'
    assert any(sentence.startswith(told) for sentence in motif_from_svg(svg(rect + body)).left_out)
    assert any(sentence.startswith(told) for sentence in lines_from_svg(svg(rect + body)).left_out)


def test_text_alone_in_a_font_that_is_not_here_refuses_the_drawing_and_says_why():
    for read in (motif_from_svg, lines_from_svg):
        with pytest.raises(InputError, match="text in Tide Script was left out: that font is not here; turn the text into outlines first"):
            read(svg('<text font-family="Tide Script" y="9">no</text>'))


def test_letters_are_lines_whose_contours_are_closed():
    lines = lines_from_svg(svg(f'<text x="5" y="50" {SANS} font-size="40">oi</text>')).lines
    assert len(lines) == 4 and all(line.closed for line in lines)  # a ring, its hole, a stem, a dot


def test_sizes_weights_families_and_shorthands_are_read_as_css_has_them():
    """CSS Fonts 4: the table of absolute sizes and of relative weights, both from memory; a shorthand resets what it leaves out."""
    assert [font_size(text, 10) for text in ("12", "2em", "50%", "12pt", "medium", "smaller", "-3", "x")] == pytest.approx(
        [12, 20, 5, 16, 16, 10 / 1.2, 10, 10])  # fmt: skip
    assert [font_weight("bolder", w) for w in (300, 400, 600, 950)] == [400, 700, 900, 950]
    assert [font_weight("lighter", w) for w in (50, 500, 700, 900)] == [50, 100, 400, 700]
    assert families("""'Source Serif 4',  Hanken   Grotesk , serif""") == ["Source Serif 4", "Hanken Grotesk", "serif"]
    assert from_shorthand('italic 650 12px/1.5 "Source Serif 4", serif')["font-size"] == "12px"
    assert from_shorthand("bold") == {}


def test_hostile_text_ends_in_outlines_or_in_words():
    """Fixed seed: deep spans, endless numbers, sizes beyond sense, letters of every plane."""
    rng = np.random.default_rng(20261128)
    attributes = [
        "x",
        "y",
        "dx",
        "dy",
        "rotate",
        "font-size",
        "font-weight",
        "letter-spacing",
        "word-spacing",
        "text-anchor",
        "font-family",
        "style",
    ]
    values = [
        "1e308",
        "-1e9",
        "nan",
        "1 2 3 4 5 6 7",
        "5em,6%",
        "0",
        "inherit",
        "font:x",
        "bolder",
        "Hanken Grotesk",
        "serif",
        "1e-320",
        "",
        "font: 1e99px serif",
    ]
    for _ in range(300):
        body = "".join(chr(c) for c in rng.integers(32, 0x2FF, 20) if c not in (38, 60, 62, 127) and not 128 <= c < 160)
        for _ in range(int(rng.integers(1, 6))):
            given = {str(rng.choice(attributes)): str(rng.choice(values)) for _ in range(3)}
            body = f"<tspan {' '.join(f'{k}={v!r}' for k, v in given.items())}>{body}</tspan>a"
        began = time.monotonic()
        try:
            motif = motif_from_svg(svg(f'<rect width="1" height="1"/><text {SANS}>{body}</text>'))
            assert all(np.isfinite(shape.points).all() for shape in motif.shapes)
        except InputError as error:
            assert error.message
        assert time.monotonic() - began < 20  # a guard against what never ends
