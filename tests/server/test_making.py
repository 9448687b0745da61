"""Motifs, brushes, pages and lines through the API, with undo and stale changes."""

import numpy as np
import pytest
from lxml import etree

from making import SVG, svg
from sewn_garland.core.drawing.buffers import unpack

LINE = {"brush_id": 1, "source": {"kind": "path", "d": "M10 50H110"}}


def ok(response, status=200):
    assert response.status_code == status, response.get_data(as_text=True)
    return response.json


def laid(client, page=1, **body):
    response = client.post(f"/api/pages/{page}/lay", json=body)
    assert response.status_code == 200, response.data
    return unpack(response.data)


def test_bringing_in_cleans_trims_and_tells(client):
    motif = ok(client.post("/api/motifs", json={"name": "leaf", "svg": svg('<rect x="2" y="3" width="6" height="1"/>', 10, 10)}), 201)
    assert (motif["width_mm"], motif["height_mm"], motif["base_line_mm"]) == pytest.approx((6, 1, 0.5))
    assert "Empty margin cut away" in motif["left_out"][0]
    assert motif["shapes"][0]["d"].startswith("M0 0L6 0")


def test_a_refused_motif_leaves_nothing_behind(client):
    response = client.post("/api/motifs", json={"name": "bad.svg", "svg": svg("<script/>")})
    assert response.status_code == 422
    assert "scripts are not taken in" in response.json["message"]
    state = ok(client.get("/api/workshop"))
    assert (state["motifs"], state["history"]["undo"]) == ([], None)


def test_motifs_are_turned_trimmed_renamed_and_their_base_line_set(bench):
    motif = ok(bench.post("/api/motifs/1/edit", json={"version": 1, "edit": {"op": "turn", "turn_deg": 90}}))
    assert (motif["width_mm"], motif["height_mm"]) == (2, 10)
    motif = ok(bench.post("/api/motifs/1/edit", json={"version": 2, "edit": {"op": "base_line", "base_line_mm": 8.5}}))
    motif = ok(bench.patch("/api/motifs/1", json={"version": 3, "name": "post"}))
    assert (motif["base_line_mm"], motif["name"]) == (8.5, "post")
    assert bench.patch("/api/motifs/1", json={"version": 3, "name": "late"}).status_code == 409


def test_settings_change_by_merge_patch_and_null_brings_the_default_back(bench):
    brush = ok(bench.patch("/api/brushes/1", json={"version": 1, "change": {"spacing": {"gap_pct": 40, "ease": "gaps"}}}))
    assert (brush["settings"]["spacing"]["gap_pct"], brush["settings"]["spacing"]["size_pct"]) == (40, 100)
    brush = ok(bench.patch("/api/brushes/1", json={"version": 2, "change": {"spacing": {"gap_pct": None}}}))
    assert brush["settings"]["spacing"] == {"size_pct": 100, "gap_pct": 0, "ease": "gaps", "ease_limit_pct": 10, "rest": "end"}


@pytest.mark.parametrize(
    ("change", "says"),
    [({"spacing": {"gap_pct": -100}}, "spacing.gap_pct: it must be more than -100"), ({"spacing": {"hue": 1}}, "spacing.hue: this key is not known"),
     ({"colour": {}}, "colour: this key is not known"), ({"travel": {"kind": "scattered", "round_bends": "jointed"}}, "do not hang by joints"), ({"spacing": 3}, "spacing")],
)  # fmt: skip
def test_numbers_out_of_range_are_refused_in_the_same_words_everywhere(bench, change, says):
    response = bench.patch("/api/brushes/1", json={"version": 1, "change": change})
    assert response.status_code == 422
    assert says in response.json["message"]
    limits = ok(bench.get("/api/limits"))["limits"]
    gap = next(limit for limit in limits if limit["path"] == "spacing.gap_pct" and limit["kind"] == "gt")
    assert gap["sentence"] == "it must be more than -100"


def test_a_stale_change_keeps_both_versions(bench):
    ok(bench.patch("/api/brushes/1", json={"version": 1, "change": {"spacing": {"gap_pct": 10}}}))
    stale = bench.patch("/api/brushes/1", json={"version": 1, "change": {"spacing": {"gap_pct": 20}}})
    assert stale.status_code == 409
    assert "changed in another window" in stale.json["message"]
    assert stale.json["current"]["settings"]["spacing"]["gap_pct"] == 10


