"""Propose cures, and keep only those that remove the finding when applied."""

from __future__ import annotations

import json
from collections.abc import Callable, Iterator, Sequence
from dataclasses import replace
from functools import cache, partial

import numpy as np

from ..errors import InputError
from ..values.brush import Brush
from ..values.findings import Cure, Finding
from ..values.laid import LaidLine
from ..values.line import MeasuredLine
from .bends import safe_radius, size_for_radius
from .findings import ABS_TOL_MM, Stretches, deviations

MOST_CURES = 3
SAME_PLACE_MM = 0.05
MOST_CURED = 60  # findings of one line that get cures; the rest repeat the same fault
SECONDS = 1.0  # that trying cures may take, for all lines of a report
PIECES_A_SECOND = 30_000  # that are laid at the least, for what a first try may take; chosen
WORSE_REL_TOL = 1e-9
BY_BEND = ("tight bend", "fold")  # findings beside joins that lie at a bend, whatever the rest of the line does
BY_AMOUNT = ("leftover", "fold")  # findings beside joins that are the worse the larger their figure
LIMITS_PCT = (15, 25, 50, 90)
LONG_PIECES = 2_000  # on a line of more a cure is tried on the stretch of its finding first; chosen
MARGIN_PITCHES = 8  # laid to either side of that, for what begins anew to have settled; chosen
STRETCH_SHARE = 0.25  # of the line that such a stretch takes at most; chosen
EASED_PCT = 0.1  # a line eased by more has gaps that a stretch of it has not; chosen
STRETCH_REL_TOL = 1.25  # of what a join may be off, on a stretch whose pieces begin elsewhere; chosen
SIZES_PCT = (20.0, 400.0)  # chosen: smaller pieces are none to look at, larger ones another brush
SIZE_STEPS = (1.0, 0.8, 0.6, 0.4, 0.25)

Candidates = Callable[[Finding], Iterator[Cure]]
"""Gives the cures that may help against a finding, the gentlest first."""

AtBends = Callable[[], Sequence[Cure]]
"""Gives the cures against whatever lies at a bend, the gentlest first."""

Stretch = tuple[float, float]
"""From where to where (mm) a part of a line goes, which may reach past the ends of a closed one."""

Relay = Callable[[dict, Stretch | None], tuple[LaidLine, Brush] | None]
"""Lays a line, or a stretch of it by itself, under a change; returns it with the brush it was laid by, None for a line taken away."""


class Deadline:
    """When to stop trying, by a clock in seconds."""

    def __init__(self, seconds: float, clock: Callable[[], float]) -> None:
        self.now = clock
        self._at = clock() + seconds

    def leaves(self, seconds: float) -> bool:
        """Tell whether as much time is left."""
        return self.now() + seconds <= self._at


NEVER = Deadline(np.inf, lambda: 0.0)


def with_cures(
    laid: LaidLine,
    brush: Brush,
    measured: MeasuredLine,
    *,
    lengths: np.ndarray,
    gaps: np.ndarray,
    lean: np.ndarray,
    relay: Relay,
    deadline: Deadline,
    of_brush_only: bool = False,
) -> tuple[Finding, ...]:
    """Return the line's findings with up to three proven cures each, the gentlest first; the worst of each kind also with up to three
    that leave none of its kind.

    ``relay`` is asked once per distinct change, whatever findings it may mend, on a long line only for what helps on the stretch
    that a finding touches; and no more once a try would go beyond the deadline: findings that it came too
    late for are told ``untried``. Taking the line off is offered only when nothing else helps.
    """
    findings = laid.findings
    if not deadline.leaves(0.0):
        return tuple(finding._replace(untried=True) for finding in findings)
    trials = _Trials(laid, brush, measured, relay, deadline)
    at_bends = cache(lambda: tuple(_bend_cures(brush, measured, lengths, gaps, lean)))  # the same for all findings
    candidates = partial(_offered, brush, measured, lengths, gaps, lean, at_bends, of_brush_only)
    clearing = _clearing(trials, findings, candidates)
    cured = []
    for number, finding in enumerate(findings):
        of_all = clearing.get(number, ())
        if number >= MOST_CURED:
            cured.append(finding._replace(cures=of_all, untried=True))
            continue
        own, untried = _at_place(trials, finding, candidates(finding))
        if not (own or of_all or of_brush_only or untried):
            own = [Cure("Take this line off", {"line": {"remove": True}})]
        cures = {cure.label: cure for cure in (*of_all, *own)}
        cured.append(finding._replace(cures=tuple(cures.values()), untried=untried))
    return tuple(cured)


