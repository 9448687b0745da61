"""Start and end pieces, a motif cut in three, and ease into the length."""

import numpy as np
import pytest

from making import bar, brush, measured, svg
from sewn_garland.core.assemble import pieces_list
from sewn_garland.core.lay import lay
from sewn_garland.core.making.brushes import as_laid
from sewn_garland.core.reading.svg_motif import motif_from_svg
from sewn_garland.core.values.motif import Motif


def laid(path, which):
    return lay(which, [measured(path)])[0]


def with_ends(**more):
    return brush(bar(10), start_piece=bar(6), end_piece=bar(4), **more)


def test_start_and_end_pieces_take_their_length_off_the_run():
    line = laid("M0 0H100", with_ends())
    assert line.pieces.roles.tolist() == ["start", *["repeat"] * 9, "end"]
    assert line.pieces.s == pytest.approx([3, *(11 + 10 * np.arange(9)), 98])
    assert line.findings == ()
    assert line.pitch == pytest.approx(10)
    assert line.joins.gap == pytest.approx(0.0, abs=1e-12)


def test_what_is_left_before_the_end_piece_is_told_once():
    line = laid("M0 0H103", with_ends())
    assert [(f.kind, round(f.amount, 9)) for f in line.findings] == [("leftover", 3.0)]
    assert line.findings[0].at_mm == pytest.approx(99)
    eased = laid("M0 0H103", with_ends(ease="length"))
    assert eased.findings == ()
    assert eased.pieces.scale[1] == pytest.approx([93 / 90, 1])  # longer, not higher
    assert eased.pieces.scale[0] == pytest.approx([1, 1])


@pytest.mark.parametrize("path", ["M0 0H9.9", "M0 0H0.1", "M50 10A20 20 0 1 1 49.9 10Z"])
def test_a_line_too_short_for_both_or_without_ends_has_neither(path):
    assert all(v == 0 for v in laid(path, with_ends()).pieces.motif)


def test_only_the_first_and_last_run_of_a_cornered_line_have_them():
    line = laid("M0 0H46V34", with_ends(outside_corner="butt"))
    assert [(str(role), int(r)) for role, r in zip(line.pieces.roles, line.pieces.run, strict=True)] == [
        ("start", 0), *[("repeat", 0)] * 4, *[("repeat", 1)] * 3, ("end", 1)]  # fmt: skip


def test_a_mirrored_brush_keeps_its_ends_the_right_way_round():
    line = laid("M0 0H100", with_ends(mirror="left_right"))
    assert line.pieces.scale[0, 0] == 1
    assert line.pieces.scale[1, 0] == -1


def test_a_drawing_cut_in_three_is_laid_as_its_three_pieces():
    """The tug, the barges, the stern boat: the areas of the pieces are those of the drawing's parts (closed form)."""
    tow = motif_from_svg(
        svg('<path d="M0 2H20V8H0Z" fill="#a33a2f"/><path d="M20 0H35V10H20Z" fill="#245"/><path d="M35 4H42V6H35Z" fill="#690"/>', 42, 10)
    )
    cut = as_laid(brush(Motif(tow.shapes, tow.width, tow.height, tow.base_line, cuts=(20.0, 35.0))))
    assert [m.width for m in cut.pieces.motifs] == pytest.approx([15, 20, 7])
    line = laid("M0 0H102", cut)
    assert line.pieces.s == pytest.approx([10, 27.5, 42.5, 57.5, 72.5, 87.5, 98.5])
    assert as_laid(brush()).pieces.start is None


def test_a_chain_has_clasps_at_its_ends():
    link = Motif((), 12, 4, 2, joints=((1.0, 2.0), (11.0, 2.0)))
    clasp = Motif((), 7, 4, 2, joints=((1.0, 2.0), (6.0, 2.0)))
    line = laid("M0 0C40 30 80 30 120 0", brush(link, start_piece=clasp, end_piece=clasp, round_bends="jointed", ease="size"))
    joints = line.pieces.joints
    assert line.pieces.roles.tolist()[:: len(joints) - 1] == ["start", "end"]
    assert np.hypot(*(joints[1:, 0] - joints[:-1, 1]).T).max() < 1e-9
    assert joints[[0, -1], [0, 1]] == pytest.approx(np.array([[0, 0], [120, 0]]), abs=1e-9)
    assert np.hypot(*(joints[0, 1] - joints[0, 0])) == pytest.approx(5)
    assert line.findings == ()


def test_the_list_of_pieces_says_each_role_and_its_place_in_it():
    own = brush(bar(10), bar(5), start_piece=bar(6))
    rows = [row.split(",")[2:5] for row in pieces_list([(own, laid("M0 0H41", own))]).splitlines()[1:]]
    assert rows == [["0", "start", "0"], ["1", "repeat", "0"], ["2", "repeat", "1"], ["3", "repeat", "0"], ["4", "repeat", "1"]]
