"""Pack laid lines for the browser as scenes: figures in the header, pieces and joins as arrays."""

from __future__ import annotations

import threading
from collections.abc import Callable
from dataclasses import dataclass

import numpy as np

from ..core.drawing.buffers import pack
from ..core.drawing.tables import finding_report
from ..core.errors import InputError
from ..core.inspecting.verdict import verdict
from ..core.pipeline import cured, lay, without_end
from ..core.placing.rigid import matrices_of
from ..core.shaping.bend import TOLERANCE_MM
from ..core.values.brush import Brush
from ..core.values.laid import LaidLine
from ..core.values.line import MeasuredLine

STRIP_SAMPLES = 1200


class Overtaken(Exception):
    """A newer request of the same client came in; this one's answer is of no use."""


class Latest:
    """Remembers the newest sequence number of every client and kind of request."""

    def __init__(self) -> None:
        self._newest: dict[str, int] = {}
        self._lock = threading.Lock()

    def question(self, client: str, seq: int) -> Callable[[], bool]:
        """Note a request and return the question whether a newer one has come since."""
        if not client:
            return lambda: False
        with self._lock:
            if len(self._newest) > 1000:
                self._newest.clear()
            self._newest[client] = max(seq, self._newest.get(client, seq))
        return lambda: self._newest.get(client, seq) > seq


@dataclass(frozen=True)
class Scene:
    """One line to lay, with what the browser needs to know it by."""

    key: str
    brush: Brush
    line: MeasuredLine
    about: dict
    unended: bool = False


def packed_scenes(
    scenes: list[Scene], *, cures: bool, overtaken: Callable[[], bool], header: dict | None = None,
    strip: str | None = None, trial: bool = False, large: str | None = None,
    tolerance: float = TOLERANCE_MM,
) -> bytes:
    """Lay every scene and pack the result; raises Overtaken as soon as a newer request is known.

    Bent outlines stray by at most ``tolerance`` mm. Of trial lines only the ``large`` one and the
    flat run carry their joins; what is kept aside has no cures.
    A scene whose brush cannot be laid on its line carries the sentence why in ``refused``.
    """
    entries, arrays = [], {}
    laid = _laid_by_brush(scenes, tolerance)
    for number, scene in enumerate(scenes):
        if overtaken():
            raise Overtaken
        done = laid[number]
        if isinstance(done, InputError):
            entries.append({"key": scene.key, **scene.about, "refused": str(done)})
            continue
        brush = without_end(scene.brush) if scene.unended else scene.brush
        if cures and not scene.key.startswith("aside "):
            done = cured(brush, scene.line, done, of_brush_only=trial)
        entries.append({"key": scene.key, **scene.about, **_figures(done, brush)})
        arrays |= _arrays(number, done, joins=not trial or scene.key in ("flat", large))
        if len(scene.brush.motifs) > 1:
            arrays[f"{number}.variant"] = ("u2", done.placements.variant)
        if scene.key == strip:
            arrays |= _strip(scene.line, done.length)
    return pack({**(header or {}), "scenes": entries}, arrays)


def _laid_by_brush(scenes: list[Scene], tolerance: float) -> list[LaidLine | InputError]:
    """Lay the scenes that share a brush together; a brush that cannot be laid gives its refusal."""
    by_brush: dict[Brush, list[int]] = {}
    for number, scene in enumerate(scenes):
        by_brush.setdefault(scene.brush, []).append(number)
    out: list[LaidLine | InputError] = [None] * len(scenes)
    for brush, numbers in by_brush.items():
        try:
            unended = {k for k, i in enumerate(numbers) if scenes[i].unended}
            done = lay(brush, [scenes[i].line for i in numbers], unended=unended, tolerance=tolerance, cut=False)
        except InputError as error:
            done = [error] * len(numbers)
        for i, each in zip(numbers, done, strict=True):
            out[i] = each
    return out


def _figures(laid: LaidLine, brush: Brush) -> dict:
    joins = laid.joins
    return {
        "refused": None, "length_mm": laid.length, "closed": laid.closed, "runs": laid.runs, "pieces": len(laid.stops.s),
        "pitch_mm": laid.pitch, "eased_pct": laid.eased * 100, "ease": brush.ease,
        "tightest_mm": laid.tightest_radius, "safe_mm": laid.safe_radius,
        "verdict": verdict(laid), "worst_mm": float(np.abs(joins.gap).max()) if len(joins.gap) else None,
        "worst_kink_deg": float(np.degrees(joins.kink.max())) if len(joins.kink) else None,
        "findings": [{**finding_report(f), "at": f.at, "count": f.count} for f in laid.findings],
    }  # fmt: skip


def _arrays(number: int, laid: LaidLine, *, joins: bool) -> dict[str, tuple[str, np.ndarray]]:
    """Return a scene's arrays; trial lines are only painted, so their joins stay here."""
    pieces = {f"{number}.pieces": ("f4", matrices_of(laid.placements))}
    if (shaped := laid.outlines) is not None and len(shaped.pieces):
        table = np.empty((len(shaped.piece), 3), np.uint32)
        table[:, 0], table[:, 1], table[:, 2] = shaped.starts[:-1], shaped.piece, 2 * shaped.shape + shaped.closed
        marks = np.zeros(len(laid.stops.s), np.uint32)
        marks[shaped.pieces] = 1
        pieces |= {f"{number}.shaped": ("u4", marks), f"{number}.outline": ("f4", shaped.points), f"{number}.contours": ("u4", table)}
        for k, mesh in enumerate(shaped.meshes):
            pieces |= {f"{number}.mesh.{k}": ("f4", mesh.points), f"{number}.meshed.{k}": ("u4", np.column_stack([mesh.piece, mesh.shape]))}
    if laid.cuts is not None and len(laid.cuts.piece):
        pieces |= {f"{number}.cut": ("u4", laid.cuts.piece), f"{number}.bisector": ("f4", np.hstack([laid.cuts.vertex, laid.cuts.away]))}
    return pieces | _join_arrays(number, laid) if joins else pieces


def _join_arrays(number: int, laid: LaidLine) -> dict[str, tuple[str, np.ndarray]]:
    joins, stops = laid.joins, laid.stops
    wished = stops.gap_after[joins.first]
    unknown = np.full(len(joins.s), np.nan)
    drawn = [unknown if each is None else each for each in (joins.apart, joins.overlap)]
    table = np.column_stack([joins.at, joins.s, joins.gap + wished, wished, joins.step, np.degrees(joins.kink), joins.tone, *drawn])
    extent = np.column_stack([stops.s, stops.before, stops.after])
    return {
        f"{number}.extent": ("f4", extent),
        f"{number}.joins": ("f4", table),
    }


def _strip(line: MeasuredLine, laid: float) -> dict[str, tuple[str, np.ndarray]]:
    """Return curvature along the line and its vertices, thinned for the bend strip.

    Distances are brought to the length that was laid on, ``laid`` mm, which corners that are rounded make shorter.
    """
    along = laid / line.length if line.length > 0 else 1.0
    keep = np.unique(np.linspace(0, max(len(line.bend_s) - 1, 0), STRIP_SAMPLES).astype(int)) if len(line.bend_s) else []
    bend = np.column_stack([along * line.bend_s[keep], line.bend_k[keep]]) if len(keep) else np.zeros((0, 2))
    return {
        "strip.bend": ("f4", np.clip(bend, -1e6, 1e6)),
        "strip.vertices": ("f4", np.column_stack([along * line.vertex_s, np.degrees(line.vertex_turn)])),
    }
