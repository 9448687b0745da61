"""Prepare a picture: clear what is not wanted, lift a thing out of its background, fade, read grey as coverage.

Pictures are RGBA bytes (h, w, 4), not premultiplied.
"""

from __future__ import annotations

from collections.abc import Sequence
from functools import cache
from typing import Literal

import numpy as np
import scipy

from ..errors import InputError
from ..maths.colour import lab_from_srgb, linear_from_srgb, rgb_from_hex

SOFT_RIM = 0.5  # of the tolerance, over which clear turns into full coverage
WORK_PIXELS = 160_000  # marks are grown on a picture of so many pixels; the rim is refined at full size
MOST_MARKS = 4_000
Rgba = np.ndarray


def ink_region(rgba: Rgba, *, least_alpha: int = 8) -> tuple[int, int, int, int]:
    """Return (x, y, width, height) of what is not clear; raises InputError when nothing is."""
    seen = rgba[..., 3] >= least_alpha
    rows, columns = np.flatnonzero(seen.any(axis=1)), np.flatnonzero(seen.any(axis=0))
    if not len(rows):
        raise InputError("nothing but clear is left of the picture; take a smaller tolerance or another region")
    return int(columns[0]), int(rows[0]), int(columns[-1] - columns[0] + 1), int(rows[-1] - rows[0] + 1)


def _mask(found) -> np.ndarray:
    return np.asarray(found, bool)  # the library leaves open what it returns


def lab_of(rgba: Rgba) -> np.ndarray:
    """Return CIE Lab (h, w, 3) in single precision, from a table of every fourth level (within 0.9 in L)."""
    r, g, b = (rgba[..., k].astype(np.int32) >> 2 for k in range(3))
    return _lab_table()[(r << 12) + (g << 6) + b]


@cache
def _lab_table() -> np.ndarray:
    levels = (np.arange(64) * 4 + 1.5) / 255
    rgb = np.stack(np.meshgrid(levels, levels, levels, indexing="ij"), axis=-1).reshape(-1, 3)
    return lab_from_srgb(rgb).astype(np.float32)


@cache
def _linear_table() -> np.ndarray:
    return linear_from_srgb(np.arange(256) / 255).astype(np.float32)


def lightness_of(rgba: Rgba) -> np.ndarray:
    """Return CIE lightness L* (h, w) as shares from 0 to 1, exact to single precision."""
    table = _linear_table()
    luminance = sum(np.float32(share) * table[rgba[..., k]] for k, share in enumerate((0.2126, 0.7152, 0.0722)))
    dark = luminance <= np.float32(216 / 24389)
    return np.where(dark, luminance * np.float32(24389 / 2700), np.float32(1.16) * np.cbrt(luminance) - np.float32(0.16))


def background_colour(rgba: Rgba) -> tuple[np.ndarray, np.ndarray]:
    """Return the border's commonest colour as Lab (3,) and as sRGB shares (3,): the median of the border pixels near their middle."""
    border = np.concatenate([rgba[:2].reshape(-1, 4), rgba[-2:].reshape(-1, 4), rgba[:, :2].reshape(-1, 4), rgba[:, -2:].reshape(-1, 4)])
    lab = lab_of(border[None])[0]
    near = np.sqrt(((lab - np.median(lab, axis=0)) ** 2).sum(axis=1)) < 20
    own = near if near.any() else np.ones(len(lab), bool)
    return np.median(lab[own], axis=0), np.median(border[own, :3], axis=0) / 255


def cleared(rgba: Rgba, what: str, *, tolerance: float) -> Rgba:
    """Turn ``background``, ``background_and_holes``, ``white`` or a colour (#rrggbb) into clear, with a soft rim.

    ``tolerance`` is a distance in Lab; up to it a pixel is clear, beyond one and a half of it it
    stays, between it fades. The colour that shone through is taken out of the rim. The
    ``background`` is cleared only where it hangs together with the picture's border, with its holes wherever it shows.
    """
    if not 0 <= tolerance <= 150:
        raise InputError("the tolerance must be from 0 to 150")
    if what in ("background", "background_and_holes"):
        target, ground = background_colour(rgba)
    else:
        ground = np.ones(3) if what == "white" else rgb_from_hex(what)
        target = lab_from_srgb(ground)
    apart = np.sqrt(((lab_of(rgba) - target.astype(np.float32)) ** 2).sum(axis=-1))
    soft = max(tolerance * SOFT_RIM, 1.0)
    cover = np.clip((apart - tolerance) / soft, 0, 1)
    if what == "background":
        cover = np.where(_from_border(cover < 1), cover, 1.0)
    return _unmixed(rgba, cover, ground * 255)


