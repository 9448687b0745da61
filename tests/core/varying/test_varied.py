"""Brushes whose pieces vary, laid."""

import itertools
from dataclasses import replace

import numpy as np
import pytest
import scipy
import shapely

from making import bar, brush, measured, svg, with_short
from sewn_garland.core.errors import LimitError
from sewn_garland.core.lay import lay
from sewn_garland.core.reading.svg_motif import motif_from_svg
from sewn_garland.core.spacing import uneven
from sewn_garland.core.values.variations import Variation
from sewn_garland.core.varying.apart import MOST_ATTEMPTS, kept_apart

WAVE = "M0 0C60 -60 120 60 180 0S300 -60 360 0"


def varying(of, low, high, follows="chance", **more):
    return Variation(of=of, between=(low, high), follows=follows, **more)


def laid(path, *variations, apart=0.0, motifs=(), arrangement=1, **settings):
    made = with_short(brush(*(motifs or [bar()]), **settings), arrangement=arrangement)
    made = made.changed({"variations": tuple(variations), "looseness": {"keep_apart_mm": apart}})
    return lay(made, [measured(path)])[0]


SIZES = {
    "chance": [varying("size", 50, 100)],
    "fading": [varying("size", 100, 30, "pieces", over=12)],
    "in turns": [varying("size", 60, 100, "turns", over=3)],
    "several": [varying("size", 50, 100), varying("size", 40, 100, "turns"), varying("gap", 0, 40)],
    "along": [varying("size", 100, 20, "length"), varying("size", 70, 100)],
}


@pytest.mark.parametrize("name", SIZES)
@pytest.mark.parametrize("ease", ["leave", "gaps", "size"])
@pytest.mark.parametrize("gap", [0, 0.4, -0.2])
def test_pieces_of_unlike_sizes_keep_their_wish_on_a_straight_line(name, ease, gap):
    line = laid("M0 0H400", *SIZES[name], ease=ease, gap=gap, ease_limit=0.2)
    assert len(line.pieces.s) > 20
    assert np.ptp(np.abs(line.pieces.scale[:, 0])) > 0.3
    assert np.abs(line.joins.gap).max() < 1e-6
    ends = line.pieces.centre[:, 0] + line.pieces.scale[:, 0] * 5
    begins = line.pieces.centre[:, 0] - line.pieces.scale[:, 0] * 5
    truth = begins[1:] - ends[:-1]  # what is seen between the bars
    assert truth == pytest.approx(line.pieces.gap_after[:-1], abs=1e-6)
    if ease == "size":
        assert ends[-1] == pytest.approx(400, abs=1e-6)


@pytest.mark.parametrize("path", ["M0 0H60V60H0Z", "M0 0A30 30 0 0 1 60 0A30 30 0 0 1 0 0Z"])
def test_a_closed_line_closes_whatever_the_sizes(path):
    line = laid(path, varying("size", 50, 100), ease="size", ease_limit=0.2)
    assert len(line.joins.gap) == len(line.pieces.s)
    taken = (line.pieces.before + line.pieces.after + line.pieces.gap_after).sum()
    assert taken == pytest.approx(line.length, abs=1e-9)


@pytest.mark.parametrize("path", ["M0 0H40V3H0", "M0 0H3V3H6V6", "M0 0H4", "M3 3L3 3"])
@pytest.mark.parametrize("corner", ["lap", "butt", "piece"])
def test_runs_without_room_are_told_and_have_no_pieces(path, corner):
    line = laid(path, varying("size", 50, 100), outside_corner=corner, inside_corner=corner, outside_corner_piece=bar(6, 6),
                inside_corner_piece=bar(6, 6), ease="gaps")  # fmt: skip
    assert np.isfinite(line.pieces.matrices).all()
    assert len(line.pieces.s) > 5 or line.findings


def test_gaps_that_grow_with_the_way_go_by_the_place():
    line = laid("M0 0H400", varying("gap", 0, 100, "length"))
    ends = line.pieces.s + line.pieces.after
    assert line.pieces.gap_after[:-1] == pytest.approx(10 * ends[:-1] / 400, abs=1e-6)


def test_stops_are_numbered_with_start_and_corner_pieces():
    line = laid(
        "M0 0H100V100", varying("size", 50, 100, "turns"), outside_corner="piece", start_piece=bar(6), outside_corner_piece=bar(4, 4)
    )
    repeats = line.pieces.role == 0
    assert line.pieces.roles[[0, 1]].tolist() == ["start", "repeat"]
    assert line.pieces.stop.tolist() == list(range(len(line.pieces.s)))
    assert line.pieces.size[repeats].tolist() == np.where(line.pieces.stop[repeats] % 2 == 0, 0.5, 1.0).tolist()
    assert (line.pieces.size[~repeats] == 1).all()
    assert set(line.pieces.run.tolist()) == {0, 1}


