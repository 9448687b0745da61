"""Joints of rigid links on lines: each at a straight distance from the one before, all solved at once."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from typing import NamedTuple

import numpy as np

from ..maths.curves import as_complex
from ..maths.ragged import heads, owners, places, ranges
from ..values.arrays import freeze_arrays
from ..values.tracks import FramesAt
from ..values.widths import RunWidths
from .chords import chords, held_between, marched, newton_steps

Curve = Callable[[np.ndarray, np.ndarray], tuple[np.ndarray, np.ndarray]]
"""Takes runs (n,) and distances along their tracks (n,), returns positions (n, 2) and their change a mm (n, 2)."""

NEWTON_ROUNDS = 30
STALLED_ROUNDS = 8  # in which the worst link does not come to miss by half as much; chosen
LEAST_ADVANCE = 0.05  # chosen: of a joint along its link a mm of line; below it a step would leap
MOST_ACROSS = 16  # links of a run that lie across or against the line, above which it is not seen to close; chosen: at most 9 were seen
NEAR_ENOUGH_MM = 1e-5  # that a link may miss by when its line itself is asked; chosen: ten times what is off near it
RESIDUAL_REL_TOL = 2e-15  # of the longest line: about its last bits
GOOD_REL_TOL = 1e-12
INSIDE = np.linspace(0, 1, 10)[1:-1]  # shares of a link's stretch where the line must stay closer than the next joint
NEAR_SHARE = 1 / 2  # of a link, between a joint that was sought and the one it is polished to; chosen
MARCH_STEPS = 24  # samples a link when joints are sought one after the other
MARCH_LEAST = 1 / 4  # of the mean link, that the shortest counts for; chosen: it then has six samples
MARCH_WINDOW = 100_000  # samples at a time
SAME_REL_TOL = 1e-6  # of the longest line: lengths that marching need not tell apart; chosen
MARCH_ROUNDS = 4  # chosen: links whose length goes by where they come to lie are sought so often


@dataclass(frozen=True, eq=False)
class RunsOfLinks:
    """k runs to be filled with links: arrays (k,), mm along their lines; ``widths`` where their lines are thick and thin.

    Links of at most ``gentle`` (k,) mm cannot turn so far that the line comes back to them; None where that is not known.
    """

    start: np.ndarray
    length: np.ndarray
    closed: np.ndarray
    widths: RunWidths | None = None
    gentle: np.ndarray | None = None

    def __post_init__(self) -> None:
        freeze_arrays(self)

    @property
    def room(self) -> np.ndarray:
        """Return the length (k,) of each run as its pieces take it: the even distance where lines are thick and thin."""
        if self.widths is None:
            return self.length
        run = np.arange(len(self.start))
        return self.widths.even_of(run, self.start + self.length) - self.widths.even_of(run, self.start)

    def some(self, rows: np.ndarray) -> RunsOfLinks:
        """Return some of the runs."""
        gentle = None if self.gentle is None else self.gentle[rows]
        return RunsOfLinks(self.start[rows], self.length[rows], self.closed[rows], self.widths and self.widths.of(rows), gentle)


@dataclass(frozen=True, eq=False)
class Chains:
    """The joints of all runs behind one another.

    ``s`` (Σ(countᵢ + 1),) mm along each run's line, ``count`` (k,) links, ``sigma`` (k,) the factor
    on every link's size, ``blocked`` (k,) where a first link could not pass a bend as it must, NaN
    where all can.
    """

    s: np.ndarray
    count: np.ndarray
    sigma: np.ndarray
    blocked: np.ndarray

    def __post_init__(self) -> None:
        freeze_arrays(self)


class Ways(NamedTuple):
    """What links go along: the ``line`` itself, and what is ``near`` it, up to 1e-6 mm off, and may be told sooner: there joints are sought
    first.
    """

    line: Curve
    near: Curve

    @classmethod
    def along(cls, frames_at: FramesAt, near_at: FramesAt | None, track: np.ndarray) -> Ways:
        """Return the ways that runs go along; ``track`` (k,) is that of each."""
        line = curve_along(frames_at, track)
        return cls(line, line if near_at is None else curve_along(near_at, track))

    def each(self, of: Callable[[Curve], Curve]) -> Ways:
        """Return other ways, ``of`` each."""
        line = of(self.line)
        return Ways(line, line if self.near is self.line else of(self.near))

    def some(self, rows: np.ndarray) -> Ways:
        """Return the ways of some runs."""
        return self.each(lambda curve: lambda run, s: curve(rows[run], s))


def curve_along(frames_at: FramesAt, track: np.ndarray) -> Curve:
    """Return the curve that runs go along; ``track`` (k,) is that of each."""

    def curve(run: np.ndarray, s: np.ndarray) -> tuple[np.ndarray, np.ndarray]:
        frames = frames_at(track[run], s)
        return frames.position, frames.tangent

    return curve


def on_runs(curve: Curve, runs: RunsOfLinks) -> Curve:
    """Return a curve that goes straight on beyond the ends of open runs: what lies past a corner is not theirs to follow."""
    ends = runs.start, runs.start + runs.length, 1e-9 * runs.length, runs.closed

    def along(run: np.ndarray, s: np.ndarray) -> tuple[np.ndarray, np.ndarray]:
        inside = held_between(run, s, *ends)
        place, velocity = curve(run, inside)
        beyond = s - inside
        return place + beyond[:, None] * velocity if beyond.any() else place, velocity

    return along


def chain_lengths(own: np.ndarray, count: np.ndarray) -> np.ndarray:
    """Return the length of every link, variants ``own`` (m,) in turn, begun anew on each run: (Σ countᵢ,)."""
    return own[places(count) % len(own)]


def link_widths(curve: Curve, chains: Chains, own: np.ndarray) -> np.ndarray:
    """Return how wide each link is: the distance of its joints over its length at its run's factor; lengths ``own`` come in turn."""
    run = owners(chains.count + 1)
    place = curve(run, chains.s)[0]
    within = run[:-1] == run[1:]
    apart = np.hypot(*np.diff(place, axis=0)[within].T)
    return apart / (chain_lengths(own, chains.count) * np.repeat(chains.sigma, chains.count))


