"""Making motifs in the Motif station, by job; each ends by measuring the motif that was made."""

import io
import math
import re
from dataclasses import replace

import numpy as np
import pytest
from bench_helper import calm, plain
from PIL import Image, ImageDraw
from playwright.sync_api import expect

from making import svg
from sewn_garland.core.artwork.box import ink_box
from sewn_garland.core.artwork.sections import seam_of
from sewn_garland.core.maths.colour import delta_e_2000, lab_from_srgb, rgb_from_hex
from sewn_garland.core.maths.outlines import area_of, subpaths

pytestmark = pytest.mark.browser


def area(shape):
    return abs(area_of(shape.commands, shape.points))


def test_makes_a_pill_stitch_with_two_tones(bench):
    bench.begin("Pill")
    bench.set("Length", 9, where=bench.page.get_by_role("group", name=re.compile("Figures of the pill")))
    bench.tab("Paint")
    bench.choose("Pill")
    bench.page.get_by_role("textbox", name="off the edge").fill("0.3")
    bench.page.get_by_role("textbox", name="off the edge").press("Enter")
    bench.press("Highlight")
    pill, light = bench.motif.shapes
    assert area(pill) == pytest.approx(7 * 2 + math.pi, rel=1e-3)
    assert light.fill.colour == "#ffffff"
    assert 0 < area(light) < 0.5 * area(pill)
    left, top, right, bottom = ink_box(bench.motif)
    assert (right - left, bottom - top) == pytest.approx((9, 2), abs=0.01)
    apart = delta_e_2000(lab_from_srgb(rgb_from_hex(pill.fill.colour)), lab_from_srgb(0.5 * rgb_from_hex(pill.fill.colour) + 0.5))
    assert apart > 10  # two tones that the eye tells apart at once


def test_makes_a_chain_link_with_a_real_hole_and_soft_shading(bench):
    bench.begin("Pill")
    figures = bench.page.get_by_role("group", name=re.compile("Figures of the pill"))
    bench.set("Length", 16, where=figures)
    bench.set("Thickness", 9, where=figures)
    bench.lay_onto("Pill")
    bench.tab("Shapes")
    bench.choose("Pill")
    bench.set("Long", 12)
    bench.set("High", 5)
    bench.press("in the frame")
    bench.page.get_by_role("list", name=re.compile("Parts")).get_by_role("button").nth(1).click(modifiers=["Shift"])
    bench.press("Cut out")
    bench.tab("Paint")
    bench.choose("Pill")
    bench.press("Linear")
    (link,) = bench.motif.shapes
    contours = list(subpaths(link.commands, link.points))
    assert len(contours) == 2  # a rim and a hole
    outer, hole = sorted((abs(area_of(*c)) for c in contours), reverse=True)
    assert outer == pytest.approx(7 * 9 + math.pi * 4.5**2, rel=1e-3)
    assert area(link) == pytest.approx(outer - hole, rel=1e-6)
    assert hole > 40
    assert link.fill.gradient.kind == "linear"
    assert bench.motif.height == pytest.approx(9)


def test_makes_five_unlike_leaves_as_variants_of_one_brush(bench):
    page = bench.page
    bench.begin("Leaf")
    page.get_by_role("button", name="Make a brush of it").click()
    expect(page.get_by_role("heading", name="Flat run")).to_be_visible()
    lengths = [14, 11, 16, 12.5, 9.5]
    for length, fullest in zip(lengths[1:], [55, 30, 65, 48], strict=True):
        page.goto(f"{bench.app.address}/#/motif/1")
        calm(page)
        bench.begin("Leaf")
        figures = page.get_by_role("group", name=re.compile("Figures of the leaf"))
        bench.set("Length", length, where=figures)
        bench.set("Fullest", fullest, where=figures)
        page.get_by_role("button", name="Brush to join: a brush").click()
        page.get_by_role("menuitemradio", name="Leaf", exact=True).click()
        expect(page.get_by_role("heading", name="Flat run")).to_be_visible()
    state = bench.app.state(page)
    brush = state["brushes"][-1]
    motifs = [bench.app.state(page, f"/api/motifs/{i}") for i in brush["pieces"]["repeat"]]
    assert [m["width_mm"] for m in motifs] == pytest.approx(lengths)
    assert len({m["shapes"][0]["d"] for m in motifs}) == 5
    expect(page.get_by_text("5 motifs in turn, Leaf first")).to_be_visible()
    expect(page.get_by_role("textbox", name="Pitch")).to_have_value(
        plain(f"{1.15 * sum(lengths) / 5:.2f}")
    )  # with the gap that keeps leaves apart


