"""Settings that suit a motif, told from what it draws, so that a brush made of it joins at once."""

from __future__ import annotations

from typing import NamedTuple

import numpy as np
import shapely
from shapely.affinity import translate

from ..artwork.box import ink_box
from ..artwork.cells import pictures_as_cells
from ..artwork.silhouette import rough_silhouette
from ..values.brush import GAP_TOLERANCE_MM
from ..values.motif import Motif
from .cutting import clipped_to

MEETS_SHARE = 0.05  # chosen: of the height of the ink, that is filled at both edges of a strip; a round end fills a hundredth
INSIDE_SHARE = 1e-4  # of the length, from an edge to where it is looked at
MISMATCH_SHARE = 0.05  # chosen: of what is filled at an edge, that may differ from the other
MISMATCH_SHARE_OF_CELLS = 0.2  # of a picture's, whose first and last pixels of a slope lie a pixel apart
END_SHARE = 0.02  # chosen: of the length, within which a wire begins at a link's end
HOLE_IN_WIRES = 2  # a neighbour's wire beside a link's own, and room to turn
LONG_DRAWING = 12  # chosen: times longer than high
STITCH_PROPORTION, STITCH_FILLS = 2, 0.7  # chosen: length over height, and how much of its box a stitch fills
STITCH_GAP_PCT = 45.0  # common practice: the fabric between two running stitches is a little shorter than they are
APART_PCT = 15.0  # chosen: of the length, that keeps pieces apart which do not meet
GAP_SHARE = 1 / 4  # chosen: of a gap between pieces that stand apart, that is seen to be more or less
EASED_PCT = 50.0  # what is left over on short lines too
LINK_EASED_PCT = 30.0


class Suit(NamedTuple):
    """A merge patch of a brush's settings, and the joints that a motif should have, None where it keeps its own."""

    settings: dict
    joints: tuple[tuple[float, float], tuple[float, float]] | None = None


def suited(motif: Motif) -> Suit:
    """Return what a brush made of a motif begins with.

    A link is jointed so that it interlocks with its neighbours; a strip that goes on from edge to edge is bent, without a gap;
    what is far longer than high goes once over the line; what stands alone is rigid, with a gap: a stitch with a stitch's.
    Of a motif with cuts what lies between them decides, of pictures what they cover. Raises InputError where nothing does.
    """
    if motif.cuts is not None:
        return Suit(suited(clipped_to(motif, *motif.cuts)).settings)
    drawn, motif = motif, pictures_as_cells(motif)
    wires = _wires(motif)
    if wires is not None:
        joints = ((wires[0], motif.base_line), (motif.width - wires[1], motif.base_line))
        travel = {"round_bends": "jointed"}
        return Suit({"travel": travel, "spacing": _spacing("size", LINK_EASED_PCT)}, joints if drawn.joints is None else None)
    if _meets(motif, MISMATCH_SHARE if drawn is motif else MISMATCH_SHARE_OF_CELLS):
        return Suit(of_strip())
    left, top, right, foot = ink_box(motif)
    if right - left > LONG_DRAWING * (foot - top) > 0:
        return Suit({"travel": {"kind": "once_proportion"}})
    gap = STITCH_GAP_PCT if _is_stitch(motif, right - left, foot - top) else APART_PCT
    fault = max(GAP_TOLERANCE_MM, round(gap / 100 * motif.width * GAP_SHARE, 2))
    return Suit({"spacing": {"gap_pct": gap, **_spacing("gaps", EASED_PCT)}, "joins": {"gap_tolerance_mm": fault},
                 "ends": {"outside_corner": "butt", "inside_corner": "butt"}})  # fmt: skip


def of_strip() -> dict:
    """Return the settings of what goes on from edge to edge, as the middle of a drawing cut in three does."""
    corners = {"outside_corner": "mitre", "inside_corner": "mitre"}
    return {"travel": {"round_bends": "bent"}, "spacing": _spacing("length", EASED_PCT), "ends": corners}


def _spacing(ease: str, limit: float) -> dict:
    return {"ease": ease, "ease_limit_pct": limit}


def _meets(motif: Motif, mismatch: float) -> bool:
    """Tell whether what is filled at one edge goes on at the other, with what neighbours reach over the edges."""
    covered, half = rough_silhouette(motif), motif.width / 2
    left, low, right, high = shapely.bounds(covered)
    if shapely.is_empty(covered):
        return False
    if left < -half or right > half:
        covered = shapely.union_all([translate(covered, by) for by in (-motif.width, 0.0, motif.width)])
    inside = INSIDE_SHARE * motif.width
    one, two = (shapely.intersection(covered, shapely.LineString([(x, low - 1), (x, high + 1)])) for x in (inside - half, half - inside))
    differ = shapely.symmetric_difference(one, translate(two, -2 * (half - inside)))
    filled = float(min(shapely.length(one), shapely.length(two)))
    return filled > MEETS_SHARE * (high - low) and float(shapely.length(differ)) <= mismatch * filled


def _wires(motif: Motif) -> tuple[float, float] | None:
    """Return how thick a link is at its left and its right end along the base line, mm; None where it is none.

    It covers the base line at both ends of the frame alone, and between lies a hole with room for its neighbours' ends.
    """
    half = motif.width / 2
    base = shapely.LineString([(-half, 0), (half, 0)])
    covered = rough_silhouette(motif)
    along = [part for part in shapely.get_parts(shapely.intersection(covered, base)) if shapely.length(part) > 0]
    if len(along) != 2:
        return None
    first, last = sorted((shapely.bounds(part)[[0, 2]] + half for part in along), key=lambda ends: ends[0])
    hole = shapely.Point((first[1] + last[0]) / 2 - half, 0)
    holes = [shapely.Polygon(ring) for part in shapely.get_parts(covered) for ring in part.interiors]
    wide = max(first[1], motif.width - last[0])
    at_ends = first[0] <= END_SHARE * motif.width and last[1] >= (1 - END_SHARE) * motif.width
    if not at_ends or last[0] - first[1] < HOLE_IN_WIRES * wide or not any(shapely.contains(own, hole) for own in holes):
        return None
    return float(np.round(first[1], 4)), float(np.round(motif.width - last[0], 4))


def _is_stitch(motif: Motif, length: float, height: float) -> bool:
    return length >= STITCH_PROPORTION * height and float(shapely.area(rough_silhouette(motif))) >= STITCH_FILLS * length * height
