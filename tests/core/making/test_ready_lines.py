"""Ready lines against closed forms: lengths by SciPy and by hand, the catenary's and the wave's own equations, what is refused."""

import itertools

import numpy as np
import pytest
from scipy import integrate, special

from sewn_garland.core.errors import InputError
from sewn_garland.core.making.ready_lines import READY, begun, checked, path_of
from sewn_garland.core.measuring.arc_length import frames_at, measure
from sewn_garland.core.measuring.changing import sides_of
from sewn_garland.core.reading.svg_lines import line_from_path_data


def laid(shape, *, at=(0, 0), turn_deg=0.0, **figures):
    return measure(line_from_path_data(path_of(shape, figures, at, turn_deg)))


def places(line, count=400):
    return frames_at(line, np.linspace(0, line.length, count)).position


def test_an_ellipse_is_as_long_as_the_elliptic_integral_says():
    a, b = 60.0, 25.0
    assert laid("ellipse", width=2 * a, height=2 * b).length == pytest.approx(4 * a * special.ellipe(1 - (b / a) ** 2), rel=1e-5)


def test_a_spiral_is_as_long_as_its_integral_and_ends_where_it_should():
    inner, outer, turns = 5.0, 40.0, 3.25
    slope = (outer - inner) / (2 * np.pi * turns)
    truth = integrate.quad(lambda t: np.hypot(slope, inner + slope * t), 0, 2 * np.pi * turns)[0]
    line = laid("spiral", inner=inner, outer=outer, turns=turns)
    assert line.length == pytest.approx(truth, rel=2e-5)
    assert np.hypot(*places(line).T)[[0, -1]] == pytest.approx([inner, outer], abs=1e-5)


@pytest.mark.parametrize("sag", [0.2, 12.0, 90.0, 2000.0])
def test_a_swag_hangs_as_a_chain_does_between_its_pegs(sag):
    """Of every catenary s² = a² + 2·a·sag with s the arc from its bottom, and y = a·cosh(x/a)."""
    line = laid("swag", width=120, sag=sag, swags=1)
    x, y = places(line).T
    bottom = np.argmax(y)
    assert y[0] == pytest.approx(y[-1], abs=1e-5)
    assert y.max() - y[0] == pytest.approx(sag, rel=2e-3)
    half = line.length / 2
    a = (half**2 - sag**2) / (2 * sag)
    assert 2 * a * np.arcsinh(half / a) == pytest.approx(120, rel=2e-4)
    assert np.abs(y[bottom] - y - a * (np.cosh(x / a) - 1)).max() < 2e-3 * max(sag, 10)


def test_several_swags_meet_at_their_pegs():
    line = laid("swag", width=120, sag=10, swags=3)
    corners = line.vertex_s[np.abs(line.vertex_turn) > 0.3]
    assert frames_at(line, corners).position == pytest.approx(np.array([(-20, -5), (20, -5)]), abs=1e-5)


def test_a_wave_follows_the_sine():
    x, y = places(laid("wave", length=100, height=16, bows=4)).T
    assert np.abs(y + 8 * np.sin((x + 50) / 100 * 4 * np.pi)).max() < 2e-4


def test_polygons_stars_arches_and_rounded_rectangles_are_as_long_as_by_hand():
    assert laid("polygon", radius=30, sides=7).length == pytest.approx(7 * 2 * 30 * np.sin(np.pi / 7))
    side = np.sqrt(30**2 + 12**2 - 2 * 30 * 12 * np.cos(np.pi / 5))
    assert laid("star", radius=30, points=5, waist=40).length == pytest.approx(10 * side)
    assert laid("arch", width=40, height=50).length == pytest.approx(2 * 30 + np.pi * 20, rel=1e-5)
    assert laid("rectangle", width=80, height=50, rounded=10).length == pytest.approx(2 * 60 + 2 * 30 + 2 * np.pi * 10, rel=1e-5)
    assert laid("rectangle", width=20, height=20, rounded=99).length == pytest.approx(2 * np.pi * 10, rel=1e-5)  # all corner


@pytest.mark.parametrize("shape", READY)
def test_each_lies_in_the_middle_turned_and_moved_and_within_its_page(shape):
    figures = begun(shape, 148, 105)
    plain, moved = laid(shape, **figures), laid(shape, at=(30, 40), turn_deg=90, **figures)
    x, y = places(plain).T
    assert (np.abs(x) < 74).all()
    assert (np.abs(y) < 52.5).all()
    assert places(moved) == pytest.approx(np.stack([30 - y, 40 + x], axis=1), abs=1e-4)  # clockwise on the page
    assert plain.closed == (shape in ("rectangle", "ellipse", "polygon", "star"))


def test_random_figures_within_their_limits_are_drawn_finite_and_of_some_length():
    rng = np.random.default_rng(20)
    for _ in range(2_000):
        shape = str(rng.choice(list(READY)))
        own = {f.name: float(10 ** rng.uniform(np.log10(max(f.least, 1e-3)), np.log10(f.most))) for f in READY[shape].figures}
        path = path_of(shape, checked(shape, own), rng.uniform(-500, 500, 2), float(rng.uniform(-720, 720)))
        assert "nan" not in path
        assert "inf" not in path
        assert len(path) < 500_000


def test_what_it_has_not_or_goes_beyond_is_refused_by_name():
    with pytest.raises(InputError, match="no ready line “heptagon”; take one of rectangle, ellipse"):
        path_of("heptagon", {})
    with pytest.raises(InputError, match="star: it has no figure “sides”, but radius, points, waist"):
        path_of("star", {"sides": 5})
    with pytest.raises(InputError, match=r"polygon: sides must be from 3 to 60 \(came: 2\)"):
        path_of("polygon", {"sides": 2})


def test_the_sides_of_a_line_are_all_of_it_in_its_order():
    for line in (laid("rectangle", width=80, height=50, rounded=0), laid("star", radius=30), laid("swag", width=90, sag=9, swags=3)):
        sides = [measure(side) for side in sides_of(line, corner_from=np.radians(30))]
        assert sum(side.length for side in sides) == pytest.approx(line.length)
        assert len(sides) == {4: 4, 10: 10, 3: 3}[len(sides)]
        ends = [(places(side, 2)[0], places(side, 2)[1]) for side in sides]
        for (_, end), (begin, _) in itertools.pairwise(ends):
            assert end == pytest.approx(begin)
    smooth = laid("ellipse", width=50, height=20)
    assert sides_of(smooth, corner_from=np.radians(30)) == [smooth.line]
    hand_made = measure(line_from_path_data("M0 0H30A10 10 0 0 1 40 10V30L0 0Z"))  # begun at a corner, with an arc
    assert [round(measure(side).length, 3) for side in sides_of(hand_made, corner_from=np.radians(60))] == [65.708, 50.0]
