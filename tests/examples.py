"""How many examples the property tests look at."""

import os

FEWER = int(os.environ.get("FEWER_EXAMPLES", "1"))


def examples(count: int) -> int:
    """Return a number of examples, or a part of it where an answer is wanted soon: FEWER_EXAMPLES=4 for a quarter."""
    return max(5, count // FEWER)
