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
