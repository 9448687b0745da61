"""Open the store's file: write-ahead log, foreign keys on, migrated to the newest tables."""

from __future__ import annotations

import threading
from collections.abc import Callable, Hashable, Iterator
from contextlib import contextmanager
from pathlib import Path
from typing import Any, TypeVar

from sqlalchemy import event, inspect, text
from sqlalchemy.engine import Engine
from sqlmodel import Session, create_engine

MIGRATIONS = Path(__file__).with_name("migrations")
Found = TypeVar("Found")


class Store:
    """One SQLite file; reads run side by side, writes one at a time and durably."""

    def __init__(self, file: Path) -> None:
        file.parent.mkdir(parents=True, exist_ok=True)
        self.file = file
        self.engine = create_engine(f"sqlite:///{file}", connect_args={"timeout": 15, "check_same_thread": False})
        _prepare(self.engine)
        if not _is_newest(self.engine):
            from .migrating import migrate  # what it needs takes long to load, and most files are as they should be

            migrate(self.engine)
        self._writing = threading.Lock()
        self._watching = threading.Lock()
        self._watch = self.engine.raw_connection()
        self._remembered: tuple[int, dict[Hashable, Any]] = (self._version(), {})

    @contextmanager
    def reading(self) -> Iterator[Session]:
        """Yield a session for looking things up."""
        with Session(self.engine, expire_on_commit=False) as session:
            yield session

    @contextmanager
    def writing(self) -> Iterator[Session]:
        """Yield a session whose changes are all kept on leaving, or none of them after an error."""
        with self._writing, Session(self.engine, expire_on_commit=False) as session:
            session.connection(execution_options={"begin": "IMMEDIATE"})
            yield session
            session.commit()

    def remembered(self, key: Hashable, look_up: Callable[[Session], Found]) -> Found:
        """Return what ``look_up`` finds; it is asked once, until anything in the file is changed."""
        version = self._version()
        if self._remembered[0] != version:
            self._remembered = (version, {})
        found = self._remembered[1]
        if key not in found:
            with self.reading() as session:
                found[key] = look_up(session)
        return found[key]

    def _version(self) -> int:
        """Return a number that is another after every change by another connection, which this one leaves to the others."""
        with self._watching:
            return self._watch.cursor().execute("PRAGMA data_version").fetchone()[0]

    def close(self) -> None:
        """Close the file; a request that is still being answered finds it closed, not half gone."""
        with self._watching, self._writing:
            self._watch.close()
            self.engine.dispose()


def _prepare(engine: Engine) -> None:
    @event.listens_for(engine, "connect")
    def _on_connect(connection, _record) -> None:
        connection.isolation_level = None  # transactions are begun below, by SQLite's own words
        for pragma in ("journal_mode=WAL", "synchronous=FULL", "foreign_keys=ON"):
            connection.execute(f"PRAGMA {pragma}")

    @event.listens_for(engine, "begin")
    def _on_begin(connection) -> None:
        kind = connection.get_execution_options().get("begin", "DEFERRED")
        connection.exec_driver_sql(f"BEGIN {kind}")


def _is_newest(engine: Engine) -> bool:
    """Return whether the file's tables are the newest there are."""
    newest = max(file.stem.partition("_")[0] for file in (MIGRATIONS / "versions").glob("[0-9]*.py"))
    with engine.connect() as connection:
        return inspect(connection).has_table("alembic_version") and (
            connection.execute(text("SELECT version_num FROM alembic_version")).scalar() == newest
        )
