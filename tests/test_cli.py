"""The command line, run as a user runs it."""

import csv
import json
import subprocess
import sys

import pytest
from lxml import etree
from PIL import Image

from making import SVG, bar_svg, brush_document, svg
from sewn_garland.cli import main


@pytest.fixture
def files(tmp_path):
    (tmp_path / "b.json").write_text(json.dumps(brush_document(spacing={"gap_pct": 20, "ease": "gaps"})))
    (tmp_path / "l.svg").write_text(svg('<path d="M10 20H90"/><circle cx="50" cy="60" r="30"/><path d="M5 5L5 5"/>', 100, 100))
    return tmp_path


def run(folder, *more, brush="b.json", lines="l.svg", out="o.svg"):
    return main(["lay", "--brush", str(folder / brush), "--lines", str(folder / lines), "--out", str(folder / out), *map(str, more)])


def test_laying_writes_everything_asked_for(files):
    more = ("--png", files / "o.png", "--dpi", 100, "--pieces", files / "p.csv", "--report", files / "r.json")
    assert run(files, *more) == 0
    report = json.loads((files / "r.json").read_text())
    straight, ring, nothing = report["lines"]
    assert (straight["pieces"], straight["runs"], straight["closed"]) == (7, 1, False)
    assert straight["pitch_mm"] == pytest.approx(70 / 6)
    assert straight["eased_pct"] == pytest.approx((70 / 6 / 12 - 1) * 100)
    assert straight["tightest_radius_mm"] is None
    assert straight["joins"] == {"count": 6, "gap_max_mm": pytest.approx(0, abs=1e-9), "overlap_max_mm": pytest.approx(0, abs=1e-9),
                                 "step_max_mm": pytest.approx(0, abs=1e-9), "kink_max_deg": pytest.approx(0, abs=1e-9)}  # fmt: skip
    assert ring["tightest_radius_mm"] == pytest.approx(30)
    assert ring["joins"]["count"] == ring["pieces"] == 16
    assert {f["kind"] for f in ring["findings"]} >= {"tight bend", "kink"}
    assert all(f["cures"] and {"label", "change"} <= set(f["cures"][0]) for f in ring["findings"])
    assert nothing["pieces"] == 0
    assert nothing["joins"]["gap_max_mm"] is None
    assert 0 < report["seconds"] < 60
    rows = list(csv.DictReader((files / "p.csv").open()))
    assert [r["line"] for r in rows].count("0") == 7
    assert float(rows[0]["s_mm"]) == pytest.approx(5)
    with Image.open(files / "o.png") as image:
        assert image.size == (394, 394)
    drawing = etree.parse(files / "o.svg").getroot()
    assert drawing.get("width") == "100mm"
    assert len(drawing.findall(f"{{{SVG}}}use")) == len(rows) == 23


def test_the_installed_command_runs(files):
    done = subprocess.run([sys.executable, "-m", "sewn_garland.cli", "lay", "--brush", files / "b.json", "--lines", files / "l.svg",
                           "--out", files / "o.svg"], capture_output=True, text=True, check=False)  # fmt: skip
    assert (done.returncode, done.stderr) == (0, "")


@pytest.mark.parametrize(
    ("brush", "lines", "says"),
    [
        ("none.json", "l.svg", "none.json: it cannot be read"),
        ("b.json", "none.svg", "none.svg: it cannot be read"),
        ("l.svg", "l.svg", "l.svg: it is not JSON"),
        ("b.json", "b.json", "b.json: it is not SVG"),
        ("jointed.json", "l.svg", "jointed.json: travel.round_bends: “jointed” is not built yet"),
        ("dense.json", "l.svg", "more than 2 000 000"),
    ],
)
def test_bad_input_is_one_line_and_leaves_no_file(files, capsys, brush, lines, says):
    (files / "jointed.json").write_text(json.dumps(brush_document(travel={"round_bends": "jointed"})))
    (files / "dense.json").write_text(json.dumps(brush_document(spacing={"size_pct": 0.0001})))
    before = sorted(files.iterdir())
    assert run(files, "--report", files / "r.json", brush=brush, lines=lines) == 2
    told = capsys.readouterr().err
    assert told.startswith("sewn-garland: ")
    assert says in told
    assert told.count("\n") == 1
    assert sorted(files.iterdir()) == before


@pytest.mark.parametrize(
    ("more", "says"),
    [(("--pdf", "o.pdf"), "--pdf is not built yet"), (("--arrangement", "3"), "--arrangement is not built yet"),
     (("--png", "o.png", "--dpi", "0"), "--dpi must be from 1 to 10000"), (("--png", "o.png", "--dpi", "9999"), "choose a lower dpi")],
)  # fmt: skip
def test_options_that_cannot_be_met_are_refused(files, capsys, more, says):
    assert run(files, *more) == 2
    assert says in capsys.readouterr().err
    assert not (files / "o.svg").exists()


def test_an_output_that_cannot_be_written_leaves_the_others_as_they_were(files, capsys):
    (files / "o.svg").write_text("before")
    assert run(files, "--report", files / "nowhere" / "r.json") == 2
    assert "cannot be written" in capsys.readouterr().err
    assert (files / "o.svg").read_text() == "before"
    assert not list(files.glob(".o.svg*"))


def test_motif_is_refused_until_it_is_built(capsys):
    assert main(["motif", "x.svg", "--out", "y.svg"]) == 2
    assert "not built yet" in capsys.readouterr().err


def test_unknown_options_are_one_line(capsys):
    with pytest.raises(SystemExit) as caught:
        main(["lay", "--nonsense"])
    assert caught.value.code == 2
    assert capsys.readouterr().err.count("\n") == 1


def test_motif_files_beside_the_brush_are_used(files):
    (files / "leaf.svg").write_text(bar_svg(20, 4))
    (files / "leaf.json").write_text(json.dumps(brush_document(pieces={"repeat": [{"motif": "leaf.svg"}]})))
    assert run(files, "--pieces", files / "p.csv", brush="leaf.json") == 0
    assert [r["line"] for r in csv.DictReader((files / "p.csv").open())].count("0") == 4
