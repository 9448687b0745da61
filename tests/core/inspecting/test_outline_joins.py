"""Joins by what is drawn, against closed forms: discs apart, lenses of overlapping discs, colours at a seam."""

from dataclasses import replace

import numpy as np
import pytest

from making import bar, brush, measured, svg
from sewn_garland.core.artwork.silhouette import silhouette
from sewn_garland.core.inspecting import drawn, outline_joins
from sewn_garland.core.lay import cured, lay
from sewn_garland.core.maths.colour import delta_e_2000, lab_from_srgb, rgb_from_hex
from sewn_garland.core.reading.svg_motif import motif_from_svg
from sewn_garland.core.values.variations import Variation

CLOCKWISE = "M30 0A30 30 0 0 1 -30 0A30 30 0 0 1 30 0Z"
SHADED = ('<defs><linearGradient id="g"><stop offset="0" stop-color="#203040"/><stop offset="1" stop-color="#c0d0e0"/></linearGradient></defs>'
          '<rect width="10" height="2" fill="url(#g)"/>')  # fmt: skip


def disc(r=2.0):
    return motif_from_svg(svg(f'<circle cx="{r}" cy="{r}" r="{r}" fill="#333"/>', 2 * r, 2 * r))


def by_outlines(motif, path, **more):
    return lay(brush(motif, by_outlines=True, **more), [measured(path)])[0]


def test_discs_on_a_bend_stand_apart_by_their_chord():
    """Centres p apart along a circle of radius R are 2R·sin(p/2R) apart."""
    laid = by_outlines(disc(), CLOCKWISE, gap=0.2, ease="size")
    p = laid.pitch
    r = 2 * laid.pieces.factor[0]
    chord = 60 * np.sin(p / 60)
    assert laid.joins.apart == pytest.approx(chord - 2 * r, abs=0.006)
    assert laid.joins.gap == pytest.approx(chord - p, abs=0.005)  # outlines are polygons to that
    assert (laid.joins.overlap == 0).all()


def test_overlapping_discs_share_a_lens():
    """Two circles of radius r, d apart, share 2r²·acos(d/2r) − d/2·√(4r² − d²)."""
    laid = by_outlines(disc(), "M0 0H40", gap=-0.3)
    d = 2.8
    lens = 8 * np.arccos(d / 4) - d / 2 * np.sqrt(16 - d * d)
    assert laid.joins.overlap == pytest.approx(lens, abs=0.02)
    assert laid.joins.apart == pytest.approx(0) and laid.joins.gap == pytest.approx(0, abs=1e-9)


def test_frames_that_open_on_a_bend_are_no_gap_where_the_outlines_touch_as_wished():
    """Round dabs that just touch: their frames' edges part on a tight bend, the dabs hardly do."""
    tight = "M6 0A6 6 0 0 1 -6 0A6 6 0 0 1 6 0Z"
    frames = lay(brush(disc(), ease="size"), [measured(tight)])[0]
    outlines = by_outlines(disc(), tight, ease="size")
    assert np.abs(frames.joins.gap).max() > 0.1
    assert np.abs(outlines.joins.gap).max() < np.abs(frames.joins.gap).max()


def test_a_hole_of_a_ring_is_no_part_of_it():
    ring = motif_from_svg(svg('<circle cx="4" cy="4" r="3" fill="none" stroke="#333" stroke-width="1"/>', 8, 8))
    assert silhouette(ring).area == pytest.approx(np.pi * (3.5**2 - 2.5**2), rel=2e-3)
    evenodd = motif_from_svg(svg('<path d="M0 0H8V8H0ZM2 2H6V6H2Z" fill="#333" fill-rule="evenodd"/>', 8, 8))
    assert silhouette(evenodd).area == pytest.approx(64 - 16)


def test_bent_bars_meet_by_their_outlines():
    laid = by_outlines(bar(8, 3), CLOCKWISE, round_bends="bent", ease="length")
    assert laid.joins.apart.max() < 1e-6
    assert laid.joins.overlap.max() < 0.02
    assert laid.findings == ()


