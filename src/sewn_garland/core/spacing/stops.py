"""Stops: where along the line each piece goes."""

from __future__ import annotations

from collections.abc import Collection
from dataclasses import dataclass, replace

import numpy as np

from ..errors import LimitError
from ..values.arrays import rows_of
from ..values.brush import Brush
from ..values.laid import Runs, RunSpacings, Stops
from ..values.widths import Widths
from .ease import space_mitred, space_runs
from .joints import Chains

MOST_PIECES = 2_000_000
LEAST_PITCH_MM = 1e-9  # below it a count says nothing any more


@dataclass(frozen=True, eq=False)
class Extents:
    """What each variant takes of the line, mm, arrays (m,): before and after its base line's middle, and the gap."""

    before: np.ndarray
    after: np.ndarray
    gap: np.ndarray

    @property
    def length(self) -> np.ndarray:
        return self.before + self.after

    @property
    def mean_pitch(self) -> float:
        return float((self.length + self.gap).mean())

    def first(self, n: int) -> Extents:
        """Return the extents of the first n motifs."""
        return Extents(self.before[:n], self.after[:n], self.gap[:n])


def extents_of(brush: Brush) -> Extents:
    """Return what each motif takes along the line, Turn and Size included, ease not.

    The frame turned by τ spans w·|cos τ| + h·|sin τ|; a base line off the frame's middle moves
    that span to one side of the stop. Jointed pieces take what lies between their joints.
    """
    if brush.jointed:
        half = brush.link_lengths / 2
        return Extents(half, half, np.zeros(len(half)))
    turn = np.radians(brush.turn_deg)
    cos, sin = abs(np.cos(turn)), abs(np.sin(turn))
    width = np.array([m.width for m in brush.motifs])
    height = np.array([m.height for m in brush.motifs])
    base = np.array([m.base_line for m in brush.motifs])
    length = (width * cos + height * sin) * brush.size
    flip = -1.0 if brush.mirror == "up_down" else 1.0
    offset = -np.sin(turn) * (height / 2 - base) * flip * brush.size
    return Extents(length / 2 - offset, length / 2 + offset, length * brush.gap)


def repeat_extents(brush: Brush) -> Extents:
    """Return what the repeat's variants take."""
    return extents_of(brush).first(len(brush.repeat))


def refuse_too_many(total_length: float, extents: Extents) -> None:
    """Raise LimitError when the lines would take more pieces than one call may lay."""
    if extents.mean_pitch < LEAST_PITCH_MM:
        raise LimitError("these pieces are smaller than can be laid: enlarge them")
    count = total_length / extents.mean_pitch
    if count > MOST_PIECES:
        raise LimitError(
            f"this spacing needs about {count:,.0f} pieces, more than {MOST_PIECES:,}: "
            f"widen the gap or enlarge the pieces (pitch is now {extents.mean_pitch:.3g} mm)".replace(",", " ")
        )


def spacings_of(runs: Runs, brush: Brush, extents: Extents, unended: Collection[int] = ()) -> RunSpacings:
    """Return how each run is filled; on lines ``unended`` nothing is left over, so nothing is eased there."""
    if brush.kind != "repeated":
        return _once(runs.length, float(extents.length[0]))
    spacings = _repeated(runs, extents, ease=brush.ease, limit=brush.ease_limit, rest=brush.rest)
    if unended:
        endless = np.flatnonzero(np.isin(runs.line, list(unended)))
        left = _repeated(rows_of(runs, endless), extents, ease="leave", limit=brush.ease_limit, rest="end")
        spacings = spacings.with_rows(endless, left)
    return spacings


def _repeated(runs: Runs, extents: Extents, **how) -> RunSpacings:
    pieces = extents.length, extents.gap
    mitred = runs.mitred.any(axis=1)
    if mitred.all() and len(mitred):
        return space_mitred(runs.length, *pieces, mitred=runs.mitred, beyond=runs.beyond, **how)
    spacings = space_runs(runs.length, *pieces, closed=runs.closed, **how)
    if mitred.any():
        spacings = space_mitred(runs.length, *pieces, mitred=runs.mitred, beyond=runs.beyond, **how).where(mitred, spacings)
    return spacings


def _once(room: np.ndarray, length: float) -> RunSpacings:
    """Lay one piece over each whole run; a run without length has none."""
    laid = room > 0
    factor = np.where(laid, room / length, 1.0)
    return RunSpacings.of(laid.astype(int), factor=factor, eased=factor - 1, short=~laid)


