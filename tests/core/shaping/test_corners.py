"""Mitres, laps and corner pieces at any angle, against shapely and the miter ratio of SVG 2."""

from dataclasses import replace

import numpy as np
import pytest
from shapely import LineString, MultiPolygon, Polygon, box
from shapely.ops import unary_union

from making import bar, brush, drawing, measured, svg
from sewn_garland.core.assemble import pieces_list
from sewn_garland.core.drawing.svg import compact_svg
from sewn_garland.core.errors import LimitError
from sewn_garland.core.lay import cured, lay
from sewn_garland.core.measuring.arc_length import frames_at
from sewn_garland.core.reading.svg_motif import motif_from_svg
from sewn_garland.core.values.motif import Motif

RECTANGLE = "M0 0H120V70H0Z"
TRIANGLE = "M0 60L70 0L140 60Z"


def laid(path, *motifs, style="mitre", **more):
    return lay(brush(*motifs, outside_corner=style, inside_corner=style, **more), [measured(path)])[0]


def covered(line, motifs):
    """Return what all pieces cover (shapely): shaped ones by their outlines, the others as their bars are stamped."""
    found = []
    shaped = set()
    if line.outlines is not None:
        shaped = set(line.outlines.pieces.tolist())
        for a, b in zip(line.outlines.starts[:-1], line.outlines.starts[1:], strict=True):
            p = line.outlines.points[a:b]
            t = np.linspace(0, 1, 9)[:, None]
            cubics = np.stack([p[0:-1:3], p[1::3], p[2::3], p[3::3]], axis=1)
            ring = (np.hstack([(1 - t) ** 3, 3 * t * (1 - t) ** 2, 3 * t**2 * (1 - t), t**3]) @ cubics).reshape(-1, 2)
            if len(ring) > 3 and Polygon(ring).area > 1e-9:
                found.append(Polygon(ring).buffer(1e-6))
    for i, (a, b, c, d, e, f) in enumerate(line.pieces.matrices):
        if i not in shaped:
            m = motifs[line.pieces.motif[i]]
            corners = m.shapes[0].points - (m.width / 2, m.base_line)
            found.append(Polygon(corners @ np.array([[a, b], [c, d]]) + (e, f)).buffer(1e-6))
    return unary_union(found)


def stroked(path_points, width):
    shape = Polygon(path_points)
    outer, inner = (shape.buffer(d, join_style="mitre", mitre_limit=50) for d in (width / 2, -width / 2))
    return outer - inner


@pytest.mark.parametrize(("path", "points"), [
    (RECTANGLE, [(0, 0), (120, 0), (120, 70), (0, 70)]), (TRIANGLE, [(0, 60), (70, 0), (140, 60)]),
    ("M0 0V70H120V0Z", [(0, 0), (0, 70), (120, 70), (120, 0)]),
])  # fmt: skip
@pytest.mark.parametrize("travel", ["rigid", "bent"])
def test_a_mitred_bar_covers_what_a_mitred_stroke_of_its_height_does(path, points, travel):
    """Against shapely's mitred buffer."""
    line = laid(path, bar(10, 4), ease="length", round_bends=travel)
    true = stroked(points, 4)
    got = covered(line, [bar(10, 4)])
    assert got.symmetric_difference(true).area < 0.02
    assert line.findings == ()


