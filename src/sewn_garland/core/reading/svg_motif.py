"""Read an SVG as a motif: flattened to plain shapes and pictures on a frame in mm."""

from __future__ import annotations

import base64
import json
import re
from dataclasses import replace

import numpy as np

from ..artwork.box import box_of_shape
from ..errors import InputError, LimitError
from ..maths.affine import apply, mean_scale
from ..maths.booleans import combined, stroke_outline
from ..maths.curves import cubics_from_arc
from ..maths.outlines import Outline
from ..maths.raster import png_from_rgba
from ..values.motif import Lies, Motif, Picture, Recipe, Shape, Stroke
from .path_data import Arc, Subpath
from .pictures import read_picture
from .svg_lines import subpaths_of
from .svg_paint import Paints
from .svg_source import XLINK_HREF, Clip, Drawn, SvgSource, drawn_elements, parse_svg, with_reasons
from .svg_style import SVG
from .svg_viewports import MM_PER_UNIT, mm_from_length

MOST_POINTS = 50_000
MOST_PICTURE_PIXELS = 16_000_000
MOST_RECIPES = 200
LIES: dict[str, Lies] = {"under": "under", "interlocked": "interlocked"}


def motif_from_svg(data: bytes | str, *, where: str = "the file", base_line_mm: float | None = None) -> Motif:
    """Read what is drawn, with its paints; what had to be left out is told on the motif.

    Clips are cut for good. The frame is the document's, the base line lies at half the height
    unless given. Raises InputError when nothing drawable is left.
    """
    source = parse_svg(data, where=where)
    left_out: list[str] = []
    paints = Paints(source, left_out)
    shapes: list[Shape] = []
    points = 0
    for drawn in drawn_elements(source, left_out, where=where, pictures=True):
        made = [_picture_of(drawn, left_out)] if drawn.element.tag == f"{SVG}image" else [_shape_of(drawn, paints)]
        for clip in drawn.clips:
            made = [part for shape in made if shape is not None for part in _clipped(shape, clip, left_out)]
        shapes += [_owned(shape, drawn) for shape in made if shape is not None]
        points += sum(len(shape.commands) for shape in made if shape is not None)
        if points > MOST_POINTS:
            raise LimitError(f"it has more than {MOST_POINTS} points; thin the drawing first", where=where)
    if not shapes:
        what = "nothing in it can be drawn: it has no shape with a fill or a stroke, and no picture"
        raise InputError(with_reasons(what, left_out), where=where)
    base = source.height_mm / 2 if base_line_mm is None else base_line_mm
    return Motif(tuple(shapes), source.width_mm, source.height_mm, base, tuple(left_out), recipes=_recipes_of(source, shapes))


def _owned(shape: Shape, drawn: Drawn) -> Shape:
    """Give a shape what only our own files know of it: its name, its group, and how it lies beside its neighbours."""
    name, group = drawn.element.get("data-name", ""), drawn.element.get("data-group", "")
    own_group = int(group) if re.fullmatch(r"\d{1,6}", group) else 0
    derived = bool(own_group) and drawn.element.get("data-derived") == "1"
    return replace(shape, name=name[:80], group=own_group, derived=derived, lies=LIES.get(drawn.style.get("data-lies", ""), "over"))


def _recipes_of(source: SvgSource, shapes: list[Shape]) -> tuple[Recipe, ...]:
    """Read the recipes that one of our own files keeps; anything else in their place is passed over."""
    try:
        entries = json.loads(source.root.get("data-recipes", "[]"))
    except (ValueError, RecursionError):
        return ()
    groups = {s.group for s in shapes}
    out = []
    for entry in entries[:MOST_RECIPES] if isinstance(entries, list) else []:
        try:
            kind, group, figures = entry["kind"], entry["group"], entry["figures"]
            pairs = tuple((str(k), v) for k, v in figures.items() if isinstance(v, (int, float, str)))
        except (TypeError, KeyError, AttributeError):
            continue
        if kind in ("starter", "mirror", "soft_edge") and group in groups:
            out.append(Recipe(group, kind, pairs))
    return tuple(out)


def _shape_of(drawn: Drawn, paints: Paints) -> Shape | None:
    subpaths = [s for s in subpaths_of(drawn) if s.segments]
    if not subpaths:
        return None
    own = outline_from_subpaths(subpaths)
    fill = None if drawn.element.tag == f"{SVG}line" else paints.paint(drawn, "fill", own)
    stroke = _stroke_of(drawn, paints, own)
    if fill is None and stroke is None:
        return None
    points = apply(drawn.matrix, own[1])
    if not np.isfinite(points).all() or np.abs(points).max() > 1e6:
        raise InputError("a shape lies further than 1 000 000 mm out or is not finite", where=drawn.where)
    rule = "evenodd" if drawn.style.get("fill-rule") == "evenodd" else "nonzero"
    return Shape(own[0], points, fill, rule, stroke)


def _stroke_of(drawn: Drawn, paints: Paints, own: Outline) -> Stroke | None:
    style = drawn.style
    paint = paints.paint(drawn, "stroke", own)
    across = drawn.port.diagonal * MM_PER_UNIT["px"]  # what per cents are of
    width = mm_from_length(style.get("stroke-width", "1"), where=drawn.where, relative_to=across) or 0.0
    if paint is None or width <= 0:
        return None
    scale = mean_scale(drawn.matrix) / MM_PER_UNIT["px"]
    singular = np.linalg.svd(drawn.matrix[:, :2], compute_uv=False)
    if singular[0] > 1.001 * singular[1]:
        paints.tell("A stroke stretched unevenly keeps an even width.")
    dashes = tuple((mm_from_length(v, where=drawn.where, relative_to=across) or 0.0) * scale
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
        (mm_from_length(style.get("stroke-dashoffset"), where=drawn.where, relative_to=across) or 0.0) * scale,
    )  # fmt: skip


