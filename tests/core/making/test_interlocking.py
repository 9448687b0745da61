"""Over and under: parts that lie under the neighbours, and what interlocks with itself.

What shows of which ring is checked against shapely's own annuli: at every crossing above the base line the ring that comes
later lies over the one before it, below it the other way round.
"""

import io
import itertools
from dataclasses import replace

import numpy as np
import pytest
import shapely
from PIL import Image
from shapely import clip_by_rect
from shapely.affinity import translate

from examples import examples
from fuzzing import random_motif
from making import bar, brush, measured, svg
from sewn_garland.core.artwork.passes import passes_of
from sewn_garland.core.artwork.silhouette import silhouette
from sewn_garland.core.assemble import drawing_of, on_page
from sewn_garland.core.drawing.steps import png_of
from sewn_garland.core.drawing.svg import compact_svg, motif_svg, plain_svg
from sewn_garland.core.errors import CoreError, InputError
from sewn_garland.core.lay import lay
from sewn_garland.core.making.brushes import as_laid
from sewn_garland.core.making.edits import edited
from sewn_garland.core.making.interlocking import divided
from sewn_garland.core.making.starters import motif_from_starter
from sewn_garland.core.reading.svg_motif import motif_from_svg
from sewn_garland.core.values.motif import Motif

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


@pytest.mark.parametrize(
    ("bends", "mirror"),
    [("jointed", None), ("rigid", None), ("bent", None), ("rigid", "every_second"), ("bent", "every_second"), ("rigid", "up_down")],
)
def test_of_a_row_of_rings_shows_what_rings_that_interlock_show(bends, mirror):
    gap = {"gap": PITCH / (2 * R) - 1} if bends != "jointed" else {}
    mirrored = {"mirror": mirror} if mirror else {}
    made = brush(divided(ring(RED)), divided(ring(BLUE)), round_bends=bends, order="in_turn", ease="leave", **gap, **mirrored)
    laid = lay(made, [measured(f"M4 8H{4 + 7 * PITCH + 2 * R}")])[0]
    x = laid.pieces.centre[:, 0]
    assert np.diff(x) == pytest.approx(PITCH)
    drawing = drawing_of(70, 16, on_page(made.pieces.motifs, laid), ground="#ffffff")
    wanted = areas(np.column_stack([x, np.full(len(x), 8.0)]))
    edge = 2 * np.pi * (2 * R - WIRE) * len(x) / 2 / PX  # a pixel along all rims would be that much
    for colour, area in zip((RED, BLUE), wanted, strict=True):
        assert pixels_of(colour, drawing) == pytest.approx(area, abs=0.15 * edge)


@pytest.mark.parametrize(
    ("name", "figures"),
    [("ring", {}), ("link", {}), ("rope-strand", {}), ("rope-strand", {"length": 9}), ("rope-strand", {"groove": 0.3}), ("knot", {}), ("knot", {"pen": 1})],
)  # fmt: skip
def test_starters_that_interlock_go_over_their_neighbour_and_then_under_it(name, figures):
    """By shapely, of the starter's own outline: wherever neighbours overlap, from the top down, the later one lies over and under in turn."""
    motif = motif_from_starter(name, figures)
    whole = motif.shapes[0]
    covered, halves = silhouette(replace(motif, shapes=(whole,))), divided(motif)
    pitch = motif.pitch * (0.97 if name == "ring" else 1)  # rings touch in the middle too, where their joints are
    shared = shapely.intersection(covered, translate(covered, pitch))
    places = [p.representative_point() for p in shapely.get_parts(shared) if p.area > 0.05 * WIRE**2]
    if name == "knot":
        places = [at for at in places if at.y < -1]  # on the base line it is no crossing: ropes go on in one another
    if name == "rope-strand" and len(places) == 1:  # strands that touch overlap by their edge all the way
        left, top, right, bottom = shared.bounds
        places = [
            clip_by_rect(shared, left, *ends).representative_point() for ends in ((top, right, top * 0.6), (bottom * 0.6, right, bottom))
        ]
    assert len(places) >= 2
    later = []
    for at in sorted(places, key=lambda p: p.y):
        order = [(k, shape) for under in (True, False) for k in (0, 1) for shape in halves.shapes if (shape.lies == "under") == under]
        on_top = [k for k, s in order if silhouette(replace(motif, shapes=(s,))).contains(translate(at, -k * pitch))]
        later.append(on_top[-1] == 1)
    assert later == [i % 2 == 0 for i in range(len(later))]


