"""Bent travel, against closed forms: annular sectors, lengths, and sides of the line."""

from itertools import pairwise

import numpy as np
import pytest

from making import bar, brush, drawing, measured, svg
from sewn_garland.core.drawing.svg import compact_svg, plain_svg
from sewn_garland.core.lay import cured, lay
from sewn_garland.core.maths.curves import as_complex
from sewn_garland.core.maths.outlines import area_of, swept
from sewn_garland.core.measuring.arc_length import frames_and_bends_on, frames_on
from sewn_garland.core.reading.svg_lines import lines_from_svg
from sewn_garland.core.reading.svg_motif import motif_from_svg
from sewn_garland.core.shaping import bend as bending
from sewn_garland.core.shaping.way import Way
from sewn_garland.core.values.motif import Motif

R = 20.0
CLOCKWISE = f"M{R} 0A{R} {R} 0 0 1 {-R} 0A{R} {R} 0 0 1 {R} 0Z"
COUNTER = f"M{R} 0A{R} {R} 0 0 0 {-R} 0A{R} {R} 0 0 0 {R} 0Z"


def one_sided(height, width=10.0):
    """A bar that lies wholly to the right of its base line: a symmetric one would hide a wrong sign."""
    motif = bar(width, height)
    return Motif(motif.shapes, width, height, 0.0)


def bent(path, *motifs, **more):
    return lay(brush(*motifs, round_bends="bent", **more), [measured(path)])[0]


def cubics_of(outlines):
    """Return every cubic (m, 4, 2) of all contours."""
    out = [outlines.points[a:b] for a, b in zip(outlines.starts[:-1], outlines.starts[1:], strict=True)]
    return np.concatenate([np.stack([p[0:-1:3], p[1::3], p[2::3], p[3::3]], axis=1) for p in out])


def area(laid):
    return abs(swept(cubics_of(laid.outlines)).sum())


@pytest.mark.parametrize(("path", "inner"), [(CLOCKWISE, True), (COUNTER, False)])
@pytest.mark.parametrize("height", [0.5, 3.0, 12.0])
def test_a_bar_on_the_right_fills_a_ring_on_the_side_of_the_centre_only_when_it_turns_right(path, inner, height):
    """Area π(r² − (r − h)²), or its outer twin π((r + h)² − r²)."""
    laid = bent(path, one_sided(height), ease="length")
    edge = R - height if inner else R + height
    assert area(laid) == pytest.approx(np.pi * abs(R**2 - edge**2), rel=3e-4)
    reach = np.hypot(*cubics_of(laid.outlines).reshape(-1, 4, 2)[:, [0, 3]].reshape(-1, 2).T)
    assert (reach.min(), reach.max()) == pytest.approx(sorted((R, edge)), abs=1e-6)  # the spline of the line lies so close


def test_every_point_of_the_outline_is_within_tolerance_of_the_bent_one():
    """Points of a straight edge at v go to the circle of radius r − v (exact)."""
    laid = bent(CLOCKWISE, one_sided(6.0), ease="length")
    t = np.linspace(0, 1, 33)[:, None]
    basis = np.hstack([(1 - t) ** 3, 3 * t * (1 - t) ** 2, 3 * t**2 * (1 - t), t**3])
    radius = np.hypot(*(basis @ cubics_of(laid.outlines)).transpose(2, 0, 1))
    on_edge = (np.abs(radius - R) < 0.02).all(axis=1) | (np.abs(radius - (R - 6)) < 0.02).all(axis=1)
    across = np.ptp(radius, axis=1) > 5.9
    assert (on_edge | across).all()
    edges = radius[on_edge]
    assert np.minimum(np.abs(edges - R), np.abs(edges - (R - 6))).max() < 0.01


@pytest.mark.parametrize("seed", range(6))
def test_bent_curves_stay_within_tolerance_of_the_true_ones_on_random_bends(seed):
    """The true curve: points close together along the motif's own, each taken to the page by P(s) + v·N(s)."""
    rng = np.random.default_rng(seed)
    line, v = measured("M0 0C" + " ".join(f"{x} {y:.3f}" for x, y in zip((20, 30, 50), rng.uniform(-40, 40, 3), strict=True))), 1.5
    handles = " ".join(f"{x:.3f} {y:.3f}" for x, y in zip((2, 5, 8), rng.uniform(0, 2 * v, 3), strict=True))
    motif = motif_from_svg(svg(f'<path d="M0 {v}C{handles}" fill="none" stroke="#000" stroke-width=".01"/>', 8, 2 * v))
    laid = lay(brush(motif, round_bends="bent"), [line])[0]
    assert line.tightest_radius > v  # nothing folds
    t = np.linspace(0, 1, 400)[:, None]
    basis = np.hstack([(1 - t) ** 3, 3 * t * (1 - t) ** 2, 3 * t**2 * (1 - t), t**3])
    own = basis @ motif.shapes[0].points - (4, v)
    for piece, outlines in enumerate(laid.outlines.split(range(len(laid.pieces.s) + 1))):
        frames = frames_on([line], np.zeros(len(own), int), laid.pieces.s[piece] + own[:, 0])
        true = frames.position + own[:, 1:] * frames.normal
        drawn = (basis @ cubics_of(outlines)).reshape(-1, 2)
        assert np.hypot(*(true[:, None] - drawn[None]).T).min(axis=0).max() < 0.01 + 0.005  # drawn points lie up to 0.01 apart


