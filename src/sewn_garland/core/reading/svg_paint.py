"""Resolve an SVG's fills and strokes to paints: flat colours and gradients."""

from __future__ import annotations

import math
import re

import numpy as np

from ..maths.affine import compose
from ..maths.bounds import outline_box
from ..maths.outlines import Outline
from ..values.motif import Gradient, GradientStop, Paint
from .svg_source import XLINK_HREF, Drawn, SvgSource
from .svg_style import SVG, share_from_text
from .svg_transforms import transform_from_text

HEX = re.compile("#[0-9a-fA-F]{6}")
NO_PAINT = ("none", "transparent")
MOST_STOPS = 64
MOST_HREFS = 10


class Paints:
    """Resolve fill and stroke; what is not known is told in ``left_out``."""

    def __init__(self, source: SvgSource, left_out: list[str]) -> None:
        self.servers = {e.get("id"): e for e in source.root.iter() if e.get("id")}
        self.left_out = left_out

    def paint(self, drawn: Drawn, key: str, outline: Outline) -> Paint | None:
        """Return the paint for ``fill`` or ``stroke`` of a shape whose outline is in its own user units; None for none."""
        text = drawn.style.get(key, "#000000" if key == "fill" else "none").strip()
        if text in NO_PAINT:
            return None
        if text.lower() == "currentcolor":
            text = drawn.style.get("color", "#000000")
        share = drawn.opacity * share_from_text(drawn.style.get(f"{key}-opacity"))
        found = re.match(r"url\(\s*['\"]?#([^'\")]+)['\"]?\s*\)\s*(.*)", text)
        return (self._of_server(found.group(1), found.group(2), share, drawn, outline) if found
                else self._flat(text, share, keep_clear=drawn.element.get("data-clear") == "1"))  # fmt: skip

    def tell(self, sentence: str) -> None:
        if sentence not in self.left_out:
            self.left_out.append(sentence)

    def _flat(self, text: str, share: float, *, keep_clear: bool = False) -> Paint | None:
        """Return a plain colour; one that covers nothing is none, unless one of our own files keeps it as the start of a soft edge."""
        colour, alpha = self._colour(text)
        return Paint(colour, round(alpha * share, 4)) if alpha * share > 0 or keep_clear else None

    def _colour(self, text: str) -> tuple[str, float]:
        if HEX.fullmatch(text):
            return text.lower(), 1.0
        from coloraide import Color  # takes long to load, and our own files write all colours so

        try:
            colour = Color(text).convert("srgb").fit("srgb")
        except ValueError:
            self.tell(f"The colour “{text[:30]}” is not known; black was taken.")
            colour = Color("black")
        return colour.to_string(hex=True, alpha=False), min(1.0, max(0.0, colour.alpha(nans=False)))

    def _of_server(self, name: str, fallback: str, share: float, drawn: Drawn, outline: Outline) -> Paint | None:
        chain = self._chain(name)
        kind = re.sub(r"\{.*\}", "", chain[0].tag) if chain else ""
        stops = next((found for e in chain if (found := list(e.iter(f"{SVG}stop")))), [])
        if kind not in ("linearGradient", "radialGradient") or not stops:
            self.tell("A pattern or a missing gradient was left out.")
            return self._flat(fallback, share) if fallback and fallback not in NO_PAINT else None
        read = self._stops(stops[:MOST_STOPS])
        mean = _mean_colour(read)
        if len(read) == 1:
            return Paint(read[0].colour, round(read[0].opacity * share, 4))
        attributes = {k: v for e in reversed(chain) for k, v in e.attrib.items()}
        matrix, focus = _frame(kind, attributes, drawn, outline)
        if matrix is None:
            self.tell("A gradient without extent became its last colour.")
            return Paint(read[-1].colour, round(read[-1].opacity * share, 4))
        spread = attributes.get("spreadMethod", "pad")
        gradient = Gradient(
            "linear" if kind == "linearGradient" else "radial", tuple(matrix.T.ravel().tolist()), tuple(read), focus,
            spread if spread in ("reflect", "repeat") else "pad",
        )  # fmt: skip
        return Paint(mean, round(share, 4), gradient)

    def _chain(self, name: str) -> list:
        """Return the gradient and those it takes its attributes from, nearest first."""
        chain: list = []
        while name in self.servers and self.servers[name] not in chain and len(chain) < MOST_HREFS:
            chain.append(self.servers[name])
            name = (chain[-1].get("href") or chain[-1].get(XLINK_HREF) or "").strip().lstrip("#")
        return chain

    def _stops(self, elements: list) -> list[GradientStop]:
        out: list[GradientStop] = []
        for element in elements:
            declared = dict(re.findall(r"([a-z-]+)\s*:\s*([^;]+)", element.get("style", "")))
            colour, alpha = self._colour((declared.get("stop-color") or element.get("stop-color") or "black").strip())
            alpha *= share_from_text(declared.get("stop-opacity") or element.get("stop-opacity"))
            offset = share_from_text(element.get("offset") or "0")
            out.append(GradientStop(max(offset, out[-1].offset if out else 0.0), colour, round(alpha, 4)))
        return out


def _mean_colour(stops: list[GradientStop]) -> str:
    rgb = np.array([[int(s.colour[i : i + 2], 16) for i in (1, 3, 5)] for s in stops], float)
    weight = np.array([s.opacity for s in stops]) + 1e-9
    return "#" + "".join(f"{round(v):02x}" for v in (rgb * weight[:, None]).sum(axis=0) / weight.sum())


def _frame(kind: str, attributes: dict[str, str], drawn: Drawn, outline: Outline) -> tuple[np.ndarray | None, float]:
    """Return the map from the gradient's own space to mm, and a radial one's focus; None where it has no extent."""
    in_box = attributes.get("gradientUnits", "objectBoundingBox") != "userSpaceOnUse"
    box = outline_box(*outline)
    size = (box[2] - box[0], box[3] - box[1])
    if in_box and min(size) <= 0:
        return None, 0.0

    def number(key: str, default: float) -> float:
        text = attributes.get(key)
        if text is None:
            return default
        try:
            value = float(text.strip().removesuffix("px").rstrip("%")) / (100 if text.strip().endswith("%") else 1)
        except ValueError:
            return default
        return value if math.isfinite(value) and abs(value) < 1e9 else default

    outer = drawn.matrix
    if in_box:
        outer = compose(outer, np.array([[size[0], 0.0, box[0]], [0.0, size[1], box[1]]]))
    if attributes.get("gradientTransform"):
        outer = compose(outer, transform_from_text(attributes["gradientTransform"], where=drawn.where))
    if kind == "linearGradient":
        x1, y1, x2, y2 = (number(k, d) for k, d in (("x1", 0.0), ("y1", 0.0), ("x2", 1.0), ("y2", 0.0)))
        own, focus = np.array([[x2 - x1, y1 - y2, x1], [y2 - y1, x2 - x1, y1]]), 0.0
    else:
        cx, cy, r = number("cx", 0.5), number("cy", 0.5), number("r", 0.5)
        fx, fy = number("fx", cx) - cx, number("fy", cy) - cy
        angle = math.atan2(fy, fx)
        focus = min(0.99, math.hypot(fx, fy) / r) if r > 0 else 0.0
        own = np.array([[r * math.cos(angle), -r * math.sin(angle), cx], [r * math.sin(angle), r * math.cos(angle), cy]])
    matrix = compose(outer, own)
    return (matrix, focus) if abs(np.linalg.det(matrix[:, :2])) > 1e-18 else (None, 0.0)
