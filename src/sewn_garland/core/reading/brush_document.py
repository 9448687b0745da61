"""The brush document (JSON, version 1): its schema, and brushes from it."""

from __future__ import annotations

import io
import json
import zipfile
from collections.abc import Mapping
from dataclasses import replace
from pathlib import Path, PurePosixPath
from typing import Annotated, Any, Literal

from pydantic import BaseModel, ConfigDict, Field, ValidationError, model_validator

from ..errors import InputError, LimitError
from ..values.brush import GAP_TOLERANCE_MM, KINK_TOLERANCE_DEG, SINGLE_PIECES, TONE_TOLERANCE, Brush, Role
from ..values.motif import Motif
from .svg_motif import motif_from_svg
from .svg_source import MOST_BYTES

Finite = Annotated[float, Field(allow_inf_nan=False)]
Mm = Annotated[Finite, Field(ge=-10_000, le=10_000)]
Joint = Annotated[list[Mm], Field(min_length=2, max_length=2)]
MOST_VARIANTS = 64
MOST_ARRANGEMENT = 2**31


class _Part(BaseModel):
    model_config = ConfigDict(extra="forbid", strict=True, allow_inf_nan=False)


class PieceDocument(_Part):
    """One motif: a file beside the brush or inline SVG, with its base line and joints in mm."""

    motif: str | None = Field(None, max_length=400)
    svg: str | None = Field(None, max_length=MOST_BYTES)
    base_line_mm: Mm | None = None
    joints_mm: Annotated[list[Joint], Field(min_length=2, max_length=2)] | None = None
    cuts_mm: Joint | None = None

    @model_validator(mode="after")
    def _one_source(self) -> PieceDocument:
        if (self.motif is None) == (self.svg is None):
            raise ValueError("give either motif (a file beside the brush) or svg (inline)")
        return self


class PiecesDocument(_Part):
    repeat: Annotated[list[PieceDocument], Field(min_length=1, max_length=MOST_VARIANTS)]
    start: PieceDocument | None = None
    end: PieceDocument | None = None
    outside_corner: PieceDocument | None = None
    inside_corner: PieceDocument | None = None


class TravelDocument(_Part):
    kind: Literal["repeated", "once_length", "once_proportion", "scattered"] = "repeated"
    round_bends: Literal["rigid", "bent", "jointed"] = "rigid"
    facing: Literal["line", "page", "start"] = "line"
    turn_deg: Annotated[Finite, Field(ge=-360, le=360)] = 0
    mirror: Literal["off", "up_down", "left_right", "every_second"] = "off"
    side_shift_mm: Annotated[Finite, Field(ge=-1000, le=1000)] = 0
    turn_about: bool = False
    starts_at_mm: Annotated[Finite, Field(ge=0, le=1_000_000)] = 0


class SpacingDocument(_Part):
    size_pct: Annotated[Finite, Field(gt=0, le=10_000)] = 100
    gap_pct: Annotated[Finite, Field(gt=-100, le=100_000)] = 0
    ease: Literal["leave", "gaps", "size", "length"] = "leave"
    ease_limit_pct: Annotated[Finite, Field(ge=0, lt=100)] = 10
    rest: Literal["end", "both", "start"] = "end"


Corner = Literal["through", "mitre", "lap", "butt", "round", "piece"]


class EndsDocument(_Part):
    corner_from_deg: Annotated[Finite, Field(gt=0, le=180)] = 30
    outside_corner: Corner = "through"
    inside_corner: Corner = "through"
    round_radius_mm: Annotated[Finite, Field(ge=0, le=10_000)] = 5


class VariantsDocument(_Part):
    order: Literal["in_turn", "shuffled", "chance", "no_twin"] = "in_turn"
    weights: Annotated[list[Annotated[Finite, Field(gt=0, le=1000)]], Field(min_length=1, max_length=MOST_VARIANTS)] | None = None
    arrangement: Annotated[int, Field(ge=0, le=MOST_ARRANGEMENT)] = 1


class RowsDocument(_Part):
    """Further rows beside the line: mm to the right of travel (negative to the left)."""

    beside_mm: Annotated[list[Annotated[Finite, Field(ge=-1000, le=1000)]], Field(max_length=50)] = []
    ease: Literal["own", "in_step"] = "own"
    brick: bool = False


class WidthPoint(_Part):
    """How wide pieces are at a place along the line."""

    at_pct: Annotated[Finite, Field(ge=0, le=100)]
    width_pct: Annotated[Finite, Field(ge=1, le=1000)]


