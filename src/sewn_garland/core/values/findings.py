"""What is wrong with a laid line, and what removes it."""

from __future__ import annotations

from dataclasses import dataclass
from typing import NamedTuple


@dataclass(frozen=True)
class Cure:
    """A change that removes a finding: a JSON merge patch (RFC 7396) of the brush or the line.

    ``clears`` are the kinds of which no finding is left on the line, and none of another kind has come.
    """

    label: str
    change: dict
    clears: tuple[str, ...] = ()


class Finding(NamedTuple):
    """A measured fault: ``kind`` is a word of the vocabulary, ``at_mm`` along the line.

    ``at`` is its place on the page: a join's middle, else where the line passes (None until that
    has been looked up). ``limit`` is what the amount should be at least, where that is more than a tolerance. ``untried`` tells
    that time was up before all cures were tried. A tuple, for there may be tens of thousands.
    """

    kind: str
    at_mm: float
    amount: float
    unit: str
    message: str
    at: tuple[float, float] | None
    count: int = 1
    cures: tuple[Cure, ...] = ()
    untried: bool = False
    limit: float | None = None

    @property
    def badness(self) -> float:
        """Return what is the less the worse the finding is of its kind."""
        return self.amount if self.kind == "tight bend" else -self.amount

    def told(self, message: str) -> Finding:
        """Return the same finding in other words."""
        return self._replace(message=message)

    def placed(self, at: tuple[float, float]) -> Finding:
        """Return the same finding at a place on the page."""
        return self._replace(at=at)
