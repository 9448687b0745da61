"""Pack arrays for the browser: a JSON header, then the arrays' bytes.

Layout: 4 bytes ``SGB2``, the header's length as little-endian uint32, the header (JSON, padded
with blanks to a multiple of 8), then each array on a multiple of 8 from the end of the header.
The header's ``arrays`` gives each its table, its shape and its offset.
"""

from __future__ import annotations

import struct
from collections.abc import Sequence

import numpy as np
import orjson

from .columns import TABLES, Columns

MAGIC = b"SGB2"
DTYPES = {"f4": np.float32, "u2": np.uint16, "u4": np.uint32}


def pack(header: dict, parts: Sequence[Sequence[Columns]]) -> bytes:
    """Pack a header and the tables of its parts, in the order in which the header names them."""
    index, chunks, offset = [], [], 0
    for part, tables in enumerate(parts):
        for name, values, number in tables:
            data = np.ascontiguousarray(values, DTYPES[TABLES[name].dtype]).tobytes()
            index.append({"part": part, "table": name, "number": number, "shape": list(values.shape), "offset": offset})
            data += b"\0" * (-len(data) % 8)
            chunks.append(data)
            offset += len(data)
    text = orjson.dumps({**header, "arrays": index})
    text += b" " * (-len(text) % 8)
    return b"".join([MAGIC, struct.pack("<I", len(text)), text, *chunks])


def unpack(data: bytes) -> tuple[dict, list[dict[tuple[str, int], np.ndarray]]]:
    """Read what ``pack`` wrote: the header, and by part the tables by name and number; the front end's reader is its twin."""
    if data[:4] != MAGIC:
        raise ValueError("not a buffer of this kind")
    (length,) = struct.unpack("<I", data[4:8])
    header = orjson.loads(data[8 : 8 + length])
    index = header.pop("arrays")
    parts: list[dict[tuple[str, int], np.ndarray]] = [{} for _ in range(1 + max((entry["part"] for entry in index), default=-1))]
    for entry in index:
        dtype, count = DTYPES[TABLES[entry["table"]].dtype], int(np.prod(entry["shape"]))
        values = np.frombuffer(data, dtype, count, 8 + length + entry["offset"]).reshape(entry["shape"])
        parts[entry["part"]][entry["table"], entry["number"]] = values
    return header, parts