class HandDocument(_Part):
    """What the hand does: the width along the line, and tapered ends."""

    width_along: Annotated[list[WidthPoint], Field(max_length=50)] = []
    taper_start_mm: Annotated[Finite, Field(ge=0, le=10_000)] = 0
    taper_end_mm: Annotated[Finite, Field(ge=0, le=10_000)] = 0
    taper_to_pct: Annotated[Finite, Field(ge=1, le=100)] = 20


class JoinsDocument(_Part):
    """How joins are measured, and from what on they are a finding."""

    measured_by: Literal["frames", "outlines"] = "frames"
    gap_tolerance_mm: Annotated[Finite, Field(gt=0, le=100)] = GAP_TOLERANCE_MM
    kink_tolerance_deg: Annotated[Finite, Field(gt=0, le=180)] = KINK_TOLERANCE_DEG
    tone_tolerance: Annotated[Finite, Field(gt=0, le=100)] = TONE_TOLERANCE


class BrushDocument(_Part):
    """A brush as kept in a file."""

    format: Literal["sewn-garland/brush"]
    version: Literal[1]
    name: Annotated[str, Field(min_length=1, max_length=200)]
    pieces: PiecesDocument
    travel: TravelDocument = TravelDocument()
    spacing: SpacingDocument = SpacingDocument()
    ends: EndsDocument = EndsDocument()
    variants: VariantsDocument = VariantsDocument()
    rows: RowsDocument = RowsDocument()
    hand: HandDocument = HandDocument()
    joins: JoinsDocument = JoinsDocument()


NOT_BUILT: dict[str, set[str]] = {
    "travel.kind": {"scattered"},
}

# document section and key → field of Brush and what one unit there is worth
FIELDS: dict[tuple[str, str], tuple[str, float | None]] = {
    ("travel", "kind"): ("kind", None),
    ("travel", "round_bends"): ("round_bends", None),
    ("travel", "facing"): ("facing", None),
    ("travel", "turn_deg"): ("turn_deg", 1.0),
    ("travel", "mirror"): ("mirror", None),
    ("travel", "side_shift_mm"): ("side_shift", 1.0),
    ("travel", "turn_about"): ("turn_about", None),
    ("travel", "starts_at_mm"): ("starts_at", 1.0),
    ("spacing", "size_pct"): ("size", 0.01),
    ("spacing", "gap_pct"): ("gap", 0.01),
    ("spacing", "ease"): ("ease", None),
    ("spacing", "ease_limit_pct"): ("ease_limit", 0.01),
    ("spacing", "rest"): ("rest", None),
    ("ends", "corner_from_deg"): ("corner_from_deg", 1.0),
    ("ends", "outside_corner"): ("outside_corner", None),
    ("ends", "inside_corner"): ("inside_corner", None),
    ("ends", "round_radius_mm"): ("round_radius", 1.0),
    ("rows", "beside_mm"): ("rows", None),
    ("rows", "ease"): ("row_ease", None),
    ("rows", "brick"): ("brick", None),
    ("hand", "width_along"): ("width_along", None),
    ("hand", "taper_start_mm"): ("taper_start", 1.0),
    ("hand", "taper_end_mm"): ("taper_end", 1.0),
    ("hand", "taper_to_pct"): ("taper_to", 0.01),
    ("joins", "measured_by"): ("by_outlines", None),
    ("joins", "gap_tolerance_mm"): ("gap_tolerance", 1.0),
    ("joins", "kink_tolerance_deg"): ("kink_tolerance_deg", 1.0),
    ("joins", "tone_tolerance"): ("tone_tolerance", 1.0),
    ("variants", "order"): ("order", None),
    ("variants", "weights"): ("weights", None),
    ("variants", "arrangement"): ("arrangement", None),
}


def document_from_data(data: Any, *, where: str = "the brush") -> BrushDocument:
    """Check a parsed document; raises InputError naming the first key that is wrong and why."""
    try:
        return BrushDocument.model_validate(data)
    except ValidationError as error:
        raise InputError(sentence_from(error), where=where) from None


