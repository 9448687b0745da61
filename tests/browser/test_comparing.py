"""Jobs of judging a brush: harder trial lines, lines of one's own, settings side by side, the width along the line, corners."""

import math
import re

import numpy as np
import pytest
from bench_helper import plain
from playwright.sync_api import expect
from test_repeat import brush, drag

pytestmark = pytest.mark.browser


def figure(text, pattern):
    return float(re.search(pattern, text).group(1))


def test_drags_a_trial_line_s_point_to_make_it_harder_and_puts_it_back(app):
    page = app.open("#/repeat/2")
    page.get_by_role("button", name=re.compile("^Wave: ")).click()
    plot = page.get_by_test_id("join-plot")
    expect(plot).to_have_attribute("aria-label", re.compile("gaps stray by up to 0.0"))
    before = int(plot.get_attribute("data-joins"))
    let_go = drag(page, page.get_by_test_id("trial-point-2"), 40, -70)
    expect(page.get_by_role("button", name="As it stands")).to_be_visible()
    expect(plot).not_to_have_attribute("data-joins", str(before))  # laid anew while dragged
    let_go()
    longer = int(plot.get_attribute("data-joins"))
    assert longer > before
    page.get_by_test_id("trial-point-2").press("ArrowUp")
    page.get_by_role("button", name="As it stands").click()
    expect(plot).to_have_attribute("data-joins", str(before))


def test_escape_lets_go_of_a_trial_line_s_point_and_of_nothing_else(app):
    page = app.open("#/repeat/2")
    page.get_by_role("button", name=re.compile("^Wave: ")).click()
    plot, point = page.get_by_test_id("join-plot"), page.get_by_test_id("trial-point-2")
    expect(plot).to_have_attribute("aria-label", re.compile("gaps stray by up to 0.0"))
    before, at = int(plot.get_attribute("data-joins")), point.bounding_box()
    let_go = drag(page, point, 40, -70)
    expect(page.get_by_role("button", name="As it stands")).to_be_visible()
    page.keyboard.press("Escape")
    let_go()
    expect(page.get_by_role("button", name="As it stands")).to_have_count(0)
    expect(plot).to_have_attribute("data-joins", str(before))
    assert point.bounding_box() == at
    page.keyboard.press("Escape")
    expect(plot).to_have_count(0)  # now it leads back to all trial lines


def test_quick_steps_of_a_trial_line_s_point_all_count(app):
    page = app.open("#/repeat/2")
    page.get_by_role("button", name=re.compile("^Wave: ")).click()
    point = page.get_by_test_id("trial-point-2")
    before = point.bounding_box()
    point.focus()
    with page.expect_response(
        lambda reply: "bench/lay" in reply.url and reply.request.post_data_json.get("cures")
    ):  # the last, asked when all is quiet
        for _ in range(4):
            page.keyboard.press("ArrowUp")
    box = page.get_by_role("img", name=re.compile("^Wave: ")).bounding_box()
    step = min((box["width"] - 12) / 100, (box["height"] - 12) / 70)  # px to a unit of the 100 × 70 sheet, inside its margin
    moved = point.evaluate(
        "(e) => new Promise((done) => requestAnimationFrame(() => requestAnimationFrame(() => done(e.getBoundingClientRect().y))))"
    )
    assert before["y"] - moved == pytest.approx(4 * step, rel=0.02)


def test_the_plot_tells_the_worst_join_as_the_finding_does(app):
    page = app.open("#/repeat/1")
    page.get_by_role("button", name=re.compile("^Square corners: ")).click()
    plot = page.get_by_test_id("join-plot")
    expect(plot).to_have_attribute("aria-label", re.compile("kinks up to 90.0 degrees"))
    worst = figure(plot.get_attribute("aria-label"), r"up to ([\d.]+) mm")
    finding = page.get_by_role("button", name=re.compile(r"overlaps, deepest [\d.]+ mm"))
    assert figure(finding.inner_text(), r"deepest ([\d.]+) mm") == pytest.approx(worst, abs=0.011)


