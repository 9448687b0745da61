"""The published documents: the API's own description, with the binary replies, and the brush document's schema."""

from __future__ import annotations

from dataclasses import asdict
from typing import Any, cast

import orjson
from flask import Response, current_app
from flask_openapi.openapi import OpenAPI
from pydantic import BaseModel
from pydantic.json_schema import models_json_schema

from ..core.drawing.columns import TABLES
from ..core.reading.brush_document import published_schema
from .messages.scenes import BenchHeader, CornerHeader, ScenesHeader
from .resource import Resource

api = Resource("documents", __name__)
BINARY: dict[str, type[BaseModel]] = {
    "/api/corners/lay": CornerHeader,
    "/api/bench/lay": BenchHeader, "/api/bench/deals": ScenesHeader, "/api/shelf/lay": ScenesHeader, "/api/pages/{id}/lay": ScenesHeader,
}  # fmt: skip
DOWNLOADS = {
    "/api/motifs/{id}/motif.svg": "image/svg+xml", "/api/motifs/{id}/pictures/{place}": "image/png",
    "/api/originals/{sha}/shown.png": "image/png", "/api/pages/{id}/page.svg": "image/svg+xml", "/api/pages/{id}/page.png": "image/png",
    "/api/pages/{id}/pieces.csv": "text/csv", "/api/brush.schema.json": "application/schema+json",
}  # fmt: skip
REF = "#/components/schemas/{model}"


@api.get("/brush.schema.json", summary="The JSON Schema of the brush document")
def brush_schema():
    return Response(orjson.dumps(published_schema(), option=orjson.OPT_INDENT_2), mimetype="application/schema+json")


@api.get("/openapi.json", doc_ui=False)
def openapi_document():
    app = cast(OpenAPI, current_app)
    for resource in app.blueprints.values():
        if isinstance(resource, Resource):
            resource.describe()
            app.paths |= resource.paths
            app.components_schemas |= resource.components_schemas
    document = orjson.loads(orjson.dumps(app.api_doc))
    return Response(orjson.dumps(_completed(document), option=orjson.OPT_INDENT_2), mimetype="application/json")


def _completed(document: dict[str, Any]) -> dict[str, Any]:
    """Return the document with refusals as they are sent, files, and binary replies with their headers and tables.

    The library takes a list of errors for granted where one message is sent.
    """
    schemas = document["components"]["schemas"]
    for path, operations in document["paths"].items():
        for method, operation in operations.items():
            replies = operation["responses"]
            if path in DOWNLOADS:
                replies["200"] = {"description": "the file", "content": {DOWNLOADS[path]: {"schema": {"type": "string"}}}}
            if method == "delete" and "200" not in replies:
                replies["204"] = {"description": "it is deleted"}
            for code, why in _refusals(path, operation, schemas).items():
                message = {"application/json": {"schema": {"$ref": REF.format(model="ErrorMessage")}}}
                replies[code] = {"description": why, "content": message}
    _, schema = models_json_schema([(model, "serialization") for model in set(BINARY.values())], ref_template=REF)
    schemas |= dict(sorted(schema["$defs"].items()))
    for path, model in BINARY.items():
        content = {"schema": {"type": "string", "format": "binary"}, "x-header": {"$ref": REF.format(model=model.__name__)}}
        document["paths"][path]["post"]["responses"]["200"] = {
            "description": "the header, and after it the tables that it names", "content": {"application/octet-stream": content},
        }  # fmt: skip
    document["components"]["x-tables"] = {name: asdict(table) for name, table in TABLES.items()}
    return document


def _refusals(path: str, operation: dict[str, Any], schemas: dict[str, Any]) -> dict[str, str]:
    """Return the codes by which an operation refuses, with what each says: by what it takes, for things may be gone or newer."""
    body = operation.get("requestBody", {}).get("content", {}).get("application/json", {}).get("schema", {})
    takes = set(schemas.get(body.get("$ref", "").rpartition("/")[2], {}).get("properties", {}))
    takes |= {parameter["name"] for parameter in operation.get("parameters", [])}
    codes = {"422": "what was sent cannot be, and why"}
    if "{" in path or any(name.endswith(("_id", "_ids")) for name in takes):
        codes["404"] = "what is asked for is not here"
    if takes & {"version", "seq", "step_id"}:
        codes["409"] = "it was changed, or asked for again, in the meantime"
    return codes
