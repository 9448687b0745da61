"""How inks come to lie on what is below them: measured on the picture, against the formulas of the compositing standard."""

import base64

import numpy as np
import pytest
from coloraide import Color

from making import brush, measured, svg
from sewn_garland.core.assemble import drawing_of, on_page
from sewn_garland.core.drawing.steps import png_of
from sewn_garland.core.lay import lay
from sewn_garland.core.maths.raster import png_from_rgba, rgba_from_png
from sewn_garland.core.reading.svg_motif import motif_from_svg
from sewn_garland.core.values.variations import Variation

PX = 10  # a mm


def pictured(motif, path, ground, *, size=(60, 20), variations=(), **sections):
    """Return what a page shows (rows, columns, 3) of a line on a ground."""
    made = brush(motif).changed({"variations": variations, **sections})
    line = lay(made, [measured(path)])[0]
    drawing = drawing_of(*size, on_page(made.pieces.motifs, line, made.ink), ground=ground)
    return rgba_from_png(png_of(drawing, width_px=size[0] * PX, height_px=size[1] * PX))[..., :3].astype(int), line


def fading(colour):
    return motif_from_svg(svg(
        f'<linearGradient id="f"><stop stop-color="{colour}"/><stop offset="1" stop-color="{colour}" stop-opacity="0"/></linearGradient>'
        '<rect width="40" height="10" fill="url(#f)"/>', 40, 10,
    ))  # fmt: skip


def hues(row):
    return np.array([Color("srgb", (rgb / 255).tolist()).convert("oklch")["h"] for rgb in row])


@pytest.mark.parametrize("ground", ["#d0402a", "#2c6ad0", "#e0b020"])
def test_a_black_that_fades_leaves_the_hue_when_it_multiplies_and_shifts_none_into_brown(ground):
    """Black over a colour c by alpha a gives (1 − a)·c either way; the standard's multiply of black is black, so the two agree here, and
    neither leaves the line from the ground to black: its hue stays in every channel's ratio.
    """
    seen, _ = pictured(fading("#000000"), "M10 10H50", ground, ink={"laid_on_as": "multiply"})
    row = seen[10 * PX, 30 * PX : 48 * PX : 6]
    base = np.array([int(ground[i : i + 2], 16) for i in (1, 3, 5)])
    share = row.max(axis=1) / base.max()
    assert np.abs(row - share[:, None] * base).max() <= 1.5
    assert np.abs(hues(row) - hues(base[None])[0]).max() < 3


def test_a_grey_brown_ink_browns_when_laid_normally_and_not_when_it_multiplies():
    """Multiply keeps the order of channels of a saturated ground and darkens it: c·s per channel, (1 − a)·c + a·c·s."""
    ground, ink = np.array([44, 106, 208]), np.array([110, 90, 70])
    normal, _ = pictured(fading("#6e5a46"), "M10 10H50", "#2c6ad0")
    multiplied, _ = pictured(fading("#6e5a46"), "M10 10H50", "#2c6ad0", ink={"laid_on_as": "multiply"})
    at = np.s_[10 * PX, 12 * PX : 48 * PX : 9]
    alpha = 1 - (np.arange(12 * PX, 48 * PX, 9) + 0.5 - 10 * PX) / (40 * PX)
    truth = (1 - alpha[:, None]) * ground + alpha[:, None] * ground * ink / 255
    assert np.abs(multiplied[at] - truth).max() <= 1.6
    own = hues(ground[None])[0]
    assert np.abs(hues(multiplied[at]) - own).max() < 25
    assert np.abs(hues(normal[at])[:8] - own).max() > 90  # it passes through brown


def test_white_lights_one_side_when_it_screens():
    seen, _ = pictured(fading("#ffffff"), "M10 10H50", "#2c6ad0", ink={"laid_on_as": "screen"})
    row = seen[10 * PX, 10 * PX + 1 : 50 * PX - 1]
    assert (np.diff(row.sum(axis=1)) <= 1).all()
    assert row[0].min() > 240
    assert np.abs(row[-1] - (44, 106, 208)).max() <= 2


