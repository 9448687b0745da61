"""Rigid travel: where each piece lies and how it is turned, against closed forms."""

import numpy as np
import pytest

from making import bar, brush, measured
from sewn_garland.core.errors import LimitError
from sewn_garland.core.lay import lay
from sewn_garland.core.reading.svg_lines import line_from_path_data
from sewn_garland.core.reading.svg_motif import motif_from_svg

CIRCLE = "M30 0A30 30 0 0 1 -30 0A30 30 0 0 1 30 0Z"


def laid(path, **settings):
    motifs = settings.pop("motifs", (bar(),))
    return lay(brush(*motifs, **settings), [line_from_path_data(path)])[0]


def corners_on_page(line, width, height, base):
    box = np.array([[-width / 2, -base], [width / 2, -base], [width / 2, height - base], [-width / 2, height - base]])
    m = line.pieces.matrices
    return box @ m[:, :4].reshape(-1, 2, 2) + m[:, None, 4:]


def test_pieces_lie_end_to_end_from_the_start():
    line = laid("M5 20H100", gap=0.2)
    assert line.pieces.centre[:, 0] == pytest.approx(5 + 5 + 12 * np.arange(8))
    assert line.pieces.centre[:, 1] == pytest.approx(20)
    assert line.pitch == pytest.approx(12)
    assert corners_on_page(line, 10, 2, 1)[0] == pytest.approx(np.array([[5, 19], [15, 19], [15, 21], [5, 21]]))


def test_lines_laid_together_each_tell_their_own_pitch():
    """A side of 40 mm takes 4 pieces eased as they are, one of 44 mm stretches them: then there is no one pitch."""
    paths = ["M0 0H60", "M0 0H4", "M0 0H12", "M0 0H40V44", "M0 0H40V40", "M0 0H63"]
    together = lay(brush(ease="size", ease_limit=0.2, outside_corner="butt"), [measured(p) for p in paths])
    assert [line.pitch for line in together] == [pytest.approx(10), None, None, None, pytest.approx(10), pytest.approx(10.5)]
    alone = [lay(brush(ease="size", ease_limit=0.2, outside_corner="butt"), [measured(p)])[0].pitch for p in paths]
    assert [line.pitch for line in together] == alone


def test_on_a_circle_pieces_turn_with_it_and_close():
    line = laid(CIRCLE, ease="size")
    n = len(line.pieces.s)
    assert n == 19  # 188.5 mm of circle, 10 mm pieces: 19 at −0.8 %
    angle = np.arctan2(line.pieces.centre[:, 1], line.pieces.centre[:, 0])
    assert np.hypot(*line.pieces.centre.T) == pytest.approx(30)
    assert np.mod(line.pieces.turn - angle, 2 * np.pi) == pytest.approx(np.pi / 2)
    assert np.mod(np.diff(angle), 2 * np.pi) == pytest.approx(2 * np.pi / n)


@pytest.mark.parametrize(
    ("facing", "turn"), [("line", [0, 90]), ("page", [0, 0]), ("start", [0, 0])]
)  # fmt: skip
def test_facing(facing, turn):
    line = laid("M0 0H10V10", facing=facing)
    assert np.degrees(line.pieces.turn) == pytest.approx(turn)
    upward = laid("M0 0V20", facing=facing)
    assert np.degrees(upward.pieces.turn) == pytest.approx([{"line": 90, "page": 0, "start": 90}[facing]] * 2)


def test_a_quarter_turn_takes_the_height_along_the_line():
    line = laid("M0 0H60", turn_deg=90)
    assert len(line.pieces.s) == 30  # the bar is 2 mm high
    assert np.degrees(line.pieces.turn) == pytest.approx(90)
    corners = corners_on_page(line, 10, 2, 1)
    assert corners[0][:, 0].min() == pytest.approx(0)
    assert np.ptp(corners[0][:, 1]) == pytest.approx(10)


def test_a_turned_piece_with_its_base_line_off_the_middle_still_begins_at_the_start():
    from making import bar_svg

    motif = motif_from_svg(bar_svg(10, 4), base_line_mm=4.0)
    line = laid("M0 0H60", turn_deg=90, motifs=(motif,))
    corners = corners_on_page(line, 10, 4, 4)
    assert corners[0][:, 0].min() == pytest.approx(0, abs=1e-9)
    assert corners[-1][:, 0].max() == pytest.approx(60)
    assert corners[1][:, 0].min() == pytest.approx(corners[0][:, 0].max())


def test_side_shift_goes_to_the_right_of_travel():
    assert laid("M0 0H30", side_shift=2).pieces.centre[:, 1] == pytest.approx(2)
    assert laid("M30 0H0", side_shift=2).pieces.centre[:, 1] == pytest.approx(-2)


@pytest.mark.parametrize(
    ("mirror", "scales"),
    [("off", [(1, 1)] * 3), ("up_down", [(1, -1)] * 3), ("left_right", [(-1, 1)] * 3), ("every_second", [(1, 1), (-1, 1), (1, 1)])],
)
def test_mirror(mirror, scales):
    assert laid("M0 0H30", mirror=mirror).pieces.scale == pytest.approx(np.array(scales))


def test_size_scales_both_ways_and_changes_the_count():
    line = laid("M0 0H60", size=0.5)
    assert len(line.pieces.s) == 12
    assert line.pieces.scale == pytest.approx(0.5)


def test_variants_are_laid_in_turn_with_their_own_lengths():
    line = laid("M0 0H52", motifs=(bar(10, 2), bar(6, 2)))
    assert line.pieces.motif.tolist() == [0, 1, 0, 1, 0, 1]
    assert line.pieces.s == pytest.approx([5, 13, 21, 29, 37, 45])


def test_butt_corners_end_each_run_at_the_vertex():
    line = laid("M0 0H25V25", outside_corner="butt", ease="gaps", ease_limit=0.9)
    assert line.runs == 2
    first = line.pieces.run == 0
    assert line.pieces.centre[first][-1] == pytest.approx([20, 0])
    assert line.pieces.centre[~first][0] == pytest.approx([25, 5])


def test_too_many_pieces_are_refused_before_any_work():
    with pytest.raises(LimitError, match="more than 2 000 000: widen the gap"):
        lay(brush(size=1e-6), [measured("M0 0H100")])


def test_lines_laid_together_are_laid_as_each_alone():
    paths = ["M0 0H55", CIRCLE, "M3 3L3 3", "M0 0H25V25", "M0 0C30 20 -10 20 20 0"]
    which = brush(gap=0.1, ease="gaps", mirror="every_second", facing="start")
    together = lay(which, [measured(p) for p in paths])
    for path, line in zip(paths, together, strict=True):
        alone = lay(which, [measured(path)])[0]
        assert line.pieces.centre == pytest.approx(alone.pieces.centre, abs=1e-9)
        assert line.pieces.turn == pytest.approx(alone.pieces.turn, abs=1e-9)
        assert line.joins.gap == pytest.approx(alone.joins.gap, abs=1e-9)
        assert line.joins.first.tolist() == alone.joins.first.tolist()
        assert [(f.kind, f.count) for f in line.findings] == [(f.kind, f.count) for f in alone.findings]
