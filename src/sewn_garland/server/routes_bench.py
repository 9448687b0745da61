"""The Repeat and Shelf stations: brushes, and drafts laid on the flat run and trial lines."""

from __future__ import annotations

import re
from collections.abc import Iterator
from dataclasses import replace
from functools import lru_cache

import numpy as np
from flask import Response, current_app
from flask_openapi import APIBlueprint
from sqlmodel import Session, select

from ..core.errors import InputError
from ..core.pipeline import hung_at
from ..core.reading.brush_document import FIELDS, BrushDocument, bound_sentence, refuse_unbuilt_settings
from ..core.shaping.bend import TOLERANCE_MM
from ..core.spacing.stops import repeat_extents
from ..core.trial_lines import TRIAL_BOX, TRIAL_LINES, points_of, reshaped, set_on_sheet, trial_width_mm
from ..store import tables
from ..store.history import Change, make_step
from .messages import (
    BenchRequest,
    BrushChange,
    BrushMessage,
    IdPath,
    NewBrush,
    NumberLimit,
    PitchChange,
    Sequenced,
    Settings,
    SettingsLimits,
    VersionQuery,
)  # fmt: skip
from .routes_motif import named
from .scenes import Scene, packed_scenes
from .workshop import (
    binary,
    brush_from_rows,
    brush_message,
    brush_of,
    ids_by_role,
    laid_ids,
    measured_path,
    motif_rows,
    repeat_alone,
    row_of,
    sent,
    settings_of,
    store,
)  # fmt: skip

api = APIBlueprint("bench", __name__, url_prefix="/api")
SWATCH_BOX = (100.0, 56.0)
SHEET_DETAIL, LARGE_DETAIL = 1000, 2000  # chosen: of a trial line's width, a quarter of a pixel as it is shown among all and large
SWATCH_PATH = "M7 42C20 4 34 4 44 26S62 48 72 16H93V48"


@api.post("/brushes", responses={201: BrushMessage}, summary="Make a brush from a motif, or copy one")
def new_brush(body: NewBrush):
    with store().writing() as session:
        if (body.motif_id is None) == (body.copy_of is None):
            raise InputError("give either motif_id or copy_of")
        if body.copy_of is not None:
            source = row_of(session, "brush", body.copy_of)
            values = {"motif_id": source.motif_id, "pieces": source.pieces, "settings": source.settings}
        else:
            row_of(session, "motif", body.motif_id)
            values = {"motif_id": body.motif_id, "pieces": {}, "settings": Settings().model_dump()}
        after = make_step(session, f"new brush {body.name}", [Change("brush", None, values | {"name": body.name})])[0]
        return sent(brush_message(tables.Brush(**after)), 201)


@api.patch("/brushes/<int:id>", responses={200: BrushMessage}, summary="Change a brush's settings, motif or name")
def change_brush(path: IdPath, body: BrushChange):
    with store().writing() as session:
        row = row_of(session, "brush", path.id)
        values: dict = {}
        if body.change is not None:
            settings = merged_settings(settings_of(row), body.change)
            values["settings"] = settings.model_dump()
        if body.motif_id is not None:
            row_of(session, "motif", body.motif_id)
            values["motif_id"] = body.motif_id
        if body.name is not None:
            values["name"] = body.name
        label = body.label or (f"rename {row.name}" if body.name else f"change {row.name}")
        after = make_step(session, label, [Change("brush", path.id, values, body.version)], merge_key=body.merge_key)[0]
        return sent(brush_message(tables.Brush(**after)))


def merged_settings(settings: Settings, patch: dict) -> Settings:
    """Apply a JSON merge patch and check the result; raises InputError for what cannot be laid yet."""
    data = settings.model_dump()
    for section, entries in patch.items():
        if section not in data or not isinstance(entries, dict):
            raise InputError(f"{section}: this key is not known")
        defaults = Settings().model_dump()[section]
        for key, value in entries.items():
            data[section][key] = defaults.get(key) if value is None else value
    merged = Settings.model_validate(data)
    refuse_unbuilt_settings(merged)
    return merged


@api.delete("/brushes/<int:id>", summary="Delete a brush that no line uses")
def delete_brush(path: IdPath, query: VersionQuery):
    with store().writing() as session:
        row = row_of(session, "brush", path.id)
        users = session.exec(select(tables.Line).where(tables.Line.brush_id == path.id)).all()
        if users:
            raise InputError(f"{row.name} lies on {named(users)}; give those lines another brush first")
        make_step(session, f"delete {row.name}", [Change("brush", path.id, None, query.version)])
    return Response(status=204)


@api.post("/brushes/<int:id>/pitch", responses={200: BrushMessage}, summary="Move the joints of a jointed brush's links")
def change_pitch(path: IdPath, body: PitchChange):
    with store().writing() as session:
        row = row_of(session, "brush", path.id)
        ids = ids_by_role(row)["repeat"]
        brush = repeat_alone(session, row)
        if not brush.jointed:
            raise InputError(f"{row.name} is not jointed; its gap says the pitch")
        hung = hung_at(brush, body.pitch_mm)
        moved = {i: Change("motif", i, {"joints_mm": [list(j) for j in m.joints]}) for i, m in zip(ids, hung.repeat, strict=True)}
        make_step(session, f"pitch to {body.pitch_mm:.2f} mm", list(moved.values()), merge_key=f"{row.id} pitch")
        return sent(brush_message(row))


@api.get("/limits", responses={200: SettingsLimits}, summary="What every number may be, with the words that refuse it")
def limits():
    found = []
    for section, key in FIELDS:
        field = BrushDocument.model_fields[section].annotation.model_fields[key]
        for rule in field.metadata:
            for kind in ("gt", "ge", "lt", "le"):
                bound = getattr(rule, kind, None)
                if bound is not None:
                    found.append(NumberLimit(path=f"{section}.{key}", kind=kind, value=float(bound), sentence=bound_sentence(kind, bound)))
    return sent(SettingsLimits(defaults=Settings(), limits=found))


