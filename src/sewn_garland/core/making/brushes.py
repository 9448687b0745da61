"""Work on the motifs of a whole brush."""

from __future__ import annotations

from dataclasses import replace

from ..values.brush import Brush
from .cutting import clipped_to, cut_in_three
from .framing import joints_moved


def with_pieces_cut(brush: Brush) -> Brush:
    """Cut the repeat's motifs at their cuts; the outer parts of the first become the start and end piece where there is none.

    A brush without cuts stays as it is. Raises InputError where nothing lies between two cuts.
    """
    pieces = brush.pieces
    if all(m.cuts is None for m in pieces.repeat):
        return brush
    first = pieces.repeat[0]
    start, _, end = cut_in_three(first) if first.cuts else (None, None, None)
    repeat = tuple(m if m.cuts is None else clipped_to(m, *m.cuts) for m in pieces.repeat)
    return replace(brush, pieces=replace(pieces, repeat=repeat, start=pieces.start or start, end=pieces.end or end))


def hung_at(brush: Brush, pitch: float) -> Brush:
    """Return a jointed brush whose repeats hang ``pitch`` mm from one another on a straight line, on the mean: their joints are moved.

    Raises InputError where joints would meet.
    """
    pieces = brush.pieces
    by = pitch / brush.spacing.size - float(pieces.link_lengths(1.0)[: len(pieces.repeat)].mean())
    return replace(brush, pieces=replace(pieces, repeat=tuple(joints_moved(m, by) for m in pieces.repeat)))
