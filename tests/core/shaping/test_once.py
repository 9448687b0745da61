"""A drawing laid once over the line, a line set out anew."""

import numpy as np
import pytest

from making import bar, brush, measured, svg
from sewn_garland.core.errors import LimitError
from sewn_garland.core.lay import cured, lay
from sewn_garland.core.maths.ragged import ranges
from sewn_garland.core.measuring.arc_length import frames_at
from sewn_garland.core.measuring.setting_out import set_out
from sewn_garland.core.reading.svg_motif import motif_from_svg
from sewn_garland.core.shaping import shaped
from sewn_garland.core.shaping.bend import bent_outlines
from sewn_garland.core.values.variations import Variation

SWAG = "M0 0C40 60 120 60 160 0"


def once(path, kind="once_length", **more):
    return lay(brush(bar(20, 4), kind=kind, start_piece=bar(8, 4), end_piece=bar(6, 4), **more), [measured(path)])[0]


def test_the_ends_keep_their_proportions_and_the_middle_takes_the_rest():
    laid = once(SWAG)
    assert laid.pieces.roles.tolist() == ["start", "repeat", "end"]
    assert laid.pieces.scale[[0, 2]] == pytest.approx(np.ones((2, 2)))
    assert laid.pieces.scale[1] == pytest.approx([(laid.length - 14) / 20, 1])
    assert laid.pieces.before[1] * 2 == pytest.approx(laid.length - 14)


def test_the_line_s_own_size_changes_it_across_only():
    small, large = once(SWAG), once(SWAG, size=1.5)
    assert large.pieces.scale[1, 1] == 1.5
    assert large.pieces.before[1] * 2 == pytest.approx(small.length - 14 * 1.5)
    reach = [np.ptp(o.points[:, 1]) for o in (small.outlines, large.outlines)]
    assert reach[1] > reach[0]


def test_in_proportion_it_grows_both_ways_alike():
    laid = once("M0 0H170", kind="once_proportion")
    assert laid.pieces.scale == pytest.approx(np.full((3, 2), 170 / 34))
    assert laid.pieces.s == pytest.approx([20, 90, 155])
    assert laid.findings == ()


def test_too_much_stretch_is_found_and_cured_by_the_size_across():
    line = measured("M0 0H140")
    which = brush(bar(20, 4), kind="once_length")
    done = cured(which, line, lay(which, [line])[0])
    (found,) = done.findings
    assert (found.kind, found.amount, found.unit) == ("over-stretched", pytest.approx(7.0), "×")
    assert found.message == "7.0 times as long for its height as it was drawn"
    assert [c.label for c in found.cures] == ["Size across 350 %", "Repeat it instead"]


def test_the_ends_of_the_drawing_lie_on_the_ends_of_the_line():
    laid = once(SWAG)
    frames = frames_at(measured(SWAG), np.array([0.0, laid.length]))
    for place, piece in zip(frames.position, (0, 2), strict=True):
        own = laid.outlines.split([piece, piece + 1])[0].points[::3]
        assert np.hypot(*(own - place).T).min() == pytest.approx(2.0, abs=1e-6)  # half the height beside it


@pytest.mark.parametrize("path", ["M0 0C40 60 120 60 160 0", "M0 0H50A20 20 0 0 1 50 40Q20 60 0 40Z"])
def test_turned_about_a_line_is_laid_from_its_other_end(path):
    line = measured(path)
    other = set_out(line, turn_about=True, starts_at=0.0)
    s = np.linspace(0, line.length, 50)
    there, back = frames_at(line, s), frames_at(other, line.length - s)
    assert back.position == pytest.approx(there.position, abs=1e-9)
    assert back.tangent[1:-1] == pytest.approx(-there.tangent[1:-1], abs=1e-6)


def test_a_closed_line_starts_where_it_is_told():
    line = measured("M0 0H60V40H0Z")
    laid = lay(brush(starts_at=25.0), [line])[0]
    assert laid.pieces.centre[0] == pytest.approx([30, 0])
    assert laid.length == pytest.approx(200)
    assert set_out(measured("M0 0H60"), turn_about=False, starts_at=25.0).length == 60
    assert lay(brush(starts_at=25.0), [measured("M0 0H60")])[0].pieces.centre[0] == pytest.approx([5, 0])


def test_what_bends_into_too_many_curves_is_refused_with_what_to_do():
    rng = np.random.default_rng(5)
    jagged = "M0 0" + "".join(f"l{x:.3f} {y:.3f}" for x, y in rng.uniform(-1, 1, (20_000, 2)))
    many = motif_from_svg(svg("".join(f'<path d="M0 {k}L200 {k}V{k + 0.5}L0 {k + 0.5}Z"/>' for k in range(60)), 200, 60))
    with pytest.raises(LimitError, match="more curves than can be drawn: take"):
        lay(brush(many, kind="once_length"), [measured(jagged)])


