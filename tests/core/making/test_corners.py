"""Pieces made from the repeat, and the sampler they lie on."""

from __future__ import annotations

from dataclasses import replace

import numpy as np
import pytest

from fuzzing import random_motif
from making import bar, brush, measured, suited_brush, svg
from sewn_garland.core.artwork.box import ink_box
from sewn_garland.core.artwork.sections import layers_of, section_at
from sewn_garland.core.drawing.svg import motif_svg
from sewn_garland.core.errors import InputError
from sewn_garland.core.lay import lay
from sewn_garland.core.making.corners import Apart, corner_from_repeat, end_from_repeat, set_round, vertex_of
from sewn_garland.core.making.starters import motif_from_starter
from sewn_garland.core.maths.outlines import area_of
from sewn_garland.core.reading.svg_motif import motif_from_svg
from sewn_garland.core.values.motif import shifted
from sewn_garland.workshop.corner_proposals import CORNER_WAYS, corner_made, corner_proposals, suiting_way
from sewn_garland.workshop.sampler import sample_of


def area(motif):
    return sum(abs(area_of(s.commands, s.points)) for s in motif.shapes)


@pytest.mark.parametrize("side", ["outside", "inside"])
@pytest.mark.parametrize("base", [1.0, 0.4])
def test_a_mitred_bar_has_the_area_of_its_two_legs(side, base):
    """By hand: a leg is w long on the base line, longer by y on the outer side of the corner and shorter on the inner."""
    repeat = replace(bar(10, 2), base_line=base)
    corner = corner_from_repeat(repeat, side)
    outer, inner = (base, 2 - base) if side == "outside" else (2 - base, base)
    assert (corner.width, corner.height) == pytest.approx((10 + outer, 10 + outer))
    assert vertex_of(corner, side)[0] == pytest.approx(10)
    assert area(corner) == pytest.approx(2 * (2 * 10 + (outer**2 - inner**2) / 2), rel=1e-4)
    assert ink_box(corner) == pytest.approx((0, 0, corner.width, corner.height), abs=1e-3)


def test_a_corner_meets_the_repeat_it_was_made_from():
    repeat = replace(motif_from_starter("scallop"), base_line=1.0)
    corner = corner_from_repeat(repeat, "outside")
    ours, theirs = section_at(layers_of(corner), 0.01), section_at(layers_of(repeat), 0.01)
    assert ours.top == pytest.approx(theirs.top, abs=1e-3)
    assert ours.foot == pytest.approx(theirs.foot, abs=1e-3)


def test_ends_are_made_by_half_mirror_or_the_same():
    leaf = motif_from_starter("leaf")
    assert end_from_repeat(leaf, "start", "half").width == pytest.approx(7)
    assert area(end_from_repeat(leaf, "start", "half")) + area(end_from_repeat(leaf, "end", "half")) == pytest.approx(area(leaf), rel=1e-4)
    mirrored = end_from_repeat(leaf, "end", "mirror")
    assert mirrored.shapes[0].points[:, 0] == pytest.approx(14 - leaf.shapes[0].points[:, 0])
    assert not end_from_repeat(leaf, "end", "same").recipes
    with pytest.raises(InputError, match="the base line lies outside the frame"):
        corner_from_repeat(replace(leaf, base_line=-3.0), "outside")


def test_on_the_sampler_the_runs_end_where_the_pieces_begin():
    repeat = bar(10, 2)
    pieces = {"start": bar(6, 2), "outside_corner": corner_from_repeat(repeat, "outside")}
    sample = sample_of(brush(repeat), pieces)
    level = [p for p in sample.pieces if p.role == "repeat" and abs(p.matrix[5]) < 1e-9 and abs(p.matrix[1]) < 1e-9]
    assert min(p.matrix[4] for p in level) - 5 == pytest.approx(6)
    (corner,) = [p for p in sample.pieces if p.role == "outside_corner"]
    assert max(p.matrix[4] for p in level) + 5 == pytest.approx(corner.matrix[4] - pieces["outside_corner"].width / 2)
    assert {s.role: s.made for s in sample.slots} == {"start": True, "outside_corner": True, "inside_corner": False, "end": False}
    down = [p for p in sample.pieces if p.role == "repeat" and p.matrix[1] > 0.5]
    assert len(down) >= 2
    assert np.allclose([p.matrix[4] for p in down], down[0].matrix[4])


