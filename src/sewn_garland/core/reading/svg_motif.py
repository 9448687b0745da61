"""Read an SVG as a motif: flattened to plain shapes on a frame in mm."""

from __future__ import annotations

import re
from dataclasses import replace

import numpy as np
from coloraide import Color

from ..errors import InputError, LimitError
from ..maths.affine import apply, mean_scale
from ..maths.bounds import Box, outline_box, stroke_box
from ..maths.curves import cubics_from_arc
from ..values.motif import Motif, Paint, Shape, Stroke
from .path_data import Arc, Subpath
from .svg_lines import subpaths_of
from .svg_source import MM_PER_UNIT, SVG, Drawn, SvgSource, drawn_elements, mm_from_length, parse_svg, share_from_text

MOST_POINTS = 50_000
NO_PAINT = ("none", "transparent")


def motif_from_svg(data: bytes | str, *, where: str = "the file", base_line_mm: float | None = None, trim: bool = False) -> Motif:
    """Read the drawn shapes with their flat paints; what had to be left out is told on the motif.

    The frame is the document's; ``trim`` cuts it down to the ink. The base line lies at half the
    height unless given. Raises InputError when nothing drawable is left.
    """
    source = parse_svg(data, where=where)
    left_out: list[str] = []
    paints = _Paints(source, left_out)
    shapes, points = [], 0
    for drawn in drawn_elements(source, left_out, where=where):
        shape = _shape_of(drawn, paints)
        if shape is not None:
            shapes.append(shape)
            points += len(shape.commands)
        if points > MOST_POINTS:
            raise LimitError(f"it has more than {MOST_POINTS} points; thin the drawing first", where=where)
    if not shapes:
        raise InputError("nothing in it can be drawn: it has no shape with a fill or a stroke", where=where)
    base = source.height_mm / 2 if base_line_mm is None else base_line_mm
    motif = Motif(tuple(shapes), source.width_mm, source.height_mm, base, tuple(left_out))
    return trimmed(motif, where=where, keep_base=base_line_mm is not None) if trim else motif


def trimmed(motif: Motif, *, where: str = "the motif", keep_base: bool = True) -> Motif:
    """Cut the frame down to the ink, so that no margin opens the joins.

    The base line stays on the artwork, or goes to half the new height.
    """
    left, top, right, bottom = ink_box(motif)
    width, height = right - left, bottom - top
    if width <= 1e-6 and height <= 1e-6:
        raise InputError("the drawing has no size", where=where)
    if width <= 1e-6 or height <= 1e-6:
        raise InputError("the drawing has no width or no height; give it a stroke or a filled shape", where=where)
    base = motif.base_line - top if keep_base else height / 2
    shapes = tuple(replace(s, points=s.points - (left, top)) for s in motif.shapes)
    told = _told_margins(left, motif.width - right, top, motif.height - bottom)
    return replace(motif, shapes=shapes, width=width, height=height, base_line=base, left_out=(*motif.left_out, *told))


def _told_margins(left: float, right: float, top: float, bottom: float) -> list[str]:
    sides = [(left, "left"), (right, "right"), (top, "above"), (bottom, "below")]
    cut = [f"{margin:.1f} mm {side}" for margin, side in sides if margin > 0.05]
    return [f"Empty margin cut away: {', '.join(cut)}."] if cut else []


def ink_box(motif: Motif) -> Box:
    """Return the box of everything that is painted, strokes included."""
    boxes = [box for shape in motif.shapes for box in _boxes(shape)]
    edges = np.array(boxes)
    return (*edges[:, :2].min(axis=0), *edges[:, 2:].max(axis=0))


def _boxes(shape: Shape) -> list[Box]:
    boxes = [outline_box(shape.commands, shape.points)] if shape.fill or not shape.stroke else []
    if shape.stroke:
        s = shape.stroke
        box = stroke_box(shape.commands, shape.points, width=s.width, cap=s.cap, join=s.join,
                         miter_limit=s.miter_limit, dashes=s.dashes, dash_offset=s.dash_offset)  # fmt: skip
        boxes += [box] if box else []
    return boxes or [outline_box(shape.commands, shape.points)]


