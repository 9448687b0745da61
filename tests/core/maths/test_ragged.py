"""Ragged arrays, against the same rows as plain lists."""

import numpy as np
import pytest

from sewn_garland.core.maths.ragged import alike, heads, owners, picked, places, ranges, run_heads

COUNTS = [[], [0], [3], [0, 0], [2, 0, 3], [0, 1, 0, 4, 0], [5, 5, 5]]


@pytest.mark.parametrize("counts", COUNTS, ids=str)
def test_every_entry_knows_its_row_and_its_place_there(counts):
    rows = [(row, place) for row, count in enumerate(counts) for place in range(count)]
    each = np.array(counts, int)
    assert owners(each).tolist() == [row for row, _ in rows]
    assert places(each).tolist() == [place for _, place in rows]


@pytest.mark.parametrize("counts", COUNTS, ids=str)
def test_rows_begin_where_those_before_them_end(counts):
    assert heads(np.array(counts, int)).tolist() == [sum(counts[:row]) for row in range(len(counts))]


@pytest.mark.parametrize("counts", COUNTS, ids=str)
def test_ranges_run_on_from_their_first_numbers(counts):
    first = [10 * row - 3 for row in range(len(counts))]
    expected = [begin + place for begin, count in zip(first, counts, strict=True) for place in range(count)]
    assert ranges(np.array(first, int), np.array(counts, int)).tolist() == expected


def test_runs_of_equal_rows_begin_where_any_column_changes():
    line, row = np.array([0, 0, 0, 1, 1, 1]), np.array([0, 0, 1, 1, 1, 0])
    assert run_heads(line, row).tolist() == [0, 2, 3, 5]
    assert run_heads(line).tolist() == [0, 3]
    assert run_heads(np.zeros(4)).tolist() == [0]
    assert run_heads(np.zeros(0), np.zeros(0)).tolist() == []


@pytest.mark.parametrize(("rows", "columns"), [(0, 3), (1, 1), (200, 1), (500, 4)])
def test_rows_that_are_equal_are_of_one_kind_as_numpy_finds_them(rows, columns):
    table = np.random.default_rng(3).integers(-2, 3, (rows, columns)).astype(float)
    first, kind = alike(table)
    _, rows_, kinds = np.unique(table, axis=0, return_index=True, return_inverse=True)
    assert first.tolist() == rows_.tolist() and kind.tolist() == kinds.ravel().tolist()


@pytest.mark.parametrize("counts", COUNTS, ids=str)
def test_what_is_picked_is_what_lies_at_the_ranges(counts):
    rng, each = np.random.default_rng(len(counts)), np.array(counts, int)
    values, first = rng.random(20) + 1j * rng.random(20), rng.integers(0, 15, len(counts))
    assert np.array_equal(picked(values, first, each), values[ranges(first, each)])
