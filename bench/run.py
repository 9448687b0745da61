"""Measure speed and print a table of medians and ratios. Never a test: machines are shared and noisy."""

from __future__ import annotations

import argparse
import statistics
import sys
import time
from collections.abc import Callable

import numpy as np
from extremes import bench_extremes
from loosely import bench_loosely

from making import bench_making
from sewn_garland.core.assemble import drawing_of, painted
from sewn_garland.core.drawing.svg import compact_svg
from sewn_garland.core.lay import lay
from sewn_garland.core.measuring.arc_length import frames_at, measure
from sewn_garland.core.measuring.smoothing import line_from_points
from sewn_garland.core.reading.svg_lines import line_from_path_data
from sewn_garland.core.reading.svg_motif import motif_from_svg
from sewn_garland.core.values.brush import Brush, Pieces, WidthPoint
from sewn_garland.core.values.motif import Motif

PILL = "<svg xmlns='http://www.w3.org/2000/svg' width='8mm' height='2mm' viewBox='0 0 8 2'><rect width='8' height='2' rx='1'/></svg>"
ROWS: list[tuple[str, str, str, str]] = []


def median_seconds(run: Callable[[], object], times: int = 7) -> float:
    run()
    taken = []
    for _ in range(times):
        began = time.perf_counter()
        run()
        taken.append(time.perf_counter() - began)
    return statistics.median(taken)


def row(what: str, figure: str, wanted: str, met: bool) -> None:
    ROWS.append((what, figure, wanted, "yes" if met else "NO"))
    print(f"{what}: {figure}", file=sys.stderr, flush=True)  # as it goes, the table at the end


def brush(motif: Motif, **sections: dict) -> Brush:
    return Brush("bench", Pieces((motif,))).changed(sections)


def wavy_line(segments: int):
    t = np.linspace(0, 0.06 * segments, segments + 1)
    points = np.stack([100 * t, 300 * np.sin(t)], axis=1)
    return line_from_points(points, np.ones(len(points), bool))


def bench_laying() -> None:
    line = wavy_line(1000)
    motif = motif_from_svg(PILL)
    length = measure(line).length
    seconds = {}
    for pieces in (1_000, 10_000, 100_000):
        made = brush(motif, spacing={"size_pct": 100 * length / pieces / 10.4, "gap_pct": 30, "ease": "gaps"})
        seconds[pieces] = median_seconds(lambda b=made: lay(b, [line]), 5)
        count = len(lay(made, [line])[0].pieces.s)
        row(f"lay {count} rigid pieces on 1 000 segments, measuring included", f"{seconds[pieces]:.3f} s",
            "0.5 s" if pieces == 100_000 else "–", pieces < 100_000 or seconds[pieces] <= 0.5)  # fmt: skip
    growth = seconds[100_000] / seconds[10_000]
    row("growth from 10 000 to 100 000 pieces (10 is linear, less: the line itself)", f"{growth:.1f} ×", "≤ 12 ×", growth <= 12)
    made = brush(motif, spacing={"size_pct": 100 * length / 100_000 / 10.4, "gap_pct": 30})
    laid = lay(made, [line])[0]
    drawing = drawing_of(1000, 1000, [painted(made.pieces.motifs, laid)])
    size = len(compact_svg(drawing)) / len(laid.pieces.s)
    row("compact SVG, bytes a piece", f"{size:.1f}", "≤ 90", size <= 90)
    row("writing it, 100 000 pieces", f"{median_seconds(lambda: compact_svg(drawing), 3):.2f} s", "–", True)


def bench_travel() -> None:
    """Links solved for a closed line, and bent pieces at two tightnesses of bend."""
    angle = np.linspace(0, 2 * np.pi, 400, endpoint=False)
    radius = 2000 * (1 + 0.1 * np.sin(7 * angle))
    ring = measure(line_from_points(np.stack([radius * np.cos(angle), radius * np.sin(angle)], axis=1), np.ones(400, bool), closed=True))
    seconds = {}
    for links in (200, 2_000, 20_000):
        link = Motif((), ring.length / (links + 0.4), 2.0, 1.0)
        made = brush(link, travel={"round_bends": "jointed"}, spacing={"ease": "size"})
        seconds[links] = median_seconds(lambda b=made: lay(b, [ring]), 5)
        laid = lay(made, [ring])[0]
        worst = float(laid.joins.gap.max())
        row(f"{len(laid.pieces.s)} jointed links closed on a smooth line (joints within {worst:.0e} mm)", f"{seconds[links]:.3f} s",
            "≤ 1 s" if links == 20_000 else "–", links < 20_000 or seconds[links] <= 1)  # fmt: skip
    row("growth from 2 000 to 20 000 links (10 is linear)", f"{seconds[20_000] / seconds[2_000]:.1f} ×", "≤ 12 ×", True)
    turns = np.linspace(0, 2 * np.pi, 21)
    steps = [f"{4 + 3.9 * np.cos(a):.3f} {1.5 + 1.45 * np.sin(a):.3f}" for a in turns]
    handles = [f"{4 + 3.9 * np.cos(a - d):.3f} {1.5 + 1.45 * np.sin(a - d):.3f}" for a in turns[1:] for d in (0.2, 0.1)]
    path = f"M{steps[0]}" + "".join(f"C{handles[2 * i]} {handles[2 * i + 1]} {steps[i + 1]}" for i in range(20)) + "Z"
    motif = motif_from_svg(f"<svg xmlns='http://www.w3.org/2000/svg' width='8mm' height='3mm' viewBox='0 0 8 3'><path d='{path}'/></svg>")
    for times, pieces in ((5, 50), (5, 500), (5, 5_000), (2, 5_000)):
        r = 3 * times
        arcs = int(8 * pieces / (np.pi * r)) + 1
        line = measure(line_from_path_data("M0 0" + "".join(f"a{r} {r} 0 0 {i % 2} {2 * r} 0" for i in range(arcs))))
        made = brush(motif, travel={"round_bends": "bent"})
        taken = median_seconds(lambda b=made, on=line: lay(b, [on]), 3)
        count = len(lay(made, [line])[0].pieces.s)
        wanted = pieces == 5_000 and times == 5
        row(f"{count} bent pieces of 20 curves within 0.01 mm, bends {times} times the height", f"{taken:.2f} s",
            "≤ 1.5 s" if wanted else "–", not wanted or taken <= 1.5)  # fmt: skip


