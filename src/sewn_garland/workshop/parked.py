"""Pictures inside kept motifs lie once, by their hash, beside the rows, so that steps of history stay small."""

from __future__ import annotations

import base64
import re
from hashlib import sha256

from sqlmodel import Session

from ..core.errors import NumericError
from ..core.maths.recent import Recent
from ..store import tables

LEAST_BYTES = 8_000  # smaller pictures stay where they are
EMBEDDED = re.compile(r'href="data:image/png;base64,([A-Za-z0-9+/=]+)"')
PARKED = re.compile(r'href="data:image/png;sha256,([0-9a-f]{64})"')
_embedded: Recent[str] = Recent(16)


def parked(session: Session, svg: str) -> str:
    """Return a motif's SVG with its larger pictures replaced by their hashes; the pictures are kept in the same transaction."""

    def park(found: re.Match) -> str:
        data = base64.b64decode(found.group(1))
        if len(data) < LEAST_BYTES:
            return found.group(0)
        sha = sha256(data).hexdigest()
        if session.get(tables.Original, sha) is None:
            session.add(tables.Original(sha=sha, name="", data=data, width_px=0, height_px=0, told=[]))
        return f'href="data:image/png;sha256,{sha}"'

    return EMBEDDED.sub(park, svg)


def whole(session: Session, svg: str) -> str:
    """Return a kept SVG with its pictures back in their places."""

    def embedded(sha: str) -> str:
        row = session.get(tables.Original, sha)
        if row is None:
            raise NumericError(f"the picture {sha[:12]} of a motif is not in the store")
        return base64.b64encode(row.data).decode()

    def put_back(found: re.Match) -> str:
        sha = found.group(1)
        return f'href="data:image/png;base64,{_embedded.get(sha, lambda: embedded(sha))}"'

    return PARKED.sub(put_back, svg)
