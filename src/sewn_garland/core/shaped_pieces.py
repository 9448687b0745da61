"""The pieces of a brush that are not stamped as they are: bent, fitted to a corner, or clipped on its bisector."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import replace
from functools import lru_cache, partial

import numpy as np

from .inspecting.bends import reach_across
from .maths.curves import as_points
from .measuring.rounding import Rounded, rounded
from .measuring.sides import straight_between
from .measuring.spline import located_on, spline_of
from .measuring.widths import widths_of
from .outline_joins import Places
from .placing.corners import with_corner_pieces
from .placing.rigid import along_width, matrices_of
from .shaping.bend import Warp, Way, bent_outlines
from .shaping.corners import clipped_pieces, fitted_corners, merged
from .spacing.corners import AT_CORNER, allowances_of
from .values.brush import Brush
from .values.laid import Corners, Placements, Runs, Stops
from .values.line import Frames, MeasuredLine
from .values.motif import Motif
from .values.outlines import Cuts, ShapedOutlines
from .values.widths import Widths

Located = Callable[[np.ndarray, np.ndarray], tuple[np.ndarray, np.ndarray, np.ndarray]]
"""Takes lines (n,) and distances (n,), returns places and unit tangents as complex numbers, and curvature (n,)."""

VERTEX_RADIUS_MM = 0.005  # chosen: half of what bending may stray
LEAST_TURN = 5e-4  # radians; chosen: below it pieces 20 mm to a side of the line open by less than 0.01 mm


def lengths_of(lines: list[MeasuredLine]) -> np.ndarray:
    """Return the lengths (n,) of lines, mm."""
    return np.array([line.length for line in lines])


def widths_on(brush: Brush, lines: list[MeasuredLine]) -> Widths:
    """Return how wide lines are along them under a brush."""
    return widths_of(lines, brush.width_along, taper_start=brush.taper_start, taper_end=brush.taper_end, taper_to=brush.taper_to)


@lru_cache(maxsize=256)
def _softened(line: MeasuredLine, kept: tuple[float, ...]) -> Rounded:
    """Give every vertex that turns, but those kept (mm), an arc so small that it cannot be seen, for bent pieces to turn about it."""
    turning = ~np.isin(line.vertex_s, kept) & (np.abs(line.vertex_turn) > LEAST_TURN)
    return rounded(line, np.flatnonzero(turning), VERTEX_RADIUS_MM, shrink=True)


def legs_of(runs: Runs, lines: int, line_of: np.ndarray, run: np.ndarray) -> np.ndarray | None:
    """Return from where to where (n, 2) mm each stop's run follows the line, straight on beyond; None where no corner ends one."""
    if not np.isfinite(runs.leg).any():
        return None
    return runs.leg[runs.edges(lines)[line_of] + run]


def located_along(lines: Sequence[MeasuredLine], *, by_spline: bool) -> Located:
    """Return the way to places along lines; by their spline, where all have some length, places are up to 1e-6 mm off."""
    spline = spline_of(tuple(lines)) if by_spline else None
    return partial(located_on, lines) if spline is None else spline.located


def frames_on_legs(
    located: Located, lines: list[MeasuredLine], which: np.ndarray, s: np.ndarray, legs: np.ndarray | None
) -> Frames:
    """Return frames at distances along lines, straight on beyond the legs' vertices (n, 2), if any."""
    place, tangent, _ = _on_legs(located, lengths_of(lines), which, s, legs)
    return Frames(as_points(place), as_points(tangent))


def _on_legs(located: Located, length: np.ndarray, which: np.ndarray, s: np.ndarray, legs: np.ndarray | None):
    if legs is None:
        return located(which, s)
    slack = 1e-9 * length[which]
    inside = np.clip(s, legs[:, 0] + slack, legs[:, 1] - slack)
    place, tangent, bend = located(which, inside)
    beyond = s - inside
    return place + beyond * tangent, tangent, np.where(np.abs(beyond) > 2 * slack, 0.0, bend)


