"""Jobs of ink on a ground: fold, wake, net, weed and dusk are made with the station's own hands, and the sheet's pixels are measured."""

import csv
import io
import itertools
import re

import numpy as np
import pytest
from bench_helper import asked, calm, kept, sheet_shot, typed
from coloraide import Color
from PIL import Image
from playwright.sync_api import expect

from making import svg

pytestmark = pytest.mark.browser

FADING = """<linearGradient id="f"><stop stop-color="{0}"/><stop offset="1" stop-color="{0}" stop-opacity="0"/></linearGradient>
<rect width="40" height="10" fill="url(#f)"/>"""


def brush_of_file(app, name, data, kind):
    """Bring a file in, make a motif of it, and a brush of that; return the page on the brush's bench and the brush."""
    page = app.open("#/motif")
    page.get_by_test_id("motif-file").set_input_files({"name": name, "mimeType": kind, "buffer": data})
    if kind == "image/png":
        page.get_by_role("checkbox", name="Trim the empty margin").uncheck()
        page.get_by_role("button", name="Make the motif").click()
    expect(page.get_by_role("textbox", name="Name of the motif")).to_have_value(re.compile(name.split(".")[0], re.IGNORECASE))
    calm(page)
    page.get_by_role("button", name="Make a brush of it").click()
    expect(page.get_by_test_id("words")).to_be_visible()
    kept(page)
    return page, int(page.evaluate("location.hash").rsplit("/", 1)[1])


def gone_to(app, page, place):
    """Go to a place, where what was made meanwhile is known."""
    page.goto(f"{app.address}/{place}")
    page.reload()
    calm(page)


def pressed(page, radio):
    page.get_by_role("radio", name=radio, exact=True).click()
    kept(page)


def once_over(page):
    asked(page, "How does it travel?")
    pressed(page, "in proportion")


def sheet_with(app, page, ground, *lines, size=(60, 20)):
    """Make a page with lines of brushes, go to it, and return what is painted on its sheet, by mm."""
    sent = {"name": "Trial", "width_mm": size[0], "height_mm": size[1], "ground": ground}
    sheet = page.request.post(f"{app.address}/api/pages", data=sent).json()["id"]
    for brush, d in lines:
        made = {"brush_id": brush, "source": {"kind": "path", "d": d}}
        assert page.request.post(f"{app.address}/api/pages/{sheet}/lines", data=made).ok
    gone_to(app, page, f"#/page/{sheet}")
    return sheet, painted(page)


def painted(page):
    """Return a function of mm to the colour that the sheet shows there, 0 to 255; no line is chosen."""
    sheet = page.get_by_test_id("sheet")
    sheet.focus()
    page.keyboard.press("Escape")
    expect(page.get_by_role("complementary", name="Lines").locator("li[aria-current]")).to_have_count(0)
    calm(page)
    pixels, scale, (x0, y0) = sheet_shot(page)
    return lambda x, y: pixels[np.round(np.asarray(y) * scale + y0).astype(int), np.round(np.asarray(x) * scale + x0).astype(int)]


def shows_its_picture(page):
    """Wait until the picture on the card's ground has come and is painted: then its top left is not the ground's own colour."""
    page.wait_for_function("""() => {
        const sheet = document.querySelector('[data-testid="sheet"]'), canvas = document.querySelector('[data-testid="sheet-canvas"]');
        const [x, y] = sheet.dataset.origin.split(",").map(Number);
        const [r, g, b] = canvas.getContext("2d").getImageData(Math.round(x) + 8, Math.round(y) + 8, 1, 1).data;
        return [r, g, b].join() !== "22,35,61";
    }""")


def hue(rgb):
    return Color("srgb", (np.asarray(rgb) / 255).tolist()).convert("oklch")["h"]


def pieces_of(app, page, sheet):
    return list(csv.DictReader(io.StringIO(page.request.get(f"{app.address}/api/pages/{sheet}/pieces.csv").text())))