def test_a_line_of_a_page_is_pinned_and_laid_as_on_its_page(app):
    page = app.open("#/repeat/2")
    page.get_by_role("button", name="Pin a line").click()
    page.get_by_role("menuitemcheckbox", name="Rope frame").click()
    page.keyboard.press("Escape")
    verdict = page.locator("[data-testid^='verdict-pinned']")
    expect(verdict).to_contain_text("Rope frame joins within 0.01 mm, closes whole")
    drawn = next(line for line in app.state(page, "/api/pages/1")["lines"] if line["name"] == "Rope frame")
    pieces = int(page.get_by_test_id(f"trial-pinned {drawn['id']}").get_attribute("data-pieces"))
    rows = page.request.get(f"{app.address}/api/pages/1/pieces.csv").text().splitlines()[1:]
    assert pieces in [sum(row.startswith(f"{i},") for row in rows) for i in range(20)]
    page.reload()
    expect(verdict).to_be_visible()  # stays pinned
    expect(page.get_by_role("button", name="Pinned: 1")).to_be_visible()
    page.request.delete(f"{app.address}/api/lines/{drawn['id']}?version={drawn['version']}")
    page.reload()
    expect(page.get_by_role("button", name="Pin a line")).to_be_visible()  # a line that is gone is pinned no more
    page.get_by_role("button", name=re.compile("^Undo")).click()
    expect(page.get_by_role("button", name="Pinned: 1")).to_be_visible()  # and is again once it is back


def test_keeps_a_brush_aside_and_sees_both_on_every_trial_line_then_takes_it_back(app):
    page = app.open("#/repeat/1")
    page.get_by_role("button", name="Keep aside").click()
    gap = page.get_by_role("textbox", name="Gap")
    gap.fill("90")
    gap.press("Enter")
    straight = page.get_by_test_id("verdict-straight")
    expect(page.get_by_role("button", name="Undo: gap to 90 %")).to_be_visible()
    expect(straight).to_contain_text("aside: joins within 0.01 mm")
    expect(page.get_by_test_id("verdict-circle")).to_contain_text(re.compile("aside: joins within 0.0. mm, closes whole"))
    page.get_by_role("button", name="take it back").click()
    expect(page.get_by_role("textbox", name="Pitch")).to_have_value(plain("11.60"))
    expect(page.get_by_role("button", name="take it back")).to_be_disabled()
    page.get_by_role("button", name="let go").click()
    expect(straight).not_to_contain_text("aside")


def test_tapers_a_line_and_draws_it_thick_and_thin_with_its_joins_closed(app):
    page = app.open("#/repeat/4")
    circle = page.get_by_test_id("verdict-circle")
    expect(circle).to_contain_text("closes whole")
    page.get_by_role("button", name="What does the hand do?").click()
    page.get_by_role("button", name="Thick and thin").click()
    expect(page.get_by_test_id("words")).to_contain_text("goes thick and thin")
    expect(circle).to_contain_text("joins within 0.01 mm, closes whole")
    point = page.get_by_test_id("width-point-2")
    point.press("Shift+ArrowUp")
    expect(page.get_by_role("button", name=re.compile("^Undo: width 160 %"))).to_be_visible()
    assert brush(app, page, "Mooring chain")["settings"]["hand"]["width_along"][1] == {"at_pct": 50, "width_pct": 160}
    straight = page.get_by_test_id("trial-straight")
    expect(straight).to_have_attribute("data-pieces", "9")
    taper = page.get_by_role("textbox", name="Taper at the start")
    taper.fill("80")
    taper.press("Enter")
    expect(page.get_by_test_id("words")).to_contain_text("goes thick and thin and tapers")
    expect(straight).to_have_attribute("data-pieces", re.compile("^1[0-9]$"))  # thin links are short


def test_pulls_the_tape_of_a_chain_and_its_joints_move(app):
    page = app.open("#/repeat/4")
    pitch = page.get_by_role("textbox", name="Pitch")
    expect(pitch).to_have_value(plain("13.00"))
    let_go = drag(page, page.get_by_role("slider", name="Pitch"), 40)
    expect(pitch).not_to_have_value(plain("13.00"))
    let_go()
    undo = page.get_by_role("button", name=re.compile("^Undo: pitch to"))
    new = figure(undo.get_attribute("aria-label") or undo.inner_text(), r"pitch to ([\d.]+) mm")
    assert new > 14
    expect(pitch).to_have_value(plain(f"{new:.2f}"))
    for motif in [m for m in app.state(page)["motifs"] if m["id"] in brush(app, page, "Mooring chain")["pieces"]["repeat"]]:
        (left, _), (right, _) = motif["joints_mm"]
        assert right - left == pytest.approx(new, abs=0.006)
    expect(page.get_by_test_id("verdict-circle")).to_contain_text("closes whole")
    page.get_by_role("button", name=re.compile("^Undo: pitch to")).click()
    expect(pitch).to_have_value(plain("13.00"))


