"""What the browser is sent: every table as it is published, packed and read back."""

import numpy as np
import orjson
import pytest

from making import bar, brush, measured, svg
from sewn_garland.core.assemble import painted
from sewn_garland.core.drawing.buffers import DTYPES, pack, unpack
from sewn_garland.core.drawing.columns import MOST_BEND, STRIP_SAMPLES, TABLES, Columns, bend_columns, join_columns, piece_columns
from sewn_garland.core.lay import lay
from sewn_garland.core.reading.svg_motif import motif_from_svg
from sewn_garland.core.shaping.shaped import PRINT, Detail
from sewn_garland.core.values.drawing import PaintedPieces

STROKED = svg("<path d='M0 2C3 0 7 4 10 2' fill='none' stroke='#123456'/>", 10, 4)
WAVE = "M0 0C40 60 60 -60 100 0"


def tables_of(made, path, detail=PRINT):
    (laid,) = lay(made, [measured(path)], detail=detail)
    columns = piece_columns(painted(made.pieces.motifs, laid), laid.cuts) + join_columns(laid)
    return laid, {(each.table, each.number): each.values for each in columns}


@pytest.mark.parametrize("table", TABLES)
def test_every_table_says_what_it_holds(table):
    about = TABLES[table]
    assert about.dtype in DTYPES
    assert len(set(about.columns)) == len(about.columns) > 0
    assert about.about and not about.about.endswith(".")


def test_stamped_pieces_are_six_numbers_each_and_nothing_more():
    laid, tables = tables_of(brush(bar(9, 2), gap=1 / 9), "M0 0H99")
    assert set(tables) == {("pieces", 0), ("extent", 0), ("joins", 0)}
    assert tables["pieces", 0].shape == (10, 6)
    assert tables["pieces", 0][:, 4] == pytest.approx(np.arange(4.5, 99, 10))  # e: mm along the page
    assert tables["extent", 0] == pytest.approx(np.column_stack([laid.pieces.s, np.full(10, 4.5), np.full(10, 4.5)]))


def test_a_column_is_found_by_its_name():
    laid, tables = tables_of(brush(bar(10, 2), gap=0.2), "M0 0H60V60")
    joins = dict(zip(TABLES["joins"].columns, tables["joins", 0].T, strict=True))
    assert joins["wished"] == pytest.approx(2)
    assert joins["gap"] - joins["wished"] == pytest.approx(laid.joins.gap)
    assert joins["kink"] == pytest.approx(np.degrees(laid.joins.kink))
    assert joins["kink"].max() == pytest.approx(90)
    assert np.isnan(joins["apart"]).all() and np.isnan(joins["overlap"]).all()  # not measured by outlines


def test_several_motifs_say_which_one_each_piece_is():
    laid, tables = tables_of(brush(bar(10, 2), bar(10, 4), bar(10, 6), gap=0.01), "M0 0H101")
    assert tables["motif", 0][:, 0].tolist() == [k % 3 for k in range(10)] == laid.pieces.motif.tolist()


@pytest.mark.parametrize("more", [{}, {"taper_start": 40.0}], ids=["bent", "bent and tapered"])
def test_bent_pieces_come_as_contours_with_their_strokes_outlined(more):
    laid, tables = tables_of(brush(motif_from_svg(STROKED), round_bends="bent", size=2.0, **more), WAVE)
    contours = dict(zip(TABLES["contours"].columns, tables["contours", 0].T, strict=True))
    drawn = tables["drawn", 0][:, 0]
    assert (drawn == 2).all()
    assert contours["stroked"].all()  # its shapes have no fill
    assert set(contours["piece"].tolist()) == set(range(len(laid.pieces.s)))
    lengths = np.diff(np.append(contours["start"], len(tables["outline", 0])))
    assert (lengths % 3 == 1).all()  # a first point and three a cubic


def test_on_a_screen_pieces_that_end_on_a_bisector_come_whole_with_the_bisector():
    made = brush(bar(10, 2), outside_corner="mitre", inside_corner="mitre")
    laid, tables = tables_of(made, "M0 0H60V60", Detail(PRINT.tolerance, cut=False))
    cuts = dict(zip(TABLES["bisector"].columns, tables["bisector", 0].T, strict=True))
    assert len(tables["cut", 0]) == len(laid.cuts.piece) >= 2
    assert np.hypot(cuts["away_x"], cuts["away_y"]) == pytest.approx(1)
    assert np.column_stack([cuts["x"], cuts["y"]]) == pytest.approx(np.tile([60.0, 0.0], (len(laid.cuts.piece), 1)))


def test_the_bend_strip_has_the_circle_s_curvature_and_the_corner_s_turn():
    line = measured("M0 0A20 20 0 0 1 40 0H70")  # half a circle to the right, then a corner to the left
    bend, vertices = bend_columns(line, line.length)
    on_circle = bend.values[bend.values[:, 0] < 0.99 * 20 * np.pi]
    assert np.abs(on_circle[:, 1]) == pytest.approx(1 / 20)
    assert vertices.values == pytest.approx(np.array([[20 * np.pi, -90]]))
    halved, _ = bend_columns(line, line.length / 2)
    assert halved.values[-1, 0] == pytest.approx(bend.values[-1, 0] / 2)


def test_the_bend_strip_is_thinned_and_bounded():
    sharp = measured("M0 0" + "".join(f"l1 {(-1) ** k * 0.3}c.5 1 .5 1 0 0" for k in range(600)))
    bend, _ = bend_columns(sharp, sharp.length)
    assert len(bend.values) <= STRIP_SAMPLES
    assert np.abs(bend.values[:, 1]).max() <= MOST_BEND
    assert np.isfinite(bend.values).all()


def test_what_is_packed_is_read_back_part_by_part():
    rng = np.random.default_rng(3)
    parts = [
        [Columns("pieces", rng.normal(size=(5, 6))), Columns("motif", np.array([[1], [2], [3], [4], [5]]))],
        [],
        [Columns("mesh", rng.normal(size=(2, 3, 4, 2)), 1), Columns("cut", np.zeros((0, 1)))],
    ]
    data = pack({"seq": 7, "words": "gap – 3 mm"}, parts)
    header, found = unpack(data)
    assert header == {"seq": 7, "words": "gap – 3 mm"}
    assert [set(part) for part in found] == [{("pieces", 0), ("motif", 0)}, set(), {("mesh", 1), ("cut", 0)}]
    for part, read in zip(parts, found, strict=True):
        for name, values, number in part:
            assert read[name, number].dtype == DTYPES[TABLES[name].dtype]
            assert read[name, number].shape == values.shape
            assert read[name, number] == pytest.approx(values, rel=1e-6)


def test_every_array_begins_on_a_multiple_of_eight_bytes():
    data = pack({"odd": "x" * 13}, [[Columns("motif", np.ones((3, 1))), Columns("pieces", np.ones((1, 6)))]])
    length = int.from_bytes(data[4:8], "little")
    header = orjson.loads(data[8 : 8 + length])
    assert length % 8 == 0
    assert [entry["offset"] % 8 for entry in header["arrays"]] == [0, 0]
    assert len(data) == 8 + length + 8 + 24


def test_other_bytes_are_not_taken_for_tables():
    with pytest.raises(ValueError, match="not a buffer of this kind"):
        unpack(b"SGB1" + bytes(20))


def test_no_pieces_are_an_empty_table():
    empty = PaintedPieces((bar(10, 2),), np.zeros(0, int), np.zeros((0, 6)))
    assert [each.values.shape for each in piece_columns(empty)] == [(0, 6)]
