"""Seams, cuts, darning: against drawings whose repeat is known because the test drew it."""

from __future__ import annotations

from dataclasses import replace

import numpy as np
import pytest
from coloraide import Color

from making import svg
from sewn_garland.core.artwork.sections import layers_of, seam_of, section_at
from sewn_garland.core.errors import InputError
from sewn_garland.core.making.best_cuts import best_cut
from sewn_garland.core.making.cutting import clipped_to, cut_in_three, darned
from sewn_garland.core.making.edits import edited
from sewn_garland.core.making.starters import motif_from_starter
from sewn_garland.core.maths.outlines import area_of
from sewn_garland.core.reading.svg_motif import motif_from_svg


def sine(period, length=100.0, phase=0.0, width=3.0):
    """Return a stroke along a sine wave, as cubics through exact slopes."""
    x = np.linspace(0, length, round(8 * length / period) + 1)
    w = 2 * np.pi / period
    y, dy = 15 + 5 * np.sin(w * x + phase), 5 * w * np.cos(w * x + phase)
    h = (x[1] - x[0]) / 3
    d = f"M{x[0]} {y[0]}" + "".join(
        f"C{x[i] + h} {y[i] + h * dy[i]} {x[i + 1] - h} {y[i + 1] - h * dy[i + 1]} {x[i + 1]} {y[i + 1]}" for i in range(len(x) - 1)
    )
    return motif_from_svg(svg(f'<path d="{d}" fill="none" stroke="#335" stroke-width="{width}"/>', length, 30))


def test_a_section_is_the_filled_stretch_with_its_slope():
    triangle = motif_from_svg(svg('<path d="M0 10L20 0V20Z" fill="#f00"/>', 20, 20))
    section = section_at(layers_of(triangle), 10)
    assert section.top == pytest.approx([5])
    assert section.foot == pytest.approx([15])
    assert np.degrees(section.slopes) == pytest.approx([-np.degrees(np.arctan(0.5)), np.degrees(np.arctan(0.5))])


def test_mismatch_slope_and_colour_of_a_seam_are_those_drawn():
    """Left edge 6 mm from y = 2, right edge 5 mm from y = 4 in another colour; by hand: 2 + 1 mm differ."""
    motif = motif_from_svg(svg('<path d="M0 2L10 2V8H0Z" fill="#ff0000"/><path d="M10 4H20V9H10Z" fill="#00ff00"/>', 20, 12))
    seam = seam_of(motif)
    assert seam.mismatch_mm == pytest.approx(3, abs=1e-3)
    assert seam.slope_deg == pytest.approx(0, abs=1e-6)
    assert seam.delta_e == pytest.approx(Color("#f00").delta_e(Color("#0f0"), method="2000", space="lab"), abs=0.01)  # coloraide


@pytest.mark.thorough
@pytest.mark.parametrize("period", [17.0, 23.5])
def test_the_best_cut_keeps_whole_periods(period):
    found = best_cut(sine(period))
    periods = (found.right - found.left) / period
    assert periods == pytest.approx(round(periods), abs=0.01)
    assert found.seam.mismatch_mm < 0.02
    assert found.seam.slope_deg < 0.5


def test_darning_moves_the_few_points_that_miss():
    off = replace(sine(20), cuts=(3.0, 62.6))
    before, after = seam_of(off), seam_of(darned(off))
    assert before.mismatch_mm > 0.5
    assert after.mismatch_mm < 0.01
    assert after.slope_deg < 1 < before.slope_deg
    moved = darned(off)
    assert abs(area_of(moved.shapes[0].commands, moved.shapes[0].points)) == pytest.approx(
        abs(area_of(clipped_to(off, 3, 62.6).shapes[0].commands, clipped_to(off, 3, 62.6).shapes[0].points)), rel=0.05
    )


def test_a_long_drawing_is_cut_in_three():
    long = motif_from_svg(
        svg('<path d="M0 4H20V8H0Z" fill="#a00"/><path d="M20 3H80V9H20Z"/><path d="M80 4H100V8H80Z" fill="#00a"/>', 100, 12)
    )
    start, repeat, end = cut_in_three(replace(long, cuts=(20.0, 80.0)))
    assert (start.width, repeat.width, end.width) == pytest.approx((20, 60, 20))
    assert [s.fill.colour for s in start.shapes] == ["#aa0000"]
    assert [s.fill.colour for s in end.shapes] == ["#0000aa"]
    assert repeat.base_line == long.base_line
    with pytest.raises(InputError, match="no cuts yet"):
        cut_in_three(long)


def test_cuts_crossed_over_are_refused():
    with pytest.raises(InputError, match="the cuts are crossed over"):
        edited(motif_from_starter("bar"), "cuts", {"cuts_mm": [7, 3]})
    with pytest.raises(InputError, match="nothing lies between"):
        clipped_to(motif_from_starter("bar"), 40, 50)


def test_what_leans_over_the_frame_is_measured_with_its_neighbours():
    assert seam_of(motif_from_starter("rope-strand")).mismatch_mm < 0.01
    alone = replace(motif_from_starter("rope-strand"), cuts=(0.0, 4.0))
    assert seam_of(alone).mismatch_mm > 1
