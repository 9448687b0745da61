"""Write what is published from the running app: its documents, and the tables of its binary replies for the front end."""

from __future__ import annotations

import json
import tempfile
from pathlib import Path
from textwrap import wrap

from sewn_garland.server.app import create_app
from sewn_garland.store.database import Store

ROOT = Path(__file__).parents[1]
DOCUMENTS = {"docs/openapi.json": "/api/openapi.json", "docs/brush.schema.json": "/api/brush.schema.json"}
TABLES = "frontend/src/shared/api/tables.ts"
HEAD = """// Made by `make docs` from the tables that the API's document publishes; not edited by hand.

/** What the numbers of every table are, and how many columns a row has. */
export const TABLES = {
"""


def published() -> dict[str, bytes]:
    """Return each published file's place in the project and its bytes."""
    with tempfile.TemporaryDirectory() as folder:
        store = Store(Path(folder) / "empty.sqlite")
        client = create_app(store).test_client()
        files = {name: client.get(address).data + b"\n" for name, address in DOCUMENTS.items()}
        store.close()
    tables = json.loads(files["docs/openapi.json"])["components"]["x-tables"]
    return files | {TABLES: reader_of(tables).encode()}


def reader_of(tables: dict[str, dict]) -> str:
    """Return the front end's constants: of every table its numbers and columns, each column by its name."""
    kinds = "".join(f'  {name}: {{ dtype: "{table["dtype"]}", width: {len(table["columns"])} }},\n' for name, table in tables.items())
    columns = []
    for name, table in tables.items():
        places = ", ".join(f"{column}: {place}" for place, column in enumerate(table["columns"]))
        about = wrap(f"{table['about'][0].upper()}{table['about'][1:]}.", 120)
        comment = f"/** {about[0]} */\n" if len(about) == 1 else "\n * ".join(["/**", *about]) + "\n */\n"
        columns.append(f"{comment}export const {name.upper()} = {{ {places}, width: {len(table['columns'])} }} as const;\n")
    return f"{HEAD}{kinds}}} as const;\n\n" + "\n".join(columns)


if __name__ == "__main__":
    for name, data in published().items():
        (ROOT / name).write_bytes(data)