def test_the_fold_of_a_sail_is_darkened_without_browning_and_lit_on_one_side(app):
    """The hues of what the sheet shows, by coloraide; a grey-brown laid normally turns the blue by more than 90°."""
    x, y, ground = np.linspace(12, 44, 9), np.full(9, 10), "#2c6ad0"
    own = hue([0x2C, 0x6A, 0xD0])
    page, brush = brush_of_file(app, "fold.svg", svg(FADING.format("#6e5a46"), 40, 10).encode(), "image/svg+xml")
    once_over(page)
    _, at = sheet_with(app, page, ground, (brush, "M10 10H50"))
    assert max(abs(hue(rgb) - own) for rgb in at(x, y)) > 90
    gone_to(app, page, f"#/repeat/{brush}")
    asked(page, "What colour?")
    pressed(page, "multiply")
    _, at = sheet_with(app, page, ground, (brush, "M10 10H50"))
    assert max(abs(hue(rgb) - own) for rgb in at(x, y)) < 25
    assert (np.diff(at(x, y).sum(axis=1)) > 0).all()  # the fold is deep on its left and fades

    page, brush = brush_of_file(app, "light.svg", svg(FADING.format("#ffffff"), 40, 10).encode(), "image/svg+xml")
    once_over(page)
    _, at = sheet_with(app, page, ground, (brush, "M10 10H50"))
    lit = at(x, y)
    assert (np.diff(lit.sum(axis=1)) < 0).all()
    assert lit[0].min() > 230
    assert np.abs(at(55, 10) - (0x2C, 0x6A, 0xD0)).max() <= 1


def test_a_wake_fades_over_25_and_over_200_pieces_and_keeps_half_its_size(app):
    """Common practice: 25 is abrupt, 200 gradual, half the size the least; the truth is the numbers that were typed."""
    page = app.open("#/repeat/1")
    asked(page, "How loosely?")
    for word in ("opacity", "size"):
        page.get_by_role("button", name=word, exact=True).click()
        page.get_by_label(f"{word} follows").select_option("pieces")
        kept(page)
    for field, value in (("opacity from", 100), ("opacity to", 0), ("size from", 100), ("size to", 50)):
        expect(page.get_by_label(field)).to_have_value(str(value))  # as it fades at first
    for over in (25, 200):
        for word in ("opacity", "size"):
            row = page.get_by_role("group", name=word, exact=True).get_by_role("button", name=word, exact=True)
            if row.get_attribute("aria-expanded") != "true":
                row.click()
            typed(page, "Over", over)
        sheet, _at = sheet_with(app, page, "#ffffff", (1, "M5 10H2995"), size=(3000, 20))
        rows = pieces_of(app, page, sheet)
        assert len(rows) > 250
        gone = np.minimum([int(row["stop"]) / over for row in rows], 1)
        assert [float(row["opacity"]) for row in rows] == pytest.approx(1 - gone)
        sizes = np.array([float(row["scale_y"]) for row in rows])
        assert sizes / sizes[0] == pytest.approx(1 - gone / 2, rel=0.02)
        gone_to(app, page, "#/repeat/1")
        asked(page, "How loosely?")


def test_a_net_of_rings_hangs_together_though_it_is_loose(app):
    """Common practice: rings at 70 % of their breadth, middle to middle, interlace. Shapely's truth: every ring crosses the next."""
    shapely = pytest.importorskip("shapely")
    ring = svg('<circle cx="10" cy="10" r="9" fill="none" stroke="#46535c" stroke-width="2"/>', 20, 20).encode()
    page, brush = brush_of_file(app, "ring.svg", ring, "image/svg+xml")
    asked(page, "How does it travel?")
    pressed(page, "rigid")
    asked(page, "How often?")
    typed(page, "Gap", -30)
    asked(page, "How loosely?")
    for word, least, most in (("across", -6, 6), ("turn", -12, 12)):
        page.get_by_role("button", name=word, exact=True).click()
        typed(page, f"{word} from", least)
        typed(page, f"{word} to", most)
    expect(page.get_by_test_id("words")).to_contain_text("Loosely: across, turn")
    sheet, _ = sheet_with(app, page, "#ffffff", (brush, "M15 20H185"), size=(200, 40))
    rings = [shapely.Point(float(row["x_mm"]), float(row["y_mm"])).buffer(10).difference(shapely.Point(
        float(row["x_mm"]), float(row["y_mm"])).buffer(8)) for row in pieces_of(app, page, sheet)]  # fmt: skip
    assert len(rings) > 10
    assert all(one.intersects(other) for one, other in itertools.pairwise(rings))
    # they lie beside their line by what was asked for, and that is no fault of the joins, which all hold
    expect(page.get_by_role("complementary", name="Lines")).to_contain_text("None: every join keeps its wish.")