def bench_hostile() -> None:
    """Lines that turn up in real files and take the longest: an answer within 2 s each, also with rows, widths or outlines."""
    motif = motif_from_svg(PILL)
    corners = "M0 0" + "".join(f"L{3 * i} {6 * (i % 2)}" for i in range(1, 10_001))
    crumbs = "M0 0" + "".join(f"l0.001 {0.001 * (i % 2)}" for i in range(10_000))
    whirl = "M0 0" + "".join(f"A{r:.2f} {r:.2f} 0 0 1 {r if k % 2 else -r:.2f} 0" for k, r in enumerate(np.arange(0.3, 60, 0.3)))
    lines = (("10 000 corners", corners), ("10 000 segments of a micrometre", crumbs), ("a spiral tighter than its piece", whirl))
    for name, path in lines:
        ways = [(how, corner) for corner in ("mitre", "through", "round") for how in ("rigid", "bent", "jointed")]
        for how, corner in ways:
            ends = {"outside_corner": corner, "inside_corner": corner, "round_radius_mm": 0.3}
            made = brush(motif, travel={"round_bends": how}, spacing={"ease": "size"}, ends=ends)
            taken = median_seconds(lambda b=made, on=path: lay(b, [measure(line_from_path_data(on))]), 3)
            row(f"{name}, read and laid {how}, {corner}", f"{taken:.2f} s", "≤ 2 s", taken <= 2)
    widths = [WidthPoint(at_pct=at, width_pct=width) for at, width in ((0, 100), (50, 40), (100, 100))]
    rows = {"beside_mm": [-3.0, 3.0]}
    for what, more in (
        ("two rows beside it", {"rows": rows}),
        ("two rows beside it, mitred", {"rows": rows, "ends": {"outside_corner": "mitre", "inside_corner": "mitre"}}),
        (
            "thick and thin",
            {"hand": {"width_along": widths}},
        ),
        ("measured by outlines", {"joins": {"measured_by": "outlines"}}),
    ):
        for how in ("rigid", "bent", "jointed"):
            made = brush(motif, travel={"round_bends": how}, spacing={"ease": "size"}, **more)
            taken = median_seconds(lambda b=made: lay(b, [measure(line_from_path_data(corners))]), 3)
            row(f"10 000 corners, read and laid {how}, {what}", f"{taken:.2f} s", "≤ 2 s", taken <= 2)


def bench_look_ups() -> None:
    from svgpathtools import parse_path

    path = "M8 35C18 13 26 13 36 35S54 57 64 35S82 13 92 35"
    ours = line_from_path_data(path)
    theirs = parse_path(path)
    measured = measure(ours)
    distances = np.linspace(0, measured.length, 100_000)
    mine = median_seconds(lambda: frames_at(measure(ours), distances), 5)
    few = distances[:: len(distances) // 60][:60]
    began = time.perf_counter()
    for s in few:
        theirs.point(theirs.ilength(min(float(s), theirs.length())))
    reference = (time.perf_counter() - began) / len(few) * len(distances)
    row("arc length and 100 000 inverse look-ups", f"{mine:.3f} s", "–", True)
    row("the reference library on the same (60 measured, scaled)", f"{reference:.0f} s", "–", True)
    row("ratio", f"{reference / mine:.0f} ×", "≥ 100 ×", reference / mine >= 100)


def main() -> None:
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("--no-browser", action="store_true", help="leave the drag in the browser out")
    arguments = parser.parse_args()
    row("this machine: a million additions in Python", f"{1000 * median_seconds(lambda: sum(range(1_000_000)), 5):.0f} ms", "–", True)
    bench_laying()
    bench_travel()
    bench_hostile()
    bench_look_ups()
    bench_extremes(row, median_seconds)
    bench_loosely(row, median_seconds)
    bench_making(row, median_seconds)
    if not arguments.no_browser:
        from drag import bench_drags

        bench_drags(row)
    widths = [max(len(r[i]) for r in ROWS) for i in range(4)]
    print("  ".join(h.ljust(w) for h, w in zip(("what", "median", "wanted", "met"), widths, strict=True)))
    for cells in ROWS:
        print("  ".join(c.ljust(w) for c, w in zip(cells, widths, strict=True)))


if __name__ == "__main__":
    main()
