"""Keep arrays inside immutable values read-only."""

from __future__ import annotations

import numpy as np


def freeze_arrays(value: object) -> None:
    """Set every array field of a frozen dataclass contiguous and read-only."""
    for name, array in vars(value).items():
        if isinstance(array, np.ndarray) and array.flags.writeable:
            if not array.flags.c_contiguous:
                array = np.ascontiguousarray(array)
                object.__setattr__(value, name, array)
            array.setflags(write=False)
