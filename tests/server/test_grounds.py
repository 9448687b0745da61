"""A picture under a page: laid, seen, drawn, taken off; what cannot be is refused."""

import io
import re

import numpy as np
import pytest
from PIL import Image

from sewn_garland.core.assemble import ground_box
from sewn_garland.core.maths.raster import main_colours


def halves(size=(300, 150), dpi=76.2):
    """A picture of 100 × 50 mm, blue on its left and yellow on its right."""
    image = Image.new("RGB", size, "#16233d")
    image.paste("#f2d060", (size[0] // 2, 0, *size))
    out = io.BytesIO()
    image.save(out, "PNG", dpi=(dpi, dpi))
    return out.getvalue()


@pytest.fixture
def picture(bench):
    return bench.post("/api/originals?name=Dusk", data=halves(), content_type="application/octet-stream").json["sha"]


def changed(bench, version, **values):
    return bench.patch("/api/pages/1", json={"version": version, **values})


def drawn(bench, dpi=25.4):
    data = bench.get(f"/api/pages/1/page.png?dpi={dpi}&ground=page").data
    return np.asarray(Image.open(io.BytesIO(data)).convert("RGBA")).astype(int)


def test_a_picture_covers_the_page_or_lies_at_its_true_size_and_is_drawn_so(bench, picture):
    page = changed(bench, 1, ground_picture={"sha": picture}).json
    assert page["ground_picture"]["box"] == pytest.approx([0, 0, 200, 100])  # the page is 200 × 100 mm
    assert page["ground_picture"]["size_mm"] == pytest.approx([100, 50], rel=1e-3)
    pixels = drawn(bench)
    assert (pixels[50, 20], pixels[50, 180]) == (pytest.approx((0x16, 0x23, 0x3D, 255)), pytest.approx((0xF2, 0xD0, 0x60, 255)))
    page = changed(bench, 2, ground_picture={"sha": picture, "laid": "true_size"}, ground="#ff0000").json
    assert page["ground_picture"]["box"] == pytest.approx([50, 25, 100, 50], rel=1e-3)
    pixels = drawn(bench)
    assert pixels[50, 20] == pytest.approx((255, 0, 0, 255))
    assert (pixels[50, 60], pixels[50, 140]) == (pytest.approx((0x16, 0x23, 0x3D, 255)), pytest.approx((0xF2, 0xD0, 0x60, 255)))
    assert b"<image" not in bench.get("/api/pages/1/page.svg").data
    assert len(re.findall(rb"<image", bench.get("/api/pages/1/page.svg?ground=page&form=plain").data)) == 1


def test_an_ink_is_held_against_the_colour_it_stands_out_from_least(bench, picture):
    """WCAG 2.2's ratio: of black to the blue 1.4, to the yellow 13.8; the lesser is told."""
    changed(bench, 1, palette=[{"name": "soot", "colour": "#000000"}])
    page = changed(bench, 2, ground_picture={"sha": picture}).json
    assert set(page["ground_colours"]) == {"#16233d", "#f2d060"}
    assert page["palette"][0]["contrast"] == pytest.approx(1.36, abs=0.02)


def test_it_is_taken_off_and_undone_and_one_that_is_not_there_is_refused(bench, picture):
    changed(bench, 1, ground_picture={"sha": picture})
    assert changed(bench, 2, ground_picture="none").json["ground_picture"] is None
    history = bench.get("/api/workshop").json["history"]
    assert bench.post("/api/undo", json={"step_id": history["undo_id"]}).status_code == 200
    assert bench.get("/api/pages/1").json["page"]["ground_picture"]["name"] == "Dusk"
    refused = changed(bench, 4, ground_picture={"sha": "0" * 64})
    assert refused.status_code == 404
    assert bench.get("/api/pages/1").json["page"]["ground_picture"]["name"] == "Dusk"
    assert changed(bench, 4, ground_picture={"sha": picture, "laid": "tiled"}).status_code == 422


@pytest.mark.parametrize("page", [(148, 105), (105, 148), (10, 900), (5000, 1)])
@pytest.mark.parametrize("picture_mm", [(150, 106), (3, 4), (1, 1000)])
def test_a_fitted_picture_covers_every_page_keeps_its_proportions_and_stands_in_the_middle(page, picture_mm):
    x, y, w, h = ground_box(*page, picture_mm, fitted=True)
    assert w / h == pytest.approx(picture_mm[0] / picture_mm[1])
    assert (x + w / 2, y + h / 2) == pytest.approx((page[0] / 2, page[1] / 2))
    assert min(w / page[0], h / page[1]) == pytest.approx(1)
    assert max(x, y) <= 1e-9


def test_the_main_colours_of_what_is_clear_of_one_pixel_and_of_many():
    assert main_colours(np.zeros((5, 5, 4), np.uint8), 6) == []
    assert main_colours(np.full((1, 1, 4), 255, np.uint8), 6) == ["#ffffff"]
    noise = np.random.default_rng(3).integers(0, 256, (300, 300, 4)).astype(np.uint8)
    assert 1 <= len(main_colours(noise, 6)) <= 6
