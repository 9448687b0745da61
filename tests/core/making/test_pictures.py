"""Pictures: reading, clearing, lifting out, coverage, tracing, repeats - against shapes and periods that the test drew."""

from __future__ import annotations

import io

import imagecodecs
import numpy as np
import pytest
import shapely
from PIL import Image, ImageDraw

from sewn_garland.core.errors import InputError
from sewn_garland.core.making import clearing, picture_seams
from sewn_garland.core.making.tracing import threshold_of, traced
from sewn_garland.core.maths.outlines import flattened
from sewn_garland.core.reading.pictures import read_picture
from sewn_garland.workshop.pictures import Preparation, cut_found_in, darned_motif, motif_from_picture, repeat_in

SCALE = 8  # shapes are drawn so many times larger and averaged down, for true soft rims


def drawn(width, height, draw, ground="white"):
    image = Image.new("RGBA", (width * SCALE, height * SCALE), ground)
    draw(ImageDraw.Draw(image))
    return np.array(image.resize((width, height), Image.Resampling.BOX))


def disc(cx, cy, r, colour):
    return lambda d: d.ellipse([(cx - r) * SCALE, (cy - r) * SCALE, (cx + r) * SCALE - 1, (cy + r) * SCALE - 1], fill=colour)


def encoded(rgba, kind="PNG", mode="RGBA", **more):
    out = io.BytesIO()
    Image.fromarray(rgba, "RGBA").convert(mode).save(out, kind, **more)
    return out.getvalue()


NOISE = np.random.default_rng(3).integers(0, 256, (40, 60, 4), dtype=np.uint8)


@pytest.mark.parametrize("kind,decode", [("PNG", imagecodecs.png_decode), ("TIFF", imagecodecs.tiff_decode)])
def test_reading_agrees_with_an_independent_library_to_the_byte(kind, decode):
    data = encoded(NOISE, kind)
    assert np.array_equal(read_picture(data).rgba, decode(data))


@pytest.mark.parametrize("kind,decode", [("JPEG", imagecodecs.jpeg8_decode), ("WEBP", imagecodecs.webp_decode)])
def test_lossy_pictures_agree_with_an_independent_library_within_rounding(kind, decode):
    smooth = drawn(60, 40, disc(30, 20, 15, "#a63a2f"))
    data = encoded(smooth, kind, "RGB")
    assert np.abs(read_picture(data).rgba[..., :3].astype(int) - decode(data)[..., :3]).max() <= 3


def test_sixteen_bits_grey_palette_and_cmyk_are_read_and_told():
    deep = imagecodecs.png_encode(np.full((5, 6, 3), 40_000, np.uint16))
    assert read_picture(deep).rgba[0, 0, 0] == pytest.approx(40_000 / 257, abs=1.5)
    grey = imagecodecs.png_encode(np.full((5, 6), 40_000, np.uint16))
    read = read_picture(grey)
    assert read.rgba[0, 0, 0] == pytest.approx(40_000 / 257, abs=1.5)
    assert "16 bits" in " ".join(read.told)
    cmyk = encoded(NOISE, "JPEG", "CMYK")
    assert "CMYK" in " ".join(read_picture(cmyk).told)
    assert read_picture(encoded(NOISE, "PNG", "P")).rgba.shape == (40, 60, 4)


def test_an_animation_gives_its_first_frame():
    out = io.BytesIO()
    frames = [Image.new("RGB", (8, 8), c) for c in ("#ff0000", "#00ff00")]
    frames[0].save(out, "PNG", save_all=True, append_images=frames[1:])
    read = read_picture(out.getvalue())
    assert read.rgba[0, 0].tolist() == [255, 0, 0, 255]
    assert "several pictures" in read.told[0]


def bomb(side):
    """Return a PNG that claims to be huge and holds next to nothing."""
    import struct
    import zlib

    def chunk(kind, body):
        return struct.pack(">I", len(body)) + kind + body + struct.pack(">I", zlib.crc32(kind + body))

    return (
        b"\x89PNG\r\n\x1a\n"
        + chunk(b"IHDR", struct.pack(">IIBBBBB", side, side, 8, 6, 0, 0, 0))
        + chunk(b"IDAT", zlib.compress(b"\0" * 99))
        + chunk(b"IEND", b"")
    )


