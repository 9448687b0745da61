"""Jobs of joining cleanly, from the interface to the figures of what was laid."""

from __future__ import annotations

import csv
import io
import re

import numpy as np
import pytest
import shapely
from bench_helper import calm
from playwright.sync_api import expect

from making import measured, svg
from sewn_garland.core.measuring.arc_length import frames_at
from sewn_garland.demo.build import NUMERAL_7

pytestmark = pytest.mark.browser


def pieces_of(app, page, page_id):
    """Return the rows of the list of pieces that a page gives away."""
    text = page.request.get(f"{app.address}/api/pages/{page_id}/pieces.csv").text()
    return list(csv.DictReader(io.StringIO(text)))


def ends_of(rows, inner):
    """Return both joints (n, 2, 2) of links whose joints are ``inner`` mm apart, from place, turn and size alone."""
    figures = np.array([[float(r[k]) for k in ("x_mm", "y_mm", "turn_deg", "scale_x")] for r in rows])
    turn = np.radians(figures[:, 2])
    half = (inner / 2 * figures[:, 3])[:, None] * np.stack([np.cos(turn), np.sin(turn)], axis=1)
    return np.stack([figures[:, :2] - half, figures[:, :2] + half], axis=1)


def choose(page, group, name):
    page.get_by_role("radiogroup", name=group).get_by_role("radio", name=name, exact=True).click()


