"""Very many pieces, very many lines, wild ones, and what a report of them costs."""

from __future__ import annotations

import json
import subprocess
import sys
import tempfile
import time
from pathlib import Path

import numpy as np

from sewn_garland.core.assemble import drawing_of, on_page
from sewn_garland.core.drawing.svg import compact_svg
from sewn_garland.core.inspecting.cures import SECONDS, Deadline
from sewn_garland.core.lay import cured, lay, lines_to_lay
from sewn_garland.core.reading.svg_lines import line_from_path_data
from sewn_garland.core.reading.svg_motif import motif_from_svg
from sewn_garland.core.values.brush import Brush, Pieces
from sewn_garland.server.serving import load_ahead

BAR = "<svg xmlns='http://www.w3.org/2000/svg' width='10mm' height='2mm' viewBox='0 0 10 2'><path fill='#336' d='M0 0H10V2H0Z'/></svg>"
DASHED = (
    "<svg xmlns='http://www.w3.org/2000/svg' width='10mm' height='2mm' viewBox='0 0 10 2'>"
    "<path fill='none' stroke='#336' stroke-width='.6' stroke-dasharray='1 .5' d='M0 1C3 0 7 2 10 1'/></svg>"
)
RUN = """
import re, sys, time
from sewn_garland.cli import main
began = time.perf_counter()
assert main(sys.argv[1:]) == 0
high = int(re.search(r"VmHWM:\\s*(\\d+)", open("/proc/self/status").read())[1]) / 1024  # getrusage counts what forked it as well
print(high, time.perf_counter() - began)
"""
MOST_TIMES = 2.5  # that a report costs of what laying does


def brush(**sections: dict) -> Brush:
    return Brush("bench", Pieces((motif_from_svg(BAR),))).changed(sections)


def bench_extremes(row, median_seconds) -> None:
    """Add the rows, of what a server has loaded."""
    load_ahead()
    for way, most in (("bent", 17.5), ("jointed", 21.0)):
        megabytes, seconds, size = _written(way, 1_000_000)
        row(f"1 000 000 {way} pieces laid and written, memory at most", f"{megabytes:.0f} MB", "≤ 1 200 MB", megabytes <= 1200)
        row(f"the same, {size:.0f} MB of SVG", f"{seconds:.1f} s", f"≤ {most} s", seconds <= most)
    short = [line_from_path_data(path) for path in _short_lines(1000)]
    bent = brush(travel={"round_bends": "bent"})
    seconds = median_seconds(lambda: lay(bent, short), 3)
    row(f"1 000 short curved lines, {_count(bent, short)} bent pieces, measuring included", f"{seconds:.2f} s", "≤ 3 s", seconds <= 3)
    dashed = Brush("bench", Pieces((motif_from_svg(DASHED),))).changed({"travel": {"round_bends": "bent"}})
    waves = "M0 0" + "".join(f"c30 {20 * (-1) ** i} 70 {20 * (-1) ** i} 100 0" for i in range(1950))
    stitched = [line_from_path_data(waves)]
    seconds = median_seconds(lambda: _drawn(dashed, stitched), 3)
    row(f"{_count(dashed, stitched)} bent pieces of seven dashes, laid and written", f"{seconds:.2f} s", "≤ 2 s", seconds <= 2)
    wild, rigid = [line_from_path_data(_wild(1000))], brush(spacing={"size_pct": 8.5})
    seconds = median_seconds(lambda: lay(rigid, wild), 3)
    row(f"{_count(rigid, wild)} rigid pieces on 1 000 cubics with near-cusps", f"{seconds:.2f} s", "≤ 0.5 s", seconds <= 0.5)
    links = brush(travel={"round_bends": "jointed"}, spacing={"size_pct": 20})
    for what, made, lines in (
        ("wild cubics with very many findings", brush(), wild),
        ("100 000 links with one tight bend", links, [line_from_path_data(waves + "c1 0 1 0 1 1")]),
        ("two pieces on a bend", brush(), [line_from_path_data("M0 0C0 12 20 12 20 0")]),
        ("1 000 short curved lines", brush(), short),
    ):
        laying, report, untried, cures = _report_of(made, lines)
        told = f"{report / laying:.1f} ×" if report > SECONDS else f"{report:.2f} s"
        row(f"cures for {what}: {cures} findings with, {untried} not tried in time; laying {laying:.2f} s", told,
            f"≤ {MOST_TIMES - 1} × or {SECONDS:g} s", report <= max(SECONDS, (MOST_TIMES - 1) * laying) * 1.1)  # fmt: skip


