"""Turn measurements into findings: what is wrong, where, by how much."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from typing import NamedTuple

import numpy as np

from ..artwork.reach import reach_of
from ..maths.ragged import owners, run_heads
from ..values.brush import PASSED, Brush
from ..values.findings import Finding
from ..values.joins import Joins
from ..values.line import MeasuredLine
from ..values.runs import Runs, RunSpacings

ABS_TOL_MM = 1e-6
Figure = float | np.floating | np.ndarray  # a number, also one out of an array
LEFT_OVER_MM = 0.1  # chosen: less is not seen on paper
MOST_STRETCH = 2.0  # chosen: of the size along over the size across; beyond it artwork reads as drawn out


def findings_of(
    measured: MeasuredLine,
    runs: Runs,
    spacings: RunSpacings,
    joins: Joins,
    brush: Brush,
    safe: float | None,
    *,
    shift: float = 0.0,
    crowded: Sequence[float] = (),
    crowded_pieces: Sequence[float] = (),
    stacking_breaks: bool = False,
    left_out: int = 0,
    width: Callable[[np.ndarray], np.ndarray] = lambda s: np.ones(len(s)),
) -> list[Finding]:
    """Return the findings of one line with its own runs, in order along it; cures are proposed elsewhere.

    ``crowded`` are the mm of corners that could not be rounded, ``crowded_pieces`` of those whose own pieces have no room;
    ``stacking_breaks`` tells that not every piece can lie over the one before it all the way round, ``left_out`` how many pieces had no
    room among the others. ``width`` says how wide the line is at distances (n,): a wider piece needs a wider bend.
    """
    if measured.length <= 0:
        place = (float(measured.line.start[0]), float(measured.line.start[1]))
        return [Finding("leftover", 0.0, 0.0, "mm", "the line has no length, so no piece fits on it", place)]
    wide = width(measured.bend_s)
    bends = _tight_bends(measured, safe, wide)
    if brush.travel.bent:
        bends = [*_folds(measured, brush, shift, wide, width(measured.vertex_s)), *bends]
    found = [*([] if brush.travel.kind == "scattered" else _of_runs(runs, spacings, measured)), *_of_joins(joins, brush), *bends]
    found += [*_over_stretched(runs, spacings, brush), *_of_crowded(crowded, crowded_pieces, brush.ends.round_radius_mm)]
    if stacking_breaks:
        message = "the stacking breaks where the line closes: its pieces overlap too far round"
        found.append(_finding("stacking breaks", 0.0, 1, "place", message))
    if left_out:
        words = "1 piece is" if left_out == 1 else f"{left_out} pieces are"
        message = f"{words} left out: no room {brush.looseness.keep_apart_mm:g} mm from the others"
        found.append(_finding("crowded", 0.0, left_out, "pieces", message, count=left_out))
    if brush.travel.jointed and not bends and safe is not None:
        found += _of_blocked(spacings, safe)
    return sorted(found, key=lambda f: f.at_mm)


def _of_crowded(corners: Sequence[float], pieces: Sequence[float], radius: float) -> list[Finding]:
    round_off = f"too short for {radius:.1f} mm round"
    found = [_finding("crowded corner", at, radius, "mm", f"crowded corner at {at:.1f} mm: {round_off}") for at in corners]
    return found + [_finding("crowded corner", at, 1, "pieces", f"crowded corner at {at:.1f} mm: no room for its piece") for at in pieces]


def _of_blocked(spacings: RunSpacings, safe: float) -> list[Finding]:
    blocked = spacings.blocked[~np.isnan(spacings.blocked)]
    return [
        _finding("tight bend", at, safe, "mm", f"a link cannot pass at {at:.1f} mm; it needs a bend of {safe:.1f} mm") for at in blocked
    ]


def _finding(kind: str, at_mm: Figure, amount: Figure, unit: str, message: str, at=None, count: int = 1) -> Finding:
    return Finding(kind, float(at_mm), float(amount), unit, message, None if at is None else (float(at[0]), float(at[1])), count)


def _of_runs(runs: Runs, spacings: RunSpacings, measured: MeasuredLine) -> list[Finding]:
    found: list[Finding] = []
    unfilled, broken = (spacings.count == 0) | (spacings.rest > LEFT_OVER_MM), spacings.broken_order
    if not (unfilled.any() or broken.any()):
        return found
    ends = runs.start + runs.length
    ends = np.where(ends > measured.length, ends - measured.length, ends)  # a closed line's last run goes round its start
    for i in np.flatnonzero(unfilled):
        rest = spacings.rest[i]
        if spacings.count[i] == 0:
            message = f"{max(0.0, runs.length[i]):.2f} mm is too short for one piece"
        elif spacings.short[i]:
            message = f"{rest:.2f} mm left over: the ease limit was reached"
        else:
            message = f"{rest:.2f} mm left over"
        found.append(_finding("leftover", ends[i], rest, "mm", message))
    for i in np.flatnonzero(broken):
        count = spacings.count[i]
        found.append(_finding("broken order", ends[i], count, "pieces", f"{count} pieces do not close the order of the variants"))
    return found


def _over_stretched(runs: Runs, spacings: RunSpacings, brush: Brush) -> list[Finding]:
    """Find a piece laid once whose size along is more than twice that across, or less than half."""
    if not brush.travel.once:
        return []
    factor, middle = spacings.factor, runs.start + runs.length / 2
    drawn_out = np.flatnonzero((spacings.count > 0) & ((factor < 1 / MOST_STRETCH) | (factor > MOST_STRETCH)))
    return [_finding("over-stretched", middle[i], factor[i], "×", _drawn_out(factor[i]))
            for i in drawn_out]  # fmt: skip


def _drawn_out(factor: float) -> str:
    """Say how far a piece's proportions are off."""
    if factor > 1:
        return f"{factor:.1f} times as long for its height as it was drawn"
    return f"{1 / factor:.1f} times as high for its length as it was drawn"


