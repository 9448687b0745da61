"""Where a line closes its pieces lie over one another as they do at every other join.

Checked by pixels: a circle of like pieces looks the same from every one of them.
"""

import io

import numpy as np
import pytest
import shapely
from PIL import Image

from making import bar, brush, measured, svg
from sewn_garland.core.artwork.passes import half_of, passes_of
from sewn_garland.core.assemble import drawing_of, on_page
from sewn_garland.core.drawing.columns import close_columns
from sewn_garland.core.drawing.steps import png_of
from sewn_garland.core.drawing.svg import plain_svg
from sewn_garland.core.lay import cured, lay
from sewn_garland.core.reading.svg_motif import motif_from_svg
from sewn_garland.core.values.brush import Ink

CIRCLE = "M5 30A25 25 0 1 1 55 30A25 25 0 1 1 5 30Z"
PX = 20
SCALE = '<ellipse cx="6" cy="3" rx="6" ry="3" fill="#205060"/><ellipse cx="6" cy="3" rx="5.2" ry="2.2" fill="#f0d0a0"/>'
GLASS = '<ellipse cx="6" cy="3" rx="6" ry="3" fill="#205060" fill-opacity=".5"/>'
TAIL = '<rect data-lies="under" y="1" width="12" height="4" fill="#a02020"/><circle cx="6" cy="3" r="2.6" fill="#f0d0a0" stroke="#000" stroke-width=".5"/>'


def motif(body):
    return motif_from_svg(svg(body, 12, 6))


def seen_from_each(drawing, count):
    """Return the picture (count, radii, angles, 3) about the middle of a circle, as each of so many pieces sees it."""
    side = round(60 * PX)
    rgb = np.asarray(Image.open(io.BytesIO(png_of(drawing, width_px=side, height_px=side))).convert("RGB")).astype(int)
    r, turn = np.linspace(21, 29, 60), np.linspace(0, 2 * np.pi / count, 80, endpoint=False)
    angle = turn + 2 * np.pi / count * np.arange(count)[:, None]
    x, y = (30 + r[:, None] * part[:, None] for part in (np.cos(angle), np.sin(angle)))
    return rgb[(y * PX).astype(int), (x * PX).astype(int)]


@pytest.mark.parametrize("settings", [{}, {"round_bends": "bent"}, {"turn_about": True}, {"starts_at": 17.0}, {"gap": -0.75}], ids=str)
@pytest.mark.parametrize(
    ("body", "ink"), [(SCALE, Ink()), (GLASS, Ink()), (SCALE, Ink(per_piece_pct=60.0)), (SCALE, Ink(laid_on_as="multiply", blends="each_piece"))],
    ids=["opaque", "see-through", "each see-through", "each blends"],
)  # fmt: skip
def test_a_closed_line_looks_the_same_from_every_piece(body, ink, settings):
    made = brush(motif(body), **{"gap": -0.4, "ease": "gaps", "ease_limit": 0.5, **settings}).changed({"ink": ink.model_dump()})
    laid = lay(made, [measured(CIRCLE)])[0]
    count = len(laid.pieces.s)
    assert count > 10 and [c.last for c in laid.closes] == [count - 1]
    views = seen_from_each(drawing_of(60, 60, on_page(made.pieces.motifs, laid, made.ink), ground="#ffffff"), count)
    differ = np.abs(views - np.median(views, axis=0)).sum(axis=3) > 90
    assert differ.mean(axis=(1, 2)).max() < 0.03  # rims, which no two pieces have on the same pixels


def test_without_the_close_it_would_not():
    made = brush(motif(SCALE), gap=-0.4, ease="gaps", ease_limit=0.5)
    laid = lay(made, [measured(CIRCLE)])[0]
    bare = drawing_of(60, 60, on_page(made.pieces.motifs, type(laid)(**{**laid.__dict__, "closes": ()})), ground="#ffffff")
    views = seen_from_each(bare, len(laid.pieces.s))
    assert (np.abs(views - np.median(views, axis=0)).sum(axis=3) > 90).mean(axis=(1, 2)).max() > 0.06


