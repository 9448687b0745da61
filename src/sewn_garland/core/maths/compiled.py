"""Functions compiled to machine code: loops over very many numbers whose steps hang on one another, for which arrays have no words."""

from __future__ import annotations

from collections.abc import Callable
from typing import TypeVar, cast

import numba
import numpy as np
from numpy.typing import ArrayLike

Function = TypeVar("Function", bound=Callable)


def compiled(function: Function) -> Function:
    """Compile a function of numbers and arrays when it is first called; for next time that is kept on disk.

    What it calls of these is put into it. It takes no values of classes of our own: what is kept names these, and could not be read any
    more after one of them went.
    Dividing by zero gives what arrays give, and no sum is put together in another order. What is kept goes beside the function's file,
    or among the user's own files where nothing can be written there; nothing is kept where neither can.
    """
    options = {"nogil": True, "error_model": "numpy", "forceinline": True}
    try:
        done = numba.njit(cache=True, **options)(function)
    except RuntimeError:  # no place to keep it
        done = numba.njit(**options)(function)
    return cast(Function, done)


def for_compiled(array: ArrayLike, kind: type) -> np.ndarray:
    """Return an array of some kind of number as all are given to compiled functions, for one of each to serve: contiguous and read-only.

    It is copied only if need be.
    """
    same = np.ascontiguousarray(array, kind).view()
    same.setflags(write=False)
    return same