def _unmixed(rgba: Rgba, cover: np.ndarray, ground: np.ndarray) -> Rgba:
    """Give the pixels along the rim the colour of the thing beside them, and as much coverage as explains what was seen over the ground.

    A pixel seen as c over ground g, with the thing's colour f two pixels further in, covers
    (c − g)·(f − g) / |f − g|².
    """
    out = rgba.copy()
    alpha = rgba[..., 3] * cover
    solid = _mask(scipy.ndimage.binary_erosion(cover >= 1, iterations=2, border_value=1))
    near = _mask(scipy.ndimage.binary_dilation(cover > 0, iterations=1)), _mask(scipy.ndimage.binary_dilation(cover < 1, iterations=2))
    rim = near[0] & near[1] & ~solid
    if rim.any() and solid.any():
        nearest = _nearest(~solid)
        thing = rgba[nearest[0][rim], nearest[1][rim], :3].astype(float)
        seen, across = rgba[rim][:, :3] - ground, thing - ground
        share = np.clip((seen * across).sum(axis=1) / np.maximum((across**2).sum(axis=1), 1.0), 0, 1)
        alpha[rim] = rgba[rim][:, 3] * share
        out[rim, :3] = np.round(thing).astype(np.uint8)
    out[..., 3] = np.round(alpha).astype(np.uint8)
    return out


def _from_border(open_: np.ndarray) -> np.ndarray:
    """Return what of a mask hangs together with the picture's border."""
    labels, _ = _labelled(open_)
    edge = np.unique(np.concatenate([labels[0], labels[-1], labels[:, 0], labels[:, -1]]))
    keep = np.zeros(labels.max() + 1, bool)
    keep[edge[edge > 0]] = True
    return keep[labels]


def _with_cover(rgba: Rgba, cover: np.ndarray) -> Rgba:
    """Return the picture times a coverage (h, w) from 0 to 1; half-covered pixels take the colour of covered ones beside them."""
    out = rgba.copy()
    out[..., 3] = np.round(rgba[..., 3] * cover).astype(np.uint8)
    rim = (cover > 0) & (cover < 1)
    if rim.any() and (cover >= 1).any():
        box = scipy.ndimage.find_objects(rim.astype(np.uint8))[0]
        inside = tuple(slice(max(0, s.start - 8), s.stop + 8) for s in box)
        full = cover[inside] >= 1
        if full.any():
            nearest = _nearest(~full)
            part, own = out[inside], rim[inside]
            part[own, :3] = part[nearest[0][own], nearest[1][own], :3]
    return out


