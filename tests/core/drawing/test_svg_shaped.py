"""Shaped pieces written all at once and one by one: the same text."""

import pytest

from making import brush, measured
from making import svg as svg_file
from sewn_garland.core.assemble import drawing_of, painted
from sewn_garland.core.drawing import svg, svg_shaped
from sewn_garland.core.drawing.svg import compact_svg
from sewn_garland.core.lay import lay
from sewn_garland.core.reading.svg_motif import motif_from_svg
from sewn_garland.core.values.brush import Ink

LEAF = motif_from_svg(
    svg_file('<path d="M0 2C3 -1 7 -1 10 2C7 5 3 5 0 2ZM4 2H6V3H4Z" fill="#374" fill-rule="evenodd" stroke="#153" stroke-width=".4"/>'
        '<circle cx="5" cy="2" r=".8" fill="#fc0" fill-opacity=".5"/>', 10, 4)
)  # fmt: skip
DOT = motif_from_svg(svg_file('<circle cx="2" cy="2" r="1.5" fill="none" stroke="#a33" stroke-dasharray="1 .5"/>', 4, 4))
CASES = {
    "bent": ({"round_bends": "bent"}, None),
    "bent and tapering": ({"round_bends": "bent", "taper_start": 30.0}, None),
    "mitred": ({"outside_corner": "mitre", "inside_corner": "mitre"}, None),
    "bent, mitred, covering by half": ({"round_bends": "bent", "outside_corner": "mitre", "inside_corner": "mitre"}, 0.5),
}


def attributes(shape, scale):
    return f' fill="{shape.fill and shape.fill.colour}" stroke="{shape.stroke and shape.stroke.width * scale}" data-share="5%"'


@pytest.mark.parametrize("case", CASES)
def test_all_at_once_is_as_one_by_one(case):
    settings, covers = CASES[case]
    line = measured("M0 0H60V40H-20C-60 40 -60 90 -20 90H100L103 60")
    which = brush(LEAF, DOT, **settings)
    laid = lay(which, [line])[0]
    item = painted(which.pieces.motifs, laid, Ink(per_piece_pct=100 if covers is None else 100 * covers))
    assert item.outlines is not None and item.shaped.any()
    assert item.shaped.all() == (case == "bent and tapering")  # elsewhere some are stamped among them
    stamped = lambda motif: (f'<use href="#{item.artwork.index(motif)}" transform="matrix(', ' data-of="100%"/>\n')  # noqa: E731
    one_by_one = svg_shaped._one_by_one(item, item.outlines, attributes, lambda *_: "", stamped)
    assert svg_shaped._all_at_once(item, item.outlines, attributes, stamped) == one_by_one
    assert one_by_one.count("<g") == item.shaped.sum()


def test_no_pieces_are_no_text_and_blocks_of_pieces_are_written_as_all_of_them(monkeypatch):
    which = brush(LEAF, round_bends="bent")
    laid = lay(which, [measured("M0 0H30C60 0 60 40 30 40")])[0]
    item = painted(which.pieces.motifs, laid)
    none = item.part(0, 0)
    assert none.outlines is not None and svg_shaped._all_at_once(none, none.outlines, attributes, lambda motif: ("", "")) == ""
    whole = compact_svg(drawing_of(60, 40, [item]))
    monkeypatch.setattr(svg, "BLOCK_PIECES", 3)
    assert len(item.motif) > 6 and compact_svg(drawing_of(60, 40, [item])) == whole
