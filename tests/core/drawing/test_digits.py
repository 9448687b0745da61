import re

import numpy as np
import pytest

from sewn_garland.core.drawing.digits import NUMBERS_AT_ONCE, about_numbers, filled, filled_rows

NUMBERS = [0.0, -0.0, 0.0004, -0.0004, 0.25, -12.5, 1.0, 10.0, 100.5, 9999.0, 9999.9999, 10_000.0, 123_456_789.123, -0.001, 1e-300]


def written(values, places: int) -> list[str]:
    return filled_rows(f"%.{places}f", np.asarray(values, float)[:, None])


def by_python(value: float, places: int) -> str:
    """Python's own rounding, without what a number of SVG may leave out."""
    text = f"{value:.{places}f}"
    text = text.rstrip("0").rstrip(".") if places else text
    text = re.sub(r"^(-?)0\.", r"\1.", text)
    return "0" if text in ("-0", "-", "") else text


@pytest.mark.parametrize("places", range(7))
def test_numbers_are_written_as_python_rounds_them(places):
    rng = np.random.default_rng(places)
    random = np.concatenate([rng.normal(0, 10.0**k, 300) for k in range(-5, 8)])
    values = np.append(NUMBERS, random)
    assert written(values, places) == [by_python(value, places) for value in values.tolist()]


def test_what_is_too_large_to_be_rounded_is_written_out_in_full():
    assert [float(text) for text in written([1e20, -2.5, 3e17], 3)] == [1e20, -2.5, 3e17]
    assert filled("<%.2f #%06x>", np.array([[-1e18, 10], [0.25, 255]])) == "<-1000000000000000000.00 #00000a><0.25 #0000ff>"


def test_the_largest_number_that_is_rounded_has_room():
    largest = -np.floor(2.0**53 / 1000 - 1) - 0.875
    assert filled("%.3f" * 50, np.full((7, 50), largest)) == f"{largest:.3f}" * 350


def test_a_template_is_parted_at_its_first_number_and_its_last():
    assert about_numbers("50%% of <%.3f and %06x> 7%%") == ("50% of <", "%.3f and %06x", "> 7%")
    assert about_numbers("nothing but 7%%") == ("nothing but 7%", "", "")


def test_templates_are_filled_row_by_row_over_many_blocks():
    n = NUMBERS_AT_ONCE + 7
    table = np.column_stack([np.arange(n) / 8, -np.arange(n), np.arange(n) * 997 % 2**24])
    lines = filled('<a href="#ä" p="%.3f %.0f" fill="#%06x" w="50%%"/>\n', table).splitlines()
    assert len(lines) == n
    for row in (0, 1, NUMBERS_AT_ONCE - 1, NUMBERS_AT_ONCE, n - 1):
        a, b, colour = table[row]
        assert lines[row] == f'<a href="#ä" p="{by_python(a, 3)} {by_python(b, 0)}" fill="#{int(colour):06x}" w="50%"/>'


def test_nothing_is_written_of_no_rows_or_an_empty_template():
    assert filled("%.3f", np.zeros((0, 1))) == ""
    assert filled("", np.zeros((3, 0))) == ""
