"""Jobs at the Motif station and the Shelf, and what holds on every screen."""

import re
from pathlib import Path

import pytest
from bench_helper import calm, plain
from playwright.sync_api import expect

from making import svg
from sewn_garland.store.database import Store

pytestmark = pytest.mark.browser
AXE = Path(__file__).parents[2] / "frontend/node_modules/axe-core/axe.min.js"


def upload(page, name, text):
    page.get_by_test_id("motif-file").set_input_files({"name": name, "mimeType": "image/svg+xml", "buffer": text.encode()})


def test_brings_in_a_motif_sees_it_trimmed_and_makes_a_brush_of_it(app):
    page = app.open("#/motif")
    upload(page, "net-float.svg", svg('<ellipse cx="12" cy="10" rx="4" ry="2" fill="#a63a2f"/>', 30, 20))
    expect(page.get_by_test_id("open-name")).to_have_text("net float")
    expect(page.get_by_text("Empty margin cut away: 8.0 mm left, 14.0 mm right, 8.0 mm above, 8.0 mm below.")).to_be_visible()
    expect(page.get_by_text("Frame 8.00 × 4.00 mm, 1 part")).to_be_visible()
    page.get_by_role("button", name="Quarter right").click()
    expect(page.get_by_text("Frame 4.00 × 8.00 mm, 1 part")).to_be_visible()
    page.get_by_role("textbox", name="Base line").fill("3*2")
    page.keyboard.press("Enter")
    expect(page.get_by_role("slider", name="Base line")).to_have_attribute("aria-valuetext", "6.00 mm from the top")
    page.get_by_role("button", name="Make a brush of it").click()
    expect(page.get_by_role("heading", name="Flat run")).to_be_visible()
    expect(page.get_by_role("textbox", name="Pitch")).to_have_value(plain("4.60"))  # a gap of 15 % keeps it apart
    assert app.state(page)["motifs"][-1]["base_line_mm"] == 6


def test_drags_the_base_line_on_the_motif(app):
    page = app.open("#/motif/3")
    mark = page.get_by_role("slider", name="Base line")
    box = mark.bounding_box()
    page.mouse.move(box["x"] + 40, box["y"] + 12)
    page.mouse.down()
    page.mouse.move(box["x"] + 40, box["y"] + 60, steps=4)
    page.mouse.up()
    expect(page.get_by_role("button", name=re.compile("Undo: base line at"))).to_be_visible()
    assert app.state(page)["motifs"][2]["base_line_mm"] > 8.5


@pytest.mark.parametrize(
    ("text", "says"),
    [("no svg at all", "it is not SVG"), (svg("<script>1</script>"), "scripts are not taken in"), (svg(""), "nothing in it can be drawn"),
     (svg('<path d="M0 0LNaN 3" stroke="#000"/>'), "not a number")],
)  # fmt: skip
def test_a_bad_motif_is_refused_in_a_sentence_and_nothing_is_kept(app, text, says):
    page = app.open("#/motif")
    upload(page, "bad.svg", text)
    expect(page.get_by_role("alert")).to_contain_text(says)
    assert len(app.state(page)["motifs"]) == 14
    page.get_by_role("button", name="Dismiss").click()
    expect(page.get_by_role("alert")).to_have_count(0)


def test_duplicates_renames_and_deletes_a_brush_with_undo(app):
    page = app.open("#/shelf")
    page.get_by_role("button", name="Duplicate Cockle row").click()
    expect(page.get_by_role("heading", name="Cockle row 2")).to_be_visible()
    page.get_by_role("button", name="Rename Cockle row 2").click()
    page.get_by_role("textbox", name="Name of the brush").fill("Little cockles")
    page.keyboard.press("Enter")
    expect(page.get_by_role("heading", name="Little cockles")).to_be_visible()
    page.get_by_role("button", name="Delete Little cockles").click()
    expect(page.get_by_role("heading", name="Little cockles")).to_have_count(0)
    page.get_by_role("button", name="Undo: delete Little cockles").click()
    expect(page.get_by_role("heading", name="Little cockles")).to_be_visible()
    copy = app.state(page)["brushes"][-1]
    assert copy["settings"] == next(b for b in app.state(page)["brushes"] if b["name"] == "Cockle row")["settings"]


