"""Write the published documents: the API's OpenAPI document and the brush document's JSON Schema."""

from __future__ import annotations

import tempfile
from pathlib import Path

from sewn_garland.server.app import create_app
from sewn_garland.store.database import Store

DOCS = Path(__file__).parents[1] / "docs"
PUBLISHED = {"openapi.json": "/api/openapi.json", "brush.schema.json": "/api/brush.schema.json"}


def published() -> dict[str, bytes]:
    """Return each document's name and bytes as the running app serves them."""
    with tempfile.TemporaryDirectory() as folder:
        store = Store(Path(folder) / "empty.sqlite")
        client = create_app(store).test_client()
        documents = {name: client.get(address).data + b"\n" for name, address in PUBLISHED.items()}
        store.close()
    return documents


if __name__ == "__main__":
    for name, data in published().items():
        (DOCS / name).write_bytes(data)