def links_that_fit(ways: Ways, runs: RunsOfLinks, own: np.ndarray, offset: np.ndarray) -> Chains:
    """Lay as many links of full size as each run takes from ``offset`` (k,) mm on; none where not even one fits.

    A chord is never longer than its arc, so no more can fit than the run's length says.
    """
    room = np.maximum(runs.room - offset, 0.0)
    most = np.where(room < own.min() * (1 - 1e-9), 0, np.floor(room / own.mean() + len(own)).astype(int) + 1)
    return within_runs(laid_chains(ways, runs, own, most, sigma=np.ones(len(most)), offset=offset), runs, own)


def within_runs(chains: Chains, runs: RunsOfLinks, own: np.ndarray) -> Chains:
    """Return chains without the links that reach past the ends of their runs."""
    edges = np.cumsum(chains.count + 1)
    end = np.repeat(runs.start + runs.length, chains.count + 1)
    slack = 1e-9 * own.mean()
    within = chains.s <= end + slack
    count = np.add.reduceat(within, np.concatenate([[0], edges[:-1]])) - 1 if len(edges) else np.zeros(0, int)
    count = np.maximum(count, 0)
    within = places(chains.count + 1) <= np.repeat(count, chains.count + 1)
    return Chains(chains.s[within], count, chains.sigma, chains.blocked)


