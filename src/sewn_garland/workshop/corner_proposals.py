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
from ..core.making.corners import (
    MEETING,
    Apart,
    Side,
    corner_across,
    corner_from_repeat,
    goes_on_level,
    lapped_corner,
    set_round,
    vertex_of,
)
from ..core.making.parts import checked_size
from ..core.maths.recent import Recent
from ..core.reading.svg_lines import line_from_path_data
from ..core.values.brush import Brush, Pieces
from ..core.values.motif import Motif, mapped

_made: Recent[Motif] = Recent(32)  # asked for again while a piece is chosen and when it is made

CornerWay = Literal["mitre", "lap", "bend", "round", "across"]
CORNER_WAYS: tuple[CornerWay, ...] = get_args(CornerWay)
ROUND_REACHES, FOLDS_REACHES = 2.0, 1.05  # the radius of a bent corner, in what a repeat reaches inward; chosen
LEAST_WHOLE, MOST_ROUND = 2, 12  # repeats round a quarter turn; one that is not bent would point across it


def corner_made(repeat: Motif, side: Side, way: CornerWay, apart: Apart = MEETING) -> Motif:
    """Make a piece for a right-angled corner from the repeat.

    ``mitre``: both legs cut on the bisector; ``lap``: one runs through, the other ends against it;
    ``bend``: whole repeats bent round the turn, as few as do not fold; ``round``: whole repeats turned on from one another;
    ``across``: the repeat stands over the corner. Raises InputError where the repeat cannot be made into such a corner.
    """
    ways = {"mitre": corner_from_repeat, "lap": lapped_corner, "bend": _bent_corner, "round": _set_round, "across": corner_across}
    return _made.get((repeat, side, way, apart), lambda: checked_size(ways[way](repeat, side, apart)))


def suiting_way(brush: Brush) -> CornerWay:
    """Return how a brush's corners are made unless told: links and what stands apart are set round whole; of what goes on from piece to
    piece, bent, overlapping or with edges that meet, bands are mitred and what rises or falls at its edges is bent round.
    """
    bent, gap = brush.travel.round_bends == "bent", brush.spacing.gap
    if brush.travel.jointed or (gap > 0 and not bent):
        return "round"
    meets = bent or gap == 0
    return "mitre" if meets and goes_on_level(brush.pieces.repeat[0]) else "bend"


def apart_of(brush: Brush) -> Apart:
    """Return how far a brush's first repeats lie from one another on a straight line, and from the edges of its corner piece."""
    first = brush.pieces.repeat[0]
    if brush.travel.jointed:
        gap = float(brush.pieces.link_lengths(1.0)[0] - first.width)
        return Apart(gap, gap / 2)
    return Apart(brush.spacing.gap * first.width, brush.spacing.gap * first.width)


def corner_proposals(repeat: Motif, side: Side, apart: Apart = MEETING, *, first: CornerWay = "mitre") -> Iterator[tuple[CornerWay, Motif]]:
    """Yield the corner pieces that can be made from a repeat, each with its way, the ``first`` one before all."""
    for way in dict.fromkeys((first, *CORNER_WAYS)):
        try:
            yield way, corner_made(repeat, side, way, apart)
        except CoreError:
            continue


def beside_corner(repeat: Motif, corner: Motif, side: Side, apart: Apart = MEETING) -> np.ndarray:
    """Return where the last two repeats before a corner piece and the first two after it lie: matrices (4, 2, 3) from the repeat's
    base line's middle, about the corner's.
    """
    (near, base), sign = vertex_of(corner, side), 1.0 if side == "outside" else -1.0
    pitch, on = repeat.width + apart.gap, np.arange(2)
    off = repeat.width / 2 + apart.gap - apart.lead  # of a repeat's middle from the corner's edge
    before, after = np.full((2, 2), base), np.full((2, 2), near)
    before[:, 0], after[:, 1] = -off - on[::-1] * pitch, base + sign * (near + off + on * pitch)
    level, turned = np.eye(2), np.array([[0.0, -sign], [sign, 0.0]])
    linear = np.array([level, level, turned, turned])
    return np.concatenate([linear, (np.concatenate([before, after]) - (corner.width / 2, corner.base_line))[:, :, None]], axis=2)


def _bent_corner(repeat: Motif, side: Side, apart: Apart) -> Motif:
    """Bend whole repeats round a quarter of a circle, as far apart as ever; each keeps its length on the base line. They are as few as
    are pressed to no less than half of it on the inner side, or, of repeats too high for that, as do not fold.
    """
    plain = replace(repeat, cuts=None, joints=None, recipes=())
    pitch, lead = repeat.width + apart.gap, apart.lead
    radii = [(n, 2 * (n * pitch - apart.gap + 2 * lead) / np.pi) for n in range(1, MOST_ROUND + 1)]
    count, r = _fewest([(n, r) for n, r in radii if r > 0.25 * repeat.width], _inner_reach(plain, side))
    turn = 1 if side == "outside" else -1
    room = count * pitch - apart.gap  # from the first piece's left edge to the last one's right edge
    if lead <= 0:  # they begin before the turn and end after it
        path = f"M{lead!r} 0H0A{r!r} {r!r} 0 0 {int(turn > 0)} {r!r} {turn * r!r}V{turn * (r - lead)!r}"
    else:
        a, b = lead / r, (lead + room) / r
        ends = [(r * np.sin(t), turn * (r - r * np.cos(t))) for t in (a, b)]
        path = "M{0[0]!r} {0[1]!r}A{r!r} {r!r} 0 0 {way} {1[0]!r} {1[1]!r}".format(
            *[tuple(map(float, e)) for e in ends], r=float(r), way=int(turn > 0))  # fmt: skip
    spacing = {"gap_pct": 100 * apart.gap / repeat.width, "ease": "length"}
    bent = Brush("", Pieces((plain,))).changed({"travel": {"round_bends": "bent"}, "spacing": spacing})
    item = painted((plain,), lay(bent, [line_from_path_data(path)])[0])
    base = repeat.base_line if side == "outside" else r
    onto = np.array([[1.0, 0.0, 0.0], [0.0, 1.0, base]])
    shapes = tuple(mapped(s, onto) for s in shapes_of(item, range(len(item.motif))))
    reach = repeat.base_line if side == "outside" else repeat.height - repeat.base_line
    return Motif(shapes, r + reach, r + reach, base)


def _set_round(repeat: Motif, side: Side, apart: Apart) -> Motif:
    """Set whole repeats round the turn, as few as overlap on the inner side by no more than half of their pitch, or as do not cross."""
    pitch = repeat.width + apart.gap
    radii = [(n, pitch / 2 / np.tan(np.pi / 4 / (n + 1))) for n in range(LEAST_WHOLE, MOST_ROUND + 1)]
    return set_round(repeat, side, apart, _fewest(radii, _inner_reach(repeat, side))[0])


def _inner_reach(repeat: Motif, side: Side) -> float:
    left, right = reach_of(Brush("", Pieces((repeat,))))
    return right if side == "outside" else -left


def _fewest(radii: list[tuple[int, float]], inner: float) -> tuple[int, float]:
    """Return how few repeats, and on what radius, turn the corner without being pressed to less than half on its inner side."""
    for least in (ROUND_REACHES, FOLDS_REACHES):
        for count, radius in radii:
            if radius > least * inner:
                return count, radius
    raise InputError("the repeat is too high for its length to go round a corner; mitre it instead")
