"""Jobs of loose brushes and of inks: what varies is set, dealt, pinned, coloured, and comes out as it was seen."""

import csv
import io
import re

import numpy as np
import pytest
from bench_helper import asked, calm, kept, typed
from playwright.sync_api import expect

from sewn_garland.core.drawing.buffers import unpack

pytestmark = pytest.mark.browser

STITCH, LANTERN, CARD, TOWEL = "#/repeat/1", "#/repeat/13", "#/page/5", "#/page/2"


def varied(page, *words):
    asked(page, "How loosely?")
    for word in words:
        page.get_by_role("button", name=word, exact=True).click()
        expect(page.get_by_role("group", name=word, exact=True)).to_be_visible()
    kept(page)


def settings(app, page, brush):
    brushes = page.request.get(f"{app.address}/api/workshop").json()["brushes"]
    return next(each for each in brushes if each["id"] == brush)


def scattered(page):
    asked(page, "How does it travel?")
    page.get_by_role("radio", name="scattered").click()
    kept(page)


def pieces_of(app, page, sheet):
    text = page.request.get(f"{app.address}/api/pages/{sheet}/pieces.csv").text()
    return list(csv.DictReader(io.StringIO(text)))


def laid_pieces(app, page, sheet):
    """Return what the sheet is painted from: by line the header and the tables."""
    header, tables = unpack(page.request.post(f"{app.address}/api/pages/{sheet}/lay", data={"seq": 1, "client": "test"}).body())
    return list(zip(header["scenes"], tables, strict=True))


def test_scatters_a_brush_in_one_press_and_nothing_is_at_fault(app):
    page = app.open(STITCH)
    scattered(page)
    expect(page.get_by_test_id("words")).to_contain_text("scattered along the line")
    expect(page.get_by_test_id("words")).to_contain_text("Loosely: size, turn, across")
    expect(page.get_by_text("All 8 are clean.")).to_be_visible()
    own = settings(app, page, 1)["settings"]
    assert [v["of"] for v in own["variations"]] == ["size", "turn", "across"]


def test_sets_both_ends_of_a_bar_by_keys_by_typing_and_by_the_band_on_the_run(app):
    page = app.open(STITCH)
    scattered(page)
    asked(page, "How loosely?")
    least, most = (page.get_by_role("slider", name=f"size, {end}") for end in ("least", "most"))
    least.focus()
    for key, is_now in (("ArrowRight", 75), ("Shift+ArrowLeft", 25), ("Shift+ArrowRight", 75), ("ArrowLeft", 70)):
        page.keyboard.press(key)
        expect(least).to_have_attribute("aria-valuenow", str(is_now))
    most.focus()
    page.keyboard.press("ArrowRight")
    kept(page)
    assert settings(app, page, 1)["settings"]["variations"][0]["between"] == [70, 105]
    typed(page, "across from", -200)
    typed(page, "across to", 300)
    band = page.get_by_role("slider", name="Across on the run, to")
    expect(band).to_have_attribute("aria-valuenow", "300")
    box = page.get_by_role("slider", name="Across on the run, from").bounding_box()
    page.mouse.move(box["x"] + box["width"] / 2, box["y"] + box["height"] / 2)
    page.mouse.down()
    page.mouse.move(box["x"] + box["width"] / 2, box["y"] + box["height"] / 2 - 20, steps=4)
    page.mouse.up()
    kept(page)
    low, high = settings(app, page, 1)["settings"]["variations"][2]["between"]
    assert low < -200
    assert high == 300


def test_what_is_beyond_the_limits_is_refused_at_the_field_in_the_words_of_the_file(app):
    page = app.open(STITCH)
    varied(page, "opacity")
    field = page.get_by_label("opacity to", exact=True)
    field.fill("130")
    field.press("Enter")
    expect(page.get_by_role("alert")).to_have_text("opacity goes between values from 0 to 100 %; take two of these")
    refused = page.request.patch(f"{app.address}/api/brushes/1", data={
        "version": settings(app, page, 1)["version"], "change": {"variations": [{"of": "opacity", "between": [0, 130]}]},
    })  # fmt: skip
    assert refused.status == 422
    assert "opacity goes between values from 0 to 100 %; take two of these" in refused.json()["message"]


