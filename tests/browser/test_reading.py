"""SVG from elsewhere is read as the browser draws it: boxes of what is drawn (Chromium's getBoundingClientRect), and its pixels."""

import io

import numpy as np
import pytest
from PIL import Image

from sewn_garland.core.drawing.png import png_from_svg
from sewn_garland.core.drawing.svg import motif_svg
from sewn_garland.core.measuring.arc_length import frames_at, measure
from sewn_garland.core.reading.svg_lines import lines_from_svg
from sewn_garland.core.reading.svg_motif import motif_from_svg

pytestmark = pytest.mark.browser
PX_PER_MM = 96 / 25.4
SYMBOL = '<symbol id="s" viewBox="0 0 20 10"{0}><path d="M2 1H18V9Z"/></symbol>'
INNER = '<svg id="n" x="20" y="10"{0}><path d="M2 1H18V9Z"/></svg>'
CASES = {
    "per cent line": '<line x1="10%" y1="20%" x2="80%" y2="90%"/>',
    "per cent rect": '<rect x="5%" y="10%" width="40%" height="30%"/>',
    "per cent radii of a rect": '<rect x="20" y="20" width="50%" height="50%" rx="10%" ry="20%"/>',
    "per cent circle": '<circle cx="50%" cy="40%" r="12%"/>',
    "per cent ellipse": '<ellipse cx="30%" cy="50%" rx="20%" ry="10%"/>',
    "other units": '<rect x="1cm" y="0.5in" width="60pt" height="3pc"/>',
    "symbol with a view box": SYMBOL.format("") + '<use href="#s" x="10" y="20" width="120" height="100"/>',
    "symbol in per cent": SYMBOL.format("") + '<use href="#s" x="10%" y="20%" width="50%" height="30%"/>',
    "symbol without a size": SYMBOL.format("") + '<use href="#s"/>',
    "symbol to the left": SYMBOL.format(' preserveAspectRatio="xMinYMax"') + '<use href="#s" width="120" height="100"/>',
    "symbol stretched": SYMBOL.format(' preserveAspectRatio="none"') + '<use href="#s" width="120" height="100"/>',
    "symbol with a size of its own": SYMBOL.format(' width="80" height="70"') + '<use href="#s" x="5"/>',
    "nested": INNER.format(' width="100" height="60" viewBox="0 0 20 10"'),
    "nested in per cent": INNER.format(' width="50%" height="40%" viewBox="0 0 20 10"'),
    "nested without a size": INNER.format(' viewBox="0 0 20 10"'),
    "nested without a view box": '<svg x="10%" y="10%" width="50%" height="50%"><rect x="10%" y="20%" width="50%" height="50%"/></svg>',
    "use of a nested svg": INNER.format(' viewBox="0 0 20 10"') + '<use href="#n" x="100" y="50" width="60" height="60"/>',
    "CSS translate": '<rect width="20" height="10" style="transform: translate(10mm, 20px)"/>',
    "CSS rotate in turns": '<rect x="100" y="50" width="20" height="10" style="transform: rotate(0.1turn)"/>',
    "CSS rotate in gradians": '<rect x="100" y="50" width="20" height="10" style="transform: rotate(15grad) scale(1.5, 80%)"/>',
    "CSS rotate in radians": '<rect x="100" y="20" width="20" height="10" style="transform: rotate(0.3rad) skewX(10deg)"/>',
    "CSS over the attribute": '<rect width="20" height="10" transform="translate(90)" style="transform: translateX(30px) scaleY(3)"/>',
    "CSS in a sheet": '<style>.a{transform:translateY(40px) rotate(20deg)}</style><rect class="a" x="20" width="40" height="10"/>',
    "CSS with an origin": '<rect x="40" y="30" width="40" height="20" style="transform: rotate(45deg); transform-origin: 60px 40px"/>',
    "CSS with an origin in per cent": '<rect x="40" y="30" width="40" height="20" style="transform: scale(2); transform-origin: 50% bottom"/>',
    "single properties": '<rect x="40" y="30" width="40" height="20" style="translate: 20px 10px; rotate: 10deg; scale: 0.5 2"/>',
    "on a group": '<g style="transform: rotate(10deg) translate(50px, 5px)"><rect x="10" y="10" width="30" height="20"/></g>',
    "CSS that undoes": '<rect x="7" y="9" width="20" height="10" transform="scale(4)" style="transform: none"/>',
}


def document(body):
    return f'<svg xmlns="http://www.w3.org/2000/svg" width="300px" height="200px" viewBox="0 0 300 200">{body}</svg>'


