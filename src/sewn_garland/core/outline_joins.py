"""Joins by what is drawn: how far outlines stand apart or overlap, and how far colours differ where edges meet."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import replace
from functools import lru_cache

import numpy as np
import shapely

from .making.rims import as_fills
from .making.sections import Section, seam_between, seam_sections
from .maths.outlines import flattened
from .placing.rigid import matrices_of
from .values.brush import Brush
from .values.laid import Joins, Placements, Stops
from .values.motif import Motif

FLATNESS_MM = 0.005  # chosen: outlines are polygons to this, a twentieth of what a join may miss
MOST_SIDES = 1000  # chosen: of a bent polygon, besides its own
SAME_PAIR_MM = 1e-6
TOUCHING_MM = 1e-6

Places = Callable[[np.ndarray, np.ndarray], np.ndarray]
"""Takes pieces (k,) and their points (k, 2) about the base line's middle in the motif's own mm, returns places on the page (k, 2)."""


@lru_cache(maxsize=512)
def silhouette(motif: Motif) -> shapely.Geometry:
    """Return all that a motif covers as polygons about its base line's middle, strokes included; empty where it draws nothing.

    A picture covers its rectangle.
    """
    parts = []
    for shape in motif.shapes:
        for part in [shape] if shape.picture is not None else as_fills(shape):
            parts.append(_filled(flattened(part.commands, part.points, tolerance=FLATNESS_MM), part.fill_rule))
    whole = shapely.union_all(parts) if parts else shapely.Polygon()
    return shapely.transform(whole, lambda xy: xy - (motif.width / 2, motif.base_line))


def _filled(rings: list[np.ndarray], rule: str) -> shapely.Geometry:
    """Return what rings fill: by ``evenodd`` what an odd number covers, else (nonzero) holes are the rings drawn the other way round."""
    polygons = [shapely.make_valid(shapely.Polygon(ring)) for ring in rings if len(ring) > 2]
    if not polygons:
        return shapely.Polygon()
    if rule == "evenodd":
        out = polygons[0]
        for polygon in polygons[1:]:
            out = shapely.symmetric_difference(out, polygon)
        return out
    signs = np.array([_turn(ring) for ring in rings if len(ring) > 2])
    main = signs[np.argmax(shapely.area(polygons))]
    solid = shapely.union_all([p for p, s in zip(polygons, signs, strict=True) if s == main])
    holes = [p for p, s in zip(polygons, signs, strict=True) if s != main]
    return shapely.difference(solid, shapely.union_all(holes)) if holes else solid


def _turn(ring: np.ndarray) -> float:
    x, y = ring.T
    return float(np.sign((x * np.roll(y, -1) - y * np.roll(x, -1)).sum()))


def with_outlines(
    joins: Joins, brush: Brush, stops: Stops, placements: Placements, places: Places | None, stamped: np.ndarray,
    tightest: float = np.inf,
) -> Joins:
    """Measure joins by the outlines of their pieces: ``apart`` mm and ``overlap`` mm², and gaps as deviations from the straight.

    The wish is how the same two pieces lie on a straight line; the gap is what they stand further apart
    there, less what they overlap more, as a mean depth over the lower piece's height. Pieces bent
    by ``places`` are measured as they are bent, in bends of ``tightest`` mm at most; joins of pieces that are clipped or fitted to a
    corner (not ``stamped`` (n,) and not bent) keep the measure of their frames.
    """
    if not len(joins.first):
        return replace(joins, apart=np.zeros(0), overlap=np.zeros(0))
    first, second = joins.first, joins.second
    silhouettes = [silhouette(m) for m in brush.motifs]
    needed, at = np.unique(np.concatenate([first, second]), return_inverse=True)
    fine = silhouettes if places is None else [_bendable(shape, m.height * brush.size, brush.size, tightest)
                                               for shape, m in zip(silhouettes, brush.motifs, strict=True)]  # fmt: skip
    shapes = _placed(fine, placements, needed, places)
    apart, overlap = _between(shapes, at[: len(first)], at[len(first) :])
    wished_apart, wished_overlap = _wished(silhouettes, stops, placements, first, second)
    height = np.array([m.height for m in brush.motifs])
    depth = np.minimum(*(height[placements.variant[i]] * np.abs(placements.scale[i, 1]) for i in (first, second)))
    gap = (apart - wished_apart) - (overlap - wished_overlap) / np.maximum(depth, 1e-9)
    known = stamped[first] & stamped[second] & np.isfinite(apart)
    apart, overlap = (np.where(known, values, np.nan) for values in (apart, overlap))
    return replace(joins, gap=np.where(known, gap, joins.gap), apart=apart, overlap=overlap)


def _bendable(shape: shapely.Geometry, height: float, size: float, tightest: float) -> shapely.Geometry:
    """Return a motif's silhouette with sides so short that, laid ``size`` times as large, they stay flat enough in a bend.

    No bend counts as tighter than pieces are high: there they fold.
    """
    side = np.sqrt(8 * max(tightest, height) * FLATNESS_MM / 2) / size  # the sagitta of a chord
    return shapely.segmentize(shape, max(side, shapely.length(shape) / MOST_SIDES)) if np.isfinite(side) else shape


def _placed(silhouettes: list, placements: Placements, pieces: np.ndarray, places: Places | None) -> np.ndarray:
    """Return the polygons (k,) of some pieces on the page."""
    out = np.empty(len(pieces), object)
    matrices = matrices_of(placements)
    for v, shape in enumerate(silhouettes):
        rows = np.flatnonzero(placements.variant[pieces] == v)
        if not len(rows):
            continue
        flat = shapely.get_coordinates(shape)
        own = pieces[rows]
        if places is None:
            linear = matrices[own, :4].reshape(-1, 2, 2)
            put = flat @ linear + matrices[own, None, 4:]
        else:
            put = places(np.repeat(own, len(flat)), np.tile(flat, (len(own), 1)))
        copies = np.full(len(own), shape, object)  # each gets coordinates of its own
        out[rows] = shapely.set_coordinates(copies, put.reshape(-1, 2))
    return out


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


def _wished(silhouettes: list, stops: Stops, placements: Placements, first: np.ndarray, second: np.ndarray):
    """Return how far the same pairs stand apart and overlap on a straight line; like pairs are measured once."""
    linear = matrices_of(placements)[:, :4].reshape(-1, 2, 2)
    cos, sin = np.cos(placements.direction), np.sin(placements.direction)
    back = np.stack([np.stack([cos, -sin], axis=1), np.stack([sin, cos], axis=1)], axis=1)
    own = linear @ back  # rows are the images of the axes, turned back to a line that runs to the right
    if placements.joints is None:
        off = np.stack([stops.after[first] + stops.gap_after[first] + stops.before[second], np.zeros(len(first))], axis=1)
    else:
        joint = np.einsum("nkj,nji->nki", placements.joints - placements.centre[:, None], back)
        off = joint[first, 1] - joint[second, 0]
    table = np.column_stack([
        placements.variant[first], placements.variant[second], own[first].reshape(-1, 4), own[second].reshape(-1, 4), off,
    ])
    _, rows, back_to = np.unique(np.round(table / SAME_PAIR_MM), axis=0, return_index=True, return_inverse=True)

    def alone(row: np.ndarray, k: int) -> shapely.Geometry:
        linear = row[2 + 4 * k : 6 + 4 * k].reshape(2, 2)
        return shapely.transform(silhouettes[int(row[k])], lambda xy: xy @ linear + k * row[10:])

    alike = np.array([alone(row, k) for k in (0, 1) for row in table[rows]], object)
    apart, overlap = _between(alike, np.arange(len(rows)), len(rows) + np.arange(len(rows)))
    return apart[back_to.ravel()], overlap[back_to.ravel()]


def tones_of(joins: Joins, brush: Brush, stops: Stops, placements: Placements) -> np.ndarray:
    """Return how far colours differ (j,) where the edges of neighbours are wished to meet, mean ΔE2000 along the seam.

    0 where a gap or an overlap is wished, where pieces do not follow the line, beside corner pieces, and
    where not both edges are painted.
    """
    tone = np.zeros(len(joins.first))
    if brush.facing != "line" or brush.jointed or abs(brush.turn_deg) > 1e-9 or not len(tone):
        return tone
    first, second = joins.first, joins.second
    at_corner = np.array([role.endswith("corner") for role in brush.roles])  # such a piece is left by another edge
    meet = np.abs(stops.gap_after[first]) <= brush.gap_tolerance
    meet &= ~at_corner[placements.variant[first]] & ~at_corner[placements.variant[second]]
    mirrored = placements.scale[:, 0] < 0
    edges = 2 * placements.variant + mirrored  # a motif and which of its sides comes last
    of_all = 2 * len(brush.motifs)
    pairs = edges[first] * of_all + edges[second]
    table = np.zeros(of_all * of_all)
    for pair in np.flatnonzero(np.bincount(pairs[meet], minlength=len(table))):
        (one, over_one), (two, over_two) = (divmod(int(edge), 2) for edge in divmod(int(pair), of_all))
        table[pair] = _tone(brush.motifs[one], bool(over_one), brush.motifs[two], bool(over_two))
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
