"""Jobs at the Page station."""

import csv
import io
import math
import re
from itertools import pairwise

import numpy as np
import pytest
from bench_helper import calm, kept
from lxml import etree
from PIL import Image
from playwright.sync_api import expect

from making import SVG, svg

pytestmark = pytest.mark.browser


def lines(app, page):
    return app.state(page, "/api/pages/1")["lines"]


def pull(page, points, *, shift=False):
    """Draw on the sheet through points in mm."""
    sheet = page.get_by_test_id("sheet")
    box, scale = sheet.bounding_box(), float(sheet.get_attribute("data-scale"))
    x0, y0 = (float(v) for v in sheet.get_attribute("data-origin").split(","))
    at = [(box["x"] + x0 + x * scale, box["y"] + y0 + y * scale) for x, y in points]
    page.mouse.move(*at[0])
    page.mouse.down()
    if shift:
        page.keyboard.down("Shift")
    for x, y in at[1:]:
        page.mouse.move(x, y, steps=3)
    page.mouse.up()
    if shift:
        page.keyboard.up("Shift")
    return at


WAVE = [(60 + 4 * i, 150 + 25 * math.sin(i / 7)) for i in range(60)]


def test_draws_a_line_by_hand_and_the_stitches_follow_it(app):
    page = app.open("#/page/1")
    page.get_by_role("button", name="By hand").click()
    pull(page, WAVE)
    expect(page.get_by_role("button", name="Undo: draw Line 10")).to_be_visible()
    line = lines(app, page)[-1]
    assert line["name"] == "Line 10"
    assert 8 < len(line["source"]["points"]) <= 40
    expect(page.get_by_test_id("line-figures")).to_contain_text(re.compile(r"^2[3-6] pieces every 11\.\d\d mm"))
    straight_length = sum(math.dist(a, b) for a, b in pairwise(WAVE))
    expect(page.get_by_label("Bend strip")).to_contain_text(re.compile(rf"Line 10: {str(straight_length)[:2]}\d\.\d mm"))


def test_shift_keeps_the_line_straight(app):
    page = app.open("#/page/1")
    page.get_by_role("button", name="By hand").click()
    pull(page, [(60, 100), (100, 140), (160, 100)], shift=True)
    expect(page.get_by_role("button", name="Undo: draw Line 10")).to_be_visible()
    points = lines(app, page)[-1]["source"]["points"]
    assert len(points) == 2
    assert math.dist(*points) == pytest.approx(100, abs=1)


def test_draws_by_points_closes_the_line_and_moves_a_point(app):
    page = app.open("#/page/1")
    page.get_by_role("button", name="By points").click()
    for point in [(120, 100), (220, 100), (220, 180), (120, 180)]:
        pull(page, [point])
    pull(page, [(120, 100)])
    expect(page.get_by_role("button", name="Undo: draw Line 10")).to_be_visible()
    line = lines(app, page)[-1]
    assert (line["source"]["closed"], len(line["source"]["points"])) == (True, 4)
    page.get_by_role("button", name="Done").click()
    handle = page.get_by_role("button", name=re.compile("^Point 3, flowing"))
    handle.focus()
    page.keyboard.press("Shift+ArrowRight")
    expect(page.get_by_role("button", name="Undo: move a point of Line 10")).to_be_visible()
    assert lines(app, page)[-1]["source"]["points"][2][0] == pytest.approx(230, abs=0.6)
    page.get_by_role("button", name=re.compile("^Point 3, flowing")).press(" ")
    expect(page.get_by_role("button", name=re.compile("^Point 3, pointed"))).to_be_visible()


def test_types_points_in_millimetres(app):
    page = app.open("#/page/1")
    page.get_by_role("button", name="By points").click()
    page.get_by_role("checkbox", name="pointed").check()
    page.get_by_role("textbox", name="Points in mm").fill("40,60 120,60 120,140")
    page.keyboard.press("Enter")
    expect(page.get_by_role("button", name="Undo: draw Line 10")).to_be_visible()
    assert lines(app, page)[-1]["path"] == "M40.0 60.0L120.0 60.0L120.0 140.0"


