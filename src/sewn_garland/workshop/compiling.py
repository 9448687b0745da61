"""Compile what is compiled when first called, by laying and writing pieces that need it all; what comes of it is kept beside the files."""

from __future__ import annotations

from pathlib import Path

from .. import core
from ..core.drawing.digits import filled
from ..core.drawing.svg_paths import paths_of
from ..core.lay import lay
from ..core.making.starters import motif_from_starter
from ..core.measuring.arc_length import measure
from ..core.reading.svg_lines import line_from_path_data
from ..core.values.brush import Brush, Ends, Hand, Joins, Pieces, Travel

CORNERS_AND_BENDS = "M0 0H40V40C80 40 60 80 20 90"
HAIRPIN = "M0 0H40V1H0"


def compile_ahead() -> None:
    """Compile every such function, or load it where it was compiled before: half a minute, or half a second."""
    pieces, hand, joins = Pieces((motif_from_starter("bar"),)), Hand(taper_start_mm=10), Joins(measured_by="outlines")
    for travel, ends, path in (
        (Travel(), Ends(outside_corner="mitre"), CORNERS_AND_BENDS),
        (Travel(round_bends="bent"), Ends(outside_corner="mitre"), CORNERS_AND_BENDS),
        (Travel(kind="once_length", round_bends="bent"), Ends(), CORNERS_AND_BENDS),
        (Travel(round_bends="jointed"), Ends(), HAIRPIN),
    ):
        brush = Brush("compiled", pieces, travel, ends=ends, hand=hand, joins=joins)
        [laid] = lay(brush, [measure(line_from_path_data(path))])
        if laid.outlines is not None:
            paths_of(laid.outlines)
    filled("%.3f", laid.pieces.matrices)


def forget_compiled() -> None:
    """Remove what was compiled before: it goes by its own file alone, not by those of the functions that it calls."""
    for path in Path(core.__file__).parent.rglob("__pycache__/*.nb[ic]"):
        path.unlink(missing_ok=True)


if __name__ == "__main__":
    forget_compiled()
    compile_ahead()
