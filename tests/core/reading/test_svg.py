"""Lines and motifs from SVG: shapes, transforms, styles, sizes, and what is refused."""

import numpy as np
import pytest

from making import svg
from sewn_garland.core.artwork.box import ink_box
from sewn_garland.core.errors import InputError
from sewn_garland.core.making.framing import trimmed, turned
from sewn_garland.core.measuring.arc_length import frames_at, measure
from sewn_garland.core.reading.svg_lines import lines_from_svg
from sewn_garland.core.reading.svg_motif import motif_from_svg


def lengths(body, **size):
    return [measure(line).length for line in lines_from_svg(svg(body, **size)).lines]


def test_every_shape_is_a_line_in_document_order():
    body = """<line x1="0" y1="0" x2="30" y2="40"/><rect width="10" height="20"/><circle cx="50" cy="50" r="10"/>
      <ellipse cx="5" cy="5" rx="10" ry="10"/><polyline points="0,0 10,0 10,10"/><polygon points="0,0 10,0 10,10 0,10"/>
      <path d="M0 0H7M0 5V9"/>"""
    assert lengths(body) == pytest.approx([50, 60, 20 * np.pi, 20 * np.pi, 20, 40, 7, 4])
    closed = [line.closed for line in lines_from_svg(svg(body)).lines]
    assert closed == [False, True, True, True, False, True, False, False]


def test_a_rounded_rectangle_begins_after_its_corner_and_runs_clockwise():
    line = measure(lines_from_svg(svg('<rect x="10" y="20" width="60" height="40" rx="5"/>')).lines[0])
    assert line.length == pytest.approx(2 * (50 + 30) + 2 * np.pi * 5)
    frame = frames_at(line, np.array([0.0]))
    assert frame.position[0] == pytest.approx([15, 20])
    assert frame.tangent[0] == pytest.approx([1, 0])


def test_transforms_nest_and_use_is_expanded():
    body = """<defs><path id="p" d="M0 0H10"/></defs>
      <g transform="translate(5 5) scale(2)"><use href="#p" x="1" transform="rotate(90)"/></g>"""
    line = measure(lines_from_svg(svg(body)).lines[0])
    assert line.length == pytest.approx(20)
    frame = frames_at(line, np.array([0.0]))
    assert frame.position[0] == pytest.approx([5, 7])
    assert frame.tangent[0] == pytest.approx([0, 1], abs=1e-12)


def test_a_skewed_circle_is_measured_as_the_ellipse_it_is():
    line = lines_from_svg(svg('<circle r="10" transform="matrix(1 0 .5 1 40 40)"/>')).lines[0]
    t = np.linspace(0, 2 * np.pi, 200_001)
    x, y = 10 * np.cos(t) + 5 * np.sin(t), 10 * np.sin(t)
    assert measure(line).length == pytest.approx(np.hypot(np.diff(x), np.diff(y)).sum(), rel=1e-8)


def test_what_is_hidden_or_only_defined_is_no_line():
    body = """<defs><path d="M0 0H9"/></defs><symbol><path d="M0 0H8"/></symbol><clipPath id="c"><path d="M0 0H7"/></clipPath>
      <g display="none"><path d="M0 0H6"/></g><path style="visibility:hidden" d="M0 0H5"/><path d="M0 0H4"/>"""
    assert lengths(body) == pytest.approx([4])


def test_a_line_without_length_keeps_its_place():
    assert lengths('<path d="M0 0H4M5 5L5 5M0 0V3"/>') == pytest.approx([4, 0, 3])


@pytest.mark.parametrize(
    ("attributes", "mm"),
    [('width="2in" height="1in"', 50.8), ('width="96" height="48"', 25.4), ('width="72pt" height="36pt"', 25.4),
     ('width="3cm" height="1.5cm"', 30), ('viewBox="0 0 96 48"', 25.4)],
)  # fmt: skip
def test_sizes_come_in_the_webs_units(attributes, mm):
    page = lines_from_svg(f'<svg xmlns="http://www.w3.org/2000/svg" {attributes}><path d="M0 0H1"/></svg>')
    assert page.width_mm == pytest.approx(mm)
    assert page.height_mm == pytest.approx(mm / 2)