def _count(made: Brush, lines: list) -> int:
    return sum(len(line.pieces.s) for line in lay(made, lines))


def _drawn(made: Brush, lines: list) -> str:
    laid = lay(made, lines)
    return compact_svg(drawing_of(1000, 600, [item for line in laid for item in on_page(made.pieces.motifs, line, made.ink)]))


def _report_of(made: Brush, lines: list) -> tuple[float, float, int, int]:
    """Return how long laying takes, how long cures of all lines do on top, and how many findings were left untried and got cures."""
    began = time.perf_counter()
    ready = lines_to_lay(lines)
    laid = lay(made, ready)
    middle = time.perf_counter()
    deadline = Deadline(SECONDS, time.monotonic)
    done = [cured(made, line, one, deadline=deadline) for line, one in zip(ready, laid, strict=True)]
    end = time.perf_counter()
    findings = [finding for line in done for finding in line.findings]
    return middle - began, end - middle, sum(f.untried for f in findings), sum(bool(f.cures) for f in findings)


def _written(way: str, pieces: int) -> tuple[float, float, float]:
    """Return the megabytes, seconds and megabytes of SVG of pieces laid by the command on one line."""
    with tempfile.TemporaryDirectory() as folder:
        place = Path(folder)
        (place / "bar.svg").write_text(BAR)
        settings = {"travel": {"round_bends": way}, "spacing": {"size_pct": 10}}
        document = {"format": "sewn-garland/brush", "version": 1, "name": "bench", "pieces": {"repeat": [{"motif": "bar.svg"}]}}
        (place / "b.json").write_text(json.dumps({**document, **settings}))
        arcs = 200
        step = pieces / arcs / 1.1
        path = "M0 300" + "".join(
            f"c{step / 3:.2f} {200 * (-1) ** i} {2 * step / 3:.2f} {200 * (-1) ** i} {step:.2f} 0" for i in range(arcs)
        )
        (place / "l.svg").write_text(
            f'<svg xmlns="http://www.w3.org/2000/svg" width="1000mm" height="600mm" viewBox="0 0 1000 600"><path d="{path}"/></svg>'
        )
        files = ["lay", "--brush", str(place / "b.json"), "--lines", str(place / "l.svg"), "--out", str(place / "o.svg")]
        done = subprocess.run([sys.executable, "-c", RUN, *files], capture_output=True, text=True, check=True)
        megabytes, seconds = map(float, done.stdout.split())
        return megabytes, seconds, (place / "o.svg").stat().st_size / 1e6


def _short_lines(count: int) -> list[str]:
    """Return path data of lines of two curves each, some 80 mm long, with a corner between."""
    rng = np.random.default_rng(1)
    lines = []
    for _ in range(count):
        start = rng.uniform(0, 1000, 2)
        points = start + np.cumsum(rng.normal(0, 1, (6, 2)) * 10 + (10, 3), axis=0)
        lines.append(f"M{start[0]:.3f} {start[1]:.3f}C" + " ".join(f"{x:.3f} {y:.3f}" for x, y in points))
    return lines


def _wild(count: int) -> str:
    """Return path data of cubics whose handles cross, each with a near-cusp."""
    rng = np.random.default_rng(2)
    ends = np.cumsum(rng.normal(0, 30, (count, 2)), axis=0)
    handles = ends[:, None] + rng.normal(0, 40, (count, 2, 2))
    curves = "".join(f"C{a[0]:.3f} {a[1]:.3f} {b[0]:.3f} {b[1]:.3f} {e[0]:.3f} {e[1]:.3f}" for (a, b), e in zip(handles, ends, strict=True))
    return "M0 0" + curves
