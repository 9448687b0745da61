"""Pages and lines as the browser sees them."""

from __future__ import annotations

from collections.abc import Sequence

from ...core.maths.colour import contrast_of, rgb_from_hex
from ...store import tables
from ..messages.pages import LineMessage, PageLines, PageMessage


def page_message(row: tables.Page) -> PageMessage:
    """Return a page's message."""
    ground = rgb_from_hex(row.ground) if row.ground else None
    palette = [
        {**own, "contrast": None if ground is None else float(contrast_of(rgb_from_hex(own["colour"]), ground))} for own in row.palette
    ]
    return PageMessage.model_validate({**row.model_dump(), "palette": palette})


def line_message(row: tables.Line) -> LineMessage:
    """Return a line's message."""
    return LineMessage.model_validate(row.model_dump(exclude={"seed"}))


def page_lines(page: tables.Page, lines: Sequence[tables.Line]) -> PageLines:
    """Return a page with its lines, back to front."""
    return PageLines(page=page_message(page), lines=[line_message(line) for line in lines])
