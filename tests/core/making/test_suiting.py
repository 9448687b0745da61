"""What a brush made of a motif begins with: whole on straight lines, and on those that its kind is made for."""

from dataclasses import replace

import numpy as np
import pytest

from making import measured, suited_brush, svg
from sewn_garland.core.drawing.png import png_from_svg
from sewn_garland.core.drawing.svg import motif_svg
from sewn_garland.core.errors import InputError
from sewn_garland.core.lay import lay
from sewn_garland.core.making.starters import STARTERS, motif_from_starter
from sewn_garland.core.making.suiting import suited
from sewn_garland.core.maths.raster import png_from_rgba, rgba_from_png
from sewn_garland.core.reading.svg_motif import motif_from_svg
from sewn_garland.core.values.motif import Motif, Picture, Shape

LENGTHS = (97.3, 120.0, 251.9)
KINDS = {
    "jointed": ("ring", "link"),
    "bent": ("bar", "spiral", "polygon", "scallop", "wave", "rope-strand", "zigzag", "knot"),
    "rigid": ("pill", "ellipse", "leaf", "petal", "star", "heart", "anchor"),
}


@pytest.mark.parametrize("name", STARTERS)
@pytest.mark.parametrize("length", LENGTHS)
def test_a_brush_of_a_starter_has_no_finding_on_a_straight_line_and_leaves_nothing_over(name, length):
    laid = lay(suited_brush(motif_from_starter(name)), [measured(f"M0 0H{length}")])[0]
    assert laid.findings == ()
    covered = laid.pieces.s[[0, -1]] + (-laid.pieces.before[0], laid.pieces.after[-1])
    assert covered == pytest.approx((0, length), abs=0.1)  # from end to end


def test_every_starter_is_of_its_kind():
    found = {kind: tuple(n for n in STARTERS if suited_brush(motif_from_starter(n)).travel.round_bends == kind) for kind in KINDS}
    assert {kind: set(names) for kind, names in found.items()} == {kind: set(names) for kind, names in KINDS.items()}


def as_picture(motif, px=300):
    """Return a motif of one picture, drawn by the renderer."""
    high = max(1, round(px * motif.height / motif.width))
    rgba = rgba_from_png(png_from_svg(motif_svg(motif), width_px=px, height_px=high))
    corners = np.array([[0, 0], [motif.width, 0], [motif.width, motif.height], [0, motif.height]])
    picture = Picture(png_from_rgba(rgba), px, high)
    return Motif((Shape("MLLLZ", corners, None, picture=picture),), motif.width, motif.height, motif.base_line)


@pytest.mark.parametrize("name", sorted({*STARTERS} - {"rope-strand"}))  # which reaches over its frame, so that a picture of it is cut
def test_a_picture_of_a_starter_begins_as_the_starter_does(name):
    """Of what it covers, not of its rectangle: the starter's own outline is the truth."""
    motif = motif_from_starter(name)
    assert suited(as_picture(motif)).settings == suited(motif).settings
    if name in ("ring", "link"):
        (left, _), (right, _) = suited(as_picture(motif)).joints
        assert (left, motif.width - right) == pytest.approx((dict(motif.recipes[0].figures)["wire"],) * 2, abs=motif.width / 150)


def test_a_picture_that_covers_nothing_or_all_begins_as_it_must():
    glass = np.zeros((40, 90, 4), np.uint8)
    whole = glass + np.uint8(255)
    for rgba, gap in ((glass, 15.0), (whole, None)):
        corners = np.array([[0.0, 0], [9, 0], [9, 4], [0, 4]])
        motif = Motif((Shape("MLLLZ", corners, None, picture=Picture(png_from_rgba(rgba), 90, 40)),), 9, 4, 2)
        assert suited(motif).settings["spacing"].get("gap_pct") == gap


@pytest.mark.parametrize(("name", "wire"), [("link", 2.0), ("ring", 1.6)])
def test_a_link_hangs_in_its_neighbours_by_its_wire(name, wire):
    """The wire of the next lies just inside this one's: the pitch is the length less two wires, by the starter's figures."""
    motif = motif_from_starter(name)
    laid = lay(suited_brush(motif), [measured(f"M0 0H{5 * (motif.width - 2 * wire)}")])[0]
    assert len(laid.pieces.s) == 5
    assert np.diff(laid.pieces.centre[:, 0]) == pytest.approx(motif.width - 2 * wire, abs=0.01)


