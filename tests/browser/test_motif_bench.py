"""The Motif station by hand and key: marks that are pulled, pictures that are prepared, what is told while it happens."""

import io
import re
from pathlib import Path

import numpy as np
import pytest
from bench_helper import calm, kept
from PIL import Image, ImageDraw
from playwright.sync_api import expect

from making import svg
from sewn_garland.core.artwork.box import ink_box
from sewn_garland.core.maths.outlines import area_of
from sewn_garland.workshop import originals

pytestmark = pytest.mark.browser
AXE = Path(__file__).parents[2] / "frontend/node_modules/axe-core/axe.min.js"


def png(draw, size=(400, 300), ground="white", dpi=(254, 254)):
    image = Image.new("RGB", size, ground)
    draw(ImageDraw.Draw(image))
    out = io.BytesIO()
    image.save(out, "PNG", dpi=dpi)
    return out.getvalue()


def bring_in(page, name, data):
    page.get_by_test_id("motif-file").set_input_files({"name": name, "mimeType": "image/png", "buffer": data})


def test_a_part_is_pulled_sized_by_its_arrow_and_turned_by_its_ring(bench):
    bench.begin("Bar")
    bench.tab("Shapes")
    bench.choose("Bar")
    with bench.keeping():
        x, y = bench.at(5, 1.25)
        bench.drag((x, y), (x + 3 * bench.scale, y + 2 * bench.scale))
    assert ink_box(bench.motif) == pytest.approx((3, 2, 13, 4.5), abs=0.06)
    with bench.keeping():
        x, y = bench.middle("Size of the chosen parts")
        bench.drag((x, y), (x + 2.5 * bench.scale, y))
    left, top, right, bottom = ink_box(bench.motif)
    assert right - left == pytest.approx(15, abs=0.1)  # pulled on one side, grown on both
    assert (left + right) / 2 == pytest.approx(8, abs=0.05)
    with bench.keeping():
        cx, cy = bench.at(8, 3.25)
        x, y = bench.middle("Turn the chosen parts")
        bench.drag((x, y), (cx + (cy - y), cy))
    left, top, right, bottom = ink_box(bench.motif)
    assert bottom - top == pytest.approx(15, abs=0.1)
    assert bench.message["recipes"] == []  # its figures no longer say what it is


def test_marks_are_stepped_with_the_arrow_keys_and_let_go_with_escape(bench):
    page = bench.page
    bench.open(6)
    page.get_by_role("slider", name="Base line").focus()
    with bench.keeping():
        page.keyboard.press("ArrowDown")
    assert bench.message["base_line_mm"] == pytest.approx(5.1)
    page.get_by_role("slider", name="Right cut").focus()
    with bench.keeping():
        page.keyboard.press("Shift+ArrowLeft")
    assert bench.message["cuts_mm"] == pytest.approx([0, 19])
    page.get_by_role("slider", name="Left joint").focus()
    with bench.keeping():
        page.keyboard.press("ArrowRight")
    assert bench.message["joints_mm"][0] == pytest.approx([0.1, 5.1])
    bench.press("Joints to the ends")
    assert bench.message["joints_mm"] is None


def test_quick_steps_of_a_mark_all_arrive_and_are_one_step_to_undo(bench):
    page = bench.page
    bench.open(6)
    before, drawn = bench.message, ink_box(bench.motif)

    def stepped(mark, way):
        page.get_by_role("slider", name=mark).focus()
        for _ in range(8):
            page.keyboard.press(way)
        kept(page)
        now = bench.message, ink_box(bench.motif)
        page.get_by_role("button", name="Undo:").click()
        kept(page)
        return now

    assert stepped("Base line", "ArrowDown")[0]["base_line_mm"] == pytest.approx(before["base_line_mm"] + 0.8)
    assert stepped("Right cut", "ArrowLeft")[0]["cuts_mm"] == pytest.approx([0, before["width_mm"] - 0.8])
    wider, moved = stepped("Frame, left", "ArrowLeft")
    assert wider["width_mm"] == pytest.approx(before["width_mm"] + 0.8)
    assert moved == pytest.approx(np.add(drawn, (0.8, 0, 0.8, 0)))
    kept_as = ("base_line_mm", "cuts_mm", "width_mm")
    assert [bench.message[key] for key in kept_as] == [before[key] for key in kept_as]


