"""Two windows on one workshop: what one changes shows in the other, and changes of different settings are both kept."""

import re

import pytest
from playwright.sync_api import expect
from test_repeat import brush

pytestmark = pytest.mark.browser


def other_window(app, page):
    other = page.context.browser.new_context(viewport={"width": 1280, "height": 800}).new_page()
    other.goto(page.url)
    other.get_by_test_id("flat-run").wait_for()
    return other


def test_a_change_in_one_window_is_seen_in_the_other_by_itself(app):
    page = app.open("#/repeat/1")
    other = other_window(app, page)
    gap = page.get_by_role("textbox", name=re.compile("^Gap"))
    gap.fill("31")
    gap.press("Enter")
    expect(page.get_by_text("All changes kept")).to_be_visible()
    expect(other.get_by_role("textbox", name=re.compile("^Gap"))).to_have_value("31")  # by itself: nothing is pressed there
    assert brush(app, page, "Running stitch")["settings"]["spacing"]["gap_pct"] == 31
    other.context.close()


def test_other_settings_are_merged_and_of_a_true_clash_one_is_chosen(app):
    page = app.open("#/repeat/1")
    other = other_window(app, page)
    other.route("**/api/history", lambda route: route.abort())  # it looks away

    def put(window, name, value):
        field = window.get_by_role("textbox", name=re.compile(f"^{name}")).first
        field.fill(value)
        field.press("Enter")

    put(page, "Gap", "31")
    expect(page.get_by_text("All changes kept")).to_be_visible()
    put(other, "Size", "80")
    expect(other.get_by_role("textbox", name=re.compile("^Gap"))).to_have_value("31")
    spacing = brush(app, page, "Running stitch")["settings"]["spacing"]
    assert (spacing["gap_pct"], spacing["size_pct"]) == (31, 80)
    put(page, "Gap", "20")
    expect(page.get_by_text("All changes kept")).to_be_visible()
    put(other, "Gap", "60")
    alert = other.get_by_role("alert").filter(has_text="another window")
    expect(alert).to_contain_text("20 %")
    expect(alert).to_contain_text("60 %")
    assert brush(app, page, "Running stitch")["settings"]["spacing"]["gap_pct"] == 20  # not before it is chosen
    expect(other.get_by_role("textbox", name=re.compile("^Gap"))).to_have_value("20")
    alert.get_by_role("button", name=re.compile("^Take")).click()
    expect(alert).to_have_count(0)
    expect(page.get_by_role("textbox", name=re.compile("^Gap"))).to_have_value("60")
    other.context.close()
