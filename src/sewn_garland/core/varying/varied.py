"""Vary pieces: what each stop's piece differs by from the brush's own."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import replace
from functools import cached_property
from typing import TypeVar

import numpy as np

from ..maths.ragged import owners, places
from ..values.arrays import extended, rows_of
from ..values.brush import Brush
from ..values.pieces import REPEAT, Stops, Varied
from ..values.tracks import FramesAt, Tracks
from ..values.variations import ALONG_THE_LINE, LEAST_SIZE, MOST_PIECES_AT_A_STOP, Property, Variation
from .dealt import Named, dealt_shares
from .shares import combined, numbered, shares_along, values_at

Pieces = TypeVar("Pieces", bound=Varied)
MIRRORED_FROM_PCT = 50.0
COLUMNS = ("squash", "swing", "across", "along", "mirrored", "opacity", "strength", "hue", "lightness", "mix")


class Values:
    """The values of a brush's variations at pieces (n,); ``attempt`` (n,) is how often each has been dealt before, None: never."""

    def __init__(self, brush: Brush, pieces: Stops, tracks: Tracks, frames_at: FramesAt, attempt: np.ndarray | None = None) -> None:
        self.brush, self.pieces, self.tracks, self.frames_at = brush, pieces, tracks, frames_at
        self.attempt = np.zeros(len(pieces.s), int) if attempt is None else attempt
        self.numbered = numbered(brush.variations)

    @cached_property
    def _named(self) -> Named:
        pieces, tracks = self.pieces, self.tracks
        keys = [(tracks.keys[line], row) for line, row in zip(tracks.line.tolist(), tracks.row.tolist(), strict=True)]
        return Named(keys, tracks.of(pieces), pieces.slot, self.attempt, pieces.stop)

    def of(self, *properties: Property, but: Callable[[Variation], bool] = lambda own: False) -> np.ndarray | None:
        """Return the values (n,) of a property, or of several as one, in its unit; None where nothing varies it, leaving out ``but``."""
        own = [(v, k) for v, k in self.numbered if v.of in properties and not but(v)]
        return combined(properties[0], [values_at(v, self._shares(v, k)) for v, k in own]) if own else None

    def _shares(self, variation: Variation, k: int) -> np.ndarray:
        if variation.follows not in ALONG_THE_LINE:
            return dealt_shares(variation, k, self.brush.variants.arrangement, self._named)
        track = self.tracks.of(self.pieces)
        return shares_along(variation, self.pieces.s, self.tracks.lengths[track], self._directions(variation, track))

    def _directions(self, variation: Variation, track: np.ndarray) -> np.ndarray:
        if variation.follows != "direction":
            return np.zeros(len(track))
        tangent = self.frames_at(track, self.pieces.s).tangent
        return np.arctan2(tangent[:, 1], tangent[:, 0])


def varied(
    stops: Stops, brush: Brush, tracks: Tracks, frames_at: FramesAt, lengths: np.ndarray, attempt: np.ndarray | None = None
) -> Varied:
    """Return what varies of every piece; ``lengths`` (m,) are what motifs take along the line unvaried, mm, ``attempt`` (n,) how often
    each piece has been dealt before (None: never).

    Start, end and corner pieces keep their shape and place, for what lies beside them meets them there; their colours vary as the
    repeats' do.
    """
    none: dict[str, np.ndarray | None] = dict.fromkeys(COLUMNS)
    if not brush.variations:
        return extended(stops, Varied, **none)
    values = Values(brush, stops, tracks, frames_at, attempt)
    repeat, own = stops.role == REPEAT, lengths[stops.motif]

    def moved(of: Property, unit: np.ndarray | float, neutral: float = 0.0) -> np.ndarray | None:
        found = values.of(of)
        return None if found is None else np.where(repeat, found * unit, neutral)

    def tinted(of: Property, unit: float, low: float = -np.inf, high: float = np.inf) -> np.ndarray | None:
        found = values.of(of)
        return None if found is None else np.clip(found * unit, low, high)

    stops = _sized(stops, brush, values, repeat)
    return extended(stops, Varied, **{
        "squash": moved("squash", 0.01, 1.0), "swing": moved("turn", np.pi / 180), "across": moved("across", own / 100),
        "along": moved("along", own / 100), "mirrored": _mirrored(values, repeat), "opacity": tinted("opacity", 0.01, 0.0, 1.0),
        "strength": tinted("strength", 0.01, 0.0), "hue": tinted("hue", np.pi / 180), "lightness": tinted("lightness", 0.01),
        "mix": tinted("mix", 0.01, 0.0, 1.0),
    })  # fmt: skip


def _sized(stops: Stops, brush: Brush, values: Values, repeat: np.ndarray) -> Stops:
    """Return stops with the sizes of pieces that take none of the line: all of those scattered, else those beside a stop's first."""
    beside = repeat if brush.travel.kind == "scattered" else repeat & (stops.slot > 0)
    if not beside.any():
        return stops
    sizes = values.of("size", but=lambda own: brush.travel.kind != "scattered" and own.follows in ALONG_THE_LINE)
    return stops if sizes is None else replace(stops, size=np.where(beside, sizes / 100, stops.size))


def _mirrored(values: Values, repeat: np.ndarray) -> np.ndarray | None:
    along, across = values.of("mirror_left_right"), values.of("mirror_up_down")
    if along is None and across is None:
        return None
    never = np.zeros(len(repeat), bool)
    return np.stack([never if own is None else repeat & (own >= MIRRORED_FROM_PCT) for own in (along, across)], axis=1)


def multiplied(stops: Stops, brush: Brush, tracks: Tracks, frames_at: FramesAt) -> Stops:
    """Return the stops with as many pieces at each as ``count`` says, slot after slot; a stop with none keeps its number."""
    found = Values(brush, stops, tracks, frames_at).of("count")
    if found is None:
        return stops
    counts = np.where(stops.role == REPEAT, np.floor(np.clip(found, 0, MOST_PIECES_AT_A_STOP) + 0.5), 1).astype(int)
    return replace(rows_of(stops, owners(counts)), slot=places(counts))


def seen(pieces: Pieces) -> Pieces:
    """Return the pieces that are large enough to be seen; the others leave their stops empty."""
    small = pieces.size < LEAST_SIZE
    if pieces.squash is not None:
        small = small | (pieces.squash < LEAST_SIZE)
    return rows_of(pieces, np.flatnonzero(~small)) if small.any() else pieces
