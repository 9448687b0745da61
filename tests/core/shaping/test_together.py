"""Pieces bent along a circle, which is known exactly: the point (x, v) goes to (R − v) at the angle (s + x) / R."""

import numpy as np
import pytest
import shapely

from making import bar, brush, measured, svg
from sewn_garland.core.artwork.contours import contours_of, curves_about
from sewn_garland.core.lay import lay
from sewn_garland.core.maths.outlines import bezier_at
from sewn_garland.core.reading.svg_motif import motif_from_svg
from sewn_garland.core.shaping import bend as bending
from sewn_garland.core.shaping import shaped
from sewn_garland.core.shaping.bend import bent_outlines
from sewn_garland.core.shaping.near import Near, near, near_points
from sewn_garland.core.shaping.together import bent_together, box_of
from sewn_garland.core.shaping.way import Way
from sewn_garland.core.values.variations import Variation

R = 30.0
LEAF = '<path d="M0 2C3 -1 7 -1 10 2S3 5 0 2Z M4 1.5L6 1.5L5 2.5Z" fill="#3a6"/><path d="M-1 2L11 2.5" stroke="#000" stroke-width=".4"/>'


def on_circle(piece, s):
    turn = 1j * np.exp(1j * s / R)
    return R * np.exp(1j * s / R), turn, np.full(len(s), 1 / R)


def exactly(s, shift, x, v):
    return (R - shift - v) * np.exp(1j * (s + x) / R)


def pieces_on_circle(n: int, seed: int, sizes=(0.1, 1.5)):
    """Where pieces lie, turned, mirrored, sized and swung at random, some wider than long."""
    rng = np.random.default_rng(seed)
    angle = rng.uniform(-np.pi, np.pi, n)
    turn = np.stack([np.stack([np.cos(angle), -np.sin(angle)], -1), np.stack([np.sin(angle), np.cos(angle)], -1)], 1)
    linear = turn * (rng.uniform(*sizes, (n, 2)) * rng.choice([-1, 1], (n, 2)))[:, None, :]
    return Way(rng.uniform(0, 2 * np.pi * R, n), rng.uniform(-8, 8, n), on_circle, None), linear