@pytest.mark.parametrize("radius", [10, 40])
@pytest.mark.parametrize("gap", [-0.25, -0.5])
def test_bent_bars_share_what_lies_between_their_radial_edges(radius, gap):
    """Bars about the line share (length − pitch)·height at any bend, by Pappus; the long straight sides are bent as well."""
    circle = f"M{radius} 0A{radius} {radius} 0 0 1 {-radius} 0A{radius} {radius} 0 0 1 {radius} 0Z"
    laid = by_outlines(bar(8, 2), circle, gap=gap, round_bends="bent", ease="gaps")
    assert laid.joins.overlap == pytest.approx((8 - laid.pitch) * 2, abs=0.01)
    assert np.abs(laid.joins.gap).max() < 0.005
    assert laid.findings == ()


@pytest.mark.parametrize("more", [{}, {"taper_start": 60, "taper_to": 0.3}], ids=["even", "tapered"])
def test_where_a_line_bends_gently_longer_sides_measure_as_well(more, monkeypatch):
    """A wave with one tight bend: sides as short everywhere as there find the same gaps, within what outlines are flat to."""
    path = "M0 0C400 60 700 -60 1000 0A2 2 0 0 1 1000 4C700 -56 400 64 0 4"
    measured_so = {}
    for name, softer in (("long", drawn.SOFTER), ("short", np.array([np.inf, np.inf]))):
        counts = []
        monkeypatch.setattr(drawn, "SOFTER", softer)
        monkeypatch.setattr(
            outline_joins, "drawn_polygons", lambda *of, counts=counts: counts.append(drawn.drawn_polygons(*of)) or counts[-1]
        )
        joins = by_outlines(bar(20, 2), path, round_bends="bent", gap=0.05, ease="size", **more).joins
        measured_so[name] = joins.apart, joins.overlap, sum(points.size for made in counts for points in made.points)
    (apart, overlap, few), (apart_finely, overlap_finely, many) = measured_so["long"], measured_so["short"]
    assert np.abs(apart - apart_finely).max() < 0.005 and np.abs(overlap - overlap_finely).max() < 0.005 * 20
    assert few < many / 2


def test_jointed_links_overlap_on_a_bend_about_as_on_a_straight():
    link = disc(5.0)
    laid = by_outlines(link, CLOCKWISE, round_bends="jointed", ease="size")
    assert laid.joins.apart.max() < 0.01
    assert np.isfinite(laid.joins.overlap).all()


def test_tone_is_the_difference_of_the_colours_where_edges_meet_and_mirroring_cures_it():
    motif = motif_from_svg(svg(SHADED, 10, 2))
    line = measured("M0 0H60")
    one = brush(motif)
    laid = lay(one, [line])[0]
    ends = lab_from_srgb(np.array([rgb_from_hex(c) for c in ("#203040", "#c0d0e0")]))
    assert laid.joins.tone == pytest.approx(delta_e_2000(*ends), rel=0.01)
    (finding,) = [f for f in cured(one, line, laid).findings if f.kind == "tone"]
    assert [c.label for c in finding.cures] == ["Mirror every second one", "Leave a gap of 5 %"]
    mirrored = lay(brush(motif, mirror="every_second"), [line])[0]
    assert mirrored.joins.tone.max() == pytest.approx(0, abs=1e-9) and mirrored.findings == ()


@pytest.mark.parametrize("more", [{"gap": 0.2}, {"round_bends": "jointed"}, {"facing": "page"}])
def test_where_no_edges_are_wished_to_meet_there_is_no_tone(more):
    motif = motif_from_svg(svg(SHADED, 10, 2))
    assert lay(brush(motif, **more), [measured("M0 0H60")])[0].joins.tone.max() == 0


@pytest.mark.parametrize("loosely", [False, True])
def test_pairs_are_measured_in_blocks_as_all_in_one_go(loosely, monkeypatch):
    path = "M0 0C30 40 60 -40 100 0C120 30 90 50 40 45"
    of = brush(disc(), round_bends="bent", by_outlines=True, gap=-0.1)
    of = replace(of, variations=(Variation(of="across", between=(-1, 1)),)) if loosely else of
    whole = lay(of, [measured(path)])[0].joins
    monkeypatch.setattr(outline_joins, "PAIRS_AT_ONCE", 3)
    parted = lay(of, [measured(path)])[0].joins
    assert len(whole.apart) > 6
    assert np.array_equal(whole.apart, parted.apart) and np.array_equal(whole.gap, parted.gap)
