"""What routes reach of the app that answers: its store, its jobs, its scan tray, and which questions are the newest."""

from __future__ import annotations

import threading
from collections.abc import Callable
from dataclasses import dataclass

from flask import Flask, Response, current_app
from pydantic import BaseModel

from ..jobs import Jobs
from ..standins.scanner import ScanTray
from ..store.database import Store

EXTENSION = "sewn_garland"
MOST_ASKERS = 1000


class Latest:
    """Remembers the newest sequence number of every asker and kind of question."""

    def __init__(self) -> None:
        self._newest: dict[str, int] = {}
        self._lock = threading.Lock()

    def question(self, asker: str, seq: int) -> Callable[[], bool]:
        """Note a question and return the question whether a newer one has come since."""
        if not asker:
            return lambda: False
        with self._lock:
            if len(self._newest) > MOST_ASKERS:
                self._newest.clear()
            self._newest[asker] = max(seq, self._newest.get(asker, seq))
        return lambda: self._newest.get(asker, seq) > seq


@dataclass(frozen=True)
class Access:
    """All that an app works with."""

    store: Store
    jobs: Jobs
    tray: ScanTray
    latest: Latest

    @classmethod
    def to(cls, store: Store) -> Access:
        """Return what an app over a store works with."""
        return cls(store, Jobs(), ScanTray(store.file.with_name("scans")), Latest())

    def install(self, app: Flask) -> None:
        """Make it what the app's routes reach."""
        app.extensions[EXTENSION] = self


def access() -> Access:
    """Return what the app that answers works with."""
    return current_app.extensions[EXTENSION]


def store() -> Store:
    """Return the store of the app that answers."""
    return access().store


def overtaken(kind: str, client: str, seq: int) -> Callable[[], bool]:
    """Note a question of a client and return the question whether a newer one of its kind has come since."""
    return access().latest.question(f"{kind} {client}" if client else "", seq)


def sent(message: BaseModel, status: int = 200) -> Response:
    """Reply with a message as JSON."""
    return Response(message.model_dump_json(), status=status, mimetype="application/json")
