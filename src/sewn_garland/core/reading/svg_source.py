"""Read SVG text from strangers: parse hardened, refuse what is dangerous, walk what is drawn."""

from __future__ import annotations

import math
import re
from collections.abc import Callable, Iterator
from dataclasses import dataclass
from typing import NamedTuple

import cssselect2
import numpy as np
import tinycss2
from lxml import etree  # pyright: ignore[reportAttributeAccessIssue]  # compiled, without types

from ..errors import InputError, LimitError
from ..maths.affine import IDENTITY, compose

MOST_BYTES = 10 * 1024 * 1024
MOST_DEPTH = 100
MOST_ELEMENTS = 100_000
MOST_EXPANDED = 30_000  # chosen: what expansion may take, about a second and a half
SVG = "{http://www.w3.org/2000/svg}"
XLINK_HREF = "{http://www.w3.org/1999/xlink}href"
MM_PER_UNIT = {"": 25.4 / 96, "px": 25.4 / 96, "mm": 1.0, "cm": 10.0, "in": 25.4, "pt": 25.4 / 72, "pc": 25.4 / 6, "q": 0.25}
LENGTH = re.compile(r"\s*([+-]?(?:\d+\.?\d*|\.\d+)(?:[eE][+-]?\d+)?)\s*([a-zA-Z%]*)\s*")
NEVER_DRAWN = {"defs", "symbol", "clipPath", "mask", "marker", "pattern", "linearGradient", "radialGradient", "filter",
               "metadata", "title", "desc", "style", "switch", "foreignObject"}  # fmt: skip
DRAWN = {"path", "line", "polyline", "polygon", "rect", "circle", "ellipse"}
INHERITED = ("fill", "fill-rule", "fill-opacity", "stroke", "stroke-width", "stroke-opacity", "stroke-linecap", "stroke-linejoin",
             "stroke-miterlimit", "stroke-dasharray", "stroke-dashoffset", "color", "visibility", "clip-rule")  # fmt: skip
OWN = ("display", "opacity", "clip-path", "mask", "filter")


@dataclass(frozen=True)
class Drawn:
    """An element that draws, with its map to mm and its resolved style."""

    element: etree._Element
    matrix: np.ndarray
    style: dict[str, str]
    opacity: float
    where: str
    clips: tuple[Clip, ...] = ()


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
        raise InputError(f"it is not SVG ({_first_sentence(error)})", where=where) from None
    if root.tag != f"{SVG}svg":
        raise InputError("it is not SVG: the outermost element is not svg in the SVG namespace", where=where)
    _refuse_unsafe(root, where)
    return _sized(root, where)


def _first_sentence(error: Exception) -> str:
    return str(error).splitlines()[0][:120] if str(error) else "unreadable"


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


def mm_from_length(text: str | None, *, where: str, relative_to: float | None = None) -> float | None:
    """Read a CSS length as mm (96 px to the inch); None for none, per cent of ``relative_to``."""
    if text is None or not text.strip() or text.strip() == "auto":
        return None
    found = LENGTH.fullmatch(text)
    unit = found.group(2).lower() if found else ""
    if found is not None and unit == "%":
        return None if relative_to is None else float(found.group(1)) / 100 * relative_to
    if found is None or unit not in MM_PER_UNIT:
        raise InputError(f"“{text[:40]}” is not a length that can be read", where=where)
    value = float(found.group(1)) * MM_PER_UNIT[unit]
    if not math.isfinite(value) or abs(value) > 1e9:
        raise InputError(f"“{text[:40]}” is not a finite length", where=where)
    return value


def _sized(root: etree._Element, where: str) -> SvgSource:
    px = MM_PER_UNIT["px"]
    box = _view_box(root, where)
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
    return SvgSource(root, width, height, _fit(box, width, height, root.get("preserveAspectRatio", "")))


def _view_box(element: etree._Element, where: str) -> tuple[float, float, float, float] | None:
    text = element.get("viewBox")
    if text is None:
        return None
    try:
        x, y, w, h = (float(v) for v in re.split(r"[\s,]+", text.strip()))
    except ValueError:
        raise InputError(f"its viewBox “{text[:40]}” is not four numbers", where=where) from None
    if not all(map(math.isfinite, (x, y, w, h))) or max(map(abs, (x, y, w, h))) > 1e9:
        raise InputError("its viewBox has a number that is not finite or beyond 1 000 000 000", where=where)
    if w <= 0 or h <= 0:
        raise InputError("its viewBox has no width or no height", where=where)
    return x, y, w, h


def _fit(box: tuple[float, float, float, float], width: float, height: float, aspect: str) -> np.ndarray:
    """Map a viewBox into width × height as preserveAspectRatio says (default: meet, centred)."""
    sx, sy = width / box[2], height / box[3]
    x_share = y_share = 0.5
    if aspect.strip().startswith("none"):
        return np.array([[sx, 0, -box[0] * sx], [0, sy, -box[1] * sy]])
    x_share = {"xMin": 0.0, "xMax": 1.0}.get(aspect[:4], x_share)
    y_share = {"YMin": 0.0, "YMax": 1.0}.get(aspect[4:8], y_share)
    s = max(sx, sy) if "slice" in aspect else min(sx, sy)
    dx = (width - box[2] * s) * x_share
    dy = (height - box[3] * s) * y_share
    return np.array([[s, 0, dx - box[0] * s], [0, s, dy - box[1] * s]])


