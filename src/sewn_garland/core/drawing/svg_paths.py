"""Write outlines as path data to a micrometre, all at once."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from ..maths.curves import as_complex
from ..maths.ragged import heads, in_blocks, owners, places, ranges, run_heads
from ..values.arrays import freeze_arrays
from ..values.outlines import ShapedOutlines
from .digits import decimals, text_of

STRAIGHT_MM = 1e-4  # chosen: a tenth of what is written
POINTS_AT_ONCE = 10_000  # that stay close to the processor; chosen
COMMANDS = (" ", " ", "C", "L", "M", "ZM")
HANDLE, END, CURVE, LINE, BEGIN, ANEW = range(len(COMMANDS))
IN_TURN = np.array([END, CURVE, HANDLE])  # the points of curves, from the first one's begin on


@dataclass(frozen=True, eq=False)
class Paths:
    """Path data: k ``texts``, in the order of pieces and shapes, of each its ``piece`` and ``shape``, and whether it is a stroke (k,)."""

    piece: np.ndarray
    shape: np.ndarray
    stroked: np.ndarray
    texts: list[str]

    def __post_init__(self) -> None:
        freeze_arrays(self)


def paths_of(outlines: ShapedOutlines) -> Paths:
    """Return what is written of outlines: the contours of a piece's shape, and those of its stroke, in a path each."""
    order = np.lexsort((outlines.stroked, outlines.shape, outlines.piece))
    piece, shape, stroked, closed = (getattr(outlines, name)[order] for name in ("piece", "shape", "stroked", "closed"))
    first = run_heads(piece, shape, stroked)
    begins = np.zeros(len(order), bool)
    begins[first] = True
    anew = ~begins & np.append(False, closed[:-1])[: len(closed)]  # behind a contour that is closed yet
    starts, counts = outlines.starts[order], np.diff(outlines.starts)[order]
    written, lengths = [], []
    points = as_complex(outlines.points)
    for rows in in_blocks(counts, POINTS_AT_ONCE):
        text, many = _contours(points, starts[rows], counts[rows], closed[rows], np.where(anew[rows], ANEW, BEGIN))
        written.append(text)
        lengths.append(many)
    whole = b"".join(written).decode("ascii")
    ends = np.append(heads(np.concatenate([*lengths, [0]]))[first], len(whole)).tolist()
    last = closed[np.append(first[1:], len(closed)) - 1] if len(first) else closed
    texts = [whole[a:b] + "Z" * z for a, b, z in zip(ends[:-1], ends[1:], last.tolist(), strict=True)]
    return Paths(piece[first], shape[first], stroked[first], texts)


def _contours(points: np.ndarray, starts: np.ndarray, counts: np.ndarray, closed: np.ndarray, begins: np.ndarray):
    """Return some contours' path data, without their last Z, and how long (c,) each one's is; ``points`` are complex."""
    at, first = places(counts), heads(counts)
    points = points[ranges(starts, counts)]
    polygon = _polygons(points, counts)
    command = IN_TURN[at % 3]
    if polygon.any():
        of_polygon = np.repeat(polygon, counts)
        command[of_polygon & (command == END)] = LINE
        kept = ~of_polygon | (command == LINE)
        kept[(first + counts - 1)[polygon & closed]] = False  # closing draws its last side
        points, command = points[kept], command[kept]
        counts = np.add.reduceat(kept, first, dtype=np.int64)
        first = heads(counts)
    command[first] = begins
    words = [*decimals(np.real(points), 3, (command, COMMANDS)), *decimals(np.imag(points), 3, (0, (" ",)))]
    text, lengths = text_of(words, len(points))
    return text, np.add.reduceat(lengths, first)


def _polygons(points: np.ndarray, counts: np.ndarray) -> np.ndarray:
    """Tell of contours (c,) behind one another whether all their cubics are straight sides, with handles at their thirds."""
    cubics = (counts - 1) // 3
    head = np.repeat(heads(counts), cubics) + 3 * places(cubics)
    a, b, c, d = (points[head + k] for k in range(4))
    bent = (_off(3 * b, 2 * a + d) > STRAIGHT_MM) | (_off(3 * c, a + 2 * d) > STRAIGHT_MM)
    out = counts > 1
    out[owners(cubics)[bent]] = False
    return out


def _off(a: np.ndarray, b: np.ndarray) -> np.ndarray:
    return np.maximum(np.abs(np.real(a) - np.real(b)), np.abs(np.imag(a) - np.imag(b)))
