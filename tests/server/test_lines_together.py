"""Several lines of a page changed in one step: moved, turned, scaled, resized, taken off."""

import numpy as np
import pytest

from sewn_garland.core.drawing.buffers import unpack
from sewn_garland.core.measuring.arc_length import frames_at, measure
from sewn_garland.core.reading.svg_lines import line_from_path_data


def ok(response):
    assert response.status_code in (200, 201), response.get_data(as_text=True)
    return response.json


def page_with_lines(bench):
    sources = [
        {"kind": "path", "d": "M20 30A15 15 0 0 1 50 30L80 40"},
        {"kind": "points", "points": [[10, 60], [40, 50], [70, 60]], "flowing": [True, True, False]},
        {"kind": "ready", "shape": "ellipse", "figures": {"width": 40, "height": 20}, "at": [120, 50]},
        {"kind": "hand", "points": [[10.0 + k, 80 + 3 * np.sin(k / 5)] for k in range(60)]},
    ]
    for source in sources:
        ok(bench.post("/api/pages/1/lines", json={"brush_id": 1, "source": source}))
    return ok(bench.get("/api/pages/1"))["lines"]


def along(path):
    line = measure(line_from_path_data(path))
    return frames_at(line, np.linspace(0, 1, 41) * line.length).position


def asked(lines):
    return [{"id": line["id"], "version": line["version"]} for line in lines]


def test_lines_are_turned_and_scaled_about_one_place_whatever_they_were_drawn_from(bench):
    """Against the same similarity of points along the lines before; lengths scale with it."""
    before = page_with_lines(bench)
    moving = {"by": [5, -3], "turn_deg": 30, "scale": 1.5, "about": [60, 50]}
    draft = bench.post("/api/pages/1/lay", json={"client": "c", "seq": 1, "draft_moving": {"lines": [before[0]["id"]], "moving": moving}})
    header, _ = unpack(draft.data)
    after = ok(bench.patch("/api/pages/1/lines", json={"lines": asked(before), "moving": moving}))["lines"]
    assert header["scenes"][0]["path"] == after[0]["path"]  # as it was shown in the hand
    assert header["scenes"][1]["path"] == before[1]["path"]
    turn = np.radians(30)
    linear = 1.5 * np.array([[np.cos(turn), -np.sin(turn)], [np.sin(turn), np.cos(turn)]])
    for old, new in zip(before, after, strict=True):
        wanted = (along(old["path"]) - [60, 50]) @ linear.T + [60, 50] + np.array([5, -3])
        assert np.abs(along(new["path"]) - wanted).max() < 2e-3, old["source"]["kind"]
        assert new["source"]["kind"] == old["source"]["kind"]  # what it was drawn from is kept
    assert after[2]["source"]["figures"]["width"] == pytest.approx(60)
    undo = bench.get("/api/history").json
    assert undo["undo"] == "move 4 lines"
    ok(bench.post("/api/undo", json={"step_id": undo["undo_id"]}))
    assert [line["path"] for line in ok(bench.get("/api/pages/1"))["lines"]] == [line["path"] for line in before]


def test_size_and_ink_are_set_on_all_and_all_are_taken_off_in_one_step(bench):
    lines = page_with_lines(bench)
    after = ok(bench.patch("/api/pages/1/lines", json={"lines": asked(lines[:3]), "size_pct": 60, "ink": "#a63a2f"}))["lines"]
    assert [(line["size_pct"], line["ink"]) for line in after] == [(60, "#a63a2f")] * 3 + [(100, None)]
    left = ok(bench.patch("/api/pages/1/lines", json={"lines": asked(after[1:3]), "remove": True}))["lines"]
    assert [line["id"] for line in left] == [after[0]["id"], after[3]["id"]]
    ok(bench.post("/api/undo", json={"step_id": bench.get("/api/history").json["undo_id"]}))
    assert len(ok(bench.get("/api/pages/1"))["lines"]) == 4


def test_what_cannot_be_changed_together_is_refused_and_nothing_is_half_done(bench):
    lines = page_with_lines(bench)
    other = ok(bench.post("/api/pages", json={"name": "other", "width_mm": 100, "height_mm": 100}))
    refused = bench.patch(f"/api/pages/{other['id']}/lines", json={"lines": asked(lines), "size_pct": 50})
    assert (refused.status_code, refused.json["message"]) == (422, "not all of these lines are on this page")
    stale = [*asked(lines[:2]), {"id": lines[2]["id"], "version": 7}]
    assert bench.patch("/api/pages/1/lines", json={"lines": stale, "size_pct": 50}).status_code == 409
    large = bench.patch("/api/pages/1/lines", json={"lines": asked(lines), "moving": {"scale": 900}})
    assert large.status_code == 422 and "ellipse" in large.json["message"]
    assert [line["size_pct"] for line in ok(bench.get("/api/pages/1"))["lines"]] == [100] * 4