def _clearing(trials: _Trials, findings: Sequence[Finding], candidates: Candidates) -> dict[int, tuple[Cure, ...]]:
    """Return, by the number of each kind's worst finding where there are several, the gentlest cures that leave none of the kind."""
    of_kind: dict[str, list[int]] = {}
    for number, finding in enumerate(findings):
        of_kind.setdefault(finding.kind, []).append(number)
    out = {}
    for kind, numbers in of_kind.items():
        if len(numbers) < 2:
            continue
        worst = min(numbers, key=lambda i: findings[i].badness)
        found: dict[str, Cure] = {}
        for cure in candidates(findings[worst]):
            family = cure.label.split()[0]
            if family in found or len(found) == MOST_CURES or not trials.promising(cure, findings[worst]):
                continue
            if kind in (cleared := trials.clears(cure)):
                found[family] = replace(cure, clears=cleared)
        out[worst] = tuple(found.values())
    return out


def _at_place(trials: _Trials, finding: Finding, candidates: Iterator[Cure]) -> tuple[list[Cure], bool]:
    """Return up to three cures of a finding, the gentlest of their kinds, those before that mend all at its place, and whether
    others came too late to be tried.
    """
    trials.late = False
    companions = trials.companions(finding)
    whole: dict[str, Cure] = {}
    part: dict[str, Cure] = {}
    for cure in candidates:
        family = cure.label.split()[0]
        if family in whole or len(whole) == MOST_CURES or not trials.promising(cure, finding) or not trials.removes(cure, finding):
            continue
        cure = replace(cure, clears=trials.clears(cure))
        part.setdefault(family, cure)
        if all(trials.removes(cure, companion) for companion in companions):
            whole[family] = cure
    cures = list({**part, **whole}.values())[:MOST_CURES]
    return cures, trials.late and len(cures) < MOST_CURES


def _offered(
    brush: Brush, measured: MeasuredLine, lengths, gaps, lean, at_bends: AtBends, of_brush_only: bool, finding: Finding
) -> Iterator[Cure]:
    """Give the sensible ones of what may help against a finding, without changes to the line where it is to stay."""
    for cure in _candidates(finding, brush, measured, lengths, gaps, lean, at_bends):
        if not (of_brush_only and "line" in cure.change) and _sensible(cure):
            yield cure


def _sensible(cure: Cure) -> bool:
    """Tell whether a cure leaves pieces of a size that anyone would lay."""
    size = cure.change.get("brush", {}).get("spacing", {}).get("size_pct")
    return size is None or SIZES_PCT[0] <= size <= SIZES_PCT[1]


def _key_of(cure: Cure) -> str:
    return json.dumps(cure.change, sort_keys=True)


