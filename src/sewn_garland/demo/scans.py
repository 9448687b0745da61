"""The demo scanner's samples: drawings of the quay, rendered and roughened as a scanner would see them."""

from __future__ import annotations

import io
from pathlib import Path

import numpy as np
import scipy
from PIL import Image

from ..core.drawing.png import png_from_svg
from ..core.maths.raster import rgba_from_png
from ..core.maths.streams import uniforms

DPI = 200


def _svg(width: float, height: float, body: str) -> str:
    return f'<svg xmlns="http://www.w3.org/2000/svg" width="{width}mm" height="{height}mm" viewBox="0 0 {width} {height}">{body}</svg>'


def _plank() -> tuple[float, float, str]:
    """A plank rubbed with graphite: grain that flows round two knots."""
    x = np.linspace(6, 84, 90)
    lines = []
    for k in range(17):
        rest = 7 + k * 2.1
        y = rest + 0.5 * np.sin(x / 9 + k)
        for cx, cy, size in ((30.0, 18.0, 5.0), (66.0, 30.0, 3.6)):
            y = y + size * np.sign(rest - cy + 0.01) * np.exp(-(((x - cx) / 9) ** 2) - abs(rest - cy) / 7)
        d = "M" + " ".join(f"{a:.2f} {b:.2f}" for a, b in zip(x, y, strict=True))
        width = 0.5 + 0.45 * ((k * 7) % 5) / 4
        lines.append(f'<path d="{d}" fill="none" stroke="#2b2b2e" stroke-width="{width:.2f}" stroke-linecap="round"/>')
    knots = "".join(
        f'<ellipse cx="{cx}" cy="{cy}" rx="{r}" ry="{r * 0.62}" fill="none" stroke="#2b2b2e" stroke-width=".7"/>'
        for cx, cy, size in ((30.0, 18.0, 3.4), (66.0, 30.0, 2.4))
        for r in (size, size * 0.55)
    )
    return 90, 48, "".join(lines) + knots


def _mussels() -> tuple[float, float, str]:
    """Three mussel shells, printed in blue ink."""
    one = (
        '<path d="M0 0C6 -9 19 -13 27 -8C33 -4 33 3 27 6C18 10 6 8 0 0Z" fill="#27365a"/>'
        '<path d="M4 -1C11 -6 19 -8 25 -5M6 1C13 -1 20 -2 26 0M8 3C14 3 20 3 25 2" fill="none" stroke="#ffffff" stroke-width="1"/>'
    )
    places = ("translate(8 20) rotate(-12)", "translate(50 17) rotate(9) scale(.92)", "translate(92 21) rotate(-4) scale(1.06)")
    return 132, 38, "".join(f'<g transform="{t}">{one}</g>' for t in places)


def _rope() -> tuple[float, float, str]:
    """A drawn rope: strands that repeat every 13 mm, in brown felt pen."""
    strand = '<path d="M0 16C3 8 8 4 15 3L21 3C15 5 10 9 8 16Z" fill="#c8a671" stroke="#4a3420" stroke-width=".9" stroke-linejoin="round"/>'
    strands = "".join(f'<g transform="translate({-8 + 13 * k} 4)">{strand}</g>' for k in range(12))
    return 140, 24, f'<path d="M0 6.6H140M0 20.4H140" stroke="#4a3420" stroke-width=".9"/>{strands}'


def _dusk() -> tuple[float, float, str]:
    """Dusk over the landing in gouache: bands of sky, far hills, and water that holds the last light."""
    sky = ("#1c2748", "#27305a", "#3a3868", "#574272", "#7c4c73", "#a65c6b", "#cb7560", "#e39a63", "#edbb7c")
    bands = "".join(_band(7.4 * k, 1.3, k, colour) for k, colour in enumerate(sky))
    hills = ('<path d="M0 63C18 55 34 58 50 61S82 54 104 59S136 56 150 60V72H0Z" fill="#3a3157"/>'
             '<path d="M0 66C26 61 50 66 78 65S128 63 150 66V74H0Z" fill="#241f3f"/>')  # fmt: skip
    water = "".join(_band(69 + 3.4 * k, 0.5, k + 3, colour) for k, colour in enumerate(
        ("#b9766a", "#8d5b6c", "#6a4a6b", "#4c3d64", "#39345b", "#2c2c50", "#222646", "#1a203c", "#151b33", "#11172c", "#0e1426")
    ))  # fmt: skip
    glints = "".join(
        f'<path d="M{96 - 3 * k + 5 * np.sin(2.1 * k):.2f} {71.6 + 2.6 * k:.2f}h{9 + 2.2 * k:.2f}" stroke="#f0c184" stroke-width=".8" '
        f'stroke-linecap="round" opacity="{0.75 - 0.06 * k:.2f}"/>'
        for k in range(10)
    )
    return 150, 106, bands + hills + water + glints


def _band(top: float, sway: float, phase: float, colour: str) -> str:
    """Return everything below a brushed edge across the sheet."""
    x = np.linspace(-1, 151, 77)
    y = top + sway * np.sin(x / 13 + 1.7 * phase) + 0.4 * sway * np.sin(x / 4.1 + phase)
    edge = " ".join(f"{a:.2f} {b:.2f}" for a, b in zip(x, y, strict=True))
    return f'<path d="M{edge}L151 107H-1Z" fill="{colour}"/>' if top else f'<path d="M-1 -1H151V107H-1Z" fill="{colour}"/>'


SAMPLES = {"plank-rubbing": _plank, "mussel-prints": _mussels, "drawn-rope": _rope, "gouache-of-dusk": _dusk}


def write_samples(folder: Path) -> None:
    """Put every sample into the scan tray that is not there yet."""
    folder.mkdir(parents=True, exist_ok=True)
    for seed, (name, draw) in enumerate(SAMPLES.items()):
        file = folder / f"{name}.png"
        if not file.exists():
            parked = folder / f".{name}.png"
            parked.write_bytes(_scanned(*draw(), seed=seed))
            parked.replace(file)


def _scanned(width: float, height: float, body: str, *, seed: int) -> bytes:
    """Render at 200 dpi on paper that is not quite white, with grain and a little blur."""
    w, h = (round(side / 25.4 * DPI) for side in (width, height))
    rgba = rgba_from_png(png_from_svg(_svg(width, height, body), width_px=w, height_px=h)).astype(float)
    alpha = rgba[..., 3:] / 255
    paper = np.array([247.0, 245.0, 239.0])
    rgb = rgba[..., :3] * alpha + paper * (1 - alpha)
    grain = scipy.ndimage.gaussian_filter(uniforms(seed, "grain", h * w).reshape(h, w) - 0.5, 1.1)
    rgb = scipy.ndimage.gaussian_filter(rgb, (0.6, 0.6, 0)) + 70 * grain[..., None]
    out = io.BytesIO()
    Image.fromarray(np.round(np.clip(rgb, 0, 255)).astype(np.uint8), "RGB").save(out, "PNG", dpi=(DPI, DPI))
    return out.getvalue()
