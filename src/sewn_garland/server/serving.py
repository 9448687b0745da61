"""Run the server until it is stopped."""

from __future__ import annotations

import gc
import importlib
import socket
import sys
import threading
from pathlib import Path

from platformdirs import user_data_path
from waitress.server import create_server

from ..core.errors import InputError
from ..core.reading.pictures import MOST_BYTES
from ..store.database import Store
from ..workshop.compiling import compile_ahead
from .app import create_app
from .security import LOOPBACK

AHEAD = ("scipy.interpolate", "scipy.ndimage", "scipy.optimize", "scipy.sparse.csgraph", "scipy.spatial")
"""What is loaded where it is first called for, a second in all."""


def load_ahead() -> None:
    """Load what the first smoothed line, cure, traced picture or bent piece would else wait for; it stays, like all that is loaded."""
    for name in AHEAD:
        importlib.import_module(name)
    compile_ahead()
    gc.freeze()


def _own_names(host: str) -> set[str]:
    """Return the names under which this machine may be asked for besides the loopback ones."""
    if host in LOOPBACK:
        return set()
    if host not in ("0.0.0.0", "::"):
        return {host}
    name = socket.gethostname()
    try:
        found = {str(entry[4][0]) for entry in socket.getaddrinfo(name, None)}
    except OSError:
        found = set()
    return {name.lower(), socket.getfqdn().lower(), *found}


def serve(host: str, port: int, data: Path | None, *, demo: bool) -> int:
    """Serve the app and print its address; raises InputError when the port is taken."""
    folder = data or user_data_path("sewn-garland")
    try:
        store = Store(folder / "workshop.sqlite")
    except OSError as error:
        raise InputError(f"the data folder cannot be used ({error.strerror})", where=str(folder)) from None
    if demo:
        from ..demo.build import build_demo  # the demo's artwork is read only when asked for

        build_demo(store)
    app = create_app(store, hosts=_own_names(host))
    try:
        server = create_server(app, host=host, port=port, threads=6, ident=None, max_request_body_size=MOST_BYTES + 1024 * 1024)
    except OSError as error:
        raise InputError(f"{host}:{port} cannot be listened on ({error.strerror}); take another --port") from None
    gc.collect()
    gc.enable()
    gc.freeze()  # what is loaded stays; collections while someone drags then look at little
    threading.Thread(target=load_ahead, daemon=True).start()
    print(f"Sewn Garland is open at http://{host}:{port} (data in {folder}); stop it with Ctrl+C", flush=True)
    try:
        server.run()
    except KeyboardInterrupt:
        print("stopped", file=sys.stderr)
    finally:
        server.close()
        store.close()
    return 0
