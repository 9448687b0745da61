"""Bent pieces part by part, against one line known in closed form, NumPy's roots, and all points of a piece one by one."""

import numpy as np
import pytest
import shapely

from making import brush, measured, svg
from sewn_garland.core import lay as story
from sewn_garland.core.artwork.contours import contours_of
from sewn_garland.core.maths.outlines import bezier_at
from sewn_garland.core.reading.svg_motif import motif_from_svg
from sewn_garland.core.shaping.parts import parts_of
from sewn_garland.core.shaping.shaped import shaped
from sewn_garland.core.shaping.way import Warp, Way
from sewn_garland.core.values.tracks import JUMPS, ON, TURNS
from sewn_garland.core.values.widths import Widths

R, ARC = 0.8, 0.8 * np.pi / 2
BREAKS = np.array([0.0, ARC, 10 + ARC, 10 + 2 * ARC])  # it goes east, turns south, goes on for 10 mm, turns west


def turning_twice(piece, s):
    """East along y = 0 to x = 0, about (0, R) by a right angle, 10 mm to the south, about (R − R, …) by another, and on to the west."""
    k = np.where((s > 0) & (s < ARC) | (s > 10 + ARC) & (s < 10 + 2 * ARC), 1 / R, 0.0)
    turn = np.clip(s, 0, ARC) / R + np.clip(s - 10 - ARC, 0, ARC) / R
    tangent = np.exp(1j * turn)
    first = np.minimum(s, 0) + (np.exp(1j * np.clip(s, 0, ARC) / R) - 1) * R / 1j
    second = 1j * np.clip(s - ARC, 0, 10) + 1j * (np.exp(1j * np.clip(s - 10 - ARC, 0, ARC) / R) - 1) * R / 1j
    return first + second - np.maximum(s - 10 - 2 * ARC, 0), tangent, k


def straight_of(piece, low, high):
    return (high <= 0) | (low >= 10 + 2 * ARC) | (low >= ARC) & (high <= 10 + ARC)


def some_way(wide=1.0):
    """Three pieces, 20 mm to either side of their middles; what the second has before the line's first arc is not known."""
    s = np.array([-3.0, 4.0, 12.0])
    ends = np.array([-100.0, 100.0])
    as_wide = Widths(ends, np.full(2, wide), ends / wide, np.array([0, 2]), np.array([False]))
    warp = None if wide == 1 else Warp(as_wide, np.zeros(3, int), s / wide, across=False)
    table = [(i, (at - s[i]) / wide, what) for i in range(3) for at, what in zip(BREAKS, [TURNS, ON, TURNS, ON], strict=True)]
    table = np.array(table[:4] + table[5:])
    reach = np.array([np.full(3, -20.0), np.full(3, 20.0)])
    return Way(s, np.array([0.0, 0.3, -0.2]), turning_twice, warp, table[:, :2], table[:, 2].astype(int), reach, straight_of)


@pytest.mark.parametrize("wide", [1.0, 1.1])
def test_points_of_parts_go_where_those_of_their_pieces_do(wide):
    way, dice = some_way(wide), np.random.default_rng(3)
    parts = parts_of(way, np.arange(3))
    piece, x, v = np.sort(dice.integers(0, 3, 5000)), dice.uniform(-20, 20, 5000), dice.uniform(-2, 2, 5000)
    of = parts.at(piece, x)
    assert (parts.piece[of] == piece).all() and (parts.low[of] <= x).all() and (x <= parts.high[of]).all()
    assert parts.steady[3:].sum() == 13  # of fourteen
    assert np.abs(parts.way.places(of, x, v) - way.places(piece, x, v)).max() < 1e-12
    for found, true in zip(parts.way.moves(of, x, v), way.moves(piece, x, v), strict=True):
        assert np.abs(found - true).max() < 1e-12


