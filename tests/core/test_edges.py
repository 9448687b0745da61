"""Public functions with usual, empty, single, coincident, straight, cusp, closed, NaN, huge and tiny input."""

import numpy as np
import pytest

from making import bar, brush, drawing, measured, svg
from sewn_garland.core.assemble import drawing_of, painted, pieces_list
from sewn_garland.core.drawing.line_path import path_data_from_line
from sewn_garland.core.drawing.svg import compact_svg, path_data, plain_svg
from sewn_garland.core.drawing.tables import report
from sewn_garland.core.errors import CoreError, InputError, LimitError
from sewn_garland.core.inspecting.bends import safe_radius, size_for_radius
from sewn_garland.core.lay import cured, lay
from sewn_garland.core.making.framing import trimmed
from sewn_garland.core.maths.affine import IDENTITY, apply, compose, mean_scale
from sewn_garland.core.maths.bounds import outline_box, stroke_box
from sewn_garland.core.maths.curves import cubics_from_arc, end_directions, jets, power_from_bezier
from sewn_garland.core.measuring.arc_length import frames_at
from sewn_garland.core.measuring.changing import changed_line
from sewn_garland.core.measuring.smoothing import scaled, smoothed
from sewn_garland.core.reading.path_data import arc_from_endpoints
from sewn_garland.core.reading.svg_motif import motif_from_svg
from sewn_garland.core.reading.svg_source import share_from_text
from sewn_garland.core.reading.svg_transforms import transform_from_text
from sewn_garland.core.reading.svg_viewports import mm_from_length
from sewn_garland.core.values.brush import Brush, Pieces
from sewn_garland.core.values.motif import Motif
from sewn_garland.workshop.trial_lines import STEPS_MM, TRIAL_LINES, trial_width_mm

LINES = {
    "usual": "M8 35C18 13 26 13 36 35S54 57 64 35",
    "point": "M3 3L3 3",
    "bare moveto": "M3 3",
    "straight": "M0 0H80",
    "polyline with repeated points": "M0 0L10 0L10 0L20 5",
    "cusp": "M0 0C60 40 -20 40 40 0",
    "loop": "M0 0C90 60 -50 60 40 0",
    "closed": "M0 0H40V40H0Z",
    "there and back": "M0 0H50H0",
    "tiny": "M0 0L1e-7 0",
    "hair": "M0 0L.001 .001L.002 0",
    "huge": "M0 0C100000 300000 -200000 300000 500000 0",
    "spiral": "M50 50A5 5 0 0 1 60 50A10 10 0 0 1 40 50A15 15 0 0 1 70 50",
    "full turn": "M50 20A30 30 0 1 1 49.99 20",
}


@pytest.mark.thorough
@pytest.mark.parametrize("name", LINES)
@pytest.mark.parametrize("settings", [{"gap": 0.01}, {"ease": "gaps", "gap": -0.5}, {"ease": "size", "facing": "start", "side_shift": 5.0, "gap": 0.01},
                                      {"outside_corner": "butt", "inside_corner": "butt", "mirror": "every_second", "turn_deg": 33.0, "gap": 0.01}])  # fmt: skip
def test_every_line_is_laid_drawn_and_reported(name, settings):
    which, line = brush(bar(12, 5), size=40.0 if name == "huge" else 1.0, **settings), measured(LINES[name])
    laid = cured(which, line, lay(which, [line])[0])
    page = drawing(100, 100, (which.pieces.repeat, laid))
    assert compact_svg(page).count("<use") == len(laid.pieces.s)
    assert plain_svg(page).count("<g>") == len(laid.pieces.s)
    assert pieces_list([(which, laid)]).count("\n") == len(laid.pieces.s) + 1
    for text in (str(report([laid], 0.0)), compact_svg(page), pieces_list([(which, laid)])):
        assert "nan" not in text
        assert "inf" not in text.replace("info", "")
    assert all(finding.cures for finding in laid.findings)


@pytest.mark.parametrize("name", LINES)
def test_every_line_is_smoothed_scaled_and_written(name):
    line = measured(LINES[name])
    for over in (0.5, 5.0, 500.0):
        softer = smoothed(line, max(over, line.length / 300))
        assert np.isfinite(softer.coeffs).all()
        assert softer.closed == line.closed
    twice = measured(path_data_from_line(scaled(line.line, 2.0), decimals=9))
    assert twice.length == pytest.approx(2 * line.length, rel=1e-4, abs=1e-6)
    assert frames_at(twice, np.array([0.0])).position[0] == pytest.approx(line.line.start)


