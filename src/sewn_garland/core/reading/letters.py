"""Letters of the fonts that ship, set as outlines: shaped by HarfBuzz, kerned and with ligatures, at any weight of a variable font."""

from __future__ import annotations

from functools import cache, lru_cache
from importlib.resources import files
from io import BytesIO
from itertools import pairwise
from typing import Any, NamedTuple

import numpy as np
import uharfbuzz
from fontTools.pens.basePen import BasePen
from fontTools.ttLib import TTFont

from ..maths.booleans import combined
from ..maths.outlines import Outline

hb: Any = uharfbuzz  # compiled, without types
NAMES = {name.lower(): name for name in ("Hanken Grotesk", "Source Serif 4")}
SUBSETS = ("latin", "latin-ext")  # a font's files, each with letters of its own


class Face(NamedTuple):
    """One of the fonts that ship, by its name in small letters, at a weight from 1 to 1000."""

    family: str
    weight: float = 400.0
    italic: bool = False


class Letter(NamedTuple):
    """A glyph of a text that is set: its outline about its origin in em, y down; its advance in em; which character it begins with."""

    outline: Outline
    offset: tuple[float, float]
    advance: float
    at: int


def shipped_family(name: str) -> str | None:
    """Return the name, in small letters, of a font that ships, with or without “Variable” behind it; None for any other."""
    plain = " ".join(name.lower().split()).removesuffix(" variable")
    return plain if plain in NAMES else None


def set_letters(text: str, face: Face, *, ligatures: bool = True) -> tuple[list[Letter], set[str]]:
    """Set a text in a line from left to right; return its letters, and which characters the font has not and are left out."""
    letters: list[Letter] = []
    lost: set[str] = set()
    for start, part, subset in _by_subset(text, face):
        if subset is None:
            lost.update(part)
            continue
        font, upem = _font(face, subset), _typeface(face.family, face.italic, subset).upem
        buffer = hb.Buffer()
        buffer.add_str(part)
        buffer.guess_segment_properties()
        buffer.direction = "ltr"
        hb.shape(font, buffer, {} if ligatures else {"liga": False, "clig": False})
        for info, place in zip(buffer.glyph_infos, buffer.glyph_positions, strict=True):
            offset = (place.x_offset / upem, -place.y_offset / upem)
            letters.append(Letter(_outline(face, subset, info.codepoint), offset, place.x_advance / upem, start + info.cluster))
    return letters, lost


def _by_subset(text: str, face: Face) -> list[tuple[int, str, str | None]]:
    """Return the stretches of a text that one file has letters for: where each starts, itself, and the file; None where no file has."""
    has = [next((s for s in SUBSETS if ord(c) in _typeface(face.family, face.italic, s).letters), None) for c in text]
    starts = [i for i in range(len(text)) if i == 0 or has[i] != has[i - 1]]
    return [(a, text[a:b], has[a]) for a, b in pairwise([*starts, len(text)])]


class _Typeface(NamedTuple):
    face: Any
    upem: int
    letters: frozenset[int]


@cache
def _typeface(family: str, italic: bool, subset: str) -> _Typeface:
    name = f"{family.replace(' ', '-')}-{subset}-wght-{'italic' if italic else 'normal'}.woff2"
    font = TTFont(BytesIO((files(__package__ or "") / "fonts" / name).read_bytes()))
    letters = frozenset(font.getBestCmap() or ())
    font.flavor = None
    plain = BytesIO()
    font.save(plain)
    face = hb.Face(plain.getvalue())
    return _Typeface(face, face.upem, letters)


@lru_cache(maxsize=64)
def _font(face: Face, subset: str) -> Any:
    font = hb.Font(_typeface(face.family, face.italic, subset).face)
    font.set_variations({"wght": face.weight})
    return font


class _OutlinePen(BasePen):
    """Draw a glyph as an outline out of M L C Z; quadratic curves come as cubics."""

    def __init__(self) -> None:
        super().__init__(None)
        self.commands, self.points = "", []

    def _moveTo(self, pt) -> None:
        self._draw("M", pt)

    def _lineTo(self, pt) -> None:
        self._draw("L", pt)

    def _curveToOne(self, pt1, pt2, pt3) -> None:
        self._draw("C", pt1, pt2, pt3)

    def _closePath(self) -> None:
        self._draw("Z")

    def _draw(self, command: str, *points) -> None:
        self.commands += command
        self.points += points


@lru_cache(maxsize=4096)
def _outline(face: Face, subset: str, glyph: int) -> Outline:
    """Return a glyph's outline in em about its origin, y down: what its contours cover together."""
    pen = _OutlinePen()
    _font(face, subset).draw_glyph_with_pen(glyph, pen)
    if not pen.commands:
        return "", np.zeros((0, 2))
    points = np.array(pen.points, float) / _typeface(face.family, face.italic, subset).upem * (1, -1)
    return combined([(pen.commands, points, "nonzero")] * 2, "join")