BAD = {
    "text": (b"hello", "not a PNG, JPEG, WebP or TIFF"),
    "gif": (encoded(NOISE, "GIF", "P"), "not a PNG, JPEG, WebP or TIFF"),
    "empty": (b"", "not a PNG"),
    "cut short": (encoded(NOISE, "JPEG", "RGB")[:500], "damaged or cut short"),
    "cut short png": (encoded(NOISE)[:3000], "damaged or cut short"),
    "bomb": (bomb(60_000), "60000 × 60000 pixels, more than can be taken in"),
}


@pytest.mark.parametrize("name", BAD)
def test_bad_pictures_are_refused_in_words(name):
    data, words = BAD[name]
    with pytest.raises(InputError, match=words):
        read_picture(data, where="rubbing.png")


def test_hostile_metadata_is_passed_over():
    info = Image.Exif()
    info[0x0112] = 6  # turned a quarter
    info[0x010E] = "x" * 60_000
    out = io.BytesIO()
    Image.fromarray(NOISE, "RGBA").convert("RGB").save(out, "JPEG", exif=info.tobytes(), dpi=(0, 0))
    read = read_picture(out.getvalue())
    assert read.rgba.shape[:2] == (60, 40)
    assert read.dpi is None


def test_large_pictures_are_scaled_down_with_a_word_and_regions_lie_in_their_own_pixels():
    wide = encoded(np.repeat(NOISE, 300, axis=1)[:, :12_000])
    read = read_picture(wide)
    assert read.rgba.shape[1] == 10_000
    assert "12000 × 40 pixels were scaled down to 10000 × 33" in read.told[0]
    part = read_picture(wide, region=(6000, 0, 300, 40))
    assert part.scale == 1
    assert np.array_equal(part.rgba[:, 0], NOISE[:, 20])
    with pytest.raises(InputError, match="does not lie within its 12000 × 40 pixels"):
        read_picture(wide, region=(11_900, 0, 300, 40))


@pytest.mark.parametrize("what,ground", [("white", "white"), ("background", "#7fb8a0"), ("#3060c0", "#3060c0")])
def test_clearing_leaves_the_disc_with_its_soft_rim(what, ground):
    rgba = clearing.cleared(drawn(120, 100, disc(60, 50, 30, "#a63a2f"), ground), what, tolerance=12)
    assert rgba[..., 3].sum() / 255 == pytest.approx(np.pi * 900, rel=0.02)
    assert rgba[0, 0, 3] == 0
    rim = (rgba[..., 3] > 20) & (rgba[..., 3] < 235)
    assert np.abs(rgba[rim][:, :3].astype(int) - [0xA6, 0x3A, 0x2F]).mean() < 25  # the ground does not shine through the rim


def test_the_background_goes_only_where_it_hangs_together_with_the_border():
    def ring(d):
        disc(60, 50, 40, "#a63a2f")(d)
        disc(60, 50, 20, "white")(d)

    rgba = drawn(120, 100, ring)
    assert clearing.cleared(rgba, "background", tolerance=12)[50, 60, 3] == 255
    assert clearing.cleared(rgba, "white", tolerance=12)[50, 60, 3] == 0


def test_the_background_shows_in_holes_too_where_those_are_cleared():
    def ring(d):
        disc(60, 50, 40, "#a63a2f")(d)
        disc(60, 50, 20, "white")(d)

    holed = clearing.cleared(drawn(120, 100, ring), "background_and_holes", tolerance=12)
    assert (holed[50, 60, 3], holed[3, 3, 3], holed[50, 30, 3]) == (0, 0, 255)
    hole = (holed[25:76, 35:86, 3] < 128).sum()
    assert hole == pytest.approx(np.pi * 20**2, rel=0.05)  # the area of a disc


