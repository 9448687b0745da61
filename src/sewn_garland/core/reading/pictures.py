"""Read pictures from strangers: PNG, JPEG, WebP and TIFF, hardened, as RGBA."""

from __future__ import annotations

import io
import warnings
from dataclasses import dataclass

import numpy as np
from PIL import Image, ImageOps, UnidentifiedImageError

from ..errors import InputError, LimitError

FORMATS = ("PNG", "JPEG", "WEBP", "TIFF")
MOST_BYTES = 100 * 1024 * 1024
MOST_SIDE = 10_000
MOST_UNPACKED = 2 * MOST_SIDE * MOST_SIDE  # beyond it a picture is refused before it is unpacked
STRIP_ROWS = 256
Box = tuple[int, int, int, int]


@dataclass(frozen=True, eq=False)
class ReadPicture:
    """``rgba`` (h, w, 4) bytes; ``scale`` is its pixels to one of the file's, ``dpi`` of the file or None.

    ``size`` is the file's own width and height; ``told`` says in sentences what was changed on the way in.
    """

    rgba: np.ndarray
    size: tuple[int, int]
    scale: float
    dpi: float | None
    told: tuple[str, ...]


def read_picture(data: bytes, *, where: str = "the picture", region: Box | None = None, most_pixels: int | None = None) -> ReadPicture:
    """Read a picture, or a region (x, y, width, height in the file's pixels) of it.

    More than 10 000 a side are scaled down, as is what exceeds ``most_pixels``. Colour profiles
    other than sRGB are not applied; 16 bits become 8; of an animation the first frame is taken.
    Raises InputError or LimitError with a sentence for what cannot be read.
    """
    if len(data) > MOST_BYTES:
        raise LimitError(f"{len(data) / 1048576:.0f} MB is more than the {MOST_BYTES // 1048576} MB a picture may have", where=where)
    told: list[str] = []
    try:
        with warnings.catch_warnings():
            warnings.simplefilter("ignore")  # limits are checked here, before anything is unpacked
            Image.MAX_IMAGE_PIXELS = None
            with Image.open(io.BytesIO(data), formats=FORMATS) as image:
                _refuse_size(image.size, where)
                if getattr(image, "n_frames", 1) > 1:
                    told.append("It holds several pictures; the first was taken.")
                dpi = _dpi_of(image)
                return _taken(image, region, most_pixels, dpi, told, where)
    except UnidentifiedImageError:
        raise InputError("it is not a PNG, JPEG, WebP or TIFF picture that can be read", where=where) from None
    except (OSError, ValueError, SyntaxError, EOFError, TypeError, IndexError, KeyError, OverflowError) as error:
        if isinstance(error, InputError):
            raise
        raise InputError("it is damaged or cut short; save it again and bring it in anew", where=where) from None
    except MemoryError:
        raise LimitError("unpacked, it is larger than this machine's memory; scale it down first", where=where) from None


def _refuse_size(size: tuple[int, int], where: str) -> None:
    if size[0] * size[1] > MOST_UNPACKED:
        raise LimitError(f"unpacked it is {size[0]} × {size[1]} pixels, more than can be taken in; scale it down first", where=where)
    if min(size) < 1:
        raise InputError("it has no pixels", where=where)


def _dpi_of(image: Image.Image) -> float | None:
    value = image.info.get("dpi")
    if image.format == "JPEG" and image.info.get("jfif_unit") not in (1, 2) and 0x011A not in image.getexif():
        return None  # the library then makes up 72
    try:
        dpi = float(value[0]) if value else None
    except (TypeError, ValueError, ZeroDivisionError):
        return None
    return round(dpi, 2) if dpi and 10 <= dpi <= 10_000 else None


def _taken(image: Image.Image, region: Box | None, most_pixels: int | None, dpi: float | None, told: list[str], where: str) -> ReadPicture:
    size = image.size
    if image.mode.startswith("I;16") or image.mode in ("I", "F"):
        told.append("Its 16 bits a colour became 8.")
        image = _eight_bit(image)
    if image.mode == "CMYK":
        told.append("Its CMYK inks were turned into screen colours, without a profile.")
    turned = image.getexif().get(0x0112, 1) not in (0, 1)
    if turned:
        image = ImageOps.exif_transpose(image)
        size = image.size
    if region is not None:
        x, y, w, h = region
        if w < 1 or h < 1 or x < 0 or y < 0 or x + w > size[0] or y + h > size[1]:
            raise InputError(f"the region {x},{y},{w},{h} does not lie within its {size[0]} × {size[1]} pixels", where=where)
        image = image.crop((x, y, x + w, y + h))
    scale = min(1.0, MOST_SIDE / max(image.size))
    if most_pixels is not None:
        scale = min(scale, (most_pixels / (image.size[0] * image.size[1])) ** 0.5)
    if scale < 1:
        across, down = (max(1, round(side * scale)) for side in image.size)
        target = (across, down)
        told.append(f"Its {image.size[0]} × {image.size[1]} pixels were scaled down to {target[0]} × {target[1]}.")
        image.draft("RGB", target)
        has_alpha = image.mode in ("RGBA", "LA", "PA") or "transparency" in image.info
        mode = "RGBA" if has_alpha else "RGB"
        image = (image if image.mode == mode else image.convert(mode)).resize(target, Image.Resampling.BOX, reducing_gap=2.0)
    return ReadPicture(_rgba(image), size, scale, dpi, tuple(told))


def _rgba(image: Image.Image) -> np.ndarray:
    """Return the pixels as RGBA bytes, in strips, so that a large picture is never held twice over."""
    width, height = image.size
    out = np.empty((height, width, 4), np.uint8)
    for top in range(0, height, STRIP_ROWS):
        foot = min(height, top + STRIP_ROWS)
        out[top:foot] = np.asarray(image.crop((0, top, width, foot)).convert("RGBA"))
    return out


def _eight_bit(image: Image.Image) -> Image.Image:
    values = np.asarray(image)
    if values.dtype == np.float32:
        top = float(np.nanmax(values, initial=0.0))
        values = np.nan_to_num(values / (top or 1.0)) * 255 if top > 1 else np.nan_to_num(values) * 255
        return Image.fromarray(np.clip(values, 0, 255).astype(np.uint8))
    return Image.fromarray((np.clip(values, 0, 65535).astype(np.uint32) >> 8).astype(np.uint8))
