"""A picture as the ground of a page: what is kept of it, where it lies, how it is drawn."""

from __future__ import annotations

from typing import Literal

from sqlmodel import Session

from ..core.assemble import ground_box
from ..core.maths.raster import main_colours, png_from_rgba
from ..core.maths.recent import Recent
from ..core.reading.pictures import read_picture
from ..core.values.drawing import Box, PagePicture
from ..store import tables
from .originals import original_of, unpacking
from .pictures import MM_PER_PX, MOST_PIXELS

Laid = Literal["fitted", "true_size"]
COLOURS = 6  # of a picture that inks are held against; chosen: sky, sea, land and what stands out of them
_pictures: Recent[bytes] = Recent(100_000_000, weigh=len)


def ground_of_picture(session: Session, sha: str, laid: Laid) -> dict:
    """Return what a page keeps of the picture that is to be its ground; raises NotFound."""
    row = original_of(session, sha)
    mm = 25.4 / row.dpi if row.dpi else MM_PER_PX
    with unpacking:
        colours = main_colours(read_picture(row.data, where=row.name, most_pixels=MOST_PIXELS // 16).rgba, COLOURS)
    return {"sha": sha, "name": row.name, "laid": laid, "size_mm": [row.width_px * mm, row.height_px * mm], "colours": colours}


def place_of(page: tables.Page) -> Box | None:
    """Return where the picture of a page's ground lies, None where it has none."""
    if page.ground_picture is None:
        return None
    across, down = page.ground_picture["size_mm"]
    return ground_box(page.width_mm, page.height_mm, (across, down), fitted=page.ground_picture["laid"] == "fitted")


def colours_of(page: tables.Page) -> list[str]:
    """Return the colours of a page's ground: those that its picture is made of, else its own, if it has any."""
    own = [page.ground] if page.ground else []
    return own if page.ground_picture is None else page.ground_picture["colours"] or own


def picture_of(row: tables.Original) -> bytes:
    """Return a picture as it lies under a page, as PNG of at most so many pixels as a motif's."""

    def read() -> bytes:
        with unpacking:
            return png_from_rgba(read_picture(row.data, where=row.name, most_pixels=MOST_PIXELS).rgba)

    return _pictures.get(row.sha, read)


def drawn(session: Session, page: tables.Page) -> list[PagePicture]:
    """Return the picture of a page's ground as it is drawn, if there is one."""
    if page.ground_picture is None:
        return []
    return [PagePicture(picture_of(original_of(session, page.ground_picture["sha"])), place_of(page))]
