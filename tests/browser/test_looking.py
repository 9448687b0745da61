"""Looking at the work: compare, dark ground, closer and further, the sheet from near and far."""

import base64
import io
import re

import numpy as np
import pytest
from bench_helper import calm
from PIL import Image
from playwright.sync_api import expect

from making import svg

pytestmark = pytest.mark.browser


# the pixels that an element shows of the canvas over it, once all that was asked of it is shown: its own where it is one,
# else of the canvas around or in front
PIXELS = """async (element, share) => {
  const canvas = element instanceof HTMLCanvasElement ? element : element.closest('section').querySelector('canvas');
  const boxes = () => [element, canvas].map((e) => JSON.stringify(e.getBoundingClientRect())).join() + canvas.dataset.asked;
  for (let still = 0, was = ''; still < 10; was = boxes()) { // laid out, asked for and shown, for ten frames
    await new Promise(requestAnimationFrame);
    still = was === boxes() && canvas.dataset.asked === canvas.dataset.shown ? still + 1 : 0;
  }
  const [own, all] = [element.getBoundingClientRect(), canvas.getBoundingClientRect()];
  const ratio = canvas.width / all.width;
  const [x, y] = [(own.x - all.x) * ratio, (own.y - all.y) * ratio].map(Math.round);
  const [w, h] = [own.width * ratio, own.height * ratio].map(Math.round);
  const copy = new OffscreenCanvas(canvas.width, canvas.height).getContext('2d');
  copy.drawImage(canvas, 0, 0);
  const take = (...box) => [...copy.getImageData(...box).data];
  if (share) return take(x + Math.round(w * share[0]), y + Math.round(h * share[1]), 1, 1);
  const alpha = take(x, y, w, h).filter((_, i) => i % 4 === 3);
  return alpha.filter((a) => a > 32).length / alpha.length;
}"""


def middle_colour(page, test_id, at=(0.5, 0.5)):
    """Return the colour painted where an element lies, at a share of its width and height, 0 where it is clear."""
    return page.get_by_test_id(test_id).evaluate(PIXELS, list(at))


def inked_share(page, test_id):
    """Return the share of an element that is painted."""
    return page.get_by_test_id(test_id).evaluate(PIXELS)


def test_holding_the_key_shows_the_brush_before_the_last_change(app):
    page = app.open("#/repeat/1")
    page.get_by_role("textbox", name="Gap").fill("150")
    page.keyboard.press("Enter")
    expect(page.get_by_role("button", name="Undo: gap to 150 %")).to_be_visible()
    expect(page.get_by_test_id("lens-0")).to_contain_text("12.00 mm")
    page.get_by_role("heading", name="Flat run").click()
    page.locator("body").evaluate("document.activeElement.blur()")
    page.keyboard.down("`")
    expect(page.get_by_text("as it was before")).to_be_visible()
    expect(page.get_by_test_id("lens-0")).to_contain_text("3.60 mm")
    page.keyboard.up("`")
    expect(page.get_by_test_id("lens-0")).to_contain_text("12.00 mm")


def test_the_ground_turns_dark_and_light_again_by_key(app):
    page = app.open("#/repeat/4")
    run = page.get_by_label("Flat run", exact=True)

    def ground():
        return run.evaluate("e => getComputedStyle(e).backgroundColor")

    assert ground() == "rgb(255, 255, 255)"
    page.keyboard.press("q")
    page.keyboard.press("n")
    choice = page.get_by_role("group", name="Ground under the work")
    expect(choice.get_by_role("button", name="dark")).to_have_attribute("aria-pressed", "true")
    assert sum(int(v) for v in re.findall(r"\d+", ground())[:3]) < 150
    choice.get_by_role("button", name="light").click()
    expect(choice.get_by_role("button", name="light")).to_have_attribute("aria-pressed", "true")