def phased(spacings: RunSpacings, extents: Extents, phase: float, *, closed: np.ndarray) -> RunSpacings:
    """Move runs' pieces on by a share of their pitch; an open run then has one less."""
    pitch = extents.mean_pitch * spacings.factor + spacings.extra_gap
    count = np.where(closed, spacings.count, np.maximum(spacings.count - 1, 0))
    return replace(spacings, count=count, offset=spacings.offset + phase * pitch)


def _in_runs(count: np.ndarray) -> tuple[np.ndarray, np.ndarray]:
    """Return the run of every piece and its place in it, from 0, for runs of ``count`` (r,) pieces."""
    of = np.repeat(np.arange(len(count)), count)
    return of, np.arange(len(of)) - np.repeat(np.cumsum(count) - count, count)


def stops_on(runs: Runs, spacings: RunSpacings, extents: Extents) -> tuple[Stops, np.ndarray]:
    """Return the stops of all runs in the order of travel, and the line (n,) of each.

    Variants are laid in turn and begin anew on every run. No runs give empty stops.
    """
    of, place = _in_runs(spacings.count)
    whole, variant = np.divmod(place, len(extents.gap))
    begun = np.concatenate([[0.0], np.cumsum(extents.length + extents.gap)])
    factors, extra_gap = spacings.factor[of], spacings.extra_gap[of]
    slot = (whole * begun[-1] + begun[variant]) * factors + place * extra_gap + spacings.offset[of]
    before = extents.before[variant] * factors
    gap_after = extents.gap[variant] * factors + extra_gap
    round_ = runs.closed & (spacings.count > 0)
    gap_after[np.cumsum(spacings.count)[round_] - 1] += spacings.rest[round_]
    stops = Stops(
        s=runs.start[of] + slot + before, before=before, after=extents.after[variant] * factors, factor=factors,
        gap_after=gap_after, variant=variant, run=runs.number[of], place=place, width=np.ones(len(of)),
    )  # fmt: skip
    return stops, runs.line[of]


def even_runs(runs: Runs, widths: Widths) -> Runs:
    """Return the runs in even distances, in which their pieces take as much anywhere."""
    ends = runs.start, runs.start + runs.length
    begin, finish = (widths.even_of(runs.line, at) for at in ends)
    wide = np.stack([widths.at(runs.line, at)[0] for at in ends], axis=1)
    return replace(runs, start=begin, length=finish - begin, beyond=runs.beyond / wide)


def rests_in_mm(runs: Runs, even: Runs, spacings: RunSpacings, widths: Widths) -> RunSpacings:
    """Return how runs are filled with their rests in mm; ``even`` are the runs in even distances."""
    before = np.minimum(spacings.offset, spacings.rest)
    first, last = even.start + before, even.start + even.length - (spacings.rest - before)
    taken = widths.mm_of(runs.line, last) - widths.mm_of(runs.line, first)
    return replace(spacings, rest=np.where(spacings.rest > 0, np.maximum(runs.length - taken, 0.0), 0.0))


def widened(stops: Stops, line: np.ndarray, widths: Widths, *, bent: bool) -> Stops:
    """Bring stops from even distances to mm on their lines (n,), each piece as wide as its stretch is long.

    Base lines' middles divide rigid pieces' stretches as they divide the piece; bent pieces follow
    the even distances themselves.
    """
    edges = [stops.s - stops.before, stops.s + stops.after, stops.s + stops.after + stops.gap_after]
    low, high, on = (widths.mm_of(line, e) for e in edges)
    even = stops.before + stops.after
    width = np.where(even > 0, (high - low) / np.where(even > 0, even, 1.0), 1.0)
    s = widths.mm_of(line, stops.s) if bent else low + stops.before * width
    return replace(stops, s=s, before=s - low, after=high - s, gap_after=on - high, width=width)


def stops_of_links(runs: Runs, chains: Chains, own: int, width: np.ndarray | None) -> tuple[Stops, np.ndarray]:
    """Return the stops of jointed pieces half-way along the line between their joints, and the line (n,) of each.

    ``own`` is the number of variants, ``width`` (n,) how wide each link is where lines are thick and thin.
    """
    of, place = _in_runs(chains.count)
    first = np.arange(len(of)) + of  # every run before has a joint more than links
    a, b = chains.s[first], chains.s[first + 1] if len(first) else chains.s[:0]
    width = np.ones(len(of)) if width is None else width
    stops = Stops(
        s=(a + b) / 2, before=(b - a) / 2, after=(b - a) / 2, factor=chains.sigma[of], gap_after=np.zeros(len(of)),
        variant=place % own, run=runs.number[of], place=place, width=width,
    )  # fmt: skip
    return stops, runs.line[of]
