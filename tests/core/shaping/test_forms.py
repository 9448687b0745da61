"""Curves bent by closed forms, against the same curves bent by looking up where their points go, and against circles."""

import numpy as np
import pytest
import shapely

from making import brush, measured, svg
from sewn_garland.core.lay import lay
from sewn_garland.core.maths.curves import bernstein
from sewn_garland.core.reading.svg_motif import motif_from_svg
from sewn_garland.core.shaping import bend as bending
from sewn_garland.core.shaping.forms import bent_by_forms, placed_by_forms, steady
from sewn_garland.core.shaping.shaped import Detail

LEAF = '<path d="M0 2C-3 -2 13 -2 10 2S-3 6 0 2Z" fill="#3a6"/><rect x="3" y="1" width="4" height="2"/>'
ZIGZAG = "M0 0" + "l7 5l5 -7" * 40
WOUND = "M0 0C300 200 -100 200 200 0"


FINE = Detail(tolerance=0.02)  # also of what is longer than a metre
AS_WIDE, ONCE = {"width_along": [(0.0, 0.3), (0.5, 2.0), (1.0, 0.6)]}, {"kind": "once_length", "taper_start": 40.0}


def bent_both_ways(path, more, monkeypatch):
    """Return what is bent by forms, most of it, and the same with all of it looked up."""
    which, line = brush(motif_from_svg(svg(LEAF, 10, 4)), round_bends="bent", **more), measured(path)
    monkeypatch.setattr("sewn_garland.core.shaping.shaped.MANY_CURVES", 0 if path == WOUND else 10**9)
    monkeypatch.setattr(bending, "bent_together", lambda contours, own, *_: ([], own))  # which would take all of them
    rows = []

    def counted(*curves, **limits):
        rows.append(bent_by_forms(*curves, **limits))
        return rows[-1]

    monkeypatch.setattr(bending, "bent_by_forms", counted)
    by_forms = lay(which, [line], detail=FINE)[0].outlines
    assert sum(len(bent.row) for bent in rows) > 0.6 * sum(len(bent.row) + len(bent.left) for bent in rows)

    def nothing(cubics, form, forms, **limits):
        return bent_by_forms(cubics, np.full(len(form), -1), forms, **limits)

    monkeypatch.setattr(bending, "bent_by_forms", nothing)
    return by_forms, lay(which, [line], detail=FINE)[0].outlines


@pytest.mark.parametrize("more", [{}, {"size": 0.4, "gap": 0.3}])
def test_curves_bent_by_polynomials_are_those_that_looking_up_gives(more, monkeypatch):
    """As many, and to what splines and polynomials that stand for the line may stray: 1e-6 mm, and their slopes by more."""
    by_forms, looked_up = bent_both_ways(WOUND, more, monkeypatch)
    assert np.array_equal(by_forms.starts, looked_up.starts)
    assert np.abs(by_forms.points - looked_up.points).max() < 1e-5


@pytest.mark.parametrize("path", [ZIGZAG, ZIGZAG + "Z", "M0 0H40H3V30"])
@pytest.mark.parametrize("more", [{}, {"turn_deg": 33.0, "side_shift": 4.0}, AS_WIDE, ONCE])
def test_curves_bent_by_forms_run_where_those_do_that_looking_up_gives(path, more, monkeypatch):
    """Contour by contour within both tolerances of one another, by far more points than curves are tried at; and never in more curves."""
    by_forms, looked_up = bent_both_ways(path, more, monkeypatch)
    assert np.array_equal(by_forms.piece, looked_up.piece) and np.array_equal(by_forms.shape, looked_up.shape)
    assert (np.diff(by_forms.starts) <= np.diff(looked_up.starts)).all()
    ends = [outlines.points[outlines.starts[:-1]] for outlines in (by_forms, looked_up)]
    assert np.abs(ends[0] - ends[1]).max() < 1e-5
    for k in range(len(by_forms.piece)):
        one, two = (shapely.LineString(dense(outlines, k)) for outlines in (by_forms, looked_up))
        assert shapely.hausdorff_distance(one, two) < 2 * FINE.tolerance