def test_closer_and_further_change_how_much_of_the_brush_is_seen(app):
    page = app.open("#/repeat/1")
    straight = page.get_by_test_id("trial-straight")
    expect(straight).to_have_attribute("data-pieces", "8")
    page.get_by_role("button", name="further").click()
    expect(page.get_by_text("Each 150 mm wide")).to_be_visible()
    expect(straight).to_have_attribute("data-pieces", "11")
    for _ in range(2):
        page.get_by_role("button", name="closer").click()
    expect(page.get_by_text("Each 60 mm wide")).to_be_visible()
    expect(straight).to_have_attribute("data-pieces", "5")


@pytest.mark.parametrize("where", ["inside the motif", "at an address of its own"])
def test_a_picture_is_painted_on_the_trial_lines_as_on_the_run(app, where):
    page = app.open()
    out, size = io.BytesIO(), (12, 8) if where == "inside the motif" else (600, 400)  # a large one is fetched by itself
    grain = np.random.default_rng(3).integers(0, 40, (size[1], size[0], 1))
    Image.fromarray((np.array([40, 160, 120]) + grain).astype(np.uint8)).save(out, "png")
    picture = f'<image href="data:image/png;base64,{base64.b64encode(out.getvalue()).decode()}" width="12" height="8"/>'
    motif = page.request.post(f"{app.address}/api/motifs", data={"name": "Sea glass", "svg": svg(picture, 12, 8)}).json()
    assert motif["shapes"][0]["picture"]["href"].startswith("data:" if where == "inside the motif" else "/api/")
    brush = page.request.post(f"{app.address}/api/brushes", data={"name": "Sea glass", "motif_id": motif["id"], "settings": {}}).json()
    page.goto(f"{app.address}/#/repeat/{brush['id']}")
    page.reload()
    calm(page)
    assert inked_share(page, "trial-straight") > 0.03
    for place in (page.get_by_test_id("flat-run").evaluate(PIXELS, [0.3, 0.41]), middle_colour(page, "trial-straight")):
        assert np.abs(np.array(place) - [60, 180, 140, 255]).max() <= 22
    change = {"version": brush["version"], "change": {"travel": {"round_bends": "bent"}}}
    assert page.request.patch(f"{app.address}/api/brushes/{brush['id']}", data=change).ok
    page.reload()
    calm(page)
    assert np.abs(np.array(middle_colour(page, "trial-wave")) - [60, 180, 140, 255]).max() <= 22  # bent, on its mesh


def test_the_trial_lines_are_painted_once_more_for_another_ground_and_size(app):
    page = app.open("#/repeat/10")
    sheet = page.get_by_test_id("trial-sheet")
    day, shown = inked_share(page, "trial-loop"), int(sheet.get_attribute("data-shown"))
    page.get_by_role("group", name="Ground under the work").get_by_role("button", name="dark").click()
    assert inked_share(page, "trial-loop") == pytest.approx(day, rel=0.05)
    assert int(sheet.get_attribute("data-shown")) > shown
    page.set_viewport_size({"width": 1500, "height": 900})
    expect(sheet).to_have_attribute("width", re.compile("^10"))
    assert inked_share(page, "trial-loop") == pytest.approx(day, rel=0.25)


def test_specks_cover_about_what_the_pieces_would(app):
    page = app.open("#/repeat/7")  # round dots, one shape
    near = inked_share(page, "trial-straight")
    for _ in range(8):
        page.get_by_role("button", name="further").click()
    expect(page.get_by_role("button", name="further")).to_be_disabled()
    expect(page.get_by_test_id("trial-straight")).to_have_attribute("data-pieces", re.compile(r"^2\d\d$"))
    far = inked_share(page, "trial-straight")
    assert 0 < far < 4 * near


def test_the_lens_shows_the_gap_and_the_pieces_at_its_sides(app):
    page = app.open("#/repeat/1")
    lens = page.get_by_role("img", name="Join 1, magnified")
    left, gap, right = (lens.evaluate(PIXELS, [x, 0.5]) for x in (0.12, 0.5, 0.88))
    assert left[0] > left[2] + 50  # madder thread
    assert right[0] > right[2] + 50
    assert gap[0] > 230  # the tinted ground
    assert gap[2] > 180


