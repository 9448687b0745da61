"""Points and handles of an outline, and gradients over a box, against their closed forms."""

from __future__ import annotations

import numpy as np
import pytest

from sewn_garland.core.artwork.box import box_of
from sewn_garland.core.errors import InputError
from sewn_garland.core.making.nodes import (
    contours_of,
    outline_from_contours,
    with_handle_at,
    with_node_added,
    with_nodes_flowing,
    with_nodes_removed,
    with_nodes_squashed,
)
from sewn_garland.core.making.parts import with_gradient
from sewn_garland.core.making.starters import STARTERS, motif_from_starter
from sewn_garland.core.maths.outlines import area_of
from sewn_garland.core.values.motif import Paint, Shape

SQUARE = Shape("MLLLZ", np.array([[0.0, 0], [6, 0], [6, 6], [0, 6]]), fill=Paint("#4a6a5a"))
STOPS = [{"offset": 0.0, "colour": "#ffffff"}, {"offset": 1.0, "colour": "#223344"}]


def only(shape):
    (contour,) = contours_of(shape.commands, shape.points)
    return contour


def ellipse():
    return motif_from_starter("ellipse", {"length": 20, "height": 14}).shapes[0]


def sides(contour):
    """Return the control points (n, 4, 2) of a closed contour's sides."""
    return np.stack([contour.at, contour.out, np.roll(contour.into, -1, 0), np.roll(contour.at, -1, 0)], axis=1)


def bernstein(cubic, t):
    return np.array([(1 - t) ** 3, 3 * t * (1 - t) ** 2, 3 * t**2 * (1 - t), t**3]) @ cubic


@pytest.mark.parametrize("name", list(STARTERS))
def test_an_outline_taken_apart_into_points_goes_together_again(name):
    for shape in motif_from_starter(name).shapes:
        contours = contours_of(shape.commands, shape.points)
        commands, points = outline_from_contours(contours)
        again = contours_of(commands, points)
        assert area_of(commands, points) == pytest.approx(area_of(shape.commands, shape.points), abs=1e-9)
        for before, after in zip(contours, again, strict=True):
            assert after.closed == before.closed
            np.testing.assert_allclose(after.at, before.at, atol=1e-9)
            np.testing.assert_allclose(after.into, before.into, atol=1e-9)
            np.testing.assert_allclose(after.out, before.out, atol=1e-9)


@pytest.mark.parametrize("t", [0.2, 0.5, 0.9])
def test_an_added_point_lies_on_the_curve_and_leaves_it_as_it_was(t):
    before = only(ellipse())
    after = only(with_node_added(ellipse(), 0, 1, t))
    assert len(after.at) == len(before.at) + 1
    np.testing.assert_allclose(after.at[2], bernstein(sides(before)[1], t), atol=1e-12)
    for u in np.linspace(0, 1, 7):
        np.testing.assert_allclose(bernstein(sides(after)[1], u), bernstein(sides(before)[1], u * t), atol=1e-12)
        np.testing.assert_allclose(bernstein(sides(after)[2], u), bernstein(sides(before)[1], t + u * (1 - t)), atol=1e-12)


def test_a_flowing_point_turns_its_other_handle_along_and_a_pointed_one_does_not():
    before = only(ellipse())
    assert before.flowing.all()
    target = before.at[0] + (3.0, 4.0)
    after = only(with_handle_at(ellipse(), 0, 0, "out", *target))
    np.testing.assert_allclose(after.out[0], target)
    length = np.hypot(*(before.into[0] - before.at[0]))
    np.testing.assert_allclose(after.into[0], before.at[0] - np.array([0.6, 0.8]) * length, atol=1e-12)
    pointed = with_nodes_flowing(ellipse(), 0, [0], flowing=False)
    assert only(pointed).flowing.tolist() == [False] + [True] * (len(before.at) - 1)
    np.testing.assert_allclose(only(with_handle_at(pointed, 0, 0, "out", *target)).into[0], before.at[0])


def test_flowing_corners_of_a_square_run_with_its_diagonals():
    round_ = only(with_nodes_flowing(SQUARE, 0, [0, 1, 2, 3], flowing=True))
    # each corner's neighbours lie on a diagonal, and a handle is a third of a side: 2 mm
    np.testing.assert_allclose(round_.out[1] - round_.at[1], np.array([1, 1]) / np.sqrt(2) * 2, atol=1e-12)
    assert round_.flowing.all()


def test_points_are_squashed_about_their_middle_and_taken_out_down_to_two():
    np.testing.assert_allclose(only(with_nodes_squashed(SQUARE, 0, [0, 1], 50, 100)).at[:2], [[1.5, 0], [4.5, 0]])
    assert abs(area_of(*outline_from_contours([only(with_nodes_removed(SQUARE, 0, [2]))]))) == pytest.approx(18)
    with pytest.raises(InputError, match="at least two points"):
        with_nodes_removed(SQUARE, 0, [0, 1, 2])
    with pytest.raises(InputError, match="no point 9"):
        with_nodes_removed(SQUARE, 0, [9])


@pytest.mark.parametrize("angle", [0, 30, 90, 200])
def test_a_linear_gradient_just_spans_the_box(angle):
    motif = with_gradient(motif_from_starter("bar"), [0], kind="linear", stops=STOPS, angle_deg=angle)
    a, b, c, d, e, f = motif.shapes[0].fill.gradient.matrix
    left, top, right, bottom = box_of(motif.shapes)
    corners = np.array([[x, y] for x in (left, right) for y in (top, bottom)])
    offsets = np.linalg.solve([[a, c], [b, d]], (corners - (e, f)).T)[0]
    assert offsets.min() == pytest.approx(0, abs=1e-9)
    assert offsets.max() == pytest.approx(1)


def test_a_radial_gradient_ends_at_the_farthest_corner():
    motif = with_gradient(motif_from_starter("bar"), [0], kind="radial", stops=STOPS, centre_x_pct=20, centre_y_pct=0)
    left, top, right, bottom = box_of(motif.shapes)
    r, _, _, _, cx, cy = motif.shapes[0].fill.gradient.matrix
    assert (cx, cy) == pytest.approx((left + 0.2 * (right - left), top))
    assert r == pytest.approx(np.hypot(right - cx, bottom - cy))
