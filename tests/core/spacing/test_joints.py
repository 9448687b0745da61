"""Jointed travel: joints on the line, links of whole number, closing exactly."""

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from examples import examples
from making import bar, brush, measured
from sewn_garland.core import lay as laying
from sewn_garland.core.lay import lay
from sewn_garland.core.measuring.arc_length import frames_at, frames_on, measure
from sewn_garland.core.measuring.smoothing import line_from_points
from sewn_garland.core.reading.svg_lines import line_from_path_data
from sewn_garland.core.spacing import joints as solving
from sewn_garland.core.spacing.joints import RunsOfLinks, Ways, closing_chains, links_that_fit, on_runs
from sewn_garland.core.values.motif import Motif
from sewn_garland.workshop.trial_lines import TRIAL_LINES


def _on_runs(ways, runs):
    return ways.each(lambda curve: on_runs(curve, runs))


def link(length, wire=2.0, *, joints=True):
    """A link whose joints lie ``wire`` inside its ends, as chain is given by its inner length."""
    ends = ((wire, 4.0), (length + wire, 4.0)) if joints else None
    return Motif((), length + 2 * wire, 8.0, 4.0, joints=ends)


def chain(*lengths, ease="size", **more):
    return brush(*(link(n) for n in lengths), round_bends="jointed", ease=ease, **more)


def on(path, which):
    return lay(which, [measure(line_from_path_data(path))])[0]


def circle(r):
    return f"M{r} 0A{r} {r} 0 0 1 {-r} 0A{r} {r} 0 0 1 {r} 0Z"


def largest_opening(laid):
    joints = laid.pieces.joints
    apart = np.hypot(*(joints[1:, 0] - joints[:-1, 1]).T)
    if laid.closed:
        apart = np.append(apart, np.hypot(*(joints[0, 0] - joints[-1, 1])))
    return apart.max(initial=0.0)


@pytest.mark.parametrize("n", [3, 4, 7, 12, 100])
def test_links_round_a_circle_make_a_regular_polygon(n):
    """ℓ = 2r·sin(π/n): the side of a regular n-gon (closed form)."""
    r = 30.0
    laid = on(circle(r), chain(2 * r * np.sin(np.pi / n) * 1.001))
    assert len(laid.pieces.s) == n
    assert laid.pieces.factor[0] == pytest.approx(1 / 1.001, rel=1e-12)
    assert largest_opening(laid) < 1e-9
    assert laid.findings == ()


def test_on_a_straight_line_the_joints_keep_the_pitch_of_arc_length():
    laid = on("M0 0H100", chain(9.0, ease="leave"))
    assert len(laid.pieces.s) == 11
    assert laid.pieces.s == pytest.approx(4.5 + 9 * np.arange(11), abs=1e-12)
    assert [f.kind for f in laid.findings] == ["leftover"]
    assert laid.findings[0].amount == pytest.approx(1.0)
    assert on("M0 0H100", chain(9.0)).pieces.factor == pytest.approx(100 / 99)


@pytest.mark.parametrize(("rest", "first"), [("end", 0.0), ("both", 0.5), ("start", 1.0)])
def test_the_rest_of_an_open_chain_goes_where_it_is_told(rest, first):
    laid = on("M0 0H100", chain(9.0, ease="leave", rest=rest))
    assert laid.pieces.joints[0, 0] == pytest.approx([first, 0])


@pytest.mark.parametrize(("length", "rest"), [(15, "start"), (15, "both"), (18, "start")])
def test_a_chain_whose_rest_lies_before_it_does_not_run_past_the_end(length, rest):
    """On a narrow U turn links skip another stretch of line when they begin later: laid again they may come out longer."""
    line = measured("M0 0H71A6.7 6.7 0 0 1 71 13.4H-15")
    laid = lay(brush(bar(length), round_bends="jointed", ease="leave", rest=rest), [line])[0]
    end = (laid.pieces.s + laid.pieces.after)[-1]
    assert len(laid.pieces.s) > 7 and end <= line.length + 1e-6
    (left,) = [f for f in laid.findings if f.kind == "leftover"]
    assert left.amount == pytest.approx(line.length - end + laid.pieces.s[0] - laid.pieces.before[0])


