"""RGBA arrays to PNG and back."""

from __future__ import annotations

import io

import numpy as np
from PIL import Image


def png_from_rgba(rgba: np.ndarray) -> bytes:
    """Write an array (h, w, 4) of bytes as PNG."""
    out = io.BytesIO()
    Image.fromarray(np.ascontiguousarray(rgba), "RGBA").save(out, "PNG", compress_level=4)
    return out.getvalue()


def rgba_from_png(data: bytes) -> np.ndarray:
    """Read one of our own PNGs as (h, w, 4) bytes."""
    with Image.open(io.BytesIO(data), formats=["PNG"]) as image:
        return np.array(image.convert("RGBA"))
