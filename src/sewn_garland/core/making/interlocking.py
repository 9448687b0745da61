"""Parts that lie under the neighbours, and parts divided so that a motif interlocks with itself."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace

import numpy as np

from ..artwork.fills import as_fills
from ..errors import InputError
from ..maths.booleans import combined, rectangle
from ..maths.bounds import outline_box
from ..maths.outlines import Outline, joined
from ..values.motif import Motif, Shape, fill_of
from .parts import checked_size, chosen, with_parts
from .shading import inset

LAP_SHARE = 0.12  # of a part's shorter side, that what lies under goes on below the rest of it; chosen: a pixel where it is 8 pixels high
LAP_INSET_SHARE = 0.08  # of that, how far within its rim: a rim that is painted twice would be seen to be bolder there


def lying(motif: Motif, parts: Sequence[int], *, under: bool) -> Motif:
    """Lay parts under the neighbouring pieces, or over them again."""
    return with_parts(motif, parts, lambda s: replace(s, under=under))


def interlocked(motif: Motif, parts: Sequence[int]) -> Motif:
    """Divide parts so that neighbours that overlap go over one another on one side of the base line and under on the other.

    Of each part, what lies above the base line in the right half and below it in the left half comes to lie under. Then at
    every crossing one of the two is under, whichever piece is painted first. Raises InputError for a picture.
    """
    if any(s.picture is not None for s in chosen(motif, parts)):
        raise InputError("a picture cannot be divided to interlock; trace it first, or lay it under its neighbours as a whole")
    (x0, y0), (x1, y1) = motif.joint_points
    centre = ((x0 + x1) / 2, (y0 + y1) / 2)
    divided = sorted(set(parts))
    shapes = [half for i, shape in enumerate(motif.shapes) for half in (_halves(shape, centre, divided.index(i) / len(divided))
              if i in divided else [shape])]  # fmt: skip
    return checked_size(replace(motif, shapes=tuple(shapes)))


def _halves(shape: Shape, centre: tuple[float, float], height: float) -> list[Shape]:
    """Return a shape's fills in two each: what lies under, then what lies over; a half without anything is left out.

    What lies over laps what lies under by more the higher it is among the others, 0 to 1, so that no lower one shows at its end.
    """
    out = []
    for part in as_fills(shape):
        own = (part.commands, part.points, part.fill_rule)
        left, top, right, bottom = outline_box(part.commands, part.points)
        box = np.array([[left - 1, top - 1], [right + 1, bottom + 1]])
        lap = min(right - left, bottom - top) * LAP_SHARE if fill_of(part).opacity == 1 else 0.0
        for under, own_lap in ((True, lap), (False, lap * height / 2)):
            half = combined([own, (*_quarters(box, centre, rising=under), "nonzero")], "overlap")
            if half[0] and own_lap:
                lapped = (*_quarters(box, centre, rising=under, lap=own_lap), "nonzero")
                lap_within = combined([inset(own, LAP_INSET_SHARE * lap), lapped], "overlap")
                half = combined([(*half, "nonzero"), (*lap_within, "nonzero")], "join")
            if half[0]:
                out.append(replace(part, commands=half[0], points=half[1], fill_rule="nonzero", under=under, derived=False))
    return out


def _quarters(box: np.ndarray, centre: tuple[float, float], *, rising: bool, lap: float = 0.0) -> Outline:
    """Return two opposite quarters of a box [[left, top], [right, bottom]] about a centre, those at a rising diagonal or the others.

    They reach ``lap`` mm over the lines that divide them from the others.
    """
    (left, top), (right, bottom), (x, y) = *box, centre
    if rising:
        return joined([rectangle(x - lap, top, right, y + lap), rectangle(left, y - lap, x + lap, bottom)])
    return joined([rectangle(left, top, x + lap, y + lap), rectangle(x - lap, y - lap, right, bottom)])
