"""Speed and memory of making motifs: booleans, tracing, seams, large pictures."""

from __future__ import annotations

import io
import subprocess
import sys
import tempfile

import numpy as np
from PIL import Image, ImageDraw

from sewn_garland.core.making.picture_seams import best_picture_cut
from sewn_garland.core.making.rims import _rounded
from sewn_garland.core.making.tracing import traced
from sewn_garland.core.maths.booleans import combined

MOST_MEGABYTES = 1536
LARGE = """
import re, sys
from sewn_garland.workshop.pictures import Preparation, motif_from_picture
from sewn_garland.core.reading.pictures import read_picture
data = open(sys.argv[1], "rb").read()
read_picture(data)
motif_from_picture(data, Preparation(clear="background", trim=True))
print(int(re.search(r"VmHWM:\\s*(\\d+)", open("/proc/self/status").read())[1]) / 1024)  # getrusage counts what forked it as well
"""


def bench_making(row, median_seconds) -> None:
    """Add the rows."""
    one, two = (_blob(seed) for seed in (1, 2))
    for way in ("join", "cut_out", "overlap", "exclude"):
        seconds = median_seconds(lambda way=way: combined([(*one, "nonzero"), (*two, "nonzero")], way))
        row(f"boolean of two 1 000-point shapes: {way}", f"{seconds * 1000:.1f} ms", "≤ 50 ms", seconds <= 0.05)
    scan = _scan()
    seconds = median_seconds(lambda: traced(scan, colours=None), 3)
    row("tracing a 4-megapixel scan", f"{seconds:.2f} s", "≤ 2 s", seconds <= 2)
    wide = _border()
    seconds = median_seconds(lambda: best_picture_cut(wide), 5)
    row("seam search over a 4 000-pixel-wide picture", f"{seconds:.3f} s", "≤ 0.5 s", seconds <= 0.5)
    megabytes = _memory_of_a_large_picture()
    row("memory at most, a 100-megapixel picture read and prepared", f"{megabytes:.0f} MB", "≤ 1 536 MB", megabytes <= MOST_MEGABYTES)


def _blob(seed: int):
    rng = np.random.default_rng(seed)
    angle = np.linspace(0, 2 * np.pi, 1000, endpoint=False)
    radius = 30 + rng.uniform(-0.1, 0.1, 1000) + 6 * np.sin(5 * angle + seed)
    return _rounded(np.stack([radius * np.cos(angle) + 8 * seed, radius * np.sin(angle)], axis=1))


def _scan() -> np.ndarray:
    """A scan of ink blots and lines, with soft rims and grain."""
    rng = np.random.default_rng(5)
    image = Image.new("L", (2000, 2000), 245)
    draw = ImageDraw.Draw(image)
    for _ in range(120):
        x, y, r = *rng.uniform(60, 1940, 2), rng.uniform(8, 55)
        draw.ellipse([x - r, y - r, x + r, y + r], fill=40)
    for k in range(14):
        points = [(x, 90 + 130 * k + 40 * np.sin(x / 120 + k)) for x in range(40, 1960, 12)]
        draw.line(points, fill=30, width=9, joint="curve")
    grey = np.asarray(image, float) + rng.normal(0, 5, (2000, 2000))
    grey = np.clip(grey, 0, 255).astype(np.uint8)
    return np.dstack([grey, grey, grey, np.full_like(grey, 255)])


def _border() -> np.ndarray:
    x = np.arange(4000)
    y = 150 + 70 * np.sin(2 * np.pi * x / 431.7)
    grey = (np.clip(np.abs(np.arange(300)[:, None] - y[None]) - 14, 0, 1) * 255).astype(np.uint8)
    return np.dstack([grey, grey, grey, np.full_like(grey, 255)])


def _memory_of_a_large_picture() -> float:
    image = Image.new("RGB", (10_000, 10_000), "white")
    ImageDraw.Draw(image).ellipse([2000, 2000, 8000, 8000], fill="#a63a2f")
    out = io.BytesIO()
    image.save(out, "PNG", compress_level=1)
    with tempfile.NamedTemporaryFile(suffix=".png") as file:
        file.write(out.getvalue())
        file.flush()
        done = subprocess.run([sys.executable, "-c", LARGE, file.name], capture_output=True, text=True, check=True)
    return float(done.stdout)
