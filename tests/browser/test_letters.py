"""Text of a drawing as outlines, beside Chromium's own setting of the same text in the same font files (SVG 2, chapter 11)."""

import base64
import io
from importlib.resources import files

import numpy as np
import pytest
from PIL import Image

from making import svg
from sewn_garland.core.drawing.svg import motif_svg
from sewn_garland.core.reading.svg_motif import motif_from_svg

pytestmark = pytest.mark.browser
SIZE, PX_PER_MM = (100, 40), 8
TEXTS = {
    "kerned, with a ligature": '<text x="4" y="25" font-family="&quot;Source Serif 4&quot;" font-size="14">AVA fig Tow</text>',
    "in the middle, two inks and weights": '<text x="50" y="20" text-anchor="middle" font-family="Hanken Grotesk" font-size="12" font-weight="650">Plover '
    '<tspan fill="#a63a2f" font-style="italic" font-weight="300">Quay</tspan></text>',
    "white space, a shorthand, from the end": """<style>.t{font:italic 700 8px/1.2 "Source Serif 4",serif}</style><text class="t" x="90" y="20" text-anchor="end">
        Tide   table
      at  the quay </text>""",
    "letters placed, turned and apart": '<text x="5 25 45" y="20 24" dx="0 1" dy="2" rotate="10 -20" letter-spacing=".2em" font-size="10" '
    'font-family="Hanken Grotesk">ABC DE</text>',
    "letters beyond the first file's": '<text x="5" y="25" font-family="Hanken Grotesk" font-size="12" word-spacing="4">Łódź Ōtsu</text>',
    "sizes by their parents'": '<g font-size="20"><text x="5" y="25" font-family="&quot;Source Serif 4&quot;" font-size="60%">M<tspan font-size="smaller" dy="-3">2'
    '</tspan><tspan font-size="1.5em" font-weight="bolder">x</tspan></text></g>',
    "lines of their own": '<text font-family="Hanken Grotesk" font-size="7" text-anchor="middle"><tspan x="40" y="12">upper</tspan>'
    '<tspan x="40" dy="1.4em" text-transform="none" style="text-transform:uppercase">lower</tspan></text>',
}


def faces() -> str:
    """Return the shipped files as the browser's fonts; letters of the wider Latin come from their own file."""
    css = ""
    for family, stem in (("Hanken Grotesk", "hanken-grotesk"), ("Source Serif 4", "source-serif-4")):
        for style in ("normal", "italic"):
            for subset, letters in (("latin-ext", "U+0100-02FF"), ("latin", "U+0000-00FF")):
                data = (files("sewn_garland.core.reading") / "fonts" / f"{stem}-{subset}-wght-{style}.woff2").read_bytes()
                css += f"""@font-face{{font-family:"{family}";font-style:{style};font-weight:100 900;unicode-range:{letters};
                  src:url(data:font/woff2;base64,{base64.b64encode(data).decode()})}}"""
    return css


@pytest.fixture(scope="module")
def text_page(browser):
    page = browser.new_page(viewport={"width": SIZE[0] * PX_PER_MM, "height": SIZE[1] * PX_PER_MM})
    page.set_content(f"<style>*{{margin:0;padding:0}}svg{{display:block;text-rendering:geometricPrecision}}{faces()}</style><div></div>")
    yield page
    page.close()


def shot(page, drawing: str) -> np.ndarray:
    page.evaluate("async text => { document.querySelector('div').innerHTML = text; await document.fonts.ready; }", drawing)
    page.evaluate("async () => { for (const font of document.fonts) await font.load(); }")
    return np.asarray(Image.open(io.BytesIO(page.screenshot())).convert("L")).astype(float)


@pytest.mark.parametrize("name", TEXTS)
def test_text_is_drawn_as_the_browser_sets_it(text_page, name):
    body = TEXTS[name]
    width, height = SIZE
    motif = motif_from_svg(svg(body, width, height))
    sized = (
        f'<svg xmlns="http://www.w3.org/2000/svg" width="{width * PX_PER_MM}" height="{height * PX_PER_MM}" viewBox="0 0 {width} {height}">'
    )
    theirs = shot(text_page, f"{sized}{body}</svg>")
    ours = shot(
        text_page,
        motif_svg(motif).replace(f'width="{width}mm" height="{height}mm"', f'width="{width * PX_PER_MM}" height="{height * PX_PER_MM}"'),
    )
    inked = (theirs < 128).sum()
    assert inked > 1500
    # antialiasing of edges apart: what one shows in full and the other not at all
    assert ((ours < 64) & (theirs > 192)).sum() + ((theirs < 64) & (ours > 192)).sum() == 0
    assert np.abs(ours - theirs).sum() / 255 < 0.08 * inked
    assert motif.left_out == ()