def test_a_line_may_be_taken_away_or_left_as_it_is():
    line = measured(LINES["usual"])
    assert changed_line(line, {"remove": True}) is None
    assert changed_line(line, {}) is line.line


def test_affine_maps_compose_inner_first():
    turn = transform_from_text("rotate(90)", where="t")
    move = transform_from_text("translate(10)", where="t")
    assert apply(compose(move, turn), np.array([[1.0, 0.0]])) == pytest.approx(np.array([[10.0, 1.0]]))
    assert apply(transform_from_text("translate(10) rotate(90)", where="t"), np.array([[1.0, 0.0]])) == pytest.approx(
        np.array([[10.0, 1.0]])
    )
    assert apply(transform_from_text("rotate(90 5 5)", where="t"), np.array([[5.0, 0.0]])) == pytest.approx(np.array([[10.0, 5.0]]))
    assert mean_scale(transform_from_text("scale(2 8)", where="t")) == pytest.approx(4)
    assert transform_from_text("", where="t") is IDENTITY
    assert apply(IDENTITY, np.zeros((0, 2))).shape == (0, 2)


@pytest.mark.parametrize(
    "text", ["scale()", "matrix(1 2 3)", "rotate(1 2)", "skewX(a)", "translate(1e999)", "scale(2", "spin(2)", "scale(2) nonsense"]
)
def test_transforms_that_do_not_read_are_refused(text):
    with pytest.raises(InputError, match="transform"):
        transform_from_text(text, where="leaf.svg")


@pytest.mark.parametrize(
    ("text", "mm"), [("25.4", 25.4 * 25.4 / 96), ("1in", 25.4), (" 2.5 cm ", 25), ("6pc", 25.4), ("40Q", 10), (None, None), ("auto", None)]
)
def test_lengths_in_the_webs_units(text, mm):
    assert mm_from_length(text, where="w") == (pytest.approx(mm) if mm is not None else None)


@pytest.mark.parametrize("text", ["ten", "5 furlong", "1e999", "--3"])
def test_lengths_that_are_none_are_refused(text):
    with pytest.raises(InputError, match="length"):
        mm_from_length(text, where="w")


@pytest.mark.parametrize(("text", "share"), [(None, 1), ("", 1), (".25", 0.25), ("40%", 0.4), ("-2", 0), ("9", 1), ("nan", 1), ("half", 1)])
def test_opacities_stay_within_0_and_1(text, share):
    assert share_from_text(text) == share


def test_arcs_with_degenerate_radii_follow_the_standard():
    begin, end = np.array([0.0, 0.0]), np.array([10.0, 0.0])
    assert arc_from_endpoints(begin, 5, 5, 0, False, True, begin) is None
    assert arc_from_endpoints(begin, 0, 5, 0, False, True, end) == pytest.approx(np.stack([begin, end]))
    grown = arc_from_endpoints(begin, 1, 1, 0, False, True, end)  # radii scaled up to reach
    assert np.hypot(*grown.a) == pytest.approx(5)
    assert abs(grown.sweep) == pytest.approx(np.pi)


def test_cubics_of_an_arc_stay_within_the_stated_error():
    for sweep in (0.3, 2.0, -4.0, 2 * np.pi):
        cubics = cubics_from_arc(np.zeros(2), np.array([100.0, 0]), np.array([0, 100.0]), 0.4, sweep)
        t = np.linspace(0, 1, 50)[:, None]
        for p in cubics:
            points = (1 - t) ** 3 * p[0] + 3 * t * (1 - t) ** 2 * p[1] + 3 * t**2 * (1 - t) * p[2] + t**3 * p[3]
            assert np.abs(np.hypot(*points.T) - 100).max() < 5e-6 * 100
        assert len(cubics) == int(np.ceil(abs(sweep) / (np.pi / 4) - 1e-9))


def test_jets_are_the_derivatives():
    rng = np.random.Generator(np.random.PCG64(3))
    coeffs = rng.uniform(-5, 5, (20, 4, 2))
    is_arc = np.arange(20) % 2 == 0
    t, h = rng.uniform(0.1, 0.9, 20), 1e-5
    p, d1, d2 = jets(coeffs, is_arc, t, order=2)
    ahead, behind = (jets(coeffs, is_arc, t + s, order=1) for s in (h, -h))
    assert (ahead[0] - behind[0]) / (2 * h) == pytest.approx(d1, rel=1e-5, abs=1e-5)
    assert (ahead[1] - behind[1]) / (2 * h) == pytest.approx(d2, rel=1e-4, abs=1e-4)
    assert jets(coeffs[:0], is_arc[:0], t[:0], order=2)[0].shape == (0, 2)
    assert p.shape == (20, 2)


