"""Lays a bar of touching pieces and looks for the ground between them; the truth is the browser's own stroke of the same line."""

import numpy as np
import pytest
import scipy
from bench_helper import calm, kept, sheet_shot
from playwright.sync_api import expect

pytestmark = pytest.mark.browser

WAVE = "M10 60C50 -20 100 140 140 40"
STROKE = """([d, width, scale, x, y]) => {
  const of = document.querySelector('[data-testid="sheet-canvas"]');
  const ctx = new OffscreenCanvas(of.width, of.height).getContext("2d");
  ctx.setTransform(scale, 0, 0, scale, x, y);
  ctx.lineWidth = width;
  ctx.stroke(new Path2D(d));
  return Array.from(ctx.getImageData(0, 0, of.width, of.height).data.filter((_, i) => i % 4 === 3));
}"""


def bar_brush(app):
    """Begin with a bar, which is a brush of touching pieces in two presses more; return the brush's number."""
    page = app.open("#/motif")
    page.get_by_role("button", name="Starters").click()
    page.get_by_role("button", name="Bar", exact=True).click()
    calm(page)
    page.get_by_role("button", name="Make a brush of it").click()
    expect(page.get_by_test_id("words")).to_contain_text("bent")
    kept(page)
    return page, int(page.evaluate("location.hash").rsplit("/", 1)[1])


def test_a_bar_of_touching_pieces_is_as_whole_as_a_plain_stroke_at_five_zooms(app):
    page, brush = bar_brush(app)
    high = page.request.get(f"{app.address}/api/motifs/{app.state(page, '/api/workshop')['motifs'][-1]['id']}").json()["height_mm"]
    sent = {"name": "Trial", "width_mm": 150, "height_mm": 100, "ground": "#ffffff"}
    sheet = page.request.post(f"{app.address}/api/pages", data=sent).json()["id"]
    made = {"brush_id": brush, "source": {"kind": "path", "d": WAVE}}
    assert page.request.post(f"{app.address}/api/pages/{sheet}/lines", data=made).ok
    page.goto(f"{app.address}/#/page/{sheet}")
    page.reload()
    calm(page)
    page.get_by_test_id("sheet").focus()
    page.keyboard.press("Escape")
    expect(page.get_by_role("complementary", name="Lines").locator("li[aria-current]")).to_have_count(0)
    scales = []
    for zoom in ("whole", "+", "+", "+", "+"):
        page.get_by_text(zoom, exact=True).click()
        calm(page)
        pixels, scale, origin = sheet_shot(page)
        scales.append(round(scale, 3))
        cover = np.array(page.evaluate(STROKE, [WAVE, high - 0.1, scale, *origin])).reshape(pixels.shape[:2])
        inside = scipy.ndimage.minimum_filter(cover, 3) == 255
        inside[:, : int(origin[0] + 12 * scale)] = False  # the pieces begin and end a little off the stroke's ends
        inside[:, int(origin[0] + 138 * scale) :] = False
        assert inside.sum() > 500
        colours = np.unique(pixels[inside], axis=0)
        assert len(colours) == 1, colours
    assert len(set(scales)) == 5
