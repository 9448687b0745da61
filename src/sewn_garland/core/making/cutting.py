"""Cut a drawing for the repeat: measure its seam, find the best cuts, darn what does not meet, cut in three."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace

import numpy as np

from ..errors import InputError
from ..maths.booleans import combined, rectangle
from ..maths.colour import delta_e_2000, lab_from_srgb, over_white, rgb_from_hex
from ..maths.outlines import bezier_at, cubics_of
from ..maths.raster import png_from_rgba, rgba_from_png
from ..values.motif import Motif, Paint, Picture, Shape, shifted
from .framing import box_of
from .nodes import contours_of, outline_from_contours
from .rims import covered

JUST_INSIDE_MM = 2e-4  # the section is taken so far inside a cut, where artwork that ends on it is still there


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
class Layer:
    """One thing that is painted: cubics (m, 4, 2) with a fill rule and a paint, or a picture's pixels on its shape."""

    cubics: np.ndarray
    rule: str
    paint: Paint | None
    rgba: np.ndarray | None = None
    corners: np.ndarray | None = None


def layers_of(motif: Motif) -> list[Layer]:
    """Return what a motif paints, from below; strokes as outlines."""
    out = []
    for shape in motif.shapes:
        if shape.picture is not None:
            out.append(Layer(np.zeros((0, 4, 2)), "nonzero", None, rgba_from_png(shape.picture.png), shape.points))
            continue
        for part in _as_fills(shape) if shape.stroke else [shape]:
            out.append(Layer(cubics_of(part.commands, part.points), part.fill_rule, part.fill))
    return out


def seam_layers(motif: Motif) -> list[Layer]:
    """Return what is painted about a motif's seams: without cuts its neighbours lie on it where they reach over their frames."""
    own = layers_of(motif)
    left, _, right, _ = box_of(motif.shapes)
    if motif.cuts is not None or (left >= -1e-6 and right <= motif.width + 1e-6):
        return own
    return [_moved(layer, k * motif.width) for k in (-1, 0, 1) for layer in own]


def _moved(layer: Layer, dx: float) -> Layer:
    corners = None if layer.corners is None else layer.corners + np.array([dx, 0.0])
    return replace(layer, cubics=layer.cubics + np.array([dx, 0.0]), paint=layer.paint and _moved_paint(layer.paint, dx), corners=corners)


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
    crossings = [(layer, _roots(layer.cubics, x)) for layer in layers]
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
    slopes = places[np.abs(edges[:, None] - places[:, 0]).argmin(axis=1), 1] if len(places) and len(edges) else np.zeros(len(edges))
    return Section(y[:-1][seen], y[1:][seen], rgb[seen], alpha[seen], edges, slopes)


def _filled(layer: Layer, roots: list[tuple[float, float, int]], x: float):
    """Return a layer's filled stretches on the line at x: tops and feet from the top down, colour and coverage; None for none."""
    if layer.rgba is not None:
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


def _picture_column(layer: Layer, x: float):
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


def clipped_to(motif: Motif, left: float, right: float) -> Motif:
    """Return what of a motif lies between two upright lines, as a motif of that frame; curves stay curves."""
    ink = box_of(motif.shapes)
    shapes = _inside(motif.shapes, (left, min(0.0, ink[1]) - 10, right, max(motif.height, ink[3]) + 10))
    if not shapes:
        raise InputError(f"nothing lies between {left:.2f} and {right:.2f} mm; move the cuts onto the drawing")
    out = replace(motif, shapes=tuple(replace(s, derived=False) for s in shapes), cuts=None, joints=None, recipes=())
    return replace(shifted(out, -left, 0.0), width=right - left)


def clipped_to_box(motif: Motif) -> Motif:
    """Return what of a motif lies within its frame; raises InputError when nothing does."""
    shapes = _inside(motif.shapes, (0.0, 0.0, motif.width, motif.height))
    if not shapes:
        raise InputError("nothing lies within this frame; take a larger one")
    return replace(motif, shapes=tuple(shapes), recipes=())


