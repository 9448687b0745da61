"""What the screen shows is what the file holds, pixel by pixel."""

import base64
import io
import re

import numpy as np
import pytest
from PIL import Image
from playwright.sync_api import expect
from scipy.ndimage import maximum_filter, minimum_filter

from making import svg
from sewn_garland.core.drawing.png import png_from_svg
from sewn_garland.core.maths.raster import png_from_rgba
from sewn_garland.store.database import Store
from sewn_garland.workshop import pages
from sewn_garland.workshop.lines import lines_of
from sewn_garland.workshop.rows import row_of
from sewn_garland.workshop.scenes import laid_scenes

pytestmark = pytest.mark.browser

# Two programs paint: the browser, and the renderer of the PNG. They place the soft rim of an edge differently by up to a pixel, and the
# browser sets small pieces to a quarter of one. So a pixel must lie within what the other has in the 3 × 3 around it, give or take:
MOST_LEVELS = 48  # of 255; chosen: the worst seen is 35, where the rim of a level stem runs along a row of pixels
MOST_SHARE = 2e-4  # of the pixels may be more than 20 levels beyond; chosen: the worst seen is 1.1e-4, on the route map seen whole
MOST_MEAN = 1.0  # of 255, over all pixels of the sheet
RING_PX = 15  # findings are ringed on the screen and not in the file


@pytest.mark.parametrize("number", [1, 2, 3, 4, 5])
def test_a_demo_page_on_the_screen_is_its_picture(app, number, tmp_path):
    page = app.open(f"#/page/{number}")
    expect(page.get_by_test_id("sheet-canvas")).to_have_attribute("data-painted", re.compile("."))
    row, path, rings = kept_of(tmp_path, number)
    choose_no_line(page)
    drawn = page.request.get(f"{app.address}/api/pages/{number}/page.svg?ground=page").text()
    size = row.width_mm, row.height_mm
    compare(page, drawn, size, rings)
    x, y = (float(v) for v in re.match(r"M\s*(-?[\d.]+)[ ,](-?[\d.]+)", path).groups())
    zoom_in(page, (x, y))
    compare(page, drawn, size, rings)


@pytest.mark.parametrize(
    ("way", "what", "per_piece", "ceiling"),
    [
        ("multiply", "the line as one", 60, 80),
        ("exclusion", "each piece", 70, 100),
        ("difference", "each piece", 100, 60),
        ("darken", "the line as one", 100, 90),
    ],
)
def test_a_chain_laid_on_in_another_way_shows_on_its_page_as_in_its_file(app, way, what, per_piece, ceiling):
    page = app.open("#/repeat/4")
    page.get_by_role("button", name="What colour?").click()
    page.get_by_role("radio", name=way, exact=True).click()
    page.get_by_role("radio", name=what).click()
    for name, share in (("Ink per piece", per_piece), ("Ceiling of the line", ceiling)):
        page.get_by_label(name).fill(str(share))
        page.get_by_label(name).press("Enter")
    subject = "The line" if what == "the line as one" else "Each piece"
    expect(page.get_by_test_id("words")).to_contain_text(f"{subject} is laid on as {way}")
    expect(page.get_by_text("All changes kept")).to_be_visible()
    page = app.open("#/page/3")
    choose_no_line(page)
    drawn = page.request.get(f"{app.address}/api/pages/3/page.svg?ground=page").text()
    assert f"mix-blend-mode:{way}" in drawn
    compare(page, drawn, (240, 90), [])


CIRCLES = ("M10 40A30 30 0 1 1 70 40A30 30 0 1 1 10 40Z", "M80 40A30 30 0 1 1 140 40A30 30 0 1 1 80 40Z")


