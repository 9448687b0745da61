"""Lines with brushes on them, laid together for the browser, each with what is said about it."""

from __future__ import annotations

import time
from collections.abc import Callable, Sequence
from dataclasses import dataclass, field, replace
from typing import Any

import numpy as np

from ..core.assemble import Look, looks
from ..core.drawing.columns import Columns, bend_columns, close_columns, join_columns, piece_columns
from ..core.drawing.tables import finding_report
from ..core.errors import InputError
from ..core.inspecting.cures import Deadline
from ..core.inspecting.verdict import verdict
from ..core.lay import cured, lay, without_end
from ..core.maths.recent import Recent
from ..core.shaping.as_one import may_be_one
from ..core.shaping.shaped import TOLERANCE_MM, Detail
from ..core.values.brush import Brush
from ..core.values.laid import LaidLine
from ..core.values.tracks import LineToLay
from .rows import ink_code

CURES_SECONDS = 3.0  # of one question; chosen: the picture stands already while they are tried
Overtaking = Callable[[], bool]
"""Tells whether a newer question of the same asker has come in."""


class Overtaken(Exception):
    """A newer question of the same asker came in; the answer to this one is of no use."""


@dataclass(frozen=True)
class Scene:
    """One line to lay, and what the browser needs to know it by.

    An ``aside`` one is there to be compared with; a ``passing`` one is tried out, and not worth remembering when laid.
    """

    key: str
    brush: Brush
    line: LineToLay
    about: dict[str, Any] = field(default_factory=dict)
    aside: bool = False
    passing: bool = False


@dataclass(frozen=True, eq=False)
class LaidScene:
    """A scene with the line laid and how it looks, or the sentence why it cannot be."""

    scene: Scene
    laid: LaidLine | None
    look: Look | None
    refused: str | None

    @property
    def weight(self) -> int:
        """How many pieces and points of outlines it holds, and one for itself."""
        if self.laid is None:
            return 1
        outlines = self.laid.outlines
        return 1 + len(self.laid.pieces.s) + (0 if outlines is None else len(outlines.points))

    def figures(self) -> dict[str, Any]:
        """Return what is said of it."""
        about = {"key": self.scene.key, **self.scene.about, "refused": self.refused}
        if self.laid is None:
            return about
        laid, joins, ink = self.laid, self.laid.joins, self.scene.brush.ink
        return {
            **about, "inked": self._inked(), "covers": ink.ceiling, "laid_on_as": ink.of_line, "pieces_laid_on_as": ink.of_piece,
            "apart": self.scene.brush.apart, "loose": self.scene.brush.loose,
            "length_mm": laid.length, "closed": laid.closed, "runs": laid.runs, "pieces": len(laid.pieces.s),
            "pitch_mm": laid.pitch, "eased_pct": laid.eased * 100, "ease": _as_laid(self.scene).spacing.ease,
            "tightest_mm": laid.tightest_radius, "safe_mm": laid.safe_radius, "verdict": verdict(laid),
            "worst_mm": float(np.abs(joins.gap).max()) if len(joins.gap) else None,
            "worst_kink_deg": float(np.degrees(joins.kink.max())) if len(joins.kink) else None,
            "findings": [{**finding_report(f), "at": f.at, "count": f.count} for f in laid.findings],
        }  # fmt: skip

    def _inked(self) -> list[dict[str, Any]] | None:
        """Return the artworks of its pieces, each a motif of its brush by its place with the ink of its pictures; None where they are
        the motifs as drawn.
        """
        pictures = self.look and self.look.pictures
        return pictures and [{"place": place, "ink": ink_code(how)} for place, how in pictures.drawn]

    def tables(self, *, joins: bool = True, strip: bool = False) -> list[Columns]:
        """Return its pieces as tables, with their joins and the line's bend strip where asked."""
        if self.laid is None or self.look is None:
            return []
        out = piece_columns(self.look.pieces, self.look.cuts)
        out += close_columns(self.laid.closes)
        out += join_columns(self.laid) if joins else []
        return out + (bend_columns(self.scene.line.line, self.laid.length) if strip else [])


def laid_scenes(
    scenes: Sequence[Scene], *, overtaken: Overtaking, cures: bool = False, of_brush_only: bool = False, tolerance: float = TOLERANCE_MM
) -> list[LaidScene]:
    """Lay scenes, those that share a brush in one go; raises Overtaken as soon as a newer question is known.

    Bent outlines stray by at most ``tolerance`` mm; they are cut on bisectors where they may be one with those beyond. What is
    kept aside has no ``cures``; ``of_brush_only`` leaves out those that change the line.
    """
    laid = _laid_by_brush(scenes, tolerance)
    out, deadline = [], Deadline(CURES_SECONDS, time.monotonic)
    for scene, found in zip(scenes, laid, strict=True):
        if overtaken():
            raise Overtaken
        if isinstance(found, InputError):
            out.append(LaidScene(scene, None, None, str(found)))
            continue
        done, look = found
        if cures and not scene.aside:
            done = cured(_as_laid(scene), scene.line, done, of_brush_only=of_brush_only, deadline=deadline)
        out.append(LaidScene(scene, done, look, None))
    return out


def laid_anew(scenes: Sequence[Scene], remembered: Recent[LaidScene], *, overtaken: Overtaking, cures: bool = False) -> list[LaidScene]:
    """Lay those scenes that are not remembered to have been laid before, and return all."""
    keys = [(scene.brush, scene.line.line, scene.line.key, cures) for scene in scenes]
    known = [remembered.known(key) for key in keys]
    fresh = iter(laid_scenes([s for s, found in zip(scenes, known, strict=True) if found is None], overtaken=overtaken, cures=cures))
    out = []
    for scene, key, found in zip(scenes, keys, known, strict=True):
        laid = replace(found, scene=scene) if found else next(fresh)  # the same brush and line may have another name by now
        if found is None and not scene.passing:
            remembered.keep(key, laid)
        out.append(laid)
    return out


def _as_laid(scene: Scene) -> Brush:
    return without_end(scene.brush) if scene.line.unended else scene.brush


def _laid_by_brush(scenes: Sequence[Scene], tolerance: float) -> list[tuple[LaidLine, Look] | InputError]:
    """Lay the scenes that share a brush together; a brush that cannot be laid gives its refusal."""
    by_brush: dict[Brush, list[int]] = {}
    for number, scene in enumerate(scenes):
        by_brush.setdefault(scene.brush, []).append(number)
    out: dict[int, tuple[LaidLine, Look] | InputError] = {}
    for brush, numbers in by_brush.items():
        detail = Detail(tolerance, cut=may_be_one(brush))
        try:
            done = lay(brush, [scenes[i].line for i in numbers], detail=detail)
        except InputError as error:
            out.update(dict.fromkeys(numbers, error))
        else:
            out.update(zip(numbers, zip(done, looks(brush.pieces.motifs, done, brush.ink), strict=True), strict=True))
    return [out[number] for number in range(len(scenes))]