def _inside(shapes: Sequence[Shape], box: tuple[float, float, float, float]) -> list[Shape]:
    """Cut shapes at a box; what lies wholly inside stays as it is, strokes that cross it become shapes."""
    left, top, right, bottom = box
    window = (*rectangle(*box), "nonzero")
    out: list[Shape] = []
    for shape in shapes:
        x0, y0, x1, y1 = box_of([shape])
        if x1 <= left + 1e-9 or x0 >= right - 1e-9 or y1 <= top + 1e-9 or y0 >= bottom - 1e-9:
            continue
        if x0 >= left - 1e-9 and x1 <= right + 1e-9 and y0 >= top - 1e-9 and y1 <= bottom + 1e-9:
            out.append(shape)
        elif shape.picture is not None:
            out += _cropped(shape, left, right)
        else:
            for part in [shape] if shape.stroke is None else _as_fills(shape):
                commands, points = combined([(part.commands, part.points, part.fill_rule), window], "overlap")
                if commands:
                    out.append(replace(part, commands=commands, points=points, fill_rule="nonzero"))
    return out


def _as_fills(shape: Shape) -> list[Shape]:
    out = [replace(shape, stroke=None)] if shape.fill else []
    commands, points, _ = covered(replace(shape, fill=None))
    return [*out, replace(shape, commands=commands, points=points, fill=shape.stroke.paint, fill_rule="nonzero", stroke=None)]


def _cropped(shape: Shape, left: float, right: float) -> list[Shape]:
    """Cut a picture to whole pixels between two lines, each pixel that is mostly inside kept."""
    origin, across, _, below = shape.points
    if abs(across[1] - origin[1]) > 1e-6 or abs(below[0] - origin[0]) > 1e-6:
        raise InputError("a turned picture cannot be cut; turn it upright first")
    rgba = rgba_from_png(shape.picture.png)
    mm = (across[0] - origin[0]) / rgba.shape[1]
    a, b = (int(np.clip(round((v - origin[0]) / mm), 0, rgba.shape[1])) for v in (left, right))
    if b <= a:
        return []
    kept = rgba[:, a:b]
    x0, x1 = origin[0] + a * mm, origin[0] + b * mm
    corners = np.array([[x0, origin[1]], [x1, origin[1]], [x1, below[1]], [x0, below[1]]])
    return [replace(shape, points=corners, picture=Picture(png_from_rgba(kept), b - a, len(kept), shape.picture.stencil))]


def cut_in_three(motif: Motif) -> tuple[Motif | None, Motif, Motif | None]:
    """Return the start, the repeat and the end piece of a motif with cuts; an outer part without ink is None."""
    if motif.cuts is None:
        raise InputError("there are no cuts yet; pull the two tapes onto the drawing first")
    left, right = motif.cuts
    if not left < right:
        raise InputError("the cuts are crossed over; the left one must lie left of the right one")

    def outer(a: float, b: float) -> Motif | None:
        try:
            return clipped_to(motif, a, b) if b - a > 0.01 else None
        except InputError:
            return None

    ink = box_of(motif.shapes)
    return outer(min(0.0, ink[0]), left), clipped_to(motif, left, right), outer(right, max(motif.width, ink[2]))


