"""Stops: where along the line each piece goes."""

from __future__ import annotations

from dataclasses import dataclass, fields

import numpy as np

from ..errors import LimitError
from ..values.brush import Brush
from ..values.laid import Run, RunSpacing, Stops
from .ease import space_run

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


def extents_of(brush: Brush) -> Extents:
    """Return what each repeat piece takes along the line, Turn and Size included, ease not.

    The frame turned by τ spans w·|cos τ| + h·|sin τ|; a base line off the frame's middle moves
    that span to one side of the stop.
    """
    turn = np.radians(brush.turn_deg)
    cos, sin = abs(np.cos(turn)), abs(np.sin(turn))
    width = np.array([m.width for m in brush.repeat])
    height = np.array([m.height for m in brush.repeat])
    base = np.array([m.base_line for m in brush.repeat])
    length = (width * cos + height * sin) * brush.size
    flip = -1.0 if brush.mirror == "up_down" else 1.0
    offset = -np.sin(turn) * (height / 2 - base) * flip * brush.size
    return Extents(length / 2 - offset, length / 2 + offset, length * brush.gap)


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


def stops_on(runs: list[Run], brush: Brush, extents: Extents) -> tuple[Stops, list[RunSpacing]]:
    """Return the stops of all runs in the order of travel, and how each run was filled.

    Variants are laid in turn and begin anew on every run. No runs give empty stops.
    """
    spacings = [
        space_run(run.length, extents.length, extents.gap, closed=run.closed,
                  ease=brush.ease, limit=brush.ease_limit, rest=brush.rest)
        for run in runs
    ]  # fmt: skip
    parts = [_stops_of_run(i, run, spacing, extents) for i, (run, spacing) in enumerate(zip(runs, spacings, strict=True))]
    columns = [np.concatenate(c) for c in zip(*parts, strict=True)] if parts else [np.zeros(0)] * 5 + [np.zeros(0, int)] * 3
    return Stops(*columns), spacings


def joined_stops(parts: list[Stops]) -> Stops:
    """Return the stops of several lines behind one another; none give empty stops."""
    return Stops(*(np.concatenate([getattr(part, f.name) for part in parts]) if parts else np.zeros(0) for f in fields(Stops)))


def _stops_of_run(number: int, run: Run, spacing: RunSpacing, extents: Extents) -> tuple[np.ndarray, ...]:
    k = np.arange(spacing.count)
    m = len(extents.gap)
    variant = k % m
    pitches = extents.length + extents.gap
    begun = np.concatenate([[0.0], np.cumsum(pitches)])
    slot = (k // m * begun[-1] + begun[variant]) * spacing.factor + k * spacing.extra_gap + spacing.offset
    before = extents.before[variant] * spacing.factor
    gap_after = extents.gap[variant] * spacing.factor + spacing.extra_gap
    if run.closed and len(k):
        gap_after[-1] += spacing.rest
    factor = np.full(len(k), spacing.factor)
    return (run.start + slot + before, before, extents.after[variant] * spacing.factor, factor,
            gap_after, variant, np.full(len(k), number), k)  # fmt: skip