@lru_cache(maxsize=512)
def _corners_of(motif: Motif) -> np.ndarray:
    """Return the corners (4, 2) of a box about all that a motif draws, its strokes' widths aside, from its base line's middle."""
    every = np.concatenate([np.zeros((1, 2)), *(shape.points - (motif.width / 2, motif.base_line) for shape in motif.shapes)])
    (left, top), (right, bottom) = every.min(axis=0), every.max(axis=0)
    return np.array([[left, top], [right, top], [left, bottom], [right, bottom]])


class ShapedPieces:
    """The pieces that are not stamped as they are: bent ones, corner pieces at other angles, and those clipped on a bisector."""

    def __init__(
        self, brush: Brush, lines: list[MeasuredLine], runs: Runs, corners: Corners, line_of, stops: Stops, legs, widths: Widths | None
    ) -> None:
        self.widths, self.redrawn = widths, []
        self.brush, self.lines, self.runs, self.corners = brush, lines, runs, corners
        self.line_of, self.stops, self.legs = line_of, stops, legs
        self.at_corner = np.flatnonzero(stops.place == AT_CORNER)
        self.cuts = self._at_bisectors()

    def with_corner_pieces(self, placements: Placements, corners: Corners) -> Placements:
        """Place the corner pieces among the others."""
        if not len(corners.s):
            return placements
        near, width = self._near(placements, corners), self.stops.width[self.at_corner]
        return with_corner_pieces(placements, self.brush, self.at_corner, corners.vertex, corners.into, near, width)

    def _near(self, placements: Placements, corners: Corners) -> np.ndarray:
        """Return how far the vertex of each corner piece lies from its left edge, mm of the motif."""
        near = np.array([[allowances_of(m, turn)[0] for turn in (-1.0, 1.0)] for m in self.brush.motifs])
        return near[placements.variant[self.at_corner], (corners.turn > 0).astype(int)]

    def from_centres(self, stops: Stops, placements: Placements, corners: Corners) -> Stops:
        """Say how far corner pieces reach back from their base line's middle, where joins of stamped pieces are measured from."""
        if not len(corners.s) or self.brush.bent:
            return stops
        width = np.array([m.width for m in self.brush.motifs])[placements.variant[self.at_corner]]
        off = width / 2 - self._near(placements, corners)
        before = stops.before.copy()
        before[self.at_corner] += off * self.brush.size * stops.width[self.at_corner]
        return replace(stops, before=before)

    def outlines(self, placements: Placements, corners: Corners, tolerance: float, *, cut: bool) -> ShapedOutlines | None:
        """Return the outlines of every piece that is shaped, ``cut`` on bisectors or as if there were none; None where none is."""
        parts, matrices = [], matrices_of(placements)
        motifs, variant = self.brush.motifs, placements.variant
        at_cuts = np.unique(self.cuts.piece) if cut else np.zeros(0, int)
        self.redrawn = self._fitted(placements, corners) if len(corners.s) else []
        stamped = np.ones(len(self.stops.s), bool)
        if self.brush.bent:
            way = self._way(placements)
            stamped = self._as_stamped(placements, way[1])
            apart = stamped.copy()
            apart[np.concatenate([at_cuts, *(part.pieces for part in self.redrawn)])] = True
            parts = [bent_outlines(motifs, variant, *way, np.flatnonzero(~apart), tolerance=tolerance)]
        for straight in (False, True) if len(at_cuts) else ():
            cuts = self.cuts.some(stamped[self.cuts.piece] == straight)
            if len(cuts.piece):
                bent = None if straight else bent_outlines(motifs, variant, *way, np.unique(cuts.piece), to_cut=True, tolerance=tolerance)
                self.redrawn.append(clipped_pieces(motifs, variant, matrices, bent, cuts))
        parts += self.redrawn
        return None if not parts else parts[0] if len(parts) == 1 else merged(parts)

    def where_drawn(self, placements: Placements, outlines: ShapedOutlines | None) -> tuple[Places | None, np.ndarray]:
        """Return where points of bent pieces go, None where pieces are stamped, and which pieces (n,) are neither clipped nor fitted."""
        whole = np.ones(len(self.stops.s), bool)
        whole[self.cuts.piece] = False
        if not self.brush.bent:
            whole[[] if outlines is None else outlines.pieces] = False
            return None, whole
        for part in self.redrawn:
            whole[part.pieces] = False
        linear, way = self._way(placements)

        def places(piece: np.ndarray, points: np.ndarray) -> np.ndarray:
            x, v = np.einsum("nij,nj->ni", linear[piece], points).T
            return as_points(way.places(piece, x, v))

        return places, whole

    def _way(self, placements: Placements) -> tuple[np.ndarray, Way]:
        """Return how bent pieces are turned, mirrored and sized (n, 2, 2), and where their points go."""
        kept = np.split(self.corners.s, np.searchsorted(self.corners.line, np.arange(1, len(self.lines))))
        soft = [_softened(line, tuple(own.tolist())) for line, own in zip(self.lines, kept, strict=True)]
        s, legs = self.stops.s.copy(), None if self.legs is None else self.legs.copy()
        for i, each in enumerate(soft):
            if each.line is not self.lines[i]:
                own = self.line_of == i
                s[own] = each.moved(s[own])
                if legs is not None:
                    legs[own] = np.where(np.isfinite(legs[own]), each.moved(np.nan_to_num(legs[own], posinf=0, neginf=0)), legs[own])
        turn = np.radians(self.brush.turn_deg)
        rotation = np.array([[np.cos(turn), -np.sin(turn)], [np.sin(turn), np.cos(turn)]])
        softened = [each.line for each in soft]
        located, length = located_along(softened, by_spline=True), lengths_of(softened)

        def frame(piece: np.ndarray, at: np.ndarray) -> tuple[np.ndarray, np.ndarray, np.ndarray]:
            return _on_legs(located, length, self.line_of[piece], at, None if legs is None else legs[piece])

        shift = np.full(len(s), self.brush.side_shift)
        scale, warp = placements.scale, None
        if self.widths is not None:  # the warp makes pieces as wide as the line
            scale = scale / np.stack([along_width(self.stops, self.brush), self.stops.width], axis=1)
            warp = self._warp(softened, s)
        linear = rotation * scale[:, None, :]
        breaks = self._breaks(soft, softened, s, legs, placements)

        def straight(piece: np.ndarray, low: np.ndarray, high: np.ndarray) -> np.ndarray:
            low, high = s[piece] + low, s[piece] + high
            if legs is not None:
                low, high = (np.clip(at, *legs[piece].T) for at in (low, high))
            return straight_between(softened, self.line_of[piece], low, high)

        along = self._along(linear, placements.variant)
        return linear, Way(s, shift, frame, warp, breaks, along, straight)

    def _along(self, linear: np.ndarray, variant: np.ndarray) -> np.ndarray:
        """Return from where to where (2, n) pieces reach along their lines about their base lines' middles, mm."""
        corners = np.stack([_corners_of(m) for m in self.brush.motifs])[variant]
        x = (corners @ linear[:, 0, :, None])[..., 0]
        return np.stack([x.min(axis=1), x.max(axis=1)])

    def _as_stamped(self, placements: Placements, way: Way) -> np.ndarray:
        """Tell which pieces (n,) bending leaves as they are stamped, stroke widths and all."""
        if self.brush.facing != "line":
            return np.zeros(len(way.straight), bool)
        along, across = np.abs(placements.scale.T)
        return way.straight & (np.abs(along - across) <= 1e-12 * across)

    def _breaks(
        self, soft: list[Rounded], lines: list[MeasuredLine], s: np.ndarray, legs: np.ndarray | None, placements: Placements
    ) -> np.ndarray:
        """Return the pieces, and the x in them, where their lines begin and end to turn about a vertex (m, 2), sorted.

        Beyond its legs a piece's line goes straight on.
        """
        turning = [i for i, each in enumerate(soft) if each.line is not self.lines[i]]
        if not turning:
            return np.zeros((0, 2))
        across = np.array([np.hypot(m.width, m.height) for m in self.brush.motifs])
        reach = across[placements.variant] * np.abs(placements.scale).max(axis=1)
        if self.brush.kind != "repeated":
            reach = reach + lengths_of(lines)[self.line_of]
        low, high = s - reach, s + reach
        if legs is not None:
            low, high = np.maximum(low, legs[:, 0]), np.minimum(high, legs[:, 1])
        found = [np.zeros((0, 2))]
        for i in turning:
            own = np.flatnonzero(self.line_of == i)
            first, last = np.searchsorted(soft[i].new, low[own]), np.searchsorted(soft[i].new, high[own], side="right")
            last = np.maximum(first, last)
            piece = np.repeat(own, last - first)
            place = np.arange(len(piece)) - np.repeat(np.cumsum(last - first) - (last - first), last - first)
            at = soft[i].new[np.repeat(first, last - first) + place]
            found.append(np.column_stack([piece, at]))
        piece, at = np.concatenate(found).T
        piece = piece.astype(int)
        if self.widths is None or self.brush.kind != "repeated":
            return np.column_stack([piece, at - s[piece]])
        widths, line = widths_on(self.brush, lines), self.line_of[piece]
        return np.column_stack([piece, widths.even_of(line, at) - widths.even_of(line, s[piece])])

    def _warp(self, lines: list[MeasuredLine], s: np.ndarray) -> Warp:
        """Return how pieces at distances ``s`` (n,) follow the widths of lines; a piece laid once only across."""
        widths, once = widths_on(self.brush, lines), self.brush.kind != "repeated"
        even = s if once else widths.even_of(self.line_of, s)

        def warp(piece: np.ndarray, x: np.ndarray):
            line = self.line_of[piece]
            at = even[piece] + x if once else widths.mm_of(line, even[piece] + x)
            width, change = widths.at(line, at)
            return at, 1.0 if once else width, width, change

        return warp

    def _fitted(self, placements: Placements, corners: Corners) -> list[ShapedOutlines]:
        """Fit corner pieces to angles other than the one they were drawn for; among bent pieces all of them, for they stay as drawn."""
        vertex, into, out, turn = corners.vertex, corners.into, corners.out, corners.turn
        stretch = np.tan(np.abs(turn) / 2)
        askew = (np.abs(stretch - 1) > 1e-9) | self.brush.bent
        made = []
        for v in np.unique(placements.variant[self.at_corner]):
            rows = np.flatnonzero(askew & (placements.variant[self.at_corner] == v))
            if len(rows):
                motif = self.brush.motifs[v]
                made.append(fitted_corners(
                    motif, allowances_of(motif, turn[rows[0]]), self.at_corner[rows], vertex[rows], into[rows], out[rows],
                    stretch[rows], self.brush.size * self.stops.width[self.at_corner[rows]], np.sign(turn[rows]),
                ))  # fmt: skip
        return made

    def _at_bisectors(self) -> Cuts:
        """Return where pieces that reach mitred corners end."""
        mitred = self.corners.some(self.corners.style == "mitre")
        if not len(mitred.s):
            return Cuts(np.zeros(0, int), np.zeros((0, 2)), np.zeros((0, 2)))
        most = max(map(abs, reach_across(self.brush))) * float(self.stops.width.max(initial=1.0))
        square = mitred.into + mitred.out
        square /= np.maximum(np.hypot(*square.T), 1e-12)[:, None]
        reach = most * np.tan(np.minimum(np.abs(mitred.turn), np.radians(179)) / 2)
        own = np.flatnonzero(self.stops.place != AT_CORNER)
        run, s, leg = self.runs.edges(len(self.lines))[self.line_of[own]] + self.stops.run[own], self.stops.s[own], self.legs[own]
        rows = []
        for beside, past in (
            (mitred.before, leg[:, 1] - s - self.stops.after[own]), (mitred.after, s - self.stops.before[own] - leg[:, 0]),
        ):  # fmt: skip
            of_run = np.full(len(self.runs.start), -1)
            of_run[beside] = np.arange(len(mitred.s))
            k = of_run[run]
            touched = np.flatnonzero((k >= 0) & (past < reach[k]))
            away = square[k[touched]] if not rows else -square[k[touched]]
            rows.append((own[touched], mitred.vertex[k[touched]], away))
        piece, vertex, away = (np.concatenate(columns) for columns in zip(*rows, strict=True))
        order = np.argsort(piece, kind="stable")
        return Cuts(piece[order], vertex[order], away[order])

