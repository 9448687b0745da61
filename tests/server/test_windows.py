"""Many windows and many requests at once."""

import threading

from making import svg
from sewn_garland.server.app import create_app
from sewn_garland.store.history import Change, make_step

LINE = {"brush_id": 1, "source": {"kind": "path", "d": "M10 50H110"}}


def test_writers_at_once_wait_for_each_other_and_all_is_kept(store):
    refused = []

    def write(number):
        try:
            for i in range(10):
                with store.writing() as session:
                    values = {"name": f"{number}-{i}", "svg": "<svg/>", "base_line_mm": 1.0, "left_out": []}
                    make_step(session, f"new {number}-{i}", [Change("motif", None, values)])
        except Exception as error:
            refused.append(error)

    writers = [threading.Thread(target=write, args=(n,)) for n in range(6)]
    for writer in writers:
        writer.start()
    for writer in writers:
        writer.join()
    assert refused == []
    with store.reading() as session:
        names = {row[0] for row in session.connection().exec_driver_sql("SELECT name FROM motif")}
        steps = session.connection().exec_driver_sql("SELECT count(*) FROM step").scalar()
    assert names == {f"{n}-{i}" for n in range(6) for i in range(10)}
    assert steps == 60


def test_a_change_that_fails_half_way_keeps_nothing(store):
    values = {"name": "a", "svg": "<svg/>", "base_line_mm": 1.0, "left_out": []}
    try:
        with store.writing() as session:
            make_step(session, "new", [Change("motif", None, values)])
            raise RuntimeError("the power went")
    except RuntimeError:
        pass
    with store.reading() as session:
        assert session.connection().exec_driver_sql("SELECT count(*) FROM motif").scalar() == 0
        assert session.connection().exec_driver_sql("SELECT count(*) FROM step").scalar() == 0


def test_deleting_what_another_window_changed_is_refused(bench):
    bench.post("/api/pages/1/lines", json=LINE)
    assert bench.patch("/api/lines/1", json={"version": 1, "name": "Quay"}).status_code == 200
    stale = bench.delete("/api/lines/1?version=1")
    assert stale.status_code == 409
    assert stale.json["current"]["name"] == "Quay"
    assert bench.delete("/api/lines/1?version=2").status_code == 204
    assert bench.delete("/api/lines/1?version=3").status_code == 404


def test_settings_that_two_windows_changed_are_put_together_and_a_true_clash_tells_both(bench):
    def change(version, was, wanted, label=None):
        body = {"version": version, "change": {"spacing": wanted}, "was": {"spacing": was}, "label": label}
        return bench.patch("/api/brushes/1", json=body)

    assert change(1, {"gap_pct": 0}, {"gap_pct": 12}, "gap 12 %").status_code == 200
    merged = change(1, {"size_pct": 100}, {"size_pct": 80}, "size 80 %")  # that window has not seen the gap
    assert (merged.status_code, merged.json["settings"]["spacing"]["gap_pct"]) == (200, 12)
    assert merged.json["settings"]["spacing"]["size_pct"] == 80
    assert change(1, {"gap_pct": 0}, {"gap_pct": 12}).status_code == 200  # the same is no clash
    clash = change(1, {"gap_pct": 0}, {"gap_pct": 20}, "gap 20 %")
    assert (clash.status_code, clash.json["theirs"], clash.json["yours"]) == (409, "gap 12 %", "gap 20 %")
    assert clash.json["message"] == "“gap 12 %” was set in another window, and “gap 20 %” here"
    standing = bench.get("/api/workshop").json["brushes"][0]
    assert standing["settings"]["spacing"]["gap_pct"] == 12
    taken = change(standing["version"], {"gap_pct": 12}, {"gap_pct": 20}, "gap 20 %")
    assert taken.json["settings"]["spacing"]["gap_pct"] == 20
    assert (
        bench.patch("/api/brushes/1", json={"version": 1, "change": {"spacing": {"gap_pct": 5}}}).status_code == 409
    )  # without what it was


def test_lists_are_clashed_as_a_whole(bench):
    turn, squash = [{"of": "turn", "between": [-5, 5]}], [{"of": "squash", "between": [80, 120]}]
    first = bench.patch("/api/brushes/1", json={"version": 1, "change": {"variations": turn}, "was": {"variations": []}, "label": "turn"})
    assert first.status_code == 200
    second = bench.patch(
        "/api/brushes/1", json={"version": 1, "change": {"variations": squash}, "was": {"variations": []}, "label": "squash"}
    )
    assert (second.status_code, second.json["theirs"]) == (409, "turn")


def test_what_stands_is_told_in_few_words_for_other_windows(bench):
    before = bench.get("/api/history").json
    assert before == bench.get("/api/workshop").json["history"]
    bench.patch("/api/brushes/1", json={"version": 1, "name": "other"})
    after = bench.get("/api/history").json
    assert after["undo"] == "rename bars" and after["undo_id"] != before["undo_id"]


def test_undo_in_one_window_is_not_the_others_step(bench):
    bench.post("/api/pages/1/lines", json=LINE)
    known = bench.get("/api/workshop").json["history"]["undo_id"]
    bench.post("/api/pages/1/lines", json=LINE)
    refused = bench.post("/api/undo", json={"step_id": known})
    assert refused.status_code == 409
    assert "another window" in refused.json["message"]
    assert len(bench.get("/api/pages/1").json["lines"]) == 2


def test_two_apps_on_one_file_see_each_others_changes(store, bench):
    other = create_app(store).test_client()
    bench.post("/api/pages/1/lines", json=LINE | {"name": "Quay"})
    assert other.get("/api/pages/1").json["lines"][0]["name"] == "Quay"


def test_a_file_with_more_lines_than_a_page_takes_is_refused_whole(bench):
    body = "".join(f'<path d="M0 {i}H50"/>' for i in range(501))
    refused = bench.post("/api/pages/1/lines-file", json={"brush_id": 1, "svg": svg(body, 100, 600)})
    assert refused.status_code == 422
    assert "501 lines, more than 500" in refused.json["message"]
    assert bench.get("/api/pages/1").json["lines"] == []


def test_a_line_with_a_brush_or_page_that_is_gone_is_refused(bench):
    assert bench.post("/api/pages/1/lines", json=LINE | {"brush_id": 7}).status_code == 404
    assert bench.post("/api/pages/9/lines", json=LINE).status_code == 404
    assert bench.patch("/api/brushes/1", json={"version": 1, "motif_id": 9}).status_code == 404
    assert bench.get("/api/pages/1").json["lines"] == []
