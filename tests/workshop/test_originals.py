"""Work on large pictures: one at a time, given up while it waits and while it goes on."""

import io
import threading

import numpy as np
import pytest
from PIL import Image
from sqlmodel import select

from sewn_garland.store import tables
from sewn_garland.store.database import Store
from sewn_garland.workshop import originals
from sewn_garland.workshop.pictures import Preparation
from sewn_garland.workshop.scenes import Overtaken


@pytest.fixture
def row(tmp_path):
    dots = np.full((60, 60), 255, np.uint8)
    dots[10:30, 10:30] = dots[40:50, 40:50] = 0
    out = io.BytesIO()
    Image.fromarray(dots).save(out, "PNG")
    store = Store(tmp_path / "w.sqlite")
    yield originals.keep_original(store, "dots", out.getvalue())
    store.close()


def test_a_motif_that_waits_for_its_turn_can_be_stopped(row, tmp_path):
    class Stopped(Exception):
        pass

    asked = []

    def stop(share):
        asked.append(share)
        raise Stopped

    with originals.one_at_a_time, pytest.raises(Stopped):
        originals.make_motif(Store(tmp_path / "w.sqlite"), row, "dots", Preparation(), report=stop)
    assert asked == [0.0]
    assert not originals.one_at_a_time.locked()


def test_a_preview_is_broken_off_in_its_midst_by_a_newer_one(row):
    how = Preparation(trace="threshold")
    whole = []
    originals.preview(row, how, overtaken=lambda: bool(whole.append(None)))
    assert len(whole) > 3  # it asks before it begins and while it traces
    left = iter([False] * (len(whole) - 1))
    with pytest.raises(Overtaken):
        originals.preview(row, how, overtaken=lambda: next(left, True))
    assert not originals.one_at_a_time.locked()


def test_what_is_only_looked_at_gives_way_to_a_motif_that_is_made(row, tmp_path):
    store, how, waits, making = Store(tmp_path / "other.sqlite"), Preparation(trace="threshold"), threading.Event(), []

    def make_meanwhile():
        if originals.one_at_a_time.locked() and not making:
            work = {"target": originals.make_motif, "args": (store, row, "dots", how), "kwargs": {"report": lambda share: waits.set()}}
            making.append(threading.Thread(**work, daemon=True))
            making[0].start()
            assert waits.wait(20)
        return False

    with pytest.raises(Overtaken):
        originals.preview(row, how, overtaken=make_meanwhile)
    making[0].join(20)
    with store.reading() as session:
        assert [motif.name for motif in session.exec(select(tables.Motif))] == ["dots"]
    store.close()


def test_a_picture_is_brought_in_while_a_motif_is_being_made_of_another(row, tmp_path):
    kept = []

    def meanwhile(_share):
        if not kept:
            other = threading.Thread(target=lambda: kept.append(originals.keep_original(store, "again", row.data)), daemon=True)
            other.start()
            other.join(20)

    store = Store(tmp_path / "other.sqlite")
    originals.make_motif(store, row, "dots", Preparation(trace="threshold"), report=meanwhile)
    assert [each.name for each in kept] == ["again"]
    store.close()