@pytest.mark.parametrize("strokes", [False, True])
@pytest.mark.parametrize("seed", range(3))
def test_bent_curves_lie_where_every_point_of_them_goes(strokes, seed):
    n, tolerance = 400, 0.01
    motif = motif_from_svg(svg(LEAF, 10, 4))
    way, linear = pieces_on_circle(n, seed)
    pieces = np.arange(n)
    drawn = bent_outlines([motif], np.zeros(n, int), linear, way, pieces, outlined=np.full(n, strokes), tolerance=tolerance)
    table = contours_of(motif, strokes=strokes)
    assert np.array_equal(np.unique(drawn.piece), pieces)
    few, many = np.linspace(0, 1, 9), np.linspace(0, 1, 120)
    for piece in range(0, n, 5):
        x, v = np.moveaxis(bezier_at(table.cubics, many) @ linear[piece].T, 2, 0)
        true = exactly(way.s[piece], way.shift[piece], x, v)
        true = shapely.MultiLineString([np.column_stack([line.real, line.imag]) for line in true])
        own = np.flatnonzero(drawn.piece == piece)
        bent = [drawn.points[drawn.starts[c] : drawn.starts[c + 1]] for c in own]
        cubics = np.concatenate([np.stack([points[3 * k : 3 * k + 4] for k in range(len(points) // 3)]) for points in bent])
        off = shapely.distance(shapely.points(bezier_at(cubics, few).reshape(-1, 2)), true)
        assert off.max() <= tolerance * 1.05
        assert shapely.hausdorff_distance(shapely.MultiPoint(bezier_at(cubics, many).reshape(-1, 2)), true) < 0.5


def test_most_small_pieces_are_bent_together_and_large_ones_are_left():
    motif = motif_from_svg(svg(LEAF, 10, 4))
    table = contours_of(motif, strokes=True)
    for sizes, share in (((0.05, 0.3), 0.95), ((20, 30), 0.0)):
        way, linear = pieces_on_circle(200, 5, sizes)
        pieces = np.arange(200)
        told = near(way, pieces, *box_of(table).reach(linear))
        parts, rest = ([], pieces) if isinstance(told, Way) else bent_together(table, pieces, linear, told, 0.01)
        bent = np.concatenate([part.pieces for part in parts] or [pieces[:0]])
        assert np.array_equal(np.sort(np.append(bent, rest)), pieces)
        assert len(bent) >= share * 200
        assert share > 0 or len(bent) < 20


def test_polynomials_say_where_points_go_within_a_millionth_and_at_both_ends_exactly():
    way, _ = pieces_on_circle(50, 1)
    rng = np.random.default_rng(2)
    pieces, half = np.arange(50), rng.uniform(0.01, 9, 50)
    told = near(way, pieces, -half, half, np.full(50, 3.0))
    assert isinstance(told, Near)
    assert (told.rows >= 0).sum() > 40
    piece, v = np.repeat(pieces, 41), rng.uniform(-3, 3, 50 * 41)
    x = (half[:, None] * np.linspace(-1, 1, 41)).ravel()
    true = exactly(way.s[piece], way.shift[piece], x, v)
    off = np.abs(told.places(piece, x, v) - true).reshape(50, 41)
    assert off.max() < 4e-6
    assert off[:, [0, -1]].max() < 1e-12
    place, by_x, by_v = told.moves(piece, x, v)
    h = R - way.shift[piece] - v
    assert np.abs(place - true).max() < 4e-6
    assert np.abs(by_v + true / h).max() < 4e-6
    assert np.abs(by_x - 1j * true / R).max() < 4e-5


def test_beyond_a_piece_the_way_itself_is_asked():
    way, _ = pieces_on_circle(3, 4)
    told = near(way, np.array([0, 2]), np.full(2, -1.0), np.full(2, 1.0), np.ones(2))
    piece, x, v = np.array([0, 0, 1, 2]), np.array([0.5, 7.0, 0.5, -40.0]), np.array([1.0, 1.0, 0.0, -2.0])
    assert np.abs(told.places(piece, x, v) - exactly(way.s[piece], way.shift[piece], x, v)).max() < 1e-6
    for found, true in zip(told.moves(piece, x, v), way.moves(piece, x, v), strict=True):
        assert np.abs(found - true).max() < 1e-5


def test_a_piece_in_which_its_line_turns_about_a_vertex_has_no_polynomial():
    way, _ = pieces_on_circle(3, 4)
    way = Way(way.s, way.shift, on_circle, None, np.array([[0, 0.5], [1, 1.0], [2, -3.0]]))
    told = near(way, np.arange(3), np.full(3, -1.0), np.full(3, 1.0), np.ones(3))
    assert (told.rows >= 0).tolist() == [False, True, True]


def test_many_points_of_a_piece_go_by_polynomials_and_few_by_the_way_itself():
    way, _ = pieces_on_circle(4, 4)
    rng = np.random.default_rng(0)
    pieces, x, v = np.array([2, 0]), rng.uniform(-2, 2, (2, 100)), rng.uniform(-1, 1, (2, 100))
    told, piece = near_points(way, pieces, x + 1j * v), np.repeat(pieces, 100)
    assert isinstance(told, Near)
    assert np.abs(told.places(piece, x.ravel(), v.ravel()) - exactly(way.s[piece], way.shift[piece], x.ravel(), v.ravel())).max() < 4e-6
    assert near_points(way, pieces, (x + 1j * v)[:, ::50]) is way
    assert near_points(way, pieces[:0], x[:0] + 1j) is way


def test_no_pieces_ask_the_way_itself():
    way, _ = pieces_on_circle(3, 4)
    nothing = np.zeros(0)
    assert near(way, nothing.astype(int), nothing, nothing, nothing) is way


@pytest.mark.parametrize(
    "more", [{}, {"taper_start": 60, "taper_to": 0.2}, {"mirror": "every_second", "facing": "start"}, {"side_shift": -6}]
)
@pytest.mark.parametrize("path", ["M0 0C40 60 60 -60 100 0S180 50 200 0", "M0 0C60 40 -20 40 40 0", "M0 0H60V50C90 50 90 0 120 0Z"])
def test_lines_are_drawn_the_same_whether_pieces_are_bent_together_or_curve_by_curve(path, more, monkeypatch):
    leaf = motif_from_svg(svg(LEAF, 10, 4))
    which, line = brush(leaf, bar(7, 3), round_bends="bent", size=0.3, **more), measured(path)
    drawn = []
    for many in (0, np.inf):
        monkeypatch.setattr(shaped, "MANY_CURVES", many)
        drawn.append(lay(which, [line])[0].outlines)
    together, apart = drawn
    for name in ("starts", "piece", "shape", "closed", "stroked", "pieces", "outlined"):
        assert np.array_equal(getattr(together, name), getattr(apart, name)), name
    assert np.abs(together.points - apart.points).max() < 5e-4  # of handles near a cusp; half of what is written


def test_pieces_that_are_many_to_a_stop_are_counted_as_many(monkeypatch):
    """A hundred at each of 26 stops; one at each is bent curve by curve."""
    leaf, line, together = motif_from_svg(svg(LEAF, 10, 4)), measured("M0 0C40 60 60 -60 100 0S180 50 200 0"), []
    many = Variation(of="count", between=(100.0, 100.0))
    which = brush(leaf, round_bends="bent").changed({"variations": (many,)})
    monkeypatch.setattr(bending, "bent_together", lambda *asked: together.append(len(asked[1])) or bent_together(*asked))
    laid = lay(which, [line])[0]
    assert len(laid.pieces.s) == 2600 and sum(together) == len(laid.pieces.s)
    few = lay(brush(leaf, round_bends="bent"), [line])[0]
    assert sum(together) == len(laid.pieces.s) and len(few.pieces.s) == 26


@pytest.mark.parametrize("dashes", ["", 'stroke-dasharray="1 .5"', 'stroke-dasharray="3 1 1 1"'])
def test_about_how_many_curves_there_are_is_told_without_outlining(dashes):
    motif = motif_from_svg(
        svg(f'<path d="M0 1C3 -2 7 4 10 1M0 2C3 5 7 -1 10 2" fill="none" stroke="#000" stroke-width=".4" {dashes}/>', 10, 4)
    )
    assert 0.5 < curves_about(motif) / len(contours_of(motif, strokes=True).cubics) < 2
