"""Parts that lie under the neighbours, and parts divided so that a motif interlocks with itself."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace
from functools import lru_cache

import numpy as np
import shapely
from shapely.affinity import translate

from ..artwork.box import box_of
from ..artwork.fills import as_fills
from ..artwork.silhouette import rough_silhouette
from ..errors import InputError
from ..maths.booleans import combined, rectangle
from ..maths.outlines import Outline, joined
from ..values.motif import Lies, Motif, Shape, see_through
from .parts import chosen, with_parts
from .shading import inset

LAP_SHARE = 0.12  # of the shorter side of what interlocks, that a part under goes on below its rest; chosen: a pixel where it is 8 high
LAP_INSET_SHARES = {"under": 0.08, "over": 0.02}  # of that, how far within its rim: one that is painted twice would be seen to be bolder


def lying(motif: Motif, parts: Sequence[int], *, lies: Lies) -> Motif:
    """Lay parts over the neighbouring pieces, under them, or half over and half under. Raises InputError for a picture to divide."""
    if lies == "interlocked" and any(s.picture is not None for s in chosen(motif, parts)):
        raise InputError("a picture cannot be divided to interlock; trace it first, or lay it under its neighbours as a whole")
    return with_parts(motif, parts, lambda s: replace(s, lies=lies))


@lru_cache(maxsize=128)
def divided(motif: Motif) -> Motif:
    """Return a motif whose interlocked parts are divided, so that each lies over the neighbours or under them; itself without any.

    What lies in the right half above a height, and in the left half below it, comes to lie under. Then neighbours that overlap
    go over one another above that height and under below it, whichever is painted first. Never raises.
    """
    own = [i for i, s in enumerate(motif.shapes) if s.lies == "interlocked" and s.picture is None]
    if not own:
        return motif
    (x0, _), (x1, _) = motif.joint_points
    centre = ((x0 + x1) / 2, _height_between(motif, own))
    left, top, right, bottom = box_of([motif.shapes[i] for i in own])
    box = np.array([[left - 1, top - 1], [right + 1, bottom + 1]])
    lap, opaque = LAP_SHARE * min(right - left, bottom - top), 0
    shapes: list[Shape] = []
    for i, shape in enumerate(motif.shapes):
        halves: list[Shape] = []
        for part in as_fills(shape) if i in own else []:
            opaque += not see_through(part)
            over = lap / 2 * max(0, opaque - 1) / len(own)  # no lower one shows where one ends; what is seen through ends with it
            try:
                halves += _halves(part, box, centre, {"under": lap, "over": over})
            except InputError:  # what the engine cannot divide lies over as a whole
                halves.append(part)
        shapes += halves or [shape]
    return replace(motif, shapes=tuple(shapes))


def _height_between(motif: Motif, own: Sequence[int]) -> float:
    """Return the height at which interlocked parts are divided: the joints', unless these do not lie between two places where
    neighbours overlap while others do.
    """
    standard = float(np.mean([y for _, y in motif.joint_points]))
    covered = rough_silhouette(replace(motif, shapes=tuple(motif.shapes[i] for i in own)))
    shared = [part for part in shapely.get_parts(shapely.intersection(covered, translate(covered, motif.pitch))) if shapely.area(part) > 0]
    reaches = sorted((low + motif.base_line, high + motif.base_line) for _, low, _, high in shapely.bounds(shared).reshape(-1, 4).tolist())
    gaps, foot = [], -np.inf
    for low, high in reaches:
        if -np.inf < foot < low:
            gaps.append((foot, low))
        foot = max(foot, high)
    if not gaps or any(low <= standard <= high for low, high in gaps):
        return standard
    low, high = max(gaps, key=lambda gap: gap[1] - gap[0])
    return (low + high) / 2


def _halves(part: Shape, box: np.ndarray, centre: tuple[float, float], laps: dict[Lies, float]) -> list[Shape]:
    """Return a filled part in two: what lies under, then what lies over; a half without anything is left out.

    Each laps the other by so many mm, a little within its rim; what is seen through laps by exactly what lies over below it.
    """
    own = (part.commands, part.points, part.fill_rule)
    clear = see_through(part)
    out = []
    for lies, lap in laps.items():
        rising = lies == "under"
        edge = lap if clear and not rising else 0.0
        commands, points = combined([own, (*_quarters(box, centre, rising=rising, lap=edge), "nonzero")], "overlap")
        if commands and lap and not clear:
            lapped = (*_quarters(box, centre, rising=rising, lap=lap), "nonzero")
            within = combined([inset(own, LAP_INSET_SHARES[lies] * lap), lapped], "overlap")
            commands, points = combined([(commands, points, "nonzero"), (*within, "nonzero")], "join")
        if commands:
            out.append(replace(part, commands=commands, points=points, fill_rule="nonzero", lies=lies, half=True, derived=False))
    return out


def _quarters(box: np.ndarray, centre: tuple[float, float], *, rising: bool, lap: float = 0.0) -> Outline:
    """Return two opposite quarters of a box [[left, top], [right, bottom]] about a centre, those at a rising diagonal or the others.

    They reach ``lap`` mm over the lines that divide them from the others.
    """
    (left, top), (right, bottom), (x, y) = *box, centre
    if rising:
        return joined([rectangle(x - lap, top, right, y + lap), rectangle(left, y - lap, x + lap, bottom)])
    return joined([rectangle(left, top, x + lap, y + lap), rectangle(x - lap, y - lap, right, bottom)])
