"""Text of a drawing as outlines of the fonts that ship: SVG 2, chapter 11, set in lines from left to right."""

from __future__ import annotations

import re
from collections.abc import Callable, Iterator
from dataclasses import dataclass
from itertools import pairwise
from typing import NamedTuple

import numpy as np
from lxml import etree  # pyright: ignore[reportAttributeAccessIssue]  # compiled, without types

from ..maths.outlines import joined
from .letters import NAMES, Face, set_letters, shipped_family
from .svg_fonts import MEDIUM, families, length_in_em
from .svg_style import SVG, StyleRules, resolved, share_from_text
from .svg_viewports import Viewport

GENERIC = {"sans-serif": "hanken grotesk", "system-ui": "hanken grotesk", "ui-sans-serif": "hanken grotesk",
           "serif": "source serif 4", "ui-serif": "source serif 4"}  # fmt: skip
ANCHORS = {"middle": 0.5, "end": 1.0}
PLACED = ("x", "y", "dx", "dy", "rotate")
XML_SPACE = "{http://www.w3.org/XML/1998/namespace}space"
Tell = Callable[[str], None]


class Styled(NamedTuple):
    """What holds for the characters of a text or a part of it."""

    style: dict[str, str]
    opacity: float
    keeps_spaces: bool


class Span(NamedTuple):
    """A part of a text, whose letters lie where they are drawn, in the text's user units."""

    commands: str
    points: np.ndarray
    style: dict[str, str]
    opacity: float


@dataclass(eq=False)
class _Character:
    """A character with how it looks and where it is told to be; its place on the line it is set on."""

    letter: str
    styled: Styled
    x: float | None = None
    y: float | None = None
    dx: float = 0.0
    dy: float = 0.0
    rotate: float = 0.0
    turned: bool = False

    @property
    def begins(self) -> bool:
        """Tell whether a line begins here, which is set by itself about its anchor."""
        return self.x is not None or self.y is not None

    @property
    def told(self) -> bool:
        """Tell whether the letter is put in its own place, so that it hangs together with none before it."""
        return self.begins or self.dx != 0 or self.dy != 0 or self.turned


def spans_of(text: etree._Element, style: dict[str, str], rules: StyleRules, port: Viewport, tell: Tell) -> Iterator[Span]:
    """Yield the outlines of a text element whose resolved style is given, a span for what looks alike and lies together.

    What cannot be set is told, a sentence each: fonts that do not ship, letters that they have not, text on a path or downward.
    """
    for kind, said in (("textPath", "text along a path"), ("tref", "text from elsewhere")):
        if next(text.iter(f"{SVG}{kind}"), None) is not None:
            tell(f"{said} was left out; turn it into outlines before the drawing is saved.")
    if style.get("writing-mode", "").startswith(("vertical", "tb")) or style.get("direction") == "rtl":
        tell("text that does not run from left to right was left out; turn it into outlines before the drawing is saved.")
        return
    at = np.zeros(2)
    for line in _lines(_characters(text, style, rules, port, tell)):
        spans, at = _set(line, at, tell)
        yield from spans


def _characters(text: etree._Element, style: dict[str, str], rules: StyleRules, port: Viewport, tell: Tell) -> list[_Character]:
    """Return the characters that are left of a text when white space is collapsed, each where its elements tell it to be."""
    every: list[_Character] = []
    ranges: list[tuple[etree._Element, float, int, int]] = []
    _gather(text, Styled(style, 1.0, _keeps_spaces(text, style, False)), rules, every, ranges, tell)
    kept = _collapsed(every)
    place = {id(c): k for k, c in enumerate(kept)}
    for element, em, a, b in sorted(ranges, key=lambda r: r[2] - r[3]):  # what is inside another tells after it
        own = [kept[place[id(c)]] for c in every[a:b] if id(c) in place]
        for key in PLACED:
            values = _numbers(element.get(key, ""), key, em, port)
            values += values[-1:] * (len(own) - len(values)) if key == "rotate" else []
            for character, value in zip(own, values, strict=False):
                setattr(character, key, value)
                character.turned |= key == "rotate"
    return kept


def _gather(element, styled: Styled, rules, every: list[_Character], ranges: list, tell: Tell) -> None:
    start = len(every)
    every += [_Character(c, styled) for c in element.text or ""]
    for child in element:
        name = etree.QName(child).localname
        if name in ("tspan", "a"):
            style, own = resolved(child, styled.style, rules)
            if own.get("display") != "none":
                shown = Styled(
                    style, styled.opacity * share_from_text(own.get("opacity")), _keeps_spaces(child, style, styled.keeps_spaces)
                )
                _gather(child, shown, rules, every, ranges, tell)
        every += [_Character(c, styled) for c in child.tail or ""]
    if element.get("textLength"):
        tell("the width that text was to fill was left out; letters lie as their font spaces them.")
    ranges.append((element, float(styled.style.get("font-size", MEDIUM)), start, len(every)))


def _keeps_spaces(element, style: dict[str, str], inherited: bool) -> bool:
    if style.get("white-space", "").startswith(("pre", "break-spaces")):
        return True
    space = element.get(XML_SPACE)
    return inherited if space is None else space == "preserve"


