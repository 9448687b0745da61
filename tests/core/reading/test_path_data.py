"""Path data against SVG 2, chapter 9, and two independent readers."""

import re

import numpy as np
import pytest
import svgelements
from svgpathtools import parse_path

from making import bar, brush, drawing, measured
from sewn_garland.core.drawing.svg import compact_svg
from sewn_garland.core.errors import InputError
from sewn_garland.core.lay import lay
from sewn_garland.core.maths.curves import as_complex
from sewn_garland.core.measuring.arc_length import frames_at, measure
from sewn_garland.core.reading.path_data import subpaths_from_path_data
from sewn_garland.core.reading.svg_lines import line_from_path_data

GRAMMAR = [
    "M10 10 20 20 30 10",
    "m10,10l5 5-3 8.5.5-.5",
    "M0 0h10v10H0V0z",
    "M0 0C0 10 10 10 10 0S20-10 20 0",
    "M0 0c0 10 10 10 10 0s10-10 10 0",
    "M0 0Q5 10 10 0T20 0 30 0",
    "M0 0q5 10 10 0t10 0",
    "M0 0Q5 10 10 0L20 0T30 0",
    "M10 20A25 25 -30 0 1 60 10",
    "M10 20a25,10 30 1050,10",  # flags run together
    "M0 0A1 1 0 0 0 40 0",  # radii too small are scaled up
    "M0 0A-20 10 45 1 1 40 5",
    "M1e1 1E+1L2e1-1e-1",
]


@pytest.mark.parametrize("text", GRAMMAR)
def test_grammar_gives_the_points_of_an_independent_reader(text):
    line = measured(text)
    independent = parse_path(text.replace("1050,10", "1 0 50,10"))
    assert line.length == pytest.approx(independent.length(error=1e-9), rel=1e-6)
    ends = frames_at(line, np.array([0.0, line.length])).position
    assert complex(*ends[0]) == pytest.approx(independent.start)
    if not line.closed:
        assert complex(*ends[1]) == pytest.approx(independent.end)


@pytest.mark.parametrize("text", [t for t in GRAMMAR if "A" in t.upper()])
def test_arcs_agree_with_a_second_reader(text):
    arc = svgelements.Path(text)
    line = measured(text)
    middle = frames_at(line, np.array([line.length / 2])).position[0]
    near = min(abs(complex(*middle) - complex(p.x, p.y)) for p in (arc.point(t) for t in np.linspace(0, 1, 2001)))
    assert near < 0.05


def test_every_moveto_begins_a_subpath():
    subpaths = subpaths_from_path_data("M0 0L5 5M10 10L20 20ZL30 30M1 1")
    assert [len(s.segments) for s in subpaths] == [1, 2, 1, 0]
    assert [s.closed for s in subpaths] == [False, True, False, False]
    assert subpaths[2].start == pytest.approx([10, 10])


def test_very_many_sides_are_read_as_one_by_one_would_be():
    rng = np.random.default_rng(4)
    ends = rng.uniform(-90, 90, (400, 2)).round(3)
    text = "".join(f"L{x},{y}" for x, y in ends.tolist())
    subpath, after = subpaths_from_path_data(f"M1 2{text}Z L5-.5h2")
    theirs = parse_path(f"M1 2{text}Z")
    assert len(subpath.segments) == len(theirs) == 401
    assert (
        np.abs([segment[1] - (other.end.real, other.end.imag) for segment, other in zip(subpath.segments, theirs, strict=True)]).max() == 0
    )
    assert subpath.closed and not after.closed
    assert np.array(after.segments).tolist() == [[[1, 2], [5, -0.5]], [[5, -0.5], [7, -0.5]]]
    for wrong, says in (("L12", "number 2 is missing"), ("L1 2e999", "not finite"), ("L1,x2", "missing or not a number")):
        with pytest.raises(InputError, match=says) as told:
            subpaths_from_path_data(f"M1 2{text}{wrong}{text}" if wrong != "L12" else f"M1 2{text}{wrong}")
        assert int(re.search(r"character (\d+)", str(told.value))[1]) > len(text)


def test_closing_adds_the_way_back_only_where_there_is_one():
    assert len(subpaths_from_path_data("M0 0L5 0L5 5Z")[0].segments) == 3
    assert len(subpaths_from_path_data("M0 0L5 0L5 5L0 0Z")[0].segments) == 3


def test_empty_path_data_has_no_subpaths():
    assert subpaths_from_path_data("  \n ") == []


