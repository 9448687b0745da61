"""Random numbers by name: the same seed and name give the same numbers on any machine."""

from __future__ import annotations

from collections.abc import Sequence
from functools import lru_cache

import numpy as np

FEW = 256  # shares of a stream that are remembered, two kilobytes; chosen


def uniforms(seed: int, name: str, count: int) -> np.ndarray:
    """Return ``count`` shares in [0, 1): raw PCG64 integers, shaped here, for NumPy may change its distributions."""
    return stop_uniforms([seed, *name.encode()], count)


def stop_uniforms(numbers: Sequence[int], count: int) -> np.ndarray:
    """Return a share in [0, 1) for each of the first ``count`` stops, from the stream that whole ``numbers`` name."""
    if count <= FEW:
        return _few(tuple(numbers))[:count]
    return _drawn(numbers, count)


@lru_cache(maxsize=8192)
def _few(numbers: tuple[int, ...]) -> np.ndarray:
    """Return the first shares of a stream, which a drag asks for again at every step."""
    shares = _drawn(numbers, FEW)
    shares.setflags(write=False)
    return shares


def _drawn(numbers: Sequence[int], count: int) -> np.ndarray:
    raw = np.random.PCG64(np.random.SeedSequence(list(numbers))).random_raw(count)
    return (np.asarray(raw, np.uint64) >> np.uint64(11)).astype(float) * 2.0**-53