def test_undo_and_redo_by_the_step_the_window_knows(bench):
    ok(bench.patch("/api/brushes/1", json={"version": 1, "change": {"spacing": {"gap_pct": 10}}, "label": "gap to 10 %"}))
    history = ok(bench.get("/api/workshop"))["history"]
    assert history["undo"] == "gap to 10 %"
    assert bench.post("/api/undo", json={"step_id": history["undo_id"] + 1}).status_code == 409
    after = ok(bench.post("/api/undo", json={"step_id": history["undo_id"]}))
    assert after["redo"] == "gap to 10 %"
    assert ok(bench.get("/api/workshop"))["brushes"][0]["settings"]["spacing"]["gap_pct"] == 0
    ok(bench.post("/api/redo", json={"step_id": after["redo_id"]}))
    assert ok(bench.get("/api/workshop"))["brushes"][0]["settings"]["spacing"]["gap_pct"] == 10


def test_what_is_in_use_is_not_deleted(bench):
    ok(bench.post("/api/pages/1/lines", json=LINE | {"name": "Quay"}), 201)
    refused = bench.delete("/api/brushes/1?version=1")
    assert (refused.status_code, refused.json["message"]) == (422, "bars lies on Quay; give those lines another brush first")
    assert "bar is used by bars" in bench.delete("/api/motifs/1?version=1").json["message"]
    assert bench.delete("/api/lines/1?version=1").status_code == 204
    assert bench.delete("/api/brushes/1?version=1").status_code == 204


def test_a_hand_drawn_line_is_kept_as_points_that_give_the_same_path(bench):
    x = np.linspace(10, 150, 200)
    points = np.stack([x, 50 + 20 * np.sin(x / 20)], axis=1).round(3).tolist()
    line = ok(bench.post("/api/pages/1/lines", json={"brush_id": 1, "source": {"kind": "hand", "points": points}}), 201)
    assert line["source"]["kind"] == "points"
    assert len(line["source"]["points"]) < 30
    again = ok(bench.patch("/api/lines/1", json={"version": 1, "source": line["source"]}))
    assert again["path"] == line["path"]


def test_lines_move_reorder_hide_and_take_ink_and_size(bench):
    for name in ("a", "b", "c"):
        ok(bench.post("/api/pages/1/lines", json=LINE | {"name": name}), 201)
    ok(bench.patch("/api/lines/1", json={"version": 1, "to_place": 0}))
    assert [line["name"] for line in ok(bench.get("/api/pages/1"))["lines"]] == ["b", "c", "a"]
    ok(bench.patch("/api/lines/1", json={"version": 2, "to_place": 1}))
    assert [line["name"] for line in ok(bench.get("/api/pages/1"))["lines"]] == ["b", "a", "c"]
    moved = ok(bench.patch("/api/lines/1", json={"version": 3, "move_by": [5, -10], "size_pct": 50, "ink": "#112233"}))
    assert (moved["path"], moved["size_pct"], moved["ink"]) == ("M15.0 40.0L115.0 40.0", 50, "#112233")
    ok(bench.patch("/api/lines/2", json={"version": 1, "visible": False}))
    header, tables = laid(bench)
    assert [s["line_id"] for s in header["scenes"]] == [1, 3]
    assert header["scenes"][0]["pieces"] == 20
    assert tables[0]["pieces", 0][0].tolist() == pytest.approx([0.5, 0, 0, 0.5, 17.5, 40])
    assert [part.get(("paints", 0), np.zeros(0)).ravel().tolist() for part in tables] == [[0x112233FF], []]


def test_a_cure_shown_is_not_kept_and_a_cure_taken_removes_its_finding(bench):
    ok(bench.post("/api/pages/1/lines", json={"brush_id": 1, "source": {"kind": "path", "d": "M10 10H64V64"}}), 201)
    header, _ = laid(bench, cures=True)
    kink = next(f for f in header["scenes"][0]["findings"] if f["kind"] == "kink")
    cure = kink["cures"][0]
    shown, _ = laid(bench, draft_cure={"line_id": 1, "change": cure["change"]})
    assert "kink" not in [f["kind"] for f in shown["scenes"][0]["findings"]]
    assert "kink" in [f["kind"] for f in laid(bench)[0]["scenes"][0]["findings"]]
    ok(bench.patch("/api/lines/1", json={"version": 1, "cure": cure["change"]}))
    assert "kink" not in [f["kind"] for f in laid(bench)[0]["scenes"][0]["findings"]]