def test_chooses_brush_size_and_ink_and_the_pieces_change(app):
    page = app.open("#/page/1")
    figures = page.get_by_test_id("line-figures")
    expect(figures).to_contain_text("28 pieces")
    page.get_by_role("textbox", name="Size").fill("200")
    page.keyboard.press("Enter")
    expect(figures).to_contain_text("14 pieces")
    page.get_by_role("button", name="Ink indigo").click()
    expect(page.get_by_role("button", name="Undo: indigo for Ferry route")).to_be_visible()
    page.get_by_role("button", name="Brush: Running stitch").click()
    page.get_by_role("menuitemradio", name="Cable stitch").click()
    expect(page.get_by_role("button", name="Undo: brush of Ferry route")).to_be_visible()
    line = lines(app, page)[-1]
    assert (line["size_pct"], line["ink"]) == (200, "#2c4a84")
    drawing = page.request.get(f"{app.address}/api/pages/1/page.svg").text()
    assert 'fill="#2c4a84"' in drawing


def test_quick_steps_of_a_lines_size_all_arrive_and_are_one_step_to_undo(app):
    page = app.open("#/page/1")
    size = page.get_by_role("textbox", name="Size")
    size.focus()
    for _ in range(8):
        page.keyboard.press("ArrowUp")
    undo = page.get_by_role("button", name="Undo: size of Ferry route to 140 %")
    expect(undo).to_be_visible()
    kept(page)
    expect(size).to_have_value("140")
    undo.click()
    expect(size).to_have_value("100")


def test_reorders_hides_moves_and_deletes_with_undo(app):
    page = app.open("#/page/1")
    page.get_by_role("button", name="Send Ferry route back").click()
    expect(page.get_by_role("button", name="Undo: Ferry route back")).to_be_visible()
    assert [line["name"] for line in lines(app, page)][-2:] == ["Ferry route", "Ferry route, return"]
    page.get_by_role("button", name="Hide Soundings, mid").click()
    expect(page.get_by_role("button", name="Show Soundings, mid")).to_be_visible()
    before = next(line for line in lines(app, page) if line["name"] == "Harbour wall")["path"]
    pull(page, [(352, 130), (342, 130)])
    expect(page.get_by_role("button", name="Undo: move Harbour wall")).to_be_visible()
    after = next(line for line in lines(app, page) if line["name"] == "Harbour wall")["path"]
    assert float(after.split()[0][1:]) == pytest.approx(float(before.split()[0][1:]) - 10, abs=0.6)
    page.get_by_role("button", name="Delete", exact=True).click()
    expect(page.get_by_role("button", name="Undo: delete Harbour wall")).to_be_visible()
    assert len(lines(app, page)) == 8
    page.get_by_role("button", name="Undo: delete Harbour wall").click()
    expect(page.get_by_role("listitem").filter(has_text="Harbour wall").first).to_be_visible()
    assert len(lines(app, page)) == 9


def test_a_finding_is_cured_after_its_cure_was_seen(app):
    page = app.open("#/page/1")
    page.get_by_role("button", name=re.compile(r"^Harbour wall \d")).click()
    panel = page.get_by_label("Lines", exact=True)
    expect(panel).to_contain_text("mm left over")
    cure = panel.get_by_role("button", name=re.compile("takes? the remainder")).first
    cure.hover()
    expect(panel).to_contain_text("showing the cure, not yet taken")
    cure.click()
    expect(page.get_by_role("button", name=re.compile("^Undo: Harbour wall:"))).to_be_visible()
    page.mouse.move(300, 300)
    expect(panel).not_to_contain_text("left over")


