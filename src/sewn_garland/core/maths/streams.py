"""Random numbers by name: the same seed and name give the same numbers on any machine."""

from __future__ import annotations

from collections.abc import Sequence

import numpy as np


def uniforms(seed: int, name: str, count: int) -> np.ndarray:
    """Return ``count`` shares in [0, 1): raw PCG64 integers, shaped here, for NumPy may change its distributions."""
    return stop_uniforms([seed, *name.encode()], count)


def stop_uniforms(numbers: Sequence[int], count: int) -> np.ndarray:
    """Return a share in [0, 1) for each of the first ``count`` stops, from the stream that whole ``numbers`` name."""
    raw = np.random.PCG64(np.random.SeedSequence(list(numbers))).random_raw(count) if count else np.zeros(0, np.uint64)
    return (np.asarray(raw, np.uint64) >> np.uint64(11)).astype(float) * 2.0**-53