def test_a_view_box_is_fitted_as_the_document_asks():
    def first_x(more):
        return measure(lines_from_svg(f'<svg xmlns="http://www.w3.org/2000/svg" width="200mm" height="100mm" viewBox="0 0 10 10" {more}>'
                                      '<path d="M0 0H10"/></svg>').lines[0])  # fmt: skip

    assert first_x("").line.start == pytest.approx([50, 0])
    assert first_x("").length == pytest.approx(100)
    assert first_x('preserveAspectRatio="none"').length == pytest.approx(200)
    assert first_x('preserveAspectRatio="xMinYMin slice"').line.start == pytest.approx([0, 0])


def test_styles_win_over_attributes_and_classes_are_read():
    motif = motif_from_svg(svg("""<style>.a{fill:#010203} path.b{stroke:rgb(10%,20%,30%);stroke-width:2}</style>
      <path class="a" fill="red" d="M0 0H9V9Z"/><path class="a b" style="fill:none" d="M0 0H9"/>
      <g fill="lime" opacity=".5"><path fill-opacity=".5" d="M0 0H9V9Z"/></g>"""))  # fmt: skip
    assert motif.shapes[0].fill.colour == "#010203"
    assert motif.shapes[1].fill is None
    assert (motif.shapes[1].stroke.paint.colour, motif.shapes[1].stroke.width) == ("#1a334d", 2)
    assert (motif.shapes[2].fill.colour, motif.shapes[2].fill.opacity) == ("#00ff00", 0.25)


def test_trimming_cuts_the_margin_and_tells_of_it():
    motif = trimmed(motif_from_svg(svg('<rect x="3" y="4" width="8" height="2"/>', 20, 10)), keep_base=False)
    assert (motif.width, motif.height, motif.base_line) == pytest.approx((8, 2, 1))
    assert motif.shapes[0].points.min(axis=0) == pytest.approx([0, 0])
    assert motif.left_out == ("Empty margin cut away: 3.0 mm left, 9.0 mm right, 4.0 mm above, 4.0 mm below.",)


def test_a_butt_stroke_ends_where_its_line_ends():
    box = ink_box(motif_from_svg(svg('<path d="M2 5H12" stroke="#000" stroke-width="4"/>', 20, 10)))
    assert box == pytest.approx((2, 3, 12, 7), abs=1e-3)  # a margin here would be a gap at every join
    box = ink_box(motif_from_svg(svg('<path d="M2 5H12" stroke="#000" stroke-width="4" stroke-linecap="round"/>', 20, 10)))
    assert box == pytest.approx((0, 3, 14, 7), abs=1e-3)


def test_the_box_of_a_curve_is_the_curves_not_its_handles():
    box = ink_box(motif_from_svg(svg('<path d="M0 10C0 -10 20 -10 20 10Z"/>', 20, 20)))
    assert box == pytest.approx((0, -5, 20, 10))


def test_what_cannot_be_kept_is_told():
    motif = motif_from_svg(svg("""<linearGradient id="g"><stop stop-color="#000"/><stop offset="1" stop-color="#fff"/></linearGradient>
      <rect width="9" height="9" fill="url(#g)"/><text font-family="Tide Script">hi</text><image href="data:image/png;base64,AA=="/>"""))  # fmt: skip
    assert motif.shapes[0].fill.colour == "#808080"  # the gradient's mean, for where one colour must do
    assert [s.colour for s in motif.shapes[0].fill.gradient.stops] == ["#000000", "#ffffff"]
    told = " ".join(motif.left_out)
    assert "Text in Tide Script was left out" in told
    assert "A picture was left out" in told


def test_a_quarter_turn_swaps_length_and_height():
    motif = turned(motif_from_svg(svg('<path d="M0 0H10V1H0Z"/>', 10, 4)), 90)
    assert (motif.width, motif.height, motif.base_line) == (4, 10, 5)
    assert ink_box(motif) == pytest.approx((3, 0, 4, 10))