@pytest.mark.parametrize("travel", ["rigid", "bent"])
@pytest.mark.parametrize(("path", "turn_deg"), [("M0 0H60V70", 90), ("M0 0H60L95 60.6217783", 60), ("M0 0H60V-70", -90)])
def test_legs_that_grow_thinner_are_as_wide_as_one_another_on_their_bisector(path, turn_deg, travel):
    """By hand: half of 6 mm, times the width at the vertex, over the cosine of half the turn; from 1.5 at the begin to 0.3 at the end."""
    line = laid(path, bar(8, 6), ease="gaps", round_bends=travel, width_along=[(0.0, 1.5), (1.0, 0.3)])
    width = 1.5 - 1.2 * 60 / measured(path).length
    middle = np.radians(turn_deg / 2 - 90)
    on = (line.outlines.points - (60, 0)) @ np.array([[np.cos(middle), -np.sin(middle)], [np.sin(middle), np.cos(middle)]])
    run = line.pieces.run[np.repeat(line.outlines.piece, np.diff(line.outlines.starts))]
    for leg in (0, 1):
        reached = on[(np.abs(on[:, 1]) < 1e-6) & (run == leg), 0]
        assert reached.max() == pytest.approx(-reached.min(), abs=1e-6)
        assert reached.max() == pytest.approx(3 * width / np.cos(np.radians(turn_deg / 2)), abs=1e-5)


def test_repeats_have_the_same_place_of_the_motif_on_the_bisector_of_both_legs():
    line = laid(RECTANGLE, bar(10, 4), ease="gaps")
    for run, (start, length) in enumerate(((0, 120), (120, 70), (190, 120), (310, 70))):
        own = line.pieces.s[line.pieces.run == run]
        assert own[0] % 380 == pytest.approx(start)  # a piece's middle on each vertex
        assert (own[-1] - own[0]) % 380 == pytest.approx(length)
    assert line.pieces.roles.tolist() == ["repeat"] * len(line.pieces.s)


@pytest.mark.parametrize("interior", [30.0, 60.0, 90.0, 135.0])
def test_the_miter_ratio(interior):
    """Mitre length over width is 1/sin(φ/2) (SVG 2, stroke-miterlimit)."""
    angle = np.radians(180 - interior)
    line = laid(f"M0 0H100l{100 * np.cos(angle):.9f} {100 * np.sin(angle):.9f}", bar(24, 4), ease="length")
    vertex = np.array([100.0, 0.0])
    bisector = np.array([-np.sin(angle / 2), np.cos(angle / 2)])
    near = covered(line, [bar(24, 4)]).intersection(LineString([vertex + 60 * bisector, vertex - 60 * bisector]))
    assert near.length == pytest.approx(4 / np.sin(np.radians(interior / 2)), rel=1e-3)


def test_a_lap_runs_through_to_the_outer_edge_and_the_other_leg_ends_against_it():
    line = laid("M0 0H60V60", bar(10, 4), style="lap", ease="length")
    assert covered(line, [bar(10, 4)]).symmetric_difference(MultiPolygon([
        Polygon([(0, -2), (62, -2), (62, 2), (0, 2)]), Polygon([(58, 2), (62, 2), (62, 60), (58, 60)])])).area < 0.01  # fmt: skip
    assert line.findings == ()


@pytest.mark.parametrize("base", [0.0, 1.0, 4.0])
@pytest.mark.parametrize("shift", [-3.0, 0.0, 2.5])
@pytest.mark.parametrize("turn", [1, -1], ids=["right", "left"])
def test_a_lap_fills_its_corner_wherever_the_base_line_lies(base, shift, turn):
    """Two rectangles that touch (shapely): the first leg to the second's outer edge, the second up to the first's inner edge."""
    motif = replace(bar(10, 4), base_line=base)
    line = laid(f"M0 0H60V{60 * turn}", motif, style="lap", ease="length", side_shift=shift)
    left, right = shift - base, shift + 4 - base  # the edges of a leg, mm to the right of travel
    outer, inner = (-left, right) if turn > 0 else (right, -left)
    first = box(0, left, 60 + outer, right)
    second = box(60 - inner, inner, 60 + outer, 60) if turn > 0 else box(60 - inner, -60, 60 + outer, -inner)
    assert covered(line, [motif]).symmetric_difference(first.union(second)).area < 0.01
    assert first.intersection(second).area < 1e-9
    assert line.findings == ()


