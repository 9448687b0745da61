"""Pages and lines as the browser sees them."""

from __future__ import annotations

from collections.abc import Sequence

from ...core.making.ready_lines import READY, begun, path_of
from ...core.maths.colour import contrast_of, rgb_from_hex
from ...store import tables
from ...workshop.grounds import colours_of, place_of
from ...workshop.lines import Moving
from ..messages.pages import LineMessage, MovingMessage, PageLines, PageMessage, ReadyFigureMessage, ReadyLineMessage


def page_message(row: tables.Page) -> PageMessage:
    """Return a page's message."""
    colours = colours_of(row)
    palette = [{**own, "contrast": min((_contrast(own["colour"], ground) for ground in colours), default=None)} for own in row.palette]
    told = {key: value for key, value in (row.ground_picture or {}).items() if key != "colours"}
    picture = {**told, "box": list(place_of(row) or ())} if told else None
    return PageMessage.model_validate({**row.model_dump(), "palette": palette, "ground_picture": picture, "ground_colours": colours})


def _contrast(ink: str, ground: str) -> float:
    return float(contrast_of(rgb_from_hex(ink), rgb_from_hex(ground)))


def line_message(row: tables.Line) -> LineMessage:
    """Return a line's message."""
    return LineMessage.model_validate(row.model_dump(exclude={"seed"}))


def ready_message(shape: str, page: tables.Page) -> ReadyLineMessage:
    """Return a ready line's message as it begins in the middle of a page."""
    begins, ready = begun(shape, page.width_mm, page.height_mm), READY[shape]
    figures = [ReadyFigureMessage(name=f.name, unit=f.unit, least=f.least, most=f.most, value=begins[f.name]) for f in ready.figures]
    path = path_of(shape, begins, (page.width_mm / 2, page.height_mm / 2))
    return ReadyLineMessage(shape=shape, name=ready.name, figures=figures, path=path)


def page_lines(page: tables.Page, lines: Sequence[tables.Line]) -> PageLines:
    """Return a page with its lines, back to front."""
    return PageLines(page=page_message(page), lines=[line_message(line) for line in lines])


def moving_of(message: MovingMessage) -> Moving:
    """Turn the message into the workshop's value."""
    (x, y), (about_x, about_y) = message.by, message.about
    return Moving((x, y), message.turn_deg, message.scale, (about_x, about_y))
