"""Gradients, clips and pictures of SVG: our reading, drawn again, against the rasteriser's own drawing of the file."""

from __future__ import annotations

import base64
import io

import numpy as np
import pytest
from PIL import Image

from making import brush, drawing, svg
from sewn_garland.core.colouring.inked import inked
from sewn_garland.core.drawing.png import png_from_svg
from sewn_garland.core.drawing.svg import compact_svg, motif_svg, plain_svg
from sewn_garland.core.lay import lay
from sewn_garland.core.reading.svg_lines import line_from_path_data
from sewn_garland.core.reading.svg_motif import motif_from_svg
from sewn_garland.core.values.brush import Ink

STOPS = '<stop offset="0" stop-color="#a63a2f"/><stop offset=".4" stop-color="#c9971c" stop-opacity=".6"/><stop offset="1" stop-color="#2c4a84"/>'


def pixels(text, size=240):
    image = Image.open(io.BytesIO(png_from_svg(text, width_px=size, height_px=size)))
    return np.asarray(image.convert("RGBA")).astype(float)


def differing(one, two):
    """Return the share of pixels that differ by more than 12 of 255 in colour over white; rims are antialiased a little otherwise."""
    a, b = (p[..., :3] * p[..., 3:] / 255 + 255 - p[..., 3:] for p in (one, two))
    return float((np.abs(a - b).max(axis=-1) > 12).mean())


def dot():
    image = Image.new("RGBA", (40, 30), (0, 0, 0, 0))
    image.paste((40, 90, 160, 255), (8, 5, 32, 25))
    out = io.BytesIO()
    image.save(out, "PNG")
    return base64.b64encode(out.getvalue()).decode()


DRAWINGS = {
    "linear over the box": f'<linearGradient id="g" x1="0" y1="0" x2="1" y2="1">{STOPS}</linearGradient><path d="M10 20H80L90 90H20Z" fill="url(#g)"/>',
    "linear in user space, turned": f'<linearGradient id="g" gradientUnits="userSpaceOnUse" x1="20" y1="0" x2="60" y2="0" gradientTransform="rotate(30 50 50)" spreadMethod="reflect">{STOPS}</linearGradient><rect width="100" height="100" fill="url(#g)"/>',
    "radial with focus": f'<radialGradient id="g" cx=".4" cy=".5" r=".6" fx=".25" fy=".5">{STOPS}</radialGradient><circle cx="50" cy="50" r="45" fill="url(#g)"/>',
    "radial in a stretched box": f'<radialGradient id="g">{STOPS}</radialGradient><ellipse cx="50" cy="50" rx="48" ry="20" fill="url(#g)"/>',
    "borrowed stops": f'<linearGradient id="a">{STOPS}</linearGradient><linearGradient id="g" href="#a" x1="0" y1="1" x2="0" y2="0"/><rect x="5" y="5" width="90" height="90" fill="url(#g)"/>',
    "under a transform": f'<linearGradient id="g">{STOPS}</linearGradient><g transform="translate(50 10) rotate(35) scale(.8 .6)"><rect width="60" height="60" fill="url(#g)"/></g>',
    "clipped by a circle": '<clipPath id="c"><circle cx="50" cy="50" r="30"/></clipPath><path d="M0 0H100V100H0Z" fill="#3f7f78" clip-path="url(#c)"/>',
    "clipped twice, through a group": '<clipPath id="c"><rect x="20" y="20" width="60" height="60"/></clipPath><clipPath id="d"><circle cx="30" cy="30" r="40"/></clipPath><g clip-path="url(#c)"><path d="M0 0H100V100H0Z" fill="#a63a2f" clip-path="url(#d)"/></g>',
    "a clipped stroke": '<clipPath id="c"><rect x="30" width="40" height="100"/></clipPath><circle cx="50" cy="50" r="35" fill="none" stroke="#2c4a84" stroke-width="12" clip-path="url(#c)"/>',
    "a picture, turned": f'<image href="data:image/png;base64,{dot()}" x="10" y="10" width="60" height="45" transform="rotate(20 40 40)"/>',
    "a picture that keeps its aspect": f'<image href="data:image/png;base64,{dot()}" x="0" y="0" width="100" height="40"/>',
}  # fmt: skip


@pytest.mark.parametrize("name", DRAWINGS)
def test_what_is_read_is_drawn_as_the_rasteriser_draws_the_file(name):
    text = svg(DRAWINGS[name])
    motif = motif_from_svg(text)
    assert not [s for s in motif.left_out if "left out" in s]
    assert differing(pixels(text), pixels(motif_svg(motif))) < 0.006
    again = motif_from_svg(motif_svg(motif))
    assert differing(pixels(motif_svg(motif)), pixels(motif_svg(again))) < 0.001


@pytest.mark.parametrize("name", ["radial with focus", "a picture, turned", "linear over the box"])
def test_compact_and_plain_drawings_look_the_same_with_gradients_and_pictures(name):
    motif = motif_from_svg(svg(DRAWINGS[name]))
    laid = lay(brush(motif, size=0.25), [line_from_path_data("M10 50C40 10 60 90 95 50")])[0]
    page = drawing(100, 100, ((motif,), laid))
    one, two = (pixels(draw(page)) for draw in (compact_svg, plain_svg))
    assert (one[..., 3] > 0).mean() > 0.015
    assert differing(one, two) < 0.004


def test_ink_turns_gradients_and_pictures_and_keeps_what_they_cover():
    motif = inked(motif_from_svg(svg(DRAWINGS["radial with focus"] + DRAWINGS["a picture, turned"])), Ink(ink="#204060"))
    seen = pixels(motif_svg(motif))
    strong = seen[..., 3] > 250
    assert np.abs(seen[strong][:, :3] - [0x20, 0x40, 0x60]).max() <= 8  # the picture is resampled
    faint = pixels(motif_svg(motif_from_svg(svg(DRAWINGS["radial with focus"] + DRAWINGS["a picture, turned"]))))
    assert np.abs(seen[..., 3] - faint[..., 3]).max() <= 3


def test_what_cannot_be_resolved_is_told():
    odd = svg('<clipPath id="c" clipPathUnits="objectBoundingBox"><rect width=".5" height="1"/></clipPath><linearGradient id="flat" x1="1" x2="1"><stop stop-color="#111111"/><stop offset="1" stop-color="#222222"/></linearGradient>'
              '<rect width="40" height="40" clip-path="url(#c)" fill="#a00"/><rect y="50" width="40" height="40" fill="url(#flat)"/><rect x="50" width="40" height="40" fill="url(#none) #00a"/>')  # fmt: skip
    motif = motif_from_svg(odd)
    told = " ".join(motif.left_out)
    assert "A clip on rect was left out" in told
    assert "A gradient without extent became its last colour" in told
    assert [s.fill.colour for s in motif.shapes] == ["#aa0000", "#222222", "#0000aa"]