def dense(outlines, contour, many=40):
    """Return points of a contour, so ``many`` a curve."""
    points = outlines.points[outlines.starts[contour] : outlines.starts[contour + 1]]
    cubics = np.stack([points[k : len(points) - 3 + k : 3] for k in range(4)])
    return np.einsum("tk,kmj->mtj", bernstein(np.linspace(0, 1, many)), cubics).reshape(-1, 2)


def one_arc(radius, *, low=-100.0, high=100.0):
    """A part that goes on from the origin to the east in an arc of some radius, to the right where that is positive."""
    return steady(*([value] for value in (low, high, 0.0, 0.0, 0j, 1 + 0j, 1 / radius, 0.0)))


@pytest.mark.parametrize("radius", [20.0, -20.0, 1e-3, 1e9])
def test_a_side_along_an_arc_becomes_a_circle_within_tolerance(radius):
    """Exact: what lies v off a circle of radius r lies on one of r − v about the same centre."""
    length = min(abs(radius) * np.pi, 50.0)
    side = np.array([[0, 1 / 3, 2 / 3, 1]]) * length + 2j
    found = bent_by_forms(side, np.zeros(1, int), one_arc(radius), tolerance=1e-4, most=10_000)
    assert len(found.left) == 0 and np.array_equal(found.cubics[1:, 0], found.cubics[:-1, 3])
    t = np.linspace(0, 1, 50)[:, None]
    points = ((1 - t) ** 3 * found.cubics[:, 0] + 3 * t * (1 - t) ** 2 * found.cubics[:, 1]
              + 3 * t**2 * (1 - t) * found.cubics[:, 2] + t**3 * found.cubics[:, 3])  # fmt: skip
    assert np.abs(np.abs(points - 1j * radius) - abs(radius - 2)).max() < 1.01e-4
    assert found.cubics[-1, 3] == pytest.approx(1j * radius + (2 - radius) * 1j * np.exp(1j * length / radius), abs=1e-6)


def test_what_lies_beyond_a_form_or_has_none_is_left():
    sides = np.array([[0, 1, 2, 3], [8, 9, 10, 11], [0, 1, 2, 3]]) + 0j
    found = bent_by_forms(sides, np.array([0, 0, -1]), one_arc(20.0, low=0.0, high=10.0), tolerance=0.01, most=100)
    assert found.left.tolist() == [1, 2] and set(found.row.tolist()) == {0}


def test_points_go_where_the_ends_of_curves_go():
    side = np.linspace(0, 30, 4)[None] + 3j
    bent = bent_by_forms(side, np.zeros(1, int), one_arc(20.0), tolerance=1e-4, most=100)
    nothing, none = np.zeros(1, int), np.zeros(0)
    [found], left = placed_by_forms(np.array([[0, 30, 101]]) + 3j, (nothing, nothing, none), nothing, nothing, one_arc(20.0))
    assert found[:2] == pytest.approx([bent.cubics[0, 0], bent.cubics[-1, 3]], abs=1e-12) and left.tolist() == [2]


def test_points_have_the_form_behind_their_breaks():
    """Two pieces with breaks at 10 and 20, and at 15: what is known of the first is behind its first break, of the second before its own."""
    points = np.array([[5, 10, 19, 20], [0, 14, 15, 16]]) + 0j
    breaks = np.array([0, 2]), np.array([2, 3]), np.array([10.0, 20.0, 15.0])
    left = placed_by_forms(points, breaks, np.array([0, 1]), np.array([-1, 0, -1, 0, -1]), one_arc(20.0))[1]
    assert left.tolist() == [0, 3, 6, 7]


def test_too_many_halves_are_told():
    side = np.array([[0, 30, 60, 90]]) + 500j
    assert bent_by_forms(side, np.zeros(1, int), one_arc(1.0), tolerance=1e-6, most=64) is None
