"""What pieces of unlike sizes and gaps take of their line, one after the other."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass

import numpy as np

BySize = Callable[[int, int], np.ndarray]
"""Takes a track and a number of stops n, returns a factor or a share (n,) for each of its first stops."""

AlongTrack = Callable[[int, np.ndarray], np.ndarray]
"""Takes a track and distances along it (n,), mm, returns a share (n,)."""


@dataclass(frozen=True)
class Taking:
    """What varies of that which repeats take, by the number of their stop: a factor on ``size`` and a share of the unvaried length that
    is added to the ``gap`` after each, and to it by ``gap_along``, at distances along the track. None is what does not vary.
    """

    size: BySize | None = None
    gap: BySize | None = None
    gap_along: AlongTrack | None = None
