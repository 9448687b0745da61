"""Repeats in pictures: find the repeating length, the best cuts, and darn the seam."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from PIL import Image

from ..artwork.sections import Seam
from ..errors import InputError
from ..maths.colour import delta_e_2000, lab_from_srgb, over_white
from .best_cuts import pair_costs
from .clearing import lab_of

ROWS = 64  # to which columns are averaged for comparing; chosen: seams are judged over the whole height
NEAR_HIGHEST = 0.9


@dataclass(frozen=True)
class Repeat:
    """A repeating length along a picture's width in pixels, how well it repeats (0 to 1), and the second-best."""

    length_px: float
    strength: float
    second_px: float | None
    second_strength: float | None


def _columns(rgba: np.ndarray, rows: int) -> np.ndarray:
    """Return the picture's columns as vectors (w, rows · 4): Lab over white and coverage, averaged to ``rows`` heights."""
    h, w = rgba.shape[:2]
    if h > rows:
        image = Image.fromarray(rgba, "RGBA").convert("RGBa").resize((w, rows), Image.Resampling.BOX)
        flat = np.asarray(image.convert("RGBA"))
    else:
        flat = rgba
    alpha = flat[..., 3] / np.float32(255)
    rgb = np.round(flat[..., :3] * alpha[..., None] + 255 * (1 - alpha[..., None])).astype(np.uint8)
    lab = lab_of(np.dstack([rgb, flat[..., 3]])) / 100
    return np.concatenate([lab, alpha[..., None]], axis=-1).transpose(1, 0, 2).reshape(w, -1).astype(np.float32)


def find_repeat(rgba: np.ndarray) -> Repeat:
    """Find the repeating length along the width: the first peak of the normalised autocorrelation that reaches 0.9 of the highest.

    It is refined below a pixel on its multiples. Raises InputError where nothing repeats.
    """
    columns = _columns(rgba, ROWS)
    columns = columns - columns.mean(axis=0)
    n = len(columns)
    if n < 16 or not np.abs(columns).max() > 1e-3:
        raise InputError("nothing repeats along this picture's width; take a longer region of the chain or border")
    size = 1 << int(2 * n - 1).bit_length()
    spectrum = np.fft.rfft(columns, size, axis=0)
    product = np.fft.irfft((np.abs(spectrum) ** 2).sum(axis=1), size)[:n]
    energy = np.concatenate([[0.0], np.cumsum((columns**2).sum(axis=1))])
    lag = np.arange(n)
    norm = np.sqrt(energy[n - lag] * (energy[n] - energy[lag]))
    longest = int(n * 0.6)
    curve = product[:longest] / np.maximum(norm[:longest], 1e-9)
    inner = np.arange(2, longest - 1)
    peaks = inner[(curve[inner] > curve[inner - 1]) & (curve[inner] >= curve[inner + 1]) & (curve[inner] > 0.2)]
    dips = np.flatnonzero(curve < 0.5 * (1 + curve.min()))
    peaks = peaks[peaks > (dips[0] if len(dips) else 0)]
    if not len(peaks):
        raise InputError("nothing repeats along this picture's width; take a longer region of the chain or border")
    first = int(peaks[curve[peaks] >= NEAR_HIGHEST * curve[peaks].max()][0])
    others = peaks[np.abs(peaks / first - np.round(peaks / first)) > 0.08]
    second = int(others[curve[others].argmax()]) if len(others) else None
    length = _refined(curve, first)
    if second is None:
        return Repeat(length, float(curve[first]), None, None)
    return Repeat(length, float(curve[first]), _vertex(curve, second), float(curve[second]))


