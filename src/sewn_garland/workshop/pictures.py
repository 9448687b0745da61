"""Make a motif of a picture: read, prepare, cut or trace. The second file where stages meet."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, replace
from typing import Literal

import numpy as np

from ..core.artwork.box import ink_box
from ..core.artwork.sections import Seam, columns_of, layers_of, seam_of
from ..core.errors import InputError
from ..core.making import clearing, picture_seams
from ..core.making.best_cuts import best_cut
from ..core.making.framing import framed, resized
from ..core.making.tracing import traced
from ..core.maths.raster import png_from_rgba, rgba_from_png
from ..core.reading.pictures import ReadPicture, read_picture
from ..core.values.motif import Motif, Picture, Shape, mapped

MM_PER_PX = 25.4 / 96  # CSS: without a scale of its own a picture has 96 pixels to the inch
MOST_PIXELS = 4_000_000  # of a prepared picture; a motif is laid hundreds of times
COLUMN_MM = 0.05  # between the upright sections in which a drawing's repeat is sought
Report = Callable[[float], None]


@dataclass(frozen=True)
class Preparation:
    """What is done to a picture, in this order: region, clear, lift out, fade, coverage or stencil, back, trim, trace.

    ``region`` (x, y, width, height) and the marks are in the file's pixels; ``tolerance`` a
    distance in Lab; ``width_mm`` or ``dpi`` set the size, else the file's own dpi, else 96.
    """

    region: tuple[int, int, int, int] | None = None
    clear: str | None = None
    tolerance: float = 12.0
    belongs: tuple[tuple[float, float], ...] = ()
    belongs_not: tuple[tuple[float, float], ...] = ()
    mark_px: float = 12.0
    fade_rim_pct: float = 0.0
    fade_corner_pct: float = 0.0
    coverage: Literal["light", "dark"] | None = None
    stencil: bool = False
    back_white: bool = False
    trim: bool = False
    trace: Literal["threshold", "colours"] | None = None
    threshold: float | None = None
    colours: int = 4
    least_speck_px: float = 16.0
    sharpness: float = 0.5
    width_mm: float | None = None
    dpi: float | None = None

    @property
    def clears(self) -> bool:
        """Whether it changes what is seen of the picture."""
        fades = self.fade_rim_pct or self.fade_corner_pct
        return bool(self.clear or self.belongs or fades or self.coverage or self.stencil or self.back_white)


@dataclass(frozen=True, eq=False)
class Prepared:
    """A prepared picture: pixels, its frame (x, y, width, height) in the file's pixels, mm to one of its own pixels, what was told."""

    rgba: np.ndarray
    frame_px: tuple[float, float, float, float]
    mm_per_px: float
    scaled: bool
    told: tuple[str, ...]


@dataclass(frozen=True, eq=False)
class Made:
    """A motif made of a picture, with how far a traced outline strays (pixels; None when not traced), and its frame in the file's."""

    motif: Motif
    prepared: Prepared
    deviation_px: float | None
    frame_px: tuple[float, float, float, float]


