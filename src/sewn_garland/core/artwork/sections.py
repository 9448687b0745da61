"""Upright sections through a motif: what is filled where, the seam between two of them, and columns for comparing many."""

from __future__ import annotations

from dataclasses import dataclass, replace
from functools import lru_cache

import numpy as np

from ..maths.colour import delta_e_2000, lab_from_srgb, over_white, rgb_from_hex
from ..maths.outlines import bezier_at, cubics_of
from ..maths.ragged import owners, ranges
from ..maths.raster import rgba_from_png
from ..values.motif import Motif, Paint, Shape, fill_of, picture_of
from .box import ink_box
from .fills import as_fills

JUST_INSIDE_MM = 2e-4  # the section is taken so far inside a cut, where artwork that ends on it is still there
CROSSING_MM = 1e-3  # outlines so near cross there; chosen: at a seam, steep ones are twice the above apart


@dataclass(frozen=True, eq=False)
class Section:
    """What is filled on an upright line: intervals ``top``, ``foot`` (k,) in mm with colour and coverage, from the top down.

    ``edges`` (e,) are where filled begins or ends, with ``slopes`` (e,) in radians of the outline there.
    """

    top: np.ndarray
    foot: np.ndarray
    rgb: np.ndarray
    alpha: np.ndarray
    edges: np.ndarray
    slopes: np.ndarray


@dataclass(frozen=True)
class Seam:
    """How the right edge meets the next piece's left edge: mm that differ, the largest angle, mean ΔE2000 where both are filled."""

    mismatch_mm: float
    slope_deg: float
    delta_e: float


@dataclass(frozen=True, eq=False)
class Painted:
    """An outline that is painted: cubics (m, 4, 2) with a fill rule and a paint."""

    cubics: np.ndarray
    rule: str
    paint: Paint


@dataclass(frozen=True, eq=False)
class Pixels:
    """A picture's pixels (h, w, 4) on its rectangle's corners (4, 2)."""

    rgba: np.ndarray
    corners: np.ndarray


Layer = Painted | Pixels
"""One thing that is painted."""


def layers_of(motif: Motif) -> list[Layer]:
    """Return what a motif paints, from below; strokes as outlines."""
    return [layer for shape in motif.shapes for layer in (_outline_layers(shape) if shape.picture is None else (_picture_layer(shape),))]


def _picture_layer(shape: Shape) -> Layer:
    return Pixels(_pixels(picture_of(shape).png), shape.points)


@lru_cache(maxsize=4)  # a few only: pixels are large
def _pixels(png: bytes) -> np.ndarray:
    return rgba_from_png(png)


@lru_cache(maxsize=1024)
def _outline_layers(shape: Shape) -> tuple[Layer, ...]:
    """Return what one shape paints; shapes do not change, so it is worked out once."""
    return tuple(Painted(cubics_of(part.commands, part.points), part.fill_rule, fill_of(part)) for part in as_fills(shape))


def seam_layers(motif: Motif) -> list[Layer]:
    """Return what is painted about a motif's seams: without cuts its neighbours lie on it where they reach over their frames."""
    own = layers_of(motif)
    left, _, right, _ = ink_box(motif)
    if motif.cuts is not None or (left >= -1e-6 and right <= motif.width + 1e-6):
        return own
    return [_moved(layer, k * motif.width) for k in (-1, 0, 1) for layer in own]


def _moved(layer: Layer, dx: float) -> Layer:
    by = np.array([dx, 0.0])
    if isinstance(layer, Pixels):
        return replace(layer, corners=layer.corners + by)
    return replace(layer, cubics=layer.cubics + by, paint=_moved_paint(layer.paint, dx))


def _moved_paint(paint: Paint, dx: float) -> Paint:
    if paint.gradient is None:
        return paint
    *linear, e, f = paint.gradient.matrix
    return replace(paint, gradient=replace(paint.gradient, matrix=(*linear, e + dx, f)))