def test_makes_a_zigzag_of_two_mirrored_strokes(bench):
    bench.begin("Bar")
    figures = bench.page.get_by_role("group", name=re.compile("Figures of the bar"))
    bench.set("Length", 6, where=figures)
    bench.set("Thickness", 1, where=figures)
    bench.tab("Shapes")
    bench.choose("Bar")
    bench.set("Turn by", -45)
    bench.set("From the left", 0)
    bench.tab("Cut and frame")
    bench.press("Trim the margin")
    width = bench.message["width_mm"]
    with bench.keeping():
        height = bench.message["height_mm"] / 4
        bench.drag(bench.at(width, height), bench.at(2 * width - 1 / math.sqrt(2), height))
    bench.tab("Shapes")
    bench.choose("Bar")
    bench.press("Other half, left–right")
    one, two = bench.motif.shapes
    assert two.derived
    assert area(one) == pytest.approx(6, rel=1e-4)
    assert area(two) == pytest.approx(6, rel=1e-4)
    middle = bench.motif.width / 2
    assert sorted(2 * middle - one.points[:, 0]) == pytest.approx(sorted(two.points[:, 0]), abs=1e-3)
    angle = np.degrees(np.arctan2(*(one.points[1] - one.points[0])[::-1]))
    assert abs(angle) % 90 == pytest.approx(45, abs=0.01)
    assert one.points[:, 0].max() > two.points[:, 0].min()  # the strokes meet at the peak


def test_traces_a_plank_rubbing_from_the_scan_tray(bench):
    page = bench.page
    page.get_by_role("button", name="Scan tray").click()
    page.get_by_role("button", name=re.compile("plank-rubbing")).click()
    page.get_by_role("radio", name="ink and ground").click()
    expect(page.get_by_test_id("preview-figures")).to_contain_text("points, within")
    page.get_by_role("button", name="Make the motif").click()
    expect(page.get_by_role("textbox", name="Name of the motif")).to_have_value("Plank rubbing")
    motif = bench.motif
    assert motif.width == pytest.approx(79, abs=1)  # drawn 6 to 84 mm with round ends, scanned at 200 dpi
    assert sum(s.commands.count("M") for s in motif.shapes) > 17  # every line of the grain, and the knots
    assert 150 < motif.points < 2500
    assert re.match(r"\d+ points, (light|fair)", page.get_by_test_id("weight").text_content())


LONG = svg(
    '<path d="M0 8C6 3 14 4 22 6V14C14 16 6 17 0 12Z" fill="#a63a2f"/>'
    + "".join(
        f'<path d="M{22 + 20 * k} 7H{40 + 20 * k}V13H{22 + 20 * k}Z" fill="#2c4a84"/><path d="M{40 + 20 * k} 9.5h2v1h-2Z" fill="#5b4306"/>'
        for k in range(3)
    )
    + '<path d="M82 6L104 10L82 14Z" fill="#3f7f78"/>',
    104,
    20,
)


def test_cuts_a_long_drawing_in_three(bench):
    page = bench.page
    page.get_by_test_id("motif-file").set_input_files({"name": "barge-tow.svg", "mimeType": "image/svg+xml", "buffer": LONG.encode()})
    expect(page.get_by_role("textbox", name="Name of the motif")).to_have_value("barge tow")
    left = page.get_by_role("slider", name="Left cut").bounding_box()
    with bench.keeping():
        bench.drag((left["x"] + left["width"] / 2, left["y"] + 60), (bench.at(22, 0)[0], left["y"] + 60))
    expect(page.get_by_role("textbox", name="Left cut")).to_have_value("22")  # the tape snaps to the outline
    bench.set("Right cut", 42)
    expect(page.get_by_test_id("seam-figures")).to_contain_text("edges differ by5.00 mm")
    page.get_by_role("button", name="Cut in three pieces").click()
    expect(page.get_by_role("heading", name="Flat run")).to_be_visible()
    brush = bench.app.state(page)["brushes"][-1]
    expect(page.get_by_role("region", name="This brush, in words")).to_contain_text("barge tow, repeat repeated along the line")
    ids = brush["pieces"]["start"], brush["motif_id"], brush["pieces"]["end"]
    start, repeat, end = (bench.app.state(page, f"/api/motifs/{i}") for i in ids)
    assert (start["width_mm"], repeat["width_mm"], end["width_mm"]) == pytest.approx((22, 20, 62), abs=0.01)
    assert start["shapes"][0]["fill"] == "#a63a2f"
    assert {s["fill"] for s in repeat["shapes"]} == {"#2c4a84", "#5b4306"}
    assert end["shapes"][-1]["fill"] == "#3f7f78"


