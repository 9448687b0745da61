"""Small things that many tests need: motifs, brushes, lines."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import replace

from sewn_garland.core.assemble import drawing_of, painted
from sewn_garland.core.drawing.shapes import shapes_of
from sewn_garland.core.making.suiting import suited
from sewn_garland.core.measuring.arc_length import measure
from sewn_garland.core.measuring.tracks import tracks_of
from sewn_garland.core.reading.brush_document import brush_of
from sewn_garland.core.reading.svg_lines import line_from_path_data
from sewn_garland.core.reading.svg_motif import motif_from_svg
from sewn_garland.core.values.brush import SINGLE_ROLES, Brush, Pieces, Settings, Travel, WidthPoint
from sewn_garland.core.values.drawing import Drawing
from sewn_garland.core.values.laid import LaidLine
from sewn_garland.core.values.line import MeasuredLine
from sewn_garland.core.values.motif import Motif, Shape
from sewn_garland.core.values.tracks import LineToLay, Tracks

SVG = "http://www.w3.org/2000/svg"

# a setting in short: its section, its key there, and what one unit of the short form is in the document
SHORT: dict[str, tuple[str, str, float]] = {
    **{key: ("travel", key, 0) for key in ("kind", "round_bends", "facing", "turn_deg", "mirror", "turn_about")},
    "side_shift": ("travel", "side_shift_mm", 0), "starts_at": ("travel", "starts_at_mm", 0),
    "size": ("spacing", "size_pct", 100), "gap": ("spacing", "gap_pct", 100), "ease_limit": ("spacing", "ease_limit_pct", 100),
    "ease": ("spacing", "ease", 0), "rest": ("spacing", "rest", 0),
    **{key: ("ends", key, 0) for key in ("corner_from_deg", "outside_corner", "inside_corner")},
    "round_radius": ("ends", "round_radius_mm", 0),
    **{key: ("variants", key, 0) for key in ("order", "weights", "arrangement")},
    "rows": ("rows", "beside_mm", 0), "row_ease": ("rows", "ease", 0), "brick": ("rows", "brick", 0),
    "taper_start": ("hand", "taper_start_mm", 0), "taper_end": ("hand", "taper_end_mm", 0), "taper_to": ("hand", "taper_to_pct", 100),
    "gap_tolerance": ("joins", "gap_tolerance_mm", 0), "kink_tolerance_deg": ("joins", "kink_tolerance_deg", 0),
    "tone_tolerance": ("joins", "tone_tolerance", 0),
}  # fmt: skip


def svg(body: str, width: float = 100, height: float = 100, more: str = "") -> str:
    """Return an SVG document of width × height mm whose user unit is 1 mm."""
    return f'<svg xmlns="{SVG}" width="{width}mm" height="{height}mm" viewBox="0 0 {width} {height}" {more}>{body}</svg>'


def bar_svg(width: float = 10, height: float = 2, fill: str = "#a33a2f") -> str:
    return svg(f'<rect width="{width}" height="{height}" fill="{fill}"/>', width, height)


def bar(width: float = 10, height: float = 2, fill: str = "#a33a2f") -> Motif:
    return motif_from_svg(bar_svg(width, height, fill))


def brush(*motifs: Motif, **settings) -> Brush:
    """Return a brush of repeat motifs, a bar by default; settings in short (shares for per cent), other pieces by ``start_piece`` and so on."""
    others = {role: settings.pop(f"{role}_piece") for role in SINGLE_ROLES if f"{role}_piece" in settings}
    return with_short(Brush("test", Pieces(motifs or (bar(),), **others)), **settings)


def suited_brush(motif: Motif) -> Brush:
    """Return a brush as it begins when it is made of a motif."""
    suit = suited(motif)
    settings = Settings().model_dump()
    for section, values in suit.settings.items():
        settings[section] |= values
    return brush_of("made", Pieces((replace(motif, joints=suit.joints or motif.joints),)), Settings.model_validate(settings))


def with_short(made: Brush, **settings) -> Brush:
    """Return a brush with some settings changed, in short."""
    patch: dict[str, dict] = {}
    for name, value in settings.items():
        if name == "width_along":
            points = tuple(WidthPoint(at_pct=100 * share, width_pct=100 * width) for share, width in value)
            patch.setdefault("hand", {})["width_along"] = points
        elif name == "by_outlines":
            patch.setdefault("joins", {})["measured_by"] = "outlines" if value else "frames"
        else:
            section, key, unit = SHORT[name]
            patch.setdefault(section, {})[key] = value * unit if unit else value
    return made.changed(patch)


def measured(path: str) -> MeasuredLine:
    return measure(line_from_path_data(path))


def tracks(*lines: MeasuredLine) -> Tracks:
    """Return lines as tracks of one row each, as a plain brush is laid on them."""
    return tracks_of([LineToLay(line, place) for place, line in enumerate(lines)], Brush("test", Pieces((bar(),)), Travel()))


def brush_document(**sections) -> dict:
    return {
        "format": "sewn-garland/brush", "version": 1, "name": "test",
        "pieces": {"repeat": [{"svg": bar_svg()}]}, **sections,
    }  # fmt: skip


def drawing(width: float, height: float, *lines: tuple[Sequence[Motif], LaidLine], **under) -> Drawing:
    """Return a page of laid lines, each with the motifs of its brush, as a drawing."""
    return drawing_of(width, height, [painted(tuple(motifs), laid) for motifs, laid in lines], **under)


def shapes_drawn(motifs: Sequence[Motif], laid: LaidLine, pieces: Iterable[int]) -> list[Shape]:
    """Return the shapes of some pieces of a laid line as they lie on the page."""
    item = painted(tuple(motifs), laid)
    below = max(0, len(item.motif) - len(laid.pieces.s))  # what closes the seams of pictures comes first
    return shapes_of(item, [below + int(i) for i in pieces])
