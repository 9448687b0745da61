"""What holds for every brush on every line."""

import numpy as np
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st

from making import bar, brush, measured
from sewn_garland.core.drawing.svg import Layer, compact_svg
from sewn_garland.core.pipeline import lay

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
    outside_piece=st.just(bar(6, 6)), inside_piece=st.just(bar(6, 6)), start=st.sampled_from([None, bar(4, 3)]),
)  # fmt: skip


@settings(max_examples=150, deadline=None, suppress_health_check=[HealthCheck.too_slow])
@given(which=brushes, text=path)
def test_any_brush_on_any_line_gives_finite_pieces_in_order(which, text):
    line = lay(which, [measured(text)])[0]
    for array in (*vars(line.placements).values(), *vars(line.joins).values()):
        assert array is None or np.isfinite(array).all()
    assert line.outlines is None or np.isfinite(line.outlines.points).all()
    assert (np.diff(line.stops.run) >= 0).all()
    within = line.stops.run[:-1] == line.stops.run[1:]
    steps = np.diff(line.stops.s)[within]
    if line.closed and line.length:
        steps = np.mod(steps + 1e-9, line.length)
    assert (steps > -1e-6).all()
    assert len(line.joins.gap) <= len(line.stops.s)
    for finding in line.findings:
        assert np.isfinite([finding.at_mm, finding.amount, *finding.at]).all()


@settings(max_examples=40, deadline=None, suppress_health_check=[HealthCheck.too_slow])
@given(which=brushes, text=path)
def test_the_same_input_gives_the_same_bytes(which, text):
    first, second = (compact_svg(400, 400, [Layer(which.motifs, lay(which, [measured(text)])[0])]) for _ in range(2))
    assert first == second


@settings(max_examples=40, deadline=None, suppress_health_check=[HealthCheck.too_slow])
@given(text=path, gap=st.floats(-0.5, 2), ease=st.sampled_from(["gaps", "size"]))
def test_an_eased_closed_line_closes(text, gap, ease):
    line = lay(brush(bar(8, 3), gap=gap, ease=ease, ease_limit=0.99), [measured(text + ("" if text.endswith("Z") else "Z"))])[0]
    if not line.findings or all(f.kind != "leftover" for f in line.findings):
        stops = line.stops
        whole = (stops.before + stops.after + stops.gap_after).sum()
        assert abs(whole - line.length) < 1e-6 * max(1, line.length)
