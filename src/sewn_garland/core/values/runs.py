"""Runs of lines, the corners between them, and how runs are filled."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from .arrays import freeze_arrays, rows_of
from .pieces import Stops
from .tracks import Tracks


@dataclass(frozen=True, eq=False)
class Runs:
    """The runs of all tracks in the order of travel, stretches between two corners or ends: arrays (r,).

    ``track`` is what each run lies on and ``number`` its place among its line's runs, row after row, from 0; it goes from
    ``start`` for ``length`` mm along the track. ``leg`` (r, 2) is where its straight-on directions end, from vertex to
    vertex, infinite where no corner ends it. ``mitred`` (r, 2) says at which of its two ends a piece
    straddles the vertex, ``beyond`` (r, 2) how many mm past it the artwork has to go straight on there.
    """

    track: np.ndarray
    number: np.ndarray
    start: np.ndarray
    length: np.ndarray
    closed: np.ndarray
    leg: np.ndarray
    mitred: np.ndarray
    beyond: np.ndarray

    def __post_init__(self) -> None:
        freeze_arrays(self)

    def edges(self, tracks: int) -> np.ndarray:
        """Return where each of so many tracks' runs begin among all, and the end (tracks + 1,)."""
        return np.searchsorted(self.track, np.arange(tracks + 1))


@dataclass(frozen=True, eq=False)
class Corners:
    """The corners that end runs, of all tracks in the order of travel: arrays (c,).

    ``s`` mm along the track, ``turn`` radians (positive to the right), ``style`` what the brush does
    there; ``before`` and ``after`` are the runs beside each, numbered among those of all tracks.
    ``vertex`` (c, 2) is where each lies, ``into`` and ``out`` (c, 2) the unit directions of its legs.
    """

    track: np.ndarray
    s: np.ndarray
    turn: np.ndarray
    style: np.ndarray
    before: np.ndarray
    after: np.ndarray
    vertex: np.ndarray
    into: np.ndarray
    out: np.ndarray

    def __post_init__(self) -> None:
        freeze_arrays(self)

    def some(self, rows: np.ndarray) -> Corners:
        """Return some of the corners."""
        return rows_of(self, rows)


@dataclass(frozen=True, eq=False)
class RunSpacings:
    """How runs are filled: arrays (r,).

    ``factor`` scales pieces and gaps (size ease), ``extra_gap`` mm is added to every gap (gap
    ease), ``offset`` mm lies before the first piece, ``rest`` mm stays unfilled in all.
    ``eased`` is the signed change of the eased quantity as a share; ``short`` says that the ease
    limit was reached or no piece fits, ``broken_order`` that variants do not close, ``blocked``
    the mm along the line where a rigid link cannot pass a bend, NaN where all can.
    """

    count: np.ndarray
    factor: np.ndarray
    extra_gap: np.ndarray
    offset: np.ndarray
    rest: np.ndarray
    eased: np.ndarray
    short: np.ndarray
    broken_order: np.ndarray
    blocked: np.ndarray

    def __post_init__(self) -> None:
        freeze_arrays(self)

    @classmethod
    def of(cls, count: np.ndarray, **columns) -> RunSpacings:
        """Return spacings with so many pieces (r,); what is not said is as with pieces of full size and nothing left over."""
        plain = {"factor": 1.0, "extra_gap": 0.0, "offset": 0.0, "rest": 0.0, "eased": 0.0, "short": False, "broken_order": False,
                 "blocked": np.nan}  # fmt: skip
        return cls(count, **columns, **{name: np.full(len(count), value) for name, value in plain.items() if name not in columns})

    def where(self, chosen: np.ndarray, others: RunSpacings) -> RunSpacings:
        """Return these where ``chosen`` (r,), elsewhere the others."""
        return RunSpacings(**{name: np.where(chosen, column, getattr(others, name)) for name, column in vars(self).items()})

    def with_rows(self, rows: np.ndarray, others: RunSpacings) -> RunSpacings:
        """Return these with the others put in their place at ``rows``."""
        columns = {name: column.copy() for name, column in vars(self).items()}
        for name, column in columns.items():
            column[rows] = getattr(others, name)
        return RunSpacings(**columns)


@dataclass(frozen=True, eq=False)
class Divided:
    """Tracks divided into runs, and the corners between them."""

    runs: Runs
    corners: Corners

    def at(self, tracks: Tracks, pieces: Stops) -> np.ndarray:
        """Return the place among all runs (n,) of the run of each of a table of pieces."""
        return self.runs.edges(len(tracks.measured))[pieces.line * tracks.rows] + pieces.run

    def legs(self, tracks: Tracks, pieces: Stops) -> np.ndarray | None:
        """Return from where to where (n, 2) mm pieces' runs follow their tracks, straight on beyond; None where no corner ends one."""
        return self.runs.leg[self.at(tracks, pieces)] if np.isfinite(self.runs.leg).any() else None

    def closed(self, tracks: int) -> np.ndarray:
        """Tell which of so many tracks (t,) are one closed run."""
        closed = np.zeros(tracks, bool)
        closed[self.runs.track[self.runs.closed]] = True
        return closed


@dataclass(frozen=True, eq=False)
class Filled:
    """Runs as corner, start and end pieces leave them, and how they are filled."""

    runs: Runs
    spacings: RunSpacings