@pytest.mark.parametrize("side", ["outside", "inside"])
def test_a_lapped_bar_covers_one_leg_to_the_outer_edge_and_the_other_up_to_it(side):
    """By hand: (10 + outer) × 2 and (10 − inner) × 2."""
    repeat = replace(bar(10, 2), base_line=0.6)
    corner = corner_made(repeat, side, "lap")
    outer, inner = (0.6, 1.4) if side == "outside" else (1.4, 0.6)
    assert area(corner) == pytest.approx(2 * (10 + outer) + 2 * (10 - inner), rel=1e-6)
    assert ink_box(corner) == pytest.approx((0, 0, corner.width, corner.height), abs=1e-6)


def test_a_lapped_corner_may_end_where_the_repeat_is_empty():
    """By hand: of a stitch in the second half of its frame the leg that runs through ends in the first half of the next, with nothing."""
    stitch = replace(shifted(bar(10, 2), 10.0, 0.0), width=20.0)
    assert area(corner_made(stitch, "outside", "lap")) == pytest.approx(2 * (10 * 2), rel=1e-6)


def test_bands_are_mitred_what_rises_at_its_edges_is_bent_and_separate_pieces_are_set_round_whole():
    """From the starters' own geometry: a bar's edge is level, a zigzag's rises by 45°, a polygon's by 30°, a loop ends level;
    loops that hang in one another are not cut."""
    ways = {name: suiting_way(suited_brush(motif_from_starter(name))) for name in
            ("bar", "knot", "zigzag", "wave", "rope-strand", "leaf", "link", "pill")}  # fmt: skip
    assert suiting_way(suited_brush(motif_from_starter("knot", {"length": 22}))) == "mitre"
    assert ways == {"bar": "mitre", "knot": "bend", "zigzag": "bend", "wave": "bend", "rope-strand": "bend",
                    "leaf": "round", "link": "round", "pill": "round"}  # fmt: skip


@pytest.mark.parametrize("side", ["outside", "inside"])
@pytest.mark.parametrize(("gap", "lead", "count"), [(-4.0, -2.0, 2), (-4.0, -4.0, 2), (0.0, 0.0, 3), (2.5, 2.5, 2)])
def test_pieces_set_round_a_corner_join_halfway_between_them_on_a_polygon_of_equal_turns(side, gap, lead, count):
    """By hand: joints half a gap outside the frames are the vertices of a polygon that turns by 90° / (n + 1) at each of them."""
    repeat, pitch = bar(16, 9), 16 + gap
    corner = set_round(repeat, side, Apart(gap, lead), count)
    turn = np.radians(90) / (count + 1)
    vertex = np.cos(turn * np.arange(1, count + 1)).sum() * pitch + 2 * (lead - gap / 2)
    assert vertex_of(corner, side)[0] == pytest.approx(vertex)
    middles = np.array([s.points[:4].mean(axis=0) for s in corner.shapes])
    first = np.array([lead - gap / 2, corner.base_line]) + pitch / 2 * np.array(
        [np.cos(turn), np.sin(turn) * (1 if side == "outside" else -1)]
    )
    assert middles[0] == pytest.approx(first)
    assert np.hypot(*np.diff(middles, axis=0).T) == pytest.approx(pitch * np.cos(turn / 2))
    assert area(corner) == pytest.approx(count * 16 * 9)


