"""The shares of pieces whose values come out of streams: stop by stop, each line's row, slot and attempt of its own."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from functools import cached_property

import numpy as np

from ..maths.recent import Recent
from ..values.variations import Variation
from .shares import shares_of_stops

_remembered: Recent[np.ndarray] = Recent(1 << 19, weigh=len)  # chosen: a drag asks for the same at every step


@dataclass(frozen=True)
class Named:
    """By what n pieces are dealt: ``tracks`` are the line's key and the row of each track, ``numbers`` the track, slot, attempt and
    stop of all pieces, (4, n) whole numbers of eight bytes.
    """

    tracks: tuple[tuple[int, int], ...]
    numbers: bytes

    @cached_property
    def rows(self) -> np.ndarray:
        """Return these numbers (4, n)."""
        return np.frombuffer(self.numbers, np.int64).reshape(4, -1)


def named(tracks: Sequence[tuple[int, int]], track: np.ndarray, slot: np.ndarray, attempt: np.ndarray, stop: np.ndarray) -> Named:
    """Return by what pieces (n,) are dealt; there may be none."""
    return Named(tuple(tracks), np.stack([track, slot, attempt, stop]).astype(np.int64).tobytes())


def dealt_shares(variation: Variation, k: int, arrangement: int, pieces: Named) -> np.ndarray:
    """Return the shares (n,) of pieces for the ``k``-th variation of its property that follows chance, pieces or turns."""
    about = (variation.of, variation.follows, variation.over, variation.gather_pct)  # what the source's share goes by
    return _remembered.get((about, k, arrangement, pieces), lambda: _shares(variation, k, arrangement, pieces))


def _shares(variation: Variation, k: int, arrangement: int, pieces: Named) -> np.ndarray:
    track, slot, attempt, stop = pieces.rows
    out = np.zeros(len(stop))
    for rows in _dealt_alike(track, slot, attempt):
        one, stops = rows[0], stop[rows]
        line, row = pieces.tracks[track[one]]
        shares = shares_of_stops(
            variation, k, int(stops.max()) + 1, arrangement=arrangement, line=line, row=row, slot=int(slot[one]), attempt=int(attempt[one])
        )
        out[rows] = shares[stops]
    out.setflags(write=False)
    return out


def _dealt_alike(track: np.ndarray, slot: np.ndarray, attempt: np.ndarray) -> list[np.ndarray]:
    """Return the pieces whose values come out of one stream, in the order of the table."""
    if not len(track):
        return []
    key = (track * (int(slot.max()) + 1) + slot) * (int(attempt.max()) + 1) + attempt
    order = np.argsort(key, kind="stable")
    return np.split(order, np.flatnonzero(np.diff(key[order])) + 1)
