"""Build the demo world through the same calls that the interface makes."""

from __future__ import annotations

from pathlib import Path
from typing import Any

from sqlmodel import Session, delete, select

from ..core.values.brush import Role
from ..store import tables
from ..store.database import Store
from ..workshop import brushes, lines, motifs, pages
from .scans import write_samples

ARTWORK = Path(__file__).with_name("artwork")

# name, artwork, base line (mm, None: the middle), changes to the settings
BRUSHES: tuple[tuple[str, str, float | None, dict], ...] = (
    ("Running stitch", "running-stitch", None, {"spacing": {"gap_pct": 45, "ease": "gaps"}}),
    (
        "Three-strand rope",
        "rope-strand",
        None,
        {"spacing": {"gap_pct": -58, "ease": "gaps"}, "ends": {"outside_corner": "butt", "inside_corner": "butt"}},
    ),
    (
        "Eelgrass garland",
        "eelgrass",
        None,
        {
            "spacing": {"gap_pct": -9, "ease": "gaps", "ease_limit_pct": 20},
            "variations": [
                {"of": "size", "between": [88, 104]},
                {"of": "turn", "between": [-5, 5], "gather_pct": 30},
                {"of": "hue", "between": [-12, 12]},  # common practice: colour by 3 to 4 %
                {"of": "lightness", "between": [-3.5, 3.5]},
            ],
        },
    ),
    ("Mooring chain", "mooring-link", None, {"travel": {"round_bends": "jointed"}, "spacing": {"ease": "size"}}),
    ("Cockle row", "cockle", None, {"spacing": {"gap_pct": 12, "ease": "gaps", "ease_limit_pct": 20}}),
    ("Wave border", "wave", None, {"spacing": {"ease": "size"}}),
    (
        "Soundings",
        "sounding-dot",
        None,
        {
            "spacing": {"gap_pct": 230, "ease": "gaps"},
            "variations": [{"of": "opacity", "follows": "length", "between": [100, 18], "response": [[0, 0], [0.5, 0.35], [1, 1]]}],
        },
    ),
    ("Blanket stitch", "blanket-stitch", 6.4, {"spacing": {"ease": "size"}, "ends": {"outside_corner": "butt", "inside_corner": "butt"}}),
    ("Cable stitch", "cable-stitch", None, {"spacing": {"gap_pct": -14, "ease": "gaps"}}),
    (
        "Rope with knots",
        "rope-strand",
        None,
        {
            "travel": {"round_bends": "bent"},
            "spacing": {"gap_pct": -58, "ease": "gaps"},
            "ends": {"outside_corner": "piece", "inside_corner": "mitre"},
        },
    ),
    (
        "Sign stitch",
        "cable-stitch",
        None,
        {
            "travel": {"round_bends": "bent"},
            "spacing": {"gap_pct": -14, "ease": "gaps"},
            "ends": {"outside_corner": "round", "inside_corner": "round", "round_radius_mm": 6},
        },
    ),
    (
        "Strewn cockles",
        "cockle",
        None,
        {
            "travel": {"kind": "scattered"},
            "spacing": {"gap_pct": 30},
            "variations": [
                {"of": "size", "between": [45, 100]},
                {"of": "turn", "between": [-180, 180]},
                {"of": "across", "between": [-130, 130]},
                {"of": "along", "between": [-30, 30]},
                {"of": "lightness", "between": [-5, 5]},
                {"of": "hue", "between": [-10, 10]},
            ],
            "looseness": {"keep_apart_mm": 10},
        },
    ),
    (
        "Lantern glow",
        "lantern-glow",
        None,
        {
            "travel": {"kind": "scattered"},
            "spacing": {"gap_pct": -35},
            "variations": [
                {"of": "size", "between": [10, 200], "response": [[0, 0], [0.6, 0.25], [1, 1]]},
                {"of": "across", "between": [-45, 45], "gather_pct": 40},
                {"of": "along", "between": [-40, 40]},
                {"of": "mix", "between": [0, 100]},
            ],
            "ink": {
                "ink": "#f2a93b",
                "second_ink": "#e0654a",
                "gives": "hue_strength",
                "darkest": "ink",
                "laid_on_as": "screen",
                "blends": "each_piece",
            },
        },
    ),
    (
        "Foam flecks",
        "foam-fleck",
        None,
        {
            "travel": {"kind": "scattered"},
            "spacing": {"gap_pct": 10},
            "variations": [
                {"of": "size", "between": [25, 100], "response": [[0, 0], [0.7, 0.3], [1, 1]]},
                {"of": "across", "between": [-250, 250], "gather_pct": 60},
                {"of": "along", "between": [-60, 60]},
                {"of": "count", "between": [1, 4]},
                {"of": "opacity", "between": [30, 95]},
            ],
        },
    ),
    (
        "Star dust",
        "star-point",
        None,
        {
            "travel": {"kind": "scattered"},
            "spacing": {"gap_pct": 330},
            "variations": [
                {"of": "size", "between": [30, 110], "response": [[0, 0], [0.7, 0.25], [1, 1]]},
                {"of": "across", "between": [-900, 900]},
                {"of": "along", "between": [-150, 150]},
                {"of": "opacity", "between": [35, 100]},
            ],
            "looseness": {"keep_apart_mm": 2.5},
        },
    ),
)

