"""Which style holds for an element of a drawing: its attributes, the style elements, its own style (CSS Cascading and Inheritance 4)."""

from __future__ import annotations

import math
from collections.abc import Callable
from typing import NamedTuple

import cssselect2
import tinycss2
from lxml import etree  # pyright: ignore[reportAttributeAccessIssue]  # compiled, without types

from .svg_fonts import MEDIUM, WEIGHTS, font_size, font_weight, from_shorthand
from .svg_transforms import PROPERTIES

SVG = "{http://www.w3.org/2000/svg}"
INHERITED = (
    "fill", "fill-rule", "fill-opacity", "stroke", "stroke-width", "stroke-opacity", "stroke-linecap", "stroke-linejoin",
    "stroke-miterlimit", "stroke-dasharray", "stroke-dashoffset", "color", "visibility", "clip-rule", "paint-order",
    "marker", "marker-start", "marker-mid", "marker-end", "data-lies",
    "font-family", "font-size", "font-style", "font-weight", "font-variant", "letter-spacing", "word-spacing",
    "text-anchor", "text-transform", "white-space", "writing-mode", "direction",
)  # fmt: skip
IN_CSS_ALONE = ("translate", "rotate", "scale")
OWN = ("display", "opacity", "clip-path", "mask", "filter", "overflow", *PROPERTIES)


class StyleRules(NamedTuple):
    """The rules of a drawing's style elements, and its elements as their selectors see them; none where it has no style."""

    match: Callable[[cssselect2.ElementWrapper], list]
    wrapped: dict[etree._Element, cssselect2.ElementWrapper]


def style_rules(root: etree._Element) -> StyleRules:
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
    declared: dict[str, str] = {}
    for d in tinycss2.parse_blocks_contents(content):
        if d.type == "declaration":
            value = tinycss2.serialize(d.value).strip()
            declared.update(from_shorthand(value) if d.lower_name == "font" else {d.lower_name: value})
    return declared


def resolved(element, inherited: dict[str, str], rules: StyleRules) -> tuple[dict[str, str], dict[str, str]]:
    """Return the inherited style below this element and its own properties that do not inherit."""
    given = {key: element.get(key) for key in (*INHERITED, *OWN) if key not in IN_CSS_ALONE and element.get(key) is not None}
    wrapped = rules.wrapped.get(element)
    if wrapped is not None:
        for *_, declared in sorted(rules.match(wrapped), key=lambda m: m[:2]):
            given.update(declared)
    if element.get("style"):
        given.update(_declarations(element.get("style")))
    style = dict(inherited)
    style.update({k: v for k, v in given.items() if k in INHERITED and v != "inherit"})
    if "font-size" in given:
        style["font-size"] = repr(font_size(given["font-size"], float(inherited.get("font-size", MEDIUM))))
    if "font-weight" in given:
        style["font-weight"] = repr(font_weight(given["font-weight"], float(inherited.get("font-weight", WEIGHTS["normal"]))))
    return style, {k: v for k, v in given.items() if k in OWN}


def share_from_text(text: str | None) -> float:
    """Read an opacity, number or per cent, within 0 and 1."""
    if not text:
        return 1.0
    try:
        value = float(text.strip().rstrip("%")) / (100 if text.strip().endswith("%") else 1)
    except ValueError:
        return 1.0
    return min(1.0, max(0.0, value)) if math.isfinite(value) else 1.0