def darned(motif: Motif) -> Motif:
    """Return the repeat between the cuts with its edges made to meet: the few points on the edges move to the mean of both.

    Each point on the left edge is paired with one on the right edge in order from the top; both go
    to their mean height, and flowing handles there to their mean slope. Raises InputError where the
    edges do not have as many points.
    """
    left, right = motif.span
    own = clipped_to(motif, left, right)
    width, tol = own.width, 1e-3 * max(1.0, own.width / 10)
    places = []
    contours = [contours_of(s.commands, s.points) if s.picture is None else [] for s in own.shapes]
    for i, shape in enumerate(contours):
        for j, contour in enumerate(shape):
            for k, (x, y) in enumerate(contour.at):
                if abs(x) < tol or abs(x - width) < tol:
                    places.append((bool(abs(x) < tol), float(y), i, j, k))
    lefts, rights = (sorted((p for p in places if p[0] is side), key=lambda p: p[1]) for side in (True, False))
    if not lefts or len(lefts) != len(rights):
        raise InputError(f"{len(lefts)} points on the left edge and {len(rights)} on the right do not pair up; find the best cut first")
    for a, b in zip(lefts, rights, strict=True):
        mean = (a[1] + b[1]) / 2
        slopes = [_inner_slope(contours[p[2]][p[3]], p[4], width) for p in (a, b)]
        for (_, y, i, j, k), slope in zip((a, b), slopes, strict=True):
            c = contours[i][j]
            at, into, out = c.at.copy(), c.into.copy(), c.out.copy()
            for array in (at, into, out):
                array[k, 1] += mean - y
            if None not in slopes and slope is not None:
                wanted = float(np.arctan((np.tan(slopes[0]) + np.tan(slopes[1])) / 2))
                for array in (into, out):
                    arm = array[k] - at[k]
                    if abs(arm[0]) > 1e-6:
                        array[k] = at[k] + (arm[0], arm[0] * np.tan(wanted))
            contours[i][j] = replace(c, at=at, into=into, out=out)
    shapes = []
    for shape, own_contours in zip(own.shapes, contours, strict=True):
        if own_contours:
            commands, points = outline_from_contours(own_contours)
            shape = replace(shape, commands=commands, points=points)
        shapes.append(shape)
    return replace(own, shapes=tuple(shapes))


def _inner_slope(contour, node: int, width: float) -> float | None:
    """Return the slope (radians) in which the outline leaves an edge point into the piece; None for an upright or straight one."""
    x = contour.at[node, 0]
    for arm in (contour.into[node] - contour.at[node], contour.out[node] - contour.at[node]):
        inward = arm[0] > 1e-6 if abs(x) < width / 2 else arm[0] < -1e-6
        if inward:
            return float(np.arctan(arm[1] / arm[0]))
    return None


def columns_of(layers: list[Layer], height: float, xs: np.ndarray, rows: int) -> np.ndarray:
    """Return what upright lines at xs (n,), rising, show, as premultiplied RGBA (n, rows, 4) from 0 to ``height`` mm down."""
    out = np.zeros((len(xs), rows, 4))
    y = (np.arange(rows) + 0.5) / rows * height
    for layer in layers:
        own = _picture_block(layer, xs, y) if layer.rgba is not None else _painted_block(layer, xs, y)
        out = own + out * (1 - own[..., 3:])
    return out


def _painted_block(layer: Layer, xs: np.ndarray, y: np.ndarray) -> np.ndarray:
    """Fill by winding: every side of the flattened outline adds its way to all rows below where it crosses a line."""
    points = bezier_at(layer.cubics, np.linspace(0, 1, 17)) if len(layer.cubics) else np.zeros((0, 17, 2))
    (x0, y0), (x1, y1) = (np.moveaxis(p.reshape(-1, 2), -1, 0) for p in (points[:, :-1], points[:, 1:]))
    low, high = np.minimum(x0, x1), np.maximum(x0, x1)
    first, last = np.searchsorted(xs, low, side="left"), np.searchsorted(xs, high, side="left")
    count = np.maximum(last - first, 0)
    side = np.repeat(np.arange(len(count)), count)
    column = np.arange(len(side)) - np.repeat(np.cumsum(count) - count, count) + first[side]
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


def _picture_block(layer: Layer, xs: np.ndarray, y: np.ndarray) -> np.ndarray:
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


@dataclass(frozen=True)
class FoundCut:
    """Two cuts in mm and the seam they leave."""

    left: float
    right: float
    seam: Seam