@pytest.mark.parametrize("name", CASES)
def test_what_is_drawn_lies_where_the_browser_draws_it(browser, name):
    text = document(CASES[name])
    page = browser.new_page(viewport={"width": 320, "height": 220})
    page.set_content(f"<style>*{{margin:0;padding:0}}body>svg{{display:block}}</style>{text}")
    boxes = page.evaluate("""() => {
      const drawn = [...document.querySelectorAll('svg *')].filter((e) => e.matches('path, line, rect, circle, ellipse, use') && !e.closest('symbol'));
      return drawn.map((e) => e.getBoundingClientRect()).map((b) => [b.left, b.top, b.right, b.bottom]);
    }""")  # fmt: skip
    page.close()
    boxes = np.array(boxes)
    theirs = [*boxes[:, :2].min(axis=0), *boxes[:, 2:].max(axis=0)]
    lines = [measure(line) for line in lines_from_svg(text).lines]
    points = np.concatenate([frames_at(line, np.linspace(0, line.length, 4001)).position for line in lines]) * PX_PER_MM
    assert [*points.min(axis=0), *points.max(axis=0)] == pytest.approx(theirs, abs=0.02)


STROKES = {
    "a stroke in per cent": '<path d="M20 20L280 180" stroke="#a33a2f" stroke-width="5%" fill="none"/>',
    "dashes in per cent": '<path d="M20 100H280" stroke="#a33a2f" stroke-width="12" stroke-dasharray="5% 2%" stroke-dashoffset="1%" fill="none"/>',
}
WIDE = '<path d="M-9 -9H60L-9 60Z" fill="#2c4a84"/><path d="M-5 8C9 -9 20 20 40 3" stroke="#a33a2f" stroke-width="3" fill="none"/>'
HIDDEN = {
    "a symbol": f'<symbol id="s" viewBox="0 0 20 10">{WIDE}</symbol><use href="#s" x="20" y="30" width="200" height="120"/>',
    "a nested drawing": f'<svg x="20" y="10" width="200" height="150" viewBox="0 0 20 15">{WIDE}</svg>',
    "one in a turned group": f'<g transform="rotate(20 150 100)"><svg x="60" y="30" width="150" height="100" viewBox="0 0 15 10">{WIDE}</svg></g>',
    "one that overflows": f'<svg x="90" y="60" width="80" height="60" viewBox="0 0 16 12" overflow="visible">{WIDE}</svg>',
    "one that holds it all": '<svg x="20" y="10" width="200" height="150"><circle cx="90" cy="70" r="60" stroke="#123" stroke-width="9"/></svg>',
}


@pytest.mark.parametrize("name", STROKES)
def test_strokes_are_as_thick_as_the_browsers(browser, name):
    looks_like_the_browsers(browser, document(STROKES[name]))


@pytest.mark.parametrize("name", HIDDEN)
def test_what_lies_outside_a_nested_viewport_is_hidden_as_in_the_browser(browser, name):
    looks_like_the_browsers(browser, document(HIDDEN[name]))


def test_what_a_nested_viewport_holds_stays_as_it_was_drawn():
    (whole,) = motif_from_svg(document(HIDDEN["one that holds it all"])).shapes
    assert whole.stroke is not None and whole.commands == "M" + 8 * "C" + "Z"


def looks_like_the_browsers(browser, text):
    page = browser.new_page(viewport={"width": 300, "height": 200})
    page.set_content(f"<style>*{{margin:0;padding:0}}svg{{display:block}}</style>{text}")
    theirs = np.asarray(Image.open(io.BytesIO(page.screenshot())).convert("L")).astype(float)
    page.close()
    png = png_from_svg(motif_svg(motif_from_svg(text)), width_px=300, height_px=200)
    rgba = np.asarray(Image.open(io.BytesIO(png)).convert("RGBA"))
    ours = np.asarray(Image.alpha_composite(Image.new("RGBA", (300, 200), "white"), Image.fromarray(rgba)).convert("L")).astype(float)
    assert np.abs(ours - theirs).mean() < 0.3
    assert (theirs < 200).mean() > 0.02


@pytest.mark.parametrize(
    ("body", "told"),
    [
        ('<marker id="m"/><path d="M0 0H9" stroke="#000" marker-end="url(#m)"/>', "Markers on path were left out"),
        ('<g opacity=".5"><rect width="9" height="9"/><rect x="4" width="9" height="9"/></g>', "The opacity of a g was given to each"),
        ('<g id="g"><path d="M0 0H9"/><path d="M0 5H9"/></g><use href="#g" opacity=".5"/>', "The opacity of a use was given to each"),
        ('<path d="M0 0H9V9Z" stroke="#000" paint-order="stroke"/>', "The stroke of a path was to lie under its fill"),
        ('<rect width="9" height="9" filter="url(#f)"/>', "A filter on rect was left out"),
    ],
)
def test_what_cannot_be_kept_is_told(body, told):
    assert any(sentence.startswith(told) for sentence in motif_from_svg(document(body)).left_out)


def test_what_can_be_kept_is_not_told():
    used = '<defs><path id="p" d="M0 0H9V9Z"/></defs><use href="#p" opacity=".5"/>'
    kept = (
        used
        + '<g opacity=".5"><rect width="9" height="9"/></g><circle r="3" opacity=".2"/><path d="M0 0H9" marker-end="none" paint-order="normal"/>'
    )
    assert motif_from_svg(document(kept)).left_out == ()
