"""How many links fill a run, what size they take, and where the remainder goes."""

from __future__ import annotations

from dataclasses import dataclass, replace

import numpy as np

from ..values.brush import Ease, Rest
from ..values.runs import RunSpacings
from .ease import LEAST_REST_MM, LIMIT_SLACK, SHARE_OF_REST
from .joints import Chains, RunsOfLinks, Ways, closing_chains, laid_chains, links_that_fit, on_runs, within_runs

LEAST_CLOSED = 3  # two links round a closed line would lie on one another


@dataclass(frozen=True, eq=False)
class _Closed:
    """Chains that close each run, whether they do so within the limit, and whether they do at all."""

    chains: Chains
    within: np.ndarray
    holds: np.ndarray


def link_runs(
    ways: Ways, runs: RunsOfLinks, own: np.ndarray, *, ease: Ease, limit: float, rest: Rest, unended: np.ndarray | None = None
) -> tuple[RunSpacings, Chains]:
    """Fill runs with links whose lengths ``own`` (m,) mm come in turn; return how, and all joints.

    With ease ``size`` one factor on every link closes a run from end to end where it stays
    within ``limit``; beyond it links are eased that far and the rest is left. A closed line
    takes whole periods of the variants where it can. Runs that are ``unended`` (k,) are windows on
    lines without an end: there nothing is eased.
    """
    k = len(runs.start)
    if not k:
        return RunSpacings.of(np.zeros(0, int)), Chains(np.zeros(0), np.zeros(0, int), np.zeros(0), np.zeros(0))
    ways = ways.each(lambda curve: on_runs(curve, runs))
    if ease != "size":
        return _left(ways, runs, own, np.ones(k), rest, short=np.zeros(k, bool))
    closed = _best_closing(ways, runs, own, limit)
    if unended is not None and unended.any():
        closed = _Closed(closed.chains, closed.within & ~unended, closed.holds & ~unended)
    if closed.within.all():
        return _spacings(runs, closed.chains, own, short=np.zeros(k, bool)), closed.chains
    eased = np.where(closed.within | ~closed.holds, 1.0, 1.0 + np.clip(closed.chains.sigma - 1, -limit, limit))
    spacings, left = _left(ways, runs, own, eased, rest, short=~closed.within)
    spacings = _spacings(runs, closed.chains, own, short=~closed.within).where(closed.within, spacings)
    return spacings, _picked(left, closed.chains, closed.within)


def _best_closing(ways: Ways, runs: RunsOfLinks, own: np.ndarray, limit: float) -> _Closed:
    """Return for each run the whole count whose factor is nearest 1; one that cannot pass is passed over for the next, up or down."""
    step = np.where(runs.closed, len(own), 1)
    least = np.where(runs.closed, -(-LEAST_CLOSED // len(own)) * len(own), 1)
    count = np.maximum(np.round(runs.room / (own.mean() * step)).astype(int) * step, least)
    best, holds = closing_chains(ways, runs, own, count)
    first = best.sigma
    towards = np.where(first > 1, step, -step)
    for other in (np.maximum(count + towards, least), np.maximum(count - towards, least)):
        guess, poor = first * count / other, ~holds | ~np.isnan(best.blocked)
        doubtful = (other != count) & ((np.abs(guess - 1) < 1.05 * np.abs(best.sigma - 1)) | poor)
        if doubtful.any():
            rival, rival_holds = closing_chains(ways, runs, own, np.where(doubtful, other, count))
            nearer = (np.abs(rival.sigma - 1) < np.abs(best.sigma - 1)) | poor
            better = doubtful & rival_holds & np.isnan(rival.blocked) & nearer
            best, holds = _picked(best, rival, better), holds | better
    return _Closed(best, holds & (np.abs(best.sigma - 1) <= limit + LIMIT_SLACK), holds)


def _picked(one: Chains, two: Chains, second: np.ndarray) -> Chains:
    """Return the chains of ``two`` for the runs ``second`` (k,), else those of ``one``."""
    if not second.any():
        return one
    parts = [np.split(chains.s, np.cumsum(chains.count + 1)[:-1]) for chains in (one, two)]
    s = np.concatenate([parts[int(pick)][i] for i, pick in enumerate(second)])
    return Chains(s, *(np.where(second, getattr(two, name), getattr(one, name)) for name in ("count", "sigma", "blocked")))


def _left(ways: Ways, runs: RunsOfLinks, own, factor: np.ndarray, rest: Rest, *, short) -> tuple[RunSpacings, Chains]:
    """Lay what fits at a factor of each run and leave the rest where it goes."""
    same = [np.flatnonzero(factor == value) for value in np.unique(factor)]
    parts: list[tuple[np.ndarray, Chains, np.ndarray]] = []
    for rows in same:
        some = runs.some(rows)
        own_ways = ways.some(rows)
        scaled = own * factor[rows[0]] if len(rows) else own
        chains = links_that_fit(own_ways, some, scaled, np.zeros(len(rows)))
        offset = SHARE_OF_REST[rest] * (some.length - _span(chains))
        offset[chains.count == 0] = 0.0
        if rest != "end" and len(rows):
            moved = chains.s + np.repeat(offset, chains.count + 1)
            chains = laid_chains(own_ways, some, scaled, chains.count, sigma=np.ones(len(rows)), offset=offset, guess=moved)
            chains = within_runs(chains, some, scaled)  # where a bend is passed otherwise than from the run's start
        parts.append((rows, Chains(chains.s, chains.count, factor[rows], chains.blocked), offset))
    chains = _ordered([(rows, part) for rows, part, _ in parts], len(factor))
    offset = np.zeros(len(factor))
    for rows, _, own_offset in parts:
        offset[rows] = own_offset
    return replace(_spacings(runs, chains, own, short=short), offset=offset), chains


def _ordered(parts: list[tuple[np.ndarray, Chains]], k: int) -> Chains:
    """Put chains of some rows each back into the order of the runs."""
    pieces: list = [np.zeros(1)] * k
    count, sigma, blocked = np.zeros(k, int), np.ones(k), np.full(k, np.nan)
    for rows, chains in parts:
        count[rows], sigma[rows], blocked[rows] = chains.count, chains.sigma, chains.blocked
        for row, s in zip(rows, np.split(chains.s, np.cumsum(chains.count + 1)[:-1]), strict=True):
            pieces[row] = s
    return Chains(np.concatenate(pieces) if k else np.zeros(0), count, sigma, blocked)


def _span(chains: Chains) -> np.ndarray:
    """Return how many mm of the line each run's links take."""
    tails = np.cumsum(chains.count + 1) - 1
    return chains.s[tails] - chains.s[tails - chains.count] if len(tails) else np.zeros(0)


def _spacings(runs: RunsOfLinks, chains: Chains, own: np.ndarray, *, short: np.ndarray) -> RunSpacings:
    rest = np.maximum(runs.length - _span(chains), 0.0)
    rest[rest < LEAST_REST_MM] = 0.0
    return RunSpacings.of(
        chains.count, factor=chains.sigma, rest=rest, eased=chains.sigma - 1, short=short | (chains.count == 0),
        broken_order=runs.closed & (chains.count % len(own) != 0), blocked=chains.blocked,
    )  # fmt: skip