def test_scattered_pieces_lie_every_pitch_and_off_it_by_what_varies():
    line = laid("M0 0H1000", varying("across", -300, 300), varying("along", -50, 50), kind="scattered", gap=0.25)
    assert line.pieces.s == pytest.approx(5 + 12.5 * np.arange(len(line.pieces.s)))
    across, along = line.pieces.centre[:, 1], line.pieces.centre[:, 0] - line.pieces.s
    assert scipy.stats.kstest(across, scipy.stats.uniform(-30, 60).cdf).pvalue > 0.01
    assert np.abs(along).max() <= 5
    assert not len(line.joins.gap)
    assert line.findings == ()


def test_across_is_to_the_right_of_travel_and_of_the_length_before_variation():
    line = laid("M0 0H100", varying("across", 50, 50, "length"), varying("size", 20, 20, "length"), kind="scattered")
    assert line.pieces.centre[:, 1] == pytest.approx(5)
    assert line.pieces.scale == pytest.approx(0.2)


def test_several_at_a_stop_have_draws_of_their_own():
    line = laid("M0 0H300", varying("count", 1, 4), varying("turn", 0, 360), kind="scattered")
    counts = np.bincount(line.pieces.stop)
    assert set(counts.tolist()) == {1, 2, 3, 4}
    assert len(set(np.round(line.pieces.turn, 9))) == len(line.pieces.s)
    assert [(s, k) for s, k in zip(line.pieces.stop, line.pieces.slot, strict=True)] == sorted(
        zip(line.pieces.stop.tolist(), line.pieces.slot.tolist(), strict=True)
    )


def test_count_rounds_half_up_and_none_leaves_the_stop_empty():
    line = laid("M0 0H100", varying("count", 0, 1, "turns"), kind="scattered")
    assert line.pieces.stop.tolist() == [1, 3, 5, 7, 9]
    assert len(laid("M0 0H100", varying("count", 1.5, 1.5), kind="scattered").pieces.s) == 20


def test_turn_squash_and_mirrors_say_how_a_piece_lies():
    line = laid("M0 0H100", varying("turn", 0, 90, "turns"), varying("squash", 50, 50), varying("mirror_up_down", 0, 100, "turns"))
    assert np.degrees(line.pieces.turn).tolist() == pytest.approx([0, 90] * 5)
    assert line.pieces.scale.tolist() == [[1, 0.5], [1, -0.5]] * 5


@pytest.mark.parametrize("bends", ["rigid", "bent"])
def test_what_varies_leaves_the_draws_of_the_rest_alone(bends):
    own = [varying("size", 50, 100), varying("turn", -20, 20)]
    one, two = laid(WAVE, *own, round_bends=bends), laid(WAVE, *own, varying("across", -20, 20), varying("hue", 0, 9), round_bends=bends)
    assert one.pieces.size.tolist() == two.pieces.size.tolist()
    assert one.pieces.swing.tolist() == two.pieces.swing.tolist()
    assert one.pieces.s.tolist() == two.pieces.s.tolist()


def test_drawing_on_at_the_end_moves_nothing_and_the_arrangement_all():
    own = [varying("size", 50, 100), varying("across", -90, 90), varying("gap", 0, 30)]
    short, long = laid("M0 0H200", *own), laid("M0 0H400", *own)
    n = len(short.pieces.s)
    assert long.pieces.matrices[:n].tolist() == short.pieces.matrices.tolist()
    assert laid("M0 0H200", *own, arrangement=2).pieces.size.tolist() != short.pieces.size.tolist()


@pytest.mark.parametrize("apart", [4.0, 9.0])
def test_pieces_are_kept_apart_and_those_without_room_told(apart):
    own = [varying("across", -200, 200), varying("along", -80, 80), varying("count", 2, 4)]
    free = laid("M0 0H200", *own, kind="scattered")
    line = laid("M0 0H200", *own, kind="scattered", apart=apart)
    pairs = scipy.spatial.cKDTree(line.pieces.centre).query_pairs(apart * (1 - 1e-12))
    assert not pairs
    assert scipy.spatial.cKDTree(free.pieces.centre).query_pairs(apart)
    gone = len(free.pieces.s) - len(line.pieces.s)
    told = [(f.kind, f.amount) for f in line.findings]
    assert told == ([("crowded", gone)] if gone else [])


def first_fit(attempts, least):
    """Take pieces in order, each in the first attempt that lies far enough from all taken before: by brute force."""
    taken, chosen = [], []
    for places in zip(*attempts, strict=True):
        fits = [k for k, place in enumerate(places) if all(np.hypot(*(place - other)) >= least for other in taken)]
        chosen.append(fits[0] if fits else -1)
        taken += [places[fits[0]]] if fits else []
    return chosen