class _Trials:
    """What was tried for one line; ``late`` is set by a try that the deadline did not leave time for."""

    def __init__(self, laid: LaidLine, brush: Brush, measured: MeasuredLine, relay: Relay, deadline: Deadline) -> None:
        self.laid, self.measured, self.relay, self.deadline, self.late = laid, measured, relay, deadline, False
        self._off = deviations(laid.joins, brush)
        self._stretches = {kind: Stretches.of(off.faulty, off.amounts) for kind, off in self._off.items()}
        self._at = np.array([finding.at_mm for finding in laid.findings])
        self._of_kind = _by_kind(laid.findings)
        self._tried: dict[str, tuple[LaidLine, Brush] | InputError | None] = {}
        self._faulty: dict[tuple[str, str], np.ndarray | None] = {}
        self._left: dict[str, dict[str, list[Finding]]] = {}  # findings by kind, after what was tried
        self._takes = len(laid.pieces.s) / PIECES_A_SECOND
        self._helped: dict[tuple[float, str], bool] = {}

    def companions(self, finding: Finding) -> list[Finding]:
        """Return the findings at a finding's place, itself among them."""
        return [self.laid.findings[i] for i in np.flatnonzero(np.abs(self._at - finding.at_mm) < SAME_PLACE_MM)]

    def promising(self, cure: Cure, finding: Finding) -> bool:
        """Tell whether a cure may remove a finding, tried on the stretch of a long line that it touches; True where that is not tried.

        There is no need to where the cure was tried on the whole line.
        """
        joins, pitch, key = self.laid.joins, self.laid.pitch or 0.0, _key_of(cure)
        if finding.kind not in (*self._off, *BY_BEND) or len(self.laid.pieces.s) <= LONG_PIECES or key in self._tried:
            return True
        if abs(self.laid.eased) > EASED_PCT / 100 or cure.change.get("line", {}).get("remove"):
            return True
        s = joins.s[self._joins_of(finding)] if finding.kind in self._off else np.array([finding.at_mm])
        low, high = float(s.min()) - pitch, float(s.max()) + pitch
        margin = MARGIN_PITCHES * pitch
        if high - low + 2 * margin > STRETCH_SHARE * self.measured.length:
            return True
        if not self.deadline.leaves(0.0):
            self.late = True
            return False
        if (low, key) not in self._helped:
            a, b = low - margin, high + margin
            if not self.measured.closed:
                a, b = max(a, 0.0), min(b, self.measured.length)
            self._helped[low, key] = self._helps(cure, finding.kind, (a, b), (low - a) / (b - a), (high - a) / (b - a))
        return self._helped[low, key]

    def _helps(self, cure: Cure, kind: str, stretch: Stretch, low: float, high: float) -> bool:
        """Tell whether nothing of a kind is at fault between two shares of a stretch after a cure, or nearly nothing."""
        try:
            after = self.relay(cure.change, stretch)
        except InputError:
            return False
        if after is None:
            return True
        laid, brush = after
        if kind in BY_BEND:
            return all(finding.kind != kind for finding in laid.findings)
        off = deviations(laid.joins, brush).get(kind)
        if off is None or not len(off.amounts):
            return True
        share = laid.joins.s / max(laid.length, 1e-12)
        return not (off.amounts[(share >= low) & (share <= high)] > STRETCH_REL_TOL * off.limit + ABS_TOL_MM).any()

    def _after(self, cure: Cure) -> tuple[LaidLine, Brush] | InputError | None:
        """Return the line as it lies after a cure, None for one taken away, or why it does not, for want of time too."""
        key = _key_of(cure)
        if key not in self._tried:
            if not self.deadline.leaves(self._takes):
                self.late = True
                return InputError("there is no time left to try")
            began = self.deadline.now()
            try:
                self._tried[key] = self.relay(cure.change, None)
            except InputError as refused:  # smaller pieces may be too many
                self._tried[key] = refused
            self._takes = max(self.deadline.now() - began, self._takes if len(self._tried) > 1 else 0.0)
        return self._tried[key]

    def clears(self, cure: Cure) -> tuple[str, ...]:
        """Return the kinds of findings of which a cure, tried, leaves none; nothing where another kind comes up."""
        after = self._after(cure)
        if isinstance(after, InputError):
            return ()
        left, before = self._left_by(cure).keys(), self._of_kind.keys()
        return tuple(sorted(before - left)) if left <= before else ()

    def _left_by(self, cure: Cure) -> dict[str, list[Finding]]:
        """Return, by kind, the findings that a cure leaves, which was tried and lays the line or takes it away."""
        key = _key_of(cure)
        if key not in self._left:
            after = self._tried[key]
            self._left[key] = {} if after is None or isinstance(after, InputError) else _by_kind(after[0].findings)
        return self._left[key]

    def removes(self, cure: Cure, finding: Finding) -> bool:
        """Tell whether a cure, tried, removes a finding; False where there is no time left to try."""
        after = self._after(cure)
        if after is None:
            return True
        if isinstance(after, InputError):
            return False
        if finding.kind in self._off:
            return self._joins_mended(finding, self._faulty_after(cure, finding.kind, *after), closed=after[0].closed)
        return self._gone(finding, self._left_by(cure).get(finding.kind, []), after[0])

    def _joins_mended(self, finding: Finding, faulty: np.ndarray | None, *, closed: bool) -> bool:
        """Tell whether none of a finding's joins is among those still ``faulty`` after a cure, as ``_faulty_after`` gives them."""
        if faulty is None:
            return False
        low, high = self._reach(finding)
        off = faulty - (low + high) / 2
        if closed:
            off -= np.round(off)
        return not (np.abs(off) <= (high - low) / 2).any()

    def _faulty_after(self, cure: Cure, kind: str, after: LaidLine, brush: Brush) -> np.ndarray | None:
        """Return where (k,), in shares of the line, joins are at fault in a way after a cure that was tried; None where they are not
        fewer than before, or one is worse than the worst was.
        """
        key = (_key_of(cure), kind)
        if key not in self._faulty:
            before, now = self._off[kind], deviations(after.joins, brush).get(kind)
            if now is None or not len(now.amounts):
                self._faulty[key] = np.zeros(0)
            elif (
                now.faulty.sum() >= before.faulty.sum()
                or (now.amounts > max(before.amounts.max() * (1 + WORSE_REL_TOL), now.limit + ABS_TOL_MM)).any()
            ):
                self._faulty[key] = None
            else:
                self._faulty[key] = after.joins.s[now.faulty] / max(after.length, 1e-12)
        return self._faulty[key]

    def _reach(self, finding: Finding) -> tuple[float, float]:
        """Return from where to where, in shares of the line, the joins of a finding lie, and a pitch more."""
        s, pitch, length = self.laid.joins.s[self._joins_of(finding)], self.laid.pitch or 0.0, max(self.measured.length, 1e-12)
        return float(s.min() - pitch) / length, float(s.max() + pitch) / length

    def _joins_of(self, finding: Finding) -> np.ndarray:
        """Return the joins at fault that a finding tells of."""
        found = self._stretches[finding.kind]
        return found.entries(int(np.abs(self.laid.joins.s[found.worst] - finding.at_mm).argmin()))

    def _gone(self, finding: Finding, left: list[Finding], after: LaidLine) -> bool:
        """Tell whether what is left of a finding's kind was there before, elsewhere, and is no worse."""
        same = self._of_kind[finding.kind]
        if len(left) >= len(same):
            return False
        if finding.kind in BY_AMOUNT and left and max(f.amount for f in left) > max(f.amount for f in same) * (1 + WORSE_REL_TOL):
            return False
        return next(i for i, f in enumerate(same) if f is finding) not in self._found_again(same, left, after)

    def _found_again(self, same: list[Finding], left: list[Finding], after: LaidLine) -> set[int]:
        """Return which of the findings of a kind, at least one, lie nearest to what is left of them after a change."""
        if self.measured.length <= 0 or after.length <= 0:
            return {0} if left else set()
        was = np.array([f.at_mm for f in same]) / self.measured.length
        now = np.array([f.at_mm for f in left]) / after.length
        if after.closed:
            was, of = np.concatenate([was - 1, was, was + 1]), np.tile(np.arange(len(same)), 3)
        else:
            of = np.arange(len(same))
        order = np.argsort(was, kind="stable")
        middles = (was[order][:-1] + was[order][1:]) / 2
        return set(of[order[np.searchsorted(middles, now)]].tolist())