class Deviation(NamedTuple):
    """How far joins are off in one way: ``amounts`` (j,), up to which ``limit`` that is no fault, and what a finding calls its unit."""

    amounts: np.ndarray
    limit: float
    unit: str
    factor: float

    @property
    def faulty(self) -> np.ndarray:
        """Tell which joins (j,) are at fault."""
        return self.amounts > self.limit + ABS_TOL_MM


def deviations(joins: Joins, brush: Brush) -> dict[str, Deviation]:
    """Return how far joins are off, by kind of finding: where pieces are to stand apart, only how they open and close."""
    limit = brush.joins.gap_tolerance_mm
    measures = {"gap": Deviation(joins.gap, limit, "mm", 1.0), "overlap": Deviation(-joins.gap, limit, "mm", 1.0)}
    if brush.loose:  # all that is wished is that neighbours meet
        return {"gap": measures["gap"]}
    if brush.apart:
        return measures
    measures["step"] = Deviation(joins.step, limit, "mm", 1.0)
    if not brush.travel.jointed:  # a joint is there to turn
        measures["kink"] = Deviation(joins.kink, np.radians(brush.joins.kink_tolerance_deg), "°", 180 / np.pi)
    return {**measures, "tone": Deviation(joins.tone, brush.joins.tone_tolerance, "ΔE", 1.0)}


def _of_joins(joins: Joins, brush: Brush) -> list[Finding]:
    return [f for kind, off in deviations(joins, brush).items() if off.faulty.any() for f in _of_stretches(joins, kind, off)]


def _of_stretches(joins: Joins, kind: str, off: Deviation) -> list[Finding]:
    """Report each stretch of neighbouring faulty joins once, at its worst."""
    amounts, _, unit, factor = off
    together = Stretches.of(off.faulty, amounts)
    out, worst = [], together.worst
    columns = (amounts[worst] * factor, joins.s[worst], joins.at[worst], together.counts)
    for amount, s, at, count in zip(*(column.tolist() for column in columns), strict=True):
        shown = {"mm": f"{amount:.2f} mm", "°": f"{amount:.0f}°", "ΔE": f"of ΔE {amount:.1f}"}[unit]
        message = f"{kind} {shown} at {s:.1f} mm" if count == 1 else f"{count} {kind}s, largest {shown} at {s:.1f} mm"
        out.append(_finding(kind, s, amount, unit, message, at, count))
    return out


