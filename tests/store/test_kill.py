"""Killed at any moment, the file still holds every change that was acknowledged."""

import os
import random
import signal
import subprocess
import sys
import time

import pytest
from sqlmodel import select

from sewn_garland.store.database import Store
from sewn_garland.store.tables import Motif

WRITER = """
import sys
from pathlib import Path
from sewn_garland.store.database import Store
from sewn_garland.store.history import Change, make_step
store = Store(Path(sys.argv[1]))
n = 0
while True:
    n += 1
    with store.writing() as session:
        make_step(session, f"new {n}", [Change("motif", None, {"name": f"{sys.argv[2]}-{n}", "svg": "x" * 5000, "base_line_mm": 1.0, "left_out": []})])
    print(n, flush=True)
"""


@pytest.mark.thorough
def test_a_killed_server_loses_nothing_acknowledged(tmp_path):
    file = tmp_path / "w.sqlite"
    Store(file).close()
    acknowledged: dict[int, int] = {}
    moments = random.Random(11)
    for round_ in range(10):
        writer = subprocess.Popen([sys.executable, "-c", WRITER, str(file), str(round_)], stdout=subprocess.PIPE, text=True)
        assert writer.stdout.readline() == "1\n"
        time.sleep(moments.uniform(0, 0.08))  # the moment of the kill, not a wait for anything
        os.kill(writer.pid, signal.SIGKILL)
        told = writer.stdout.read().split("\n")
        writer.wait()
        acknowledged[round_] = max([1, *(int(n) for n in told[:-1] if n)])
    store = Store(file)
    with store.reading() as session:
        kept = {m.name for m in session.exec(select(Motif)).all()}
        assert session.connection().exec_driver_sql("PRAGMA integrity_check").scalar() == "ok"
    store.close()
    for round_, count in acknowledged.items():
        assert {f"{round_}-{n}" for n in range(1, count + 1)} <= kept
    assert sum(acknowledged.values()) > 20