@pytest.mark.parametrize("kind", ["jointed", "bent"])
@pytest.mark.parametrize(
    "path", ["M0 0H60V40H120", "M0 0L60 70 120 0", "M0 40A40 40 0 1 1 80 40A40 40 0 1 1 0 40Z", "M0 0C40 -40 80 40 120 0"]
)
def test_links_and_strips_pass_corners_and_bends_whole(kind, path):
    for name in KINDS[kind]:
        assert lay(suited_brush(motif_from_starter(name)), [measured(path)])[0].findings == (), name


def test_pieces_that_stand_apart_are_no_joins_to_kink():
    """On a circle of radius 12 a stitch of 8 mm and its gap turn by more than 15° to the next, and still nothing is at fault."""
    laid = lay(suited_brush(motif_from_starter("pill")), [measured("M0 0A12 12 0 1 1 24 0A12 12 0 1 1 0 0Z")])[0]
    assert np.degrees(laid.joins.kink.max()) > 15
    assert not [f for f in laid.findings if f.kind in ("kink", "step")]


def test_a_drawing_far_longer_than_high_goes_once_over_the_line():
    motif = motif_from_svg('<svg xmlns="http://www.w3.org/2000/svg" width="90mm" height="5mm" viewBox="0 0 90 5">'
                           '<path d="M0 2.5C20 0 70 0 90 2.5 70 5 20 5 0 2.5Z"/></svg>')  # fmt: skip
    laid = lay(suited_brush(motif), [measured("M0 0H200")])[0]
    assert (len(laid.pieces.s), laid.findings) == (1, ())


def test_own_joints_are_kept():
    motif = motif_from_starter("link")
    motif = replace(motif, joints=((1.0, 4.5), (15.0, 4.5)))
    assert suited(motif).joints is None


def test_a_motif_that_draws_nothing_stands_alone():
    motif = motif_from_starter("bar")
    assert suited(replace(motif, shapes=())).settings["ends"]["outside_corner"] == "butt"


def test_a_level_stroke_from_edge_to_edge_is_a_strip_and_so_is_what_lies_between_cuts():
    stroke = '<path d="M0 2H10" fill="none" stroke="#000" stroke-width="1"/>'
    assert suited(motif_from_svg(svg(stroke, 10, 4))).settings["travel"] == {"round_bends": "bent"}
    link = motif_from_starter("link")
    assert suited(replace(link, cuts=(6.0, 10.0))).settings["travel"] == {"round_bends": "bent"}  # two level wires


def _random_shape(rng, w, h):
    kind = rng.integers(0, 4)
    if kind == 0:
        d = "M0 0" + "".join("C" + " ".join(f"{v:.4g}" for v in rng.uniform(-w, 2 * w, 6)) for _ in range(rng.integers(1, 8)))
    elif kind == 1:
        d = f"M0 0H{w}V{h}H0ZM{w * 0.2} {h * 0.2}V{h * 0.8}H{w * 0.8}V{h * 0.2}Z"
    elif kind == 2:
        d = f"M{w / 2} {h / 2}h0Z"
    else:
        d = "M" + "L".join(f"{x:.5g} {y:.5g}" for x, y in rng.uniform(-500, 500, (rng.integers(1, 40), 2)))
    cap = ("butt", "round", "square")[rng.integers(0, 3)]
    stroke = f' stroke="#123" stroke-width="{10 ** rng.uniform(-3, 1.2):.4g}" stroke-linecap="{cap}"'
    fill = "" if rng.random() < 0.5 else ' fill="none"'
    return f'<path d="{d}"{stroke if rng.random() < 0.5 else ""}{fill}/>'


@pytest.mark.thorough
def test_whatever_a_motif_draws_a_brush_of_it_can_begin():
    rng = np.random.default_rng(8)
    begun = 0
    while begun < 150:
        w, h = rng.uniform(0.5, 100, 2)
        try:
            motif = motif_from_svg(svg("".join(_random_shape(rng, w, h) for _ in range(rng.integers(1, 5))), w, h))
        except InputError:  # nothing in it can be drawn
            continue
        made = suited_brush(motif)
        assert np.isfinite([joint for m in made.pieces.repeat for joint in m.joint_points]).all()
        begun += 1