def seam_of(motif: Motif) -> Seam:
    """Measure the seam between the motif's cuts, or its frame's sides."""
    return seam_between(*seam_sections(motif))


def seam_sections(motif: Motif, *, inside: float = JUST_INSIDE_MM) -> tuple[Section, Section]:
    """Return what is filled ``inside`` mm from the left and the right edge of the repeat."""
    left, right = motif.span
    layers = seam_layers(motif)
    return section_at(layers, left + inside), section_at(layers, right - inside)


def seam_between(one: Section, two: Section) -> Seam:
    """Compare two sections: the length of their symmetric difference, slopes of matching edges, colour where both are filled."""
    y = np.unique(np.concatenate([one.top, one.foot, two.top, two.foot]))
    if len(y) < 2:
        return Seam(0.0, 0.0, 0.0)
    middle, size = (y[1:] + y[:-1]) / 2, np.diff(y)
    (rgb_a, alpha_a), (rgb_b, alpha_b) = _looked_up(one, middle), _looked_up(two, middle)
    filled_a, filled_b = alpha_a > 0.02, alpha_b > 0.02
    both = filled_a & filled_b
    apart = delta_e_2000(lab_from_srgb(over_white(rgb_a, alpha_a)), lab_from_srgb(over_white(rgb_b, alpha_b)))
    tone = float((apart * size)[both].sum() / size[both].sum()) if both.any() else 0.0
    return Seam(float(size[filled_a ^ filled_b].sum()), _slope_difference(one, two), tone)


def _looked_up(section: Section, y: np.ndarray) -> tuple[np.ndarray, np.ndarray]:
    rgb, alpha = np.zeros((len(y), 3)), np.zeros(len(y))
    if len(section.top):
        i = np.clip(np.searchsorted(section.top, y, side="right") - 1, 0, len(section.top) - 1)
        inside = (y >= section.top[i]) & (y <= section.foot[i])
        rgb[inside], alpha[inside] = section.rgb[i[inside]], section.alpha[i[inside]]
    return rgb, alpha


def _slope_difference(one: Section, two: Section) -> float:
    """Return the largest angle in degrees between edges that match: in order where there are as many, else the nearest ones."""
    if not len(one.edges) or not len(two.edges):
        return 0.0
    a, b = one, two
    if len(a.edges) == len(b.edges):
        apart = np.abs(a.slopes - b.slopes)
    else:
        few, many = (a, b) if len(a.edges) < len(b.edges) else (b, a)
        nearest = np.abs(few.edges[:, None] - many.edges[None]).argmin(axis=1)
        apart = np.abs(few.slopes - many.slopes[nearest])
    return float(np.degrees(np.minimum(apart, np.pi - apart).max()))


def section_at(layers: list[Layer], x: float) -> Section:
    """Return what is filled on the upright line at x mm, the paints composited in order. Nothing there gives an empty section."""
    crossings = [(layer, _roots(layer.cubics, x) if isinstance(layer, Painted) else []) for layer in layers]
    filled = [f for layer, roots in crossings if (f := _filled(layer, roots, x)) is not None]
    y = np.unique(np.concatenate([np.concatenate([f[0], f[1]]) for f in filled])) if filled else np.zeros(0)
    if len(y) < 2:
        none = np.zeros(0)
        return Section(none, none, np.zeros((0, 3)), none, none, none)
    middle = (y[1:] + y[:-1]) / 2
    rgb, alpha = np.zeros((len(middle), 3)), np.zeros(len(middle))
    for top, foot, colour, cover in filled:
        i = np.clip(np.searchsorted(top, middle, side="right") - 1, 0, len(top) - 1)
        own = np.where((middle > top[i]) & (middle < foot[i]), cover[i], 0.0)
        total = own + alpha * (1 - own)
        rgb = (colour[i] * own[:, None] + rgb * (alpha * (1 - own))[:, None]) / np.maximum(total, 1e-12)[:, None]
        alpha = total
    seen = alpha > 0.02
    edges = y[np.flatnonzero(np.diff(np.concatenate([[False], seen, [False]])))]
    places = np.array([(root_y, slope) for _, roots in crossings for root_y, slope, _ in roots]).reshape(-1, 2)
    return Section(y[:-1][seen], y[1:][seen], rgb[seen], alpha[seen], edges, _slopes_at(edges, places))