def test_makes_a_soft_shadow_with_its_densest_point_off_centre(bench):
    page = bench.page
    bench.begin("Ellipse")
    bench.set("Length", 20, where=page.get_by_role("group", name=re.compile("Figures of the ellipse")))
    bench.set("Height", 12, where=page.get_by_role("group", name=re.compile("Figures of the ellipse")))
    bench.lay_onto("Ellipse")
    bench.tab("Shapes")
    bench.choose("Ellipse")
    bench.set("Long", 4)
    bench.set("High", 3)
    bench.set("From the left", 12)
    bench.set("From the top", 3)
    bench.tab("Paint")
    for part, cover in ((0, 90), (1, 5)):
        page.get_by_role("list", name=re.compile("Parts")).get_by_role("button").nth(part).click()
        bench.set("covers", cover)
    bench.tab("Soft edge")
    page.get_by_role("list", name=re.compile("Parts")).get_by_role("button").nth(0).click(modifiers=["Shift"])
    bench.press("The fewest that cannot be seen")
    expect(page.get_by_test_id("grading")).to_contain_text(re.compile(r"\d+ steps, neighbours differ by at most ΔE \d"))
    shapes = bench.motif.shapes
    assert sum(s.derived for s in shapes) >= 10
    middles = np.array([(s.points.min(axis=0) + s.points.max(axis=0)) / 2 for s in shapes])
    assert middles[0] == pytest.approx([10, 6], abs=0.05)
    assert middles[-1] == pytest.approx([14, 4.5], abs=0.05)  # the densest place, off the centre
    assert (np.diff(middles[:, 0]) > -1e-3).all()
    covers = np.cumprod([1 - s.fill.opacity for s in shapes])
    assert 1 - covers[-1] == pytest.approx(0.9, abs=0.005)  # what was asked for at the densest place


def test_draws_by_hand_edits_a_point_and_undoes_it_all(bench):
    page = bench.page
    bench.begin("Bar")
    page.get_by_role("button", name="Draw", exact=True).click()
    with bench.keeping():
        page.mouse.move(*bench.at(1, 1))
        page.mouse.down()
        for x in np.linspace(1, 9, 14):
            page.mouse.move(*bench.at(x, 1 + 0.8 * math.sin(x)))
        page.mouse.up()
    drawn = bench.motif.shapes[1]
    assert drawn.stroke.width == pytest.approx(0.8)
    page.get_by_role("button", name="Done").click()
    bench.tab("Points")
    bench.choose("Bar")
    node = page.get_by_role("slider", name=re.compile("Point 2 of outline 1"))
    box = node.bounding_box()
    with bench.keeping():
        bench.drag((box["x"] + box["width"] / 2, box["y"] + box["height"] / 2), bench.at(13, 0))
    assert bench.motif.shapes[0].points[1] == pytest.approx([13, 0], abs=0.05)
    for _ in range(3):
        page.keyboard.press("Control+z")
        calm(page)
    expect(page.get_by_role("button", name=re.compile("^Redo"))).to_be_enabled()


def test_begins_a_motif_with_a_stroke_and_draws_on(bench):
    page = bench.page
    bench.begin("Bar")
    page.get_by_role("button", name="Draw", exact=True).click()
    page.get_by_role("button", name="onto Bar").click()
    bench.drag(bench.at(2, -0.6), bench.at(8, -0.6))
    expect(page.get_by_role("textbox", name="Name of the motif")).to_have_value("Drawing")
    assert (bench.motif.width, bench.motif.height) == pytest.approx((6.8, 0.8), abs=0.1)  # the stroke with its round ends
    with bench.keeping():
        bench.drag(bench.at(1, 1.5), bench.at(5, 1.5))
    assert len(bench.motif.shapes) == 2


def test_picks_up_a_region_of_a_page_as_a_motif(bench):
    page = bench.page
    page.get_by_role("button", name="Pick up from a page").click()
    sheet = page.get_by_test_id("pick-up-page").bounding_box()
    scale = sheet["width"] / 400
    bench.drag((sheet["x"] + 60 * scale, sheet["y"] + 180 * scale), (sheet["x"] + 140 * scale, sheet["y"] + 240 * scale))
    page.get_by_role("button", name="Pick up as a motif").click()
    expect(page.get_by_role("textbox", name="Name of the motif")).to_have_value("Picked up")
    motif = bench.motif
    assert (motif.width, motif.height) == pytest.approx((80, 60), abs=1)
    assert len(motif.shapes) > 10
    left, top, right, bottom = ink_box(motif)
    assert left >= -0.01 and top >= -0.01 and right <= motif.width + 0.01 and bottom <= motif.height + 0.01


