"""Give a motif the line's ink."""

from __future__ import annotations

from dataclasses import replace

from .values.motif import Motif, Paint


def inked(motif: Motif, ink: str | None) -> Motif:
    """Return the motif with every paint turned to ``ink`` (#rrggbb); what covers half still covers half.

    None keeps the artwork's own colours.
    """
    if ink is None:
        return motif

    def turned(paint: Paint | None) -> Paint | None:
        return None if paint is None else replace(paint, colour=ink)

    shapes = tuple(
        replace(s, fill=turned(s.fill), stroke=None if s.stroke is None else replace(s.stroke, paint=turned(s.stroke.paint)))
        for s in motif.shapes
    )
    return replace(motif, shapes=shapes)
