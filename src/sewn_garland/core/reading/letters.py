"""Letters of the fonts that ship, set as outlines: shaped by HarfBuzz, kerned and with ligatures, at any weight of a variable font."""

from __future__ import annotations

from functools import cache, lru_cache
from importlib.resources import files
from io import BytesIO
from itertools import pairwise
from typing import Any, NamedTuple

import numpy as np
import uharfbuzz
from fontTools.pens.recordingPen import RecordingPen
from fontTools.ttLib import TTFont

from ..maths.booleans import combined
from ..maths.outlines import Outline, joined

hb: Any = uharfbuzz  # compiled, without types
STEMS = {"hanken grotesk": "hanken-grotesk", "source serif 4": "source-serif-4"}
NAMES = {"hanken grotesk": "Hanken Grotesk", "source serif 4": "Source Serif 4"}
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
    return plain if plain in STEMS else None


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
    name = f"{STEMS[family]}-{subset}-wght-{'italic' if italic else 'normal'}.woff2"
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


@lru_cache(maxsize=4096)
def _outline(face: Face, subset: str, glyph: int) -> Outline:
    """Return a glyph's outline in em about its origin, y down: what its contours cover together."""
    pen = RecordingPen()
    _font(face, subset).draw_glyph_with_pen(glyph, pen)
    upem = _typeface(face.family, face.italic, subset).upem
    parts: list[Outline] = []
    commands, points = "", []
    for verb, places in pen.value:
        if verb == "moveTo":
            commands, points = "M", [places[0]]
        elif verb == "lineTo":
            commands, points = commands + "L", [*points, places[0]]
        elif verb == "qCurveTo":
            for control, end in _quadratics(places):
                start = np.array(points[-1], float)
                control, end = np.array(control, float), np.array(end, float)
                commands, points = commands + "C", [*points, start + (control - start) * 2 / 3, end + (control - end) * 2 / 3, end]
        elif verb == "curveTo":
            commands, points = commands + "C", [*points, *places]
        elif points:
            parts.append((commands + "Z", np.array(points, float) / upem * (1, -1)))
    commands, points = joined(parts)
    return combined([(commands, points, "nonzero")] * 2, "join") if commands else (commands, points)


def _quadratics(places: tuple) -> list[tuple]:
    """Return the quadratic curves of a chain of controls, whose ends between lie half-way from one control to the next."""
    *controls, end = places
    middles = [((a[0] + b[0]) / 2, (a[1] + b[1]) / 2) for a, b in pairwise(controls)]
    return list(zip(controls, [*middles, end], strict=True))