class _Paints:
    """Resolve fill and stroke to flat paints; gradients become the mean of their stops."""

    def __init__(self, source: SvgSource, left_out: list[str]) -> None:
        self.servers = {e.get("id"): e for e in source.root.iter() if e.get("id")}
        self.left_out = left_out

    def paint(self, style: dict[str, str], key: str, opacity: float) -> Paint | None:
        text = style.get(key, "#000000" if key == "fill" else "none").strip()
        if text in NO_PAINT:
            return None
        if text.lower() == "currentcolor":
            text = style.get("color", "#000000")
        share = opacity * share_from_text(style.get(f"{key}-opacity"))
        found = re.match(r"url\(\s*['\"]?#([^'\")]+)['\"]?\s*\)\s*(.*)", text)
        return self._of_server(found.group(1), found.group(2), share) if found else self._flat(text, share)

    def _flat(self, text: str, share: float) -> Paint | None:
        try:
            colour = Color(text).convert("srgb")
        except ValueError:
            self.tell(f"The colour “{text[:30]}” is not known; black was taken.")
            colour = Color("black")
        alpha = min(1.0, max(0.0, colour.alpha(nans=False))) * share
        return Paint(colour.to_string(hex=True, alpha=False), round(alpha, 4)) if alpha > 0 else None

    def _of_server(self, name: str, fallback: str, share: float) -> Paint | None:
        stops = list(self.servers[name].iter(f"{SVG}stop")) if name in self.servers else []
        if not stops:
            self.tell("A pattern or a missing gradient was left out.")
            return self._flat(fallback, share) if fallback and fallback not in NO_PAINT else None
        self.tell("Gradients were flattened to their mean colour.")
        rgba = np.array([self._stop(stop) for stop in stops])
        mean = rgba.mean(axis=0)
        return self._flat(Color("srgb", mean[:3].tolist(), float(mean[3])).to_string(), share)

    def _stop(self, stop) -> list[float]:
        declared = dict(re.findall(r"([a-z-]+)\s*:\s*([^;]+)", stop.get("style", "")))
        text = (declared.get("stop-color") or stop.get("stop-color") or "black").strip()
        try:
            colour = Color(text).convert("srgb")
        except ValueError:
            colour = Color("black")
        share = share_from_text(declared.get("stop-opacity") or stop.get("stop-opacity"))
        return [*colour.coords(nans=False), colour.alpha(nans=False) * share]

    def tell(self, sentence: str) -> None:
        if sentence not in self.left_out:
            self.left_out.append(sentence)


def _shape_of(drawn: Drawn, paints: _Paints) -> Shape | None:
    subpaths = [s for s in subpaths_of(drawn) if s.segments]
    fill = paints.paint(drawn.style, "fill", drawn.opacity)
    if drawn.element.tag == f"{SVG}line":
        fill = None
    stroke = _stroke_of(drawn, paints)
    if not subpaths or (fill is None and stroke is None):
        return None
    commands, points = _outline(subpaths)
    points = apply(drawn.matrix, points)
    if not np.isfinite(points).all() or np.abs(points).max() > 1e6:
        raise InputError("a shape lies further than 1 000 000 mm out or is not finite", where=drawn.where)
    rule = "evenodd" if drawn.style.get("fill-rule") == "evenodd" else "nonzero"
    return Shape(commands, points, fill, rule, stroke)


def _stroke_of(drawn: Drawn, paints: _Paints) -> Stroke | None:
    style = drawn.style
    paint = paints.paint(style, "stroke", drawn.opacity)
    width = mm_from_length(style.get("stroke-width", "1"), where=drawn.where, relative_to=100.0) or 0.0
    if paint is None or width <= 0:
        return None
    scale = mean_scale(drawn.matrix) / MM_PER_UNIT["px"]
    singular = np.linalg.svd(drawn.matrix[:, :2], compute_uv=False)
    if singular[0] > 1.001 * singular[1]:
        paints.tell("A stroke stretched unevenly keeps an even width.")
    dashes = tuple((mm_from_length(v, where=drawn.where) or 0.0) * scale
                   for v in re.split(r"[\s,]+", style.get("stroke-dasharray", "none").strip()) if v and v != "none")  # fmt: skip
    dashes = dashes * 2 if len(dashes) % 2 else dashes
    cap, join = style.get("stroke-linecap", "butt"), style.get("stroke-linejoin", "miter")
    try:
        miter_limit = float(style.get("stroke-miterlimit", "4"))
    except ValueError:
        miter_limit = 4.0
    return Stroke(
        paint, width * scale,
        cap if cap in ("butt", "round", "square") else "butt",
        join if join in ("miter", "round", "bevel") else "miter",
        miter_limit if 1 <= miter_limit <= 1e6 else 4.0,
        dashes if sum(dashes) > 0 and min(dashes) >= 0 else (),
        (mm_from_length(style.get("stroke-dashoffset"), where=drawn.where) or 0.0) * scale,
    )  # fmt: skip


def _outline(subpaths: list[Subpath]) -> tuple[str, np.ndarray]:
    commands, points = [], []
    for subpath in subpaths:
        commands.append("M")
        points.append(subpath.start[None])
        for segment in subpath.segments:
            cubics = cubics_from_arc(segment.centre, segment.a, segment.b, segment.start, segment.sweep) if (
                isinstance(segment, Arc)) else segment[None]
            for cubic in cubics:
                commands.append("C" if len(cubic) == 4 else "L")
                points.append(cubic[1:])
        if subpath.closed:
            commands.append("Z")
    return "".join(commands), np.concatenate(points)