LOOP = '<g id="a"><use href="#a"/></g>'
MANY = '<g id="a"><path d="M0 0H1"/></g>' + "".join(
    f'<g id="{b}">' + f'<use href="#{a}"/>' * 10 + "</g>" for a, b in zip("abcdefgh", "bcdefghi", strict=True)
)
BAD = {
    "not xml": ("hello", "it is not SVG"),
    "empty": ("", "it is not SVG"),
    "html": ("<html><body/></html>", "it is not SVG but something else"),
    "script": (svg("<script>alert(1)</script><path d='M0 0H9'/>"), "scripts are not taken in"),
    "handler": (svg("<path onclick='x()' d='M0 0H9'/>"), "onclick is a script"),
    "javascript": (svg("<a href='javascript:x()'><path d='M0 0H9'/></a>"), "outside the file"),
    "outside": (svg("<image href='http://example.invalid/a.png'/>"), "outside the file"),
    "local file": (svg("<image href='/etc/passwd'/>"), "outside the file"),
    "css outside": (svg("<style>@import 'x.css';</style>"), "outside the file"),
    "paint outside": (svg("<path fill='url(http://example.invalid/#a)' d='M0 0H9'/>"), "outside the file"),
    "entity bomb": ("<!DOCTYPE svg [<!ENTITY a 'aaaa'><!ENTITY b '&a;&a;&a;'>]>" + svg("<text>&b;</text>"), "declares a document type"),
    "late entity": (" " * 5000 + "<!DOCTYPE svg [<!ENTITY a SYSTEM 'file:///etc/passwd'>]>" + svg("&a;"), "declares a document type"),
    "self": (svg(LOOP), "“a” refers to itself"),
    "missing": (svg("<use href='#nowhere'/>"), "which is not in the file"),
    "billion": (svg(MANY), "more than 30000 elements|more than 50000"),
    "nested": (svg("<g>" * 150 + "<path d='M0 0H9'/>" + "</g>" * 150), "nested more than 100 deep"),
    "deeply nested": (svg("<g>" * 5000 + "</g>" * 5000), "it is not SVG"),
    "nan": (svg("<path d='M0 0LNaN 9'/>"), "not a number"),
    "infinite": (svg("<path d='M0 0L1e999 9'/>"), "not finite"),
    "infinite size": ('<svg xmlns="http://www.w3.org/2000/svg" width="1e999mm" height="9"/>', "not a finite length"),
    "nan box": ('<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 nan 9"/>', "not finite"),
    "zero size": ('<svg xmlns="http://www.w3.org/2000/svg" width="0" height="9"><path d="M0 0H9"/></svg>', "width or height is zero"),
    "zero box": ('<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 0 9"><path d="M0 0H9"/></svg>', "no width or no height"),
    "bad transform": (svg("<path transform='spin(3)' d='M0 0H9'/>"), "cannot be read"),
    "nothing": (svg(""), "it has no|nothing in it"),
    "only text": (svg('<text font-family="Tide Script">words</text>'), "it has no|nothing in it"),
}


@pytest.mark.thorough
@pytest.mark.parametrize("case", BAD)
@pytest.mark.parametrize("read", [lines_from_svg, motif_from_svg])
def test_bad_files_are_refused_in_a_sentence(case, read):
    data, says = BAD[case]
    with pytest.raises(InputError, match=says) as caught:
        read(data, where="leaf.svg")
    assert str(caught.value).startswith("leaf.svg")
    assert "\n" not in str(caught.value)


def test_more_than_ten_megabytes_are_refused_by_size():
    with pytest.raises(InputError, match=r"11\.0 MB is more than the 10 MB"):
        motif_from_svg(b" " * (11 * 1024 * 1024), where="leaf.svg")


def test_ink_without_width_or_height_is_refused_as_a_motif():
    with pytest.raises(InputError, match="no width or no height"):
        trimmed(motif_from_svg(svg('<path d="M0 5H9" fill="#000"/>')))


def test_a_letter_beyond_ascii_in_an_embedded_picture_leaves_it_out_in_words():
    link = "data:image/png;base64,iVBORw0é"
    motif = motif_from_svg(svg(f'<image href="{link}" width="3" height="3"/><rect width="2" height="2"/>', 10, 4))
    assert motif.left_out == ("A picture was left out: it is damaged.",)