def test_directions_where_the_derivative_vanishes():
    stuck = power_from_bezier(np.array([[[0, 0], [0, 0], [0, 0], [3, 4.0]]]))
    assert end_directions(stuck, np.zeros(1, bool), np.zeros(1))[0] == pytest.approx([0.6, 0.8])
    nothing = np.zeros((1, 4, 2))
    assert end_directions(nothing, np.zeros(1, bool), np.zeros(1))[0].tolist() == [1, 0]


def test_boxes_of_outlines_and_strokes():
    points = np.array([[0, 0], [10, 0], [10, 5], [0, 5.0]])
    assert outline_box("MLLLZ", points) == (0, 0, 10, 5)
    box = stroke_box("MLLLZ", points, width=2, cap="butt", join="miter", miter_limit=4)
    assert box == pytest.approx((-1, -1, 11, 6), abs=1e-3)
    dashed = stroke_box("ML", points[:2], width=2, cap="butt", join="miter", miter_limit=4, dashes=(3, 100))
    assert dashed == pytest.approx((0, -1, 3, 1), abs=1e-3)
    assert path_data("MLLLZ", points) == "M0 0L10 0L10 5L0 5Z"


def test_the_size_for_a_radius_meets_it():
    which = brush(bar())
    length, gap = np.array([10.0]), np.array([2.0])
    for radius in (5.0, 20.0, 45.0):
        factor = size_for_radius(which, radius, lengths=length, gaps=gap)
        assert safe_radius(which, lengths=length * factor, gaps=gap * factor, shift=0.0) == pytest.approx(radius, rel=1e-6)
    assert size_for_radius(which, 1e9, lengths=length, gaps=gap) == pytest.approx(1)


def test_trimming_keeps_the_base_line_on_the_artwork():
    motif = motif_from_svg(svg('<rect x="3" y="4" width="8" height="2"/>', 20, 10), base_line_mm=4.5)
    assert trimmed(motif).base_line == pytest.approx(0.5)
    assert trimmed(motif, keep_base=False).base_line == pytest.approx(1)
    assert trimmed(trimmed(motif)).left_out == trimmed(motif).left_out  # nothing left to cut, nothing to tell


def test_trial_lines_suit_the_brush_and_read_as_lines():
    assert len({t.key for t in TRIAL_LINES}) == 8
    assert all(measured(t.path).length > 50 for t in TRIAL_LINES)
    assert [trial_width_mm(p) for p in (0.1, 10, 1e6)] == [10, 150, STEPS_MM[-1]]
    assert trial_width_mm(4, height=8) == 100  # a rope's strands
    assert trial_width_mm(11.6, height=2) == 100  # stitches: nine of them, for they are flat
    assert trial_width_mm(6, height=6) == 80  # beads
    assert [trial_width_mm(10, step=s) for s in (-99, -1, 1, 99)] == [10, 100, 250, STEPS_MM[-1]]


def test_errors_say_where_before_what():
    error = InputError("it is empty", where="leaf.svg")
    assert str(error) == "leaf.svg: it is empty"
    assert isinstance(error, CoreError)
    assert isinstance(error, ValueError)
    assert str(InputError("alone")) == "alone"


@pytest.mark.parametrize("how", ["rigid", "bent", "jointed"])
@pytest.mark.parametrize("frame", [(10.0, 2.0, 1.0), (10.0, 0.0, 0.0)], ids=["frame", "flat frame"])
@pytest.mark.parametrize(
    "more", [{}, {"ease": "size"}, {"outside_corner": "mitre"}, {"kind": "once_length"}, {"order": "no_twin"}], ids=str
)
def test_a_motif_without_shapes_is_laid_and_drawn_as_nothing(how, frame, more):
    made = brush(Motif((), *frame), round_bends=how, **more)
    (laid,) = lay(made, [measured("M0 0H100V50")])
    assert len(laid.pieces.s)
    page = drawing_of(100, 100, [painted(made.pieces.motifs, laid)])
    for write in (compact_svg, plain_svg):
        assert "<path" not in write(page)
    assert np.isfinite(laid.joins.gap).all()


def test_no_lines_give_none_and_no_motif_is_refused_in_words():
    assert lay(brush(), []) == []
    with pytest.raises(InputError, match="has no motif to repeat; give it one"):
        lay(Brush("bare", Pieces(())), [measured("M0 0H10")])


def test_a_count_in_words_keeps_its_commas():
    with pytest.raises(LimitError, match=r"about 1 000 000 000 pieces, more than 2 000 000: widen"):
        lay(brush(Motif((), 1e-6, 1.0, 0.0)), [measured("M0 0H1000")])