def laid_chains(
    ways: Ways,
    runs: RunsOfLinks,
    own: np.ndarray,
    count: np.ndarray,
    *,
    sigma: np.ndarray,
    offset: np.ndarray,
    guess: np.ndarray | None = None,
) -> Chains:
    """Lay ``count`` (k,) links at fixed factors, one joint after the other; they may run past the end.

    Where a bend is too tight for Newton's joints to be the first ones, they are sought along the line. Joints begin from a
    ``guess`` of where they all lie, if there is one.
    """
    chain = _Chain(ways, runs, own, count)
    s, sigma, settled = chain.solved(chain.even(runs.start + offset, sigma) if guess is None else guess, sigma)
    blocked = chain.blocked(s, sigma)
    doubtful = np.flatnonzero(~settled | ~np.isnan(blocked))
    if len(doubtful):
        joints, known = chain.joints_of(doubtful), np.where(settled, blocked, np.nan)
        start, factors, upto = (each[doubtful] for each in (runs.start + offset, sigma, known))
        s[joints], blocked[doubtful] = _sought_chains(chain.some(doubtful), start, factors, s[joints], upto)
    return Chains(s, count, sigma, blocked)


def _sought_chains(chain: _Chain, start: np.ndarray, sigma: np.ndarray, s: np.ndarray, upto: np.ndarray) -> tuple[np.ndarray, np.ndarray]:
    """Return joints that are sought along the line, and polished where that keeps them, and where a link is blocked (k,); ``upto``
    is as marching takes it.
    """
    sought, lost = chain.marched(start, sigma, s, upto)
    polished = chain.solved(sought, sigma)[0]
    s = np.where(chain.held(polished, sigma, sought), polished, sought)
    return s, np.fmin(chain.blocked(s, sigma), lost)


def closing_chains(ways: Ways, runs: RunsOfLinks, own: np.ndarray, count: np.ndarray) -> tuple[Chains, np.ndarray]:
    """Find the factor with which ``count`` (k,) links fill each run from end to end, by Newton on all joints and factors at once.

    The system is bidiagonal with one more column a run: two banded solutions a round, begun from
    joints evenly along the line. Return the chains and for which runs (k,) they hold: joints that
    do not settle or lose their order are none.
    """
    chain = _Chain(ways, runs, own, count)
    total = np.maximum(chain.of_run(chain.own), 1e-300)
    first = chain.even(runs.start, runs.room / total)
    sigma = chain.of_run(chain.chords(ways.near, first)[0]) / np.maximum(chain.of_run(chain.wide(first)[0]), 1e-300)
    s, sigma, settled = chain.solved(first, sigma, ends=runs.start + runs.length)
    return Chains(s, count, sigma, chain.blocked(s, sigma)), settled & chain.ordered(s)


