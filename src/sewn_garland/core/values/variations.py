"""What varies from piece to piece, and what it follows: a property, a source, and the two values between which it goes.

One table says all of each property: its number in the random streams, its unit, the values it may take, what leaves pieces as
they are, and how several variations of it come together.
"""

from __future__ import annotations

import itertools
from collections.abc import Sequence
from typing import Annotated, Literal, NamedTuple

from pydantic import BaseModel, ConfigDict, Field, model_validator

Property = Literal[
    "size", "squash", "opacity", "strength", "tooth", "turn", "hue", "across", "along", "gap", "lightness", "mix", "count",
    "mirror_up_down", "mirror_left_right",
]  # fmt: skip
Source = Literal["chance", "pressure", "tilt", "tilt_side", "twist", "speed", "direction", "pieces", "distance", "length", "turns"]
PEN: tuple[Source, ...] = ("pressure", "tilt", "tilt_side", "twist", "speed")  # read off the hand that drew the line
ALONG_THE_LINE: tuple[Source, ...] = (*PEN, "direction", "distance", "length")  # the same at a place whichever piece lies there

NOT_JOINTED: tuple[Property, ...] = ("size", "squash", "along", "across", "count", "gap")
NOT_ONCE: tuple[Property, ...] = ("size", "along", "count", "gap")

MOST_VARIATIONS = 32
MOST_POINTS = 16
MOST_PIECES_AT_A_STOP = 100
LEAST_SIZE = 0.01  # chosen: of a repeated piece's size; a line of pieces without any would never be full


class About(NamedTuple):
    """What holds of a property: its code in the streams, words for its unit, least and most, what leaves a piece as it is, and whether
    several multiply (else they add).
    """

    code: int
    unit: str
    least: float
    most: float
    neutral: float
    multiplies: bool


PROPERTIES: dict[Property, About] = {
    "size": About(1, " %", 0, 1000, 100, True),
    "squash": About(2, " %", 0, 1000, 100, True),
    "opacity": About(3, " %", 0, 100, 100, True),
    "strength": About(4, " %", 0, 1000, 100, True),
    "tooth": About(5, " %", 0, 1000, 100, True),  # of a finish; without one nothing of it is seen
    "turn": About(6, "°", -3600, 3600, 0, False),
    "hue": About(7, "°", -360, 360, 0, False),
    "across": About(8, " %", -10_000, 10_000, 0, False),
    "along": About(9, " %", -10_000, 10_000, 0, False),
    "gap": About(10, " %", -1000, 10_000, 0, False),
    "lightness": About(11, " points", -100, 100, 0, False),
    "mix": About(12, " %", -100, 100, 0, False),
    "count": About(13, " pieces", 0, MOST_PIECES_AT_A_STOP, 1, False),
    "mirror_up_down": About(14, " %", 0, 100, 0, False),
    "mirror_left_right": About(15, " %", 0, 100, 0, False),
}
OVERS: dict[Source, tuple[float, float, float]] = {  # what ``over`` is without being said, its least and most
    "speed": (500, 1e-3, 100_000), "pieces": (25, 1, 2_000_000), "distance": (100, 1e-3, 1_000_000), "turns": (2, 2, 2_000_000),
}  # fmt: skip

Finite = Annotated[float, Field(allow_inf_nan=False)]
Share = Annotated[Finite, Field(ge=0, le=1)]
Two = Field(min_length=2, max_length=2, strict=False)
Between = Annotated[tuple[Finite, ...], Two]
Response = Annotated[tuple[Annotated[tuple[Share, ...], Two], ...], Field(min_length=2, max_length=MOST_POINTS, strict=False)]


class Variation(BaseModel):
    """A property of the pieces that follows a source between two values, first what it is where the source gives least.

    ``response`` are points (share of the source, share of the way) of a curve between them, none the straight way; ``gather_pct``
    draws chance to the middle; ``over`` is how many pieces, or how far, a source takes from least to most.
    """

    model_config = ConfigDict(extra="forbid", strict=True, allow_inf_nan=False, frozen=True, defer_build=True)

    of: Property
    follows: Source = "chance"
    between: Between
    response: Response | None = None
    gather_pct: Annotated[Finite, Field(ge=0, le=100)] = 0
    over: Annotated[Finite, Field(gt=0, le=2_000_000)] | None = None

    @model_validator(mode="after")
    def _within_limits(self) -> Variation:
        _refuse_values(self)
        _refuse_over(self)
        if self.response is not None:
            _refuse_curve(self.response)
        return self

    @property
    def reaches(self) -> float:
        """Return over how much the source goes from least to most, in its own unit."""
        return self.over if self.over is not None else OVERS[self.follows][0]


def refused_together(variations: Sequence[Variation], *, jointed: bool, once: bool, mitred: bool) -> str | None:
    """Say which of the variations cannot be together with how pieces travel, and what to do instead; None where all can."""
    for own in variations:
        if jointed and own.of in NOT_JOINTED:
            return f"links hang by their joints, so their {shown(own.of)} cannot vary: let them go rigid at bends, or vary turn or colour"
        if once and own.of in NOT_ONCE:
            return f"a piece laid once fills its line, so its {shown(own.of)} cannot vary: repeat it, or let it taper"
        if mitred and own.of in ("size", "gap") and own.follows not in ALONG_THE_LINE:
            return (f"pieces meet at a mitre at one size, so their {shown(own.of)} cannot follow {own.follows} there: "
                    "lap the corner or go through it, or let it follow the length of the line")  # fmt: skip
    return None


def most_at_a_stop(variations: Sequence[Variation]) -> int:
    """Return how many pieces a stop has at most."""
    return min(MOST_PIECES_AT_A_STOP, max(1, int(1.5 + sum(max(v.between) - 1 for v in variations if v.of == "count"))))


def shown(name: str) -> str:
    """Say a property or a source in words."""
    return name.replace("_", " ")


def limits_of(name: Property) -> str:
    """Say between which values a property goes, in the words that refuse others."""
    about = PROPERTIES[name]
    return f"{shown(name)} goes between values from {about.least:g} to {about.most:g}{about.unit}; take two of these"


def limits_of_over(source: Source) -> str:
    """Say over how much a source goes, in the words that refuse else."""
    _, least, most = OVERS[source]
    return f"over must be from {least:g} to {most:.0f} for what follows {shown(source)}"


def _refuse_values(own: Variation) -> None:
    about = PROPERTIES[own.of]
    if not all(about.least <= value <= about.most for value in own.between):
        raise ValueError(limits_of(own.of))


def _refuse_over(own: Variation) -> None:
    if own.over is None:
        return
    if own.follows not in OVERS:
        raise ValueError(f"what follows {shown(own.follows)} has no over: leave it out")
    _, least, most = OVERS[own.follows]
    if not least <= own.over <= most:
        raise ValueError(limits_of_over(own.follows))
    if own.follows in ("pieces", "turns") and own.over != int(own.over):
        raise ValueError(f"over counts whole pieces; {own.over:g} is none, take {own.over:.0f}")


def _refuse_curve(points: Sequence[tuple[float, ...]]) -> None:
    first, last = points[0], points[-1]
    if first[0] != 0 or last[0] != 1:
        raise ValueError(f"a response goes from 0 to 1; this one goes from {first[0]:g} to {last[0]:g}, move its ends there")
    for (x, _), (onward, _) in itertools.pairwise(points):
        if onward <= x:
            raise ValueError(f"a response rises from point to point; {onward:g} comes after {x:g}, move it to the right or take it out")
