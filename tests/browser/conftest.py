"""The real interface in headless Chromium, on a demo of its own for every test."""

from __future__ import annotations

import os
import shutil
import threading
from contextlib import contextmanager
from dataclasses import dataclass

import pytest
from bench_helper import COUNTS_REQUESTS, Bench, calm
from playwright.sync_api import Browser, Page, expect, sync_playwright
from werkzeug.serving import make_server

from sewn_garland.demo.build import build_demo
from sewn_garland.server.app import STATIC, create_app
from sewn_garland.store.database import Store

SHELL = shutil.which("chromium-headless-shell")  # the same browser without a desktop's chrome: a third less work a test
CHROMIUM = os.environ.get("CHROMIUM") or SHELL or "/usr/bin/chromium"
PATIENCE_MS = 60_000  # a test takes a second or two; chosen: a busy machine may be ten times as slow
expect.set_options(timeout=PATIENCE_MS)


@pytest.fixture(scope="session")
def browser():
    with sync_playwright() as playwright:
        browser = playwright.chromium.launch(executable_path=CHROMIUM, args=["--no-sandbox", "--disable-background-networking"])
        yield browser
        browser.close()


@pytest.fixture(scope="session")
def demo_file(tmp_path_factory):
    file = tmp_path_factory.mktemp("demo") / "w.sqlite"
    store = Store(file)
    build_demo(store)
    with store.engine.connect() as connection:
        connection.exec_driver_sql("PRAGMA wal_checkpoint(TRUNCATE)")
    store.close()
    return file


@dataclass
class App:
    """A served app and a way to open windows on it."""

    address: str
    browser: Browser
    troubles: list[str]

    def open(self, place: str = "", *, window: Page | None = None) -> Page:
        page = window or self.browser.new_context(viewport={"width": 1280, "height": 800}, accept_downloads=True).new_page()
        page.set_default_timeout(PATIENCE_MS)
        page.on("pageerror", lambda error: self.troubles.append(str(error)))
        page.on("console", lambda m: self.troubles.append(m.text) if m.type == "error" and "status of 4" not in m.text else None)
        page.add_init_script(f"({COUNTS_REQUESTS})()")
        page.goto(f"{self.address}/{place}")
        calm(page)
        return page

    def state(self, page: Page, path: str = "/api/workshop") -> dict:
        return page.request.get(self.address + path).json()


@contextmanager
def served(store: Store):
    """Serve a store on a free port of this machine while the block runs."""
    server = make_server("127.0.0.1", 0, create_app(store), threaded=True)
    thread = threading.Thread(target=server.serve_forever, kwargs={"poll_interval": 0.02})
    thread.start()
    try:
        yield f"http://127.0.0.1:{server.server_port}"
    finally:
        server.shutdown()
        thread.join()
        server.server_close()


@pytest.fixture
def serve():
    return served


@pytest.fixture
def app(browser, demo_file, tmp_path):
    assert (STATIC / "index.html").exists(), "build the front end first: make install"
    shutil.copy(demo_file, tmp_path / "w.sqlite")
    shutil.copytree(demo_file.with_name("scans"), tmp_path / "scans")
    store = Store(tmp_path / "w.sqlite")
    with served(store) as address:
        app = App(address, browser, [])
        yield app
        for context in browser.contexts:
            context.close()
    store.close()
    assert app.troubles == []


@pytest.fixture
def bench(app):
    """The Motif station with the demo's first motif."""
    return Bench(app, app.open("#/motif/1"))
