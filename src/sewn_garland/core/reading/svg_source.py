"""Read SVG text from strangers: parse hardened, refuse what is dangerous, walk what is drawn."""

from __future__ import annotations

import re
from collections.abc import Iterator
from dataclasses import dataclass
from functools import partial
from typing import NamedTuple

import numpy as np
from lxml import etree  # pyright: ignore[reportAttributeAccessIssue]  # compiled, without types

from ..errors import InputError, LimitError
from ..maths.affine import compose
from ..maths.outlines import Outline
from .svg_style import SVG, resolved, share_from_text, style_rules
from .svg_text import spans_of
from .svg_transforms import transform_of
from .svg_viewports import MM_PER_UNIT, Viewport, fit, mm_from_length, view_box

MOST_BYTES = 10 * 1024 * 1024
MOST_DEPTH = 100
MOST_ELEMENTS = 100_000
MOST_EXPANDED = 30_000  # chosen: what expansion may take, about a second and a half
XLINK_HREF = "{http://www.w3.org/1999/xlink}href"
NEVER_DRAWN = {"defs", "symbol", "clipPath", "mask", "marker", "pattern", "linearGradient", "radialGradient", "filter",
               "metadata", "title", "desc", "style", "switch", "foreignObject"}  # fmt: skip
DRAWN = {"path", "line", "polyline", "polygon", "rect", "circle", "ellipse"}
MARKERS = ("marker", "marker-start", "marker-mid", "marker-end")


@dataclass(frozen=True)
class Drawn:
    """An element that draws, with its map to mm and its resolved style; of text the outlines of letters that look alike."""

    element: etree._Element
    matrix: np.ndarray
    style: dict[str, str]
    opacity: float
    where: str
    port: Viewport
    clips: tuple[Clip, ...] = ()
    letters: Outline | None = None

    def length(self, key: str) -> float:
        """Read one of its attributes as a length in its user units; absent is 0."""
        return self.port.length(self.element, key, where=self.where)


@dataclass(frozen=True)
class Clip:
    """A clip that hides what lies outside its shapes."""

    shapes: tuple[Drawn, ...]


@dataclass(frozen=True)
class SvgSource:
    """A parsed document: size in mm, the map from its user units to mm, and its root."""

    root: etree._Element
    width_mm: float
    height_mm: float
    matrix: np.ndarray
    port: Viewport


def parse_svg(data: bytes | str, *, where: str = "the file") -> SvgSource:
    """Parse and check; raises InputError or LimitError with a sentence for anything unsafe or unusable."""
    data = data.encode() if isinstance(data, str) else data
    if len(data) > MOST_BYTES:
        raise LimitError(f"{len(data) / 1048576:.1f} MB is more than the 10 MB a drawing may have", where=where)
    if b"<!DOCTYPE" in data[:4096].upper() or b"<!ENTITY" in data.upper():
        raise InputError("it declares a document type or entities, which are not read; save it as plain SVG", where=where)
    parser = etree.XMLParser(resolve_entities=False, no_network=True, huge_tree=False, remove_comments=True, remove_pis=True)
    try:
        root = etree.fromstring(data, parser)
    except (etree.XMLSyntaxError, ValueError) as error:
        line = getattr(error, "lineno", 0)
        at = f" (line {line})" if line > 1 else ""
        raise InputError(f"it is not SVG that can be read{at}; save it as plain SVG again", where=where) from None
    if root.tag != f"{SVG}svg":
        raise InputError("it is not SVG but something else; save it as plain SVG", where=where)
    _refuse_unsafe(root, where)
    return _sized(root, where)


def _refuse_unsafe(root: etree._Element, where: str) -> None:
    depth = {root: 1}
    for count, element in enumerate(root.iter()):
        if count > MOST_ELEMENTS:
            raise LimitError(f"it has more than {MOST_ELEMENTS} elements", where=where)
        parent = element.getparent()
        if parent is not None:
            depth[element] = depth[parent] + 1
        if depth[element] > MOST_DEPTH:
            raise LimitError(f"elements are nested more than {MOST_DEPTH} deep (line {element.sourceline})", where=where)
        if not isinstance(element.tag, str):
            raise InputError(f"line {element.sourceline} holds an entity, which is not read", where=where)
        place = f"line {element.sourceline}, {_local(element)}"
        if _local(element) == "script":
            raise InputError(f"{place}: scripts are not taken in; remove it and bring the file in again", where=where)
        if _local(element) == "style" and _css_reaches_out(element.text or ""):
            raise InputError(f"{place}: it refers to something outside the file", where=where)
        for name, value in element.attrib.items():
            _refuse_attribute(name, value, place, where)


def _refuse_attribute(name: str, value: str, place: str, where: str) -> None:
    name = name.lower()
    if name.startswith("on"):
        raise InputError(f"{place}: {name} is a script; remove it and bring the file in again", where=where)
    if name == "href" or name.endswith("}href"):
        if not value.strip().startswith(("#", "data:image/")):
            raise InputError(f"{place}: it refers to something outside the file ({value.strip()[:60]})", where=where)
    elif "url(" in value.lower() and _css_reaches_out(value):
        raise InputError(f"{place}: {name} refers to something outside the file", where=where)