def test_a_brush_in_use_says_where_it_lies(app):
    page = app.open("#/shelf")
    page.get_by_role("button", name="Delete Blanket stitch").click()
    expect(page.get_by_role("alert")).to_contain_text("Blanket stitch lies on Harbour wall; give those lines another brush first")


def test_finds_a_brush_by_name_and_opens_it(app):
    page = app.open("#/shelf")
    page.get_by_role("searchbox", name="Search by name").fill("wave")
    expect(page.get_by_role("heading", level=3)).to_have_count(1)
    page.get_by_role("button", name="Open Wave border").click()
    expect(page.get_by_test_id("open-name")).to_have_text("Wave border")


def test_makes_a_new_brush_from_a_motif(app):
    page = app.open("#/shelf")
    page.get_by_role("button", name="New brush from a motif").click()
    page.get_by_role("menuitemradio", name="Mooring link", exact=True).click()
    expect(page.get_by_test_id("open-name")).to_have_text("Mooring link")
    assert len(app.state(page)["brushes"]) == 16


@pytest.mark.parametrize("place", ["motif", "repeat/1", "page/1", "shelf"])
def test_every_station_meets_wcag_2_2_aa(app, place):
    """WCAG 2.2 A and AA as checked by axe-core."""
    page = app.open(f"#/{place}")
    page.locator("canvas[data-painted]").first.wait_for()
    assert violations(page) == []


def violations(page):
    page.evaluate(AXE.read_text())
    found = page.evaluate("axe.run(document, {runOnly: ['wcag2a', 'wcag2aa', 'wcag21aa', 'wcag22aa']})")["violations"]
    return [(v["id"], [n["html"][:120] for n in v["nodes"][:3]]) for v in found]


def test_every_question_and_a_large_trial_line_meet_wcag_2_2_aa(app):
    page = app.open("#/repeat/4")
    for question in page.get_by_role("navigation", name="Questions").get_by_role("button").all():
        question.click()
        if question.inner_text() == "What does the hand do?":
            page.get_by_role("button", name="Thick and thin").click()
            page.get_by_test_id("width-point-2").wait_for()
        assert violations(page) == [], question.inner_text()
    page.get_by_role("button", name=re.compile("^Hairpin: ")).click()
    page.get_by_test_id("join-plot").wait_for()
    assert violations(page) == []


@pytest.mark.parametrize("width", [1024, 1280, 1600])
def test_motif_repeat_and_page_never_scroll_as_a_whole(app, width):
    page = app.open("#/repeat/1")
    page.set_viewport_size({"width": width, "height": 800})
    for place in ("motif/1", "repeat/1", "page/1"):
        page.goto(f"{app.address}/#/{place}")
        calm(page)
        size = page.evaluate("[document.documentElement.scrollWidth, document.documentElement.scrollHeight]")
        assert size == [width, 800], place


def test_an_empty_workshop_shows_the_first_step_everywhere(browser, serve, tmp_path):
    store = Store(tmp_path / "empty.sqlite")
    with serve(store) as address:
        page = browser.new_page(viewport={"width": 1280, "height": 800})
        page.goto(f"{address}/#/repeat")
        expect(page.get_by_role("heading", name="No brush yet")).to_be_visible()
        page.locator("body").press("4")
        expect(page.get_by_text("The shelf is empty.")).to_be_visible()
        page.locator("body").press("3")
        page.get_by_role("button", name="Make an A4 page").click()
        expect(page.get_by_text(re.compile("There is no brush to draw with yet"))).to_be_visible()
        page.locator("body").press("1")
        page.get_by_role("button", name="Begin with a starter").click()
        page.get_by_role("button", name="Pill", exact=True).click()
        page.get_by_role("button", name="Make a brush of it").click()
        expect(page.get_by_role("textbox", name="Pitch")).to_have_value(plain("11.60"))  # a stitch has a stitch's gap
        page.close()
    store.close()