def prepared_picture(data: bytes, how: Preparation, *, where: str = "the picture", most_pixels: int = MOST_PIXELS) -> Prepared:
    """Read and prepare a picture; raises InputError naming what cannot be done."""
    read = read_picture(data, where=where, region=how.region, most_pixels=most_pixels)
    rgba, told = read.rgba, list(read.told)
    if how.clear is not None:
        rgba = clearing.cleared(rgba, how.clear, tolerance=how.tolerance)
    if how.belongs:
        origin = np.array(how.region[:2] if how.region else (0, 0))
        marks = [((np.array(m, float).reshape(-1, 2) - origin) * read.scale).tolist() for m in (how.belongs, how.belongs_not)]
        rgba = clearing.lifted_out(rgba, *marks, reach=how.mark_px * read.scale)
    if how.fade_rim_pct or how.fade_corner_pct:
        rgba = clearing.faded(rgba, rim_pct=how.fade_rim_pct, corner_pct=how.fade_corner_pct)
    if how.coverage is not None:
        rgba = clearing.coverage_from_grey(rgba, how.coverage)
    elif how.stencil:
        rgba = clearing.as_stencil(rgba)
    if how.back_white:
        rgba = clearing.backed_with_white(rgba)
    x, y, w, h = 0, 0, rgba.shape[1], rgba.shape[0]
    if how.trim:
        x, y, w, h = _ink(rgba, how.tolerance)
        told += _told_margins(rgba.shape, (x, y, w, h), read.scale)
        rgba = rgba[y : y + h, x : x + w]
    elif not (rgba[..., 3] >= 8).any():
        raise InputError("nothing but clear is left of the picture; take a smaller tolerance or another region", where=where)
    left, top = how.region[:2] if how.region else (0, 0)
    frame = (left + x / read.scale, top + y / read.scale, w / read.scale, h / read.scale)
    scaled = any(v is not None for v in (how.width_mm, how.dpi, read.dpi))
    return Prepared(rgba, frame, _mm_per_px(read, how, w), scaled, tuple(told))


def _ink(rgba: np.ndarray, tolerance: float) -> tuple[int, int, int, int]:
    """Return the region that is not empty: not clear, or in a picture without clear not of the background's colour."""
    opaque = not (rgba[..., 3] < 8).any()
    return clearing.ink_region(clearing.cleared(rgba, "background", tolerance=tolerance) if opaque else rgba)


def _told_margins(shape: tuple[int, ...], region: tuple[int, int, int, int], scale: float) -> list[str]:
    x, y, w, h = region
    margins = {"left": x, "right": shape[1] - x - w, "above": y, "below": shape[0] - y - h}
    cut = [f"{round(px / scale)} px {side}" for side, px in margins.items() if px]
    return [f"Empty margin cut away: {', '.join(cut)}."] if cut else []


def _mm_per_px(read: ReadPicture, how: Preparation, width_px: int) -> float:
    if how.width_mm is not None:
        return how.width_mm / width_px
    dpi = how.dpi or read.dpi
    return (25.4 / dpi if dpi else MM_PER_PX) / read.scale


def motif_from_picture(
    data: bytes, how: Preparation, *, where: str = "the picture", most_pixels: int = MOST_PIXELS, report: Report = lambda share: None
) -> Made:
    """Make a motif of a picture: its outlines where it is traced, else the picture itself on its frame."""
    prepared = prepared_picture(data, how, where=where, most_pixels=most_pixels)
    return motif_of_prepared(prepared, how, report=report)


def motif_of_prepared(prepared: Prepared, how: Preparation, *, report: Report = lambda share: None) -> Made:
    """Make the motif of a picture that is prepared already."""
    h, w = prepared.rgba.shape[:2]
    mm = prepared.mm_per_px
    width, height = w * mm, h * mm
    if not min(width, height) >= 0.01 or max(width, height) > 10_000:
        raise InputError(f"it would be {width:.3g} × {height:.3g} mm; take another width or dpi")
    if how.trace is None:
        rgba = clearing.as_stencil(prepared.rgba) if how.stencil else prepared.rgba
        picture = Picture(png_from_rgba(rgba), w, h, stencil=how.stencil or how.coverage is not None)
        corners = np.array([[0, 0], [width, 0], [width, height], [0, height]])
        shapes: tuple[Shape, ...] = (Shape("MLLLZ", corners, None, picture=picture, name="Picture"),)
        return Made(Motif(shapes, width, height, height / 2, prepared.told), prepared, None, prepared.frame_px)
    found = traced(
        prepared.rgba, colours=how.colours if how.trace == "colours" else None, threshold=how.threshold,
        least_speck_px=how.least_speck_px, sharpness=how.sharpness, report=report,
    )  # fmt: skip
    matrix = np.array([[mm, 0.0, 0.0], [0.0, mm, 0.0]])
    motif = Motif(tuple(mapped(s, matrix) for s in found.shapes), width, height, height / 2, prepared.told)
    frame = prepared.frame_px
    if how.trim:  # a traced outline ends a little inside or outside its pixels
        left, top, right, bottom = ink_box(motif)
        x, y, w, h = frame
        share = w / width
        frame = (x + left * share, y + top * share, (right - left) * share, (bottom - top) * share)
        motif = replace(framed(motif, left, top, right, bottom), base_line=(bottom - top) / 2)
    if how.width_mm is not None:
        motif = resized(motif, how.width_mm)[0]
    return Made(motif, prepared, found.deviation_px, frame)


