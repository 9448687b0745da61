"""Keep arrays inside immutable values read-only."""

from __future__ import annotations

from dataclasses import fields

import numpy as np


def freeze_arrays(value: object) -> None:
    """Set every array field of a frozen dataclass read-only, contiguous and finite-typed."""
    for field in fields(value):  # type: ignore[arg-type]
        array = getattr(value, field.name)
        if isinstance(array, np.ndarray):
            array = np.ascontiguousarray(array)
            array.setflags(write=False)
            object.__setattr__(value, field.name, array)
