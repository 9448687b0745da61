"""Jobs with a picture: what is cleared seen on it, the trace over it, its motif made anew from it."""

import io
import re

import numpy as np
import pytest
from PIL import Image
from playwright.sync_api import expect

pytestmark = pytest.mark.browser


def shot(locator):
    return np.array(Image.open(io.BytesIO(locator.screenshot())).convert("RGB")).astype(int)


def test_clears_a_scan_holes_too_sees_it_on_the_picture_and_makes_the_motif_anew_at_another_length(app):
    page = app.open("#/motif/6")
    page.get_by_role("button", name="Scan tray").click()
    page.get_by_role("button", name=re.compile("mussel-prints")).click()
    source = page.get_by_test_id("picture-source")
    page.get_by_role("radio", name="the background", exact=True).click()
    expect(page.get_by_test_id("cleared")).to_be_visible()
    page.get_by_role("radio", name="on dark").click()
    dark = (shot(source).max(axis=2) < 50).mean()  # where the ground shows through
    page.get_by_role("radio", name="holes too").click()
    expect(page.get_by_text("Working it out anew")).to_have_count(0)
    assert (shot(source).max(axis=2) < 50).mean() > dark + 0.01  # the light ribs of three shells
    page.get_by_role("radio", name="ink and ground").click()
    trace = page.get_by_test_id("trace-over")
    expect(trace).to_be_attached()
    page.get_by_role("radio", name="as it is").click()
    traced = trace.evaluate(
        "g => { const b = g.getBBox(), m = g.getCTM(); return [m.e + m.a * b.x, m.f + m.d * b.y, m.a * b.width, m.d * b.height]; }"
    )
    page.get_by_role("radio", name="no, keep the picture").click()
    page.get_by_role("radio", name="as it is").click()
    ink = np.argwhere(shot(source).max(axis=2) < 140)[:, ::-1]  # by pixels of the scan itself
    left, top, right, bottom = [*np.percentile(ink, 0.02, axis=0), *np.percentile(ink, 99.98, axis=0)]
    assert traced == pytest.approx([left, top, right - left, bottom - top], abs=4)
    page.get_by_role("radio", name="ink and ground").click()
    expect(trace).to_be_attached()
    page.get_by_role("button", name="Make the motif").click()
    page.get_by_role("button", name="Open its picture again").click()
    expect(page.get_by_role("radio", name="holes too")).to_be_checked()
    expect(page.get_by_role("radio", name="ink and ground")).to_be_checked()
    before = {motif["id"] for motif in app.state(page)["motifs"]}
    length = page.get_by_role("textbox", name="Length of the motif")
    length.fill("80")
    length.press("Enter")
    page.get_by_role("button", name="Make Mussel prints anew").click()
    expect(page.get_by_role("button", name="Open its picture again")).to_be_visible()
    after = app.state(page)["motifs"]
    assert {motif["id"] for motif in after} == before  # in its place
    assert next(m for m in after if m["name"] == "Mussel prints")["width_mm"] == pytest.approx(80, abs=0.01)
