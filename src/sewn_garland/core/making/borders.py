"""The seven border arrangements of one motif, made and recognised.

A motif repeated in a strip can only have one of seven symmetries: the frieze groups of the
International Tables for Crystallography, volume E (from memory; the tests check each against the
symmetries that define it).
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace
from typing import Literal

import numpy as np

from ..artwork.box import box_of
from ..artwork.sections import columns_of, layers_of
from ..values.motif import Motif, mapped, shifted

Arrangement = Literal["slide", "glide", "upright", "along", "half_turn", "half_turn_glide", "all"]

# what each repeat of the motif is: as drawn, mirrored across an upright line, along the line, turned by half
COPIES: dict[Arrangement, tuple[tuple[str, ...], ...]] = {
    "slide": (("as_drawn",),),
    "glide": (("as_drawn",), ("along",)),
    "upright": (("as_drawn",), ("upright",)),
    "along": (("as_drawn", "along"),),
    "half_turn": (("as_drawn",), ("half_turn",)),
    "half_turn_glide": (("as_drawn",), ("upright",), ("along",), ("half_turn",)),
    "all": (("as_drawn", "along"), ("upright", "half_turn")),
}
FLIPS = {"as_drawn": (1.0, 1.0), "upright": (-1.0, 1.0), "along": (1.0, -1.0), "half_turn": (-1.0, -1.0)}
SAMPLES_A_MOTIF = 96
ALIKE = 0.04  # chosen: of the ink, may differ between a strip and its image before they count as unlike


def in_arrangement(motif: Motif, arrangement: Arrangement) -> tuple[Motif, ...]:
    """Return the variants that, laid in turn without gaps, give a border this arrangement.

    Mirrors along the line lie on the base line, or on the foot of artwork that crosses it, so that a
    motif and its image do not cover one another. The frame is made as high on both sides.
    """
    _, top, _, foot = box_of(motif.shapes)
    if "along" in COPIES[arrangement][0] and top < motif.base_line - 1e-6 and foot > motif.base_line + 1e-6:
        motif = replace(motif, base_line=foot)
    half = max(motif.base_line, motif.height - motif.base_line)
    out = []
    for copies in COPIES[arrangement]:
        shapes = []
        for copy in copies:
            fx, fy = FLIPS[copy]
            x = 0.0 if fx > 0 else motif.width
            matrix = np.array([[fx, 0.0, x], [0.0, fy, half - fy * motif.base_line]])
            shapes += [replace(mapped(s, matrix), group=0, derived=False) for s in motif.shapes]
        out.append(replace(motif, shapes=tuple(shapes), height=2 * half, base_line=half, joints=None, cuts=None, recipes=()))
    return tuple(out)


def arrangement_of(variants: Sequence[Motif]) -> Arrangement:
    """Recognise the arrangement of variants laid in turn without gaps, by comparing their strip with its images.

    Artwork is compared as it looks, colours included, to about a ninety-sixth of a motif's length.
    """
    strip = _strip(variants)
    upright, along, half_turn = (_matches(strip, image) for image in (strip[::-1], strip[:, ::-1], strip[::-1, ::-1]))
    if along[0]:
        return "all" if upright.any() else "along"
    if upright.any():
        return "half_turn_glide" if half_turn.any() else "upright"
    if half_turn.any():
        return "half_turn"
    return "glide" if along.any() else "slide"


def _strip(variants: Sequence[Motif]) -> np.ndarray:
    """Return how one period looks (columns, rows, 4), as high on both sides of the base line."""
    half = max(max(m.base_line, m.height - m.base_line) for m in variants)
    shortest = min(m.width for m in variants)
    parts = []
    for motif in variants:
        columns = round(SAMPLES_A_MOTIF * motif.width / shortest)
        xs = (np.arange(columns) + 0.5) / columns * motif.width
        lifted = shifted(motif, 0.0, half - motif.base_line)
        parts.append(columns_of(layers_of(lifted), 2 * half, xs, SAMPLES_A_MOTIF))
    return np.concatenate(parts)


def _matches(strip: np.ndarray, image: np.ndarray) -> np.ndarray:
    """Tell for every slide (columns,) of an image whether it looks like the strip."""
    ink = max(float(np.abs(strip).mean()), 1e-9)
    apart = np.array([np.abs(strip - np.roll(image, k, axis=0)).mean() for k in range(len(strip))])
    return apart <= ALIKE * ink
