"""Several lines of a page at once: chosen by Shift and by a pulled box, moved, turned and scaled by their frame, by mouse and by keys."""

import re

import numpy as np
import pytest
from playwright.sync_api import expect

pytestmark = pytest.mark.browser


def lines_of(page):
    return page.evaluate("() => fetch(location.hash.replace('#/page', '/api/pages')).then((r) => r.json()).then((p) => p.lines)")


def courses(page):
    """The places that lines go through, read off their path data, by their names."""
    return {line["name"]: np.array([float(v) for v in re.findall(r"-?\d+\.?\d*", line["path"])]).reshape(-1, 2) for line in lines_of(page)}


def opened(app):
    page = app.open("#/page/5")  # the night sailing card
    for number, name in enumerate(("Glow on the water", "Lanterns of the ferry")):
        item = page.get_by_role("complementary", name="Lines").get_by_role("button", name=re.compile(name)).first
        item.click(modifiers=["Shift"] if number else [])
    expect(page.get_by_role("region", name="Chosen lines")).to_contain_text("2 lines chosen")
    page.get_by_test_id("group-frame").wait_for()
    return page


def pull(page, name, dx, dy, *, shift=False):
    box = page.get_by_role("slider", name=re.compile(name)).bounding_box()
    x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
    if shift:
        page.keyboard.down("Shift")
    page.mouse.move(x, y)
    page.mouse.down()
    page.mouse.move(x + dx, y + dy, steps=6)
    page.mouse.up()
    if shift:
        page.keyboard.up("Shift")
    expect(page.get_by_text("All changes kept")).to_be_visible()


def test_two_lines_are_turned_scaled_and_moved_as_one_and_the_rest_stays(app):
    page = opened(app)
    before = courses(page)
    pull(page, "^Scale, bottom right", 30, 20)
    after = courses(page)
    names = ["Glow on the water", "Lanterns of the ferry"]
    both = np.concatenate([before[name] for name in names]), np.concatenate([after[name] for name in names])
    spans = [np.linalg.norm(points.max(axis=0) - points.min(axis=0)) for points in both]
    share = spans[1] / spans[0]
    assert share > 1.05
    assert both[1].min(axis=0) == pytest.approx(both[0].min(axis=0), abs=0.5)  # the corner across stays
    gaps = [np.linalg.norm(points[0] - points[-1]) for points in both]
    assert gaps[1] / gaps[0] == pytest.approx(share, rel=0.01)  # what lies between them is scaled as they are
    assert after["Stars"] == pytest.approx(before["Stars"])
    pull(page, "^Turn of", 60, 3, shift=True)
    turned = courses(page)
    a, b = (np.concatenate([at[name] for name in names]) for at in (after, turned))
    old, new = (np.arctan2(*(points[-1] - points[0])[::-1]) for points in (a, b))
    turn = np.degrees(new - old) % 360
    assert turn == pytest.approx(15 * round(turn / 15), abs=0.1) and turn > 10  # by steps of 15° with Shift
    page.get_by_test_id("sheet").focus()
    page.keyboard.press("Shift+ArrowRight")
    expect(page.get_by_role("button", name="Undo: 2 lines 10.0, 0.0 mm")).to_be_visible()
    for name in names:
        assert courses(page)[name] - turned[name] == pytest.approx(np.full_like(turned[name], 1) * [10, 0], abs=2e-3)


def test_a_pulled_box_chooses_lines_and_all_take_a_size_or_go_in_one_step(app):
    page = app.open("#/page/5")
    sheet = page.get_by_test_id("sheet")
    scale, (x0, y0) = float(sheet.get_attribute("data-scale")), map(float, sheet.get_attribute("data-origin").split(","))
    at = sheet.bounding_box()
    corner = [at["x"] + x0 + 1 * scale, at["y"] + y0 + 1 * scale]
    page.keyboard.down("Shift")
    page.mouse.move(*corner)
    page.mouse.down()
    page.mouse.move(corner[0] + 146 * scale, corner[1] + 103 * scale, steps=4)
    page.mouse.up()
    page.keyboard.up("Shift")
    count = len(lines_of(page))
    chosen = page.get_by_role("region", name="Chosen lines")
    expect(chosen).to_contain_text(f"{count} lines chosen")
    size = chosen.get_by_role("textbox", name=re.compile("^Size"))
    size.fill("50")
    size.press("Enter")
    expect(page.get_by_role("button", name=re.compile("Undo: size of"))).to_be_visible()
    assert {line["size_pct"] for line in lines_of(page)} == {50}
    chosen.get_by_role("button", name="Delete them").click()
    expect(chosen).to_have_count(0)
    assert lines_of(page) == []
    page.get_by_role("button", name=re.compile("^Undo: delete")).click()
    expect(page.get_by_role("button", name=re.compile("Foam, near")).first).to_be_visible()
    assert len(lines_of(page)) == count