@pytest.mark.parametrize(
    ("text", "says"),
    [
        ("L10 10", "path data must begin with M"),
        ("M10", "“M” needs 2 numbers; number 2 is missing"),
        ("M0 0 X5", "“X” is not a path command at character"),
        ("M0 0LNaN 5", "number 1 is missing or not a number"),
        ("M0 0L1e999 5", "not finite or beyond"),
        ("M0 0A5 5 0 2 1 9 9", "number 4 is missing"),
        ("M0 0Z5 5", "a command letter was expected"),
    ],
)
def test_what_does_not_read_is_refused_where_it_stands(text, says):
    with pytest.raises(InputError, match=says):
        subpaths_from_path_data(text)


@pytest.mark.parametrize(
    ("drawn", "straight"),
    [
        ("M0 0C0 0 50 10 50 10C50 10 70 40 70 40", "M0 0L50 10L70 40"),  # handles drawn back into their ends
        ("M0 0C10 2 40 8 50 10", "M0 0L50 10"),  # handles on the way
        ("M0 0C40 8 10 2 50 10", "M0 0L50 10"),  # handles that cross, which only changes how fast it is drawn
        ("M0 0C0 0 10 2 50 10Z", "M0 0L50 10Z"),
        ("M0 0Q25 5 50 10", "M0 0L50 10"),
    ],
)
def test_a_curve_that_is_straight_is_a_side(drawn, straight):
    curved, plain = measured(drawn), measured(straight)
    assert curved.line.coeffs == pytest.approx(plain.line.coeffs, abs=1e-12)
    assert curved.tightest_radius is None
    which = brush(bar(6, 2), round_bends="bent")
    one, other = (compact_svg(drawing(100, 100, (which.pieces.motifs, lay(which, [line])[0]))) for line in (curved, plain))
    assert one == other


@pytest.mark.parametrize("bent", ["M0 0C-5 -1 20 4 50 10", "M0 0C0 0.0001 50 10 50 10", "M0 0C20 4 60 12 50 10"])
def test_what_doubles_back_or_bends_stays_a_curve(bent):
    assert measured(bent).line.coeffs[:, 2:].any()


@pytest.mark.parametrize("radius", [1e-3, 1e-12, 1e-200, 1e-320])
@pytest.mark.filterwarnings("error")
def test_radii_too_small_grow_to_a_half_circle_however_small_they_are(radius):
    """SVG 2, appendix B.2.5: both are scaled up until the ends lie on the ellipse."""
    line = measured(f"M0 0A{radius!r} {radius!r} 0 0 1 6 8")
    assert line.length == pytest.approx(np.pi * 5)
    assert measured(f"M0 0A{radius!r} {2 * radius!r} 0 0 1 6 0").tightest_radius == pytest.approx(3 * 3 / 6, rel=1e-4)  # b² / a of 3 × 6


@pytest.mark.parametrize("radii", ["1e-320 5", "5 1e-320", "1e8 1e-3", "0 4"])
@pytest.mark.filterwarnings("error")
def test_an_arc_with_next_to_no_radius_one_way_is_straight(radii):
    assert measured(f"M0 0A{radii} 0 0 1 6 8").length == pytest.approx(10)


def test_noise_too_small_to_be_seen_is_no_row_of_corners():
    """Two thousand sides of a fifth of a micrometre on the way, 100 mm and back: about as many corners as its extent has steps of 5 µm."""
    steps = np.random.default_rng(4).uniform(-1, 1, (2000, 2)) * 3e-4
    noise = "".join(f"l{x:.3g} {y:.3g}" for x, y in steps)
    line = measure(line_from_path_data(f"M0 0H50{noise}h50v-20"))
    assert len(line.vertex_s) < 30 and line.length == pytest.approx(120, abs=0.3)
    drift = as_complex(steps).sum()
    end = complex(*line.line.coeffs[-1].sum(axis=0))
    assert end == pytest.approx(100 - 20j + drift, abs=1e-3)


@pytest.mark.parametrize("path", ["M0 0h1e-6v1e-6h30v1e-6h-1e-6V20", "M0 0h.004v.004h-.004Z", "M0 0" + "h.004v.001" * 40])
def test_a_few_sides_however_short_stay_as_they_are_drawn(path):
    assert len(line_from_path_data(path).coeffs) == len(re.findall("[hvVZ]", path))


def test_a_line_of_nothing_but_noise_is_still_one():
    line = line_from_path_data("M0 0" + "h.001v.001h-.001v-.001" * 50)
    assert len(line.coeffs) == 200
