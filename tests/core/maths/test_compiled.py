"""Functions that are compiled when first called."""

import sys

import numpy as np
import pytest
from numba.core.registry import CPUDispatcher

from sewn_garland.core.maths import compiled as where
from sewn_garland.core.maths.compiled import compiled, for_compiled
from sewn_garland.workshop.compiling import compile_ahead


def test_installing_compiles_every_one_of_them_for_one_kind_of_arguments():
    """Else somebody would wait for it who lays a brush."""
    compile_ahead()
    every = {value for name, module in list(sys.modules.items()) if name.startswith("sewn_garland.")
             for value in vars(module).values() if isinstance(value, CPUDispatcher)}  # fmt: skip
    within = {name for function in every for name in function.py_func.__code__.co_names}  # are compiled with what calls them
    entries = {function.py_func.__qualname__: function for function in every if function.py_func.__name__ not in within}
    assert len(entries) == sum(function.py_func.__name__ not in within for function in every) > 5
    assert {name: len(function.signatures) for name, function in entries.items() if len(function.signatures) != 1} == {}
    kinds = [str(kind) for function in every for signature in function.signatures for kind in signature]
    plain = ("readonly array(", "array(", "int", "float", "bool", "complex", "Tuple(", "UniTuple(")  # what is kept names no classes of ours
    assert {kind for kind in kinds if not kind.startswith(plain)} <= {"Literal[int](1)"}


def test_dividing_by_zero_gives_what_arrays_give():
    @compiled
    def inverse(x):
        return 1 / x

    assert inverse(0.0) == np.inf


def test_where_nothing_can_be_kept_it_is_compiled_all_the_same(monkeypatch):
    asked = []

    class Nowhere:
        @staticmethod
        def njit(*, cache=False, **options):
            asked.append((cache, options))
            if cache:
                raise RuntimeError("cannot cache function: no locator available")
            return lambda function: function

    monkeypatch.setattr(where, "numba", Nowhere)
    assert compiled(round)(2.4) == 2 and [cache for cache, _ in asked] == [True, False] and asked[0][1] == asked[1][1]


@pytest.mark.parametrize("given", [[], [1, 2], np.arange(6)[::2], np.zeros(3, bool), np.asfortranarray(np.ones((2, 3)))])
def test_arrays_for_compiled_functions_are_of_one_kind(given):
    found = for_compiled(given, float)
    assert found.dtype == float and found.flags.c_contiguous and not found.flags.writeable
    assert np.array_equal(found, given)


def test_what_is_as_it_should_be_is_not_copied():
    own = np.arange(5.0)
    assert np.shares_memory(for_compiled(own, float), own) and own.flags.writeable
