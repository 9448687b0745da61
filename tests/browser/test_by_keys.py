"""Jobs done by keys alone: every button and setting of the page, the motif and the bench has its letter after q."""

import pytest
from bench_helper import calm, kept
from playwright.sync_api import expect

pytestmark = pytest.mark.browser


def after_q(page, letter):
    page.keyboard.press("q")
    expect(page.locator("kbd").first).to_be_visible()
    page.keyboard.press(letter)


def typed_over(page, text):
    page.keyboard.press("Control+A")
    page.keyboard.type(text)
    page.keyboard.press("Enter")
    kept(page)


def test_a_line_is_named_sized_inked_and_taken_away_by_keys_alone(app):
    page = app.open("#/page/1")
    calm(page)
    name = page.get_by_role("textbox", name="Name of the line")
    first = name.input_value()
    after_q(page, "n")
    page.keyboard.type("nothing")
    page.keyboard.press("Escape")  # what was comes back, and keys go to the station again
    expect(name).to_have_value(first)
    expect(name).not_to_be_focused()
    after_q(page, "n")
    typed_over(page, "By keys")
    after_q(page, "s")
    typed_over(page, "80")
    after_q(page, "i")
    expect(page.get_by_role("button", name="Ink: own colours")).to_be_focused()
    page.keyboard.press("Tab")
    swatch = page.locator("button:focus")
    assert float(swatch.evaluate("e => parseFloat(getComputedStyle(e).outlineWidth)")) >= 2
    page.keyboard.press("Enter")
    kept(page)
    page.keyboard.press("Escape")
    expect(page.get_by_test_id("sheet")).to_be_focused()
    state = app.state(page, "/api/pages/1")
    (line,) = [each for each in state["lines"] if each["name"] == "By keys"]
    assert (line["size_pct"], line["ink"]) == (80, state["page"]["palette"][0]["colour"])
    after_q(page, "t")
    expect(page.get_by_role("dialog", name="Take away")).to_be_visible()
    assert page.evaluate("document.activeElement.closest('[role=dialog]') !== null")
    page.keyboard.press("Escape")
    after_q(page, "w")
    expect(page.get_by_role("menu")).to_be_visible()
    page.keyboard.press("Escape")


@pytest.mark.parametrize("pointed", [False, True])
def test_typed_points_are_flowing_or_pointed_as_is_said(app, pointed):
    page = app.open("#/page/1")
    after_q(page, "o")
    page.get_by_role("checkbox", name="pointed").set_checked(pointed)
    page.get_by_role("textbox", name="Points in mm").fill("40,60 120,60 120,140")
    page.keyboard.press("Enter")
    kept(page)
    assert app.state(page, "/api/pages/1")["lines"][-1]["source"]["flowing"] == [not pointed] * 3


def test_panels_that_are_opened_by_key_have_the_focus(app):
    page = app.open("#/motif/1")
    calm(page)
    for letter, label in (("a", "Starters"), ("y", "Scan tray")):
        after_q(page, letter)
        expect(page.get_by_role("dialog", name=label)).to_be_visible()
        assert page.evaluate(f"document.activeElement.closest('[aria-label=\"{label}\"]') !== null")
        page.keyboard.press("Enter")  # its first button closes it
    for letter, label in (("s", "Shapes"), ("i", "Paint"), ("e", "Soft edge"), ("c", "Cut and frame")):
        after_q(page, letter)
        expect(page.get_by_role("region", name=label, exact=True)).to_be_visible()
    page.goto(f"{app.address}/#/shelf")
    calm(page)
    after_q(page, "s")
    expect(page.get_by_role("searchbox", name="Search by name")).to_be_focused()


def letters_on(page, target):
    """The letters that stand at the corner of something, once q was pressed twice."""
    box = target.bounding_box()
    return page.get_by_test_id("lettered").evaluate(
        """(all, [x, y]) => [...all.children].find((mark) =>
          Math.abs(parseFloat(mark.style.left) - Math.max(6, x)) < 1 && Math.abs(parseFloat(mark.style.top) - Math.max(6, y)) < 1).textContent""",
        [box["x"], box["y"]],
    )


def go_by_letters(page, target):
    page.keyboard.press("q")
    page.keyboard.press("q")
    page.get_by_test_id("lettered").wait_for()
    for letter in letters_on(page, target):
        page.keyboard.press(letter)
    expect(page.get_by_test_id("lettered")).to_have_count(0)


def test_every_button_and_field_of_a_panel_is_reached_by_the_letters_on_it(app):
    page = app.open("#/motif/6")
    page.get_by_role("slider", name="Right cut").wait_for()
    go_by_letters(page, page.get_by_role("button", name="Paint", exact=True))
    panel = page.get_by_role("region", name="Paint")
    expect(panel).to_be_visible()
    count = panel.get_by_role("button").count()
    assert count > 3
    page.keyboard.press("q")
    page.keyboard.press("q")
    for k in range(count):
        if panel.get_by_role("button").nth(k).is_enabled() and panel.get_by_role("button").nth(k).is_visible():
            assert letters_on(page, panel.get_by_role("button").nth(k))  # each has its letters
    page.keyboard.press("Escape")
    expect(page.get_by_test_id("lettered")).to_have_count(0)
    go_by_letters(page, page.get_by_role("button", name="Dark ground"))
    expect(page.get_by_role("button", name="Light ground")).to_be_visible()
    go_by_letters(page, page.get_by_role("button", name="Cut and frame", exact=True))
    cut = page.get_by_role("slider", name="Right cut")
    before = float(cut.get_attribute("aria-valuenow"))
    go_by_letters(page, cut)
    page.keyboard.press("ArrowLeft")
    expect(cut).not_to_have_attribute("aria-valuenow", str(before))  # what is dragged has the focus, and steps