def test_a_mitre_leaves_no_scraps_of_what_lies_past_it_and_keeps_what_is_nearly_whole():
    """By hand: beads of 2 × 2 beside a thread; past the vertex, at (10, 4), a mitre leaves 4 − 1.3²/2 of one that begins 0.3 after it,
    and of one that begins 1.5 after it 1.5²/2, which is less than half.
    """

    def mitred(x: float) -> float:
        beside = f'<rect y="7" width="10" height="1"/><rect x="{x}" y="1" width="2" height="2"/>'
        return area(corner_made(motif_from_svg(svg(beside, 10, 8)), "outside", "mitre"))

    thread = area(corner_made(motif_from_svg(svg('<rect y="7" width="10" height="1"/>', 10, 8)), "outside", "mitre"))
    assert mitred(0.3) - thread == pytest.approx(2 * (4 + 4 - 1.3**2 / 2), rel=1e-3)
    assert mitred(1.5) - thread == pytest.approx(2 * 4, rel=1e-3)


@pytest.mark.parametrize("way", CORNER_WAYS)
def test_any_repeat_gives_a_corner_or_a_refusal_in_words(way):
    rng = np.random.default_rng(20261128)
    made = 0
    for _ in range(60):
        motif, gap = random_motif(rng), float(rng.uniform(-0.9, 2)) * 3
        try:
            corner = corner_made(motif, rng.choice(["outside", "inside"]).item(), way, Apart(*[max(gap, -0.9 * motif.width)] * 2))
        except InputError:
            continue
        made += 1
        assert all(np.isfinite(shape.points).all() for shape in corner.shapes)
    assert made > 5


@pytest.mark.parametrize("side", ["outside", "inside"])
def test_a_bent_corner_is_a_quarter_of_a_ring(side):
    """π/4·(R² − r²) (closed form)."""
    corner = corner_made(replace(bar(10, 2), base_line=0.5), side, "bend")
    r = 20 / np.pi
    outer, inner = (0.5, 1.5) if side == "outside" else (1.5, 0.5)
    assert area(corner) == pytest.approx(np.pi / 4 * ((r + outer) ** 2 - (r - inner) ** 2), rel=2e-3)
    assert vertex_of(corner, side)[0] == pytest.approx(r)


def test_a_high_repeat_is_bent_round_in_more_pieces_and_refused_where_even_twelve_fold():
    assert vertex_of(corner_made(bar(4, 20), "outside", "bend"), "outside")[0] == pytest.approx(2 * 8 * 4 / np.pi)  # past 2 × 10
    with pytest.raises(InputError, match="mitre it instead"):
        corner_made(bar(1, 30), "outside", "bend")
    assert {way for way, _ in corner_proposals(bar(1, 30), "outside")} == {"mitre", "lap", "across"}


@pytest.mark.parametrize("way", CORNER_WAYS)
@pytest.mark.parametrize("side", ["outside", "inside"])
def test_every_proposal_meets_both_runs(way, side):
    """Laid on a right angle, neighbours of the corner piece stand no further from it than they were asked to."""
    repeat = replace(motif_from_starter("rope-strand"), recipes=())
    corner = corner_made(repeat, side, way)
    role = {"outside": "outside_corner_piece", "inside": "inside_corner_piece"}[side]
    path = "M0 0H100V100" if side == "outside" else "M0 0H100V-100"
    own = brush(repeat, **{role: corner, f"{side}_corner": "piece"}, ease="size")
    laid = lay(own, [measured(path)])[0]
    (at,) = np.flatnonzero(laid.pieces.roles == f"{side}_corner")
    corner_s = 100.0
    near = vertex_of(corner, side)[0]
    assert laid.pieces.s[at - 1] + laid.pieces.after[at - 1] == pytest.approx(corner_s - near, abs=1e-9)
    assert laid.pieces.s[at + 1] - laid.pieces.before[at + 1] == pytest.approx(corner_s + near, abs=1e-9)


def test_proposals_are_motifs_like_any_other():
    for _, corner in corner_proposals(motif_from_starter("leaf"), "outside"):
        assert not corner.recipes and all(s.group == 0 for s in corner.shapes)
        assert motif_from_svg(motif_svg(corner)).width == pytest.approx(corner.width)
