"""Start and end pieces: what they take off the runs at a line's ends, and their own stops."""

from __future__ import annotations

from dataclasses import replace
from itertools import pairwise

import numpy as np

from ..values.brush import Brush
from ..values.laid import Runs, Stops
from ..values.widths import Widths
from .joints import Curve, RunsOfLinks, laid_chains
from .stops import extents_of

BEFORE_ALL, AFTER_ALL = -1, 2**31 - 1  # places of a start and an end piece in their runs
LAST_PLACES = 2**31 - 2  # corner pieces and end pieces come after all repeats


def trimmed_runs(
    brush: Brush, runs: Runs, lengths: np.ndarray, curve_of_line: Curve, widths: Widths | None = None
) -> tuple[Runs, Stops, np.ndarray]:
    """Take start and end pieces off the first and last runs of open lines.

    Return the runs that are left, the stops of those pieces and the line (n,) of each. A closed
    line has neither, nor has a line too short for what is asked.
    """
    start, length, rows = runs.start.copy(), runs.length.copy(), []
    extents = extents_of(brush)
    edges = runs.edges(len(lengths))
    for i, (first, end) in enumerate(pairwise(edges.tolist() if brush.start or brush.end else [])):
        last = end - 1
        if last < first or runs.closed[first] or _meets_itself(runs, last, lengths[i]):
            continue
        (begin, width_a), (finish, width_b) = _taken(brush, extents, curve_of_line, i, lengths[i], widths)
        room = length[first] if first == last else min(length[first] - begin, length[last] - finish) + begin + finish
        if begin + finish > room + 1e-9:
            continue
        start[first] += begin
        length[first] -= begin
        length[last] = max(length[last] - finish, 0.0)
        for role, taken, at, run, place, width in (
            ("start", begin, 0.0, 0, BEFORE_ALL, width_a), ("end", finish, lengths[i] - finish, last - first, AFTER_ALL, width_b),
        ):  # fmt: skip
            if getattr(brush, role) is not None:
                index = brush.index_of(role)
                before = taken / 2 if brush.jointed else float(extents.before[index]) * width
                if widths is not None and brush.bent:  # its base line's middle lies where the even distance says
                    begun = widths.even_of(np.array([i]), np.array([at])) + extents.before[index]
                    before = float(widths.mm_of(np.array([i]), begun)[0]) - at
                rows.append((i, at + before, before, taken - before, index, run, place, width))
    table = np.array(rows, float).reshape(-1, 8)
    line, s, before, after, variant, run, place, width = table.T
    ones, whole = np.ones(len(s)), [column.astype(int) for column in (variant, run, place)]
    return replace(runs, start=start, length=length), Stops(s, before, after, ones, 0 * ones, *whole, width), line.astype(int)


def _meets_itself(runs: Runs, last: int, length: float) -> bool:
    """Tell whether a line of a length goes round without an end: its last run then reaches past that."""
    reach = runs.leg[last, 1]
    return (reach if np.isfinite(reach) else runs.start[last] + runs.length[last]) > length + 1e-9


def _taken(brush: Brush, extents, curve: Curve, line: int, length: float, widths: Widths | None) -> list[tuple[float, float]]:
    """Return the mm of a line that its start and its end piece take, each with how wide the line is for it."""
    out = []
    for role, way, begin in (("start", curve, 0.0), ("end", _backwards(curve, length), length)):
        if getattr(brush, role) is None:
            out.append((0.0, 1.0))
        elif brush.jointed:
            width = 1.0 if widths is None else float(widths.at(np.array([line]), np.array([begin]))[0][0])
            run = RunsOfLinks(np.zeros(1), np.array([length]), np.zeros(1, bool))
            own = brush.link_lengths[[brush.index_of(role)]] * width
            chain = laid_chains(lambda at, s, way=way: way(at + line, s), run, own, np.ones(1, int), sigma=np.ones(1), offset=np.zeros(1))
            out.append((float(chain.s[1]), width))
        else:
            out.append(_stretch(float(extents.length[brush.index_of(role)]), line, length, widths, from_end=role == "end"))
    return out


def _stretch(even: float, line: int, length: float, widths: Widths | None, *, from_end: bool) -> tuple[float, float]:
    """Return the mm that a piece takes at an end of a line, and how wide the line is for it."""
    if widths is None:
        return even, 1.0
    which = np.array([line])
    if from_end:
        taken = length - float(widths.mm_of(which, widths.even_of(which, np.array([length])) - even)[0])
    else:
        taken = float(widths.mm_of(which, np.array([even]))[0])
    return taken, taken / even


def _backwards(curve: Curve, length: float) -> Curve:
    def turned(run: np.ndarray, s: np.ndarray) -> tuple[np.ndarray, np.ndarray]:
        position, velocity = curve(run, length - s)
        return position, -velocity

    return turned


def with_ends(stops: Stops, line_of: np.ndarray, ends: Stops, ends_line: np.ndarray) -> tuple[Stops, np.ndarray]:
    """Put the stops of start and end pieces among the others in the order of travel.

    The gap that was wished next to such a piece is the one that the run's rest leaves there.
    """
    if not len(ends.s):
        return stops, line_of
    line = np.concatenate([line_of, ends_line])
    columns = {name: np.concatenate([array, getattr(ends, name)]) for name, array in vars(stops).items()}
    order = np.lexsort((columns["place"], columns["run"], line))
    columns = {name: array[order] for name, array in columns.items()}
    line = line[order]
    beside = (line[1:] == line[:-1]) & (columns["run"][1:] == columns["run"][:-1])
    beside &= (columns["place"][:-1] == BEFORE_ALL) | (columns["place"][1:] >= LAST_PLACES)
    between = (columns["s"] - columns["before"])[1:] - (columns["s"] + columns["after"])[:-1]
    columns["gap_after"][:-1][beside] = between[beside]
    return replace(stops, **columns), line
