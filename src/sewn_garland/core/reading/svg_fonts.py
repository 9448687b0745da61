"""What a style says of its letters: size, weight and family as CSS Fonts 4 has them, lengths in user units."""

from __future__ import annotations

import math
import re

import tinycss2

from .svg_viewports import LENGTH, MM_PER_UNIT

MEDIUM = 16.0  # user units: what browsers take for a font-size of medium
SIZES = {"xx-small": 0.6, "x-small": 0.75, "small": 8 / 9, "medium": 1.0, "large": 1.2, "x-large": 1.5, "xx-large": 2.0, "xxx-large": 3.0}
STEP, EX_PER_EM = 1.2, 0.5
WEIGHTS = {"normal": 400.0, "bold": 700.0}
FONT_WORDS = {"italic": "font-style", "oblique": "font-style", "small-caps": "font-variant", "bold": "font-weight",
              "bolder": "font-weight", "lighter": "font-weight"}  # fmt: skip


def font_size(text: str, inherited: float) -> float:
    """Return a font-size in user units; what cannot be read, or is no size, leaves the inherited one."""
    word = text.strip().lower()
    if word in SIZES:
        return SIZES[word] * MEDIUM
    if word in ("larger", "smaller"):
        return inherited * (STEP if word == "larger" else 1 / STEP)
    size = length_in_em(word, inherited, of_percent=inherited)
    return inherited if size is None or size < 0 else size


def length_in_em(text: str, em: float, *, of_percent: float) -> float | None:
    """Return a length in user units that may be told in em, ex, rem or per cent; None where it cannot be read or is not finite."""
    found = LENGTH.fullmatch(text)
    if found is None:
        return None
    units = {"em": em, "ex": EX_PER_EM * em, "ch": EX_PER_EM * em, "rem": MEDIUM, "%": of_percent / 100}
    per_unit = MM_PER_UNIT.get(found.group(2).lower())
    unit = units.get(found.group(2).lower()) if per_unit is None else per_unit / MM_PER_UNIT["px"]
    value = float(found.group(1)) * unit if unit is not None else math.nan
    return value if math.isfinite(value) and abs(value) < 1e9 else None


def font_weight(text: str, inherited: float) -> float:
    """Return a font-weight from 1 to 1000; bolder and lighter go by the inherited one (CSS Fonts 4, 2.2.1)."""
    word = text.strip().lower()
    if word == "bolder":
        return 400.0 if inherited < 350 else 700.0 if inherited < 550 else 900.0 if inherited < 900 else inherited
    if word == "lighter":
        return inherited if inherited < 100 else 100.0 if inherited < 550 else 400.0 if inherited < 750 else 700.0
    if re.fullmatch(r"\d{1,4}(\.\d+)?", word) and 1 <= float(word) <= 1000:
        return float(word)
    return WEIGHTS.get(word, inherited)


def families(text: str) -> list[str]:
    """Return the names of a font-family list, as written but for quotes and doubled spaces."""
    return [name for part in text.split(",") if (name := re.sub(r"\s+", " ", part.strip().strip("\"'").strip()))]


def from_shorthand(text: str) -> dict[str, str]:
    """Return what the font shorthand sets, all that it leaves out as ``normal``; nothing for one that has no size and family."""
    tokens = [t for t in tinycss2.parse_component_value_list(text) if t.type not in ("whitespace", "comment")]
    given = {"font-style": "normal", "font-weight": "normal", "font-variant": "normal"}
    for at, token in enumerate(tokens):
        word = tinycss2.serialize([token]).lower()
        if word in FONT_WORDS:
            given[FONT_WORDS[word]] = word
        elif re.fullmatch(r"\d{1,4}(\.\d+)?", word):
            given["font-weight"] = word
        elif token.type in ("dimension", "percentage") or word in SIZES or word in ("larger", "smaller"):
            rest = tokens[at + 1 :]
            if rest and rest[0] == "/":
                rest = rest[2:]
            family = " ".join(tinycss2.serialize([t]) for t in rest)
            return {**given, "font-size": word, "font-family": family} if family else {}
    return {}
