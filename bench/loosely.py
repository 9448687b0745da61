"""Very many loose pieces with colours of their own, and one brush in twelve arrangements."""

from __future__ import annotations

import numpy as np

from sewn_garland.core.assemble import painted
from sewn_garland.core.lay import lay
from sewn_garland.core.measuring.arc_length import measure
from sewn_garland.core.reading.svg_lines import line_from_path_data
from sewn_garland.core.reading.svg_motif import motif_from_svg
from sewn_garland.core.values.brush import Brush, Pieces
from sewn_garland.core.values.variations import Variation

FLECK = (
    "<svg xmlns='http://www.w3.org/2000/svg' width='4mm' height='4mm' viewBox='0 0 4 4'><circle fill='#c9971c' cx='2' cy='2' r='2'/></svg>"
)
SIX = [("size", 50, 100), ("turn", 0, 360), ("across", -300, 300), ("along", -50, 50), ("squash", 70, 100), ("opacity", 50, 100)]
COLOUR = [("hue", -12, 12), ("lightness", -4, 4)]
DEALS, OF_EACH = 12, 500


def loose(spread: list[tuple[str, float, float]], **sections: dict) -> Brush:
    varied = tuple(Variation(of=of, between=(low, high)) for of, low, high in spread)
    made = Brush("bench", Pieces((motif_from_svg(FLECK),)))
    return made.changed({"travel": {"kind": "scattered"}, "variations": varied, **sections})


def bench_loosely(row, median_seconds) -> None:
    """Add the rows."""
    made, seconds = loose(SIX + COLOUR), {}
    for pieces in (100_000, 1_000_000):
        line = measure(line_from_path_data(_wave(4.0 * pieces)))
        count = len(lay(made, [line])[0].pieces.s)
        seconds[pieces] = median_seconds(lambda line=line: painted(made.pieces.motifs, lay(made, [line])[0]), 3)
        row(f"scatter {count} pieces with six variations, and colour each by two", f"{seconds[pieces]:.2f} s",
            "≤ 0.6 s" if pieces == 100_000 else "–", pieces > 100_000 or seconds[pieces] <= 0.6)  # fmt: skip
    growth = seconds[1_000_000] / seconds[100_000]
    row("growth from 100 000 to 1 000 000 of them (10 is linear)", f"{growth:.1f} ×", "≤ 12 ×", growth <= 12)
    line = measure(line_from_path_data(_wave(4.0 * OF_EACH)))
    deals = [made.changed({"variants": {"arrangement": n}}) for n in range(1, DEALS + 1)]
    taken = median_seconds(lambda: [painted(own.pieces.motifs, lay(own, [line])[0]) for own in deals], 5)
    row(f"{DEALS} arrangements of a line of {OF_EACH} pieces, laid and coloured", f"{1000 * taken:.0f} ms", "≤ 150 ms", taken <= 0.15)
    sizes = loose([("size", 50, 100), ("gap", 0, 30)], travel={"kind": "repeated"}, spacing={"ease": "size"})
    line = measure(line_from_path_data(_wave(4.0 * 100_000)))
    count = len(lay(sizes, [line])[0].pieces.s)
    taken = median_seconds(lambda: lay(sizes, [line]), 3)
    row(f"repeat {count} pieces of unlike sizes and gaps, joined", f"{taken:.2f} s", "–", True)


def _wave(length: float) -> str:
    """Return a wave of about so many mm, each of its bows about 138 mm long."""
    bows = int(np.ceil(length / 138))
    return "M0 0" + "".join(f"c40 {40 * (-1) ** i} 80 {40 * (-1) ** i} 120 0" for i in range(bows))