def test_a_cure_says_how_far_it_reaches_and_changes_a_copy_where_that_is_wished(app):
    page = app.open("#/page/1")
    page.get_by_role("button", name=re.compile(r"^Harbour wall \d")).click()
    before = app.state(page)
    panel = page.get_by_label("Lines", exact=True)
    name = next(line for line in lines(app, page) if line["name"] == "Harbour wall")["brush_id"]
    use = next(use for use in before["uses"] if use["brush_id"] == name)
    expect(panel).to_contain_text(f"changes this brush: {use['lines']} lines" if use["lines"] > 1 else "changes this brush: one line")
    panel.get_by_role("checkbox", name="on a copy of the brush").first.check()
    panel.get_by_role("button", name=re.compile("takes? the remainder")).first.click()
    expect(page.get_by_role("button", name=re.compile("^Undo: Harbour wall:.*on a copy"))).to_be_visible()
    after = app.state(page)
    assert len(after["brushes"]) == len(before["brushes"]) + 1 and after["brushes"][:-1] == before["brushes"]
    page.mouse.move(300, 300)
    expect(panel).not_to_contain_text("left over")
    assert next(line for line in lines(app, page) if line["name"] == "Harbour wall")["brush_id"] == after["brushes"][-1]["id"]


def test_takes_away_svg_png_and_the_list_of_pieces(app):
    page = app.open("#/page/1")
    page.get_by_role("button", name="Take away").click()
    page.get_by_role("radio", name="the page’s").click()
    with page.expect_download() as taken:
        page.get_by_role("link", name="Compact, each motif once").click()
    drawing = etree.parse(taken.value.path()).getroot()
    uses = len(drawing.findall(f"{{{SVG}}}use"))
    assert (drawing.get("width"), drawing.find(f"{{{SVG}}}rect").get("fill")) == ("400mm", "#e9f1f1")
    with page.expect_download() as taken:
        page.get_by_role("link", name="CSV, a row a piece").click()
    assert 500 < uses <= len(list(csv.DictReader(taken.value.path().open()))) < uses + 20  # few meet and are one
    page.get_by_role("textbox", name="Resolution").fill("96")
    page.keyboard.press("Enter")
    with page.expect_download() as taken:
        page.get_by_role("button", name="Draw the picture").click()
    assert Image.open(io.BytesIO(taken.value.path().read_bytes())).size == (1512, 1134)
    expect(page.get_by_text("was taken away")).to_be_visible()


def test_brings_in_lines_and_refuses_bad_files_in_a_sentence(app):
    page = app.open("#/page/1")
    good = {
        "name": "l.svg",
        "mimeType": "image/svg+xml",
        "buffer": svg('<path d="M20 20H90"/><circle cx="200" cy="150" r="30"/>', 400, 300).encode(),
    }
    page.get_by_test_id("lines-file").set_input_files(good)
    expect(page.get_by_role("button", name="Undo: bring in 2 lines")).to_be_visible()
    assert len(lines(app, page)) == 11
    expect(page.get_by_role("region", name="Chosen lines")).to_contain_text("2 lines chosen")
    page.get_by_test_id("lines-file").set_input_files(good | {"buffer": svg("<script/>").encode()})
    expect(page.get_by_role("alert")).to_contain_text("scripts are not taken in")
    expect(page.get_by_text("The last change was not kept")).to_be_visible()
    sign = svg(
        '<text x="20" y="90" font-size="60" font-family="Hanken Grotesk">7</text><text font-family="Tide Script" y="30">no</text>', 400, 300
    )
    page.get_by_test_id("lines-file").set_input_files(good | {"buffer": sign.encode()})
    expect(page.get_by_role("status").filter(has_text="Text in Tide Script was left out")).to_be_visible()
    expect(page.get_by_text("All changes kept")).to_be_visible()
    assert len(lines(app, page)) == 12
    expect(page.get_by_role("textbox", name="Name of the line")).to_have_value("Line 12")


def test_pressing_the_bend_strip_goes_to_the_place(app):
    page = app.open("#/page/1")
    plot = page.get_by_test_id("bend-plot")
    painted = page.get_by_test_id("sheet-canvas").get_attribute("data-painted")
    plot.click(position={"x": 300, "y": 40})
    expect(page.get_by_test_id("sheet-canvas")).not_to_have_attribute("data-painted", painted)
    expect(plot.locator("title").first).to_have_text(re.compile("mm"))


