"""Jobs at the Repeat station."""

import re

import pytest
from bench_helper import kept, plain
from playwright.sync_api import expect

pytestmark = pytest.mark.browser


def brush(app, page, name="Running stitch"):
    return next(b for b in app.state(page)["brushes"] if b["name"] == name)


def drag(page, target, dx, dy=0, steps=8):
    box = target.bounding_box()
    x, y = box["x"] + box["width"] / 2, box["y"] + min(20, box["height"] / 2)
    page.mouse.move(x, y)
    page.mouse.down()
    for i in range(1, steps + 1):
        page.mouse.move(x + dx * i / steps, y + dy * i / steps)
    return lambda: page.mouse.up()


def test_pulls_the_pitch_and_watches_the_measured_joins(app):
    page = app.open("#/repeat/1")
    lens = page.get_by_test_id("lens-0")
    expect(lens).to_contain_text("3.60 mm")
    let_go = drag(page, page.get_by_role("slider", name="Pitch"), 60)
    expect(lens).not_to_contain_text("3.60 mm")  # while it is dragged
    assert brush(app, page)["settings"]["spacing"]["gap_pct"] == 45
    let_go()
    expect(page.get_by_role("button", name=re.compile("^Undo: gap to"))).to_be_visible()
    gap_pct = brush(app, page)["settings"]["spacing"]["gap_pct"]
    assert gap_pct > 60
    expect(lens).to_contain_text(f"{8 * gap_pct / 100:.2f} mm")
    expect(page.get_by_role("textbox", name="Pitch")).to_have_value(plain(f"{8 * (1 + gap_pct / 100):.2f}"))


def test_undo_and_redo_work_across_a_reload(app):
    page = app.open("#/repeat/1")
    page.get_by_role("textbox", name="Gap").fill("20+5")
    page.keyboard.press("Enter")
    expect(page.get_by_role("button", name="Undo: gap to 25 %")).to_be_visible()
    expect(page.get_by_role("textbox", name="Pitch")).to_have_value(plain("10.00"))
    page.reload()
    page.get_by_role("button", name="Undo: gap to 25 %").click()
    expect(page.get_by_role("textbox", name="Pitch")).to_have_value(plain("11.60"))
    page.reload()
    page.get_by_role("button", name="Redo: gap to 25 %").click()
    expect(page.get_by_role("textbox", name="Pitch")).to_have_value(plain("10.00"))
    page.locator("body").press("Control+z")
    expect(page.get_by_role("textbox", name="Pitch")).to_have_value(plain("11.60"))


def test_a_number_out_of_range_is_refused_in_the_servers_words_and_nothing_is_lost(app):
    page = app.open("#/repeat/1")
    field = page.get_by_role("textbox", name="Gap")
    field.fill("-100")
    field.press("Enter")
    expect(page.get_by_role("alert")).to_have_text("it must be more than -100")
    version = brush(app, page)["version"]
    refused = page.request.patch(f"{app.address}/api/brushes/1", data={"version": version, "change": {"spacing": {"gap_pct": -100}}})
    assert "it must be more than -100" in refused.json()["message"]
    field.press("Escape")
    expect(field).to_have_value("45")
    expect(page.get_by_role("textbox", name="Pitch")).to_have_value(plain("11.60"))


def test_a_number_follows_what_is_dragged_and_keeps_what_is_being_typed(app):
    page = app.open("#/repeat/1")
    gap, pitch = page.get_by_role("textbox", name="Gap"), page.get_by_role("textbox", name="Pitch")
    let_go = drag(page, page.get_by_role("slider", name="Pitch"), 60)
    expect(pitch).not_to_have_value("11.6")
    both = "(gap) => [...gap.closest('.grid').querySelectorAll('input')].slice(1).map((field) => Number(field.value))"
    figure, shown = gap.evaluate(both)  # at one moment: the drag's last steps may still be on their way
    assert figure > 45
    assert shown == pytest.approx(8 * (1 + figure / 100), abs=0.006)
    page.keyboard.press("Escape")
    let_go()
    expect(gap).to_have_value("45")
    gap.fill("7")
    page.get_by_role("button", name=re.compile("^further")).click()  # leaving the field takes it
    expect(page.get_by_role("button", name="Undo: gap to 7 %")).to_be_visible()
    page.get_by_role("button", name="Undo: gap to 7 %").click()
    expect(gap).to_have_value("45")
    gap.fill("99")
    gap.press("Escape")
    expect(gap).to_have_value("45")
    assert brush(app, page)["settings"]["spacing"]["gap_pct"] == 45