@api.post("/bench/lay", summary="Lay draft settings on the flat run and the trial lines (binary)")
def lay_bench(body: BenchRequest):
    singles = {role: [i] for role, i in body.others.model_dump().items() if i is not None}
    ids = {"repeat": [body.motif_id, *body.variants], **singles}
    rows = store().remembered(("motifs", *laid_ids(ids)), lambda session: motif_rows(session, ids))
    brush = brush_from_rows(rows, "the brush", ids, body.settings)
    if body.pitch_mm is not None and brush.jointed:
        brush = hung_at(brush, body.pitch_mm)
    aside = body.aside and brush_from_rows(rows, "the brush kept aside", ids, body.aside)
    pinned = store().remembered(("lines", *body.pinned), lambda session: _lines(session, body.pinned)) if body.pinned else []
    extents = repeat_extents(brush)
    height = max(m.height for m in brush.repeat) * brush.size
    trial_mm = body.trial_mm or trial_width_mm(extents.mean_pitch, height=height, step=body.trial_step)
    flat = measured_path(f"M0 0H{body.flat_mm!r}")
    level = replace(brush, rows=(), width_along=(), taper_start=0.0, taper_end=0.0)  # the trial lines show rows and widths
    scenes = [Scene("flat", level, flat, {"name": "Flat run"}, unended=True)]
    if body.trials:
        sheets = [*_standing(body, trial_mm / TRIAL_BOX[0]), *map(_pinned, pinned)]
        for prefix, own in (("", brush), ("aside ", aside)):
            if own is not None:
                for key, size, about in sheets:
                    sized = own if size == 1 else replace(own, size=own.size * size)
                    scenes.append(Scene(prefix + key, sized, measured_path(about["path"]), about))
    header = {
        "seq": body.seq, "trial_mm": trial_mm, "trial_box": [trial_mm, trial_mm * TRIAL_BOX[1] / TRIAL_BOX[0]],
        "piece_mm": float(extents.length[0]), "gap_mm": float(extents.gap[0]), "pitch_mm": extents.mean_pitch,
        "height_mm": height,
    }  # fmt: skip
    question = current_app.extensions["sewn_garland_latest"].question(f"bench {body.client}", body.seq)
    tolerance = max(TOLERANCE_MM, trial_mm / (LARGE_DETAIL if body.large else SHEET_DETAIL))
    return binary(packed_scenes(
        scenes, cures=body.cures, overtaken=question, header=header, trial=True, large=body.large, tolerance=tolerance,
    ))  # fmt: skip


def _lines(session: Session, ids: list[int]) -> list[tables.Line]:
    """Return those lines of pages that are there still."""
    return [row for row in (session.get(tables.Line, i) for i in ids) if row is not None]


def _standing(body: BenchRequest, scale: float) -> Iterator[tuple[str, float, dict]]:
    """Yield the trial lines' keys, sizes and what the browser needs to know: name, path in mm, and the points of the large one."""
    for trial in TRIAL_LINES:
        path, moved = trial.path, body.shaped.get(trial.key)
        if moved is not None:
            path = reshaped(path, np.array(moved))
        about = {"name": trial.name, "path": scaled_path(path, scale), "moved": moved is not None}
        if trial.key == body.large:
            about["points"] = points_of(path).tolist()
        yield trial.key, 1.0, about


def _pinned(row: tables.Line) -> tuple[str, float, dict]:
    """Return a page's line among the trial lines: its key, its own size, and what the browser needs to know."""
    path, box = set_on_sheet(row.path)
    return f"pinned {row.id}", row.size_pct / 100, {"name": row.name, "path": path, "box": list(box), "pinned": row.id}


@api.post("/shelf/lay", summary="Lay every brush on the standard swatch (binary)")
def lay_shelf(body: Sequenced):
    with store().reading() as session:
        rows = session.exec(select(tables.Brush).order_by(tables.Brush.id)).all()
        scenes = [_swatch(session, row) for row in rows]
    question = current_app.extensions["sewn_garland_latest"].question(f"shelf {body.client}", body.seq)
    return binary(packed_scenes(scenes, cures=False, overtaken=question))


def _swatch(session: Session, row: tables.Brush) -> Scene:
    ids = ids_by_role(row)
    brush = brush_of(session, row.name, ids, settings_of(row))
    pitch = repeat_extents(brush).mean_pitch
    width = trial_width_mm(pitch, height=max(m.height for m in brush.repeat) * brush.size)
    scale = width / SWATCH_BOX[0]
    box = [width, SWATCH_BOX[1] * scale]
    about = {"brush_id": row.id, "motif_id": row.motif_id, "motif_ids": laid_ids(ids), "wished_pitch_mm": pitch, "box": box}
    return Scene(f"brush-{row.id}", brush, measured_path(scaled_path(SWATCH_PATH, scale)), about)


@lru_cache(maxsize=512)
def scaled_path(path: str, scale: float) -> str:
    """Scale path data; arc flags stay, for the numbers of an arc are told apart by their place."""

    def command(found: re.Match) -> str:
        letter, numbers = found.group(1), re.findall(r"-?[\d.]+", found.group(2))
        kept = {2, 3, 4} if letter in "Aa" else set()
        size = 7 if letter in "Aa" else max(1, len(numbers))
        return letter + " ".join(n if i % size in kept else repr(round(float(n) * scale, 6)) for i, n in enumerate(numbers))

    return re.sub(r"([A-Za-z])([^A-Za-z]*)", command, path)
