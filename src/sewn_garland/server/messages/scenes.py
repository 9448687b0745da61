"""Laid lines as they go to the browser: the header of a binary reply. Its tables are those of ``core.drawing.columns``."""

from __future__ import annotations

from typing import Annotated, Any

from pydantic import Field

from ...core.values.blend import Blend
from .base import Message

Pair = Annotated[tuple[float, float], Field(strict=False)]


class CureMessage(Message):
    """A change that removes a finding: a merge patch (RFC 7396) of the brush or the line."""

    label: str
    change: dict[str, dict[str, Any]]
    clears: list[str]


class FindingMessage(Message):
    """A measured fault, ``at_mm`` along the line and ``at`` on the page; ``count`` of one kind behind one another.

    ``limit`` is what the amount should be at least, where that is more than a tolerance; ``untried`` tells that time was up
    before all cures were tried.
    """

    kind: str
    at_mm: float
    amount: float
    unit: str
    message: str
    limit: float | None
    at: Pair
    count: int
    cures: list[CureMessage]
    untried: bool


class InkedMotif(Message):
    """A motif of a brush by its place, with what its pictures are coloured by, to be asked for with it; None: as drawn."""

    place: int
    ink: str | None


class SceneHeader(Message):
    """A laid line; ``refused`` is the sentence why it could not be laid, and all figures are missing then.

    What it is known by: the ``line_id`` of a page, the ``brush_id`` of a swatch, the ``name`` of a trial line, whose points
    were ``moved`` or which is a page's line ``pinned``; ``points`` are those of the large one in the sheet's own 100 × 70.
    ``motif_ids`` are those of its brush in their order, with their versions; ``box`` is its own sheet, mm; ``path`` the line, mm.
    Tapers longer than ``tapers_within_mm`` are shown on so much. Where pieces are to stand ``apart``, only their gaps are judged, and of
    those that lie ``loose`` whether they meet. The line as one ``covers`` what is below it by a share, and is
    ``laid_on_as`` one of the standard's ways; each of its pieces as another.
    """

    key: str
    name: str | None = None
    path: str | None = None
    line_id: int | None = None
    brush_id: int | None = None
    motif_ids: list[int] | None = None
    motif_versions: list[int] | None = None
    inked: list[InkedMotif] | None = None
    box: Pair | None = None
    moved: bool | None = None
    points: list[Pair] | None = None
    pinned: int | None = None
    wished_pitch_mm: float | None = None
    tapers_within_mm: float | None = None
    refused: str | None
    verdict: str = ""
    length_mm: float = 0.0
    closed: bool = False
    runs: int = 0
    pieces: int = 0
    pitch_mm: float | None = None
    eased_pct: float = 0.0
    ease: str = "leave"
    tightest_mm: float | None = None
    safe_mm: float | None = None
    apart: bool = False
    loose: bool = False
    worst_mm: float | None = None
    worst_kink_deg: float | None = None
    covers: float = 1.0
    laid_on_as: Blend = "normal"
    pieces_laid_on_as: Blend = "normal"
    findings: list[FindingMessage] = Field(default_factory=list)


class TableEntry(Message):
    """Where a table lies in the reply: whose it is (a scene's place), which of its kind, its shape, and its offset in bytes."""

    part: int
    table: str
    number: int
    shape: list[int]
    offset: int


class ScenesHeader(Message):
    """The header of laid scenes; ``seq`` is that of the question."""

    seq: int
    scenes: list[SceneHeader]
    arrays: list[TableEntry]


class BenchHeader(ScenesHeader):
    """The header of a laid bench, with figures of the brush on a straight line and the trial lines' sheet, mm."""

    trial_mm: float
    trial_box: Pair
    piece_mm: float
    gap_mm: float
    pitch_mm: float
    height_mm: float
    above_mm: float
    spread_mm: float


class CornerJoinMessage(Message):
    """How a run meets a corner piece, beside what is wished."""

    gap_mm: float
    step_mm: float
    kink_deg: float


class CornerHeader(ScenesHeader):
    """The header of a laid corner whose vertex is at (0, 0): how far about it one looks, and how both runs meet its piece."""

    reach_mm: float
    enters: CornerJoinMessage | None
    leaves: CornerJoinMessage | None