OUTSIDE = motif_from_svg(svg('<path d="M0 0H12V12H4V8H0Z" fill="#345"/>', 12, 12), base_line_mm=4)
INSIDE = motif_from_svg(svg('<path d="M0 4H4V0H12V12H0Z" fill="#345"/>', 12, 12), base_line_mm=8)


def cornered(path, **more):
    more = {"ease": "length", **more}
    return laid(path, bar(10, 8), style="piece", outside_corner_piece=OUTSIDE, inside_corner_piece=INSIDE, **more)


@pytest.mark.parametrize("travel", ["rigid", "bent"])
@pytest.mark.parametrize(("path", "points"), [
    (RECTANGLE, [(0, 0), (120, 0), (120, 70), (0, 70)]), (TRIANGLE, [(0, 60), (70, 0), (140, 60)]), ("M0 0V70H120V0Z", [(0, 0), (0, 70), (120, 70), (120, 0)]),
])  # fmt: skip
def test_an_elbow_drawn_for_a_right_angle_closes_a_border_at_any_angle(path, points, travel):
    """Elbow and bars of 8 mm together cover the mitred stroke of 8 mm (shapely): both edges and both sides meet the runs."""
    line = cornered(path, round_bends=travel)
    got = covered(line, [bar(10, 8), OUTSIDE, INSIDE])
    assert got.symmetric_difference(stroked(points, 8)).area < 0.05
    assert line.findings == ()
    assert set(line.pieces.roles.tolist()) == {"repeat", "outside_corner" if path != "M0 0V70H120V0Z" else "inside_corner"}


def test_the_allowance_is_that_of_the_right_angle_times_tan_of_half_the_turn():
    line = cornered("M0 0H100l60 60", ease="leave")
    corner = int(np.flatnonzero(line.pieces.motif == 1)[0])
    assert line.pieces.s[corner] == pytest.approx(100)
    assert line.pieces.before[corner] == pytest.approx(8 * np.tan(np.radians(22.5)))


def test_a_corner_piece_is_one_row_with_the_run_it_follows():
    rows = [row.split(",") for row in pieces_list([(brush(bar(), bar()), cornered(RECTANGLE))]).splitlines()[1:]]
    corners = [(row[1], row[3], float(row[5]) % 380) for row in rows if row[3] != "repeat"]
    assert corners == [("0", "outside_corner", 120), ("1", "outside_corner", 190), ("2", "outside_corner", 310), ("3", "outside_corner", 0)]
    index = [int(row[2]) for row in rows]
    assert index == list(range(len(rows)))
    first = next(row for row in rows if row[3] == "outside_corner")
    assert [float(v) for v in first[6:9]] == pytest.approx([120 + 6 - 8, 0, 0])


def test_legs_too_short_for_their_corner_pieces_are_crowded():
    line = cornered("M0 0H60V10H120")
    assert [f.kind for f in line.findings if f.kind == "crowded corner"] == ["crowded corner"] * 2
    assert all(v == 0 for v in line.pieces.motif)


def test_a_fold_in_a_corner_is_cured_in_one_press_by_passing_it_round():
    line = measured("M0 0H100V100")
    which = brush(bar(10, 6), round_bends="bent", ease="length")
    done = cured(which, line, lay(which, [line])[0])
    cure = next(f for f in done.findings if f.kind == "fold").cures[0]
    assert cure.label == "Round the corners, 5 mm"


def test_clipped_and_stamped_pieces_stand_in_one_drawing_in_their_order():
    motif = motif_from_svg(svg('<rect width="10" height="4" fill="#a33"/><path d="M0 2H10" fill="none" stroke="#123456"/>', 10, 4))
    line = laid(RECTANGLE, motif, ease="length", gap=0.01)
    text = compact_svg(drawing(200, 200, ((motif,), line)))
    assert text.count("<use ") + text.count("<g>") == len(line.pieces.s) - 4  # the halves on a bisector are one
    assert 8 <= len(line.outlines.pieces) < len(line.pieces.s)