# one walk over the tree, whose state (transforms, styles, clips, the budget of uses) would go through every part of it
def drawn_elements(source: SvgSource, left_out: list[str], *, where: str = "the file", pictures: bool = False) -> Iterator[Drawn]:
    """Yield every drawn element in document order, ``use`` expanded, transforms, styles and clips resolved.

    ``pictures`` yields image elements too. What is passed over is told in ``left_out``, a sentence each. Raises InputError for an element
    that refers to itself.
    """
    rules = _style_rules(source.root)
    ids = {e.get("id"): e for e in reversed(list(source.root.iter())) if e.get("id")}
    stack: list[tuple] = [(source.root, source.matrix, {}, 1.0, (), ())]
    wanted = DRAWN | {"image"} if pictures else DRAWN
    budget = max(MOST_EXPANDED, sum(1 for _ in source.root.iter()))
    while stack:
        element, matrix, inherited, opacity, users, clips = stack.pop()
        budget -= 1
        if budget < 0:
            raise LimitError(f"expanded, it has more than {MOST_EXPANDED} elements", where=where)
        name = _local(element)
        place = f"line {element.sourceline}, {name}"
        style, own = _resolved(element, inherited, rules)
        if own.get("display") == "none":
            continue
        if name in NEVER_DRAWN and not (name == "symbol" and users):
            if name in ("foreignObject", "switch"):
                _tell(left_out, f"{name} was left out.")
            continue
        opacity *= share_from_text(own.get("opacity"))
        for effect in ("mask", "filter"):
            if own.get(effect, "none") != "none":
                _tell(left_out, f"a {effect} on {name} was left out; what it hid is shown.")
        if element.get("transform"):
            matrix = compose(matrix, transform_from_text(element.get("transform"), where=f"{where}, {place}"))
        if own.get("clip-path", "none") != "none":
            clip = _clip_of(own["clip-path"], ids, matrix, f"{where}, {place}", rules)
            if clip is None:
                _tell(left_out, f"a clip on {name} was left out; what it hid is shown.")
            else:
                clips = (*clips, clip)
        if name == "svg" and element is not source.root:
            matrix = compose(matrix, _nested(element, where))
        if name == "use":
            stack.append((*_used(element, ids, matrix, style, opacity, users, f"{where}, {place}"), clips))
        elif name in wanted:
            if style.get("visibility", "visible") == "visible":
                yield Drawn(element, matrix, style, opacity, f"{where}, {place}", clips)
        elif name in ("svg", "g", "a", "symbol"):
            stack.extend((child, matrix, style, opacity, users, clips) for child in reversed(element))
        elif element.tag.startswith(SVG):
            _tell(left_out, f"{name} was left out; only shapes are taken.")


def _clip_of(text: str, ids: dict, matrix: np.ndarray, where: str, rules) -> Clip | None:
    """Return the clip that a property names, its shapes in mm; None for one that cannot be read."""
    found = re.match(r"url\(\s*['\"]?#([^'\")]+)", text)
    element = ids.get(found.group(1)) if found else None
    if element is None or _local(element) != "clipPath" or element.get("clipPathUnits") == "objectBoundingBox":
        return None
    shapes = []
    for child in element:
        if _local(child) not in DRAWN:
            return None
        own = matrix
        for transform in (element.get("transform"), child.get("transform")):
            own = compose(own, transform_from_text(transform, where=where)) if transform else own
        shapes.append(Drawn(child, own, _resolved(child, {}, rules)[0], 1.0, where))
    return Clip(tuple(shapes))


def _tell(left_out: list[str], sentence: str) -> None:
    sentence = sentence[0].upper() + sentence[1:]
    if sentence not in left_out:
        left_out.append(sentence)


def _used(element, ids, matrix, style, opacity, users, where):
    target_id = (element.get("href") or element.get(XLINK_HREF) or "").strip().lstrip("#")
    target = ids.get(target_id)
    if target is None:
        raise InputError(f"it uses “{target_id}”, which is not in the file", where=where)
    if target_id in users or target in element.iterancestors():
        raise InputError(f"“{target_id}” refers to itself", where=where)
    if len(users) > MOST_DEPTH:
        raise LimitError(f"uses are nested more than {MOST_DEPTH} deep", where=where)
    x, y = (_user_length(element, key, where) for key in ("x", "y"))
    moved = compose(matrix, np.array([[1.0, 0.0, x], [0.0, 1.0, y]]))
    return target, moved, style, opacity, (*users, target_id)


def _nested(element, where: str) -> np.ndarray:
    x, y = (_user_length(element, key, where) for key in ("x", "y"))
    shift = np.array([[1.0, 0.0, x], [0.0, 1.0, y]])
    box = _view_box(element, where)
    if box is None:
        return shift
    px = MM_PER_UNIT["px"]
    width = (mm_from_length(element.get("width"), where=where) or box[2] * px) / px
    height = (mm_from_length(element.get("height"), where=where) or box[3] * px) / px
    return compose(shift, _fit(box, width, height, element.get("preserveAspectRatio", "")))


