"""The command line, run as a user runs it."""

import csv
import json
import subprocess
import sys

import pytest
from lxml import etree
from PIL import Image, ImageDraw

from making import SVG, bar_svg, brush_document, svg
from sewn_garland.cli import main
from sewn_garland.core.maths.outlines import area_of
from sewn_garland.core.reading.svg_motif import motif_from_svg


@pytest.fixture
def files(tmp_path):
    (tmp_path / "b.json").write_text(json.dumps(brush_document(spacing={"gap_pct": 20, "ease": "gaps"})))
    (tmp_path / "l.svg").write_text(svg('<path d="M10 20H90"/><circle cx="50" cy="60" r="30"/><path d="M5 5L5 5"/>', 100, 100))
    return tmp_path


def run(folder, *more, brush="b.json", lines="l.svg", out="o.svg"):
    return main(["lay", "--brush", str(folder / brush), "--lines", str(folder / lines), "--out", str(folder / out), *map(str, more)])


def test_laying_writes_everything_asked_for(files):
    more = ("--png", files / "o.png", "--dpi", 100, "--pieces", files / "p.csv", "--report", files / "r.json", "--cures-seconds", 600)
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
    assert {f["kind"] for f in ring["findings"]} >= {"tight bend", "gap"}
    assert all(f["cures"] and {"label", "change"} <= set(f["cures"][0]) for f in ring["findings"])
    assert nothing["pieces"] == 0
    assert nothing["joins"]["gap_max_mm"] is None
    assert 0 < report["seconds"] < 60
    rows = list(csv.DictReader((files / "p.csv").open()))
    assert [r["line"] for r in rows].count("0") == 7
    assert float(rows[0]["s_mm"]) == pytest.approx(5)
    with Image.open(files / "o.png") as image:
        assert image.size == (394, 394)
        assert image.info["dpi"] == pytest.approx((100, 100), abs=0.1)  # read by Pillow
    drawing = etree.parse(files / "o.svg").getroot()
    assert drawing.get("width") == "100mm"
    assert len(drawing.findall(f"{{{SVG}}}use")) == len(rows) == 23


