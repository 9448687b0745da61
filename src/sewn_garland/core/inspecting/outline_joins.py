"""Joins by what is drawn: how far outlines stand apart or overlap."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import replace

import numpy as np
import shapely

from ..artwork.silhouette import FLATNESS_MM, silhouette
from ..values.arrays import rows_of
from ..values.brush import Brush
from ..values.joins import Joins
from ..values.pieces import Placed

MOST_SIDES = 1000  # chosen: of a bent polygon, besides its own
SAME_PAIR_MM = 1e-6
SAME_DIRECTION = 1e-9  # radians; a piece of a metre then lies as near as that
TOUCHING_MM = 1e-6

Places = Callable[[np.ndarray, np.ndarray], np.ndarray]
"""Takes pieces (k,) and their points (k, 2) about the base line's middle in the motif's own mm, returns places on the page (k, 2)."""


def with_outlines(joins: Joins, brush: Brush, placed: Placed, places: Places | None, known: np.ndarray, tightest: float = np.inf) -> Joins:
    """Measure joins by the outlines of their pieces: ``apart`` mm and ``overlap`` mm², and gaps as deviations from the straight.

    The wish is how the same two pieces lie on a straight line; the gap is what they stand further apart
    there, less what they overlap more, as a mean depth over the lower piece's height. Pieces bent
    by ``places`` are measured as they are bent, in bends of ``tightest`` mm at most; joins of pieces that are clipped or fitted to a
    corner (not ``known`` (n,)) keep the measure of their frames.
    """
    if not len(joins.first):
        return replace(joins, apart=np.zeros(0), overlap=np.zeros(0))
    first, second = joins.first, joins.second
    silhouettes = [silhouette(m, brush.spacing.size) for m in brush.pieces.motifs]
    wished_apart, wished_overlap, straight = _wished(silhouettes, placed, first, second)
    apart, overlap = wished_apart.copy(), wished_overlap.copy()
    askew = np.arange(len(first)) if places is not None else np.flatnonzero(~straight)
    needed, at = np.unique(np.concatenate([first[askew], second[askew]]), return_inverse=True)
    fine = silhouettes if places is None else [_bendable(shape, m.height * brush.spacing.size, brush.spacing.size, tightest)
                                               for shape, m in zip(silhouettes, brush.pieces.motifs, strict=True)]  # fmt: skip
    shapes = _placed(fine, placed, needed, places)
    apart[askew], overlap[askew] = _between(shapes, at[: len(askew)], at[len(askew) :])
    height = np.array([m.height for m in brush.pieces.motifs])
    depth = np.minimum(*(height[placed.motif[i]] * np.abs(placed.scale[i, 1]) for i in (first, second)))
    gap = (apart - wished_apart) - (overlap - wished_overlap) / np.maximum(depth, 1e-9)
    told = known[first] & known[second] & np.isfinite(apart) & ~placed.at_corner[first]  # which is left by another edge
    apart, overlap = (np.where(told, values, np.nan) for values in (apart, overlap))
    return replace(joins, gap=np.where(told, gap, joins.gap), apart=apart, overlap=overlap)


def as_drawn_apart(joins: Joins, brush: Brush, placed: Placed, places: Places | None, tightest: float = np.inf) -> Joins:
    """Measure joins of pieces that lie loosely by how far their outlines stand apart, mm; steps and kinks are what was asked for.

    Pieces that are to stand apart have no joins to look at.
    """
    if brush.spacing.gap > 0:
        joins = rows_of(joins, slice(0))
    none = np.zeros(len(joins.first))
    joins = replace(joins, gap=none, step=none, kink=none, tone=none)
    if not len(none):
        return joins
    size = brush.spacing.size * float(placed.size.max(initial=1.0))
    silhouettes = [silhouette(m, size) for m in brush.pieces.motifs]
    if places is not None:
        silhouettes = [_bendable(shape, m.height * size, size, tightest) for shape, m in zip(silhouettes, brush.pieces.motifs, strict=True)]
    needed, at = np.unique(np.concatenate([joins.first, joins.second]), return_inverse=True)
    shapes = _placed(silhouettes, placed, needed, places)
    apart = np.nan_to_num(shapely.distance(shapes[at[: len(none)]], shapes[at[len(none) :]]))  # what draws nothing stands nowhere
    return replace(joins, gap=apart, apart=apart, wished=none)


def _bendable(shape: shapely.Geometry, height: float, size: float, tightest: float) -> shapely.Geometry:
    """Return a motif's silhouette with sides so short that, laid ``size`` times as large, they stay flat enough in a bend.

    No bend counts as tighter than pieces are high: there they fold.
    """
    side = np.sqrt(8 * max(tightest, height) * FLATNESS_MM / 2) / size  # the sagitta of a chord
    return shapely.segmentize(shape, max(side, shapely.length(shape) / MOST_SIDES)) if np.isfinite(side) else shape


def _placed(silhouettes: list, placed: Placed, pieces: np.ndarray, places: Places | None) -> np.ndarray:
    """Return the polygons (k,) of some pieces on the page."""
    out = np.empty(len(pieces), object)
    for v, shape in enumerate(silhouettes):
        rows = np.flatnonzero(placed.motif[pieces] == v)
        if len(rows):
            out[rows] = on_page(shape, placed, pieces[rows], places)
    return out


def on_page(shape: shapely.Geometry, placed: Placed, pieces: np.ndarray, places: Places | None) -> np.ndarray:
    """Return polygons about a base line's middle as they lie on the page (k,) for some pieces (k,), bent by ``places`` where given."""
    flat = shapely.get_coordinates(shape)
    if places is None:
        matrices = placed.matrices
        put = flat @ matrices[pieces, :4].reshape(-1, 2, 2) + matrices[pieces, None, 4:]
    else:
        put = places(np.repeat(pieces, len(flat)), np.tile(flat, (len(pieces), 1)))
    copies = np.full(len(pieces), shape, object)  # each gets coordinates of its own
    return np.asarray(shapely.set_coordinates(copies, put.reshape(-1, 2)))