def test_a_cure_on_a_copy_of_the_brush_reaches_the_lines_that_were_meant_and_no_other(bench):
    for y in (10, 80, 150):
        path = {"kind": "path", "d": f"M10 {y}H64V{y + 54}"}
        ok(bench.post("/api/pages/1/lines", json={"brush_id": 1, "source": path, "name": f"At {y}"}), 201)
    uses = ok(bench.get("/api/workshop"))["uses"]
    assert uses == [{"brush_id": 1, "lines": 3, "pages": 1}]
    cure = next(f for f in laid(bench, cures=True)[0]["scenes"][0]["findings"] if f["kind"] == "kink")["cures"][0]["change"]
    (before,) = ok(bench.get("/api/workshop"))["brushes"]
    ok(bench.patch("/api/lines/1", json={"version": 1, "cure": cure, "on_copy": [1, 2]}))
    whole = ok(bench.get("/api/workshop"))
    copy = whole["brushes"][-1]
    assert copy["name"] == f"{before['name']} 2" and copy["pieces"] == before["pieces"]
    assert whole["brushes"][0] == before and copy["settings"] != before["settings"]
    assert [line["brush_id"] for line in ok(bench.get("/api/pages/1"))["lines"]] == [copy["id"], copy["id"], 1]
    kinks = [any(f["kind"] == "kink" for f in scene["findings"]) for scene in laid(bench)[0]["scenes"]]
    assert kinks == [False, False, True]
    ok(bench.post("/api/undo", json={"step_id": whole["history"]["undo_id"]}))  # copy and lines are one step
    back = ok(bench.get("/api/workshop"))
    assert len(back["brushes"]) == 1 and back["uses"] == uses


def test_a_cure_is_made_on_no_copy_where_it_changes_the_line_or_the_lines_carry_another_brush(bench):
    for brush in (1, 1):
        ok(bench.post("/api/pages/1/lines", json=LINE | {"brush_id": brush}), 201)
    other = ok(bench.post("/api/brushes", json={"copy_of": 1}), 201)
    ok(bench.patch("/api/lines/2", json={"version": 1, "brush_id": other["id"]}))
    change = {"brush": {"spacing": {"size_pct": 50}}}
    for body, told in (
        ({"cure": {"line": {"scale": 2}}, "on_copy": []}, "only a cure that changes the brush"),
        ({"on_copy": []}, "only a cure that changes the brush"),
        ({"cure": change, "on_copy": [2]}, "not all of these lines carry"),
    ):
        refused = bench.patch("/api/lines/1", json={"version": 1} | body)
        assert refused.status_code == 422 and told in refused.json["message"]
    assert len(ok(bench.get("/api/workshop"))["brushes"]) == 2


def test_every_cure_of_a_sized_line_removes_its_finding(bench):
    ok(
        bench.post("/api/pages/1/lines", json={"brush_id": 1, "size_pct": 150, "source": {"kind": "path", "d": "M10 80C40 0 90 0 120 80"}}),
        201,
    )
    header, _ = laid(bench, cures=True)
    for finding in header["scenes"][0]["findings"]:
        for cure in finding["cures"]:
            after, _ = laid(bench, draft_cure={"line_id": 1, "change": cure["change"]})
            left = [f["kind"] for s in after["scenes"] for f in s["findings"]]
            before = [f["kind"] for f in header["scenes"][0]["findings"]]
            assert left.count(finding["kind"]) < before.count(finding["kind"]), (finding["message"], cure["label"])


def test_lines_of_a_file_are_brought_in_in_one_step(bench):
    page = ok(
        bench.post("/api/pages/1/lines-file", json={"brush_id": 1, "svg": svg('<path d="M0 0H50"/><circle cx="50" cy="50" r="20"/>')}), 201
    )
    assert len(page["lines"]) == 2
    history = ok(bench.get("/api/workshop"))["history"]
    assert history["undo"] == "bring in 2 lines"
    ok(bench.post("/api/undo", json={"step_id": history["undo_id"]}))
    assert ok(bench.get("/api/pages/1"))["lines"] == []


def test_one_line_that_is_brought_in_is_told_as_one(bench):
    ok(bench.post("/api/pages/1/lines-file", json={"brush_id": 1, "svg": svg('<path d="M0 0H50"/>')}), 201)
    assert ok(bench.get("/api/workshop"))["history"]["undo"] == "bring in a line"


def test_deleting_a_page_takes_its_lines_and_undo_brings_all_back(bench):
    ok(bench.post("/api/pages/1/lines", json=LINE), 201)
    assert bench.delete("/api/pages/1?version=1").status_code == 204
    assert bench.get("/api/pages/1").status_code == 404
    history = ok(bench.get("/api/workshop"))["history"]
    ok(bench.post("/api/undo", json={"step_id": history["undo_id"]}))
    assert len(ok(bench.get("/api/pages/1"))["lines"]) == 1