def test_a_new_page_begins_with_a_first_step(app):
    page = app.open("#/page/1")
    page.get_by_role("button", name=re.compile("^Route map print")).click()
    page.get_by_role("button", name="New page").click()
    expect(page.get_by_test_id("open-name")).to_have_text("Page 6")
    page.keyboard.press("Escape")
    page.get_by_role("button", name=re.compile("^Lay .* on a wave")).click()
    expect(page.get_by_role("button", name="Undo: draw Sample wave")).to_be_visible()
    assert app.state(page, "/api/pages/6")["lines"][0]["name"] == "Sample wave"


def test_a_line_by_hand_closes_where_it_comes_back_and_stays_open_where_it_is_let_go_outside(app):
    page = app.open("#/page/1")
    page.get_by_role("button", name="By hand").click()
    sheet = page.get_by_test_id("sheet")
    box, scale = sheet.bounding_box(), float(sheet.get_attribute("data-scale"))
    x0, y0 = (float(v) for v in sheet.get_attribute("data-origin").split(","))

    def drawn(middle, upto):
        angle = np.linspace(0, upto, 40)
        way = [(box["x"] + x0 + scale * (middle + 40 * np.cos(a)), box["y"] + y0 + scale * (150 + 40 * np.sin(a))) for a in angle]
        page.mouse.move(*way[0])
        page.mouse.down()
        for place in way[1:]:
            page.mouse.move(*place)
        closes = page.get_by_test_id("closing").get_attribute("data-closes")
        page.mouse.up()
        calm(page)
        return closes, app.state(page, "/api/pages/1")["lines"][-1]

    closes, line = drawn(130, 2 * np.pi * 0.98)
    assert (closes, line["source"]["closed"], line["path"][-1]) == ("true", True, "Z")
    closes, line = drawn(250, 2 * np.pi * 0.8)
    assert (closes, line["source"]["closed"]) == ("false", False)


def test_a_border_lies_inset_from_the_page_and_each_side_becomes_a_line_of_its_own(app):
    page = app.open("#/page/4")  # 300 × 120 mm
    page.get_by_role("button", name="Ready", exact=True).click()
    page.get_by_role("dialog", name="Ready lines").get_by_role("button", name="Rectangle").click()
    figures = page.get_by_role("group", name="Figures of the line")
    inset = figures.get_by_role("textbox", name="Inset")
    inset.fill("1/2in")
    inset.press("Enter")
    expect(figures.get_by_role("textbox", name="Width")).to_have_value("274.6")
    expect(figures.get_by_role("textbox", name="Height")).to_have_value("94.6")
    expect(page.get_by_text("All changes kept")).to_be_visible()
    calm(page)
    line = app.state(page, "/api/pages/4")["lines"][-1]
    corners = np.array(re.findall(r"(-?[\d.]+) (-?[\d.]+)", line["path"]), float)
    assert corners.tolist() == [[12.7, 12.7], [287.3, 12.7], [287.3, 107.3], [12.7, 107.3]]
    page.get_by_role("button", name="each side a line of its own").click()
    expect(page.get_by_role("textbox", name="Name of the line")).to_have_value(re.compile("side 4$"))
    sides = [each for each in app.state(page, "/api/pages/4")["lines"] if "side" in each["name"]]
    assert len(sides) == 4
    expect(page.get_by_test_id("line-figures")).to_contain_text("pieces every")
    page.keyboard.press("q")
    page.keyboard.press("r")  # and by keys: the first ready line has the focus
    expect(page.get_by_role("dialog", name="Ready lines").get_by_role("button", name="Rectangle")).to_be_focused()
    for key in ("ArrowRight", "ArrowDown", "Enter"):
        page.keyboard.press(key)
    expect(page.get_by_role("textbox", name="Name of the line")).to_have_value(re.compile("^Swag"))
    expect(figures.get_by_role("textbox", name="Sag")).to_be_visible()


