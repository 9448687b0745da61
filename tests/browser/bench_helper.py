"""The Motif station's bench as browser tests handle it."""

import base64
import io
import re
from contextlib import contextmanager

import numpy as np
from PIL import Image
from playwright.sync_api import Page, expect

from sewn_garland.core.reading.svg_motif import motif_from_svg

STATION_IS_THERE = """() => {
  const main = document.querySelector("main");
  return main?.childElementCount > 0 && !/^(Opening|Laying it out)/.test(main.innerText);
}"""


COUNTS_REQUESTS = """() => {
  const ask = window.fetch;
  const asked = (window.asked = { open: 0, changed: performance.now() });
  const count = (by) => Object.assign(asked, { open: asked.open + by, changed: performance.now() });
  window.fetch = (...what) => (count(1), ask(...what).finally(() => count(-1)));
}"""
IS_CALM = "() => window.asked.open === 0 && performance.now() - window.asked.changed > 80"  # no answer led to another question


def calm(page: Page) -> None:
    """Wait until a station is there and nothing more is asked of the server."""
    page.wait_for_function(STATION_IS_THERE)
    page.wait_for_function(IS_CALM)


def plain(figure: str) -> str:
    """Return a figure as a number field shows it, without needless noughts."""
    return f"{float(figure):.2f}".rstrip("0").rstrip(".")


def asked(page: Page, question: str) -> None:
    """Open a question of the Repeat station."""
    page.get_by_role("button", name=question).click()


def typed(page: Page, field: str, value: object) -> None:
    """Type a figure into a field, and wait until it is kept."""
    page.get_by_label(field, exact=True).fill(str(value))
    page.get_by_label(field, exact=True).press("Enter")
    kept(page)


def kept(page: Page) -> None:
    """Wait until what was done is kept."""
    expect(page.get_by_text("All changes kept")).to_be_visible()
    calm(page)


class Bench:
    """The open motif: the station's fields, and the bench in mm."""

    def __init__(self, app, page):
        self.app, self.page = app, page

    def open(self, motif_id):
        self.page.goto(f"{self.app.address}/#/motif/{motif_id}")
        expect(self.page.get_by_test_id("motif-bench")).to_be_visible()
        calm(self.page)

    def begin(self, starter):
        self.page.get_by_role("button", name="Starters").click()
        self.page.get_by_role("dialog", name="Starters").get_by_role("button", name=starter, exact=True).click()
        expect(self.page.get_by_role("dialog", name="Starters")).to_have_count(0)
        expect(self.page.get_by_role("textbox", name="Name of the motif")).to_have_value(re.compile(starter))

    def lay_onto(self, starter):
        self.page.get_by_role("button", name="Starters").click()
        self.page.get_by_role("checkbox").check()
        with self.keeping():
            self.page.get_by_role("dialog", name="Starters").get_by_role("button", name=starter, exact=True).click()

    def tab(self, name):
        self.page.get_by_role("navigation", name="Work on the motif").get_by_role("button", name=name, exact=True).click()

    @property
    def parts(self):
        return self.page.get_by_role("list", name=re.compile("Parts")).get_by_role("button")

    def choose(self, *names):
        for i, name in enumerate(names):
            part = self.page.get_by_role("list", name=re.compile("Parts")).get_by_role("button", name=name).first
            part.click(modifiers=["Shift"] if i else [])

    @contextmanager
    def keeping(self):
        """Do something and wait until the server has kept the change and the station shows it."""
        with self.page.expect_response(lambda r: r.url.endswith("/edit") and r.request.method == "POST") as got:
            yield
        assert got.value.ok, got.value.text()
        expect(self.page.get_by_role("banner").get_by_role("status")).to_contain_text("All changes kept")
        expect(self.page.get_by_test_id("bench")).to_have_attribute("data-version", str(got.value.json()["version"]))

    def press(self, name):
        """Press a button of the open panel."""
        with self.keeping():
            self.page.get_by_role("button", name=name, exact=True).click()

    def set(self, label, value, *, where=None):
        """Type a figure."""
        with self.keeping():
            field = (where or self.page).get_by_role("textbox", name=label, exact=True)
            field.fill(str(value))
            field.press("Enter")

    @property
    def id(self):
        return int(self.page.evaluate("location.hash").rsplit("/", 1)[1])

    @property
    def message(self):
        return self.app.state(self.page, f"/api/motifs/{self.id}")

    @property
    def motif(self):
        return motif_from_svg(self.page.request.get(f"{self.app.address}/api/motifs/{self.id}/motif.svg").body())

    @property
    def scale(self):
        return float(self.page.get_by_test_id("bench").get_attribute("data-scale"))

    def at(self, x, y):
        """Return where a place of the motif lies in the window."""
        bench = self.page.get_by_test_id("bench")
        box, scale = bench.bounding_box(), float(bench.get_attribute("data-scale"))
        return box["x"] + float(bench.get_attribute("data-x")) + x * scale, box["y"] + float(bench.get_attribute("data-y")) + y * scale

    def drag(self, start, end):
        self.page.mouse.move(*start)
        self.page.mouse.down()
        self.page.mouse.move(*end, steps=6)
        self.page.mouse.up()

    def middle(self, role_name):
        """Return the middle of a mark in the window."""
        box = self.page.get_by_role("slider", name=role_name).bounding_box()
        return box["x"] + box["width"] / 2, box["y"] + box["height"] / 2


def sheet_shot(page):
    """Return the pixels (h, w, 3) that the sheet shows, 0 to 255, how many are a mm, and where the page's corner lies (x, y)."""
    sheet = page.get_by_test_id("sheet")
    shot = page.get_by_test_id("sheet-canvas").evaluate("c => c.toDataURL('image/png')").split(",")[1]
    pixels = np.asarray(Image.open(io.BytesIO(base64.b64decode(shot))).convert("RGB")).astype(int)
    return pixels, float(sheet.get_attribute("data-scale")), tuple(float(v) for v in sheet.get_attribute("data-origin").split(","))
