"""Change rows in named steps that can be taken back and taken again, across restarts."""

from __future__ import annotations

import time
from collections.abc import Callable
from dataclasses import dataclass

from sqlmodel import Session, col, func, select

from .tables import TABLES, Step, Versioned

MOST_STEPS = 2000


class StaleChange(Exception):
    """The row was changed elsewhere in the meantime; ``current`` is as it stands now.

    Where both changed the same, ``theirs`` is the step that was kept, and ``yours`` the one that was not.
    """

    def __init__(self, table: str, current: dict | None, *, theirs: str | None = None, yours: str | None = None) -> None:
        super().__init__(table)
        self.table, self.current, self.theirs, self.yours = table, current, theirs, yours


class StaleStep(Exception):
    """The step to be taken is not the one that the window knew of."""


class NotFound(LookupError):
    """There is no such row."""


@dataclass
class Change:
    """One row to put, change or take away: ``values`` None deletes, ``id`` None makes a new one."""

    table: str
    id: int | None
    values: dict | None
    version: int | None = None


def make_step(session: Session, label: str, changes: list[Change], *, merge_key: str = "") -> list[dict | None]:
    """Apply the changes as one step and return the rows as they are now (None: deleted).

    Raises StaleChange when a row's version is not the one given, NotFound for a missing row.
    Steps with one ``merge_key`` that follow one another become one. Undone steps are dropped.
    """
    records, rows = [], []
    for change in changes:
        record, row = _apply(session, change)
        records.append(record)
        rows.append(row)
    for step in session.exec(select(Step).where(col(Step.undone))).all():
        session.delete(step)
    last = _last_done(session)
    if merge_key and last is not None and last.merge_key == merge_key:
        last.changes = _merged(last.changes, records)
        last.label, last.at = label, time.time()
        session.add(last)
    else:
        session.add(Step(label=label, at=time.time(), changes=records, merge_key=merge_key))
    session.flush()
    trim_history(session)
    return rows


def take_step(session: Session, step_id: int, way: Callable[[Session], str | None]) -> dict:
    """Undo or redo (``way``) the step that a window knows of; return what stands then. Raises StaleStep when it is another."""
    key = "undo_id" if way is undo else "redo_id"
    if standing(session)[key] != step_id:
        raise StaleStep
    way(session)
    session.flush()
    return standing(session)


def undo(session: Session) -> str | None:
    """Take the last step back; return its label, or None when there is nothing to take back."""
    step = _last_done(session)
    if step is None:
        return None
    for record in reversed(step.changes):
        _put(session, record["table"], record["id"], record["before"])
    step.undone = True
    session.add(step)
    return step.label


def redo(session: Session) -> str | None:
    """Take the last undone step again; return its label, or None when there is none."""
    step = _next_undone(session)
    if step is None:
        return None
    for record in step.changes:
        _put(session, record["table"], record["id"], record["after"])
    step.undone = False
    session.add(step)
    return step.label


def standing(session: Session) -> dict:
    """Return the names of the steps that undo and redo would take, and when the last change was kept."""
    heads = select(Step.id, Step.label)  # what was changed need not be read for it
    undo_id, undo = session.exec(heads.where(~col(Step.undone)).order_by(col(Step.id).desc())).first() or (None, None)
    redo_id, redo = session.exec(heads.where(col(Step.undone)).order_by(col(Step.id))).first() or (None, None)
    return {
        "undo": undo, "undo_id": undo_id, "redo": redo, "redo_id": redo_id,
        "kept_at": session.exec(select(func.max(Step.at))).first(),
    }  # fmt: skip


def last_step_that(session: Session, table: str, row_id: int, changed: Callable[[dict, dict], bool]) -> str | None:
    """Return the name of the last step that changed a row so that ``changed(before, after)`` holds of what it says; None without one."""
    for step in session.exec(select(Step).where(~col(Step.undone)).order_by(col(Step.id).desc())):
        for record in step.changes:
            if (record["table"], record["id"]) == (table, row_id) and changed(record["before"] or {}, record["after"] or {}):
                return step.label
    return None


def trim_history(session: Session) -> None:
    """Drop the oldest steps beyond the number kept."""
    surplus = session.exec(select(Step).order_by(col(Step.id).desc()).offset(MOST_STEPS)).all()
    for step in surplus:
        session.delete(step)


def _last_done(session: Session) -> Step | None:
    return session.exec(select(Step).where(~col(Step.undone)).order_by(col(Step.id).desc())).first()


def _next_undone(session: Session) -> Step | None:
    return session.exec(select(Step).where(col(Step.undone)).order_by(col(Step.id))).first()


def _apply(session: Session, change: Change) -> tuple[dict, dict | None]:
    """Make a change; return its record and the row as it is then."""
    model = TABLES[change.table]
    if change.id is None:
        row = model(**change.values or {}, version=1)
        session.add(row)
        session.flush()
        return {"table": change.table, "id": row.id, "before": None, "after": row.model_dump()}, row.model_dump()
    row = session.get(model, change.id)
    if row is None:
        raise NotFound(change.table)
    before = row.model_dump()
    if change.version is not None and row.version != change.version:
        raise StaleChange(change.table, before)
    record: dict = {"table": change.table, "id": change.id}
    if change.values is None:
        _put(session, change.table, change.id, None)
        return record | {"before": before, "after": None}, None
    after = {**before, **change.values, "version": before["version"] + 1}
    _put(session, change.table, change.id, after, keep_version=True)
    changed = [key for key in after if after[key] != before[key]]
    return record | {"before": {key: before[key] for key in changed}, "after": {key: after[key] for key in changed}}, after


def _put(session: Session, table: str, row_id: int, image: dict | None, *, keep_version: bool = False) -> None:
    """Make a row what the image says, as far as it says anything; None takes it away.

    Its version only ever rises, so stale changes stay stale.
    """
    model = TABLES[table]
    row: Versioned | None = session.get(model, row_id)
    if image is None:
        if row is not None:
            session.delete(row)
            session.flush()
        return
    if row is None:
        row = model(**image)
        row.version = image["version"] + 1
    else:
        version = image["version"] if keep_version else row.version + 1
        for key, value in image.items():
            setattr(row, key, value)
        row.version = version
    session.add(row)
    session.flush()


def _merged(earlier: list[dict], later: list[dict]) -> list[dict]:
    """Join two steps' records, keeping the first state before and the last after of each row."""
    out = {(r["table"], r["id"]): dict(r) for r in earlier}
    for record in later:
        key = (record["table"], record["id"])
        first = out.get(key)
        out[key] = dict(record) if first is None else record | {
            "before": _over(first["before"], record["before"]), "after": _over(record["after"], first["after"]),
        }  # fmt: skip
    return list(out.values())


def _over(image: dict | None, other: dict | None) -> dict | None:
    """Return what an image says of a row, and where it is silent another; an image of no row says all."""
    return None if image is None else {**(other or {}), **image}