def _picture_of(drawn: Drawn, left_out: list[str]) -> Shape | None:
    """Read an embedded picture; its rectangle keeps the aspect that the element asks for."""
    element = drawn.element
    link = (element.get("href") or element.get(XLINK_HREF) or "").strip()
    found = re.match(r"data:image/(png|jpeg|jpg|webp)\s*;\s*base64\s*,", link)
    if not found:
        left_out.append("A picture was left out; only embedded PNG, JPEG and WebP are taken.")
        return None
    try:
        data = base64.b64decode(re.sub(r"\s+", "", link[found.end() :]), validate=True)
        picture = read_picture(data, where="it", most_pixels=MOST_PICTURE_PIXELS)
    except ValueError as error:  # of the encoding, of a letter beyond ASCII in it, or ours
        reason = error.message if isinstance(error, InputError) else "it is damaged"
        left_out.append(f"A picture was left out: {reason}.")
        return None
    for sentence in picture.told:
        if sentence not in left_out:
            left_out.append(sentence)
    x, y, w, h = (drawn.length(key) for key in ("x", "y", "width", "height"))
    rows, columns = picture.rgba.shape[:2]
    w, h = w or columns, h or rows
    if not element.get("preserveAspectRatio", "").strip().startswith("none"):
        fit = min(w / columns, h / rows)
        x, y, w, h = x + (w - columns * fit) / 2, y + (h - rows * fit) / 2, columns * fit, rows * fit
    rgba = picture.rgba
    if drawn.opacity < 1:
        rgba = rgba.copy()
        rgba[..., 3] = np.round(rgba[..., 3] * drawn.opacity)
    corners = np.array([[x, y], [x + w, y], [x + w, y + h], [x, y + h]])
    stencil = element.get("data-stencil") == "1"
    own = data if found.group(1) == "png" and picture.scale == 1 and drawn.opacity >= 1 else png_from_rgba(rgba)
    return Shape("MLLLZ", apply(drawn.matrix, corners), None, picture=Picture(own, columns, rows, stencil))


def _clipped(shape: Shape, clip: Clip, left_out: list[str]) -> list[Shape]:
    """Cut a shape by a clip for good; a clipped stroke becomes a shape of its own."""
    mask = _clip_outline(clip)
    if _holds(mask, shape):
        return [shape]
    if shape.picture is not None:
        left_out.append("A clip on a picture was left out; what it hid is shown.")
        return [shape]
    parts = []
    if shape.fill is not None:
        commands, points = combined([(shape.commands, shape.points, shape.fill_rule), mask], "overlap")
        parts.append(replace(shape, commands=commands, points=points, fill_rule="nonzero", stroke=None))
    if shape.stroke is not None:
        s = shape.stroke
        outline = stroke_outline(shape.commands, shape.points, width=s.width, cap=s.cap, join=s.join, miter_limit=s.miter_limit,
                                 dashes=s.dashes, dash_offset=s.dash_offset)  # fmt: skip
        commands, points = combined([(*outline, "nonzero"), mask], "overlap")
        parts.append(replace(shape, commands=commands, points=points, fill=s.paint, fill_rule="nonzero", stroke=None))
    return [part for part in parts if part.commands]


def _holds(mask: tuple[str, np.ndarray, str], shape: Shape) -> bool:
    """Tell whether a clip of four straight sides that turn one way holds all that a shape covers, so that it hides nothing."""
    commands, corners, _ = mask
    if commands != "MLLLZ":
        return False
    left, top, right, bottom = box_of_shape(shape)
    box = np.array([[left, top], [right, top], [right, bottom], [left, bottom]])
    side, to = np.roll(corners, -1, axis=0) - corners, box[:, None] - corners
    turns = side[:, 0] * to[..., 1] - side[:, 1] * to[..., 0]
    slack = 1e-9 * np.abs(turns).max(initial=0.0)
    return bool((turns >= -slack).all() or (turns <= slack).all())


def _clip_outline(clip: Clip) -> tuple[str, np.ndarray, str]:
    """Return what a clip shows: the union of its shapes, in mm."""
    outlines = []
    for drawn in clip.shapes:
        subpaths = [s for s in subpaths_of(drawn) if s.segments]
        if subpaths:
            commands, points = outline_from_subpaths(subpaths)
            rule = "evenodd" if drawn.style.get("clip-rule") == "evenodd" else "nonzero"
            outlines.append((commands, apply(drawn.matrix, points), rule))
    if not outlines:
        return "", np.zeros((0, 2)), "nonzero"
    return (*combined(outlines, "join"), "nonzero")


def outline_from_subpaths(subpaths: list[Subpath]) -> Outline:
    """Return subpaths as one outline out of M L C Z; arcs become cubics."""
    commands, points = [], []
    for subpath in subpaths:
        commands.append("M")
        points.append(subpath.start[None])
        for segment in subpath.segments:
            cubics = (
                cubics_from_arc(segment.centre, segment.a, segment.b, segment.start, segment.sweep)
                if (isinstance(segment, Arc))
                else segment[None]
            )
            for cubic in cubics:
                commands.append("C" if len(cubic) == 4 else "L")
                points.append(cubic[1:])
        if subpath.closed:
            if commands[-1] == "L" and np.allclose(points[-1][-1], subpath.start, rtol=0, atol=1e-12):
                del commands[-1], points[-1]  # closing draws that side
            commands.append("Z")
    return "".join(commands), np.concatenate(points)
