"""Work on the motifs of a whole brush."""

from __future__ import annotations

from dataclasses import replace

from ..values.brush import SINGLE_ROLES, Brush
from ..values.motif import Motif
from .cutting import clipped_to, cut_in_three
from .framing import joints_moved
from .interlocking import divided


def as_laid(brush: Brush) -> Brush:
    """Return a brush with what of its motifs is laid: cut at their cuts, and divided where they interlock.

    The outer parts of the first of the repeat become the start and end piece where there is none. Raises InputError where
    nothing lies between two cuts.
    """
    pieces = brush.pieces
    first = pieces.repeat[0] if pieces.repeat else None
    start, _, end = cut_in_three(first) if first and first.cuts else (None, None, None)
    singles = {**{role: pieces.of(role) for role in SINGLE_ROLES}, "start": pieces.start or start, "end": pieces.end or end}
    laid = {role: motif and divided(motif) for role, motif in singles.items()}
    return replace(brush, pieces=replace(pieces, repeat=tuple(laid_part(m) for m in pieces.repeat), **laid))


def laid_part(motif: Motif) -> Motif:
    """Return what of a motif is laid: what lies between its cuts, divided where it interlocks."""
    return divided(motif if motif.cuts is None else clipped_to(motif, *motif.cuts))


def hung_at(brush: Brush, pitch: float) -> Brush:
    """Return a jointed brush whose repeats hang ``pitch`` mm from one another on a straight line, on the mean: their joints are moved.

    Raises InputError where joints would meet.
    """
    pieces = brush.pieces
    by = pitch / brush.spacing.size - float(pieces.link_lengths(1.0)[: len(pieces.repeat)].mean())
    return replace(brush, pieces=replace(pieces, repeat=tuple(joints_moved(m, by) for m in pieces.repeat)))
