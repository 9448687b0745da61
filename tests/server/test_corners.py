"""Corner pieces over the API: made as suits the brush, laid at any angle."""

import re

import numpy as np
import pytest

from sewn_garland.core.drawing.buffers import unpack


def ok(response):
    assert response.status_code in (200, 201), response.get_data(as_text=True)
    return response.json


def test_a_corner_is_laid_at_any_angle_between_both_runs_and_its_joins_are_measured(bench):
    """By hand: a mitred corner piece of a bar reaches a repeat's length from the vertex, times tan(turn / 2) at other angles."""
    ask = {"client": "c", "seq": 1, "brush_id": 1, "role": "outside_corner"}
    assert bench.post("/api/corners/lay", json=ask).status_code == 404  # it has none yet
    ok(bench.post("/api/brushes/1/make-piece", json={"version": 1, "role": "outside_corner"}))  # as suits a bar: mitred
    assert ok(bench.get("/api/brushes/1/corner-ways/outside_corner"))["way"] == "mitre"
    for seq, angle in enumerate((60, 90, 117, 150), start=2):
        header, _ = unpack(bench.post("/api/corners/lay", json=ask | {"seq": seq, "angle_deg": angle}).data)
        for join in (header["enters"], header["leaves"]):
            assert (abs(join["gap_mm"]), join["step_mm"]) == pytest.approx((0, 0), abs=1e-6)
        scene = header["scenes"][0]
        path = np.array([float(v) for v in re.findall(r"-?[\d.]+(?:e-?\d+)?", scene["path"])])
        turn = np.radians(180 - angle)
        leg = -path[0]
        assert path[-2:] == pytest.approx(leg * np.array([np.cos(turn), np.sin(turn)]))
        length = ok(bench.get("/api/motifs/1"))["width_mm"]
        assert (leg - length * np.tan(turn / 2)) / length == pytest.approx(round((leg - length * np.tan(turn / 2)) / length), abs=1e-6)
        assert scene["findings"] == []
    assert bench.post("/api/corners/lay", json=ask | {"angle_deg": 30}).status_code == 422


def test_what_is_seen_piece_by_piece_is_set_round_a_corner_whole_and_a_piece_worked_on_has_no_way(bench):
    gap = ok(bench.patch("/api/brushes/1", json={"version": 1, "change": {"spacing": {"gap_pct": 45}}}))
    made = ok(bench.post("/api/brushes/1/make-piece", json={"version": gap["version"], "role": "inside_corner"}))
    assert ok(bench.get("/api/brushes/1/corner-ways/inside_corner"))["way"] == "round"
    corner = ok(bench.get(f"/api/motifs/{made['pieces']['inside_corner']}"))
    body = {"version": corner["version"], "edit": {"op": "base_line", "base_line_mm": corner["base_line_mm"] + 1}}
    ok(bench.post(f"/api/motifs/{corner['id']}/edit", json=body))
    assert ok(bench.get("/api/brushes/1/corner-ways/inside_corner"))["way"] is None
    refused = bench.post("/api/brushes/1/make-piece", json={"version": made["version"], "role": "end"})
    assert refused.status_code == 422 and "end" in refused.json["message"]
