"""Random settings on nasty lines: nothing but our own refusals, no number that is none, no open join that is not told."""

import pytest

from examples import examples
from fuzzing import case_of, tried

SEED, PARTS = 20261127, 8


@pytest.mark.thorough
@pytest.mark.parametrize("part", range(PARTS))
def test_whatever_is_asked_for_is_laid_or_refused(part):
    came = [tried(case_of(SEED, PARTS * number + part)).how for number in range(examples(18))]
    assert came.count("laid") > len(came) / 2