@pytest.mark.parametrize(("shows", "left", "right"), [("what is light", 0.0, 1.0), ("what is dark", 1.0, 0.0)])
def test_weed_read_from_a_grey_picture_shows_its_light_or_its_dark(app, shows, left, right):
    grey = np.full((20, 100, 3), 255, np.uint8)
    grey[:, :50] = 0
    out = io.BytesIO()
    Image.fromarray(grey).save(out, "PNG", dpi=(63.5, 63.5))  # 40 × 8 mm
    page, brush = brush_of_file(app, "frond.png", out.getvalue(), "image/png")
    once_over(page)
    asked(page, "What colour?")
    page.get_by_label("Ink, a colour").fill("#3f7150")
    kept(page)
    pressed(page, shows)
    _, at = sheet_with(app, page, "#f4e2a8", (brush, "M10 10H50"))
    ground, ink = np.array([0xF4, 0xE2, 0xA8]), np.array([0x3F, 0x71, 0x50])
    for x, share in ((20, left), (40, right)):
        assert np.abs(at(x, 10) - (ground + share * (ink - ground))).max() <= 2


def test_a_white_motif_blocks_what_lies_behind_it(app):
    page, brush = brush_of_file(app, "block.svg", svg('<rect width="40" height="8" fill="#ffffff"/>', 40, 8).encode(), "image/svg+xml")
    once_over(page)
    _, at = sheet_with(app, page, "#2c6ad0", (1, "M5 10H55"), (brush, "M10 10H50"))
    assert (at(np.linspace(12, 48, 40), np.full(40, 10)) == 255).all()


def test_lanterns_over_a_picture_of_dusk_have_no_dark_rim(app):
    """Screen never darkens (the compositing standard, c + b − cb ≥ b): not a pixel of the sheet, and the file is the sheet."""
    page = app.open("#/page/5")
    page.get_by_role("button", name=re.compile("^Night sailing card")).click()
    page.get_by_role("button", name="gouache of dusk").click()
    expect(page.get_by_role("radio", name="over the page")).to_be_checked()
    page.keyboard.press("Escape")
    kept(page)
    card = app.state(page, "/api/pages/5")
    picture, box = card["page"]["ground_picture"], card["page"]["ground_picture"]["box"]
    assert picture["laid"] == "fitted"
    assert box[0] <= 0 < 148 <= box[0] + box[2] + 1e-9
    assert box[1] <= 0 < 105 <= box[1] + box[3] + 1e-9
    x, y = (v.ravel() for v in np.meshgrid(np.linspace(2, 146, 400), np.linspace(8, 103, 300)))
    shows_its_picture(page)
    lit = painted(page)(x, y)
    for line in card["lines"]:
        if "Foam" not in line["name"]:
            sent = {"version": line["version"], "visible": False}
            assert page.request.patch(f"{app.address}/api/lines/{line['id']}", data=sent).ok
    page.reload()
    calm(page)
    shows_its_picture(page)
    unlit = painted(page)(x, y)
    assert (lit - unlit).min() >= -2
    assert (lit - unlit).max() > 150
    held = page.request.get(f"{app.address}/api/pages/5/page.svg?ground=page").text()
    assert held.count("<image") == 1
    assert page.request.get(f"{app.address}/api/pages/5/page.svg").text().count("<image") == 0