def test_the_page_is_taken_away_as_svg_png_and_list(bench):
    ok(bench.post("/api/pages/1/lines", json=LINE), 201)
    ok(bench.patch("/api/brushes/1", json={"version": 1, "change": {"spacing": {"gap_pct": 5}}}))
    compact = bench.get("/api/pages/1/page.svg")
    assert len(etree.fromstring(compact.data).findall(f"{{{SVG}}}use")) == 9
    assert compact.headers["Content-Disposition"].startswith('attachment; filename="sheet-')
    assert "sandbox" in compact.headers["Content-Security-Policy"]
    assert b"<use" not in bench.get("/api/pages/1/page.svg?form=plain").data
    assert b'fill="#336699"' in bench.get("/api/pages/1/page.svg?ground=%23336699").data
    assert bench.get("/api/pages/1/page.png?dpi=50").data.startswith(b"\x89PNG")
    assert bench.get("/api/pages/1/pieces.csv").data.count(b"\n") == 10
    refused = bench.get("/api/pages/1/page.png?dpi=2401")
    assert (refused.status_code, refused.json["message"]) == (422, "dpi: it must be at most 2400 (came: 2401)")


def test_the_bench_lays_the_flat_run_and_eight_trial_lines(bench):
    response = bench.post("/api/bench/lay", json={"motif_id": 1, "settings": {"spacing": {"gap_pct": 20, "ease": "gaps"}}, "flat_mm": 100})
    header, tables = unpack(response.data)
    assert [s["key"] for s in header["scenes"]] == ["flat", "straight", "wave", "hairpin", "corners", "point", "circle", "loop", "letter"]
    assert (header["pitch_mm"], header["piece_mm"]) == (12, 10)
    assert np.diff(tables[0]["extent", 0][:, 0]) == pytest.approx(12)  # the flat run is not eased
    assert header["scenes"][1]["verdict"].startswith("joins within")


def test_the_flat_run_shows_rows_and_widths_and_its_middle_is_of_full_width_however_long_a_taper(bench):
    def widths(hand: dict, **settings) -> tuple[dict, np.ndarray, np.ndarray]:
        header, tables = unpack(
            bench.post(
                "/api/bench/lay", json={"motif_id": 1, "settings": settings | {"spacing": {"gap_pct": 5}, "hand": hand}, "flat_mm": 100}
            ).data
        )
        flat = tables[0]["pieces", 0]
        return header["scenes"][0], flat[:, 4:6], np.hypot(flat[:, 0], flat[:, 1])

    _, places, _ = widths({}, rows={"beside_mm": [-8, 8]})
    assert np.unique(np.round(places[:, 1], 6)).tolist() == [-8, 0, 8]
    scene, places, wide = widths({"taper_start_mm": 20, "taper_end_mm": 500, "taper_to_pct": 25})
    assert scene["tapers_within_mm"] == 30
    first, last = places[:, 0] < 20, places[:, 0] > 70
    assert wide[0] < 0.5 and (np.diff(wide[first]) > 0).all() and (np.diff(wide[last]) < 0).all()
    assert wide[~first & ~last] == pytest.approx(1, rel=1e-3)
    scene, _, wide = widths(
        {"width_along": [{"at_pct": 0, "width_pct": 40}, {"at_pct": 50, "width_pct": 130}, {"at_pct": 100, "width_pct": 40}]}
    )
    assert scene["tapers_within_mm"] is None and wide.max() == pytest.approx(1.3, rel=0.02) and wide[0] < 0.6


def test_a_spacing_beyond_the_limit_is_refused_at_once_and_the_rest_is_laid(bench):
    ok(bench.post("/api/brushes", json={"name": "dense", "motif_id": 1}), 201)
    ok(bench.patch("/api/brushes/2", json={"version": 1, "change": {"spacing": {"size_pct": 0.0001}}}))
    ok(bench.post("/api/pages/1/lines", json=LINE), 201)
    ok(bench.post("/api/pages/1/lines", json=LINE | {"brush_id": 2}), 201)
    header, _ = laid(bench)
    assert header["scenes"][0]["pieces"] == 10
    assert "more than 2 000 000" in header["scenes"][1]["refused"]


def test_an_older_request_is_overtaken_by_a_newer_one(bench):
    body = {"motif_id": 1, "settings": {}, "flat_mm": 100, "client": "w"}
    assert bench.post("/api/bench/lay", json=body | {"seq": 9}).status_code == 200
    assert bench.post("/api/bench/lay", json=body | {"seq": 8}).status_code == 409


def test_the_demo_shows_its_world(demo):
    state = ok(demo.get("/api/workshop"))
    assert len(state["brushes"]) >= 6
    assert state["pages"][0]["name"] == "Route map print"
    assert (state["pages"][0]["width_mm"], state["pages"][0]["height_mm"]) == (400, 300)
    header, _ = laid(demo)
    assert all(s["pieces"] > 3 and s["refused"] is None for s in header["scenes"])
