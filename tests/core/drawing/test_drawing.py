"""What leaves the core: SVG, PNG, the pieces list, buffers."""

import csv
import io

import numpy as np
import pytest
from lxml import etree
from PIL import Image

from making import SVG, bar, brush, drawing, measured, svg
from sewn_garland.core.assemble import painted, pieces_list
from sewn_garland.core.colouring.inked import inked
from sewn_garland.core.drawing.buffers import pack, unpack
from sewn_garland.core.drawing.columns import TABLES, Columns, bend_columns, join_columns, piece_columns
from sewn_garland.core.drawing.png import pixels_of, png_from_svg
from sewn_garland.core.drawing.svg import compact_svg, motif_svg, plain_svg
from sewn_garland.core.drawing.tables import turn_deg_of
from sewn_garland.core.errors import LimitError
from sewn_garland.core.lay import lay
from sewn_garland.core.reading.svg_motif import motif_from_svg
from sewn_garland.core.shaping.shaped import Detail
from sewn_garland.core.values.brush import Ink

TWO_TONE = svg('<path d="M1 1C3 0 7 0 9 1L9 3H1Z" fill="#336" fill-opacity=".5"/><path d="M2 2H8" stroke="#fc0" stroke-width=".4" fill="none" '
               'stroke-linecap="round" stroke-dasharray="1 .7"/>', 10, 4)  # fmt: skip


def laid(*paths, motif=None, **settings):
    which = brush(motif or bar(), **settings)
    return [(which.pieces.repeat, line) for line in lay(which, [measured(p) for p in paths])]


def picture(text, width=400, height=400):
    return np.asarray(Image.open(io.BytesIO(png_from_svg(text, width_px=width, height_px=height))).convert("RGBA")).astype(int)


def covered(pixels):
    """Colours weighted by their cover, for the colour of a nearly clear pixel says nothing."""
    return np.dstack([pixels[..., :3] * pixels[..., 3:] / 255, pixels[..., 3]])


def test_compact_and_plain_svg_show_the_same_picture():
    motif = motif_from_svg(TWO_TONE, base_line_mm=3)
    drawn = laid("M10 60C30 10 70 90 90 30", "M20 90H80", motif=motif, mirror="every_second", size=1.3, turn_deg=20)
    compact, plain = compact_svg(drawing(100, 100, *drawn)), plain_svg(drawing(100, 100, *drawn))
    assert "<use" in compact
    assert "<use" not in plain
    difference = np.abs(*(np.diff([covered(picture(t)) for t in (compact, plain)], axis=0)))
    assert difference.max() <= 40  # rounding of the coordinates may move an edge by a fraction of a pixel
    assert difference.mean() < 0.05


def test_each_motif_is_defined_once_and_a_piece_takes_at_most_90_bytes():
    drawn = laid("M0 0C300 900 600 -900 900 0", size=0.05)
    text = compact_svg(drawing(1000, 1000, *drawn))
    count = len(drawn[0][1].pieces.s)
    assert text.count("<path") == 1
    assert text.count("<use") == count > 1000
    assert len(text) / count <= 90


def test_page_has_its_size_in_mm_and_its_ground_only_when_asked():
    text = compact_svg(drawing(400, 300, *laid("M0 0H30"), ground="#e9f1f1"))
    root = etree.fromstring(text)
    assert (root.get("width"), root.get("height"), root.get("viewBox")) == ("400mm", "300mm", "0 0 400 300")
    assert root.find(f"{{{SVG}}}rect").get("fill") == "#e9f1f1"
    assert "<rect" not in compact_svg(drawing(400, 300, *laid("M0 0H30")))
    assert etree.fromstring(compact_svg(drawing(10, 10))).tag == f"{{{SVG}}}svg"


def test_a_motif_written_and_read_is_the_same_motif():
    motif = motif_from_svg(TWO_TONE)
    again = motif_from_svg(motif_svg(motif))
    assert (again.width, again.height, again.points) == (10, 4, motif.points)
    assert again.shapes[0].fill == motif.shapes[0].fill
    assert again.shapes[1].stroke == motif.shapes[1].stroke
    assert again.shapes[0].points == pytest.approx(motif.shapes[0].points, abs=1e-4)