def test_gap_and_pitch_are_set_in_millimetres_or_shares_and_numbers_in_the_text_where_they_stand(app):
    """The stitch is 8 mm long: a gap of 0.8 mm is 10 %, a pitch of 12 mm + ⅛ in (15.175 mm) one of 89.69 %."""
    page = app.open("#/repeat/1")
    gap, pitch, words = page.get_by_role("textbox", name="Gap"), page.get_by_role("textbox", name="Pitch"), page.get_by_test_id("words")
    gap.fill("0.8mm")
    gap.press("Enter")
    expect(pitch).to_have_value("8.8")
    expect(gap).not_to_be_focused()
    page.get_by_role("button", name="Gap in %").click()
    expect(gap).to_have_value("0.8")
    gap.fill("3,5 - 0.5")
    gap.press("Enter")
    expect(pitch).to_have_value("11")
    pitch.fill("12mm + 1/8in")
    pitch.press("Enter")
    expect(gap).to_have_value("7.18")
    expect(page.get_by_text("All changes kept")).to_be_visible()
    assert brush(app, page)["settings"]["spacing"]["gap_pct"] == pytest.approx(89.6875, abs=1e-3)
    words.get_by_role("button", name="15.18 mm").click()
    page.keyboard.type("10")
    page.keyboard.press("Enter")
    expect(words).to_contain_text("Every 10.00 mm")
    words.get_by_role("button", name="30°").click()
    page.keyboard.type("999")
    page.keyboard.press("Enter")
    expect(words.get_by_role("alert")).to_be_visible()
    page.keyboard.press("Escape")
    expect(words.get_by_role("button", name="30°")).to_be_visible()


def test_a_cure_on_a_copy_leaves_the_brush_as_it_is_and_opens_the_copy(app):
    page = app.open("#/repeat/1")
    before = app.state(page)["brushes"]
    page.get_by_role("button", name=re.compile("^Square corners")).click()
    page.get_by_role("checkbox", name="on a copy of the brush").first.check()
    page.get_by_role("button", name=re.compile("^Butt the runs")).first.click()
    expect(page).not_to_have_url(re.compile("repeat/1$"))
    after = app.state(page)["brushes"]
    assert after[:-1] == before and after[-1]["name"] == f"{before[0]['name']} 2"
    assert "butt" in after[-1]["settings"]["ends"].values()


def test_sees_a_cure_before_taking_it_and_the_finding_is_gone(app):
    page = app.open("#/repeat/1")
    expect(page.get_by_test_id("verdict-corners")).to_contain_text("overlap")
    page.get_by_role("button", name=re.compile("^Square corners")).click()
    cure = page.get_by_role("button", name=re.compile("^Butt the runs")).first
    trial = page.get_by_test_id("trial-corners")
    was = trial.get_attribute("aria-label")
    cure.hover()
    expect(page.get_by_text("showing the cure, not yet taken")).to_be_visible()
    expect(trial).not_to_have_attribute("aria-label", was)
    assert brush(app, page)["settings"]["ends"]["outside_corner"] == "through"
    cure.click()
    expect(page.get_by_role("button", name=re.compile("^Undo: butt the runs"))).to_be_visible()
    assert "butt" in brush(app, page)["settings"]["ends"].values()
    rest = page.get_by_role("button", name=re.compile("^Butt the runs"))
    expect(page.get_by_text("working out cures")).to_have_count(0)
    if rest.count():  # the other side's corners have a cure of their own
        rest.first.click()
        expect(trial).not_to_have_attribute("aria-label", re.compile("overlap"))
    page.get_by_role("button", name="All trial lines").click()
    expect(page.get_by_test_id("verdict-corners")).not_to_contain_text("overlap")


def test_answers_every_question_and_reads_it_in_the_words(app):
    page = app.open("#/repeat/3")
    words = page.get_by_test_id("words")
    page.get_by_role("radio", name="into the size").click()
    expect(words).to_contain_text("goes into the size")
    page.get_by_role("button", name="How does it travel?").click()
    page.get_by_role("radio", name="level").click()
    expect(words).to_contain_text("level with the page")
    expect(page.get_by_test_id("safe-radius")).to_have_text("any bend")
    page.get_by_role("radio", name="every second").click()
    expect(words).to_contain_text("every second one mirrored")
    page.get_by_role("textbox", name="Side shift").fill("1/8in")
    page.keyboard.press("Enter")
    expect(words).to_contain_text("3.175 mm to the right")
    expect(page.get_by_role("button", name="Undo: side shift to 3.175 mm")).to_be_visible()
    settings = brush(app, page, "Eelgrass garland")["settings"]
    assert settings["travel"] | {"facing": "page", "mirror": "every_second", "side_shift_mm": 3.175} == settings["travel"]


def test_the_keyboard_reaches_marks_settings_and_stations(app):
    page = app.open("#/repeat/1")
    page.keyboard.press("q")
    expect(page.get_by_text("side shift")).to_be_visible()
    page.keyboard.press("g")
    expect(page.get_by_role("textbox", name="Gap")).to_be_focused()
    page.keyboard.press("ArrowUp")
    expect(page.get_by_role("button", name="Undo: gap to 46 %")).to_be_visible()
    page.keyboard.press("Escape")
    page.get_by_role("slider", name="Pitch").focus()
    page.keyboard.press("ArrowRight")
    expect(page.get_by_role("textbox", name="Pitch")).to_have_value(plain("11.78"))  # 8 · 1.46 + 0.1
    page.keyboard.press("?")
    expect(page.get_by_role("dialog", name="Keys")).to_be_visible()
    page.keyboard.press("Escape")
    page.locator("body").press("3")
    expect(page.get_by_test_id("sheet")).to_be_visible()


