"""Ready lines over the API: kept with their figures, moved, parted into sides, refused in words."""

import numpy as np
import pytest

from sewn_garland.core.measuring.arc_length import measure
from sewn_garland.core.reading.svg_lines import line_from_path_data

BOX = {"kind": "ready", "shape": "rectangle", "figures": {"width": 80, "height": 40, "rounded": 0}, "at": [100, 50]}


def drawn(bench, **more):
    reply = bench.post("/api/pages/1/lines", json={"brush_id": 1, "source": {**BOX, **more}, "name": "Border"})
    return reply.status_code, reply.json


def length_of(line):
    return measure(line_from_path_data(line["path"])).length


def test_the_ready_lines_begin_within_their_page(bench):
    ready = bench.get("/api/pages/1/ready-lines").json["ready"]
    assert [each["shape"] for each in ready] == ["rectangle", "ellipse", "polygon", "star", "arch", "swag", "spiral", "wave"]
    for each in ready:
        points = line_from_path_data(each["path"])
        assert len(points.coeffs)
        assert all(figure["least"] <= figure["value"] <= figure["most"] for figure in each["figures"])


def test_its_figures_are_kept_and_stay_live_when_it_is_moved(bench):
    status, line = drawn(bench)
    assert status == 201
    assert length_of(line) == pytest.approx(240)
    moved = bench.patch(f"/api/lines/{line['id']}", json={"version": 1, "move_by": [5, -3]}).json
    assert moved["source"]["at"] == [105, 47]
    wider = {**moved["source"], "figures": {**moved["source"]["figures"], "width": 100}}
    changed = bench.patch(f"/api/lines/{line['id']}", json={"version": 2, "source": wider}).json
    assert length_of(changed) == pytest.approx(280)
    laid = bench.post("/api/pages/1/lay", json={"seq": 1, "client": "t", "draft": {"line_id": line["id"], "brush_id": 1, "source": wider}})
    assert laid.status_code == 200


@pytest.mark.parametrize(
    ("more", "words"),
    [
        ({"shape": "blob"}, "there is no ready line “blob”"),
        ({"figures": {"width": -4}}, "rectangle: width must be from 0.1 to 5000 mm (came: -4)"),
        ({"figures": {"girth": 4}}, "rectangle: it has no figure “girth”"),
    ],
)
def test_what_cannot_be_drawn_is_refused_in_words_and_nothing_is_kept(bench, more, words):
    status, reply = drawn(bench, **more)
    assert status == 422
    assert words in reply["message"]
    assert bench.get("/api/pages/1").json["lines"] == []


def test_each_side_becomes_a_line_of_its_own_in_one_step_that_undo_takes_back(bench):
    drawn(bench, turn_deg=30)
    kept = bench.post("/api/lines/1/sides", json={"version": 1}).json["lines"]
    assert [line["name"] for line in kept] == [f"Border, side {k}" for k in (1, 2, 3, 4)]
    assert [length_of(line) for line in kept] == pytest.approx([80, 40, 80, 40])
    ends = [line_from_path_data(line["path"]) for line in kept]
    assert np.allclose(ends[0].start, ends[3].coeffs[-1].sum(axis=0), atol=1e-3)
    history = bench.get("/api/workshop").json["history"]
    assert history["undo"] == "sides of Border"
    bench.post("/api/undo", json={"step_id": history["undo_id"]})
    assert [line["name"] for line in bench.get("/api/pages/1").json["lines"]] == ["Border"]
    round_one = {"kind": "ready", "shape": "ellipse", "figures": {}, "at": [100, 50]}
    line = bench.post("/api/pages/1/lines", json={"brush_id": 1, "source": round_one, "name": "Ring"}).json
    refused = bench.post(f"/api/lines/{line['id']}/sides", json={"version": 1})
    assert refused.status_code == 422
    assert "Ring has no corner of 30° or more" in refused.json["message"]
