"""Pack arrays for the browser: a JSON header, then the arrays' bytes.

Layout: 4 bytes ``SGB1``, the header's length as little-endian uint32, the header (JSON, padded
with blanks to a multiple of 8), then each array on a multiple of 8 from the end of the header.
The header's ``arrays`` gives each its dtype (f4, u2, u4), shape and offset.
"""

from __future__ import annotations

import struct

import numpy as np
import orjson

MAGIC = b"SGB1"
DTYPES = {"f4": np.float32, "u2": np.uint16, "u4": np.uint32}


def pack(header: dict, arrays: dict[str, tuple[str, np.ndarray]]) -> bytes:
    """Pack ``header`` and named arrays, each given as (dtype, array)."""
    index, chunks, offset = {}, [], 0
    for name, (dtype, array) in arrays.items():
        data = np.ascontiguousarray(array, DTYPES[dtype]).tobytes()
        index[name] = {"dtype": dtype, "shape": list(array.shape), "offset": offset}
        data += b"\0" * (-len(data) % 8)
        chunks.append(data)
        offset += len(data)
    text = orjson.dumps({**header, "arrays": index})
    text += b" " * (-len(text) % 8)
    return b"".join([MAGIC, struct.pack("<I", len(text)), text, *chunks])


def unpack(data: bytes) -> tuple[dict, dict[str, np.ndarray]]:
    """Read what ``pack`` wrote; the front end's reader is its twin."""
    if data[:4] != MAGIC:
        raise ValueError("not a buffer of this kind")
    (length,) = struct.unpack("<I", data[4:8])
    header = orjson.loads(data[8 : 8 + length])
    arrays = {}
    for name, entry in header.pop("arrays").items():
        dtype, count = DTYPES[entry["dtype"]], int(np.prod(entry["shape"]))
        arrays[name] = np.frombuffer(data, dtype, count, 8 + length + entry["offset"]).reshape(entry["shape"])
    return header, arrays