def test_a_mooring_chain_of_two_links_closes_round_the_mug_wrap_without_an_open_joint(app):
    page = app.open("#/page/3")
    expect(page.get_by_text("None: every join keeps its wish.")).to_be_visible()
    rows = pieces_of(app, page, 3)
    assert len(rows) % 2 == 0
    assert [r["variant"] for r in rows] == ["0", "1"] * (len(rows) // 2)
    joints = ends_of(rows, 13.0)
    assert np.hypot(*(joints[:, 1] - np.roll(joints[:, 0], -1, axis=0)).T).max() < 1e-6


def test_a_rope_border_has_its_corner_knots_and_then_mitres_at_another_angle_too(app):
    page = app.open("#/page/2")
    border = [r for r in pieces_of(app, page, 2) if r["line"] == "0"]
    assert [r["role"] for r in border].count("outside_corner") == 4
    page.goto(f"{app.address}/#/repeat/10")
    calm(page)
    page.get_by_role("button", name="At ends and corners?").click()
    expect(page.get_by_test_id("verdict-point")).to_contain_text("joins within 0.01 mm")
    choose(page, "Outside corner", "mitre")
    expect(page.get_by_test_id("words")).to_contain_text("It mitres outside corners")
    expect(page.get_by_test_id("verdict-point")).to_contain_text("joins within 0.01 mm")
    expect(page.get_by_role("status").filter(has_text="All changes kept")).to_be_visible()
    border = [r for r in pieces_of(app, page, 2) if r["line"] == "0"]
    assert {r["role"] for r in border} == {"repeat"}
    corners = np.array([[26, 26], [454, 26], [454, 674], [26, 674]])
    places = np.array([[float(r["x_mm"]), float(r["y_mm"])] for r in border])
    for corner in corners:  # a piece's middle on each vertex, from both legs
        assert (np.hypot(*(places - corner).T) < 1e-6).sum() == 2


FLAP = "M40 60H180V110C180 150 140 168 110 168S40 150 40 110Z"  # of a ticket wallet


def test_two_rows_of_running_stitch_are_kept_in_step_round_a_ticket_wallet_s_flap(app):
    page = app.open("#/page/1")
    drawing = svg(f'<path d="{FLAP}"/>', 400, 300).encode()
    page.get_by_test_id("lines-file").set_input_files({"name": "flap.svg", "mimeType": "image/svg+xml", "buffer": drawing})
    expect(page.get_by_role("button", name=re.compile("^Undo: bring in"))).to_be_visible()
    page.goto(f"{app.address}/#/repeat/1")
    calm(page)
    page.get_by_role("button", name="Which one next?").click()
    page.get_by_role("textbox", name="Rows beside the line").fill("5")
    page.keyboard.press("Enter")
    expect(page.get_by_test_id("words")).to_contain_text("It lies in 2 rows")
    choose(page, "Rows are eased", "in step with the first")
    expect(page.get_by_role("button", name="Undo: rows in step")).to_be_visible()
    expect(page.get_by_role("status").filter(has_text="All changes kept")).to_be_visible()
    rows = pieces_of(app, page, 1)
    last = max(int(r["line"]) for r in rows)
    own = [r for r in rows if int(r["line"]) == last]
    first, second = ([r for r in own if r["run"] == run] for run in ("0", "1"))
    assert len(first) == len(second) > 10
    places = [np.array([[float(r["x_mm"]), float(r["y_mm"])] for r in each]) for each in (first, second)]
    apart = np.hypot(*(places[0] - places[1]).T)
    assert apart == pytest.approx([5.0] * len(first), abs=1e-6)  # the same place along the line, 5 mm beside it
    assert shapely.distance(shapely.LinearRing(polyline(FLAP)), shapely.points(places[0])).max() < 0.01


def polyline(path):
    line = measured(path)
    return frames_at(line, np.linspace(0, line.length, 20_000, endpoint=False)).position


def test_cable_stitch_follows_the_outline_of_a_numeral_and_closes(app):
    page = app.open("#/page/4")
    expect(page.get_by_text("None: every join keeps its wish.")).to_be_visible()
    rows = pieces_of(app, page, 4)
    places = np.array([[float(r["x_mm"]), float(r["y_mm"])] for r in rows])
    steps = np.hypot(*(places - np.roll(places, 1, axis=0)).T)
    assert len(rows) > 40 and steps.max() < 1.02 * np.median(steps)  # no larger step where the line closes
    off = shapely.distance(shapely.LinearRing(polyline(NUMERAL_7)), shapely.points(places))
    sharpest = np.radians(146)  # at most this turn, rounded with 6 mm: the arc stays r/cos(θ/2) − r from its corner
    assert off.max() < 6 / np.cos(sharpest / 2) - 6
    assert np.median(off) < 1e-6


def test_a_brush_too_stiff_for_a_hairpin_is_told_before_it_is_laid_and_cured_in_one_press(app):
    page = app.open("#/repeat/1")
    expect(page.get_by_test_id("safe-radius")).to_have_text("radius 26.3 mm")
    page.get_by_test_id("trial-hairpin").click()
    cure = page.get_by_role("button", name="Bend the pieces").first
    cure.click()
    expect(page.get_by_test_id("words")).to_contain_text("bent at bends")
    expect(page.get_by_test_id("safe-radius")).to_have_text("radius 0.9 mm")
    expect(page.get_by_label("Trial lines")).to_contain_text(re.compile("joins within 0.01 mm"))


BORDERS = {"slide": 1, "glide": 2, "upright": 2, "along": 1, "half turn": 2, "turn glide": 4, "all": 2}
KEYS = {"half turn": "half_turn", "turn glide": "half_turn_glide"}


@pytest.mark.parametrize("name", BORDERS)
def test_a_wave_border_in_each_of_the_seven_arrangements(app, name):
    page = app.open("#/repeat/6")
    page.get_by_role("button", name="Which one next?").click()
    options = page.get_by_role("radiogroup", name="Border arrangement, laid without gaps")
    expect(options.get_by_role("radio", name="slide", exact=True)).to_be_checked()  # as it is recognised
    if name != "slide":
        options.get_by_role("radio", name=name, exact=True).click()
        expect(page.get_by_role("button", name="Undo: border of Wave border")).to_be_visible()
    expect(options.get_by_role("radio", name=name, exact=True)).to_be_checked()
    brush = next(b for b in app.state(page)["brushes"] if b["name"] == "Wave border")
    assert len(brush["pieces"]["repeat"]) == BORDERS[name]
    assert app.state(page, f"/api/brushes/{brush['id']}/border")["arrangement"] == KEYS.get(name, name)
    expect(page.get_by_test_id("verdict-straight")).to_contain_text("joins within 0.01 mm")


def test_one_drawing_is_stretched_once_along_a_swag_with_its_ends_in_proportion(app):
    page = app.open("#/repeat/3")
    page.get_by_role("button", name="How does it travel?").click()
    choose(page, "Travel", "in proportion")
    expect(page.get_by_test_id("words")).to_contain_text("once, in proportion along the line")
    expect(page.get_by_role("status").filter(has_text="All changes kept")).to_be_visible()
    swag = [r for r in pieces_of(app, page, 2) if r["line"] == "1"]
    assert len(swag) == 1
    assert float(swag[0]["scale_x"]) == pytest.approx(float(swag[0]["scale_y"]))
    choose(page, "Travel", "once, length")
    expect(page.get_by_role("button", name="Undo: once, length only")).to_be_visible()
    expect(page.get_by_role("status").filter(has_text="All changes kept")).to_be_visible()
    swag = [r for r in pieces_of(app, page, 2) if r["line"] == "1"]
    assert float(swag[0]["scale_y"]) == pytest.approx(1.3)
    assert float(swag[0]["scale_x"]) > 5


def test_findings_of_a_kind_are_one_row_with_what_removes_them_all(app):
    page = app.open("#/repeat/1")
    page.get_by_test_id("trial-letter").click()
    bends = page.get_by_role("listitem").filter(
        has=page.get_by_role("button", name=re.compile(r"^3 bends below 26.3 mm, tightest 9.0 mm$"))
    )
    expect(bends).to_have_count(1)
    bends.get_by_role("button", name="3 places").click()
    expect(bends.get_by_role("listitem")).to_have_count(3)
    bends.get_by_role("button", name="Bend the pieces").first.click()
    expect(page.get_by_text(re.compile("^None: joins within"))).to_be_visible()


def test_findings_of_all_lines_come_back_when_the_chosen_line_is_taken_back(app):
    page = app.open("#/page/1")
    lines = app.state(page, "/api/pages/1")["lines"]
    send = {"brush_id": lines[0]["brush_id"], "name": "Straight", "source": {"kind": "path", "d": "M20 20H120"}}
    assert page.request.post(f"{app.address}/api/pages/1/lines", data=send).status == 201
    page.reload()
    expect(page.get_by_role("heading", name="Findings on Straight")).to_be_visible()
    page.locator("body").press("Control+z")
    expect(page.get_by_role("heading", name="Findings on the page")).to_be_visible()
    expect(page.get_by_role("button", name=re.compile("^gap|gaps, widest"))).not_to_have_count(0)


def test_the_page_draws_with_the_brush_that_was_tuned_last(app):
    page = app.open("#/repeat/4")
    name = next(brush["name"] for brush in app.state(page)["brushes"] if brush["id"] == 4)
    page.locator("body").press("3")
    expect(page.get_by_role("button", name=f"Brush for the next line: {name}")).to_be_visible()
    page.get_by_role("button", name="Brush for the next line").click()
    choices = page.get_by_role("menuitemradio")
    expect(choices).to_have_count(len(app.state(page)["brushes"]))
    expect(choices.locator("canvas")).to_have_count(choices.count())  # each with its picture
