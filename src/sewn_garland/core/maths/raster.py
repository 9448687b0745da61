"""RGBA arrays to PNG and back."""

from __future__ import annotations

import io

import numpy as np
from PIL import Image

MOST_SAMPLED = 40_000  # pixels that colours are told by


def png_from_rgba(rgba: np.ndarray) -> bytes:
    """Write an array (h, w, 4) of bytes as PNG."""
    out = io.BytesIO()
    Image.fromarray(np.ascontiguousarray(rgba), "RGBA").save(out, "PNG", compress_level=4)
    return out.getvalue()


def main_colours(rgba: np.ndarray, count: int) -> list[str]:
    """Return at most so many colours ``#rrggbb`` that a picture (h, w, 4) of bytes is made of, the most seen first; what is mostly
    clear has none.
    """
    seen = rgba[rgba[..., 3] >= 128][:, :3]
    if not len(seen):
        return []
    fewer = Image.fromarray(np.ascontiguousarray(seen[None, :: max(1, len(seen) // MOST_SAMPLED)]), "RGB").quantize(count)
    by_place = np.array(fewer.getpalette() or [], np.uint8).reshape(-1, 3)
    seen_often = np.argsort(-np.bincount(np.asarray(fewer).ravel(), minlength=len(by_place)), kind="stable")
    return [f"#{by_place[place].tobytes().hex()}" for place in seen_often.tolist()]


def rgba_from_png(data: bytes) -> np.ndarray:
    """Read one of our own PNGs as (h, w, 4) bytes."""
    with Image.open(io.BytesIO(data), formats=["PNG"]) as image:
        return np.array(image.convert("RGBA"))
