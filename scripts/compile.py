"""Lay pieces that need every function that is compiled when first called: what comes of that is kept beside the functions' files."""

from __future__ import annotations

from sewn_garland.core.lay import lay
from sewn_garland.core.making.starters import motif_from_starter
from sewn_garland.core.measuring.arc_length import measure
from sewn_garland.core.reading.svg_lines import line_from_path_data
from sewn_garland.core.values.brush import Brush, Hand, Joins, Pieces, Travel
from sewn_garland.core.values.tracks import LineToLay

CORNERS_AND_BENDS = "M0 0H40V40C80 40 60 80 20 90"


def main() -> None:
    line = LineToLay(measure(line_from_path_data(CORNERS_AND_BENDS)))
    pieces, hand, joins = Pieces((motif_from_starter("bar"),)), Hand(taper_start_mm=10), Joins(measured_by="outlines")
    for kind in ("repeated", "once_length"):
        lay(Brush("compiled", pieces, Travel(kind=kind, round_bends="bent"), hand=hand, joins=joins), [line])


if __name__ == "__main__":
    main()