def _user_length(element, key: str, where: str) -> float:
    """Read a coordinate attribute in user units; absent is 0."""
    return (mm_from_length(element.get(key), where=f"{where}, {key}") or 0.0) / MM_PER_UNIT["px"]


def share_from_text(text: str | None) -> float:
    """Read an opacity, number or per cent, within 0 and 1."""
    if not text:
        return 1.0
    try:
        value = float(text.strip().rstrip("%")) / (100 if text.strip().endswith("%") else 1)
    except ValueError:
        return 1.0
    return min(1.0, max(0.0, value)) if math.isfinite(value) else 1.0


class StyleRules(NamedTuple):
    """The rules of a drawing's style elements, and its elements as their selectors see them; none where it has no style."""

    match: Callable[[cssselect2.ElementWrapper], list]
    wrapped: dict[etree._Element, cssselect2.ElementWrapper]


def _style_rules(root: etree._Element) -> StyleRules:
    matcher = cssselect2.Matcher()
    for element in root.iter(f"{SVG}style"):
        for rule in tinycss2.parse_stylesheet(element.text or "", skip_comments=True, skip_whitespace=True):
            if rule.type != "qualified-rule":
                continue
            try:
                selectors = cssselect2.compile_selector_list(rule.prelude)
            except cssselect2.SelectorError:
                continue
            declared = _declarations(rule.content)
            for selector in selectors:
                matcher.add_selector(selector, declared)
    if next(root.iter(f"{SVG}style"), None) is None:
        return StyleRules(matcher.match, {})
    elements = cssselect2.ElementWrapper.from_xml_root(root).iter_subtree()
    return StyleRules(matcher.match, {e.etree_element: e for e in elements})


def _declarations(content) -> dict[str, str]:
    parsed = tinycss2.parse_blocks_contents(content)
    return {d.lower_name: tinycss2.serialize(d.value).strip() for d in parsed if d.type == "declaration"}


def _resolved(element, inherited: dict[str, str], rules) -> tuple[dict[str, str], dict[str, str]]:
    """Return the inherited style below this element and its own properties that do not inherit."""
    given = {key: element.get(key) for key in (*INHERITED, *OWN) if element.get(key) is not None}
    wrapped = rules.wrapped.get(element)
    if wrapped is not None:
        for *_, declared in sorted(rules.match(wrapped), key=lambda m: m[:2]):
            given.update(declared)
    if element.get("style"):
        given.update(_declarations(element.get("style")))
    style = dict(inherited)
    style.update({k: v for k, v in given.items() if k in INHERITED and v != "inherit"})
    return style, {k: v for k, v in given.items() if k in OWN}


TRANSFORM = re.compile(r"[\s,]*(matrix|translate|scale|rotate|skewX|skewY)\s*\(([^()]*)\)")


def transform_from_text(text: str, *, where: str) -> np.ndarray:
    """Read an SVG transform list into a 2 × 3 affine; empty is the identity."""
    matrix, at, text = IDENTITY, 0, text.strip()
    while at < len(text):
        found = TRANSFORM.match(text, at)
        if not found:
            raise InputError(f"transform “{text[at : at + 24]}” cannot be read", where=where)
        try:
            values = [float(v) for v in re.split(r"[\s,]+", found.group(2).strip()) if v]
            matrix = compose(matrix, _one_transform(found.group(1), values))
        except (ValueError, TypeError, KeyError, IndexError):
            raise InputError(f"transform “{found.group(0).strip()[:40]}” has the wrong numbers", where=where) from None
        at = found.end()
    if not np.isfinite(matrix).all() or np.abs(matrix).max() > 1e12:
        raise InputError("a transform is not finite", where=where)
    return matrix


def _one_transform(name: str, v: list[float]) -> np.ndarray:
    allowed = {"matrix": (6,), "translate": (1, 2), "scale": (1, 2), "rotate": (1, 3), "skewX": (1,), "skewY": (1,)}
    if len(v) not in allowed[name]:
        raise ValueError(name)
    if name == "matrix":
        return np.array([[v[0], v[2], v[4]], [v[1], v[3], v[5]]])
    if name == "translate":
        return np.array([[1.0, 0.0, v[0]], [0.0, 1.0, v[1] if len(v) > 1 else 0.0]])
    if name == "scale":
        return np.array([[v[0], 0.0, 0.0], [0.0, v[-1], 0.0]])
    angle = math.radians(v[0])
    if name == "rotate":
        cos, sin = math.cos(angle), math.sin(angle)
        x, y = v[1:] if len(v) == 3 else (0.0, 0.0)
        return np.array([[cos, -sin, x - cos * x + sin * y], [sin, cos, y - sin * x - cos * y]])
    tan = math.tan(angle)
    return np.array([[1.0, tan, 0.0], [0.0, 1.0, 0.0]]) if name == "skewX" else np.array([[1.0, 0.0, 0.0], [tan, 1.0, 0.0]])
