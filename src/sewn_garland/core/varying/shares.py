"""What a source gives: a share from 0 to 1 for every piece, and the value that a property takes there."""

from __future__ import annotations

from collections.abc import Sequence
from functools import lru_cache

import numpy as np
import scipy

from ..maths.streams import stop_uniforms
from ..values.variations import PROPERTIES, Property, Source, Variation

WITHOUT_READINGS: dict[Source, float] = {"pressure": 1.0, "tilt": 0.0, "tilt_side": 0.0, "twist": 0.0, "speed": 0.0}
GATHERED_PCT = 50.0  # of gathering adds one to the power


def numbered(variations: Sequence[Variation]) -> list[tuple[Variation, int]]:
    """Return variations in order, each with its number among those of its property that follow chance, by which its stream goes."""
    seen: dict[str, int] = {}
    out = []
    for variation in variations:
        k = seen.get(variation.of, 0)
        out.append((variation, k))
        if variation.follows == "chance":
            seen[variation.of] = k + 1
    return out


def shares_of_stops(
    variation: Variation, k: int, count: int, *, arrangement: int, line: int, row: int, slot: int = 0, attempt: int = 0
) -> np.ndarray:
    """Return the shares (count,) of the first stops of a line's row for what follows chance, pieces or turns.

    The streams of rows beside the line have the row's number behind the others.
    """
    stop = np.arange(count)
    if variation.follows == "pieces":
        return np.minimum(stop / variation.reaches, 1.0)
    if variation.follows == "turns":
        return stop % variation.reaches / (variation.reaches - 1)
    numbers = [arrangement, line, PROPERTIES[variation.of].code, k, slot, attempt, *([row] if row else [])]
    return gathered(stop_uniforms(numbers, count), variation.gather_pct)


def shares_along(variation: Variation, s: np.ndarray, length: np.ndarray, direction: np.ndarray) -> np.ndarray:
    """Return the shares (n,) of what is the same at a place whichever piece lies there: ``s`` mm along lines of ``length`` mm (n,)
    in a ``direction`` (n,), radians. What the pen gives is what it gives a line without readings.
    """
    if variation.follows == "distance":
        return np.clip(s / variation.reaches, 0.0, 1.0)
    if variation.follows == "length":
        return np.clip(s / np.where(length > 0, length, 1.0), 0.0, 1.0)
    if variation.follows == "direction":
        return np.mod(direction, 2 * np.pi) / (2 * np.pi)
    return np.full(len(s), WITHOUT_READINGS[variation.follows])


def gathered(u: np.ndarray, gather_pct: float) -> np.ndarray:
    """Draw shares (n,) to the middle."""
    if gather_pct == 0:
        return u
    t = 2 * u - 1
    return (np.sign(t) * np.abs(t) ** (1 + gather_pct / GATHERED_PCT) + 1) / 2


def values_at(variation: Variation, u: np.ndarray) -> np.ndarray:
    """Return the values (n,) of a property at shares (n,), in its own unit; a response goes by a monotone cubic (Fritsch and Carlson)."""
    if variation.response is not None:
        u = _answer(tuple(map(tuple, variation.response)))(u)
    low, high = variation.between
    return low + (high - low) * u


@lru_cache(maxsize=64)
def _answer(response: tuple[tuple[float, ...], ...]) -> scipy.interpolate.PchipInterpolator:
    x, y = np.array(response).T
    return scipy.interpolate.PchipInterpolator(x, y)


def combined(of: Property, values: Sequence[np.ndarray]) -> np.ndarray:
    """Return what several variations (at least one) of a property come to, (n,) each, in the property's unit.

    Of ``count`` each adds to one piece what it is more.
    """
    about = PROPERTIES[of]
    if about.multiplies:
        return about.neutral * np.prod([each / about.neutral for each in values], axis=0)
    return about.neutral + np.sum([each - about.neutral for each in values], axis=0)
