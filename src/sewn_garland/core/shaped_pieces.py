"""The pieces of a brush that are not stamped as they are: bent, fitted to a corner, or clipped on its bisector."""

from __future__ import annotations

from dataclasses import replace
from functools import lru_cache

import numpy as np

from .inspecting.bends import reach_across
from .measuring.arc_length import frames_and_bends_on, frames_on
from .measuring.rounding import Rounded, rounded
from .measuring.widths import widths_of
from .outline_joins import Places
from .placing.corners import with_corner_pieces
from .placing.rigid import along_width, matrices_of
from .shaping.bend import Warp, Way, bent_outlines
from .shaping.corners import clipped_pieces, fitted_corners, merged
from .spacing.corners import AT_CORNER, allowances_of
from .values.brush import Brush
from .values.laid import Corner, Placements, Run, Stops
from .values.line import Frames, MeasuredLine
from .values.outlines import ShapedOutlines
from .values.widths import Widths

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


def legs_of(runs: list[list[Run]], line_of: np.ndarray, run: np.ndarray) -> np.ndarray | None:
    """Return from where to where (n, 2) mm each stop's run follows the line, straight on beyond; None where no corner ends one."""
    if all(each.leg is None for of_line in runs for each in of_line):
        return None
    first = np.cumsum([0, *(len(of_line) for of_line in runs)])[:-1]
    legs = np.array([each.leg or (-np.inf, np.inf) for of_line in runs for each in of_line])
    return legs[first[line_of] + run]


def frames_on_legs(lines: list[MeasuredLine], which, s: np.ndarray, legs: np.ndarray | None) -> tuple[Frames, np.ndarray]:
    """Return frames and curvature at distances along lines, straight on beyond the legs' vertices."""
    if legs is None:
        return frames_and_bends_on(lines, which, s)
    slack = 1e-9 * lengths_of(lines)[which]
    inside = np.clip(s, legs[:, 0] + slack, legs[:, 1] - slack)
    frames, bend = frames_and_bends_on(lines, which, inside)
    beyond = s - inside
    return Frames(frames.position + beyond[:, None] * frames.tangent, frames.tangent), np.where(np.abs(beyond) > 2 * slack, 0.0, bend)


