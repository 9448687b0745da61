"""The pieces that are not stamped as they are: bent, fitted to a corner, stretched where they have strokes, or clipped on a bisector."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cached_property

import numpy as np

from ..artwork.box import ink_box, point_corners
from ..artwork.contours import contours_of
from ..artwork.corner import allowances_of
from ..artwork.reach import reach_of
from ..maths.at_once import each_at_once
from ..maths.curves import as_complex, as_points
from ..maths.ragged import in_blocks, owners, ranges
from ..values.bends import Bends
from ..values.brush import Brush
from ..values.outlines import BisectorCuts, ShapedOutlines, merged, put_together
from ..values.pieces import Placed, moved
from ..values.runs import Corners, Divided
from ..values.tracks import STAYS, Softened, Tracks
from .bend import bent_outlines, points_along, too_many_curves
from .corners import clipped_pieces, fitted_corners
from .near import near_points
from .way import Warp, Way

TOLERANCE_MM = 0.01  # chosen: at final size; finer than a print shows
TOLERANCE_OF_LARGE = 1e-5  # of the extent of pieces beyond a metre, for the same reason; chosen
SEEN_ALONG = 9  # places along a piece at which its track's bend is looked at; chosen
BLOCK_CURVES = 50_000  # bent in one go; chosen
MOST_CURVES = 16_000_000  # in one drawing: 2 000 000 pieces of eight; chosen
MOST_A_PIECE, MOST_OF_FEW = 16, 3_000_000  # of these, or so many in all, which take one to two seconds; chosen
MANY_IN_ALL = 400_000  # curves, from which on some pieces are bent first, to see what all of them will take; chosen
LEAST_SAMPLED = 100  # pieces, for these to tell of the others; chosen
SAMPLED = 64  # one piece of so many at random is bent first, or of fewer where else there were not enough; chosen
SURELY = 8  # standard errors that what they tell may be off by; chosen
MANY_CURVES = 15_000  # on a line, from which on they are bent together; chosen: before, it takes longer
SPLIT_AT_BREAK = 2  # curves of a piece at least, the sides that run along it; chosen
BESIDE_MM = 1e-5  # beyond what pieces reach, where lines are looked at too: by more than numbers are rounded
BLOCK_PIECES = 20_000  # whose bends are looked at in one go; chosen
SHARPEST_TURN = np.radians(179)


@dataclass(frozen=True)
class Detail:
    """How finely pieces are shaped: outlines stray by at most ``tolerance`` mm, and are ``cut`` on bisectors or go on beyond.

    Where only joins are asked for, nothing is ``drawn``: pieces are neither bent nor cut.
    """

    tolerance: float = TOLERANCE_MM
    cut: bool = True
    drawn: bool = True


PRINT = Detail()


@dataclass(frozen=True, eq=False)
class Shaped:
    """The outlines of shaped pieces, None where none is; where pieces end on bisectors; how pieces are bent, None where all are stamped;
    and which pieces (n,) are neither clipped nor fitted.
    """

    outlines: ShapedOutlines | None
    cuts: BisectorCuts
    bends: Bends | None
    whole: np.ndarray


def shaped(placed: Placed, brush: Brush, tracks: Tracks, divided: Divided, own: Corners, soft: Softened | None, detail: Detail) -> Shaped:
    """Shape what is not stamped; ``own`` are the corners of corner pieces, in order, ``soft`` the tracks that bent pieces follow."""
    cuts = _at_bisectors(placed, brush, tracks, divided)
    at_cuts = np.unique(cuts.piece) if detail.cut and detail.drawn else cuts.piece[:0]
    bends = None if soft is None else _Bends(placed, brush, tracks, divided, soft)
    stamped = np.ones(len(placed.s), bool) if bends is None else bends.as_stamped()
    redrawn = _fitted(placed, brush, own, bent=soft is not None)
    for straight in (False, True) if len(at_cuts) else ():
        some = cuts.some(stamped[cuts.piece] == straight)
        if len(some.piece):
            before = None if straight or bends is None else bends.outlines(np.unique(some.piece), detail, pictures=True)
            redrawn.append(clipped_pieces(brush.pieces.motifs, placed.motif, placed.matrices, before, some))
    parts = redrawn
    if bends is not None and detail.drawn:
        apart = stamped.copy()
        apart[np.concatenate([at_cuts, *(part.pieces for part in redrawn)])] = True
        parts = [bends.outlines(np.flatnonzero(~apart), detail), *redrawn]
    outlines = None if not parts else parts[0] if len(parts) == 1 else merged(parts)
    whole = np.ones(len(placed.s), bool)
    whole[np.concatenate([cuts.piece, *(part.pieces for part in redrawn)])] = False
    told = None if bends is None else Bends(bends.places, bends.sharpest, stamped, tracks.tightest)
    return Shaped(outlines, cuts, told, whole)


class _Bends:
    """Bends the pieces of a table along softened tracks; holds what is worked out once for all of them."""

    def __init__(self, placed: Placed, brush: Brush, tracks: Tracks, divided: Divided, soft: Softened) -> None:
        self.placed, self.brush, self.soft = placed, brush, soft
        self.track = tracks.of(placed)
        self.s = soft.moved(self.track, placed.s + moved(placed.along))
        legs = divided.legs(tracks, placed)
        self.legs = None if legs is None else self._moved_legs(legs)
        turn = np.radians(brush.travel.turn_deg) + (0.0 if placed.swing is None else placed.swing)
        rotation = np.array([[np.cos(turn), -np.sin(turn)], [np.sin(turn), np.cos(turn)]])
        rotation = rotation if placed.swing is None else np.moveaxis(rotation, 2, 0)
        scale = placed.scale
        if soft.widths is not None:  # the warp makes pieces as wide as the line
            scale = scale / np.stack([np.ones(len(self.s)) if brush.travel.once else placed.width, placed.width], axis=1)
        self.linear = rotation * scale[:, None, :]
        warp = self._warp()
        self.way = Way(
            self.s,
            tracks.shift[self.track] + moved(placed.across),
            self._frame,
            warp,
            *self._breaks(warp),
            self._reach[0],
            self._straight,
            soft.curves[self.track] >= MANY_CURVES,
            self._outer,
        )

    def _moved_legs(self, legs: np.ndarray) -> np.ndarray:
        ends = [self.soft.moved(self.track, np.nan_to_num(end, posinf=0, neginf=0)) for end in legs.T]
        return np.where(np.isfinite(legs), np.stack(ends, axis=1), legs)

    def _frame(self, piece: np.ndarray, at: np.ndarray) -> tuple[np.ndarray, np.ndarray, np.ndarray]:
        return self.soft.on_legs(self.track[piece], at, None if self.legs is None else self.legs[piece])

    def _straight(self, piece: np.ndarray, low: np.ndarray, high: np.ndarray) -> np.ndarray:
        if self.legs is not None:
            low, high = (np.clip(at, *self.legs[piece].T) for at in (low, high))
        return self.soft.straight(self.track[piece], low, high)

    @cached_property
    def _reach(self) -> tuple[np.ndarray, np.ndarray]:
        """Return from where to where (2, n) pieces reach along their tracks, and across, from their base lines' middles, mm."""
        corners = np.stack([point_corners(m) for m in self.brush.pieces.motifs])[self.placed.motif]
        reached = [(corners @ self.linear[:, axis, :, None])[..., 0] for axis in (0, 1)]
        along, across = (np.stack([each.min(axis=1), each.max(axis=1)]) for each in reached)
        return along, across

    @cached_property
    def _outer(self) -> np.ndarray:
        """Return from where to where (2, n) pieces reach along their tracks with the widths of their strokes, from their base lines'
        middles, mm.
        """
        boxes = [np.array(ink_box(m)) - np.tile((m.width / 2, m.base_line), 2) for m in self.brush.pieces.motifs]
        corners = np.stack([[(box[i], box[j]) for i in (0, 2) for j in (1, 3)] for box in boxes])[self.placed.motif]
        reached = (corners @ self.linear[:, 0, :, None])[..., 0]
        low, high = self._reach[0]
        return np.stack([np.minimum(low, reached.min(axis=1)), np.maximum(high, reached.max(axis=1))])

    def _warp(self) -> Warp | None:
        """Return how pieces follow the widths of tracks, a piece laid once only across; None where all are as wide."""
        widths, once = self.soft.widths, self.brush.travel.once
        if widths is None:
            return None
        return Warp(widths, self.track, self.s if once else widths.even_of(self.track, self.s), once)

    def _breaks(self, warp: Warp | None) -> tuple[np.ndarray, np.ndarray]:
        """Return the pieces, and the x in them, where their tracks begin and end to turn about a vertex (m, 2), sorted, and what these do
        behind (m,). Raises LimitError where they are more than can be drawn.

        Beyond its legs a piece's track goes straight on.
        """
        every, room = np.arange(len(self.s)), BESIDE_MM * np.array([[-1], [1]])
        low, high = (self.s + x if warp is None else warp(every, x)[0] for x in self._outer + room)
        ends = self._ends_of_widths(low, high)
        if self.legs is not None:
            low, high = np.maximum(low, self.legs[:, 0]), np.minimum(high, self.legs[:, 1])
        found, total = [np.zeros((0, 3))], 0
        for i in (i for i, breaks in enumerate(self.soft.breaks) if len(breaks)):
            own, breaks = np.flatnonzero(self.track == i), self.soft.breaks[i]
            first = np.searchsorted(breaks, low[own])
            counts = np.maximum(np.searchsorted(breaks, high[own], side="right") - first, 0)
            total += int(counts.sum())
            if SPLIT_AT_BREAK * total > self._most_curves:
                raise too_many_curves()
            rows = ranges(first, counts)
            found.append(np.column_stack([own[owners(counts)].astype(float), breaks[rows], self.soft.behind[i][rows]]))
        piece, at, behind = np.concatenate([*found, *ends]).T
        piece = piece.astype(int)
        order = np.lexsort((at, piece))
        piece, at, behind = piece[order], at[order], behind[order]
        widths, track = self.soft.widths, self.track[piece]
        if widths is None or self.brush.travel.once:
            x = at - self.s[piece]
        else:
            x = widths.even_of(track, at) - widths.even_of(track, self.s[piece])
        return np.column_stack([piece, x]), behind.astype(int)

    def _ends_of_widths(self, low: np.ndarray, high: np.ndarray) -> list[np.ndarray]:
        """Return the pieces that reach from ``low`` to ``high`` (n,) mm past an end of an open track, beyond which widths stay as they are,
        and where it is (m, 3).
        """
        if self.soft.widths is None:
            return []
        pieces = np.flatnonzero(~self.soft.widths.closed[self.track])
        found = []
        for end in (np.zeros(len(pieces)), self.soft.lengths[self.track[pieces]]):
            past = (low[pieces] < end) & (end < high[pieces])
            found.append(np.column_stack([pieces[past], end[past], np.full(int(past.sum()), STAYS)]))
        return found

    def as_stamped(self) -> np.ndarray:
        """Tell which pieces (n,) bending leaves as they are stamped."""
        if self.brush.travel.facing != "line":
            return np.zeros(len(self.s), bool)
        return self.way.straight & ~self.placed.stretched

    def outlines(self, pieces: np.ndarray, detail: Detail, *, pictures: bool = False) -> ShapedOutlines:
        """Bend some pieces, their strokes outlined first where a side of one would stray by more than outlines may.

        ``pictures`` come with contours, and all strokes outlined, for outlines to be cut. A block of pieces at a time, for what
        is needed on the way to be given back. Raises LimitError beyond what can be drawn: at once where that shows in a part of them.
        """
        motifs, tolerance = self.brush.pieces.motifs, max(detail.tolerance, TOLERANCE_OF_LARGE * self._extent)
        outlined = np.ones(len(pieces), bool) if pictures else self._are_thickened(pieces, tolerance)
        least = np.zeros(len(pieces), int)  # curves of each, as none is halved
        for strokes in np.unique(outlined).tolist():
            curves = np.array([len(contours_of(motif, strokes=strokes, pictures=pictures).cubics) for motif in motifs])
            least[outlined == strokes] = curves[self.placed.motif[pieces[outlined == strokes]]]
        split = np.diff(self.way.first_break)[pieces]
        if least.sum() + split.sum() > self._most_curves:
            raise too_many_curves()
        costs = least + SPLIT_AT_BREAK * split

        def bent(rows: np.ndarray | slice) -> ShapedOutlines:
            some = pieces[rows], outlined[rows]
            return bent_outlines(motifs, self.placed.motif, self.linear, self.way, *some, pictures=pictures, tolerance=tolerance)

        some = _one_of_each(len(pieces), min(SAMPLED, max(1, len(pieces) // LEAST_SAMPLED)))
        if costs.sum() > MANY_IN_ALL and len(some) >= LEAST_SAMPLED:
            blocks = [some[own] for own in in_blocks(costs[some], BLOCK_CURVES)]
            taken = np.concatenate(list(each_at_once(lambda rows: _curves_of(bent(rows), pieces[rows]), blocks)))
            if len(pieces) * (taken.mean() - SURELY * taken.std() / np.sqrt(len(taken))) > self._most_curves:
                raise too_many_curves()
        parts, count = [], 0
        for part in each_at_once(bent, in_blocks(costs, BLOCK_CURVES) if len(pieces) else [slice(0)]):
            parts.append((part, 0))
            count += len(part.points) // 3
            if count > self._most_curves:
                raise too_many_curves()
        return parts[0][0] if len(parts) == 1 else put_together(parts)

    @property
    def _most_curves(self) -> int:
        """Return how many curves a drawing of so many pieces may take."""
        return min(MOST_CURVES, max(MOST_OF_FEW, MOST_A_PIECE * len(self.s)))

    @cached_property
    def _extent(self) -> float:
        """Return how long or high the largest piece is, mm."""
        return float(max(np.ptp(reach, axis=0).max(initial=0.0) for reach in self._reach))

    def _are_thickened(self, pieces: np.ndarray, tolerance: float) -> np.ndarray:
        """Tell of which pieces (p,) strokes are to be outlined before they are bent."""
        blocks = (pieces[begin : begin + BLOCK_PIECES] for begin in range(0, max(1, len(pieces)), BLOCK_PIECES))
        return np.concatenate([self._thickened(own) > tolerance for own in blocks])

    def _thickened(self, pieces: np.ndarray) -> np.ndarray:
        """Return by how much bending makes strokes of some pieces (p,) thicker or thinner at most, mm a side.

        What lies h off a line of curvature k is 1 − k·h times as long, and so is the width of a stroke that runs across.
        Infinite where pieces are stretched, turn about a vertex or have dashes, which go wrong by the sum of what they pass.
        """
        strokes = [[shape.stroke for shape in motif.shapes if shape.stroke] for motif in self.brush.pieces.motifs]
        motif = self.placed.motif[pieces]
        width = np.array([max((stroke.width for stroke in own), default=0.0) for own in strokes])[motif]
        dashed = np.array([any(stroke.dashes for stroke in own) for own in strokes])[motif]
        if not width.any():
            return width
        wrong = dashed | self.placed.stretched[pieces] | (np.diff(self.way.first_break)[pieces] > 0) | (self.soft.widths is not None)
        _, across = self._reach
        bend = self._bend_along(pieces)
        off = np.abs(self.way.shift[pieces] + across[:, pieces]).max(axis=0, initial=0.0)
        half = width / 2 * np.abs(self.placed.scale[pieces]).max(axis=1, initial=0.0)
        return np.where((width > 0) & wrong, np.inf, half * bend * (off + half))

    def _bend_along(self, pieces: np.ndarray) -> np.ndarray:
        """Return how sharply (p,) tracks bend along pieces, judged at some places; a change of width bends what lies slanting as much."""
        low, high = self._reach[0][:, pieces]
        x, which = low + np.linspace(0, 1, SEEN_ALONG)[:, None] * (high - low), np.tile(pieces, SEEN_ALONG)
        at, _, _, change = self.way.on_line(which, x.ravel())
        bend = np.abs(self._frame(which, at)[2]) + np.abs(change)
        return bend.reshape(x.shape).max(axis=0, initial=0.0)

    def sharpest(self, pieces: np.ndarray) -> np.ndarray:
        """Return how sharply some pieces (k,) are bent at most, infinity where the track turns about a vertex."""
        return np.where(np.diff(self.way.first_break)[pieces] > 0, np.inf, self._bend_along(pieces))

    def places(self, pieces: np.ndarray, points: np.ndarray) -> np.ndarray:
        """Return where points (m, 2) that pieces (k,) have each go on the page (k, m, 2)."""
        own = as_complex(points @ np.swapaxes(self.linear[pieces], 1, 2))
        return as_points(points_along(self.way, near_points(self.way, pieces, own), pieces, own))


def _one_of_each(count: int, many: int) -> np.ndarray:
    """Return one of every so ``many`` rows (k,), at random but the same ones each time, of ``count``."""
    first = np.arange(0, count, many)
    return np.minimum(first + np.random.default_rng(0).integers(0, many, len(first)), count - 1)


def _curves_of(outlines: ShapedOutlines, pieces: np.ndarray) -> np.ndarray:
    """Return how many curves each of some pieces (p,), rising, has in outlines."""
    curves = np.bincount(outlines.piece, np.diff(outlines.starts) // 3, minlength=int(pieces.max(initial=-1)) + 1)
    return curves[pieces]


def _fitted(placed: Placed, brush: Brush, own: Corners, *, bent: bool) -> list[ShapedOutlines]:
    """Fit corner pieces to angles other than the one they were drawn for; among bent pieces all of them, for they stay as drawn."""
    at_corner = np.flatnonzero(placed.at_corner)
    motif = placed.motif[at_corner]
    stretch = np.tan(np.abs(own.turn) / 2)
    askew = (np.abs(stretch - 1) > 1e-9) | bent
    made = []
    for number in np.unique(motif):
        rows = np.flatnonzero(askew & (motif == number))
        if len(rows):
            drawn, turn, pieces = brush.pieces.motifs[number], own.turn[rows], at_corner[rows]
            made.append(fitted_corners(
                drawn, allowances_of(drawn, turn[0]), pieces, own.vertex[rows], own.into[rows], own.out[rows], stretch[rows],
                brush.spacing.size * placed.width[pieces], np.sign(turn),
            ))  # fmt: skip
    return made


def _at_bisectors(placed: Placed, brush: Brush, tracks: Tracks, divided: Divided) -> BisectorCuts:
    """Return where pieces that reach mitred corners end."""
    mitred = divided.corners.some(divided.corners.style == "mitre")
    if not len(mitred.s):
        return BisectorCuts(np.zeros(0, int), np.zeros((0, 2)), np.zeros((0, 2)))
    left, right = reach_of(brush)
    shift = tracks.shift[mitred.track]
    most = np.maximum(np.abs(left + shift), np.abs(right + shift)) * float(placed.width.max(initial=1.0))
    square = mitred.into + mitred.out
    square /= np.maximum(np.hypot(*square.T), 1e-12)[:, None]
    reach = most * np.tan(np.minimum(np.abs(mitred.turn), SHARPEST_TURN) / 2)
    own = np.flatnonzero(~placed.at_corner)
    run, s = divided.at(tracks, placed)[own], placed.s[own]
    leg = divided.runs.leg[run]
    rows = []
    for beside, past, side in (
        (mitred.before, leg[:, 1] - s - placed.after[own], 1.0), (mitred.after, s - placed.before[own] - leg[:, 0], -1.0),
    ):  # fmt: skip
        of_run = np.full(len(divided.runs.start), -1)
        of_run[beside] = np.arange(len(mitred.s))
        k = of_run[run]
        touched = np.flatnonzero((k >= 0) & (past < reach[k]))
        rows.append((own[touched], mitred.vertex[k[touched]], side * square[k[touched]]))
    piece, vertex, away = (np.concatenate(columns) for columns in zip(*rows, strict=True))
    order = np.argsort(piece, kind="stable")
    return BisectorCuts(piece[order], vertex[order], away[order])