def test_rows_and_what_lies_under_close_each_by_itself():
    made = brush(motif(TAIL), gap=-0.5, ease="gaps", ease_limit=0.5, rows=[9.0])
    laid = lay(made, [measured(CIRCLE)])[0]
    outer = int((laid.pieces.row == 0).sum())
    assert [(c.under, c.first, c.last) for c in laid.closes] == [(True, 0, outer - 1), (True, outer, len(laid.pieces.s) - 1)]
    assert passes_of(made.pieces.motifs) == (True, False)
    assert [len(half_of(made.pieces.motifs[0], under, False).shapes) for under in (True, False)] == [1, 1]
    text = plain_svg(drawing_of(60, 60, on_page(made.pieces.motifs, laid)))
    assert text.rindex("#a02020") < text.index("#f0d0a0")


@pytest.mark.parametrize(
    ("path", "gap"), [("M5 30A4 4 0 1 1 13 30A4 4 0 1 1 5 30Z", -0.2), ("M5 30A5 5 0 1 1 15 30A5 5 0 1 1 5 30Z", -0.85)]
)
def test_where_pieces_reach_too_far_round_the_stacking_breaks_and_is_told(path, gap):
    laid = lay(brush(motif(SCALE), gap=gap, size=1.4, ease="gaps", ease_limit=0.5), [measured(path)])[0]
    assert [f.message for f in laid.findings if f.kind == "stacking breaks"] == [
        "the stacking breaks where the line closes: its pieces overlap too far round"
    ]
    assert laid.closes == ()
    made = brush(motif(SCALE), gap=gap, size=1.4, ease="gaps", ease_limit=0.5)
    told = next(f for f in cured(made, measured(path), laid).findings if f.kind == "stacking breaks")
    assert told.cures
    for cure in told.cures:  # each laid anew here
        after = lay(made.changed(cure.change["brush"]), [measured(path)])[0]
        assert not [f for f in after.findings if f.kind == "stacking breaks"], cure.label


@pytest.mark.parametrize(
    "settings",
    [{"gap": 0.2}, {"gap": -0.4, "path": "M5 30H90"}, {"kind": "once_length"}, {"outside_corner": "mitre", "path": "M5 5H55V55H5Z"}],
    ids=str,
)
def test_what_does_not_overlap_at_the_close_is_painted_once(settings):
    path = settings.pop("path", CIRCLE)
    laid = lay(brush(bar(10, 2), **settings), [measured(path)])[0]
    assert laid.closes == () and not [f for f in laid.findings if f.kind == "stacking breaks"]


def test_where_the_line_crosses_itself_by_its_start_what_comes_later_stays_on_top():
    made = brush(motif(SCALE), gap=-0.4, ease="gaps", ease_limit=0.5)
    laid = lay(made, [measured("M30 30C60 0 60 60 30 30C0 0 0 60 30 30Z")])[0]
    (close,) = laid.closes
    rings = [close.points[a:b] for a, b in zip(close.starts, close.starts[1:], strict=False)]
    area = shapely.union_all([shapely.Polygon(ring) for ring in rings])
    later = [p for p in range(close.count, close.last - 1) if np.hypot(*(laid.pieces.centre[p] - (30, 30))) < 3]
    assert later and all(not area.contains(shapely.Point(*laid.pieces.centre[p])) for p in later)


def test_the_browser_gets_the_areas_as_tables():
    made = brush(motif(SCALE), gap=-0.4, ease="gaps", ease_limit=0.5, rows=[10.0])
    closes = lay(made, [measured(CIRCLE)])[0].closes
    close, area, ring = (columns.values for columns in close_columns(closes))
    assert close.tolist() == [[c.first, c.count, c.last, 0, 0] for c in closes]
    assert len(close) == 2 and area[:, 1].tolist() == [0, 1]
    assert ring[area[1, 0] :].tolist() == closes[1].points.tolist()
    assert close_columns(()) == []