def lifted_out(rgba: Rgba, belongs: Sequence[Sequence[float]], not_: Sequence[Sequence[float]], *, reach: float) -> Rgba:
    """Lift a thing out by marks: points (x, y) in pixels on what belongs and on what does not, each ``reach`` pixels wide.

    Colours under the marks are the models; every pixel takes the side whose colours and marks are
    nearer, by a walk over a reduced picture that does not like to cross edges (geodesic distance),
    then the rim is refined at full size. The border counts as what does not belong when no such
    mark is given. Raises InputError without a mark on the thing.
    """
    if not len(belongs):
        raise InputError("mark what belongs to the thing first")
    if len(belongs) + len(not_) > MOST_MARKS:
        raise InputError(f"{len(belongs) + len(not_)} marks are more than the {MOST_MARKS} taken at once")
    h, w = rgba.shape[:2]
    step = max(1, int(np.ceil(np.sqrt(h * w / WORK_PIXELS))))
    small = rgba[step // 2 :: step, step // 2 :: step]
    sides = [_marked(points, small.shape[:2], step, reach) for points in (belongs, not_)]
    if not len(not_):
        sides[1][[0, -1]] = sides[1][:, [0, -1]] = True
    share = 1 / (1 + np.exp(-np.clip(_odds(small, sides), -30, 30)))
    share[sides[0]], share[sides[1]] = 1.0, 0.0
    scale = (h / share.shape[0], w / share.shape[1])
    large = np.asarray(scipy.ndimage.zoom(share, scale, order=1, grid_mode=True, mode="nearest"))[:h, :w]
    soft = np.asarray(scipy.ndimage.gaussian_filter(large, step * 0.6)) if step > 1 else large
    cover = np.clip((soft - 0.5) / 0.12 + 0.5, 0, 1)
    return _with_cover(rgba, _without_strays(cover, belongs))


def _odds(small: Rgba, sides: list[np.ndarray]) -> np.ndarray:
    """Return the logarithm of the odds (h, w) that a pixel is of the first of two marked sides, masks (h, w) each."""
    from skimage.graph import MCP_Geometric  # loaded where it is wanted

    lab = scipy.ndimage.gaussian_filter(lab_of(small), (0.7, 0.7, 0))
    likeness = [_distance_to_colours(lab, mask) for mask in sides]
    edges = np.sqrt(sum(scipy.ndimage.sobel(lab[..., c], axis=a) ** 2 for c in range(3) for a in (0, 1)))
    distances = []
    for mask, own in zip(sides, likeness, strict=True):
        cost = 0.02 + own / 20 + edges / 60
        starts = np.argwhere(mask)
        walked, _ = MCP_Geometric(cost).find_costs(starts[:: max(1, len(starts) // 3000)].tolist())
        distances.append(walked)
    # what the colours say counts beside what the way says, as odds
    odds = np.log(distances[1] + 1e-6) - np.log(distances[0] + 1e-6)
    odds += 1.5 * scipy.ndimage.gaussian_filter(np.log(likeness[1] + 2.0) - np.log(likeness[0] + 2.0), 0.7)
    return odds


def _without_strays(cover: np.ndarray, belongs: Sequence[Sequence[float]]) -> np.ndarray:
    """Return a cover (h, w) clear of what hangs together with no point (x, y) that belongs."""
    h, w = cover.shape
    labels, count = _labelled(cover > 0.5)
    if count:
        marked = {int(labels[min(h - 1, int(y)), min(w - 1, int(x))]) for x, y in belongs} - {0}
        stray = (labels > 0) & ~np.isin(labels, list(marked)) if marked else np.zeros_like(labels, bool)
        return np.where(stray, 0, cover)
    return cover


def _marked(points: Sequence[Sequence[float]], shape: tuple[int, int], step: int, reach: float) -> np.ndarray:
    mask = np.zeros(shape, bool)
    y, x = np.ogrid[: shape[0], : shape[1]]
    for px, py in points:
        mask |= (x - px / step) ** 2 + (y - py / step) ** 2 <= max(1.0, reach / step / 2) ** 2
    return mask


def _distance_to_colours(lab: np.ndarray, mask: np.ndarray) -> np.ndarray:
    """Return each pixel's distance to the nearest of up to six colours found under a mask (k-means, started evenly)."""
    own = lab[mask]
    order = own[np.argsort(own[:, 0])]
    centres = order[np.linspace(0, len(order) - 1, min(6, len(order))).astype(int)].copy()
    for _ in range(6):
        near = ((own[:, None] - centres[None]) ** 2).sum(axis=-1).argmin(axis=1)
        for k in range(len(centres)):
            if (near == k).any():
                centres[k] = own[near == k].mean(axis=0)
    best = np.full(lab.shape[:2], np.inf, np.float32)
    for centre in centres:
        best = np.minimum(best, ((lab - centre) ** 2).sum(axis=-1))
    return np.sqrt(best)


def faded(rgba: Rgba, *, rim_pct: float, corner_pct: float) -> Rgba:
    """Fade the picture toward its rim over ``rim_pct`` of its shorter side, and round its corners by ``corner_pct`` of it."""
    h, w = rgba.shape[:2]
    side = min(h, w)
    radius = min(corner_pct / 100, 0.5) * side
    x = np.abs(np.arange(w) + 0.5 - w / 2)[None] - (w / 2 - radius)
    y = np.abs(np.arange(h) + 0.5 - h / 2)[:, None] - (h / 2 - radius)
    outside = np.hypot(np.maximum(x, 0), np.maximum(y, 0)) + np.minimum(np.maximum(x, y), 0) - radius
    width = max(rim_pct / 100 * side, 1.0)
    cover = np.clip(-outside / width, 0, 1)
    cover = cover * cover * (3 - 2 * cover)
    out = rgba.copy()
    out[..., 3] = np.round(rgba[..., 3] * cover).astype(np.uint8)
    return out


def coverage_from_grey(rgba: Rgba, way: Literal["light", "dark"], *, colour: str = "#000000") -> Rgba:
    """Read grey as coverage: what is ``light`` covers and dark is clear, or the reverse; clear stays clear.

    The grey is relative luminance through the sRGB curve (CIE L*), so a middle grey covers half.
    """
    lightness = lightness_of(rgba)
    cover = np.clip(lightness if way == "light" else 1 - lightness, 0, 1)
    out = np.empty_like(rgba)
    out[..., :3] = np.round(rgb_from_hex(colour) * 255).astype(np.uint8)
    out[..., 3] = np.round(rgba[..., 3] * cover).astype(np.uint8)
    return out


def as_stencil(rgba: Rgba, *, colour: str = "#000000") -> Rgba:
    """Keep only what the picture covers, in one colour."""
    out = rgba.copy()
    out[..., :3] = np.round(rgb_from_hex(colour) * 255).astype(np.uint8)
    return out


def _nearest(outside: np.ndarray) -> np.ndarray:
    """Return the row and the column (2, h, w) of the pixel nearest to each that is not ``outside`` (h, w)."""
    return np.asarray(scipy.ndimage.distance_transform_edt(outside, return_distances=False, return_indices=True))


def _labelled(mask: np.ndarray) -> tuple[np.ndarray, int]:
    """Return the number of the part of a mask (h, w) that each pixel belongs to, 0 outside, and how many parts there are."""
    labels = np.zeros(mask.shape, np.int32)
    return labels, int(scipy.ndimage.label(mask, output=labels))  # pyright: ignore[reportArgumentType]  # a number where an output is given


def backed_with_white(rgba: Rgba) -> Rgba:
    """Put white behind everything that hangs together with the thing, holes too, so that no ground shows through it."""
    seen = _mask(scipy.ndimage.binary_fill_holes(rgba[..., 3] >= 128))
    alpha = np.maximum(rgba[..., 3:] / 255.0, 0)
    cover = np.where(seen[..., None], 1.0, alpha)
    white = rgba[..., :3] * alpha + 255 * (1 - alpha)
    rgb = np.where(seen[..., None], white, rgba[..., :3])
    return np.round(np.concatenate([rgb, cover * 255], axis=-1)).astype(np.uint8)