def test_a_strand_whose_ends_reach_too_far_lies_over_the_one_before_it_and_bad_figures_are_told():
    assert {s.lies for s in motif_from_starter("rope-strand", {"length": 3, "lean": 55}).shapes} == {"over"}
    for name, figures, told in (
        ("rope-strand", {"groove": 4}, "the groove must be less"), ("rope-strand", {"edge": 9}, "such a strand cannot be drawn"), ("rope-strand", {"groove": 3, "edge": 0.5}, "the edge must be less"), ("knot", {"edge": 1.1}, "half the pen"),
    ):  # fmt: skip
        with pytest.raises(InputError, match=told):
            motif_from_starter(name, figures)


@pytest.mark.parametrize("bends", ["jointed", "bent", "rigid"])
def test_a_line_too_short_for_a_ring_shows_nothing(bends):
    made = brush(divided(ring(RED)), round_bends=bends, ease="leave").changed({"ink": {"ink": "#304050", "gives": "hue"}})
    laid = lay(made, [measured("M0 0H0.01")])[0]
    assert not len(laid.pieces.s)
    assert "#" not in compact_svg(drawing_of(10, 10, on_page(made.pieces.motifs, laid, made.ink)))


def test_a_closed_chain_crosses_alike_at_every_join():
    made = brush(divided(ring(RED)), divided(ring(BLUE)), round_bends="jointed", order="in_turn", ease="size", ease_limit=0.3)
    laid = lay(made, [measured("M5 30A25 25 0 1 1 55 30A25 25 0 1 1 5 30Z")])[0]
    assert len(laid.pieces.s) % 2 == 0 and not laid.findings
    drawing = drawing_of(60, 60, on_page(made.pieces.motifs, laid), ground="#ffffff")
    red, blue = (pixels_of(colour, drawing) for colour in (RED, BLUE))
    assert red == pytest.approx(blue, rel=0.01)  # were one join the other way round, they would differ by a fortieth


@pytest.mark.parametrize("write", [compact_svg, plain_svg])
def test_what_lies_under_is_written_before_everything_else(write):
    motif = motif_from_svg(
        svg(f'<rect width="8" height="2" fill="{RED}"/><rect data-lies="under" width="3" height="2" fill="{BLUE}"/>', 8, 2)
    )
    made = brush(motif, gap=-0.3)
    text = write(drawing_of(50, 10, on_page(made.pieces.motifs, lay(made, [measured("M2 5H48")])[0])))
    if write is plain_svg:
        assert text.rindex(BLUE) < text.index(RED)
    else:
        uses = [line[:13] for line in text.splitlines() if line.startswith("<use")]
        assert len(list(itertools.groupby(uses))) == 2


def test_a_part_and_a_group_lie_under_in_files_and_are_written_so():
    text = '<g data-lies="under"><rect width="1" height="1"/></g><use href="#a"/><g data-lies="under"><use href="#a" x="2"/></g><rect id="a" data-lies="interlocked" x="3" width="1" height="1"/>'
    motif = motif_from_svg(svg(text, 8, 2))
    lie = ["under", "interlocked", "interlocked", "interlocked"]
    assert [s.lies for s in motif.shapes] == lie
    assert [s.lies for s in motif_from_svg(motif_svg(motif)).shapes] == lie
    lifted = edited(motif, "lie", {"parts": [0, 2], "lies": "over"})
    assert [s.lies for s in edited(lifted, "lie", {"parts": [1], "lies": "under"}).shapes] == ["over", "under", "over", "interlocked"]


def test_any_parts_are_divided_and_cover_what_they_covered():
    motif = motif_from_svg(
        svg(f'<path d="M1 1H9V5H1Z" fill="{RED}"/><circle cx="5" cy="3" r="1.5" fill="{BLUE}" stroke="#000" stroke-width=".4"/>', 10, 6)
    )
    assert divided(motif) is motif
    locked = edited(motif, "lie", {"parts": [0, 1], "lies": "interlocked"})
    assert [s.points.shape for s in locked.shapes] == [s.points.shape for s in motif.shapes]  # it is divided when it is laid
    made = divided(locked)
    assert [s.lies for s in made.shapes] == ["under", "over"] * 3  # the circle's fill and stroke each
    assert silhouette(made).symmetric_difference(silhouette(motif)).area < 0.01
    over, under = (silhouette(Motif(made.shapes[k : k + 1], 10, 6, 3)) for k in (1, 0))
    assert over.symmetric_difference(shapely.union(shapely.box(-4, -2, 0, 0), shapely.box(0, 0, 4, 2))).area < 1e-6
    assert under.difference(over).symmetric_difference(silhouette(motif).difference(over)).area < 0.01


def test_see_through_parts_are_divided_without_a_lap():
    motif = motif_from_svg(svg('<path d="M0 0H10V6H0Z" data-lies="interlocked" fill="#123456" fill-opacity=".5"/>', 10, 6))
    assert [silhouette(Motif((half,), 10, 6, 3)).area for half in divided(motif).shapes] == pytest.approx([30, 30])