def test_quick_steps_all_arrive_and_are_one_step_to_undo(app):
    page = app.open("#/repeat/1")
    field = page.get_by_role("textbox", name="Gap")
    field.focus()
    for _ in range(8):
        field.press("ArrowUp")
    expect(page.get_by_role("button", name="Undo: gap to 53 %")).to_be_visible()
    expect(page.get_by_role("status").filter(has_text="All changes kept")).to_be_visible()
    assert brush(app, page)["settings"]["spacing"]["gap_pct"] == 53
    page.get_by_role("button", name="Undo: gap to 53 %").click()
    expect(page.get_by_role("textbox", name="Pitch")).to_have_value(plain("11.60"))


@pytest.mark.parametrize("brush, place, way, pitch", [
    (1, ("textbox", "Pitch"), "ArrowUp", "12.4"), (1, ("slider", "Pitch"), "ArrowRight", "12.4"),
    (4, ("textbox", "Pitch"), "ArrowUp", "13.8"), (4, ("slider", "Pitch"), "ArrowRight", "13.8"),
])  # fmt: skip
def test_quick_steps_of_the_pitch_all_arrive_though_what_is_laid_is_behind_them(app, brush, place, way, pitch):
    page = app.open(f"#/repeat/{brush}")
    role, name = place
    mark = page.get_by_role(role, name=name)
    mark.focus()
    for _ in range(8):
        page.keyboard.press(way)
    expect(page.get_by_role("textbox", name="Pitch")).to_have_value(pitch)
    kept(page)
    expect(page.get_by_role("textbox", name="Pitch")).to_have_value(pitch)
    page.get_by_role("button", name="Undo:").click()
    kept(page)
    expect(page.get_by_role("textbox", name="Pitch")).to_have_value({1: "11.6", 4: "13"}[brush])


@pytest.mark.parametrize("mark, stepped", [("Size on the run", "105 %"), ("Turn on the run", "25°")])
def test_quick_steps_of_the_marks_on_the_run_all_arrive(app, mark, stepped):
    page = app.open("#/repeat/1")
    slider = page.get_by_role("slider", name=mark)
    slider.focus()
    for _ in range(5):
        page.keyboard.press("ArrowUp")
    expect(slider).to_have_attribute("aria-valuetext", stepped)
    kept(page)
    expect(slider).to_have_attribute("aria-valuetext", stepped)
    page.get_by_role("button", name="Undo:").click()
    expect(page.get_by_role("button", name="Nothing to undo")).to_be_visible()


def test_dragging_the_size_and_the_turn_lay_anew(app):
    page = app.open("#/repeat/6")
    drag(page, page.get_by_role("slider", name="Size on the run"), 0, -25)()
    expect(page.get_by_role("button", name=re.compile("^Undo: size to"))).to_be_visible()
    assert brush(app, page, "Wave border")["settings"]["spacing"]["size_pct"] < 90
    page.get_by_role("slider", name="Turn on the run").focus()
    page.keyboard.press("ArrowUp")
    expect(page.get_by_role("button", name="Undo: turn to 5°")).to_be_visible()


def press(page, *keys):
    for key in keys:
        page.keyboard.press(key)


def test_enter_and_escape_leave_a_number_so_that_keys_go_on(app):
    page = app.open("#/repeat/1")
    size = page.get_by_label("Size", exact=True)
    press(page, "q", "s")
    expect(size).to_be_focused()
    page.keyboard.type("150")
    page.keyboard.press("Escape")
    expect(size).not_to_be_focused()
    expect(size).to_have_value("100")
    press(page, "q", "s")
    expect(size).to_be_focused()
    page.keyboard.type("120")
    page.keyboard.press("Enter")
    expect(size).not_to_be_focused()
    expect(page.get_by_test_id("words")).to_contain_text("at 120 % size")
    page.keyboard.press("3")
    expect(page).to_have_url(re.compile("#/page"))


def test_what_is_no_number_stays_to_be_mended(app):
    page = app.open("#/repeat/1")
    size = page.get_by_label("Size", exact=True)
    press(page, "q", "s")
    expect(size).to_be_focused()
    page.keyboard.type("ten")
    page.keyboard.press("Enter")
    expect(size).to_be_focused()
    expect(size).to_have_attribute("aria-invalid", "true")


def test_the_starters_opened_by_keys_go_on_by_keys(app):
    page = app.open("#/motif/6")
    press(page, "q", "a")
    expect(page.get_by_role("button", name="Pill", exact=True)).to_be_focused()
    page.keyboard.press("Tab")
    expect(page.get_by_role("button", name="Ring", exact=True)).to_be_focused()
