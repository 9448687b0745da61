"""Propose cures, and keep only those that remove the finding when applied."""

from __future__ import annotations

import json
from collections.abc import Callable, Iterator

import numpy as np

from ..values.brush import Brush
from ..values.findings import Cure, Finding
from ..values.laid import LaidLine
from ..values.line import MeasuredLine
from .bends import safe_radius, size_for_radius

MOST_CURES = 3
SAME_PLACE_MM = 0.05
MOST_CURED = 60  # findings of one line that get cures; the rest repeat the same fault
EFFORT_PIECES = 200_000  # chosen: proving then takes about a second at most
LEAST_AND_MOST_TRIES = (6, 60)
LIMITS_PCT = (15, 25, 50, 90)
SIZE_STEPS = (1.0, 0.8, 0.6, 0.4, 0.25)


# one search: what was tried for one finding is known to the next
def with_cures(
    laid: LaidLine,
    brush: Brush,
    measured: MeasuredLine,
    *,
    lengths: np.ndarray,
    gaps: np.ndarray,
    relay: Callable[[dict], LaidLine | None],
    of_brush_only: bool = False,
) -> tuple[Finding, ...]:
    """Return the line's findings with up to three proven cures each, the gentlest first.

    ``relay`` lays the line anew under a change and returns None for a line taken away; it is
    asked once per distinct change, and less often the more pieces there are. Taking the line off
    is offered only when nothing else helps.
    """
    findings = laid.findings
    tried: dict[str, LaidLine | None] = {}
    budget = int(np.clip(EFFORT_PIECES / (len(laid.pieces.s) + laid.runs + 1), *LEAST_AND_MOST_TRIES))

    def removes(cure: Cure, finding: Finding) -> bool:
        key = json.dumps(cure.change, sort_keys=True)
        if key not in tried:
            if len(tried) >= budget:
                return False
            tried[key] = relay(cure.change)
        after = tried[key]
        return after is None or _gone(finding, findings, after, measured.length)

    cured = []
    for finding in findings[:MOST_CURED]:
        companions = [f for f in findings if abs(f.at_mm - finding.at_mm) < SAME_PLACE_MM]
        whole: dict[str, Cure] = {}  # by kind of cure: the gentlest that mends everything at this place
        part: dict[str, Cure] = {}
        for cure in _candidates(finding, brush, measured, lengths, gaps):
            family = cure.label.split()[0]
            if (of_brush_only and "line" in cure.change) or family in whole or len(whole) == MOST_CURES:
                continue
            if removes(cure, finding):
                part.setdefault(family, cure)
                if all(removes(cure, companion) for companion in companions):
                    whole[family] = cure
        cures = list({**part, **whole}.values())[:MOST_CURES]
        if not cures and not of_brush_only:
            cures = [Cure("Take this line off", {"line": {"remove": True}})]
        cured.append(finding._replace(cures=tuple(cures)))
    return (*cured, *findings[MOST_CURED:])


def _gone(finding: Finding, before: tuple[Finding, ...], after: LaidLine, length: float) -> bool:
    """Tell whether a finding was removed: what is left of its kind was there before, elsewhere."""

    def apart(a: Finding, b: Finding) -> float:
        if length <= 0 or after.length <= 0:
            return 0.0
        share = abs(a.at_mm / length - b.at_mm / after.length)
        return min(share, 1 - share) if after.closed else share

    same = [f for f in before if f.kind == finding.kind]
    left = [f for f in after.findings if f.kind == finding.kind]
    return len(left) < len(same) and all(min(same, key=lambda f, x=x: apart(f, x)) is not finding for x in left)


def _candidates(finding: Finding, brush: Brush, measured: MeasuredLine, lengths, gaps) -> Iterator[Cure]:
    if measured.length <= 0:
        return
    if finding.kind == "over-stretched":
        now = 1000 * brush.spacing.size * finding.amount
        size = np.ceil(now / 2) / 10 if finding.amount > 1 else np.floor(now * 2) / 10
        yield Cure(f"Size across {size:g} %", _brush_change("spacing", size_pct=size))
        yield Cure("Repeat it instead", _brush_change("travel", kind="repeated"))
    elif finding.kind == "tone":
        yield Cure("Mirror every second one", _brush_change("travel", mirror="every_second"))
        yield Cure("Leave a gap of 5 %", _brush_change("spacing", gap_pct=5.0))
    elif finding.kind in ("leftover", "broken order"):
        yield from _ease_cures(brush, measured, lengths)
    else:
        yield from _corner_cures(finding, brush, measured, lengths, gaps)
        yield from _bend_cures(brush, measured, lengths, gaps)