def _collapsed(characters: list[_Character]) -> list[_Character]:
    """Return the characters without the spaces that count for nothing; line breaks and tabs are spaces."""
    kept: list[_Character] = []
    for c in characters:
        c.letter = " " if c.letter in "\t\n\r" else c.letter
        after_space = not kept or kept[-1].letter == " "
        if c.letter != " " or c.styled.keeps_spaces or not after_space:
            kept.append(c)
    while kept and kept[-1].letter == " " and not kept[-1].styled.keeps_spaces:
        kept.pop()
    return kept


def _numbers(text: str, key: str, em: float, port: Viewport) -> list[float]:
    of = {"x": port.width, "dx": port.width, "y": port.height, "dy": port.height}.get(key, 0.0)
    values = [length_in_em(part, em, of_percent=of) for part in re.split(r"[\s,]+", text.strip()) if part]
    return [v for v in values if v is not None]


def _lines(characters: list[_Character]) -> Iterator[list[_Character]]:
    starts = [i for i, c in enumerate(characters) if i == 0 or c.begins]
    for a, b in pairwise([*starts, len(characters)]):
        yield characters[a:b]


def _set(line: list[_Character], at: np.ndarray, tell: Tell) -> tuple[list[Span], np.ndarray]:
    """Set the characters of a line from a place on; return its spans, shifted so that its anchor lies where it begins, and its end."""
    first = line[0]
    begins = at = np.array([at[0] if first.x is None else first.x, at[1] if first.y is None else first.y])
    spans: list[Span] = []
    for run in _runs(line):
        at = np.add(at, (run[0].dx, run[0].dy))
        span, advance = _run_set(run, at, tell)
        if spans and (spans[-1].style, spans[-1].opacity) == (span.style, span.opacity):
            span = span._replace(commands=spans[-1].commands + span.commands, points=np.concatenate([spans.pop().points, span.points]))
        spans += [span] if span.commands else []
        at = np.add(at, (advance, 0.0))
    shift = (ANCHORS.get(first.styled.style.get("text-anchor", ""), 0.0) * (begins - at)[0], 0.0)
    return [span._replace(points=span.points + shift) for span in spans], at


def _runs(line: list[_Character]) -> Iterator[list[_Character]]:
    starts = [i for i, c in enumerate(line) if i == 0 or c.told or c.styled is not line[i - 1].styled]
    for a, b in pairwise([*starts, len(line)]):
        yield line[a:b]


def _run_set(run: list[_Character], at: np.ndarray, tell: Tell) -> tuple[Span, float]:
    """Return the span of characters that hang together, and how far they reach; empty where their font does not ship."""
    style, opacity, _ = run[0].styled
    empty = Span("", np.zeros((0, 2)), style, opacity)
    face = _face(style, tell)
    if face is None:
        return empty, 0.0
    em = float(style.get("font-size", MEDIUM))
    apart, between_words = (length_in_em(style.get(key, "0"), em, of_percent=em) or 0.0 for key in ("letter-spacing", "word-spacing"))
    text = "".join(_cased(c.letter, style) for c in run)
    letters, lost = set_letters(text, face, ligatures=apart == 0)
    for letter in sorted(lost):
        tell(f"“{letter}” was left out of text: {NAMES[face.family]} has no such letter.")
    turn, x, outlines = np.radians(run[0].rotate), 0.0, []
    cos, sin = np.cos(turn), np.sin(turn)
    for letter in letters:
        commands, points = letter.outline
        own = (points + letter.offset) * em
        if commands:
            outlines.append((commands, own @ np.array([[cos, sin], [-sin, cos]]) + at + (x, 0.0)))
        x += letter.advance * em + apart + (between_words if text[letter.at] == " " else 0.0)
    commands, points = joined(outlines)
    return Span(commands, points, style, opacity), x


def _cased(letter: str, style: dict[str, str]) -> str:
    changed = {"uppercase": letter.upper(), "lowercase": letter.lower()}.get(style.get("text-transform", ""), letter)
    return changed if len(changed) == 1 else letter


def _face(style: dict[str, str], tell: Tell) -> Face | None:
    """Return the face that a style asks for, the first of its families that ships; None, and told, where none does."""
    if style.get("font-variant", "normal") not in ("normal", "none"):
        tell("small capitals of text are set as it is written.")
    asked = families(style.get("font-family", "serif")) or ["serif"]
    found = next((f for name in asked if (f := shipped_family(name) or GENERIC.get(name.lower()))), None)
    if found is None:
        instead = " or ".join(NAMES.values())
        tell(f"text in {asked[0][:60]} was left out: that font is not here; turn the text into outlines first, or set it in {instead}.")
        return None
    if shipped_family(asked[0]) is None and asked[0].lower() not in GENERIC:
        tell(f"text in {asked[0][:60]} is set in {NAMES[found]}, which the drawing names next: the first is not here.")
    return Face(found, float(style.get("font-weight", 400.0)), style.get("font-style", "normal").startswith(("italic", "oblique")))
