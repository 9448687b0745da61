"""What holds for every brush on every line."""

import numpy as np
import pytest
from hypothesis import HealthCheck, example, given, reject, settings
from hypothesis import strategies as st

from examples import examples
from making import bar, brush, drawing, measured
from sewn_garland.core.drawing.svg import compact_svg
from sewn_garland.core.errors import LimitError
from sewn_garland.core.lay import lay

coordinate = st.floats(-200, 200).map(lambda v: round(v, 3))
point = st.tuples(coordinate, coordinate).map(lambda p: f"{p[0]} {p[1]}")
segment = st.one_of(
    point.map("L{}".format),
    st.tuples(point, point).map(lambda p: f"Q{p[0]} {p[1]}"),
    st.tuples(point, point, point).map(lambda p: f"C{p[0]} {p[1]} {p[2]}"),
    st.tuples(st.floats(0.1, 90), st.floats(0.1, 90), st.floats(0, 180), st.booleans(), st.booleans(), point).map(
        lambda a: f"A{a[0]:.3f} {a[1]:.3f} {a[2]:.1f} {int(a[3])} {int(a[4])} {a[5]}"
    ),
)
path = st.tuples(point, st.lists(segment, min_size=1, max_size=6), st.booleans()).map(
    lambda p: f"M{p[0]}{''.join(p[1])}{'Z' if p[2] else ''}"
)
CORNERS = ["through", "butt", "round", "mitre", "lap", "piece"]
brushes = st.builds(
    brush, st.just(bar(8, 3)), round_bends=st.sampled_from(["rigid", "jointed", "bent"]), size=st.floats(0.2, 6), gap=st.floats(-0.9, 3), facing=st.sampled_from(["line", "page", "start"]),
    turn_deg=st.floats(-360, 360), mirror=st.sampled_from(["off", "up_down", "left_right", "every_second"]),
    side_shift=st.floats(-20, 20), ease=st.sampled_from(["leave", "gaps", "size", "length"]), ease_limit=st.floats(0, 0.99),
    rest=st.sampled_from(["end", "both", "start"]), corner_from_deg=st.floats(1, 180),
    outside_corner=st.sampled_from(CORNERS), inside_corner=st.sampled_from(CORNERS),
    outside_corner_piece=st.just(bar(6, 6)), inside_corner_piece=st.just(bar(6, 6)), start_piece=st.sampled_from([None, bar(4, 3)]),
    kind=st.sampled_from(["repeated", "repeated", "repeated", "once_length", "once_proportion"]), turn_about=st.booleans(),
    starts_at=st.floats(0, 500), round_radius=st.floats(0, 40),
    rows=st.lists(st.floats(-15, 15), max_size=2).map(tuple), row_ease=st.sampled_from(["own", "in_step"]), brick=st.booleans(),
    width_along=st.lists(st.tuples(st.floats(0, 1), st.floats(0.1, 5)), max_size=4).map(tuple),
    taper_start=st.sampled_from([0.0, 5.0, 300.0]), taper_end=st.sampled_from([0.0, 40.0]), by_outlines=st.sampled_from([False, False, True]),
)  # fmt: skip


def _laid(which, text):
    """Lay a brush on a line; what would take more pieces than may be laid is no example."""
    try:
        return lay(which, [measured(text)])[0]
    except LimitError:
        reject()


@pytest.mark.thorough
@settings(max_examples=examples(100), deadline=None, suppress_health_check=[HealthCheck.too_slow])
@given(which=brushes, text=path)
def test_any_brush_on_any_line_gives_finite_pieces_in_order(which, text):
    line = _laid(which, text)
    not_measured = ("apart", "overlap")  # NaN where a join's outlines are not known
    joins = [array for name, array in vars(line.joins).items() if name not in not_measured]
    for array in (*vars(line.pieces).values(), *joins):
        assert array is None or np.isfinite(array).all()
    assert line.outlines is None or np.isfinite(line.outlines.points).all()
    assert (np.diff(line.pieces.run) >= 0).all()
    within = line.pieces.run[:-1] == line.pieces.run[1:]
    steps = np.diff(line.pieces.s)[within]
    if line.closed and line.length:
        steps = np.mod(steps + 1e-9, line.length)
    assert (steps > -1e-6).all()
    assert len(line.joins.gap) <= len(line.pieces.s)
    for finding in line.findings:
        assert np.isfinite([finding.at_mm, finding.amount, *finding.at]).all()