def best_cut(motif: Motif, *, least_share: float = 0.35, length: float | None = None) -> FoundCut:
    """Find the two cuts whose seam shows least, keeping at least ``least_share`` of the drawing's length, or about ``length`` mm.

    Upright sections at many places are compared all with all, each with its neighbours so that
    slopes count too; the best few pairs are then measured exactly and refined.
    """
    left, _, right, _ = box_of(motif.shapes)
    left, right = max(left, 0.0), min(right, motif.width)
    count = int(np.clip((right - left) / 0.1, 60, 320))
    xs = np.linspace(left + JUST_INSIDE_MM, right - JUST_INSIDE_MM, count)
    layers = layers_of(motif)
    shortest = 2 if length is not None else max(2, int(least_share * count))
    cost = pair_costs(columns_of(layers, motif.height, xs, 128).reshape(count, -1), least=shortest)
    best: FoundCut | None = None
    step = xs[1] - xs[0]
    least = least_share * (right - left)
    if length is not None:
        apart = np.subtract.outer(xs, xs).T  # how far j lies after i
        cost[np.abs(apart - length) > 2 * step] = np.inf
        least = length - 2 * step
    for i, j in _least_pairs(cost, 4):
        found = _refined(layers, float(xs[i]), float(xs[j]), step, (left, right), least)
        if best is None or _badness(found) < _badness(best) - 1e-9:
            best = found
    if best is None:
        raise InputError("the drawing is too short to be cut; take a longer one")
    return best


def _least_pairs(cost: np.ndarray, count: int) -> list[tuple[int, int]]:
    """Return the cheapest pairs, none of them next to another."""
    out: list[tuple[int, int]] = []
    for flat in np.argsort(cost, axis=None)[: 40 * count]:
        i, j = (int(v) for v in np.unravel_index(flat, cost.shape))
        if np.isfinite(cost[i, j]) and all(max(abs(i - a), abs(j - b)) > 3 for a, b in out):
            out.append((i, j))
        if len(out) == count:
            break
    return out


def _badness(found: FoundCut) -> float:
    """Weigh a seam: a mm of mismatch as much as 30° or 15 ΔE; of equal seams the longer repeat."""
    s = found.seam
    return s.mismatch_mm + s.slope_deg / 30 + s.delta_e / 15 - 1e-4 * (found.right - found.left)


def _refined(layers: list[Layer], a: float, b: float, step: float, ends: tuple[float, float], least: float) -> FoundCut:
    def tried(x1: float, x2: float) -> FoundCut:
        x1, x2 = max(x1, ends[0]), min(x2, ends[1])
        if x2 - x1 < least:
            return FoundCut(x1, x2, Seam(np.inf, 0.0, 0.0))
        inside = JUST_INSIDE_MM
        return FoundCut(x1, x2, seam_between(section_at(layers, x1 + inside), section_at(layers, x2 - inside)))

    best = tried(a, b)
    while step > 0.004:
        moves = [tried(best.left + i * step, best.right + j * step) for i in (-1, 0, 1) for j in (-1, 0, 1) if i or j]
        better = min(moves, key=_badness)
        if _badness(better) < _badness(best) - 1e-12:
            best = better
        else:
            step /= 2
    return best


def pair_costs(columns: np.ndarray, *, least: int, reach: int = 2) -> np.ndarray:
    """Return how badly column i meets column j (n, n), for j at least ``least`` after i; infinite elsewhere.

    Squared distances of all pairs at once (|a|² + |b|² − 2ab), summed with those of the neighbours
    up to ``reach`` columns to both sides, so that what runs on must match as well.
    """
    columns = np.asarray(columns, np.float32)
    n = len(columns)
    square = (columns * columns).sum(axis=1)
    apart = np.maximum(square[:, None] + square[None] - 2 * (columns @ columns.T), 0)
    total, weight = np.zeros_like(apart), np.zeros_like(apart)
    for d in range(-reach, reach + 1):
        a, b = slice(max(0, d), n + min(0, d)), slice(max(0, -d), n + min(0, -d))
        total[b, b] += apart[a, a]
        weight[b, b] += 1
    total /= weight
    i, j = np.indices(total.shape, sparse=True)
    total[j - i < least] = np.inf
    return total + np.float32(1e-4) * (1 - (j - i) / n) * columns.shape[1]
