"""A motif: shapes with paint on a frame in millimetres."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from .arrays import freeze_arrays


@dataclass(frozen=True)
class Paint:
    """One flat colour, ``#rrggbb``, and how much of what lies below it covers (0 to 1)."""

    colour: str
    opacity: float = 1.0


@dataclass(frozen=True)
class Stroke:
    """A stroke in mm; ``dashes`` empty means solid."""

    paint: Paint
    width: float
    cap: str = "butt"
    join: str = "miter"
    miter_limit: float = 4.0
    dashes: tuple[float, ...] = ()
    dash_offset: float = 0.0


@dataclass(frozen=True, eq=False)
class Shape:
    """One outline: ``commands`` out of M L C Z and their ``points`` (k, 2) in mm, in order."""

    commands: str
    points: np.ndarray
    fill: Paint | None
    fill_rule: str = "nonzero"
    stroke: Stroke | None = None

    def __post_init__(self) -> None:
        freeze_arrays(self)


@dataclass(frozen=True, eq=False)
class Motif:
    """Artwork to be repeated. Coordinates run from the frame's top left, y down."""

    shapes: tuple[Shape, ...]
    width: float
    height: float
    base_line: float
    left_out: tuple[str, ...] = ()

    @property
    def points(self) -> int:
        """Count the on-curve points, the motif's weight."""
        return sum(len(shape.commands) - shape.commands.count("Z") for shape in self.shapes)
