"""What laying yields: stops, placed pieces, joins, findings."""

from __future__ import annotations

from dataclasses import dataclass
from typing import NamedTuple

import numpy as np

from .arrays import freeze_arrays, rows_of
from .outlines import Cuts, ShapedOutlines


@dataclass(frozen=True, eq=False)
class Runs:
    """The runs of all lines in the order of travel, stretches between two corners or ends: arrays (r,).

    ``line`` is each run's line and ``number`` its place in it, from 0; it goes from ``start`` for
    ``length`` mm along the line. ``leg`` (r, 2) is where its straight-on directions end, from vertex to
    vertex, infinite where no corner ends it. ``mitred`` (r, 2) says at which of its two ends a piece
    straddles the vertex, ``beyond`` (r, 2) how many mm past it the artwork has to go straight on there.
    """

    line: np.ndarray
    number: np.ndarray
    start: np.ndarray
    length: np.ndarray
    closed: np.ndarray
    leg: np.ndarray
    mitred: np.ndarray
    beyond: np.ndarray

    def __post_init__(self) -> None:
        freeze_arrays(self)

    def edges(self, lines: int) -> np.ndarray:
        """Return where each of so many lines' runs begin among all, and the end (lines + 1,)."""
        return np.searchsorted(self.line, np.arange(lines + 1))


@dataclass(frozen=True, eq=False)
class Corners:
    """The corners that end runs, of all lines in the order of travel: arrays (c,).

    ``s`` mm along the line, ``turn`` radians (positive to the right), ``style`` what the brush does
    there; ``before`` and ``after`` are the runs beside each, numbered among those of all lines.
    ``vertex`` (c, 2) is where each lies, ``into`` and ``out`` (c, 2) the unit directions of its legs.
    """

    line: np.ndarray
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
class Stops:
    """n stops in the order of travel: arrays (n,).

    ``s`` mm along the line where the base line's middle lies (closed lines wrap), ``before`` and
    ``after`` the mm that the piece takes of the line on each side of it, ``factor`` the ease on
    size, ``gap_after`` the wished mm to the next piece of the same run, ``run`` its run
    and ``place`` its place in that run, from 0. ``width`` is how wide the line is for the piece, a
    factor on its size.
    """

    s: np.ndarray
    before: np.ndarray
    after: np.ndarray
    factor: np.ndarray
    gap_after: np.ndarray
    variant: np.ndarray
    run: np.ndarray
    place: np.ndarray
    width: np.ndarray

    def __post_init__(self) -> None:
        freeze_arrays(self)


@dataclass(frozen=True, eq=False)
class Placements:
    """n placed pieces: ``centre`` (n, 2) is where each base line's middle lies on the page.

    ``turn`` radians clockwise, ``scale`` (n, 2) along the motif's own axes, negative where
    mirrored; ``direction`` (n,) the angle of each piece's base line before Turn, of jointed ones
    the angle from joint to joint. ``joints`` (n, 2, 2) are the left and right joint on the page,
    None where pieces do not hang together.
    """

    centre: np.ndarray
    turn: np.ndarray
    scale: np.ndarray
    direction: np.ndarray
    variant: np.ndarray
    joints: np.ndarray | None = None

    @property
    def place(self) -> np.ndarray:
        """Return where each piece is said to lie (n, 2): its base line's middle, jointed the middle between its joints."""
        return self.centre if self.joints is None else self.joints.mean(axis=1)

    def __post_init__(self) -> None:
        freeze_arrays(self)


@dataclass(frozen=True, eq=False)
class Joins:
    """j neighbouring pairs: place on the page (between the facing edges) and along the line, and deviations from the wish.

    ``gap`` mm (negative: overlap), ``step`` mm, ``kink`` radians, ``tone`` ΔE2000; arrays (j,), ``at``
    (j, 2). ``first`` and ``second`` are the earlier and the later piece. ``apart`` mm and ``overlap`` mm² are
    those of the outlines where these are measured, NaN where a join's are not.
    """

    at: np.ndarray
    s: np.ndarray
    gap: np.ndarray
    step: np.ndarray
    kink: np.ndarray
    first: np.ndarray
    second: np.ndarray
    tone: np.ndarray
    apart: np.ndarray | None = None
    overlap: np.ndarray | None = None

    def __post_init__(self) -> None:
        freeze_arrays(self)


@dataclass(frozen=True)
class Cure:
    """A change that removes a finding: a JSON merge patch (RFC 7396) of the brush or the line."""

    label: str
    change: dict


class Finding(NamedTuple):
    """A measured fault: ``kind`` is a word of the vocabulary, ``at_mm`` along the line.

    ``at`` is its place on the page: a join's middle, else where the line passes (None until that
    has been looked up). A tuple, for there may be tens of thousands.
    """

    kind: str
    at_mm: float
    amount: float
    unit: str
    message: str
    at: tuple[float, float] | None
    count: int = 1
    cures: tuple[Cure, ...] = ()

    def told(self, message: str) -> Finding:
        """Return the same finding in other words."""
        return Finding(self.kind, self.at_mm, self.amount, self.unit, message, self.at, self.count, self.cures)

    def placed(self, at: tuple[float, float]) -> Finding:
        """Return the same finding at a place on the page."""
        return Finding(self.kind, self.at_mm, self.amount, self.unit, self.message, at, self.count, self.cures)


@dataclass(frozen=True, eq=False)
class LaidLine:
    """One line with its brush on it; ``roles`` says the role of every motif of the brush, in their order.

    Bent pieces come as ``outlines``; their placements then say how each would be stamped, which
    pictures and gradients go by. ``cuts`` say where pieces end on bisectors, whether or not the outlines are cut there already.
    """

    length: float
    closed: bool
    runs: int
    stops: Stops
    placements: Placements
    joins: Joins
    findings: tuple[Finding, ...]
    pitch: float | None
    eased: float
    tightest_radius: float | None
    safe_radius: float | None
    roles: tuple[str, ...] = ("repeat",)
    outlines: ShapedOutlines | None = None
    cuts: Cuts | None = None