def stepped_up(page, field):
    page.get_by_role("textbox", name=field, exact=True).focus()
    for _ in range(5):
        page.keyboard.press("ArrowUp")
    kept(page)


@pytest.mark.parametrize("field, grown", [("From the left", (0.5, 0, 0.5, 0)), ("Long", (0, 0, 0.5, 0))])
def test_quick_steps_of_a_part_s_figure_all_arrive_and_are_one_step_to_undo(bench, field, grown):
    bench.begin("Bar")
    bench.tab("Shapes")
    bench.choose("Bar")
    before = ink_box(bench.motif)
    stepped_up(bench.page, field)
    assert ink_box(bench.motif) == pytest.approx(np.add(before, grown), abs=0.02)  # a press of "Long" takes a share of what it finds
    bench.page.get_by_role("button", name="Undo:").click()
    kept(bench.page)
    assert ink_box(bench.motif) == pytest.approx(before)


@pytest.mark.parametrize("field, key, by", [("Length", "width_mm", 5), ("High", "height_mm", 0.5), ("Base line", "base_line_mm", 0.5)])
def test_quick_steps_of_a_motif_s_figure_all_arrive_and_are_one_step_to_undo(bench, field, key, by):
    bench.open(6)
    before = bench.message[key]
    stepped_up(bench.page, field)
    assert bench.message[key] == pytest.approx(before + by)
    bench.page.get_by_role("button", name="Undo:").click()
    kept(bench.page)
    assert bench.message[key] == pytest.approx(before)


def test_the_frame_is_pulled_onto_the_outline(bench):
    bench.begin("Bar")
    bench.tab("Shapes")
    bench.choose("Bar")
    bench.set("From the left", 2)
    bench.tab("Cut and frame")
    with bench.keeping():
        x, y = bench.middle("Frame, left")
        bench.drag((x, y), (x + 1.9 * bench.scale, y))  # near enough to the bar's edge to snap to it
    assert bench.message["width_mm"] == pytest.approx(8)
    assert ink_box(bench.motif)[0] == pytest.approx(0, abs=1e-3)


def test_a_gradient_is_painted_as_it_is_taken_away(bench):
    page = bench.page
    bench.begin("Bar")
    bench.tab("Paint")
    bench.choose("Bar")
    bench.press("Linear")
    canvas = page.get_by_test_id("motif-bench")
    box = canvas.bounding_box()

    def painted(x, y):
        px, py = bench.at(x, y)
        return canvas.evaluate(
            "(c, at) => [...c.getContext('2d').getImageData(at[0], at[1], 1, 1).data]", [round(px - box["x"]), round(py - box["y"])]
        )[:3]

    gradient = bench.motif.shapes[0].fill.gradient
    ends = [[int(s.colour[i : i + 2], 16) for i in (1, 3, 5)] for s in (gradient.stops[0], gradient.stops[-1])]
    for y, share in ((0.5, 0.2), (1.25, 0.5), (2.0, 0.8)):
        wanted = np.array(ends[0]) * (1 - share) + np.array(ends[1]) * share
        assert np.abs(np.array(painted(5, y)) - wanted).max() < 8


def test_a_mirrored_half_follows_while_the_other_is_pulled(bench):
    bench.begin("Pill")
    bench.tab("Shapes")
    bench.choose("Pill")
    bench.set("Long", 3)
    bench.press("Other half, left–right")
    with bench.keeping():
        x, y = bench.at(1.5, 1)
        bench.drag((x, y), (x - 1 * bench.scale, y))
    one, two = bench.motif.shapes
    assert two.derived
    assert one.points[:, 0].min() + two.points[:, 0].max() == pytest.approx(8, abs=0.01)
    assert one.points[:, 0].min() == pytest.approx(-1, abs=0.06)


def test_a_heavy_motif_is_told_before_it_is_laid_and_thinned_in_one_press(bench):
    page = bench.page
    angle = np.linspace(0, 2 * np.pi, 6000)
    points = " ".join(f"{20 + 15 * np.cos(a) * (1 + 0.02 * np.sin(40 * a)):.4f},{20 + 15 * np.sin(a):.4f}" for a in angle)
    heavy = svg(f'<polygon points="{points}" fill="#3f7f78"/>', 40, 40)
    page.get_by_test_id("motif-file").set_input_files({"name": "reef.svg", "mimeType": "image/svg+xml", "buffer": heavy.encode()})
    expect(page.get_by_text(re.compile("points in every piece make pages slow"))).to_be_visible()
    before = bench.motif
    with bench.keeping():
        page.get_by_role("button", name=re.compile("^Thin within")).click()
    after = bench.motif
    assert after.points < 0.6 * before.points
    areas = [sum(abs(area_of(s.commands, s.points)) for s in m.shapes) for m in (before, after)]
    assert areas[0] == pytest.approx(areas[1], rel=0.01)
    expect(page.get_by_test_id("weight")).to_contain_text(re.compile("light|fair"))


