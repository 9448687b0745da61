"""Pictures bend with their pieces, on screen by their mesh and in files pixel by pixel."""

import io

import numpy as np
import pytest
from PIL import Image

from making import brush, drawing, measured
from sewn_garland.core.drawing.meshes import picture_on_mesh
from sewn_garland.core.drawing.png import png_from_svg
from sewn_garland.core.drawing.svg import compact_svg
from sewn_garland.core.lay import lay
from sewn_garland.core.maths.raster import png_from_rgba, rgba_from_png
from sewn_garland.core.values.motif import Motif, Picture, Shape

R = 20.0
HALF_RING = f"M{30 - R} 30A{R} {R} 0 0 1 {30 + R} 30"


def picture_motif(rgba, width, height):
    picture = Picture(png_from_rgba(rgba), rgba.shape[1], rgba.shape[0])
    corners = np.array([[0.0, 0], [width, 0], [width, height], [0, height]])
    return Motif((Shape("MLLLZ", corners, None, picture=picture),), width, height, height / 2)


def two_tone(width=200, height=60):
    rgba = np.zeros((height, width, 4), np.uint8)
    rgba[:, :, 3] = 255
    rgba[: height // 2, :, 0] = 200
    rgba[height // 2 :, :, 2] = 200
    return rgba


def laid(path, motif, **more):
    return lay(brush(motif, round_bends="bent", **more), [measured(path)])[0]


def rendered(motif, done, size=60):
    svg = compact_svg(drawing(size, size, ((motif,), done)))
    return np.asarray(Image.open(io.BytesIO(png_from_svg(svg, width_px=10 * size, height_px=10 * size))).convert("RGBA"))


def test_a_bent_picture_fills_the_ring_its_frame_does():
    """A strip of height h about a circle of radius r covers (r − h/2, r + h/2), its upper half outside (closed form)."""
    motif = picture_motif(two_tone(), 20.0, 6.0)
    pixels = rendered(motif, laid(HALF_RING, motif, ease="length"))
    y, x = np.mgrid[0:600, 0:600]
    radius = np.hypot(x + 0.5 - 300, y + 0.5 - 300) / 10
    upper = y < 295
    outer, inner = (upper & (np.abs(radius - middle) < 1.2) for middle in (R + 1.5, R - 1.5))
    assert (pixels[outer][:, 3] > 250).all() and (pixels[inner][:, 3] > 250).all()
    assert (pixels[outer][:, 0] > 190).all() and (pixels[inner][:, 2] > 190).all()
    assert (pixels[upper & (np.abs(radius - R) > 3.3)][:, 3] == 0).all()


def test_neighbouring_pictures_leave_no_gap():
    motif = picture_motif(two_tone(), 20.0, 6.0)
    done = laid(HALF_RING, motif, ease="length")
    pixels = rendered(motif, done)
    angle = np.radians(np.linspace(182, 358, 2000))
    for off in (-2.0, 2.0):
        x, y = 300 + 10 * (R + off) * np.cos(angle), 300 + 10 * (R + off) * np.sin(angle)
        assert pixels[y.astype(int), x.astype(int), 3].min() > 240
    mesh = done.outlines.meshes[0].points
    assert np.hypot(*(mesh[:-1, :, -1] - mesh[1:, :, 0]).reshape(-1, 2).T).max() < 1e-9


def test_on_a_straight_line_the_picture_itself_is_drawn():
    motif = picture_motif(two_tone(), 20.0, 6.0)
    done = laid("M0 30H60", motif)
    assert not len(done.outlines.pieces)
    svg = compact_svg(drawing(60, 60, ((motif,), done)))
    assert svg.count('width="200" height="60"') == 1 and svg.count("<use") == 3 + 2  # what closes the seams


@pytest.mark.thorough
@pytest.mark.parametrize("how", [{"round_bends": "bent"}, {"kind": "once_length"}, {"round_bends": "jointed"}, {}])
@pytest.mark.parametrize("corner", ["through", "round", "mitre", "lap", "butt"])
def test_a_brush_of_pictures_alone_goes_round_corners_in_every_way(how, corner):
    motif = picture_motif(two_tone(), 12.0, 6.0)
    which = brush(motif, outside_corner=corner, inside_corner=corner, ease="size", **how)
    done = lay(which, [measured("M10 10H50V50H30")])[0]
    assert len(done.pieces.s) >= 1
    svg = compact_svg(drawing(60, 60, ((motif,), done)))
    assert svg.count("<image") >= 1
    assert (rendered(motif, done)[..., 3] > 0).any()


@pytest.mark.parametrize("turn", [0.0, 90.0])
def test_a_mesh_stays_within_tolerance_of_the_bent_picture(turn):
    """Points of a picture's edge at v go to the circle of radius r − v (exact)."""
    motif = picture_motif(two_tone(), 20.0, 6.0)
    mesh = laid(HALF_RING, motif, turn_deg=turn).outlines.meshes[0].points
    radius = np.hypot(*(mesh - (30, 30)).transpose(3, 0, 1, 2))
    along = 2 if turn == 0 else 1
    assert np.ptp(radius, axis=along).max() < 1e-6  # the spline of the line lies so close
    middles = (np.take(mesh, range(1, mesh.shape[along]), along) + np.take(mesh, range(mesh.shape[along] - 1), along)) / 2
    between = np.hypot(*(middles - (30, 30)).transpose(3, 0, 1, 2))
    assert np.abs(between - np.take(radius, range(1, mesh.shape[along]), along)).max() <= 0.011


def test_a_picture_s_rim_stays_soft_and_its_clear_parts_clear():
    rgba = two_tone()
    rgba[:, :60, 3] = 0
    motif = picture_motif(rgba, 20.0, 6.0)
    pixels = rendered(motif, laid(HALF_RING, motif, ease="length"))
    share = (pixels[..., 3] > 127).sum() / 100 / (np.pi * R * 6)
    assert share == pytest.approx(0.7, abs=0.02)


@pytest.mark.parametrize("at_once", [1 << 18, 1000])
def test_a_mesh_far_finer_than_its_bend_needs_draws_what_the_bend_does(at_once, monkeypatch):
    """A pixel at radius r and angle φ shows the picture's place there (polar coordinates); cells of a fifth of a pixel do not matter."""
    monkeypatch.setattr("sewn_garland.core.drawing.meshes.PIXELS_AT_ONCE", at_once)
    u, v = np.meshgrid(np.linspace(0, 1, 257), np.linspace(0, 1, 65))
    angle, radius = (u - 0.5) * 20 / R, R + 3 - 6 * v
    mesh = np.stack([radius * np.sin(angle), -radius * np.cos(angle)], axis=-1)
    rgba = two_tone()
    rgba[..., 1] = np.linspace(0, 255, 200)[None, :]
    shape = picture_motif(rgba, 20.0, 6.0).shapes[0]
    drawn = picture_on_mesh(shape, mesh)
    seen = rgba_from_png(drawn.picture.png).astype(float)
    low, high = drawn.points[0], drawn.points[2]
    y, x = np.mgrid[0 : seen.shape[0], 0 : seen.shape[1]] + 0.5
    x, y = low[0] + (high - low)[0] * x / seen.shape[1], low[1] + (high - low)[1] * y / seen.shape[0]
    share, off = np.arctan2(x, -y) * R / 20 + 0.5, np.hypot(x, y) - R
    inside = (np.abs(off) < 2.8) & (np.abs(share - 0.5) < 0.49)
    assert (seen[inside][:, 3] == 255).all()
    assert np.abs(seen[inside][:, 1] - 255 * share[inside]).max() <= 3
    assert (seen[inside & (off > 0.2)][:, 0] == 200).all() and (seen[inside & (off < -0.2)][:, 2] == 200).all()
