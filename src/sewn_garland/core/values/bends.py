"""How pieces are bent, as stages after shaping ask for it."""

from __future__ import annotations

from collections.abc import Callable
from typing import NamedTuple

import numpy as np

Places = Callable[[np.ndarray, np.ndarray], np.ndarray]
"""Takes pieces (k,) and points (m, 2) that each of them has, about the base line's middle in the motif's own mm, returns where on the page
they are (k, m, 2).
"""

Sharpest = Callable[[np.ndarray], np.ndarray]
"""Takes pieces (k,), returns how sharply each is bent at most, 1/mm, judged at some places; infinity where a line turns about a vertex."""


class Bends(NamedTuple):
    """Where points of bent pieces go, how sharply these are bent, which pieces (n,) lie as they are stamped for all that, and the
    tightest bend of all, mm.
    """

    places: Places
    sharpest: Sharpest
    stamped: np.ndarray
    tightest: float