@pytest.mark.parametrize(
    ("starter", "settings"),
    [
        ("ring", {"travel": {"round_bends": "jointed"}, "spacing": {"ease": "size", "ease_limit_pct": 30}}),
        ("link", {"travel": {"round_bends": "bent"}, "spacing": {"gap_pct": -25, "ease": "length", "ease_limit_pct": 40}}),
        ("leaf", {"spacing": {"gap_pct": -55, "ease": "gaps", "ease_limit_pct": 40}, "rows": {"beside_mm": [9]}, "ink": {"per_piece_pct": 60}}),
        ("leaf", {"travel": {"turn_about": True}, "spacing": {"gap_pct": -70, "ease": "gaps", "ease_limit_pct": 40}}),
    ],
    ids=["jointed rings", "bent links", "see-through leaves in rows", "leaves"],
)  # fmt: skip
def test_what_interlocks_and_closes_shows_on_its_page_as_in_its_file(app, starter, settings, tmp_path):
    page = app.open("#/shelf")

    motif = sent(page, "motifs/starter", {"starter": starter})
    brush = sent(page, "brushes", {"name": "Closing", "motif_id": motif["id"], "settings": settings})
    sheet = sent(page, "pages", {"name": "Closing", "width_mm": 150, "height_mm": 80, "ground": "#f3efe4"})
    for d in CIRCLES:
        sent(page, f"pages/{sheet['id']}/lines", {"brush_id": brush["id"], "source": {"kind": "path", "d": d}, "name": "Circle"})
    page = app.open(f"#/page/{sheet['id']}")
    choose_no_line(page)
    rings = kept_of(tmp_path, sheet["id"])[2]
    drawn = page.request.get(f"{app.address}/api/pages/{sheet['id']}/page.svg?ground=page").text()
    assert ("clip-path" in drawn) == (starter == "leaf")  # rings interlock all the way round by themselves
    compare(page, drawn, (150, 80), rings)
    zoom_in(page, (10, 40))
    compare(page, drawn, (150, 80), rings)


SHADED = svg('<linearGradient id="g" x2="0" y2="1"><stop stop-color="#2c4a84"/><stop offset="1" stop-color="#9db9f0"/></linearGradient>'
             '<rect width="20" height="4" fill="url(#g)"/>', 20, 4)  # fmt: skip


def test_pieces_that_meet_show_on_their_page_as_in_its_file(app, tmp_path):
    """Drawn as one: stamped bars with a corner piece and touching polygons; going on below the next: a shaded band."""
    page = app.open("#/shelf")

    motifs = [sent(page, "motifs/starter", {"starter": "bar"}), sent(page, "motifs/starter", {"starter": "polygon"}),
              sent(page, "motifs", {"name": "Ribbon", "svg": SHADED})]  # fmt: skip
    brushes = [sent(page, "brushes", {"name": motif["name"], "motif_id": motif["id"]}) for motif in motifs]
    sent(page, f"brushes/{brushes[0]['id']}/make-piece", {"version": brushes[0]["version"], "role": "outside_corner"})
    sheet = sent(page, "pages", {"name": "Bands", "width_mm": 150, "height_mm": 80, "ground": "#f3efe4"})
    for brush, d in zip(brushes, ("M12 12H90V66H12Z", "M105 10H143L130 70", "M20 55C50 -20 60 100 85 25"), strict=True):
        sent(page, f"pages/{sheet['id']}/lines", {"brush_id": brush["id"], "source": {"kind": "path", "d": d}})
    page = app.open(f"#/page/{sheet['id']}")
    choose_no_line(page)
    rings = kept_of(tmp_path, sheet["id"])[2]
    drawn = page.request.get(f"{app.address}/api/pages/{sheet['id']}/page.svg?ground=page").text()
    assert "<use" not in drawn  # all of it is written out
    compare(page, drawn, (150, 80), rings)
    zoom_in(page, (90, 12))
    compare(page, drawn, (150, 80), rings)


