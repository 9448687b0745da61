"""Nothing a stranger sends makes the server fail, hang or answer to the wrong host."""

import json

import pytest
from hypothesis import HealthCheck, example, given, settings
from hypothesis import strategies as st

from examples import examples
from making import svg

HUGE = "9" * 400


@pytest.mark.parametrize("host", ["evil.example", "evil.example:8750", "127.0.0.1.evil.example", "[::1"])
def test_foreign_hosts_are_refused(client, host):
    assert client.get("/api/workshop", headers={"Host": host}).status_code in (400, 403)


@pytest.mark.parametrize("origin", ["http://evil.example", "null", "http://localhost:1", "https://127.0.0.1.evil.example"])
def test_foreign_origins_are_refused(client, origin):
    assert client.post("/api/pages", json={"name": "p", "width_mm": 10, "height_mm": 10}, headers={"Origin": origin}).status_code == 403


def test_own_origin_is_let_in_and_headers_are_strict(client):
    response = client.get("/api/workshop", headers={"Origin": "http://localhost"})
    assert response.status_code == 200
    policy = response.headers["Content-Security-Policy"]
    assert "default-src 'none'" in policy
    assert "unsafe" not in policy
    assert response.headers["X-Content-Type-Options"] == "nosniff"


@pytest.mark.parametrize(
    "body",
    [b"", b"nonsense", b"[]", b'"text"', b"null", b"[" * 100_000, b'{"name":' * 5000, b'{"name": "x", "svg": 3}',
     json.dumps({"name": "x", "svg": "\x00"}).encode(), b'{"name": "x", "svg": NaN}'],
)  # fmt: skip
def test_bodies_that_make_no_sense_are_refused(client, body):
    for address in ("/api/motifs", "/api/bench/lay", "/api/undo"):
        response = client.post(address, data=body, content_type="application/json")
        assert response.status_code == 422, response.data
        assert response.json["message"]


@pytest.mark.parametrize(
    "source",
    [{"kind": "hand", "points": [[0, 0]]}, {"kind": "hand", "points": [[0, 0], [0, 0]]}, {"kind": "path", "d": "M0 0LNaN 1"},
     {"kind": "path", "d": "M0 0H5M9 9H5"}, {"kind": "points", "points": [[0, 0], [1, 1]], "flowing": [True]},
     {"kind": "points", "points": [[0, 1e9]], "flowing": [True]}, {"kind": "spline"}, {}],
)  # fmt: skip
def test_lines_that_cannot_be_are_refused(bench, source):
    response = bench.post("/api/pages/1/lines", json={"brush_id": 1, "source": source})
    assert response.status_code == 422
    assert bench.get("/api/pages/1").json["lines"] == []


def test_a_line_without_length_is_a_finding_and_the_others_are_laid(bench):
    for d in ("M5 5L5 5", "M10 10H60"):
        assert bench.post("/api/pages/1/lines", json={"brush_id": 1, "source": {"kind": "path", "d": d}}).status_code == 201
    from sewn_garland.core.drawing.buffers import unpack

    scenes = unpack(bench.post("/api/pages/1/lay", json={"cures": True}).data)[0]["scenes"]
    assert "no length" in scenes[0]["findings"][0]["message"]
    assert scenes[0]["findings"][0]["cures"]
    assert scenes[1]["pieces"] == 5


@pytest.mark.parametrize("number", [10**400, -(10**400), 1e308, -1e308, 5e-324])
def test_numbers_beyond_all_measure_are_refused_or_laid(bench, number):
    for body in ({"flat_mm": number}, {"flat_mm": 50, "settings": {"spacing": {"size_pct": number}}}, {"flat_mm": 50, "trial_mm": number},
                 {"flat_mm": 50, "settings": {"travel": {"side_shift_mm": number, "turn_deg": number}}}, {"flat_mm": 50, "seq": number}):  # fmt: skip
        response = bench.post("/api/bench/lay", data=json.dumps({"motif_id": 1, "settings": {}} | body), content_type="application/json")
        assert response.status_code in (200, 422), body
    line = {"brush_id": 1, "source": {"kind": "points", "points": [[0, 0], [number, 1]], "flowing": [True, True]}}
    assert bench.post("/api/pages/1/lines", data=json.dumps(line), content_type="application/json").status_code in (201, 422)
    assert bench.patch("/api/lines/1", data=json.dumps({"version": 1, "cure": {"line": {"scale": number}}}),
                       content_type="application/json").status_code in (200, 404, 422)  # fmt: skip


