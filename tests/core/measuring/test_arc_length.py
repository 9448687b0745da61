"""Arc length, its inverse, direction and curvature against closed forms and an independent library."""

import numpy as np
import pytest
from scipy.integrate import quad
from scipy.special import ellipe
from svgpathtools import parse_path

from making import measured
from sewn_garland.core.errors import InputError
from sewn_garland.core.maths.quadrature import chebyshev_at, gauss, running_integral_matrix
from sewn_garland.core.measuring.arc_length import curvature_at, frames_at, frames_on, measure
from sewn_garland.core.measuring.smoothing import scaled
from sewn_garland.core.values.line import Line

WIGGLE = "M8 35C18 13 26 13 36 35S54 57 64 35S82 13 92 35"


def test_ellipse_perimeter_is_the_complete_elliptic_integral():
    a, b = 40.0, 12.0
    line = measured(f"M{a} 0A{a} {b} 0 0 1 {-a} 0A{a} {b} 0 0 1 {a} 0Z")
    exact = 4 * a * ellipe(1 - (b / a) ** 2)  # SciPy, special.ellipe
    assert line.length == pytest.approx(exact, rel=1e-12)


def test_circular_arc_is_radius_times_angle():
    line = measured("M30 0A30 30 0 0 1 0 30")
    assert line.length == pytest.approx(30 * np.pi / 2, rel=1e-14)
    assert line.tightest_radius == pytest.approx(30, rel=1e-12)


def test_parabola_has_its_closed_form():
    # y = x² from x = −1 to 1 as a quadratic; length √5 + asinh(2)/2 (any calculus text, from memory)
    assert measured("M-1 1Q0 -1 1 1").length == pytest.approx(np.sqrt(5) + np.arcsinh(2) / 2, rel=1e-13)


@pytest.mark.parametrize(
    ("speed", "whole"),
    [
        (lambda x: np.cosh(x), np.sinh(1.5) + np.sinh(0.5)),  # catenary y = cosh x: s = sinh x
        (lambda x: 2 * np.sin((x + 0.5) / 2), 4 - 4 * np.cos(1.0)),  # cycloid: ds = 2 sin(t/2) dt
        (lambda x: np.sqrt(1 + (x + 2) ** 2), quad(lambda x: np.sqrt(1 + (x + 2) ** 2), -0.5, 1.5)[0]),  # Archimedean spiral
    ],
)
def test_running_integral_reaches_closed_forms(speed, whole):
    nodes, _ = gauss(16)
    series = running_integral_matrix(16) @ speed(nodes + 0.5)
    total = chebyshev_at(series[:, None], np.array([1.0]))[0]
    assert total == pytest.approx(whole, rel=1e-11)
    assert chebyshev_at(series[:, None], np.array([-1.0]))[0] == pytest.approx(0, abs=1e-13)


def test_cubics_agree_with_adaptive_quadrature_and_an_independent_library():
    line = measured(WIGGLE)
    independent = parse_path(WIGGLE)
    by_quad = sum(quad(lambda t, s=s: abs(s.derivative(t)), 0, 1, epsabs=1e-12)[0] for s in independent)
    assert line.length == pytest.approx(by_quad, rel=1e-12)
    assert line.length == pytest.approx(independent.length(error=1e-10), rel=1e-7)


def test_inverse_is_as_exact_as_the_length():
    line = measured(WIGGLE)
    s = np.linspace(0, line.length, 501)
    frames = frames_at(line, s)
    independent = parse_path(WIGGLE)
    for i in (1, 77, 250, 333, 499):
        t = independent.ilength(s[i], s_tol=1e-10)
        assert complex(*frames.position[i]) == pytest.approx(independent.point(t), abs=1e-6)
    chords = np.hypot(*np.diff(frames.position, axis=0).T)
    assert (chords <= np.diff(s) + 1e-12).all()
    assert chords == pytest.approx(np.diff(s), rel=2e-4)


def test_a_cusp_gives_a_direction_and_a_finite_length():
    line = measured("M0 0C30 20 -10 20 20 0")  # the derivative vanishes half-way
    by_quad = quad(lambda t: abs(parse_path("M0 0C30 20 -10 20 20 0")[0].derivative(t)), 0, 1, points=[0.5], epsabs=1e-12)[0]
    assert line.length == pytest.approx(by_quad, rel=1e-9)
    frames = frames_at(line, np.linspace(0, line.length, 1001))
    assert np.isfinite(frames.position).all()
    assert np.hypot(*frames.tangent.T) == pytest.approx(1, abs=1e-9)


def test_coincident_control_points_still_have_directions():
    frames = frames_at(measured("M0 0C0 0 10 0 10 10"), np.array([0.0]))
    assert frames.tangent[0] == pytest.approx([1, 0], abs=1e-6)
    frames = frames_at(line := measured("M0 0C0 10 10 10 10 10"), np.array([line.length]))
    assert frames.tangent[0] == pytest.approx([1, 0], abs=1e-6)


