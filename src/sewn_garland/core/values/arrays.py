"""Keep arrays inside immutable values read-only."""

from __future__ import annotations

from typing import TypeVar

import numpy as np

Table = TypeVar("Table")


def freeze_arrays(value: object) -> None:
    """Set every array field of a frozen dataclass contiguous and read-only."""
    for name, array in vars(value).items():
        if isinstance(array, np.ndarray) and array.flags.writeable:
            if not array.flags.c_contiguous:
                array = np.ascontiguousarray(array)
                object.__setattr__(value, name, array)
            array.setflags(write=False)


def rows_of(table: Table, rows: slice | np.ndarray) -> Table:
    """Return a frozen dataclass of arrays cut to some rows; what is None stays so. A slice shares its memory."""
    cut = object.__new__(type(table))
    cut.__dict__.update({name: None if column is None else column[rows] for name, column in vars(table).items()})
    if not isinstance(rows, slice):  # views of read-only arrays are read-only
        freeze_arrays(cut)
    return cut


def stacked(tables: list[Table]) -> Table:
    """Put frozen dataclasses of arrays (at least one) under one another; a column that is None stays so.

    What has no rows does not tell which columns the others have.
    """
    tables = [table for table in tables if len(next(iter(vars(table).values())))] or tables[:1]
    columns = {name: [getattr(table, name) for table in tables] for name in vars(tables[0])}
    return type(tables[0])(**{name: None if arrays[0] is None else np.concatenate(arrays) for name, arrays in columns.items()})


def extended(table: object, kind: type[Table], **columns: np.ndarray | None) -> Table:
    """Return a table of a kind that has all of another's columns and more."""
    return kind(**vars(table), **columns)
