"""Small things that many tests need: motifs, brushes, lines."""

from __future__ import annotations

from sewn_garland.core.measuring.arc_length import measure
from sewn_garland.core.reading.svg_lines import line_from_path_data
from sewn_garland.core.reading.svg_motif import motif_from_svg
from sewn_garland.core.values.brush import Brush
from sewn_garland.core.values.line import MeasuredLine
from sewn_garland.core.values.motif import Motif

SVG = "http://www.w3.org/2000/svg"


def svg(body: str, width: float = 100, height: float = 100, more: str = "") -> str:
    """Return an SVG document of width × height mm whose user unit is 1 mm."""
    return f'<svg xmlns="{SVG}" width="{width}mm" height="{height}mm" viewBox="0 0 {width} {height}" {more}>{body}</svg>'


def bar_svg(width: float = 10, height: float = 2, fill: str = "#a33a2f") -> str:
    return svg(f'<rect width="{width}" height="{height}" fill="{fill}"/>', width, height)


def bar(width: float = 10, height: float = 2) -> Motif:
    return motif_from_svg(bar_svg(width, height))


def brush(*motifs: Motif, **settings) -> Brush:
    return Brush("test", motifs or (bar(),), **settings)


def measured(path: str) -> MeasuredLine:
    return measure(line_from_path_data(path))


def brush_document(**sections) -> dict:
    return {
        "format": "sewn-garland/brush", "version": 1, "name": "test",
        "pieces": {"repeat": [{"svg": bar_svg()}]}, **sections,
    }  # fmt: skip