def _ease_cures(brush: Brush, measured: MeasuredLine, lengths) -> Iterator[Cure]:
    now = round(brush.spacing.ease_limit_pct, 6)
    for limit in (now, *(step for step in LIMITS_PCT if step > now)):
        by = "" if limit == now else f", up to {limit:g} %"
        for ease, words in (("gaps", "Gaps take the remainder"), ("size", "Size takes the remainder")):
            if not (brush.spacing.ease == ease and limit == now) and not (brush.travel.jointed and ease == "gaps"):
                yield Cure(f"{words}{by}", _brush_change("spacing", ease=ease, ease_limit_pct=limit))
    fits = np.floor(1000 * brush.spacing.size * measured.length / lengths.min()) / 10
    if 0 < fits < brush.spacing.size * 100:
        yield Cure(f"Smaller pieces, {fits:g} %", _brush_change("spacing", size_pct=fits))
    longer = float(np.ceil(100 * lengths.sum() / measured.length) / 100)
    if longer > 1:
        yield Cure(f"Lengthen the line {longer:g} times", {"line": {"scale": longer}})


def _corner_cures(finding: Finding, brush: Brush, measured: MeasuredLine, lengths, gaps) -> Iterator[Cure]:
    """Let runs end at the vertex that a piece straddles."""
    if not len(measured.vertex_s):
        return
    apart = np.abs(measured.vertex_s - finding.at_mm)
    if measured.closed:
        apart = np.minimum(apart, measured.length - apart)
    near = np.flatnonzero(apart <= 2 * max(m.width + m.height for m in brush.pieces.repeat) * brush.spacing.size)
    turns = np.abs(measured.vertex_turn[near])
    near = near[turns > np.radians(1)]
    if not len(near):
        return
    least = np.degrees(np.abs(measured.vertex_turn[near]).min())
    corner_from = min(brush.ends.corner_from_deg, max(1.0, float(np.floor(least))))
    sides = {"outside_corner" if measured.vertex_turn[i] > 0 else "inside_corner" for i in near}
    if brush.travel.round_bends != "rigid":
        needed = safe_radius(brush, lengths=lengths, gaps=gaps, shift=brush.travel.side_shift_mm) or brush.ends.round_radius_mm
        for radius in (brush.ends.round_radius_mm, float(np.ceil(10 * needed) / 10)):
            yield Cure(f"Round the corners, {radius:g} mm", _brush_change(
                "ends", corner_from_deg=corner_from, round_radius_mm=radius, **dict.fromkeys(sorted(sides), "round")))  # fmt: skip
    change = _brush_change("ends", corner_from_deg=corner_from, **dict.fromkeys(sorted(sides), "butt"))
    yield Cure("Butt the runs at the corner", change)
    yield Cure("Butt the runs at every corner", _brush_change(
        "ends", corner_from_deg=corner_from, outside_corner="butt", inside_corner="butt"))  # fmt: skip


def _bend_cures(brush: Brush, measured: MeasuredLine, lengths, gaps) -> Iterator[Cure]:
    tightest = measured.tightest_radius
    if tightest is not None and brush.travel.facing == "line":
        factor = size_for_radius(brush, tightest, lengths=lengths, gaps=gaps)
        for step in SIZE_STEPS:
            size = np.floor(1000 * brush.spacing.size * factor * step + 1e-6) / 10
            if size >= 1:
                yield Cure(f"Smaller pieces, {size:g} %", _brush_change("spacing", size_pct=size))
    if brush.travel.round_bends == "rigid" and brush.travel.facing == "line":
        yield Cure("Bend the pieces", _brush_change("travel", round_bends="bent"))
    pitch = float((lengths + gaps).mean())
    for times in (0.5, 1, 2, 4, 8, 16, 32):
        over = float(np.round(times * pitch, 1)) or 0.1
        if over <= 2 * measured.length:
            yield Cure(f"Smooth the line over {over:g} mm", {"line": {"smooth_mm": over}})
    if tightest is not None and tightest > 1e-3:
        for times in (1.5, 2, 3, 5, 8, 12, 20):
            yield Cure(f"Enlarge the line {times:g} times", {"line": {"scale": times}})
    if brush.travel.side_shift_mm:
        yield Cure("No side shift", _brush_change("travel", side_shift_mm=0.0))
    if brush.travel.facing != "line":
        yield Cure("Face along the line", _brush_change("travel", facing="line"))


def _brush_change(section: str, **values) -> dict:
    return {"brush": {section: {k: float(v) if isinstance(v, np.floating) else v for k, v in values.items()}}}
