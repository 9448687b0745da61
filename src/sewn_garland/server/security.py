"""Safe by default: own hosts only, no foreign origins, nothing that could run script."""

from __future__ import annotations

from urllib.parse import urlsplit

from flask import Flask, Response, abort, request

CONTENT_SECURITY_POLICY = (
    "default-src 'none'; script-src 'self'; style-src 'self'; font-src 'self'; img-src 'self' data: blob:; "
    "connect-src 'self'; base-uri 'none'; form-action 'none'; frame-ancestors 'none'"
)
MOST_REQUEST_BYTES = 24 * 1024 * 1024
LOOPBACK = {"127.0.0.1", "localhost", "::1"}


def guard(app: Flask, *, hosts: set[str]) -> None:
    """Refuse requests for other hosts or from other origins, and send strict headers with every reply."""
    allowed = LOOPBACK | hosts
    app.config["MAX_CONTENT_LENGTH"] = MOST_REQUEST_BYTES

    @app.before_request
    def _refuse_strangers() -> None:
        if _host_of(f"//{request.host}") not in allowed:
            abort(403, "this address is not served here")
        origin = request.headers.get("Origin")
        if origin is not None and (_host_of(origin) not in allowed or urlsplit(origin).netloc != request.host):
            abort(403, "requests from other sites are refused")
        if request.headers.get("Sec-Fetch-Site") == "cross-site" and request.path.startswith("/api"):
            abort(403, "requests from other sites are refused")

    @app.after_request
    def _strict_headers(response: Response) -> Response:
        response.headers.setdefault("Content-Security-Policy", CONTENT_SECURITY_POLICY)
        response.headers["X-Content-Type-Options"] = "nosniff"
        response.headers["Referrer-Policy"] = "no-referrer"
        response.headers["Cross-Origin-Resource-Policy"] = "same-origin"
        response.headers["Cross-Origin-Opener-Policy"] = "same-origin"
        return response


def _host_of(url: str) -> str | None:
    try:
        return urlsplit(url).hostname
    except ValueError:
        return None