def _css_reaches_out(text: str) -> bool:
    targets = re.findall(r"url\(\s*['\"]?\s*([^'\")\s]*)", text, flags=re.IGNORECASE)
    return "@import" in text.lower() or any(not t.startswith(("#", "data:image/")) for t in targets)


def _local(element: etree._Element) -> str:
    return etree.QName(element).localname


def _sized(root: etree._Element, where: str) -> SvgSource:
    px = MM_PER_UNIT["px"]
    box = view_box(root, where)
    width = mm_from_length(root.get("width"), where=f"{where}, width")
    height = mm_from_length(root.get("height"), where=f"{where}, height")
    if width is None:
        width = height * (box[2] / box[3] if box else 2) if height is not None else (box[2] if box else 300) * px
        height = (box[3] if box else 150) * px if height is None else height
    elif height is None:
        height = width * (box[3] / box[2] if box else 0.5)
    if width <= 0 or height <= 0:
        raise InputError("its width or height is zero; give the drawing a size", where=where)
    box = box or (0.0, 0.0, width / px, height / px)
    return SvgSource(root, width, height, fit(box, width, height, root.get("preserveAspectRatio", "")), Viewport(box[2], box[3]))


class _Within(NamedTuple):
    """What holds for the elements in an element: where they lie, how they look, what uses led there (ids)."""

    matrix: np.ndarray
    style: dict[str, str]
    opacity: float
    users: tuple[str, ...]
    clips: tuple[Clip, ...]
    port: Viewport


def drawn_elements(source: SvgSource, left_out: list[str], *, where: str = "the file", pictures: bool = False) -> Iterator[Drawn]:
    """Yield every drawn element in document order, ``use`` expanded, transforms, styles and clips resolved.

    ``pictures`` yields image elements too, and tells what of the paints cannot be kept. What is passed over is told in ``left_out``, a
    sentence each. Raises InputError for an element that refers to itself.
    """
    rules = style_rules(source.root)
    ids = {e.get("id"): e for e in reversed(list(source.root.iter())) if e.get("id")}
    stack = [(source.root, source.root, _Within(source.matrix, {}, 1.0, (), (), source.port))]
    wanted = DRAWN | {"image"} if pictures else DRAWN
    budget = max(MOST_EXPANDED, sum(1 for _ in source.root.iter()))
    while stack:
        element, sized_by, about = stack.pop()
        budget -= 1
        if budget < 0:
            raise LimitError(f"expanded, it has more than {MOST_EXPANDED} elements", where=where)
        name = _local(element)
        place = f"{where}, line {element.sourceline}, {name}"
        within = _entered(element, sized_by, about, source.root, ids, rules, left_out, place, inked=pictures)
        if within is None:
            continue
        if name == "use":
            target, moved, known = _used(element, ids, within.matrix, within.users, within.port, place)
            stack.append((target, element, within._replace(matrix=moved, users=known)))
        elif name in wanted:
            if within.style.get("visibility", "visible") == "visible":
                _tell_lost(within.style, name, left_out, inked=pictures)
                yield Drawn(element, within.matrix, within.style, within.opacity, place, within.port, within.clips)
        elif name == "text":
            for span in spans_of(element, within.style, rules, within.port, partial(_tell, left_out)):
                if span.style.get("visibility", "visible") == "visible":
                    about = (within.matrix, span.style, within.opacity * span.opacity, place, within.port, within.clips)
                    yield Drawn(element, *about, letters=(span.commands, span.points))
        elif name in ("svg", "g", "a", "symbol"):
            stack.extend((child, child, within) for child in reversed(element))
        elif element.tag.startswith(SVG):
            _tell(left_out, f"{name} was left out; only shapes are taken.")


def _entered(element, sized_by, about: _Within, root, ids: dict, rules, left_out: list[str], place: str, *, inked: bool) -> _Within | None:
    """Return what holds in an element that ``sized_by`` sizes, from what holds about it; None where nothing in it is drawn."""
    name, port, clips = _local(element), about.port, about.clips
    style, own = resolved(element, about.style, rules)
    if _is_passed_over(name, own, left_out, placed_by_use=bool(about.users)):
        return None
    share = share_from_text(own.get("opacity"))
    _tell_effects(name, own, left_out, shared_out=inked and share < 1 and _has_parts(element, ids))
    matrix = compose(about.matrix, transform_of(own, port, where=place))
    if own.get("clip-path", "none") != "none":
        clip = _clip_of(own["clip-path"], ids, matrix, port, place, rules)
        clips = clips if clip is None else (*clips, clip)
        if clip is None:
            _tell(left_out, f"a clip on {name} was left out; what it hid is shown.")
    if name == "symbol" or (name == "svg" and element is not root):
        placed = port.of_child(element, sized_by, where=place)
        if placed is None:
            return None
        if _hides(own):
            clips = (*clips, Clip((_frame_of(element, sized_by, matrix, port, place),)))
        matrix, port = compose(matrix, placed[0]), placed[1]
    return _Within(matrix, style, about.opacity * share, about.users, clips, port)


