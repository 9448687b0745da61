"""How far colours differ where edges meet."""

from __future__ import annotations

from dataclasses import replace
from functools import lru_cache

import numpy as np

from ..artwork.sections import Section, seam_between, seam_sections
from ..values.brush import Brush
from ..values.joins import Joins
from ..values.motif import Motif
from ..values.pieces import Placed


def tones_of(joins: Joins, brush: Brush, placed: Placed) -> np.ndarray:
    """Return how far colours differ (j,) where the edges of neighbours are wished to meet, mean ΔE2000 along the seam.

    0 where a gap or an overlap is wished, where pieces do not follow the line, beside corner pieces, and
    where not both edges are painted.
    """
    tone = np.zeros(len(joins.first))
    if brush.ink.ink is not None and brush.ink.gives == "everything":  # all of one colour
        return tone
    if brush.travel.facing != "line" or brush.travel.jointed or abs(brush.travel.turn_deg) > 1e-9 or not len(tone):
        return tone
    first, second = joins.first, joins.second
    motifs, at_corner = brush.pieces.motifs, placed.at_corner  # a corner piece is left by another edge
    meet = np.abs(placed.gap_after[first]) <= brush.joins.gap_tolerance_mm
    meet &= ~at_corner[first] & ~at_corner[second]
    edges = 2 * placed.motif + (placed.scale[:, 0] < 0)  # a motif and which of its sides comes last
    of_all = 2 * len(motifs)
    pairs = edges[first] * of_all + edges[second]
    table = np.zeros(of_all * of_all)
    for pair in np.flatnonzero(np.bincount(pairs[meet], minlength=len(table))):
        (one, over_one), (two, over_two) = (divmod(int(edge), 2) for edge in divmod(int(pair), of_all))
        table[pair] = _tone(motifs[one], bool(over_one), motifs[two], bool(over_two))
    return np.where(meet, table[pairs], 0.0)


@lru_cache(maxsize=1024)
def _tone(one: Motif, one_mirrored: bool, two: Motif, two_mirrored: bool) -> float:
    edges_of_one, edges_of_two = _edges(one), _edges(two)
    return seam_between(edges_of_one[0 if one_mirrored else 1], edges_of_two[1 if two_mirrored else 0]).delta_e


@lru_cache(maxsize=512)
def _edges(motif: Motif) -> tuple[Section, Section]:
    """Return what is filled at a motif's left and right edge, about its base line."""
    out = []
    for section in seam_sections(motif):
        out.append(replace(section, **{name: getattr(section, name) - motif.base_line for name in ("top", "foot", "edges")}))
    return out[0], out[1]
