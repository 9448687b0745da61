"""Brushes and the pieces that a repeat can make, as the browser sees them."""

from __future__ import annotations

from typing import cast

import numpy as np
from pydantic import BaseModel
from sqlmodel import Session

from ...core.reading.brush_document import bound_sentence
from ...core.values.brush import SINGLE_ROLES, Role, Settings
from ...core.values.variations import OVERS, PROPERTIES, limits_of, limits_of_over
from ...store import tables
from ...workshop.rows import ids_by_role, laid_of, settings_of
from ...workshop.sampler import Sample
from ..messages.brushes import (
    BrushMessage,
    BrushPieces,
    CornerMessage,
    NumberLimit,
    SampledPieceMessage,
    SampleMessage,
    SettingsLimits,
    SlotMessage,
)  # fmt: skip
from .motifs import laid_message

BOUNDS = ("gt", "ge", "lt", "le")


def brush_message(row: tables.Brush) -> BrushMessage:
    """Return a brush's message."""
    pieces = BrushPieces(repeat=ids_by_role(row)["repeat"], **{role: row.pieces.get(role) for role in SINGLE_ROLES})
    return BrushMessage(
        id=row.id, name=row.name, version=row.version, motif_id=row.motif_id, pieces=pieces, settings=settings_of(row), pinned=row.pinned
    )


def corner_message(session: Session, row: tables.Motif, beside: np.ndarray) -> CornerMessage:
    """Return what lies beside a corner piece: repeats of a motif under matrices (k, 6)."""
    return CornerMessage(repeat=laid_message(session, row, laid_of(session, row)), repeat_matrices=beside.tolist())


def sample_message(sample: Sample, ids: dict[Role, list[int]]) -> SampleMessage:
    """Return all pieces of a brush on the sampler; ``ids`` are its motifs by role."""
    single = {role: of_role[0] for role, of_role in ids.items() if role != "repeat"}
    return SampleMessage(
        pieces=[SampledPieceMessage(role=p.role, motif_id=ids[p.role][p.variant], matrix=list(p.matrix)) for p in sample.pieces],
        slots=[SlotMessage(role=s.role, x_mm=s.x, y_mm=s.y, made=s.made, motif_id=single.get(s.role)) for s in sample.slots],
        path=sample.path, box=list(sample.box),
    )  # fmt: skip


def _limits_of_variations() -> list[NumberLimit]:
    """Return between which values every property goes, how far chance is gathered, and over how much sources go."""
    words = {name: (about.least, about.most, limits_of(name)) for name, about in PROPERTIES.items()}
    overs = {f"over.{source}": (least, most, limits_of_over(source)) for source, (_, least, most) in OVERS.items()}
    gathered = {"gather_pct": (0.0, 100.0, "it must be from 0 to 100")}
    found = []
    for name, (least, most, sentence) in {**words, **overs, **gathered}.items():
        found.append(NumberLimit(path=f"variations.{name}", kind="ge", value=least, sentence=sentence))
        found.append(NumberLimit(path=f"variations.{name}", kind="le", value=most, sentence=sentence))
    return found


def settings_limits() -> SettingsLimits:
    """Return what every number of the settings may be, with the words that refuse it."""
    found = []
    for section, field in Settings.model_fields.items():
        if section == "variations":
            found += _limits_of_variations()
            continue
        for key, entry in cast(type[BaseModel], field.annotation).model_fields.items():
            for rule in entry.metadata:
                for kind in BOUNDS:
                    bound = getattr(rule, kind, None)
                    if bound is not None:
                        sentence = bound_sentence(kind, bound)
                        found.append(NumberLimit(path=f"{section}.{key}", kind=kind, value=float(bound), sentence=sentence))
    return SettingsLimits(defaults=Settings(), limits=found)
