"""Turn errors into replies: a sentence for the user, never a traceback, never a dead server."""

from __future__ import annotations

import logging
from typing import cast

from flask import Flask, Response, current_app, jsonify, request
from pydantic import ValidationError
from sqlalchemy.exc import IntegrityError
from werkzeug.exceptions import HTTPException

from ..core.errors import CoreError, InputError
from ..core.reading.brush_document import sentence_from
from ..store.history import NotFound, StaleChange, StaleStep
from ..workshop.scenes import Overtaken

log = logging.getLogger("sewn_garland")
FILES = "interface._file"
NOUNS = {"motif": "motif", "brush": "brush", "page": "page", "line": "line", "picture": "picture", "job": "job"}


def reply(status: int, message: str, **more) -> Response:
    """Return an error reply of one sentence."""
    response = jsonify({"message": message, **more})
    response.status_code = status
    return response


def refuse_invalid(error: ValidationError) -> Response:
    """Reply to a message that is not as the schema says."""
    return reply(422, sentence_from(error))


def answer_errors(app: Flask) -> None:
    """Register a reply for everything that can go wrong."""
    app.register_error_handler(InputError, lambda error: reply(422, str(error)))
    app.register_error_handler(ValidationError, refuse_invalid)
    app.register_error_handler(NotFound, lambda error: reply(404, f"that {NOUNS.get(str(error), 'thing')} is not here any more"))
    app.register_error_handler(Overtaken, lambda error: reply(409, "a newer request overtook this one"))
    app.register_error_handler(StaleStep, lambda error: reply(409, "something was changed in another window; look at it first, then undo"))
    app.register_error_handler(RecursionError, lambda error: reply(422, "the message is nested too deeply"))
    app.register_error_handler(IntegrityError, lambda error: reply(409, "something still uses it, or what it needs is not here any more"))

    @app.errorhandler(StaleChange)
    def _stale(error: StaleChange) -> Response:
        noun = NOUNS[error.table]
        if error.theirs and error.yours:
            told = f"“{error.theirs}” was set in another window, and “{error.yours}” here"
            return reply(409, told, current=error.current, theirs=error.theirs, yours=error.yours)
        return reply(409, f"this {noun} was changed in another window; that change was kept and yours was not", current=error.current)

    @app.errorhandler(HTTPException)
    def _http(error: HTTPException) -> Response:
        if error.response is not None:
            return cast(Response, error.response)
        code = 404 if error.code == 405 and _nothing_there() else error.code or 500
        words = {404: "there is nothing at this address", 413: "that is more than the server takes at once",
                 405: "this address does not take that kind of request"}  # fmt: skip
        return reply(code, words.get(code, error.description or "refused"))

    @app.errorhandler(Exception)
    def _ours(error: Exception) -> Response:
        log.exception("a request failed")
        kind = "a computation did not settle" if isinstance(error, CoreError) else "something went wrong here"
        return reply(500, f"{kind}; nothing was changed, and the log says more")


def _nothing_there() -> bool:
    """Tell whether an address matches only the interface's own files, which are read and nothing else."""
    adapter = current_app.create_url_adapter(request)
    return adapter is not None and all(
        adapter.test(method=method) and adapter.match(method=method)[0] == FILES
        for method in adapter.allowed_methods()
        if method != "OPTIONS"
    )