def test_too_much_at_once_is_refused(client):
    response = client.post("/api/motifs", data=b" " * (25 * 1024 * 1024), content_type="application/json")
    assert response.status_code in (413, 422)
    response = client.post("/api/motifs", json={"name": "big", "svg": svg("<g/>" * 10) + " " * 11_000_000})
    assert response.status_code == 422


@pytest.mark.parametrize("address", ["/api/motifs/0", "/api/motifs/999", f"/api/motifs/{HUGE}", "/api/pages/-1", "/api/nowhere", "/../etc/passwd",
                                     "/assets/../../app.py"])  # fmt: skip
def test_addresses_that_lead_nowhere(client, address):
    assert client.get(address).status_code in (404, 422)


def test_an_svg_is_never_served_as_a_document_that_runs(bench):
    response = bench.get("/api/pages/1/page.svg")
    assert response.headers["Content-Disposition"].startswith("attachment")
    assert "sandbox" in response.headers["Content-Security-Policy"]


numbers = st.one_of(st.floats(allow_nan=True, allow_infinity=True), st.integers(), st.text(max_size=5), st.none(), st.booleans())
keys = ["size_pct", "gap_pct", "ease", "ease_limit_pct", "rest"]


@settings(max_examples=examples(120), deadline=None, suppress_health_check=[HealthCheck.function_scoped_fixture, HealthCheck.too_slow])
@given(spacing=st.dictionaries(st.sampled_from(keys), numbers), travel=st.dictionaries(st.sampled_from(["turn_deg", "facing", "side_shift_mm"]), numbers),
       flat=numbers)  # fmt: skip
def test_no_settings_make_the_server_fail(bench, spacing, travel, flat):
    body = json.dumps({"motif_id": 1, "settings": {"spacing": spacing, "travel": travel}, "flat_mm": flat})
    response = bench.post("/api/bench/lay", data=body, content_type="application/json")
    assert response.status_code in (200, 422)


@settings(max_examples=examples(200), deadline=None, suppress_health_check=[HealthCheck.function_scoped_fixture, HealthCheck.too_slow])
@example(change={"brush": {"spacing": 1}})
@example(change={"brush": {"spacing": {"size_pct": True}}})
@example(change={"brush": {"spacing": {"size_pct": 10**400}}})
@given(change=st.recursive(st.none() | st.integers() | st.text(max_size=4), lambda inner: st.dictionaries(
    st.sampled_from(["line", "brush", "spacing", "smooth_mm", "scale", "remove", "size_pct"]), inner, max_size=3), max_leaves=4))  # fmt: skip
def test_no_cure_makes_the_server_fail(bench, change):
    bench.post("/api/pages/1/lines", json={"brush_id": 1, "source": {"kind": "path", "d": "M10 10H60V40"}})
    body = {"draft_cure": {"line_id": 1, "change": change if isinstance(change, dict) else {"line": change}}}
    assert bench.post("/api/pages/1/lay", json=body).status_code in (200, 404, 422)


def test_smoothing_far_beyond_a_tiny_line_takes_neither_time_nor_memory(bench):
    assert bench.post("/api/pages/1/lines", json={"brush_id": 1, "source": {"kind": "path", "d": "M0 0L.0001 0"}}).status_code == 201
    change = {"line": {"smooth_mm": 100_000}}
    assert bench.post("/api/pages/1/lay", json={"draft_cure": {"line_id": 1, "change": change}}).status_code == 200
    assert bench.patch("/api/lines/1", json={"version": 1, "cure": change}).status_code == 200


@pytest.mark.parametrize(
    "change", [{"line": {"smooth_mm": 0}}, {"line": {"scale": -1}}, {"line": {"scale": True}}, {"line": {"fold": 1}}, {"page": {}}, {}]
)
def test_cures_that_are_none_are_refused_and_nothing_changes(bench, change):
    bench.post("/api/pages/1/lines", json={"brush_id": 1, "source": {"kind": "path", "d": "M10 10H60V40"}})
    refused = bench.patch("/api/lines/1", json={"version": 1, "cure": change})
    assert refused.status_code == 422
    assert bench.get("/api/pages/1").json["lines"][0]["version"] == 1
