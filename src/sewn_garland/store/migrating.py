"""Bring the tables of a store's file up to the newest."""

from __future__ import annotations

from pathlib import Path

from alembic import command
from alembic.config import Config
from sqlalchemy import text
from sqlalchemy.engine import Engine

MIGRATIONS = Path(__file__).with_name("migrations")


def migrate(engine: Engine) -> None:
    """Take every step from what the file has to the newest, all or none."""
    config = Config()
    config.set_main_option("script_location", str(MIGRATIONS))
    with engine.connect() as connection:
        connection.rollback()
        raw = connection.connection.dbapi_connection
        assert raw is not None  # the connection is open
        raw.execute("PRAGMA foreign_keys=OFF")  # a rebuilt table must not take its children with it
        connection.execution_options(begin="IMMEDIATE")
        config.attributes["connection"] = connection
        command.upgrade(config, "head")
        connection.commit()
        connection.execute(text("SELECT 1"))
        connection.rollback()
        raw.execute("PRAGMA foreign_keys=ON")