def test_along_a_straight_line_nothing_changes():
    """Against the rigid piece under its matrix, to 1e-12 mm of the line's size."""
    motif = motif_from_svg(svg('<path d="M0 1C3 -2 6 5 9 1L12 4Q6 8 0 4Z" fill="#345"/>', 12, 6))
    laid = bent("M5 40L95 40", motif, ease="length", side_shift=1.5)
    shape = motif.shapes[0]
    first = cubics_of(laid.outlines.split([0, 1])[0])
    placed = laid.pieces.centre[0] + (shape.points - (6, 3)) * laid.pieces.scale[0]
    assert abs(swept(first).sum()) == pytest.approx(abs(area_of(shape.commands, placed)), rel=1e-12)
    assert first[0, 0] == pytest.approx(placed[0], abs=1e-12)
    assert first[0] == pytest.approx(placed[:4], abs=1e-12)


def test_neighbours_meet_in_the_same_points_on_any_bend():
    laid = bent("M0 0C40 90 80 -90 120 0", bar(10, 6), ease="length")
    ends = [cubics_of(own) for own in laid.outlines.split(range(len(laid.pieces.s) + 1))]
    for one, two in pairwise(ends):
        shared = min(np.hypot(*(a - b)) for a in one[:, 0] for b in two[:, 0])
        assert shared < 1e-9
    assert laid.joins.gap == pytest.approx(0.0, abs=1e-9)
    assert laid.joins.kink.max() < 1e-9


def test_a_bend_tighter_than_the_piece_reaches_folds_and_is_cured():
    line = measured("M0 0H40A2.5 2.5 0 0 1 40 5H0")
    which = brush(bar(10, 6), round_bends="bent")
    laid = cured(which, line, lay(which, [line])[0])
    fold = next(f for f in laid.findings if f.kind == "fold")
    assert fold.amount == pytest.approx(0.5)
    assert fold.message.startswith("folds 0.50 mm deep at")
    assert laid.safe_radius == 3.0
    assert fold.cures[0].label == "Smaller pieces, 83.3 %"


def test_a_wide_bend_on_the_thin_side_is_tight_but_does_not_fold():
    laid = bent("M0 5H40A2.5 2.5 0 0 0 40 0H0", one_sided(3.0))
    assert {f.kind for f in laid.findings} & {"fold", "tight bend"} == {"tight bend"}


def test_in_a_corner_a_bent_piece_turns_about_the_vertex_and_the_inner_side_folds():
    """The outer side of a bar of 6 mm fills a quarter disc of 3 mm more than its two legs."""
    laid = bent("M0 0H50V50", bar(10, 6))
    fold = next(f for f in laid.findings if f.kind == "fold")
    assert (fold.at_mm, fold.amount) == pytest.approx((50, 3))
    corner = laid.outlines.split([4, 6])[0]
    assert np.hypot(*(corner.points - (50, 0)).T).min() < 3.2
    outer = corner.points[(corner.points[:, 0] > 50.05) & (corner.points[:, 1] < -0.05)]
    assert len(outer) > 0
    assert np.hypot(*(outer - (50, 0)).T).max() < 3.3


@pytest.mark.parametrize("write", [compact_svg, plain_svg])
def test_bent_pieces_are_drawn_with_their_paints(write):
    motif = motif_from_svg(svg(
        '<defs><linearGradient id="g"><stop stop-color="#a00"/><stop offset="1" stop-color="#00a"/></linearGradient></defs>'
        '<rect width="10" height="4" fill="url(#g)"/><path d="M0 2H10" fill="none" stroke="#123456" stroke-width="2"/>', 10, 4))  # fmt: skip
    laid = bent("M10 50A40 40 0 0 1 90 50", motif, size=0.8)
    text = write(drawing(100, 100, ((motif,), laid)))
    assert text.count("<path ") == 2 * len(laid.pieces.s)
    assert text.count("<linearGradient ") == len(laid.pieces.s)  # each turned as its piece
    assert "stroke=" not in text  # outlined, in the stroke's paint
    assert text.count('fill="#123456"') == len(laid.pieces.s)
    closed = lines_from_svg(text.encode(), where="it").lines[0]
    assert closed.closed
    assert len(closed.coeffs) >= 4