def test_normal_points_to_the_right_of_travel_and_right_turns_bend_positively():
    line = measured("M10 0A10 10 0 0 1 0 10")  # clockwise on screen
    frames = frames_at(line, np.array([0.0, 5.0]))
    assert frames.tangent[0] == pytest.approx([0, 1], abs=1e-12)
    assert frames.normal[0] == pytest.approx([-1, 0], abs=1e-12)
    assert curvature_at(line, np.array([0.0, 5.0])) == pytest.approx(0.1, rel=1e-12)
    assert curvature_at(line, np.array([-1.0, line.length + 1])) == pytest.approx(0)


def test_closed_lines_wrap_and_open_ones_go_on_straight():
    ring = measured("M10 0A10 10 0 0 1 -10 0A10 10 0 0 1 10 0Z")
    assert frames_at(ring, np.array([ring.length + 3])).position == pytest.approx(frames_at(ring, np.array([3.0])).position)
    assert frames_at(measured("M0 0H10"), np.array([-2.0, 13.0])).position == pytest.approx(np.array([[-2, 0], [13, 0]]))


def test_vertices_carry_their_turn_also_where_a_closed_line_meets_itself():
    square = measured("M0 0H10V10H0Z")
    assert square.length == pytest.approx(40)
    assert square.vertex_s == pytest.approx([0, 10, 20, 30])
    assert np.degrees(square.vertex_turn) == pytest.approx(90)
    assert np.degrees(measured("M0 10H10V0").vertex_turn) == pytest.approx([-90])


def test_a_line_without_length_answers_with_its_start():
    nothing = measured("M5 6L5 6")
    frames = frames_at(nothing, np.array([0.0, 4.0]))
    assert nothing.length == 0
    assert frames.position == pytest.approx(np.array([[5, 6], [5, 6]]))


def test_several_lines_at_once_answer_as_each_alone():
    lines = [measured(WIGGLE), measured("M5 6L5 6"), measured("M0 0H10V10H0Z"), measured("M30 0A30 30 0 0 1 0 30")]
    which = np.array([0, 2, 3, 1, 0, 2, 3])
    s = np.array([0.0, 39.9, 47.0, 2.0, 1e9, 12.0, 0.0])
    together = frames_on(lines, which, s)
    for i, (k, distance) in enumerate(zip(which, s, strict=True)):
        alone = frames_at(lines[k], np.array([distance]))
        assert together.position[i] == pytest.approx(alone.position[0], abs=1e-9)
        assert together.tangent[i] == pytest.approx(alone.tangent[0], abs=1e-12)


@pytest.mark.parametrize("bad", [np.nan, np.inf, 1e12])
def test_numbers_that_cannot_be_measured_are_refused(bad):
    coeffs = np.zeros((1, 4, 2))
    coeffs[0, 1] = (bad, 0)
    with pytest.raises(InputError, match="not finite or beyond"):
        measure(Line(coeffs, np.zeros(1, bool), False, np.zeros(2)))


@pytest.mark.parametrize("factor", [1e-6, 1e-3, 1e5])
def test_length_scales_with_the_line(factor):
    line = measured(WIGGLE)
    assert measure(scaled(line.line, factor)).length == pytest.approx(line.length * factor, rel=1e-11)


def test_the_tightest_bend_is_the_largest_of_dense_samples_or_the_ellipse_s_closed_form():
    """Curvature of random cubics by finely sampled P′ × P″ / |P′|³; an ellipse bends most at the ends of its long axis, b²/a."""
    rng = np.random.default_rng(11)
    t = np.linspace(0, 1, 200_001)
    for _ in range(20):
        p = rng.uniform(-50, 50, 8)
        z = p[::2] + 1j * p[1::2]
        d1 = 3 * ((1 - t) ** 2 * (z[1] - z[0]) + 2 * t * (1 - t) * (z[2] - z[1]) + t**2 * (z[3] - z[2]))
        d2 = 6 * ((1 - t) * (z[2] - 2 * z[1] + z[0]) + t * (z[3] - 2 * z[2] + z[1]))
        sampled = (np.abs((d1.conj() * d2).imag) / np.abs(d1) ** 3).max()
        text = "M{} {}C{} {} {} {} {} {}".format(*p)
        assert 1 / measured(text).tightest_radius >= sampled * (1 - 1e-9)
        assert 1 / measured(text).tightest_radius == pytest.approx(sampled, rel=1e-4)
    for a, b, turn in ((30, 20, 0), (30, 20, 37), (5, 40, 71)):
        ring = measured(f"M0 0A{a} {b} {turn} 1 1 0.001 0Z")
        assert ring.tightest_radius == pytest.approx(min(a, b) ** 2 / max(a, b), rel=1e-6)
