"""Jobs done by keys alone: every button and setting of the page, the motif and the bench has its letter after q."""

import pytest
from bench_helper import calm, kept
from playwright.sync_api import expect

pytestmark = pytest.mark.browser


def after_q(page, letter):
    page.keyboard.press("q")
    expect(page.locator("kbd").first).to_be_visible()
    page.keyboard.press(letter)


SEEN = """() => {
    window.seen = new Set();
    new MutationObserver(() => document.querySelectorAll('[aria-label$="between its own neighbours"]')
        .forEach((each) => window.seen.add(each.getAttribute("aria-label")))).observe(document.body, { childList: true, subtree: true });
}"""


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


AT_ONCE = """async (keys) => {
    const where = [];
    for (const key of keys) {
        const to = document.activeElement;
        to.dispatchEvent(new KeyboardEvent("keydown", { key, bubbles: true, cancelable: true }));
        await null;  // React has answered, and no frame has passed
        const now = document.activeElement;
        where.push(now.getAttribute("aria-label") ?? now.labels?.[0]?.textContent ?? now.closest("[role=group]")?.ariaLabel ?? now.tagName);
    }
    return where;
}"""


@pytest.mark.parametrize(
    ("station", "letter", "field"),
    [("page/1", "n", "Name of the line"), ("page/1", "s", "Size"), ("repeat/1", "t", "Turn"), ("repeat/1", "a", "What varies")],
)
def test_a_field_that_is_gone_to_by_letter_has_the_very_next_key(app, station, letter, field):
    page = app.open(f"#/{station}")
    calm(page)
    assert page.evaluate(AT_ONCE, ["q", letter])[-1] == field


def test_a_name_that_is_given_up_lets_the_very_next_key_go_to_the_station(app):
    page = app.open("#/page/1")
    calm(page)
    assert page.evaluate(AT_ONCE, ["q", "n", "Escape"])[1:] == ["Name of the line", "BODY"]


@pytest.mark.parametrize(
    ("keys", "role"),
    [("q t Escape q w", "menu"), ("q w Escape q b", "menu"), ("q w Escape q t", "dialog"), ("? Escape q t", "dialog")],
)
def test_what_keys_open_stays_open_though_what_was_closed_before_gives_its_focus_back_later(app, keys, role):
    page = app.open("#/page/1")
    calm(page)
    page.evaluate(AT_ONCE, keys.split())
    page.evaluate("() => new Promise((then) => setTimeout(then))")  # what closed has had its turn: timers keep their order
    expect(page.get_by_role(role)).to_have_count(1)
    assert page.evaluate("role => document.activeElement.closest(`[role=${role}]`) !== null", role)


@pytest.mark.parametrize("pointed", [False, True])
def test_typed_points_are_flowing_or_pointed_as_is_said(app, pointed):
    page = app.open("#/page/1")
    after_q(page, "o")
    page.keyboard.type("40,60 120,60 120,140")  # the caret is there at once: digits would open other stations
    typed = page.get_by_role("textbox", name="Points in mm")
    page.get_by_role("checkbox", name="pointed").set_checked(pointed)
    typed.press("Enter")
    kept(page)
    page.keyboard.press("Escape")  # keys go to the station again, which is still drawing by points
    after_q(page, "t")
    expect(page.get_by_role("dialog", name="Take away")).to_be_visible()
    expect(typed).to_have_value("40,60 120,60 120,140")
    page.keyboard.press("Escape")
    drawn = app.state(page, "/api/pages/1")["lines"][-1]
    assert drawn["source"]["flowing"] == [not pointed] * 3
    expect(page.get_by_role("textbox", name="Name of the line")).to_have_value(drawn["name"])


def test_panels_that_are_opened_by_key_have_the_focus(app):
    page = app.open("#/motif/1")
    calm(page)
    for letter, label in (("a", "Starters"), ("y", "Scan tray")):
        after_q(page, letter)
        panel = page.get_by_role("dialog", name=label)
        expect(panel.get_by_role("listitem").first.get_by_role("button")).to_be_focused()
        page.keyboard.press("Escape")
        expect(panel).not_to_be_visible()
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


def test_a_scanned_rope_becomes_a_closed_line_on_a_page_by_keys_alone(app):
    """The drawn rope repeats every 13 mm, as the stand-in draws it."""
    page = app.open("#/motif")
    calm(page)
    after_q(page, "y")
    files = page.get_by_role("dialog", name="Scan tray").get_by_role("listitem").get_by_role("button")
    expect(files.first).to_be_focused()
    for _ in range(files.count()):
        if "drawn-rope" in page.evaluate("document.activeElement.textContent"):
            break
        page.keyboard.press("ArrowRight")
    page.keyboard.press("Enter")
    expect(page.get_by_role("button", name="Make the motif")).to_be_enabled()
    after_q(page, "n")
    page.keyboard.press("Control+A")
    page.keyboard.type("Hawser")
    page.keyboard.press("Enter")  # leaves the field
    page.evaluate(SEEN)
    after_q(page, "m")
    expect(page.get_by_role("button", name="Make a brush of it")).to_be_enabled()
    assert page.evaluate("[...window.seen]") == ["Hawser between its own neighbours"], "another motif was open for a moment"
    after_q(page, "o")
    length = page.get_by_test_id("found-repeat").get_by_role("button").first
    expect(length).to_be_focused()
    page.keyboard.press("Enter")
    kept(page)
    after_q(page, "m")
    expect(page.get_by_test_id("words")).to_contain_text("Hawser repeated along the line, bent at bends")
    (brush,) = [each for each in app.state(page)["brushes"] if each["name"] == "Hawser"]
    page.keyboard.press("3")
    expect(page.get_by_test_id("sheet")).to_be_visible()
    after_q(page, "r")
    expect(page.get_by_role("dialog", name="Ready lines").get_by_role("button", name="Rectangle")).to_be_focused()
    page.keyboard.press("ArrowRight")
    page.keyboard.press("Enter")
    kept(page)
    expect(page.get_by_text("None: every join keeps its wish.")).to_be_visible()
    drawn = [each for each in app.state(page, "/api/pages/1")["lines"] if each["brush_id"] == brush["id"]]
    assert [each["source"]["shape"] for each in drawn] == ["ellipse"]
    motif = next(each for each in app.state(page)["motifs"] if each["name"] == "Hawser")
    left, right = page.request.get(f"{app.address}/api/motifs/{motif['id']}").json()["cuts_mm"]
    assert right - left == pytest.approx(13, abs=0.05)