@pytest.mark.parametrize(
    "path", ["M0 0C50 0 0 0 50 0.001", "M0 0H50H0", "M0 0h1e-3v1e-3h40", "M5 5", "M0 0A.1 .1 0 0 1 .2 0A.1 .1 0 0 1 0 0Z"]
)
def test_cusps_and_turns_back_give_finite_outlines(path):
    laid = bent(path, bar(3, 2), bar(1, 5), outside_corner="round", inside_corner="round")
    assert np.isfinite(laid.outlines.points).all()
    assert np.unique(laid.outlines.piece).tolist() == laid.outlines.pieces.tolist()  # the others lie straight and are stamped
    assert np.isfinite(laid.pieces.centre).all()


def test_round_corners_are_passed_at_the_radius_and_crowded_ones_are_told():
    laid = bent("M0 0H50V4H100", bar(10, 2), outside_corner="round", inside_corner="round", round_radius=5.0)
    assert [f.kind for f in laid.findings if f.kind == "crowded corner"] == ["crowded corner"] * 2
    laid = bent("M0 0H50V50", bar(10, 2), outside_corner="round", round_radius=5.0)
    assert laid.findings[0].kind == "leftover"
    assert laid.length == pytest.approx(100 - 10 + 5 * np.pi / 2)


def test_sides_with_their_handles_drawn_back_are_bent_as_sides_are():
    bodies = "M0.5 0L5.5 .3L6 2L0 2Z", "M0.5 0C0.5 0 5.5 .3 5.5 .3C5.5 .3 6 2 6 2C6 2 0 2 0 2C0 2 0.5 0 0.5 0Z"
    written = []
    for body in bodies:
        which = brush(motif_from_svg(svg(f'<path d="{body}" fill="#333"/>', 6, 2)), round_bends="bent")
        laid = lay(which, [measured("M0 0C30 60 60 -60 90 0")])[0]
        written.append(compact_svg(drawing(100, 100, (which.pieces.motifs, laid))))
    assert written[0] == written[1]


def test_what_is_known_of_halves_is_what_looking_them_up_tells():
    """The ends and thirds that halves have of their whole, against all of them asked of the line anew."""
    line = measured("M0 0C60 40 -20 40 40 0")

    def frame(piece, s):
        frames, curvature = frames_and_bends_on([line], np.zeros(len(s), int), s)
        return as_complex(frames.position), as_complex(frames.tangent), curvature

    way = Way(np.array([20.0, 45.0]), np.array([0.0, 3.0]), frame, None)
    rng = np.random.default_rng(2)
    whole, piece = rng.uniform(-9, 9, (6, 4)) + 1j * rng.uniform(-2, 2, (6, 4)), np.array([0, 0, 0, 1, 1, 1])
    never = np.zeros((6, 2), bool)
    known = bending._Known(bending._ends_of(whole, piece, way, never), bending._inside_of(whole, piece, way, bending.THIRDS))
    halves, of = (whole @ bending.HALVES).reshape(-1, 4), np.repeat(piece, 2)
    found = bending._of_halves(halves, of, known, way)
    assert found.ends == pytest.approx(bending._ends_of(halves, of, way, np.zeros((12, 2), bool)), abs=1e-11)
    assert found.inside == pytest.approx(bending._inside_of(halves, of, way, bending.THIRDS), abs=1e-11)


def test_no_handle_points_further_than_its_curve_goes_where_a_line_has_a_cusp():
    """The line turns back in one point: no cubic follows what lies beside it there, however small a part of it."""
    laid = bent("M0 0C40 40 0 40 40 0", bar(10, 4), kind="once_length")
    cubics = cubics_of(laid.outlines)
    chord = np.hypot(*(cubics[:, 3] - cubics[:, 0]).T)
    for handle in (cubics[:, 1] - cubics[:, 0], cubics[:, 2] - cubics[:, 3]):
        assert (np.hypot(*handle.T) <= chord + 1e-9).all()


def test_sides_that_pass_a_turn_straight_back_go_through_their_places_in_order():
    """Parts next to nothing long lie beside the vertex: one out of its turn would be a spike, there and back."""
    laid = bent("M0 0H50H0", bar(3, 2), kind="once_length", rows=[5.0], taper_end=20.0)
    for begin, end in pairwise(laid.outlines.starts.tolist()):
        ends = as_complex(laid.outlines.points[begin:end:3])
        back, off = np.abs(ends[2:] - ends[:-2]), np.abs(ends[1:-1] - ends[:-2])
        assert not ((back < 1e-9) & (off > 1e-3)).any()
