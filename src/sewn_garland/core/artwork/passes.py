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
def places_of_half(motif: Motif, under: bool, mirrored: bool) -> tuple[int, ...]:
    """Return the places of those of a motif's shapes that lie under, or that do not, in a piece that is mirrored or not."""
    return tuple(i for i, shape in enumerate(motif.shapes) if ((shape.lies == "under") != (mirrored and shape.half)) == under)


@lru_cache(maxsize=512)
def half_of(motif: Motif, under: bool, mirrored: bool) -> Motif:
    """Return a motif with those of its shapes alone that lie under, or that do not; itself where these are all."""
    own = places_of_half(motif, under, mirrored)
    return motif if len(own) == len(motif.shapes) else replace(motif, shapes=tuple(motif.shapes[i] for i in own))
