"""Chains of sides too short to be seen."""

from __future__ import annotations

import numpy as np

from .curves import as_complex


def seen_of_chain(points: np.ndarray, least: float) -> np.ndarray:
    """Return the numbers (k,) of points (n, 2) that stay where a chain of sides goes on in steps of ``least`` or more, rising.

    The first and the last stay, though they lie nearer to one another; every point left out lies within ``least`` of one that stays.
    Two points or fewer all stay.
    """
    if len(points) <= 2:
        return np.arange(len(points))
    places = as_complex(points).tolist()
    kept, here = [0], places[0]
    for number, place in enumerate(places):
        if abs(place - here) >= least:
            kept.append(number)
            here = place
    last = len(places) - 1
    if kept[-1] != last:
        kept[max(1, len(kept) - 1) :] = [last]  # in place of the one that it lies so near to
    return np.array(kept)
