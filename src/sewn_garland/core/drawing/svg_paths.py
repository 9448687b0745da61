"""Write outlines as path data to a micrometre, all at once."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from ..maths.compiled import compiled, for_compiled
from ..maths.curves import as_complex
from ..maths.ragged import heads, in_blocks, run_heads
from ..values.arrays import freeze_arrays
from ..values.outlines import ShapedOutlines
from .digits import in_full, put_number

STRAIGHT_MM = 1e-4  # chosen: a tenth of what is written
POINTS_AT_ONCE = 10_000  # that stay close to the processor; chosen
COMMANDS = (" ", "C", "L", "M", "ZM")
ON, CURVE, LINE, BEGIN, ANEW = range(len(COMMANDS))
LETTERS = for_compiled([[ord(letter) for letter in command.ljust(2, "\0")] for command in COMMANDS], np.uint8)
PLACES = 3
A_MM = 10**PLACES
LARGEST = 1e12  # mm, from which on numbers are written another way
ROOM = 40  # letters that a point takes at most: a command of two, and twice a sign, twelve figures, a point, three figures and a space


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
    """Return what is written of outlines: the contours of a piece's shape, and those of its stroke, in a path each.

    Straight sides are lines, and the last one of what is closed is left to its closing.
    """
    order = np.lexsort((outlines.stroked, outlines.shape, outlines.piece))
    piece, shape, stroked, closed = (getattr(outlines, name)[order] for name in ("piece", "shape", "stroked", "closed"))
    first = run_heads(piece, shape, stroked)
    begins = np.zeros(len(order), bool)
    begins[first] = True
    anew = ~begins & np.append(False, closed[:-1])[: len(closed)]  # behind a contour that is closed yet
    starts, counts = for_compiled(outlines.starts[order], int), for_compiled(np.diff(outlines.starts)[order], int)
    begin, ends = for_compiled(np.where(anew, ANEW, BEGIN), int), for_compiled(closed, bool)
    points, written, lengths = for_compiled(as_complex(outlines.points), complex), [], []
    for rows in in_blocks(counts, POINTS_AT_ONCE):
        places, command, many = _commands(points, starts[rows], counts[rows], ends[rows], begin[rows])
        text, letters = _text(places, command)
        written.append(text)
        lengths.append(np.add.reduceat(letters, heads(many)))
    whole = b"".join(written).decode("ascii")
    to = np.append(heads(np.concatenate([*lengths, [0]]))[first], len(whole)).tolist()
    last = closed[np.append(first[1:], len(closed)) - 1] if len(first) else closed
    texts = [whole[a:b] + "Z" * z for a, b, z in zip(to[:-1], to[1:], last.tolist(), strict=True)]
    return Paths(piece[first], shape[first], stroked[first], texts)


@compiled
def _commands(points, starts, counts, closed, begin):
    """Return the points (k,) that are written of contours, complex, the command (k,) before each, and how many each contour has (c,)."""
    room = counts.sum()
    places, command, many = np.empty(room, np.complex128), np.empty(room, np.int64), np.empty(len(counts), np.int64)
    n = 0
    for i in range(len(counts)):
        before, first, last = n, starts[i], starts[i] + counts[i] - 1
        places[n], command[n] = points[first], begin[i]
        n += 1
        for k in range(first, last, 3):
            a, b, c, d = points[k], points[k + 1], points[k + 2], points[k + 3]
            if _is_off(3 * b - 2 * a - d) or _is_off(3 * c - a - 2 * d):
                places[n], places[n + 1], places[n + 2] = b, c, d
                command[n], command[n + 1], command[n + 2] = CURVE, ON, ON
                n += 3
            elif k + 3 < last or not closed[i]:
                places[n], command[n] = d, LINE
                n += 1
        many[i] = n - before
    return places[:n], command[:n], many


@compiled
def _is_off(z):
    return abs(z.real) > STRAIGHT_MM or abs(z.imag) > STRAIGHT_MM


def _text(places: np.ndarray, command: np.ndarray) -> tuple[bytes, np.ndarray]:
    """Return what is written of points (k,), each behind its command, and how long (k,) each one is."""
    if np.abs(places.view(float)).max(initial=0.0) < LARGEST:
        text, lengths = _written(for_compiled(places, complex), for_compiled(command, int), LETTERS)
        return text.tobytes(), lengths
    written = [f"{COMMANDS[k]}{in_full(z.real, PLACES)} {in_full(z.imag, PLACES)}" for k, z in zip(command, places, strict=True)]
    return "".join(written).encode(), np.array(list(map(len, written)))


@compiled
def _written(places, command, letters):
    out, lengths = np.empty(ROOM * len(places), np.uint8), np.empty(len(places), np.int64)
    n = 0
    for i in range(len(places)):
        before = n
        for letter in letters[command[i]]:
            if letter:
                out[n] = letter
                n += 1
        n = put_number(places[i].real, A_MM, out, n)
        out[n] = 32  # a space
        n = put_number(places[i].imag, A_MM, out, n + 1)
        lengths[i] = n - before
    return out[:n], lengths