class _Chain:
    """The links of all runs as one system; ``inner`` marks the steps within runs, joints are numbered through."""

    def __init__(self, ways: Ways, runs: RunsOfLinks, variants: np.ndarray, count: np.ndarray, scale: float = 0.0) -> None:
        self.ways, self.runs, self.count, self.variants = ways, runs, count, variants
        self.own = chain_lengths(variants, count)
        self.joint_run = owners(count + 1)
        self.inner = self.joint_run[:-1] == self.joint_run[1:]
        self.before = np.flatnonzero(self.inner)  # the joint that begins each link
        self.heads = heads(count + 1)
        self.link_run = owners(count)
        self.scale = max(scale, float(runs.length.max(initial=0.0)), float(self.own.max(initial=0.0)), 1e-300)

    def some(self, rows: np.ndarray) -> _Chain:
        """Return the links of some of the runs, told as exactly as all."""
        return _Chain(self.ways.some(rows), self.runs.some(rows), self.variants, self.count[rows], self.scale)

    def joints_of(self, rows: np.ndarray) -> np.ndarray:
        """Return the joints of some runs."""
        return ranges(self.heads[rows], self.count[rows] + 1)

    def of_run(self, values: np.ndarray) -> np.ndarray:
        return np.bincount(self.link_run, values, len(self.count))

    def most_of_run(self, values: np.ndarray) -> np.ndarray:
        """Return the largest value (k,) of each run's links, 0 where it has none."""
        out, some = np.zeros(len(self.count)), self.count > 0
        if some.any():
            out[some] = np.maximum.reduceat(values, heads(self.count)[some])
        return out

    def even(self, start: np.ndarray, factor: np.ndarray) -> np.ndarray:
        """Return joints spaced along the line as the links are long."""
        steps = np.zeros(len(self.joint_run))
        steps[np.setdiff1d(np.arange(len(steps)), self.heads, assume_unique=True)] = self.own * factor[self.link_run]
        total = np.cumsum(steps)
        taken = total - total[self.heads][self.joint_run]
        widths = self.runs.widths
        if widths is None:
            return start[self.joint_run] + taken
        return widths.mm_of(self.joint_run, widths.even_of(self.joint_run, start[self.joint_run]) + taken)

    def wide(self, s: np.ndarray) -> tuple[np.ndarray, np.ndarray]:
        """Return every link's length before its run's factor, as the line is wide half-way between its joints, and half its change a mm."""
        if self.runs.widths is None:
            return self.own, np.zeros(len(self.own))
        width, slope = self.runs.widths.at(self.link_run, (s[self.before] + s[self.before + 1]) / 2)
        return self.own * width, self.own * slope / 2

    def chords(self, curve: Curve, s: np.ndarray) -> tuple[np.ndarray, np.ndarray, np.ndarray]:
        """Return each link's distance and how both ends, the later first, move along it a mm."""
        place, velocity = curve(self.joint_run, s)
        return chords(as_complex(place), as_complex(velocity), self.before)

    def solved(self, s: np.ndarray, sigma: np.ndarray, *, ends: np.ndarray | None = None) -> tuple[np.ndarray, np.ndarray, np.ndarray]:
        """Return joints, factors and which runs settled (k,), by Newton from a first guess.

        Without ``ends`` the factors are fixed and the last joint is free; with them each run's
        last joint lies at its end. A run on which steps would grow without bound is given up, and with
        ``ends`` one whose links go astray, without them one that comes no nearer: its joints are sought along the line instead.
        """
        s, sigma, alive = s.copy(), sigma.astype(float).copy(), np.ones(len(self.count), bool)
        if ends is not None:
            s[self.heads + self.count] = ends
        if self.ways.near is not self.ways.line:
            alive = self._newton(s, sigma, ends, NEAR_ENOUGH_MM)
        some = np.flatnonzero(alive)
        alive[some] = self._newton_of(some, s, sigma, ends)
        return s, sigma, alive & (self.of_run(~self.met(s, sigma)) == 0)

    def _newton_of(self, rows: np.ndarray, s: np.ndarray, sigma: np.ndarray, ends: np.ndarray | None, enough: float = 0.0) -> np.ndarray:
        """Do what ``_newton`` does on some runs alone; tell which of them (r,) were not given up."""
        chain, joints = self.some(rows), self.joints_of(rows)
        own, factors = s[joints], sigma[rows]
        alive = chain._newton(own, factors, None if ends is None else ends[rows], enough)
        s[joints], sigma[rows] = own, factors
        return alive

    def _newton(self, s: np.ndarray, sigma: np.ndarray, ends: np.ndarray | None, enough: float) -> np.ndarray:
        """Move joints and factors, in place, until links miss by no more than ``enough`` mm near the line, or, where that is 0, can be told
        on the line itself; tell which runs (k,) were not given up. Those that are done stay where they are.
        """
        curve, few = self.ways.near if enough else self.ways.line, len(self.own) / 2
        farthest = 2 * self.scale + float(np.abs(self.own).sum())
        least_told, good = max(enough, RESIDUAL_REL_TOL * self.scale), max(enough, GOOD_REL_TOL * self.scale)
        alive = np.ones(len(self.count), bool)
        least, since = np.full(len(self.count), np.inf), np.zeros(len(self.count), int)
        for _ in range(NEWTON_ROUNDS):
            distance, ahead, behind = self.chords(curve, s)
            own, change = self.wide(s)
            ahead, behind = ahead - sigma[self.link_run] * change, behind + sigma[self.link_run] * change
            if ends is not None:
                alive &= self.of_run(ahead < LEAST_ADVANCE) <= MOST_ACROSS
            ahead = np.where(np.abs(ahead) < LEAST_ADVANCE, np.copysign(LEAST_ADVANCE, ahead), ahead)
            alive &= self.of_run(np.maximum(np.log(np.maximum(np.abs(behind / ahead), 1e-300)), 0.0)) < 500
            miss = sigma[self.link_run] * own - distance
            missed = self.most_of_run(np.abs(miss))
            done = (missed <= least_told) | ((missed <= good) & (missed >= least))
            since = np.where(missed < least / 2, 0, since + 1)
            least = np.minimum(least, missed)
            if ends is None:  # else they would have to be a link more or less
                alive &= (since < STALLED_ROUNDS) | (missed <= 10 * good)
            left = alive & ~done
            if not left.any():
                break
            if self.count[left].sum() < few:
                rows = np.flatnonzero(left)
                alive[rows] = self._newton_of(rows, s, sigma, ends, enough)
                break
            on = left[self.link_run]
            step, for_larger = newton_steps(self.before, on, ahead, behind, miss, own, len(s))
            if ends is not None:
                step = self._ending(step, for_larger, sigma)
            s += np.clip(step, -farthest, farthest)
        return alive

    def _ending(self, step: np.ndarray, for_larger: np.ndarray, sigma: np.ndarray) -> np.ndarray:
        """Return the steps with which each run's last joint stays, by another factor; these change in place."""
        tails = self.heads + self.count
        larger = -step[tails] / np.where(np.abs(for_larger[tails]) > 1e-300, for_larger[tails], 1.0)
        larger = np.clip(larger, -0.3 * sigma, 0.3 * sigma)
        sigma += larger
        ending = step + for_larger * larger[self.joint_run]
        ending[tails] = 0.0
        return ending

    def met(self, s: np.ndarray, sigma: np.ndarray) -> np.ndarray:
        """Tell which links reach from joint to joint."""
        miss = np.abs(sigma[self.link_run] * self.wide(s)[0] - self.chords(self.ways.line, s)[0])
        return miss <= 10 * GOOD_REL_TOL * self.scale

    def held(self, s: np.ndarray, sigma: np.ndarray, sought: np.ndarray) -> np.ndarray:
        """Tell which joints lie at their links' distances and in order, they and all before them in their runs.

        Where that is not the whole run, only those near where they were ``sought``: Newton may find a later place as far away,
        behind the next joint that was sought.
        """
        good = self.met(s, sigma) & (np.diff(s)[self.inner] > 0)
        whole = (self.of_run(~good) == 0)[self.link_run]
        near = np.abs(s - sought)[1:][self.inner] <= NEAR_SHARE * self.wide(sought)[0] * sigma[self.link_run]
        bad = np.flatnonzero(~(good & (near | whole)))[::-1]
        first = self.count.copy()  # the first of each run is written last
        first[self.link_run[bad]] = places(self.count)[bad]
        return places(self.count + 1) <= first[self.joint_run]

    def ordered(self, s: np.ndarray) -> np.ndarray:
        """Tell for each run (k,) whether its joints follow one another along the line."""
        return self.of_run(np.diff(s)[self.inner] <= 0) == 0

    def blocked(self, s: np.ndarray, sigma: np.ndarray) -> np.ndarray:
        """Return for each run (k,) where a next joint is not the line's first point at its link's distance; NaN where all are."""
        steps = np.diff(s)[self.inner]
        distance, good, gentle = self.wide(s)[0] * sigma[self.link_run], steps > 0, self.runs.gentle
        rows = np.arange(len(steps)) if gentle is None else np.flatnonzero(distance > gentle[self.link_run])
        runs, at = self.link_run[rows], s[self.before[rows]]
        start, apart = as_complex(self.ways.near(runs, at)[0]), np.zeros(len(rows))
        for share in INSIDE.tolist():
            np.maximum(apart, np.abs(as_complex(self.ways.near(runs, at + share * steps[rows])[0]) - start), out=apart)
        good[rows] &= apart < distance[rows] * (1 + 1e-9)
        out = np.full(len(self.count), np.nan)
        bad = np.flatnonzero(~good)[::-1]  # the first of each run is written last
        out[self.link_run[bad]] = s[self.before[bad]]
        return out

    def marched(self, start: np.ndarray, sigma: np.ndarray, s: np.ndarray, upto: np.ndarray) -> tuple[np.ndarray, np.ndarray]:
        """Return joints found one after the other on samples, to about a thousandth of a link, and from where on each run (k,) has no
        place far enough for a link that it should take, NaN where all have one.

        Up to the joint that lies at ``upto`` (k,) joints ``s`` are right, none but the first where that is NaN. The one loop over links;
        only lines that turn more tightly than their links can follow need it, from there on.
        """
        s, lost = s.copy(), np.full(len(self.count), np.nan)
        links = np.cumsum(self.count) - self.count
        wide = self.wide(s)[0]
        for run in range(len(self.count)):
            own = wide[links[run] : links[run] + self.count[run]] * sigma[run]
            right = s[self.heads[run] : self.heads[run] + len(own) + 1]
            right = right[: int((right == upto[run]).argmax()) + 1] if np.isfinite(upto[run]) else start[run : run + 1]
            found, own = self._sought(run, right, own, sigma[run] * self.own[links[run] : links[run] + self.count[run]])
            end = float(self.runs.start[run] + self.runs.length[run])
            if len(found) <= len(own) and found[-1] + own[len(found) - 1] <= end:
                lost[run] = found[-1]
            on = found[-1] + np.cumsum(own[len(found) - 1 :])  # links go on as long as they are
            s[self.heads[run] : self.heads[run] + len(own) + 1] = np.append(found, on)
        return s, lost

    def _sought(self, run: int, joints: np.ndarray, own: np.ndarray, even: np.ndarray) -> tuple[np.ndarray, np.ndarray]:
        """Return the joints of one run's n links, of which the first are known, sampling a window of the line after another: n + 1 of
        them, or as many as there are places far enough for; and the links' lengths (n,), which are those of where they lie: as wide
        there as the line is of what they are on an ``even`` one.
        """
        end = float(self.runs.start[run] + self.runs.length[run]) + 2 * float(own.max(initial=0.0))
        while len(joints) <= len(own):
            pitch = max(float(own.min()), MARCH_LEAST * float(own.mean())) / MARCH_STEPS
            at = joints[-1] + np.arange(min(max(int((end - joints[-1]) / pitch), 0) + 2, MARCH_WINDOW)) * pitch
            place = as_complex(self.ways.near(np.full(len(at), run), at)[0])
            first = len(joints) - 1
            found = marched(place, at, own[first:])
            for _ in range(MARCH_ROUNDS):
                if self.runs.widths is None or not len(found):
                    break
                lengths = _as_they_lie(self.runs.widths, run, np.append(joints[-1], found), own, even[first:])
                if np.abs(lengths - own)[first : first + len(found)].max() <= SAME_REL_TOL * self.scale:
                    break
                found, own = marched(place, at, lengths[first:]), lengths
            if not len(found):
                break
            joints = np.append(joints, found)
        return joints, own


def _as_they_lie(widths: RunWidths, run: int, joints: np.ndarray, own: np.ndarray, even: np.ndarray) -> np.ndarray:
    """Return the lengths ``own`` (n,) of a run's links with those that lie between ``joints`` as wide as the line is there, and those
    behind as wide as the last; ``even`` (m,) is what all these are on an even line.
    """
    count = len(joints) - 1
    width = widths.at(np.full(count, run), (joints[1:] + joints[:-1]) / 2)[0]
    return np.append(own[: len(own) - len(even)], np.append(width, np.full(len(even) - count, width[-1])) * even)