def test_what_counts_as_a_fault_is_set_and_told(app):
    page = app.open("#/repeat/1")
    hairpin = page.get_by_test_id("verdict-hairpin")
    expect(hairpin).to_contain_text("gaps, up to 0.39 mm")
    page.get_by_role("button", name="What is a fault?").click()
    field = page.get_by_role("textbox", name="Gap from")
    field.fill("0.5")
    field.press("Enter")
    expect(hairpin).not_to_contain_text("gap")
    page.get_by_role("radio", name="what is drawn").click()
    expect(page.get_by_test_id("lens-0")).to_contain_text("apart")
    assert 3.6 <= figure(page.get_by_test_id("lens-0").inner_text(), r"apart\s+([\d.]+) mm") < 3.8  # a stitch ends just inside its frame


def test_a_corner_is_made_at_once_turned_by_hand_and_made_another_way(app):
    page = app.open("#/motif/2")
    page.get_by_role("button", name="No outside corner yet").click()  # one press, and it is made, used and seen
    corner = page.get_by_role("region", name="Corner")
    way = corner.get_by_role("radiogroup", name="and the repeat is")
    expect(way.get_by_role("radio", checked=True)).to_have_text("bent round")  # strands that overlap, whole
    assert brush(app, page, "Three-strand rope")["settings"]["ends"]["outside_corner"] == "piece"
    piece = brush(app, page, "Three-strand rope")["pieces"]["outside_corner"]
    made = next(m for m in app.state(page)["motifs"] if m["id"] == piece)
    repeat = next(m for m in app.state(page)["motifs"] if m["name"] == "Rope strand")
    length, gap = repeat["width_mm"], -0.58 * repeat["width_mm"]
    radius = made["width_mm"] - made["base_line_mm"]
    count = (radius * math.pi / 2 - gap) / (length + gap)  # a quarter of the circle holds n pitches and one gap
    assert count == pytest.approx(round(count), abs=1e-3)
    joins = corner.get_by_label("Joins of the corner")
    angle = page.get_by_role("slider", name="Angle of the corner")
    expect(angle).to_be_focused()  # arrows turn it at once
    box, sheet = angle.bounding_box(), page.get_by_test_id("corner").bounding_box()
    x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
    vertex = np.array([sheet["x"] + sheet["width"] / 2, sheet["y"] + 0.3 * sheet["height"]])
    towards = vertex + 150 * np.array([np.cos(np.radians(50)), np.sin(np.radians(50))])  # 130° between the legs
    page.mouse.move(x, y)
    page.mouse.down()
    page.mouse.move(*towards, steps=8)
    expect(angle).to_have_attribute("aria-valuenow", re.compile("^(129|130|131)$"))
    page.mouse.up()
    for _ in range(3):
        page.keyboard.press("ArrowLeft")
    expect(angle).to_have_attribute("aria-valuenow", re.compile("^(126|127|128)$"))
    assert max(figure(joins.inner_text(), pattern) for pattern in (r"([\d.]+) mm", r"step\s+([\d.]+) mm")) < 0.02
    page.set_viewport_size({"width": 1024, "height": 700})
    for name in ("Done", "Work on it by hand"):
        expect(corner.get_by_role("button", name=name)).to_be_in_viewport(ratio=1)
    there = {motif["id"] for motif in app.state(page)["motifs"]}
    way.get_by_role("radio", name="mitred").press("Enter")
    expect(way.get_by_role("radio", checked=True)).to_have_text("mitred")
    anew = brush(app, page, "Three-strand rope")["pieces"]["outside_corner"]
    assert {motif["id"] for motif in app.state(page)["motifs"]} == there - {piece} | {anew} != there  # it took the other's place
    corner.get_by_role("radio", name="inside").click()
    expect(corner.get_by_role("button", name="Make the inside corner")).to_be_visible()
    page.keyboard.press("Escape")
    expect(corner).to_have_count(0)
    page.get_by_role("button", name="outside corner, to the bench").click()
    expect(page.get_by_test_id("open-name")).to_contain_text("outside corner")  # and can be worked on
    expect(page.get_by_text("It lies between the run that enters and the run that leaves")).to_be_visible()


def test_a_ground_of_one_s_own_lies_under_the_work(app):
    page = app.open("#/repeat/1")
    page.get_by_label("Own ground").fill("#123a4c")
    band = page.get_by_role("region", name="Flat run")
    expect(band).to_have_css("background-color", "rgb(18, 58, 76)")
    page.reload()
    expect(band).to_have_css("background-color", "rgb(18, 58, 76)")
    page.get_by_role("group", name="Ground under the work").get_by_role("button", name="light").click()
    expect(band).not_to_have_css("background-color", "rgb(18, 58, 76)")