def _between(shapes: np.ndarray, one: np.ndarray, two: np.ndarray) -> tuple[np.ndarray, np.ndarray]:
    """Return how far pairs of polygons, at places ``one`` and ``two`` among ``shapes``, stand apart and how much of them overlaps."""
    apart = shapely.distance(shapes[one], shapes[two])
    overlap = np.zeros(len(one))
    meet = np.flatnonzero(apart <= TOUCHING_MM)
    sound = _mended(shapes, np.union1d(one[meet], two[meet]))
    overlap[meet] = shapely.area(shapely.intersection(sound[one[meet]], sound[two[meet]]))
    return apart, overlap


def _mended(shapes: np.ndarray, rows: np.ndarray) -> np.ndarray:
    """Return polygons with those of some rows that cross themselves made valid."""
    crossed = rows[~shapely.is_valid(shapes[rows])]
    out = shapes.copy()
    out[crossed] = shapely.make_valid(shapes[crossed], method="structure", keep_collapsed=False)
    return out


def _wished(silhouettes: list, placed: Placed, first: np.ndarray, second: np.ndarray):
    """Return how far the same pairs stand apart and overlap on a straight line, and which lie as on one; like pairs are measured once."""
    linear = placed.linear
    cos, sin = np.cos(placed.direction), np.sin(placed.direction)
    back = np.stack([np.stack([cos, -sin], axis=1), np.stack([sin, cos], axis=1)], axis=1)
    own = linear @ back  # rows are the images of the axes, turned back to a line that runs to the right
    if placed.joints is None:
        off = np.stack([placed.after[first] + placed.gap_after[first] + placed.before[second], np.zeros(len(first))], axis=1)
    else:
        joint = np.einsum("nkj,nji->nki", placed.joints - placed.centre[:, None], back)
        off = joint[first, 1] - joint[second, 0]
    table = np.column_stack(
        [
            placed.motif[first],
            placed.motif[second],
            own[first].reshape(-1, 4),
            own[second].reshape(-1, 4),
            off,
        ]
    )
    _, rows, back_to = np.unique(np.round(table / SAME_PAIR_MM), axis=0, return_index=True, return_inverse=True)

    def alone(row: np.ndarray, k: int) -> shapely.Geometry:
        linear = row[2 + 4 * k : 6 + 4 * k].reshape(2, 2)
        return shapely.transform(silhouettes[int(row[k])], lambda xy: xy @ linear + k * row[10:])

    alike = np.array([alone(row, k) for k in (0, 1) for row in table[rows]], object)
    apart, overlap = _between(alike, np.arange(len(rows)), len(rows) + np.arange(len(rows)))
    lies = np.einsum("nd,nde->ne", placed.centre[second] - placed.centre[first], back[first])
    turned = np.mod(placed.direction[second] - placed.direction[first] + np.pi, 2 * np.pi) - np.pi
    straight = (np.abs(lies - off).max(axis=1) <= SAME_PAIR_MM) & (np.abs(turned) <= SAME_DIRECTION)
    return apart[back_to.ravel()], overlap[back_to.ravel()], straight