def test_png_is_exactly_as_large_as_asked_with_clear_ground():
    text = compact_svg(drawing(100, 50, *laid("M0 25H100", size=2)))
    assert pixels_of(100, 50, 300) == (1181, 591)
    pixels = picture(text, *pixels_of(100, 50, 300))
    assert pixels.shape[:2] == (591, 1181)
    assert pixels[0, 0, 3] == 0
    assert pixels[295, 590].tolist() == [0xA3, 0x3A, 0x2F, 255]
    covered = (pixels[..., 3] > 127).sum() / pixels[..., 3].size
    assert covered == pytest.approx(100 * 4 / 5000, rel=0.01)  # five bars of 20 × 4 mm on 100 × 50


@pytest.mark.parametrize(("width", "dpi"), [(100_000, 300), (5000, 2400)])
def test_a_picture_too_large_is_refused_with_the_way_out(width, dpi):
    with pytest.raises(LimitError, match="choose a lower dpi"):
        pixels_of(width, width, dpi)


def test_a_drawing_that_kills_the_renderer_leaves_us_alive():
    nested = compact_svg(drawing(10, 10)).replace(
        "</svg>", '<g opacity=".5">' * 5000 + '<rect width="9" height="9"/>' + "</g>" * 5000 + "</svg>"
    )
    with pytest.raises(Exception, match="the picture"):
        png_from_svg(nested, width_px=2000, height_px=2000)


def test_pieces_list_has_a_row_a_piece_and_full_precision():
    drawn = laid("M0 0H25V25", "M1 1L1 1", "M0 50H30", outside_corner="butt", gap=0.1)
    rows = list(csv.DictReader(io.StringIO(pieces_list([(brush(), line) for _, line in drawn]))))
    assert [(r["line"], r["run"], r["index"]) for r in rows] == [
        ("0", "0", "0"), ("0", "0", "1"), ("0", "1", "2"), ("0", "1", "3"), ("2", "0", "0"), ("2", "0", "1")]  # fmt: skip
    assert {r["role"] for r in rows} == {"repeat"}
    assert [float(r["x_mm"]) for r in rows] == np.concatenate([line.pieces.centre[:, 0] for _, line in drawn]).tolist()
    assert all(cell for r in rows for cell in r.values())


def test_angles_are_given_within_half_a_turn():
    assert turn_deg_of(np.radians([180, -180, 190, 540, -0.0, 720])) == pytest.approx([180, 180, -170, 180, 0, 0])


def test_ink_turns_every_paint_and_keeps_what_covers_half():
    motif = inked(motif_from_svg(TWO_TONE), Ink(ink="#102030"))
    assert motif.shapes[0].fill.colour == "#102030"
    assert motif.shapes[0].fill.opacity == pytest.approx(0.5, abs=1 / 510)  # eight bits
    assert motif.shapes[1].stroke.paint.colour == "#102030"
    assert motif.shapes[1].fill is None
    assert inked(motif, Ink()) is motif


def test_buffers_come_back_as_they_went():
    pieces, none = np.arange(12.0).reshape(2, 6), np.zeros((0, 1))
    parts = [
        [Columns("pieces", pieces), Columns("motif", np.array([[1], [65535]]))],
        [Columns("cut", none), Columns("meshed", pieces[:, :2], 3)],
    ]
    header, (first, second) = unpack(pack({"name": "Tidé"}, parts))
    assert header == {"name": "Tidé"}
    assert first["pieces", 0].tolist() == pieces.tolist()
    assert first["motif", 0].tolist() == [[1], [65535]]
    assert second["cut", 0].shape == (0, 1)
    assert second["meshed", 3].tolist() == [[0, 1], [6, 7]]
    with pytest.raises(ValueError, match="not a buffer"):
        unpack(b"nonsense")


