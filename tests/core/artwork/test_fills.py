"""What a stroke covers, against closed forms: rings and pills."""

from dataclasses import replace

import numpy as np
import pytest
import shapely

from making import svg
from sewn_garland.core.artwork.fills import as_fills, outline_of_stroke
from sewn_garland.core.maths.outlines import area_of, flattened
from sewn_garland.core.reading.svg_motif import motif_from_svg


def stroked(body):
    return motif_from_svg(svg(body, 8, 3)).shapes[0]


@pytest.mark.parametrize(
    ("radius", "width"), [(0.52, 0.09), *((r, w) for r in np.arange(0.13, 3.9, 0.43).round(3) for w in (0.01, 0.07, 0.2))]
)
def test_a_ring_covers_what_lies_between_its_circles(radius, width):
    shape = stroked(f'<circle cx="4" cy="1.5" r="{radius}" fill="none" stroke="#123456" stroke-width="{width}"/>')
    commands, points = outline_of_stroke(shape)
    assert abs(area_of(commands, points)) == pytest.approx(2 * np.pi * radius * width, rel=3e-3)
    radii = np.hypot(*(np.concatenate(flattened(commands, points, tolerance=1e-4)) - (4, 1.5)).T)
    off = np.abs(np.abs(radii - radius) - width / 2)
    assert off.max() <= 2e-3


@pytest.mark.parametrize("width", [0.05, 0.4, 1.2])
def test_a_thread_with_round_ends_covers_a_pill(width):
    shape = stroked(f'<path d="M1 1L6 2" fill="none" stroke="#123456" stroke-width="{width}" stroke-linecap="round"/>')
    pill = shapely.LineString([(1, 1), (6, 2)]).buffer(width / 2, quad_segs=200)  # shapely
    drawn = shapely.Polygon(flattened(*outline_of_stroke(shape), tolerance=1e-4)[0])
    assert drawn.symmetric_difference(pill).area <= 1e-3 * pill.length
    assert outline_of_stroke(shape)[0].count("C") <= 8


def test_fill_and_stroke_come_apart_and_nothing_gives_nothing():
    both = stroked('<path d="M1 1H6V2H1Z" fill="#fff" stroke="#123456" stroke-width=".2"/>')
    fill, stroke = as_fills(both)
    assert (fill.stroke, fill.fill.colour) == (None, "#ffffff")
    assert stroke.fill.colour == "#123456"
    assert abs(area_of(stroke.commands, stroke.points)) == pytest.approx(12 * 0.2, rel=1e-3)


def test_strokes_that_differ_in_colour_alone_have_the_same_outline():
    inks = ["#a33a2f", "#2c4a84"]
    red, blue = (stroked(f'<circle cx="4" cy="1.5" r="1" fill="none" stroke-width=".1" stroke="{ink}"/>') for ink in inks)
    wider = replace(blue, stroke=replace(blue.stroke, width=1.1))
    assert outline_of_stroke(red)[1] is outline_of_stroke(blue)[1]
    assert [part.fill.colour for shape in (red, blue) for part in as_fills(shape)] == inks
    assert [np.ptp(flattened(*outline_of_stroke(each), tolerance=1e-4)[0][:, 0]) for each in (blue, wider)] == pytest.approx(
        [2.1, 3.1], abs=0.01
    )