def test_a_thing_is_lifted_out_of_an_uneven_background_by_two_marks():
    rgba = drawn(300, 220, disc(150, 110, 60, "#a63a2f"))
    slope = np.linspace(-40, 40, 300)[None, :, None]
    noise = np.random.default_rng(1).normal(0, 4, (220, 300, 1))
    rgba[..., :3] = np.clip(rgba[..., :3].astype(float) * 0.8 + slope + noise, 0, 255)
    lifted = clearing.lifted_out(rgba, [[150, 110]], [[20, 20], [280, 200]], reach=16)
    yy, xx = np.mgrid[:220, :300] + 0.5
    true = (xx - 150) ** 2 + (yy - 110) ** 2 <= 3600
    got = lifted[..., 3] >= 128
    assert (got & true).sum() / (got | true).sum() > 0.97
    with pytest.raises(InputError, match="mark what belongs"):
        clearing.lifted_out(rgba, [], [[1, 1]], reach=5)


def test_grey_is_read_as_coverage_either_way_round():
    rgba = np.zeros((1, 3, 4), np.uint8)
    rgba[0, :, 3] = (255, 255, 0)
    rgba[0, :, :3] = np.array([[0], [119], [255]])  # 119 is L* 50 (from memory)
    light, dark = (clearing.coverage_from_grey(rgba, way)[0, :, 3].tolist() for way in ("light", "dark"))
    assert light == [0, pytest.approx(127, abs=2), 0]
    assert dark == [255, pytest.approx(127, abs=2), 0]


def test_fading_rounds_the_corners_and_leaves_the_middle():
    full = np.full((100, 100, 4), 255, np.uint8)
    faded = clearing.faded(full, rim_pct=20, corner_pct=50)
    assert faded[50, 50, 3] == 255
    assert faded[2, 2, 3] == 0
    assert 0 < faded[50, 8, 3] < 255


def test_white_is_put_behind_a_thing_and_into_its_holes():
    rgba = np.zeros((20, 20, 4), np.uint8)
    rgba[5:15, 5:15] = (10, 20, 30, 255)
    rgba[8:12, 8:12, 3] = 0
    backed = clearing.backed_with_white(rgba)
    assert backed[10, 10].tolist() == [255, 255, 255, 255]
    assert backed[2, 2, 3] == 0


def region_of(shape):
    out = shapely.Polygon()
    for line in flattened(shape.commands, shape.points, tolerance=0.01):
        out = out.symmetric_difference(shapely.make_valid(shapely.Polygon(line)))
    return out


def test_tracing_finds_the_shape_that_was_drawn_by_hausdorff_distance():
    star = [(100 + (70 if i % 2 else 32) * np.sin(i * np.pi / 5), 90 + (70 if i % 2 else 32) * np.cos(i * np.pi / 5)) for i in range(10)]
    rgba = drawn(200, 180, lambda d: d.polygon([(x * SCALE, y * SCALE) for x, y in star], fill="black"))
    found = traced(rgba, colours=None, sharpness=0.8)
    truth = shapely.Polygon(star)
    assert (
        shapely.hausdorff_distance(region_of(found.shapes[0]).boundary, truth.boundary, densify=0.01) < 2.0
    )  # smoothing blunts the ten points
    assert region_of(found.shapes[0]).symmetric_difference(truth).area / truth.area < 0.02
    assert found.points < 30
    assert found.deviation_px < 1


def test_tracing_a_ring_keeps_its_hole_and_leaves_specks_out():
    def ring(d):
        disc(60, 50, 40, "black")(d)
        disc(60, 50, 25, "white")(d)
        disc(10, 10, 1.5, "black")(d)

    found = traced(drawn(120, 100, ring), colours=None, least_speck_px=20)
    assert region_of(found.shapes[0]).area == pytest.approx(np.pi * (1600 - 625), rel=0.01)
    assert found.shapes[0].commands.count("M") == 2
    with pytest.raises(InputError, match="no ink was found"):
        traced(np.full((20, 20, 4), 255, np.uint8), colours=None, threshold=0.5)


