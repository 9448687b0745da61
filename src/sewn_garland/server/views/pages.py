"""Pages and lines as the browser sees them."""

from __future__ import annotations

from collections.abc import Sequence

from ...store import tables
from ..messages.pages import LineMessage, PageLines, PageMessage


def page_message(row: tables.Page) -> PageMessage:
    """Return a page's message."""
    return PageMessage.model_validate(row.model_dump())


def line_message(row: tables.Line) -> LineMessage:
    """Return a line's message."""
    return LineMessage.model_validate(row.model_dump(exclude={"seed"}))


def page_lines(page: tables.Page, lines: Sequence[tables.Line]) -> PageLines:
    """Return a page with its lines, back to front."""
    return PageLines(page=page_message(page), lines=[line_message(line) for line in lines])
