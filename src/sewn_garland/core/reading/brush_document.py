"""The brush document (JSON, version 1): its schema, and brushes from it."""

from __future__ import annotations

import io
import json
import lzma
import struct
import zipfile
import zlib
from dataclasses import replace
from pathlib import Path, PurePosixPath
from typing import Annotated, Any, Literal

from pydantic import Field, ValidationError, model_validator

from ..errors import CoreError, InputError, LimitError
from ..values.brush import MOST_VARIANTS, SINGLE_ROLES, Brush, Finite, Pieces, Section, Settings
from ..values.motif import Motif
from ..values.variations import refused_together
from .svg_motif import motif_from_svg
from .svg_source import MOST_BYTES

Mm = Annotated[Finite, Field(ge=-10_000, le=10_000)]
Joint = Annotated[list[Mm], Field(min_length=2, max_length=2)]


class PieceDocument(Section):
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


class PiecesDocument(Section):
    repeat: Annotated[list[PieceDocument], Field(min_length=1, max_length=MOST_VARIANTS)]
    start: PieceDocument | None = None
    end: PieceDocument | None = None
    outside_corner: PieceDocument | None = None
    inside_corner: PieceDocument | None = None


class BrushDocument(Settings):
    """A brush as kept in a file."""

    format: Literal["sewn-garland/brush"]
    version: Literal[1]
    name: Annotated[str, Field(min_length=1, max_length=200)]
    pieces: PiecesDocument


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
    "int_type": "it must be a whole number",
    "bool_type": "it must be true or false",
    "string_type": "it must be a text",
    "list_type": "it must be a list",
    "tuple_type": "it must be a list",
    "dict_type": "it must be a group of keys",
    "model_type": "it must be a group of keys",
    "literal_error": "it must be {expected}",
    "string_pattern_mismatch": "it is not written as it must be (as {pattern})",
    "value_error": "{error}",
}


def bound_sentence(kind: Literal["gt", "ge", "lt", "le"], bound: float) -> str:
    """Say a limit in the very words that refuse a number beyond it."""
    rule = {"gt": "greater_than", "ge": "greater_than_equal", "lt": "less_than", "le": "less_than_equal"}[kind]
    return _WORDS[rule].format(**{kind: bound})


def refuse_together(settings: Settings, *, where: str = "") -> None:
    """Raise InputError for settings that cannot be together, so that none is ignored."""
    travel, ends = settings.travel, settings.ends
    if travel.kind == "scattered" and travel.round_bends == "jointed":
        raise InputError("travel.round_bends: scattered pieces do not hang by joints; let them go rigid or bent", where=where)
    mitred = travel.kind == "repeated" and "mitre" in (ends.outside_corner, ends.inside_corner)
    refused = refused_together(settings.variations, jointed=travel.jointed, once=travel.once, mitred=mitred)
    if refused:
        raise InputError(f"variations: {refused}", where=where)


def brush_of(name: str, pieces: Pieces, settings: Settings, *, where: str = "the brush") -> Brush:
    """Make a brush of its motifs and settings; raises InputError for what cannot be together."""
    refuse_together(settings, where=where)
    _check_variants(settings, pieces.repeat, where)
    if settings.travel.round_bends == "jointed" and settings.spacing.ease not in ("leave", "size"):
        raise InputError(f"spacing.ease: “{settings.spacing.ease}” does not go with jointed travel; take leave or size", where=where)
    for role in ("outside_corner", "inside_corner"):
        if getattr(settings.ends, role) == "piece" and pieces.of(role) is None:
            raise InputError(f"ends.{role}: “piece” needs a motif at pieces.{role}", where=where)
    return Brush.of(name, pieces, settings)


def _check_variants(settings: Settings, motifs: tuple[Motif, ...], where: str) -> None:
    order, weights = settings.variants.order, settings.variants.weights
    if weights is not None and len(weights) != len(motifs):
        raise InputError(f"variants.weights: {len(weights)} weights for {len(motifs)} variants; give each one", where=where)
    jointed = settings.travel.round_bends == "jointed"
    taken = [abs(m.joint_points[1][0] - m.joint_points[0][0]) if jointed else m.width for m in motifs]
    if order != "in_turn" and max(taken) - min(taken) > 1e-6:
        words = f"these are {min(taken):.2f} to {max(taken):.2f} mm long"
        raise InputError(f"variants.order: “{order}” needs variants of one length, and {words}; lay them in turn", where=where)


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
        at = f" (line {error.lineno}, character {error.colno})" if isinstance(error, json.JSONDecodeError) else ""
        raise InputError(f"it is not JSON that can be read{at}", where=where) from None
    document = document_from_data(data, where=where)
    refuse_together(document, where=where)

    def motif(piece: PieceDocument, key: str) -> Motif:
        svg = piece.svg if piece.svg is not None else load(piece.motif)
        return motif_of_piece(piece, svg, where=piece.motif or f"{where}, pieces.{key}.svg")

    repeat = tuple(motif(piece, f"repeat.{i}") for i, piece in enumerate(document.pieces.repeat))
    singles = {role: motif(piece, role) for role in SINGLE_ROLES if (piece := getattr(document.pieces, role)) is not None}
    return brush_of(document.name, Pieces(repeat, **singles), document, where=where)


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


# what the archive's reader raises, beside its own, where bytes of the file are others than they were
DAMAGED = (zipfile.BadZipFile, zlib.error, lzma.LZMAError, NotImplementedError, RuntimeError, EOFError, OSError, struct.error, ValueError)


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
    except CoreError:
        raise
    except DAMAGED:
        raise InputError("it is damaged, or not a brush file; take it once more from where it was made", where=where) from None


def published_schema() -> dict:
    """Return the JSON Schema of the brush document."""
    schema = BrushDocument.model_json_schema()
    return {"$schema": "https://json-schema.org/draft/2020-12/schema", **schema}
