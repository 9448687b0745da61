"""The OpenAPI document against the running app, and the server as a process of its own."""

import json
import re
import socket
import subprocess
import sys
import urllib.error
import urllib.request
from pathlib import Path

import jsonschema
import pytest

from making import bar_svg
from sewn_garland.cli import main

REQUESTS = [
    ("get", "/api/workshop", None, 200),
    ("get", "/api/limits", None, 200),
    ("post", "/api/motifs", {"name": "post", "svg": bar_svg(3, 9)}, 201),
    ("get", "/api/motifs/{id}", None, 200),
    ("patch", "/api/motifs/{id}", {"version": 1, "name": "gatepost"}, 200),
    ("post", "/api/motifs/starter", {"starter": "link"}, 201),
    ("post", "/api/motifs/{id}/edit", {"version": 2, "edit": {"op": "turn", "turn_deg": 90}}, 200),
    ("post", "/api/motifs/{id}/draft", {"edit": {"op": "cuts", "cuts_mm": [0.5, 1.5]}, "points_of": 0}, 200),
    ("post", "/api/brushes/{id}/pieces", {"version": 1, "role": "repeat", "motif_ids": [1, 2, 3]}, 200),
    ("post", "/api/brushes", {"name": "copy", "copy_of": 1}, 201),
    ("patch", "/api/brushes/{id}", {"version": 2, "change": {"spacing": {"gap_pct": 5}}}, 200),
    ("post", "/api/pages", {"name": "second", "width_mm": 50, "height_mm": 60, "ground": "#ffeedd"}, 201),
    ("post", "/api/pages/{id}/lines", {"brush_id": 1, "source": {"kind": "path", "d": "M0 0H50"}}, 201),
    ("get", "/api/pages/{id}", None, 200),
    ("patch", "/api/pages/{id}", {"version": 1, "ground": "none"}, 200),
    ("patch", "/api/lines/{id}", {"version": 1, "name": "Quay", "ink": "own"}, 200),
]


def test_every_reply_is_as_the_published_document_says(bench):
    document = bench.get("/api/openapi.json").json
    assert document["openapi"] == "3.1.0"
    for method, path, body, status in REQUESTS:
        response = bench.open(path.replace("{id}", "1"), method=method.upper(), json=body)
        assert response.status_code == status, (path, response.data)
        schema = document["paths"][path][method]["responses"][str(status)]["content"]["application/json"]["schema"]
        jsonschema.validate(response.json, {**schema, "components": document["components"]})


def test_refusals_are_as_the_published_document_says(bench):
    document = bench.get("/api/openapi.json").json
    for method, path, body in (
        ("post", "/api/motifs", {"name": "x"}), ("post", "/api/motifs/{id}/edit", {"version": 1, "edit": {"op": "melt"}}),
        ("post", "/api/motifs/{id}/divide", {"version": 1, "name": "Tow"}), ("patch", "/api/brushes/{id}", {"version": 1, "change": {"spacing": {"gap_pct": -200}}}),
    ):  # fmt: skip
        response = bench.open(path.replace("{id}", "1"), method=method.upper(), json=body)
        assert response.status_code == 422, (path, response.data)
        schema = document["paths"][path][method]["responses"]["422"]["content"]["application/json"]["schema"]
        jsonschema.validate(response.json, {**schema, "components": document["components"]})


def test_every_route_of_the_app_is_in_the_document(bench):
    document = bench.get("/api/openapi.json").json["paths"]
    for rule in bench.application.url_map.iter_rules():
        if rule.rule.startswith("/api/") and rule.rule != "/api/openapi.json":
            assert re.sub(r"<(?:\w+:)?(\w+)>", r"{\1}", rule.rule) in document


def test_refusals_are_described(bench):
    document = bench.get("/api/openapi.json").json
    assert {"message"} <= set(document["components"]["schemas"]["ErrorMessage"]["properties"])
    assert "422" in document["paths"]["/api/motifs"]["post"]["responses"]


@pytest.fixture
def port():
    with socket.socket() as free:
        free.bind(("127.0.0.1", 0))
        return free.getsockname()[1]


@pytest.mark.thorough
def test_serving_the_demo_prints_the_address_and_listens_here_only(tmp_path, port):
    command = [sys.executable, "-m", "sewn_garland.cli", "serve", "--demo", "--data", str(tmp_path), "--port", str(port)]
    server = subprocess.Popen(command, stdout=subprocess.PIPE, text=True)
    try:
        assert f"http://127.0.0.1:{port}" in server.stdout.readline()
        with urllib.request.urlopen(f"http://127.0.0.1:{port}/api/workshop") as reply:
            assert len(json.load(reply)["brushes"]) == 15
        with pytest.raises(urllib.error.HTTPError, match="403"):
            urllib.request.urlopen(urllib.request.Request(f"http://127.0.0.1:{port}/", headers={"Host": "evil.example"}))
        listening = subprocess.run(["cat", "/proc/net/tcp"], capture_output=True, text=True, check=True).stdout
        assert f"0100007F:{port:04X}" in listening
        assert f"00000000:{port:04X}" not in listening
    finally:
        server.terminate()
        server.wait()
    assert (tmp_path / "workshop.sqlite").exists()


WORK = """
import sys
from making import bar, brush, measured
from sewn_garland.core.lay import cured, lay
from sewn_garland.server.serving import load_ahead
if sys.argv[1] == "ahead":
    load_ahead()
before = {name for name in sys.modules if name.startswith("scipy")}
line, made = measured("M0 0C0 12 20 12 20 0"), brush(bar()).changed({"looseness": {"keep_apart_mm": 3.0}})
cured(made, line, lay(made, [line])[0])
print(len({name for name in sys.modules if name.startswith("scipy")} - before))
"""


def test_the_first_cure_waits_for_nothing_to_be_loaded_once_the_server_is_up():
    command = [sys.executable, "-c", WORK]
    loaded = [
        subprocess.run([*command, way], capture_output=True, text=True, check=True, cwd=Path(__file__).parents[1]).stdout
        for way in ("ahead", "not")
    ]
    assert int(loaded[0]) == 0 < int(loaded[1])


def test_a_port_that_is_taken_is_told_in_one_line(tmp_path, capsys):
    with socket.socket() as taken:
        taken.bind(("127.0.0.1", 0))
        taken.listen()
        assert main(["serve", "--data", str(tmp_path), "--port", str(taken.getsockname()[1])]) == 2
    assert "cannot be listened on" in capsys.readouterr().err


def test_a_data_folder_that_cannot_be_made_is_told(tmp_path, capsys):
    (tmp_path / "file").write_text("in the way")
    assert main(["serve", "--data", str(tmp_path / "file"), "--port", "0"]) == 2
    assert "the data folder cannot be used" in capsys.readouterr().err


def test_the_demo_is_made_once(tmp_path):
    from sewn_garland.demo.build import build_demo
    from sewn_garland.store.database import Store

    store = Store(tmp_path / "w.sqlite")
    assert build_demo(store)
    assert not build_demo(store)
    store.close()
