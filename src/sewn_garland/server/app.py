"""Build the app: routes, errors, security, the interface's files."""

from __future__ import annotations

from pathlib import Path

import orjson
from flask import Blueprint, Flask, Response, current_app, send_from_directory
from flask_openapi import APIBlueprint, Info, OpenAPI
from sqlmodel import select

from .. import __version__
from ..core.reading.brush_document import published_schema
from ..jobs import Jobs
from ..standins.scanner import ScanTray
from ..store import tables
from ..store.database import Store
from ..store.history import redo, standing, undo
from . import routes_bench, routes_motif, routes_page, routes_picture
from .messages import ErrorMessage, History, StepRequest, Workshop
from .motif_views import motif_message
from .replies import answer_errors, refuse_invalid, reply
from .scenes import Latest, Overtaken
from .security import guard
from .workshop import brush_message, page_message, sent, store

STATIC = Path(__file__).with_name("static")
api = APIBlueprint("workshop", __name__, url_prefix="/api")


def create_app(kept: Store, *, hosts: set[str] | None = None, static: Path = STATIC) -> Flask:
    """Return the app that serves one store; ``hosts`` are names it answers to besides this machine's own."""
    app = OpenAPI(
        __name__, info=Info(title="Sewn Garland", version=__version__), doc_prefix="/api", doc_url="/openapi.json", doc_ui=False,
        static_folder=None, validation_error_model=ErrorMessage, validation_error_callback=refuse_invalid,
    )  # fmt: skip
    app.openapi_version = "3.1.0"
    app.extensions["sewn_garland_store"] = kept
    app.extensions["sewn_garland_latest"] = Latest()
    app.extensions["sewn_garland_jobs"] = Jobs()
    app.extensions["sewn_garland_tray"] = ScanTray(kept.file.with_name("scans"))
    guard(app, hosts=hosts or set())
    answer_errors(app)
    app.register_error_handler(Overtaken, lambda error: reply(409, "a newer request overtook this one"))
    for blueprint in (api, routes_motif.api, routes_picture.api, routes_bench.api, routes_page.api):
        app.register_api(blueprint)
    app.register_blueprint(_interface(static))
    return app


@api.get("/workshop", responses={200: Workshop}, summary="Everything there is")
def workshop():
    with store().reading() as session:
        motifs, brushes, pages = (
            session.exec(select(model).order_by(model.id)).all() for model in (tables.Motif, tables.Brush, tables.Page)
        )
        return sent(Workshop(
            motifs=[motif_message(m) for m in motifs], brushes=[brush_message(b) for b in brushes],
            pages=[page_message(p) for p in pages], history=History(**standing(session)),
        ))  # fmt: skip


@api.post("/undo", responses={200: History}, summary="Take the last step back")
def take_back(body: StepRequest):
    return _step(body, "undo_id", undo)


@api.post("/redo", responses={200: History}, summary="Take the last undone step again")
def take_again(body: StepRequest):
    return _step(body, "redo_id", redo)


def _step(body: StepRequest, key: str, take) -> Response:
    with store().writing() as session:
        if standing(session)[key] != body.step_id:
            return reply(409, "something was changed in another window; look at it first, then undo")
        take(session)
        session.flush()
        return sent(History(**standing(session)))


@api.get("/brush.schema.json", summary="The JSON Schema of the brush document")
def brush_schema():
    return Response(orjson.dumps(published_schema(), option=orjson.OPT_INDENT_2), mimetype="application/schema+json")


@api.get("/openapi.json", doc_ui=False)
def openapi_document():
    return Response(orjson.dumps(_with_our_refusals(current_app.api_doc), option=orjson.OPT_INDENT_2), mimetype="application/json")


def _with_our_refusals(document: dict) -> dict:
    """Return the document with refusals as they are sent: one message, where the library takes a list of errors for granted."""
    document = orjson.loads(orjson.dumps(document))
    one = {"$ref": "#/components/schemas/ErrorMessage"}
    for operations in document["paths"].values():
        for operation in operations.values():
            for content in operation.get("responses", {}).get("422", {}).get("content", {}).values():
                content["schema"] = one
    return document


def _interface(static: Path) -> Blueprint:
    """Return the routes of the interface's own files."""
    files = Blueprint("interface", __name__)

    @files.get("/")
    def _index() -> Response:
        response = send_from_directory(static, "index.html")
        response.headers["Cache-Control"] = "no-cache"
        return response

    @files.get("/<path:name>")
    def _file(name: str) -> Response:
        response = send_from_directory(static, name)
        if name.startswith("assets/"):
            response.headers["Cache-Control"] = "public, max-age=31536000, immutable"
        return response

    return files
