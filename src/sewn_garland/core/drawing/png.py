"""Render our own SVG to PNG in a child process, which a bad drawing may take down alone."""

from __future__ import annotations

import struct
import subprocess
import sys
import zlib
from pathlib import Path

from ..errors import LimitError, NumericError

MOST_PIXELS = 120_000_000
MOST_SIDE = 20_000
SECONDS = 120
HEAD_BYTES = 33  # of a PNG: its signature and the chunk IHDR
CHILD = Path(__file__).with_name("png_child.py")


def pixels_of(width_mm: float, height_mm: float, dpi: float) -> tuple[int, int]:
    """Return the picture's size, round(mm · dpi / 25.4) each way; LimitError when too large."""
    width, height = (max(1, round(side * dpi / 25.4)) for side in (width_mm, height_mm))
    if width * height > MOST_PIXELS or max(width, height) > MOST_SIDE:
        raise LimitError(f"{width} × {height} pixels are more than a picture may have "
                         f"({MOST_SIDE} a side, {MOST_PIXELS // 1_000_000} million in all); choose a lower dpi")  # fmt: skip
    return width, height


def with_resolution(png: bytes, *, per_mm: tuple[float, float]) -> bytes:
    """Return a PNG that says how many pixels it has to a millimetre, across and down: a chunk ``pHYs`` after its head, as the PNG
    specification has it (whole pixels to the metre).
    """
    body = b"pHYs" + struct.pack(">IIB", *(round(1000 * pixels) for pixels in per_mm), 1)
    return png[:HEAD_BYTES] + struct.pack(">I", len(body) - 4) + body + struct.pack(">I", zlib.crc32(body)) + png[HEAD_BYTES:]


def png_from_svg(svg: str, *, width_px: int, height_px: int) -> bytes:
    """Render an SVG written by this package, fitted to fill the pixels exactly, the ground clear.

    Raises LimitError when it takes too long or too much memory.
    """
    head, rest = svg.split(">", 1)
    view_box = head.split("viewBox=", 1)[1]
    fitted = (f'<svg xmlns="http://www.w3.org/2000/svg" width="{width_px}" height="{height_px}" '
              f'preserveAspectRatio="none" viewBox={view_box}>{rest}')  # fmt: skip
    try:
        command = [sys.executable, "-I", str(CHILD)]
        done = subprocess.run(command, input=fitted.encode(), capture_output=True, timeout=SECONDS)
    except subprocess.TimeoutExpired:
        raise LimitError(f"the picture took more than {SECONDS} s; choose a lower dpi") from None
    if done.returncode == 0 and done.stdout.startswith(b"\x89PNG"):
        return done.stdout
    if done.returncode < 0:
        raise LimitError("the picture took too much time or memory; choose a lower dpi")
    error = NumericError("the picture could not be drawn; take the SVG, or choose a lower dpi")
    error.add_note(done.stderr.decode(errors="replace")[-300:])
    raise error