def test_a_hand_s_line_is_smoothed_by_a_number_that_can_be_changed_afterwards(app):
    page = app.open("#/page/4")
    page.get_by_role("button", name="By hand").click()
    shaky = [(60 + 4 * k, 60 + 0.9 * (-1) ** k) for k in range(40)]
    pull(page, shaky)
    field = page.get_by_role("textbox", name="Smoothing of the hand")
    expect(field).to_have_value("35")
    calm(page)

    def swing():
        path = app.state(page, "/api/pages/4")["lines"][-1]["path"]
        y = np.array(re.findall(r"-?[\d.]+ (-?[\d.]+)", path), float)
        return y.max() - y.min()

    field.fill("0")
    field.press("Enter")
    expect(page.get_by_role("button", name=re.compile("^Undo: smoothing of Line 2 to 0 %"))).to_be_visible()
    calm(page)
    as_drawn = swing()
    field.fill("100")
    field.press("Enter")
    expect(page.get_by_role("button", name=re.compile("^Undo: smoothing of Line 2 to 100 %"))).to_be_visible()
    calm(page)
    assert as_drawn > 1.4
    assert swing() < 0.5 * as_drawn
    page.get_by_role("button", name="By hand").click()
    page.get_by_role("button", name=re.compile("^Point 1, ")).focus()
    page.keyboard.press("ArrowDown")  # once a point is set by hand, the stroke is no longer what the line is
    expect(field).to_have_count(0)


@pytest.fixture
def pointed(app):
    """A window with a line by points chosen, and how it was drawn."""
    page = app.open("#/page/3")
    source = {"kind": "points", "points": [[30, 30], [60, 40], [90, 30]], "flowing": [True, True, True]}
    assert page.request.post(f"{app.address}/api/pages/3/lines", data={"brush_id": 1, "source": source}).ok
    page.reload()
    calm(page)
    pull(page, [(30, 30)])
    return page, app.state(page, "/api/pages/3")["lines"][-1]


def test_quick_steps_of_a_point_all_arrive_and_are_one_step_to_undo(app, pointed):
    page, drawn = pointed
    page.get_by_role("button", name=re.compile("^Point 2, ")).focus()
    for _ in range(4):
        page.keyboard.press("ArrowRight")
        page.keyboard.press("ArrowDown")
    kept(page)
    after = app.state(page, "/api/pages/3")["lines"][-1]
    assert np.subtract(after["source"]["points"], drawn["source"]["points"]) == pytest.approx(np.array([[0, 0], [4, 4], [0, 0]]))
    page.get_by_role("button", name=f"Undo: move a point of {drawn['name']}").click()
    kept(page)
    assert app.state(page, "/api/pages/3")["lines"][-1]["path"] == drawn["path"]


def test_escape_lets_go_of_a_point_and_its_line_stays_chosen(app, pointed):
    page, drawn = pointed
    point = page.get_by_role("button", name=re.compile("^Point 2, "))
    scale, box = float(page.get_by_test_id("sheet").get_attribute("data-scale")), point.bounding_box()
    at = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
    page.mouse.move(*at)
    page.mouse.down()
    page.mouse.move(at[0], at[1] + 12 * scale, steps=4)
    expect(point).to_have_accessible_name("Point 2, flowing, 60.0, 52.0 mm")
    page.keyboard.press("Escape")
    page.mouse.up()
    expect(point).to_have_accessible_name("Point 2, flowing, 60.0, 40.0 mm")
    assert app.state(page, "/api/pages/3")["lines"][-1] == drawn


def test_a_line_that_is_not_laid_yet_is_not_told_as_hidden_or_without_findings(app):
    page = app.open("#/shelf")
    held = []
    page.route("**/api/pages/3/lay", lambda route: held.append(route))
    page.goto(f"{app.address}/#/page/3")
    strip = page.get_by_role("region", name="Bend strip")
    expect(page.get_by_text("Laying it out…")).to_be_visible()
    expect(strip).not_to_contain_text("hidden")
    expect(page.get_by_test_id("line-figures")).not_to_contain_text("Hidden")
    page.unroute_all(behavior="default")  # what is held goes on
    expect(page.get_by_text("None: every join keeps its wish.")).to_be_visible()
    expect(page.get_by_test_id("line-figures")).to_contain_text("58 pieces")
    expect(strip).to_contain_text("533.1 mm")
