"""Over and under: parts that lie under the neighbours, and what interlocks with itself.

What shows of which ring is checked against shapely's own annuli: at every crossing above the base line the ring that comes
later lies over the one before it, below it the other way round.
"""

import io
import itertools

import numpy as np
import pytest
import shapely
from PIL import Image

from making import bar, brush, measured, svg
from sewn_garland.core.artwork.silhouette import silhouette
from sewn_garland.core.assemble import drawing_of, on_page
from sewn_garland.core.drawing.steps import png_of
from sewn_garland.core.drawing.svg import compact_svg, motif_svg, plain_svg
from sewn_garland.core.errors import InputError
from sewn_garland.core.lay import lay
from sewn_garland.core.making.edits import edited
from sewn_garland.core.making.starters import motif_from_starter
from sewn_garland.core.reading.svg_motif import motif_from_svg

RED, BLUE = "#ff0000", "#0000ff"
R, WIRE, PITCH = 5.0, 1.6, 10 - 2 * 1.6
PX = 20  # pixels a mm


def ring(colour):
    return motif_from_starter("ring", {"edge": 0}, colour=colour)


def annulus(x, y):
    return shapely.Point(x, y).buffer(R, 256).difference(shapely.Point(x, y).buffer(R - WIRE, 256))


def pixels_of(colour, drawing):
    size = round(drawing.width_mm * PX), round(drawing.height_mm * PX)
    rgb = np.asarray(Image.open(io.BytesIO(png_of(drawing, width_px=size[0], height_px=size[1]))).convert("RGB")).astype(int)
    wanted = [int(colour[i : i + 2], 16) for i in (1, 3, 5)]
    return (np.abs(rgb - wanted).sum(axis=2) < 255).sum() / PX**2


def areas(centres):
    """Return the areas that show of the even and of the odd of rings in a row, each over its next one below the row alone."""
    rings = [annulus(*c) for c in centres]
    shown = list(rings)
    for k, n in itertools.pairwise(range(len(rings))):
        middle, along = (centres[k] + centres[n]) / 2, centres[n] - centres[k]
        across = np.array([-along[1], along[0]]) / np.hypot(*along)
        far = 40 * along / np.hypot(*along)
        above = shapely.Polygon([middle - far, middle + far, middle + far - 40 * across, middle - far - 40 * across])
        crossing = rings[k].intersection(rings[n])
        shown[k] = shown[k].difference(crossing.intersection(above))
        shown[n] = shown[n].difference(crossing.difference(above))
    return [sum(shapely.area(shown[i::2])) for i in (0, 1)]


@pytest.mark.parametrize("bends", ["jointed", "rigid", "bent"])
def test_of_a_row_of_rings_shows_what_rings_that_interlock_show(bends):
    gap = {"gap": PITCH / (2 * R) - 1} if bends != "jointed" else {}
    made = brush(ring(RED), ring(BLUE), round_bends=bends, order="in_turn", ease="leave", **gap)
    laid = lay(made, [measured(f"M4 8H{4 + 7 * PITCH + 2 * R}")])[0]
    x = laid.pieces.centre[:, 0]
    assert np.diff(x) == pytest.approx(PITCH)
    drawing = drawing_of(70, 16, [on_page(made.pieces.motifs, laid)], ground="#ffffff")
    wanted = areas(np.column_stack([x, np.full(len(x), 8.0)]))
    edge = 2 * np.pi * (2 * R - WIRE) * len(x) / 2 / PX  # a pixel along all rims would be that much
    for colour, area in zip((RED, BLUE), wanted, strict=True):
        assert pixels_of(colour, drawing) == pytest.approx(area, abs=0.15 * edge)


def test_a_closed_chain_crosses_alike_at_every_join():
    made = brush(ring(RED), ring(BLUE), round_bends="jointed", order="in_turn", ease="size", ease_limit=0.3)
    laid = lay(made, [measured("M5 30A25 25 0 1 1 55 30A25 25 0 1 1 5 30Z")])[0]
    assert len(laid.pieces.s) % 2 == 0 and not laid.findings
    drawing = drawing_of(60, 60, [on_page(made.pieces.motifs, laid)], ground="#ffffff")
    red, blue = (pixels_of(colour, drawing) for colour in (RED, BLUE))
    assert red == pytest.approx(blue, rel=0.01)  # were one join the other way round, they would differ by a fortieth


