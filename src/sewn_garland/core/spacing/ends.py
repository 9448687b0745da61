"""Start and end pieces: what they take off the runs at a line's ends, and their own stops."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace

import numpy as np

from ..values.brush import Brush
from ..values.laid import Run, Stops
from ..values.widths import Widths
from .joints import Curve, RunsOfLinks, laid_chains
from .stops import extents_of

BEFORE_ALL, AFTER_ALL = -1, 2**31 - 1  # places of a start and an end piece in their runs
LAST_PLACES = 2**31 - 2  # corner pieces and end pieces come after all repeats


def trimmed_runs(
    brush: Brush, runs: Sequence[list[Run]], lengths: np.ndarray, curve_of_line: Curve, widths: Widths | None = None
) -> tuple[list[list[Run]], Stops, np.ndarray]:
    """Take start and end pieces off the first and last runs of open lines.

    Return the runs that are left, the stops of those pieces and the line (n,) of each. A closed
    line has neither, nor has a line too short for what is asked.
    """
    out, rows = [list(of_line) for of_line in runs], []
    extents = extents_of(brush)
    for i, of_line in enumerate(runs):
        if not of_line or of_line[0].closed or (brush.start is None and brush.end is None):
            continue
        (begin, width_a), (finish, width_b) = _taken(brush, extents, curve_of_line, i, lengths[i], widths)
        first, last = of_line[0], of_line[-1]
        room = first.length if first is last else min(first.length - begin, last.length - finish) + begin + finish
        if begin + finish > room + 1e-9 or _meets_itself(of_line, lengths[i]):
            continue
        if first is last:
            out[i] = [replace(first, start=first.start + begin, length=max(first.length - begin - finish, 0.0))]
        else:
            out[i][0] = replace(first, start=first.start + begin, length=first.length - begin)
            out[i][-1] = replace(last, length=last.length - finish)
        for role, length, at, run, place, width in (
            ("start", begin, 0.0, 0, BEFORE_ALL, width_a), ("end", finish, lengths[i] - finish, len(of_line) - 1, AFTER_ALL, width_b),
        ):  # fmt: skip
            if getattr(brush, role) is not None:
                index = brush.index_of(role)
                before = length / 2 if brush.jointed else float(extents.before[index]) * width
                if widths is not None and brush.bent:  # its base line's middle lies where the even distance says
                    begun = widths.even_of(np.array([i]), np.array([at])) + extents.before[index]
                    before = float(widths.mm_of(np.array([i]), begun)[0]) - at
                rows.append((i, at + before, before, length - before, index, run, place, width))
    table = np.array(rows, float).reshape(-1, 8)
    line, s, before, after, variant, run, place, width = table.T
    ones, whole = np.ones(len(s)), [column.astype(int) for column in (variant, run, place)]
    return out, Stops(s, before, after, ones, 0 * ones, *whole, width), line.astype(int)


def _meets_itself(of_line: list[Run], length: float) -> bool:
    """Tell whether a line goes round without an end: its runs then reach past its length."""
    last = of_line[-1]
    return (last.leg[1] if last.leg else last.start + last.length) > length + 1e-9


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