class ShapedPieces:
    """The pieces that are not stamped as they are: bent ones, corner pieces at other angles, and those clipped on a bisector."""

    def __init__(
        self, brush: Brush, lines: list[MeasuredLine], corners: list[list[Corner]], line_of, stops: Stops, legs, widths: Widths | None
    ) -> None:
        self.widths, self.redrawn = widths, []
        self.brush, self.lines, self.corners = brush, lines, corners
        self.line_of, self.stops, self.legs = line_of, stops, legs
        self.at_corner = np.flatnonzero(stops.place == AT_CORNER)

    def _legs_at(self, line: np.ndarray, corners: list[Corner]) -> tuple[np.ndarray, np.ndarray, np.ndarray]:
        """Return the vertices and the directions into and out of corners (k, 2)."""
        at = np.array([c.s for c in corners])
        slack = 1e-9 * lengths_of(self.lines)[line]
        into, on, out = (frames_on(self.lines, line, s) for s in (_before(self.lines, line, at, slack), at, at + slack))
        return on.position, into.tangent, out.tangent

    def with_corner_pieces(self, placements: Placements, corners: list[Corner]) -> Placements:
        """Place the corner pieces among the others."""
        if not corners:
            return placements
        vertex, into, _ = self._legs_at(self.line_of[self.at_corner], corners)
        motifs = [self.brush.motifs[v] for v in placements.variant[self.at_corner]]
        near = np.array([allowances_of(m, c.turn)[0] for m, c in zip(motifs, corners, strict=True)])
        return with_corner_pieces(placements, self.brush, self.at_corner, vertex, into, near, self.stops.width[self.at_corner])

    def from_centres(self, stops: Stops, placements: Placements, corners: list[Corner]) -> Stops:
        """Say how far corner pieces reach back from their base line's middle, where joins of stamped pieces are measured from."""
        if not corners or self.brush.bent:
            return stops
        motifs = [self.brush.motifs[v] for v in placements.variant[self.at_corner]]
        off = np.array([m.width / 2 - allowances_of(m, c.turn)[0] for m, c in zip(motifs, corners, strict=True)])
        before = stops.before.copy()
        before[self.at_corner] += off * self.brush.size * stops.width[self.at_corner]
        return replace(stops, before=before)

    def outlines(self, placements: Placements, corners: list[Corner], tolerance: float) -> ShapedOutlines | None:
        """Return the outlines of every piece that is shaped; None where none is."""
        parts = []
        if self.brush.bent:
            parts = [bent_outlines(self.brush.motifs, placements.variant, *self._way(placements), tolerance=tolerance)]
        self.redrawn = self._fitted(placements, corners) if corners else []
        clipped = self._clipped(placements, parts[0] if parts else None)
        self.redrawn += [clipped] if clipped is not None else []
        parts += self.redrawn
        return None if not parts else parts[0] if len(parts) == 1 else merged(parts)

    def where_drawn(self, placements: Placements, outlines: ShapedOutlines | None) -> tuple[Places | None, np.ndarray]:
        """Return where points of bent pieces go, None where pieces are stamped, and which pieces (n,) are neither clipped nor fitted."""
        whole = np.ones(len(self.stops.s), bool)
        if not self.brush.bent:
            whole[[] if outlines is None else outlines.pieces] = False
            return None, whole
        for part in self.redrawn:
            whole[part.pieces] = False
        linear, way = self._way(placements)

        def places(piece: np.ndarray, points: np.ndarray) -> np.ndarray:
            x, v = np.einsum("nij,nj->ni", linear[piece], points).T
            return way.places(piece, x, v)

        return places, whole

    def _way(self, placements: Placements) -> tuple[np.ndarray, Way]:
        """Return how bent pieces are turned, mirrored and sized (n, 2, 2), and where their points go."""
        soft = [_softened(line, tuple(c.s for c in own)) for line, own in zip(self.lines, self.corners, strict=True)]
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

        def frame(piece: np.ndarray, at: np.ndarray) -> tuple[np.ndarray, np.ndarray, np.ndarray]:
            frames, bend = frames_on_legs(softened, self.line_of[piece], at, None if legs is None else legs[piece])
            return frames.position, frames.tangent, bend

        shift = np.full(len(s), self.brush.side_shift)
        scale, warp = placements.scale, None
        if self.widths is not None:  # the warp makes pieces as wide as the line
            scale = scale / np.stack([along_width(self.stops, self.brush), self.stops.width], axis=1)
            warp = self._warp(softened, s)
        linear = rotation * scale[:, None, :]
        return linear, Way(s, shift, frame, warp, self._breaks(soft, softened, s, placements))

    def _breaks(self, soft: list[Rounded], lines: list[MeasuredLine], s: np.ndarray, placements: Placements) -> np.ndarray:
        """Return the pieces, and the x in them, where their lines begin and end to turn about a vertex (m, 2), sorted."""
        turning = [i for i, each in enumerate(soft) if each.line is not self.lines[i]]
        if not turning:
            return np.zeros((0, 2))
        across = np.array([np.hypot(m.width, m.height) for m in self.brush.motifs])
        reach = across[placements.variant] * np.abs(placements.scale).max(axis=1)
        if self.brush.kind != "repeated":
            reach = reach + lengths_of(lines)[self.line_of]
        found = [np.zeros((0, 2))]
        for i in turning:
            own = np.flatnonzero(self.line_of == i)
            first, last = np.searchsorted(soft[i].new, s[own] - reach[own]), np.searchsorted(soft[i].new, s[own] + reach[own], side="right")
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

    def _fitted(self, placements: Placements, corners: list[Corner]) -> list[ShapedOutlines]:
        """Fit corner pieces to angles other than the one they were drawn for; among bent pieces all of them, for they stay as drawn."""
        vertex, into, out = self._legs_at(self.line_of[self.at_corner], corners)
        turn = np.array([c.turn for c in corners])
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

    def _clipped(self, placements: Placements, bent: ShapedOutlines | None) -> ShapedOutlines | None:
        """Clip the pieces that reach a mitred corner on its bisector."""
        rows: list[tuple[np.ndarray, np.ndarray, np.ndarray]] = []
        most = max(map(abs, reach_across(self.brush))) * float(self.stops.width.max(initial=1.0))
        for i, of_line in enumerate(self.corners):
            mitred = [c for c in of_line if c.style == "mitre"]
            if not mitred:
                continue
            own = np.flatnonzero((self.line_of == i) & (self.stops.place != AT_CORNER))
            vertex, into, out = self._legs_at(np.full(len(mitred), i), mitred)
            square = into + out
            square /= np.maximum(np.hypot(*square.T), 1e-12)[:, None]
            reach = most * np.tan(np.minimum(np.abs([c.turn for c in mitred]), np.radians(179)) / 2)
            run, s = self.stops.run[own], self.stops.s[own]
            low, high = s - self.stops.before[own], s + self.stops.after[own]
            of_run = np.full((2, int(run.max(initial=0)) + 2), -1)
            for k, corner in enumerate(mitred):
                for side, number in ((0, corner.before), (1, corner.after)):
                    if number < of_run.shape[1]:
                        of_run[side, number] = k
            for side in (0, 1):
                k = of_run[side, run]
                leg = self.legs[own]
                near = (leg[:, 1] - high < reach[k]) if side == 0 else (low - leg[:, 0] < reach[k])
                touched = np.flatnonzero((k >= 0) & near)
                rows.append((own[touched], vertex[k[touched]], (1 - 2 * side) * square[k[touched]]))
        if not rows:
            return None
        piece, vertex, away = (np.concatenate(columns) for columns in zip(*rows, strict=True))
        if not len(piece):
            return None
        return clipped_pieces(self.brush.motifs, placements.variant, matrices_of(placements), bent, piece, vertex, away)


def _before(lines: list[MeasuredLine], line: np.ndarray, at: np.ndarray, slack: np.ndarray) -> np.ndarray:
    """Return distances just before vertices; the one at a closed line's start is reached at its end."""
    length = lengths_of(lines)[line]
    return np.where(at < slack, length - slack, at - slack)