def test_a_thing_is_lifted_out_by_marks(bench):
    page = bench.page

    def scene(d):
        for y in range(300):
            d.line([0, y, 400, y], fill=(120 + y // 4, 150, 170 - y // 5))
        d.ellipse([140, 90, 260, 210], fill="#a63a2f")

    held = []
    page.route("**/shown.png", lambda route: held.append(route))  # it can be marked while it is being read, also where that is said
    bring_in(page, "buoy.png", png(scene))
    source = page.get_by_test_id("picture-source")
    expect(page.get_by_text(re.compile("^Reading buoy"))).to_be_visible()
    box, scale = source.bounding_box(), float(source.get_attribute("data-scale"))
    page.get_by_role("button", name="Belongs", exact=True).click()
    page.mouse.click(box["x"] + 200 * scale, box["y"] + 150 * scale)
    page.get_by_role("button", name="Does not belong").click()
    for x, y in ((30, 30), (370, 270), (370, 40), (40, 270)):
        page.mouse.click(box["x"] + x * scale, box["y"] + y * scale)
    expect(page.get_by_test_id("preview-figures")).to_contain_text(re.compile(r"A picture of 1[12]\.\d × 1[12]\.\d mm"))
    for route in held:
        route.continue_()
    page.get_by_role("button", name="Make the motif").click()
    expect(page.get_by_role("textbox", name="Name of the motif")).to_have_value("buoy")
    pixels = np.array(Image.open(io.BytesIO(bench.motif.shapes[0].picture.png)))
    assert (pixels[..., 3] > 128).sum() == pytest.approx(np.pi * 3600, rel=0.06)


def test_a_colour_is_picked_on_the_picture_and_cleared(bench):
    page = bench.page
    bring_in(page, "kelp.png", png(lambda d: d.rectangle([100, 50, 300, 250], fill="#2c4a84"), ground="#e0c040"))
    page.get_by_role("radio", name="a colour").click()
    source = page.get_by_test_id("picture-source")
    expect(source.locator("img")).to_have_js_property("complete", True)
    box, scale = source.bounding_box(), float(source.get_attribute("data-scale"))
    page.mouse.click(box["x"] + 20 * scale, box["y"] + 20 * scale)
    expect(page.get_by_label("Colour to clear")).to_have_value("#e0c040")
    expect(page.get_by_test_id("preview-figures")).to_contain_text("A picture of 20.1 × 20.1 mm")


def test_a_scan_that_comes_while_the_tray_is_open_appears_in_it(bench, tmp_path):
    page = bench.page
    page.get_by_role("button", name="Scan tray").click()
    expect(page.get_by_role("button", name=re.compile("plank-rubbing"))).to_be_visible()
    (tmp_path / "scans" / "gull-feather.png").write_bytes(png(lambda d: d.line([20, 20, 380, 280], fill="black", width=12)))
    expect(page.get_by_role("button", name=re.compile("gull-feather"))).to_be_visible()


def test_the_repeat_of_a_pictured_border_is_found_cut_and_darned(bench):
    page = bench.page

    def chain(d):
        for k in range(7):
            d.ellipse([30 + 130 * k, 30, 120 + 130 * k, 120], outline="#2c4a84", width=12)
            d.line([120 + 130 * k, 75, 160 + 130 * k, 75], fill="#2c4a84", width=8)

    bring_in(page, "chain-border.png", png(chain, size=(960, 150)))
    page.get_by_role("checkbox", name="Trim the empty margin").uncheck()
    page.get_by_role("button", name="Make the motif").click()
    expect(page.get_by_role("textbox", name="Name of the motif")).to_have_value("chain border")
    page.get_by_role("button", name="Find the repeat").click()
    with bench.keeping():
        page.get_by_test_id("found-repeat").get_by_role("button").first.click()
    cuts = bench.message["cuts_mm"]
    assert cuts[1] - cuts[0] == pytest.approx(13, abs=0.1)  # 130 px at 254 dpi
    bench.press("Darn the seam")
    assert bench.message["width_mm"] == pytest.approx(13, abs=0.1)
    expect(page.get_by_test_id("seam-figures")).to_contain_text(re.compile(r"edges differ by0\.\d\d mm"))


def test_long_work_is_stopped_and_leaves_nothing(bench):
    page = bench.page
    rng = np.random.default_rng(4)
    picture = np.full((1800, 2400), 255, np.uint8)
    picture[:200] = rng.integers(0, 255, (200, 2400))
    out = io.BytesIO()
    Image.fromarray(picture).convert("RGB").save(out, "PNG")
    bring_in(page, "storm.png", out.getvalue())
    page.get_by_role("radio", name="colours", exact=True).click()
    page.get_by_role("checkbox", name="Trim the empty margin").uncheck()
    page.get_by_role("button", name="Make the motif").click()
    page.get_by_role("button", name="Stop").click()
    expect(page.get_by_role("button", name="Make the motif")).to_be_visible(timeout=60_000)
    assert len(bench.app.state(page)["motifs"]) == 14
    page.close()
    assert originals.one_at_a_time.acquire(timeout=60)  # what was looked at last is done with before another picture is
    originals.one_at_a_time.release()


def test_everything_of_the_cut_is_at_hand_in_a_narrow_window(bench):
    page = bench.page
    page.set_viewport_size({"width": 1024, "height": 700})
    panel = page.get_by_role("region", name="Cut and frame")
    room = panel.bounding_box()
    for part in [*panel.get_by_role("button").all(), *panel.get_by_role("textbox").all(), panel.get_by_test_id("seam-figures")]:
        box = part.bounding_box()
        assert box["width"] > 20
        assert room["x"] <= box["x"] and box["x"] + box["width"] <= room["x"] + room["width"]
        assert box["y"] + box["height"] <= room["y"] + room["height"]


def test_letters_open_the_ways_to_begin_and_a_word_is_kept_with_undo(bench):
    page = bench.page
    page.locator("body").press("q")
    page.locator("body").press("a")
    expect(page.get_by_role("dialog", name="Starters").get_by_role("button", name="Pill")).to_be_focused()
    for key in ("ArrowUp", "ArrowDown", "ArrowDown", "ArrowRight", "ArrowUp"):
        page.keyboard.press(key)
    expect(page.get_by_role("button", name="Spiral", exact=True)).to_be_focused()
    page.get_by_role("button", name="Close").click()
    bench.tab("Shapes")
    bench.parts.first.click()
    bench.press("Duplicate")
    count = len(bench.message["shapes"])
    page.get_by_role("button", name=re.compile("^Undo: duplicate")).click()
    expect(page.get_by_role("button", name="Redo: duplicate: Running stitch")).to_be_enabled()
    assert len(bench.message["shapes"]) == count - 1
    page.keyboard.press("q")
    page.keyboard.press("m")
    expect(page.get_by_role("heading", name="Flat run")).to_be_visible()
    assert len(bench.app.state(page)["brushes"]) == 16


@pytest.mark.parametrize("screen", ["Shapes", "Points", "Paint", "Soft edge", "Starters", "Scan tray", "picture", "Pick up from a page"])
def test_every_screen_of_the_station_meets_wcag_2_2_aa(bench, screen):
    """WCAG 2.2 A and AA as checked by axe-core."""
    page = bench.page
    if screen == "picture":
        bring_in(page, "blot.png", png(lambda d: d.ellipse([100, 80, 300, 220], fill="black")))
        page.get_by_role("radio", name="ink and ground").click()
        expect(page.get_by_test_id("preview-figures")).to_contain_text("points, within")
    else:
        page.get_by_role("button", name=screen, exact=True).click()
        if screen in ("Shapes", "Points", "Paint", "Soft edge"):
            bench.parts.first.click()
        calm(page)
    page.evaluate(AXE.read_text())
    found = page.evaluate("axe.run(document, {runOnly: ['wcag2a', 'wcag2aa', 'wcag21aa', 'wcag22aa']})")["violations"]
    assert [(v["id"], [n["html"][:140] for n in v["nodes"][:3]]) for v in found] == []