def test_cures_are_tried_as_long_as_is_given(files, capsys):
    for seconds, untried in ((0, True), (600, False)):
        assert run(files, "--report", files / "r.json", "--cures-seconds", seconds) == 0
        findings = [f for line in json.loads((files / "r.json").read_text())["lines"] for f in line["findings"]]
        assert findings and all(f["untried"] == untried and bool(f["cures"]) != untried for f in findings)
    assert run(files, "--report", files / "r.json", "--cures-seconds", -1) == 2
    assert capsys.readouterr().err.startswith("sewn-garland: --cures-seconds must be from 0 to")


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
        ("jointed.json", "l.svg", "jointed.json: spacing.ease: “length” does not go with jointed travel"),
        ("dense.json", "l.svg", "more than 2 000 000"),
    ],
)
def test_bad_input_is_one_line_and_leaves_no_file(files, capsys, brush, lines, says):
    (files / "jointed.json").write_text(json.dumps(brush_document(travel={"round_bends": "jointed"}, spacing={"ease": "length"})))
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
    [(("--pdf", "o.pdf"), "--pdf is not built yet"), (("--arrangement", "-1"), "--arrangement must be a whole number from 0"),
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


def make(folder, file, *more):
    return main(["motif", str(folder / file), "--out", str(folder / "m.svg"), "--report", str(folder / "m.json"), *map(str, more)])


def test_motif_turns_an_svg_into_a_clean_one(files):
    (files / "leaf.svg").write_text(
        svg(
            '<g transform="translate(10 5)"><rect width="20" height="4" stroke="#000"/></g><text font-family="Tide Script">x</text>', 50, 30
        )
    )
    assert make(files, "leaf.svg", "--trim", "--width-mm", 10) == 0
    told = json.loads((files / "m.json").read_text())
    assert told["size_mm"] == [pytest.approx(10), pytest.approx(10 * 5 / 21)]
    assert told["points"] == 4
    assert told["frame_px"] is None
    assert told["seam"] is None
    assert any("Text in Tide Script was left out" in s for s in told["left_out"])
    assert motif_from_svg((files / "m.svg").read_bytes()).width == pytest.approx(10)


def test_motif_finds_the_repeat_and_the_cut_of_a_picture(files):
    image = Image.new("RGB", (900, 80), "white")
    for k in range(8):
        ImageDraw.Draw(image).ellipse([20 + 110 * k, 10, 90 + 110 * k, 70], fill="#2c4a84")
    image.save(files / "chain.png", dpi=(254, 254))
    assert make(files, "chain.png", "--find-repeat", "--find-cut") == 0
    told = json.loads((files / "m.json").read_text())
    assert told["repeat_px"] == pytest.approx(110, abs=0.2)
    assert told["repeat_mm"] == pytest.approx(11, abs=0.02)
    assert told["cuts_mm"][1] - told["cuts_mm"][0] == pytest.approx(11, abs=0.2)
    assert told["seam"]["mismatch_mm"] < 0.2
    assert told["frame_px"] == [0, 0, 900, 80]


def test_motif_traces_a_region_of_a_picture_to_scale(files):
    image = Image.new("RGB", (400, 300), "white")
    ImageDraw.Draw(image).ellipse([150, 100, 249, 199], fill="black")
    image.save(files / "blot.png")
    assert make(files, "blot.png", "--region", "100,50,200,200", "--trace", "threshold", "--trim", "--width-mm", 20) == 0
    told = json.loads((files / "m.json").read_text())
    assert told["size_mm"] == pytest.approx([20, 20], rel=0.02)
    assert told["frame_px"] == pytest.approx([150, 100, 100, 100], abs=1)
    assert 4 <= told["points"] <= 16
    assert told["repeat_px"] is None
    motif = motif_from_svg((files / "m.svg").read_bytes())
    assert sum(abs(area_of(s.commands, s.points)) for s in motif.shapes) == pytest.approx(3.14159 * 100, rel=0.03)


@pytest.mark.parametrize("more,words", [
    (("--region", "1,2,3"), "--region must be four whole numbers"), (("--clear", "blue"), "--clear must be background, background_and_holes, white"),
    (("--region", "0,0,9999,10"), "does not lie within its 40 × 30 pixels"), (("--tolerance", "999"), "--tolerance must be from 0 to 150"),
    (("--width-mm", "0"), "--width-mm must be from 0.05"), (("--find-repeat",), "nothing repeats along this picture"),
])  # fmt: skip
def test_motif_refuses_in_one_line_and_writes_nothing(files, capsys, more, words):
    Image.new("RGB", (40, 30), "#445566").save(files / "plain.png")
    assert make(files, "plain.png", *more) == 2
    error = capsys.readouterr().err
    assert words in error
    assert error.count("\n") == 1
    assert error.startswith("sewn-garland: ")
    assert not (files / "m.svg").exists()
    assert not (files / "m.json").exists()


def test_options_for_pictures_are_refused_for_an_svg(files, capsys):
    assert make(files, "l.svg", "--clear", "white") == 2
    assert "l.svg: --clear is for pictures" in capsys.readouterr().err


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


def test_an_arrangement_deals_the_variants_anew_and_the_same_number_the_same_way(files):
    pieces = [{"svg": bar_svg(fill=colour)} for colour in ("#203040", "#a33a2f", "#c9971c")]
    (files / "b.json").write_text(json.dumps(brush_document(pieces={"repeat": pieces}, variants={"order": "shuffled"})))

    def dealt(number):
        out = files / f"p{number}.csv"
        assert run(files, "--pieces", out, "--arrangement", number) == 0
        return [row["variant"] for row in csv.DictReader(out.open())]

    assert dealt(3) == dealt(3)
    assert dealt(3) != dealt(4)
