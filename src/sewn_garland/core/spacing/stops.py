"""Stops: where along the line each piece goes."""

from __future__ import annotations

from dataclasses import dataclass, replace
from itertools import pairwise

import numpy as np

from ..errors import LimitError
from ..values.brush import Brush
from ..values.laid import Run, RunSpacing, Stops
from ..values.widths import Widths
from .ease import space_mitred, space_run
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


def spacings_of(runs: list[Run], brush: Brush, extents: Extents) -> list[RunSpacing]:
    """Return how each run is filled."""
    if brush.kind != "repeated":
        return [_once(run, float(extents.length[0])) for run in runs]
    how = {"ease": brush.ease, "limit": brush.ease_limit, "rest": brush.rest}
    return [
        space_mitred(run.length, extents.length, extents.gap, mitred=run.mitred, beyond=run.beyond, **how) if any(run.mitred)
        else space_run(run.length, extents.length, extents.gap, closed=run.closed, **how)
        for run in runs
    ]  # fmt: skip


def _once(run: Run, length: float) -> RunSpacing:
    """Lay one piece over the whole run; a run without length has none."""
    if run.length <= 0:
        return RunSpacing(0, 1.0, 0.0, 0.0, 0.0, 0.0, True, False)
    factor = run.length / length
    return RunSpacing(1, factor, 0.0, 0.0, 0.0, factor - 1, False, False)


def phased(spacing: RunSpacing, extents: Extents, phase: float, *, closed: bool) -> RunSpacing:
    """Move a run's pieces on by a share of their pitch; an open run then has one less."""
    pitch = extents.mean_pitch * spacing.factor + spacing.extra_gap
    count = spacing.count if closed or not spacing.count else spacing.count - 1
    return replace(spacing, count=count, offset=spacing.offset + phase * pitch)


def stops_on(runs: list[list[Run]], spacings: list[list[RunSpacing]], extents: Extents) -> tuple[Stops, np.ndarray]:
    """Return the stops of all lines in the order of travel, and how many each line has.

    ``runs`` and ``spacings`` are given line by line. Variants are laid in turn and begin anew on
    every run. No runs give empty stops.
    """
    flat = [(number, run, spacing) for of_line, filled in zip(runs, spacings, strict=True)
            for number, (run, spacing) in enumerate(zip(of_line, filled, strict=True))]  # fmt: skip
    columns = [(n, r.start, r.closed, f.count, f.factor, f.extra_gap, f.offset, f.rest) for n, r, f in flat]
    number, start, closed, count, factor, extra_gap, offset, rest = np.array(columns, float).reshape(-1, 8).T
    count = count.astype(int)
    of = np.repeat(np.arange(len(flat)), count)  # the run of every stop
    place = np.arange(len(of)) - np.repeat(np.cumsum(count) - count, count)
    whole, variant = np.divmod(place, len(extents.gap))
    begun = np.concatenate([[0.0], np.cumsum(extents.length + extents.gap)])
    factors = factor[of]
    slot = (whole * begun[-1] + begun[variant]) * factors + place * extra_gap[of] + offset[of]
    before = extents.before[variant] * factors
    gap_after = extents.gap[variant] * factors + extra_gap[of]
    round_ = (closed > 0) & (count > 0)
    gap_after[np.cumsum(count)[round_] - 1] += rest[round_]
    stops = Stops(
        s=start[of] + slot + before, before=before, after=extents.after[variant] * factors, factor=factors,
        gap_after=gap_after, variant=variant, run=number.astype(int)[of], place=place, width=np.ones(len(of)),
    )  # fmt: skip
    return stops, np.array([sum(f.count for f in filled) for filled in spacings], int)


def even_runs(runs: list[list[Run]], widths: Widths) -> list[list[Run]]:
    """Return the runs of all lines in even distances, in which their pieces take as much anywhere."""
    line = np.repeat(np.arange(len(runs)), [len(of_line) for of_line in runs])
    flat = [run for of_line in runs for run in of_line]
    begin, finish = np.array([(run.start, run.start + run.length) for run in flat]).reshape(-1, 2).T
    a, b = widths.even_of(line, begin).tolist(), widths.even_of(line, finish).tolist()
    first, last = widths.at(line, begin)[0].tolist(), widths.at(line, finish)[0].tolist()
    made = iter([replace(run, start=a[i], length=b[i] - a[i], beyond=(run.beyond[0] / first[i], run.beyond[1] / last[i]))
                 for i, run in enumerate(flat)])  # fmt: skip
    return [[next(made) for _ in of_line] for of_line in runs]


def rests_in_mm(
    runs: list[list[Run]], even: list[list[Run]], spacings: list[list[RunSpacing]], widths: Widths
) -> list[list[RunSpacing]]:
    """Return how runs are filled with their rests in mm; ``even`` are the runs in even distances."""
    line = np.repeat(np.arange(len(runs)), [len(of_line) for of_line in runs])
    rows = [(run.start, run.length, spacing.offset, spacing.rest, drawn.length)
            for of_line, e, f in zip(runs, even, spacings, strict=True)
            for drawn, run, spacing in zip(of_line, e, f, strict=True)]  # fmt: skip
    start, length, offset, rest, whole = np.array(rows).reshape(-1, 5).T
    before = np.minimum(offset, rest)
    taken = widths.mm_of(line, start + length - (rest - before)) - widths.mm_of(line, start + before)
    left = iter(np.where(rest > 0, np.maximum(whole - taken, 0.0), 0.0).tolist())
    return [[replace(spacing, rest=next(left)) for spacing in of_line] for of_line in spacings]


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


def stops_of_links(runs: list[list[Run]], chains: Chains, own: int, width: np.ndarray | None) -> tuple[Stops, np.ndarray]:
    """Return the stops of jointed pieces half-way along the line between their joints, and how many each line has.

    ``own`` is the number of variants, ``width`` (n,) how wide each link is where lines are thick and thin.
    """
    in_line = np.array([number for of_line in runs for number in range(len(of_line))], int)
    of = np.repeat(np.arange(len(chains.count)), chains.count)
    place = np.arange(len(of)) - np.repeat(np.cumsum(chains.count) - chains.count, chains.count)
    first = place + np.repeat(np.cumsum(chains.count + 1) - chains.count - 1, chains.count)
    a, b = chains.s[first], chains.s[first + 1] if len(first) else chains.s[:0]
    width = np.ones(len(of)) if width is None else width
    stops = Stops(
        s=(a + b) / 2, before=(b - a) / 2, after=(b - a) / 2, factor=chains.sigma[of], gap_after=np.zeros(len(of)),
        variant=place % own, run=in_line[of], place=place, width=width,
    )  # fmt: skip
    edges = np.cumsum([0, *(len(of_line) for of_line in runs)])
    return stops, np.array([int(chains.count[a:b].sum()) for a, b in pairwise(edges)], int)
