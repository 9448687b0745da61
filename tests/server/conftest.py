"""A server with a store of its own, and one with the demo in it."""

import pytest

from making import bar_svg
from sewn_garland.demo.build import build_demo
from sewn_garland.server.app import create_app
from sewn_garland.store.database import Store


@pytest.fixture
def store(tmp_path):
    store = Store(tmp_path / "w.sqlite")
    yield store
    store.close()


@pytest.fixture
def client(store):
    return create_app(store).test_client()


@pytest.fixture
def bench(client):
    """A client whose store has one motif, one brush and one page."""
    assert client.post("/api/motifs", json={"name": "bar", "svg": bar_svg()}).status_code == 201
    assert client.post("/api/brushes", json={"name": "bars", "motif_id": 1, "settings": {}}).status_code == 201
    assert client.post("/api/pages", json={"name": "sheet", "width_mm": 200, "height_mm": 100}).status_code == 201
    return client


@pytest.fixture(scope="session")
def demo(tmp_path_factory):
    store = Store(tmp_path_factory.mktemp("demo") / "w.sqlite")
    build_demo(store)
    yield create_app(store).test_client()
    store.close()
