"""Corner pieces made from a repeat, in several ways to choose from."""

from __future__ import annotations

from dataclasses import replace
from typing import Literal, get_args

import numpy as np

from .errors import CoreError, InputError
from .inspecting.bends import reach_across
from .making.corners import Side, corner_across, corner_from_repeat, lapped_corner
from .making.parts import checked_size
from .measuring.arc_length import measure
from .picking import shapes_drawn
from .pipeline import lay
from .reading.svg_lines import line_from_path_data
from .values.brush import Brush
from .values.laid import LaidLine
from .values.motif import Motif, mapped

CornerWay = Literal["mitre", "lap", "bend", "across"]
CORNER_WAYS: tuple[CornerWay, ...] = get_args(CornerWay)
MOST_ROUND = 12  # repeats round a quarter turn


def corner_made(repeat: Motif, side: Side, way: CornerWay) -> Motif:
    """Make a piece for a right-angled corner from the repeat.

    ``mitre``: both legs cut on the bisector; ``lap``: one runs through, the other ends against it;
    ``bend``: whole repeats bent round the turn, as few as do not fold; ``across``: the repeat stands over
    the corner. Raises InputError where the repeat cannot be made into such a corner.
    """
    ways = {"mitre": corner_from_repeat, "lap": lapped_corner, "bend": _bent_corner, "across": corner_across}
    return checked_size(ways[way](repeat, side))


def corner_proposals(repeat: Motif, side: Side) -> dict[CornerWay, Motif]:
    """Return the corner pieces that can be made from a repeat, by their way."""
    made = {}
    for way in CORNER_WAYS:
        try:
            made[way] = corner_made(repeat, side, way)
        except CoreError:
            continue
    return made


def on_a_corner(repeat: Motif, corner: Motif, side: Side) -> tuple[LaidLine, tuple[float, float, float, float]]:
    """Lay a corner piece with two repeats on each leg, to be looked at; return it and the box it lies in (left, top, right, bottom, mm)."""
    leg = corner.width + 2 * repeat.width
    path = f"M0 0H{leg!r}V{leg!r}" if side == "outside" else f"M0 0H{leg!r}V{-leg!r}"
    plain = replace(repeat, cuts=None, joints=None)
    brush = Brush("", (plain,), **{f"{side}_piece": corner, f"{side}_corner": "piece"}, rest="start")
    above, below = repeat.base_line, repeat.height - repeat.base_line
    top, foot = (-above, leg) if side == "outside" else (-leg, below)
    right = leg + (above if side == "outside" else below)
    return lay(brush, [measure(line_from_path_data(path))])[0], (leg - corner.width - 1.5 * repeat.width, top, right, foot)


def _bent_corner(repeat: Motif, side: Side) -> Motif:
    """Bend whole repeats round a quarter of a circle; each keeps its length on the base line."""
    plain = replace(repeat, cuts=None, joints=None, recipes=())
    left, right = reach_across(Brush("", (plain,)))
    inner = right if side == "outside" else -left
    count = next((n for n in range(1, MOST_ROUND + 1) if 2 * n * repeat.width / np.pi > 1.05 * inner), None)
    if count is None:
        raise InputError("the repeat is too high for its length to be bent round a corner; mitre it instead")
    r = 2 * count * repeat.width / np.pi
    path = f"M0 0A{r!r} {r!r} 0 0 1 {r!r} {r!r}" if side == "outside" else f"M0 0A{r!r} {r!r} 0 0 0 {r!r} {-r!r}"
    laid = lay(Brush("", (plain,), round_bends="bent", ease="length"), [measure(line_from_path_data(path))])[0]
    base = repeat.base_line if side == "outside" else r
    shapes = tuple(mapped(s, np.array([[1.0, 0.0, 0.0], [0.0, 1.0, base]])) for s in shapes_drawn((plain,), laid, range(count)))
    reach = repeat.base_line if side == "outside" else repeat.height - repeat.base_line
    return Motif(shapes, r + reach, r + reach, base)