@pytest.mark.parametrize("style", ["mitre", "lap", "piece", "butt"])
@pytest.mark.parametrize("travel", ["rigid", "bent", "jointed"])
@pytest.mark.parametrize(
    "path", ["M0 0H50H0", "M0 0l5 0l-5 .1l5 .1l-5 .1", "M0 0H1V1H0Z", "M0 0h30v.001h-30z", "M5 5", "M0 0C50 0 0 0 50 0.001L0 9"]
)
def test_any_corner_on_any_line_gives_finite_pieces(style, travel, path):
    pieces = {"outside_corner_piece": OUTSIDE, "inside_corner_piece": INSIDE} if style == "piece" else {}
    line = laid(path, bar(4, 3), Motif(bar(2, 5).shapes, 2, 5, 1), style=style, round_bends=travel, corner_from_deg=1.0, **pieces)
    for array in (*vars(line.pieces).values(), *vars(line.joins).values()):
        assert array is None or np.isfinite(array).all()
    assert line.outlines is None or np.isfinite(line.outlines.points).all()


def test_what_mitres_lay_beyond_the_vertex_is_counted_before_any_is_laid():
    """Pieces a thousand times as high as long on two legs that fold back: their mitre reaches some thousand mm beyond."""
    with pytest.raises(LimitError, match="about 7 596 654 pieces"):
        laid("M0 0L.225 0L0 .0000001", bar(0.0005, 500))


@pytest.mark.parametrize("travel", ["rigid", "bent", "jointed"])
def test_a_corner_piece_is_joined_on_both_sides_and_meets_on_straight_legs(travel):
    elbow = bar(8, 8)
    line = laid(RECTANGLE, bar(5, 4), style="piece", round_bends=travel, ease="size", outside_corner_piece=elbow, inside_corner_piece=elbow)
    assert len(line.joins.first) == len(line.pieces.s)  # all round
    assert np.abs(line.joins.gap).max() < 1e-9 and line.joins.step.max() < 1e-9
    assert not line.findings


@pytest.mark.parametrize("travel", ["rigid", "bent"])
def test_what_a_corner_piece_stands_off_curved_legs_is_measured_at_its_edges(travel):
    """The entering edge as drawn: where the piece's matrix puts the left end of its base line; the run's last edge where it ends."""
    elbow = bar(8, 8)
    path = "M0 0C20 -25 40 -25 60 0C35 20 35 40 60 60"
    line = laid(path, bar(5, 4), style="piece", round_bends=travel, ease="size", ease_limit=0.5, outside_corner_piece=elbow,
                inside_corner_piece=elbow, gap_tolerance=0.03)  # fmt: skip
    (corner,) = np.flatnonzero(line.pieces.at_corner)
    into, out = (np.flatnonzero(at == corner) for at in (line.joins.second, line.joins.first))
    assert len(into) == len(out) == 1

    vertex = np.array([60.0, 0.0])
    tangent = np.array([20.0, 25.0]) / np.hypot(20, 25)
    entry = vertex - line.pieces.before[corner] * tangent
    s = line.pieces.s[corner - 1] + line.pieces.after[corner - 1]
    along = frames_at(measured(path), np.array([s]))
    last = along.position[0]
    if travel == "rigid":
        piece = line.pieces.matrices[corner - 1]
        last = piece[:4].reshape(2, 2).T @ (2.5, 0.0) + piece[4:]  # about its base line's middle
    apart = np.hypot(*(entry - last))
    assert apart > 0.03
    wish = line.pieces.s[corner] - line.pieces.before[corner] - s
    assert np.hypot(line.joins.gap[into[0]] + wish, line.joins.step[into[0]]) == pytest.approx(apart, abs=1e-6)
    assert any(f.kind in ("gap", "overlap", "step") for f in line.findings)