@dataclass(frozen=True)
class FoundRepeat:
    """The repeating length and the second-best, in mm, and how well each repeats (0 to 1)."""

    length_mm: float
    strength: float
    second_mm: float | None
    second_strength: float | None


def repeat_in(motif: Motif) -> FoundRepeat:
    """Find the length after which a motif's artwork repeats along its base line."""
    picture = only_picture(motif)
    if picture is not None:
        rgba, mm = rgba_from_png(picture.png), motif.width / picture.width_px
    else:
        count = int(np.clip(motif.width / COLUMN_MM, 64, 4000))
        mm = motif.width / count
        columns = columns_of(layers_of(motif), motif.height, (np.arange(count) + 0.5) * mm, 96)
        alpha = columns[..., 3:]
        flat = np.concatenate([columns[..., :3] / np.maximum(alpha, 1e-9), alpha], axis=-1)
        rgba = np.round(np.clip(flat, 0, 1) * 255).astype(np.uint8).transpose(1, 0, 2)
    found = picture_seams.find_repeat(rgba)
    second = None if found.second_px is None else found.second_px * mm
    return FoundRepeat(found.length_px * mm, found.strength, second, found.second_strength)


def cut_found_in(motif: Motif, *, length_mm: float | None = None) -> tuple[tuple[float, float], Seam]:
    """Find the cuts that show least, a given repeating length apart where one is given, and the seam they leave."""
    picture = only_picture(motif)
    if picture is not None:
        rgba, mm = rgba_from_png(picture.png), motif.width / picture.width_px
        least = None if length_mm is None else max(4, round(length_mm / mm) - 1)
        part = rgba if length_mm is None else rgba[:, : min(rgba.shape[1], round(2.2 * length_mm / mm))]
        left, right = picture_seams.best_picture_cut(part, least_px=least)
        if length_mm is not None:
            right = min(rgba.shape[1], left + round(length_mm / mm))
        return (left * mm, right * mm), picture_seams.picture_seam(rgba[:, left:right], mm_per_px=motif.height / picture.height_px)
    found = best_cut(motif) if length_mm is None else best_cut(motif, length=length_mm)
    cuts = (float(found.left), float(found.right))
    return cuts, seam_of(replace(motif, cuts=cuts))


def darned_motif(motif: Motif, width_mm: float) -> Motif:
    """Close the seam of a picture motif: blended over a width; the result is the repeat alone."""
    picture = only_picture(motif)
    if picture is None:
        raise InputError("only a picture is blended; outlines are darned by their points")
    mm = motif.width / picture.width_px
    left, right = (round(x / mm) for x in motif.span)
    rgba = picture_seams.darned_picture(rgba_from_png(picture.png), left, right, max(1, round(width_mm / mm)))
    width = rgba.shape[1] * mm
    corners = np.array([[0, 0], [width, 0], [width, motif.height], [0, motif.height]])
    shape = replace(motif.shapes[0], points=corners, picture=replace(picture, png=png_from_rgba(rgba), width_px=rgba.shape[1]))
    return replace(motif, shapes=(shape,), width=width, cuts=None, joints=None)


def only_picture(motif: Motif) -> Picture | None:
    """Return the picture of a motif that is nothing but one picture on its whole frame; None otherwise."""
    if len(motif.shapes) != 1 or motif.shapes[0].picture is None:
        return None
    corners = np.array([[0, 0], [motif.width, 0], [motif.width, motif.height], [0, motif.height]])
    return motif.shapes[0].picture if np.allclose(motif.shapes[0].points, corners, atol=1e-3) else None
