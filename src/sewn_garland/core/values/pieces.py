"""The one table of pieces that goes through laying, each stage adding its columns."""

from __future__ import annotations

from dataclasses import dataclass
from typing import NamedTuple

import numpy as np

from .arrays import freeze_arrays
from .brush import ROLES

REPEAT, START, END, OUTSIDE_CORNER, INSIDE_CORNER = range(len(ROLES))  # what the column ``role`` holds


class PieceId(NamedTuple):
    """Who a piece is, whichever lines are laid together: the number its line is known by, its row there, its stop and its slot.

    Stops are numbered along each row, over all roles, from 0; a slot is one of several pieces at a stop.
    """

    line: int
    row: int
    stop: int
    slot: int


@dataclass(frozen=True, eq=False)
class Stops:
    """n stops with the piece that goes to each, line by line, row by row, in the order of travel: arrays (n,).

    ``line`` is its line's place among those laid together, ``row`` its row (0 the line itself), ``run`` its run among the
    line's, ``place`` its place among the run's repeats, from 0 (0 for pieces of other roles). ``stop`` and ``slot`` are
    those of its ``PieceId``. ``role`` is a place in ROLES, ``variant`` one among the role's motifs, ``motif`` among all of the brush.

    ``s`` mm along its track where the base line's middle lies (closed lines wrap), ``before`` and ``after`` the mm that the
    piece takes of it on each side, ``factor`` the ease on size, ``gap_after`` the wished mm to the next piece of the same
    run, ``width`` how wide the line is for the piece, ``size`` what varies of the piece's own, both factors on its size.
    """

    line: np.ndarray
    row: np.ndarray
    run: np.ndarray
    place: np.ndarray
    stop: np.ndarray
    slot: np.ndarray
    role: np.ndarray
    variant: np.ndarray
    motif: np.ndarray
    s: np.ndarray
    before: np.ndarray
    after: np.ndarray
    factor: np.ndarray
    gap_after: np.ndarray
    width: np.ndarray
    size: np.ndarray

    def __post_init__(self) -> None:
        freeze_arrays(self)

    @classmethod
    def on(cls, track: np.ndarray, rows: int, motif: np.ndarray, **columns: np.ndarray) -> Stops:
        """Return stops on tracks (n,), ``rows`` a line; what is not said is as of a repeat of full size without a gap."""
        n = len(track)
        whole = {name: np.zeros(n, int) for name in ("run", "place", "stop", "slot", "role")}
        plain = {"factor": np.ones(n), "gap_after": np.zeros(n), "width": np.ones(n), "size": np.ones(n)}
        return cls(line=track // rows, row=track % rows, motif=motif, **{**whole, **plain, "variant": motif, **columns})

    @property
    def at_corner(self) -> np.ndarray:
        """Tell which pieces (n,) are corner pieces."""
        return self.role >= OUTSIDE_CORNER

    @property
    def roles(self) -> np.ndarray:
        """Return the role of every piece (n,) as a word."""
        return np.array(ROLES)[self.role]

    def id_of(self, place: int, key: int) -> PieceId:
        """Return who the piece at a place in the table is; ``key`` is the number its line is known by."""
        return PieceId(key, int(self.row[place]), int(self.stop[place]), int(self.slot[place]))


@dataclass(frozen=True, eq=False)
class Varied(Stops):
    """Stops with what varies of their pieces, arrays (n,), each None where it leaves all pieces as they are.

    ``squash`` is a factor across the base line, ``swing`` radians clockwise, ``across`` and ``along`` mm to the right of travel
    and onward, ``mirrored`` (n, 2) tells what is mirrored along and across beside what the brush mirrors. ``opacity`` is 0 to 1,
    ``strength`` a factor on chroma, ``hue`` radians, ``lightness`` a part of white's, ``mix`` 0 to 1 of the second ink.
    """

    squash: np.ndarray | None
    swing: np.ndarray | None
    across: np.ndarray | None
    along: np.ndarray | None
    mirrored: np.ndarray | None
    opacity: np.ndarray | None
    strength: np.ndarray | None
    hue: np.ndarray | None
    lightness: np.ndarray | None
    mix: np.ndarray | None


def moved(by: np.ndarray | None) -> np.ndarray | float:
    """Return by how many mm pieces are moved (n,), 0 where nothing moves them."""
    return 0.0 if by is None else by


@dataclass(frozen=True, eq=False)
class Placed(Varied):
    """Stops with their pieces placed: ``centre`` (n, 2) is where each base line's middle lies on the page.

    ``turn`` radians clockwise, ``scale`` (n, 2) along the motif's own axes, negative where
    mirrored; ``direction`` (n,) the angle of each piece's base line before Turn, of jointed ones
    the angle from joint to joint. ``joints`` (n, 2, 2) are the left and right joint on the page,
    None where pieces do not hang together.
    """

    centre: np.ndarray
    turn: np.ndarray
    scale: np.ndarray
    direction: np.ndarray
    joints: np.ndarray | None

    @property
    def where(self) -> np.ndarray:
        """Return where each piece is said to lie (n, 2): its base line's middle, jointed the middle between its joints."""
        return self.centre if self.joints is None else self.joints.mean(axis=1)

    @property
    def linear(self) -> np.ndarray:
        """Return where each piece takes its motif's axes: rows of (n, 2, 2) are the images of x and y."""
        return self.linear_of(slice(None))

    def linear_of(self, rows: np.ndarray | slice) -> np.ndarray:
        """Return what ``linear`` does (k, 2, 2) for some rows alone."""
        turn, (sx, sy) = self.turn[rows], self.scale[rows].T
        cos, sin = np.cos(turn), np.sin(turn)
        return np.stack([cos * sx, sin * sx, -sin * sy, cos * sy], axis=1).reshape(-1, 2, 2)

    @property
    def matrices(self) -> np.ndarray:
        """Return (n, 6) affine matrices a b c d e f (SVG order) from the motif, about its base line's middle, to the page."""
        return np.hstack([self.linear.reshape(-1, 4), self.centre])

    @property
    def turned_over(self) -> np.ndarray:
        """Tell which pieces (n,) are mirrored, along or across but not both."""
        return np.prod(np.sign(self.scale), axis=1) < 0

    @property
    def stretched(self) -> np.ndarray:
        """Tell which pieces (n,) are not as long for their height as they were drawn."""
        along, across = np.abs(self.scale.T)
        return np.abs(along - across) > 1e-12 * across