def test_tracing_in_colours_gives_each_its_own():
    def two(d):
        disc(40, 50, 30, "#a63a2f")(d)
        disc(110, 50, 30, "#2c4a84")(d)

    shapes = traced(drawn(150, 100, two), colours=3).shapes
    assert {"#a63a2f", "#2c4a84"} <= {s.fill.colour for s in shapes}


def test_the_threshold_parts_two_classes():
    values = np.concatenate([np.full(400, 0.2), np.full(600, 0.8)])
    assert 0.2 < threshold_of(values) < 0.8


def border(period, width=1400, height=90):
    x = np.arange(width)
    y = height / 2 + height / 4 * np.sin(2 * np.pi * x / period) + 4 * np.sin(4 * np.pi * x / period)
    rows = np.arange(height)[:, None]
    grey = np.clip(np.abs(rows - y[None]) - 8, 0, 1) * 255
    return np.dstack([grey, grey, grey, np.full_like(grey, 255)]).astype(np.uint8)


@pytest.mark.parametrize("period", [83.0, 137.37, 251.5])
def test_autocorrelation_finds_the_period_that_was_rendered(period):
    found = picture_seams.find_repeat(border(period))
    assert found.length_px == pytest.approx(period, abs=0.1)
    assert found.strength > 0.95


def test_the_first_of_equal_peaks_is_taken_and_a_rival_is_offered():
    """A border whose every second element is a little darker repeats truly after two."""
    picture = border(60)
    picture[:, (np.arange(1400) // 60) % 2 == 1, :3] //= 2
    found = picture_seams.find_repeat(picture)
    assert found.length_px == pytest.approx(120, abs=0.3)
    with pytest.raises(InputError, match="nothing repeats"):
        picture_seams.find_repeat(np.full((20, 200, 4), 255, np.uint8))


def test_the_best_cut_of_a_picture_spans_whole_periods():
    left, right = picture_seams.best_picture_cut(border(137.0))
    assert (right - left) / 137 == pytest.approx(round((right - left) / 137), abs=0.02)


@pytest.mark.parametrize("left,right,width", [(100, 700, 60), (0, 600, 60), (0, 1400, 60)])
def test_darning_a_picture_closes_its_seam(left, right, width):
    picture = border(137.0)
    before = picture_seams.picture_seam(picture[:, left:right], mm_per_px=0.1)
    after = picture_seams.picture_seam(picture_seams.darned_picture(picture, left, right, width), mm_per_px=0.1)
    assert before.delta_e > 5
    assert after.delta_e < 1.5


def test_a_picture_becomes_a_motif_of_the_size_asked_for():
    data = encoded(drawn(200, 100, disc(120, 50, 30, "#a63a2f")), dpi=(254, 254))
    own = motif_from_picture(data, Preparation(clear="background", trim=True))
    assert (own.motif.width, own.motif.height) == pytest.approx((6.0, 6.0), abs=0.15)  # 254 dpi: 0.1 mm a pixel
    assert own.prepared.frame_px == pytest.approx((90, 20, 60, 60), abs=1)
    assert motif_from_picture(data, Preparation(width_mm=50)).motif.width == pytest.approx(50)
    stencil = motif_from_picture(data, Preparation(clear="white", stencil=True)).motif.shapes[0].picture
    assert stencil.stencil
    with pytest.raises(InputError, match="nothing but clear is left"):
        motif_from_picture(encoded(np.full((9, 9, 4), 255, np.uint8)), Preparation(clear="white"))


def test_repeats_and_cuts_are_found_and_darned_on_motifs_too():
    motif = motif_from_picture(encoded(border(137.0)), Preparation(dpi=254)).motif
    found = repeat_in(motif)
    assert found.length_mm == pytest.approx(13.7, abs=0.02)
    cuts, seam = cut_found_in(motif, length_mm=found.length_mm)
    assert cuts[1] - cuts[0] == pytest.approx(13.7, abs=0.1)
    assert seam.delta_e < 3
    from dataclasses import replace

    darned = darned_motif(replace(motif, cuts=(5.0, 40.0)), 4.0)
    assert darned.width == pytest.approx(35, abs=0.1)