@pytest.mark.parametrize("settings", [
    {}, {"round_bends": "bent", "outside_corner": "mitre", "inside_corner": "mitre"}, {"round_bends": "bent", "ease": "length", "ease_limit": 0.5},
])  # fmt: skip
def test_every_table_has_the_columns_it_says(settings):
    motif = motif_from_svg(TWO_TONE)
    line, which = measured("M0 0C20 30 40 -30 67 0V50"), brush(motif, bar(), **settings)
    done = lay(which, [line])[0]
    tables = [*piece_columns(painted(which.pieces.motifs, done), done.cuts), *join_columns(done), *bend_columns(line, done.length)]
    names = {table.table for table in tables}
    assert {"pieces", "motif", "extent", "joins", "bend", "vertices"} <= names
    assert ("contours" in names) == ("drawn" in names) == bool(settings)
    for table in tables:
        assert table.values.shape[-1] == len(TABLES[table.table].columns), table.table
        assert np.isfinite(table.values).all() or table.table == "joins"


@pytest.mark.parametrize("write", [compact_svg, plain_svg])
@pytest.mark.parametrize(
    ("settings", "path"),
    [
        ({"kind": "once_length"}, "M0 20H200"), ({"kind": "once_proportion"}, "M0 40C60 10 140 70 200 40"),
        ({"round_bends": "bent", "turn_deg": 90.0}, "M40 40A14 14 0 0 1 12 40A14 14 0 0 1 40 40Z"),
        ({"ease": "length", "ease_limit": 0.5, "round_bends": "bent"}, "M0 20C60 -20 120 60 199 20"),
        ({"ease": "length", "ease_limit": 0.5, "outside_corner": "mitre", "inside_corner": "mitre"}, "M0 20H99L150 60"),
        ({"ease": "length", "ease_limit": 0.6, "turn_deg": 30.0}, "M0 20H199"),
    ],
)  # fmt: skip
def test_a_stroke_is_as_thick_as_its_filled_twin(settings, path, write):
    """The same picture, pixel by pixel, however pieces are scaled, bent, eased or stretched; a little see-through, for fills that
    meet are one.
    """
    stroked = motif_from_svg(svg('<path d="M0 2.5H8" stroke="#000" stroke-width="1" stroke-opacity=".98" fill="none"/>', 8, 5))
    filled = motif_from_svg(svg('<rect y="2" width="8" height="1" fill-opacity=".98"/>', 8, 5))
    one, other = (picture(write(drawing(200, 80, *laid(path, motif=motif, **settings))), 1000, 400)[..., 3] for motif in (stroked, filled))
    assert np.abs(one - other).max() <= 12  # of 255, at a rim
    assert one.sum() == pytest.approx(other.sum(), rel=1e-3)
    assert one.sum() > 255 * 1000


@pytest.mark.parametrize(("size", "outlined"), [(0.4, False), (1.2, False), (6.0, True)])
def test_a_stroke_that_is_seen_coarsely_is_as_thick_as_its_filled_twin_within_that(size, outlined):
    """Left a stroke where bending cannot be told at that detail, else an outline in fewer curves; filled twin, pixel by pixel."""
    stroked = motif_from_svg(svg('<path d="M1 0.5L5 4.5" stroke="#000" stroke-width=".5" fill="none"/>', 8, 5))
    filled = motif_from_svg(svg('<path transform="translate(3 2.5) rotate(45)" d="M-2.82843 -.25H2.82843V.25H-2.82843Z"/>', 8, 5))
    line, fine, coarse = measured("M10 40C60 -20 140 90 190 40"), Detail(), Detail(tolerance=0.12)
    done = [
        ((motif,), lay(brush(motif, round_bends="bent", size=size), [line], detail=detail)[0])
        for motif, detail in ((stroked, coarse), (filled, fine))
    ]
    assert (len(done[0][1].outlines.outlined) > 0) == outlined
    one, other = (picture(compact_svg(drawing(200, 80, each)), 2000, 800)[..., 3] for each in done)
    off = (one - other).reshape(400, 2, 1000, 2).mean(axis=(1, 3))
    assert np.abs(off).max() <= 255 * 0.12 * 5  # an edge that strays by 0.12 mm at 5 pixels a mm
    assert one.sum() == pytest.approx(other.sum(), rel=5e-3)
