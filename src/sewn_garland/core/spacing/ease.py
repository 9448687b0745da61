"""How many pieces fill a run, and where the remainder goes; all runs at once."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import replace

import numpy as np

from ..values.brush import Ease, Rest
from ..values.runs import RunSpacings

FIT_SLACK = 1e-9  # added before the floor, so that an exact fit survives rounding
LIMIT_SLACK = 1e-12
LEAST_REST_MM = 1e-9
SHARE_OF_REST: dict[Rest, float] = {"end": 0.0, "both": 0.5, "start": 1.0}


class Period:
    """Lengths and gaps (m,) mm of the variants laid in turn, summed in closed form."""

    def __init__(self, lengths: np.ndarray, gaps: np.ndarray) -> None:
        self.lengths, self.gaps = lengths, gaps
        self.size = len(lengths)
        pitches = lengths + gaps
        self.sum = float(pitches.sum())
        self.mean = self.sum / self.size
        self.starts = np.concatenate([[0.0], np.cumsum(pitches)])

    def span(self, n: np.ndarray, *, closed: np.ndarray) -> np.ndarray:
        """Return the mm taken by n pieces of each run; a closed line counts the gap after the last."""
        whole, part = np.divmod(n, self.size)
        last_gap = np.where(closed, 0.0, self.gaps[(n - 1) % self.size])
        return np.where(n > 0, whole * self.sum + self.starts[part] - last_gap, 0.0)

    def fitting(self, room: np.ndarray, *, closed: np.ndarray) -> np.ndarray:
        """Return the largest n of each run whose span is within its room."""
        least_gap = self.gaps.min() if self.size > 1 else np.where(closed, 0.0, self.gaps[0])
        room = room + FIT_SLACK * self.mean
        periods = ((room + least_gap) / self.sum).astype(int) - (self.size > 1)  # of a single variant that is the count
        n = np.maximum(0, periods) * self.size
        more = n[:, None] + np.arange(1, 3 * self.size + 1)  # three periods more never fit
        fits = self.span(more, closed=closed[:, None]) <= room[:, None]
        return n + np.logical_and.accumulate(fits, axis=1).sum(axis=1)


def space_runs(
    room: np.ndarray, lengths: np.ndarray, gaps: np.ndarray, *, closed: np.ndarray, ease: Ease, limit: float, rest: Rest
) -> RunSpacings:
    """Fill runs of ``room`` (r,) mm with pieces of ``lengths`` and ``gaps`` (m,) mm laid in turn.

    Never raises: a run too short for a piece has count 0 and all of it as rest.
    """
    spacings = _EASES[ease](Period(lengths, gaps), room, closed, limit)
    share = np.full(len(room), SHARE_OF_REST[rest])
    if ease == "gaps":
        share[(spacings.count == 1) & ~closed] = 0.5
    left = (spacings.count > 0) & (spacings.rest > 0)
    return replace(spacings, offset=np.where(left, spacings.rest * share, spacings.offset))


def _leave(period: Period, room: np.ndarray, closed: np.ndarray, _limit: float) -> RunSpacings:
    n = period.fitting(room, closed=closed)
    rest = np.maximum(0.0, room - period.span(n, closed=closed))
    return RunSpacings.of(n, rest=np.where(n > 0, rest, room), short=n == 0, broken_order=closed & (n % period.size != 0))


def _gaps(period: Period, room: np.ndarray, closed: np.ndarray, limit: float) -> RunSpacings:
    """Spread the remainder evenly over the gaps; beyond the limit, ease that far and leave the rest."""

    def change(n: np.ndarray) -> np.ndarray:
        gaps = np.where(closed, n, n - 1)
        extra = (room - period.span(n, closed=closed)) / np.where(gaps > 0, gaps, 1)
        return np.where(gaps > 0, extra / period.mean, np.nan)

    n, eased = _best_count(period, room, closed, limit, change)
    alone = np.isnan(eased)  # one piece on an open run: there is no gap to ease
    eased = np.where(alone, 0.0, eased)
    spaced = _eased(period, room, closed, limit, n, eased, lambda by: (period.lengths, period.gaps + by * period.mean))
    spaced = replace(spaced, extra_gap=spaced.eased * period.mean)
    if not alone.any():
        return spaced
    fits = room >= period.lengths[0] - FIT_SLACK * float(period.lengths[0] + period.gaps[0])
    rest = np.where(fits, np.maximum(room - period.lengths[0], 0.0), room)
    single = RunSpacings.of(fits.astype(int), rest=rest, short=~fits | (rest > LEAST_REST_MM))
    return single.where(alone, spaced)


def _size(period: Period, room: np.ndarray, closed: np.ndarray, limit: float) -> RunSpacings:
    """Scale pieces and gaps alike; beyond the limit, scale that far and leave the rest."""

    def change(n: np.ndarray) -> np.ndarray:
        return room / period.span(n, closed=closed) - 1.0

    n, eased = _best_count(period, room, closed, limit, change)
    spaced = _eased(period, room, closed, limit, n, eased, lambda by: (period.lengths * (1 + by), period.gaps * (1 + by)))
    return replace(spaced, factor=1.0 + spaced.eased)


def _eased(period: Period, room, closed, limit: float, n, eased, at: Callable[[float], tuple]) -> RunSpacings:
    """Return runs of n (r,) pieces eased by ``eased`` (r,); beyond the limit what fits at it, with a rest.

    ``at`` gives lengths and gaps (m,) eased by a share.
    """
    out = RunSpacings.of(n, eased=eased, broken_order=closed & (n % period.size != 0))
    for way in (-1.0, 1.0):
        over = way * eased > limit + LIMIT_SLACK
        if over.any():
            left = _leave(Period(*at(way * limit)), room, closed, limit)
            at_limit = replace(left, eased=np.full(len(room), way * limit), short=np.ones(len(room), bool))
            out = at_limit.where(over, out)
    return out


def _best_count(
    period: Period, room: np.ndarray, closed: np.ndarray, limit: float, change: Callable[[np.ndarray], np.ndarray]
) -> tuple[np.ndarray, np.ndarray]:
    """Return for each run the whole n ≥ 1 that changes least, and that change; ties take fewer.

    On a closed line, whole periods of the variants come first while they stay within the limit.
    Where a single piece has nothing to change and two would change too much, it is 1 and NaN.
    """
    fits = period.fitting(room, closed=closed)
    fewer, more = np.maximum(1, fits), fits + 1
    by_fewer, by_more = change(fewer), change(more)
    nearer = np.isnan(by_fewer) & (np.abs(by_more) <= limit + LIMIT_SLACK) | (np.abs(by_more) < np.abs(by_fewer))
    best, by = np.where(nearer, more, fewer), np.where(nearer, by_more, by_fewer)
    if period.size > 1 and closed.any():
        below = np.maximum(period.size, fits - fits % period.size)
        above = np.maximum(below, fits - fits % period.size + period.size)
        by_below, by_above = change(below), change(above)
        higher = np.abs(by_above) < np.abs(by_below)
        whole, by_whole = np.where(higher, above, below), np.where(higher, by_above, by_below)
        closes = closed & (np.abs(by_whole) <= limit + LIMIT_SLACK)
        best, by = np.where(closes, whole, best), np.where(closes, by_whole, by)
    return best, by


def space_mitred(
    room: np.ndarray,
    lengths: np.ndarray,
    gaps: np.ndarray,
    *,
    mitred: np.ndarray,
    beyond: np.ndarray,
    ease: Ease,
    limit: float,
    rest: Rest,
) -> RunSpacings:
    """Fill runs of ``room`` (r,) mm between corners so that a piece straddles the vertex at each mitred end (r, 2).

    There the middle of a piece lies on the vertex, the same place on both legs. At an end that is
    not mitred a piece is flush. The count is the whole one whose change is least. Where the
    artwork has to go further ``beyond`` (r, 2) mm a vertex than that piece does, more follow.
    """
    period = Period(lengths, gaps)
    head = np.where(mitred[:, 0], lengths[0] / 2, 0.0)
    counts, spans, possible = _mitred_counts(period, room, head, mitred)
    n, spans, eased = _least_changed(period, room, ease, counts, spans, possible)
    short = np.abs(eased) > limit + LIMIT_SLACK
    eased = np.clip(eased, -limit, limit)
    factor = np.ones(len(room)) if ease in ("leave", "gaps") else 1.0 + eased
    extra = eased * period.mean if ease == "gaps" else np.zeros(len(room))
    left = np.maximum(0.0, room - spans * factor - extra * (n - 1))
    before, after, way = _beyond_vertices(period, mitred, beyond, head, factor, extra)
    return RunSpacings.of(
        n + before + after, factor=factor, extra_gap=extra, rest=np.where(left > LEAST_REST_MM, left, 0.0),
        offset=left * SHARE_OF_REST[rest] - head * factor - way, eased=eased, short=short,
    )  # fmt: skip


def _mitred_counts(period: Period, room: np.ndarray, head: np.ndarray, mitred: np.ndarray):
    """Return four counts (r, 4) around what fits from vertex to vertex, the mm (r, 4) each spans, and which are possible (r, 4).

    ``head`` (r,) mm of the first piece lie before the first vertex. One of the four is always possible.
    """
    openly = np.zeros((len(room), 1), bool)
    finish = mitred[:, 1]

    def span(n: np.ndarray) -> np.ndarray:
        tail = np.where(finish[:, None], period.lengths[(n - 1) % period.size] / 2, 0.0)
        return period.span(n, closed=openly) - head[:, None] - tail

    least = 1 + mitred[:, 0].astype(int)
    fits = period.fitting(room + head + np.where(finish, period.lengths.mean() / 2, 0.0), closed=openly[:, 0])
    fits = np.maximum(least, fits)
    counts = np.maximum(least, fits - 1)[:, None] + np.arange(4)
    possible = (counts <= fits[:, None] + 2) & (span(counts) > 0)
    none = ~possible.any(axis=1)
    counts[none, 0] = fits[none] + 3
    possible[:, 0] |= none
    return counts, span(counts), possible


def _least_changed(period: Period, room: np.ndarray, ease: Ease, counts: np.ndarray, spans: np.ndarray, possible: np.ndarray):
    """Return of counts (r, 4) that which changes least, the mm it spans and the change, (r,) each; the largest that fits where none may."""
    if ease == "leave":
        within = possible & (spans <= room[:, None] + FIT_SLACK * period.mean)
        pick = np.where(within.any(axis=1), 3 - within[:, ::-1].argmax(axis=1), possible.argmax(axis=1))
        change = np.zeros(counts.shape)
    else:
        extra = (room[:, None] - spans) / np.maximum(counts - 1, 1)
        with np.errstate(divide="ignore", invalid="ignore"):
            change = extra / period.mean if ease == "gaps" else room[:, None] / spans - 1
        pick = np.where(possible, np.abs(change), np.inf).argmin(axis=1)
    row = np.arange(len(room))
    return counts[row, pick], spans[row, pick], change[row, pick]


def _beyond_vertices(period: Period, mitred: np.ndarray, beyond: np.ndarray, head: np.ndarray, factor: np.ndarray, extra: np.ndarray):
    """Return how many pieces more lie before (r,) and after (r,) a run, and how many mm (r,) those before take.

    Before go whole periods, so that the order of the variants is kept.
    """
    whole = factor * period.sum + extra * period.size
    periods = np.where(mitred[:, 0], np.ceil(np.maximum(0.0, beyond[:, 0] - head * factor) / whole), 0).astype(int)
    after = np.ceil(np.maximum(0.0, beyond[:, 1] - factor * period.lengths.min() / 2) / (whole / period.size))
    return period.size * periods, np.where(mitred[:, 1], after, 0).astype(int), periods * whole


_EASES: dict[Ease, Callable[[Period, np.ndarray, np.ndarray, float], RunSpacings]] = {
    "leave": _leave,
    "gaps": _gaps,
    "size": _size,
    "length": _size,
}
