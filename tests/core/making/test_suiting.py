"""What a brush made of a motif begins with: whole on straight lines, and on those that its kind is made for."""

from dataclasses import replace

import numpy as np
import pytest

from making import measured
from sewn_garland.core.lay import lay
from sewn_garland.core.making.starters import STARTERS, motif_from_starter
from sewn_garland.core.making.suiting import suited
from sewn_garland.core.reading.brush_document import brush_of
from sewn_garland.core.reading.svg_motif import motif_from_svg
from sewn_garland.core.values.brush import Pieces, Settings

LENGTHS = (97.3, 120.0, 251.9)
KINDS = {
    "jointed": ("ring", "link"),
    "bent": ("bar", "spiral", "polygon", "scallop", "wave", "rope-strand", "zigzag", "knot"),
    "rigid": ("pill", "ellipse", "leaf", "petal", "star", "heart", "anchor"),
}


def suited_brush(motif):
    suit = suited(motif)
    if suit.joints:
        motif = replace(motif, joints=suit.joints)
    settings = Settings().model_dump()
    for section, values in suit.settings.items():
        settings[section] |= values
    return brush_of("made", Pieces((motif,)), Settings.model_validate(settings))


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
