"""The shares of pieces whose values come out of streams: stop by stop, each line's row, slot and attempt of its own."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from functools import cached_property

import numpy as np

from ..maths.recent import Recent
from ..values.variations import Variation
from .shares import shares_of_stops

FEW = 1 << 14  # pieces whose shares are remembered; chosen: a drag asks for the same at every step
_remembered: Recent[np.ndarray] = Recent(32 * FEW, weigh=len)


@dataclass(frozen=True, eq=False)
class Named:
    """By what n pieces are dealt: ``tracks`` are the line's key and the row of each track, of every piece (n,) its track, slot,
    attempt and stop.
    """

    tracks: Sequence[tuple[int, int]]
    track: np.ndarray
    slot: np.ndarray
    attempt: np.ndarray
    stop: np.ndarray

    @cached_property
    def told(self) -> tuple[tuple[tuple[int, int], ...], bytes]:
        """Return all this as a value to know it by."""
        return tuple(self.tracks), np.stack([self.track, self.slot, self.attempt, self.stop]).tobytes()

    @cached_property
    def alike(self) -> list[np.ndarray]:
        """Return the pieces whose values come out of one stream, in the order of the table."""
        if not len(self.track):
            return []
        key = (self.track * (int(self.slot.max()) + 1) + self.slot) * (int(self.attempt.max()) + 1) + self.attempt
        order = np.argsort(key, kind="stable")
        return np.split(order, np.flatnonzero(np.diff(key[order])) + 1)


def dealt_shares(variation: Variation, k: int, arrangement: int, pieces: Named) -> np.ndarray:
    """Return the shares (n,) of pieces for the ``k``-th variation of its property that follows chance, pieces or turns."""
    if len(pieces.stop) > FEW:
        return _shares(variation, k, arrangement, pieces)
    about = (variation.of, variation.follows, variation.over, variation.gather_pct)  # what the source's share goes by
    return _remembered.get((about, k, arrangement, pieces.told), lambda: _shares(variation, k, arrangement, pieces))


def _shares(variation: Variation, k: int, arrangement: int, pieces: Named) -> np.ndarray:
    out = np.zeros(len(pieces.stop))
    for rows in pieces.alike:
        one, stops = rows[0], pieces.stop[rows]
        line, row = pieces.tracks[int(pieces.track[one])]
        shares = shares_of_stops(
            variation, k, int(stops.max()) + 1, arrangement=arrangement, line=line, row=row, slot=int(pieces.slot[one]),
            attempt=int(pieces.attempt[one]),
        )  # fmt: skip
        out[rows] = shares[stops]
    out.setflags(write=False)
    return out