def test_pictures_that_meet_show_no_ground_on_their_page_nor_in_its_file(app, tmp_path):
    page = app.open("#/shelf")

    rows = np.linspace(30, 90, 40)[:, None, None].repeat(120, axis=1) * [1.0, 0.6, 0.4]
    png = base64.b64encode(png_from_rgba(np.dstack([rows, np.full((40, 120), 255)]).astype(np.uint8))).decode()
    tape = svg(f'<image width="12" height="4" href="data:image/png;base64,{png}"/>', 12, 4)
    motif = sent(page, "motifs", {"name": "Tape", "svg": tape})
    brush = sent(page, "brushes", {"name": "Tape", "motif_id": motif["id"], "settings": {"spacing": {"ease": "leave"}}})
    sheet = sent(page, "pages", {"name": "Tapes", "width_mm": 150, "height_mm": 80, "ground": "#ffffff"})
    for d in ("M10 12L130 37.3", "M12 30.4L140 32", "M20 60L100 44"):
        sent(page, f"pages/{sheet['id']}/lines", {"brush_id": brush["id"], "source": {"kind": "path", "d": d}})
    page = app.open(f"#/page/{sheet['id']}")
    choose_no_line(page)
    rings = kept_of(tmp_path, sheet["id"])[2]
    drawn = page.request.get(f"{app.address}/api/pages/{sheet['id']}/page.svg?ground=page").text()
    compare(page, drawn, (150, 80), rings)
    zoom_in(page, (60, 22))
    compare(page, drawn, (150, 80), rings)
    ends = np.array([[[11, 12.2], [128, 36.8]], [[13, 30.4125], [130, 31.875]], [[21, 59.8], [99, 44.2]]])
    along = np.linspace(ends[:, 0], ends[:, 1], 4000).reshape(-1, 2)
    colours = seen_at(page, along)
    assert len(colours) > 3000 and colours[:, 0].max() < 100  # the ground's is 255, the darkest of the tape's edges 90


def test_pictures_in_their_own_colours_on_a_picture_show_as_in_the_file(app, tmp_path):
    page = app.open("#/shelf")

    mussel = sent(page, "scans/mussel-prints.png", {})["sha"]
    preparation = {"region": [40, 20, 260, 190], "clear": "background", "trim": True}
    job = sent(page, f"originals/{mussel}/motif", {"name": "Mussel", "preparation": preparation})
    while job["state"] in ("waiting", "working"):
        job = page.request.get(f"{app.address}/api/jobs/{job['id']}").json()
    loose = [{"of": "hue", "between": [-70, 70]}, {"of": "lightness", "between": [-6, 25]}, {"of": "size", "between": [40, 70]}]
    brush = sent(page, "brushes", {"name": "Mussels", "motif_id": job["motif_id"], "settings": {"variations": loose}})
    sheet = sent(page, "pages", {"name": "Shore", "width_mm": 150, "height_mm": 80, "ground": "#f3efe4"})
    dusk = sent(page, "scans/gouache-of-dusk.png", {})["sha"]
    sent(page, f"pages/{sheet['id']}", {"version": 1, "ground_picture": {"sha": dusk}}, "patch")
    sent(page, f"pages/{sheet['id']}/lines", {"brush_id": brush["id"], "source": {"kind": "path", "d": "M15 40H140"}})
    page = app.open(f"#/page/{sheet['id']}")
    choose_no_line(page)
    drawn = page.request.get(f"{app.address}/api/pages/{sheet['id']}/page.svg?ground=page").text()
    assert drawn.count("<image") > 4  # the ground, and a colouring for nearly each of the pieces
    compare(page, drawn, (150, 80), kept_of(tmp_path, sheet["id"])[2])


def sent(page, path, data, way="post"):
    """Send something to the app that a page is open on, and return its answer."""
    reply = getattr(page.request, way)(f"{page.url.split('/#')[0]}/api/{path}", data=data)
    assert reply.ok, reply.text()
    return reply.json()