# links meet by their joints: inner length 13 mm, wire 2.5 mm
JOINTS_MM = {"mooring-link": [[2.5, 5], [15.5, 5]], "mooring-link-edge": [[2.5, 5], [15.5, 5]]}

# further pieces of a brush: role, artwork, base line
PIECES: dict[str, tuple[Role, str, float | None]] = {
    "Mooring chain": ("repeat", "mooring-link-edge", None),
    "Rope with knots": ("outside_corner", "rope-knot", 4.0),
}

ROUTE_MAP = {
    "page": {"name": "Route map print", "width_mm": 400, "height_mm": 300, "ground": "#e9f1f1"},
    "scenery": [
        {"d": "M0 0H168C150 34 122 40 108 66C92 96 64 104 46 134C34 154 18 164 0 168Z", "fill": "#ece3cf"},
        {"d": "M0 0H150C134 28 108 36 94 58C80 82 52 92 36 118C26 134 12 142 0 146Z", "fill": "#e2d6ba"},
        {"d": "M400 92C372 100 352 122 346 150C340 182 362 206 400 214Z", "fill": "#ece3cf"},
        {"d": "M400 110C382 116 366 132 362 152C358 176 374 192 400 197Z", "fill": "#e2d6ba"},
        {"d": "M0 268C60 258 130 272 200 266S340 258 400 268V300H0Z", "fill": "#dbe8ea"},
    ],
    "lines": [
        ("Rope frame", "Three-strand rope", "M14 14H386V286H14Z", 90, None),
        ("Tide line", "Wave border", "M30 268C90 258 150 272 210 266S330 258 370 266", 100, None),
        ("Eelgrass shore", "Eelgrass garland", "M172 30C152 62 124 66 110 88C92 114 66 116 46 148", 80, None),
        ("Soundings, east", "Soundings", "M206 190C240 168 268 168 300 128S320 70 352 52", 100, None),
        ("Soundings, mid", "Soundings", "M178 176C214 152 246 148 272 112S296 56 326 40", 90, "#86a3b3"),
        ("Soundings, west", "Soundings", "M152 160C186 136 220 128 244 96S268 50 296 34", 80, "#a9bfca"),
        ("Harbour wall", "Blanket stitch", "M352 122V152L330 174", 100, None),
        ("Ferry route, return", "Running stitch",
         "M60 226C100 196 140 196 176 216S268 248 308 210S334 178 338 156", 82, "#d98a6a"),
        ("Ferry route", "Running stitch", "M56 218C98 186 142 186 180 206S262 236 300 200S322 172 326 150", 100, None),
    ],
}  # fmt: skip

TEA_TOWEL = {
    "page": {"name": "Tide table tea towel", "width_mm": 480, "height_mm": 700, "ground": "#f7f4ec"},
    "scenery": [{"d": "M70 250H410V560H70Z", "fill": "#efe9da"}],
    "lines": [
        ("Border", "Rope with knots", "M26 26H454V674H26Z", 120, None),
        ("Swag", "Eelgrass garland", "M70 80C150 190 330 190 410 80", 130, None),
        ("Shells, upper", "Cockle row", "M90 226H390", 100, None),
        ("Shells, lower", "Cockle row", "M90 590H390", 100, None),
        ("Shells strewn", "Strewn cockles", "M96 300C160 268 210 352 280 322S370 300 392 336", 90, None),
        ("Shells strewn, right", "Strewn cockles", "M384 540C330 500 262 546 200 508S120 470 92 520", 80, None),
        ("Waves", "Wave border", "M70 636H410", 110, None),
    ],
}  # fmt: skip


MUG_WRAP = {
    "page": {"name": "Enamel mug wrap", "width_mm": 240, "height_mm": 90, "ground": "#f4f6f6"},
    "scenery": [{"d": "M70 34H170V56H70Z", "fill": "#e3e9ea"}],
    "lines": [
        ("Mooring chain", "Mooring chain",
         "M30 12H210A18 18 0 0 1 228 30V60A18 18 0 0 1 210 78H30A18 18 0 0 1 12 60V30A18 18 0 0 1 30 12Z", 70, None),
    ],
}  # fmt: skip


