"""The store: steps, undo and redo, stale changes, migrations."""

import itertools

import pytest
from alembic import command
from alembic.autogenerate import compare_metadata
from alembic.config import Config
from alembic.migration import MigrationContext
from sqlalchemy import inspect, text
from sqlalchemy.exc import IntegrityError
from sqlmodel import select

from sewn_garland.store.database import Store
from sewn_garland.store.history import Change, NotFound, StaleChange, make_step, redo, standing, undo
from sewn_garland.store.migrating import MIGRATIONS
from sewn_garland.store.tables import Base, Line, Motif, Step

PILL = {"name": "pill", "svg": "<svg/>", "base_line_mm": 1.0, "left_out": []}


@pytest.fixture
def store(tmp_path):
    store = Store(tmp_path / "w.sqlite")
    yield store
    store.close()


def step(store, label, *changes, **more):
    with store.writing() as session:
        return make_step(session, label, list(changes), **more)


def names(store):
    with store.reading() as session:
        return [m.name for m in session.exec(select(Motif).order_by(Motif.id)).all()]


def test_every_change_is_taken_back_and_again_across_a_reopening(store, tmp_path):
    made = step(store, "bring in pill", Change("motif", None, PILL))[0]
    step(store, "rename pill", Change("motif", made["id"], {"name": "bead"}, made["version"]))
    step(store, "delete bead", Change("motif", made["id"], None, made["version"] + 1))
    seen = [names(store)]
    for take in (undo, undo, undo, redo, redo, redo):
        store.close()
        store = Store(tmp_path / "w.sqlite")
        with store.writing() as session:
            take(session)
        seen.append(names(store))
    assert seen == [[], ["bead"], ["pill"], [], ["pill"], ["bead"], []]
    with store.writing() as session:
        assert redo(session) is None


def test_a_stale_change_is_refused_and_nothing_of_it_is_kept(store):
    made = step(store, "new", Change("motif", None, PILL))[0]
    step(store, "first window", Change("motif", made["id"], {"name": "mine"}, 1))
    with pytest.raises(StaleChange) as caught:
        step(store, "second window", Change("motif", None, PILL), Change("motif", made["id"], {"name": "yours"}, 1))
    assert caught.value.current["name"] == "mine"
    assert names(store) == ["mine"]


def test_undoing_raises_the_version_so_that_old_windows_stay_stale(store):
    made = step(store, "new", Change("motif", None, PILL))[0]
    step(store, "rename", Change("motif", made["id"], {"name": "bead"}, 1))
    with store.writing() as session:
        undo(session)
    with pytest.raises(StaleChange):
        step(store, "old window", Change("motif", made["id"], {"name": "x"}, 1))


def test_a_new_step_drops_what_was_undone(store):
    step(store, "one", Change("motif", None, PILL))
    with store.writing() as session:
        undo(session)
    step(store, "two", Change("motif", None, PILL | {"name": "two"}))
    with store.reading() as session:
        stand = standing(session)
    assert (stand["undo"], stand["redo"]) == ("two", None)


def test_steps_of_one_run_become_one_however_long_they_took_and_another_run_is_another_step(store, monkeypatch):
    made = step(store, "new", Change("motif", None, PILL))[0]
    clock = itertools.count(0, 60)
    monkeypatch.setattr("time.time", lambda: float(next(clock)))
    for i, run in enumerate(["a base"] * 4 + ["b base"] * 3):
        step(store, f"base line to {i}", Change("motif", made["id"], {"base_line_mm": float(i)}, i + 1), merge_key=run)
    with store.writing() as session:
        assert undo(session) == "base line to 6"
        assert session.get(Motif, made["id"]).base_line_mm == 3.0
        assert undo(session) == "base line to 3"
        assert session.get(Motif, made["id"]).base_line_mm == PILL["base_line_mm"]


def test_ids_are_never_given_twice(store):
    first = step(store, "new", Change("motif", None, PILL))[0]
    step(store, "delete", Change("motif", first["id"], None, 1))
    assert step(store, "new", Change("motif", None, PILL))[0]["id"] > first["id"]


def test_foreign_keys_hold_and_missing_rows_are_told(store):
    with pytest.raises(IntegrityError):
        step(store, "brush of nothing", Change("brush", None, {"name": "b", "motif_id": 99, "settings": {}}))
    with pytest.raises(NotFound):
        step(store, "gone", Change("line", 7, None, 1))