def photo(width=600, height=420):
    image = Image.new("RGB", (width, height), "#b9c7cf")
    ImageDraw.Draw(image).ellipse([200, 110, 400, 310], fill="#a63a2f")
    out = io.BytesIO()
    image.save(out, "PNG", dpi=(254, 254))
    return out.getvalue()


def test_takes_a_picture_out_of_its_background_and_makes_a_stencil_of_it(bench):
    page = bench.page
    page.get_by_test_id("motif-file").set_input_files({"name": "red-float.png", "mimeType": "image/png", "buffer": photo()})
    page.get_by_role("radio", name="the background").click()
    expect(page.get_by_test_id("preview-figures")).to_contain_text("A picture of 20.")
    page.get_by_role("radio", name="a stencil").click()
    page.get_by_role("button", name="Make the motif").click()
    expect(page.get_by_role("textbox", name="Name of the motif")).to_have_value("red float")
    (shape,) = bench.motif.shapes
    assert shape.picture.stencil
    pixels = np.array(Image.open(io.BytesIO(shape.picture.png)))
    assert (pixels[..., 3] > 128).mean() == pytest.approx(math.pi / 4, abs=0.02)
    assert bench.motif.width == pytest.approx(20.1, abs=0.3)


@pytest.mark.parametrize(
    ("name", "data", "says"),
    [("torn.png", photo()[: len(photo()) // 2], "damaged or cut short"), ("text.jpg", b"not a picture", "not a PNG, JPEG, WebP or TIFF"), ("clip.png", b"GIF89a" + b"0" * 90, "not a PNG")],
)  # fmt: skip
def test_a_bad_picture_is_refused_in_a_sentence_and_the_motif_stays(bench, name, data, says):
    page = bench.page
    page.get_by_test_id("motif-file").set_input_files({"name": name, "mimeType": "image/png", "buffer": data})
    expect(page.get_by_role("alert")).to_contain_text(says)
    expect(page.get_by_test_id("motif-bench")).to_be_visible()
    assert len(bench.app.state(page)["motifs"]) == 14


def test_the_seam_follows_the_tape_while_it_is_dragged(bench):
    page = bench.page
    page.goto(f"{bench.app.address}/#/motif/6")
    calm(page)
    figures = page.get_by_test_id("seam-figures")
    expect(figures).to_contain_text("edges differ by0.0")
    tape = page.get_by_role("slider", name="Right cut").bounding_box()
    page.mouse.move(tape["x"] + tape["width"] / 2, tape["y"] + 70)
    page.mouse.down()
    page.mouse.move(tape["x"] - 120, tape["y"] + 70, steps=5)
    expect(figures).not_to_contain_text("edges differ by0.0")
    page.keyboard.press("Escape")
    page.mouse.up()
    assert bench.message["cuts_mm"] is None  # Escape let go without a change
    bench.press("Find the best cut")
    cuts = bench.message["cuts_mm"]
    seam = seam_of(replace(bench.motif, cuts=tuple(cuts)))
    assert seam.mismatch_mm < 0.05
    assert cuts[1] - cuts[0] > 5


def test_makes_a_corner_piece_where_the_sampler_shows_none(bench):
    page = bench.page
    page.goto(f"{bench.app.address}/#/motif/6")
    page.get_by_role("button", name="No outside corner yet").click()
    expect(page.get_by_role("radio", name="mitred")).to_be_checked()  # as suits a strip
    page.get_by_role("button", name="outside corner, to the bench").click()
    expect(page.get_by_role("textbox", name="Name of the motif")).to_have_value("Wave border, outside corner")
    corner = bench.motif
    assert corner.width == corner.height == pytest.approx(25)  # a repeat of 20 mm and the base line's 5
    points = np.vstack([s.points for s in corner.shapes])
    mirrored = np.stack([20 - (points[:, 1] - 5), 5 - (points[:, 0] - 20)], axis=1)
    box = [f(p, axis=0) for p in (points, mirrored) for f in (np.min, np.max)]
    assert box[0] == pytest.approx(box[2], abs=0.01)  # mirror-true about the bisector
    assert box[1] == pytest.approx(box[3], abs=0.01)
