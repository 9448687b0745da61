"""Everything there is, and the steps by which it became so."""

from __future__ import annotations

from .base import Message, RowId
from .brushes import BrushMessage
from .motifs import MotifSummary
from .pages import PageMessage


class History(Message):
    """The names of the steps that undo and redo would take; ``kept_at`` in seconds since 1970."""

    undo: str | None
    undo_id: int | None
    redo: str | None
    redo_id: int | None
    kept_at: float | None


class BrushUse(Message):
    """On how many lines of how many pages a brush lies; a brush on none is left out."""

    brush_id: int
    lines: int
    pages: int


class Workshop(Message):
    """Everything there is, without the shapes and lines themselves."""

    motifs: list[MotifSummary]
    brushes: list[BrushMessage]
    pages: list[PageMessage]
    uses: list[BrushUse]
    history: History


class StepRequest(Message):
    """Take back or again the step the window last knew of."""

    step_id: RowId
