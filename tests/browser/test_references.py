"""The browser as a reference: its path methods, and its dashed, plain, mitred and filleted strokes."""

import io

import numpy as np
import pytest
from PIL import Image

from making import brush, drawing, measured, svg
from sewn_garland.core.drawing.png import png_from_svg
from sewn_garland.core.drawing.svg import compact_svg
from sewn_garland.core.lay import lay
from sewn_garland.core.measuring.arc_length import frames_at
from sewn_garland.core.reading.svg_motif import motif_from_svg

pytestmark = pytest.mark.browser
SIZE, PX_PER_MM = 100, 8

PATHS = {
    "line": ("M10 10L90 70", 1e-6),
    "cubics": ("M8 35C18 13 26 13 36 35S54 57 64 35S82 13 92 35", 1e-5),
    "quadratics": ("M5 50Q30 5 50 50T95 50", 1e-5),
    # the browser turns arcs into cubics: up to 1.4e-4 too long
    "arcs": ("M10 50A25 40 20 0 1 60 50A20 10 0 1 0 90 50", 3e-4),
    "closed": ("M10 10H90V90H10Z", 1e-6),
}


@pytest.mark.parametrize("name", PATHS)
def test_length_and_points_agree_with_the_browsers_path_methods(browser, name):
    """SVG 2 getTotalLength and getPointAtLength as implemented by Chromium."""
    text, tolerance = PATHS[name]
    page = browser.new_page()
    length, points = page.evaluate("""d => {
      const path = document.createElementNS("http://www.w3.org/2000/svg", "path");
      path.setAttribute("d", d);
      const length = path.getTotalLength();
      return [length, [0.1, 0.35, 0.5, 0.77, 0.95].map((u) => { const p = path.getPointAtLength(u * length); return [p.x, p.y]; })];
    }""", text)  # fmt: skip
    page.close()
    line = measured(text)
    assert line.length == pytest.approx(length, rel=tolerance)
    ours = frames_at(line, np.array([0.1, 0.35, 0.5, 0.77, 0.95]) * length).position
    assert ours == pytest.approx(np.array(points), abs=max(2e-3, 400 * tolerance))


STITCH, GAP, WIDTH = 6.0, 3.0, 1.6
LINES = {
    "straight": "M8 20L90 78",
    "gentle curve": "M6 60C36 30 64 30 94 60",
    "circle": "M90 50A40 40 0 0 1 50 90A40 40 0 0 1 10 50A40 40 0 0 1 50 10A40 40 0 0 1 90 50Z",
}


def pixels_in_browser(browser, text: str) -> np.ndarray:
    page = browser.new_page(viewport={"width": SIZE * PX_PER_MM, "height": SIZE * PX_PER_MM})
    sized = text.replace(f'width="{SIZE}mm" height="{SIZE}mm"', f'width="{SIZE * PX_PER_MM}" height="{SIZE * PX_PER_MM}"')
    page.set_content(f"<style>*{{margin:0;padding:0}}svg{{display:block}}</style>{sized}")
    shot = page.screenshot()
    page.close()
    return np.asarray(Image.open(io.BytesIO(shot)).convert("L")).astype(float)


def pixels_in_rasteriser(_browser, text: str) -> np.ndarray:
    picture = Image.open(io.BytesIO(png_from_svg(text, width_px=SIZE * PX_PER_MM, height_px=SIZE * PX_PER_MM)))
    white = Image.new("RGBA", picture.size, "white")
    white.alpha_composite(picture.convert("RGBA"))
    return np.asarray(white.convert("L")).astype(float)


@pytest.mark.parametrize("name", LINES)
@pytest.mark.parametrize("render", [pixels_in_browser, pixels_in_rasteriser])
def test_a_running_stitch_is_the_dashed_stroke_of_the_same_line(browser, name, render):
    """SVG 2, painting: stroke-dasharray. On a straight line the two are equal up to antialiasing.

    On a bend of radius r a rigid stitch leaves the line by s²/2r at s from its middle, L²/24r on average,
    at both its long edges: L²/12rW of its area, 4.7 % on the circle. Antialiasing along the edges of
    turned shapes adds up to 3 % of the ink at this size (measured; it halves when the scale doubles).
    """
    motif = motif_from_svg(svg(f'<rect width="{STITCH}" height="{WIDTH}"/>', STITCH, WIDTH))
    line = measured(LINES[name])
    which = brush(motif, gap=GAP / STITCH)
    laid = lay(which, [line])[0]
    count = len(laid.pieces.s)
    dashed_length = count * (STITCH + GAP) - GAP + 1e-3
    dashes = f"{STITCH} {GAP} " * (count - 1) + f"{STITCH} {line.length - dashed_length + 100}"
    reference = svg(f'<path d="{LINES[name]}" fill="none" stroke="#000" stroke-width="{WIDTH}" stroke-dasharray="{dashes}"/>', SIZE, SIZE)
    ours, theirs = render(browser, compact_svg(drawing(SIZE, SIZE, (which.pieces.repeat, laid)))), render(browser, reference)
    ink = (255 - theirs).sum()
    assert (255 - ours).sum() == pytest.approx(ink, rel=0.01)
    bend = 0.0 if line.tightest_radius is None else STITCH**2 / (12 * line.tightest_radius * WIDTH) + 0.03
    assert np.abs(ours - theirs).sum() / ink < 0.005 + bend
    assert ink / 255 / PX_PER_MM**2 == pytest.approx(count * STITCH * WIDTH, rel=0.01)