@pytest.mark.thorough
@settings(max_examples=examples(20), deadline=None, suppress_health_check=[HealthCheck.too_slow])
@given(which=brushes, text=path)
def test_the_same_input_gives_the_same_bytes(which, text):
    first, second = (compact_svg(drawing(400, 400, (which.pieces.motifs, _laid(which, text)))) for _ in range(2))
    assert first == second


@settings(max_examples=examples(40), deadline=None, suppress_health_check=[HealthCheck.too_slow])
@given(text=path, gap=st.floats(-0.5, 2), ease=st.sampled_from(["gaps", "size"]))
def test_an_eased_closed_line_closes(text, gap, ease):
    line = lay(brush(bar(8, 3), gap=gap, ease=ease, ease_limit=0.99), [measured(text + ("" if text.endswith("Z") else "Z"))])[0]
    if not line.findings or all(f.kind != "leftover" for f in line.findings):
        stops = line.pieces
        whole = (stops.before + stops.after + stops.gap_after).sum()
        assert abs(whole - line.length) < 1e-6 * max(1, line.length)


@settings(max_examples=examples(40), deadline=None, suppress_health_check=[HealthCheck.too_slow])
@given(
    text=path,
    size=st.floats(0.5, 6),
    width=st.lists(st.tuples(st.floats(0, 1), st.floats(0.3, 3)), max_size=3).map(tuple),
    ease=st.sampled_from(["leave", "size"]),
)
@example(text="M0 0L0 1L1 9Z", size=0.5, width=(), ease="leave")  # links beyond the end cannot settle, those before can
def test_links_meet_at_their_joints_unless_a_bend_is_told_to_be_too_tight(text, size, width, ease):
    laid = lay(brush(bar(8, 3), round_bends="jointed", size=size, ease=ease, width_along=width), [measured(text)])[0]
    if any(f.kind == "tight bend" for f in laid.findings) or len(laid.pieces.s) < 2:
        return
    joints = laid.pieces.joints
    inside = laid.pieces.run[:-1] == laid.pieces.run[1:]
    apart = np.hypot(*(joints[1:, 0] - joints[:-1, 1]).T)[inside]
    assert apart.max(initial=0.0) < 1e-8


def zigzag(corners):
    return "M0 0" + "".join(f"L{3 * i} {6 * (i % 2)}" for i in range(1, corners + 1))


HOSTILE = {
    "cusp": "M0 0C100 100 0 100 100 0",
    "loops that cross": "M0 0C200 120 -100 120 100 0C300 -120 0 -120 200 0",
    "segments of a micrometre": "M0 0" + "".join(f"l0.001 {0.001 * (i % 2)}" for i in range(1000)),
    "hundreds of corners": zigzag(600),  # ten thousand are a row of the benchmark
    "a spiral tighter than the piece": "M0 0"
    + "".join(f"A{r} {r} 0 0 1 {r if k % 2 else -r} 0" for k, r in enumerate(np.arange(0.3, 6, 0.3).round(2))),
    "there and back": "M0 0H80H0H80",
    "no length": "M5 5Z",
}


@pytest.mark.thorough
@pytest.mark.parametrize("travel", ["rigid", "bent", "jointed", "once_length", "once_proportion"])
@pytest.mark.parametrize("corner", CORNERS)
@pytest.mark.parametrize("name", HOSTILE)
def test_hostile_lines_give_pieces_or_findings_and_no_nonsense(name, corner, travel):
    how = {"round_bends": travel} if travel in ("rigid", "bent", "jointed") else {"kind": travel}
    which = brush(
        bar(8, 3), ease="size", outside_corner=corner, inside_corner=corner, outside_corner_piece=bar(6, 6), inside_corner_piece=bar(6, 6),
        width_along=((0.0, 1.0), (0.5, 2.0)), **how,
    )  # fmt: skip
    laid = lay(which, [measured(HOSTILE[name])])[0]
    assert np.isfinite(laid.pieces.centre).all()
    assert laid.outlines is None or np.isfinite(laid.outlines.points).all()
    assert len(laid.pieces.s) or laid.findings