def sentence_from(error: ValidationError) -> str:
    """Say a validation error in one sentence: where, what was wanted, what came."""
    first = error.errors(include_url=False)[0]
    path = ".".join(str(p) for p in first["loc"])
    if first["type"] == "extra_forbidden":
        return f"{path}: this key is not known"
    came = first.get("input")
    shown = "" if isinstance(came, dict | list) or first["type"] == "missing" else f" (came: {str(came)[:40]})"
    words = _WORDS[first["type"]].format(**first.get("ctx", {})) if first["type"] in _WORDS else first["msg"]
    return f"{path}: {words}{shown}" if path else first["msg"]


_WORDS = {
    "missing": "it is missing",
    "greater_than": "it must be more than {gt:g}",
    "greater_than_equal": "it must be at least {ge:g}",
    "less_than": "it must be less than {lt:g}",
    "less_than_equal": "it must be at most {le:g}",
    "finite_number": "it must be a finite number",
    "float_type": "it must be a number",
    "literal_error": "it must be {expected}",
    "string_pattern_mismatch": "it is not written as it must be (as {pattern})",
    "value_error": "{error}",
}


def bound_sentence(kind: Literal["gt", "ge", "lt", "le"], bound: float) -> str:
    """Say a limit in the very words that refuse a number beyond it."""
    rule = {"gt": "greater_than", "ge": "greater_than_equal", "lt": "less_than", "le": "less_than_equal"}[kind]
    return _WORDS[rule].format(**{kind: bound})


def refuse_unbuilt_settings(sections: Any, *, where: str = "") -> None:
    """Raise InputError for a setting of ``sections`` that cannot be laid yet, so that none is ignored."""
    for path, values in NOT_BUILT.items():
        section, key = path.split(".")
        value = getattr(getattr(sections, section), key)
        if value in values:
            raise InputError(f"{path}: “{value}” is not built yet", where=where)


def refuse_unbuilt(document: BrushDocument, *, where: str = "the brush") -> None:
    """Raise InputError for a setting or a piece that this version cannot lay."""
    refuse_unbuilt_settings(document, where=where)


def brush_from_document(
    document: BrushDocument, motifs: tuple[Motif, ...], singles: Mapping[Role, Motif] | None = None, *, where: str = "the brush"
) -> Brush:
    """Make the brush from its document, its repeat motifs, one a piece, and the motifs of other roles."""
    refuse_unbuilt(document, where=where)
    values = {}
    for (section, key), (field, unit) in FIELDS.items():
        values[field] = _own_value(key, getattr(getattr(document, section), key), unit)
    _check_variants(document, motifs, where)
    if document.travel.round_bends == "jointed" and document.spacing.ease not in ("leave", "size"):
        raise InputError(f"spacing.ease: “{document.spacing.ease}” does not go with jointed travel; take leave or size", where=where)
    for role in ("outside_corner", "inside_corner"):
        if getattr(document.ends, role) == "piece" and role not in (singles or {}):
            raise InputError(f"ends.{role}: “piece” needs a motif at pieces.{role}", where=where)
    pieces = {SINGLE_PIECES[role]: motif for role, motif in (singles or {}).items()}
    return Brush(name=document.name, repeat=motifs, **pieces, **values)


def _check_variants(document: BrushDocument, motifs: tuple[Motif, ...], where: str) -> None:
    order, weights = document.variants.order, document.variants.weights
    if weights is not None and len(weights) != len(motifs):
        raise InputError(f"variants.weights: {len(weights)} weights for {len(motifs)} variants; give each one", where=where)
    taken = [abs(m.joint_points[1][0] - m.joint_points[0][0]) if document.travel.round_bends == "jointed" else m.width for m in motifs]
    if order != "in_turn" and max(taken) - min(taken) > 1e-6:
        words = f"these are {min(taken):.2f} to {max(taken):.2f} mm long"
        raise InputError(f"variants.order: “{order}” needs variants of one length, and {words}; lay them in turn", where=where)


def changed(brush: Brush, patch: dict) -> Brush:
    """Apply the brush's part of a merge patch in the document's own keys and units."""
    values = {}
    for section, entries in patch.items():
        for key, value in entries.items():
            field, unit = FIELDS[(section, key)]
            values[field] = _own_value(key, value, unit)
    return replace(brush, **values)


def _own_value(key: str, value: Any, unit: float | None) -> Any:
    """Return a setting of the document as the brush keeps it."""
    if key == "width_along":
        points = [p if isinstance(p, dict) else p.model_dump() for p in value]
        return tuple((p["at_pct"] / 100, p["width_pct"] / 100) for p in points)
    if key == "measured_by":
        return value == "outlines"
    if isinstance(value, list):
        return tuple(value)
    return value if unit is None else value * unit