def test_what_is_surely_too_much_is_refused_after_a_part_of_it(monkeypatch):
    """One piece of so many is bent, and no more; what is within the limit is drawn, whatever the part tells."""
    line, which, asked = measured("M0 0" + "l3 3l3 -3" * 100), brush(bar(4, 4), round_bends="bent"), []
    of_all = lay(which, [line])[0].outlines

    def bending(*args, **options):
        asked.append(len(args[4]))
        return bent_outlines(*args, **options)

    monkeypatch.setattr(shaped, "bent_outlines", bending)
    monkeypatch.setattr(shaped, "MANY_IN_ALL", 0)
    monkeypatch.setattr(shaped, "LEAST_SAMPLED", 1)
    monkeypatch.setattr(shaped, "SURELY", 0)
    monkeypatch.setattr(shaped, "MOST_CURVES", len(of_all.points) // 3.8)
    with pytest.raises(LimitError, match="more curves than can be drawn: take"):
        lay(which, [line])
    assert sum(asked) == -(-len(of_all.pieces) // shaped.SAMPLED)
    monkeypatch.setattr(shaped, "MOST_CURVES", len(of_all.points) // 3)  # those and one a contour
    again = lay(which, [line])[0].outlines
    assert np.abs(again.points - of_all.points).max() < 1e-9


def test_lines_that_pieces_pass_too_many_vertices_of_are_refused_before_these_are_listed(monkeypatch):
    monkeypatch.setattr(shaped, "MOST_CURVES", 200)
    listed = []
    monkeypatch.setattr(shaped, "ranges", lambda first, counts: listed.append(counts) or ranges(first, counts))
    zigzag = measured("M0 0" + "l1 1l1 -1" * 60)
    with pytest.raises(LimitError, match="more curves than can be drawn: take"):
        lay(brush(bar(40, 4), round_bends="bent"), [zigzag])
    assert not listed
    assert lay(brush(bar(4, 4), round_bends="bent"), [measured("M0 0l9 9l9 -9")])[0].outlines is not None and listed


def test_many_pieces_may_take_more_curves_than_few(monkeypatch):
    line, which = measured("M0 0" + "l3 3l3 -3" * 20), brush(bar(4, 4), round_bends="bent")
    monkeypatch.setattr(shaped, "MOST_OF_FEW", 10)
    assert len(lay(which, [line])[0].outlines.points) > 10 * 3
    monkeypatch.setattr(shaped, "MOST_A_PIECE", 1)
    with pytest.raises(LimitError, match="more curves than can be drawn: take"):
        lay(which, [line])


@pytest.mark.parametrize("outlined", [False, True])
def test_pieces_bent_in_blocks_are_those_bent_in_one_go(outlined, monkeypatch):
    stroke = 'stroke="#000" stroke-width=".8"' if outlined else ""
    motif = motif_from_svg(svg(f'<path d="M0 2C3 -1 7 -1 10 2S3 5 0 2Z" {stroke}/>', 10, 4))
    line, which = measured(SWAG), brush(motif, bar(6, 3), round_bends="bent")
    whole = lay(which, [line])[0].outlines
    monkeypatch.setattr(shaped, "BLOCK_CURVES", 20)
    parts = lay(which, [line])[0].outlines
    for name in ("starts", "piece", "shape", "closed", "stroked", "pieces", "outlined", "cut"):
        assert np.array_equal(getattr(whole, name), getattr(parts, name)), name
    assert np.abs(whole.points - parts.points).max() < 1e-12  # sums of another order


@pytest.mark.parametrize(("path", "beside"), [("M0 0C60 40 -20 40 40 0Z", -14.65), ("M0 0H30V20", 60.0)])
def test_rows_laid_once_hang_together_though_one_of_them_has_no_neighbours(path, beside):
    """A row without a join says nothing of how the others' joins are measured: of loose pieces by what is drawn."""
    made = brush(bar(), start_piece=bar(2, 2), end_piece=bar(2, 2)).changed({
        "travel": {"kind": "once_proportion"}, "rows": {"beside_mm": [beside]},
        "variations": (Variation(of="across", between=(-5, 5), follows="chance"),),
    })  # fmt: skip
    rows = lay(made, [measured(path)])[0]
    alone = lay(made.changed({"rows": {"beside_mm": []}}), [measured(path)])[0]
    own = rows.pieces.row == 0
    assert rows.pieces.matrices[own].tolist() == alone.pieces.matrices.tolist()
    joined = rows.joins.first < own.sum()
    assert rows.joins.gap[joined].tolist() == alone.joins.gap.tolist()
    assert rows.joins.apart is None or len(rows.joins.apart) == len(rows.joins.gap)