def test_an_open_chain_ends_on_the_end_and_every_link_is_scaled_alike():
    laid = on("M0 0C40 60 80 -60 120 0", chain(7.0, 5.0))
    length = np.hypot(*(laid.pieces.joints[:, 1] - laid.pieces.joints[:, 0]).T)
    assert laid.pieces.joints[-1, 1] == pytest.approx([120, 0], abs=1e-9)
    assert length[0] / length[1] == pytest.approx(7 / 5)
    assert largest_opening(laid) < 1e-9


def test_two_links_in_turn_close_a_rounded_rectangle_in_whole_periods():
    path = "M15 0H205A15 15 0 0 1 220 15V55A15 15 0 0 1 205 70H15A15 15 0 0 1 0 55V15A15 15 0 0 1 15 0Z"
    laid = on(path, chain(12.0, 12.0))
    assert len(laid.pieces.s) % 2 == 0
    assert laid.pieces.motif.tolist() == [0, 1] * (len(laid.pieces.s) // 2)
    assert largest_opening(laid) < 1e-9
    assert laid.joins.gap.max() < 1e-9
    assert laid.safe_radius == 6.0
    assert laid.findings == ()


def test_leaving_reports_the_opening_where_a_chain_does_not_close():
    laid = on(circle(30), chain(10.0, ease="leave"))
    assert len(laid.pieces.s) == int(np.pi / np.arcsin(10 / 60))  # whole chords of 10 mm on the circle
    assert [f.kind for f in laid.findings] == ["leftover"]
    assert laid.joins.gap == pytest.approx(0.0, abs=1e-9)  # the opening is told once, as what is left over


def test_a_link_longer_than_the_bend_can_hold_is_found_with_the_radius_it_needs_and_cured():
    from sewn_garland.core.lay import cured

    line = measure(line_from_path_data("M10 22H72A3 3 0 0 1 72 28H10"))
    brush = chain(8.0, ease="leave")
    laid = cured(brush, line, lay(brush, [line])[0])
    tight = next(f for f in laid.findings if f.kind == "tight bend")
    assert tight.amount == pytest.approx(3.0)
    assert tight.message.endswith("this brush needs 4.0 mm")
    assert tight.cures[0].label == "Smaller pieces, 75 %"


def test_a_side_shift_moves_the_line_of_the_joints():
    laid = on(circle(30), chain(10.0, side_shift=-4.0))
    assert np.hypot(*laid.pieces.joints.reshape(-1, 2).T) == pytest.approx(34.0)
    assert largest_opening(laid) < 1e-9


@pytest.mark.parametrize("mirror", ["off", "up_down", "left_right", "every_second"])
def test_the_placed_motif_has_its_joints_on_the_line(mirror):
    """The motif's own joints under each piece's matrix, mirrored ones exchanged."""
    motif = Motif((), 20, 10, 4, joints=((3.0, 2.0), (18.0, 7.0)))
    line = measure(line_from_path_data("M0 0C60 90 120 -90 180 0"))
    laid = lay(brush(motif, round_bends="jointed", ease="size", mirror=mirror, size=0.8), [line])[0]
    own = np.array(motif.joints) - (10, 4)
    for (a, b, c, d, e, f), joints in zip(laid.pieces.matrices, laid.pieces.joints, strict=True):
        placed = own @ np.array([[a, b], [c, d]]) + (e, f)
        order = np.argsort(np.hypot(*(placed - joints[0]).T))
        assert placed[order] == pytest.approx(joints, abs=1e-9)
    assert largest_opening(laid) < 1e-9
    assert laid.pieces.where == pytest.approx(laid.pieces.joints.mean(axis=1))


def test_corners_divide_a_chain_into_runs_where_asked():
    laid = on("M0 0H60V60", chain(11.0, outside_corner="butt"))
    assert laid.runs == 2
    assert laid.pieces.joints[4, 1] == pytest.approx([60, 0], abs=1e-9)
    assert laid.pieces.run.tolist() == [0] * 5 + [1] * 5


@given(st.integers(0, 2**31), st.floats(1, 9), st.booleans(), st.sampled_from(["leave", "size"]))
@settings(max_examples=examples(40), deadline=None)
def test_joints_meet_lie_on_the_line_and_keep_their_order(seed, length, closed, ease):
    """Over smooth lines whose bends are wider than the link."""
    rng = np.random.default_rng(seed)
    angle = np.linspace(0, 2 * np.pi if closed else 5, 9, endpoint=not closed)
    radius = 60 + rng.uniform(-9, 9, 9)
    line = measure(line_from_points(np.stack([radius * np.cos(angle), radius * np.sin(angle)], axis=1), np.ones(9, bool), closed=closed))
    laid = lay(chain(length, length * 0.7, ease=ease, ease_limit=0.5), [line])[0]
    joints = laid.pieces.joints
    if line.tightest_radius < length:
        return
    assert np.hypot(*(joints[1:, 0] - joints[:-1, 1]).T).max() < 1e-9
    if ease == "size":
        assert len(joints) % 2 == 0 or not closed
        assert joints[-1, 1] == pytest.approx(joints[0, 0] if closed else frames_at(line, np.array([line.length])).position[0], abs=1e-8)
    assert (np.diff(laid.pieces.s) > 0).all()
    fine = frames_at(line, np.linspace(0, line.length, 20_000)).position
    nearest = min(np.hypot(*(fine - joints[len(joints) // 2, 0]).T))
    assert nearest < line.length / 20_000


def test_ten_thousand_corners_are_answered_and_every_run_has_its_links():
    steps = np.cumsum(np.ones((10_001, 2)) * 6.5, axis=0)
    zigzag = "M0 0" + "".join(f"L{x:.3f} {6.5 * (i % 2)}" for i, x in enumerate(steps[:, 0]))
    laid = on(zigzag, chain(3.0, outside_corner="butt", inside_corner="butt"))
    assert laid.runs == 10_001
    assert len(laid.pieces.s) == 2 + 3 * 10_000  # 9.19 mm a run: three links, 2 % larger; the first one is 6.5 mm
    assert np.isfinite(laid.pieces.joints).all()


def test_links_past_hairpins_and_cusps_give_findings_and_no_nan():
    for path in ("M0 0L50 0L0 0.1", "M0 0C50 0 0 0 50 0.001", "M0 0h1e-3v1e-3h40l-40 1", "M0 0A.1 .1 0 0 1 .2 0A.1 .1 0 0 1 0 0Z"):
        for length in (0.05, 3.0, 400.0):
            laid = on(path, chain(length))
            assert np.isfinite(laid.pieces.joints).all()
            assert (np.diff(laid.pieces.s) >= 0).all()


def test_a_link_that_no_place_is_far_enough_for_is_told_to_be_too_long():
    laid = on("M0 36L1 0Z", chain(24, ease="leave"))  # there and back: from 24 mm on the line goes no farther than 24 mm away
    kinds = {f.kind: f.at_mm for f in laid.findings}
    assert kinds["tight bend"] == pytest.approx(24)
    past = on("M0 0H80H0", chain(24, ease="leave"))  # the last link would end past the line: what is left over, and no tight bend
    assert not any(f.kind == "tight bend" for f in past.findings)
    assert np.hypot(*(past.pieces.joints[1:, 0] - past.pieces.joints[:-1, 1]).T).max() < 1e-8


def test_links_that_grow_along_a_taper_keep_their_order_past_a_hairpin():
    """Where they are sought, their lengths are those of where they come to lie: each is as wide as the line half-way between its joints."""
    laid = on("M116 0Q97 26 108 1L0 40V0", chain(8, ease="leave", taper_start=300.0, width_along=((0.0, 0.5),)))
    assert (np.diff(laid.pieces.s) > 0).all() and (np.diff(laid.pieces.scale[:, 0])[6:] > 0).all()
    (left,) = [f for f in laid.findings if f.kind == "leftover"]
    assert left.amount < 8


def test_joints_are_sought_to_the_end_of_a_line_far_longer_than_its_tight_bend():
    laid = on("M-194.5 0A0.375 23 10 0 1 52 166Z", chain(4, ease="leave"))  # an ellipse 17 m round, whose ends a link just passes
    assert len(laid.pieces.s) > 4200
    (left,) = laid.findings
    assert left.kind == "leftover"
    openings = np.hypot(*(np.roll(laid.pieces.joints[:, 0], -1, axis=0) - laid.pieces.joints[:, 1]).T)
    assert openings[:-1].max() < 1e-8 and openings[-1] == pytest.approx(left.amount, rel=0.01)  # the one opening is what is left over


def test_beyond_the_ends_of_an_open_run_its_line_goes_straight_on():
    square = measure(line_from_path_data("M0 0H10V10H0Z"))

    def curve(run, s):
        frames = frames_at(square, s)
        return frames.position, frames.tangent

    runs = RunsOfLinks(np.array([10.0, 0.0]), np.array([10.0, 40.0]), np.array([False, True]))
    along = on_runs(curve, runs)
    place, way = along(np.array([0, 0, 0, 1]), np.array([8.0, 15.0, 23.0, 13.0]))
    assert place == pytest.approx(np.array([[10.0, -2.0], [10.0, 5.0], [10.0, 13.0], [10.0, 3.0]]), abs=1e-6)
    assert way == pytest.approx(np.array([[0.0, 1.0]] * 4))


def test_links_between_mitres_do_not_look_round_the_corner():
    """By hand: a leg of 5√2 mm holds three links of 2 mm and leaves 1.07 mm, whatever comes after its corner."""
    zigzag = "M0 0" + "".join(f"l5 {-5 if i % 2 else 5}" for i in range(6))
    laid = on(zigzag, chain(2, ease="leave", outside_corner="mitre", inside_corner="mitre"))
    assert np.bincount(laid.pieces.run).tolist() == [3] * 6
    assert [round(f.amount, 2) for f in laid.findings if f.kind == "leftover"] == [1.07] * 6
    assert not [f for f in laid.findings if f.kind == "tight bend"]


@pytest.mark.parametrize("size", [1.0, 9.0, 29.0, 60.0])
def test_where_no_bend_is_tight_enough_nothing_is_overtaken(size):
    """Links of up to 1.2 times the tightest radius need no test: with it, all the same, none is found blocked, by eight places a link."""
    line = measured("M0 0c30 20 70 20 100 0s70 -20 100 0s40 60 0 70")
    gentle = 1.2 * line.tightest_radius
    ways = Ways.along(lambda track, s: frames_on([line], track, s), None, np.zeros(1, int))
    found = []
    for known in (None, np.array([gentle])):
        runs = RunsOfLinks(np.zeros(1), np.array([line.length]), np.zeros(1, bool), None, known)
        found.append(links_that_fit(_on_runs(ways, runs), runs, np.array([size]), np.zeros(1)))
    assert found[0].s == pytest.approx(found[1].s, abs=1e-9)
    if size <= gentle:
        assert np.isnan(found[0].blocked).all()
    assert np.array_equal(found[0].blocked, found[1].blocked, equal_nan=True)


def test_a_chain_that_is_to_fit_its_run_is_not_given_up_for_coming_nearer_slowly(monkeypatch):
    """Only one whose factors are fixed is: its joints can be sought along the line instead, of as many links."""
    which, lines = chain(9.0, 5.0), [measure(line_from_path_data(line.path)) for line in TRIAL_LINES]
    before = [line.pieces.centre for line in lay(which, lines)]
    monkeypatch.setattr(solving, "STALLED_ROUNDS", 0)
    for centres, now in zip(before, lay(which, lines), strict=True):
        assert now.pieces.centre == pytest.approx(centres, abs=1e-6)


@pytest.mark.parametrize("ease", ["leave", "size"])
def test_joints_sought_near_a_line_lie_on_the_line_itself(ease, monkeypatch):
    """By the line alone, without its spline: on an ellipse, past a hairpin that a link cannot follow, and in runs between corners."""
    paths = ["M0 0A40 15 0 0 1 80 0A40 15 0 0 1 0 0Z", "M0 0C120 0 120 3 0 3S60 80 160 60", "M0 0C30 20 70 20 90 0L110 60C80 90 60 60 0 70"]
    which = chain(2, 3, ease=ease, size=0.1, outside_corner="butt", inside_corner="butt")
    told, ask = [], laying.frames_near
    monkeypatch.setattr(laying, "frames_near", lambda *args, **curves: told.append(ask(*args, **curves)) or told[-1])
    near = [on(path, which) for path in paths]
    assert len(told) == len(paths) and None not in told  # it pays on all of them
    monkeypatch.setattr(laying, "frames_near", lambda *_, **__: None)
    for path, found in zip(paths, near, strict=True):
        alone = on(path, which)
        assert len(found.pieces.s) > 300
        assert found.pieces.joints == pytest.approx(alone.pieces.joints, abs=1e-9)
        assert found.pieces.factor == pytest.approx(alone.pieces.factor, abs=1e-12)
        assert [(f.kind, f.count) for f in found.findings] == [(f.kind, f.count) for f in alone.findings]


@pytest.mark.parametrize(("path", "count", "factor"), [
    ("l20 -20l5 -25l5 10l25 -25l20 0l10 25l20 -5l20 10l20 -5l15 -10l5 10l5 15", 25, 0.937),
    ("l20 -5l15 -25l20 0l10 -5l5 20l5 20", 11, 1.044),
    ("l10 25l15 20l5 -10l10 -25l15 10l5 -5l15 5l15 -5l10 -20l20 -20l10 -10l10 15l10 -10", 25, 0.909),
])  # fmt: skip
def test_a_chain_takes_a_link_more_or_less_whichever_can_pass(path, count, factor):
    """On corners a chain of the nearest count is blocked, and so is the one that its factor points to; the other is not."""
    laid = on("M0 0" + path, chain(10.0, ease_limit=0.15))
    assert (len(laid.pieces.s), round(float(laid.pieces.factor[0]), 3), laid.findings) == (count, factor, ())
    assert largest_opening(laid) < 1e-9
    steps = np.array([complex(*map(float, step.split())) for step in path.split("l")[1:]])
    assert laid.pieces.joints[-1, 1] == pytest.approx([steps.sum().real, steps.sum().imag], abs=1e-9)
    assert np.hypot(*np.diff(laid.pieces.joints, axis=1)[:, 0].T) == pytest.approx(10 * laid.pieces.factor, rel=1e-9)


def test_a_chain_whose_links_go_astray_is_soon_given_up():
    """On four hundred corners of a third of a turn no factor is found; what is laid then are links of full size, and a rest."""
    line = measured("M0 0" + "".join(f"l{8 + k % 5} {(8 + k % 5) * (1.732 if k % 2 else -1.732):.3f}" for k in range(400)))
    asked = []

    def counted(track, s):
        asked.append(len(s))
        return frames_on([line], track, s)

    runs = RunsOfLinks(np.zeros(1), np.array([line.length]), np.zeros(1, bool))
    count = np.array([int(line.length / 9)])
    holds = closing_chains(_on_runs(Ways.along(counted, None, np.zeros(1, int)), runs), runs, np.array([9.0]), count)[1]
    assert not holds.any()
    assert len([n for n in asked if n == count[0] + 1]) < 8
