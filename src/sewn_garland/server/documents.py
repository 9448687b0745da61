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
from .messages.scenes import BenchHeader, ScenesHeader
from .resource import Resource

api = Resource("documents", __name__)
BINARY: dict[str, type[BaseModel]] = {"/api/bench/lay": BenchHeader, "/api/shelf/lay": ScenesHeader, "/api/pages/{id}/lay": ScenesHeader}
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
    """Return the document with refusals as they are sent and binary replies with their headers and tables.

    The library takes a list of errors for granted where one message is sent.
    """
    for operations in document["paths"].values():
        for operation in operations.values():
            for content in operation.get("responses", {}).get("422", {}).get("content", {}).values():
                content["schema"] = {"$ref": REF.format(model="ErrorMessage")}
    _, schema = models_json_schema([(model, "serialization") for model in set(BINARY.values())], ref_template=REF)
    document["components"]["schemas"] |= dict(sorted(schema["$defs"].items()))
    for path, model in BINARY.items():
        content = {"schema": {"type": "string", "format": "binary"}, "x-header": {"$ref": REF.format(model=model.__name__)}}
        document["paths"][path]["post"]["responses"]["200"] = {
            "description": "the header, and after it the tables that it names", "content": {"application/octet-stream": content},
        }  # fmt: skip
    document["components"]["x-tables"] = {name: asdict(table) for name, table in TABLES.items()}
    return document
