"""The passes in which a line is painted: what lies under the neighbours, then everything else."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace
from functools import lru_cache

from ..values.motif import Motif


def passes_of(motifs: Sequence[Motif]) -> tuple[bool, ...]:
    """Return for each pass whether it paints what lies under; one pass paints all where nothing lies under."""
    return (True, False) if any(shape.lies == "under" for motif in motifs for shape in motif.shapes) else (False,)


@lru_cache(maxsize=512)
def half_of(motif: Motif, under: bool) -> Motif:
    """Return a motif with those of its shapes alone that lie under, or that do not; itself where these are all."""
    shapes = tuple(shape for shape in motif.shapes if (shape.lies == "under") == under)
    return motif if len(shapes) == len(motif.shapes) else replace(motif, shapes=shapes)
