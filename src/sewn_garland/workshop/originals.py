"""Pictures on their way to a motif: originals, previews, and the work of making one."""

from __future__ import annotations

import io
import threading
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from dataclasses import asdict
from hashlib import sha256

import numpy as np
from PIL import Image
from sqlmodel import Session

from ..core.errors import InputError
from ..core.reading.pictures import MOST_SIDE, ReadPicture, read_picture
from ..store import tables
from ..store.database import Store
from ..store.history import NotFound, StaleChange
from .motifs import keep
from .pictures import MOST_PIXELS, Made, Preparation, motif_of_prepared, prepared_picture
from .scenes import Overtaken, Overtaking

PREVIEW_PIXELS = 350_000
SHOWN_PIXELS = 1_200_000
ASK_EVERY_S = 0.1
one_at_a_time = threading.Lock()  # motifs are made of pictures one after the other
_waiting: set[object] = set()  # the motifs that are to be made and have not their turn yet: what is only looked at gives way to them
unpacking = threading.Lock()  # and pictures unpacked, so that memory stays bounded; a new one does not wait for a motif to be traced


def keep_original(store: Store, name: str, data: bytes) -> tables.Original:
    """Keep a picture's bytes once, after reading it through."""
    read = _read(name, data)
    told = [sentence for sentence in read.told if "scaled down" not in sentence]  # that was for the look at it here
    if max(read.size) > MOST_SIDE:
        told.append(f"It is worked on at {MOST_SIDE} pixels a side at most.")
    sha = sha256(data).hexdigest()
    row = tables.Original(sha=sha, name=name, data=data, width_px=read.size[0], height_px=read.size[1], dpi=read.dpi, told=told)
    with store.writing() as session:
        if session.get(tables.Original, sha) is None:
            session.add(tables.Original(**row.model_dump()))
    return row


def original_of(session: Session, sha: str) -> tables.Original:
    """Return a picture as it was brought in; raises NotFound."""
    row = session.get(tables.Original, sha)
    if row is None:
        raise NotFound("picture")
    return row


def shown(row: tables.Original) -> bytes:
    """Return a picture at the size of the screen, as PNG."""
    return quick_png(_read(row.name, row.data).rgba)


def quick_png(rgba: np.ndarray) -> bytes:
    """Return pixels (h, w, 4) as a PNG that is soon there and not small."""
    out = io.BytesIO()
    Image.fromarray(rgba, "RGBA").save(out, "PNG", compress_level=1)
    return out.getvalue()


def preview(row: tables.Original, how: Preparation, *, overtaken: Overtaking) -> Made:
    """Return the motif that a preparation would give, of a smaller picture.

    Raises Overtaken when a newer one is asked for, or a motif is to be made meanwhile.
    """

    def wait() -> None:
        if overtaken():
            raise Overtaken

    def go_on(_share: float) -> None:
        wait()
        if _waiting:
            raise Overtaken

    with _alone(wait):
        return _made(row, how, PREVIEW_PIXELS, go_on)


def make_motif(
    store: Store,
    row: tables.Original,
    name: str,
    how: Preparation,
    *,
    anew: tuple[int, int] | None = None,
    report: Callable[[float], None],
) -> int:
    """Make a motif of a picture and keep it; return its id. ``report`` hears the share that is done.

    ``anew`` puts it in the place of a motif, by its id and version.
    """
    turn = object()
    _waiting.add(turn)
    try:
        with _alone(lambda: report(0.0)):
            _waiting.discard(turn)
            made = _made(row, how, MOST_PIXELS, lambda share: report(0.95 * share))
    finally:
        _waiting.discard(turn)
    report(0.96)
    picture = {"sha": row.sha, "preparation": asdict(how)}
    try:
        with store.writing() as session:
            return keep(session, name, made.motif, f"bring in {name}", anew=anew, picture=picture).id
    except (StaleChange, NotFound):
        raise InputError("the motif was changed or deleted meanwhile; make another of the picture") from None


def _made(row: tables.Original, how: Preparation, most_pixels: int, report: Callable[[float], None]) -> Made:
    with unpacking:
        prepared = prepared_picture(row.data, how, where=row.name, most_pixels=most_pixels)
    return motif_of_prepared(prepared, how, report=report)


@contextmanager
def _alone(go_on: Callable[[], None]) -> Iterator[None]:
    """Wait for one's turn with large pictures; ``go_on`` is called meanwhile and before it, and may raise to give up."""
    while not one_at_a_time.acquire(timeout=ASK_EVERY_S):
        go_on()
    try:
        go_on()
        yield
    finally:
        one_at_a_time.release()


def _read(name: str, data: bytes) -> ReadPicture:
    with unpacking:
        return read_picture(data, where=name, most_pixels=SHOWN_PIXELS)