def test_light_on_a_link_goes_on_across_the_divisions():
    """A see-through light ends where the part below it does, so that it neither lies double nor is hidden."""
    link = motif_from_starter("link", colour="#000000")
    lit = edited(
        link,
        "light",
        {"parts": [1], "kind": "highlight", "from_deg": -90, "width_mm": 0.6, "colour": "#ffffff", "opacity": 0.5, "inset_mm": 0.2},
    )
    made = brush(divided(lit), ease="leave")
    png = png_of(drawing_of(16, 9, on_page(made.pieces.motifs, lay(made, [measured("M0 4.5H16")])[0])), width_px=1600, height_px=900)
    row = np.asarray(Image.open(io.BytesIO(png)).convert("L")).astype(int)[80, 500:1100]  # along the light, across the middle
    assert row.min() > 100 and np.ptp(np.delete(row, range(280, 320))) <= 2
    assert np.abs(np.diff(row)).max() < 40  # but for the pixels on which halves meet


@pytest.mark.thorough
@pytest.mark.parametrize("part", range(4))
def test_whatever_is_to_interlock_is_divided_or_left_whole_and_closes_or_is_told(part):
    """Random motifs with a fixed seed, on closed lines."""
    for number in range(examples(12)):
        rng = np.random.default_rng([77, 4 * number + part])
        motif = random_motif(rng)
        motif = replace(motif, shapes=tuple(replace(s, lies=str(rng.choice(["over", "under", "interlocked"]))) for s in motif.shapes))
        made = divided(motif)
        assert all(np.isfinite(s.points).all() for s in made.shapes) and len(made.shapes) >= len(motif.shapes)
        bends = str(rng.choice(["rigid", "bent", "jointed"]))
        gap = {} if bends == "jointed" else {"gap": float(rng.uniform(-0.8, 0.1))}
        r = float(rng.uniform(10, 60))
        try:
            laid = lay(
                brush(made, round_bends=bends, ease="size", ease_limit=0.5, **gap),
                [measured(f"M0 0A{r} {r} 0 1 1 {2 * r} 0A{r} {r} 0 1 1 0 0Z")],
            )[0]
        except CoreError:
            continue
        text = compact_svg(drawing_of(100, 100, on_page((made,), laid))).lower()
        assert "nan" not in text and "inf" not in text
        assert not (laid.closes and any(f.kind == "stacking breaks" for f in laid.findings) and len(passes_of((made,))) == 1)


def test_a_picture_is_refused_in_words():
    picture = '<image width="4" height="4" href="data:image/png;base64,iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg=="/>'
    motif = motif_from_svg(svg(picture, 4, 4))
    with pytest.raises(InputError, match="a picture cannot be divided to interlock; trace it first"):
        edited(motif, "lie", {"parts": [0], "lies": "interlocked"})
    assert edited(motif, "lie", {"parts": [0], "lies": "under"}).shapes[0].lies == "under"


def test_a_brush_is_laid_with_all_its_pieces_divided():
    link = motif_from_starter("link")
    pieces = as_laid(brush(link, start_piece=link, outside_corner_piece=link)).pieces
    assert [len(m.shapes) for m in (*pieces.repeat, pieces.start, pieces.outside_corner)] == [4, 4, 4]


def test_figures_of_a_link_from_before_there_were_edges_stay_as_they_were():
    old = motif_from_starter("link", {"edge": 0})
    recipe = old.recipes[0]
    flat = replace(old.shapes[0], lies="over")
    before = replace(
        old, shapes=(flat,), joints=None, recipes=(replace(recipe, figures=tuple(f for f in recipe.figures if f[0] != "edge")),)
    )
    longer = edited(before, "figures", {"group": 1, "figures": {"length": 20}})
    assert [(s.name, s.lies) for s in longer.shapes] == [("Link", "over")] and longer.width == 20
    edged = edited(longer, "figures", {"group": 1, "figures": {"edge": 0.3}})
    assert [s.name for s in edged.shapes] == ["Link edge", "Link"]


def test_an_edge_keeps_its_paint_and_how_it_lies_when_the_figures_change():
    link = motif_from_starter("link")
    assert [(s.name, s.lies) for s in link.shapes] == [("Link edge", "interlocked"), ("Link", "interlocked")]
    painted = edited(link, "paint", {"parts": [0], "fill": "#aabbcc"})
    wider = edited(edited(painted, "lie", {"parts": [0, 1], "lies": "over"}), "figures", {"group": 1, "figures": {"wire": 2.4}})
    assert [(s.fill.colour, s.lies) for s in wider.shapes] == [("#aabbcc", "over"), ("#2c4a84", "over")]
    assert bar().pitch == 10 and wider.pitch == pytest.approx(16 - 2 * 2.4)
