"""What is said about each laid track: figures, and findings where they lie."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import NamedTuple

import numpy as np

from ..values.arrays import rows_of
from ..values.brush import Brush
from ..values.findings import Finding
from ..values.joins import Joins
from ..values.pieces import Placed
from ..values.runs import Corners, Filled
from ..values.tracks import FramesAt, Tracks
from ..values.widths import Widths
from .bends import safe_radius
from .figures import largest_ease, pitches_of
from .findings import findings_of


class Taken(NamedTuple):
    """What motifs take of the line at their size, mm, arrays (m,): lengths, gaps, and by how much they reach further onward than back."""

    lengths: np.ndarray
    gaps: np.ndarray
    lean: np.ndarray


@dataclass(frozen=True, eq=False)
class Said:
    """A track's number of runs, pitch (None where there is none), largest change by ease, safe radius and findings."""

    runs: int
    pitch: float | None
    eased: float
    safe: float | None
    findings: tuple[Finding, ...]


def said_of(
    placed: Placed,
    joins: Joins,
    filled: Filled,
    crowded: Corners,
    brush: Brush,
    tracks: Tracks,
    *,
    taken: Taken,
    widths: Widths | None,
    frames_at: FramesAt,
    broken: Sequence[int] = (),
    left_out: Sequence[int] | np.ndarray = (),
) -> list[Said]:
    """Return what is said about every track; ``taken`` is what the repeat's variants take at their largest.

    ``crowded`` are the corners too crowded for their pieces, ``broken`` the closed tracks on which the stacking breaks, ``left_out``
    the lines of pieces that had no room among the others.
    """
    lengths, gaps, lean = taken
    t, track = len(tracks.measured), tracks.of(placed)
    safe = {shift: safe_radius(brush, lengths=lengths, gaps=gaps, shift=shift, lean=lean) for shift in set(tracks.shift.tolist())}
    pitches = pitches_of(placed, track, t)
    of_runs, of_joins = filled.runs.edges(t).tolist(), np.searchsorted(track[joins.first], np.arange(t + 1)).tolist()
    said, gone = [], np.bincount(np.asarray(left_out, int), minlength=len(tracks.keys)).tolist()
    for i, (measured, shift) in enumerate(zip(tracks.measured, tracks.shift.tolist(), strict=True)):
        own, own_joins = slice(*of_runs[i : i + 2]), rows_of(joins, slice(*of_joins[i : i + 2]))
        spacings = rows_of(filled.spacings, own)
        found = findings_of(
            measured, rows_of(filled.runs, own), spacings, own_joins, brush, safe[shift], shift=shift,
            crowded=tracks.crowded[1][tracks.crowded[0] == i].tolist(), crowded_pieces=crowded.s[crowded.track == i].tolist(),
            stacking_breaks=i in broken, left_out=gone[i // tracks.rows] if i % tracks.rows == 0 else 0, **_wide(widths, i),
        )  # fmt: skip
        said.append(Said(own.stop - own.start, pitches[i], largest_ease(spacings), safe[shift], tuple(found)))
    return _in_place(said, frames_at)


def _wide(widths: Widths | None, track: int) -> dict:
    """Return how wide a track is along it, for its findings."""
    return {} if widths is None else {"width": lambda s: widths.at(np.full(len(s), track), s)[0]}


def _in_place(said: list[Said], frames_at: FramesAt) -> list[Said]:
    """Give every finding that has no place on the page yet the one where its track passes."""
    wanted = [(i, f.at_mm) for i, each in enumerate(said) for f in each.findings if f.at is None]
    if not wanted:
        return said
    which, at_mm = (np.array(column) for column in zip(*wanted, strict=True))
    places = iter(frames_at(which, at_mm).position.tolist())
    return [
        Said(each.runs, each.pitch, each.eased, each.safe,
             tuple(f.placed(tuple(next(places))) if f.at is None else f for f in each.findings)) for each in said
    ]  # fmt: skip