@pytest.mark.parametrize("write", [compact_svg, plain_svg])
def test_what_lies_under_is_written_before_everything_else(write):
    motif = motif_from_svg(
        svg(f'<rect width="8" height="2" fill="{RED}"/><rect data-lies="under" width="3" height="2" fill="{BLUE}"/>', 8, 2)
    )
    made = brush(motif, gap=-0.3)
    text = write(drawing_of(50, 10, [on_page(made.pieces.motifs, lay(made, [measured("M2 5H48")])[0])]))
    if write is plain_svg:
        assert text.rindex(BLUE) < text.index(RED)
    else:
        uses = [line[:13] for line in text.splitlines() if line.startswith("<use")]
        assert len(list(itertools.groupby(uses))) == 2


def test_a_part_and_a_group_lie_under_in_files_and_are_written_so():
    text = '<g data-lies="under"><rect width="1" height="1"/></g><use href="#a"/><g data-lies="under"><use href="#a" x="2"/></g><rect id="a" x="3" width="1" height="1"/>'
    motif = motif_from_svg(svg(text, 8, 2))
    assert [s.under for s in motif.shapes] == [True, False, True, False]
    assert [s.under for s in motif_from_svg(motif_svg(motif)).shapes] == [True, False, True, False]
    lifted = edited(motif, "lie", {"parts": [0], "under": False})
    assert [s.under for s in edited(lifted, "lie", {"parts": [1], "under": True}).shapes] == [False, True, True, False]


def test_any_parts_are_divided_and_cover_what_they_covered():
    motif = motif_from_svg(
        svg(f'<path d="M1 1H9V5H1Z" fill="{RED}"/><circle cx="5" cy="3" r="1.5" fill="{BLUE}" stroke="#000" stroke-width=".4"/>', 10, 6)
    )
    made = edited(motif, "interlock", {"parts": [0, 1]})
    assert [s.under for s in made.shapes] == [True, False] * 3  # the circle's fill and stroke each
    assert silhouette(made).symmetric_difference(silhouette(motif)).area < 0.01
    over = [shapely.Polygon(s.points[:-1] if len(s.points) > 4 else s.points) for s in made.shapes[:2]]
    assert all(part.is_valid or part.buffer(0).area > 0 for part in over)
    assert edited(made, "interlock", {"parts": [1]}).points >= made.points  # once more does no harm


def test_see_through_parts_are_divided_without_a_lap():
    motif = motif_from_svg(svg('<path d="M0 0H10V6H0Z" fill="#123456" fill-opacity=".5"/>', 10, 6))
    halves = edited(motif, "interlock", {"parts": [0]}).shapes
    assert sum(silhouette(edited(motif, "interlock", {"parts": [0]}).__class__((h,), 10, 6, 3)).area for h in halves) == pytest.approx(60)


def test_a_picture_is_refused_in_words():
    picture = '<image width="4" height="4" href="data:image/png;base64,iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg=="/>'
    with pytest.raises(InputError, match="a picture cannot be divided to interlock; trace it first"):
        edited(motif_from_svg(svg(picture, 4, 4)), "interlock", {"parts": [0]})


def test_figures_of_a_link_from_before_there_were_edges_stay_as_they_were():
    old = motif_from_starter("link", {"edge": 0, "interlocked": 0})
    recipe = old.recipes[0]
    before = old.__class__(old.shapes, old.width, old.height, old.base_line, recipes=(
        recipe.__class__(1, "starter", tuple((k, v) for k, v in recipe.figures if k not in ("edge", "interlocked"))),))  # fmt: skip
    longer = edited(before, "figures", {"group": 1, "figures": {"length": 20}})
    assert len(longer.shapes) == 1 and longer.width == 20
    hung = edited(longer, "figures", {"group": 1, "figures": {"interlocked": 1, "edge": 0.3}})
    assert [(s.name, s.under) for s in hung.shapes] == [("Link edge", True), ("Link edge", False), ("Link", True), ("Link", False)]


def test_an_edge_keeps_its_paint_when_the_figures_change():
    link = motif_from_starter("link")
    edges = [i for i, s in enumerate(link.shapes) if s.name == "Link edge"]
    painted = edited(link, "paint", {"parts": edges, "fill": "#aabbcc"})
    wider = edited(painted, "figures", {"group": 1, "figures": {"wire": 2.4}})
    assert [s.fill.colour for s in wider.shapes] == ["#aabbcc", "#aabbcc", "#2c4a84", "#2c4a84"]
    assert bar().pitch == 10 and wider.pitch == pytest.approx(16 - 2 * 2.4)
