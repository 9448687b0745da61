"""Figures of a laid line: its pitch, and what was eased."""

from __future__ import annotations

import numpy as np

from ..maths.ragged import run_heads
from ..values.arrays import rows_of
from ..values.pieces import REPEAT, Stops
from ..values.runs import RunSpacings


def pitches_of(stops: Stops, track: np.ndarray, tracks: int) -> list[float | None]:
    """Return, by track, the mean centre-to-centre distance of repeats inside runs; None without one or where runs differ.

    ``track`` (n,) is that of each stop, rising.
    """
    if stops.slot.any():
        first = stops.slot == 0
        stops, track = rows_of(stops, first), track[first]
    repeat = stops.role == REPEAT
    same = (stops.run[:-1] == stops.run[1:]) & (track[:-1] == track[1:]) & repeat[:-1] & repeat[1:]
    steps, own, run = np.diff(stops.s)[same], track[:-1][same], stops.run[:-1][same]
    pitches: list[float | None] = [None] * tracks
    if not len(steps):
        return pitches
    of_run = run_heads(own, run)
    means = np.add.reduceat(steps, of_run) / np.diff(np.append(of_run, len(steps)))
    of_track = run_heads(own[of_run])
    even = np.maximum.reduceat(means, of_track) - np.minimum.reduceat(means, of_track) <= 1e-6
    begun = of_run[of_track]
    mean = np.add.reduceat(steps, begun) / np.diff(np.append(begun, len(steps)))
    for i, is_even, pitch in zip(own[begun].tolist(), even.tolist(), mean.tolist(), strict=True):
        pitches[i] = pitch if is_even else None
    return pitches


def largest_ease(spacings: RunSpacings) -> float:
    """Return the signed change of the eased quantity that is largest over the runs; 0 without runs."""
    return float(max(spacings.eased.min(initial=0.0), spacings.eased.max(initial=0.0), key=abs))