class Stretches(NamedTuple):
    """Entries at fault, those that follow on one another together: ``index`` (k,) of all, where in it each stretch ``begins``, how
    many they are (g,), and the first of each that is off by most (g,).
    """

    index: np.ndarray
    begins: np.ndarray
    counts: np.ndarray
    worst: np.ndarray

    @classmethod
    def of(cls, faulty: np.ndarray, amounts: np.ndarray) -> Stretches:
        """Return the stretches of ``faulty`` entries (n,) by how far all are off (n,); none give none."""
        index = np.flatnonzero(faulty)
        if not len(index):
            return cls(index, index, index, index)
        begins = np.flatnonzero(np.diff(index, prepend=index[0] - 2) > 1)
        counts = np.diff(np.append(begins, len(index)))
        group, own = owners(counts), amounts[index]
        largest = np.flatnonzero(own == np.maximum.reduceat(own, begins)[group])
        return cls(index, begins, counts, index[largest[run_heads(group[largest])]])

    def entries(self, i: int) -> np.ndarray:
        """Return the entries of one of them."""
        return self.index[self.begins[i] : self.begins[i] + self.counts[i]]


def _folds(measured: MeasuredLine, brush: Brush, shift: float, wide: np.ndarray, wide_at_vertex: np.ndarray) -> list[Finding]:
    """Find where bent pieces turn inside out: 1 − k·v is not positive at the edge that reaches furthest to the inner side."""
    left, right = (reach + shift for reach in reach_of(brush))
    found, tightest = [], measured.tightest_radius
    if tightest is not None and tightest <= max(right, -left) * wide.max(initial=0.0) * (1 + 1e-6):
        inner = np.where(measured.bend_k > 0, right, -left) * wide
        bend = np.abs(measured.bend_k)
        worst = Stretches.of(bend * inner >= 1 - 1e-9, bend).worst
        columns = 1 / bend[worst], measured.bend_s[worst], inner[worst] - 1 / bend[worst]
        for radius, at, depth in zip(*(column.tolist() for column in columns), strict=True):
            found.append(_finding("fold", at, depth, "mm", f"folds {depth:.2f} mm deep at {at:.1f} mm, in a bend of {radius:.1f} mm"))
    if not len(measured.vertex_turn):
        return found
    sharp = np.abs(measured.vertex_turn) >= brush.ends.corner_from - 1e-12
    ends = brush.ends  # a corner that is still there was not rounded, for want of room or because it turns right back
    through = np.where(measured.vertex_turn > 0, ends.outside_corner in PASSED, ends.inside_corner in PASSED)
    depth = np.where(measured.vertex_turn > 0, right, -left) * wide_at_vertex
    deep = sharp & through & (depth > brush.joins.gap_tolerance_mm)
    for at, off in zip(measured.vertex_s[deep].tolist(), depth[deep].tolist(), strict=True):
        found.append(_finding("fold", at, off, "mm", f"folds {off:.2f} mm deep in the corner at {at:.1f} mm"))
    return found


def _tight_bends(measured: MeasuredLine, safe: float | None, wide: np.ndarray) -> list[Finding]:
    if safe is None or measured.tightest_radius is None or measured.tightest_radius >= safe * wide.max(initial=0.0) * (1 - 1e-9):
        return []
    found = []
    bend = np.abs(measured.bend_k)
    over = bend * safe * wide > 1 + 1e-9
    if not over.any() and np.ptp(wide) > 0:
        return []
    worst = Stretches.of(over, bend).worst if over.any() else np.array([bend.argmax()])
    radii = 1 / bend[worst]
    radii[bend[worst].argmax()] = measured.tightest_radius
    for radius, at, wide_there in zip(*(column.tolist() for column in (radii, measured.bend_s[worst], wide[worst])), strict=True):
        needed = safe * wide_there
        message = f"bend of {radius:.1f} mm at {at:.1f} mm, this brush needs {needed:.1f} mm"
        found.append(_finding("tight bend", at, radius, "mm", message)._replace(limit=needed))
    return found