def _slopes_at(edges: np.ndarray, places: np.ndarray) -> np.ndarray:
    """Return the slope of the outline at each edge (e,) out of places (m, 2) with slopes; the largest where outlines cross.

    Then it is of the same outline on both sides of the crossing.
    """
    if not len(places) or not len(edges):
        return np.zeros(len(edges))
    off = np.abs(edges[:, None] - places[:, 0])
    return np.where(off <= off.min(axis=1)[:, None] + CROSSING_MM, places[:, 1], -np.inf).max(axis=1)


def _filled(layer: Layer, roots: list[tuple[float, float, int]], x: float):
    """Return a layer's filled stretches on the line at x: tops and feet from the top down, colour and coverage; None for none."""
    if isinstance(layer, Pixels):
        return _picture_column(layer, x)
    winding, tops, feet = 0, [], []
    for y, _, way in sorted(roots):
        was = winding % 2 if layer.rule == "evenodd" else winding
        winding += way
        now = winding % 2 if layer.rule == "evenodd" else winding
        if not was and now:
            tops.append(y)
        elif was and not now:
            feet.append(y)
    if not tops or len(tops) != len(feet):
        return None
    rgb, alpha = _paint_at(layer.paint, np.full(len(tops), x), (np.array(tops) + feet) / 2)
    return np.array(tops), np.array(feet), rgb, alpha


def _paint_at(paint: Paint, x: np.ndarray, y: np.ndarray) -> tuple[np.ndarray, np.ndarray]:
    """Return colour (n, 3) and coverage (n,) of a paint at places (n,)."""
    if paint.gradient is None:
        return np.tile(rgb_from_hex(paint.colour), (len(y), 1)), np.full(len(y), paint.opacity)
    g = paint.gradient
    a, b, c, d, e, f = g.matrix
    own = np.linalg.solve(np.array([[a, c], [b, d]]), np.stack([x - e, y - f]))
    t = np.clip(own[0] if g.kind == "linear" else np.hypot(*own), 0, 1)
    offsets = np.array([s.offset for s in g.stops])
    colours, cover = np.array([rgb_from_hex(s.colour) for s in g.stops]), np.array([s.opacity for s in g.stops])
    return np.stack([np.interp(t, offsets, colours[:, k]) for k in range(3)], axis=1), np.interp(t, offsets, cover) * paint.opacity


def _roots(cubics: np.ndarray, x: float) -> list[tuple[float, float, int]]:
    """Return (y, slope in radians, winding) wherever cubics (m, 4, 2) cross the line at x."""
    out = []
    for p in cubics[(cubics[:, :, 0].min(axis=1) <= x) & (cubics[:, :, 0].max(axis=1) >= x)] if len(cubics) else ():
        px, py = p[:, 0], p[:, 1]
        power = [px[3] - 3 * px[2] + 3 * px[1] - px[0], 3 * (px[0] - 2 * px[1] + px[2]), 3 * (px[1] - px[0]), px[0] - x]
        size = max(np.abs(px - x).max(), 1e-9)
        lead = 0
        while lead < 3 and abs(power[lead]) < 1e-9 * size:
            lead += 1
        for root in [-power[3] / power[2]] if lead == 2 else np.roots(power[lead:]):
            t = float(np.real(root))
            if abs(np.imag(root)) > 1e-7 or not 0 <= t < 1:
                continue
            b = np.array([(1 - t) ** 3, 3 * t * (1 - t) ** 2, 3 * t * t * (1 - t), t**3])
            d = 3 * np.array([-((1 - t) ** 2), (1 - t) ** 2 - 2 * t * (1 - t), 2 * t * (1 - t) - t * t, t * t])
            dx, dy = float(px @ d), float(py @ d)
            if dx:
                out.append((float(py @ b), float(np.arctan(dy / dx)), 1 if dx > 0 else -1))
    return out