def outline_pixels(browser, which, path, reference):
    """Return the ink (0 to 255 a pixel) of a brush on a line and of a reference drawing, both painted by the browser."""
    laid = lay(which, [measured(path)])[0]
    drawn = (compact_svg(drawing(SIZE, SIZE, (which.pieces.motifs, laid))), svg(reference, SIZE, SIZE))
    return tuple(255 - pixels_in_browser(browser, text) for text in drawn)


def assert_same_drawing(ours, theirs, rim_mm):
    """Antialiasing apart: only pixels on rims differ, and where joins of pieces meet on a pixel by a hairline's share."""
    off = np.abs(ours - theirs)
    assert (off > 100).sum() < 0.02 * rim_mm * PX_PER_MM  # a fiftieth of the rim's pixels; a hairline between pieces is up to 64
    assert off.sum() / theirs.sum() < 0.01


BENDS = {
    "wave": "M6 60C36 20 64 100 94 50",
    "spiral of arcs": "M50 50A8 8 0 0 1 66 50A16 16 0 0 1 34 50A24 24 0 0 1 82 50",
    "ring": LINES["circle"],
}


@pytest.mark.parametrize("name", BENDS)
def test_a_bent_bar_is_the_plain_stroke_of_the_same_width(browser, name):
    """SVG 2, painting: a stroke of width w covers what lies within w/2 square to the line."""
    motif = motif_from_svg(svg('<rect width="9" height="5" fill="#000"/>', 9, 5))
    which = brush(motif, round_bends="bent", ease="length")
    reference = f'<path d="{BENDS[name]}" fill="none" stroke="#000" stroke-width="5"/>'
    ours, theirs = outline_pixels(browser, which, BENDS[name], reference)
    assert_same_drawing(ours, theirs, 2 * measured(BENDS[name]).length)


TURNS = {"rectangle": "M20 25H80V75H20Z", "acute": "M15 80L50 18L85 80", "obtuse and inside": "M12 60L40 40L60 62L90 30"}


@pytest.mark.parametrize("name", TURNS)
@pytest.mark.parametrize("travel", ["rigid", "bent"])
def test_a_mitred_bar_is_the_stroke_with_mitred_joins(browser, name, travel):
    """SVG 2, stroke-linejoin: miter."""
    motif = motif_from_svg(svg('<rect width="9" height="5" fill="#000"/>', 9, 5))
    which = brush(motif, round_bends=travel, ease="length", outside_corner="mitre", inside_corner="mitre")
    reference = f'<path d="{TURNS[name]}" fill="none" stroke="#000" stroke-width="5" stroke-linejoin="miter" stroke-miterlimit="20"/>'
    ours, theirs = outline_pixels(browser, which, TURNS[name], reference)
    assert_same_drawing(ours, theirs, 2 * measured(TURNS[name]).length)


def test_a_bar_round_a_corner_is_the_stroke_of_the_filleted_path(browser):
    """The same arc drawn by hand: tangent length r·tan(θ/2) = r at a right angle."""
    motif = motif_from_svg(svg('<rect width="9" height="5" fill="#000"/>', 9, 5))
    which = brush(motif, round_bends="bent", ease="length", outside_corner="round", inside_corner="round", round_radius=8.0)
    fillet = "M28 25H72A8 8 0 0 1 80 33V67A8 8 0 0 1 72 75H28A8 8 0 0 1 20 67V33A8 8 0 0 1 28 25Z"
    reference = f'<path d="{fillet}" fill="none" stroke="#000" stroke-width="5"/>'
    ours, theirs = outline_pixels(browser, which, TURNS["rectangle"], reference)
    assert_same_drawing(ours, theirs, 2 * measured(fillet).length)