NUMERAL_7 = "M108 18H198V36C172 56 158 78 154 104H130C134 76 148 54 168 37H108Z"
BERTH_SIGN = {
    "page": {"name": "Berth sign", "width_mm": 300, "height_mm": 120, "ground": "#f3efe4"},
    "scenery": [{"d": "M6 6H294V114H6Z", "fill": "#e6eef0"}, {"d": NUMERAL_7, "fill": "#f8f6ef"}],
    "lines": [("Numeral 7", "Sign stitch", NUMERAL_7, 60, None)],
}  # fmt: skip


NIGHT_CARD = {
    "page": {
        "name": "Night sailing card", "width_mm": 148, "height_mm": 105, "ground": "#16233d",
        "inks": [("lantern", "#f2a93b"), ("ember", "#e0654a"), ("moon", "#efe3bf"), ("foam", "#dfe9ec"), ("tide", "#4f7ea0"),
                 ("deep", "#0c1526")],
    },
    "scenery": [
        {"d": "M0 70C30 67 60 72 92 69S134 67 148 70V105H0Z", "fill": "#0f1a2f"},
        {"d": "M0 84C34 80 66 87 100 83S136 81 148 83V105H0Z", "fill": "#0b1424"},
        {"d": "M127 12A9 9 0 1 0 136 25A7.4 7.4 0 1 1 127 12Z", "fill": "#e9dcb4"},
        {"d": "M18 71L22 79H78L84 69H60V62H36V68H20Z", "fill": "#0a111f"},
        {"d": "M40 62V55H52V62ZM66 69V58H68V69Z", "fill": "#0a111f"},
    ],
    "lines": [
        ("Stars", "Star dust", "M4 14C40 6 92 24 144 10", 100, None),
        ("Stars, low", "Star dust", "M6 40C50 32 100 46 142 36", 80, None),
        ("Lanterns of the ferry", "Lantern glow", "M23 66C38 61 62 62 80 66", 36, None),
        ("Lanterns, mast to mast", "Lantern glow", "M12 34C40 58 66 56 92 34S132 36 144 44", 62, None),
        ("Glow on the water", "Lantern glow", "M20 88C46 84 76 92 108 87", 55, "#e0654a"),
        ("Foam at the bow", "Foam flecks", "M12 81C30 79 44 83 88 78", 70, None),
        ("Foam, near", "Foam flecks", "M0 97C34 92 74 101 148 95", 110, "#8fb3c7"),
    ],
}  # fmt: skip


def build_demo(store: Store) -> bool:
    """Make the demo's motifs, brushes and pages in an empty store; return whether there was anything to do."""
    write_samples(store.file.with_name("scans"))
    with store.writing() as session:
        if session.exec(select(tables.Motif.id)).first() is not None:
            return False
        artwork = _Artwork(session)
        for _, drawn, base, _ in BRUSHES:  # every brush's own motif before those that only some have
            artwork.motif(drawn, base)
        ids = {name: _brush(session, artwork, name, drawn, base, change) for name, drawn, base, change in BRUSHES}
        for scene in (ROUTE_MAP, TEA_TOWEL, MUG_WRAP, BERTH_SIGN, NIGHT_CARD):
            _page(session, scene, ids)
        session.exec(delete(tables.Step))  # the demo is where the user begins, not something to undo
    return True


class _Artwork:
    """The demo's motifs, each brought in once, with its base line and joints."""

    def __init__(self, session: Session) -> None:
        self._session, self._ids = session, dict[str, int]()

    def motif(self, drawn: str, base_line_mm: float | None) -> int:
        if drawn in self._ids:
            return self._ids[drawn]
        name, svg = drawn.replace("-", " ").capitalize(), (ARTWORK / f"{drawn}.svg").read_text()
        row = motifs.bring_in(self._session, name, svg, trim=False)
        edits = [("base_line", {"base_line_mm": base_line_mm})] if base_line_mm is not None else []
        edits += [("joints", {"joints_mm": JOINTS_MM[drawn]})] if drawn in JOINTS_MM else []
        for op, figures in edits:
            row = motifs.edit(self._session, row.id, row.version, op, figures)
        self._ids[drawn] = row.id
        return row.id


def _brush(session: Session, artwork: _Artwork, name: str, drawn: str, base_line_mm: float | None, change: dict) -> int:
    """Make a brush with its further piece and its settings."""
    row = brushes.make(session, name, motif_id=artwork.motif(drawn, base_line_mm), patch=change)
    if name in PIECES:
        role, other, base = PIECES[name]
        ids = [*([row.motif_id] if role == "repeat" else []), artwork.motif(other, base)]
        row = brushes.set_pieces(session, row.id, row.version, role, ids)
    return row.id


def _page(session: Session, scene: dict[str, Any], ids: dict[str, int]) -> None:
    page = pages.make(session, **scene["page"], scenery=scene["scenery"])
    for name, brush, path, size_pct, ink in scene["lines"]:
        lines.draw(session, page.id, ids[brush], {"kind": "path", "d": path}, name=name, size_pct=size_pct, ink=ink)