def _picture_column(layer: Pixels, x: float):
    """Return a picture's column at x, a stretch a pixel; None off the picture or where it is turned."""
    origin, right, _, below = layer.corners
    if abs(right[1] - origin[1]) > 1e-6 or abs(below[0] - origin[0]) > 1e-6 or right[0] == origin[0] or below[1] <= origin[1]:
        return None
    share = (x - origin[0]) / (right[0] - origin[0])
    if not 0 <= share < 1:
        return None
    column = layer.rgba[:, int(share * layer.rgba.shape[1])] / 255.0
    y = np.linspace(origin[1], below[1], len(column) + 1)
    return y[:-1], y[1:], column[:, :3], column[:, 3]


def columns_of(layers: list[Layer], height: float, xs: np.ndarray, rows: int) -> np.ndarray:
    """Return what upright lines at xs (n,), rising, show, as premultiplied RGBA (n, rows, 4) from 0 to ``height`` mm down."""
    out = np.zeros((len(xs), rows, 4))
    y = (np.arange(rows) + 0.5) / rows * height
    for layer in layers:
        own = _picture_block(layer, xs, y) if isinstance(layer, Pixels) else _painted_block(layer, xs, y)
        out = own + out * (1 - own[..., 3:])
    return out


def _painted_block(layer: Painted, xs: np.ndarray, y: np.ndarray) -> np.ndarray:
    """Fill by winding: every side of the flattened outline adds its way to all rows below where it crosses a line."""
    points = bezier_at(layer.cubics, np.linspace(0, 1, 17)) if len(layer.cubics) else np.zeros((0, 17, 2))
    (x0, y0), (x1, y1) = (np.moveaxis(p.reshape(-1, 2), -1, 0) for p in (points[:, :-1], points[:, 1:]))
    low, high = np.minimum(x0, x1), np.maximum(x0, x1)
    first, last = np.searchsorted(xs, low, side="left"), np.searchsorted(xs, high, side="left")
    count = np.maximum(last - first, 0)
    side, column = owners(count), ranges(first, count)
    at = y0[side] + (y1 - y0)[side] * (xs[column] - x0[side]) / (x1 - x0)[side]
    winding = np.zeros((len(xs), len(y) + 1), int)
    np.add.at(winding, (column, np.searchsorted(y, at)), np.where(x1 > x0, 1, -1)[side])
    winding = winding.cumsum(axis=1)[:, :-1]
    inside = winding % 2 != 0 if layer.rule == "evenodd" else winding != 0
    if layer.paint.gradient is None:
        colour = np.append(rgb_from_hex(layer.paint.colour), 1.0) * layer.paint.opacity
        return inside[..., None] * colour
    rgb, alpha = _paint_at(layer.paint, np.repeat(xs, len(y)), np.tile(y, len(xs)))
    return (inside.ravel()[:, None] * np.concatenate([rgb * alpha[:, None], alpha[:, None]], axis=1)).reshape(len(xs), len(y), 4)


def _picture_block(layer: Pixels, xs: np.ndarray, y: np.ndarray) -> np.ndarray:
    origin, right, _, below = layer.corners
    out = np.zeros((len(xs), len(y), 4))
    if abs(right[1] - origin[1]) > 1e-6 or right[0] <= origin[0] or below[1] <= origin[1]:
        return out
    h, w = layer.rgba.shape[:2]
    column = ((xs - origin[0]) / (right[0] - origin[0]) * w).astype(int)
    row = ((y - origin[1]) / (below[1] - origin[1]) * h).astype(int)
    inside = ((column >= 0) & (column < w))[:, None] & ((row >= 0) & (row < h))[None]
    rgba = layer.rgba[np.clip(row, 0, h - 1)[None], np.clip(column, 0, w - 1)[:, None]] / 255.0
    rgba[..., :3] *= rgba[..., 3:]
    return np.where(inside[..., None], rgba, 0.0)