@pytest.mark.parametrize("step", [0.3, 4.0, 40.0])
@pytest.mark.parametrize("attempts", [1, MOST_ATTEMPTS + 1])
def test_crowds_and_few_pieces_alike_take_the_first_room_there_is(step, attempts):
    """Brute force is the truth, for a block of pieces beside those of an earlier one."""
    rng = np.random.default_rng(attempts)
    path = np.stack([np.arange(400) * step, np.zeros(400)], axis=1)
    tries = [path + rng.normal(0, 6, (400, 2)) for _ in range(attempts)]

    def deal(numbers):
        return [replace(table, centre=tries[n]) for n in numbers]

    table = laid("M0 0H4000").pieces
    kept, gone = kept_apart(deal, 400, 9.0, moves=attempts > 1)
    truth = [tries[k][i] for i, k in enumerate(first_fit(tries, 9.0)) if k >= 0]
    assert kept.centre.tolist() == np.array(truth).tolist()
    assert len(gone) == 400 - len(truth) and 0 < len(truth) <= 400


@pytest.mark.parametrize("length", [6.0, 9.0, 43.0, 120.0])
@pytest.mark.parametrize("ease", ["leave", "gaps", "size", "length"])
def test_gaps_that_shrink_along_the_line_let_no_piece_reach_beyond_it(length, ease):
    line = laid(f"M0 0H{length}", varying("gap", -20, -400, "distance", over=length), ease=ease, ease_limit=0.1)
    ends = line.pieces.centre[:, 0] + 5 * line.pieces.scale[:, 0]
    assert ends.max(initial=0.0) <= length + 1e-6
    assert (len(ends) == 0) == (length < 9.0 or (length == 9.0 and ease in ("leave", "gaps")))


def test_pieces_too_small_to_see_are_not_laid():
    line = laid("M0 0H600", varying("size", 100, 0, "pieces", over=25))
    assert len(line.pieces.s) == 25
    assert line.pieces.size.min() == pytest.approx(0.04)


def test_a_net_of_rings_that_lies_loosely_says_where_rings_have_come_apart():
    """The truth is shapely's distance of discs of the pieces' own places."""

    ring = motif_from_svg(svg('<circle cx="5" cy="5" r="4" fill="none" stroke="#a33a2f" stroke-width="2"/>', 10, 10))
    near = laid("M0 0H199", varying("across", -5, 5), varying("turn", -10, 10), motifs=[ring], gap=-0.3)
    assert near.findings == ()
    far = laid("M0 0H199", varying("across", -120, 120), motifs=[ring], gap=-0.3)
    discs = [shapely.Point(x, y).buffer(5, quad_segs=64) for x, y in far.pieces.centre]
    truth = [a.distance(b) for a, b in itertools.pairwise(discs)]
    assert far.joins.gap == pytest.approx(truth, abs=0.02)
    assert {f.kind for f in far.findings} == {"gap"}


def test_more_pieces_than_may_be_laid_are_counted_before_any_is_dealt():
    with pytest.raises(LimitError, match="this spacing needs about 10 000 000 pieces"):
        laid("M0 0H1000000", varying("count", 1, 100), kind="scattered")
    with pytest.raises(LimitError, match="need more than 2 000 000 pieces"):
        laid("M0 0H1000000", varying("size", 2, 4))


def test_links_turn_about_the_middle_between_their_joints():
    still, turned = laid(WAVE, round_bends="jointed"), laid(WAVE, varying("turn", -20, 20), round_bends="jointed")
    middle = still.pieces.joints.mean(axis=1)
    assert turned.pieces.joints.mean(axis=1) == pytest.approx(middle, abs=1e-9)
    assert np.degrees(np.ptp(turned.pieces.turn - still.pieces.turn)) > 20


@pytest.mark.parametrize("ease", ["leave", "gaps", "size", "length"])
def test_runs_looked_at_together_are_filled_as_each_by_itself(ease, monkeypatch):
    """Gaps go by the direction of the line, at vertices that are passed through too; whole runs, short ones and ones too short."""
    dice = np.random.default_rng(4)
    jagged = measured("M0 0" + "".join(f"l{x:.3f} {y:.3f}" for x, y in dice.uniform(-30, 30, (60, 2))) + "C20 90 -40 90 60 0")
    gap = (Variation(of="gap", follows="direction", between=(0, 150)), Variation(of="gap", follows="length", between=(0, 40)))
    which = replace(
        brush(bar(4, 2), bar(3, 2), gap=0.2, ease=ease, corner_from_deg=60.0, outside_corner="mitre", inside_corner="mitre"), variations=gap
    )
    together = lay(which, [jagged])[0]
    alone = []
    monkeypatch.setattr(uneven, "MANY_RUNS", 10**9)
    monkeypatch.setattr(uneven._Row, "taken", lambda row, *some, known=uneven._Row.taken: alone.append(some) or known(row, *some))
    one_by_one = lay(which, [jagged])[0]
    assert len(alone) > 30
    assert np.array_equal(together.pieces.run, one_by_one.pieces.run) and len(together.pieces.s) > 150
    assert together.pieces.s == pytest.approx(one_by_one.pieces.s, abs=1e-7)
    assert together.joins.gap == pytest.approx(one_by_one.joins.gap, abs=1e-7)