def test_the_file_is_in_write_ahead_mode_and_migrated_to_the_tables(store):
    with store.engine.connect() as connection:
        assert connection.execute(text("PRAGMA journal_mode")).scalar() == "wal"
        assert connection.execute(text("PRAGMA foreign_keys")).scalar() == 1
        assert compare_metadata(MigrationContext.configure(connection), Base.metadata) == []


def test_old_steps_are_dropped_beyond_the_number_kept(store, monkeypatch):
    monkeypatch.setattr("sewn_garland.store.history.MOST_STEPS", 3)
    for i in range(6):
        step(store, f"s{i}", Change("motif", None, PILL))
    with store.reading() as session:
        assert [s.label for s in session.exec(select(Step).order_by(Step.id)).all()] == ["s3", "s4", "s5"]


def test_what_was_looked_up_is_kept_until_anything_is_changed_here_or_by_another_program(store, tmp_path):
    asked = []

    def look_up(session):
        asked.append(1)
        return [m.name for m in session.exec(select(Motif)).all()]

    made = step(store, "bring in pill", Change("motif", None, PILL))[0]
    assert [store.remembered("names", look_up) for _ in range(3)] == [["pill"]] * 3
    assert len(asked) == 1
    step(store, "rename pill", Change("motif", made["id"], {"name": "bead"}, made["version"]))
    assert [store.remembered("names", look_up) for _ in range(2)] == [["bead"]] * 2
    assert len(asked) == 2
    other = Store(tmp_path / "w.sqlite")
    try:
        step(other, "rename bead", Change("motif", made["id"], {"name": "drop"}, made["version"] + 1))
        assert store.remembered("names", look_up) == ["drop"]
        with other.writing() as session:
            undo(session)
    finally:
        other.close()
    assert store.remembered("names", look_up) == ["bead"]


def test_a_look_up_that_fails_is_asked_again(store):
    def missing(session):
        raise NotFound("motif 7")

    for _ in range(2):
        with pytest.raises(NotFound):
            store.remembered("seven", missing)
    assert store.remembered("seven", lambda session: 7) == 7


def test_a_step_keeps_only_what_it_changed(store):
    made = step(store, "bring in pill", Change("motif", None, PILL))[0]
    step(store, "rename pill", Change("motif", made["id"], {"name": "bead"}, made["version"]))
    with store.reading() as session:
        (record,) = session.exec(select(Step).order_by(Step.id)).all()[-1].changes
    assert record["before"] == {"name": "pill", "version": 1}
    assert record["after"] == {"name": "bead", "version": 2}


def test_a_step_kept_as_whole_rows_is_taken_back_too(store):
    made = step(store, "bring in pill", Change("motif", None, PILL))[0]
    now = step(store, "rename pill", Change("motif", made["id"], {"name": "bead"}, made["version"]))[0]
    with store.writing() as session:  # as steps were kept before
        last = session.exec(select(Step).order_by(Step.id)).all()[-1]
        last.changes = [{"table": "motif", "id": made["id"], "before": made, "after": now}]
        session.add(last)
    with store.writing() as session:
        undo(session)
    assert names(store) == ["pill"]


def test_lines_kept_before_they_had_seeds_are_dealt_as_they_were(tmp_path):
    store = Store(tmp_path / "w.sqlite")
    step(store, "motif", Change("motif", None, PILL))
    step(store, "brush", Change("brush", None, {"name": "b", "motif_id": 1}))
    for name in ("one", "two"):
        step(store, name, Change("page", None, {"name": name, "width_mm": 10, "height_mm": 10}))
    about = {"brush_id": 1, "path": "M0 0H9", "source": {}, "visible": True, "size_pct": 100}
    for name, page, position in (("a", 1, 3.0), ("b", 1, 1.0), ("c", 2, 1.0), ("d", 1, 2.0)):
        step(store, name, Change("line", None, {"name": name, "page_id": page, "position": position, **about}))
    with store.engine.connect() as connection:
        config = Config()
        config.set_main_option("script_location", str(MIGRATIONS))
        connection.execution_options(begin="IMMEDIATE")
        config.attributes["connection"] = connection
        command.downgrade(config, "0002")
        connection.commit()
        assert "seed" not in {column["name"] for column in inspect(connection).get_columns("line")}
    store.close()
    store = Store(tmp_path / "w.sqlite")
    with store.reading() as session:
        assert {line.name: line.seed for line in session.exec(select(Line))} == {"b": 0, "d": 1, "a": 2, "c": 0}
    store.close()
