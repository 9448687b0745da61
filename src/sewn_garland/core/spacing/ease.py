"""How many pieces fill a run, and where the remainder goes."""

from __future__ import annotations

from collections.abc import Callable

import numpy as np

from ..values.brush import Ease, Rest
from ..values.laid import RunSpacing

FIT_SLACK = 1e-9  # added before the floor, so that an exact fit survives rounding


class Period:
    """Lengths and gaps (m,) mm of the variants laid in turn, summed in closed form."""

    def __init__(self, lengths: np.ndarray, gaps: np.ndarray) -> None:
        self.lengths, self.gaps = lengths, gaps
        self.pitches = lengths + gaps
        self.size = len(lengths)
        self.sum = float(self.pitches.sum())
        self.starts = np.concatenate([[0.0], np.cumsum(self.pitches)])

    def span(self, n: int, *, closed: bool) -> float:
        """Return the mm taken by n pieces; a closed line counts the gap after the last."""
        if n <= 0:
            return 0.0
        whole, part = divmod(n, self.size)
        last_gap = 0.0 if closed else float(self.gaps[(n - 1) % self.size])
        return whole * self.sum + float(self.starts[part]) - last_gap

    def fitting(self, room: float, *, closed: bool) -> int:
        """Return the largest n whose span is within the room."""
        slack = FIT_SLACK * self.sum / self.size
        n = max(0, (int((room + float(self.gaps.min())) / self.sum) - 1) * self.size)
        while self.span(n + 1, closed=closed) <= room + slack:
            n += 1
        return n


def space_run(
    room: float, lengths: np.ndarray, gaps: np.ndarray, *, closed: bool, ease: Ease, limit: float, rest: Rest
) -> RunSpacing:
    """Fill ``room`` mm with pieces of ``lengths`` and ``gaps`` (m,) mm laid in turn.

    Never raises: a run too short for a piece has count 0 and all of it as rest.
    """
    period = Period(lengths, gaps)
    spacing = _EASES[ease](period, room, closed, limit)
    if spacing.count and spacing.rest > 0:
        share = {"end": 0.0, "both": 0.5, "start": 1.0}[rest]
        if ease == "gaps" and spacing.count == 1 and not closed:
            share = 0.5
        spacing = _replace(spacing, offset=spacing.rest * share)
    return spacing


def _replace(spacing: RunSpacing, **changes) -> RunSpacing:
    return RunSpacing(**{**spacing.__dict__, **changes})


def _unfilled(room: float) -> RunSpacing:
    return RunSpacing(0, 1.0, 0.0, 0.0, room, 0.0, True, False)


def _leave(period: Period, room: float, closed: bool, limit: float) -> RunSpacing:
    n = period.fitting(room, closed=closed)
    if n == 0:
        return _unfilled(room)
    rest = max(0.0, room - period.span(n, closed=closed))
    return RunSpacing(n, 1.0, 0.0, 0.0, rest, 0.0, False, closed and n % period.size != 0)


def _gaps(period: Period, room: float, closed: bool, limit: float) -> RunSpacing:
    """Spread the remainder evenly over the gaps; beyond the limit, ease that far and leave the rest."""
    mean_pitch = period.sum / period.size

    def extra(n: int) -> float | None:
        gaps = n if closed else n - 1
        return (room - period.span(n, closed=closed)) / gaps if gaps > 0 else None

    def change(n: int) -> float | None:
        each = extra(n)
        return None if each is None else each / mean_pitch

    n, eased = _best_count(period, room, closed, limit, change)
    if eased is None:  # one piece on an open run: there is no gap to ease
        alone = _leave(Period(period.lengths[:1], period.gaps[:1]), room, False, limit)
        count = min(alone.count, 1)
        return alone if not count else RunSpacing(
            1, 1.0, 0.0, 0.0, room - float(period.lengths[0]), 0.0, room - float(period.lengths[0]) > 1e-9, False)
    broken = closed and n % period.size != 0
    if abs(eased) <= limit + 1e-12:
        return RunSpacing(n, 1.0, extra(n), 0.0, 0.0, eased, False, broken)
    eased = float(np.copysign(limit, eased))
    each = eased * mean_pitch
    return _beyond(Period(period.lengths, period.gaps + each), room, closed, eased, factor=1.0, extra_gap=each)