def _refined(curve: np.ndarray, first: int) -> float:
    """Refine a length on its multiples: each peak's vertex gives the length more exactly the farther out it lies."""
    length, k = _vertex(curve, first), 2
    while k * length < len(curve) - 2:
        guess = round(k * length)
        reach = max(1, min(3, first // 4))
        window = np.arange(max(1, guess - reach), min(len(curve) - 1, guess + reach + 1))
        peak = int(window[curve[window].argmax()])
        if peak in (window[0], window[-1]) or curve[peak] < 0.8 * curve[first]:
            break
        length, k = _vertex(curve, peak) / k, k + 1
    return length


def _vertex(curve: np.ndarray, at: int) -> float:
    """Return the place of a peak from the parabola through it and its neighbours."""
    a, b, c = curve[at - 1 : at + 2]
    bend = a - 2 * b + c
    return float(at if bend == 0 else at + 0.5 * (a - c) / bend)


def best_picture_cut(rgba: np.ndarray, *, least_px: int | None = None) -> tuple[int, int]:
    """Return the columns [left, right) whose edges meet best when the stretch repeats, at least ``least_px`` apart (default: 35 %)."""
    columns = _columns(rgba, ROWS)
    n = len(columns)
    if n < 8:
        raise InputError("the picture is too narrow to be cut; take a longer one")
    least = least_px or max(4, int(0.35 * n))
    # a coarse search over all pairs of every step-th column, then the columns around the best pair
    step = max(1, n // 1000)
    cost = pair_costs(columns[::step], least=max(2, -(-least // step)))
    i, j = (int(v) * step for v in np.unravel_index(int(cost.argmin()), cost.shape))
    if step == 1:
        return i, j
    lefts, rights = (np.arange(max(2, k - 2 * step), min(n - 3, k + 2 * step) + 1) for k in (i, j))
    near = np.array([[sum(((columns[a + d] - columns[b + d]) ** 2).sum() for d in range(-2, 3)) for b in rights] for a in lefts])
    near[rights[None] - lefts[:, None] < least] = np.inf
    a, b = np.unravel_index(int(near.argmin()), near.shape)
    return int(lefts[a]), int(rights[b])


def picture_seam(rgba: np.ndarray, *, mm_per_px: float) -> Seam:
    """Measure how the picture's right column meets its left one: mm covered on one side only, 0°, mean ΔE2000 where both cover."""
    left, right = (rgba[:, k] / 255.0 for k in (0, -1))
    seen_left, seen_right = left[:, 3] >= 0.5, right[:, 3] >= 0.5
    both = seen_left & seen_right
    apart = delta_e_2000(lab_from_srgb(over_white(left[:, :3], left[:, 3])), lab_from_srgb(over_white(right[:, :3], right[:, 3])))
    return Seam(float((seen_left ^ seen_right).sum() * mm_per_px), 0.0, float(apart[both].mean()) if both.any() else 0.0)


def darned_picture(rgba: np.ndarray, left: int, right: int, width: int) -> np.ndarray:
    """Return columns [left, right) with the seam closed over ``width`` pixels.

    Where the picture goes on beyond a cut, that is blended in, so that each edge runs on into the
    other; where it does not, half the difference of the edges is spread over the width on both sides.
    """
    n = right - left
    width = int(min(width, n // 2))
    if not 0 <= left < right <= rgba.shape[1]:
        raise InputError("the cuts are crossed over or lie outside the picture")
    if width < 1:
        return rgba[:, left:right].copy()
    alpha = rgba[..., 3:] / np.float32(255)
    source = np.concatenate([rgba[..., :3] * alpha, alpha * 255], axis=-1)
    out = source[:, left:right].copy()
    share = ((np.arange(width) + 0.5) / width)[None, :, None].astype(np.float32)
    if left >= width:  # what leads up to the left cut ends the stretch
        out[:, n - width :] = out[:, n - width :] * (1 - share) + source[:, left - width : left] * share
    elif rgba.shape[1] - right >= width:  # what follows the right cut begins it
        out[:, :width] = source[:, right : right + width] * (1 - share) + out[:, :width] * share
    else:
        half = (out[:, -1] - out[:, 0])[:, None] / 2
        out[:, :width] += half * (1 - share)
        out[:, n - width :] -= half * share
    out = np.clip(out, 0, 255)
    cover = out[..., 3:] / 255
    rgb = np.where(cover > 0, out[..., :3] / np.maximum(cover, 1e-6), 0)
    return np.round(np.clip(np.concatenate([rgb, out[..., 3:]], axis=-1), 0, 255)).astype(np.uint8)