def test_deals_twelve_takes_one_pins_another_and_finds_both_again(app):
    page = app.open(STITCH)
    scattered(page)
    asked(page, "How loosely?")
    page.get_by_role("button", name="See twelve").click()
    tray = page.get_by_role("group", name="Arrangements")
    expect(tray.get_by_role("button", name=re.compile(r"^Arrangement \d+$"))).to_have_count(12)
    tray.get_by_role("button", name="Pin arrangement 4").click()
    kept(page)
    tray.get_by_role("button", name="Arrangement 9", exact=True).click()
    kept(page)
    page.reload()
    calm(page)
    asked(page, "How loosely?")
    expect(page.get_by_test_id("arrangement")).to_have_text("9")
    page.keyboard.press("q")
    page.keyboard.press("z")
    expect(tray.get_by_role("button").first).to_be_focused()
    page.get_by_role("button", name="Take pinned arrangement 4").click()
    kept(page)
    own = settings(app, page, 1)
    assert (own["settings"]["variants"]["arrangement"], own["pinned"]) == (4, [4])


def test_an_arrangement_held_is_only_shown_and_one_pressed_is_taken(app):
    page = app.open(STITCH)
    scattered(page)
    asked(page, "How loosely?")
    page.get_by_role("button", name="See twelve").click()
    ninth = page.get_by_role("button", name="Arrangement 9", exact=True)
    ninth.hover()
    page.mouse.down()
    expect(ninth).to_have_attribute("aria-pressed", "true")
    page.mouse.up()
    expect(ninth).to_have_attribute("aria-pressed", "false")
    expect(page.get_by_role("button", name=re.compile("^Undo: arrangement"))).to_have_count(0)
    ninth.click()
    expect(page.get_by_role("button", name="Undo: arrangement 9")).to_be_visible()
    assert settings(app, page, 1)["settings"]["variants"]["arrangement"] == 9


def test_flecks_of_foam_are_dealt_again_until_they_please_and_the_export_shows_just_these(app):
    page = app.open(CARD)
    lines = page.get_by_role("complementary", name="Lines")
    lines.get_by_role("button", name=re.compile("^Foam at the bow")).first.click()
    before = pieces_of(app, page, 5)
    page.keyboard.press("q")
    page.keyboard.press("d")
    expect(page.get_by_test_id("arrangement")).to_have_text("2")
    page.get_by_role("button", name="Deal again").click()
    expect(page.get_by_test_id("arrangement")).to_have_text("3")
    kept(page)
    page.get_by_role("button", name="Ink lantern").click()
    kept(page)
    after = pieces_of(app, page, 5)
    for number, (_scene, tables) in enumerate(laid_pieces(app, page, 5)):
        rows = [row for row in after if row["line"] == str(number)]
        matrices = tables["pieces", 0]
        listed = np.array([[float(row["x_mm"]), float(row["y_mm"])] for row in rows])
        assert matrices[:, 4:] == pytest.approx(listed, abs=1e-4)
        if ("opacity", 0) in tables:
            assert tables["opacity", 0].ravel() == pytest.approx([float(row["opacity"]) for row in rows], abs=1e-6)
    assert [row for row in before if row["line"] == "5"] != [row for row in after if row["line"] == "5"]
    assert [row for row in before if row["line"] != "5"] == [row for row in after if row["line"] != "5"]
    foam = [row for row in after if row["ink"] == "#f2a93b"]
    assert {row["line"] for row in foam} == {"5"}
    svg = page.request.get(f"{app.address}/api/pages/5/page.svg").text()
    assert svg.count('fill="#f2a93b"') >= 1


def test_terns_round_an_anchor_are_told_by_numbers(app):
    """Pitch 125 %, across 250 %, size ± 50 %; the truth is the numbers that were typed."""
    page = app.open(STITCH)
    scattered(page)
    asked(page, "How often?")
    typed(page, "Gap", 25)
    asked(page, "How loosely?")
    for field, value in (
        ("size from", 50),
        ("size to", 150),
        ("across from", -250),
        ("across to", 250),
        ("turn from", -180),
        ("turn to", 180),
    ):
        typed(page, field, value)
    sheet = page.request.post(f"{app.address}/api/pages", data={"name": "Anchor", "width_mm": 200, "height_mm": 200}).json()["id"]
    for size, d in ((100, "M20 100H180"), (50, "M20 150H180")):
        sent = {"brush_id": 1, "source": {"kind": "path", "d": d}, "size_pct": size}
        assert page.request.post(f"{app.address}/api/pages/{sheet}/lines", data=sent).ok
    rows = pieces_of(app, page, sheet)
    for line, y, size in (("0", 100, 1.0), ("1", 150, 0.5)):
        own = [row for row in rows if row["line"] == line]
        s, off, scale = (np.array([float(row[key]) for row in own]) for key in ("s_mm", "y_mm", "scale_x"))
        length = 8 * size
        assert np.diff(s) == pytest.approx(1.25 * length)
        assert np.abs(off - y).max() <= 2.5 * length
        assert np.abs(off - y).max() > 1.2 * length
        assert scale.min() >= 0.5 * size
        assert scale.max() <= 1.5 * size
        assert np.ptp(scale) > 0.5 * size