def _is_passed_over(name: str, own: dict[str, str], left_out: list[str], *, placed_by_use: bool) -> bool:
    """Tell whether an element and all in it is not drawn; one that others would draw is told of."""
    if own.get("display") == "none":
        return True
    if name not in NEVER_DRAWN or (name == "symbol" and placed_by_use):
        return False
    if name in ("foreignObject", "switch"):
        _tell(left_out, f"{name} was left out.")
    return True


def _tell_effects(name: str, own: dict[str, str], left_out: list[str], *, shared_out: bool) -> None:
    """Tell of what an element does to all in it as one, which cannot be kept."""
    if shared_out:
        _tell(left_out, f"the opacity of a {name} was given to each of its parts: where they lie over one another both show.")
    for effect in ("mask", "filter"):
        if own.get(effect, "none") != "none":
            _tell(left_out, f"a {effect} on {name} was left out; what it hid is shown.")


def _hides(own: dict[str, str]) -> bool:
    """Tell whether what lies outside a nested viewport is hidden, as it is unless it is said to overflow (SVG 2, 3.5.2 and 8.6)."""
    return own.get("overflow", "hidden").strip() not in ("visible", "auto")


def _frame_of(element, sized_by, matrix: np.ndarray, port: Viewport, where: str) -> Drawn:
    """Return the rectangle of a nested viewport, in the user units about it."""
    sides = port.frame_of_child(element, sized_by, where=where)
    rect = etree.Element(f"{SVG}rect", {key: f"{side:.17g}" for key, side in zip(("x", "y", "width", "height"), sides, strict=True)})
    return Drawn(rect, matrix, {}, 1.0, where, port)


def _clip_of(text: str, ids: dict, matrix: np.ndarray, port: Viewport, where: str, rules) -> Clip | None:
    """Return the clip that a property names, its shapes in mm; None for one that cannot be read."""
    found = re.match(r"url\(\s*['\"]?#([^'\")]+)", text)
    element = ids.get(found.group(1)) if found else None
    if element is None or _local(element) != "clipPath" or element.get("clipPathUnits") == "objectBoundingBox":
        return None
    shapes = []
    for child in element:
        if _local(child) not in DRAWN:
            return None
        placed = matrix
        for each in (element, child):
            placed = compose(placed, transform_of(resolved(each, {}, rules)[1], port, where=where))
        shapes.append(Drawn(child, placed, resolved(child, {}, rules)[0], 1.0, where, port))
    return Clip(tuple(shapes))


def with_reasons(what: str, left_out: list[str]) -> str:
    """Return what is wrong with a drawing with what of it was left out, as one sentence."""
    return "; ".join([what, *(f"{sentence[0].lower()}{sentence[1:].rstrip('.')}" for sentence in left_out)])


def _tell(left_out: list[str], sentence: str) -> None:
    sentence = sentence[0].upper() + sentence[1:]
    if sentence not in left_out:
        left_out.append(sentence)


def _used(element, ids, matrix, users, port: Viewport, where):
    target_id = _target_of(element)
    target = ids.get(target_id)
    if target is None:
        raise InputError(f"it uses “{target_id}”, which is not in the file", where=where)
    if target_id in users or target in element.iterancestors():
        raise InputError(f"“{target_id}” refers to itself", where=where)
    if len(users) > MOST_DEPTH:
        raise LimitError(f"uses are nested more than {MOST_DEPTH} deep", where=where)
    x, y = (port.length(element, key, where=where) for key in ("x", "y"))
    moved = compose(matrix, np.array([[1.0, 0.0, x], [0.0, 1.0, y]]))
    return target, moved, (*users, target_id)


def _has_parts(element: etree._Element, ids: dict) -> bool:
    """Tell whether an element, or what it uses, draws several things, which may lie over one another."""
    if _local(element) == "use":
        element = ids.get(_target_of(element), element)
    return sum(_local(each) in (*DRAWN, "image", "use") for each in element.iter(f"{SVG}*")) > 1


def _target_of(use: etree._Element) -> str:
    return (use.get("href") or use.get(XLINK_HREF) or "").strip().lstrip("#")


def _tell_lost(style: dict[str, str], name: str, left_out: list[str], *, inked: bool) -> None:
    """Tell what of a shape's style cannot be kept."""
    if name in ("path", "line", "polyline", "polygon") and any(style.get(key, "none") != "none" for key in MARKERS):
        _tell(left_out, f"markers on {name} were left out; draw them as shapes, or lay them as start and end pieces.")
    if inked and style.get("paint-order", "normal").startswith("stroke") and style.get("stroke", "none") != "none" != style.get("fill"):
        _tell(left_out, f"the stroke of a {name} was to lie under its fill; it lies over it here.")