def kept_of(folder, number):
    """Return a page's row, the path of its first line that shows, and where findings are ringed."""
    store = Store(folder / "w.sqlite")
    with store.reading() as session:
        row = row_of(session, "page", number)
        laid = laid_scenes(pages.scenes_of(session, number), overtaken=lambda: False)
        rings = [finding["at"] for scene in laid for finding in scene.figures()["findings"]]
        path = next(line for line in lines_of(session, number) if line.visible).path
    store.close()
    return row, path, rings


def choose_no_line(page):
    page.get_by_test_id("sheet").focus()
    page.keyboard.press("Escape")  # no line is marked as chosen then
    expect(page.get_by_role("complementary", name="Lines").locator("li[aria-current]")).to_have_count(0)


def zoom_in(page, at):
    """Zoom about a place of the sheet, mm, until it is about three times as large."""
    sheet = page.get_by_test_id("sheet")
    box, scale = sheet.bounding_box(), float(sheet.get_attribute("data-scale"))
    x, y = (float(v) for v in sheet.get_attribute("data-origin").split(","))
    page.mouse.move(box["x"] + x + at[0] * scale, box["y"] + y + at[1] * scale)
    page.keyboard.down("Control")
    page.mouse.wheel(0, -260)
    page.keyboard.up("Control")
    expect(sheet).not_to_have_attribute("data-scale", str(scale))


def painted_on(page):
    """Return the sheet's pixels as they are painted, how many a mm has, and where the page's corner lies."""
    canvas, sheet = page.get_by_test_id("sheet-canvas"), page.get_by_test_id("sheet")
    shot = canvas.evaluate("c => c.toDataURL('image/png')").split(",")[1]
    seen = np.asarray(Image.open(io.BytesIO(base64.b64decode(shot))).convert("RGB")).astype(int)
    return seen, float(sheet.get_attribute("data-scale")), tuple(float(v) for v in sheet.get_attribute("data-origin").split(","))


def seen_at(page, places):
    """Return the colours (k, 3) of those of some places (n, 2) mm that are in view."""
    seen, scale, corner = painted_on(page)
    x, y = np.round(places * scale + corner).astype(int).T
    shown = (x > 0) & (y > 30) & (x < seen.shape[1]) & (y < seen.shape[0])
    return seen[y[shown], x[shown]]


def compare(page, drawing, size, rings):
    """Compare the sheet as it is painted with the file's drawing, rendered through the same window."""
    seen, scale, (x, y) = painted_on(page)
    high, wide = seen.shape[:2]
    window = f'viewBox="{-x / scale} {-y / scale} {wide / scale} {high / scale}"'
    filed = png_from_svg(re.sub(r'viewBox="[^"]*"', window, drawing, count=1), width_px=wide, height_px=high)
    held = np.asarray(Image.open(io.BytesIO(filed)).convert("RGB")).astype(int)
    left, top = max(0, int(x) + 3), max(30, int(y) + 3)
    right, bottom = min(wide, int(x + size[0] * scale) - 3), min(high, int(y + size[1] * scale) - 3)
    inside = np.s_[top:bottom, left:right]
    seen, held = seen[inside], held[inside]
    away = np.maximum(beyond(seen, held), beyond(held, seen))
    down, across = np.indices(away.shape)
    for place in rings:
        away[np.hypot(across + left - x - place[0] * scale, down + top - y - place[1] * scale) < RING_PX] = 0
    worst = np.unravel_index(away.argmax(), away.shape)
    assert away.max() <= MOST_LEVELS, (worst, seen[worst], held[worst])
    assert (away > 20).mean() <= MOST_SHARE
    assert np.abs(seen - held).mean() <= MOST_MEAN
    ground = np.median(held.reshape(-1, 3), axis=0)
    assert (np.abs(held - ground).max(axis=-1) > 30).mean() > 0.01  # there is something to compare


def beyond(one, other):
    """Return by how many levels each pixel of one lies beyond what the other has in the 3 × 3 around it."""
    low, high = minimum_filter(other, (3, 3, 1)), maximum_filter(other, (3, 3, 1))
    return np.maximum(np.maximum(low - one, one - high), 0).max(axis=-1)