def test_the_sheet_comes_closer_under_the_pointer_and_goes_back(app):
    page = app.open("#/page/1")
    sheet = page.get_by_test_id("sheet")
    whole = float(sheet.get_attribute("data-scale"))
    box = sheet.bounding_box()
    page.mouse.move(box["x"] + 300, box["y"] + 300)
    page.keyboard.down("Control")
    page.mouse.wheel(0, -300)
    page.keyboard.up("Control")
    expect(sheet).not_to_have_attribute("data-scale", str(whole))
    assert float(sheet.get_attribute("data-scale")) > 2 * whole
    page.get_by_role("button", name="Whole sheet").click()
    expect(sheet).to_have_attribute("data-scale", str(whole))
    page.get_by_role("button", name="Closer").click()
    page.get_by_role("button", name="Further").click()
    assert float(sheet.get_attribute("data-scale")) == pytest.approx(whole)


def test_the_page_is_painted_with_its_ground_and_scenery(app):
    page = app.open("#/page/1")
    assert middle_colour(page, "sheet-canvas", (0.5, 0.45)) == [0xE9, 0xF1, 0xF1, 255]
    assert middle_colour(page, "sheet-canvas", (0.16, 0.2))[:2] == [0xE2, 0xD6]


def test_a_drawing_is_given_up_with_escape(app):
    page = app.open("#/page/1")
    page.get_by_role("button", name="By points").click()
    sheet = page.get_by_test_id("sheet").bounding_box()
    for x in (200, 300, 400):
        page.mouse.click(sheet["x"] + x, sheet["y"] + 200)
    page.keyboard.press("Escape")
    page.keyboard.press("Escape")
    expect(page.get_by_role("button", name="By points")).to_have_attribute("aria-pressed", "false")
    assert len(app.state(page, "/api/pages/1")["lines"]) == 9


def test_the_seam_and_the_neighbours_are_painted(app):
    page = app.open("#/motif/6")
    assert inked_share(page, "seam") > 0.05
    assert inked_share(page, "motif-bench") > 0.05


def test_a_dropped_file_becomes_a_motif(app):
    page = app.open("#/motif")
    text = svg('<circle cx="5" cy="5" r="4" fill="#2c4a84"/>', 10, 10)
    transfer = page.evaluate_handle(
        "text => { const t = new DataTransfer(); t.items.add(new File([text], 'cork-float.svg', {type: 'image/svg+xml'})); return t; }",
        text,
    )
    page.get_by_test_id("motif-bench").dispatch_event("drop", {"dataTransfer": transfer})
    expect(page.get_by_test_id("open-name")).to_have_text("cork float")
    assert app.state(page)["motifs"][-1]["width_mm"] == pytest.approx(8, abs=0.01)


def test_a_change_is_taken_back_at_once_though_it_is_still_being_kept(app):
    page = app.open("#/page/3")
    before = app.state(page, "/api/pages/3")["lines"]
    waiting = []
    page.route("**/api/lines/*", lambda route: waiting.append(route))  # the change is held up on its way
    page.get_by_test_id("sheet").focus()
    with page.expect_request("**/api/lines/*"):
        page.keyboard.press("ArrowRight")
    page.keyboard.press("Control+z")
    waiting[0].continue_()
    expect(page.get_by_role("button", name=re.compile("^Redo: move"))).to_be_enabled()
    expect(page.get_by_text("in another window")).to_have_count(0)
    after = app.state(page, "/api/pages/3")["lines"]
    assert [line["path"] for line in after] == [line["path"] for line in before]


def test_lenses_and_their_figures_leave_each_other_room_in_a_narrow_window(app):
    page = app.open("#/repeat/1")
    page.set_viewport_size({"width": 1024, "height": 700})
    expect(page.get_by_role("img", name=re.compile("^Join .*magnified"))).to_have_count(3)
    figures = [box.bounding_box() for box in page.locator("dl:has(dt:text-is('kink'))").all()]
    lenses = [box.bounding_box() for box in page.get_by_role("img", name=re.compile("^Join .*magnified")).all()]
    assert len(figures) == len(lenses) == 3
    for figure, lens in zip(figures[:-1], lenses[1:], strict=True):
        assert figure["x"] + figure["width"] <= lens["x"]
