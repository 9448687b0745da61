"""Corner pieces made from a repeat, in several ways to choose from."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import replace
from typing import Literal, get_args

import numpy as np

from ..core.artwork.reach import reach_of
from ..core.assemble import painted
from ..core.drawing.shapes import shapes_of
from ..core.errors import CoreError, InputError
from ..core.lay import lay
from ..core.making.corners import Side, corner_across, corner_from_repeat, lapped_corner
from ..core.making.parts import checked_size
from ..core.maths.recent import Recent
from ..core.reading.svg_lines import line_from_path_data
from ..core.values.brush import Brush, Pieces
from ..core.values.laid import LaidLine
from ..core.values.motif import Motif, mapped

_made: Recent[Motif] = Recent(32)  # asked for again while a piece is chosen and when it is made

CornerWay = Literal["mitre", "lap", "bend", "across"]
CORNER_WAYS: tuple[CornerWay, ...] = get_args(CornerWay)
PIECE_BY_PIECE: tuple[CornerWay, ...] = ("bend", "across", "mitre", "lap")
MOST_ROUND = 12  # repeats round a quarter turn


def corner_made(repeat: Motif, side: Side, way: CornerWay, gap: float = 0.0) -> Motif:
    """Make a piece for a right-angled corner from the repeat, whose pieces lie ``gap`` mm of the motif apart.

    ``mitre``: both legs cut on the bisector; ``lap``: one runs through, the other ends against it;
    ``bend``: whole repeats bent round the turn, as few as do not fold; ``across``: the repeat stands over
    the corner. Raises InputError where the repeat cannot be made into such a corner.
    """
    ways = {"mitre": corner_from_repeat, "lap": lapped_corner, "bend": _bent_corner, "across": corner_across}
    return _made.get((repeat, side, way, gap), lambda: checked_size(ways[way](repeat, side, gap)))


def is_strip(brush: Brush) -> bool:
    """Tell whether a brush's pieces go on from one another: they bend with the line, or their edges meet."""
    return brush.travel.round_bends == "bent" or (not brush.travel.jointed and brush.spacing.gap == 0)


def gap_of(brush: Brush) -> float:
    """Return how many mm of the motif a brush's first repeat lies from the next on a straight line; links count from frame to frame."""
    first = brush.pieces.repeat[0]
    return float(brush.pieces.link_lengths(1.0)[0] - first.width) if brush.travel.jointed else brush.spacing.gap * first.width


def corner_proposals(repeat: Motif, side: Side, gap: float = 0.0, *, strip: bool = True) -> Iterator[tuple[CornerWay, Motif]]:
    """Yield the corner pieces that can be made from a repeat, each with its way, the one that suits it first.

    A ``strip``, whose pieces are meant to go on from one another, is mitred; what is seen piece by piece is bent round whole.
    """
    for way in CORNER_WAYS if strip else PIECE_BY_PIECE:
        try:
            yield way, corner_made(repeat, side, way, gap)
        except CoreError:
            continue


def on_a_corner(repeat: Motif, corner: Motif, side: Side, gap: float = 0.0) -> LaidLine:
    """Lay a corner piece with two repeats on each leg."""
    leg = corner.width + 2 * repeat.width
    path = f"M0 0H{leg!r}V{leg!r}" if side == "outside" else f"M0 0H{leg!r}V{-leg!r}"
    plain = replace(repeat, cuts=None, joints=None)
    ends, spacing = {f"{side}_corner": "piece"}, {"gap_pct": 100 * gap / repeat.width, "rest": "start"}
    brush = Brush("", Pieces((plain,), **{f"{side}_corner": corner})).changed({"ends": ends, "spacing": spacing})
    return lay(brush, [line_from_path_data(path)])[0]


def _bent_corner(repeat: Motif, side: Side, gap: float) -> Motif:
    """Bend whole repeats round a quarter of a circle, as far apart as ever; each keeps its length on the base line."""
    plain = replace(repeat, cuts=None, joints=None, recipes=())
    left, right = reach_of(Brush("", Pieces((plain,))))
    inner = right if side == "outside" else -left
    pitch = repeat.width + gap
    radii = [(n, 2 * (n * pitch + gap) / np.pi) for n in range(1, MOST_ROUND + 1)]
    count, r = next(((n, r) for n, r in radii if r > max(1.05 * inner, 0.25 * repeat.width)), (0, 0.0))
    if not count:
        raise InputError("the repeat is too high for its length to be bent round a corner; mitre it instead")
    turn = 1 if side == "outside" else -1
    room = count * pitch - gap  # from the first piece's left edge to the last one's right edge
    if gap <= 0:  # they begin before the turn and end after it
        path = f"M{gap!r} 0H0A{r!r} {r!r} 0 0 {int(turn > 0)} {r!r} {turn * r!r}V{turn * (r - gap)!r}"
    else:
        a, b = gap / r, (gap + room) / r
        ends = [(r * np.sin(t), turn * (r - r * np.cos(t))) for t in (a, b)]
        path = "M{0[0]!r} {0[1]!r}A{r!r} {r!r} 0 0 {way} {1[0]!r} {1[1]!r}".format(
            *[tuple(map(float, e)) for e in ends], r=float(r), way=int(turn > 0))  # fmt: skip
    spacing = {"gap_pct": 100 * gap / repeat.width, "ease": "length"}
    bent = Brush("", Pieces((plain,))).changed({"travel": {"round_bends": "bent"}, "spacing": spacing})
    item = painted((plain,), lay(bent, [line_from_path_data(path)])[0])
    base = repeat.base_line if side == "outside" else r
    onto = np.array([[1.0, 0.0, 0.0], [0.0, 1.0, base]])
    shapes = tuple(mapped(s, onto) for s in shapes_of(item, range(len(item.motif))))
    reach = repeat.base_line if side == "outside" else repeat.height - repeat.base_line
    return Motif(shapes, r + reach, r + reach, base)
