"""Part what was laid together into its lines."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace

import numpy as np

from ..values.arrays import rows_of, stacked
from ..values.closes import Close, closes_within
from ..values.findings import Finding
from ..values.joins import Joins
from ..values.laid import LaidLine
from ..values.outlines import BisectorCuts, ShapedOutlines, put_together
from ..values.pieces import Placed
from ..values.tracks import Tracks
from .said import Said


def by_line(
    tracks: Tracks, placed: Placed, outlines: ShapedOutlines | None, cuts: BisectorCuts, closes: Sequence[Close], joins: Joins,
    said: Sequence[Said],
) -> list[LaidLine]:  # fmt: skip
    """Return each line with its own pieces, joins and outlines; these speak of pieces by their place in the line from then on."""
    n, rows = len(tracks.keys), tracks.rows
    edges = np.append(0, np.cumsum(np.bincount(placed.line, minlength=n))).tolist()
    placed = _in_first_round(placed, tracks)
    line_of_join = placed.line[joins.first]
    of_joins, begun = np.searchsorted(line_of_join, np.arange(n + 1)).tolist(), np.array(edges)[line_of_join]
    joins = replace(joins, first=joins.first - begun, second=joins.second - begun)
    drawn, ends = outlines.split(edges) if outlines else [None] * n, cuts.split(edges)
    laid = []
    for i, key in enumerate(tracks.keys):
        own, itself = said[i * rows : (i + 1) * rows], tracks.measured[i * rows]
        laid.append(LaidLine(
            key=key, length=itself.length, closed=itself.closed, runs=sum(row.runs for row in own),
            pieces=rows_of(placed, slice(*edges[i : i + 2])), joins=rows_of(joins, slice(*of_joins[i : i + 2])),
            findings=findings_by_row([row.findings for row in own]), pitch=own[0].pitch,
            eased=max((row.eased for row in own), key=abs), tightest_radius=itself.tightest_radius, safe_radius=own[0].safe,
            outlines=drawn[i], cuts=ends[i], closes=closes_within(closes, *edges[i : i + 2]),
        ))  # fmt: skip
    return laid


def joined_rows(rows: Sequence[LaidLine]) -> LaidLine:
    """Return rows of a line that were laid apart as one: runs, pieces and joins numbered on from row to row."""
    first = rows[0]
    if len(rows) == 1:
        return first
    pieces, runs = (np.cumsum([0, *counts]) for counts in ([len(row.pieces.s) for row in rows], [row.runs for row in rows]))
    placed = stacked([replace(row.pieces, row=row.pieces.row + i, run=row.pieces.run + runs[i]) for i, row in enumerate(rows)])
    joins = stacked(
        [replace(row.joins, first=row.joins.first + at, second=row.joins.second + at) for row, at in zip(rows, pieces, strict=False)]
    )
    outlines = [(row.outlines, int(at)) for row, at in zip(rows, pieces, strict=False) if row.outlines is not None]
    return replace(
        first, runs=int(runs[-1]), pieces=placed, joins=joins, findings=findings_by_row([row.findings for row in rows]),
        eased=max((row.eased for row in rows), key=abs), outlines=put_together(outlines) if outlines else None,
        cuts=stacked([replace(row.cuts, piece=row.cuts.piece + at) for row, at in zip(rows, pieces, strict=False)]),
    )  # fmt: skip


def findings_by_row(rows: Sequence[Sequence[Finding]]) -> tuple[Finding, ...]:
    """Return the findings of a line's rows in order along it, those beside the line told by their row."""
    if len(rows) == 1:
        return tuple(rows[0])
    told = [f.told(f"row {i + 1}: {f.message}") if i else f for i, row in enumerate(rows) for f in row]
    return tuple(sorted(told, key=lambda f: f.at_mm))


def _in_first_round(placed: Placed, tracks: Tracks) -> Placed:
    """Count distances along closed tracks from their start."""
    whole = np.where([line.closed for line in tracks.measured], tracks.lengths, 0.0)[tracks.of(placed)]
    return replace(placed, s=np.where(whole > 0, np.mod(placed.s, np.where(whole > 0, whole, 1.0)), placed.s))