def motif_of_piece(piece: PieceDocument, svg: bytes | str, *, where: str) -> Motif:
    """Read one piece's motif with its base line; its frame is the SVG's own."""
    motif = motif_from_svg(svg, where=where, base_line_mm=piece.base_line_mm)
    if piece.joints_mm is not None and piece.joints_mm[0][0] >= piece.joints_mm[1][0]:
        raise InputError("joints_mm: the left joint must lie left of the right one", where=where)
    if piece.cuts_mm is not None and not 0 <= piece.cuts_mm[0] < piece.cuts_mm[1] <= motif.width + 1e-9:
        raise InputError("cuts_mm: the left cut must lie left of the right one, both on the frame", where=where)
    joints = piece.joints_mm and (tuple(piece.joints_mm[0]), tuple(piece.joints_mm[1]))
    return replace(motif, joints=joints, cuts=piece.cuts_mm and tuple(piece.cuts_mm))


def read_brush(path: Path) -> Brush:
    """Read a brush from ``.json`` (motifs beside it) or ``.garland`` (a ZIP with brush.json)."""
    where = path.name
    try:
        if path.suffix.lower() == ".garland":
            return _read_garland(path.read_bytes(), where=where)
        if path.stat().st_size > MOST_BYTES:
            raise LimitError("it is more than 10 MB", where=where)
        text = path.read_bytes()
    except OSError as error:
        raise InputError(f"it cannot be read ({error.strerror})", where=where) from None
    folder = path.resolve().parent
    return brush_from_bytes(text, lambda name: _file_beside(folder, name, where), where=where)


def brush_from_bytes(text: bytes, load, *, where: str) -> Brush:
    """Read a brush document whose motif files ``load(name)`` returns as bytes."""
    try:
        data = json.loads(text)
    except (ValueError, RecursionError) as error:
        raise InputError(f"it is not JSON ({str(error)[:80]})", where=where) from None
    document = document_from_data(data, where=where)
    refuse_unbuilt(document, where=where)

    def motif(piece: PieceDocument, key: str) -> Motif:
        svg = piece.svg if piece.svg is not None else load(piece.motif)
        return motif_of_piece(piece, svg, where=piece.motif or f"{where}, pieces.{key}.svg")

    repeat = tuple(motif(piece, f"repeat.{i}") for i, piece in enumerate(document.pieces.repeat))
    singles = {role: motif(piece, role) for role in SINGLE_PIECES if (piece := getattr(document.pieces, role)) is not None}
    return brush_from_document(document, repeat, singles, where=where)


def _plain_name(name: str, where: str) -> str:
    pure = PurePosixPath(name)
    if pure.is_absolute() or ".." in pure.parts or "\\" in name or ":" in name or not pure.parts:
        raise InputError(f"motif “{name[:60]}” lies outside the brush's folder", where=where)
    return str(pure)


def _file_beside(folder: Path, name: str, where: str) -> bytes:
    file = (folder / _plain_name(name, where)).resolve()
    if not file.is_relative_to(folder):
        raise InputError(f"motif “{name[:60]}” lies outside the brush's folder", where=where)
    try:
        if file.stat().st_size > MOST_BYTES:
            raise LimitError("it is more than 10 MB", where=name)
        return file.read_bytes()
    except OSError as error:
        raise InputError(f"motif “{name[:60]}” cannot be read ({error.strerror})", where=where) from None


def _read_garland(data: bytes, *, where: str) -> Brush:
    try:
        with zipfile.ZipFile(io.BytesIO(data)) as archive:
            sizes = {info.filename: info.file_size for info in archive.infolist()}
            if sum(sizes.values()) > 4 * MOST_BYTES or len(sizes) > 500:
                raise LimitError("unpacked, it is too large", where=where)

            def member(name: str) -> bytes:
                if name not in sizes:
                    raise InputError(f"“{name[:60]}” is not in it", where=where)
                return archive.read(name)

            return brush_from_bytes(member("brush.json"), lambda name: member(_plain_name(name, where)), where=where)
    except (zipfile.BadZipFile, NotImplementedError, RuntimeError, EOFError) as error:
        raise InputError(f"it is not a brush file ({str(error)[:60]})", where=where) from None


def published_schema() -> dict:
    """Return the JSON Schema of the brush document."""
    schema = BrushDocument.model_json_schema()
    return {"$schema": "https://json-schema.org/draft/2020-12/schema", **schema}