def test_several_blades_stand_at_a_stop_on_one_side_turned_between_limits(app):
    page = app.open("#/repeat/3")
    scattered(page)
    varied(page, "how many")
    for field, value in (("how many from", 2), ("how many to", 4), ("turn from", -40), ("turn to", 10)):
        typed(page, field, value)
    own = settings(app, page, 3)["settings"]["variations"]
    assert {v["of"]: v["between"] for v in own if v["of"] in ("turn", "count")} == {"turn": [-40, 10], "count": [2, 4]}
    sheet = page.request.post(f"{app.address}/api/pages", data={"name": "Dune", "width_mm": 300, "height_mm": 200}).json()["id"]
    sent = {"brush_id": 3, "source": {"kind": "path", "d": "M20 100H280"}}
    assert page.request.post(f"{app.address}/api/pages/{sheet}/lines", data=sent).ok
    rows = pieces_of(app, page, sheet)
    turns = np.array([float(row["turn_deg"]) for row in rows])
    assert turns.min() >= -40
    assert turns.max() <= 10
    assert set(np.bincount([int(row["stop"]) for row in rows]).tolist()) == {2, 3, 4}


def test_floats_take_turns_between_two_inks_and_a_line_passes_from_one_to_the_other(app):
    page = app.open(STITCH)
    asked(page, "What colour?")
    for label, value, told in (("Ink, a colour", "#c9971c", "ink #c9971c"), ("Second ink, a colour", "#3f7150", "second ink #3f7150")):
        page.get_by_label(label).fill(value)
        expect(page.get_by_role("button", name=f"Undo: {told}")).to_be_visible()
        kept(page)
    varied(page, "mix of inks")
    page.get_by_label("mix of inks follows").select_option("turns")
    expect(page.get_by_role("button", name="Undo: mix of inks in turns")).to_be_visible()
    kept(page)
    sheet = page.request.post(f"{app.address}/api/pages", data={"name": "Floats", "width_mm": 200, "height_mm": 50}).json()["id"]
    assert page.request.post(
        f"{app.address}/api/pages/{sheet}/lines", data={"brush_id": 1, "source": {"kind": "path", "d": "M10 25H190"}}
    ).ok
    inks = [row["ink"] for row in pieces_of(app, page, sheet)]
    assert set(inks[::2]) == {"#c9971c"}
    assert set(inks[1::2]) == {"#3f7150"}
    page.get_by_label("mix of inks follows").select_option("length")
    expect(page.get_by_role("button", name="Undo: mix of inks start to end")).to_be_visible()
    kept(page)
    passing = [row["ink"] for row in pieces_of(app, page, sheet)]
    assert len(set(passing)) == len(passing)


def test_an_ink_of_the_palette_changes_on_every_line_that_has_it(app):
    page = app.open(CARD)
    lines = page.get_by_role("complementary", name="Lines")
    lines.get_by_role("button", name=re.compile("^Glow on the water")).first.click()
    page.get_by_role("button", name="palette").click()
    palette = page.get_by_role("region", name="Palette of the page")
    expect(palette).to_contain_text("4.6 : 1")
    palette.get_by_label("Colour of ember").fill("#d04020")
    kept(page)
    kept_lines = page.request.get(f"{app.address}/api/pages/5").json()
    assert [line["ink"] for line in kept_lines["lines"] if line["name"] == "Glow on the water"] == ["#d04020"]
    page.get_by_role("button", name=re.compile("^Undo")).click()
    kept(page)
    again = page.request.get(f"{app.address}/api/pages/5").json()
    assert [line["ink"] for line in again["lines"] if line["name"] == "Glow on the water"] == ["#e0654a"]


def test_a_brush_that_only_lightens_is_shown_on_the_dark_ground(app):
    page = app.open(LANTERN)
    choice = page.get_by_role("group", name="Ground under the work")
    expect(choice.get_by_role("button", name="dark")).to_have_attribute("aria-pressed", "true")
    page = app.open(STITCH)
    expect(page.get_by_role("group", name="Ground under the work").get_by_role("button", name="light")).to_have_attribute(
        "aria-pressed", "true"
    )