RINGS = svg(
    '<radialGradient id="g"><stop stop-color="#ffffff"/><stop offset=".4" stop-color="#806020"/><stop offset="1" stop-color="#000000"/>'
    '</radialGradient><circle cx="5" cy="5" r="5" fill="url(#g)"/>', 10, 10,
)  # fmt: skip


@pytest.mark.parametrize("ground", ["#16233d", "#000000", "#4a2f3a"])
def test_a_black_rimmed_glow_screened_on_dark_has_no_rim(ground):
    seen, line = pictured(motif_from_svg(RINGS), "M10 10H50", ground, ink={"laid_on_as": "screen", "blends": "each_piece"},
                          variations=(Variation(of="size", between=(40, 100)),), travel={"kind": "scattered"})  # fmt: skip
    down, across = np.indices(seen.shape[:2])
    base = np.array([int(ground[i : i + 2], 16) for i in (1, 3, 5)])
    places = np.stack([(across + 0.5) / PX, (down + 0.5) / PX], axis=-1)
    away = [
        np.hypot(*(places - centre).transpose(2, 0, 1)) / (5 * size)
        for centre, size in zip(line.pieces.centre, line.pieces.size, strict=True)
    ]
    nearest = np.min(away, axis=0)
    rim = (nearest > 0.999) & (nearest < 1.05)  # there the gradient has come to black
    assert rim.sum() > 100
    assert np.abs(seen[rim] - base).max() <= 1
    assert (seen - base).min() >= -1  # nowhere is it darker than the ground
    assert seen[nearest < 0.1].min() >= 200


def test_a_wake_fades_over_25_and_over_200_pieces_and_its_smallest_size_is_kept():
    """Common practice: 25 is abrupt, 200 gradual, and half the size the least."""
    for over in (25, 200):
        fade = (
            Variation(of="opacity", follows="pieces", between=(100, 0), over=over),
            Variation(of="size", follows="pieces", between=(100, 50), over=over),
        )
        _, line = pictured(motif_from_svg(svg('<circle cx="1" cy="1" r="1"/>', 2, 2)), "M0 10H500", "#ffffff", variations=fade)
        number = np.minimum(line.pieces.stop / over, 1)
        assert line.pieces.opacity == pytest.approx(1 - number)
        assert line.pieces.size == pytest.approx(1 - number / 2)
        assert len(line.pieces.s) > 250


@pytest.mark.parametrize(("shows", "left", "right"), [("light_shows", 0.0, 1.0), ("dark_shows", 1.0, 0.0)])
def test_of_a_grey_picture_the_light_or_the_dark_shows_in_the_ink(shows, left, right):
    grey = np.full((8, 40, 4), 255, np.uint8)
    grey[:, :20, :3] = 0
    grey[:2, :, 3] = 0
    href = "data:image/png;base64," + base64.b64encode(png_from_rgba(grey)).decode()
    motif = motif_from_svg(svg(f'<image width="40" height="8" preserveAspectRatio="none" href="{href}"/>', 40, 8))
    seen, _ = pictured(motif, "M10 10H50", "#ffffff", ink={"ink": "#2c4a84", "coverage": shows})
    for x, share in ((20, left), (40, right)):
        wanted = (1 - share) * 255 + share * np.array([0x2C, 0x4A, 0x84])
        assert np.abs(seen[11 * PX, x * PX] - wanted).max() <= 2
    assert (seen[6 * PX + 8, 12 * PX] == 255).all()  # what was clear stays clear


def test_a_white_motif_hides_what_is_behind_it():
    seen, _ = pictured(motif_from_svg(svg('<rect width="40" height="8" fill="#ffffff"/>', 40, 8)), "M10 10H50", "#2c6ad0")
    assert (seen[10 * PX, 30 * PX] == 255).all()