def test_beyond_its_reach_a_piece_is_told_as_its_line_goes():
    """A stroke may reach further than the points that it runs along, and there the line may bend."""
    bending = Way(np.zeros(1), np.zeros(1), turning_twice, None, np.array([[0, -30.0], [0, -20.0]]), np.array([JUMPS, ON]),
                  np.array([[-9.0], [-1.0]]), straight_of)  # fmt: skip
    parts, x = parts_of(bending, np.array([0])), np.array([-5.0, 0.5])
    assert parts.steady[parts.at(np.zeros(2, int), x)].tolist() == [True, False]
    assert parts.way.places(parts.at(np.zeros(2, int), x), x, np.ones(2)) == pytest.approx(bending.places(np.zeros(2, int), x, np.ones(2)))


def test_what_reaches_past_a_break_is_a_piece_and_not_a_part():
    parts = parts_of(some_way(), np.array([0, 2]))
    of = parts.holding(np.array([0, 0, 2, 2]), np.array([-9.0, 2.0, -3.0, -9.0]), np.array([3.5, 2.5, 1.0, -2.0]))
    assert of[[0, 2]].tolist() == [0, 1] and parts.piece[of].tolist() == [0, 0, 2, 2]
    assert (of[[1, 3]] > 1).all() and (parts.high[of[1]], parts.low[of[3]]) == (3.0, ARC - 12)
    assert not parts.steady[:2].any()


def test_a_vertex_that_stays_sharp_is_crossed_in_a_part_that_nothing_is_bent_in():
    way = Way(np.zeros(1), np.zeros(1), turning_twice, None, np.array([[0, -1e-6], [0, 1e-6]]), np.array([JUMPS, ON]))
    assert parts_of(way, np.array([0])).even.tolist() == [False, False, True, False]


ROUND_AND_LONG = '<path d="M0 2C-3 -2 13 -2 10 2S-3 6 0 2Z" fill="#3a6"/>'  # its curves turn back along the line


@pytest.mark.parametrize(
    ("path", "most"),
    [("M0 0" + "l7 5l5 -7" * 40, 40), ("M0 0H95V3H0", 20), ("M0 0H40H3V30", 20), ("M0 0H60L0 0.3H60", 30), ("M30 0H60H3V30H-9V0Z", 30)],
    ids=["zigzag", "right angles", "straight back", "nearly back", "closed"],
)
@pytest.mark.parametrize("turn", [0.0, 33.0])
def test_pieces_that_pass_vertices_take_few_curves_and_lie_where_their_points_go(path, most, turn, monkeypatch):
    motif, told = motif_from_svg(svg(ROUND_AND_LONG, 10, 4)), []
    monkeypatch.setattr(story, "shaped", lambda *stages: told.append(shaped(*stages)) or told[-1])
    laid = story.lay(brush(motif, round_bends="bent", turn_deg=turn, ease="length"), [measured(path)])[0]
    drawn, count = laid.outlines, np.bincount(laid.outlines.piece, weights=np.diff(laid.outlines.starts) // 3)
    assert count.max() <= most  # of four curves each
    table, many = contours_of(motif, strokes=False), np.linspace(0, 1, 300)
    for piece in np.unique(drawn.piece)[::3].tolist():
        flat = bezier_at(table.cubics, many).reshape(-1, 2)
        true = shapely.MultiPoint(told[0].bends.places(np.array([piece]), flat)[0])
        own = np.flatnonzero(drawn.piece == piece)
        cubics = [np.stack([p[3 * k : 3 * k + 4] for k in range(len(p) // 3)]) for p in (drawn.points[a:b] for a, b in
                  zip(drawn.starts[own], drawn.starts[own + 1], strict=True))]  # fmt: skip
        bent = shapely.MultiLineString([np.concatenate(list(bezier_at(some, np.linspace(0, 1, 60)))) for some in cubics])
        off = shapely.distance(np.array(true.geoms), bent)
        assert off.max() < 0.011