def _by_kind(findings: Sequence[Finding]) -> dict[str, list[Finding]]:
    out: dict[str, list[Finding]] = {}
    for finding in findings:
        out.setdefault(finding.kind, []).append(finding)
    return out


def _candidates(finding: Finding, brush: Brush, measured: MeasuredLine, lengths, gaps, lean, at_bends: AtBends) -> Iterator[Cure]:
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
    elif finding.kind == "stacking breaks":
        yield from _stacking_cures(brush)
    else:
        yield from _corner_cures(finding, brush, measured, lengths, gaps, lean)
        yield from at_bends()


def _stacking_cures(brush: Brush) -> Iterator[Cure]:
    """Let pieces overlap by less, or be smaller."""
    for share in (0.5, 0.25, 0.0) if brush.spacing.gap_pct < 0 and not brush.travel.jointed else ():
        gap = round(share * brush.spacing.gap_pct, 1)
        yield Cure(f"Overlap by {-gap:g} %" if gap else "Let pieces only touch", _brush_change("spacing", gap_pct=gap))
    for share in (0.7, 0.5, 0.3):
        size = round(share * brush.spacing.size_pct, 1)
        yield Cure(f"Smaller pieces, {size:g} %", _brush_change("spacing", size_pct=size))


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


def _corner_cures(finding: Finding, brush: Brush, measured: MeasuredLine, lengths, gaps, lean) -> Iterator[Cure]:
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
        needed = safe_radius(brush, lengths=lengths, gaps=gaps, shift=brush.travel.side_shift_mm, lean=lean) or brush.ends.round_radius_mm
        for radius in (brush.ends.round_radius_mm, float(np.ceil(10 * needed) / 10)):
            yield Cure(f"Round the corners, {radius:g} mm", _brush_change(
                "ends", corner_from_deg=corner_from, round_radius_mm=radius, **dict.fromkeys(sorted(sides), "round")))  # fmt: skip
    change = _brush_change("ends", corner_from_deg=corner_from, **dict.fromkeys(sorted(sides), "butt"))
    yield Cure("Butt the runs at the corner", change)
    yield Cure("Butt the runs at every corner", _brush_change(
        "ends", corner_from_deg=corner_from, outside_corner="butt", inside_corner="butt"))  # fmt: skip


def _bend_cures(brush: Brush, measured: MeasuredLine, lengths, gaps, lean) -> Iterator[Cure]:
    tightest = measured.tightest_radius
    if tightest is not None and brush.travel.facing == "line":
        factor = size_for_radius(brush, tightest, lengths=lengths, gaps=gaps, lean=lean)
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
