"""Build the app: routes, errors, security, the interface's files."""

from __future__ import annotations

from pathlib import Path

from flask import Blueprint, Flask, Response, send_from_directory
from flask_openapi.models.info import Info
from flask_openapi.openapi import OpenAPI

from .. import __version__
from ..store.database import Store
from . import documents
from .access import Access
from .messages.base import ErrorMessage
from .replies import answer_errors, refuse_invalid
from .routes import bench, brushes, lines, motifs, originals, pages, workshop
from .security import guard

STATIC = Path(__file__).with_name("static")
RESOURCES = (workshop, motifs, brushes, bench, pages, lines, originals, documents)


def create_app(kept: Store, *, hosts: set[str] | None = None, static: Path = STATIC) -> Flask:
    """Return the app that serves one store; ``hosts`` are names it answers to besides this machine's own."""
    app = OpenAPI(
        __name__, info=Info(title="Sewn Garland", version=__version__), doc_prefix="/api", doc_url="/bare-openapi.json", doc_ui=False,
        static_folder=None, validation_error_model=ErrorMessage, validation_error_callback=refuse_invalid,
    )  # fmt: skip
    app.openapi_version = "3.1.0"
    Access.to(kept).install(app)
    guard(app, hosts=hosts or set())
    answer_errors(app)
    for resource in RESOURCES:
        app.register_api(resource.api)
    app.register_blueprint(_interface(static))
    return app


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
