"""Motifs, pictures, scans and pieces over the API, good and bad."""

import base64
import io
import time

import numpy as np
import pytest
from PIL import Image, ImageDraw

from making import svg
from sewn_garland.server.app import create_app


def ok(response):
    assert response.status_code in (200, 201, 202), response.get_data(as_text=True)
    return response.json


def picture(kind="PNG", size=(300, 200)):
    image = Image.new("RGB", size, "white")
    ImageDraw.Draw(image).ellipse([size[0] // 3, size[1] // 4, 2 * size[0] // 3, 3 * size[1] // 4], fill="#a63a2f")
    out = io.BytesIO()
    image.save(out, kind, dpi=(127, 127))
    return out.getvalue()


def bring_in(client, data=None, name="Float"):
    return client.post(f"/api/originals?name={name}", data=data or picture(), content_type="application/octet-stream")


def finished(client, job):
    for _ in range(400):
        state = ok(client.get(f"/api/jobs/{job['id']}"))
        if state["state"] not in ("waiting", "working"):
            return state
        time.sleep(0.02)
    raise AssertionError(state)


def edit(client, motif, change, status=200):
    response = client.post(f"/api/motifs/{motif['id']}/edit", json={"version": motif["version"], "edit": change})
    assert response.status_code == status, response.get_data(as_text=True)
    return response.json


def test_a_change_is_a_named_step_that_undo_takes_back(bench):
    motif = ok(bench.post("/api/motifs/starter", json={"starter": "heart"}))
    lit = edit(bench, motif, {"op": "light", "parts": [0], "kind": "highlight", "width_mm": 0.4, "colour": "#ffffff", "opacity": 0.5})
    assert len(lit["shapes"]) == 2
    history = bench.get("/api/workshop").json["history"]
    assert history["undo"] == "light: Heart"
    ok(bench.post("/api/undo", json={"step_id": history["undo_id"]}))
    assert len(bench.get(f"/api/motifs/{motif['id']}").json["shapes"]) == 1
    assert edit(bench, motif, {"op": "trim"}, 409)["current"]["name"] == "Heart"  # stale: undo raised the version


def test_a_copy_of_a_motif_is_drawn_as_it_is_and_changed_apart_from_it(bench):
    motif = ok(bench.post("/api/motifs/starter", json={"starter": "link"}))
    copy = ok(bench.post(f"/api/motifs/{motif['id']}/copy"))
    assert (copy["name"], copy["id"]) == ("Link 2", motif["id"] + 1)
    assert {**copy, "id": 0, "name": "", "version": 0} == {**motif, "id": 0, "name": "", "version": 0}
    assert bench.get("/api/workshop").json["history"]["undo"] == "duplicate Link"
    edit(bench, copy, {"op": "turn", "turn_deg": 90})
    assert ok(bench.get(f"/api/motifs/{motif['id']}"))["width_mm"] == motif["width_mm"]
    assert ok(bench.post(f"/api/motifs/{copy['id']}/copy"))["name"] == "Link 3"
    assert bench.post("/api/motifs/999/copy").status_code == 404


def test_an_svg_with_a_large_picture_in_it_is_brought_in_whole(bench):
    data = np.random.default_rng(2).integers(0, 255, (90, 120, 3)).astype(np.uint8)
    out = io.BytesIO()
    Image.fromarray(data).save(out, "PNG")
    assert len(out.getvalue()) > 8_000
    href = "data:image/png;base64," + base64.b64encode(out.getvalue()).decode()
    motif = ok(bench.post("/api/motifs", json={"name": "Grain", "svg": svg(f'<image href="{href}" width="12" height="9"/>', 12, 9)}))
    edit(bench, motif, {"op": "cuts", "cuts_mm": [3, 9]})  # the part between the cuts is a smaller picture
    kept = ok(bench.get(f"/api/motifs/{motif['id']}"))
    [whole], [part] = kept["shapes"], kept["piece"]["shapes"]
    shown = np.array(Image.open(io.BytesIO(base64.b64decode(whole["picture"]["href"].split(",")[1]))))[..., :3]
    assert (shown == data).all()
    assert part["picture"]["width_px"] == pytest.approx(60, abs=1)


def test_a_draft_is_measured_and_not_kept(bench):
    motif = ok(bench.post("/api/motifs/starter", json={"starter": "bar"}))
    draft = ok(bench.post(f"/api/motifs/{motif['id']}/draft", json={"edit": {"op": "cuts", "cuts_mm": [2, 7]}, "points_of": 0}))
    assert draft["motif"]["pitch_mm"] == 5
    assert draft["seam"]["mismatch_mm"] == pytest.approx(0, abs=1e-6)
    assert draft["seam"]["left"]["foot_mm"] == pytest.approx([2.5])
    assert len(draft["contours"][0]["at"]) == 4
    assert bench.get(f"/api/motifs/{motif['id']}").json["cuts_mm"] is None


def test_a_motif_with_cuts_is_laid_by_what_lies_between(bench):
    motif = ok(bench.post("/api/motifs/starter", json={"starter": "wave"}))
    cut = edit(bench, motif, {"op": "cuts", "cuts_mm": [4, 12]})
    assert cut["piece"]["width_mm"] == 8
    brush = ok(bench.post("/api/brushes", json={"name": "waves", "motif_id": motif["id"], "settings": {}}))
    line = ok(bench.post("/api/pages/1/lines", json={"brush_id": brush["id"], "source": {"kind": "path", "d": "M0 20H80"}}))
    rows = bench.get("/api/pages/1/pieces.csv").text.splitlines()
    assert len(rows) == 1 + 10
    assert line["brush_id"] == brush["id"]


def test_variants_go_in_turn_on_page_and_bench(bench):
    second = ok(bench.post("/api/motifs/starter", json={"starter": "pill"}))
    brush = bench.get("/api/workshop").json["brushes"][0]
    pieces = {"version": brush["version"], "role": "repeat", "motif_ids": [1, second["id"]]}
    brush = ok(bench.post("/api/brushes/1/pieces", json=pieces))
    assert brush["pieces"]["repeat"] == [1, second["id"]]
    ok(bench.post("/api/pages/1/lines", json={"brush_id": 1, "source": {"kind": "path", "d": "M0 20H90"}}))
    variants = [row.split(",")[4] for row in bench.get("/api/pages/1/pieces.csv").text.splitlines()[1:]]
    assert variants == ["0", "1"] * 5
    assert "is used by bars" in bench.delete(f"/api/motifs/{second['id']}?version=1").json["message"]
    assert bench.post("/api/brushes/1/pieces", json={"version": brush["version"], "role": "repeat", "motif_ids": []}).status_code == 422
    assert bench.post("/api/brushes/1/pieces", json={"version": brush["version"], "role": "end", "motif_ids": [999]}).status_code == 404


def test_pieces_are_made_from_the_repeat_and_lie_on_the_sampler(bench):
    brush = ok(bench.post("/api/brushes/1/make-piece", json={"version": 1, "role": "outside_corner", "way": "mitre"}))
    corner = brush["pieces"]["outside_corner"]
    assert brush["settings"]["ends"]["outside_corner"] == "piece"  # it is used at once
    beside = np.array(ok(bench.get("/api/brushes/1/corner/outside_corner"))["repeat_matrices"])
    frame = ok(bench.get(f"/api/motifs/{corner}"))
    before, after = beside[:2, 4:], beside[2:, 4:]  # two repeats on each leg, about the corner's base line's middle
    assert beside[:2, :4] == pytest.approx(np.array([[1, 0, 0, 1]] * 2)) and beside[2:, :4] == pytest.approx(np.array([[0, 1, -1, 0]] * 2))
    assert before[:, 1] == pytest.approx(0) and (before[:, 0] < -frame["width_mm"] / 2).all()
    leg = frame["width_mm"] / 2 - frame["base_line_mm"]  # the leg that leaves lies as far from the right edge as the other from the top
    assert after[:, 0] == pytest.approx(leg) and (after[:, 1] > frame["height_mm"] - frame["base_line_mm"]).all()
    assert bench.get("/api/brushes/1/corner/inside_corner").status_code == 404
    sample = ok(bench.get("/api/brushes/1/sampler"))
    assert [p["motif_id"] for p in sample["pieces"] if p["role"] == "outside_corner"] == [corner]
    assert bench.post("/api/brushes/1/make-piece", json={"version": brush["version"], "role": "end", "way": "mitre"}).status_code == 422
    history = bench.get("/api/workshop").json["history"]
    ok(bench.post("/api/undo", json={"step_id": history["undo_id"]}))  # motif and role are one step
    back = bench.get("/api/workshop").json["brushes"][0]
    assert back["pieces"]["outside_corner"] is None and back["settings"]["ends"]["outside_corner"] == "through"
    assert bench.get(f"/api/motifs/{corner}").status_code == 404
    body = {"version": back["version"], "role": "inside_corner"}
    joined = ok(bench.post("/api/brushes/1/pieces", json=body | {"motif_ids": [1]}))
    assert joined["settings"]["ends"]["inside_corner"] == "piece"
    left = ok(bench.post("/api/brushes/1/pieces", json=body | {"version": joined["version"], "motif_ids": []}))
    assert left["pieces"]["inside_corner"] is None and left["settings"]["ends"]["inside_corner"] == "through"


def test_another_proposal_takes_the_place_of_one_that_was_not_worked_on(bench):
    def make(role, way):
        brush = bench.get("/api/workshop").json["brushes"][0]
        return ok(bench.post("/api/brushes/1/make-piece", json={"version": brush["version"], "role": role, "way": way}))["pieces"][role]

    def there():
        return {m["id"] for m in bench.get("/api/workshop").json["motifs"]}

    first, end = make("outside_corner", "mitre"), make("end", "same")
    second = make("outside_corner", "bend")
    assert there() == {1, end, second}
    history = bench.get("/api/workshop").json["history"]
    ok(bench.post("/api/undo", json={"step_id": history["undo_id"]}))  # the earlier one comes back with its role, in one step
    assert there() == {1, end, first}
    assert bench.get("/api/workshop").json["brushes"][0]["pieces"]["outside_corner"] == first
    edit(bench, ok(bench.get(f"/api/motifs/{first}")), {"op": "base_line", "base_line_mm": 0.5})
    third = make("outside_corner", "bend")
    assert there() == {1, end, first, third}  # what was worked on stays
    ok(bench.post("/api/brushes", json={"name": "another", "copy_of": 1}))
    fourth = make("outside_corner", "mitre")
    assert third in there() and fourth in there()  # as does what another brush uses
    assert make("end", "turned") in there() and end in there()  # the copy uses it


def test_a_picture_goes_the_whole_way_to_a_traced_motif(client):
    original = ok(bring_in(client))
    assert (original["width_px"], original["height_px"], original["dpi"]) == (300, 200, pytest.approx(127, abs=0.1))
    again = ok(bring_in(client))
    assert again["sha"] == original["sha"]  # the same bytes are kept once
    how = {"clear": "background", "trace": "threshold", "trim": True}
    preview = ok(client.post(f"/api/originals/{original['sha']}/preview", json={"preparation": how}))
    assert preview["points"] < 20
    assert preview["frame_px"] == pytest.approx([100, 50, 100, 100], abs=1.5)
    job = ok(client.post(f"/api/originals/{original['sha']}/motif", json={"name": "Float", "preparation": how}))
    done = finished(client, job)
    assert done["state"] == "done"
    motif = ok(client.get(f"/api/motifs/{done['motif_id']}"))
    assert motif["width_mm"] == pytest.approx(20, abs=0.3)  # 100 px at 127 dpi
    shown = client.get(f"/api/originals/{original['sha']}/shown.png")
    assert Image.open(io.BytesIO(shown.data)).size == (300, 200)


def test_what_is_left_of_a_picture_is_seen_and_its_motif_is_made_anew_from_it_in_its_place(client):
    original = ok(bring_in(client))
    plain = ok(client.post(f"/api/originals/{original['sha']}/preview", json={"preparation": {"trim": False}}))
    assert plain["cleared"] is None
    how = {"clear": "background_and_holes", "trim": False}
    preview = ok(client.post(f"/api/originals/{original['sha']}/preview", json={"preparation": how}))
    left = np.array(Image.open(io.BytesIO(base64.b64decode(preview["cleared"].split(",")[1]))))
    assert (left[5, 5, 3], left[100, 150, 3]) == (0, 255)
    assert preview["cleared_px"] == pytest.approx([0, 0, 300, 200])
    address = f"/api/originals/{original['sha']}/motif"
    made = finished(client, ok(client.post(address, json={"name": "Float", "preparation": how})))["motif_id"]
    motif = ok(client.get(f"/api/motifs/{made}"))
    assert (motif["picture"]["sha"], motif["picture"]["preparation"]["clear"]) == (original["sha"], "background_and_holes")
    anew = motif["picture"]["preparation"] | {"width_mm": 12.0}
    body = {"name": "Float", "preparation": anew, "anew": {"id": made, "version": motif["version"]}}
    assert finished(client, ok(client.post(address, json=body)))["motif_id"] == made
    assert ok(client.get(f"/api/motifs/{made}"))["width_mm"] == pytest.approx(12)
    copy = ok(client.post(f"/api/motifs/{made}/copy"))
    assert copy["picture"]["sha"] == original["sha"]  # a copy goes back to it too
    stale = finished(client, ok(client.post(address, json=body)))
    assert (stale["state"], "changed or deleted meanwhile" in stale["message"]) == ("failed", True)
    for _ in range(2):
        client.post("/api/undo", json={"step_id": client.get("/api/history").json["undo_id"]})
    assert ok(client.get(f"/api/motifs/{made}"))["width_mm"] == pytest.approx(motif["width_mm"])


def test_a_picture_motif_is_served_and_taken_in_again(client):
    rng = np.random.default_rng(1)
    noisy = Image.fromarray(rng.integers(0, 255, (400, 500, 3), dtype=np.uint8), "RGB")
    out = io.BytesIO()
    noisy.save(out, "PNG")
    original = ok(bring_in(client, out.getvalue()))
    done = finished(
        client, ok(client.post(f"/api/originals/{original['sha']}/motif", json={"name": "Grain", "preparation": {"trim": False}}))
    )
    motif = ok(client.get(f"/api/motifs/{done['motif_id']}"))
    href = motif["shapes"][0]["picture"]["href"]
    assert href.startswith("/api/motifs/")
    pixels = np.array(Image.open(io.BytesIO(client.get(href).data)).convert("RGB"))
    assert np.array_equal(pixels, np.asarray(noisy))
    kept = client.get(f"/api/motifs/{motif['id']}/motif.svg")
    again = ok(client.post("/api/motifs", json={"name": "again", "svg": kept.text, "trim": False}))
    assert again["shapes"][0]["picture"]["width_px"] == 500


@pytest.mark.thorough
def test_a_job_is_stopped_and_keeps_nothing(client):
    original = ok(bring_in(client, picture(size=(2000, 1600))))
    how = {"trace": "colours", "colours": 12, "least_speck_px": 0, "trim": False}
    jobs = [ok(client.post(f"/api/originals/{original['sha']}/motif", json={"name": f"m{i}", "preparation": how})) for i in range(3)]
    for job in jobs[1:]:
        ok(client.delete(f"/api/jobs/{job['id']}"))
    states = [finished(client, job)["state"] for job in jobs]
    assert states[1:] == ["stopped", "stopped"]
    assert len(client.get("/api/workshop").json["motifs"]) == (1 if states[0] == "done" else 0)
    assert client.get("/api/jobs/" + "0" * 32).status_code == 404


def test_the_scan_tray_is_watched(store):
    client = create_app(store).test_client()
    assert client.get("/api/scans").json["scans"] == []
    folder = store.file.with_name("scans")
    folder.mkdir()
    (folder / "gull-outline.png").write_bytes(picture())
    (folder / "notes.txt").write_text("not a scan")
    assert [s["name"] for s in client.get("/api/scans").json["scans"]] == ["gull-outline.png"]
    original = ok(client.post("/api/scans/gull-outline.png"))
    assert original["name"] == "Gull outline"
    assert client.post("/api/scans/..%2Fw.sqlite").status_code in (404, 405, 422)
    assert "not in the scan tray" in client.post("/api/scans/gone.png").json["message"]


def test_a_region_of_a_page_is_picked_up(bench):
    ok(bench.post("/api/pages/1/lines", json={"brush_id": 1, "source": {"kind": "path", "d": "M10 50H110"}, "ink": "#123456"}))
    body = {"name": "sprig", "left_mm": 25, "top_mm": 45, "right_mm": 65, "bottom_mm": 55}
    motif = ok(bench.post("/api/pages/1/pick-up", json=body))
    assert motif["width_mm"] == 40
    (bars,) = motif["shapes"]  # half a bar, three, half a bar, which meet
    assert bars["fill"] == "#123456"
    assert bars["box"] == pytest.approx([0, 4, 40, 6])
    empty = bench.post("/api/pages/1/pick-up", json={**body, "top_mm": 80, "bottom_mm": 90})
    assert "nothing is laid in this region" in empty.json["message"] or "nothing lies within" in empty.json["message"]
    assert bench.post("/api/pages/1/pick-up", json={**body, "right_mm": 25}).status_code == 422


BAD_EDITS = [
    ({"op": "move", "parts": [99], "dx_mm": 1, "dy_mm": 0}, "there is no part 99"),
    ({"op": "move", "parts": [], "dx_mm": 1, "dy_mm": 0}, "parts"),
    ({"op": "melt", "parts": [0]}, "edit"),
    ({"op": "cuts", "cuts_mm": [8, 2]}, "the cuts are crossed over"),
    ({"op": "joints", "joints_mm": [[8, 1], [2, 1]]}, "the left joint must lie left"),
    ({"op": "combine", "parts": [0], "way": "join"}, "choose at least two parts"),
    ({"op": "outline", "parts": [0]}, "no stroke to turn into a shape"),
    ({"op": "frame", "left_mm": 5, "top_mm": 0, "right_mm": 5, "bottom_mm": 2}, "the frame needs a length and a height"),
    ({"op": "soft_edge", "parts": [0], "steps": 5}, "a soft edge needs two nested shapes"),
    ({"op": "transform", "parts": [0], "scale_x": 0}, "scaled to nothing"),
    ({"op": "remove", "parts": [0]}, "keeps at least one part"),
    ({"op": "fray", "parts": [0], "depth_mm": 1, "tufts_per_cm": 1e9}, "at most"),
    ({"op": "figures", "group": 7, "figures": {"length": 3}}, "no figures any more"),
    ({"op": "draw", "points": [[1, 1], [1, 1]]}, "the stroke has no length"),
    ({"op": "keep_between"}, "no cuts yet"),
    ({"op": "move_nodes", "part": 0, "contour": 9, "nodes": [0], "dx_mm": 1, "dy_mm": 1}, "there is no outline 9"),
    ({"op": "remove_nodes", "part": 0, "contour": 0, "nodes": [0, 1, 2, 3]}, "needs at least two points"),
    ({"op": "starter", "starter": "hexagram", "x_mm": 0, "y_mm": 0}, "there is no starter"),
    ({"op": "resize", "width_mm": 0}, "at least"),
    ({"op": "gradient", "parts": [0], "kind": "linear", "stops": [{"offset": 0, "colour": "red"}]}, "stops"),
    ({"op": "paint", "parts": [0], "fill": "none"}, "needs a fill or a stroke"),
]


@pytest.mark.parametrize(("change", "says"), BAD_EDITS)
def test_bad_changes_are_refused_in_words_and_nothing_is_kept(bench, change, says):
    before = bench.get("/api/motifs/1").json
    response = bench.post("/api/motifs/1/edit", json={"version": 1, "edit": change})
    assert response.status_code == 422
    assert says in response.json["message"]
    assert bench.get("/api/motifs/1").json == before


@pytest.mark.thorough
def test_odd_motifs_never_fail_the_server(bench):
    """Every whole-motif change on drawings that are hardly there."""
    drawings = ['<path d="M0 0L9 0" stroke="#000" stroke-width=".01"/>', '<path d="M1 1h.001v.001z"/>', '<circle cx="5" cy="5" r="4" fill="none" stroke="#000" stroke-width="9"/>',
                '<path d="M0 0L10 10L0 10L10 0Z" fill-rule="evenodd"/>']  # fmt: skip
    for drawing in drawings:
        motif = ok(bench.post("/api/motifs", json={"name": "odd", "svg": svg(drawing, 12, 12), "trim": False}))
        for change in ({"op": "trim"}, {"op": "best_cut"}, {"op": "darn"}, {"op": "turn", "turn_deg": 33}, {"op": "thin", "parts": [0], "tolerance_mm": 0.5},
                       {"op": "mirror", "parts": [0], "side": "up_down"}, {"op": "back", "parts": [0], "colour": "#ffffff", "grow_mm": 1},
                       {"op": "cut_to_length", "length_mm": 3}, {"op": "lighten", "width_px": 10}):  # fmt: skip
            answer = bench.post(f"/api/motifs/{motif['id']}/draft", json={"edit": change})
            assert answer.status_code in (200, 422), (drawing, change, answer.get_data(as_text=True))
        assert bench.get(f"/api/motifs/{motif['id']}/repeat").status_code in (200, 422)


def test_bad_pictures_are_refused_and_nothing_is_kept(client):
    for data, says in ((b"hello", "not a PNG"), (picture()[:400], "damaged or cut short")):
        answer = bring_in(client, data)
        assert answer.status_code == 422
        assert says in answer.json["message"]
    original = ok(bring_in(client))
    preview = client.post(f"/api/originals/{original['sha']}/preview", json={"preparation": {"region": [0, 0, 9999, 5]}})
    assert "does not lie within its 300 × 200 pixels" in preview.json["message"]
    blank = client.post(f"/api/originals/{original['sha']}/preview", json={"preparation": {"region": [0, 0, 40, 40], "clear": "white"}})
    assert "nothing but clear is left" in blank.json["message"]
    untraced = client.post(
        f"/api/originals/{original['sha']}/preview",
        json={"preparation": {"region": [0, 0, 40, 40], "trace": "threshold", "threshold": 0.1, "trim": False}},
    )
    assert "no ink was found" in untraced.json["message"]
    assert client.get("/api/originals/" + "0" * 64).status_code == 404
    assert client.get("/api/workshop").json["motifs"] == []


def test_history_does_not_hold_a_picture_again_at_every_step(client, store):
    rng = np.random.default_rng(2)
    out = io.BytesIO()
    Image.fromarray(rng.integers(0, 255, (300, 300, 3), dtype=np.uint8), "RGB").save(out, "PNG")
    original = ok(bring_in(client, out.getvalue()))
    done = finished(
        client, ok(client.post(f"/api/originals/{original['sha']}/motif", json={"name": "Grain", "preparation": {"trim": False}}))
    )
    motif = ok(client.get(f"/api/motifs/{done['motif_id']}"))
    for i in range(5):
        motif = edit(client, motif, {"op": "base_line", "base_line_mm": float(i)})
    with store.reading() as session:
        kept = session.connection().exec_driver_sql("SELECT sum(length(changes)) FROM step").scalar()
    assert kept < 20_000  # the picture itself has 270 000 bytes
    assert Image.open(io.BytesIO(client.get(motif["shapes"][0]["picture"]["href"]).data)).size == (300, 300)


def test_the_sampler_shows_a_brush_with_a_corner_piece_of_its_own_and_in_which_ways_others_are_made(demo):
    knots = next(b for b in demo.get("/api/workshop").json["brushes"] if b["settings"]["ends"]["outside_corner"] == "piece")
    sample = demo.get(f"/api/brushes/{knots['id']}/sampler").json
    assert [s["made"] for s in sample["slots"] if s["role"] == "outside_corner"] == [True]
    every = ["mitre", "lap", "bend", "round", "across"]
    assert demo.get(f"/api/brushes/{knots['id']}/corner-ways/inside_corner").json == {"ways": every, "way": None}
    assert demo.get(f"/api/brushes/{knots['id']}/corner-ways/outside_corner").json == {"ways": every, "way": None}  # drawn for it
