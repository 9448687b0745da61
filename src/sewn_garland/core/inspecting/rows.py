"""Put the rows of a line together as one laid line."""

from __future__ import annotations

from dataclasses import replace

import numpy as np

from ..values.laid import LaidLine
from ..values.outlines import Cuts, ShapedOutlines


def in_rows(rows: list[LaidLine]) -> LaidLine:
    """Return all rows of a line as one: runs and pieces numbered on from row to row, findings told by their row.

    Length, pitch and bends are those of the first row, the line itself.
    """
    first = rows[0]
    if len(rows) == 1:
        return first
    pieces = np.cumsum([0, *(len(row.stops.s) for row in rows)])
    runs = np.cumsum([0, *(row.runs for row in rows)])
    stops = _stacked([replace(row.stops, run=row.stops.run + runs[i]) for i, row in enumerate(rows)])
    joins = _stacked([
        replace(row.joins, first=row.joins.first + pieces[i], second=row.joins.second + pieces[i]) for i, row in enumerate(rows)
    ])
    findings = [f.told(f"row {i + 1}: {f.message}") if i else f for i, row in enumerate(rows) for f in row.findings]
    return replace(
        first, runs=int(runs[-1]), stops=stops, joins=joins, placements=_stacked([row.placements for row in rows]),
        findings=tuple(sorted(findings, key=lambda f: f.at_mm)), eased=max((row.eased for row in rows), key=abs),
        outlines=_outlines(rows, pieces), cuts=_cuts(rows, pieces),
    )  # fmt: skip


def _stacked(tables: list):
    """Put dataclasses of arrays under one another."""
    columns = {name: [getattr(table, name) for table in tables] for name in vars(tables[0])}
    return type(tables[0])(**{name: None if arrays[0] is None else np.concatenate(arrays) for name, arrays in columns.items()})


def _cuts(rows: list[LaidLine], pieces: np.ndarray) -> Cuts | None:
    own = [replace(row.cuts, piece=row.cuts.piece + pieces[i]) for i, row in enumerate(rows) if row.cuts is not None]
    return _stacked(own) if own else None


def _outlines(rows: list[LaidLine], pieces: np.ndarray) -> ShapedOutlines | None:
    own = [(row.outlines, int(pieces[i])) for i, row in enumerate(rows) if row.outlines is not None]
    if not own:
        return None
    offsets = np.cumsum([0, *(len(o.points) for o, _ in own)])
    starts = np.concatenate([*(o.starts[:-1] + offsets[i] for i, (o, _) in enumerate(own)), offsets[-1:]])
    return ShapedOutlines(
        np.concatenate([o.points for o, _ in own]), starts, np.concatenate([o.closed for o, _ in own]),
        np.concatenate([o.piece + begin for o, begin in own]), np.concatenate([o.shape for o, _ in own]),
        np.concatenate([o.stroked for o, _ in own]),
        *(np.concatenate([getattr(o, name) + begin for o, begin in own]) for name in ("pieces", "cut")),
        tuple(replace(mesh, piece=mesh.piece + begin) for o, begin in own for mesh in o.meshes),
    )  # fmt: skip