def _size(period: Period, room: float, closed: bool, limit: float) -> RunSpacing:
    """Scale pieces and gaps alike; beyond the limit, scale that far and leave the rest."""

    def change(n: int) -> float:
        return room / period.span(n, closed=closed) - 1.0

    n, eased = _best_count(period, room, closed, limit, change)
    if abs(eased) <= limit + 1e-12:
        return RunSpacing(n, 1.0 + eased, 0.0, 0.0, 0.0, eased, False, closed and n % period.size != 0)
    eased = float(np.copysign(limit, eased))
    factor = 1.0 + eased
    return _beyond(Period(period.lengths * factor, period.gaps * factor), room, closed, eased, factor=factor, extra_gap=0.0)


def _beyond(period: Period, room: float, closed: bool, eased: float, *, factor: float, extra_gap: float) -> RunSpacing:
    """Lay what fits at the limit of the ease and keep the rest."""
    left = _leave(period, room, closed, 0.0)
    return _replace(left, factor=factor, extra_gap=extra_gap, eased=eased, short=True)


def _best_count(
    period: Period, room: float, closed: bool, limit: float, change: Callable[[int], float | None]
) -> tuple[int, float | None]:
    """Return the whole n ≥ 1 that changes least, and that change; ties take fewer.

    On a closed line, whole periods of the variants come first while they stay within the limit.
    """
    fits = period.fitting(room, closed=closed)
    counts = {max(1, fits), fits + 1}
    if closed and period.size > 1:
        below = fits - fits % period.size
        whole = {max(period.size, below), below + period.size}
        best = min(sorted(whole), key=lambda n: abs(change(n)))
        if abs(change(best)) <= limit + 1e-12:
            return best, change(best)
    known = [n for n in sorted(counts) if change(n) is not None]
    within = [n for n in known if abs(change(n)) <= limit + 1e-12]
    if not known or (1 in counts and change(1) is None and not within):
        return 1, None
    best = min(known, key=lambda n: abs(change(n)))
    return best, change(best)


def space_mitred(
    room: float, lengths: np.ndarray, gaps: np.ndarray, *, mitred: tuple[bool, bool], beyond: tuple[float, float],
    ease: Ease, limit: float, rest: Rest,
) -> RunSpacing:
    """Fill a run of ``room`` mm between corners so that a piece straddles the vertex at each mitred end.

    There the middle of a piece lies on the vertex, the same place on both legs. At an end that is
    not mitred a piece is flush. The count is the whole one whose change is least. Where the
    artwork has to go further ``beyond`` a vertex than that piece does, more follow.
    """
    period = Period(lengths, gaps)
    begin, finish = mitred
    head = float(lengths[0]) / 2 if begin else 0.0
    least = 1 + begin

    def span(n: int) -> float:
        tail = float(lengths[(n - 1) % period.size]) / 2 if finish else 0.0
        return period.span(n, closed=False) - head - tail

    fits = max(least, period.fitting(room + head + (float(lengths.mean()) / 2 if finish else 0.0), closed=False))
    counts = [n for n in range(max(least, fits - 1), fits + 3) if span(n) > 0] or [fits + 3]

    def change(n: int) -> float:
        extra = (room - span(n)) / max(n - 1, 1)
        return extra / (period.sum / period.size) if ease == "gaps" else room / span(n) - 1

    if ease == "leave":
        whole = [n for n in counts if span(n) <= room + FIT_SLACK * period.sum / period.size]
        n, eased = (whole[-1] if whole else counts[0]), 0.0
    else:
        n = min(counts, key=lambda n: (abs(change(n)), n))
        eased = change(n)
    short = abs(eased) > limit + 1e-12
    eased = float(np.clip(eased, -limit, limit))
    factor = 1.0 if ease in ("leave", "gaps") else 1.0 + eased
    extra = eased * period.sum / period.size if ease == "gaps" else 0.0
    left = max(0.0, room - span(n) * factor - extra * (n - 1))
    share = {"end": 0.0, "both": 0.5, "start": 1.0}[rest]
    whole = factor * period.sum + extra * period.size
    first = period.size * int(np.ceil(max(0.0, beyond[0] - head * factor) / whole)) if begin else 0
    last = int(np.ceil(max(0.0, beyond[1] - factor * float(lengths.min()) / 2) / (whole / period.size))) if finish else 0
    offset = left * share - head * factor - first / period.size * whole
    return RunSpacing(n + first + last, factor, extra, offset, left if left > 1e-9 else 0.0, eased, short, False)


_EASES: dict[Ease, Callable[[Period, float, bool, float], RunSpacing]] = {"leave": _leave, "gaps": _gaps, "size": _size, "length": _size}
